package job

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job/reason"
	"mezzadro/core/rules"
	"mezzadro/core/season"
)

// Curve is what each day costs for an order on a plant of a species: worked out from what is asked, the year as known
// today and the house rules, and from nothing else.
func (p *Place) Curve(o Order, sp *catalogue.Entry) Curve {
	w := p.frame(o, sp)
	if draw, known := draws[o.Kind]; known {
		draw(&w)
	}
	if last := o.Params.Last; o.Params.EveryDays > 0 && last.Given() {
		w.repeated(last, o.Params.EveryDays)
	}
	return w.curve
}

// frame is what the curves of all kinds of work are drawn in: the days from the order's to the end of its garden year,
// after midsummer to the end of the next spring, since late work may have to wait for it.
type frame struct {
	*Place
	curve    Curve
	order    *Order
	species  *catalogue.Entry
	made     day.Day
	yearEnd  day.Day // first day of the next garden year
	end      day.Day // first day after the curve
	winter   day.Day // midwinter of the order's year
	winter2  day.Day // and of the next
	patience day.Day
	leaf     season.Band
	late     bool      // made after midsummer
	own      ownSeason // of planting
}

// Days after midwinter.
const (
	midsummer   = 182
	springsEnd  = 230 // where a curve made after midsummer ends
	tooLateCuts = 197 // from here shoots after a cut do not ripen
)

func (p *Place) frame(o Order, sp *catalogue.Entry) frame {
	c := p.Year.Normals.Climate
	w := frame{Place: p, order: &o, species: sp, made: o.For}
	_, w.yearEnd = c.GardenYear(w.made)
	w.winter, w.winter2 = c.Midwinter(w.made), c.Midwinter(w.yearEnd)
	w.end = w.yearEnd
	if w.late = w.made > w.winter+midsummer; w.late {
		w.end = w.winter2 + springsEnd
	}
	w.patience, w.leaf = p.Patience(sp, w.made)
	w.curve = Curve{Start: w.made, Days: int(w.end - w.made)}
	return w
}

// draws are the kinds of work and how each draws its curve.
var draws = map[Kind]func(*frame){
	Look:      (*frame).look,
	TipBack:   (*frame).cut,
	CutBack:   (*frame).cut,
	CutToBase: (*frame).cut,
	Shorten:   (*frame).shorten,
	MakeSafe:  (*frame).makeSafe,
	Lift:      (*frame).lift,
	PlantOut:  (*frame).plantOut,
	Guard:     (*frame).guard,
	Graft:     (*frame).graft,
	Ask:       (*frame).ask,
	Replace:   (*frame).replace,
	Feed:      (*frame).feed,
	Water:     (*frame).water,
	Mulch:     (*frame).mulch,
	Shade:     (*frame).shade,
	Fruit:     (*frame).fruit,
	Protect:   (*frame).protect,
	Other:     (*frame).byHand,
	Walk:      (*frame).byHand,
	Care:      (*frame).byHand,
}

// until ends the curve on a day, where that comes before or after its usual end.
func (w *frame) until(end day.Day) { w.end, w.curve.Days = end, max(1, int(end-w.curve.Start)) }

// Looks.
const (
	tooSoon, tooSoonEach = 25, 3
	overdueEach          = 2
)

func (w *frame) look() {
	on := w.Due(w.order.Params.When, w.species, w.made)
	if w.order.Params.When == OnDay {
		on = w.order.Params.Due
	}
	if on >= w.end {
		w.until(on + 60)
	}
	w.curve.Because(reason.TooEarly("too early: nothing new can be seen yet", on, tooSoon, tooSoonEach),
		reason.PutOff("put off", "the follow-up is overdue; dead wood stands and the client waits", on, overdueEach))
}

// Cuts.
const (
	frostMatters  = 45 // days after a cut in which a killing frost still burns it and what it has pushed
	unseenGrowth  = 60 // points at the earliest leaf of the year
	standsAfter   = 21 // days past the patience date from which dead wood is in the way
	standsAtMost  = 25
	barkHotC      = 27 // mean daily maximum from which opened bark burns, °C
	barkHotEach   = 8
	followUpFirst = 40
)

