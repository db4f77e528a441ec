package house

import (
	"cmp"
	"context"
	"fmt"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/lookout"
	"mezzadro/store"
)

// LanesPage is a page of lanes.
type LanesPage struct {
	Items []Lane `json:"items"`
	Total int    `json:"total" doc:"How many there are in all"` // of the following page, empty at the end
}

// LanesOf says which standing jobs the year shows, and in which order.
type LanesOf struct {
	Property int64
	Kind     job.Kind
	By       string // time, property, plant or kind
	NoCare   bool
	Closing  int // only those whose running window ends within so many days; 0: all
	Words    string
	From     int
	Limit    int
}

// Lanes are a stretch of the standing jobs with what each day costs.
func (h *House) Lanes(ctx context.Context, of LanesOf) (LanesPage, error) {
	if err := h.currentWindows(ctx); err != nil {
		return LanesPage{}, err
	}
	ask := store.LanesOf{
		Property: of.Property,
		Kind:     of.Kind,
		By:       cmp.Or(of.By, "time"),
		NoCare:   of.NoCare,
		Today:    h.Today().String(),
		Words:    strings.Fields(strings.ToLower(of.Words)),
		From:     of.From,
		Limit:    of.Limit,
	}
	if of.Closing > 0 {
		ask.Closing = (h.Today() + day.Day(of.Closing)).String()
	}
	list, total, err := h.Store.Lanes(ctx, ask)
	if err != nil {
		return LanesPage{}, err
	}
	out := LanesPage{Items: make([]Lane, 0, len(list)), Total: total}
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
	if err := h.currentWindows(ctx); err != nil {
		return OrdersPage{}, err
	}
	p := store.OrderPage{List: list, Property: property}
	if cursor != "" {
		if n, err := fmt.Sscanf(cursor, "%10s.%d", &p.After, &p.AfterID); err != nil || n != 2 {
			return OrdersPage{}, Refuse("cursor", cursor, "is none that a page before gave")
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
	items, err := h.listed(ctx, kept)
	return OrdersPage{items, next}, err
}
