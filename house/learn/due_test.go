package learn_test

import (
	"context"
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/outcome"
	"mezzadro/house/housetest"
	"mezzadro/house/walks"
	"mezzadro/store"
)

// TestDueOfTheRecord: a camellia that is waited for is asked after when its day has come, not before; found alive it
// is asked again in the autumn in which it may look right, found right never; what is taken back is asked again; a
// plant that was taken out is asked after at once.
func TestDueOfTheRecord(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	p := k.Property("Villa Orba", "lake-foothills")
	waits, gone := k.Plant(p.ID, "camellia-japonica", 2), k.Plant(p.ID, "myrtus-communis", 1.5)
	walk, err := k.Walks.StartWalk(ctx, store.Key{}, p.ID, 0, 0)
	walk = housetest.Must(t, walk, err)
	for _, plant := range []int64{waits.ID, gone.ID} {
		checks := []check.Check{
			{Kind: check.Scratch, HeightM: 1.2, Result: "brown"},
			{Kind: check.Scratch, HeightM: 0.3, Result: "green"},
		}
		if _, err := k.Walks.KeepLook(ctx, store.Key{}, walk.ID, plant, walks.FoundIn{Checks: checks}); err != nil {
			t.Fatal(err)
		}
		ruling := damage.Ruling{Decision: "overruled", Kind: damage.Wait, Note: "It may come"}
		if _, err := k.Walks.Decide(ctx, store.Key{}, walk.ID, plant, walks.DecisionIn{Ruling: ruling}); err != nil {
			t.Fatal(err)
		}
	}
	due := func() map[int64]string {
		t.Helper()
		list, err := k.Learn.Due(ctx)
		list = housetest.Must(t, list, err)
		out := map[int64]string{}
		for _, x := range list.Plants {
			out[x.PlantID] = x.What
			if x.Property != "Villa Orba" || x.Sentence == "" || x.Since > k.On || x.Given != day.Of(2027, 3, 18) {
				t.Errorf("told as %+v", x)
			}
		}
		if list.All != len(out) {
			t.Errorf("%d of %d", len(out), list.All)
		}
		return out
	}
	if d := due(); len(d) != 0 {
		t.Errorf("on the day of the walk: %v", d)
	}
	if err := k.Garden.RemovePlant(ctx, store.Key{}, gone.ID, true); err != nil {
		t.Fatal(err)
	}
	if d := due(); len(d) != 1 || d[gone.ID] != outcome.Alive {
		t.Errorf("one was taken out: %v", d)
	}
	k.On = day.Of(2027, 7, 1)
	if d := due(); d[waits.ID] != outcome.Alive {
		t.Errorf("in July: %v", d)
	}
	story, err := k.Walks.Story(ctx, waits.ID)
	story = housetest.Must(t, story, err)
	verdict := story.Walks[0].Verdicts[0].ID
	turn := func(state string) int64 {
		t.Helper()
		s, err := k.Walks.AddOutcome(ctx, store.Key{}, waits.ID, walks.OutcomeIn{VerdictID: verdict, State: state})
		return housetest.Must(t, s, err).Turned[0].ID
	}
	alive := turn("alive")
	if d := due(); d[waits.ID] != "" {
		t.Errorf("found alive, still asked: %v", d)
	}
	if err := k.Walks.UndoOutcome(ctx, store.Key{}, alive); err != nil {
		t.Fatal(err)
	}
	if d := due(); d[waits.ID] != outcome.Alive {
		t.Errorf("taken back, not asked again: %v", d)
	}
	turn("alive")
	k.On = day.Of(2028, 10, 10) // it takes two seasons to look right
	if d := due(); d[waits.ID] != outcome.Right {
		t.Errorf("in the second autumn: %v", d)
	}
	turn("right")
	k.On = day.Of(2029, 10, 10)
	if d := due(); d[waits.ID] != "" {
		t.Errorf("right again, still asked: %v", d)
	}
}
