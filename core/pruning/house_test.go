package pruning

import (
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/rules"
)

// TestHouseRules: what firms choose differently, as gardeners of each school would expect it, each with the rule that spoke.
func TestHouseRules(t *testing.T) {
	for _, c := range []struct {
		name, climate, species string
		ask                    Ask
		good, never            time.Month // a month with a day in a window, and one without; 0: not asked
		says                   string
	}{
		{"roses at bud swell", "lake-foothills", "rosa-bedding", Ask{}, 3, 12, "bud swell"},
		{"roses in winter", "lake-foothills", "rosa-bedding", Ask{Rules: rules.House{Roses: rules.InWinter}}, 1, 7, "wind rock"},
		{"roses in winter, south", "southern-foothills", "rosa-bedding", Ask{Rules: rules.House{Roses: rules.InWinter}}, 7, 1, "wind rock"},
		{"lilac in the way waits", "lake-foothills", "syringa-vulgaris", Ask{Purpose: Size, HeightM: 3, WantedM: 2.6}, 6, 3, "wait"},
		{"lilac in the way is cut", "lake-foothills", "syringa-vulgaris", Ask{Purpose: Size, HeightM: 3, WantedM: 2.6, Rules: rules.House{InTheWay: rules.CutAnyway}}, 3, 9, "anyway"},
		{"grasses stand", "lake-foothills", "miscanthus-sinensis", Ask{}, 3, 12, "stand till late winter"},
		{"grasses at frost", "lake-foothills", "miscanthus-sinensis", Ask{Rules: rules.House{Perennials: rules.AtFrost}}, 12, 5, "at once"},
		{"a sage of the desert keeps its form", "hot-desert", "leucophyllum-frutescens", Ask{}, 0, 0, "natural form"},
		{"or is clipped", "hot-desert", "leucophyllum-frutescens", Ask{Rules: rules.House{Natives: rules.Clip}}, 0, 0, "clipped"},
		{"wounds stay bare", "lake-foothills", "tilia-cordata", Ask{Purpose: Raise}, 0, 0, "bare"},
		{"wounds are sealed", "lake-foothills", "tilia-cordata", Ask{Purpose: Raise, Rules: rules.House{Wounds: rules.Seal, SealFromCM: 8}}, 0, 0, "sealed"},
		{"wounds get compost", "lake-foothills", "tilia-cordata", Ask{Purpose: Raise, Rules: rules.House{Wounds: rules.Compost}}, 0, 0, "compost"},
	} {
		c.ask.Species, c.ask.Place, c.ask.Date = entry(t, c.species), year(t, c.climate), day.Of(2027, 3, 18)
		p, err := For(c.ask)
		if err != nil {
			t.Fatal(c.name, err)
		}
		if !strings.Contains(strings.Join(p.Rules, "; "), c.says) {
			t.Errorf("%s: %q spoke", c.name, p.Rules)
		}
		in := map[time.Month]bool{}
		for _, w := range p.Windows {
			for d := w.From; d <= w.To; d++ {
				in[d.Month()] = true
			}
		}
		if c.good != 0 && !in[c.good] || c.never != 0 && in[c.never] {
			t.Errorf("%s: windows %v", c.name, p.Windows)
		}
		clipped := strings.Contains(strings.Join(p.Steps, " "), "no shears")
		if wild := strings.Contains(c.says, "natural form"); wild != clipped || wild && p.Share > 0.25 {
			t.Errorf("%s: takes %.2f, %v", c.name, p.Share, p.Steps)
		}
		if sealed := slices.ContainsFunc(p.Steps, func(s string) bool { return strings.Contains(s, "Seal wounds") }); sealed != (c.says == "sealed") {
			t.Errorf("%s: %v", c.name, p.Steps)
		}
	}
}

// TestCutAnywayShowsTheLoss: the rule takes the cost away, not the bloom from the answer.
func TestCutAnywayShowsTheLoss(t *testing.T) {
	for _, r := range []rules.House{{}, {InTheWay: rules.CutAnyway}} {
		p, err := For(Ask{Species: entry(t, "syringa-vulgaris"), Place: year(t, "lake-foothills"), Date: day.Of(2027, 3, 10), Purpose: Size, HeightM: 3, WantedM: 2.6, Rules: r})
		if err != nil || p.BloomLoss < 0.1 || !strings.Contains(p.BloomText, "takes no harm") {
			t.Errorf("%+v: %.2f %q %v", r, p.BloomLoss, p.BloomText, err)
		}
	}
}

