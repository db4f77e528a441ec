package damage

import (
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// at is a plant in a climate on a day.
type at struct {
	climate, species string
	height           float64
	on               day.Day
}

// situationAt is a situation with the verdicts a good gardener may give, what is said and what must not be.
type situationAt struct {
	name string
	at
	set    func(*Question)
	checks []check.Check
	want   []string
	says   []string
	never  []string
}

// yearRound are situations through the year and over climates.
var yearRound = []situationAt{
	// Where the plant is in its year decides what silence means.
	{"brown bark after an October freeze", at{"prairie", "rosa-shrub", 1.4, day.Of(2026, 10, 22)}, nil, []check.Check{scratch(1.2, "brown"), scratch(0.6, "brown"), scratch(0.2, "brown")},
		[]string{Wait}, []string{"spring"}, []string{"that is past", "Replace"}},
	{"the same in November", at{"cold-lowland", "buddleja-davidii", 2, day.Of(2026, 11, 20)}, nil, []check.Check{scratch(1.5, "brown"), scratch(0.5, "brown"), scratch(0.1, "brown"), scratch(0.1, "brown")},
		[]string{Wait}, []string{"2027"}, []string{"that is past"}},
	{"healthy in November", at{"oceanic-lowland", "camellia-japonica", 2, day.Of(2026, 11, 20)}, nil, []check.Check{rub(1.9, 8, 0), scratch(1.95, "green"), rub(1.95, 8, 0)},
		[]string{Leave}, nil, []string{"that is past"}},
	{"a southern autumn freeze in May", at{"patagonia-steppe", "rosa-shrub", 1.4, day.Of(2027, 5, 25)}, nil, []check.Check{scratch(1.2, "brown"), scratch(0.6, "brown"), scratch(0.2, "brown")},
		[]string{Wait}, []string{"spring"}, []string{"that is past"}},
	{"brown in July, all around it green", at{"prairie", "rosa-shrub", 1.4, day.Of(2027, 7, 20)}, nil, []check.Check{scratch(1.2, "brown"), scratch(0.6, "brown"), scratch(0.15, "brown"), scratch(0.1, "brown"), crown("soft")},
		[]string{Replace}, nil, nil},
	// Contradictions ask, they do not kill.
	{"soft crown under a living shoot", at{"lake-foothills", "hydrangea-macrophylla", 1.2, june}, nil, []check.Check{crown("soft"), shoot(0.8)}, []string{Look}, []string{"feel"}, []string{"Replace"}},
	{"soft crown under green bark", at{"gulf-coast", "camellia-japonica", 2, june}, nil, []check.Check{crown("soft"), scratch(1.5, "green"), scratch(1.8, "green")}, []string{Look}, []string{"crown"}, []string{"Replace"}},
	{"soft crown, buds held above", at{"lake-foothills", "rosa-shrub", 1.2, march}, nil, []check.Check{crown("soft"), rub(0.9, 8, 0)}, []string{Look, Wait}, nil, []string{"Replace", "nothing living"}},
	{"firm crown under dead stems of a kind that breaks from old wood", at{"lake-foothills", "camellia-japonica", 2, june}, nil,
		[]check.Check{scratch(1.5, "brown"), scratch(0.6, "brown"), scratch(0.15, "brown"), scratch(0.15, "brown"), crown("firm")}, []string{CutToBase, Look}, nil, []string{"Replace"}},
	{"firm crown under dead stems in March", at{"lake-foothills", "lavandula-angustifolia", 0.5, march}, nil, []check.Check{scratch(0.4, "brown"), scratch(0.2, "brown"), scratch(0.05, "brown"), crown("firm")}, []string{Wait}, nil, []string{"Replace"}},
	// Buds come in clumps, and a tip is but a tip.
	{"five of ten buds held", at{"cold-lowland", "malus-domestica", 3, march}, nil, []check.Check{rub(2, 5, 5)}, []string{Wait, Look, Leave, TipBack}, nil, []string{"nothing living"}},
	{"one brown scratch at the tip", at{"cold-lowland", "forsythia-intermedia", 2, march}, nil, []check.Check{scratch(1.95, "brown")}, []string{Wait, Look}, []string{"lower"}, []string{"nothing living"}},
	{"dead tips measured, living shoots below", at{"dry-summer-coast", "nerium-oleander", 2.5, day.Of(2027, 5, 25)}, nil, []check.Check{tip(0.6), shoot(1.8)}, []string{CutBack, TipBack}, nil, nil},
	{"a hand of dead tips, shoots below, in June", at{"great-lakes", "acer-palmatum", 2, june}, nil, []check.Check{tip(0.1), shoot(1.85)}, []string{TipBack}, nil, nil},
	{"flower buds dead on green wood", at{"cold-lowland", "forsythia-intermedia", 2, march}, nil, []check.Check{rub(1.8, 0, 8), rub(1.4, 0, 6), scratch(1.85, "green"), scratch(1.95, "green"), scratch(1.5, "green")},
		[]string{Leave}, []string{"bloom"}, nil},
	{"dead fruit buds on green wood", at{"continental-basin", "prunus-persica", 3, day.Of(2027, 4, 2)}, nil, []check.Check{rub(2.4, 0, 10), scratch(2.4, "green"), scratch(2.8, "green")},
		[]string{Leave, Wait}, []string{"crop"}, nil},
	{"a cut on old wood tells what bloom it costs", at{"lake-foothills", "syringa-vulgaris", 3, june}, nil, []check.Check{scratch(1.4, "green"), shoot(1.35), scratch(1.6, "brown"), scratch(1.55, "brown"), rub(1.7, 0, 6)},
		[]string{CutBack}, []string{"bloom"}, nil},
	// Each is judged and worded by its own build.
	{"hosta black after frost", at{"cold-lowland", "hosta-hybrid", 0.5, day.Of(2026, 10, 28)}, nil, []check.Check{leaves(0.4, "clinging")}, []string{Leave, CutToBase, Wait}, nil, []string{"cratch", "live bud"}},
	{"a grass brown in March", at{"cold-lowland", "miscanthus-sinensis", 1.8, march}, nil, nil, []string{Look, CutToBase}, nil, []string{"cratch", "ub "}},
	{"a strap-leaved plant, firm crown", at{"oceanic-lowland", "agapanthus-africanus", 0.6, march}, nil, []check.Check{crown("firm")}, []string{CutToBase, Leave, Wait}, nil, []string{"cratch", "wood"}},
	{"a tree fern without a spear", at{"cool-coast", "dicksonia-antarctica", 2, march}, nil, nil, []string{Look}, nil, []string{"spear"}},
	{"a cycad browned", at{"gulf-coast", "cycas-revoluta", 1, march}, nil, []check.Check{head("browned")}, []string{Wait, Leave}, nil, []string{"spear"}},
	// Before winter.
	{"dahlia after the first black frost", at{"cold-lowland", "dahlia-pinnata", 1, day.Of(2026, 10, 20)}, func(q *Question) {
		q.Year = season.NewYear(q.Year.Normals, map[day.Day]season.Extremes{day.Of(2026, 10, 16): {Min: -3, Max: 6}})
	}, nil, []string{Lift}, []string{"frost has"}, []string{"before the first frost: out"}},
	{"dahlia before any frost", at{"oceanic-lowland", "dahlia-pinnata", 1, day.Of(2026, 10, 12)}, nil, nil, []string{Lift, Look}, nil, nil},
	// Rings and roots.
	{"lilac gnawed all round at the foot", at{"prairie", "syringa-vulgaris", 2.5, march}, nil, []check.Check{ring(0.2, 1, "no_bridge")}, []string{CutToBase}, []string{"under the ring"}, []string{"Bridge-graft"}},
	{"small shrub rocked loose", at{"cool-coast", "rosa-shrub", 1, march}, nil, []check.Check{foot("rocking"), shoot(0.9)}, []string{Leave, TipBack}, []string{"irm"}, []string{"ope off"}},
	// A plain difference is worth a question.
	{"one of four a third smaller", at{"great-lakes", "hydrangea-paniculata", 1.2, june}, func(q *Question) {
		for _, h := range []float64{1.75, 1.9, 1.8, 2} {
			q.Fellows = append(q.Fellows, cause.Fellow{HeightM: h})
		}
	}, []check.Check{shoot(1.15), shoot(1.2)}, []string{Leave}, []string{"fellows"}, nil},
	{"a third smaller among plants that differ", at{"great-lakes", "hydrangea-paniculata", 1.1, june}, func(q *Question) {
		for _, h := range []float64{1.3, 2.4, 1.4, 2.3} {
			q.Fellows = append(q.Fellows, cause.Fellow{HeightM: h})
		}
	}, []check.Check{shoot(1.05), shoot(1.1)}, []string{Leave}, []string{"planted later, or is something wrong where it stands?"}, []string{"beyond chance"}},
}

func TestYearRound(t *testing.T) { trySituations(t, yearRound) }

func trySituations(t *testing.T, list []situationAt) {
	t.Helper()
	for _, c := range list {
		cl, err := catalogue.Built().Climate(c.climate)
		if err != nil {
			t.Fatal(err)
		}
		q := ask(t, c.species, c.height, c.on, season.NewYear(cl.Climate.Daily(), nil), c.checks...)
		if c.set != nil {
			c.set(&q)
		}
		a, err := inWords(q)
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		if !slices.Contains(c.want, a.Verdict.Kind) {
			t.Errorf("%s: %s (%s), want %v", c.name, a.Verdict.Kind, a.Verdict.Sentence, c.want)
		}
		all := said(a) + " " + a.Prognosis.Text
		if a.Next != nil {
			all += " " + string(a.Next.Kind) + " " + a.Next.Why
		}
		for _, s := range c.says {
			if !strings.Contains(all, s) {
				t.Errorf("%s: does not say %q: %s", c.name, s, all)
			}
		}
		for _, s := range c.never {
			if strings.Contains(all, s) {
				t.Errorf("%s: says %q: %s", c.name, s, all)
			}
		}
	}
}

// TestTallTreesAreForTheLicensed: work off the ground, with a saw aloft or on thick stems names the skill, a second person, and says so.
func TestTallTreesAreForTheLicensed(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	high := []check.Check{scratch(2, "green"), scratch(5, "green"), shoot(6), scratch(7.5, "brown"), scratch(7, "brown"), rub(7.2, 0, 6), scratch(6.6, "brown")}
	for _, c := range []struct {
		name, species string
		height        float64
		checks        []check.Check
		licensed      bool
	}{
		{"an oak's dead top", "quercus-robur", 9, high, true},
		{"a small camellia", "camellia-japonica", 1.6, []check.Check{scratch(0.9, "green"), shoot(0.85), scratch(1.1, "brown"), scratch(1.05, "brown")}, false},
	} {
		a := answer(t, ask(t, c.species, c.height, june, y, c.checks...))
		for _, j := range a.Jobs {
			if j.Kind == "look" || j.Kind == "guard" {
				continue
			}
			named := slices.ContainsFunc(j.Skills, func(s string) bool { return strings.Contains(s, "licensed") })
			if named != c.licensed || c.licensed && j.Crew < 2 {
				t.Errorf("%s: %s wants %v, %d people", c.name, j.Title, j.Skills, j.Crew)
			}
			if c.licensed && !strings.Contains(strings.Join(j.Cautions, " "), "licensed") {
				t.Errorf("%s: %s warns of %v", c.name, j.Title, j.Cautions)
			}
		}
		if len(a.Jobs) == 0 {
			t.Errorf("%s: no work (%s)", c.name, a.Verdict.Sentence)
		}
	}
}
