package house

import (
	"context"
	"fmt"

	"mezzadro/core/lookout"
	"mezzadro/store"
)

// LanesPage is a page of lanes.
type LanesPage struct {
	Items []Lane
	Next  string // of the following page, empty at the end
}

// Lanes are the orders that are still to be done, with their costs, the next best day first.
func (h *House) Lanes(ctx context.Context, property int64, cursor string, limit int) (LanesPage, error) {
	p := store.OrderPage{List: store.ListStanding, Property: property}
	list, next, err := page(
		ctx,
		h,
		p,
		cursor,
		limit,
		h.Store.LanePage,
		func(k store.OrderFull) store.Order { return k.Order },
	)
	if err != nil {
		return LanesPage{}, err
	}
	out := LanesPage{Items: make([]Lane, 0, len(list)), Next: next}
	places := map[int64]*Place{}
	for _, k := range list {
		pl := places[k.PropertyID]
		if pl == nil {
			if pl, err = h.Place(ctx, k.PropertyID); err != nil {
				return out, err
			}
			places[k.PropertyID] = pl
		}
		l, _, _, err := h.lane(ctx, k, pl)
		if err != nil {
			return out, err
		}
		out.Items = append(out.Items, l)
	}
	return out, nil
}

// OrdersPage is a page of orders.
type OrdersPage struct {
	Items []Order
	Next  string
}

// Orders are a page of a list.
func (h *House) Orders(
	ctx context.Context,
	list store.OrderList,
	property int64,
	cursor string,
	limit int,
) (OrdersPage, error) {
	p := store.OrderPage{List: list, Property: property}
	kept, next, err := page(ctx, h, p, cursor, limit, h.Store.OrderPage, func(k store.Order) store.Order { return k })
	if err != nil {
		return OrdersPage{}, err
	}
	items, err := h.listed(ctx, kept)
	return OrdersPage{items, next}, err
}

// page reads one page and says where the next begins.
func page[T any](ctx context.Context, h *House, p store.OrderPage, cursor string, limit int,
	read func(context.Context, store.OrderPage) ([]T, error), order func(T) store.Order) ([]T, string, error) {
	if err := h.currentWindows(ctx); err != nil {
		return nil, "", err
	}
	if cursor != "" {
		if n, err := fmt.Sscanf(cursor, "%10s.%d", &p.After, &p.AfterID); err != nil || n != 2 {
			return nil, "", Refuse("cursor", cursor, "is none that a page before gave")
		}
	}
	today := h.Today()
	p.Today, p.Soon, p.Limit = today.String(), (today + lookout.Soon).String(), limit+1
	list, err := read(ctx, p)
	if err != nil || len(list) <= limit {
		return list, "", err
	}
	last := order(list[limit-1])
	return list[:limit], fmt.Sprintf("%s.%d", last.KeyIn(p.List), last.ID), nil
}
