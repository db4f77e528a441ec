package practice

import (
	"reflect"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
)

func made(t *testing.T, climate string, seed uint64) *Garden {
	t.Helper()
	c, err := catalogue.Built().Climate(climate)
	if err != nil {
		t.Fatal(err)
	}
	g, err := Make(catalogue.Built(), c, seed)
	if err != nil {
		t.Fatal(err)
	}
	return g
}

// careful scratches up the stem, twice at each place, and decides as the program says.
func careful(g *Garden) (out []Decided) {
	for i := range g.Plants {
		d := Decided{}
		for n, x := range []float64{0.06, 0.06, 0.25, 0.25, 0.45, 0.45, 0.65, 0.65, 0.8, 0.8, 0.95, 0.95} {
			c, _ := g.Look(i, check.Scratch, x*g.Plants[i].HeightM, n)
			d.Checks = append(d.Checks, c)
		}
		a := g.program(i, d.Checks)
		d.Kind, d.CutM = a.Verdict.Kind, a.Verdict.CutM
		out = append(out, d)
	}
	return out
}

func always(g *Garden, kind string, cut float64) (out []Decided) {
	for _, p := range g.Plants {
		out = append(out, Decided{Kind: kind, CutM: cut * p.HeightM})
	}
	return out
}

// scored is how much somebody saved.
func scored(list []Held) float64 {
	own, _ := Score(list)
	return own
}

// TestWhoLooksWins: over gardens of five climates who checks up the stem and follows the program saves most of what
// can be saved; who throws everything away, leaves everything or cuts everything to the half, far less.
func TestWhoLooksWins(t *testing.T) {
	sums, gardens, rights, plants := map[string]float64{}, 0.0, 0, 0
	for _, climate := range []string{"lake-foothills", "cool-coast", "cold-lowland", "south-africa-highveld", "humid-east", "northern-prairie"} {
		c, err := catalogue.Built().Climate(climate)
		if err != nil {
			continue
		}
		for seed := range uint64(6) {
			g, err := Make(catalogue.Built(), c, seed)
			if err != nil {
				t.Fatalf("%s: %v", climate, err)
			}
			gardens++
			held := g.Hold(careful(g))
			sums["careful"] += scored(held)
			for _, h := range held {
				plants++
				if h.Right {
					rights++
				}
				if h.Lost != h.ProgramLost {
					t.Errorf("%s %d: who follows the program loses %.2f, it %.2f", climate, seed, h.Lost, h.ProgramLost)
				}
			}
			for _, kind := range []string{damage.Replace, damage.Leave, damage.Wait} {
				sums[kind] += scored(g.Hold(always(g, kind, 0)))
			}
			sums["half"] += scored(g.Hold(always(g, damage.CutBack, 0.5)))
		}
	}
	if gardens < 18 {
		t.Fatalf("only %.0f gardens", gardens)
	}
	t.Logf(
		"careful %.0f (%d of %d right), replace %.0f, leave %.0f, wait %.0f, half %.0f",
		sums["careful"]/gardens,
		rights,
		plants,
		sums[damage.Replace]/gardens,
		sums[damage.Leave]/gardens,
		sums[damage.Wait]/gardens,
		sums["half"]/gardens,
	)
	best := sums["careful"] / gardens
	if best < 90 || 10*rights < 7*plants {
		t.Errorf("who looks saves %.0f of 100, and is right on %d of %d", best, rights, plants)
	}
	for who, s := range sums {
		if who != "careful" && s/gardens > best-2 {
			t.Errorf("%q saves %.0f of 100, who looks %.0f", who, s/gardens, best)
		}
	}
	if sums[damage.Replace]/gardens > 55 {
		t.Errorf("who throws everything away saves %.0f of 100", sums[damage.Replace]/gardens)
	}
}

