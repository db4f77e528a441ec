package api_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// gall has a bed of maples with galls on them, on a spring day.
func (h *opened) gall() (here garden.PropertyOut, maples estate.PlantOut, find finds.Find) {
	h.t.Helper()
	h.today = day.Of(2027, 4, 10)
	here = ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Priory", "climate_type": "lake-foothills"})
	maples = ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "acer-palmatum", "label": "Basin", "height_m": 1.5, "count": 12})
	find = ok[finds.Find](h, "POST", "/finds", obj{"plant_id": maples.ID, "cause": "gall-mite", "certainty": 0.9, "share": 0.3, "how": "walk"})
	return here, maples, find
}

// oil enters a card and a lot of it.
func (h *opened) oil(onHand float64) treat.Product {
	h.t.Helper()
	p := ok[treat.Product](h, "POST", "/products", obj{"name": "Oil, 1 L", "active": "oil", "unit": "mL", "rates": []obj{{"amount": 20, "per": "L"}},
		"packs": []obj{{"size": 1000, "price": 14}}, "supplier": "Farm shop"})
	if onHand > 0 {
		p = ok[treat.Product](h, "POST", fmt.Sprintf("/products/%d/stock", p.ID), obj{"amount": onHand, "lot": "A 17"})
	}
	return p
}

