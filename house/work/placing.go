package work

import (
	"context"
	"errors"
	"fmt"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/quantity"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// PutIn puts an order on a day.
type PutIn struct {
	Day     day.Day // day.None takes it off
	Crew    string
	Place   int // among the day's work; 0 comes last
	Version int
}

// PutOut is an order after it was put on a day, with what that costs.
type PutOut struct {
	Order    OrderDetail `json:"job"`
	Cost     int         `json:"cost" doc:"0 best to 100 worst"`
	Parts    []job.Part  `json:"parts" doc:"What makes up the cost"`
	Warnings []string    `json:"warnings"`
}

// StaleOrder gives the kept order as it is told, not as it is stored.
func (h *Room) StaleOrder(ctx context.Context, err error) error {
	if err == nil {
		return nil
	}
	book, fault := h.Book(ctx)
	if fault != nil {
		return errors.Join(err, fault)
	}
	return estate.Stale(err, func(k store.OrderFull) Order { return TellOrder(k.Order, book, h.Today()) })
}

// PutOnDay puts an order on a day, or takes it off.
func (h *Room) PutOnDay(ctx context.Context, key store.Key, id int64, in PutIn) (PutOut, error) {
	o := PutOut{Warnings: []string{}, Parts: []job.Part{}}
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return o, err
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return o, err
	}
	_, c, err := h.CurveOf(ctx, k, pl)
	if err != nil {
		return o, err
	}
	t, err := h.Teller(ctx)
	if err != nil {
		return o, err
	}
	c = t.Curve(k.Order, c)
	s := store.Stand{State: job.Waiting, DayCost: job.Never.Int()}
	var refused error
	if in.Day != day.None {
		refused = h.Allowed(&o, c, in.Day)
		if o.Warnings, err = h.gapWarnings(ctx, id, in.Day); err != nil {
			return o, err
		}
		if by := t.Waits(k.Order); by != nil && refused == nil {
			o.Warnings = append(o.Warnings, by.Why)
		}
		text := in.Day.String()
		s = store.Stand{State: job.Placed, Day: &text, Crew: in.Crew, Place: in.Place, DayCost: o.Cost}
		if s.CrewID, err = h.Store.CrewCalled(ctx, in.Crew); err != nil {
			return o, err
		}
	}
	k, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) {
		switch {
		case k.Version != in.Version:
			return k, store.Stale{Yours: in.Version, Current: k}
		case refused != nil: // a repeat of what was done before its day went by is answered as then
			return k, refused
		case k.State == job.Done || k.State == job.Skipped:
			return k, store.Refused(fmt.Sprintf("this job is %s already; take that back first", k.State))
		}
		return PutOn(ctx, tx, id, in.Version, s)
	})
	if err != nil {
		return o, h.StaleOrder(ctx, err)
	}
	o.Order, err = h.detail(ctx, k)
	return o, err
}

// PutOn has an order stand as told; on a day without a place it comes last.
func PutOn(ctx context.Context, tx store.Tx, id int64, version int, s store.Stand) (store.OrderFull, error) {
	if s.Day != nil && s.Place == 0 {
		last, err := tx.LastPlace(ctx, *s.Day)
		if err != nil {
			return store.OrderFull{}, err
		}
		s.Place = last + 1
	}
	return tx.SetStand(ctx, id, version, s)
}

// Allowed says what a day costs, and refuses one that is past or forbidden.
func (h *Room) Allowed(o *PutOut, c job.Curve, d day.Day) error {
	if d < h.Today() {
		return invalid.One("day", d.String(), "is past")
	}
	cost := c.On(d)
	o.Cost = cost.Int()
	o.Parts = append(o.Parts, c.Why(d)...)
	if !cost.Forbids() {
		return nil
	}
	why := "is outside the time this job was planned for"
	for _, p := range o.Parts {
		if p.Cost.Forbids() {
			why = "is forbidden: " + p.Text
		}
	}
	return invalid.One("day", d.String(), why)
}

// gapWarnings says where a day breaks the order with other jobs, of whatever origin.
func (h *Room) gapWarnings(ctx context.Context, id int64, d day.Day) ([]string, error) {
	out := []string{}
	before, err := h.Store.Before(ctx, id)
	if err != nil {
		return out, err
	}
	for _, g := range before {
		other := StandsOn(g)
		switch {
		case other == day.None:
		case d < other+day.Day(g.MinDays):
			out = append(
				out,
				fmt.Sprintf("%q comes first, on %s; at least %d days lie between.", g.Title, quantity.Day(other), g.MinDays),
			)
		case g.MaxDays > 0 && d > other+day.Day(g.MaxDays):
			out = append(out, fmt.Sprintf("More than %d days after %q on %s.", g.MaxDays, g.Title, quantity.Day(other)))
		}
	}
	after, err := h.Store.After(ctx, id)
	for _, g := range after {
		other := StandsOn(g)
		if other == day.None && g.Why == pruning.InOneVisit && g.State == string(job.Waiting) {
			out = append(out, fmt.Sprintf("%q is best done in the same visit: put it on this day too.", g.Title))
		}
		if other != day.None && other < d+day.Day(g.MinDays) {
			out = append(
				out,
				fmt.Sprintf(
					"%q on %s was to come after this; at least %d days lie between.",
					g.Title,
					quantity.Day(other),
					g.MinDays,
				),
			)
		}
	}
	return out, err
}
