package outcome

import (
	"fmt"
	"math/rand/v2"
	"testing"
)

// made is so many prognoses of a kind of plant, told with a chance, of which a share comes true.
func made(r *rand.Rand, n int, kind, person string, told, true1 float64) (out []Case) {
	for range n {
		c := Case{
			Foretold: Foretold{Chance: told, Low: 1, High: 2, Seasons: 2, State: TurnedDead},
			Kind:     kind,
			Person:   person,
			Verdict:  "cut back",
			Zone:     "9a",
		}
		if r.Float64() < true1 {
			c.State = TurnedRight
		}
		out = append(out, c)
	}
	return out
}

// TestGroups: where forecasts are right for one kind and wrong for another, the kinds tell so, and the whole does not hide it;
// what is too little to tell is left out, and what nobody named stands in no group.
func TestGroups(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 8))
	list := append(made(r, 200, "olea-europaea", "Ilda", 0.7, 0.7), made(r, 200, "citrus-limon", "Bruno", 0.7, 0.3)...)
	list = append(list, made(r, 2, "ficus-carica", "", 0.5, 0.5)...)
	for i := range 200 {
		list[i].Cause = "Freeze" // of the others nobody knows
	}
	got := map[string]Group{}
	for _, g := range Groups(list) {
		got[g.By+" "+g.Name] = g
	}
	if g := got["kind olea-europaea"]; len(g.Bins) != 1 || !g.Bins[0].Right || g.Judged != 200 {
		t.Errorf("told rightly: %+v", g)
	}
	if g := got["kind citrus-limon"]; len(g.Bins) != 1 || g.Bins[0].Right || g.Brier <= g.Usual {
		t.Errorf("told wrongly: %+v", g)
	}
	if _, there := got["kind ficus-carica"]; there {
		t.Error("two plants make a group")
	}
	if g := got["cause Freeze"]; g.Judged != 200 || !g.Bins[0].Right {
		t.Errorf("after freezes: %+v", g)
	}
	if len(got) != 7 { // two kinds, one verdict, one zone, two people, one cause
		t.Errorf("%d groups: %v", len(got), got)
	}
	if g := got["verdict cut back"]; g.Judged != 402 {
		t.Errorf("of all verdicts %d", g.Judged)
	}
}

// BenchmarkGroups scores 10,000 outcomes, with all groups.
func BenchmarkGroups(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 1))
	list := []Case{}
	for n := range 100 {
		list = append(list, made(r, 100, fmt.Sprint("kind-", n), fmt.Sprint("person ", n%7), r.Float64(), 0.5)...)
	}
	for b.Loop() {
		if g := Groups(list); len(g) < 100 {
			b.Fatal(len(g))
		}
	}
}
