package treat

import (
	"context"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/work"
	"mezzadro/store"
)

// lookedAgain keeps with its find whether a treatment helped, as the look after it found.
func (h *Room) lookedAgain(_ context.Context, k store.OrderFull, on day.Day, in work.TickOffIn) (work.Followed, error) {
	if in.Helped == "" || k.Origin != job.Programme {
		return work.Followed{}, nil
	}
	return work.Followed{Write: func(ctx context.Context, tx store.Tx) error {
		return tx.LookedAgain(ctx, k.OriginID, k.ID, in.Helped, on.String())
	}}, nil
}
