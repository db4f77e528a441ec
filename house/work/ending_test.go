package work_test

import (
	"context"
	"errors"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/housetest"
	"mezzadro/house/work"
	"mezzadro/store"
)

// swept is a property with a job that comes again every fortnight for two months.
func swept(t *testing.T) (*housetest.Kit, work.OrderDetail) {
	t.Helper()
	k := housetest.Open(t)
	p := k.Property("Lock Cottage", "lake-foothills")
	o, err := k.Work.AddOrder(context.Background(), store.Key{}, work.HandOrder{PropertyID: p.ID, Title: "Sweep the steps", Minutes: 20, EveryDays: 14,
		Spans: []work.SpanIn{{From: k.On, To: k.On + 60}}})
	return k, housetest.Must(t, o, err)
}

// standing are the titles of what is still to be done, with the days between two times.
func standing(t *testing.T, k *housetest.Kit) []work.Order {
	t.Helper()
	page, err := k.Work.Orders(context.Background(), store.ListStanding, 0, "", 50)
	return housetest.Must(t, page, err).Items
}

// TestRepeats: ticked off, a repeat asks for its next time and no more; taken back, that goes; past its span none comes.
func TestRepeats(t *testing.T) {
	k, o := swept(t)
	ctx := context.Background()
	done, err := k.Work.TickOff(ctx, store.Key{Key: "tick", Hash: "a"}, o.ID, work.TickOffIn{State: job.Done, Took: 15, Version: o.Version})
	done = housetest.Must(t, done, err)
	if again, err := k.Work.TickOff(ctx, store.Key{Key: "tick", Hash: "a"}, o.ID, work.TickOffIn{State: job.Done, Took: 15, Version: o.Version}); err != nil || again.Version != done.Version {
		t.Errorf("the same tick sent twice: %+v, %v", again.Version, err)
	}
	next := standing(t, k)
	if len(next) != 1 || next[0].ID == o.ID || next[0].From < k.On+14 {
		t.Fatalf("after it was done there stand %+v", next)
	}
	var stale store.Stale
	if _, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Skipped, Note: "rain", Version: o.Version}); !errors.As(err, &stale) {
		t.Errorf("on an old version: %v", err)
	}
	back, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Waiting, Version: done.Version})
	back = housetest.Must(t, back, err)
	if left := standing(t, k); len(left) != 1 || left[0].ID != o.ID {
		t.Errorf("taken back, there stand %+v", left)
	}
	k.On += 55
	if _, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Done, Version: back.Version}); err != nil {
		t.Fatal(err)
	}
	if left := standing(t, k); len(left) != 0 {
		t.Errorf("past its span there stand %+v", left)
	}
}

// TestWhenDone: what another room says comes of a kind of work is written with the tick, or not at all.
func TestWhenDone(t *testing.T) {
	k, o := swept(t)
	ctx, refused := context.Background(), store.Refused("not today")
	k.Work.WhenDone(job.Other, func(context.Context, store.OrderFull, day.Day, work.TickOffIn) (work.Followed, error) {
		return work.Followed{GoesOn: true, Write: func(context.Context, store.Tx) error { return refused }}, nil
	})
	if _, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Done, Version: o.Version}); err == nil {
		t.Error("it was ticked off, though what comes of it was refused")
	}
	now, err := k.Work.Order(ctx, o.ID)
	if now = housetest.Must(t, now, err); now.State != job.Waiting || now.Version != o.Version {
		t.Errorf("half written: %s, version %d", now.State, now.Version)
	}
}
