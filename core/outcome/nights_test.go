package outcome

import (
	"math"
	"math/rand/v2"
	"testing"
)

// TestNightsOf: a forecast whose error grows from day to day is seen to, one that tells nights too warm is seen to be
// so and to miss frosts, and one that always comes true has no fault.
func TestNightsOf(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 2))
	season := func(off, each float64) (out []Night) {
		for range 400 {
			came := -1 + 4*r.NormFloat64()
			for ahead := 1; ahead <= 9; ahead++ {
				out = append(out, Night{ahead, came + off + each*float64(ahead)*r.NormFloat64(), came})
			}
		}
		return out
	}
	fair := NightsOf(season(0, 0.6))
	if len(fair) != 4 {
		t.Fatalf("%+v", fair)
	}
	for i, s := range fair {
		if i > 0 && s.OffC <= fair[i-1].OffC || math.Abs(s.BiasC) > 0.4 || s.Hit == 0 {
			t.Errorf("an error that grows: %+v", fair)
		}
	}
	for i, s := range NightsOf(season(2, 0.3)) {
		if s.BiasC < 1.5 || s.BiasC > 2.5 || s.Missed < 3*s.False+10 && i == 0 {
			t.Errorf("told too warm: %+v", s)
		}
	}
	for _, s := range NightsOf(season(0, 0)) {
		if s.OffC != 0 || s.BiasC != 0 || s.False+s.Missed != 0 {
			t.Errorf("comes true: %+v", s)
		}
	}
	if out := NightsOf([]Night{{3, -1, 1}}); len(out) != 1 || out[0].From != 2 || out[0].False != 1 ||
		out[0].BiasC != -2 {
		t.Errorf("one night: %+v", out)
	}
}
