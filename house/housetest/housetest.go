// Package housetest opens an empty house for tests of its rooms: a record in a temporary folder, on a day that the test
// sets, without a station.
package housetest

import (
	"context"
	"log/slog"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/house"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/store"
)

// Kit is an opened house.
type Kit struct {
	*house.House
	On day.Day // today

	t testing.TB
}

// Open opens one on 18 March 2027.
func Open(t testing.TB) *Kit {
	t.Helper()
	st, err := store.Open(context.Background(), Folder(t))
	if err != nil {
		t.Fatal(err)
	}
	k := &Kit{On: day.Of(2027, 3, 18), t: t}
	k.House = house.Open(&estate.House{
		Store:     st,
		Catalogue: catalogue.Built(),
		Today:     func() day.Day { return k.On },
		Log:       slog.New(slog.DiscardHandler),
	})
	t.Cleanup(func() { _ = k.Close() })
	return k
}

// Property adds a property in a type of climate.
func (k *Kit) Property(name, climate string) garden.PropertyOut {
	k.t.Helper()
	p, err := k.Garden.AddProperty(context.Background(), store.Key{}, garden.PropertyIn{Name: name, ClimateType: climate})
	return Must(k.t, p, err)
}

// Plant adds a plant of a kind, so many metres tall.
func (k *Kit) Plant(property int64, species string, height float64) estate.PlantOut {
	k.t.Helper()
	p, err := k.Garden.AddPlant(context.Background(), store.Key{}, garden.PlantIn{PropertyID: property, Species: species, HeightM: height})
	return Must(k.t, p, err)
}

// Must is an answer that a test cannot do without.
func Must[T any](t testing.TB, out T, err error) T {
	t.Helper()
	if err != nil {
		t.Fatal(err)
	}
	return out
}
