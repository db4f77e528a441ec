package site

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
)

func plantOf(id string, x, y, high float64, light string, leaf catalogue.LeafSeason) Thing {
	return Thing{ID: id, Kind: Plant, Name: id, Points: []At{{x, y}}, HeightM: high, SpreadM: high, Light: light, Leaf: leaf}
}

// TestEffects: what a cut, a fall or a planting does to the plants beside it, as a gardener would foretell it.
func TestEffects(t *testing.T) {
	hedge := Thing{ID: "hedge", Kind: Hedge, HeightM: 3.5, SpreadM: 1, Leaf: catalogue.Evergreen, Points: []At{{-15, -1}, {15, -1}}}
	oak := Thing{ID: "oak", Kind: Tree, Points: []At{{0, -1}}, HeightM: 14, ClearM: 2.5, SpreadM: 14, Leaf: catalogue.Deciduous}
	south := func(things ...Thing) []Thing { // the same garden in the southern hemisphere
		for i := range things {
			things[i].Points = slices.Clone(things[i].Points)
			for k := range things[i].Points {
				things[i].Points[k].Y *= -1
			}
		}
		return things
	}
	for _, c := range []struct {
		name     string
		latitude float64
		things   []Thing
		change   Change
		what     string
		month    int // that is among those told
		says     string
	}{
		{"the hedge before the ivy is cut to one metre", 46, []Thing{hedge, plantOf("ivy", 0, 0.6, 0.5, "shade", catalogue.Evergreen)}, Change{Thing: "hedge", Do: "cut", HeightM: 0.6}, "scorches", 6, "not in the first summer only"},
		{"a trim of a hand's breadth is nothing", 46, []Thing{hedge, plantOf("ivy", 0, 0.6, 0.5, "shade", catalogue.Evergreen)}, Change{Thing: "hedge", Do: "cut", HeightM: 3.4}, "none", 0, ""},
		{"the oak over the hydrangeas falls", 46, []Thing{oak, plantOf("hydrangea", 1, 1, 1.2, "part shade", catalogue.Deciduous)}, Change{Thing: "oak", Do: "remove"}, "scorches", 7, "Leave part of the shade"},
		{"the oak over a laurel that bears sun falls: the first summer burns", 46, []Thing{oak, plantOf("laurel", 1, 1, 1.2, "sun or part shade", catalogue.Evergreen)}, Change{Thing: "oak", Do: "remove"}, "scorches", 7, "first summer"},
		{"a hedge of twelve metres is planted before the roses", 46, []Thing{plantOf("roses", 0, 1, 0.8, "full sun", catalogue.Deciduous)}, Change{Do: "plant", Add: &Thing{ID: "new", Kind: Hedge, HeightM: 12, SpreadM: 1, Points: []At{{-15, -0.6}, {15, -0.6}}}}, "starves", 8, "it wants 5"},
		{"the same north of them takes little", 46, []Thing{plantOf("roses", 0, 1, 0.8, "full sun", catalogue.Deciduous)}, Change{Do: "plant", Add: &Thing{ID: "new", Kind: Hedge, HeightM: 4, SpreadM: 1, Points: []At{{-15, 4}, {15, 4}}}}, "none", 0, ""},
		{"a hedge planted before ferns takes nothing they want", 46, []Thing{plantOf("ferns", 0, 1, 0.6, "shade", catalogue.Herbaceous)}, Change{Do: "plant", Add: &Thing{ID: "new", Kind: Hedge, HeightM: 3, SpreadM: 1, Points: []At{{-15, -0.6}, {15, -0.6}}}}, "none", 0, ""},
		{"roses under an oak that falls have enough at last", 46, []Thing{oak, plantOf("roses", 1, 1, 0.8, "full sun", catalogue.Herbaceous)}, Change{Thing: "oak", Do: "remove"}, "gains", 6, "enough"},
		{"the hedge before the ivy, 46 south", -46, south(hedge, plantOf("ivy", 0, 0.6, 0.5, "shade", catalogue.Evergreen)), Change{Thing: "hedge", Do: "cut", HeightM: 0.6}, "scorches", 1, "scorches"},
		{"the crown over the camellia is raised high", 52, []Thing{{ID: "oak", Kind: Tree, Points: []At{{0, -2}}, HeightM: 14, ClearM: 1.5, SpreadM: 10, Leaf: catalogue.Evergreen}, plantOf("camellia", 0, 1, 1.5, "part shade", catalogue.Evergreen)}, Change{Thing: "oak", Do: "cut", ClearM: 9}, "scorches", 6, "part shade"},
	} {
		p := &Plan{Latitude: c.latitude, Things: c.things}
		effects, err := p.Effects([]Change{c.change}, 2027)
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		e := effects[0]
		if e.What != c.what || c.month > 0 && !slices.Contains(e.When, c.month) || !strings.Contains(e.Text+strings.Join(e.Do, " "), c.says) {
			t.Errorf("%s: %+v", c.name, e)
		}
	}
}

