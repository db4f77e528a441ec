package ground_test

import (
	"context"
	"math"
	"slices"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/site"
	"mezzadro/house/ground"
	"mezzadro/house/housetest"
	"mezzadro/house/treat"
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
		things := []site.Thing{
			{ID: "row", Kind: site.Hedge, PlantID: yew.ID, HeightM: 1.8, SpreadM: 0.7, Points: points},
		}
		out, err := k.Ground.SetPlan(
			ctx,
			store.Key{},
			p.ID,
			ground.PlanIn{Plan: site.Plan{Things: things}, Version: version},
		)
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
	if out := draw(site.At{X: 1, Y: 0}, site.At{X: 6, Y: 0}); len(out.Loose) != 0 || kept().Version != before.Version ||
		kept().RowM != 5 {
		t.Errorf("moved as it is: %+v, loose %v", kept(), out.Loose)
	}
	if err := k.Garden.RemovePlant(ctx, store.Key{}, yew.ID, true); err != nil {
		t.Fatal(err)
	}
	out, err := k.Ground.PlanOf(ctx, p.ID)
	out = housetest.Must(t, out, err)
	if len(out.Plan.Things) != 1 || out.Plan.Things[0].Kind != site.Grave || len(out.Plan.Things[0].Points) != 1 ||
		out.Plan.Things[0].Points[0].X != 3.5 {
		t.Fatalf("removed it leaves %+v", out.Plan.Things)
	}
	if _, err := k.Ground.SetPlan(ctx, store.Key{}, p.ID, ground.PlanIn{Plan: out.Plan, Version: out.Version}); err != nil {
		t.Errorf("the plan with its grave: %v", err)
	}
}

// TestBedOnAPlan: a group drawn as a bed has its area in the record, whichever way round it was drawn; drawn as a row after
// that it has a length and no area. Feeding and weedkillers go by that ground.
func TestBedOnAPlan(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Weir House", "lake-foothills")
	hydrangea := k.Plant(p.ID, "hydrangea-macrophylla", 0.5)
	version := 0
	draw := func(kind site.Kind, points ...site.At) store.Plant {
		t.Helper()
		things := []site.Thing{
			{ID: "it", Kind: kind, PlantID: hydrangea.ID, HeightM: 0.5, SpreadM: 0.5, Points: points},
		}
		out, err := k.Ground.SetPlan(
			ctx,
			store.Key{},
			p.ID,
			ground.PlanIn{Plan: site.Plan{Things: things}, Version: version},
		)
		version = housetest.Must(t, out, err).Version
		if len(out.Loose) != 0 {
			t.Errorf("a %s leaves it without a place: %v", kind, out.Loose)
		}
		q, err := k.Estate.Store.Plant(ctx, hydrangea.ID)
		return housetest.Must(t, q, err)
	}
	corners := []site.At{{X: 0, Y: 0}, {X: 0, Y: 2}, {X: 6, Y: 2}, {X: 6, Y: 0}}
	if q := draw(site.Bed, corners...); q.BedM2 != 12 || q.RowM != 0 {
		t.Errorf("two by six metres are %g m² and a row of %g m in the record", q.BedM2, q.RowM)
	}
	slices.Reverse(corners)
	if q := draw(site.Bed, corners...); q.BedM2 != 12 {
		t.Errorf("the other way round they are %g m²", q.BedM2)
	}
	fed, err := k.Treat.ReckonFeeding(ctx, treat.FeedingIn{Plant: hydrangea.ID, Date: day.Of(2027, 4, 10)})
	if err != nil {
		t.Fatal(err)
	}
	if len(fed.Amounts) == 0 {
		t.Errorf("nothing goes on that bed: %+v", fed)
	}
	for _, s := range fed.Amounts {
		if s.AreaM2 != 12 {
			t.Errorf("%s on %g m² of a bed of 12", s.What, s.AreaM2)
		}
	}
	if q := draw(site.Hedge, corners[:2]...); q.BedM2 != 0 || q.RowM != 2 {
		t.Errorf("drawn as a row of two metres it is %g m², %g m", q.BedM2, q.RowM)
	}
}
