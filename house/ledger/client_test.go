package ledger_test

import (
	"context"
	"strings"
	"testing"

	"mezzadro/core/damage"
	"mezzadro/core/job"
	"mezzadro/house/finds"
	"mezzadro/house/housetest"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestClientReadsWhatWasFound: a client reads of the pest on the plant that shows it and not on its neighbour, of a verdict in
// the words of who overruled it, of nothing that was put off, and of no work that the firm does for itself.
func TestClientReadsWhatWasFound(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Dune Row", "lake-foothills")
	bay, box := k.Plant(p.ID, "laurus-nobilis", 2), k.Plant(p.ID, "buxus-sempervirens", 1)
	w, err := k.Walks.StartWalk(ctx, store.Key{}, p.ID, 0, 0)
	housetest.Must(t, w, err)
	for plant, in := range map[int64]walks.DecisionIn{
		bay.ID: {Ruling: damage.Ruling{Decision: "overruled", Kind: damage.TipBack, CutM: 1.3, Note: "Only the brown ends come off, the rest is green."}},
		box.ID: {Ruling: damage.Ruling{Decision: "not now"}},
	} {
		d, err := k.Walks.Decide(ctx, store.Key{}, w.ID, plant, in)
		housetest.Must(t, d, err)
	}
	f, err := k.Finds.AddFind(ctx, store.Key{}, finds.FindIn{PlantID: box.ID, Cause: "box-caterpillar", Certainty: 1})
	housetest.Must(t, f, err)
	for _, in := range []work.HandOrder{
		{PropertyID: p.ID, Plants: []int64{bay.ID}, Kind: job.Prune, Title: "Cut Bay laurel to 1.8 m, reduce the left side", Minutes: 20, CrewSize: 1},
		{PropertyID: p.ID, Plants: []int64{bay.ID}, Kind: job.Protect, Title: "Keep fleece ready", Minutes: 10, CrewSize: 1},
		{PropertyID: p.ID, Title: "See whether they pay", Private: true, Minutes: 10, CrewSize: 1, Spans: []work.SpanIn{{From: k.Estate.Today(), To: k.Estate.Today() + 9}}},
	} {
		o, err := k.Work.AddOrder(ctx, store.Key{}, in)
		housetest.Must(t, o, err)
	}
	link, err := k.Ledger.AddClientLink(ctx, p.ID, 30)
	housetest.Must(t, link, err)
	page, err := k.Ledger.ClientPage(ctx, link.Token)
	page = housetest.Must(t, page, err)
	var found, planned []string
	for _, x := range page.Found {
		found = append(found, x.Plant+": "+x.What)
	}
	for _, x := range page.Planned {
		planned = append(planned, x.Title)
	}
	all := strings.Join(append(found, planned...), "\n")
	if len(page.Found) != 2 || !strings.Contains(all, "the rest is green") || !strings.Contains(all, "aterpillar") {
		t.Errorf("found: %q", found)
	}
	if !strings.Contains(all, "Pruning") {
		t.Errorf("planned: %q", planned)
	}
	for _, not := range []string{"fleece", "pay", "left side", "only the ends are dead", "Nothing has been checked"} {
		if strings.Contains(all, not) {
			t.Errorf("the client reads %q in\n%s", not, all)
		}
	}
}