// TestTreatmentLife: from the find over two sprays three weeks apart, with rain between, to the look whether it helped; without a card
// the label is asked for and nothing is made up; the record knows what was used, and a tick taken back takes it back.
func TestTreatmentLife(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, maples, find := h.gall()
	path := fmt.Sprintf("/finds/%d/treatment", find.ID)
	a := ok[treat.Treatment](h, "GET", path, nil)
	if a.Answer.Rung != "soft" || len(a.Answer.Steps) != 2 || a.Answer.Steps[1].Amount.Product != 0 || !strings.Contains(a.Answer.Steps[1].Amount.Formula, "no product card") {
		t.Fatalf("galls: %+v", a.Answer)
	}
	oil := h.oil(500)
	if a = ok[treat.Treatment](h, "GET", path, nil); a.Answer.Steps[1].Amount.Product <= 0 || a.Answer.Treated != 12 {
		t.Errorf("with a card: %+v", a.Answer.Steps[1].Amount)
	}
	kept := ok[treat.Treatment](h, "POST", path, nil, "Idempotency-Key", "keep")
	ok[treat.Treatment](h, "POST", path, nil, "Idempotency-Key", "keep")
	if len(kept.Jobs) != 2 || kept.Jobs[0].Kind != job.Treat || kept.Jobs[0].Origin != job.Programme {
		t.Fatalf("kept: %+v", kept.Jobs)
	}
	tick := func(o work.Order, use obj) (int, string) {
		body := obj{"state": "done", "version": o.Version}
		if use != nil {
			body["use"] = use
		}
		code, b := h.do("PUT", fmt.Sprintf("/orders/%d/state", o.ID), body)
		return code, string(b)
	}
	if code, b := tick(kept.Jobs[0], nil); code != 200 {
		t.Fatalf("cut out: %d %s", code, b)
	}
	spray := ok[treat.Treatment](h, "GET", path, nil).Jobs[0]
	h.today = spray.BestDay // its flowers are over
	for says, use := range map[string]obj{
		"body.use.amount":     {"product_id": oil.ID, "spray_l": 20},
		"body.use.begun":      {"product_id": oil.ID, "amount": 10, "begun": "half six"},
		"body.use.ended":      {"product_id": oil.ID, "amount": 10, "begun": "07:10", "ended": "06:55"},
		"body.use.product_id": {"product_id": 99, "amount": 10},
	} {
		if code, b := tick(spray, use); code != 422 || !strings.Contains(b, says) {
			t.Errorf("%v: %d %s", use, code, b)
		}
	}
	if n := len(ok[Run[treat.Used]](h, "GET", "/uses", nil).Items); n != 1 {
		t.Fatalf("%d lines in the record, want the cutting alone", n)
	}
	if code, b := tick(spray, obj{"product_id": oil.ID, "amount": 60, "spray_l": 3, "who": "Rosa"}); code != 200 {
		t.Fatalf("sprayed: %d %s", code, b)
	}
	sprayed := h.today
	next := ok[treat.Treatment](h, "GET", path, nil).Jobs
	if len(next) != 1 || next[0].BestDay < sprayed+20 || next[0].BestDay > sprayed+28 {
		t.Fatalf("three weeks on: %+v", next)
	}
	if p := ok[Run[treat.Product]](h, "GET", "/products", nil).Items[0]; p.OnHand != 440 {
		t.Errorf("on hand %g, want 440", p.OnHand)
	}
	// Rain the night after: it is asked for again at once, and the repeat hangs on that.
	csv := "time,temp_c,rain_mm\n"
	for i := range 24 {
		csv += sprayed.Time().Add(time.Duration(16+i)*time.Hour).Format(time.RFC3339) + ",11,1.5\n"
	}
	h.today++
	h.today++
	if code, b := h.do("POST", fmt.Sprintf("/properties/%d/weather", here.ID), csv, "Content-Type", "text/csv"); code != 200 {
		t.Fatalf("weather: %d %s", code, b)
	}
	again := ok[treat.Treatment](h, "GET", path, nil)
	if len(again.Jobs) != 1 || !strings.HasPrefix(again.Jobs[0].Title, "Again: ") || again.Jobs[0].BestDay > h.today+8 || again.History[len(again.History)-1].RainMM < 5 {
		t.Fatalf("after the rain: %+v, %+v", again.Jobs, again.History)
	}
	if code, b := tick(again.Jobs[0], obj{"product_id": oil.ID, "amount": 60, "spray_l": 3}); code != 200 {
		t.Fatalf("again: %d %s", code, b)
	}
	second := ok[treat.Treatment](h, "GET", path, nil).Jobs
	if len(second) != 1 || second[0].BestDay < h.today+20 {
		t.Fatalf("the second: %+v", second)
	}
	h.today += 22
	if code, b := tick(second[0], obj{"product_id": oil.ID, "amount": 60, "spray_l": 3}); code != 200 {
		t.Fatalf("second: %d %s", code, b)
	}
	end := ok[treat.Treatment](h, "GET", path, nil)
	if end.Answer.Ends != "done" || len(end.Jobs) != 1 || end.Jobs[0].Kind != job.Look {
		t.Errorf("at the end: %s, %+v", end.Answer.Text, end.Jobs)
	}
	uses := ok[Run[treat.Used]](h, "GET", fmt.Sprintf("/uses?property=%d", here.ID), nil).Items
	if len(uses) != 4 || uses[0].Product != "Oil, 1 L" || uses[0].Plants != 12 || uses[0].PlantID != maples.ID || uses[2].Who != "Rosa" || uses[0].Cause == "" {
		t.Errorf("the record: %+v", uses)
	}
	// The last tick is taken back: its line and the look go, the job stands again.
	done := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", second[0].ID), nil)
	ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", done.ID), obj{"state": "waiting", "version": done.Version})
	back := ok[treat.Treatment](h, "GET", path, nil)
	if len(back.Jobs) != 1 || back.Jobs[0].ID != second[0].ID || len(ok[Run[treat.Used]](h, "GET", "/uses", nil).Items) != 3 {
		t.Errorf("taken back: %+v", back.Jobs)
	}
	if code, b := h.do("GET", "/uses.csv", nil); code != 200 || !strings.Contains(string(b), "Rosa") || strings.Count(string(b), "\n") != 4 {
		t.Errorf("CSV: %d %s", code, b)
	}
	if code, b := h.do("GET", "/uses.pdf", nil); code != 200 || !strings.HasPrefix(string(b), "%PDF") {
		t.Errorf("PDF: %d %.40s", code, b)
	}
}

