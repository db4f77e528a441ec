package rounds

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"reflect"
	"testing"
)

// TestRestore: a plan that was written down with its problem is the same plan again when both are read back: the same
// visits at the same hours, the same score, the same words on why.
func TestRestore(t *testing.T) {
	for seed := range uint64(20) {
		p := random(rand.New(rand.NewPCG(seed, 5)), 9, 5, 2, 5)
		was, err := Make(p, seed, Rounds(60))
		if err != nil {
			t.Fatal(err)
		}
		text, err := json.Marshal(struct {
			P *Problem
			V []Visit
		}{p, was.Visits})
		if err != nil {
			t.Fatal(err)
		}
		var kept struct {
			P *Problem
			V []Visit
		}
		if err := json.Unmarshal(text, &kept); err != nil {
			t.Fatal(err)
		}
		again, err := Restore(kept.P, kept.V)
		if err != nil {
			t.Fatal(err)
		}
		if !reflect.DeepEqual(again.Visits, was.Visits) || math.Abs(again.Score.Total-was.Score.Total) > 0.11 ||
			len(again.Left) != len(was.Left) {
			t.Errorf(
				"seed %d: %+v, %g\nwas %+v, %g",
				seed,
				again.Visits,
				again.Score.Total,
				was.Visits,
				was.Score.Total,
			)
		}
		if len(p.Jobs) > 0 {
			if a, b := again.Explain(0).Text, was.Explain(0).Text; a != b {
				t.Errorf("seed %d: %q, was %q", seed, a, b)
			}
		}
	}
	strange := []Visit{{Crew: 7}, {Crew: 0, Day: 99}, {Crew: 0, Jobs: []int{1000}}}
	if again, err := Restore(random(rand.New(rand.NewPCG(1, 5)), 9, 5, 2, 5), strange); err != nil ||
		len(again.Visits) != 0 {
		t.Errorf("visits of nobody: %+v, %v", again.Visits, err)
	}
}
