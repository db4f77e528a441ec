package rounds

import (
	"context"
	"sync"

	"mezzadro/core/day"
	"mezzadro/core/walk"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// drawn are the curves that were last asked for, by order: most hold when they are asked for again.
type drawn struct {
	mu   sync.Mutex
	last []drawnOne
}

// drawnOne is the curve of an order as it was read, on its place's ground as it was worked out.
type drawnOne struct {
	row    *store.OrderFull
	ground *walk.Ground
	curve  *estate.Shared
}

// curves are what each day costs for standing orders, which come by their ids, with the days of a span worked out.
func (h *Room) curves(
	ctx context.Context,
	list []*store.OrderFull,
	places map[int64]*estate.Place,
	from day.Day,
	days int,
) ([]drawnOne, error) {
	h.drawn.mu.Lock()
	before := h.drawn.last
	h.drawn.mu.Unlock()
	out := make([]drawnOne, len(list))
	for i, k := range list {
		for len(before) > 0 && before[0].row.ID < k.ID {
			before = before[1:]
		}
		out[i] = drawnOne{row: k, ground: places[k.PropertyID].Ground}
		// what several plants are is not told by the order's row
		if len(before) > 0 && before[0].row == k && before[0].ground == out[i].ground && k.PlantID.Valid {
			out[i].curve = before[0].curve
		}
	}
	err := estate.OnAllCores(len(out), func(i int) (err error) {
		if c := &out[i]; c.curve == nil {
			if c.curve, err = h.Work.Shared(ctx, c.row, places[c.row.PropertyID]); err != nil {
				return err
			}
		}
		out[i].curve.Span(from, days)
		return nil
	})
	if err != nil {
		return nil, err
	}
	h.drawn.mu.Lock()
	defer h.drawn.mu.Unlock()
	h.drawn.last = out
	return out, nil
}