// TestShopping: what standing treatments take, over all properties, in packs, before it is bought; what has no card says so.
func TestShopping(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, _, find := h.gall()
	there := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Mill", "climate_type": "lake-foothills"})
	laurel := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": there.ID, "species": "laurus-nobilis", "height_m": 2, "count": 4})
	scale := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": laurel.ID, "cause": "soft-scale", "certainty": 0.9, "share": 0.3})
	for _, f := range []finds.Find{find, scale} {
		ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", f.ID), nil)
	}
	l := ok[treat.Shopping](h, "GET", "/shopping", nil)
	if len(l.Lines) != 1 || l.Lines[0].Jobs != 2 || l.Lines[0].Missing == "" || l.Price != 0 {
		t.Fatalf("without a card: %+v", l)
	}
	oil := h.oil(0)
	l = ok[treat.Shopping](h, "GET", "/shopping", nil)
	if len(l.Lines) != 1 || l.Lines[0].Product != oil.ID || l.Lines[0].Buy == nil || l.Price < 14 || l.Lines[0].Needed < 20 || l.Lines[0].Supplier != "Farm shop" {
		t.Errorf("with a card: %+v", l)
	}
	var day day.Day // bees forbid the bloom: the best is after it
	for _, o := range ok[Run[work.Order]](h, "GET", "/orders", nil).Items {
		if o.BestCost < 100 && strings.HasPrefix(o.Title, "Horticultural oil on Bay") {
			day = o.BestDay
			ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": day, "version": o.Version})
		}
	}
	m := ok[treat.MixCard](h, "GET", "/mixes?tank_l=2&day="+day.String(), nil)
	if len(m.Mixes) != 1 || len(m.Mixes[0].Spray.Tanks) == 0 || m.Mixes[0].Missing == "" || len(m.Mixes[0].Stops) != 1 || len(m.Days) != 1 || len(m.Mixes[0].Cautions) == 0 {
		t.Errorf("the day's mix: %+v", m)
	}
	if l = ok[treat.Shopping](h, "GET", "/shopping?until="+h.today.String(), nil); len(l.Lines) > 1 {
		t.Errorf("today: %+v", l)
	}
}

