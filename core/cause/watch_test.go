package cause

import (
	"fmt"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

func kind(t testing.TB, id string) *catalogue.Entry {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return &e
}

// TestWatch: who is looked at after a find, and who is not, as a careful gardener would.
func TestWatch(t *testing.T) {
	today := day.Of(2027, 6, 20)
	km := func(a, b int64) float64 { return map[int64]float64{1: 0, 2: 1, 3: 30, 4: -1}[max(a, b)] }
	plants := []Standing{
		{11, 1, kind(t, "buxus-sempervirens")}, {12, 1, kind(t, "buxus-sempervirens")}, {13, 1, kind(t, "rosa-bedding")}, {14, 1, kind(t, "rosa-rugosa")},
		{15, 1, kind(t, "rosa-tea")}, {21, 2, kind(t, "buxus-sempervirens")}, {22, 2, kind(t, "rosa-bedding")}, {31, 3, kind(t, "buxus-sempervirens")},
		{41, 4, kind(t, "buxus-sempervirens")}, {16, 1, kind(t, "ulmus-minor")},
	}
	for _, c := range []struct {
		name  string
		find  Found
		watch []int64 // looked at, whatever the order
		first int64
	}{
		{"box blight goes with blades to every box of the round, not with those 30 km off",
			Found{Cause: "box-blight", Plant: 11, Property: 1, Day: today - 5, Certainty: 0.95}, []int64{12, 21, 41}, 12},
		{"the box moth flies a kilometre, not thirty", Found{Cause: "box-caterpillar", Plant: 11, Property: 1, Day: today - 5, Certainty: 0.95}, []int64{12, 21}, 12},
		{"black spot stays on the property, and spares the roses that resist it", Found{Cause: "black-spot", Plant: 13, Property: 1, Day: today - 10, Certainty: 0.9}, []int64{15}, 15},
		{"standing water does not travel", Found{Cause: "standing-water", Plant: 11, Property: 1, Day: today, Certainty: 1}, nil, 0},
		{"nobody goes round for greenfly", Found{Cause: "aphids", Plant: 13, Property: 1, Day: today, Certainty: 1}, nil, 0},
		{"a find of two years ago tells nothing of black spot", Found{Cause: "black-spot", Plant: 13, Property: 1, Day: today - 700, Certainty: 1}, nil, 0},
		{"one that was dealt with counts for less: the neighbours only", Found{Cause: "box-blight", Plant: 11, Property: 1, Day: today - 5, Certainty: 0.95, Closed: true},
			[]int64{12}, 12},
		{"nobody is sure: little is made of it", Found{Cause: "box-blight", Plant: 11, Property: 1, Day: today, Certainty: 0.05}, nil, 0},
	} {
		got := Built().Watch([]Found{c.find}, plants, km, today)
		have := map[int64]bool{}
		for _, s := range got {
			have[s.Plant] = true
			if s.Why == "" || s.Chance <= 0 || s.Chance >= 1 {
				t.Errorf("%s: %+v", c.name, s)
			}
		}
		for _, p := range c.watch {
			if !have[p] {
				t.Errorf("%s: plant %d is not watched", c.name, p)
			}
			delete(have, p)
		}
		if len(have) > 0 || c.first != 0 && (len(got) == 0 || got[0].Plant != c.first) {
			t.Errorf("%s: also %v, first %+v", c.name, have, got)
		}
	}
}

// TestNearby: what was found next door makes the same likelier here, and never less likely.
func TestNearby(t *testing.T) {
	b := Built()
	today := day.Of(2027, 7, 1)
	one := func(a, b int64) float64 { return 0.5 }
	k := kase(t, "rosa-bedding", 7, "leaf_drop", "")
	before, err := b.Diagnose(k)
	if err != nil {
		t.Fatal(err)
	}
	k.Near = b.Nearby([]Found{{Cause: "black-spot", Plant: 9, Property: 1, Day: today - 3, Certainty: 1}}, Standing{8, 1, k.Species}, one, today)
	after, err := b.Diagnose(k)
	if err != nil {
		t.Fatal(err)
	}
	of := func(d Diagnosis) float64 {
		for _, c := range d.Causes {
			if c.ID == "black-spot" {
				return c.Chance
			}
		}
		return 0
	}
	if of(after) <= of(before) || k.Near["black-spot"] < 3 {
		t.Errorf("before %.3f, after %.3f, near %v", of(before), of(after), k.Near)
	}
}

func BenchmarkWatch10000(b *testing.B) {
	book, today := Built(), day.Of(2027, 6, 20)
	all := catalogue.Built().Entries
	plants := make([]Standing, 10000)
	for i := range plants {
		plants[i] = Standing{int64(i + 1), int64(i%200 + 1), &all[i%len(all)]}
	}
	var finds []Found
	for i, c := range []string{"box-blight", "box-caterpillar", "black-spot", "aphids", "powdery-mildew", "fire-blight", "spider-mite", "honey-fungus", "lace-bug", "weevil"} {
		for n := range 5 {
			finds = append(finds, Found{ID: int64(len(finds) + 1), Cause: c, Plant: int64(97*i + n + 1), Property: int64(i + n + 1), Day: today - day.Day(7*n), Certainty: 0.9})
		}
	}
	km := func(x, y int64) float64 { return float64(max(x-y, y-x)) }
	for b.Loop() {
		if n := len(book.Watch(finds, plants, km, today)); n == 0 {
			b.Fatal(fmt.Sprint(n, " suspects"))
		}
	}
}
