package rounds

import (
	"context"

	"mezzadro/core/rounds"
)

// ways puts the timed ways into a plan, and when they take longer.
func (o *planned) ways(ctx context.Context, h *Room) error {
	kept, err := h.Store.Ways(ctx)
	if err != nil {
		return err
	}
	if o.problem.Traffic, err = h.Team.Traffic(ctx); err != nil {
		return err
	}
	place, crew := map[int64]int{}, map[int64]int{}
	for i, id := range o.places {
		place[id] = i
	}
	for i, c := range o.crews {
		crew[c.ID] = -1 - i
	}
	for _, w := range kept {
		to, there := place[w.ToProperty]
		from, known := place[w.FromProperty]
		if w.FromCrew != 0 {
			from, known = crew[w.FromCrew]
		}
		if there && known {
			o.problem.Ways = append(o.problem.Ways, rounds.Known{From: from, To: to, Minutes: w.Minutes})
		}
	}
	return nil
}