// TestProductsBadly: a card that cannot be is refused by its fields, and two devices at one card do not lose either's change.
func TestProductsBadly(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	good := func() obj {
		return obj{"name": "Soap", "active": "soap", "unit": "mL", "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{{"size": 500, "price": 8}}}
	}
	for says, change := range map[string]func(obj){
		"body.name":            func(o obj) { o["name"] = "  " },
		"body.active":          func(o obj) { o["active"] = "elixir" },
		"body.rates[0].amount": func(o obj) { o["rates"] = []obj{{"amount": 0, "per": "L"}} },
		"body.packs[0].size":   func(o obj) { o["packs"] = []obj{{"size": 0, "price": 8}} },
		"body.on_hand":         func(o obj) { o["on_hand"] = 40 },
	} {
		body := good()
		change(body)
		if code, b := h.do("POST", "/products", body); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
	p := ok[treat.Product](h, "POST", "/products", good())
	mine := good()
	mine["name"], mine["version"] = "Soap, 500 mL", p.Version
	ok[treat.Product](h, "PUT", fmt.Sprintf("/products/%d", p.ID), mine)
	if code, b := h.do("PUT", fmt.Sprintf("/products/%d", p.ID), mine); code != 409 || !strings.Contains(string(b), "Soap, 500 mL") {
		t.Errorf("an old version: %d %s", code, b)
	}
	for says, lot := range map[string]obj{"body.amount": {"amount": 0}, "body.day": {"amount": 5, "day": "2030-01-01"}} {
		if code, b := h.do("POST", fmt.Sprintf("/products/%d/stock", p.ID), lot); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%v: %d %s", lot, code, b)
		}
	}
	if code, _ := h.do("DELETE", fmt.Sprintf("/products/%d", p.ID), nil); code >= 300 {
		t.Errorf("removed: %d", code)
	}
	if n := len(ok[Run[treat.Product]](h, "GET", "/products", nil).Items); n != 0 {
		t.Errorf("%d cards are left", n)
	}
	if code, _ := h.do("POST", fmt.Sprintf("/products/%d/restore", p.ID), nil); code >= 300 {
		t.Errorf("restored: %d", code)
	}
}

// TestReckonTreatment: from inline values and from a kept plant; herbs of the kitchen are never offered an insecticide.
func TestReckonTreatment(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, maples, _ := h.gall()
	a := ok[treatment.Answer](h, "POST", "/reckon/treatment", obj{"cause": "gall-mite", "plant": maples.ID, "share": 0.3})
	if a.Rung != "soft" || a.Treated != 12 || len(a.Rules) > 1 {
		t.Errorf("a kept plant: %+v", a)
	}
	card := obj{"name": "Soap", "active": "soap", "unit": "mL", "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{{"size": 500, "price": 8}}}
	inline := obj{"cause": "aphids", "species": "rosa-shrub", "date": "2027-04-20", "property": here.ID, "share": 0.6, "count": 10, "cards": []obj{card}}
	if a = ok[treatment.Answer](h, "POST", "/reckon/treatment", inline); len(a.Steps) == 0 || a.Steps[0].Amount == nil || a.Steps[0].Amount.Product <= 0 {
		t.Errorf("with a card: %+v", a)
	}
	for _, herb := range []string{"ocimum-basilicum", "petroselinum-crispum", "salvia-rosmarinus", "mentha-spicata"} {
		a := ok[treatment.Answer](h, "POST", "/reckon/treatment", obj{"cause": "aphids", "species": herb, "property": here.ID, "share": 0.8, "house_rules": obj{"control": "conventional"}})
		for _, s := range a.Steps {
			if act := treatment.Built().Active(s.Use); act != nil && !act.Kitchen {
				t.Errorf("%s: %s", herb, s.UseName)
			}
		}
	}
	for says, body := range map[string]obj{
		"body.cause":             {"cause": "gremlins", "species": "rosa-shrub", "property": here.ID},
		"body.species":           {"cause": "aphids", "species": "triffid", "property": here.ID},
		"body.climate":           {"cause": "aphids", "species": "rosa-shrub"},
		"body.history[0].active": {"cause": "aphids", "species": "rosa-shrub", "property": here.ID, "history": []obj{{"day": "2027-04-01", "active": "magic"}}},
		"body.house_rules":       {"cause": "aphids", "species": "rosa-shrub", "property": here.ID, "house_rules": obj{"control": "hard"}},
	} {
		if code, b := h.do("POST", "/reckon/treatment", body); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
}

// TestReckonFeeding: a kept plant brings its pot along; what cannot be is named by its field.
func TestReckonFeeding(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Priory", "climate_type": "lake-foothills"})
	pot := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "nerium-oleander", "height_m": 1.5, "pot_l": 40})
	f := ok[treatment.Feeding](h, "POST", "/reckon/feeding", obj{"plant": pot.ID, "date": "2027-05-10"})
	if f.Class != "plants in pots" || len(f.Days) < 5 || f.Every != 14 || f.With == "" {
		t.Errorf("a pot: %+v", f)
	}
	// What is ill is not fed: said beforehand, or found on the plant.
	tree := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "malus-domestica", "height_m": 3})
	ask := obj{"plant": tree.ID, "date": "2027-03-10"}
	if f = ok[treatment.Feeding](h, "POST", "/reckon/feeding", ask); f.None || len(f.Days) == 0 {
		t.Errorf("a sound apple: %+v", f)
	}
	ok[finds.Find](h, "POST", "/finds", obj{"plant_id": tree.ID, "cause": "fire-blight", "certainty": 0.9})
	if f = ok[treatment.Feeding](h, "POST", "/reckon/feeding", ask); !f.None || !strings.Contains(f.Text, "fire blight") {
		t.Errorf("an apple with fire blight: %+v", f)
	}
	for says, body := range map[string]obj{
		"body.sick[0]":             {"species": "rosa-bedding", "property": here.ID, "sick": []string{"the dumps"}},
		"body.species":             {"species": "triffid", "property": here.ID},
		"body.ph":                  {"species": "rosa-bedding", "property": here.ID, "ph": 14},
		"body.climate":             {"species": "rosa-bedding"},
		"body.house_rules.feeding": {"species": "rosa-bedding", "property": here.ID, "house_rules": obj{"feeding": "much"}},
	} {
		if code, b := h.do("POST", "/reckon/feeding", body); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
}
