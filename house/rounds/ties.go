package rounds

import (
	"context"

	"mezzadro/core/day"
	"mezzadro/core/rounds"
	"mezzadro/house/work"
)

// gaps ties the jobs to those before them.
func (o *planned) gaps(ctx context.Context, h *Room) error {
	rows, err := h.Store.StandingGaps(ctx)
	if err != nil {
		return err
	}
	first, index := map[int64]int{}, map[int64]int{} // of jobs in parts: what waits waits with its first, and for the last
	for i, k := range o.orders {
		if _, there := first[k.ID]; !there {
			first[k.ID] = i
		}
		index[k.ID] = i
	}
	for _, g := range rows {
		j, there := first[g.OrderID]
		if !there {
			continue
		}
		gap := rounds.Gap{Job: -1, Min: g.MinDays, Max: g.MaxDays}
		if other, too := index[g.OfID]; too {
			gap.Job = other
		} else if on := work.StandsOn(g); on.Given() {
			gap.Day = int(on - o.problem.From)
		} else {
			continue // it has no day and none in the span: the curve of the job alone speaks
		}
		if gap.Max > 0 && gap.Job < 0 && gap.Day+gap.Max < 0 {
			gap.Max = 0 // too late for that anyway
		}
		o.problem.Jobs[j].After = append(o.problem.Jobs[j].After, gap)
	}
	return nil
}

// light puts the daylight of the firm's first property on the days.
func (h *Room) light(ctx context.Context, p *rounds.Problem) error {
	props, err := h.Store.Properties(ctx, 0, 1)
	for i := range p.Days {
		if len(props) > 0 {
			p.Light = append(p.Light, rounds.Daylight(props[0].Climate.V.Latitude, p.From+day.Day(i)))
		}
	}
	return err
}
