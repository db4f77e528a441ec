package api_test

import (
	"fmt"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/work"
)

// boxes adds two properties a kilometre apart with box on both, and roses.
func (h *opened) boxes() (here, there garden.PropertyOut, box, rose, farBox estate.PlantOut) {
	h.t.Helper()
	property := func(name string, lat float64) garden.PropertyOut {
		return ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": name, "climate_type": "lake-foothills", "latitude": lat, "longitude": 9.41})
	}
	plant := func(p garden.PropertyOut, species, label string) estate.PlantOut {
		return ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": p.ID, "species": species, "label": label, "height_m": 0.8})
	}
	here, there = property("Priory", 45.95), property("Mill", 45.959)
	box, rose = plant(here, "buxus-sempervirens", "Parterre"), plant(here, "rosa-bedding", "Gate")
	plant(here, "buxus-sempervirens", "Steps")
	farBox = plant(there, "buxus-sempervirens", "Court")
	return here, there, box, rose, farBox
}

// TestAFindsLife: kept with what was seen, corrected, closed, opened, removed and brought back; what cannot be is named and
// nothing of it is kept.
func TestAFindsLife(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, box, rose, _ := h.boxes()
	in := obj{"plant_id": rose.ID, "cause": "black-spot", "certainty": 0.9, "share": 0.3, "seen": []string{"black_spots_fringed"}, "not_seen": []string{"white_powder"}, "how": "walk"}
	f := ok[finds.Find](h, "POST", "/finds", in, "Idempotency-Key", "one")
	again := ok[finds.Find](h, "POST", "/finds", in, "Idempotency-Key", "one")
	if f.PropertyID != here.ID || f.Species != "rosa-bedding" || f.State != "open" || f.Name == "" || f.Do == "" || again.ID != f.ID {
		t.Fatalf("kept: %+v, sent again: %d", f, again.ID)
	}
	for _, c := range []struct {
		body obj
		says string
	}{
		{obj{"plant_id": rose.ID, "cause": "black-death", "certainty": 0.9}, "body.cause"},
		{obj{"plant_id": rose.ID, "cause": "black-spot", "certainty": 1.4}, "body.certainty"},
		{obj{"plant_id": rose.ID, "cause": "black-spot", "certainty": 1, "share": 1.5}, "body.share"},
		{obj{"plant_id": rose.ID, "cause": "black-spot", "certainty": 1, "seen": []string{"leafless", "black_spots_fringed"}}, "body.seen[1]"},
		{obj{"plant_id": rose.ID, "cause": "black-spot", "certainty": 1, "seen": []string{"spotty"}}, "body.seen[0]"},
		{obj{"plant_id": rose.ID, "property_id": there.ID, "cause": "black-spot", "certainty": 1}, "stands on another property"},
		{obj{"cause": "black-spot", "certainty": 1}, "body.property_id"},
		{obj{"property_id": here.ID, "species": "triffid", "cause": "black-spot", "certainty": 1}, "body.species"},
		{obj{"plant_id": rose.ID, "cause": "black-spot", "certainty": 1, "day": (h.today + 1).String()}, "body.day"},
	} {
		if code, b := h.do("POST", "/finds", c.body); code != 422 || !strings.Contains(string(b), c.says) {
			t.Errorf("%v: %d %s", c.body, code, b)
		}
	}
	path := fmt.Sprintf("/finds/%d", f.ID)
	change := obj{"cause": "leaf-spot", "certainty": 0.7, "share": 0.05, "state": "closed", "ending": "Leaves picked", "version": f.Version}
	f = ok[finds.Find](h, "PUT", path, change)
	if f.Cause != "leaf-spot" || f.State != "closed" || f.Closed != h.today || f.Ending != "Leaves picked" {
		t.Errorf("corrected and closed: %+v", f)
	}
	if code, b := h.do("PUT", path, change); code != 409 || !strings.Contains(string(b), "Leaves picked") {
		t.Errorf("on an old version: %d %s", code, b)
	}
	list := func(query string) int { return len(ok[List[finds.Find]](h, "GET", "/finds"+query, nil).Items) }
	if list("") != 1 || list("?open=true") != 0 || list(fmt.Sprintf("?plant=%d", box.ID)) != 0 || list(fmt.Sprintf("?property=%d", here.ID)) != 1 {
		t.Errorf("lists: %d, open %d", list(""), list("?open=true"))
	}
	ok[struct{}](h, "DELETE", path, nil)
	if list("") != 0 {
		t.Error("removed, and listed")
	}
	ok[struct{}](h, "POST", path+"/restore", nil)
	if list("") != 1 {
		t.Error("brought back, and not listed")
	}
}

