package api

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
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
