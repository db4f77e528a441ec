package api_test

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/firm"
	"mezzadro/house/walks"
	"mezzadro/store"
)

// TestErase: a plant's picture that is removed is served no more, and comes back with it; a property that is erased
// leaves no row, no picture and no word of it anywhere in the files of the record, and the other property is as before.
func TestErase(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	secret := "Mallory Quillfeather"
	gone := ok[estate.Property](h, "POST", "/properties", obj{"name": "Quillfeather Hall", "client": secret, "note": "key under the third pot",
		"climate_type": "lake-foothills"})
	stays, villa := h.villa()
	plant := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": gone.ID, "species": "malus-domestica", "height_m": 3, "label": "Quillfeather's tree"})
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": gone.ID})
	if code, b := h.send(fmt.Sprintf("/walks/%d/plants/%d/photos", walk.ID, plant.ID), picture(t, 40, 30, "jpeg")); code != 200 {
		t.Fatalf("%d %s", code, b)
	}
	photo := ok[walks.Walk](h, "GET", fmt.Sprintf("/walks/%d", walk.ID), nil).Photos[0]
	ok[finds.Find](h, "POST", "/finds", obj{"plant_id": plant.ID, "cause": "fire-blight", "certainty": 0.9})
	h.byHand(gone.ID, "Cut for "+secret, 30, obj{"plants": []int64{plant.ID}})
	seen := func() int {
		code, _ := h.do("GET", "/pictures/"+photo.Hash, nil)
		return code
	}
	if code := seen(); code != 200 {
		t.Fatalf("the picture: %d", code)
	}
	h.must("DELETE", fmt.Sprintf("/photos/%d", photo.ID))
	if code := seen(); code != 404 {
		t.Errorf("a removed picture is served: %d", code)
	}
	h.must("POST", fmt.Sprintf("/photos/%d/restore", photo.ID))
	if code := seen(); code != 200 {
		t.Errorf("a picture that was brought back: %d", code)
	}
	before := string(h.must("GET", fmt.Sprintf("/properties/%d", stays.ID)))

	erase := fmt.Sprintf("/removed/property/%d", gone.ID)
	if code, b := h.do("DELETE", erase, nil); code != 409 && code != 422 || !strings.Contains(string(b), "remove it first") {
		t.Errorf("what is in sight was erased: %d %s", code, b)
	}
	h.must("DELETE", fmt.Sprintf("/properties/%d", gone.ID))
	list := ok[[]firm.Removed](h, "GET", "/removed", nil)
	if len(list) != 1 || list[0].Kind != "property" || list[0].Name != "Quillfeather Hall" {
		t.Errorf("removed: %+v", list)
	}
	e := ok[firm.Erased](h, "DELETE", erase, nil)
	if e.Plants != 1 || e.Jobs < 1 || e.Pictures != 1 || e.Rows < 6 || !strings.Contains(e.Backups, "before hold it still") {
		t.Errorf("erased: %+v", e)
	}
	if code := seen(); code != 404 {
		t.Errorf("its picture: %d", code)
	}
	if code, _ := h.do("DELETE", erase, nil); code != 404 {
		t.Errorf("erased twice: %d", code)
	}
	if after := string(h.must("GET", fmt.Sprintf("/properties/%d", stays.ID))); after != before {
		t.Errorf("the other property: %s, and was %s", after, before)
	}
	if p := ok[estate.Plant](h, "GET", fmt.Sprintf("/plants/%d", villa.ID), nil); p.ID != villa.ID {
		t.Errorf("its plant: %+v", p)
	}
	h.noWord(t, secret, "Quillfeather", "third pot")
	if faults, err := store.Check(context.Background(), h.folder); err != nil || len(faults) > 0 {
		t.Errorf("the record: %v %v", faults, err)
	}
}

// must sends a request that must succeed.
func (o *opened) must(method, path string) []byte {
	o.t.Helper()
	code, b := o.do(method, path, nil)
	if code >= 300 {
		o.t.Fatalf("%s %s: %d %s", method, path, code, b)
	}
	return b
}

// noWord looks for words in all files of the record.
func (o *opened) noWord(t *testing.T, words ...string) {
	t.Helper()
	err := filepath.WalkDir(o.folder, func(file string, d os.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		b, err := os.ReadFile(file)
		for _, w := range words {
			if bytes.Contains(b, []byte(w)) {
				t.Errorf("%s tells of %q still", filepath.Base(file), w)
			}
		}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
}

// TestErasePlant: a job on one plant goes with it, one on two plants stays with the other; a person's name goes, what
// they did stays.
func TestErasePlant(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, first := h.villa()
	second := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "buxus-sempervirens", "height_m": 1})
	alone := h.byHand(here.ID, "Feed it", 10, obj{"plants": []int64{first.ID}})
	both := h.byHand(here.ID, "Water both", 10, obj{"plants": []int64{first.ID, second.ID}})
	h.must("DELETE", fmt.Sprintf("/plants/%d", first.ID))
	ok[firm.Erased](h, "DELETE", fmt.Sprintf("/removed/plant/%d", first.ID), nil)
	if code, _ := h.do("GET", fmt.Sprintf("/orders/%d", alone.ID), nil); code != 404 {
		t.Errorf("the job on it alone: %d", code)
	}
	if code, b := h.do("GET", fmt.Sprintf("/orders/%d", both.ID), nil); code != 200 {
		t.Errorf("the job on both: %d %s", code, b)
	}
	person := ok[struct {
		ID int64 `json:"id"`
	}](h, "POST", "/people", obj{"name": "Peregrine Vole", "skills": []string{}})
	h.must("DELETE", fmt.Sprintf("/people/%d", person.ID))
	ok[firm.Erased](h, "DELETE", fmt.Sprintf("/removed/person/%d", person.ID), nil)
	if list := ok[[]firm.Removed](h, "GET", "/removed", nil); len(list) != 0 {
		t.Errorf("still removed: %+v", list)
	}
	h.noWord(t, "Peregrine")
	if faults, err := store.Check(context.Background(), h.folder); err != nil || len(faults) > 0 {
		t.Errorf("the record: %v %v", faults, err)
	}
}
