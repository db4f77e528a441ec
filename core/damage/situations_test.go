package damage

import (
	"strings"
	"testing"

	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

func ring(h, share float64, bridge string) check.Check {
	return check.Check{Kind: check.BarkRing, HeightM: h, Amount: share, Result: bridge}
}
func split(h float64, r string, share float64) check.Check {
	return check.Check{Kind: check.SplitBark, HeightM: h, Result: r, Amount: share}
}
func tip(m float64) check.Check { return check.Check{Kind: check.TipDead, Amount: m} }
func leaves(h float64, r string) check.Check {
	return check.Check{Kind: check.LeafState, HeightM: h, Result: r}
}
func foot(r string) check.Check { return check.Check{Kind: check.Base, Result: r} }
func head(r string) check.Check { return check.Check{Kind: check.Head, Result: r} }
func notLooked(k check.Kind) check.Check {
	return check.Check{Kind: check.NotLooked, Result: string(k)}
}
func sample(alike, other int) check.Check {
	return check.Check{Kind: check.Sample, Held: alike, Broke: other}
}
func spotIs(key, seen string) check.Check {
	return check.Check{Kind: check.Spot, Result: key, Seen: seen}
}
func tree(m float64) check.Check {
	return check.Check{Kind: check.Spot, Result: "big_tree_near", Seen: "yes", Amount: m}
}
func with(f func(*check.Plant)) func(*Question) { return func(q *Question) { f(&q.Plant) } }

var (
	october = day.Of(2027, 10, 12)
	august  = day.Of(2027, 8, 12)
)

// more are situations beyond stems and crowns: every other check and verdict, over all forms. Each names the verdict a good
// gardener gives and what must be said for it, in the sentence, a reason or what to do.
var more = []struct {
	name    string
	species string
	height  float64
	on      day.Day
	set     func(*Question)
	checks  []check.Check
	want    string
	says    []string
}{
	// Grafts.
	{"old lemon, only thorny shoots from below the graft", "citrus-limon", 1.8, august, with(func(p *check.Plant) { p.GraftM, p.Years = 0.15, 14 }),
		[]check.Check{scratch(1.4, "brown"), scratch(0.7, "brown"), scratch(0.3, "brown"), leaf(0.1, "rootstock")}, Regraft, []string{"only the rootstock lives", "below the graft", "keep it as it is", "says nothing for the variety"}},
	{"young orange, the same: start anew", "citrus-sinensis", 1.2, august, with(func(p *check.Plant) { p.GraftM, p.Years = 0.15, 3 }),
		[]check.Check{scratch(1, "brown"), scratch(0.5, "brown"), scratch(0.25, "brown"), leaf(0.1, "rootstock")}, Replace, []string{"young enough to start again"}},
	{"mandarin, rootstock shoots in March: too early", "citrus-reticulata", 1.6, march, with(func(p *check.Plant) { p.GraftM = 0.2 }),
		[]check.Check{scratch(1.4, "brown"), scratch(0.6, "brown"), leaf(0.1, "rootstock")}, Wait, []string{"too early to give the variety up"}},
	{"lemon green above the graft, suckers below", "citrus-limon", 1.6, august, with(func(p *check.Plant) { p.GraftM = 0.15 }),
		[]check.Check{leaf(0.1, "rootstock"), scratch(1.5, "green"), leaf(1.55, "true"), leaf(1.58, "true")}, Leave, []string{"Tear out the rootstock"}},
	{"tea rose gone above the graft, leaf of the rootstock", "rosa-tea", 1.1, august, with(func(p *check.Plant) { p.GraftM, p.Years = 0.06, 9 }),
		[]check.Check{scratch(0.8, "brown"), scratch(0.3, "brown"), scratch(0.12, "brown"), leaf(0.03, "rootstock"), leaf(0.04, "rootstock")}, Regraft, []string{"graft at 6 cm", "Do not bury the graft"}},
	{"old rose, no graft found, shoots from the ground", "rosa-bedding", 1.2, august, with(func(p *check.Plant) { p.Years = 30 }),
		[]check.Check{scratch(0.9, "brown"), scratch(0.4, "brown"), scratch(0.15, "brown"), shoot(0.05), crown("firm_buds")}, CutToBase, []string{"may be on its own roots", "keep it and watch"}},
	{"young rose, shoots from under the graft, leaf not told, in March", "rosa-tea", 1.1, march, with(func(p *check.Plant) { p.GraftM, p.Years = 0.08, 4 }),
		[]check.Check{scratch(0.8, "brown"), scratch(0.3, "brown"), shoot(0.04)}, Wait, []string{"the leaf will tell"}},
	{"the same in August: look at the leaf", "rosa-tea", 1.1, august, with(func(p *check.Plant) { p.GraftM, p.Years = 0.08, 4 }),
		[]check.Check{scratch(0.8, "brown"), scratch(0.3, "brown"), scratch(0.15, "brown"), shoot(0.04)}, Look, []string{"Look at the leaf first"}},
	{"standard rose, the head dead, wild shoots on the stem", "rosa-standard", 1.5, august, with(func(p *check.Plant) { p.GraftM, p.Years = 1.1, 12 }),
		[]check.Check{scratch(1.45, "brown"), scratch(1.3, "brown"), scratch(1.18, "brown"), leaf(0.6, "rootstock"), leaf(0.9, "rootstock")}, Regraft, []string{"1.1 m"}},
	{"own roots: leaf true from under where the graft would be", "rosa-shrub", 1.2, august, with(func(p *check.Plant) { p.GraftM, p.Years = 0.1, 20 }),
		[]check.Check{scratch(0.8, "brown"), scratch(0.3, "brown"), leaf(0.05, "true"), crown("firm_buds")}, CutToBase, []string{"own roots"}},
	// Bark gone round the stem.
	{"apple gnawed three quarters round, a bridge left", "malus-domestica", 3, march, nil, []check.Check{ring(0.2, 0.75, "bridge"), rub(2.4, 6, 0), scratch(2.8, "green")}, Wait, []string{"75 % of the girth", "a bridge is left", "Guard the stem", "doubtful"}},
	{"the same, nothing else looked at", "malus-domestica", 3, march, nil, []check.Check{ring(0.2, 0.75, "bridge")}, Wait, []string{"a bridge is left"}},
	{"a fifth of the girth taken by a mower", "prunus-serrulata", 4, august, nil, []check.Check{ring(0.1, 0.2, "bridge")}, Leave, []string{"heals over", "no mower near it"}},
	{"two fifths gone, sound above", "tilia-cordata", 5, august, nil, []check.Check{ring(0.3, 0.4, "bridge"), shoot(4.9), shoot(5)}, Leave, []string{"slows it"}},
	{"pear ringed whole by voles", "pyrus-communis", 3.5, march, nil, []check.Check{ring(0.1, 1, "no_bridge"), scratch(3, "green"), rub(3.4, 8, 0)}, Regraft, []string{"Bridge-graft", "all round", "while the bark slips"}},
	{"wire grown in all round a beech", "fagus-sylvatica", 5, august, nil, []check.Check{ring(1.2, 0.9, "no_bridge")}, Regraft, []string{"unless it is bridged now"}},
	{"dogwood gnawed all round: it renews", "cornus-alba", 1.8, march, nil, []check.Check{ring(0.25, 1, "no_bridge")}, CutToBase, []string{"under the ring", "nothing above is fed"}},
	{"forsythia ringed, and green to the top", "forsythia-intermedia", 2, march, nil, []check.Check{ring(0.3, 1, "no_bridge"), rub(1.95, 8, 0), scratch(1.9, "green"), rub(1.99, 8, 0)}, CutToBase, []string{"let it renew"}},
	{"bark split by frost, tight", "rhododendron-hybrid", 1.6, august, nil, []check.Check{split(0.2, "tight", 0), shoot(1.55), shoot(1.6)}, Leave, []string{"closes by itself"}},
	{"bark split and loose over two thirds", "rhododendron-hybrid", 1.6, august, nil, []check.Check{split(0.15, "loose", 0.66), shoot(1.55), shoot(1.6)}, Wait, []string{"66 % of the girth", "come off the wood dies"}},
	{"bark loose all round at the foot of an azalea", "azalea-evergreen", 0.9, august, nil, []check.Check{split(0.06, "loose", 1), shoot(0.88)}, Regraft, []string{"everything above is lost"}},
	// Leaves, tips and the foot of the stem.
	{"laurel leaves scorched at the edges only", "prunus-laurocerasus", 2.5, august, nil, []check.Check{leaves(2.45, "scorched_margin"), leaves(2.3, "healthy"), rub(2.45, 8, 0), shoot(2.45)}, Leave, []string{"dried, the twig lives"}},
	{"box bronzed by cold", "buxus-sempervirens", 1, march, nil, []check.Check{leaves(0.97, "bronzed"), scratch(0.97, "green"), rub(0.98, 8, 0)}, Leave, []string{"which passes"}},
	{"camellia bleached on the sunny side", "camellia-japonica", 1.8, march, nil, []check.Check{leaves(1.7, "bleached"), rub(1.75, 8, 0), scratch(1.75, "green")}, Leave, []string{"bleached by sun"}},
	{"citrus that cast its leaves, in March", "citrus-sinensis", 1.6, march, nil, []check.Check{leaves(1.4, "dropped")}, Wait, []string{"casts them only while it lives"}},
	{"bay with brown leaves clinging, in March", "laurus-nobilis", 2.2, march, nil, []check.Check{leaves(2, "clinging"), scratch(2, "brown"), scratch(0.5, "green")}, Wait, []string{"Brown leaves cling"}},
	{"bay with the top dead, in August", "laurus-nobilis", 2.2, august, nil, []check.Check{leaves(2.1, "clinging"), tip(0.8), shoot(1.3), scratch(1.35, "green"), scratch(1.5, "brown"), scratch(1.45, "brown")}, CutBack, []string{"Shoots dead over 80 cm", "live bud"}},
	{"mulberry, the last hand of each shoot dead", "morus-nigra", 3, august, nil, []check.Check{tip(0.12), shoot(2.85), shoot(2.88), scratch(2.95, "brown")}, TipBack, []string{"only the ends"}},
	{"foot of a lavender soft and brown in March", "lavandula-angustifolia", 0.5, march, nil, []check.Check{foot("soft_bark"), scratch(0.1, "brown"), scratch(0.3, "brown")}, Wait, []string{"Bark soft and brown at the foot"}},
	{"foot of the stem sound, nothing else looked at", "olea-europaea", 3, march, nil, []check.Check{foot("sound")}, Look, []string{"the top was not looked at"}},
	{"young lime rocks in its hole", "tilia-cordata", 2.4, march, nil, []check.Check{foot("rocking"), rub(2.35, 8, 0), scratch(2.3, "green"), rub(2.39, 8, 0)}, Leave, []string{"Firm the soil", "rocks in its hole"}},
	{"a tall cypress rocks", "cupressus-sempervirens", 9, march, nil, []check.Check{foot("rocking")}, MakeSafe, []string{"roots", "licensed"}},
	{"crown under snow, dead above, in June", "buddleja-davidii", 2, june, nil, []check.Check{scratch(1.5, "brown"), scratch(0.4, "brown"), scratch(0.15, "brown"), scratch(0.1, "brown"), notLooked(check.Crown)}, Look, []string{"could not be looked at", "nothing is concluded"}},
	// Palms.
	{"hardy palm, the spear came out in March", "trachycarpus-fortunei", 3, march, nil, []check.Check{spear("pulled"), head("green")}, Wait, []string{"the spear came out", "may still live"}},
	{"hardy palm, spear out and no new leaf by August", "trachycarpus-fortunei", 3, august, nil, []check.Check{spear("pulled"), head("browned")}, Replace, []string{"growing point is dead"}},
	{"spear out in March, a new leaf in August", "trachycarpus-fortunei", 3, august, nil, []check.Check{spear("pulled"), shoot(3)}, Leave, []string{"growing point lives"}},
	{"spear holds under brown leaves", "chamaerops-humilis", 1.5, march, nil, []check.Check{spear("held"), head("browned")}, Leave, []string{"Leave browned leaves on"}},
	{"head collapsed, in August", "phoenix-canariensis", 4, august, nil, []check.Check{head("collapsed")}, Replace, []string{"growing point is dead"}},
	{"green head, spear not reached", "washingtonia-robusta", 8, march, nil, []check.Check{head("green"), notLooked(check.Spear)}, Wait, []string{"Not looked at: the spear"}},
	{"nothing looked at on a palm", "butia-odorata", 2, march, nil, nil, Look, []string{"Nothing has been checked"}},
	// Autumn.
	{"half-hardy climber in October", "bougainvillea-glabra", 2.2, october, nil, []check.Check{scratch(2, "green")}, Lift, []string{"before the first frost", "30 cm", "Keep it frost-free and light", "coldest night of a usual winter"}},
	{"the same, nothing looked at", "bougainvillea-glabra", 2.2, october, nil, nil, Lift, []string{"Take it out again after the last frost"}},
	{"plumbago in October", "plumbago-auriculata", 1.5, october, nil, nil, Lift, []string{"Lift and shelter"}},
	{"geraniums in October", "pelargonium-zonal", 0.4, october, nil, []check.Check{shoot(0.4)}, Lift, []string{"Do not promise the client"}},
	{"lemon in a pot in October", "citrus-limon", 1.5, october, with(func(p *check.Plant) { p.PotL = 40 }), nil, Lift, []string{"Shelter the pot"}},
	{"bougainvillea in March is not lifted", "bougainvillea-glabra", 2.2, march, nil, nil, Look, []string{"Nothing has been checked"}},
	{"a dead geranium in October is not lifted", "pelargonium-zonal", 0.4, october, nil, []check.Check{crown("soft")}, Replace, []string{"dead to the crown"}},
	{"a hardy climber in October stays", "clematis-late", 2.2, october, nil, []check.Check{rub(2.15, 8, 0), rub(2.19, 8, 0), scratch(2.1, "green")}, Leave, []string{"alive to the tips"}},
	{"salvias loose in autumn wind", "salvia-tender", 1.2, october, nil, []check.Check{foot("rocking")}, TipBack, []string{"Shorten by a third now", "the rest after hard frost", "Do not cut it down now"}},
	{"roses rocked in October", "rosa-bedding", 1.2, october, nil, []check.Check{foot("rocking"), shoot(1.1)}, TipBack, []string{"Shorten by a third", "Firm the soil"}},
	{"butterfly bush rocked in March", "buddleja-davidii", 2, march, nil, []check.Check{foot("rocking")}, Leave, []string{"firm its roots in"}},
	// Fellows and the spot.
	{"one of five trees stunted beside pooled water", "prunus-lusitanica", 1.2, august, fellows(2.5, 2.6, 2.4, 2.7), []check.Check{spotIs("water_stands", "yes"), shoot(1.15), shoot(1.2)}, Leave, []string{"once in", "standing water", "Mend the spot first"}},
	{"one of five stunted, nobody asked yet", "prunus-lusitanica", 1.2, august, fellows(2.5, 2.6, 2.4, 2.7), []check.Check{shoot(1.15), shoot(1.2)}, Leave, []string{"The spot is suspect", "its 4 fellows"}},
	{"one stunted, an old tree four metres off", "hydrangea-macrophylla", 0.5, august, func(q *Question) {
		fellows(1.2, 1.25, 1.1, 1.3)(q)
		q.Around = cause.Around{Thirsty: "plane", ReachM: 18}
	}, []check.Check{spotIs("water_stands", "no"), tree(4), spotIs("in_shade", "no"), shoot(0.48), shoot(0.5)}, Leave, []string{"roots of a big neighbour", "4.0 m away"}},
	{"like its fellows", "prunus-lusitanica", 2.4, august, fellows(2.5, 2.6, 2.4, 2.7), []check.Check{shoot(2.35), shoot(2.4)}, Leave, []string{"alive to the tips"}},
	{"hurt far more than its fellows", "camellia-japonica", 2, june, func(q *Question) {
		for i, lost := range []float64{0.05, 0.02, 0.08, 0} {
			q.Fellows = append(q.Fellows, cause.Fellow{HeightM: 1.9 + 0.1*float64(i), CrownLost: lost, Judged: true})
		}
	}, []check.Check{scratch(1, "green"), shoot(0.95), scratch(1.2, "brown"), scratch(1.1, "brown"), spotIs("hot_spot", "yes")}, CutBack, []string{"of its crown", "reflected heat"}},
	{"as tall as its fellows, but hardly growing", "malus-domestica", 3.1, august, func(q *Question) {
		for _, x := range []float64{0.5, 0.55, 0.45, 0.6} {
			q.Fellows = append(q.Fellows, cause.Fellow{HeightM: 3, GrowthM: x})
		}
	}, []check.Check{{Kind: check.Growth, Amount: 0.12}, spotIs("big_tree_near", "no"), spotIs("animals", "yes"), shoot(3), shoot(3.1)}, Leave, []string{"It grew 12 cm last season, its 4 fellows about 52 cm", "Guard it"}},
	// Groups kept as one.
	{"forty lavenders, five looked at", "lavandula-angustifolia", 0.5, june, with(func(p *check.Plant) { p.Count = 40 }), []check.Check{shoot(0.48), shoot(0.5), sample(4, 1)}, Leave, []string{"4 of 5 looked at", "of the other 35"}},
	{"a bed of peonies, all looked at", "paeonia-lactiflora", 0.8, march, with(func(p *check.Plant) { p.Count = 6 }), []check.Check{crown("firm_buds"), sample(6, 0)}, CutToBase, []string{"All 6 were looked at"}},
	// Danger over all forms.
	{"mushrooms at the foot of a willow in full leaf", "salix-babylonica", 10, august, nil, []check.Check{shoot(2), danger("fungus_at_base")}, MakeSafe, []string{"fungus at the base", "licensed"}},
	{"split fork over a path, bark gone as well", "pyrus-calleryana", 8, march, nil, []check.Check{danger("split_stem"), ring(0.2, 1, "no_bridge")}, MakeSafe, []string{"split", "Keep people"}},
	// Herbaceous and green-wood-only kinds.
	{"grass, tops dead, crown firm", "miscanthus-sinensis", 1.8, march, nil, []check.Check{crown("firm")}, CutToBase, []string{"crown lives"}},
	{"ceanothus green only low down in June", "ceanothus-evergreen", 1.6, june, nil, []check.Check{scratch(1.2, "brown"), scratch(0.6, "brown"), scratch(0.3, "green"), scratch(0.4, "brown"), scratch(0.35, "green")}, Replace, []string{"bare wood"}},
	{"spruce, bare below, green above", "picea-abies", 2.5, june, nil, []check.Check{shoot(2.45), shoot(2.5), leaves(1, "dropped")}, Leave, []string{"alive to the tips"}},
}

func fellows(h ...float64) func(*Question) {
	return func(q *Question) {
		for _, x := range h {
			q.Fellows = append(q.Fellows, cause.Fellow{HeightM: x})
		}
	}
}

// all a verdict says.
func said(a Answer) string {
	parts := append([]string{a.Verdict.Sentence, a.Prognosis.Text}, a.Do...)
	parts = append(parts, a.Dont...)
	for _, r := range a.Reasons {
		parts = append(parts, r.Text)
	}
	for _, c := range a.Care {
		parts = append(parts, c.Text)
	}
	for _, c := range a.Cautions {
		parts = append(parts, c.Text)
	}
	return strings.Join(parts, " · ")
}

func TestMoreSituations(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	if n := len(situations) + len(more); n < 60 {
		t.Errorf("%d situations", n)
	}
	seen := map[string]bool{}
	for _, c := range more {
		q := ask(t, c.species, c.height, c.on, y, c.checks...)
		if c.set != nil {
			c.set(&q)
		}
		a, err := inWords(q)
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		seen[a.Verdict.Kind] = true
		if a.Verdict.Kind != c.want {
			t.Errorf("%s: %s (%s), want %s; life to %+v", c.name, a.Verdict.Kind, a.Verdict.Sentence, c.want, a.Boundary)
		}
		words := said(a)
		for _, want := range c.says {
			found := false
			for _, w := range strings.Split(want, "|") {
				found = found || strings.Contains(words, w)
			}
			if !found {
				t.Errorf("%s: does not say %q: %s", c.name, want, words)
			}
		}
		if a.Verdict.Sentence == "" || a.Prognosis.Text == "" || a.Verdict.CutM > c.height || len(a.Jobs) == 0 && c.want != Leave {
			t.Errorf("%s: %+v, %d jobs", c.name, a.Verdict, len(a.Jobs))
		}
		for _, j := range a.Jobs {
			if w, ok := j.Curve.Best(c.on); !ok || w < c.on || j.Minutes <= 0 {
				t.Errorf("%s: job %q: best on %s, %d min", c.name, j.Title, w, j.Minutes)
			}
		}
		for i, k := range a.Care {
			if k.From < c.on || k.To < k.From || k.Text == "" {
				t.Errorf("%s: care %d: %+v", c.name, i, k)
			}
		}
	}
	for _, k := range verdicts {
		if !seen[k] && k != Wait {
			t.Errorf("no situation comes to %q", k)
		}
	}
}

// TestOldChecks: a crown that felt soft in March is no reason in July to give the plant up, since nobody looked after its
// leaf was due; the same find made in July is. Growing older changes no finding that tells of life.
func TestOldChecks(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	july := day.Of(2027, 7, 10)
	for _, species := range []string{"hydrangea-macrophylla", "lagerstroemia-indica", "hibiscus-syriacus"} {
		q := ask(t, species, 1.4, july, y, scratch(0.7, "brown"), crown("soft"))
		now, err := inWords(q)
		if err != nil || now.Verdict.Kind != Replace {
			t.Errorf("%s, found soft in July: %+v, %v", species, now.Verdict, err)
		}
		q.Found = march
		old, err := inWords(q)
		if err != nil || old.Verdict.Kind != Look || !strings.Contains(old.Verdict.Sentence, "last looked at on 18 March") {
			t.Errorf("%s, found soft in March and opened in July: %+v, %v", species, old.Verdict, err)
		}
		if old.Next == nil || old.LookAgain != july {
			t.Errorf("%s: next check %+v, look again %s", species, old.Next, old.LookAgain)
		}
		q.Today = day.Of(2027, 4, 1)
		if a, err := inWords(q); err != nil || a.Verdict.Kind != Wait {
			t.Errorf("%s, found soft in March and opened in April: %+v, %v", species, a.Verdict, err)
		}
	}
}
