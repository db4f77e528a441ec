package learn_test

import (
	"context"
	"testing"

	"mezzadro/house/finds"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestOurCauses: a firm that finds water standing at nearly every rose is told so, and that counts for more among what may be
// wrong, on the device too, until that is switched off; what a client said by telephone does not count.
func TestOurCauses(t *testing.T) {
	k, ctx := housetest.Open(t), context.Background()
	p := k.Property("Villa Orba", "lake-foothills")
	rose := k.Plant(p.ID, "rosa-bedding", 1)
	ask := finds.CauseIn{Plant: rose.ID, Seen: []string{"wilts_wet"}}
	chance := func() float64 {
		t.Helper()
		a, err := k.Finds.ReckonCause(ctx, ask)
		for _, c := range housetest.Must(t, a, err).Causes {
			if c.ID == "standing-water" {
				return c.Chance
			}
		}
		return 0
	}
	before := chance()
	add := func(n int, cause, how string) {
		t.Helper()
		for range n {
			in := finds.FindIn{PropertyID: p.ID, Species: "rosa-bedding", Cause: cause, Certainty: 0.9, How: how, Day: k.On - 200}
			if _, err := k.Finds.AddFind(ctx, store.Key{}, in); err != nil {
				t.Fatal(err)
			}
		}
	}
	add(60, "standing-water", "call")
	told, err := k.Learn.CausesTold(ctx)
	if told = housetest.Must(t, told, err); told.Finds != 0 || len(told.Causes) != 0 {
		t.Errorf("by telephone: %+v", told)
	}
	add(30, "standing-water", "look")
	add(10, "aphids", "look")
	told, err = k.Learn.CausesTold(ctx)
	if told = housetest.Must(t, told, err); told.Finds != 40 || !told.On || told.Causes[0].Cause != "standing-water" || !told.Causes[0].Beyond {
		t.Fatalf("told: %+v", told)
	}
	after := chance()
	if after <= before {
		t.Errorf("chance of standing water %g, with forty finds %g", before, after)
	}
	known, err := k.Finds.KnownHere(ctx, p.ID)
	if known = housetest.Must(t, known, err); known.Ours["standing-water"] <= 1 {
		t.Errorf("taken along: %v", known.Ours)
	}
	told, err = k.Learn.SetCauses(ctx, store.Key{}, false)
	if told = housetest.Must(t, told, err); told.On || len(told.Causes) == 0 {
		t.Errorf("switched off: %+v", told)
	}
	if off := chance(); off >= after {
		t.Errorf("chance of standing water %g, switched off %g", after, off)
	}
}
