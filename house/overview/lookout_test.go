package overview_test

import (
	"context"
	"testing"

	"mezzadro/house/housetest"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestMorning: what is overdue is told and counted, the property where it lies comes first, and the search finds what was
// entered by all its words.
func TestMorning(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	k.Property("Almshouses", "lake-foothills")
	late := k.Property("Tannery Yard", "lake-foothills")
	k.Plant(late.ID, "syringa-vulgaris", 2)
	_, err := k.Work.AddOrder(ctx, store.Key{}, work.HandOrder{PropertyID: late.ID, Title: "Rake the gravel", Minutes: 30, Day: k.On + 1, Spans: []work.SpanIn{{From: k.On, To: k.On + 30}}})
	if err != nil {
		t.Fatal(err)
	}
	k.On += 3
	l, err := k.Overview.Lookout(ctx)
	if l = housetest.Must(t, l, err); l.Late != 1 || l.Overdue[0].Title != "Rake the gravel" || l.Places[0].PropertyID != late.ID || l.Places[0].Overdue != 1 {
		t.Errorf("%d late, %+v", l.Late, l.Places)
	}
	f, err := k.Overview.Frame(ctx)
	if f = housetest.Must(t, f, err); f.Counts.Overdue != 1 || f.Counts.Grounds != 2 || f.Movable {
		t.Errorf("counts: %+v", f)
	}
	for words, want := range map[string][3]int{"lilac tannery": {1, 0, 0}, "tannery": {1, 1, 1}, "gravel rake": {0, 0, 1}, "no-such-word": {0, 0, 0}} {
		h, err := k.Overview.Find(ctx, words, 10)
		if h = housetest.Must(t, h, err); [3]int{len(h.Plants), len(h.Properties), len(h.Jobs)} != want {
			t.Errorf("%q finds %d plants, %d properties, %d jobs, want %v", words, len(h.Plants), len(h.Properties), len(h.Jobs), want)
		}
	}
}
