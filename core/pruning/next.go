package pruning

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// Past is what the record tells of a plant's cuts.
type Past struct {
	Last     day.Day // of the cuts done that shape it; none: day.None
	Part     int     // the last third of a renewal that was done, 1 to 3; 0: none
	PartDone day.Day // and when
}

// Days between cuts of a plant.
const (
	yearly      = 300 // the next cut of the yearly round
	twiceYearly = 50  // of hedges, and of what is cut in summer and winter
	renewalLife = 4 * 365
)

// Next is the cut that is due next from a day on where nobody said: what for, which third of a renewal, and the day from which
// it may be thought of. The purpose is empty for what is best left alone.
func Next(e *catalogue.Entry, of Of, past Past, today day.Day) (purpose Purpose, part int, from day.Day) {
	recent := past.Part > 0 && past.PartDone.Given() && today-past.PartDone < renewalLife
	if recent && past.Part < len(Thirds) {
		return Renew, past.Part + 1, max(today, past.PartDone+yearly)
	}
	of.Renewed = of.Renewed || recent
	purpose = Usual(e, of)
	from = today
	if past.Last.Given() && purpose != "" {
		gap := day.Day(yearly)
		if purpose == Hedge || len(ClassOf(e).Windows) > 1 {
			gap = twiceYearly
		}
		from = max(today, past.Last+gap)
	}
	if purpose == Renew {
		part = 1
	}
	return purpose, part, from
}

// Yearly reports a purpose that is part of a plant's yearly round, beside which no other of it is proposed.
func (p Purpose) Yearly() bool { return p != Dead && p != Deadhead && p != Sick && p != Frosted }
