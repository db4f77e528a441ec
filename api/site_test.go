package api_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/replacement"
	"mezzadro/core/site"
	"mezzadro/house/estate"
	"mezzadro/house/ground"
)

// TestReckonSite: a plant's hours from a plan, what a cut changes, and faults by their fields.
func TestReckonSite(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	hedge := obj{"id": "hedge", "kind": "hedge", "height_m": 3.5, "spread_m": 1, "points": []obj{{"x": -15, "y": -1}, {"x": 15, "y": -1}}}
	ivy := obj{"id": "ivy", "kind": "plant", "species": "hedera-helix", "height_m": 0.5, "spread_m": 1, "points": []obj{{"x": 0, "y": 0.6}}}
	plan := obj{"latitude": 46, "things": []obj{hedge, ivy}}
	o := ok[ground.SiteOut](h, "POST", "/reckon/site", obj{"plan": plan, "plant": "ivy", "changes": []obj{{"thing": "hedge", "do": "cut", "height_m": 0.6}}})
	if o.Spot == nil || o.After == nil || o.After.Strong < o.Spot.Strong+1.5 || len(o.Effects) != 1 || o.Effects[0].What == "none" {
		t.Errorf("the hedge before the ivy: %+v", o)
	}
	if len(o.Areas) != 1 || o.Areas[0].LongM != 30 {
		t.Errorf("read off: %+v", o.Areas)
	}
	for says, body := range map[string]obj{
		"body.plan.things[0].height_m": {"plan": obj{"latitude": 46, "things": []obj{{"id": "w", "kind": "wall", "points": []obj{{"x": 0, "y": 0}, {"x": 1, "y": 0}}}}}},
		"body.plan.things[0].species":  {"plan": obj{"latitude": 46, "things": []obj{{"id": "w", "kind": "plant", "species": "nothing", "points": []obj{{"x": 0, "y": 0}}}}}},
		"body.plant":                   {"plan": plan, "plant": "oak"},
		"body.changes[0].thing":        {"plan": plan, "changes": []obj{{"thing": "oak", "do": "remove"}}},
		"degrees":                      {"plan": obj{"latitude": 46, "things": []obj{{"id": "w", "kind": "plant", "points": []obj{{"x": 4999, "y": 5001}}}}}},
	} {
		if code, b := h.do("POST", "/reckon/site", body); code != 422 || !strings.Contains(string(b), says) && says != "degrees" {
			t.Errorf("%s: %d %.200s", says, code, b)
		}
	}
}

