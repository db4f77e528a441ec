package estimate

import (
	"math"
	"slices"
)

// Done is what work costs that was done: as it was agreed where the price is one or nobody noted how long it took, else by
// the time that it took, up to the upper end that was agreed. took is in minutes of each of its people; 0: not noted.
func (r *Rates) Done(j Job, took int, agreed *Line) Line {
	if agreed != nil && (r.Fixed || took == 0) {
		l := *agreed
		l.Parts = append([]Part{}, agreed.Parts...)
		for i := range l.Parts {
			l.Parts[i].Range = exactly(l.Parts[i].Amount)
		}
		l.Waits, l.Answer = "", nil
		l.add()
		return l
	}
	j.Waits = ""
	if took > 0 {
		j.Minutes = took
	}
	l := r.LineOf(j)
	for i := range l.Parts {
		l.Parts[i].Range = exactly(l.Parts[i].Amount)
	}
	l.add()
	if agreed == nil || l.Amount <= agreed.To {
		return l
	}
	l.Title, l.Plant = agreed.Title, agreed.Plant
	l.Parts = append(
		l.Parts,
		Part{What: "free", Text: "Limited to what was agreed", Range: exactly(agreed.To - l.Amount)},
	)
	l.add()
	return l
}

// Of is a share of an agreed line: what one part of a job that was done on days running may cost of it.
func (l Line) Of(minutes, all int) Line {
	if all <= 0 || minutes >= all {
		return l
	}
	share := func(a Amount) Amount { return Amount(math.Round(float64(a) * float64(minutes) / float64(all))) }
	scaled := func(r Range) Range { return Range{share(r.From), share(r.Amount), share(r.To)} }
	l.Range, l.Parts = scaled(l.Range), slices.Clone(l.Parts)
	for i := range l.Parts {
		l.Parts[i].Range = scaled(l.Parts[i].Range)
	}
	return l
}