// TestMonthsThatBurn: leaves burn in March in the desert and all year in the tropics, and not before April where the sun is low.
func TestMonthsThatBurn(t *testing.T) {
	for latitude, want := range map[float64][]int{
		60: {4, 5, 6, 7, 8, 9}, 46: {4, 5, 6, 7, 8, 9}, 33.5: {3, 4, 5, 6, 7, 8, 9, 10}, 10: {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12},
		-34: {1, 2, 3, 4, 9, 10, 11, 12}, -43: {1, 2, 3, 10, 11, 12},
	} {
		if got := summer(latitude); !slices.Equal(got, want) {
			t.Errorf("at %g°: %v, want %v", latitude, got, want)
		}
	}
}

// TestBadPlans: each fault is named by its thing and field; nothing of the plan is used.
func TestBadPlans(t *testing.T) {
	good := func() *Plan {
		return &Plan{Latitude: 46, Things: []Thing{
			{ID: "ground", Kind: Ground, Points: []At{{-20, -20}, {20, -20}, {20, 20}, {-20, 20}}},
			{ID: "wall", Kind: Wall, HeightM: 2, Points: []At{{0, 0}, {5, 0}}},
			plantOf("rose", 1, 1, 1, "full sun", catalogue.Deciduous),
		}}
	}
	if err := good().Validate(); err != nil {
		t.Fatal(err)
	}
	for path, change := range map[string]func(p *Plan){
		"latitude":            func(p *Plan) { p.Latitude = 95 },
		"things[0].points":    func(p *Plan) { p.Things[0].Points = []At{{0, 0}, {9, 9}, {9, 0}, {0, 9}} },
		"things[1].height_m":  func(p *Plan) { p.Things[1].HeightM = 0 },
		"things[1].points":    func(p *Plan) { p.Things[1].Points = p.Things[1].Points[:1] },
		"things[1].kind":      func(p *Plan) { p.Things[1].Kind = "castle" },
		"things[2].points[0]": func(p *Plan) { p.Things[2].Points[0] = At{25, 0} },
		"things[1].points[1]": func(p *Plan) { p.Things[1].Points[1] = At{9_000, 45.9} },
		"things[2].id":        func(p *Plan) { p.Things[2].ID = "wall" },
		"things[2].shape":     func(p *Plan) { p.Things[2].Shape = "star" },
		"things[2].clear_m":   func(p *Plan) { p.Things[2].ClearM = 3 },
	} {
		p := good()
		change(p)
		err := p.Validate()
		fields, _ := err.(invalid.Fields)
		if !slices.ContainsFunc(fields, func(f invalid.Field) bool { return f.Path == path }) {
			t.Errorf("%s: %v", path, err)
		}
	}
	for path, c := range map[string]Change{
		"changes[0].thing":    {Thing: "nothing", Do: "remove"},
		"changes[0].height_m": {Thing: "wall", Do: "cut", HeightM: 5},
		"changes[0].add":      {Do: "plant"},
		"changes[0].do":       {Thing: "wall", Do: "paint", HeightM: 1},
	} {
		_, err := good().With([]Change{c})
		fields, _ := err.(invalid.Fields)
		if len(fields) == 0 || fields[0].Path != path {
			t.Errorf("%s: %v", path, err)
		}
	}
}

