// Package hold says which work on a plant waits for what is not known yet: while a verdict says to wait, to check or to make
// safe first, and while the weather likely hurt a plant that nobody has looked at since, nothing is cut that may live,
// nothing is fed, planted in its place or taken out. One wording for all who show it.
package hold

import (
	"slices"

	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/lookout"
	"mezzadro/core/pruning"
	"mezzadro/core/quantity"
)

// Hold is why work on a plant waits.
type Hold struct {
	By    string  `json:"by" enum:"verdict,weather" doc:"What it rests on"`
	Why   string  `json:"why" doc:"In words, with its day"`
	Until day.Day `json:"until,omitempty" format:"date" doc:"The day until which it waits; absent where it waits for a look, or for what is made safe"`

	verdict int64 // whose own work goes on
	danger  bool  // nobody works there before it is made safe
}

// Plant is what is known of a plant.
type Plant struct {
	Verdict  int64   // that stands; 0 for none
	Decision string  // accepted, overruled or not now
	Kind     string  // of the verdict
	On       day.Day // it was given
	Until    day.Day // of a verdict to wait
	Settled  bool    // it was told since how it turned out
	MadeSafe day.Day // the last day on which what might fall there was made safe

	Struck   string  // the recent event that likely hurt it enough to be looked at; empty without one
	StruckOn day.Day // that event's day
}

// Of is why work on a plant waits on a day; nil where nothing holds it.
func Of(p Plant, today day.Day) *Hold {
	decided := p.Verdict != 0 && p.Decision != lookout.PutOff && !p.Settled
	struck := p.Struck != "" && !(p.Verdict != 0 && lookout.Settles(p.Decision, p.On, p.StruckOn))
	on := quantity.Day(p.On)
	switch {
	case decided && p.Kind == damage.MakeSafe && p.MadeSafe < p.On:
		return &Hold{By: "verdict", Why: "Waits until it is made safe, as found on " + on + ": nobody works there before.", verdict: p.Verdict, danger: true}
	case struck:
		return &Hold{By: "weather", Why: "Waits for a look: the " + p.Struck + " of " + quantity.Day(p.StruckOn) +
			" likely hurt it, and nobody has decided on it since.", verdict: p.Verdict}
	case decided && p.Kind == damage.Wait && p.Until.Given() && p.Until > today:
		return &Hold{By: "verdict", Why: "Waits until " + quantity.Day(p.Until) + ", as judged on " + on +
			": by then what lives shows it.", Until: p.Until, verdict: p.Verdict}
	case decided && p.Kind == damage.Wait:
		return &Hold{By: "verdict", Why: "Waits for a look: leaf was due by " + quantity.Day(p.Until) + ", and nobody has looked since.", verdict: p.Verdict}
	case decided && p.Kind == damage.Look:
		return &Hold{By: "verdict", Why: "Waits for a look: checked on " + on + ", and not told yet how far it lives.", verdict: p.Verdict}
	}
	return nil
}

// Work is a piece of work as far as a hold asks of it.
type Work struct {
	Kind    job.Kind
	Purpose string // of a cut
	Title   string
	Origin  job.Origin
	Of      int64 // the verdict that asked for it
}

// CutFor is a cut for a purpose, asked for by nobody yet.
func CutFor(purpose string) Work { return Work{Kind: job.Prune, Purpose: purpose} }

// slight are cuts that take nothing which may live: faded flowers, and what is sick.
var slight = []pruning.Purpose{pruning.Deadhead, pruning.Sick}

// held are the kinds of work that wait while nobody knows what lives.
var held = []job.Kind{job.CutBack, job.TipBack, job.CutToBase, job.Shorten, job.Feed, job.Replace, job.Graft}

// Binds reports that a piece of work waits.
func (h *Hold) Binds(w Work) bool {
	switch {
	case h == nil:
		return false
	case h.danger:
		return w.Kind != job.MakeSafe && w.Kind != job.Look && w.Kind != job.Ask && w.Kind != job.Walk
	case (w.Origin == job.Verdict || w.Origin == job.AfterCare) && w.Of == h.verdict && w.Of != 0:
		return false // the verdict's own work has its own days
	case w.Kind == job.Prune:
		return !slices.Contains(slight, pruning.Purpose(w.Purpose))
	}
	return slices.Contains(held, w.Kind)
}
