package api_test

import (
	"context"
	"strings"
	"testing"

	"mezzadro/core/day"
	"mezzadro/demo"
	"mezzadro/house/overview"
)

// TestSampleElsewhere: the sample moved to four other climates opens with weather of the place and a look-list that triages: a
// hard winter on plants of a mild lake is many hurt plants, a mild one few, and never all.
func TestSampleElsewhere(t *testing.T) {
	t.Parallel()
	for climate, most := range map[string]float64{"prairie": 1, "gulf-coast": 0.6, "hot-desert": 0.6, "pampas": 0.6} {
		h := newHouse(t)
		sample, err := demo.Read()
		if err == nil {
			sample, err = sample.In(climate)
		}
		if err != nil {
			t.Fatal(err)
		}
		home, err := sample.Day()
		if err != nil {
			t.Fatal(err)
		}
		if err := sample.Load(context.Background(), h.site, func(d day.Day) { h.today = d }); err != nil {
			t.Fatalf("%s: %v", climate, err)
		}
		if h.today != home {
			t.Errorf("%s: opens on %s, want %s", climate, h.today, home)
		}
		l := ok[overview.Lookout](h, "GET", "/lookout", nil)
		n := l.Looks + l.Slight + l.Unhurt
		t.Logf("%s on %s: %d plants, %d to look at (%d deep), %d hurt a little, %d events", climate, home, n, l.Looks, l.Deep, l.Slight, len(l.Events))
		if n > 0 && float64(l.Looks) > most*float64(n) {
			t.Errorf("%s: %d of %d plants want a look", climate, l.Looks, n)
		}
		for _, e := range l.Events {
			if strings.Contains(e.Story, "NaN") {
				t.Errorf("%s: %s", climate, e.Story)
			}
		}
	}
	sample, _ := demo.Read()
	if _, err := sample.In("the moon"); err == nil || !strings.Contains(err.Error(), "--climate") {
		t.Errorf("a climate that is none: %v", err)
	}
}
