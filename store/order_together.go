package store

import (
	"context"
	"errors"
)

// AddTogether keeps orders that were asked for together, in their order, and returns their ids. A gap of an order to
// another (Order.After) is told by the other's key: of these, or of those that stand already, given by key. A gap to a
// key that is neither is none.
func (tx Tx) AddTogether(ctx context.Context, list []NewOrder, standing map[string]int64) ([]int64, error) {
	at := map[string]int64{}
	for key, id := range standing {
		at[key] = id
	}
	ids := make([]int64, len(list))
	for i, n := range list {
		id, err := tx.AddOrder(ctx, n)
		if err != nil {
			return nil, err
		}
		ids[i], at[n.Order.Key] = id, id
	}
	for i, n := range list { // now that each has an id: one may come after a later one of the list
		for _, g := range n.Order.After {
			of, known := at[g.Job]
			if !known {
				continue
			}
			gap := GapRow{OrderID: ids[i], OfID: of, MinDays: g.MinDays, MaxDays: g.MaxDays, Why: g.Why}
			if err := tx.AddGap(ctx, gap); err != nil {
				return nil, err
			}
		}
	}
	return ids, nil
}

// Chain has orders come one after the other, those that stand and those that were just kept, whatever hung on what
// before; why is told with each gap. An order that has one gap to another keeps it as it is.
func (tx Tx) Chain(ctx context.Context, ids []int64, why string) error {
	for i := 1; i < len(ids); i++ {
		_, err := one[int64](ctx, tx, `SELECT of_id FROM order_gap WHERE order_id = ? AND of_id = ?`, ids[i], ids[i-1])
		if errors.Is(err, ErrNotFound) {
			err = tx.AddGap(ctx, GapRow{OrderID: ids[i], OfID: ids[i-1], Why: why})
		}
		if err != nil {
			return err
		}
	}
	return nil
}
