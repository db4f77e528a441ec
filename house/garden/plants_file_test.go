package garden_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"mezzadro/core/invalid"
	"mezzadro/house/estate"
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
		return k.Garden.TakePlants(ctx, store.Key{}, p.ID, []byte(text), garden.Taking{Standing: garden.AskFirst})
	}
	_, err := take("species,label,height_m\nmalus-domestica,Row 1,3\nno-such-plant,Row 2,tall\n")
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

// TestNamesAreAskedOnce: names of a file that are no kind's are asked about, each once with what it may mean, and nothing
// is kept; once told they come in, and the next file knows them; lines of what is left out stay out.
func TestNamesAreAskedOnce(t *testing.T) {
	k := housetest.Open(t)
	ctx := context.Background()
	p := k.Property("Orchard Field", "lake-foothills")
	take := func(text string, called map[string]string) (garden.PlantsTaken, error) {
		return k.Garden.TakePlants(ctx, store.Key{}, p.ID, []byte(text), garden.Taking{Standing: garden.AddAgain, Called: called})
	}
	standing := func() []estate.PlantOut {
		list, err := k.Garden.Plants(ctx, p.ID, 0, 50)
		return housetest.Must(t, list, err)
	}
	file := "Species;Where;Height (m)\nCamelia japonica;Gate;2\nAcer palmatum 'Bloodgood';Pond;3\nGarden gnome;Lawn;0,5\nCamelia japonica 'Alba';Wall;1,5\n"
	got, err := take(file, nil)
	if got = housetest.Must(t, got, err); len(got.Unknown) != 2 || len(got.Added) != 0 || len(standing()) != 0 {
		t.Fatalf("asked: %+v; %d plants stand", got, len(standing()))
	}
	if u := got.Unknown[0]; u.Name != "Camelia japonica" || len(u.Lines) != 2 || u.Lines[0] != 2 || u.Lines[1] != 5 || len(u.Near) == 0 || u.Near[0].ID != "camellia-japonica" {
		t.Errorf("the first name: %+v", u)
	}
	if u := got.Unknown[1]; u.Name != "Garden gnome" || len(u.Lines) != 1 {
		t.Errorf("the second name: %+v", u)
	}
	var bad invalid.Fields
	if _, err := take(file, map[string]string{"Camelia japonica": "no-such-kind", "Garden gnome": ""}); !errors.As(err, &bad) || bad[0].Path != "called" {
		t.Errorf("a kind that is none: %v", err)
	}
	got, err = take(file, map[string]string{"Camelia japonica": "camellia-japonica", "Garden gnome": ""})
	if got = housetest.Must(t, got, err); len(got.Added) != 3 || got.LeftOut != 1 || len(got.Unknown) != 0 {
		t.Fatalf("told: %+v", got)
	}
	list := standing()
	for _, x := range list {
		if x.Label == "Pond" && (x.Species != "acer-palmatum" || !strings.Contains(x.Note, "'Bloodgood'")) {
			t.Errorf("the cultivar is lost: %+v", x)
		}
		if x.Label == "Wall" && (x.Species != "camellia-japonica" || !strings.Contains(x.Note, "'Alba'")) {
			t.Errorf("the cultivar of a told name is lost: %+v", x)
		}
	}
	got, err = take("species,label,height_m\nCamelia japonica,Steps,1\n", nil)
	if got = housetest.Must(t, got, err); len(got.Added) != 1 {
		t.Errorf("the next file does not know the name: %+v", got)
	}
	if book, err := k.Garden.Book(ctx); err != nil || book.Entries == nil {
		t.Error(err)
	} else if id, _ := book.Named("camelia JAPONICA"); id != "camellia-japonica" {
		t.Errorf("forms do not know it: %q", id)
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
