package rounds

import (
	"context"
	"slices"

	"mezzadro/core/load"
	"mezzadro/house/crews"
	"mezzadro/store"
)

// waste says what comes off at each job, where a vehicle takes only so much.
func (o *planned) waste(ctx context.Context, h *Room) error {
	if !slices.ContainsFunc(o.crews, func(c crews.Crew) bool { return c.LoadM3 > 0 }) {
		return nil
	}
	list := make([]store.OrderFull, 0, len(o.orders))
	for _, k := range o.orders {
		list = append(list, *k)
	}
	loads, err := h.Work.Loads(ctx, list)
	for j := range loads {
		o.problem.Jobs[j].WasteM3 = load.WasteM3(loads[j])
	}
	return err
}
