package job

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job/reason"
)

// After-care hangs on growth: feeding waits for shoots a hand long, watering for the dry months, shade for the hot
// ones.
const (
	handLong    = 21  // days after the first leaves until shoots are a hand long
	feedTill    = 210 // days after midwinter from which nothing is fed: shoots must ripen before frost
	dryMeanC    = 15  // mean temperature from which soil dries between rains, °C
	waterDays   = 180 // days after the first leaves in which a hurt plant is watered
	newDays     = 160 // and a new one
	shadeDays   = 150
	fruitDays   = 120
	mulchDays   = 30
	frostMinded = 0.1 // chance of another frost under which nobody keeps fleece ready
	protectDays = 200
)

// Times between two of a repeat, days.
const (
	FeedEvery     = 42
	WaterEvery    = 7
	WaterNewEvery = 3
	IndoorsEvery  = 14
)

// Stages of watering.
const (
	New     = "new"
	Indoors = "indoors"
)

// Again reports that a repeat whose last time was done on a day comes once more: within its spans, or within the time of
// its kind of care.
func (p *Place) Again(o Order, sp *catalogue.Entry, done day.Day) bool {
	next := done + day.Day(o.Params.EveryDays)
	if len(o.Params.Spans) > 0 {
		return slices.ContainsFunc(o.Params.Spans, func(s Span) bool { return s.To >= next })
	}
	_, to, ok := p.Time(o.Kind, o.Params.Stage, sp, o.For)
	return !ok || next <= to
}

// Time is the span in which after-care of a kind is given, for an order made on a day. ok is false where this climate
// asks for none.
func (p *Place) Time(k Kind, stage string, sp *catalogue.Entry, made day.Day) (from, to day.Day, ok bool) {
	n := p.Year.Normals
	_, leaf := p.Patience(sp, made)
	growth := max(leaf.Mid, made)
	switch k {
	case Feed:
		growth, to = p.feeding(sp, made)
		from = growth + handLong
	case Water:
		switch stage {
		case New:
			from, to = growth, growth+newDays
		case Indoors:
			last, _ := n.LastFrost(n.Climate.Midwinter(made+springOver), 0)
			from, to = made, last.Late
		default:
			from, to = run(growth, waterDays, func(d day.Day) bool { return n.Mean(d) >= dryMeanC })
		}
	case Mulch, Guard:
		from, to = made, made+mulchDays
	case Shade:
		hot := p.Year.Normals.TMax.At
		from, to = run(growth, shadeDays, func(d day.Day) bool { return hot(d) >= barkHotC })
	case Fruit:
		from, to = growth, growth+fruitDays
	case Protect:
		from, to = made, day.None
		for i, c := range n.FrostToCome(made, made+protectDays, 0) {
			if c > frostMinded {
				to = made + day.Day(i)
			}
		}
	}
	if from == day.None || to == day.None {
		return day.None, day.None, false
	}
	from = max(from, made)
	return from, to, to >= from
}

// feeding is when growth begins in the year whose feeding can still be done, and the last day of feeding in it.
func (p *Place) feeding(sp *catalogue.Entry, made day.Day) (growth, stop day.Day) {
	c := p.Year.Normals.Climate
	_, leaf := p.Patience(sp, made)
	growth, stop = max(leaf.Mid, made), c.Midwinter(made)+feedTill
	if made > stop-mulchDays { // too late in this year: the next
		_, yearEnd := c.GardenYear(made)
		_, next := p.Patience(sp, yearEnd)
		growth, stop = next.Mid, c.Midwinter(yearEnd)+feedTill
	}
	return growth, stop
}

// run is the first and the last of the days after a first that are so; day.None where none is.
func run(first day.Day, days int, so func(day.Day) bool) (from, to day.Day) {
	from, to = day.None, day.None
	for d := first; d < first+day.Day(days); d++ {
		if so(d) {
			if from == day.None {
				from = d
			}
			to = d
		}
	}
	return from, to
}

// cared draws the curve of after-care: good within its time, dear before and after it.
func (w *frame) cared(before, after string) {
	from, to, ok := w.Time(w.order.Kind, w.order.Params.Stage, w.species, w.made)
	if !ok {
		from, to = w.made, w.made
	}
	w.until(max(w.made+1, to+mulchDays))
	w.curve.Because(reason.Outside(before, after, from, to, 31, 3)...)
}

func (w *frame) feed() {
	if len(w.order.Params.Spans) > 0 { // a season's feeding by its kind
		w.spans("in its season", "as its kind is fed")
		return
	}
	w.cared("too early: shoots are not a hand long yet", "too late: shoots fed now do not ripen before frost")
}

func (w *frame) water() {
	w.cared("too early: the soil is not dry yet", "rain and cool days do it now")
}

func (w *frame) mulch() { w.cared("too early", "the soil has dried out or grown over") }

func (w *frame) shade() { w.cared("too early: the sun does not burn yet", "the hot days are over") }

func (w *frame) fruit() { w.cared("too early: no fruit has set", "the fruit has cost it its strength") }

func (w *frame) protect() { w.cared("too early", "frost is past") }