// TestSpreadWatch: box blight on one property puts the box of both on the look-list, clean property first; one job for a
// property; who was looked at is off the list; a rose is no host.
func TestSpreadWatch(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, box, rose, farBox := h.boxes()
	watch := func() []finds.WatchGroup { return ok[Run[finds.WatchGroup]](h, "GET", "/watch", nil).Items }
	if w := watch(); len(w) != 0 {
		t.Fatalf("nothing was found, and %+v is watched", w)
	}
	f := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": box.ID, "cause": "box-blight", "certainty": 0.95})
	w := watch()
	if len(w) != 2 || w[0].PropertyID != there.ID || w[0].Sick || !w[1].Sick || len(w[0].Plants) != 1 || w[0].Plants[0].ID != farBox.ID || len(w[1].Plants) != 1 {
		t.Fatalf("watched: %+v", w)
	}
	if !strings.Contains(w[0].Why, "1 km") {
		t.Errorf("why: %s", w[0].Why)
	}
	look := fmt.Sprintf("/finds/%d/look", f.ID)
	o := ok[work.OrderDetail](h, "POST", look, obj{"property_id": there.ID, "day": (h.today + 1).String()}, "Idempotency-Key", "look")
	twice := ok[work.OrderDetail](h, "POST", look, obj{"property_id": there.ID, "day": (h.today + 1).String()}, "Idempotency-Key", "look")
	if o.Kind != job.Walk || o.State != job.Placed || len(o.PlantIDs) != 1 || o.ID != twice.ID || !strings.Contains(strings.Join(o.Why, " "), "Clean") {
		t.Errorf("one job: %+v", o)
	}
	if code, b := h.do("POST", look, obj{"property_id": 99}); code != 422 || !strings.Contains(string(b), "property_id") {
		t.Errorf("elsewhere: %d %s", code, b)
	}
	ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", o.ID), obj{"state": "done", "version": o.Version})
	if w := watch(); len(w) != 1 || w[0].PropertyID != here.ID {
		t.Errorf("looked at, and watched all the same: %+v", w)
	}
	near := ok[finds.CauseOut](h, "POST", "/reckon/cause", obj{"plant": farBox.ID, "seen": []string{"leaf_drop", "round_spots"}})
	far := ok[finds.CauseOut](h, "POST", "/reckon/cause", obj{"species": "buxus-sempervirens", "property": there.ID, "seen": []string{"leaf_drop", "round_spots"}, "date": (h.today - 1).String()})
	chance := func(o finds.CauseOut) float64 {
		for _, c := range o.Causes {
			if c.ID == "box-blight" {
				return c.Chance
			}
		}
		return 0
	}
	if chance(near) <= chance(far) {
		t.Errorf("found a kilometre off: %.3f, without the record %.3f", chance(near), chance(far))
	}
	if p := ok[finds.CausePage](h, "GET", fmt.Sprintf("/causes/box-blight?property=%d", here.ID), nil); len(p.Kinds) != 1 || p.Kinds[0].Plants != 3 ||
		len(p.Open) != 1 || len(p.Alike) == 0 || len(p.Alike[0].Parts) == 0 || !p.From.Given() {
		t.Errorf("page: %+v", p)
	}
	if code, _ := h.do("GET", "/causes/box-plague", nil); code != 404 {
		t.Errorf("no cause: %d", code)
	}
	_ = rose
}

