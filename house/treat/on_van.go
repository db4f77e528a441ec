package treat

import (
	"context"

	"mezzadro/core/load"
	"mezzadro/store"
)

// OnVan is what standing treatments and feedings take of products on their day, by order: as the firm's own cards say, and
// what has no card by its name alone.
func (h *Room) OnVan(ctx context.Context, orders []store.OrderFull) (map[int64][]load.Item, error) {
	out := map[int64][]load.Item{}
	var t *taking
	for _, k := range orders {
		if k.Params.V.Use == "" {
			continue
		}
		if t == nil {
			var err error
			if t, _, err = h.taking(ctx); err != nil {
				return nil, err
			}
		}
		due := store.DayOf(k.BestDay)
		if k.Day != nil {
			due = store.DayOf(k.Day)
		}
		by := map[string]*ShoppingLine{}
		key, err := t.add(ctx, by, k, due, due)
		if err != nil {
			return nil, err
		}
		if l := by[key]; l != nil {
			l.close(t.products)
			out[k.ID] = append(out[k.ID], load.Item{Group: load.Stuff, Name: l.Name, Amount: l.Needed, Unit: l.Unit, Jobs: 1, Buy: true})
		}
	}
	return out, nil
}
