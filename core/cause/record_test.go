package cause

import (
	"maps"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
)

// TestLately: what a gardener would say of the last weeks, looking out of the window.
func TestLately(t *testing.T) {
	today := day.Of(2027, 7, 1)
	month := func(h weather.Hour) []weather.Hour {
		var out []weather.Hour
		for d := today - 40; d <= today; d++ {
			for hour := range 24 {
				x := h
				x.Time = d.Time().Add(time.Duration(hour) * time.Hour)
				x.TempC += map[bool]float64{true: 5, false: -5}[hour >= 8 && hour < 20]
				out = append(out, x)
			}
		}
		return out
	}
	for _, c := range []struct {
		name  string
		hours []weather.Hour
		want  map[string]bool
	}{
		{"close summer without rain", month(weather.Hour{TempC: 22, RHPct: 75}), map[string]bool{"was_frost": false, "was_heat": false, "was_dry": true, "was_wet": false, "mildew_days": true}},
		{"a wet cool month", month(weather.Hour{TempC: 11, RHPct: 85, RainMM: 0.2}), map[string]bool{"was_frost": false, "was_heat": false, "was_dry": false, "was_wet": true, "mildew_days": false}},
		{"desert heat", month(weather.Hour{TempC: 33, RHPct: 15}), map[string]bool{"was_frost": false, "was_heat": true, "was_dry": true, "was_wet": false, "mildew_days": false}},
		{"frost at night", month(weather.Hour{TempC: 2, RHPct: 80, RainMM: 0.05}), map[string]bool{"was_frost": true, "was_heat": false, "mildew_days": false}},
		{"a gale", month(weather.Hour{TempC: 15, RHPct: 70, RainMM: 0.05, WindMS: 22}), map[string]bool{"was_frost": false, "was_heat": false, "was_hail": true, "mildew_days": false}},
		{"no record", nil, map[string]bool{}},
	} {
		if got := LatelyOf(c.hours, time.UTC, today).Signs(); !maps.Equal(got, c.want) {
			t.Errorf("%s: %v, want %v", c.name, got, c.want)
		}
	}
	later := LatelyOf(month(weather.Hour{TempC: 33}), time.UTC, today-60)
	if later.Days != 0 {
		t.Errorf("weather of after the day counts: %+v", later)
	}
}

// TestSpot: what the record answers of place and work, and what it leaves to be asked.
func TestSpot(t *testing.T) {
	for _, c := range []struct {
		name string
		spot Spot
		want map[string]bool
	}{
		{"old tree in the sun", Spot{Sun: 1, HeightM: 9, Years: 30}, map[string]bool{"deep_shade": false, "pot_small": false, "pot_frozen": false, "planted_lately": false}},
		{"lemon in a ten litre pot", Spot{Sun: 0.5, PotL: 10, HeightM: 1.6}, map[string]bool{"pot_small": true}},
		{"lemon in sixty litres", Spot{Sun: 0.5, PotL: 60, HeightM: 1.6}, map[string]bool{}},
		{"new hedge beside one cut down", Spot{Sun: 0.1, HeightM: 1, Years: 1, NeighbourC: true}, map[string]bool{"deep_shade": true, "pot_small": false, "pot_frozen": false, "planted_lately": true, "neighbour_cut": true}},
		{"nobody knows its light", Spot{Sun: -1, HeightM: 1, Wet: true}, map[string]bool{"pot_small": false, "pot_frozen": false, "water_stands": true}},
	} {
		if got := c.spot.Signs(); !maps.Equal(got, c.want) {
			t.Errorf("%s: %v, want %v", c.name, got, c.want)
		}
	}
}

// TestPotsAndNeighbours: which pots a night goes through, and whose cut lets the sun in.
func TestPotsAndNeighbours(t *testing.T) {
	if !FreezesThrough(-8, 10) || FreezesThrough(-8, 0) || FreezesThrough(-8, 90) || FreezesThrough(-1, 10) {
		t.Error("pots: small ones freeze through in hard frost, large ones and the ground do not")
	}
	if !ShadedBy(4, 5, 1, 6) || ShadedBy(4, 9, 1, 6) || ShadedBy(4, 5, 6, 1) || ShadedBy(0, 1, 1, 6) {
		t.Error("neighbours: the taller one beside it, and no other")
	}
}
