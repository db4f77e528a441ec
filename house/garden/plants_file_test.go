package garden_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"mezzadro/core/invalid"
	"mezzadro/house/garden"
	"mezzadro/house/housetest"
	"mezzadro/store"
)

// TestAllOrNone: a file of plants with one bad line leaves the property as it was and names the line; mended, all come in.
func TestAllOrNone(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Orchard Field", "lake-foothills")
	take := func(text string) (garden.PlantsTaken, error) {
		return k.Garden.TakePlants(ctx, store.Key{}, p.ID, []byte(text), garden.AskFirst)
	}
	_, err := take("species,label,height_m\nmalus-domestica,Row 1,3\nno-such-plant,Row 2,2\n")
	var bad invalid.Fields
	if !errors.As(err, &bad) || !strings.Contains(bad[0].Path, "line 3") {
		t.Errorf("a bad line: %v", err)
	}
	list, err := k.Garden.Plants(ctx, p.ID, 0, 50)
	if err != nil || len(list) != 0 {
		t.Errorf("after a refused file there stand %d plants, %v", len(list), err)
	}
	if _, err := take("species,label,height_m\nmalus-domestica,Row 1,3\nApple,Row 2,2\n"); err != nil {
		t.Fatal(err)
	}
	if list, err = k.Garden.Plants(ctx, p.ID, 0, 50); err != nil || len(list) != 2 || list[1].Species != list[0].Species {
		t.Errorf("taken in: %+v, %v", list, err)
	}
}

// TestAPlantMovesItsWork: a changed plant's version counts, and a write on the one before is told what is kept.
func TestAPlantMovesItsWork(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Orchard Field", "lake-foothills")
	rose := k.Plant(p.ID, "rosa-bedding", 1)
	change := garden.PlantIn{Species: "rosa-bedding", HeightM: 1.4, Version: rose.Version}
	if now, err := k.Garden.ChangePlant(ctx, store.Key{}, rose.ID, change); err != nil || now.HeightM != 1.4 {
		t.Fatalf("%+v, %v", now.HeightM, err)
	}
	var stale store.Stale
	if _, err := k.Garden.ChangePlant(ctx, store.Key{}, rose.ID, change); !errors.As(err, &stale) {
		t.Errorf("on an old version: %v", err)
	}
}