// TestACall: answers are kept with the client, a visit is made in the same write, and what cannot be keeps nothing.
func TestACall(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	in := obj{"plant_id": box.ID, "caller": "The porter", "answers": obj{"how_long": "overnight", "pets": "some"}, "seen": []string{"sudden", "leaf_drop"},
		"ending": "visit", "said": "We come and look; do not cut it.", "visit_on": (h.today + 2).String()}
	c := ok[finds.Call](h, "POST", "/calls", in, "Idempotency-Key", "call")
	if c.OrderID == 0 || c.PropertyID != here.ID || c.Answers["how_long"] != "overnight" {
		t.Fatalf("kept: %+v", c)
	}
	visit := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", c.OrderID), nil)
	if visit.State != job.Placed || visit.Day != h.today+2 || !strings.Contains(visit.Title, "Parterre") {
		t.Errorf("visit: %+v", visit)
	}
	ok[finds.Call](h, "POST", "/calls", in, "Idempotency-Key", "call")
	for _, x := range []struct {
		change obj
		says   string
	}{
		{obj{"answers": obj{"how_long": "forever"}}, "body.answers.how_long"},
		{obj{"answers": obj{"mood": "bad"}}, "body.answers.mood"},
		{obj{"visit_on": (h.today - 1).String()}, "body.visit_on"},
		{obj{"ending": "advice"}, "body.visit_on"},
		{obj{"share": 3}, "body.share"},
	} {
		body := obj{}
		for k, v := range in {
			body[k] = v
		}
		for k, v := range x.change {
			body[k] = v
		}
		if code, b := h.do("POST", "/calls", body); code != 422 || !strings.Contains(string(b), x.says) {
			t.Errorf("%v: %d %s", x.change, code, b)
		}
	}
	calls := func() []finds.Call {
		return ok[Run[finds.Call]](h, "GET", fmt.Sprintf("/calls?property=%d", here.ID), nil).Items
	}
	if n := len(ok[Run[work.Order]](h, "GET", "/orders", nil).Items); len(calls()) != 1 || n != 1 {
		t.Errorf("%d calls, %d jobs are kept, want one of each", len(calls()), n)
	}
	path := fmt.Sprintf("/calls/%d", c.ID)
	c = ok[finds.Call](h, "PUT", path, obj{"plant_id": box.ID, "caller": "The porter", "ending": "picture", "said": "Send a picture of the underside.", "version": c.Version})
	if c.Ending != "picture" || c.OrderID == 0 {
		t.Errorf("changed: %+v", c)
	}
	if code, _ := h.do("PUT", path, obj{"plant_id": box.ID, "ending": "advice", "version": 1}); code != 409 {
		t.Errorf("on an old version: %d", code)
	}
	ok[struct{}](h, "DELETE", path, nil)
	if len(calls()) != 0 {
		t.Error("removed, and listed")
	}
	ok[struct{}](h, "POST", path+"/restore", nil)
	if len(calls()) != 1 {
		t.Error("brought back, and not listed")
	}
}

// TestRecordTellsSigns: a diagnosis of a kept plant knows its weather, place and work, and says so; inline values do the
// same without a record.
func TestRecordTellsSigns(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, plant := h.villa()
	d := ok[finds.CauseOut](h, "POST", "/reckon/cause", obj{"plant": plant.ID, "seen": []string{"buds_brown_inside"}})
	if is, known := d.Known["was_frost"]; !known || !is || d.Causes[0].ID != "frost-in-winter" {
		t.Errorf("after a frosty March: known %v, %s", d.Known, d.Causes[0].Name)
	}
	recorded := false
	for _, e := range d.Causes[0].Evidence {
		recorded = recorded || e.Record && e.Sign == "was_frost"
	}
	if !recorded {
		t.Errorf("the record's frost is not among the evidence: %+v", d.Causes[0].Evidence)
	}
	inline := ok[finds.CauseOut](h, "POST", "/reckon/cause", obj{"species": "hydrangea-macrophylla", "date": "2027-07-20", "seen": []string{"tips_wilt"},
		"weather": obj{"min_c": 14, "max_c": 36, "rain_mm": 4}, "place": obj{"pot_l": 8, "height_m": 1, "sun": 1}})
	if !inline.Known["was_dry"] || !inline.Known["was_heat"] || !inline.Known["pot_small"] || inline.Known["was_frost"] {
		t.Errorf("inline: %v", inline.Known)
	}
	if code, _ := h.do("POST", "/reckon/cause", obj{"plant": 999, "seen": []string{"leaf_drop"}}); code != 404 {
		t.Errorf("a plant that is not there: %d", code)
	}
}
