package site

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

func on(m time.Month, d int) day.Day { return day.Of(2027, m, d) }

// wall is a long wall from west to east, so far north of the middle (south where below 0).
func wall(north, high float64) Thing {
	return Thing{ID: "wall", Kind: Wall, HeightM: high, Points: []At{{-500, north}, {500, north}}}
}

func tree(id string, x, y, high, spread float64, leaf catalogue.LeafSeason) Thing {
	return Thing{ID: id, Kind: Tree, Points: []At{{x, y}}, HeightM: high, SpreadM: spread, Leaf: leaf}
}

func hours(p *Plan, d day.Day) float64 { return p.SkyFrom(At{}, 0.5).Hours(d) }

// TestOpenField: nothing stands there, and the sun shines from rise to set.
func TestOpenField(t *testing.T) {
	for _, latitude := range []float64{60, 52, 46, 33, 10, 0, -12, -34, -43} {
		for _, d := range []day.Day{on(time.March, 20), on(time.June, 21), on(time.September, 23), on(time.December, 21)} {
			if got, want := hours(&Plan{Latitude: latitude}, d), season.Daylength(latitude, d); math.Abs(got-want) > 1.0/6 {
				t.Errorf("at %g° on %s: %.2f hours, the day is %.2f long", latitude, d, got, want)
			}
		}
	}
}

// TestClosedForms: hours that follow from the sun's way alone.
func TestClosedForms(t *testing.T) {
	street := func(wide, high float64) []Thing {
		return []Thing{
			{ID: "w", Kind: Wall, HeightM: high, Points: []At{{-wide / 2, -900}, {-wide / 2, 900}}},
			{ID: "e", Kind: Wall, HeightM: high, Points: []At{{wide / 2, -900}, {wide / 2, 900}}},
		}
	}
	for _, c := range []struct {
		name     string
		latitude float64
		on       day.Day
		things   []Thing
		want     float64 // hours
		within   float64
	}{
		// North of a long wall the summer sun comes before it is due east and after it is due west: cos h = tan δ / tan φ.
		{"the north side of a wall in midsummer, 46 north", 46, on(time.June, 21), []Thing{wall(-0.8, 60)}, 7.05, 0.3},
		{"the north side of a wall in midwinter", 46, on(time.December, 21), []Thing{wall(-0.8, 3)}, 0, 0.01},
		{"the north side of a wall at the equinox", 46, on(time.March, 20), []Thing{wall(-0.8, 3)}, 0, 0.35},
		{"the south side at the equinox has all the day", 46, on(time.March, 20), []Thing{wall(0.8, 3)}, 12.1, 0.35},
		{"the south side in midsummer lacks what the north side has", 46, on(time.June, 21), []Thing{wall(0.8, 60)}, 15.75 - 7.05, 0.3},
		{"the south side of a wall in midwinter, 38 south", -38, on(time.June, 21), []Thing{wall(0.8, 3)}, 0, 0.01},
		{"its north side in midwinter has all the day", -38, on(time.June, 21), []Thing{wall(-0.8, 3)}, 9.6, 0.2},
		// On the equator at the equinox the sun goes straight over: between walls it shines for twice atan(half width
		// over what stands above) of 15° an hour.
		{"a street six wide between walls of six and a half", 0, on(time.March, 20), street(6, 6.5), 2 * 26.57 / 15, 0.1},
		{"a street twice as wide", 0, on(time.March, 20), street(12, 6.5), 2 * 45.0 / 15, 1.0 / 6},
		{"a narrow passage", 0, on(time.March, 20), street(1.2, 6.5), 2 * 5.71 / 15, 0.1},
		{"a wall lower than where one looks from", 46, on(time.December, 21), []Thing{wall(-0.8, 0.4)}, 8.7, 0.2},
		{"a wall far to the south hides the sun until it is 5° high", 46, on(time.December, 21), []Thing{wall(-40, 4)}, 7.0, 0.7},
	} {
		if got := hours(&Plan{Latitude: c.latitude, Things: c.things}, c.on); math.Abs(got-c.want) > c.within {
			t.Errorf("%s: %.2f hours, want %.2f", c.name, got, c.want)
		}
	}
	// In the tropics the June sun stands in the north at noon: a wall there hides it, and leaves it in December.
	p := &Plan{Latitude: 10, Things: []Thing{wall(0.4, 3)}}
	sky := p.SkyFrom(At{}, 0.5)
	if june, december := sky.Lit(on(time.June, 21), 12), sky.Lit(on(time.December, 21), 12); june != 0 || december != 1 {
		t.Errorf("noon behind a wall in the tropics: June %.1f, December %.1f", june, december)
	}
	if night := sky.Lit(on(time.June, 21), 1); night != 0 {
		t.Errorf("sun at night: %g", night)
	}
}

// TestTurned: a plan drawn with another side up says the same.
func TestTurned(t *testing.T) {
	straight := &Plan{Latitude: 46, Things: []Thing{wall(-0.8, 3), tree("t", 3, 4, 8, 5, catalogue.Evergreen)}}
	turned := &Plan{Latitude: 46, NorthDeg: 90, Things: []Thing{wall(0, 3), tree("t", 0, 0, 8, 5, catalogue.Evergreen)}}
	// Up is east: what lies to the north is drawn to the left.
	turned.Things[0].Points = []At{{0.8, -500}, {0.8, 500}}
	turned.Things[1].Points = []At{{-4, 3}}
	for m := time.January; m <= time.December; m++ {
		if a, b := hours(straight, on(m, 15)), hours(turned, on(m, 15)); math.Abs(a-b) > 1e-6 {
			t.Errorf("month %d: %.3f straight, %.3f turned", m, a, b)
		}
	}
}

