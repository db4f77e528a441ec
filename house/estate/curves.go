package estate

import (
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/treatment"
)

// Curve is that of an order on plants of some species, of which the costliest counts.
func (p *Place) Curve(o job.Order, species []string) job.Curve {
	curves := make([]job.Curve, 0, len(species))
	for _, id := range species {
		e := EntryOf(p.Book, id)
		if o.Kind == job.Prune {
			curves = append(curves, pruning.Ahead(pruning.Ask{Species: &e, Place: p.Cuts, Date: o.For, Purpose: pruning.Purpose(o.Params.Purpose),
				Rules: p.Rules}))
			continue
		}
		if o.Kind == job.Treat {
			curves = append(curves, treatment.Built().Curve(treatment.Ask{Species: &e, Place: p.Cuts.Place, Rules: p.Rules},
				treatment.Job{Cause: o.Params.Cause, Rung: o.Params.Rung, Step: o.Params.Step, Due: o.Params.Due, Made: o.For}))
			continue
		}
		curves = append(curves, p.Work.Curve(o, &e))
	}
	if len(curves) == 1 {
		return curves[0]
	}
	return job.Together(curves)
}

// DayCost is what the day an order is on costs now; where that is past, what today costs.
func DayCost(c job.Curve, on, today day.Day) int {
	if on == day.None {
		return job.Never.Int()
	}
	return c.On(max(on, today)).Int()
}
