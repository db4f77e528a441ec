package finds_test

import (
	"context"
	"errors"
	"testing"

	"mezzadro/core/invalid"
	"mezzadro/house/finds"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestFaultsOfTheRecordAreNotTheUsers: a plant that could not be read is not one that "is not there"; one that is not
// there is the user's to mend, by its field.
func TestFaultsOfTheRecordAreNotTheUsers(t *testing.T) {
	k := housetest.Open(t)
	p := k.Property("Quay", "lake-foothills")
	rose := k.Plant(p.ID, "rosa-bedding", 1)
	broken, stop := context.WithCancel(context.Background())
	stop()
	for name, keep := range map[string]func(ctx context.Context, plant, property int64) error{
		"find": func(ctx context.Context, plant, property int64) error {
			_, err := k.Finds.AddFind(ctx, store.Key{}, finds.FindIn{PlantID: plant, PropertyID: property, Cause: "aphids", Certainty: 1})
			return err
		},
		"call": func(ctx context.Context, plant, property int64) error {
			_, err := k.Finds.AddCall(ctx, store.Key{}, finds.CallIn{PlantID: plant, PropertyID: property, Ending: "open"})
			return err
		},
	} {
		for _, at := range [][2]int64{{rose.ID, 0}, {0, p.ID}} {
			var refused invalid.Fields
			if err := keep(broken, at[0], at[1]); err == nil || errors.As(err, &refused) {
				t.Errorf("%s of %v while the record cannot be read: %v", name, at, err)
			}
			err := keep(context.Background(), at[0]*99, at[1]*99)
			if !errors.As(err, &refused) || len(refused) != 1 {
				t.Errorf("%s of %v, which is not there: %v", name, at, err)
			}
			if err := keep(context.Background(), at[0], at[1]); err != nil {
				t.Errorf("%s of %v: %v", name, at, err)
			}
		}
	}
}
