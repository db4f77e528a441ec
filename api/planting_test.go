package api_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/replacement"
	"mezzadro/core/site"
	"mezzadro/house/estate"
	"mezzadro/house/ground"
	"mezzadro/house/work"
)

// TestOwnWord: a firm's price counts the cost of a bed, what it bans is left out, and what it lost again and again is
// ranked lower; taken back, all is as before.
func TestOwnWord(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	score := func(more obj) ground.ReplacementOut {
		body := obj{"property": here.ID, "spot": obj{"light": "full sun"}, "only": []string{"syringa-vulgaris", "lavandula-angustifolia", "nepeta-faassenii"}}
		for k, v := range more {
			body[k] = v
		}
		return ok[ground.ReplacementOut](h, "POST", "/reckon/replacement", body)
	}
	of := func(o ground.ReplacementOut, id string) ground.Replacing {
		k := slices.IndexFunc(o.Ranked, func(r ground.Replacing) bool { return r.Species == id })
		if k < 0 {
			return ground.Replacing{}
		}
		return o.Ranked[k]
	}
	before := score(nil)
	said := ok[ground.KindWord](h, "PUT", "/kinds/lavandula-angustifolia", obj{"price": 4, "banned": false})
	if said.Price != 4 || said.Common == "" {
		t.Errorf("said: %+v", said)
	}
	bed := score(obj{"area_m2": 10, "rows": true, "bed": []obj{{"species": "lavandula-angustifolia", "share": 0.5, "spacing_m": 0.33}, {"species": "nepeta-faassenii", "share": 0.5, "spacing_m": 0.5}}})
	if bed.Bed == nil || bed.Bed.Lines[0].Count != 46 || bed.Bed.Cost != 184 || of(bed, "lavandula-angustifolia").Price != 4 {
		t.Errorf("a bed: %+v", bed.Bed)
	}
	lost := score(obj{"record": []obj{{"species": "syringa-vulgaris", "stood": 2, "lost": 8}}})
	if a, b := of(before, "syringa-vulgaris"), of(lost, "syringa-vulgaris"); b.Score > a.Score-8 || !slices.ContainsFunc(b.Parts, func(p replacement.Part) bool {
		return p.Name == "own record" && strings.Contains(p.Text, "8 were lost")
	}) {
		t.Errorf("eight of ten lilacs were lost: %g, before %g: %+v", b.Score, a.Score, b.Parts)
	}
	ok[ground.KindWord](h, "PUT", "/kinds/syringa-vulgaris", obj{"price": 0, "banned": true})
	if o := score(nil); len(o.Out) != 1 || !strings.Contains(o.Out[0].Out[0], "must not be planted") {
		t.Errorf("banned: %+v", o.Out)
	}
	if list := ok[Run[ground.KindWord]](h, "GET", "/kinds", nil).Items; !slices.ContainsFunc(list, func(k ground.KindWord) bool { return k.Banned }) {
		t.Errorf("the firm's words: %+v", list)
	}
	ok[ground.KindWord](h, "PUT", "/kinds/syringa-vulgaris", obj{"price": 0, "banned": false})
	if o := score(nil); of(o, "syringa-vulgaris").Score != of(before, "syringa-vulgaris").Score {
		t.Error("taken back, it is not as before")
	}
	if code, b := h.do("PUT", "/kinds/moss", obj{"price": 1, "banned": false}); code != 404 {
		t.Errorf("a kind that is not there: %d %s", code, b)
	}
	if code, b := h.do("PUT", "/kinds/syringa-vulgaris", obj{"price": -1, "banned": false}); code != 422 || !strings.Contains(string(b), "price") {
		t.Errorf("a price below nothing: %d %s", code, b)
	}
	for says, more := range map[string]obj{
		"area_m2": {"bed": []obj{{"species": "nepeta-faassenii", "share": 0.5}}}, "bed[0].species": {"area_m2": 3, "bed": []obj{{"species": "moss", "share": 0.5}}},
	} {
		more["property"] = here.ID
		if code, b := h.do("POST", "/reckon/replacement", more); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
}

// TestPlantingJobs: two kinds and the water of their first season in one write, the water after both; sent twice it is
// one planting; a kind that is not there makes nothing.
func TestPlantingJobs(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	path := fmt.Sprintf("/properties/%d/planting", here.ID)
	standing := func() []work.Order {
		return ok[Run[work.Order]](h, "GET", fmt.Sprintf("/orders?list=standing&limit=200&property=%d", here.ID), nil).Items
	}
	n := len(standing())
	ok[ground.KindWord](h, "PUT", "/kinds/lavandula-angustifolia", obj{"price": 4, "banned": false})
	body := obj{"kinds": []obj{{"species": "lavandula-angustifolia", "count": 46, "spacing_m": 0.33}, {"species": "syringa-vulgaris"}}, "where": "Top bed"}
	got := ok[ground.Planted](h, "POST", path, body, "Idempotency-Key", "planting-1")
	again := ok[ground.Planted](h, "POST", path, body, "Idempotency-Key", "planting-1")
	if len(got.Orders) != 3 || !slices.Equal(got.Orders, again.Orders) || got.Cost != 184 || got.Litres < 100 || len(standing()) != n+3 {
		t.Fatalf("planted: %+v, again %+v, %d jobs", got, again, len(standing())-n)
	}
	water := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", got.Orders[2]), nil)
	if len(water.After) != 2 || !strings.Contains(water.Title, "Water the new") || !strings.Contains(strings.Join(water.Why, " "), "First season") {
		t.Errorf("the water: %+v", water)
	}
	first := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", got.Orders[0]), nil)
	if !strings.HasPrefix(first.Title, "Plant Lavender") && !strings.Contains(first.Title, "× 46, Top bed") || strings.Contains(strings.Join(first.Why, " "), "184") {
		t.Errorf("the planting: %q %q", first.Title, first.Why)
	}
	if code, b := h.do("POST", path, obj{"kinds": []obj{{"species": "syringa-vulgaris"}, {"species": "moss"}}}); code != 422 || !strings.Contains(string(b), "kinds[1].species") || len(standing()) != n+3 {
		t.Errorf("moss: %d %s, %d jobs", code, b, len(standing())-n)
	}
	if code, pdf := h.do("GET", fmt.Sprintf("/properties/%d/plan.pdf", here.ID), nil); code != 200 || !strings.HasPrefix(string(pdf), "%PDF") {
		t.Errorf("the planting plan: %d %.60s", code, pdf)
	}
}

// TestPlanFurther: the way round goes into the record and back; what dies leaves its grave on the plan; what grows too
// large and what was paced are told; the bloom of a year has its gaps; a picture lies under the plan.
func TestPlanFurther(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	lilac := ok[estate.Plant](h, "POST", "/plants", obj{"property_id": here.ID, "species": "syringa-vulgaris", "height_m": 1.2})
	path := fmt.Sprintf("/properties/%d/plan", here.ID)
	things := []obj{
		{"id": "gate", "kind": "gate", "points": []obj{{"x": 0, "y": 0}}},
		{"id": "path", "kind": "path", "name": "the drive", "points": []obj{{"x": 0, "y": 8}, {"x": 20, "y": 8}}},
		{"id": "a", "kind": "plant", "plant_id": lilac.ID, "points": []obj{{"x": 3, "y": 9}}},
		{"id": "b", "kind": "plant", "plant_id": box.ID, "points": []obj{{"x": 2, "y": 1}}},
	}
	kept := ok[ground.PlanOut](h, "PUT", path, obj{"version": 0, "plan": obj{"latitude": 46, "slope_pct": 6, "falls_to_deg": 180, "wind_from": "west", "things": things}})
	if kept.Plan.SlopePct != 6 || kept.Plan.WindFrom != "west" {
		t.Errorf("kept: %+v", kept.Plan)
	}
	before := ok[Run[ground.StopSet]](h, "POST", path+"/stops", obj{}).Items
	stop := func(id int64) int { return ok[estate.Plant](h, "GET", fmt.Sprintf("/plants/%d", id), nil).Stop }
	if len(before) != 2 || stop(box.ID) != 10 || stop(lilac.ID) != 20 {
		t.Errorf("the way round: %+v, box %d, lilac %d", before, stop(box.ID), stop(lilac.ID))
	}
	ok[Run[ground.StopSet]](h, "POST", path+"/stops", obj{"set": before})
	if stop(lilac.ID) != 0 {
		t.Errorf("set back: %d", stop(lilac.ID))
	}
	o := ok[ground.SiteOut](h, "POST", "/reckon/site", obj{"plan": kept.Plan, "plant": "a", "paced": obj{"a": obj{"x": 0, "y": 0}, "b": obj{"x": 4, "y": 0}, "from_a": 3, "from_b": 5, "left": true}})
	if o.Paced == nil || *o.Paced != (site.At{X: 0, Y: 3}) || o.Grows == nil || len(o.Grows.Meets) != 1 || o.Grows.Meets[0].What != "path" {
		t.Errorf("paced %v, grows %+v", o.Paced, o.Grows)
	}
	if code, b := h.do("POST", "/reckon/site", obj{"plan": kept.Plan, "paced": obj{"a": obj{"x": 0, "y": 0}, "b": obj{"x": 40, "y": 0}, "from_a": 3, "from_b": 5}}); code != 422 || !strings.Contains(string(b), "paced.from_b") {
		t.Errorf("what does not meet: %d %s", code, b)
	}
	h.do("DELETE", fmt.Sprintf("/plants/%d", lilac.ID), nil)
	after := ok[ground.PlanOut](h, "GET", path, nil)
	grave := after.Plan.Thing("a")
	if grave == nil || grave.Kind != site.Grave || grave.Species != "syringa-vulgaris" || grave.Year == 0 {
		t.Fatalf("its grave: %+v", grave)
	}
	ok[ground.PlanOut](h, "PUT", path, obj{"version": after.Version, "plan": after.Plan})
	asked := ok[ground.ReplacementOut](h, "POST", "/reckon/replacement", obj{"property": here.ID, "plan": after.Plan, "at": obj{"x": 3, "y": 9}, "only": []string{"syringa-vulgaris"}})
	if len(asked.Ranked) != 1 || !slices.ContainsFunc(asked.Ranked[0].Parts, func(p replacement.Part) bool { return p.Name == "soil trouble" }) || asked.Spot.PathM != 1 {
		t.Errorf("at the grave: %+v", asked)
	}
	h.do("POST", fmt.Sprintf("/plants/%d/restore", lilac.ID), nil)
	if back := ok[ground.PlanOut](h, "GET", path, nil); back.Plan.Thing("a") != nil || !slices.ContainsFunc(back.Loose, func(l ground.LoosePlant) bool { return l.ID == lilac.ID }) {
		t.Errorf("brought back it has no grave, and no place: %+v %+v", back.Plan.Thing("a"), back.Loose)
	}
	year := ok[replacement.Calendar](h, "GET", fmt.Sprintf("/properties/%d/bloom", here.ID), nil)
	if len(year.Plants) != 2 || year.Months[4] == 0 || !slices.Contains(year.Gaps, 3) || slices.Contains(year.Gaps, 7) || !slices.Contains(year.Bees, 11) {
		t.Errorf("the bloom of the year: %+v", year)
	}
}
