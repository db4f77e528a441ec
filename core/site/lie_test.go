package site

import (
	"math"
	"slices"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// TestSlope: at 46° north the sun of midwinter stands 20.6° high at noon, 38 in a hundred: a slope to the north that is
// steeper lies in its own shade, one to the south has all the sun of the open; in summer both have it at noon.
func TestSlope(t *testing.T) {
	midwinter, june := day.Of(2027, time.December, 21), day.Of(2027, time.June, 21)
	hours := func(p Plan, d day.Day) float64 { return p.SkyFrom(At{}, 0.5).Hours(d) }
	open := hours(Plan{Latitude: 46}, midwinter)
	north, south := Plan{Latitude: 46, SlopePct: 45, FallsTo: 0}, Plan{Latitude: 46, SlopePct: 45, FallsTo: 180}
	if got := hours(north, midwinter); got != 0 {
		t.Errorf("a steep slope to the north at midwinter: %.1f hours", got)
	}
	if got := hours(south, midwinter); math.Abs(got-open) > 0.2 {
		t.Errorf("one to the south: %.1f hours, in the open %.1f", got, open)
	}
	if north, south := hours(north, june), hours(south, june); north < 11 || south < 11 {
		t.Errorf("in June: %.1f on the slope to the north, %.1f to the south", north, south)
	}
	east := Plan{Latitude: 46, SlopePct: 40, FallsTo: 90}
	if morning, evening := east.SkyFrom(At{}, 0.5).Lit(june, 6), east.SkyFrom(At{}, 0.5).Lit(june, 18); morning != 1 || evening != 0 {
		t.Errorf("a slope to the east has %g of the sun at six in the morning and %g at six in the evening", morning, evening)
	}
	turned := Plan{Latitude: 46, SlopePct: 45, FallsTo: 0, NorthDeg: 120} // the bearing is the compass's, however the plan lies
	if got := hours(turned, midwinter); got != 0 {
		t.Errorf("the same on a plan that is turned: %.1f hours", got)
	}
	// Downhill shadows are long, uphill ones short.
	tree := Thing{ID: "t", Kind: Tree, HeightM: 5, SpreadM: 2, Points: []At{{}}}
	reach := func(slope, falls float64) float64 {
		p := Plan{Latitude: 46, SlopePct: slope, FallsTo: falls, Things: []Thing{tree}}
		far := 0.0
		for _, s := range p.Shadows(june, 12) {
			for _, q := range s.Points {
				far = math.Max(far, q.Y)
			}
		}
		return far
	}
	if down, level, up := reach(30, 0), reach(0, 0), reach(30, 180); !(down > level+0.15 && level > up+0.15) {
		t.Errorf("shadows of noon: %.1f m down the slope, %.1f on the level, %.1f up it", down, level, up)
	}
}

// TestHills: a ridge in the south that stands 25° high hides the sun from November to January, and not in June.
func TestHills(t *testing.T) {
	p := Plan{Latitude: 46, Horizon: []float64{0, 0, 0, 25, 25, 25, 0, 0}}
	s := p.SkyFrom(At{}, 0.5)
	if lit := s.Lit(day.Of(2027, time.December, 21), 12); lit != 0 {
		t.Errorf("noon of midwinter behind the ridge: %g", lit)
	}
	if lit := s.Lit(day.Of(2027, time.June, 21), 12); lit != 1 {
		t.Errorf("noon of June: %g", lit)
	}
	if lit := s.Lit(day.Of(2027, time.April, 1), 18); lit <= 0 {
		t.Errorf("an evening of April with the west open: %g", lit)
	}
}

// TestColdAirDams: it gathers above a wall across the slope, not below it, not on the level, not beside one that runs
// down the slope, nor above a low kerb.
func TestColdAirDams(t *testing.T) {
	wall := func(height float64, a, b At) Thing {
		return Thing{ID: "w", Kind: Wall, HeightM: height, Points: []At{a, b}}
	}
	across, along := wall(1.8, At{-10, 0}, At{10, 0}), wall(1.8, At{0, -10}, At{0, 10})
	for _, c := range []struct {
		name  string
		slope float64
		thing Thing
		at    At
		want  bool
	}{
		{"above it", 8, across, At{0, 2}, true},
		{"below it", 8, across, At{0, -2}, false},
		{"on the level", 0, across, At{0, 2}, false},
		{"far above it", 8, across, At{0, 15}, false},
		{"beside one that runs down", 8, along, At{2, 0}, false},
		{"above a kerb", 8, wall(0.3, At{-10, 0}, At{10, 0}), At{0, 2}, false},
		{"beside its end", 8, across, At{14, 1}, false},
	} {
		p := Plan{Latitude: 46, SlopePct: c.slope, FallsTo: 180, Things: []Thing{c.thing}}
		if got := p.SpotAt(c.at, 0.5, 2027); got.Hollow != c.want {
			t.Errorf("%s: %v %v", c.name, got.Hollow, got.Why)
		}
	}
}

// TestWindFrom: a hedge in the west shelters most where it blows from the west.
func TestWindFrom(t *testing.T) {
	p := Plan{Latitude: 46, Things: []Thing{{ID: "h", Kind: Hedge, HeightM: 2.5, SpreadM: 0.8, Points: []At{{-4, -12}, {-4, 12}}}}}
	shelter := map[string]float64{}
	for _, from := range []string{"", "west", "east"} {
		p.WindFrom = from
		shelter[from] = p.SpotAt(At{}, 0.5, 2027).Shelter
	}
	if !(shelter["west"] > shelter[""]+0.1 && shelter[""] > shelter["east"]+0.05) {
		t.Errorf("shelter by where the wind comes from: %v", shelter)
	}
}

// TestPaced: three, four and five metres make a right angle, on either side; what cannot be is named.
func TestPaced(t *testing.T) {
	if q, err := Paced(At{0, 0}, At{4, 0}, 3, 5, true); err != nil || q != (At{0, 3}) {
		t.Errorf("%v %v", q, err)
	}
	if q, err := Paced(At{0, 0}, At{4, 0}, 3, 5, false); err != nil || q != (At{0, -3}) {
		t.Errorf("%v %v", q, err)
	}
	if q, err := Paced(At{0, 0}, At{10, 0}, 4, 5.9, true); err != nil || math.Abs(q.Y) > 0.01 {
		t.Errorf("a hand's breadth short: %v %v", q, err)
	}
	for path, f := range map[string]func() (At, error){
		"b":      func() (At, error) { return Paced(At{1, 1}, At{1, 1}, 3, 5, true) },
		"from_a": func() (At, error) { return Paced(At{0, 0}, At{4, 0}, 0, 5, true) },
		"from_b": func() (At, error) { return Paced(At{0, 0}, At{20, 0}, 3, 5, true) },
	} {
		_, err := f()
		fields, _ := err.(invalid.Fields)
		if !slices.ContainsFunc(fields, func(f invalid.Field) bool { return f.Path == path }) {
			t.Errorf("%s: %v", path, err)
		}
	}
	for path, p := range map[string]Plan{
		"slope_pct": {SlopePct: 300}, "horizon_deg": {Horizon: []float64{3, 4}}, "horizon_deg[1]": {Horizon: []float64{0, 95, 0, 0}},
		"wind_from": {WindFrom: "above"}, "underlay.metres_a_pixel": {Underlay: &Underlay{Photo: "x"}},
	} {
		fields, _ := p.Validate().(invalid.Fields)
		if !slices.ContainsFunc(fields, func(f invalid.Field) bool { return f.Path == path }) {
			t.Errorf("%s: %v", path, fields)
		}
	}
}
