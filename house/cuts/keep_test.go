package cuts_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/damage"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/house/cuts"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/housetest"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"
)

// keep proposes and keeps a cut of a plant for a purpose, beside the property's others.
func keep(t *testing.T, k *housetest.Kit, property int64, wanted ...cuts.CutWanted) []work.OrderDetail {
	t.Helper()
	kept, err := k.Cuts.KeepCuts(context.Background(), store.Key{}, property, wanted)
	if err != nil {
		t.Fatal(err)
	}
	out := make([]work.OrderDetail, len(kept))
	for i, o := range kept {
		d, err := k.Work.Order(context.Background(), o.ID)
		out[i] = housetest.Must(t, d, err)
	}
	return out
}

// TestKindsThatCannotBeRenewed: broom, rock rose, lavender and heath do not come again from old wood. Wanted renewed,
// they are trimmed lightly, what is done beside it comes with that visit, and the rest of the property is kept too.
func TestKindsThatCannotBeRenewed(t *testing.T) {
	for _, species := range []string{"cytisus-scoparius", "genista-lydia", "lavandula-angustifolia", "cistus-creticus", "calluna-vulgaris"} {
		k := housetest.Open(t)
		if _, err := k.Estate.Catalogue.Species(species); err != nil {
			t.Errorf("%v", err)
			continue
		}
		p := k.Property("Dune Row", "lake-foothills")
		old := k.Plant(p.ID, species, 1)
		rose := k.Plant(p.ID, "rosa-bedding", 1)
		kept := keep(t, k, p.ID, cuts.CutWanted{PlantID: old.ID, Purpose: pruning.Renew}, cuts.CutWanted{PlantID: rose.ID})
		if kept[0].PlantID != old.ID || kept[0].Kind != job.Prune {
			t.Fatalf("%s: first is %s of %d", species, kept[0].Title, kept[0].PlantID)
		}
		if !strings.Contains(strings.ToLower(kept[0].Title), "lightly") || strings.Contains(kept[0].Title, "1 of 3") {
			t.Errorf("%s: titled %q", species, kept[0].Title)
		}
		if why := strings.Join(kept[0].Why, " "); !strings.Contains(why, "does not come again from old wood") {
			t.Errorf("%s: does not say that it cannot be renewed: %q", species, why)
		}
		for _, o := range kept[1:] {
			if o.PlantID == old.ID && (len(o.After) != 1 || o.After[0].ID != kept[0].ID || o.After[0].MaxDays != 14) {
				t.Errorf("%s: %s comes after %+v, want the trim, within a fortnight", species, o.Title, o.After)
			}
		}
		if last := kept[len(kept)-1]; last.PlantID != rose.ID {
			t.Errorf("%s: the rose is not kept: %+v", species, last.Title)
		}
	}
}

// TestRenewalOverThreeYears: a shrub that shoots from its base is renewed a third a year, each third at least ten
// months after the one before it, and mulched with the first.
func TestRenewalOverThreeYears(t *testing.T) {
	k := housetest.Open(t)
	p := k.Property("Brook End", "lake-foothills")
	old := k.Plant(p.ID, "philadelphus-coronarius", 2.5)
	kept := keep(t, k, p.ID, cuts.CutWanted{PlantID: old.ID, Purpose: pruning.Renew})
	thirds := 0
	for _, o := range kept {
		if o.Kind != job.Prune {
			if len(o.After) != 1 || o.After[0].ID != kept[0].ID {
				t.Errorf("%s comes after %+v", o.Title, o.After)
			}
			continue
		}
		if thirds++; thirds > 1 && (len(o.After) != 1 || o.After[0].ID != kept[thirds-2].ID || o.After[0].MinDays < 300) {
			t.Errorf("%s comes after %+v", o.Title, o.After)
		}
	}
	if thirds != 3 {
		t.Errorf("%d thirds", thirds)
	}
}

