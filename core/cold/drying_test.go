package cold

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// wintered is a made-up winter of a climate by the hour, from October to May.
func wintered(c season.Climate, seed uint64) (*season.Year, []weather.Hour, day.Day) {
	n := c.Daily()
	from, days := day.Of(2026, 10, 1), 230
	made := season.Generator{Normals: n, Seed: seed}.Days(from, days)
	temps := season.Hourly(c.Latitude, from, made)
	hours := make([]weather.Hour, len(temps))
	start := time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC).Add(-time.Duration(c.Longitude/15*3600) * time.Second).Truncate(time.Hour)
	for i, t := range temps {
		d := made[i/24]
		mean := (d.MinC + d.MaxC) / 2
		rh := math.Max(20, math.Min(100, d.RHPct-2.5*(t-mean))) // drier by day
		hours[i] = weather.Hour{Time: start.Add(time.Duration(i) * time.Hour), TempC: t, RHPct: rh, WindMS: d.WindMS, Sun: d.Sun, RainMM: d.RainMM / 24}
	}
	return season.NewYear(n, weather.Daily(hours, time.UTC)), hours, from + day.Day(days) - 1
}

// differing is a plant of a kind that bears more or less drying than others of it, as drawn.
func differing(e *catalogue.Entry, seed uint64) *catalogue.Entry {
	own := *e
	own.DryingKPAH *= math.Exp(plantsDiffer * rand.New(rand.NewPCG(seed, uint64(len(e.ID)))).NormFloat64())
	return &own
}

// TestDryingWinters: over a hundred made-up winters in ten climates evergreens that are ordinarily planted there are
// burnt, a third of their leaves or more, now and then where they stand open and seldom where they stand sheltered. It
// prints how often.
func TestDryingWinters(t *testing.T) {
	planted := map[string][]string{
		"great-lakes":       {"thuja-occidentalis", "buxus-sempervirens", "taxus-baccata", "rhododendron-hybrid", "picea-glauca"},
		"prairie":           {"thuja-occidentalis", "picea-pungens", "juniperus-horizontalis"},
		"northern-prairie":  {"picea-pungens", "juniperus-horizontalis", "thuja-occidentalis"},
		"cold-lowland":      {"prunus-laurocerasus", "buxus-sempervirens", "taxus-baccata", "rhododendron-hybrid", "thuja-occidentalis", "ilex-aquifolium"},
		"continental-basin": {"prunus-laurocerasus", "buxus-sempervirens", "taxus-baccata", "photinia-fraseri"},
		"alpine-foreland":   {"prunus-laurocerasus", "buxus-sempervirens", "taxus-baccata", "rhododendron-hybrid"},
		"mountain-steppe":   {"juniperus-chinensis", "picea-pungens", "pinus-mugo", "mahonia-aquifolium"},
		"humid-east":        {"azalea-evergreen", "rhododendron-hybrid", "prunus-laurocerasus", "buxus-sempervirens", "ilex-crenata"},
		"nordic-coast":      {"picea-abies", "taxus-baccata", "rhododendron-hybrid", "buxus-sempervirens"},
		"oceanic-lowland":   {"prunus-laurocerasus", "rhododendron-hybrid", "camellia-japonica", "viburnum-tinus"},
	}
	const winters = 100
	all, safe, pairs := 0, 0, 0
	for place, kinds := range planted {
		c := climate(t, place)
		open, shut := map[string]int{}, map[string]int{}
		for seed := range uint64(winters) {
			y, hours, last := wintered(c, seed+1)
			course := Follow(y, hours, time.UTC, last)
			for _, id := range kinds {
				e, known := catalogue.Built().Entry(id)
				if !known {
					t.Fatalf("no kind %s", id)
				}
				e = differing(e, seed)
				burnt := func(shelter, sun float64) bool {
					p := Plant{Species: *e, HeightM: 0.4 * e.Mature.HeightM, Shelter: shelter, Sun: sun}
					for i := range course.Events {
						if s := &course.Events[i]; s.Kind == DryingWind {
							o := s.Meet(&p, e.Stages(y, s.Day)(s.Day))
							for _, x := range o.Organs {
								if x.By == ByDrying && x.Share >= 1.0/3 {
									return true
								}
							}
						}
					}
					return false
				}
				if burnt(0.15, 0.9) {
					open[id]++
				}
				if burnt(0.8, 0.4) {
					shut[id]++
				}
			}
		}
		for _, id := range kinds {
			if open[id] > 65 || shut[id] > 25 || open[id] < shut[id] {
				t.Errorf("%s: %s is burnt in %d of %d winters where it stands open, in %d sheltered", place, id, open[id], winters, shut[id])
			}
			all += open[id]
			safe += shut[id]
			pairs++
			t.Logf("%-18s %-24s burnt in %3d of %d winters open, %3d sheltered", place, id, open[id], winters, shut[id])
		}
	}
	t.Logf("in the mean burnt in %d %% of winters open, %d %% sheltered", all/pairs, safe/pairs)
	if all/pairs > 20 || all/pairs < 10 || safe/pairs > 6 || safe/pairs < 2 {
		t.Errorf("burnt in %d %% of winters open, %d %% sheltered; want one in five to ten, and one in twenty", all/pairs, safe/pairs)
	}
}

// TestDryingBySize: the same spell dries low plants sooner than tall ones, bare ground sooner than mulched, and none
// under snow; what thaws is made good, and a winter is no single spell.
func TestDryingBySize(t *testing.T) {
	c := climate(t, "cold-lowland")
	jan := day.Of(2027, 1, 15)
	course := func(snowMM float64, thaw bool) *Course {
		hours := normalHours(c, day.Of(2026, 10, 1), jan+40)
		for i := range hours {
			d := day.FromTime(hours[i].Time)
			hours[i].RainMM = 0
			if d >= jan-14 && d < jan+21 {
				hours[i].TempC, hours[i].WindMS, hours[i].RHPct, hours[i].Sun = -4, 6, 50, 0.9
				if d == jan-14 {
					hours[i].TempC, hours[i].RainMM = -1, snowMM/24
				}
				if thaw && (d/4)%2 == 0 {
					hours[i].TempC = 7
				}
			}
		}
		return Follow(season.NewYear(c.Daily(), weather.Daily(hours, time.UTC)), hours, time.UTC, jan+40)
	}
	dose := func(k *Course, heightM float64, mulched bool) (most float64) {
		p := Plant{Species: species(t, "prunus-laurocerasus"), HeightM: heightM, Shelter: 0.2, Sun: 0.9, Mulched: mulched}
		for i := range k.Events {
			if e := &k.Events[i]; e.Kind == DryingWind {
				o := e.Meet(&p, catalogue.Stage{SinceLeafOut: -90, Leafing: true})
				most = max(most, o.Dose)
				if e.Hours > 60*24 {
					t.Errorf("one event of %d h", e.Hours)
				}
			}
		}
		return most
	}
	dry := course(0, false)
	low, tall, mulched := dose(dry, 0.6, false), dose(dry, 3, false), dose(dry, 0.6, true)
	if !(low > tall && low > mulched && low > 5) {
		t.Errorf("low %.1f, tall %.1f, mulched %.1f kPa·h", low, tall, mulched)
	}
	if v := dose(course(120, false), 0.6, false); v > low/3 {
		t.Errorf("under 60 cm of snow %.1f, without %.1f", v, low)
	}
	if v := dose(course(0, true), 0.6, false); v > low/2 {
		t.Errorf("with thaws %.1f, without %.1f", v, low)
	}
}
