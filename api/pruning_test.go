package api_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/cuts"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// TestReckonPruning: a kept plant brings its size and place along, inline values do without; what cannot be is named by its field.
func TestReckonPruning(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	p := ok[cuts.PruningOut](h, "POST", "/reckon/pruning", obj{"plant": plant.ID, "wanted_m": plant.HeightM - 0.3})
	if p.Species == "" || len(p.Windows) == 0 || p.CutM <= 0 || p.CutM >= plant.HeightM || p.Curve.Days < 365 || len(p.Steps) == 0 || p.Minutes == 0 {
		t.Errorf("a kept camellia: %+v", p.Plan.Text)
	}
	lilac := ok[cuts.PruningOut](h, "POST", "/reckon/pruning", obj{"species": "syringa-vulgaris", "date": "2027-02-20", "property": property.ID, "share": 0.3})
	if lilac.BloomLoss < 0.2 || lilac.Cost.Int() <= 30 || lilac.Windows[0].From.Month() < 5 {
		t.Errorf("a lilac in February: loses %.2f, costs %v, %v", lilac.BloomLoss, lilac.Cost, lilac.Windows)
	}
	south, err := catalogue.Built().Climate("pampas")
	if err != nil {
		t.Fatal(err)
	}
	if p := ok[cuts.PruningOut](h, "POST", "/reckon/pruning", obj{"species": "rosa-bedding", "date": "2027-08-01", "climate": south.Climate}); p.Windows[0].From.Month() < 6 || p.Windows[0].From.Month() > 8 {
		t.Errorf("roses in the south: %v", p.Windows)
	}
	grass := func(cut bool) cuts.PruningOut {
		return ok[cuts.PruningOut](h, "POST", "/reckon/pruning", obj{"species": "miscanthus-sinensis", "property": property.ID, "house_rules": obj{"cut_perennials_at_frost": cut}})
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
		{obj{"plant": plant.ID, "share": 1.9}, "body.share"},
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
	t.Parallel()
	h := newHouse(t)
	here, _, box, rose, _ := h.boxes()
	path := fmt.Sprintf("/properties/%d/cuts", here.ID)
	p := ok[cuts.CutsProposed](h, "GET", path, nil)
	if len(p.Cuts) != 3 || p.Minutes == 0 || p.WasteM3 <= 0 || p.Cuts[0].From > p.Cuts[2].From {
		t.Fatalf("proposed: %+v", p)
	}
	for _, c := range p.Cuts {
		if c.From < h.today || c.To < c.From || c.Asked || c.Title == "" {
			t.Errorf("%+v", c)
		}
	}
	body := obj{"cuts": []obj{{"plant_id": rose.ID}, {"plant_id": box.ID}}}
	kept := ok[Run[work.Order]](h, "POST", path, body, "Idempotency-Key", "cuts").Items
	ok[Run[work.Order]](h, "POST", path, body, "Idempotency-Key", "cuts")
	pruned := slices.DeleteFunc(slices.Clone(kept), func(o work.Order) bool { return o.Kind != job.Prune })
	if len(kept) != 3 || len(pruned) != 2 || kept[0].Kind != job.Prune || kept[0].From < h.today {
		t.Errorf("kept: %+v", kept)
	}
	if code, b := h.do("POST", path, obj{"cuts": []obj{{"plant_id": rose.ID}, {"plant_id": 987}}}); code != 422 || !strings.Contains(string(b), "body.cuts[1]") {
		t.Errorf("one that is not there: %d %s", code, b)
	}
	if n := len(ok[Run[work.Order]](h, "GET", "/orders", nil).Items); n != 3 {
		t.Errorf("%d jobs are kept, want two cuts and a mulch", n)
	}
	camellias, camellia := h.villa()
	hurt := ok[cuts.CutsProposed](h, "GET", fmt.Sprintf("/properties/%d/cuts", camellias.ID), nil).Cuts
	if len(hurt) != 1 || hurt[0].PlantID != camellia.ID || !hurt[0].Hurt || hurt[0].Hold == nil || !strings.HasPrefix(hurt[0].Why, "Waits for a look: the freeze of 26 February") {
		t.Errorf("after the freeze: %+v", hurt)
	}
	asked := 0
	for _, c := range ok[cuts.CutsProposed](h, "GET", path, nil).Cuts {
		if c.Asked {
			asked++
		}
	}
	detail := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", kept[0].ID), nil)
	if asked != 2 || len(detail.Reasons) == 0 || len(detail.Costs) < 300 {
		t.Errorf("%d stand; %d reasons over %d days", asked, len(detail.Reasons), len(detail.Costs))
	}
	by := ok[work.OrderDetail](h, "POST", "/orders", obj{"property_id": here.ID, "plants": []int64{rose.ID}, "kind": "prune", "purpose": "deadhead", "title": "Dead-head", "minutes": 20})
	if by.From.Month() < 5 || by.Params.Purpose != "deadhead" {
		t.Errorf("dead-heading by hand: %+v", by.Order)
	}
	if code, b := h.do("POST", "/orders", obj{"property_id": here.ID, "plants": []int64{rose.ID}, "kind": "prune", "purpose": "haircut", "title": "Cut", "minutes": 20}); code != 422 || !strings.Contains(string(b), "body.purpose") {
		t.Errorf("no purpose: %d %s", code, b)
	}
}

// TestRenewalOverYears: an old shrub's renewal is kept as three jobs, a third a year; once the first is done, the next year's
// proposal knows which third comes next, and nothing is proposed again for this year.
func TestRenewalOverYears(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	old := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "forsythia-intermedia", "height_m": 2.4})
	path := fmt.Sprintf("/properties/%d/cuts", here.ID)
	find := func() (c cuts.CutProposed) {
		for _, x := range ok[cuts.CutsProposed](h, "GET", path, nil).Cuts {
			if x.PlantID == old.ID {
				c = x
			}
		}
		return c
	}
	if c := find(); c.Purpose != "renew" || c.Part != 1 || c.From.Month() < 3 || c.From.Month() > 5 {
		t.Fatalf("an old forsythia: %+v", c)
	}
	kept := ok[Run[work.Order]](h, "POST", path, obj{"cuts": []obj{{"plant_id": old.ID}}}).Items
	var thirds []work.Order
	for _, o := range kept {
		if o.Kind == job.Prune {
			thirds = append(thirds, o)
		}
	}
	if len(thirds) != 3 {
		t.Fatalf("kept: %+v", kept)
	}
	for i, o := range thirds {
		if o.From.Year() != 2027+i || !strings.HasSuffix(o.Title, fmt.Sprintf("%d of 3", i+1)) {
			t.Errorf("third %d: %s from %s", i+1, o.Title, o.From)
		}
	}
	if after := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", thirds[1].ID), nil).After; len(after) != 1 || after[0].MinDays < 250 {
		t.Errorf("the second third comes after: %+v", after)
	}
	if !find().Asked {
		t.Error("it is proposed again though its jobs stand")
	}
	h.today = thirds[0].From + 3
	ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", thirds[0].ID), obj{"state": "done", "version": thirds[0].Version})
	for _, o := range thirds[1:] {
		if code, b := h.do("DELETE", fmt.Sprintf("/orders/%d?version=%d", o.ID, o.Version), nil); code >= 300 {
			t.Fatalf("drop: %d %s", code, b)
		}
	}
	if c := find(); c.Part != 2 || c.Asked || c.From.Year() != 2028 || c.Done != h.today {
		t.Errorf("after the first third: %+v", c)
	}
}

