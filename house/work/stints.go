package work

import (
	"context"
	"errors"
	"fmt"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Ways in which a visit to a job can end without ending the job, and how the last of them is taken back.
const (
	PartlyDone = "partly done"
	NotToday   = "not today"
	AsBefore   = "as before"
)

// StintOut is a time at which somebody was at a job and did not end it.
type StintOut struct {
	ID     int64   `json:"id"`
	Kind   string  `json:"kind" enum:"partly done,not today"`
	Day    day.Day `json:"day" format:"date"`
	Reason string  `json:"reason" doc:"Why it was not done; empty where a part was"`
	Note   string  `json:"note"`
	Took   int     `json:"took_minutes" doc:"How long was worked at it; 0 not noted"`
	By     string  `json:"by" doc:"Who said so; empty where nobody has to sign in"`
}

// stints are the times at which somebody was at an order and did not end it, the oldest first.
func (h *Room) stints(ctx context.Context, order int64) ([]StintOut, error) {
	list, err := h.Store.Stints(ctx, order)
	return estate.TellAll(list, func(s store.Stint) StintOut {
		return StintOut{s.ID, s.Kind, store.DayOf(&s.Day), s.Reason, s.Note, s.Took, s.By}
	}), err
}

// badStint names what cannot be in a visit that ended without the job.
func badStint(k store.OrderFull, in TickOffIn) error {
	switch {
	case in.State == NotToday && in.Reason == "":
		return invalid.One("reason", in.Reason, "is missing: say why it was not done")
	case in.State == NotToday:
		return nil
	case in.Left < 1 || in.Left > job.MaxMinutes:
		return invalid.One("left_minutes", in.Left, fmt.Sprintf("%d minutes: say how much is left, 1 to %d", in.Left, job.MaxMinutes))
	case k.Kind == job.Treat:
		return store.Refused("a treatment is ticked off whole, with what was used; enter what is left as a job of its own")
	}
	return nil
}

// stint keeps that somebody was at an order and did not end it: what is left of it waits for another day.
func (h *Room) stint(ctx context.Context, key store.Key, id int64, on day.Day, in TickOffIn) (OrderDetail, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	bad := badStint(k, in)
	left := k.Minutes
	if in.State == PartlyDone {
		left = in.Left
	}
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) {
		switch {
		case k.Version != in.Version:
			return k, store.Stale{Yours: in.Version, Current: k}
		case bad != nil:
			return k, bad
		case k.State != job.Waiting && k.State != job.Placed:
			return k, store.Refused(fmt.Sprintf("this job is %s already; take that back first", k.State))
		}
		st := store.Stint{Kind: string(in.State), Day: on.String(), Reason: in.Reason, Note: in.Note, Took: in.Took}
		return tx.AddStint(ctx, k, st, left)
	})
	return h.afterStint(ctx, k, err)
}

// takeBackStint has an order stand as it did before somebody was at it the last time.
func (h *Room) takeBackStint(ctx context.Context, key store.Key, id int64, version int) (OrderDetail, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	st, err := h.Store.LastStint(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return OrderDetail{}, store.Refused("nobody was at this job yet")
	} else if err != nil {
		return OrderDetail{}, err
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return OrderDetail{}, err
	}
	_, c, err := h.CurveOf(ctx, k, pl)
	if err != nil {
		return OrderDetail{}, err
	}
	cost := estate.DayCost(c, store.DayOf(st.WasDay), pl.Today)
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) {
		if k.State != job.Waiting && k.State != job.Placed {
			return k, store.Refused(fmt.Sprintf("this job is %s already; take that back first", k.State))
		}
		return tx.TakeBackStint(ctx, st, version, cost)
	})
	return h.afterStint(ctx, k, err)
}

// afterStint is an order after a write of a stint.
func (h *Room) afterStint(ctx context.Context, k store.OrderFull, err error) (OrderDetail, error) {
	if err != nil {
		return OrderDetail{}, h.StaleOrder(ctx, err)
	}
	if err := h.RefreshProperty(ctx, k.PropertyID); err != nil {
		return OrderDetail{}, err
	}
	return h.Order(ctx, k.ID)
}
