package overview_test

import (
	"context"
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestNightWatch: a frost that is told for tomorrow names what is carried in and covered, the tender first; without a
// frost, and where nothing is told, nobody is sent out.
func TestNightWatch(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	k.On = day.Of(2027, 1, 12)
	cold, mild := k.Property("Hotel Belpoggio", "lake-foothills").ID, k.Property("Boatyard", "lake-foothills").ID
	k.Property("Nobody tells", "lake-foothills")
	tell := func(at int64, minC float64) {
		t.Helper()
		rows := []store.Outlook{}
		for d := k.On; d <= k.On+3; d++ {
			o := store.Outlook{
				PropertyID: at,
				Day:        d.String(),
				ToldOn:     k.On.String(),
				MinC:       5,
				MaxC:       11,
				WindMS:     2,
				Source:     "a test",
			}
			if d == k.On+1 {
				o.MinC = minC
			}
			rows = append(rows, o)
		}
		if err := k.Estate.Store.WriteQuietly(ctx, func(tx store.Tx) error { return tx.SetOutlook(ctx, at, rows) }); err != nil {
			t.Fatal(err)
		}
	}
	tell(cold, -7)
	tell(mild, 5)
	for _, at := range []int64{cold, mild} {
		for _, in := range []garden.PlantIn{{Species: "citrus-limon", HeightM: 1.2, Count: 4}, {Species: "taxus-baccata", HeightM: 2}} {
			if in.PropertyID = at; in.Count > 0 {
				in.PotL = 30
			}
			if _, err := k.Garden.AddPlant(ctx, store.Key{}, in); err != nil {
				t.Fatal(err)
			}
		}
	}
	// A lemon that was taken in and waits to be brought out again is not carried in twice.
	second, err := k.Garden.AddPlant(
		ctx,
		store.Key{},
		garden.PlantIn{PropertyID: cold, Species: "citrus-limon", HeightM: 1, Standing: estate.Standing{PotL: 25}},
	)
	second = housetest.Must(t, second, err)
	out := job.Order{
		Key:     "plant out",
		Kind:    job.PlantOut,
		Title:   "Bring out again",
		Origin:  job.Verdict,
		For:     k.On,
		Minutes: 10,
		Crew:    1,
	}
	if err := k.Estate.Store.Write(ctx, func(tx store.Tx) error {
		_, err := tx.AddOrder(ctx, store.NewOrder{PropertyID: cold, Plants: []int64{second.ID}, Order: out})
		return err
	}); err != nil {
		t.Fatal(err)
	}
	w, err := k.Overview.NightWatch(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if w.Told != 2 || len(w.Nights) != 1 || w.Nights[0].PropertyID != cold || w.Nights[0].Day != k.On+1 ||
		w.Nights[0].MinC != -7 {
		t.Fatalf("%+v", w)
	}
	n := w.Nights[0]
	if len(n.Acts) != 1 || n.Acts[0].Do != "carry in" || n.Acts[0].With >= n.Acts[0].Without ||
		n.Minutes != n.Acts[0].Minutes {
		t.Errorf("the lemons are carried in and the yew is left alone: %+v", n.Acts)
	}
}
