package work

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// TickOffIn says how an order ended, or takes that back.
type TickOffIn struct {
	State   job.State // done, skipped, or waiting to take either back
	On      day.Day   // the day it was done or skipped on; today when empty
	Took    int       // minutes; 0 not noted
	Note    string    // why it was skipped; of what is done, what was seen
	Version int
	Use     *UseIn // of a treatment: what was used
}

// tickBack is how long ago a job may have been done that is ticked off now, days.
const tickBack = 366

// TickOff marks an order done or skipped. Of a repeat the next time is asked for; taking the tick back takes that away.
func (h *Room) TickOff(ctx context.Context, key store.Key, id int64, in TickOffIn) (OrderDetail, error) {
	on := h.DateOr(in.On)
	switch {
	case in.State == job.Skipped && in.Note == "":
		return OrderDetail{}, invalid.One("note", in.Note, "is missing: say why it is skipped")
	case on > h.Today():
		return OrderDetail{}, invalid.One("on", on.String(), "is still to come")
	case on < h.Today()-tickBack:
		return OrderDetail{}, invalid.One("on", on.String(), "is more than a year ago")
	case in.Took < 0 || in.Took > job.MaxMinutes:
		return OrderDetail{}, invalid.One(
			"took_minutes",
			in.Took,
			fmt.Sprintf("%d minutes: want 0 to %d", in.Took, job.MaxMinutes),
		)
	}
	k, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (store.OrderFull, error) { return h.tickOff(ctx, tx, id, on, in) },
	)
	if err != nil {
		return OrderDetail{}, h.StaleOrder(ctx, err)
	}
	if err := h.RefreshProperty(ctx, k.PropertyID); err != nil {
		return OrderDetail{}, err
	}
	return h.Order(ctx, id)
}

// FollowUp is what comes of work of a kind that is ticked off as done, in the same write. It says whether it asked for
// the next time itself.
type FollowUp func(ctx context.Context, tx store.Tx, k store.OrderFull, on day.Day, in TickOffIn) (goesOn bool, err error)

// WhenDone has what comes of a kind of work that is ticked off be done by another room.
func (h *Room) WhenDone(kind job.Kind, follow FollowUp) { h.followUps[kind] = follow }

func (h *Room) tickOff(ctx context.Context, tx store.Tx, id int64, on day.Day, in TickOffIn) (store.OrderFull, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return k, err
	}
	if k.Version != in.Version { // before anything else: whoever asks is to see what was done meanwhile
		return k, store.Stale{Yours: in.Version, Current: k}
	}
	to := in.State
	if to == job.Waiting && k.Day != nil {
		to = job.Placed
	}
	if !k.State.CanBecome(to) {
		return k, store.Refused(fmt.Sprintf("this job is %s already", k.State))
	}
	s := store.Stand{State: to, Day: k.Day, Crew: k.Crew, CrewID: k.CrewID, Place: k.Place, DayCost: k.DayCost}
	if to != job.Waiting && to != job.Placed {
		text := on.String()
		s.Ended, s.Took, s.Note = &text, in.Took, in.Note
	} else if err := errors.Join(tx.TakeBackSuccessor(ctx, id), tx.RemoveUseOf(ctx, id)); err != nil {
		return k, err
	}
	out, err := tx.SetStand(ctx, id, in.Version, s)
	if follow := h.followUps[k.Kind]; err == nil && to == job.Done && follow != nil {
		if goesOn, err := follow(ctx, tx, k, on, in); err != nil || goesOn {
			return out, err
		}
	}
	if err != nil || s.Ended == nil || k.Params.V.EveryDays == 0 {
		return out, err
	}
	return out, h.repeat(ctx, tx, k, on)
}

// repeat asks for the next time of a repeat: only ever the next. In after-care that is over none comes.
func (h *Room) repeat(ctx context.Context, tx store.Tx, k store.OrderFull, done day.Day) error {
	if _, err := tx.Successor(ctx, k.ID); !errors.Is(err, store.ErrNotFound) {
		return err
	}
	o, err := k.Core()
	if err != nil {
		return err
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return err
	}
	e := estate.EntryOf(pl.Book, k.Species)
	next := done + day.Day(o.Params.EveryDays)
	if len(o.Params.Spans) == 0 {
		if _, to, ok := pl.Work.Time(o.Kind, o.Params.Stage, &e, o.For); ok && next > to {
			return nil
		}
	} else if !slices.ContainsFunc(o.Params.Spans, func(s job.Span) bool { return s.To >= next }) {
		return nil
	}
	o.Params.Last = done
	plants, _, err := h.kept(ctx, k)
	if err != nil {
		return err
	}
	of, err := h.speciesOf(ctx, k)
	if err != nil {
		return err
	}
	_, err = tx.AddOrder(
		ctx,
		store.NewOrder{
			PropertyID: k.PropertyID,
			Plants:     plants,
			OriginID:   k.OriginID,
			Trouble:    k.Trouble,
			Follows:    k.ID,
			Order:      o,
			Outlook:    pl.Curve(o, of).Outlook(pl.Today),
			Gaps:       []store.GapRow{{OfID: k.ID, MinDays: o.Params.EveryDays, Why: "the time before"}},
		},
	)
	return err
}

