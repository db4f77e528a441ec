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

// TickOffIn says how an order ended, or takes that back.
type TickOffIn struct {
	State   job.State // done, skipped, or waiting to take either back; partly done or not today, or as before to take that back
	On      day.Day   // the day it was done or skipped on; today when empty
	Took    int       // minutes; 0 not noted
	Note    string    // why it was skipped; of what is done, what was seen
	Version int
	Use     *UseIn // of a treatment: what was used
	Left    int    // partly done: minutes that are left
	Reason  string // not today: why
	Never   bool   // of a repeat that is skipped: it does not come again
	Helped  string // of a look after a treatment: gone, less or same; empty where nobody said
}

// tickBack is how long ago a job may have been done that is ticked off now, days.
const tickBack = 366

// TickOff marks an order done or skipped. Of a repeat the next time is asked for; taking the tick back takes that away.
func (h *Room) TickOff(ctx context.Context, key store.Key, id int64, in TickOffIn) (OrderDetail, error) {
	on := h.DateOr(in.On)
	switch {
	case in.State == job.Skipped && in.Note == "":
		return OrderDetail{}, invalid.One("note", in.Note, "is missing: say why it is not needed any more")
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
	switch in.State {
	case PartlyDone, NotToday:
		return h.stint(ctx, key, id, on, in)
	case AsBefore:
		return h.takeBackStint(ctx, key, id, in.Version)
	}
	e, fault := h.ending(ctx, id, on, in)
	k, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (store.OrderFull, error) {
			if fault != nil { // a repeat of what was done before is answered as then
				return e.order, fault
			}
			return e.keep(ctx, tx)
		},
	)
	if err != nil {
		return OrderDetail{}, h.StaleOrder(ctx, err)
	}
	if err := h.RefreshProperty(ctx, k.PropertyID); err != nil {
		return OrderDetail{}, err
	}
	return h.Order(ctx, id)
}

// FollowUp says what comes of work of a kind that is ticked off as done. It reads before the write.
type FollowUp func(ctx context.Context, k store.OrderFull, on day.Day, in TickOffIn) (Followed, error)

// Followed is what comes of work that is ticked off.
type Followed struct {
	Write  func(ctx context.Context, tx store.Tx) error // in the same write; nil for nothing
	GoesOn bool                                         // it asks for the next time itself
}

// WhenDone has what comes of a kind of work that is ticked off be said by another room.
func (h *Room) WhenDone(kind job.Kind, follow FollowUp) { h.followUps[kind] = follow }

// ending is what ticking an order off comes to. All that it hangs on was read before the write.
type ending struct {
	order store.OrderFull
	to    job.State
	stand store.Stand
	after Followed
	again *store.NewOrder // the next time of a repeat; nil for none
}

// ending reads what ticking an order off comes to.
func (h *Room) ending(ctx context.Context, id int64, on day.Day, in TickOffIn) (ending, error) {
	k, err := h.Store.Order(ctx, id)
	e := ending{order: k, to: in.State}
	if err != nil {
		return e, err
	}
	if k.Version != in.Version { // before anything else: whoever asks is to see what was done meanwhile
		return e, store.Stale{Yours: in.Version, Current: k}
	}
	if e.to == job.Waiting && k.Day != nil {
		e.to = job.Placed
	}
	if !k.State.CanBecome(e.to) {
		return e, store.Refused(fmt.Sprintf("this job is %s already", k.State))
	}
	e.stand = store.Stand{State: e.to, Day: k.Day, Crew: k.Crew, CrewID: k.CrewID, Place: k.Place, DayCost: k.DayCost}
	if !e.ended() {
		return e, nil
	}
	text := on.String()
	e.stand.Ended, e.stand.Took, e.stand.Note = &text, in.Took, in.Note
	if follow := h.followUps[k.Kind]; e.to == job.Done && follow != nil {
		if e.after, err = follow(ctx, k, on, in); err != nil {
			return e, err
		}
	}
	if !e.after.GoesOn && k.Params.V.EveryDays > 0 && !(in.Never && e.to == job.Skipped) {
		e.again, err = h.again(ctx, k, on)
	}
	return e, err
}

// ended reports that the order is done or skipped after it; else that is taken back.
func (e ending) ended() bool { return e.to != job.Waiting && e.to != job.Placed }

// keep writes it.
func (e ending) keep(ctx context.Context, tx store.Tx) (store.OrderFull, error) {
	id := e.order.ID
	if !e.ended() {
		if err := errors.Join(tx.TakeBackSuccessor(ctx, id), tx.RemoveUseOf(ctx, id), tx.TakeBackLook(ctx, id)); err != nil {
			return e.order, err
		}
	}
	out, err := tx.SetStand(ctx, id, e.order.Version, e.stand)
	if err == nil && e.after.Write != nil {
		err = e.after.Write(ctx, tx)
	}
	if err != nil || e.again == nil {
		return out, err
	}
	if _, err := tx.Successor(ctx, id); !errors.Is(err, store.ErrNotFound) {
		return out, err
	}
	next, err := tx.AddOrder(ctx, *e.again)
	if err == nil && e.order.Agreed == "agreed" { // who agreed to it agreed to its next time
		err = tx.SetAgreed(ctx, next, e.order.Agreed)
	}
	return out, err
}

// again is the next time of a repeat: only ever the next. In after-care that is over there is none.
func (h *Room) again(ctx context.Context, k store.OrderFull, done day.Day) (*store.NewOrder, error) {
	o, err := k.Core()
	if err != nil {
		return nil, err
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return nil, err
	}
	e := estate.EntryOf(pl.Book, k.Species)
	if !pl.Work.Again(o, &e, done) {
		return nil, nil
	}
	o.Params.Last = done
	plants, _, err := h.kept(ctx, k)
	if err != nil {
		return nil, err
	}
	of, err := h.speciesOf(ctx, k)
	return &store.NewOrder{
		PropertyID: k.PropertyID,
		Plants:     plants,
		OriginID:   k.OriginID,
		Trouble:    k.Trouble,
		Follows:    k.ID,
		Order:      o,
		Outlook:    pl.Curve(o, of).Outlook(pl.Today),
		Gaps:       []store.GapRow{{OfID: k.ID, MinDays: o.Params.EveryDays, Why: "the time before"}},
	}, err
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
	WindMS    *float64 `json:"wind_ms,omitempty" doc:"From the station's hours when absent and begun is told"`
	WindFrom  string   `json:"wind_from,omitempty" enum:"north,north-east,east,south-east,south,south-west,west,north-west," doc:"Whence it blew"`
	Begun     string   `json:"begun,omitempty" maxLength:"5" example:"06:30" doc:"Hour of the day it was begun at"`
	Ended     string   `json:"ended,omitempty" maxLength:"5" example:"07:15" doc:"Hour of the day it was ended at"`
	AreaM2    float64  `json:"area_m2,omitempty" minimum:"0" maximum:"1000000" doc:"Ground or bed it was put on, m²"`
	Anyway    bool     `json:"anyway,omitempty" doc:"It was used although that day lies within a wait; the note says why"`
}
