package work_test

import (
	"context"
	"testing"

	"mezzadro/core/job"
	"mezzadro/house/housetest"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestHalfDoneHedge: of a hedge of two hours one hour and a half is left: the rest is a job without a day, what was done
// keeps its minutes, and taken back it stands as it did.
func TestHalfDoneHedge(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Dune Row", "lake-foothills")
	today := k.Estate.Today()
	o, err := k.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: p.ID, Title: "Cut the hedge", Minutes: 120, CrewSize: 2, Spans: []work.SpanIn{{From: today, To: today + 60}}})
	housetest.Must(t, o, err)
	put, err := k.Work.PutOnDay(ctx, store.Key{}, o.ID, work.PutIn{Day: today, Version: o.Version})
	housetest.Must(t, put, err)
	end := func(in work.TickOffIn) (work.OrderDetail, error) {
		now, err := k.Work.Order(ctx, o.ID)
		in.Version = housetest.Must(t, now, err).Version
		return k.Work.TickOff(ctx, store.Key{}, o.ID, in)
	}
	for _, bad := range []work.TickOffIn{{State: work.PartlyDone}, {State: work.PartlyDone, Left: -5}, {State: work.NotToday}} {
		if _, err := end(bad); err == nil {
			t.Errorf("taken: %+v", bad)
		}
	}
	got, err := end(work.TickOffIn{State: work.PartlyDone, Left: 90, Took: 45, Note: "the lower half"})
	housetest.Must(t, got, err)
	if got.State != job.Waiting || got.Day.Given() || got.Minutes != 90 || len(got.Stints) != 1 || got.Stints[0].Took != 45 || got.PutOff != 0 {
		t.Errorf("half done: %+v, %+v", got.Order, got.Stints)
	}
	if got, err = end(work.TickOffIn{State: work.NotToday, Reason: "gate locked"}); err != nil || got.PutOff != 1 || got.PutOffWhy != "gate locked" || got.Minutes != 90 {
		t.Errorf("gate locked: %+v, %v", got.Order, err)
	}
	if got, err = end(work.TickOffIn{State: work.AsBefore}); err != nil || got.PutOff != 0 || len(got.Stints) != 1 {
		t.Errorf("taken back: %+v, %v", got.Order, err)
	}
	if got, err = end(work.TickOffIn{State: work.AsBefore}); err != nil || got.Minutes != 120 || got.Day != today || got.State != job.Placed {
		t.Errorf("taken back twice: %+v, %v", got.Order, err)
	}
	if _, err = end(work.TickOffIn{State: work.AsBefore}); err == nil {
		t.Error("nobody was there, and that is taken back")
	}
}

// TestNeverAgain: a repeat that is not needed any more comes again, unless it is said that it does not.
func TestNeverAgain(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Dune Row", "lake-foothills")
	today := k.Estate.Today()
	for _, c := range []struct {
		never bool
		left  int
	}{{false, 1}, {true, 0}} {
		o, err := k.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: p.ID, Title: "Sweep", Minutes: 20, CrewSize: 1, EveryDays: 14, Spans: []work.SpanIn{{From: today, To: today + 200}}})
		housetest.Must(t, o, err)
		done, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Skipped, Note: "the client sweeps", Never: c.never, Version: o.Version})
		housetest.Must(t, done, err)
		page, err := k.Work.Orders(ctx, store.ListStanding, 0, "", 10)
		if n := len(housetest.Must(t, page, err).Items); n != c.left {
			t.Errorf("never again %v: %d stand", c.never, n)
		}
		if !c.never {
			if err := k.Work.Drop(ctx, store.Key{}, page.Items[0].ID, page.Items[0].Version); err != nil {
				t.Fatal(err)
			}
		}
	}
}
