package overwinter

import (
	"fmt"
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// Way is how a plant is brought through a winter.
type Way string

// Ways through a winter.
const (
	StaysOut Way = "stays out"
	Wrapped  Way = "stays out, wrapped on cold nights"
	CarryIn  Way = "carried in"
	Tubers   Way = "tubers lifted and stored dry"
	LiftPot  Way = "cut down, lifted and potted"
	Lost     Way = "too large to save"
)

// Step is something to be done between two days.
type Step struct {
	Do   string  `json:"do"`
	From day.Day `json:"from" format:"date"`
	To   day.Day `json:"to" format:"date"`
	Why  string  `json:"why"`
}

// Keep is what a plant wants while it is in.
type Keep struct {
	LeastC float64 `json:"least_c" doc:"Air, °C"`
	MostC  float64 `json:"most_c"`
	Light  string  `json:"light" enum:"bright,dark will do,"`
	M2     float64 `json:"m2" doc:"Floor that it takes, all of a group"`
	Water  string  `json:"water"`
}

// Wintering is one plant's winter.
type Wintering struct {
	Way    Way     `json:"way"`
	Chance float64 `json:"chance" doc:"That it comes through so, 0 to 1: an estimate"`
	Out    float64 `json:"chance_outside" doc:"That it comes through outside, unprotected"`
	Steps  []Step  `json:"steps"`
	Keep   *Keep   `json:"keep,omitempty" doc:"Where it comes in"`
	Why    string  `json:"why"`

	How   []string `json:"how" doc:"How it is done, by what the plant is"`
	Never []string `json:"never" doc:"What does harm"`
}

// How winters are planned.
const (
	outEnough  = 0.9  // chance outside from which nothing is done
	wrapFrom   = 0.5  // and from which a wrap does
	wrapAdds   = 3.0  // °C that fleece and straw keep off
	wallAdds   = 5.0  // °C that a wall, feet and a wrapped pot keep off the roots
	wallWarms  = 3.5  // and a wall, with fleece in hard frost, off the top
	bareWall   = 1.5  // and a wall without fleece
	tubersOut  = 0.7  // chance outside from which tubers stay in the ground under mulch
	sunkAdds   = 11.0 // °C that the ground keeps off the roots of a pot sunk in it
	coverAdds  = 11.0 // °C that a mound of soil or a hand of mulch keeps off the foot
	wallFrom   = 0.75 // chance so from which a pot stays out
	coverFrom  = 0.6  // chance under such a cover from which it stays in the ground
	inMargin   = 5.0  // °C above what the wood bears by which a pot comes in: its roots bear less
	inLeast    = -4.0 // the coldest night that any pot stays out for
	inMost     = 7.0  // the warmest at which one comes in
	carryDays  = 14   // over which the carrying is spread
	lastBy     = 0.9  // of years, in which the last frost is over when it goes out
	firstBy    = 0.1  // of years, in which the first cold night has come when it must be in
	hardenDays = 12
	late       = 3  // days in which what should be in already comes in
	startDays  = 42 // before they go out tubers are started in warmth
	crateM2    = 0.06
	potPacked  = 0.7 // of the spread, since pots stand close in winter
)

// Plan is how a plant, so wide, is brought through the winter to come.
func Plan(p check.Plant, spreadM float64, y *season.Year, today day.Day) Wintering {
	out := plan(p, spreadM, y, today)
	out.Why = quantity.Worded(out.Why)
	out.How, out.Never = hows(p, &out, y.Normals.Climate.ExtremeMinC)
	return out
}

func plan(p check.Plant, spreadM float64, y *season.Year, today day.Day) Wintering {
	c := y.Normals.Climate
	out := Wintering{Out: Winters(p, c.ExtremeMinC), Steps: []Step{}}
	name := p.Species.Common
	out.Way, out.Chance = way(p, &c)
	switch {
	case p.Species.Annual:
		out.Chance, out.Why = 0, name+" lives for one season: save seed, or sow again."
	case out.Way == StaysOut && out.Out >= outEnough:
		out.Why = name + " comes through a usual winter where it stands."
	case out.Way == StaysOut && tuberous(&p):
		out.Why = fmt.Sprintf("Under a thick mulch %s comes through a usual winter in the ground.", name)
	case out.Way == StaysOut:
		out.Why = "In a hard winter its tops may die back; it comes again from below."
	case out.Way == Wrapped:
		out.wrap(p, y, today)
	case out.Way == Lost:
		out.Why = fmt.Sprintf("%s bears %s and is too large to be lifted: wrap it", name, quantity.Temperature(p.Species.HardinessC))
		if FromCuttings(&p.Species) {
			out.Why += ", and take cuttings in case"
		}
		out.Why += "."
	default:
		out.carry(p, y, today)
		out.Keep = keep(p, spreadM, out.Way)
	}
	return out
}

// way is how a plant is brought through a usual winter of a climate, and its chance so.
func way(p check.Plant, c *season.Climate) (Way, float64) {
	extremeC := c.ExtremeMinC
	out, tuber := Winters(p, extremeC), tuberous(&p)
	if p.Species.Annual || out >= outEnough {
		return StaysOut, out
	}
	if tuber {
		if under := Winters(mulched(p), extremeC); out >= tubersOut && under >= outEnough {
			return StaysOut, under
		}
	}
	if out >= wrapFrom && comesFromBelow(&p) && p.Species.HardinessC <= hardyC {
		return StaysOut, out
	}
	if !tuber {
		if sheltered, stays := staysWrapped(p, c); stays || out >= wrapFrom {
			return Wrapped, max(out, sheltered)
		}
	}
	switch {
	case !Liftable(p):
		return Lost, out
	case tuber:
		return Tubers, LiftedLives(p)
	case p.PotL > 0:
		return CarryIn, LiftedLives(p)
	}
	return LiftPot, LiftedLives(p)
}

// ComesIn reports a plant that is lifted, or carried in, before a winter of a climate.
func ComesIn(p check.Plant, c *season.Climate) bool {
	w, _ := way(p, c)
	return w == CarryIn || w == Tubers || w == LiftPot
}

// tuberous reports a plant in the ground whose tubers may be lifted and stored.
func tuberous(p *check.Plant) bool {
	return p.Species.LeafSeason == catalogue.Herbaceous && p.Species.RootHardinessC > tuberC && p.PotL == 0
}

// hardyC: kinds of hard winters, that are not wrapped, °C.
const hardyC = -25.0

func mulched(p check.Plant) check.Plant {
	p.Mulched = true
	return p
}

// comesFromBelow reports a plant on its own roots in the ground that comes again when its tops are lost.
func comesFromBelow(p *check.Plant) bool {
	return p.PotL == 0 && p.Species.HardPruning == catalogue.FromBase && p.Graft() == 0
}

// staysWrapped reports a plant that is kept where it stands though it would hardly come through bare, and its chance
// so: shrubs and climbers in the ground that come again from below their cover; roses, grasses of large clumps and woody
// herbs, which nobody lifts; and pots that a wall, a wrap or the ground they are sunk in bring through.
func staysWrapped(p check.Plant, c *season.Climate) (chance float64, stays bool) {
	e, extremeC := &p.Species, c.ExtremeMinC
	if p.PotL > 0 {
		wall, sunk := p, p
		warms := wallWarms
		if e.HardinessC > woodyHerbC { // of what is tender fleece saves no leaves
			warms = bareWall
		}
		wall.Species.HardinessC, wall.Species.RootHardinessC = e.HardinessC-warms, e.RootHardinessC-wallAdds
		sunk.Species.RootHardinessC = e.RootHardinessC - sunkAdds
		chance = min(shelterMost, max(Winters(wall, extremeC), Winters(sunk, extremeC)))
		return chance, chance >= wallFrom && e.Genus() != "Citrus" // whose fruit hangs all winter
	}
	wrapped, covered := p, p
	wrapped.Species.HardinessC -= wrapAdds
	covered.Species.HardinessC -= coverAdds
	covered.Species.RootHardinessC -= coverAdds
	again := againFromFoot(e, c)
	chance = Winters(wrapped, extremeC)
	if again || e.Genus() == "Rosa" || e.Form == catalogue.Perennial {
		chance = max(chance, min(shelterMost, Winters(covered, extremeC)))
	}
	woody := e.Form == catalogue.Shrub || e.Form == catalogue.Climber || e.Form == catalogue.Subshrub ||
		e.Form == catalogue.Tree && comesFromBelow(&p)
	never := e.Genus() == "Rosa" || e.Family == "Poaceae" && e.Mature.SpreadM >= largeClumpM ||
		e.Form == catalogue.Subshrub && e.HardinessC <= woodyHerbC
	return chance, never || woody && again && chance >= coverFrom
}

// againFromFoot reports a kind that comes again from its covered foot when a winter takes its tops. What is tender rots
// in ground that stays cold for months, covered or not.
func againFromFoot(e *catalogue.Entry, c *season.Climate) bool {
	if e.RootHardinessC > 0 || e.HardinessC > tenderC && c.ColdestMonthC() < groundC {
		return false
	}
	soft := e.Form == catalogue.Subshrub && e.HardinessC > softHerbC
	if e.LeafSeason == catalogue.Evergreen && (soft || c.ExtremeMinC < e.HardinessC-evergreenDeep) {
		return false
	}
	return e.HardPruning == catalogue.FromBase || e.HardPruning == catalogue.OldWood
}

// What nobody lifts.
const (
	largeClumpM = 1.2  // grasses so wide
	woodyHerbC  = -8.0 // subshrubs that bear so much: rosemary, cistus; others are lifted or taken as cuttings

	shelterMost   = 0.9  // no shelter is surer
	softHerbC     = -5.0 // evergreen subshrubs that bear less do not come again from under a cover,
	tenderC       = -5.0 // kinds that bear less do not where the coldest month's mean is under
	groundC       = 5.0  // °C
	evergreenDeep = 6.0  // nor do evergreens by so much under what they bear, °C
)

// wrap keeps a plant outside that only a hard night would hurt, or that its shelter brings through by a chance.
func (w *Wintering) wrap(p check.Plant, y *season.Year, today day.Day) {
	bears, keeps := p.Species.HardinessC, "Have fleece and straw at hand"
	w.Why = fmt.Sprintf("It bears %s: fleece and straw on nights that come near it, off again by day.", quantity.Temperature(bears))
	switch roots := p.Species.RootHardinessC; {
	case p.PotL > 0 && roots-shielded(&p) > bears:
		bears, keeps = roots, "Have the pot in its shelter"
		w.Why = fmt.Sprintf("Its roots bear %s, its top %s: it is the pot that wants shelter.", quantity.Temperature(roots),
			quantity.Temperature(p.Species.HardinessC))
	case p.Species.Genus() == "Rosa" && w.Chance < wrapFrom:
		w.Why = fmt.Sprintf("It bears %s, and mostly dies in such a winter, mounded or not: or treat it as an annual.",
			quantity.Temperature(bears))
	case p.PotL == 0 && w.Out < wrapFrom && againFromFoot(&p.Species, &y.Normals.Climate):
		keeps = "Mound its foot with soil or a hand of mulch, and have fleece and straw at hand"
		w.Why = fmt.Sprintf("It bears %s, and most winters are harder: its tops may die, and it comes again from its covered foot.",
			quantity.Temperature(bears))
	}
	limit := bears + wrapAdds
	from, ok := autumnDay(y, today, limit)
	to, ok2 := springDay(y, today, limit)
	if ok && ok2 {
		w.step(keeps, from, to, "nights under "+quantity.Temperature(limit)+" come in this span")
	}
}

// carry are the days of coming in and going out.
func (w *Wintering) carry(p check.Plant, y *season.Year, today day.Day) {
	limit := math.Max(inLeast, math.Min(inMost, p.Species.HardinessC+inMargin))
	in, cold := autumnDay(y, today, limit)
	if w.Way == Tubers {
		limit = 0
		if f, ok := y.FirstFrost(winterOf(y, today), 0); ok {
			in, cold = f.Mid+carryDays, true
			w.step(
				"Lift them when the frost has blackened the leaves, cut to a hand’s breadth, dry, store",
				f.Mid,
				in,
				"the tubers grow until the leaves die; before the ground freezes they must be out",
			)
		}
	} else if cold {
		do := "Carry it in"
		if w.Way == LiftPot {
			do = "Cut it down, lift it and pot it, and bring it in"
		}
		w.step(do, in-carryDays, in, "in one year of ten a night under "+quantity.Temperature(limit)+" has come by then")
	}
	for i := range w.Steps { // what is late is done now
		w.Steps[i].From, w.Steps[i].To = max(today, w.Steps[i].From), max(today+late, w.Steps[i].To)
	}
	goes, _ := springDay(y, today, math.Max(0, math.Min(limit, inMost)))
	if !cold {
		w.Why = "Nights that hurt it hardly come before midwinter: carry it in when one is told."
		return
	}
	if w.Way == Tubers {
		w.step("Start them in warmth, in pots", goes-startDays, goes-startDays+carryDays, "they are in leaf when they go out")
	}
	w.step(
		"Harden it off: out by day, in shade at first, in by night",
		goes-hardenDays,
		goes,
		"leaves grown indoors scorch and freeze",
	)
	w.step(
		"Out again",
		goes,
		goes+10,
		"the last night under "+quantity.Temperature(math.Max(0, math.Min(limit, inMost)))+" is over in nine years of ten",
	)
	switch n := math.Round(100 * w.Out); n {
	case 0:
		w.Why = "Outside it hardly ever comes through a winter."
	case 1:
		w.Why = "Outside it would come through one winter of a hundred."
	default:
		w.Why = fmt.Sprintf("Outside it would come through %.0f winters of a hundred.", n)
	}
}

func (w *Wintering) step(do string, from, to day.Day, why string) {
	w.Steps = append(w.Steps, Step{quantity.Worded(do), from, to, why})
}

// winterOf is a day in the garden year whose autumn comes next.
func winterOf(y *season.Year, today day.Day) day.Day {
	c := y.Normals.Climate
	m := c.Midwinter(today)
	if today > m { // past its midwinter: the autumn of this garden year is to come
		return today
	}
	if today < m-183 {
		return today
	}
	return m - 365 + 1
}

func autumnDay(y *season.Year, today day.Day, limit float64) (day.Day, bool) {
	return y.FrostDay(winterOf(y, today), limit, firstBy, false)
}

func springDay(y *season.Year, today day.Day, limit float64) (day.Day, bool) {
	c := y.Normals.Climate
	next := c.Midwinter(winterOf(y, today)) + 365
	return y.FrostDay(next+1, limit, lastBy, true)
}

// keep is what a plant wants while it is in.
func keep(p check.Plant, spreadM float64, way Way) *Keep {
	e := p.Species
	count := float64(max(1, p.Count))
	spread := math.Max(0.25, spreadM) * potPacked
	k := Keep{Light: "bright", M2: count * spread * spread, Water: "Little: the soil just does not dry out."}
	switch {
	case way == Tubers:
		k = Keep{
			LeastC: 4,
			MostC:  9,
			Light:  "dark will do",
			M2:     count * crateM2,
			Water:  "None: dry, looked over once a month for rot.",
		}
	case e.HardinessC >= 0:
		k.LeastC, k.MostC = 12, 18
	case e.HardinessC > -5:
		k.LeastC, k.MostC = 5, 12
	default:
		k.LeastC, k.MostC = 2, 10
	}
	if way != Tubers && e.LeafSeason != catalogue.Evergreen {
		k.Light, k.MostC = "dark will do", math.Min(k.MostC, 9)
	}
	if way == LiftPot {
		k.M2 = count * 0.15
	}
	k.M2 = math.Ceil(100*k.M2) / 100
	return &k
}

// Shares reports that two plants may stand in one house, and at what temperature.
func (k Keep) Shares(o Keep) (least, most float64, ok bool) {
	least, most = math.Max(k.LeastC, o.LeastC), math.Min(k.MostC, o.MostC)
	return least, most, least <= most
}
