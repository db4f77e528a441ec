package replacement

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/site"
)

// TestOutgrows: what a plant meets where it stands, and about when, as one sees in gardens.
func TestOutgrows(t *testing.T) {
	house := site.Thing{ID: "h", Kind: site.Building, Name: "the house", HeightM: 6, Points: []site.At{{X: 2, Y: -10}, {X: 12, Y: -10}, {X: 12, Y: 10}, {X: 2, Y: 10}}}
	wire := site.Thing{ID: "w", Kind: site.Wire, HeightM: 6, Points: []site.At{{X: -20, Y: 0}, {X: 20, Y: 0}}}
	path := site.Thing{ID: "p", Kind: site.Path, Name: "the path", Points: []site.At{{X: -20, Y: 1}, {X: 20, Y: 1}}}
	window := site.Thing{ID: "f", Kind: site.Window, HeightM: 0.9, Points: []site.At{{X: 1, Y: 0}}}
	drain := site.Thing{ID: "d", Kind: site.Drain, Points: []site.At{{X: -20, Y: 4}, {X: 20, Y: 4}}}
	oak := site.Thing{ID: "o", Kind: site.Tree, Name: "the oak", HeightM: 12, SpreadM: 8, ClearM: 2, Points: []site.At{{X: -6, Y: 0}}}
	for _, c := range []struct {
		name, kind     string
		height, spread float64
		beside         site.Thing
		what           string // empty: it never meets it
		from, to       float64
	}{
		{"a young beech beside the house", "fagus-sylvatica", 4, 2, house, "house", 2, 16},
		{"a beech under a wire", "fagus-sylvatica", 3, 1.5, wire, "wire", 2, 12},
		{"a beech that is in the wire", "fagus-sylvatica", 7, 4, wire, "wire", 0, 0},
		{"lavender under a wire", "lavandula-angustifolia", 0.4, 0.4, wire, "", 0, 0},
		{"lavender beside the house", "lavandula-angustifolia", 0.4, 0.4, house, "", 0, 0},
		{"a lilac beside a path", "syringa-vulgaris", 1, 0.8, path, "path", 1, 20},
		{"a lilac before a window", "syringa-vulgaris", 0.6, 0.5, window, "window", 0.5, 5},
		{"box before a window, grown up", "buxus-sempervirens", 0.5, 0.5, window, "window", 1, 20},
		{"willow near a drain", "salix-babylonica", 4, 3, drain, "drain", 0.5, 15},
		{"a birch in the reach of an oak", "betula-pendula", 3, 1.5, oak, "crown", 1, 20},
		{"ivy at the house", "hedera-helix", 2, 1, house, "", 0, 0},
	} {
		e, ok := catalogue.Built().Entry(c.kind)
		if !ok {
			t.Fatal(c.kind)
		}
		own := site.Thing{ID: "x", Kind: site.Plant, HeightM: c.height, SpreadM: c.spread, Points: []site.At{{}}}
		got := OutlookOf(&site.Plan{Latitude: 46, Things: []site.Thing{own, c.beside}}, &own, e)
		if c.what == "" {
			if len(got.Meets) > 0 {
				t.Errorf("%s: %+v", c.name, got.Meets)
			}
			continue
		}
		if len(got.Meets) != 1 || got.Meets[0].What != c.what || got.Meets[0].Years < c.from || got.Meets[0].Years > c.to {
			t.Errorf("%s: want %s in %g to %g years: %+v, %+v", c.name, c.what, c.from, c.to, got.Meets, got.Curve)
			continue
		}
		if text := got.Meets[0].Text; strings.Contains(text, "the the") || (got.Meets[0].Years == 0) != strings.HasPrefix(text, "Already") {
			t.Errorf("%s: %q", c.name, text)
		}
		for i := 1; i < len(got.Curve); i++ {
			if got.Curve[i].HeightM < got.Curve[i-1].HeightM || got.Curve[i].HeightM > max(c.height, e.Mature.HeightM)+0.01 {
				t.Errorf("%s: %+v", c.name, got.Curve)
			}
		}
	}
}