// TestDoomedIsNotTidied: an elm with elm disease and a cypress that is to be replaced get no dead-wood job.
func TestDoomedIsNotTidied(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Dune Row", "lake-foothills")
	elm, cypress, oak := k.Plant(p.ID, "ulmus-minor", 9), k.Plant(p.ID, "cupressus-sempervirens", 6), k.Plant(p.ID, "quercus-robur", 9)
	proposed := func() map[int64]bool {
		out := map[int64]bool{}
		all, err := k.Cuts.ProposeCuts(ctx, p.ID, nil)
		for _, c := range housetest.Must(t, all, err).Cuts {
			out[c.PlantID] = true
		}
		return out
	}
	if got := proposed(); !got[elm.ID] || !got[cypress.ID] || !got[oak.ID] {
		t.Fatalf("all sound: %v", got)
	}
	f, err := k.Finds.AddFind(ctx, store.Key{}, finds.FindIn{PlantID: elm.ID, Cause: "elm-disease", Certainty: 0.9, Share: 0.3})
	housetest.Must(t, f, err)
	w, err := k.Walks.StartWalk(ctx, store.Key{}, p.ID, 0, 0)
	housetest.Must(t, w, err)
	d, err := k.Walks.Decide(ctx, store.Key{}, w.ID, cypress.ID, walks.DecisionIn{Ruling: damage.Ruling{Decision: "overruled", Kind: damage.Replace, Note: "Dead at the foot"}})
	housetest.Must(t, d, err)
	for plant, said := range map[int64]bool{elm.ID: true, oak.ID: false} {
		bench, err := k.Cuts.ReckonPruning(ctx, cuts.PruningIn{Plant: plant, Purpose: pruning.Dead, Property: p.ID})
		if all := strings.Join(housetest.Must(t, bench, err).Cautions, " "); strings.Contains(all, "no cut saves it") != said {
			t.Errorf("the bench of plant %d says %q", plant, all)
		}
	}
	if got := proposed(); got[elm.ID] || got[cypress.ID] || !got[oak.ID] {
		t.Errorf("proposed: elm %v, cypress %v, oak %v", got[elm.ID], got[cypress.ID], got[oak.ID])
	}
}

// TestUnderTheLine: a lime whose label tells of a power line asks for line clearance on each cut, first among its
// cautions; one without it does not.
func TestUnderTheLine(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Dune Row", "lake-foothills")
	for label, wants := range map[string]bool{"Road, under the wire": true, "Court": false} {
		lime, err := k.Garden.AddPlant(ctx, store.Key{}, garden.PlantIn{PropertyID: p.ID, Species: "tilia-cordata", HeightM: 9, Label: label})
		lime = housetest.Must(t, lime, err)
		plan, err := k.Cuts.ReckonPruning(ctx, cuts.PruningIn{Plant: lime.ID, Purpose: pruning.Thin})
		plan = housetest.Must(t, plan, err)
		if slices.Contains(plan.Skills, job.LineWork) != wants || strings.Contains(plan.Cautions[0], "power line is within reach") != wants {
			t.Errorf("%s: %v, %v", label, plan.Skills, plan.Cautions)
		}
		for _, o := range keep(t, k, p.ID, cuts.CutWanted{PlantID: lime.ID, Purpose: pruning.Thin}) {
			if o.PlantID == lime.ID && o.Kind == job.Prune && slices.Contains(o.Skills, job.LineWork) != wants {
				t.Errorf("%s: its job asks for %v", label, o.Skills)
			}
		}
	}
}

// TestNothingIsMindedTwice: of a tall oak's dead wood, in a country that protects nests and trees of a certain girth,
// each is told once, by the country's rule; where nothing is known of the country each is told once in general. What hurts
// who works, heights and power lines, is told either way.
func TestNothingIsMindedTwice(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	told := func(list []string, words string) (n int) {
		for _, c := range list {
			if strings.Contains(strings.ToLower(c), words) {
				n++
			}
		}
		return n
	}
	for country, rule := range map[string]string{"IT": "certain girth", "": "may be protected"} {
		in := garden.PropertyIn{Name: "Quarry House", ClimateType: "lake-foothills", Region: country, Zone: "Etc/UTC"}
		p, err := k.Garden.AddProperty(ctx, store.Key{}, in)
		p = housetest.Must(t, p, err)
		oak := k.Plant(p.ID, "quercus-robur", 14)
		plan, err := k.Cuts.ReckonPruning(ctx, cuts.PruningIn{Plant: oak.ID, Purpose: pruning.Dead, Date: k.Estate.Today()})
		plan = housetest.Must(t, plan, err)
		lists := map[string][]string{"cut card": plan.Cautions}
		for _, o := range keep(t, k, p.ID, cuts.CutWanted{PlantID: oak.ID, Purpose: pruning.Dead}) {
			if o.PlantID == oak.ID && o.Kind == job.Prune {
				lists["job"] = o.Cautions
			}
		}
		for name, list := range lists {
			nests, girth := told(list, "nest"), told(list, "protected in many towns")+told(list, "may be protected")
			if nests != 1 || girth != 1 {
				t.Errorf("%q, %s: nests told %d times, protected trees %d times: %q", country, name, nests, girth, list)
			}
			if told(list, rule) != 1 || told(list, "ladder's reach") != 1 || told(list, "near power lines only") != 1 {
				t.Errorf("%q, %s: want %q, heights and power lines: %q", country, name, rule, list)
			}
		}
		if len(lists) != 2 {
			t.Error("the cut was not kept")
		}
	}
}
