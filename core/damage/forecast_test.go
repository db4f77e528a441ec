package damage

import (
	"math"
	"strings"
	"testing"
	"time"

	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// freezeOf plays a winter of normal days with a warm February and a frost after it, and gives what it did to a plant.
func freezeOf(t testing.TB, p check.Plant, minC float64, hours int) *cold.Outcome {
	t.Helper()
	c := lake(t)
	n := c.Daily()
	from, to := day.Of(2026, 9, 1), day.Of(2027, 3, 17)
	days := make([]season.Weather, to-from+1)
	for i := range days {
		d := from + day.Day(i)
		days[i] = season.Weather{MinC: n.TMin.At(d), MaxC: n.TMax.At(d)}
		if d.Month() == time.February && d.DayOfMonth() < 25 {
			days[i].MinC, days[i].MaxC = days[i].MinC+5, days[i].MaxC+5
		}
	}
	var record []weather.Hour
	start := day.Of(2027, 2, 25).Time()
	for i, temp := range season.Hourly(c.Latitude, from, days) {
		h := weather.Hour{Time: from.Time().Add(time.Duration(i) * time.Hour), TempC: temp, WindMS: 2, RHPct: 75, Sun: math.NaN()}
		if since := h.Time.Sub(start); since >= 0 && since < time.Duration(hours)*time.Hour {
			h.TempC = minC
		}
		record = append(record, h)
	}
	y := season.NewYear(n, weather.Daily(record, time.UTC))
	course := cold.Follow(y, record, time.UTC, march)
	l, ok := course.Look(&cold.Case{Plant: cold.Plant{Species: p.Species, HeightM: p.HeightM, Shelter: 0.5, Sun: 0.5}, Value: 1},
		func(d day.Day) catalogue.Stage { return p.Species.Stages(y, d)(d) }, march)
	if !ok {
		t.Fatal("no event was found")
	}
	return &l.Outcome
}

// TestForecastIsThePrior: before any check the belief follows the weather; checks can overrule it.
func TestForecastIsThePrior(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	camellia := plant(t, "camellia-japonica", 2)
	judge := func(f *cold.Outcome, checks ...check.Check) Answer {
		q := ask(t, "camellia-japonica", 2, march, y, checks...)
		q.Forecast = f
		a, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		return a
	}
	hard, none := freezeOf(t, camellia, -11, 14), judge(nil)
	if hard.Dieback < 0.4 {
		t.Fatalf("the freeze killed the top %.0f %% only: %s", 100*hard.Dieback, hard.Reason())
	}
	told := judge(hard)
	if told.Boundary.BestM >= none.Boundary.BestM || told.Boundary.CrownLost <= none.Boundary.CrownLost || told.Verdict.Kind != Look {
		t.Errorf("forecast: life ends about %.2f m, without it %.2f; verdict %s", told.Boundary.BestM, none.Boundary.BestM, told.Verdict.Kind)
	}
	// A forecast alone is no verdict, and is told as what it is.
	says := false
	for _, r := range told.Reasons {
		says = says || strings.Contains(r.Text, "Expected before any check") && strings.Contains(r.Text, "25 February") && r.Speaks == "dead"
	}
	if !says {
		t.Errorf("reasons: %+v", told.Reasons)
	}
	// One brown scratch near the top says more when the weather says the same.
	brown := scratch(1.8, "brown")
	if w, o := judge(hard, brown), judge(nil, brown); w.Boundary.BestM >= o.Boundary.BestM || w.Boundary.HighM > o.Boundary.HighM {
		t.Errorf("brown at the top: life ends about %.2f m (to %.2f) with the forecast, %.2f (%.2f) without", w.Boundary.BestM, w.Boundary.HighM, o.Boundary.BestM, o.Boundary.HighM)
	}
	// Green bark to the tip is believed over any forecast.
	green := []check.Check{scratch(1.95, "green"), scratch(1.9, "green"), rub(1.95, 8, 0), shoot(1.95)}
	if a := judge(hard, green...); a.Verdict.Kind != Leave {
		t.Errorf("alive to the tip against the forecast: %s", a.Verdict.Sentence)
	}
	// Broken buds say less of the wood when the frost is known to have taken buds by itself.
	mild := freezeOf(t, camellia, -7.5, 6)
	if mild.Dieback > 0.1 || mild.Share(cold.Buds) < 0.3 {
		t.Fatalf("wanted buds hurt and wood spared: %+v", mild.Organs)
	}
	broken := rub(1, 0, 6)
	if m, n := judge(mild, broken), judge(nil, broken); m.Boundary.BestM <= n.Boundary.BestM {
		t.Errorf("six broken buds: alive up to about %.2f m with the forecast, %.2f without", m.Boundary.BestM, n.Boundary.BestM)
	}
	// Belief stays a belief.
	for _, f := range []*cold.Outcome{nil, hard, mild} {
		b, sum := belief.Forecast(f), 0.0
		for _, p := range b.Chances() {
			if p < 0 {
				t.Fatalf("a chance of %g", p)
			}
			sum += p
		}
		if math.Abs(sum-1) > 1e-9 {
			t.Errorf("the belief sums to %g", sum)
		}
	}
}
