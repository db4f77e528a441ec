package work

import (
	"context"
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/hold"
	"mezzadro/core/job"
	"mezzadro/store"
)

// Teller tells kept orders with what holds them, as the record stands. It is safe for use by many.
type Teller struct {
	state   string
	book    *catalogue.Catalogue
	today   day.Day
	held    map[int64]*hold.Hold
	several map[int64][]int64 // plants of standing orders that have several
}

// Teller is made once for a state of the record and a day.
func (h *Room) Teller(ctx context.Context) (*Teller, error) {
	state := fmt.Sprint(h.Today(), " ", h.Store.Rev())
	h.telling.Lock()
	defer h.telling.Unlock()
	if h.teller != nil && h.teller.state == state {
		return h.teller, nil
	}
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return nil, err
	}
	out := &Teller{state: state, book: book, today: h.Today(), held: t.Held}
	if len(t.Held) > 0 {
		if out.several, err = h.Store.SeveralPlants(ctx); err != nil {
			return nil, err
		}
	}
	h.teller = out
	return out, nil
}

// Holds is what holds an order, whether or not somebody has overruled it; nil where nothing does. Of several plants the
// first that holds it counts.
func (t *Teller) Holds(k store.Order) *hold.Hold {
	if len(t.held) == 0 || k.State != job.Waiting && k.State != job.Placed {
		return nil
	}
	w := hold.Work{Kind: k.Kind, Purpose: k.Purpose, Title: k.Title, Origin: k.Origin, Of: k.OriginID}
	plants := t.several[k.ID]
	if k.PlantID.Valid {
		plants = []int64{k.PlantID.Int64}
	}
	for _, p := range plants {
		if by := t.held[p]; by.Binds(w) {
			return by
		}
	}
	return nil
}

// Waits is what holds an order that nobody has overruled.
func (t *Teller) Waits(k store.Order) *hold.Hold {
	if k.Anyway != "" {
		return nil
	}
	return t.Holds(k)
}

// Curve is what each day costs for an order, with the days before those it waits for forbidden.
func (t *Teller) Curve(k store.Order, c job.Curve) job.Curve {
	if by := t.Waits(k); by != nil && by.Until.Given() {
		return c.Until(by.Until, "what was found", by.Why)
	}
	return c
}

// Tell is an order as lists show it.
func (t *Teller) Tell(k store.Order) Order {
	o := TellOrder(k, t.book, t.today)
	if by := t.Holds(k); by != nil {
		o.Hold = &Held{*by, k.Anyway}
	}
	return o
}

// Held is why an order waits, and why it is done all the same where somebody has said so.
type Held struct {
	hold.Hold
	Anyway string `json:"anyway,omitempty" doc:"Why it is done all the same; absent where it waits"`
}

// Anyway has an order be done although what was found on its plant says to wait; without a reason it waits again.
func (h *Room) Anyway(ctx context.Context, key store.Key, id int64, version int, why string) (OrderDetail, error) {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.Anyway(ctx, id, version, why) })
	if err != nil {
		return OrderDetail{}, h.StaleOrder(ctx, err)
	}
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	if err := h.RefreshProperty(ctx, k.PropertyID); err != nil {
		return OrderDetail{}, err
	}
	return h.Order(ctx, id)
}

// OnADayAndWaits are jobs that stand on a day and wait for what is not known yet of their plants, the next first.
func (h *Room) OnADayAndWaits(ctx context.Context, most int) ([]Order, error) {
	t, err := h.Teller(ctx)
	if err != nil || len(t.held) == 0 {
		return []Order{}, err
	}
	out := []Order{}
	list, err := h.Store.OrdersBetween(ctx, (t.today - longOverdue).String(), (t.today + aYear).String(), store.All)
	for _, k := range list {
		if t.Waits(k) != nil && len(out) < most {
			out = append(out, t.Tell(k))
		}
	}
	return out, err
}

// How far back and ahead jobs on days are looked over, days.
const (
	longOverdue = 60
	aYear       = 366
)

// WhatHolds is why work on a plant waits; nil where nothing holds it.
func (h *Room) WhatHolds(ctx context.Context, plant int64) (*hold.Hold, error) {
	t, err := h.Triage(ctx)
	if err != nil {
		return nil, err
	}
	return t.Held[plant], nil
}
