package ground

import (
	"context"

	"mezzadro/core/replacement"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Bloom is what blooms on a property through a year, and when nothing does.
func (h *Room) Bloom(ctx context.Context, property int64) (replacement.Calendar, error) {
	pl, err := h.Place(ctx, property)
	if err != nil {
		return replacement.Calendar{}, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return replacement.Calendar{}, err
	}
	list := []replacement.Standing{}
	for _, p := range plants {
		if e, known := pl.Book.Entry(p.Species); known {
			list = append(list, replacement.Standing{Name: estate.PlantName(e.Common, p.Label), Kind: e, Count: p.Count})
		}
	}
	return replacement.CalendarOf(pl.Year, pl.Today, list), nil
}