// TestSameNumberSameGarden: a number gives the same garden, the same sights and the same truth; another gives another.
// A look twice at one place may differ, as a misread scratch does.
func TestSameNumberSameGarden(t *testing.T) {
	a, b, other := made(t, "lake-foothills", 7), made(t, "lake-foothills", 7), made(t, "lake-foothills", 8)
	if !reflect.DeepEqual(a.Plants, b.Plants) || !reflect.DeepEqual(a.truth, b.truth) ||
		reflect.DeepEqual(a.Plants, other.Plants) {
		t.Error("a number does not give one garden")
	}
	differ, looks := 0, 0
	for i := range a.Plants {
		for n := range 40 {
			x, _ := a.Look(i, check.Scratch, 0.5, n)
			y, _ := b.Look(i, check.Scratch, 0.5, n)
			if x != y {
				t.Errorf("one look shows %+v and %+v", x, y)
			}
			if first, _ := a.Look(i, check.Scratch, 0.5, 0); x.Result != first.Result {
				differ++
			}
			looks++
		}
	}
	if differ == 0 || differ > looks/2 {
		t.Errorf("%d of %d looks differ from the first", differ, looks)
	}
	for _, bad := range []struct {
		plant int
		kind  check.Kind
		at    float64
	}{{-1, check.Scratch, 0.5}, {99, check.Scratch, 0.5}, {0, check.Spear, 0.5}, {0, check.Scratch, 0}, {0, check.Scratch, 50}} {
		if _, ok := a.Look(bad.plant, bad.kind, bad.at, 0); ok {
			t.Errorf("%+v shows something", bad)
		}
	}
	tropics := catalogue.ClimateType{ID: "none", Climate: a.ground.Year.Normals.Climate}
	tropics.Climate.ExtremeMinC = 15
	if _, err := Make(catalogue.Built(), tropics, 1); err == nil {
		t.Error("a freeze where none comes")
	}
}

// TestWhatItCosts: as a gardener weighs it: a living plant thrown away is the worst, living wood cut off costs what
// lived of it, dead wood left less, waiting little; who knows loses nothing.
func TestWhatItCosts(t *testing.T) {
	for _, c := range []struct {
		what     string
		ends     float64
		kind     string
		cut      float64
		low, top float64
	}{
		{"cut where life ends", 0.6, damage.CutBack, 0.6, 0, 0},
		{"cut a fifth too low", 0.6, damage.CutBack, 0.4, 0.15, 0.25},
		{"cut a fifth too high", 0.6, damage.CutBack, 0.8, 0.05, 0.12},
		{"living, thrown away", 0.6, damage.Replace, 0, 0.7, 1},
		{"dead, thrown away", 0, damage.Replace, 0, 0, 0},
		{"dead, left", 0, damage.Leave, 0, 0.3, 0.5},
		{"dead, waited for", 0, damage.Wait, 0, 0.1, 0.2},
		{"unhurt, left", 1, damage.Leave, 0, 0, 0},
		{"unhurt, cut to the base", 1, damage.CutToBase, 0, 0.9, 1},
		{"living at the foot, cut to the base", 0.06, damage.CutToBase, 0, 0, 0.02},
		{"living at the foot alone, thrown away", 0.02, damage.Replace, 0, 0.45, 0.6},
		{"dead, cut to the base", 0, damage.CutToBase, 0, 0.05, 0.1},
		{"living, waited for", 0.6, damage.Wait, 0, 0.05, 0.1},
	} {
		kind, cut := best(c.ends, 2)
		lost := cost(c.ends, c.kind, c.cut) - cost(c.ends, kind, cut/2)
		if lost < c.low-1e-9 || lost > c.top+1e-9 {
			t.Errorf("%s: costs %.2f, want %.2f to %.2f", c.what, lost, c.low, c.top)
		}
	}
	g := made(t, "lake-foothills", 3)
	for _, h := range g.Hold(always(g, damage.Replace, 0)) {
		if h.EndsM > 0.1 && (!strings.Contains(h.Says, "thrown away") || h.Right || h.Tell == "") {
			t.Errorf("a living plant thrown away unseen: %+v", h)
		}
	}
}

// TestWhatIsSaid: what came of a decision is said so that it agrees with what was true.
func TestWhatIsSaid(t *testing.T) {
	for _, c := range []struct {
		kind string
		cut  float64
		ends float64
		says string
		not  string
	}{
		{damage.TipBack, 1.8, 0.5, "dead wood was left", "right"},
		{damage.CutBack, 1, 0.5, "right", "left"},
		{damage.CutBack, 0.5, 0.5, "living wood went", "right"},
		{damage.CutBack, 1, 0, "taken out on another visit", "right"},
		{damage.Leave, 0, 0, "taken out on another visit", "above"},
		{damage.Leave, 0, 0.5, "dead wood above stays", "right"},
		{damage.Leave, 0, 1, "right", "dead"},
		{damage.Replace, 0, 0.5, "thrown away", "right"},
		{damage.Replace, 0, 0.02, "comes again", "dead"},
		{damage.CutToBase, 0, 0.02, "right", "cut off"},
		{damage.Replace, 0, 0, "right", "thrown"},
		{damage.Wait, 0, 0.5, "come to again", "right"},
		{damage.CutToBase, 0, 0.5, "All of that was cut off", "right"},
	} {
		said := says(Decided{Kind: c.kind, CutM: c.cut}, c.ends, 2)
		if !strings.Contains(said, c.says) || strings.Contains(said, c.not) {
			t.Errorf("%s at %g of a plant that lives to %g: %q", c.kind, c.cut, c.ends, said)
		}
	}
}
