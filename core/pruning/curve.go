package pruning

import (
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/moment"
	"mezzadro/core/season"
)

// What days cost, in points.
const (
	offTime, offTimeEach, offTimeMost = 32, 0.6, 70 // outside the class's windows: at once, for each day, at most
	frostCost                         = 60
	restSpare                         = 20       // °C that a plant at rest may be cut above what its wood bears
	softSpare, hardySoft              = 24, -5.0 // the same of what it pushes, and how far down, °C
	frostDays                         = 21       // days after the cut in which a frost still burns it
	lateCost                          = 50
	bleedHeavy, bleedSome             = 50, 15
	sapFrom, sapTo                    = -38, 21    // days from leaf-out between which sap runs
	overCost, overEach                = 12.0, 25.0 // more goes than it bears: at once, and for the whole crown
	hardyFrom, hardyLate              = -33, 12    // kinds whose late shoots ripen all the same, °C, and what is left of the cost
	nestCost                          = 8
	nestFrom, nestEarly, nestTo       = -10, -45, 80
	heatEach, usualHeat               = 8, 35.0
	unseenCost                        = 12          // dead is not told from dormant
	winterFrom, winterTo, winterCost  = 290, 35, 31 // days before leaf-out in which shrubs that winter cuts back wait for spring
)

// Ahead is what each day from the date on costs for a cut that was asked for then: a year of days. What is asked for
// may not be, where the plant has grown or was cut since; its curve is drawn all the same.
func Ahead(a Ask) job.Curve {
	c, _ := a.ruled()
	a.fill(c)
	return a.coming(c, a.Place.Of(a.Species, a.Date))
}

// coming is the year from the date on.
func (a *Ask) coming(c *Class, cal moment.Calendar) job.Curve {
	return a.over(c, cal, a.Date, a.ends(c, cal, a.Date+yearAhead))
}

// yearAhead is how far the curve of an order goes, days; a window that runs then is told to its end, if that is not
// further off.
const (
	yearAhead  = 366
	windowOver = 100
)

// ends is the day on which the window that runs on a day ends; the day itself where none does.
func (a *Ask) ends(c *Class, cal moment.Calendar, d day.Day) day.Day {
	out := d
	for _, s := range a.spans(c, cal) {
		if s.from <= d && s.to >= d && s.to <= d+windowOver {
			out = max(out, s.to+1)
		}
	}
	return out
}

// curve is what each day of the garden year of the date costs for the cut that is asked for.
func (a *Ask) curve(c *Class, cal moment.Calendar) job.Curve {
	from, to := a.Place.Year.Normals.Climate.GardenYear(a.Date)
	return a.over(c, cal, from, to)
}

// over is the curve over some days.
func (a *Ask) over(c *Class, cal moment.Calendar, from, to day.Day) job.Curve {
	curve := job.Curve{Start: from, Days: int(to - from)}
	spans := a.spans(c, cal)
	curve.Because(a.bloom(c, cal), a.overmuch(c))
	if len(spans) > 0 {
		curve.Because(outside(c, spans)...)
	}
	curve.Because(a.frost(c, from, to), a.late(c, cal), heat(c, a.Place.Year.Normals))
	curve.Because(a.living(c, cal)...)
	return curve
}

// spans are the days for the purpose; none where any day will do.
func (a *Ask) spans(c *Class, cal moment.Calendar) (out []span) {
	windows := c.Windows
	switch a.Purpose {
	case Dead, Sick:
		if a.Purpose == Dead && c.Draw == "crown" && a.Species.Form == catalogue.Perennial {
			break // its dead leaves and stalks are what is cut each year
		}
		return nil
	case Frosted:
		windows = []Window{
			{
				From: moment.On("leaf_out", 21),
				To:   moment.On("leaf_out", 80),
				Why:  "what lives has shown it, and new shoots still ripen",
			},
		}
	case Deadhead:
		if c.Spares { // its faded heads stay as the class says
			break
		}
		windows = []Window{
			{
				From: moment.On("bloom_start", 10),
				To:   moment.On("bloom_end", 30),
				Why:  "faded heads come off as they fade",
			},
		}
	case Hedge:
		from := 50
		if a.Species.Form == catalogue.Conifer {
			from = 22
		}
		windows = []Window{
			{
				From: moment.On("leaf_out", from),
				To:   moment.On("leaf_out", 105),
				Why:  "the flush has hardened, and most broods have flown",
			},
			{
				From: moment.On("first_frost", -85),
				To:   moment.On("first_frost", -50),
				Why:  "it keeps its line over winter, and there is time to close",
			},
		}
		if c.Soft && c.Frost >= -1 { // what knows no winter is clipped when it begins to grow too
			windows = append(windows, c.Windows...)
		}
		kept := a.Species.ForLeaf || c.Bloom >= bloomCalls // for leaf, blossom or berries
		if a.Species.LeafSeason == catalogue.Deciduous && !kept {
			windows = append(windows, Window{From: moment.On("leaf_drop", 30), To: moment.On("leaf_out", -28),
				Why: "it is bare and at rest, and nobody nests in it"})
		}
	case Storm:
		if rocks(a.Species) {
			windows = []Window{
				{
					From: moment.On("first_frost", -25),
					To:   moment.On("first_frost", 25),
					Why:  "shortened by a third before the gales, it does not rock; the rest is cut in spring",
				},
			}
		}
	case Lifting:
		windows = lifting(a.Species)
	case Size:
		if len(c.Size) > 0 {
			windows = c.Size
		}
	case Renew:
		if len(c.Renewal) > 0 {
			windows = c.Renewal
		}
	case Shape, Thin, Raise, Train:
	}
	for _, w := range windows {
		out = append(out, spansOf(cal, w)...)
	}
	return out
}

