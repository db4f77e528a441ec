package damage

import (
	"math"
	"slices"

	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
)

// evidence is what the checks hold together: the belief about the stem, and the signs that decide beside it.
type evidence struct {
	belief          belief.Stems
	any             bool
	living, brown   bool    // green bark, held buds or a shoot seen; brown bark seen
	stock           bool    // shoots of the rootstock seen
	ownRoots        bool    // a shoot with the variety's leaf from below where a graft would be
	graft           float64 // height of the graft as a share of the plant's; 0 without one
	below           bool    // a shoot from under the graft whose leaf nobody could tell
	stem            bool    // something was checked that tells how far up the stem lives
	dying           bool    // something was seen that speaks for death
	crown, spear    string
	heart           float64 // log-odds for a palm's growing point from spear and head
	collapsed       bool
	browned         bool // a palm's head
	girdle          girdle
	rocking         bool
	skip            map[check.Kind]bool // could not be looked at
	softFoot        bool                // bark soft at the foot
	clings          bool                // dead leaves hang on
	leafWell        bool                // leaves are well, or in their winter colour
	danger          string              // what may fall or break, the first of the list that was found; "none" when it was looked for
	held, broke     int
	budsDead        float64 // the lowest place where nearly all buds broke off, as a share of the height; 0 without
	unclear         float64 // the highest place where bark told nothing
	tipsAt, shootAt float64 // where dead tips end, and the highest living shoot, as shares of the height; 0 without
	greenAt, deadAt float64 // the highest place found living and the lowest found dead, as shares of the height; 0 without
	lowest          float64 // the lowest place on the stem that was looked at, as a share of the height; 0 without
	alone           float64 // chance that frost took just the buds of living wood
	recalled        day.Day // the last earlier day of which something still tells; none without
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
	g := gathering{
		q:         q,
		evergreen: leaf == catalogue.Evergreen || leaf == catalogue.SemiEvergreen,
		evidence: evidence{
			belief: belief.StemsFrom(belief.Forecast(q.Forecast)),
			alone:  belief.BudsAlone(q.Forecast),
			graft:  q.Plant.Graft() / q.Plant.HeightM,
			skip:   map[check.Kind]bool{},
		},
	}
	g.recalled = g.recall()
	g.weigh(q.Checks)
	g.rub()
	g.settleCrown()
	g.heart += g.spear * math.Log((1-belief.CrownMisread)/belief.SpearPulledAlive)
	switch {
	case g.spear < 0:
		g.evidence.spear = "pulled"
	case g.spear > 0:
		g.evidence.spear = "held"
	}
	return g.evidence
}

// weigh takes the checks of one look in.
func (g *gathering) weigh(checks []check.Check) {
	for _, c := range checks {
		switch c.Kind { // what says nothing of life
		case check.Danger:
			g.fall(c.Result)
			continue
		case check.NotLooked:
			g.skip[check.Kind(c.Result)] = true
			continue
		case check.Spot, check.Sample, check.Growth:
			continue
		case check.BudRub, check.Scratch, check.Shoot, check.TipDead, check.LeafState:
			g.stem = true
			if x := g.at(c); x > 0 && (g.lowest == 0 || x < g.lowest) {
				g.lowest = x
			}
		}
		g.any = true
		g.dying = g.dying || c.Broke > 0 || c.Kind == check.TipDead
		if weigh, known := weighers[c.Kind]; known {
			weigh(g, c, g.at(c))
		}
		g.tell(c)
	}
}

// at is where a check was made, as a share of the plant's height: on what grew since a cut, at its top.
func (g *gathering) at(c check.Check) float64 { return min(1, c.HeightM/g.q.Plant.HeightM) }

// tell weighs what the kinds of check themselves say a find tells, and notes what it is a sign of.
func (g *gathering) tell(c check.Check) {
	info := check.Of(c.Kind)
	r := info.Result(c.Result)
	if r == nil {
		return
	}
	if c.Kind == check.Scratch && c.Result == "unclear" {
		g.unclear = max(g.unclear, g.at(c))
	}
	if c.Kind == check.Scratch && g.graft > 0 && g.at(c) < g.graft-0.01 && r.Sign == "living" &&
		!g.q.Plant.MaybeOwnRoots() {
		return // bark under the graft is the rootstock's
	}
	g.living = g.living || r.Sign == "living"
	g.dying = g.dying || r.Sign == "dead" || r.Sign == "hurt"
	g.brown = g.brown || r.Sign == "dead" && r.Tells != [2]float64{}
	if info.Height {
		switch x := g.at(c); r.Sign {
		case "living":
			g.greenAt = max(g.greenAt, x)
		case "dead":
			g.died(x)
		}
	}
	if r.Tells == [2]float64{} || r.Evergreen && !g.evergreen {
		return
	}
	x := info.At
	if info.Height {
		x = g.at(c)
	}
	g.belief.Update(x, r.Tells[0], r.Tells[1])
}

