package api_test

import (
	"fmt"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/day"
	"mezzadro/core/overwinter"
	"mezzadro/house/estate"
	"mezzadro/house/ground"
	"mezzadro/house/work"
)

// TestWinter: in autumn the lemon comes in, the dahlias are lifted, the box stays out and is not listed; rooms hold
// what may stand together; the steps become jobs once; a bulb is worked back from its bloom.
func TestWinter(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.today = day.Of(2027, 9, 10)
	here, _, box, _, _ := h.boxes()
	add := func(species string, more obj) estate.PlantOut {
		b := obj{"property_id": here.ID, "species": species, "height_m": 1.5, "spread_m": 1}
		for k, v := range more {
			b[k] = v
		}
		return ok[estate.PlantOut](h, "POST", "/plants", b)
	}
	lemon := add("citrus-limon", obj{"pot_l": 50, "count": 4, "label": "Court"})
	add("dahlia-pinnata", obj{"count": 10})
	add("strelitzia-reginae", obj{"pot_l": 60}) // an oleander would stand against the wall here
	path := fmt.Sprintf("/properties/%d/winter", here.ID)
	w := ok[ground.Winter](h, "GET", path, nil)
	ways := map[string]overwinter.Way{}
	for _, p := range w.Plants {
		ways[p.Name] = p.Way
	}
	if ways["Lemon × 4, Court"] != overwinter.CarryIn || len(w.Plants) < 3 || w.M2 < 2 || len(w.Bulbs) < 3 {
		t.Fatalf("the winter: %+v", w)
	}
	for _, p := range w.Plants {
		if p.ID == box.ID {
			t.Errorf("box is listed: %+v", p)
		}
	}
	light := map[string]int{}
	for _, r := range w.Rooms {
		light[r.Light] += len(r.Names)
		if r.LeastC > r.MostC || r.M2 <= 0 {
			t.Errorf("a room that cannot be: %+v", r)
		}
	}
	if light["bright"] < 2 || light["dark will do"] != 1 {
		t.Errorf("rooms: %+v", w.Rooms)
	}
	kept := ok[Run[int64]](h, "POST", path, obj{"plants": []int64{lemon.ID}}, "Idempotency-Key", "w").Items
	again := ok[Run[int64]](h, "POST", path, obj{"plants": []int64{lemon.ID}}).Items
	if len(kept) != 3 || len(again) != 0 {
		t.Errorf("jobs: %v, again %v", kept, again)
	}
	first := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", kept[0]), nil)
	if !strings.Contains(first.Title, "Carry it in") || first.To < h.today {
		t.Errorf("the first: %+v", first.Order)
	}
	if code, b := h.do("POST", path, obj{"plants": []int64{box.ID}}); code != 422 || !strings.Contains(string(b), "body.plants[0]") {
		t.Errorf("box: %d %s", code, b)
	}
	forced := ok[overwinter.Wintering](h, "POST", "/reckon/wintering", obj{"species": "narcissus-hybrid", "property": here.ID, "bloom": "2028-02-20"})
	if len(forced.Steps) != 4 || forced.Steps[3].From != day.Of(2028, 2, 20) || forced.Steps[0].From > day.Of(2027, 10, 20) {
		t.Errorf("forced: %+v", forced)
	}
	for says, body := range map[string]obj{"body.species": {"species": "buxus-sempervirens", "property": here.ID, "bloom": "2028-02-20"}, "body.climate": {"species": "citrus-limon"}} {
		if code, b := h.do("POST", "/reckon/wintering", body); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
}
