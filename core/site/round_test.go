package site

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
)

func plants(at ...At) (out []Thing) {
	for i, q := range at {
		out = append(out, Thing{ID: fmt.Sprint(i), Kind: Plant, HeightM: 1, Points: []At{q}})
	}
	return out
}

// TestWayRound: round the garden from the gate, not across it; a wall between two rows is gone round once.
func TestWayRound(t *testing.T) {
	gate := Thing{ID: "g", Kind: Gate, Points: []At{{0, 0}}}
	ring := Plan{Things: append(plants(At{0, 10}, At{10, 0}, At{10, 10}, At{5, 12}), gate)}
	if got := ring.WayRound(); !slices.Equal(got, []string{"0", "3", "2", "1"}) && !slices.Equal(got, []string{"1", "2", "3", "0"}) {
		t.Errorf("a ring: %v", got)
	}
	rows := Plan{Things: append(plants(At{2, 1}, At{2, -1}, At{4, 1}, At{4, -1}, At{6, 1}, At{6, -1}), gate,
		Thing{ID: "w", Kind: Wall, HeightM: 2, Points: []At{{0.5, 0}, {7, 0}}})}
	got := rows.WayRound()
	turns := 0
	for i := 1; i < len(got); i++ {
		if rows.Thing(got[i]).Points[0].Y*rows.Thing(got[i-1]).Points[0].Y < 0 {
			turns++
		}
	}
	if turns != 1 {
		t.Errorf("the wall is crossed %d times: %v", turns, got)
	}
	if got := (&Plan{}).WayRound(); len(got) != 0 {
		t.Errorf("nothing: %v", got)
	}
}

// TestWayRoundAll: each plant comes once, and the way is no longer than in the order of the record.
func TestWayRoundAll(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 2))
	for n := range 40 {
		at := []At{}
		for range n {
			at = append(at, At{r.Float64() * 60, r.Float64() * 40})
		}
		p := Plan{Things: plants(at...)}
		got := p.WayRound()
		long := func(ids []string) float64 {
			pts := []At{}
			for _, id := range ids {
				pts = append(pts, p.Thing(id).Points[0])
			}
			return Length(pts)
		}
		as := []string{}
		for i := range at {
			as = append(as, fmt.Sprint(i))
		}
		sorted := slices.Sorted(slices.Values(got))
		if slices.Sort(as); !slices.Equal(sorted, as) {
			t.Fatalf("%d plants: %v", n, got)
		}
		if n > 5 && long(got) > long(as) {
			t.Errorf("%d plants: %.0f m, by the record %.0f", n, long(got), long(as))
		}
	}
}
