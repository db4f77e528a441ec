package estate

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/kinds"
	"sync"
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

// Shared is the curve of orders that ask the same at a place, with what it says today. It is safe for use by many.
type Shared struct {
	job.Curve
	Outlook job.Outlook

	mu    sync.Mutex
	from  day.Day
	costs []int
	later int
}

// Shared is the curve of an order on one plant of a species: drawn once for all that ask the same.
func (p *Place) Shared(o job.Order, species string) *Shared {
	ask := kinds.AskOf(o.Kind, species, o.For, o.Params)
	if known, is := p.curves.Load(ask); is {
		return known.(*Shared)
	}
	c := p.Curve(o, []string{species})
	out, _ := p.curves.LoadOrStore(ask, &Shared{Curve: c, Outlook: c.Outlook(p.Today)})
	return out.(*Shared)
}

// Span is what the days of a span cost, and the least that a day after it costs: 0 best to 100 worst, 101 never. The
// list is shared: whoever changes it takes a copy.
func (s *Shared) Span(from day.Day, days int) (costs []int, later int) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.from == from && len(s.costs) == days {
		return s.costs, s.later
	}
	s.from, s.costs, s.later = from, make([]int, days), job.Never.Int()
	for d := range s.costs {
		s.costs[d] = s.On(from + day.Day(d)).Int()
	}
	for d := from + day.Day(days); d < s.End(); d++ {
		s.later = min(s.later, s.On(d).Int())
	}
	return s.costs, s.later
}