// died notes the lowest place that was found dead.
func (g *gathering) died(x float64) {
	if g.deadAt == 0 || x < g.deadAt {
		g.deadAt = x
	}
}

// weighers are what kinds of check add that say more than a find at a place, at a height as a share of the plant's.
var weighers = map[check.Kind]func(*gathering, check.Check, float64){
	check.BudRub:  (*gathering).buds,
	check.Shoot:   (*gathering).shoot,
	check.TipDead: (*gathering).tips,
	check.LeafState: func(g *gathering, c check.Check, _ float64) {
		g.clings = g.clings || c.Result == "clinging"
		g.leafWell = g.leafWell || c.Result == "healthy" || c.Result == "bronzed"
	},
	check.Base:     (*gathering).foot,
	check.BarkRing: func(g *gathering, c check.Check, x float64) { g.girdle.add(x, c.Amount, c.Result == "no_bridge") },
	check.SplitBark: func(g *gathering, c check.Check, x float64) {
		if c.Result == "loose" { // what has come off the wood dies
			g.girdle.add(x, c.Amount, c.Amount >= check.AllRound)
		}
	},
	check.Head: func(g *gathering, c check.Check, _ float64) {
		g.heart += headTells[c.Result]
		g.collapsed = g.collapsed || c.Result == "collapsed"
		g.browned = g.browned || c.Result == "browned"
	},
	check.Crown: func(g *gathering, c check.Check, _ float64) {
		g.crown += goodOrBad(c.Result != "soft")
		if g.evidence.crown == "" || c.Result == "firm_buds" {
			g.evidence.crown = c.Result
		}
	},
	check.Spear: func(g *gathering, c check.Check, _ float64) { g.spear += goodOrBad(c.Result != "pulled") },
}

func goodOrBad(good bool) float64 {
	if good {
		return 1
	}
	return -1
}

// fall notes what may fall: the first of the list of dangers counts.
func (g *gathering) fall(what string) {
	order := check.Of(check.Danger).Keys()
	rank := slices.Index(order, what)
	if g.danger == "" || rank > 0 && (g.danger == "none" || rank < slices.Index(order, g.danger)) {
		g.danger = what
	}
}

func (g *gathering) tips(c check.Check, _ float64) {
	end := 1 - c.Amount/g.q.Plant.HeightM
	g.tipsAt = end
	g.belief.Update(max(0, end-belief.StemSpread), 1-belief.TipMisread, belief.TipMisread)
	g.belief.Update(min(1, end+belief.StemSpread), belief.TipMisread, 1-belief.TipMisread)
}

// foot notes one that rocks: a tall one may fall.
func (g *gathering) foot(c check.Check, _ float64) {
	g.softFoot = g.softFoot || c.Result == "soft_bark"
	switch {
	case c.Result != "rocking":
	case g.q.Plant.HeightM > inReach:
		g.fall("roots_lifted")
	default:
		g.rocking = true
	}
}

// buds gathers those rubbed at one height; rub weighs them once all are gathered.
func (g *gathering) buds(c check.Check, _ float64) {
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
		alive, dead := belief.Rubbed(s.held, s.broke, g.alone)
		x := min(1, s.height/g.q.Plant.HeightM)
		g.belief.Weigh(x, alive, dead)
		g.held += s.held
		g.broke += s.broke
		g.living = g.living || alive > dead
		if alive > dead {
			g.greenAt = max(g.greenAt, x)
		} else if s.broke >= 3*max(1, s.held) && (g.budsDead == 0 || x < g.budsDead) {
			g.budsDead = x
		}
	}
}

func (g *gathering) shoot(c check.Check, x float64) {
	low := c.Leaf != "true" && g.graft > 0 && x < g.graft
	if c.Leaf == "rootstock" || low && !g.q.Plant.MaybeOwnRoots() { // wherever it was seen, it comes from below the graft
		g.stock = g.stock || c.Leaf == "rootstock"
		g.below = g.below || c.Leaf != "rootstock"
		g.belief.Update(min(x, g.graft), 1-belief.ShootMisread, belief.ShootMisread)
		return
	}
	g.living = true
	g.shootAt, g.greenAt = max(g.shootAt, x), max(g.greenAt, x)
	g.ownRoots = g.ownRoots || c.Leaf == "true" && g.graft > 0 && x < g.graft
	g.belief.Update(x, 1-belief.ShootMisread, belief.ShootMisread)
}

// settleCrown joins what was felt of the crown: under a rotten one no stem lives for long.
func (g *gathering) settleCrown() {
	if g.crown < 0 {
		g.evidence.crown = "soft"
		if !g.living {
			g.belief.Rot(belief.CrownMisread)
		}
	} else if g.evidence.crown == "soft" {
		g.evidence.crown = "firm"
	}
}

// headTells are what a palm's head tells of its growing point, as log-odds. Old leaves of a palm stay green for months.
var headTells = map[string]float64{"green": 0.3, "browned": -0.5, "collapsed": -2.6}
