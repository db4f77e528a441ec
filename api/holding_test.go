package api_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/region"
	"mezzadro/house/cuts"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/ground"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// TestWhatHoldsHere: by its clock's country, or its state once that is entered, a property is told what holds there, and
// cuts, planting and day sheets mind it.
func TestWhatHoldsHere(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	lot := obj{"name": "Lakeshore lot", "climate_type": "great-lakes", "zone": "America/Chicago"}
	property := ok[garden.PropertyOut](h, "POST", "/properties", lot)
	holding := func() garden.Holding {
		return ok[garden.Holding](h, "GET", fmt.Sprintf("/properties/%d/holding", property.ID), nil)
	}
	has := func(id string) bool {
		return slices.ContainsFunc(holding().Rules, func(r region.Rule) bool { return r.ID == id })
	}
	if k := holding(); property.Lies != "US" || k.Lies != "US" || k.Sure || !has("wires-us") || has("oak-wilt-north") {
		t.Errorf("by its clock: %s, %+v", property.Lies, k)
	}
	lot["region"], lot["version"] = "us-wi", property.Version
	if p := ok[garden.PropertyOut](h, "PUT", fmt.Sprintf("/properties/%d", property.ID), lot); p.Region != "US-WI" || p.Lies != "US-WI" {
		t.Errorf("kept: %q, %q", p.Region, p.Lies)
	}
	if !has("oak-wilt-north") || !holding().Sure {
		t.Error("in Wisconsin oaks are cut in spring")
	}
	lot["region"], lot["version"] = "US-ZZ", property.Version+1
	if code, b := h.do("PUT", fmt.Sprintf("/properties/%d", property.ID), lot); code != 422 || !strings.Contains(string(b), "region") {
		t.Errorf("a state that is none: %d %s", code, b)
	}
	oak := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "quercus-rubra", "height_m": 9})
	h.today = day.Of(2027, 5, 10)
	bench := ok[cuts.PruningOut](h, "POST", "/reckon/pruning", obj{"property": property.ID, "plant": oak.ID, "species": "quercus-rubra", "height_m": 9, "date": "2027-05-10"})
	all := strings.Join(bench.Cautions, " ")
	if best := bench.Plan.Best; strings.Contains(all, "oak wilt") != (best.Month() >= 4 && best.Month() <= 7) || !strings.Contains(all, "heritage") {
		t.Errorf("cut on %s: %s", best, all)
	}
	// Callery pear is not planted in Ohio, and may be elsewhere.
	for state, out := range map[string]bool{"US-OH": true, "US-MN": false} {
		place := obj{"name": state, "climate_type": "upland-south", "zone": "America/New_York", "region": state}
		p := ok[garden.PropertyOut](h, "POST", "/properties", place)
		r := ok[ground.ReplacementOut](h, "POST", "/reckon/replacement", obj{"property": p.ID, "only": []string{"pyrus-calleryana"}, "spot": obj{}})
		if refused := len(r.Out) == 1 && strings.Contains(strings.Join(r.Out[0].Out, " "), "must not be planted"); refused != out {
			t.Errorf("%s: %+v %+v", state, r.Out, r.Ranked)
		}
	}
}

// TestSprayingForHire: where a country was entered in which any spray for hire needs a licence, its jobs ask for one, and
// a proposal gives them to who has it, or the wider one; a country guessed by the clock binds nobody.
func TestSprayingForHire(t *testing.T) {
	t.Parallel()
	for entered, binds := range map[string]bool{"": false, "IT": true, "NZ": false} {
		h := newHouse(t)
		sunny, _, _, find := h.azaleas()
		p := ok[garden.PropertyOut](h, "GET", fmt.Sprintf("/properties/%d", sunny.PropertyID), nil)
		place := obj{"name": p.Name, "climate_type": p.ClimateType, "region": entered, "version": p.Version}
		ok[garden.PropertyOut](h, "PUT", fmt.Sprintf("/properties/%d", p.ID), place)
		ok[treat.Product](h, "POST", "/products", obj{"name": "Soap", "active": "soap", "unit": "mL", "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{}})
		ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", find.ID), obj{})
		asked := 0
		for _, o := range ok[Run[work.Order]](h, "GET", "/orders", nil).Items {
			d := h.order(o.ID)
			if d.Params.Use == "soap" && slices.Contains(d.Skills, job.Spraying) {
				asked++
			}
		}
		if (asked > 0) != binds {
			t.Errorf("entered %q: %d sprays ask for the licence", entered, asked)
		}
	}
}
