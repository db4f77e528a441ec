package treatment

import (
	"slices"
	"testing"
)

// TestMix: a day's spray in knapsacks, as one would fill them at the tap.
func TestMix(t *testing.T) {
	for _, c := range []struct {
		name                  string
		spray, product, tankL float64
		want                  []Tank
	}{
		{"less than a tank", 3, 45, 15, []Tank{{1, 3, 45}}},
		{"two tanks and a rest", 33.2, 664, 15, []Tank{{2, 15, 300}, {1, 3.5, 70}}},
		{"full to the brim", 30, 90, 15, []Tank{{2, 15, 45}}},
		{"a hand sprayer", 0.4, 8, 1, []Tank{{1, 0.5, 10}}},
		{"nothing", 0, 0, 15, []Tank{}},
	} {
		if got := Mix(c.spray, c.product, c.tankL); !slices.Equal(got.Tanks, c.want) {
			t.Errorf("%s: %v, want %v", c.name, got.Tanks, c.want)
		}
	}
	for v, want := range map[float64]float64{2.3: 2.5, 17.4: 17, 123: 125, 664: 660} {
		if got := Jug(v); got != want {
			t.Errorf("%g in the jug: %g, want %g", v, got, want)
		}
	}
}
