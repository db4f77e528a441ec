package work

import (
	"context"
	"fmt"

	"mezzadro/core/invalid"
	"mezzadro/core/lookout"
	"mezzadro/store"
)

// OrdersPage is a page of orders.
type OrdersPage struct {
	Items []Order
	Next  string
}

// Orders are a page of a list.
func (h *Room) Orders(
	ctx context.Context,
	list store.OrderList,
	property int64,
	cursor string,
	limit int,
) (OrdersPage, error) {
	if err := h.CurrentWindows(ctx); err != nil {
		return OrdersPage{}, err
	}
	p := store.OrderPage{List: list, Property: property}
	if cursor != "" {
		if n, err := fmt.Sscanf(cursor, "%10s.%d", &p.After, &p.AfterID); err != nil || n != 2 {
			return OrdersPage{}, invalid.One("cursor", cursor, "is none that a page before gave")
		}
	}
	today := h.Today()
	p.Today, p.Soon, p.Limit = today.String(), (today + lookout.Soon).String(), limit+1
	kept, err := h.Store.OrderPage(ctx, p)
	if err != nil {
		return OrdersPage{}, err
	}
	next := ""
	if len(kept) > limit {
		last := kept[limit-1]
		kept, next = kept[:limit], fmt.Sprintf("%s.%d", last.KeyIn(list), last.ID)
	}
	items, err := h.Listed(ctx, kept)
	return OrdersPage{items, next}, err
}
