package api

import (
	"fmt"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/job"
	"mezzadro/house"
)

// TestReckonPruning: a kept plant brings its size and place along, inline values do without; what cannot be is named by its field.
func TestReckonPruning(t *testing.T) {
	h := newHouse(t)
	property, plant := h.villa()
	p := ok[house.PruningOut](h, "POST", "/reckon/pruning", obj{"plant": plant.ID, "wanted_m": plant.HeightM - 0.3})
	if p.Species == "" || len(p.Windows) == 0 || p.CutM <= 0 || p.CutM >= plant.HeightM || p.Curve.Days < 365 || len(p.Steps) == 0 || p.Minutes == 0 {
		t.Errorf("a kept camellia: %+v", p.Plan.Text)
	}
	lilac := ok[house.PruningOut](h, "POST", "/reckon/pruning", obj{"species": "syringa-vulgaris", "date": "2027-02-20", "property": property.ID, "share": 0.3})
	if lilac.BloomLoss < 0.2 || lilac.Cost.Int() <= 30 || lilac.Windows[0].From.Month() < 5 {
		t.Errorf("a lilac in February: loses %.2f, costs %v, %v", lilac.BloomLoss, lilac.Cost, lilac.Windows)
	}
	south, err := catalogue.Built().Climate("pampas")
	if err != nil {
		t.Fatal(err)
	}
	if p := ok[house.PruningOut](h, "POST", "/reckon/pruning", obj{"species": "rosa-bedding", "date": "2027-08-01", "climate": south.Climate}); p.Windows[0].From.Month() < 6 || p.Windows[0].From.Month() > 8 {
		t.Errorf("roses in the south: %v", p.Windows)
	}
	grass := func(cut bool) house.PruningOut {
		return ok[house.PruningOut](h, "POST", "/reckon/pruning", obj{"species": "miscanthus-sinensis", "property": property.ID, "house_rules": obj{"cut_perennials_at_frost": cut}})
	}
	if now, later := grass(true), grass(false); now.Rule == later.Rule || now.Windows[0].From.Month() == later.Windows[0].From.Month() {
		t.Errorf("house rule: %s %v, %s %v", now.Rule, now.Windows, later.Rule, later.Windows)
	}
	for _, c := range []struct {
		body obj
		says string
	}{
		{obj{"species": "triffid", "property": property.ID}, "body.species"},
		{obj{"species": "rosa-bedding"}, "body"},
		{obj{"plant": plant.ID, "wanted_m": 12}, "body.wanted_m"},
		{obj{"plant": plant.ID, "share": 0.9}, "body.share"},
		{obj{"plant": plant.ID, "purpose": "haircut"}, "body.purpose"},
	} {
		if code, b := h.do("POST", "/reckon/pruning", c.body); code != 422 || !strings.Contains(string(b), c.says) {
			t.Errorf("%v: %d %s", c.body, code, b)
		}
	}
	if code, _ := h.do("POST", "/reckon/pruning", obj{"plant": 999}); code != 404 {
		t.Errorf("a plant that is not there: %d", code)
	}
}

// TestPlanCuts: a property's cuts are proposed by kind and season, some are kept in one write, those kept stand and follow the
// season, and a plant for which none is proposed keeps nothing at all.
func TestPlanCuts(t *testing.T) {
	h := newHouse(t)
	here, _, box, rose, _ := h.boxes()
	path := fmt.Sprintf("/properties/%d/cuts", here.ID)
	p := ok[house.CutsProposed](h, "GET", path, nil)
	if len(p.Cuts) != 3 || p.Minutes == 0 || p.WasteM3 <= 0 || p.Cuts[0].From > p.Cuts[2].From {
		t.Fatalf("proposed: %+v", p)
	}
	for _, c := range p.Cuts {
		if c.From < h.today || c.To < c.From || c.Asked || c.Title == "" {
			t.Errorf("%+v", c)
		}
	}
	body := obj{"plants": []int64{rose.ID, box.ID}}
	kept := ok[Run[house.Order]](h, "POST", path, body, "Idempotency-Key", "cuts").Items
	ok[Run[house.Order]](h, "POST", path, body, "Idempotency-Key", "cuts")
	if len(kept) != 2 || kept[0].Kind != job.Prune || kept[0].From < h.today {
		t.Errorf("kept: %+v", kept)
	}
	if code, b := h.do("POST", path, obj{"plants": []int64{rose.ID, 987}}); code != 422 || !strings.Contains(string(b), "body.plants[1]") {
		t.Errorf("one that is not there: %d %s", code, b)
	}
	if n := len(ok[Run[house.Order]](h, "GET", "/orders", nil).Items); n != 2 {
		t.Errorf("%d jobs are kept, want 2", n)
	}
	camellias, camellia := h.villa()
	hurt := ok[house.CutsProposed](h, "GET", fmt.Sprintf("/properties/%d/cuts", camellias.ID), nil).Cuts
	if len(hurt) != 1 || hurt[0].PlantID != camellia.ID || !hurt[0].Hurt || !strings.HasPrefix(hurt[0].Why, "Look at it first") {
		t.Errorf("after the freeze: %+v", hurt)
	}
	asked := 0
	for _, c := range ok[house.CutsProposed](h, "GET", path, nil).Cuts {
		if c.Asked {
			asked++
		}
	}
	detail := ok[house.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", kept[0].ID), nil)
	if asked != 2 || len(detail.Reasons) == 0 || len(detail.Costs) < 300 {
		t.Errorf("%d stand; %d reasons over %d days", asked, len(detail.Reasons), len(detail.Costs))
	}
	by := ok[house.OrderDetail](h, "POST", "/orders", obj{"property_id": here.ID, "plants": []int64{rose.ID}, "kind": "prune", "purpose": "deadhead", "title": "Dead-head", "minutes": 20})
	if by.From.Month() < 5 || by.Params.Purpose != "deadhead" {
		t.Errorf("dead-heading by hand: %+v", by.Order)
	}
	if code, b := h.do("POST", "/orders", obj{"property_id": here.ID, "plants": []int64{rose.ID}, "kind": "prune", "purpose": "haircut", "title": "Cut", "minutes": 20}); code != 422 || !strings.Contains(string(b), "body.purpose") {
		t.Errorf("no purpose: %d %s", code, b)
	}
}
