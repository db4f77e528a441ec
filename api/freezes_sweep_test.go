package api_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
	"mezzadro/house/estate"
)

// frozen is the course of a winter that ends with a freeze at dawn of a day, as a thermometer tells it.
func frozen(c season.Climate, on day.Day, lowC float64, hours int) *cold.Course {
	from := on - 200
	n := c.Daily()
	days := make([]season.Weather, on+4-from)
	for i := range days {
		d := from + day.Day(i)
		days[i] = season.Weather{MinC: n.TMin.At(d), MaxC: n.TMax.At(d)}
	}
	out := make([]weather.Hour, 0, 24*len(days))
	for i, t := range season.Hourly(c.Latitude, from, days) {
		at := from.Time().Add(time.Duration(i) * time.Hour)
		since := int(at.Sub(on.Time()) / time.Hour)
		if since >= -hours/2 && since < hours-hours/2 {
			t = min(t, lowC)
		}
		out = append(out, weather.Hour{Time: at, TempC: t, RainMM: math.NaN(), WindMS: 1.5, RHPct: 75, Sun: math.NaN()})
	}
	return cold.Follow(season.NewYear(n, weather.Daily(out, time.UTC)), out, time.UTC, on+3)
}

// spotC is by how much a plant stands colder or milder than its thermometer, and its seedling bears more or less than
// its kind, together: one standard deviation, °C.
const spotC = 1.4

// TestLookoutOver200Freezes: after freezes of any depth from November to April, hardly a plant of the sample that lost
// wood, heart, crown or roots goes unasked for, and few are asked for in vain. The truth is drawn a little off the
// thermometer, plant by plant. A simulation: the plants are hurt by the model's own rules.
func TestLookoutOver200Freezes(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	triage, err := h.server.Estate.Triage(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	at := map[int64]*estate.Place{}
	for _, p := range triage.Places {
		at[p.Property.ID] = p
	}
	climate := triage.Places[0].Property.Climate.V
	asked, vain, hurt, missed := 0, 0, 0, 0
	r := rand.New(rand.NewPCG(200, 11))
	for range 200 {
		on := day.Of(2026, 11, 10) + day.Day(r.IntN(155))
		low, hours := -3-11*r.Float64(), 4+r.IntN(10)
		told := frozen(climate, on, low, hours)
		var real [3]*cold.Course // what befell plants in the coldest, middle and mildest third of spots
		for i, z := range []float64{-1.1, 0, 1.1} {
			real[i] = frozen(climate, on, low+z*spotC, hours)
		}
		for _, kept := range triage.Kept {
			e, err := h.server.Estate.Catalogue.Species(kept.Species)
			if err != nil {
				t.Fatal(err)
			}
			k := estate.CaseOf(kept, e, at[kept.PropertyID].Property)
			look := func(c *cold.Course) cold.Look {
				l, _ := c.Look(&k, e.Stages(c.Year, on), on+2)
				return l
			}
			l, truth := look(told), look(real[r.IntN(3)])
			lost := truth.Severity >= 0.16 && cold.Deep(truth.Worst.Organ)
			if l.Worth {
				asked++
				if truth.Severity < 0.08 {
					vain++
				}
			}
			if lost {
				hurt++
				if !l.Worth && !l.Slight {
					missed++
				}
			}
		}
	}
	t.Logf("asked for %d, %.0f %% in vain; hurt %d, %.1f %% not asked for", asked, 100*float64(vain)/float64(asked),
		hurt, 100*float64(missed)/float64(hurt))
	if vain*5 > asked {
		t.Errorf("%d of %d looks are in vain, want less than a fifth", vain, asked)
	}
	if missed*50 > hurt {
		t.Errorf("%d of %d hurt plants are not asked for, want less than one in fifty", missed, hurt)
	}
}