// TestPurposesOfTheirOwn: cuts before lifting, before gales and of faded heads come when they are needed, not with the yearly cut.
func TestPurposesOfTheirOwn(t *testing.T) {
	for _, c := range []struct {
		climate, species string
		purpose          Purpose
		best             []time.Month
	}{
		{"lake-foothills", "dahlia-pinnata", Lifting, []time.Month{10, 11, 12}},
		{"pampas", "dahlia-pinnata", Lifting, []time.Month{5, 6, 7}},
		{"lake-foothills", "hosta-hybrid", Lifting, []time.Month{9, 10, 11, 3, 4}},
		{"lake-foothills", "malus-domestica", Lifting, []time.Month{11, 12, 1, 2, 3}},
		{"lake-foothills", "camellia-japonica", Lifting, []time.Month{3, 4, 9, 10, 11}},
		{"lake-foothills", "buddleja-davidii", Storm, []time.Month{10, 11, 12}},
		{"lake-foothills", "rosa-bedding", Storm, []time.Month{10, 11, 12}},
		{"lake-foothills", "hydrangea-macrophylla", Deadhead, []time.Month{3, 4}},
		{"lake-foothills", "rhododendron-hybrid", Deadhead, []time.Month{4, 5, 6}},
	} {
		p, err := For(Ask{Species: entry(t, c.species), Place: year(t, c.climate), Date: day.Of(2027, 4, 1), Purpose: c.purpose})
		if err != nil || !slices.Contains(c.best, p.Best.Month()) {
			t.Errorf("%s, %s in %s: best %s, windows %v, %v", c.species, c.purpose, c.climate, p.Best, p.Windows, err)
		}
	}
}

// TestTogether: what is fed and mulched after its spring cut, and what is never fed for it.
func TestTogether(t *testing.T) {
	for species, want := range map[string]string{
		"rosa-bedding": "Feed, compost and mulch", "miscanthus-sinensis": "Feed, compost and mulch", "syringa-vulgaris": "Compost and mulch",
		"lavandula-angustifolia": "", "tilia-cordata": "",
	} {
		p, err := For(Ask{Species: entry(t, species), Place: year(t, "lake-foothills"), Date: day.Of(2027, 3, 1), Count: 8})
		got := ""
		for _, f := range p.Together {
			got += f.Title
			if f.Minutes < 5 || !strings.Contains(f.Why, "clear of the stems") {
				t.Errorf("%s: %+v", species, f)
			}
		}
		if err != nil || !strings.HasPrefix(got, want) || want == "" && got != "" {
			t.Errorf("%s: %v, want %v (%v)", species, got, want, err)
		}
	}
	p, err := For(Ask{Species: entry(t, "rosa-bedding"), Place: year(t, "lake-foothills"), Date: day.Of(2027, 3, 1), Purpose: Deadhead})
	if err != nil || len(p.Together) > 0 {
		t.Errorf("faded heads: %v", p.Together)
	}
}

// TestRenewalGoesOn: the second year's plan is of the second third.
func TestRenewalGoesOn(t *testing.T) {
	for part, want := range map[int]string{1: "the oldest third", 2: "the next third", 3: "the last third"} {
		p, err := For(Ask{Species: entry(t, "forsythia-intermedia"), Place: year(t, "lake-foothills"), Date: day.Of(2027, 3, 1), Purpose: Renew, Part: part})
		if err != nil || len(p.Years) != 4-part || !strings.Contains(p.Years[0].Text, want) {
			t.Errorf("part %d: %+v, %v", part, p.Years, err)
		}
	}
	if got := Usual(entry(t, "forsythia-intermedia"), Of{Count: 1, HeightM: 2.5}); got != Renew {
		t.Errorf("an old forsythia: %s", got)
	}
	for name, of := range map[string]Of{"young": {Count: 1, HeightM: 1}, "renewed": {Count: 1, HeightM: 2.5, Renewed: true}} {
		if got := Usual(entry(t, "forsythia-intermedia"), of); got != Shape {
			t.Errorf("%s: %s", name, got)
		}
	}
}

