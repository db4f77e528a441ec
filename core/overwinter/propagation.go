package overwinter

import (
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// increase is a way of getting young plants from a plant, besides a glass of water.
type increase struct {
	name, do, why, never string
}

// Ways of cuttings in soil.
var (
	softShoots = increase{
		name: "soft cuttings",
		do: "Soft shoots without bloom, a finger long: cut below a leaf in the morning, lower leaves off, " +
			"into gritty moist compost, covered and shaded",
		why:   "soft shoots root in weeks, and wilt in an hour",
		never: "No flowering shoots, none in the sun.",
	}
	lateShoots = increase{
		name: "soft cuttings",
		do: "Shoots without bloom, a finger long: let the cut dry for some hours, then into gritty " +
			"compost, kept rather dry and not covered",
		why:   "they winter as young plants, which take less room",
		never: "Never cover them tight and wet: they rot.",
	}
	halfRipe = increase{
		name: "half-ripe cuttings",
		do: "This year’s shoots, firm at the foot and soft at the tip, without bloom, a hand long: into " +
			"gritty compost, shaded and covered until they root",
		why:   "shoots are firm enough not to wilt, and the soil is still warm",
		never: "Take them from clean, healthy plants only; no rich soil.",
	}
	leaflessWood = increase{
		name: "hardwood cuttings",
		do: "Leafless shoots, pencil thick, a hand and a half long: two thirds deep in open ground or a " +
			"deep pot, or in a bundle in damp sand until spring",
		why:   "the plant is dormant, and roots come before leaves",
		never: "Not in leaf, not in frozen ground.",
	}
	fromFoot = increase{
		name: "basal shoots",
		do: "Shoots from the foot, a finger long, with a sliver of the tuber or crown: into gritty moist " +
			"compost, bright and warm; or divide it",
		why:   "new shoots at the foot root within weeks",
		never: "Not in autumn.",
	}
	layered = increase{
		name: "layers",
		do: "A low shoot is nicked below, pegged into the soil and kept moist; cut off when it has roots " +
			"of its own, after a year",
		why:   "it stays fed by the plant until it roots",
		never: "Not from seed: seedlings take many years to bloom.",
	}
)

// When ways are open, days from what they go by.
const (
	softFrom, softTo   = 35, 45 // after the first leaves, and after midsummer
	ripeFrom, ripeTo   = 20, 95 // after midsummer
	lateFrom, lateTo   = 38, 95 // after midsummer
	woodAfter          = 12     // the leaves are off,
	woodBefore         = 25     // and before they are out
	footBefore, footTo = 45, 20 // before and after the last frost
	half               = 182    // days from midwinter to midsummer
	neverCold          = 0.0    // mean of the coldest night from which any month will do for late kinds
	rootedIn           = 35     // days in which summer cuttings root
)

// Open is when a way of cuttings is open.
type open struct {
	*increase
	from, to day.Day
}

// waysOf are the ways in which cuttings of a kind are taken in soil; none for what a nursery grafts or sows.
func waysOf(e *catalogue.Entry) (out []*increase) {
	if e.Annual || e.Stems == catalogue.AnnualStem {
		return nil
	}
	c := book().Cuttings
	for _, w := range []struct {
		list []string
		way  *increase
	}{
		{c.Late, &lateShoots}, {c.Foot, &fromFoot}, {c.Soft, &softShoots}, {c.HalfRipe, &halfRipe}, {c.Wood, &leaflessWood},
		{c.Layer, &layered},
	} {
		falls := e.LeafSeason == catalogue.Deciduous || e.LeafSeason == catalogue.SemiEvergreen
		if e.In(w.list) && (w.way != &leaflessWood || falls) {
			out = append(out, w.way)
		}
	}
	switch {
	case slices.Contains(out, &lateShoots):
		return []*increase{&lateShoots}
	case out != nil || e.In(c.None):
		return out
	case e.Form == catalogue.Shrub && e.LeafSeason == catalogue.Deciduous:
		return []*increase{&leaflessWood}
	case e.LeafSeason == catalogue.Herbaceous:
	case e.Form == catalogue.Shrub || e.Form == catalogue.Subshrub || e.Form == catalogue.Climber:
		return []*increase{&halfRipe}
	}
	return nil
}

// opened are the next spans, not over on a day, in which the ways of a kind are open; the soonest first.
func opened(e *catalogue.Entry, on day.Day, y *season.Year) (out []open) {
	for _, w := range waysOf(e) {
		if o, ok := w.next(e, on, y); ok {
			out = append(out, o)
		}
	}
	slices.SortStableFunc(out, func(a, b open) int { return a.from.Sub(b.from) })
	return out
}

// next is the span of a way that is open on a day, or the next one.
func (w *increase) next(e *catalogue.Entry, on day.Day, y *season.Year) (open, bool) {
	c := y.Normals.Climate
	for _, year := range []day.Day{on - 365, on, on + 365} {
		midwinter := c.Midwinter(year)
		leaves := e.Dates(y, midwinter+half/2)
		o := open{w, midwinter + half + ripeFrom, midwinter + half + ripeTo}
		switch w {
		case &softShoots, &layered:
			o.from, o.to = midwinter+half-35, midwinter+half+softTo
			if leaves.InLeaf {
				o.from = leaves.LeafOut.Mid + softFrom
			}
		case &lateShoots:
			o.from, o.to = midwinter+half+lateFrom, midwinter+half+lateTo
			if c.ExtremeMinC > neverCold {
				o.from, o.to = on, on+30
			}
		case &leaflessWood:
			before := e.Dates(y, midwinter-half/2)
			if !before.Drops || !leaves.InLeaf {
				return open{}, false
			}
			o.from, o.to = before.LeafDrop.Mid+woodAfter, leaves.LeafOut.Mid-woodBefore
			if o.from > o.to {
				o.from -= 365
			}
		case &fromFoot:
			last, ok := y.FrostDay(midwinter, 0, 0.5, true)
			if !ok {
				last = midwinter + 60
			}
			o.from, o.to = last-footBefore, last+footTo
		}
		if o.to >= on && o.to > o.from {
			return o, true
		}
	}
	return open{}, false
}

// inSoil are the steps of cuttings in soil of the way that is open on a day, or opens next.
func inSoil(e *catalogue.Entry, on day.Day, y *season.Year) (Wintering, error) {
	spans := opened(e, on, y)
	if len(spans) == 0 {
		return Wintering{}, fmt.Errorf("%s is not grown from cuttings: it is grafted, divided or sown, or bought young",
			e.Common)
	}
	o := spans[0]
	out := Wintering{Way: CarryIn, Chance: 0.7, Steps: []Step{}, How: []string{}, Never: []string{o.never}}
	out.step(capital(o.name)+". "+o.do, max(on, o.from), o.to, o.why)
	if o.from > on {
		out.Why = fmt.Sprintf("Not now: the next are %s, from %s.", quantity.Worded(o.name), quantity.Day(o.from))
	}
	switch o.increase {
	case &leaflessWood, &layered:
		rooted := o.to + 365
		if o.increase == &leaflessWood {
			rooted = e.Dates(y, o.to).LeafDrop.Mid + isBareDays
		}
		out.step("Plant it where it is to stand", rooted, rooted+45, "it has roots of its own, and stands bare")
	default:
		out.step("Pot them singly when roots show", max(on, o.from)+rootedIn, max(on, o.from)+2*rootedIn,
			"a firm ball comes through a winter, loose roots do not")
		spring := springDay
		if o.increase == &fromFoot { // in the same year
			spring = lastNight
		}
		if goes, cold := spring(y, max(on, o.from)+rootedIn, 0); cold {
			out.step("Out for good, hardened off", goes, goes+21, "the last frost is over in nine years of ten")
		}
	}
	out.others(e, spans[1:])
	return out, nil
}

// isBareDays after the leaves are off young plants are lifted.
const isBareDays = 10

// others tells of the other ways of a kind, and what is minded with it.
func (w *Wintering) others(e *catalogue.Entry, spans []open) {
	for _, o := range spans {
		w.How = append(w.How, fmt.Sprintf("Also %s, from %s to %s.", quantity.Worded(o.name), quantity.Day(o.from), quantity.Day(o.to)))
	}
	for _, c := range e.Cautions {
		if c.Kind == "skin" || c.Kind == "poisonous" {
			w.How = append(w.How, c.Text)
			break
		}
	}
	if e.Graft.Habit == "usually" {
		w.How = append(w.How, "It grows on its own roots then, not on a stock: taller or weaker than a grafted one, "+
			"and without the stock’s resistance.")
	}
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