// TestHouseRulesMoveTheYear: a rule of the firm moves what stands in the year; a property's own rule comes before it.
func TestHouseRulesMoveTheYear(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.today = day.Of(2027, 9, 20)
	here, there, _, rose, _ := h.boxes()
	other := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": there.ID, "species": "rosa-bedding", "height_m": 0.8})
	job := func(p garden.PropertyOut, plant estate.PlantOut) int64 {
		return ok[work.OrderDetail](h, "POST", "/orders", obj{"property_id": p.ID, "plants": []int64{plant.ID}, "kind": "prune", "purpose": "shape", "title": "Cut roses", "minutes": 20}).ID
	}
	mine, theirs := job(here, rose), job(there, other)
	from := func(id int64) int {
		return int(ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", id), nil).From.Month())
	}
	if from(mine) > 4 || from(theirs) > 4 {
		t.Fatalf("at bud swell: months %d and %d", from(mine), from(theirs))
	}
	ok[FirmOut](h, "PUT", "/firm", obj{"name": "Ours", "units": "metric", "week_start": 1, "rules": obj{"roses": "winter"}, "version": 0})
	if from(mine) < 11 || from(theirs) < 11 {
		t.Errorf("in winter: months %d and %d", from(mine), from(theirs))
	}
	ok[garden.PropertyOut](h, "PUT", fmt.Sprintf("/properties/%d", there.ID), obj{"name": "Mill", "climate_type": "lake-foothills", "rules": obj{"roses": "bud swell"}, "version": 1})
	if from(mine) < 11 || from(theirs) > 4 {
		t.Errorf("the mill's own rule: months %d and %d", from(mine), from(theirs))
	}
	p := ok[cuts.PruningOut](h, "POST", "/reckon/pruning", obj{"plant": other.ID})
	if p.Rule != "Roses are cut at bud swell" {
		t.Errorf("the rule that spoke: %q", p.Rule)
	}
	for path, body := range map[string]obj{
		"/firm":                                 {"name": "Ours", "units": "metric", "week_start": 1, "rules": obj{"roses": "never"}, "version": 1},
		fmt.Sprintf("/properties/%d", there.ID): {"name": "Mill", "climate_type": "lake-foothills", "rules": obj{"roses": "never"}, "version": 2},
	} {
		if code, b := h.do("PUT", path, body); code != 422 || !strings.Contains(string(b), "body.rules.roses") {
			t.Errorf("%s: %d %s", path, code, b)
		}
	}
}

// TestSickCuts: what was found and is to be cut out is proposed as that, with its waste apart; another purpose may be wanted in its place.
func TestSickCuts(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	ok[finds.Find](h, "POST", "/finds", obj{"plant_id": box.ID, "cause": "box-blight", "certainty": 0.9, "share": 0.3, "how": "walk"})
	path := fmt.Sprintf("/properties/%d/cuts", here.ID)
	find := func(query string) cuts.CutProposed {
		for _, c := range ok[cuts.CutsProposed](h, "GET", path+query, nil).Cuts {
			if c.PlantID == box.ID {
				return c
			}
		}
		return cuts.CutProposed{}
	}
	if c := find(""); c.Purpose != "sanitation" || c.Sick == "" || !strings.Contains(c.Why, "never on the compost") {
		t.Errorf("sick box: %+v", c)
	}
	query := fmt.Sprintf("?plant=%d&purpose=shape", box.ID)
	if c := find(query); c.Purpose != "shape" || c.Sick != "" {
		t.Errorf("another purpose: %+v", c)
	}
	if code, b := h.do("GET", path+fmt.Sprintf("?plant=%d&purpose=haircut", box.ID), nil); code != 422 || !strings.Contains(string(b), "purpose") {
		t.Errorf("no purpose: %d %s", code, b)
	}
}

// TestListsAgree: after the weather of a day the lists say of every job what its lane says, also where two of the same kind on the same
// kind of plant ask for different things.
func TestListsAgree(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	wanted := []obj{}
	for _, purpose := range []string{"clear dead", "renew", "shape"} {
		p := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "forsythia-intermedia", "height_m": 2})
		wanted = append(wanted, obj{"plant_id": p.ID, "purpose": purpose})
		for _, c := range []string{"black-spot", "aphids"} {
			r := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "rosa-bedding", "height_m": 1})
			f := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": r.ID, "cause": c, "certainty": 0.9, "share": 0.3})
			ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", f.ID), nil)
		}
	}
	ok[Run[work.Order]](h, "POST", fmt.Sprintf("/properties/%d/cuts", here.ID), obj{"cuts": wanted})
	h.today++
	listed := map[int64]work.Order{}
	for _, o := range ok[Run[work.Order]](h, "GET", "/orders?limit=200", nil).Items {
		listed[o.ID] = o
	}
	windows := map[string]bool{}
	for _, l := range ok[work.LanesPage](h, "GET", "/year?limit=100", nil).Items {
		o := listed[l.ID]
		if o.From != l.From || o.To != l.To || o.BestDay != l.BestDay {
			t.Errorf("%s: the list says %s to %s, best %s; its lane %s to %s, best %s", l.Title, o.From, o.To, o.BestDay, l.From, l.To, l.BestDay)
		}
		if l.Kind == job.Prune {
			windows[fmt.Sprint(l.From, l.To)] = true
		}
	}
	if len(windows) < 3 {
		t.Errorf("cuts for different purposes have the same windows: %v", windows)
	}
}
