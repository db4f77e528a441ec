package estate

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/kinds"
)

// Curve is what each day costs for an order on plants of some species, of which the costliest counts.
func (p *Place) Curve(o job.Order, species []string) job.Curve {
	entries := make([]catalogue.Entry, len(species))
	for i, id := range species {
		entries[i] = EntryOf(p.Book, id)
	}
	return kinds.Place{Work: p.Work, Cuts: p.Cuts, Rules: p.Rules}.Curve(o, entries)
}

// DayCost is what the day an order is on costs now; where that is past, what today costs.
func DayCost(c job.Curve, on, today day.Day) int {
	if on == day.None {
		return job.Never.Int()
	}
	return c.On(max(on, today)).Int()
}
