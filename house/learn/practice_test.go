package learn_test

import (
	"context"
	"errors"
	"reflect"
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/invalid"
	"mezzadro/core/practice"
	"mezzadro/house/housetest"
	"mezzadro/house/learn"
	"mezzadro/store"
)

// TestPracticeIsApart: a made-up garden is gone through and scored, the score is kept, and nothing of it is in the
// record: no property, no plant, no walk, no verdict. Bad input is named.
func TestPracticeIsApart(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	of := learn.PracticeOf{Climate: "lake-foothills", Seed: 11}
	g, err := k.Learn.PracticeGarden(of)
	g = housetest.Must(t, g, err)
	again, err := k.Learn.PracticeGarden(of)
	if err != nil || !reflect.DeepEqual(g.Plants, again.Plants) {
		t.Errorf("made again: %v", err)
	}
	in := learn.PracticeIn{PracticeOf: of}
	for i, p := range g.Plants {
		c, err := k.Learn.PracticeSeen(
			learn.PracticeLook{PracticeOf: of, Plant: i, Kind: check.Scratch, HeightM: p.HeightM / 2},
		)
		c = housetest.Must(t, c, err)
		in.Plants = append(in.Plants, practice.Decided{Checks: []check.Check{c}, Kind: damage.Leave})
	}
	out, err := k.Learn.PracticeEnd(ctx, store.Key{}, in)
	out = housetest.Must(t, out, err)
	if len(out.Plants) != len(g.Plants) || out.Score <= 0 || out.Score > 100 || out.Program <= 0 {
		t.Errorf("held: %+v", out)
	}
	list, err := k.Learn.Practised(ctx)
	if list = housetest.Must(t, list, err); len(list) != 1 || list[0].Score != out.Score ||
		list[0].Checks != len(g.Plants) ||
		list[0].Right != out.Right {
		t.Errorf("kept: %+v", list)
	}
	if props, err := k.Estate.Store.Properties(ctx, 0, store.All); err != nil || len(props) != 0 {
		t.Errorf("in the record stand %d properties, %v", len(props), err)
	}
	if all, err := k.Estate.Store.Verdicts(ctx, 0, ""); err != nil || len(all) != 0 {
		t.Errorf("in the record stand %d verdicts, %v", len(all), err)
	}
	var bad invalid.Fields
	if _, err := k.Learn.PracticeGarden(learn.PracticeOf{Climate: "moon"}); !errors.As(err, &bad) ||
		bad[0].Path != "climate" {
		t.Errorf("on the moon: %v", err)
	}
	if _, err := k.Learn.PracticeGarden(learn.PracticeOf{Climate: "tropical-coast"}); !errors.As(err, &bad) ||
		bad[0].Path != "climate" {
		t.Errorf("in the tropics: %v", err)
	}
	if _, err := k.Learn.PracticeSeen(learn.PracticeLook{PracticeOf: of, Kind: check.Scratch, HeightM: 40}); !errors.As(
		err,
		&bad,
	) ||
		bad[0].Path != "height_m" {
		t.Errorf("above its top: %v", err)
	}
	in.Plants = in.Plants[:2]
	if _, err := k.Learn.PracticeEnd(ctx, store.Key{}, in); !errors.As(err, &bad) || bad[0].Path != "plants" {
		t.Errorf("four undecided: %v", err)
	}
}

// TestPracticeOfCausesIsApart: a made-up round of ailing plants is looked at and named; the score is kept as one of
// causes, no find gets into the record, and what was not offered is refused by its field.
func TestPracticeOfCausesIsApart(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	of := learn.PracticeOf{Climate: "lake-foothills", Seed: 5}
	a, err := k.Learn.PracticeAils(of)
	a = housetest.Must(t, a, err)
	in := learn.PracticeNamesIn{PracticeOf: of}
	for i, p := range a.Plants {
		if _, err := k.Learn.PracticeSignSeen(learn.PracticeSign{PracticeOf: of, Plant: i, Sign: p.Signs[0].ID}); err != nil {
			t.Fatal(err)
		}
		in.Plants = append(in.Plants, practice.NamedIt{Looked: []string{p.Signs[0].ID}, Cause: p.Causes[0].ID})
	}
	out, err := k.Learn.PracticeNames(ctx, store.Key{}, in)
	if out = housetest.Must(t, out, err); len(out.Plants) != len(a.Plants) || out.Score < 0 || out.Score > 100 {
		t.Errorf("held: %+v", out)
	}
	past, err := k.Learn.Practised(ctx)
	if past = housetest.Must(t, past, err); len(past) != 1 || past[0].About != "causes" || past[0].Checks != len(a.Plants) || past[0].Right != out.Right {
		t.Errorf("kept: %+v", past)
	}
	kept, err := k.Finds.Finds(ctx, store.FindsOf{Limit: store.All})
	if kept = housetest.Must(t, kept, err); len(kept) != 0 {
		t.Errorf("in the record: %+v", kept)
	}
	in.Plants[2].Cause = "no-such"
	var bad invalid.Fields
	if _, err := k.Learn.PracticeNames(ctx, store.Key{}, in); !errors.As(err, &bad) || bad[0].Path != "plants[2].cause" {
		t.Errorf("a cause that was not offered: %v", err)
	}
	if _, err := k.Learn.PracticeSignSeen(learn.PracticeSign{PracticeOf: of, Sign: "no-such"}); !errors.As(err, &bad) {
		t.Errorf("a sign that was not offered: %v", err)
	}
}
