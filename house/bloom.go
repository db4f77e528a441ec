package house

import (
	"context"

	"mezzadro/core/replacement"
)

// Bloom is what blooms on a property through a year, and when nothing does.
func (h *House) Bloom(ctx context.Context, property int64) (replacement.Calendar, error) {
	pl, err := h.Place(ctx, property)
	if err != nil {
		return replacement.Calendar{}, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, all)
	if err != nil {
		return replacement.Calendar{}, err
	}
	list := []replacement.Standing{}
	for _, p := range plants {
		if e, known := pl.Book.Entry(p.Species); known {
			list = append(list, replacement.Standing{Name: plantName(e.Common, p.Label), Kind: e, Count: p.Count})
		}
	}
	return replacement.CalendarOf(pl.Year, pl.Today, list), nil
}
