package treat_test

import (
	"context"
	"testing"

	"mezzadro/core/job"
	"mezzadro/house/finds"
	"mezzadro/house/housetest"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestLookedAgain: gnawed bark is dressed, the look after it says that it is gone: the find is closed and counted as
// helped by what was done; the look taken back, it is open again and counts no more. What was never treated counts as left alone.
func TestLookedAgain(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	p := k.Property("Long Acre", "lake-foothills")
	plant := k.Plant(p.ID, "rosa-bedding", 1)
	f, err := k.Finds.AddFind(ctx, store.Key{}, finds.FindIn{PlantID: plant.ID, Cause: "rust", Certainty: 0.9, Share: 0.1})
	f = housetest.Must(t, f, err)
	rung := ""
	for done := 0; done < 12; done++ { // every job that the treatment asks for, until only the look is left
		a, err := k.Treat.TreatmentOf(ctx, f.ID)
		a = housetest.Must(t, a, err)
		if done == 0 {
			a.Jobs = nil
			for _, o := range kept(t, k, f.ID) {
				a.Jobs = append(a.Jobs, o.Order)
			}
			rung = a.Answer.Rung
		}
		if len(a.Jobs) == 0 {
			t.Fatal("no look was asked for")
		}
		o := a.Jobs[0]
		if o.Kind == job.Look {
			break
		}
		if _, err := k.Work.TickOff(ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Done, Version: o.Version}); err != nil {
			t.Fatal(err)
		}
	}
	a, err := k.Treat.TreatmentOf(ctx, f.ID)
	look := housetest.Must(t, a, err).Jobs[0]
	ended, err := k.Work.TickOff(ctx, store.Key{}, look.ID, work.TickOffIn{State: job.Done, Version: look.Version, Helped: "gone"})
	ended = housetest.Must(t, ended, err)
	now, err := k.Finds.OneFind(ctx, f.ID)
	if now = housetest.Must(t, now, err); now.State != "closed" || now.Helped != "gone" || now.HelpedOn != k.On {
		t.Errorf("after the look: %+v", now)
	}
	told, err := k.Learn.CausesTold(ctx)
	if told = housetest.Must(t, told, err); len(told.Helped) != 1 || told.Helped[0].Cause != "rust" || told.Helped[0].Gone != 1 || told.Helped[0].Rung != rung {
		t.Errorf("counted: %+v, want one gone by %s", told.Helped, rung)
	}
	if _, err := k.Work.TickOff(ctx, store.Key{}, look.ID, work.TickOffIn{State: job.Waiting, Version: ended.Version}); err != nil {
		t.Fatal(err)
	}
	now, err = k.Finds.OneFind(ctx, f.ID)
	if now = housetest.Must(t, now, err); now.State != "open" || now.Helped != "" {
		t.Errorf("taken back: %+v", now)
	}
	alone, err := k.Finds.AddFind(ctx, store.Key{}, finds.FindIn{PlantID: plant.ID, Cause: "aphids", Certainty: 0.9})
	alone = housetest.Must(t, alone, err)
	same := "same"
	in := finds.FindChange{Cause: "aphids", Certainty: 0.9, State: "open", Version: alone.Version, Helped: &same}
	if _, err := k.Finds.ChangeFind(ctx, store.Key{}, alone.ID, in); err != nil {
		t.Fatal(err)
	}
	told, err = k.Learn.CausesTold(ctx)
	if told = housetest.Must(t, told, err); len(told.Helped) != 1 || told.Helped[0].Same != 1 || told.Helped[0].Rung != "" {
		t.Errorf("left alone: %+v", told.Helped)
	}
	// What is gone does not stand open, whatever is said beside it; opened again it is not gone.
	gone := "gone"
	now2, err := k.Finds.OneFind(ctx, alone.ID)
	now2 = housetest.Must(t, now2, err)
	in.Helped, in.Version = &gone, now2.Version
	closed, err := k.Finds.ChangeFind(ctx, store.Key{}, alone.ID, in)
	if closed = housetest.Must(t, closed, err); closed.State != "closed" || closed.Helped != "gone" {
		t.Errorf("gone: %+v", closed)
	}
	in.Helped, in.Version = nil, closed.Version
	open, err := k.Finds.ChangeFind(ctx, store.Key{}, alone.ID, in)
	if open = housetest.Must(t, open, err); open.State != "open" || open.Helped != "" {
		t.Errorf("opened again: %+v", open)
	}
}
