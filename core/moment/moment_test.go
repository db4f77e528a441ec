package moment

import (
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// TestWhen reads moments as the data writes them, and refuses what is none.
func TestWhen(t *testing.T) {
	for text, want := range map[string]When{"leaf_out": {"leaf_out", 0}, "bloom_end+42": {"bloom_end", 42}, "last_frost-7": {"last_frost", -7}} {
		var w When
		if err := w.UnmarshalText([]byte(text)); err != nil || w != want {
			t.Errorf("%s: %+v, %v", text, w, err)
		}
	}
	for _, text := range []string{"full_moon", "leaf_out+soon", ""} {
		var w When
		if err := w.UnmarshalText([]byte(text)); err == nil {
			t.Errorf("%q is taken for a moment: %+v", text, w)
		}
	}
}

// TestCalendar: events come in the order of the year, in both hemispheres, and can be asked for forward, backward and
// nearby.
func TestCalendar(t *testing.T) {
	for climate, bloom := range map[string][]time.Month{"lake-foothills": {4, 5}, "southern-foothills": {9, 10, 11}, "prairie": {5, 6}} {
		c, err := catalogue.Built().Climate(climate)
		if err != nil {
			t.Fatal(err)
		}
		e, err := catalogue.Built().Species("syringa-vulgaris")
		if err != nil {
			t.Fatal(err)
		}
		cal := At(season.NewYear(c.Climate.Daily(), nil)).Of(&e, day.Of(2027, 6, 1))
		start, ok := cal.Next(On("bloom_start", 0), day.Of(2027, 1, 1))
		in := false
		for _, m := range bloom {
			in = in || start.Month() == m
		}
		end, _ := cal.Next(On("bloom_end", 0), start)
		if !ok || !in || end <= start || end-start > 60 {
			t.Errorf("%s: lilacs bloom %s to %s", climate, start, end)
		}
		if cal.Before("bloom_start", end) != start || cal.Nearest(On("bloom_start", 10), start+12) != start+10 {
			t.Errorf("%s: %s is not found again", climate, start)
		}
		if out := cal.Before("leaf_out", start+30); out == day.None || start-out > 90 {
			t.Errorf("%s: leafs out %s before a bloom on %s", climate, out, start)
		}
		for _, event := range events {
			days := cal.On(event)
			if len(days) == 0 {
				t.Errorf("%s: no %s", climate, event)
			}
			for i := 1; i < len(days); i++ {
				if days[i] <= days[i-1] {
					t.Errorf("%s: %s in no order: %v", climate, event, days)
				}
			}
		}
		if cal.Before("bloom_start", day.Of(2020, 1, 1)) != day.None {
			t.Errorf("%s: a bloom before all that are known", climate)
		}
	}
}
