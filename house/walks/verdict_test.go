package walks_test

import (
	"context"
	"errors"
	"reflect"
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/housetest"
	"mezzadro/house/walks"
	"mezzadro/store"
)

// TestVerdictAndItsWork: what was found is kept with its count, a decision on checks that were not seen is refused, an
// overruled verdict says why, and the work that it asks for hangs together and goes with it.
func TestVerdictAndItsWork(t *testing.T) {
	k := housetest.Open(t)
	ctx, none := context.Background(), store.Key{}
	p := k.Property("Villa Orba", "lake-foothills")
	plant := k.Plant(p.ID, "camellia-japonica", 2)
	walk, err := k.Walks.StartWalk(ctx, none, p.ID, 0, 0)
	walk = housetest.Must(t, walk, err)
	dead := []check.Check{{Kind: check.Scratch, HeightM: 1.8, Result: "brown"}, {Kind: check.Scratch, HeightM: 1.4, Result: "brown"}, {Kind: check.Scratch, HeightM: 0.8, Result: "green"}, {Kind: check.BudRub, HeightM: 1.7, Broke: 8}}
	found, err := k.Walks.KeepLook(ctx, none, walk.ID, plant.ID, walks.FoundIn{Checks: dead})
	found = housetest.Must(t, found, err)
	var stale store.Stale
	old := found.Rev - 1
	if _, err := k.Walks.Decide(ctx, none, walk.ID, plant.ID, walks.DecisionIn{Ruling: damage.Ruling{Decision: "accepted"}, Rev: &old}); !errors.As(err, &stale) {
		t.Errorf("decided on checks that were not seen: %v", err)
	}
	var bad invalid.Fields
	if _, err := k.Walks.Decide(ctx, none, walk.ID, plant.ID, walks.DecisionIn{Ruling: damage.Ruling{Decision: "overruled", Kind: damage.CutBack, CutM: 1}}); !errors.As(err, &bad) || bad[0].Path != "note" {
		t.Errorf("overruled without a word: %v", err)
	}
	other := walks.DecisionIn{Ruling: damage.Ruling{Decision: "accepted"}, Read: &walks.Read{Kind: damage.Replace}}
	if _, err := k.Walks.Decide(ctx, none, walk.ID, plant.ID, other); !errors.As(err, &bad) || bad[0].Path != "read" {
		t.Errorf("accepted on a phone as %q, which it does not come to: %v", damage.Replace, err)
	}
	d, err := k.Walks.Decide(ctx, none, walk.ID, plant.ID, walks.DecisionIn{Ruling: damage.Ruling{Decision: "overruled", Kind: damage.CutBack, CutM: 1, Note: "The client wants it low"}})
	d = housetest.Must(t, d, err)
	cut := int64(0)
	for _, o := range d.Jobs {
		if o.Kind == job.CutBack {
			cut = o.ID
		}
	}
	if cut == 0 || d.Verdict.Note == "" {
		t.Fatalf("it asks for %+v", d.Jobs)
	}
	for _, o := range d.Jobs {
		detail, err := k.Work.Order(ctx, o.ID)
		detail = housetest.Must(t, detail, err)
		for _, g := range detail.After {
			if g.ID == o.ID {
				t.Errorf("%s comes after itself", o.Title)
			}
		}
	}
	if err := k.Walks.UndoVerdict(ctx, none, d.Verdict.ID); err != nil {
		t.Fatal(err)
	}
	if _, err := k.Work.Order(ctx, cut); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("the work of a verdict that was taken back: %v", err)
	}
	story, err := k.Walks.Story(ctx, plant.ID)
	if story = housetest.Must(t, story, err); len(story.Walks) != 1 || len(story.Walks[0].Checks) != len(dead) || len(story.Walks[0].Verdicts) != 0 {
		t.Errorf("what is told of it: %+v", story.Walks)
	}
}

// TestWalkBeginsWithAVerdict: a walk that is started at a plant comes with the verdict on it, the same as when it is
// asked for afterwards, also after something was found; at a plant of another property it is not started at all.
func TestWalkBeginsWithAVerdict(t *testing.T) {
	k := housetest.Open(t)
	ctx, none := context.Background(), store.Key{}
	p, elsewhere := k.Property("Villa Orba", "lake-foothills"), k.Property("Casa Lenta", "lake-foothills")
	plant, strange := k.Plant(p.ID, "camellia-japonica", 2), k.Plant(elsewhere.ID, "camellia-japonica", 2)
	var bad invalid.Fields
	if _, err := k.Walks.StartWalk(ctx, none, p.ID, 0, strange.ID); !errors.As(err, &bad) || bad[0].Path != "plant_id" {
		t.Errorf("started at a plant of another property: %v", err)
	}
	plain, err := k.Walks.StartWalk(ctx, none, p.ID, 0, 0)
	if plain = housetest.Must(t, plain, err); plain.First != nil {
		t.Error("a verdict came that nobody asked for")
	}
	for _, checks := range [][]check.Check{nil, {{Kind: check.Scratch, HeightM: 1.8, Result: "brown"}}} {
		if checks != nil {
			in := walks.FoundIn{Checks: checks, Note: "Leaves brown"}
			_, err := k.Walks.KeepLook(ctx, none, plain.ID, plant.ID, in)
			housetest.Must(t, 0, err)
		}
		w, err := k.Walks.StartWalk(ctx, none, p.ID, 0, plant.ID)
		w = housetest.Must(t, w, err)
		told, err := k.Walks.TellLook(ctx, w.ID, plant.ID)
		told = housetest.Must(t, told, err)
		if w.ID != plain.ID || w.First == nil || !reflect.DeepEqual(*w.First, told) {
			t.Errorf("walk %d comes with %+v; asked for afterwards it is %+v", w.ID, w.First, told)
		}
	}
}
