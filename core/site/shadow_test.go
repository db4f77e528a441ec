package site

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// TestShadows: as long as the sun says, to the north at noon, to the west in the morning, none at night, none of what
// has died back.
func TestShadows(t *testing.T) {
	p := &Plan{Latitude: 46, Things: []Thing{{ID: "post", Kind: Tree, HeightM: 2, SpreadM: 0.02, Shape: "column", Points: []At{{0, 0}}}}}
	end := func(s Shadow) (far At) {
		for _, q := range s.Points {
			if math.Hypot(q.X, q.Y) > math.Hypot(far.X, far.Y) {
				far = q
			}
		}
		return far
	}
	noon := end(p.Shadows(on(time.March, 20), 12)[0])
	if math.Abs(noon.Y-2*math.Tan(46*math.Pi/180)) > 0.1 || math.Abs(noon.X) > 0.1 { // at the equinox the sun stands 90° less the latitude high
		t.Errorf("noon at the equinox: %+v", noon)
	}
	if morning := end(p.Shadows(on(time.June, 21), 8)[0]); morning.X > -1 {
		t.Errorf("in the morning it falls to the west: %+v", morning)
	}
	if night := p.Shadows(on(time.June, 21), 1); len(night) != 0 {
		t.Errorf("at night: %+v", night)
	}
	p.Latitude = -46
	if south := end(p.Shadows(on(time.March, 20), 12)[0]); south.Y > -1.9 {
		t.Errorf("south of the equator it falls to the south: %+v", south)
	}
	p.Things[0].Leaf = catalogue.Herbaceous
	if bare := p.Shadows(on(time.July, 1), 12); len(bare) != 0 {
		t.Errorf("of what has died back in the southern winter: %+v", bare)
	}
}

// TestShadowsAgree: a spot lies in a thing's shadow just when the sky from it has no sun.
func TestShadowsAgree(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 1))
	dark := 0
	for range 400 {
		x, y := 12*r.Float64()-6, 12*r.Float64()-6
		p := &Plan{Latitude: 100*r.Float64() - 50, NorthDeg: 360 * r.Float64(), Things: []Thing{
			{ID: "w", Kind: Wall, HeightM: 1 + 4*r.Float64(), Points: []At{{x, y}, {x + 4, y + 3*r.Float64()}}},
		}}
		d, hour := day.Of(2027, 1, 1)+day.Day(r.IntN(365)), 7+10*r.Float64()
		lit := p.SkyFrom(At{}, 0).Lit(d, hour)
		shadows := p.Shadows(d, hour)
		if len(shadows) == 0 {
			continue
		}
		if in := within(At{}, shadows[0].Points); in != (lit == 0) {
			t.Errorf("at %g, %s %.1f h: in the shadow %v, light %g", p.Latitude, d, hour, in, lit)
		} else if in {
			dark++
		}
	}
	if dark < 20 {
		t.Errorf("only %d spots were dark", dark)
	}
}
