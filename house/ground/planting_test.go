package ground_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/ground"
	"mezzadro/house/housetest"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestPlantingWithItsWater: what is planted in a dry climate is watered in its first season, once it is planted; all of it
// or, with one kind that is none, nothing.
func TestPlantingWithItsWater(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Stone Terrace", "lake-foothills")
	_, err := k.Ground.KeepPlanting(ctx, store.Key{}, p.ID, ground.PlantingIn{Kinds: []ground.PlantedKind{{Species: "syringa-vulgaris"}, {Species: "no-such-plant"}}})
	var bad invalid.Fields
	if !errors.As(err, &bad) || bad[0].Path != "kinds[1].species" {
		t.Errorf("a kind that is none: %v", err)
	}
	page, err := k.Work.Orders(ctx, store.ListStanding, p.ID, "", 50)
	if err != nil || len(page.Items) != 0 {
		t.Errorf("half of a planting was kept: %+v, %v", page.Items, err)
	}
	made, err := k.Ground.KeepPlanting(ctx, store.Key{}, p.ID, ground.PlantingIn{Kinds: []ground.PlantedKind{{Species: "syringa-vulgaris", Count: 2}}, Where: "Top bed"})
	made = housetest.Must(t, made, err)
	last, err := k.Work.Order(ctx, made.Orders[len(made.Orders)-1])
	last = housetest.Must(t, last, err)
	if len(made.Orders) != 2 || made.Litres <= 0 || len(last.After) != 1 || last.After[0].ID != made.Orders[0] {
		t.Errorf("%+v; the water comes after %+v", made, last.After)
	}
}

// TestAPlanKeepsWhatStands: a plant on the plan that is taken out of the record leaves a grave there, and comes back.
func TestAPlanKeepsWhatStands(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Stone Terrace", "lake-foothills")
	rose := k.Plant(p.ID, "rosa-bedding", 1)
	plan, err := k.Ground.PlanOf(ctx, p.ID)
	if plan = housetest.Must(t, plan, err); len(plan.Loose) != 1 || plan.Loose[0].ID != rose.ID {
		t.Fatalf("before it was drawn: %+v", plan.Loose)
	}
	in := ground.PlanIn{Plan: plan.Plan}
	in.Plan.Things = append(in.Plan.Things, thing("rose", rose.ID))
	plan, err = k.Ground.SetPlan(ctx, store.Key{}, p.ID, in)
	if plan = housetest.Must(t, plan, err); len(plan.Loose) != 0 || plan.Plan.Things[0].HeightM != 1 {
		t.Errorf("drawn: %+v", plan)
	}
	if err := k.Garden.RemovePlant(ctx, store.Key{}, rose.ID, true); err != nil {
		t.Fatal(err)
	}
	if plan, err = k.Ground.PlanOf(ctx, p.ID); err != nil || plan.Plan.Things[0].Kind != "grave" {
		t.Errorf("taken out: %+v, %v", plan.Plan.Things, err)
	}
}

// TestReplacingClosesWhatStood: what is planted in a plant's place is planted after that one is taken out, and what was to
// be done for it is not any more; brought back, its jobs stand as they did.
func TestReplacingClosesWhatStood(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Stone Terrace", "lake-foothills")
	old, other := k.Plant(p.ID, "laurus-nobilis", 3), k.Plant(p.ID, "rosa-bedding", 1)
	byHand := func(kind job.Kind, plants ...int64) work.OrderDetail {
		o, err := k.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: p.ID, Plants: plants, Kind: kind, Title: string(kind), Minutes: 20, CrewSize: 1})
		return housetest.Must(t, o, err)
	}
	feed, prune, both, roses := byHand(job.Feed, old.ID), byHand(job.Prune, old.ID), byHand(job.Water, old.ID, other.ID), byHand(job.Feed, other.ID)
	made, err := k.Ground.KeepPlanting(ctx, store.Key{}, p.ID, ground.PlantingIn{Plant: old.ID, Kinds: []ground.PlantedKind{{Species: "syringa-vulgaris"}}})
	made = housetest.Must(t, made, err)
	if len(made.Closed) != 2 {
		t.Errorf("closed are %v, want the feeding and the cut of the bay", made.Closed)
	}
	stands := func() map[int64]work.Order {
		page, err := k.Work.Orders(ctx, store.ListStanding, p.ID, "", 50)
		out := map[int64]work.Order{}
		for _, o := range housetest.Must(t, page, err).Items {
			out[o.ID] = o
		}
		return out
	}
	now := stands()
	if now[feed.ID].ID != 0 || now[prune.ID].ID != 0 || now[both.ID].ID == 0 || now[roses.ID].ID == 0 {
		t.Errorf("still to be done: %+v", now)
	}
	planting, err := k.Work.Order(ctx, made.Orders[0])
	planting = housetest.Must(t, planting, err)
	if len(planting.After) != 1 || !strings.Contains(planting.After[0].Title, "Take out") {
		t.Fatalf("the lilac is planted after %+v", planting.After)
	}
	out, err := k.Work.Order(ctx, planting.After[0].ID)
	if out = housetest.Must(t, out, err); out.Kind != job.Replace || out.PlantID != old.ID || out.Minutes < 30 {
		t.Errorf("taking out: %+v", out.Order)
	}
	// Planted twice, it is taken out once.
	again, err := k.Ground.KeepPlanting(ctx, store.Key{}, p.ID, ground.PlantingIn{Plant: old.ID, Kinds: []ground.PlantedKind{{Species: "syringa-vulgaris"}}})
	again = housetest.Must(t, again, err)
	second, err := k.Work.Order(ctx, again.Orders[0])
	if second = housetest.Must(t, second, err); len(second.After) != 1 || second.After[0].ID != out.ID {
		t.Errorf("the second planting comes after %+v", second.After)
	}
	for _, id := range made.Closed {
		if _, err := k.Work.Restore(ctx, store.Key{}, id); err != nil {
			t.Fatal(err)
		}
	}
	if now = stands(); now[feed.ID].ID == 0 || now[prune.ID].ID == 0 {
		t.Errorf("brought back: %+v", now)
	}
}
