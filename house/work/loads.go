package work

import (
	"context"

	"mezzadro/core/catalogue"
	"mezzadro/core/load"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Loads are what each order takes along and brings back, without what is mixed for it.
func (h *Room) Loads(ctx context.Context, list []store.OrderFull) ([][]load.Item, error) {
	t, err := h.Triage(ctx) // has all plants at hand
	if err != nil {
		return nil, err
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	several, err := h.Store.SeveralPlants(ctx)
	if err != nil {
		return nil, err
	}
	plants := map[int64]*store.Plant{}
	for i := range t.Kept {
		plants[t.Kept[i].ID] = &t.Kept[i]
	}
	out := make([][]load.Item, 0, len(list))
	for _, k := range list {
		ids := several[k.ID]
		if k.PlantID.Valid {
			ids = []int64{k.PlantID.Int64}
		}
		out = append(out, load.Of(loadJob(k, ids, plants, book)))
	}
	return out, nil
}

// loadJob is an order as the core asks for it.
func loadJob(k store.OrderFull, ids []int64, plants map[int64]*store.Plant, book *catalogue.Catalogue) load.Job {
	j := load.Job{
		Kind:    k.Kind,
		Title:   k.Title,
		Params:  k.Params.V,
		Minutes: k.Minutes,
		Kit:     k.Body.V.Kit,
		Skills:  k.Body.V.Skills,
		Count:   k.Params.V.NewCount,
	}
	if e, known := book.Entry(j.Params.New); known {
		j.New = e
	}
	for _, id := range ids {
		p, there := plants[id]
		if !there {
			continue
		}
		e := estate.EntryOf(book, p.Species)
		j.Plants = append(
			j.Plants,
			load.Stock{Species: &e, Count: p.Count, HeightM: p.HeightM, SpreadM: p.SpreadM, PotL: p.PotL},
		)
	}
	return j
}