// TestSpots: walls that warm, shelter by side, hollows, sprinklers and greedy roots.
func TestSpots(t *testing.T) {
	things := []Thing{
		{ID: "house", Kind: Building, HeightM: 6, Points: []At{{-6, 1}, {6, 1}, {6, 9}, {-6, 9}}},
		{ID: "hollow", Kind: Hollow, Points: []At{{20, -5}, {30, -5}, {30, 5}, {20, 5}}},
		{ID: "spray", Kind: Sprinkler, Points: []At{{-20, -8}}},
		{ID: "hedge", Kind: Hedge, HeightM: 2.5, SpreadM: 1, Points: []At{{-30, -12}, {-10, -12}}},
		{ID: "birch", Kind: Tree, HeightM: 12, SpreadM: 6, ClearM: 3, Thirst: "high", Points: []At{{40, 20}}},
	}
	north := &Plan{Latitude: 46, Things: things}
	south := &Plan{Latitude: -36, Things: things}
	if s := north.SpotAt(At{0, 0}, 0.5, 2027); !s.WarmWall || s.Facing != "south" || s.From[0].Shelter < 0.5 || s.From[4].Shelter > 0.2 {
		t.Errorf("before the south wall: %+v", s)
	}
	if s := south.SpotAt(At{0, 0}, 0.5, 2027); s.WarmWall {
		t.Errorf("before a south wall in the south of the world: %+v", s)
	}
	if s := south.SpotAt(At{0, 10}, 0.5, 2027); !s.WarmWall {
		t.Errorf("before a north wall in the south of the world: %+v", s)
	}
	if s := north.SpotAt(At{25, 0}, 0.5, 2027); !s.Hollow || s.WarmWall || s.Class != "full sun" {
		t.Errorf("in the hollow: %+v", s)
	}
	if s := north.SpotAt(At{-20, -10}, 0.5, 2027); !s.Spray || s.From[4].Shelter < 0.6 || s.From[4].Shelter <= s.From[0].Shelter {
		t.Errorf("behind the hedge beside the sprinkler: %+v", s)
	}
	near, far := north.SpotAt(At{41, 20}, 0.5, 2027), north.SpotAt(At{60, 20}, 0.5, 2027)
	if near.Thirst < 0.9 || far.Thirst > 0.05 {
		t.Errorf("roots of the birch: %.2f beside it, %.2f far off", near.Thirst, far.Thirst)
	}
	for _, latitude := range []float64{-66, -43, -12, 0, 24, 46, 60, 65, 69} {
		if open := (&Plan{Latitude: latitude}).SpotAt(At{}, 0.5, 2027); open.Sun < 0.99 || open.Shelter != 0 || open.Facing != "" {
			t.Errorf("an open field at %g°: %+v", latitude, open)
		}
	}
	if a, l := Area(things[1].Points), Length(things[3].Points); math.Abs(a-100) > 1e-9 || math.Abs(l-20) > 1e-9 {
		t.Errorf("area %g, length %g", a, l)
	}
}

