package damage

import (
	"math"
	"slices"

	"mezzadro/core/catalogue"
)

// evidence is what the checks hold together: the belief about the stem, and the signs that decide beside it.
type evidence struct {
	belief        Belief
	any           bool
	living, brown bool    // green bark, held buds or a shoot seen; brown bark seen
	stock         bool    // shoots of the rootstock seen
	ownRoots      bool    // a shoot with the variety's leaf from below where a graft would be
	graft         float64 // height of the graft as a share of the plant's; 0 without one
	below         bool    // a shoot from under the graft whose leaf nobody could tell
	stem          bool    // something was checked that tells how far up the stem lives
	dying         bool    // something was seen that speaks for death
	crown, spear  string
	heart         float64 // log-odds for a palm's growing point from spear and head
	collapsed     bool
	girdle        girdle
	rocking       bool
	skip          map[Kind]bool // could not be looked at
	danger        string        // what may fall or break, the first of the list that was found; "none" when it was looked for
	held, broke   int
	alone         float64 // chance that frost took just the buds of living wood
}

// spot gathers all buds rubbed at one height, so that the order of checks cannot matter.
type spot struct {
	height      float64
	held, broke int
}

// gathering is what is kept while the checks are gone through.
type gathering struct {
	evidence
	q            Question
	evergreen    bool
	spots        []spot
	crown, spear float64 // for a living crown and a held spear
}

func gather(q Question) evidence {
	leaf := q.Plant.Species.LeafSeason
	g := gathering{q: q, evergreen: leaf == catalogue.Evergreen || leaf == catalogue.SemiEvergreen,
		evidence: evidence{belief: forecast(q.Forecast), alone: budsAlone(q.Forecast), graft: q.Plant.graft() / q.Plant.HeightM, skip: map[Kind]bool{}}}
	for _, c := range q.Checks {
		switch c.Kind { // what says nothing of life
		case Danger:
			g.fall(c.Result)
			continue
		case NotLooked:
			g.skip[Kind(c.Result)] = true
			continue
		case Spot, Sample, Growth:
			continue
		case BudRub, Scratch, Shoot, TipDead, LeafState:
			g.stem = true
		}
		g.any = true
		g.dying = g.dying || c.Broke > 0 || c.Kind == TipDead || slices.Contains([]string{"brown", "clinging", "soft", "soft_bark"}, c.Result)
		if weigh, known := weighers[c.Kind]; known {
			weigh(&g, c, c.HeightM/q.Plant.HeightM)
		}
	}
	g.rub()
	g.settleCrown()
	g.heart += g.spear * math.Log((1-CrownMisread)/spearPulledAlive)
	switch {
	case g.spear < 0:
		g.evidence.spear = "pulled"
	case g.spear > 0:
		g.evidence.spear = "held"
	}
	return g.evidence
}

// weighers are what each kind of check that speaks of life adds, at a height as a share of the plant's.
var weighers = map[Kind]func(*gathering, Check, float64){
	BudRub: (*gathering).buds, Scratch: (*gathering).scratch, Shoot: (*gathering).shoot, LeafState: (*gathering).leaf,
	TipDead: (*gathering).tips, Base: (*gathering).foot,
	BarkRing: func(g *gathering, c Check, x float64) { g.girdle.add(x, c.Amount, c.Result == "no_bridge") },
	SplitBark: func(g *gathering, c Check, x float64) {
		if c.Result == "loose" { // what has come off the wood dies
			g.girdle.add(x, c.Amount, c.Amount >= allRound)
		}
	},
	Head: func(g *gathering, c Check, _ float64) {
		g.heart += headTells[c.Result]
		g.collapsed = g.collapsed || c.Result == "collapsed"
	},
	Crown: func(g *gathering, c Check, _ float64) {
		g.crown += either(c.Result == "soft", -1, 1)
		if g.evidence.crown == "" || c.Result == "firm_buds" {
			g.evidence.crown = c.Result
		}
	},
	Spear: func(g *gathering, c Check, _ float64) { g.spear += either(c.Result == "pulled", -1, 1) },
}