// TestNext: next year's proposal knows what was done: which third of a renewal, that a yearly cut is over till next year, and that
// a hedge is trimmed twice.
func TestNext(t *testing.T) {
	today := day.Of(2027, 6, 20)
	old := Of{Count: 1, HeightM: 2.5}
	for _, c := range []struct {
		name, species string
		of            Of
		past          Past
		purpose       Purpose
		part          int
		from          day.Day
	}{
		{"never cut", "forsythia-intermedia", old, Past{}, Renew, 1, today},
		{"the oldest third went this May", "forsythia-intermedia", old, Past{Last: today - 30, Part: 1, PartDone: today - 30}, Renew, 2, today + 270},
		{"the second third went a year ago", "forsythia-intermedia", old, Past{Last: today - 400, Part: 2, PartDone: today - 400}, Renew, 3, today},
		{"all went, two years ago", "forsythia-intermedia", old, Past{Last: today - 700, Part: 3, PartDone: today - 700}, Shape, 0, today},
		{"all went, long ago", "forsythia-intermedia", old, Past{Part: 3, PartDone: today - 2000}, Renew, 1, today},
		{"roses cut in March", "rosa-bedding", Of{Count: 6}, Past{Last: today - 90}, Shape, 0, today + 210},
		{"a hedge trimmed in June", "buxus-sempervirens", Of{Count: 40}, Past{Last: today - 10}, Hedge, 0, today + 40},
		{"wisteria cut in winter", "wisteria-sinensis", Of{Count: 1}, Past{Last: today - 120}, Shape, 0, today},
		{"an annual", "ocimum-basilicum", Of{Count: 9}, Past{}, "", 0, today},
	} {
		purpose, part, from := Next(entry(t, c.species), c.of, c.past, today)
		if purpose != c.purpose || part != c.part || from != c.from {
			t.Errorf("%s: %q part %d from %s, want %q %d %s", c.name, purpose, part, from, c.purpose, c.part, c.from)
		}
	}
}

// TestWaysOfPurposes: a hedge is trimmed to a taper, dead wood is looked for first, a young tree gets its structure and an old one little;
// palms keep their own way, and what keeps its natural form sees no shears.
func TestWaysOfPurposes(t *testing.T) {
	for _, c := range []struct {
		species     string
		ask         Ask
		says, never string
	}{
		{"buxus-sempervirens", Ask{Purpose: Hedge, Count: 40}, "narrower above", "collar"},
		{"tilia-cordata", Ask{Purpose: Dead, HeightM: 14}, "Nothing that lives", "leader"},
		{"tilia-cordata", Ask{HeightM: 3}, "Choose the leader", "old tree"},
		{"quercus-robur", Ask{Purpose: Thin, HeightM: 16}, "old tree", "hedge"},
		{"phoenix-canariensis", Ask{Purpose: Dead, HeightM: 5}, "brown fronds", "collar"},
		{"rosa-bedding", Ask{Purpose: Deadhead}, "first full leaf", "oldest cane"},
		{"hydrangea-macrophylla", Ask{Purpose: Deadhead}, "live pair", "full leaf"},
		{"leucophyllum-frutescens", Ask{Purpose: Hedge, Count: 12}, "no shears", "line along"},
		{"lavandula-angustifolia", Ask{Purpose: Frosted}, "has shown what lives", "leader"},
		{"malus-domestica", Ask{HeightM: 2}, "Dead, damaged", "Choose the leader"},
		{"malus-domestica", Ask{Purpose: Storm, HeightM: 6}, "No topping", "leader"},
		{"cornus-mas", Ask{Purpose: Raise, HeightM: 4}, "two thirds", "line along"},
	} {
		c.ask.Species, c.ask.Place, c.ask.Date = entry(t, c.species), year(t, "lake-foothills"), day.Of(2027, 3, 18)
		p, err := For(c.ask)
		text := strings.Join(append(p.Steps, p.Where), " ")
		if err != nil || !strings.Contains(text, c.says) || strings.Contains(text, c.never) {
			t.Errorf("%s, %s: %s (%v)", c.species, c.ask.Purpose, text, err)
		}
	}
}
