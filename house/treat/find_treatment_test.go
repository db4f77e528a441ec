package treat_test

import (
	"context"
	"testing"

	"mezzadro/house/finds"
	"mezzadro/house/housetest"
	"mezzadro/house/treat"
	"mezzadro/house/work"
	"mezzadro/store"
)

// kept keeps the treatment of a find, and reads its jobs in the order of its steps.
func kept(t *testing.T, k *housetest.Kit, find int64) []work.OrderDetail {
	t.Helper()
	ctx := context.Background()
	a, err := k.Treat.KeepTreatment(ctx, store.Key{}, find, treat.KeepTreatmentIn{})
	a = housetest.Must(t, a, err)
	out := []work.OrderDetail{}
	for step := 1; step <= len(a.Answer.Steps); step++ {
		for _, o := range a.Jobs {
			d, err := k.Work.Order(ctx, o.ID)
			if d = housetest.Must(t, d, err); d.Params.Step == step {
				out = append(out, d)
			}
		}
	}
	return out
}

// TestStepsKeepTheirOrder: of a treatment of which one step was dropped and is kept again, the steps come after each
// other as before, whichever it was; nothing comes after a step that is gone.
func TestStepsKeepTheirOrder(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Long Acre", "lake-foothills")
	tried := 0
	for _, of := range [][2]string{{"prunus-persica", "leaf-curl"}, {"magnolia-soulangeana", "soft-scale"}, {"malus-domestica", "armoured-scale"},
		{"rosa-bedding", "rust"}, {"acer-palmatum", "gnawed"}, {"magnolia-soulangeana", "gnawed"}} {
		plant := k.Plant(p.ID, of[0], 2)
		for _, share := range []float64{0.2, 0.5} {
			f, err := k.Finds.AddFind(ctx, store.Key{}, finds.FindIn{PlantID: plant.ID, Cause: of[1], Certainty: 0.9, Share: share, How: "look"})
			f = housetest.Must(t, f, err)
			steps := kept(t, k, f.ID)
			for i := range steps {
				if len(steps) < 2 {
					break
				}
				tried++
				if err := k.Work.Drop(ctx, store.Key{}, steps[i].ID, steps[i].Version); err != nil {
					t.Fatal(err)
				}
				again := kept(t, k, f.ID)
				if len(again) != len(steps) {
					t.Fatalf("%s: %d steps of %d stand", of, len(again), len(steps))
				}
				for n, o := range again[1:] {
					if len(o.After) != 1 || o.After[0].ID != again[n].ID {
						t.Errorf("%s: step %d dropped: step %d comes after %+v, want %d", of, i+1, n+2, o.After, again[n].ID)
					}
				}
				steps = again
			}
		}
	}
	if tried < 4 {
		t.Errorf("only %d treatments have two steps", tried)
	}
}
