package site

import (
	"math"
	"testing"
	"time"

	"mezzadro/core/catalogue"
)

// TestOvalCrowns: an oval crown is as wide as a round one half way up and narrow at either end; a low morning sun comes in
// under its flank where a dome lets none by, at noon behind its middle both are as dark; it never darkens more than a column.
func TestOvalCrowns(t *testing.T) {
	of := func(shape string) *Plan {
		x := tree("lime", 0, -6, 10, 8, catalogue.Evergreen)
		x.ClearM, x.Shape = 1, shape
		return &Plan{Latitude: 46, Things: []Thing{x}}
	}
	lime := of("oval").Things[0]
	for z, want := range map[float64]float64{0.5: 0, 1: 0, 3.25: 4 * math.Sqrt(0.75), 5.5: 4, 7.75: 4 * math.Sqrt(0.75), 10: 0} {
		if got := lime.wide(z); math.Abs(got-want) > 1e-9 {
			t.Errorf("at %g m it is %g m wide, want %g", z, got, want)
		}
	}
	winter := on(time.December, 21)
	sum := map[string]float64{}
	for _, shape := range Shapes {
		for _, x := range []float64{-3, -1, 0, 1, 3} {
			sum[shape] += of(shape).SkyFrom(At{x, 0}, 0.5).Hours(winter)
		}
	}
	if sum["oval"] <= sum["round"] || sum["oval"] < sum["column"] {
		t.Errorf("hours of sun behind: %v", sum)
	}
	noon := func(shape string) float64 { return of(shape).SkyFrom(At{0, 8}, 0.5).Lit(winter, 12) }
	if o, r := noon("oval"), noon("round"); math.Abs(o-r) > 0.12 || o > 0.5 {
		t.Errorf("at noon behind its middle: oval %.2f, round %.2f", o, r)
	}
	if err := of("egg").Validate(); err == nil {
		t.Error("a shape that is none is taken")
	}
}