// fall notes what may fall: the first of the list of dangers counts.
func (g *gathering) fall(what string) {
	rank := slices.Index(results[Danger], what)
	if g.danger == "" || rank > 0 && (g.danger == "none" || rank < slices.Index(results[Danger], g.danger)) {
		g.danger = what
	}
}

func (g *gathering) tips(c Check, _ float64) {
	end := 1 - c.Amount/g.q.Plant.HeightM
	g.belief.update(max(0, end-StemSpread), 1-TipMisread, TipMisread)
	g.belief.update(min(1, end+StemSpread), TipMisread, 1-TipMisread)
}

func (g *gathering) leaf(c Check, x float64) {
	l, tells := leafTells[c.Result]
	if tells && (g.evergreen || c.Result != "dropped" && c.Result != "bronzed") {
		g.living = g.living || c.Result == "healthy"
		g.belief.update(x, l[0], l[1])
	}
}

func (g *gathering) foot(c Check, _ float64) {
	switch {
	case c.Result == "sound":
		g.belief.update(footAt, 1-ScratchMisread, ScratchMisread)
	case c.Result == "soft_bark":
		g.brown = true
		g.belief.update(footAt, ScratchMisread, 1-ScratchMisread)
	case g.q.Plant.HeightM > inReach: // a tall one that rocks may fall
		g.fall("roots_lifted")
	default:
		g.rocking = true
	}
}

// buds gathers those rubbed at one height; rub weighs them once all are gathered.
func (g *gathering) buds(c Check, _ float64) {
	i := slices.IndexFunc(g.spots, func(s spot) bool { return s.height == c.HeightM })
	if i < 0 {
		i = len(g.spots)
		g.spots = append(g.spots, spot{height: c.HeightM})
	}
	g.spots[i].held += c.Held
	g.spots[i].broke += c.Broke
}

func (g *gathering) rub() {
	for _, s := range g.spots {
		alive, dead := budChances(s.held, s.broke, g.alone)
		g.belief.weigh(s.height/g.q.Plant.HeightM, alive, dead)
		g.held += s.held
		g.broke += s.broke
		g.living = g.living || alive > dead
	}
}

func (g *gathering) scratch(c Check, x float64) {
	switch c.Result {
	case "green":
		g.living = true
		g.belief.update(x, 1-ScratchMisread, ScratchMisread)
	case "brown":
		g.brown = true
		g.belief.update(x, ScratchMisread, 1-ScratchMisread)
	}
}

func (g *gathering) shoot(c Check, x float64) {
	low := c.Leaf != "true" && g.graft > 0 && x < g.graft
	if c.Leaf == "rootstock" || low && !g.q.Plant.maybeOwnRoots() { // wherever it was seen, it comes from below the graft
		g.stock = g.stock || c.Leaf == "rootstock"
		g.below = g.below || c.Leaf != "rootstock"
		g.belief.update(min(x, g.graft), 1-ShootMisread, ShootMisread)
		return
	}
	g.living = true
	g.ownRoots = g.ownRoots || c.Leaf == "true" && g.graft > 0 && x < g.graft
	g.belief.update(x, 1-ShootMisread, ShootMisread)
}

// settleCrown joins what was felt of the crown: under a rotten one no stem lives for long.
func (g *gathering) settleCrown() {
	if g.crown < 0 {
		g.evidence.crown = "soft"
		for i := 1; i < len(g.belief.log); i++ {
			g.belief.log[i] += math.Log(CrownMisread / (1 - CrownMisread))
		}
		g.belief.settle()
	} else if g.evidence.crown == "soft" {
		g.evidence.crown = "firm"
	}
}

// What leaves and a palm's head tell: chances on living and on dead wood, and log-odds for the growing point. A twig casts
// its leaves only while it lives; brown ones that hang on hang on a dead twig. Old leaves of a palm stay green for months.
var (
	leafTells = map[string][2]float64{"healthy": {0.97, 0.03}, "scorched_margin": {0.9, 0.15}, "bleached": {0.85, 0.15},
		"bronzed": {0.95, 0.1}, "dropped": {0.7, 0.3}, "clinging": {0.25, 0.75}}
	headTells = map[string]float64{"green": 0.3, "browned": -0.5, "collapsed": -2.6}
)

// footAt is where the foot of a stem is felt, as a share of its height.
const footAt = 0.03