// TestReckonReplacement: what stood there and why it died counts; a plan gives the spot its light; kinds can be
// compared; faults are named.
func TestReckonReplacement(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	body := obj{"property": here.ID, "spot": obj{"light": "part shade"}, "died": obj{"species": "buxus-sempervirens", "cause": "box-blight"}, "wish": obj{"evergreen": true, "max_m": 3}, "area_m2": 4, "price": 9.5}
	o := ok[ground.ReplacementOut](h, "POST", "/reckon/replacement", body)
	if len(o.Ranked) != 20 || o.Fits < 20 || o.Ranked[0].Score < o.Ranked[19].Score || o.Ranked[0].Planting == nil || o.Ranked[0].Count == 0 || o.Ranked[0].Cost != 9.5*float64(o.Ranked[0].Count) {
		t.Fatalf("ranked: %d of %d, first %+v", len(o.Ranked), o.Fits, o.Ranked[:1])
	}
	if !slices.ContainsFunc(o.Out, func(f replacement.Fit) bool {
		return f.Species == "buxus-sempervirens" && strings.Contains(f.Out[0], "Box blight")
	}) {
		t.Error("box after box blight is not left out")
	}
	for _, r := range o.Ranked {
		if len(r.Planting.Windows) == 0 || len(r.Grown) != 3 {
			t.Errorf("%s: %+v", r.Species, r)
		}
	}
	compared := ok[ground.ReplacementOut](h, "POST", "/reckon/replacement", obj{"property": here.ID, "spot": obj{"light": "shade"}, "only": []string{"aucuba-japonica", "rosa-bedding"}})
	if len(compared.Ranked) != 1 || len(compared.Out) != 1 || compared.Out[0].Species != "rosa-bedding" {
		t.Errorf("compared: %+v", compared)
	}
	wall := obj{"id": "row", "kind": "building", "height_m": 8, "points": []obj{{"x": -40, "y": -10}, {"x": 40, "y": -10}, {"x": 40, "y": -1}, {"x": -40, "y": -1}}}
	shaded := ok[ground.ReplacementOut](h, "POST", "/reckon/replacement", obj{"property": here.ID, "plan": obj{"latitude": 45.9, "things": []obj{wall}}, "at": obj{"x": 0, "y": 0}})
	if shaded.Site == nil || shaded.Spot.Sun == nil || *shaded.Spot.Sun > 6 || shaded.Spot.HouseM > 1.1 {
		t.Errorf("north of a row: %+v", shaded.Spot)
	}
	for says, more := range map[string]obj{"body.died.species": {"died": obj{"species": "nothing"}}, "body.died.cause": {"died": obj{"cause": "curse"}}, "body.only[0]": {"only": []string{"nothing"}}, "body.at": {"plan": obj{"latitude": 46, "things": []obj{}}}} {
		b := obj{"property": here.ID}
		for k, v := range more {
			b[k] = v
		}
		if code, answer := h.do("POST", "/reckon/replacement", b); code != 422 || !strings.Contains(string(answer), says) {
			t.Errorf("%s: %d %.200s", says, code, answer)
		}
	}
}