// rocks reports a kind that wind rocks at the root when it goes into winter tall: shrubs and subshrubs with soft
// growth.
func rocks(e *catalogue.Entry) bool {
	return (e.Form == catalogue.Shrub || e.Form == catalogue.Subshrub) && (e.Bloom.NewWood > 0.5 || e.Genus() == "Rosa")
}

// lifting is when a kind is cut to be lifted: what frost takes once it has blackened, what is bare while it is at rest,
// and what keeps its leaves while the soil is warm.
func lifting(e *catalogue.Entry) []Window {
	switch {
	case e.LeafSeason == catalogue.Herbaceous && e.HardinessC > -12:
		return []Window{
			{
				From: moment.On("first_frost", 0),
				To:   moment.On("first_frost", 21),
				Why:  "frost has blackened the tops and the roots are ripe",
			},
		}
	case e.LeafSeason == catalogue.Herbaceous:
		return []Window{
			{
				From: moment.On("first_frost", -45),
				To:   moment.On("first_frost", 10),
				Why:  "it goes to rest and still roots before winter",
			},
			{From: moment.On("leaf_out", -14), To: moment.On("leaf_out", 25), Why: "it begins to grow"},
		}
	case e.LeafSeason == catalogue.Deciduous:
		return []Window{
			{From: moment.On("leaf_drop", 0), To: moment.On("leaf_out", -14), Why: "it is bare and at rest"},
		}
	}
	return []Window{
		{
			From: moment.On("first_frost", -65),
			To:   moment.On("first_frost", -25),
			Why:  "the soil is warm: it roots again before winter",
		},
		{From: moment.On("last_frost", -21), To: moment.On("last_frost", 28), Why: "it roots as it begins to grow"},
	}
}

// outside is what days outside all spans cost, told before the next one and after the last.
func outside(c *Class, spans []span) []reason.Why {
	far := func(d day.Day) (before, after float64) {
		before, after = math.Inf(1), math.Inf(1)
		for _, s := range spans {
			switch {
			case d >= s.from && d <= s.to:
				return 0, 0
			case d < s.from:
				before = min(before, float64(s.from-d))
			default:
				after = min(after, float64(d-s.to))
			}
		}
		return before, after
	}
	cost := func(days float64) job.Cost { return reason.Points(min(offTimeMost, offTime+offTimeEach*days)) }
	texts := [2]string{c.Before, c.After}
	if texts[0] == "" {
		texts[0] = "better when " + spans[0].why
	}
	if texts[1] == "" {
		texts[1] = "past the best time, when " + spans[0].why
	}
	return []reason.Why{
		{Name: "too early", Text: texts[0], On: func(d day.Day) job.Cost {
			if before, after := far(d); before > 0 && before <= after {
				return cost(before)
			}
			return job.Cost{}
		}},
		{Name: "too late", Text: texts[1], On: func(d day.Day) job.Cost {
			if before, after := far(d); after > 0 && after < before {
				return cost(after)
			}
			return job.Cost{}
		}},
	}
}

// bloomShare is the share of the next bloom that the cut takes on a day.
func (a *Ask) bloomShare(c *Class, cal moment.Calendar, d day.Day) float64 {
	spared := c.Spares && a.Share <= c.Most &&
		(a.Purpose == Shape || a.Purpose == Thin || a.Purpose == Size && c.Draw == "crown")
	if a.Purpose == Deadhead || a.Purpose == Dead || spared || !bloomSeen(c, a.Species) {
		return 0
	}
	return a.Share * lossOf(cal, a.Species, d)
}

// overmuch is what it costs that more is taken than it bears at once.
func (a *Ask) overmuch(c *Class) reason.Why {
	over := max(0, a.Share-c.Most-0.005)
	return reason.Why{Name: "too much", Text: "more goes than it bears at once", On: func(day.Day) job.Cost {
		if over == 0 || a.Purpose == Dead {
			return job.Cost{}
		}
		return reason.Points(overCost + overEach*over)
	}}
}

