package ground_test

import (
	"context"
	"math"
	"testing"

	"mezzadro/core/site"
	"mezzadro/house/ground"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestRowOnAPlan: a group drawn as a hedge has its length in the record; redrawn it has the new one, and what is drawn in the
// same length writes nothing; removed it leaves one grave half-way along, and the plan can be kept as before.
func TestRowOnAPlan(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Weir House", "lake-foothills")
	yew := k.Plant(p.ID, "taxus-baccata", 1.8)
	version := 0
	draw := func(points ...site.At) ground.PlanOut {
		t.Helper()
		things := []site.Thing{{ID: "row", Kind: site.Hedge, PlantID: yew.ID, HeightM: 1.8, SpreadM: 0.7, Points: points}}
		out, err := k.Ground.SetPlan(ctx, store.Key{}, p.ID, ground.PlanIn{Plan: site.Plan{Things: things}, Version: version})
		out = housetest.Must(t, out, err)
		version = out.Version
		return out
	}
	kept := func() store.Plant {
		t.Helper()
		q, err := k.Estate.Store.Plant(ctx, yew.ID)
		return housetest.Must(t, q, err)
	}
	draw(site.At{X: 0, Y: 0}, site.At{X: 9, Y: 0}, site.At{X: 9, Y: 3})
	if q := kept(); math.Abs(q.RowM-12) > 0.01 {
		t.Errorf("12 m were drawn, the record says %.2f", q.RowM)
	}
	draw(site.At{X: 0, Y: 0}, site.At{X: 5, Y: 0})
	before := kept()
	if out := draw(site.At{X: 1, Y: 0}, site.At{X: 6, Y: 0}); len(out.Loose) != 0 || kept().Version != before.Version || kept().RowM != 5 {
		t.Errorf("moved as it is: %+v, loose %v", kept(), out.Loose)
	}
	if err := k.Garden.RemovePlant(ctx, store.Key{}, yew.ID, true); err != nil {
		t.Fatal(err)
	}
	out, err := k.Ground.PlanOf(ctx, p.ID)
	out = housetest.Must(t, out, err)
	if len(out.Plan.Things) != 1 || out.Plan.Things[0].Kind != site.Grave || len(out.Plan.Things[0].Points) != 1 || out.Plan.Things[0].Points[0].X != 3.5 {
		t.Fatalf("removed it leaves %+v", out.Plan.Things)
	}
	if _, err := k.Ground.SetPlan(ctx, store.Key{}, p.ID, ground.PlanIn{Plan: out.Plan, Version: out.Version}); err != nil {
		t.Errorf("the plan with its grave: %v", err)
	}
}
