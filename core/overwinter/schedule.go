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
	wallWarms  = 1.5  // and a wall off the top
	coverAdds  = 9.0  // °C that a mound of soil or a hand of mulch keeps off the foot
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
	out.How, out.Never = hows(p, &out, y.Normals.Climate.ExtremeMinC)
	return out
}

func plan(p check.Plant, spreadM float64, y *season.Year, today day.Day) Wintering {
	out := Wintering{Out: Winters(p, y.Normals.Climate.ExtremeMinC), Steps: []Step{}}
	name := p.Species.Common
	tuber := p.Species.LeafSeason == catalogue.Herbaceous && p.Species.RootHardinessC > tuberC && p.PotL == 0
	switch {
	case p.Species.Annual:
		out.Way, out.Why = StaysOut, name+" lives for one season: save seed, or sow anew."
		return out
	case out.Out >= outEnough:
		out.Way, out.Chance, out.Why = StaysOut, out.Out, name+" comes through a usual winter where it stands."
		return out
	case out.Out >= wrapFrom && !tuber, !tuber && staysWrapped(p, y.Normals.Climate.ExtremeMinC):
		out.wrap(p, y, today)
		return out
	case !Liftable(p):
		out.Way, out.Chance = Lost, out.Out
		out.Why = fmt.Sprintf(
			"%s bears %s and is too large to be lifted: wrap it, and take cuttings or seed.",
			name,
			quantity.Temperature(p.Species.HardinessC),
		)
		return out
	case tuber:
		out.Way = Tubers
	case p.PotL > 0:
		out.Way = CarryIn
	default:
		out.Way = LiftPot
	}
	out.Chance = LiftedLives(p)
	out.carry(p, y, today)
	out.Keep = keep(p, spreadM, out.Way)
	return out
}

// staysWrapped reports a plant that is kept where it stands though it would hardly come through bare: shrubs and
// climbers in the ground that come again from below their cover, and pots that a wall and a wrap bring through.
func staysWrapped(p check.Plant, extremeC float64) bool {
	e := &p.Species
	woody := e.Form == catalogue.Shrub || e.Form == catalogue.Climber || e.Form == catalogue.Subshrub
	if p.PotL > 0 {
		p.Species.HardinessC -= wallWarms
		p.Species.RootHardinessC -= wallAdds
		return Winters(p, extremeC) >= wallFrom
	}
	covered := p
	covered.Species.HardinessC -= coverAdds
	covered.Species.RootHardinessC -= coverAdds
	again := e.HardPruning == catalogue.FromBase || e.HardPruning == catalogue.OldWood || e.Genus() == "Rosa"
	return woody && again && Winters(covered, extremeC) >= coverFrom
}

// wrap keeps a plant outside that only a hard night would hurt.
func (w *Wintering) wrap(p check.Plant, y *season.Year, today day.Day) {
	w.Way = Wrapped
	hardier := p
	hardier.Species.HardinessC -= wrapAdds
	w.Chance = Winters(hardier, y.Normals.Climate.ExtremeMinC)
	limit := p.Species.HardinessC + wrapAdds
	w.Why = fmt.Sprintf(
		"It bears %s: fleece and straw on nights that come near it, off again by day.",
		quantity.Temperature(p.Species.HardinessC),
	)
	from, ok := autumnDay(y, today, limit)
	to, ok2 := springDay(y, today, limit)
	if ok && ok2 {
		w.Steps = append(
			w.Steps,
			Step{
				"Have fleece and straw at hand",
				from,
				to,
				"nights under " + quantity.Temperature(limit) + " come in this span",
			},
		)
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
	w.Steps = append(w.Steps, Step{do, from, to, why})
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
