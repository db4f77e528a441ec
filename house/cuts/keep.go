package cuts

import (
	"context"
	"fmt"

	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// KeepCuts makes jobs of the cuts that are wanted, all in one write.
func (h *Room) KeepCuts(ctx context.Context, key store.Key, property int64, wanted []CutWanted) ([]work.Order, error) {
	proposed, err := h.ProposeCuts(ctx, property, wanted)
	if err != nil {
		return nil, err
	}
	pl, err := h.Place(ctx, property)
	if err != nil {
		return nil, err
	}
	var bad invalid.Fields
	var chosen []*CutProposed
	at := make(map[int64]int, len(proposed.Cuts))
	for n, c := range proposed.Cuts {
		at[c.PlantID] = n
	}
	for i, w := range wanted {
		n, found := at[w.PlantID]
		if !found {
			bad.Add(fmt.Sprintf("cuts[%d].plant_id", i), w.PlantID, "no cut is proposed for it")
			continue
		}
		chosen = append(chosen, &proposed.Cuts[n])
	}
	if bad != nil {
		return nil, bad
	}
	ids, err := store.Once(ctx, h.Store, key, func(tx store.Tx) ([]int64, error) {
		made := []int64{}
		for _, c := range chosen {
			ids, err := c.keep(ctx, tx, pl)
			if err != nil {
				return nil, err
			}
			made = append(made, ids...)
		}
		return made, nil
	})
	if err != nil {
		return nil, err
	}
	kept, err := h.Store.OrdersOf(ctx, ids)
	if err != nil {
		return nil, err
	}
	return h.Work.Listed(ctx, kept)
}

// keep writes the jobs of a proposed cut and returns their ids.
func (c *CutProposed) keep(ctx context.Context, tx store.Tx, pl *estate.Place) ([]int64, error) {
	orders := c.plan.Jobs(c.ask, c.Minutes, c.Why, c.best)
	list := make([]store.NewOrder, len(orders))
	for i, o := range orders {
		list[i] = store.NewOrder{
			PropertyID: pl.Property.ID,
			Plants:     []int64{c.PlantID},
			Order:      o,
			Outlook:    pl.Curve(o, []string{c.ask.Species.ID}).Outlook(pl.Today),
		}
	}
	return tx.AddTogether(ctx, list, nil)
}
