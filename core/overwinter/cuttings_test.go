package overwinter

import (
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// TestCuttings: a glass on the sill, into soil in some weeks, out when frost is over or, of hardy kinds taken early, in
// the same year.
func TestCuttings(t *testing.T) {
	for _, c := range []struct {
		name, kind, climate string
		taken               day.Day
		soil, out           day.Day // about when, within three weeks
		winter              bool    // it is kept over winter
	}{
		{"oleander in June", "nerium-oleander", "lake-foothills", day.Of(2027, time.June, 20), day.Of(2027, time.July, 18), day.Of(2027, time.September, 5), false},
		{"oleander in September", "nerium-oleander", "lake-foothills", day.Of(2027, time.September, 5), day.Of(2027, time.October, 3), day.Of(2028, time.April, 20), true},
		{"geraniums in August on the steppe", "pelargonium-zonal", "prairie", day.Of(2027, time.August, 15), day.Of(2027, time.September, 5), day.Of(2028, time.June, 1), true},
		{"mint in May", "mentha-spicata", "oceanic-lowland", day.Of(2027, time.May, 10), day.Of(2027, time.May, 24), day.Of(2027, time.July, 17), false},
		{"geraniums in March", "pelargonium-zonal", "cold-lowland", day.Of(2027, time.March, 5), day.Of(2027, time.March, 26), day.Of(2027, time.May, 15), false},
		{"fuchsias south of the equator", "fuchsia-magellanica", "southern-foothills", day.Of(2027, time.February, 20), day.Of(2027, time.March, 13), day.Of(2027, time.December, 1), true},
	} {
		book := catalogue.Built()
		cl, err := book.Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		e, ok := book.Entry(c.kind)
		if !ok {
			t.Fatal(c.kind)
		}
		w, err := Cuttings(e, c.taken, season.NewYear(cl.Climate.Daily(), nil))
		if err != nil {
			t.Fatal(err)
		}
		near := func(a, b day.Day) bool { return a.Sub(b) <= 21 && b.Sub(a) <= 21 }
		last := w.Steps[len(w.Steps)-1]
		kept := false
		for i, s := range w.Steps {
			kept = kept || strings.Contains(s.Do, "over winter")
			if s.To < s.From || i > 0 && s.From < w.Steps[i-1].From {
				t.Errorf("%s: out of order: %+v", c.name, w.Steps)
			}
		}
		if !near(w.Steps[1].From, c.soil) || !near(last.From, c.out) || kept != c.winter {
			t.Errorf("%s: into soil %s, want %s; out %s, want %s; over winter %v: %+v", c.name, w.Steps[1].From, c.soil, last.From, c.out, kept, w.Steps)
		}
	}
	lake, err := catalogue.Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	y := season.NewYear(lake.Climate.Daily(), nil)
	box, _ := catalogue.Built().Entry("buxus-sempervirens")
	w, err := Cuttings(box, day.Of(2027, 6, 1), y)
	if err != nil || w.Steps[0].From < day.Of(2027, 7, 5) || w.Steps[0].From > day.Of(2027, 8, 10) || !strings.Contains(w.Why, "half-ripe") {
		t.Errorf("box on 1 June: %+v, %v; want half-ripe cuttings in July or August", w, err)
	}
	for _, id := range []string{"quercus-robur", "malus-domestica", "solanum-lycopersicum", "trachycarpus-fortunei"} {
		e, _ := catalogue.Built().Entry(id)
		if w, err := Cuttings(e, day.Of(2027, 6, 1), y); err == nil {
			t.Errorf("%s from cuttings: %+v", id, w)
		}
	}
}

// TestRootsInWater: each kind that is listed is there.
func TestRootsInWater(t *testing.T) {
	for id := range book().RootInWater {
		if _, ok := catalogue.Built().Entry(id); !ok {
			t.Errorf("there is no %s", id)
		}
	}
}
