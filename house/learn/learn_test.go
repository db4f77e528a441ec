package learn_test

import (
	"context"
	"testing"

	"mezzadro/core/job"
	"mezzadro/house/housetest"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestPaceOfTheRecord: jobs that took half as long again are learnt from, are used until that is switched off, and leave the
// record as it is; undone, they teach nothing.
func TestPaceOfTheRecord(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	at := k.Property("Villa Lumera", "lake-foothills").ID
	var last int64
	for n := range 24 {
		o, err := k.Work.AddOrder(
			ctx,
			store.Key{},
			work.HandOrder{
				PropertyID: at,
				Title:      "Rake",
				Minutes:    60,
				Spans:      []work.SpanIn{{From: k.On, To: k.On + 30}},
			},
		)
		o = housetest.Must(t, o, err)
		last = o.ID
		if n == 7 { // with seven nothing is said yet
			if p, err := k.Learn.Pace(ctx); err != nil || p.Known() {
				t.Fatalf("after seven jobs: %v %v", p.Known(), err)
			}
		}
		if _, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Done, Took: 90, Version: o.Version}); err != nil {
			t.Fatal(err)
		}
	}
	p, err := k.Learn.Pace(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if f := p.For("other", "", 60); f.Times < 1.3 || f.Times > 1.6 || f.Low <= 1 {
		t.Errorf("90 minutes for 60, two dozen times: %+v", f)
	}
	if m := p.Minutes("other", 60); m < 75 || m > 95 || m%5 != 0 {
		t.Errorf("60 minutes are told as %d", m)
	}
	told, err := k.Learn.SetPace(ctx, store.Key{}, false)
	if err != nil || told.On || !told.Known || told.Jobs != 24 || len(told.Kinds) != 1 || told.Kinds[0].Times < 1.3 {
		t.Errorf("switched off: %+v %v", told, err)
	}
	if p, err = k.Learn.Pace(ctx); err != nil || p.Minutes("other", 60) != 60 || p.Crew("anybody") != 1 {
		t.Errorf("switched off it is used: %v", err)
	}
	if told, err = k.Learn.SetPace(ctx, store.Key{}, true); err != nil || !told.On {
		t.Errorf("switched on again: %+v %v", told, err)
	}
	if o, err := k.Estate.Store.Order(ctx, last); err != nil || o.Minutes != 60 || o.Took != 90 {
		t.Errorf("the record was changed: %+v %v", o.Order, err)
	}
}