func (w *frame) cut() {
	soft := w.order.Kind == CutToBase && w.species.LeafSeason == catalogue.Herbaceous
	if soft && w.Rules.Perennials == rules.AtFrost {
		w.curve.Because(reason.PutOff("house rule", "the house cuts frosted perennials back at once", w.made, 1))
		return
	}
	w.curve.Because(
		reason.Frost(
			"hard frost may still come and burn the cut and the new growth",
			100,
			w.frostWithin(w.made, frostMatters, season.KillingFrostC),
		),
	)
	if w.order.Params.When == AsFound {
		w.curve.Because(
			reason.Until(
				"follow-up first",
				"the follow-up has yet to find where the live wood is",
				w.Due(LeafDue, w.species, w.made),
				reason.Points(followUpFirst),
			),
		)
	}
	_, next := w.Patience(w.species, w.yearEnd)
	nextDue := next.Late + day.Day(w.species.LatenessDays)
	this := reason.Rising(
		"growth not seen",
		"growth does not show yet where the live wood is",
		unseenGrowth,
		w.leaf.Early,
		w.patience,
	)
	then := reason.Rising(
		"growth not seen",
		"growth does not show yet where the live wood is",
		unseenGrowth,
		next.Early,
		nextDue,
	)
	stands := max(w.patience, w.made) + standsAfter
	w.curve.Because(
		reason.Why{Name: this.Name, Text: this.Text, On: func(d day.Day) Cost {
			if d >= w.yearEnd {
				return then.On(d)
			}
			return this.On(d)
		}},
		reason.Why{Name: "dead wood stands", Text: "dead wood stands in the way of new shoots", On: func(d day.Day) Cost {
			return reason.Points(min(standsAtMost, float64(d-stands)/2))
		}},
		reason.Heat("heat and sun on freshly opened bark", barkHotC, barkHotEach, w.Year.Normals.TMax.At),
		reason.Why{
			Name: "too late in the year",
			Text: "shoots after a late cut do not ripen before frost",
			On: func(d day.Day) Cost {
				if d >= w.yearEnd {
					return reason.Days(1, d, w.winter2+tooLateCuts)
				}
				return reason.Days(1, d, w.winter+tooLateCuts)
			},
		},
	)
}

func (w *frame) shorten() {
	w.curve.Because(reason.PutOff("wind", "each storm rocks it further out of the ground", w.made, 3))
}

func (w *frame) makeSafe() {
	w.curve.Because(reason.PutOff("danger stands", "every day it stands it may fall on someone", w.made, 6))
}

func (w *frame) ask() {
	w.curve.Because(reason.PutOff("put off", "the rootstock takes over and the client waits", w.made, 1))
}

// guardDays is how long a guard is still worth setting for one wound.
const guardDays = 120

func (w *frame) guard() {
	w.until(w.made + guardDays)
	w.curve.Because(reason.PutOff("bare", "until it is guarded it may happen again any day", w.made, 2))
}

// graftSlack is how many days before and after leaf-out the bark slips.
const graftSlack = 14

func (w *frame) graft() {
	slips := w.leaf
	if w.made > slips.Late+21 {
		_, slips = w.Patience(w.species, w.yearEnd)
	}
	w.curve.Because(
		reason.Why{
			Name: "bark does not slip",
			Text: "the bark parts from the wood only about leaf-out",
			On: func(d day.Day) Cost {
				if first := slips.Early - graftSlack; d < first {
					return reason.Days(2, first, d)
				}
				return reason.Days(3, d, slips.Late+graftSlack)
			},
		},
		reason.PutOff("stores run out", "every week the roots live on their stores", w.made, 1.0/7),
	)
}

// Lifting and bringing out.
const (
	outDays   = 60 // days after the last frost in which it may still be brought out
	outFrost  = 7  // nights after it in which a frost undoes the winter's work
	stillGrow = 20 // points at first, while it still blooms
)

func (w *frame) lift() {
	end := w.Due(FrostPast, w.species, w.made) + outDays
	w.until(end)
	n := w.Year.Normals
	came := n.FrostWithin(w.made, w.made, 0, 0)[0]
	chance := make([]float64, w.curve.Days)
	for i := range chance {
		came = 1 - (1-came)*(1-n.FrostChance(w.made+day.Day(i), 0))
		chance[i] = came
	}
	eighth := float64(max(1, w.curve.Days/8))
	w.curve.Because(
		reason.Frost("the first frost may have come and killed it", 100, func(d day.Day) float64 { return chance[d-w.made] }),
		reason.Why{Name: "still in bloom", Text: "it still blooms and grows", On: func(d day.Day) Cost {
			return reason.Points(stillGrow * (1 - float64(d-w.made)/eighth))
		}})
}

func (w *frame) plantOut() {
	on := w.Due(FrostPast, w.species, w.made)
	w.until(on + outDays)
	w.curve.Because(
		reason.Frost("a late frost would undo the winter's work", 100, w.frostWithin(w.made, outFrost, 0)),
		reason.Why{
			Name: "winter",
			Text: "it has only just come in",
			On:   func(d day.Day) Cost { return reason.Days(0.5, on, d) },
		},
		reason.PutOff("put off", "it grows thin and pale indoors", on, 1),
	)
}

func (w *frame) byHand() { w.spans("as entered", "as it was entered by hand") }

// spans draws what days cost as they are given.
func (w *frame) spans(name, text string) {
	spans := w.order.Params.Spans
	if len(spans) == 0 {
		return
	}
	from, to := spans[0].From, spans[0].To
	for _, s := range spans {
		from, to = min(from, s.From), max(to, s.To)
	}
	w.curve = Curve{Start: from, Days: int(to-from) + 1}
	w.curve.Because(reason.Why{Name: name, Text: text, On: func(d day.Day) Cost {
		cost := Never
		for _, s := range spans {
			if d >= s.From && d <= s.To && cost.Over(s.Cost) {
				cost = s.Cost
			}
		}
		return cost
	}})
}

// repeated holds the next time of a repeat off until its days are over, and then lets it press.
func (w *frame) repeated(last day.Day, every int) {
	next := last + day.Day(every)
	w.curve.Because(reason.TooEarly("the time before was not long ago", next, 31, 4),
		reason.PutOff("due again", "it is due again", next+day.Day(max(1, every/3)), 2))
}