// bloomSeen reports a kind whose bloom, or the fruit after it, one sees go: not catkins, cones and what is green among
// leaves.
func bloomSeen(c *Class, e *catalogue.Entry) bool {
	coloured := slices.ContainsFunc(e.Flower.Colours, func(s string) bool { return s != "green" })
	return !e.ForLeaf || coloured || fruits[c.ID]
}

// bloom is what that loss costs: nothing where a kind is kept for its leaf.
func (a *Ask) bloom(c *Class, cal moment.Calendar) reason.Why {
	missed := c.Bloom > 0 && a.Share > 0 && (!a.Species.ForLeaf || fruits[c.ID])
	return reason.Why{Name: "bloom", Text: "flower buds go with it", On: func(d day.Day) job.Cost {
		if !missed {
			return job.Cost{}
		}
		return reason.Points(c.Bloom * a.bloomShare(c, cal, d))
	}}
}

func (a *Ask) frost(c *Class, from, to day.Day) reason.Why {
	limit := min(c.Frost, max(hardySoft, a.Species.HardinessC+softSpare))
	if !c.Soft { // at rest a hardy kind bears more than the class at large
		limit = min(limit, a.Species.HardinessC+restSpare)
	}
	if a.Purpose == Dead || a.Purpose == Sick || a.Purpose == Deadhead {
		limit = min(limit, -8) // nothing living is opened: only hard frost stops hands and brittle wood
	}
	chance := a.Place.frostWithin(from, to, limit)
	return reason.Frost(
		"frost may still follow and burn the cut and what it pushes",
		frostCost,
		func(d day.Day) float64 {
			return chance[max(0, min(len(chance)-1, int(d-from)))]
		},
	)
}

// late is that shoots after a late cut do not ripen before frost.
func (a *Ask) late(c *Class, cal moment.Calendar) reason.Why {
	soft := c.Soft && !cal.Frostless && a.Purpose != Dead && a.Purpose != Deadhead && a.Purpose != Sick
	return reason.Why{
		Name: "too late in the year",
		Text: "shoots after a late cut do not ripen before frost",
		On: func(d day.Day) job.Cost {
			ripening, ok := cal.Next(moment.When{Event: "ripening"}, d-150)
			if !soft || !ok || d < ripening ||
				d > min(ripening+moment.Ripens+45, cal.Nearest(moment.When{Event: "midwinter"}, ripening)-10) {
				return job.Cost{}
			}
			if a.Species.HardinessC <= hardyFrom {
				return reason.Points(hardyLate)
			}
			return reason.Points(lateCost)
		},
	}
}

func heat(c *Class, n *season.Normals) reason.Why {
	limit := c.Heat
	if limit == 0 {
		limit = usualHeat
	}
	return reason.Heat("heat and sun on bark that was shaded", limit, heatEach, n.TMax.At)
}

// winterAhead is that shrubs which winter cuts back are cleared once, when spring shows what lives.
func winterAhead(cal moment.Calendar) reason.Why {
	return reason.Why{
		Name: "winter ahead",
		Text: "winter takes more of it: once, when spring shows what lives",
		On: func(d day.Day) job.Cost {
			out, ok := cal.Next(moment.When{Event: "leaf_out"}, d)
			if !ok || out-d > winterFrom || out-d < winterTo || cal.Frostless {
				return job.Cost{}
			}
			return reason.Points(winterCost)
		},
	}
}

// living is what sap, beetles, nests and sleep cost.
func (a *Ask) living(c *Class, cal moment.Calendar) []reason.Why {
	between := func(name, text string, from, to int, points float64) reason.Why {
		return reason.Why{Name: name, Text: text, On: func(d day.Day) job.Cost {
			out := cal.Nearest(moment.When{Event: "leaf_out"}, d)
			if d < out+day.Day(from) || d > out+day.Day(to) {
				return job.Cost{}
			}
			return reason.Points(points)
		}}
	}
	var out []reason.Why
	e := a.Species
	opens := a.Purpose != Dead && a.Purpose != Deadhead
	switch {
	case !opens:
	case e.SapBleeding == "heavy":
		out = append(out, between("sap", "the sap runs: cuts bleed for weeks", sapFrom, sapTo, bleedHeavy))
	case e.SapBleeding == "some":
		out = append(out, between("sap", "the sap runs: cuts bleed a little", sapFrom, sapTo, bleedSome))
	}
	out = append(out, a.carried(cal)...)
	if e.Form != catalogue.Perennial && e.Form != catalogue.Subshrub && a.Purpose != Deadhead {
		first, points := nestFrom, float64(nestCost)
		if a.Purpose == Renew && c.Nests > 0 { // nothing of its cover is left
			first, points = nestEarly, c.Nests
		}
		out = append(out, between("nests", "birds nest in it: look first", first, nestTo, points))
	}
	if a.Purpose == Dead && e.LeafSeason == catalogue.Deciduous {
		out = append(out, between("unseen", "dead is not told from dormant yet", -150, 10, unseenCost))
		if c.Soft && e.Form != catalogue.Tree {
			out = append(out, winterAhead(cal))
		}
	}
	return out
}
