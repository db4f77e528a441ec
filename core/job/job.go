// Package job is the one currency between those who ask for work and those who plan it. A piece of work is an order:
// what is to be done, on which plants, who asked for it and why. An order keeps no dates but the day it is put on.
// When it is best done follows from it, from the species and from the place's year as known today: Place.Curve works
// out the cost of every day, 0 the best, 100 the worst that is allowed, or never. So windows move as the season comes
// in, and a day already chosen always says what it costs now.
package job

import (
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// Kind is what kind of work an order is.
type Kind string

// Kinds of work.
const (
	Look      Kind = "look"
	TipBack   Kind = "tip back"
	CutBack   Kind = "cut back"
	CutToBase Kind = "cut to the base"
	Shorten   Kind = "shorten" // by a third before the gales
	MakeSafe  Kind = "make safe"
	Lift      Kind = "lift and shelter"
	PlantOut  Kind = "plant out"
	Guard     Kind = "guard"
	Graft     Kind = "graft"
	Ask       Kind = "ask the client"
	Replace   Kind = "replace"
	Feed      Kind = "feed"
	Water     Kind = "water"
	Mulch     Kind = "mulch"
	Shade     Kind = "shade"
	Fruit     Kind = "take fruit off"
	Protect   Kind = "protect"
	Treat     Kind = "treat"        // its curve is that of core/treatment
	Prune     Kind = "prune"        // its curve is that of core/pruning
	Other     Kind = "other"        // entered by hand, with its own cost by window
	Walk      Kind = "walk"         // of a whole property, likewise
	Care      Kind = "general care" // of a whole property on a standing visit, likewise
)

// ByDays reports a kind of work whose days are entered, not reckoned from a plant.
func (k Kind) ByDays() bool { return k == Other || k == Walk || k == Care }

// Origin is who asked for an order.
type Origin string

// Origins of orders.
const (
	Verdict   Origin = "verdict"
	AfterCare Origin = "after-care"
	TakingIn  Origin = "taking in"
	Plan      Origin = "plan"
	Programme Origin = "programme"
	Planting  Origin = "planting"
	Hand      Origin = "hand"
)

// State is where an order stands.
type State string

// States of orders.
const (
	Waiting State = "waiting"
	Placed  State = "on a day"
	Done    State = "done"
	Skipped State = "skipped"
	Dropped State = "dropped"
)

// When is what the day of a look, or of bringing a plant out, hangs on.
type When string

// What days hang on.
const (
	LeafDue     When = "leaf is due"       // the patience date of the order's year
	LeafDueNext When = "leaf is due next"  // the same; past it, the next year's
	CutShows    When = "the cut shows"     // six weeks of growth after it
	FrostPast   When = "frost is past"     // the last usual frost of the coming spring
	InAWeek     When = "in a week"         // from the day the order was made
	OnDay       When = "on a day"          // the one that is given: Params.Due
	AsFound     When = "the look has told" // a cut that waits for what the follow-up finds
)

// Span is what days cost in an order entered by hand; days in no span are forbidden.
type Span struct {
	From day.Day `json:"from" format:"date"`
	To   day.Day `json:"to" format:"date"`
	Cost Cost    `json:"cost" doc:"0 best to 100 worst"`
}

// Params are what a kind of work needs to know.
type Params struct {
	When      When    `json:"when,omitempty"`
	CutM      float64 `json:"cut_m,omitempty" doc:"Height of the cut, m"`
	Purpose   string  `json:"purpose,omitempty" doc:"prune: what the cut is for"`
	Part      int     `json:"part,omitempty" doc:"prune: which third of a renewal over three years, 1 to 3"`
	Cause     string  `json:"cause,omitempty" doc:"treat: what against"`
	Rung      string  `json:"rung,omitempty" doc:"treat: of the ladder"`
	Step      int     `json:"step,omitempty" doc:"treat: of that rung, from 1"`
	Use       string  `json:"use,omitempty" doc:"treat: the means, by id; empty for work without a product"`
	Due       day.Day `json:"due,omitempty" format:"date" doc:"The day it hangs on, where a person set it"`
	EveryDays int     `json:"every_days,omitempty" doc:"A repeat: days between two times"`
	Last      day.Day `json:"last,omitempty" format:"date" doc:"A repeat: the day of the time before"`
	Stage     string  `json:"stage,omitempty" doc:"water: new, in its first summers; indoors, in its winter place"`
	Private   bool    `json:"private,omitempty" doc:"The client does not read of it"`
	New       string  `json:"new,omitempty" doc:"What is planted, by catalogue id"`
	NewCount  int     `json:"new_count,omitempty" doc:"How many of it"`
	Spans     []Span  `json:"spans,omitempty" doc:"By hand, or of a season's feeding: what days cost"`
}

// Order is what is to be done. For is the day from whose garden year its time is reckoned: the day it was made, or the
// first of a later year it was put off to.
type Order struct {
	Key      string   `json:"key"` // names it among those made together
	Kind     Kind     `json:"kind"`
	Title    string   `json:"title"`
	Origin   Origin   `json:"origin"`
	For      day.Day  `json:"for" format:"date"`
	Params   Params   `json:"params"`
	Minutes  int      `json:"minutes"`
	Crew     int      `json:"crew"` // people needed
	Skills   []string `json:"skills"`
	Kit      []string `json:"kit"`
	After    []Gap    `json:"after"`
	Reasons  []string `json:"reasons"`
	Cautions []string `json:"cautions"`
}

// Gap ties an order to another one, of whatever origin.
type Gap struct {
	Job     string `json:"job"` // the other's key
	MinDays int    `json:"min_days"`
	MaxDays int    `json:"max_days"` // 0: no limit
	Why     string `json:"why,omitempty"`
}

// Job is an order with its curve.
type Job struct {
	Order
	Curve Curve `json:"curve"`
}

// Limits on what is entered by hand.
const (
	MaxMinutes = 30 * 8 * 60 // a job may last days
	maxSpans   = 24
	maxRepeat  = 366
)

// Validate names what cannot be in an order entered by hand.
func (o Order) Validate() error {
	var bad invalid.Fields
	if o.Title == "" {
		bad.Add("title", o.Title, "is missing: say what is to be done")
	}
	bad.Within("minutes", float64(o.Minutes), 1, MaxMinutes, "minutes")
	bad.Within("crew", float64(o.Crew), 1, 20, "people")
	if n := o.Params.EveryDays; n < 0 || n > maxRepeat {
		bad.Add("every_days", n, "every %d days: want 0 for once, or up to %d", n, maxRepeat)
	}
	if o.Kind.ByDays() && (len(o.Params.Spans) == 0 || len(o.Params.Spans) > maxSpans) {
		bad.Add("spans", len(o.Params.Spans), "want the days it may be done on: one span at least, %d at most", maxSpans)
	}
	for i, s := range o.Params.Spans {
		at := fmt.Sprintf("spans[%d].", i)
		switch {
		case s.From == day.None || s.To == day.None:
			bad.Add(at+"from", nil, "both days of a span are needed")
		case s.To < s.From:
			bad.Add(at+"to", s.To.String(), "%s is before %s", s.To, s.From)
		case s.To-s.From > 3*366:
			bad.Add(at+"to", s.To.String(), "a span of more than three years is no plan")
		}
		if s.Cost.Forbids() {
			bad.Add(at+"cost", s.Cost.Int(), "want 0 to 100; days in no span are forbidden")
		}
	}
	return bad.Err()
}

// Moves are the states that may follow a state. What was done or skipped can be taken back; what was dropped comes
// back only with what dropped it.
var moves = map[State][]State{
	Waiting: {Placed, Done, Skipped, Dropped},
	Placed:  {Waiting, Placed, Done, Skipped, Dropped},
	Done:    {Waiting, Placed},
	Skipped: {Waiting, Placed},
	Dropped: {Waiting, Placed},
}

// CanBecome reports whether an order in state s may come into state to.
func (s State) CanBecome(to State) bool { return slices.Contains(moves[s], to) }

// EndsWith reports whether an order ends with its plant: what was to help it, feed it or look at it again does once it is
// found dead. Taking it out and making it safe stay, and so does what others asked for by hand or by plan.
func EndsWith(o Origin, s State, k Kind) bool {
	asked := o == Verdict || o == AfterCare || o == TakingIn || o == Programme
	return asked && (s == Waiting || s == Placed) && k != Replace && k != MakeSafe
}

// GoesWith reports whether an order of a plant goes when the plant is to be taken out: all that was to be done for it, but
// for taking it out, making it safe and what is asked of the client.
func GoesWith(s State, k Kind) bool {
	return (s == Waiting || s == Placed) && k != Replace && k != MakeSafe && k != Ask
}

// Overdue reports an order that was on a past day and is not ticked off.
func Overdue(s State, on, today day.Day) bool { return s == Placed && on != day.None && on < today }

// Replaces reports whether a verdict takes the place of an order: of one that an earlier verdict on the same trouble
// asked for, with its after-care and its taking in; never of one from a plan, a programme, a planting or by hand, nor
// of what is done.
func Replaces(trouble string, o Origin, s State, of string) bool {
	return (o == Verdict || o == AfterCare || o == TakingIn) && (s == Waiting || s == Placed) && trouble == of
}
