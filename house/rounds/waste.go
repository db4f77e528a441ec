package rounds

import (
	"context"
	"slices"

	"mezzadro/core/load"
	"mezzadro/house/crews"
)

// waste says what comes off at each job, where a vehicle takes only so much.
func (o *planned) waste(ctx context.Context, h *Room) error {
	if !slices.ContainsFunc(o.crews, func(c crews.Crew) bool { return c.LoadM3 > 0 }) {
		return nil
	}
	loads, err := h.Work.Loads(ctx, o.orders)
	for j := range loads {
		o.problem.Jobs[j].WasteM3 = load.WasteM3(loads[j])
	}
	return err
}