// BenchmarkYearOfSun follows the sun for a year from 500 plants among 800 things.
func BenchmarkYearOfSun(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 1))
	p := &Plan{Latitude: 46}
	for i := range 800 {
		x, y := 160*r.Float64(), 120*r.Float64()
		t := Thing{ID: fmt.Sprint(i), Kind: Plant, Points: []At{{x, y}}, HeightM: 0.3 + 3*r.Float64(), SpreadM: 0.5 + 2*r.Float64()}
		if i%4 == 0 {
			t = Thing{ID: fmt.Sprint(i), Kind: Wall, HeightM: 2, Points: []At{{x, y}, {x + 6, y + 3}}}
		}
		p.Things = append(p.Things, t)
	}
	for b.Loop() {
		for i := range 500 {
			t := &p.Things[i]
			p.SkyFrom(t.Points[0], 0.6*t.HeightM, t.ID).Year(2027)
		}
	}
	b.ReportMetric(b.Elapsed().Seconds()/float64(b.N), "s/year")
}

// BenchmarkEffects fells a tree on a plan of 800 trees and 2,200 plants.
func BenchmarkEffects(b *testing.B) {
	r := rand.New(rand.NewPCG(2, 1))
	p := &Plan{Latitude: 46}
	for i := range 3000 {
		t := Thing{ID: fmt.Sprint(i), Kind: Plant, Points: []At{{300 * r.Float64(), 200 * r.Float64()}}, HeightM: 0.3 + 2*r.Float64(), SpreadM: 0.5 + 1.5*r.Float64()}
		if i < 800 {
			t.Kind, t.HeightM, t.SpreadM, t.ClearM, t.Leaf = Tree, 4+12*r.Float64(), 3+5*r.Float64(), 2, catalogue.Deciduous
		}
		p.Things = append(p.Things, t)
	}
	for b.Loop() {
		if _, err := p.Effects([]Change{{Thing: "7", Do: "remove"}}, 2027); err != nil {
			b.Fatal(err)
		}
	}
}

// TestFarPlants: a plant that a change cannot reach has the light it had, to the last digit; one that it can has not.
func TestFarPlants(t *testing.T) {
	things := []Thing{tree("oak", 0, 0, 12, 8, catalogue.Evergreen), plantOf("near", 0, 6, 1, "", catalogue.Evergreen), plantOf("south of it", 3, -30, 1, "", catalogue.Evergreen),
		{ID: "wall", Kind: Wall, HeightM: 2, Points: []At{{-20, 8}, {20, 8}}}}
	effects, err := (&Plan{Latitude: 50, Things: things}).Effects([]Change{{Thing: "oak", Do: "remove"}}, 2027)
	if err != nil {
		t.Fatal(err)
	}
	for _, e := range effects {
		if same := e.Before == e.After; same == (e.ID == "near") {
			t.Errorf("%s: before %v, after %v", e.ID, e.Before, e.After)
		}
	}
}

// TestHedgeEnds: behind the end of a thick hedge it is as dark as behind its side; at a corner of two no sun comes through.
func TestHedgeEnds(t *testing.T) {
	hedge := Thing{ID: "hedge", Kind: Hedge, HeightM: 4, SpreadM: 2, Leaf: catalogue.Evergreen, Points: []At{{0, -30}, {0, -0.6}}}
	noon := on(time.December, 21)
	if lit := (&Plan{Latitude: 46, Things: []Thing{hedge}}).SkyFrom(At{}, 0.5).Lit(noon, 12); lit > 0.05 {
		t.Errorf("at noon behind the end of a hedge that runs south: %.2f", lit)
	}
	corner := Thing{ID: "hedge", Kind: Hedge, HeightM: 4, SpreadM: 1.5, Leaf: catalogue.Evergreen, Points: []At{{-20, 0}, {0, 0}, {0, 20}}}
	for _, from := range []At{{-1, 1.5}, {-1.5, 2}, {-3, 3.2}} { // they look out over the corner
		sky := (&Plan{Latitude: 46, Things: []Thing{corner}}).SkyFrom(from, 0.5)
		for _, hour := range []float64{9, 9.5, 10, 10.5, 11} {
			if lit := sky.Lit(noon, hour); lit > 0.06 {
				t.Errorf("from %v at %g: %.2f comes through the corner", from, hour, lit)
			}
		}
	}
}