// TestPlanOfProperty: drawn, read back with its plants as they are, kept by version, given as GeoJSON; a foreign plant
// and a stale version are refused.
func TestPlanOfProperty(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, box, _, far := h.boxes()
	path := fmt.Sprintf("/properties/%d/plan", here.ID)
	empty := ok[ground.PlanOut](h, "GET", path, nil)
	if empty.Version != 0 || len(empty.Plan.Things) != 0 || len(empty.Loose) != 3 {
		t.Errorf("before it is drawn: %+v", empty)
	}
	things := []obj{
		{"id": "house", "kind": "building", "height_m": 6, "points": []obj{{"x": 0, "y": 5}, {"x": 9, "y": 5}, {"x": 9, "y": 12}, {"x": 0, "y": 12}}},
		{"id": "box", "kind": "plant", "plant_id": box.ID, "points": []obj{{"x": 3, "y": 2}}},
	}
	drawn := ok[ground.PlanOut](h, "PUT", path, obj{"version": 0, "plan": obj{"latitude": 45, "things": things}}, "Idempotency-Key", "draw")
	again := ok[ground.PlanOut](h, "PUT", path, obj{"version": 0, "plan": obj{"latitude": 45, "things": things}}, "Idempotency-Key", "draw")
	if drawn.Version != 1 || again.Version != 1 || len(drawn.Loose) != 2 || drawn.Plan.Latitude < 45.9 {
		t.Errorf("drawn: %+v", drawn)
	}
	if b := drawn.Plan.Things[1]; b.Species != "buxus-sempervirens" || b.HeightM != 0.8 || b.Kind != site.Plant || b.Light == "" {
		t.Errorf("the box as it is: %+v", b)
	}
	// The record takes the plan's word, in one write, and can be set back.
	taken := ok[Run[ground.SpotTaken]](h, "POST", path+"/spots", obj{}, "Idempotency-Key", "spots").Items
	ok[Run[ground.SpotTaken]](h, "POST", path+"/spots", obj{}, "Idempotency-Key", "spots")
	read := func() estate.Plant {
		return ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", box.ID), nil).Plant
	}
	if now := read(); len(taken) != 1 || now.Sun != taken[0].After.Sun || now.Version != box.Version+1 || now.Sun < 0.5 || taken[0].Before.Sun != box.Sun {
		t.Errorf("taken from the plan: %+v, now %+v", taken, now)
	}
	ok[Run[ground.SpotTaken]](h, "POST", path+"/spots", obj{"set": []ground.SpotSet{taken[0].Before}})
	if now := read(); now.Sun != box.Sun || now.Shelter != box.Shelter {
		t.Errorf("set back: %+v", now)
	}
	if code, b := h.do("POST", path+"/spots", obj{"set": []obj{{"plant_id": far.ID, "sun": 1, "shelter": 0, "wall": false}}}); code != 404 {
		t.Errorf("a plant of another property: %d %s", code, b)
	}
	if code, b := h.do("PUT", path, obj{"version": 0, "plan": obj{"latitude": 45, "things": things}}); code != 409 {
		t.Errorf("an old version: %d %s", code, b)
	}
	things[1]["plant_id"] = far.ID
	if code, b := h.do("PUT", path, obj{"version": 1, "plan": obj{"latitude": 45, "things": things}}); code != 422 || !strings.Contains(string(b), "body.plan.things[1].plant_id") {
		t.Errorf("a plant of another property: %d %s", code, b)
	}
	if code, b := h.do("GET", path+".geojson", nil); code != 200 || !strings.Contains(string(b), `"Polygon"`) || !strings.Contains(string(b), "9.41") {
		t.Errorf("GeoJSON: %d %.300s", code, b)
	}
	// Given out and taken in again it is the same; what cannot be is named by its feature, and nothing of it is kept.
	_, given := h.do("GET", path+".geojson", nil)
	was := ok[ground.PlanOut](h, "GET", path, nil)
	code, answer := h.do("POST", fmt.Sprintf("%s.geojson?version=%d", path, was.Version), string(given), "Content-Type", "application/geo+json")
	now := ok[ground.PlanOut](h, "GET", path, nil)
	if code != 200 || now.Version != was.Version+1 || len(now.Plan.Things) != len(was.Plan.Things) || len(now.Loose) != len(was.Loose) {
		t.Errorf("taken in again: %d %.300s; %+v", code, answer, now)
	}
	for i, q := range now.Plan.Things[0].Points {
		if before := was.Plan.Things[0].Points[i]; math.Abs(q.X-before.X) > 0.02 || math.Abs(q.Y-before.Y) > 0.02 {
			t.Errorf("corner %d: %+v, before %+v", i, q, before)
		}
	}
	for says, text := range map[string]string{
		"km from the property": `{"type":"FeatureCollection","features":[{"geometry":{"type":"Point","coordinates":[2.35,48.86]},"properties":{"height_m":5}}]}`,
		"want a GeoJSON":       `{"type":"Feature"}`,
		"must be above 0":      fmt.Sprintf(`{"type":"FeatureCollection","features":[{"geometry":{"type":"Point","coordinates":[9.41,%g]},"properties":{}}]}`, 45.95),
		"cannot be read":       `{"type":"FeatureCollection","features":[{"geometry":{"type":"LineString","coordinates":"here"}}]}`,
	} {
		if code, b := h.do("POST", fmt.Sprintf("%s.geojson?version=%d", path, now.Version), text, "Content-Type", "application/geo+json"); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %.300s", says, code, b)
		}
	}
	if after := ok[ground.PlanOut](h, "GET", path, nil); after.Version != now.Version {
		t.Error("something of a refused file was kept")
	}
	h.do("DELETE", fmt.Sprintf("/plants/%d", box.ID), nil)
	if after := ok[ground.PlanOut](h, "GET", path, nil); len(after.Plan.Things) != 2 || after.Plan.Things[1].Kind != site.Grave || len(after.Loose) != 2 {
		t.Errorf("after the box is removed: %+v", after)
	}
	if code, _ := h.do("GET", fmt.Sprintf("/properties/%d/plan", there.ID+90), nil); code != 404 {
		t.Errorf("no such property: %d", code)
	}
}
