package overview

import (
	"context"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/lookout"
	"mezzadro/store"
)

// Frame is what every screen shows round its work.
type Frame struct {
	Today   day.Day
	Movable bool
	Home    day.Day
	Firm    store.Firm
	Counts  Counts
	Trouble string            // with the disk; empty for none
	First   *store.FirstSteps // of a record without a verdict
}

// Counts are what wants attention in each place.
type Counts struct {
	Lookout int `json:"lookout" doc:"Plants to look at, and jobs overdue"`
	Grounds int `json:"grounds" doc:"Properties"`
	Year    int `json:"year" doc:"Windows that close within a fortnight"`
	Rounds  int `json:"rounds" doc:"Jobs without a day, and jobs overdue"`
	Overdue int `json:"overdue" doc:"Jobs that were on a past day and are not ticked off"`
}

// Frame counts what wants attention.
func (h *Room) Frame(ctx context.Context) (Frame, error) {
	f := Frame{Today: h.Today(), Movable: h.SetToday != nil}
	var err error
	if f.Firm, err = h.House.Firm(ctx); err != nil {
		return f, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return f, err
	}
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return f, err
	}
	n, err := h.Store.CountOrders(ctx, f.Today.String(), (f.Today + lookout.Soon).String())
	if err != nil {
		return f, err
	}
	f.Counts = Counts{
		Lookout: len(t.Looks) + n.Overdue,
		Grounds: len(t.Places),
		Year:    n.Closing,
		Rounds:  n.Waiting + n.Overdue,
		Overdue: n.Overdue,
	}
	f.Trouble = h.Work.Trouble()
	begun, err := h.Store.FirstSteps(ctx)
	if err != nil {
		return f, err
	}
	if !begun.Decided {
		f.First = &begun
	}
	if f.Movable {
		f.Home = h.Home
	}
	return f, nil
}

// The sample's time can be moved so far before and after the day it starts at, days.
const (
	sampleBack  = 240
	sampleAhead = 600
)

// MoveToday moves the day the sample stands at; its simulated weather is read up to there, and everything follows.
func (h *Room) MoveToday(ctx context.Context, d day.Day) error {
	if h.SetToday == nil {
		return store.Refused("the day is the clock's; only the sample's can be moved")
	}
	if lo, hi := h.Home-sampleBack, h.Home+sampleAhead; d < lo || d > hi {
		return invalid.One("day", d.String(), "the sample's time goes from "+lo.String()+" to "+hi.String())
	}
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return err
	}
	for _, p := range props {
		if _, err := h.ReadStationTo(ctx, p, d); err != nil {
			return err
		}
	}
	firm, err := h.House.Firm(ctx)
	if err != nil {
		return err
	}
	firm.Today = d.String()
	if err := h.Store.Write(ctx, func(tx store.Tx) error { return tx.SetFirm(ctx, firm) }); err != nil {
		return err
	}
	h.SetToday(d)
	for _, p := range props {
		if err := h.Treat.RenewWashed(ctx, p.ID); err != nil {
			return err
		}
	}
	return h.Work.RefreshWindows(ctx)
}