// TestGardens: what a gardener would say of the light of a spot.
func TestGardens(t *testing.T) {
	row := Thing{ID: "row", Kind: Building, HeightM: 7, Points: []At{{-60, 0}, {60, 0}, {60, 9}, {-60, 9}}}
	house := Thing{ID: "house", Kind: Building, HeightM: 7, Points: []At{{-6, 0}, {6, 0}, {6, 9}, {-6, 9}}}
	for _, c := range []struct {
		name      string
		latitude  float64
		at        At
		up        float64
		things    []Thing
		class     string
		winterMax float64 // hours of midwinter at most
		winterMin float64
	}{
		{"before the south front of a house", 46, At{0, -2}, 0.8, []Thing{house}, "full sun", 9, 7},
		{"behind a row of houses, to the north", 46, At{0, 10}, 0.8, []Thing{row}, "part shade", 0.1, 0},
		{"its east side has the morning, and the winter noon", 46, At{8, 4}, 0.8, []Thing{house}, "full sun", 7, 5},
		{"behind it in the south of the world is sunny", -36, At{0, 11}, 0.8, []Thing{house}, "full sun", 10, 7},
		{"before a row there is shade in winter", -36, At{0, -1}, 0.8, []Thing{row}, "part shade", 0.2, 0},
		{"under a big evergreen", 46, At{1, 0}, 1, []Thing{{ID: "t", Kind: Tree, Points: []At{{0, 0}}, HeightM: 14, ClearM: 2, SpreadM: 12}}, "shade", 5, 0},
		{"under a wide deciduous crown the winter is light", 46, At{1, 0}, 1, []Thing{{ID: "t", Kind: Tree, Points: []At{{0, 0}}, HeightM: 14, ClearM: 2, SpreadM: 14, Leaf: catalogue.Deciduous}}, "shade", 9, 3.8},
		{"a wood of evergreens", 46, At{0, 0}, 1, grove(catalogue.Evergreen), "shade", 2, 0},
		{"a wood of oaks", 52, At{0, 0}, 1, grove(catalogue.Deciduous), "shade", 6, 1},
		{"a court of high walls", 46, At{0, 0}, 0.5, court(8, 10), "shade", 0.1, 0},
		{"a wide court of low walls", 46, At{0, 0}, 0.5, court(24, 2.5), "full sun", 9, 6},
		{"a lone tree far to the north takes nothing", 52, At{0, 0}, 1, []Thing{tree("t", 0, 20, 15, 8, catalogue.Evergreen)}, "full sun", 9, 7},
	} {
		p := &Plan{Latitude: c.latitude, Things: c.things}
		if err := p.Validate(); err != nil {
			t.Fatalf("%s: %v", c.name, err)
		}
		s := p.SpotAt(c.at, c.up, 2027)
		if s.Class != c.class || s.Winter > c.winterMax || s.Winter < c.winterMin {
			t.Errorf("%s: %s with %.1f hours in summer, %.1f in winter; want %s, %g to %g", c.name, s.Class, s.Summer, s.Winter, c.class, c.winterMin, c.winterMax)
		}
	}
}

func grove(leaf catalogue.LeafSeason) (out []Thing) {
	for x := -3; x <= 3; x++ {
		for y := -3; y <= 3; y++ {
			out = append(out, Thing{
				ID: string(rune('A'+x+3)) + string(rune('a'+y+3)), Kind: Tree, Points: []At{{8*float64(x) + 3, 8*float64(y) + 3}},
				HeightM: 16, ClearM: 4, SpreadM: 9, Leaf: leaf,
			})
		}
	}
	return out
}

func court(wide, high float64) []Thing {
	h := wide / 2
	return []Thing{{ID: "walls", Kind: Wall, HeightM: high, Points: []At{{-h, -h}, {h, -h}, {h, h}, {-h, h}, {-h, -h}}}}
}

// TestTallerNeverBrightens: over random gardens a neighbour that is taller, wider or there at all gives no spot more
// sun on any day.
func TestTallerNeverBrightens(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for n := range 150 {
		p := &Plan{Latitude: 120*r.Float64() - 60}
		for i := range 1 + r.IntN(8) {
			x, y := 30*r.Float64()-15, 30*r.Float64()-15
			thing := tree(string(rune('a'+i)), x, y, 2+12*r.Float64(), 1+7*r.Float64(), []catalogue.LeafSeason{catalogue.Evergreen, catalogue.Deciduous}[r.IntN(2)])
			thing.Shape = Shapes[r.IntN(4)]
			thing.ClearM = thing.HeightM * 0.5 * r.Float64()
			if r.IntN(3) == 0 {
				thing = Thing{ID: thing.ID, Kind: []Kind{Wall, Hedge, Fence}[r.IntN(3)], HeightM: 1 + 3*r.Float64(), Points: []At{{x, y}, {x + 6, y + 8*r.Float64()}}}
			}
			p.Things = append(p.Things, thing)
		}
		d, up := day.Of(2027, 1, 1)+day.Day(r.IntN(365)), 0.2+1.5*r.Float64()
		before := p.SkyFrom(At{}, up).Hours(d)
		k := r.IntN(len(p.Things))
		p.Things[k].HeightM *= 1.1 + 2*r.Float64()
		if after := p.SkyFrom(At{}, up).Hours(d); after > before+1e-9 {
			t.Errorf("garden %d: %.3f hours, and %.3f beside a taller %s", n, before, after, p.Things[k].Kind)
		}
		id := p.Things[k].ID
		if without := p.SkyFrom(At{}, up, id).Hours(d); without < p.SkyFrom(At{}, up).Hours(d)-1e-9 {
			t.Errorf("garden %d: less sun without the %s", n, p.Things[k].Kind)
		}
	}
}