// NextYear gives an order whose time has passed that of the coming garden year.
func (h *Room) NextYear(ctx context.Context, key store.Key, id int64, version int) (OrderDetail, error) {
	k, err := h.Store.Order(ctx, id)
	if err != nil {
		return OrderDetail{}, err
	}
	o, err := k.Core()
	if err != nil {
		return OrderDetail{}, err
	}
	if o.Kind.ByDays() {
		return OrderDetail{}, store.Refused("the days of this job were entered by hand; change them there")
	}
	if len(o.Params.Spans) > 0 {
		return OrderDetail{}, store.Refused("this is one season's feeding; keep the next from the plant's page")
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return OrderDetail{}, err
	}
	c := pl.Normals.Climate
	_, next := c.GardenYear(o.For)
	for next < pl.Today-300 { // years in which nobody asked for it are not gone through one by one
		_, next = c.GardenYear(next)
	}
	o.For = next
	if o.Kind == job.Treat {
		o.Params.Due = 0 // a gap or a repeat set it: in another year the season does
	}
	of, err := h.speciesOf(ctx, k)
	if err != nil {
		return OrderDetail{}, err
	}
	plants, gaps, err := h.kept(ctx, k)
	if err != nil {
		return OrderDetail{}, err
	}
	k, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) {
		k, err := tx.ChangeOrder(
			ctx,
			id,
			version,
			store.NewOrder{
				PropertyID: k.PropertyID,
				Plants:     plants,
				Order:      o,
				Outlook:    pl.Curve(o, of).Outlook(pl.Today),
				Gaps:       gaps,
			},
		)
		if err != nil || k.Day == nil {
			return k, err
		}
		return tx.SetStand(ctx, id, k.Version, store.Stand{State: job.Waiting, DayCost: job.Never.Int()})
	})
	if err != nil {
		return OrderDetail{}, h.StaleOrder(ctx, err)
	}
	return h.detail(ctx, k)
}

// kept are the plants an order is for and the gaps it has, to be kept as they are.
func (h *Room) kept(ctx context.Context, k store.OrderFull) ([]int64, []store.GapRow, error) {
	gaps, err := h.Store.Before(ctx, k.ID)
	if err != nil || k.PlantID.Valid {
		return []int64{k.PlantID.Int64}, gaps, err
	}
	plants, err := h.Store.PlantsOf(ctx, k.ID)
	return plants, gaps, err
}

// Drop takes an order out that nobody wants any more; Restore brings it back.
func (h *Room) Drop(ctx context.Context, key store.Key, id int64, version int) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.DropOrder(ctx, id, version) },
	)
	return h.StaleOrder(ctx, err)
}

// Restore brings an order back that was dropped by hand.
func (h *Room) Restore(ctx context.Context, key store.Key, id int64) (OrderDetail, error) {
	k, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (store.OrderFull, error) { return tx.RestoreOrder(ctx, id) })
	if err != nil {
		return OrderDetail{}, err
	}
	return h.detail(ctx, k)
}

// UseIn is what was used for a treatment.
type UseIn struct {
	ProductID int64    `json:"product_id,omitempty" doc:"The card; absent for work without a product"`
	Amount    float64  `json:"amount,omitempty" minimum:"0" doc:"Of the product, in its unit"`
	SprayL    float64  `json:"spray_l,omitempty" minimum:"0" maximum:"100000"`
	Who       string   `json:"who,omitempty" maxLength:"200"`
	TempC     *float64 `json:"temp_c,omitempty" doc:"From the station when absent"`
	WindMS    *float64 `json:"wind_ms,omitempty"`
	Anyway    bool     `json:"anyway,omitempty" doc:"It was used although that day lies within a wait; the note says why"`
}
