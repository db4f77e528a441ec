package damage

import (
	"slices"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/season"
)

// TestCareFits: after-care that a head gardener would sign, by plant, harm and climate; each line also what would make the
// crew laugh.
func TestCareFits(t *testing.T) {
	deadTop := func(h float64) []check.Check {
		return []check.Check{scratch(0.5*h, "green"), rub(0.48*h, 6, 0), scratch(0.55*h, "green"), scratch(0.65*h, "brown"), scratch(0.7*h, "brown"), rub(0.68*h, 0, 6)}
	}
	for _, c := range []struct {
		name, species, climate string
		height                 float64
		on                     day.Day
		checks                 []check.Check
		has, hasNot            []string
	}{
		{"a bay is grown for its leaves: no fruit to take off", "laurus-nobilis", "lake-foothills", 2, march, deadTop(2), []string{"protect"}, []string{"fruit"}},
		{"nor from bedding roses", "rosa-bedding", "lake-foothills", 1, march, deadTop(1), nil, []string{"fruit"}},
		{"from an apple that lost half its crown", "malus-domestica", "lake-foothills", 3, june, deadTop(3), []string{"fruit"}, nil},
		{"no fleece for a hardy rose in the cold north", "rosa-bedding", "cold-lowland", 1, march, deadTop(1), nil, []string{"protect"}},
		{"nor for a lilac anywhere cold", "syringa-vulgaris", "cold-lowland", 2.5, march, deadTop(2.5), nil, []string{"protect"}},
		{"nor over a tree of eight metres", "magnolia-grandiflora", "lake-foothills", 8, march, deadTop(8), nil, []string{"protect"}},
		{"a tender camellia has fleece ready", "camellia-japonica", "lake-foothills", 2, march, deadTop(2), []string{"protect"}, nil},
		{"looked at and nothing dead: nothing to nurse", "camellia-japonica", "lake-foothills", 2, march, []check.Check{scratch(0.8, "green")}, nil, []string{"protect", "feed", "fruit", "shade"}},
	} {
		climate, err := catalogue.Built().Climate(c.climate)
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		a := judged(t, ask(t, c.species, c.height, c.on, season.NewYear(climate.Climate.Daily(), nil), c.checks...))
		var kinds []string
		for _, k := range a.Care {
			kinds = append(kinds, k.Kind)
		}
		for _, k := range c.has {
			if !slices.Contains(kinds, k) {
				t.Errorf("%s (%s): %s is missing: %v", c.name, a.Verdict.Kind, k, kinds)
			}
		}
		for _, k := range c.hasNot {
			if slices.Contains(kinds, k) {
				t.Errorf("%s (%s): %s is asked for", c.name, a.Verdict.Kind, k)
			}
		}
	}
}

// TestSlightAloft: nobody climbs for the dead ends of a tall tree; from a shrub in reach they are tipped back.
func TestSlightAloft(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	ends := func(h float64) []check.Check {
		return []check.Check{scratch(0.985*h, "brown"), rub(0.97*h, 0, 5), scratch(0.92*h, "green"), rub(0.935*h, 6, 0), rub(0.9*h, 6, 0)}
	}
	tall := judged(t, ask(t, "quercus-robur", 12, march, y, ends(12)...))
	if tall.Verdict.Kind != Leave {
		t.Errorf("the ends of an oak of 12 m: %s", tall.Verdict.Sentence)
	}
	for _, o := range tall.Orders() {
		if slices.Contains(o.Skills, forArborist) {
			t.Errorf("%q asks for an arborist", o.Title)
		}
	}
	if low := judged(t, ask(t, "syringa-vulgaris", 2.5, march, y, ends(2.5)...)); low.Verdict.Kind != TipBack {
		t.Errorf("the ends of a lilac in reach: %s", low.Verdict.Sentence)
	}
}

// TestTallCutsTakeTheirTime: cutting the dead top off a holm oak of twelve metres takes hours and two people, as its pruning
// does; off a rose it takes minutes.
func TestTallCutsTakeTheirTime(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range []struct {
		species  string
		height   float64
		from, to int // minutes of all together
		people   int
	}{
		{"quercus-ilex", 12, 240, 1200, 2},
		{"rosa-bedding", 1, 5, 30, 1},
		{"camellia-japonica", 2.4, 10, 60, 1},
	} {
		q := ask(t, c.species, c.height, march, y, scratch(0.9*c.height, "brown"), scratch(0.8*c.height, "brown"), scratch(0.6*c.height, "green"), scratch(0.5*c.height, "green"))
		for _, j := range judged(t, q).Jobs {
			if j.Kind != job.CutBack && j.Kind != job.TipBack {
				continue
			}
			if all := j.Minutes * j.Crew; all < c.from || all > c.to || j.Crew < c.people {
				t.Errorf("%s of %g m: %q takes %d people %d min each", c.species, c.height, j.Title, j.Crew, j.Minutes)
			}
		}
	}
}
