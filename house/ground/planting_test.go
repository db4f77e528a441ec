package ground_test

import (
	"context"
	"errors"
	"testing"

	"mezzadro/core/invalid"
	"mezzadro/house/ground"
	"mezzadro/house/housetest"
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
