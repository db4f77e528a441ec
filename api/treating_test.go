package api_test

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/treatment"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// azaleas are three groups on one property: two in the sun, one in shade; lace bug is found on the first.
func (h *opened) azaleas() (sunny, sunny2, shaded estate.PlantOut, find finds.Find) {
	h.t.Helper()
	h.today = day.Of(2027, 6, 20)
	here := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Priory", "climate_type": "lake-foothills"})
	plant := func(label string, sun float64) estate.PlantOut {
		return ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "azalea-evergreen", "label": label, "height_m": 2, "spread_m": 1.5, "count": 4, "sun": sun})
	}
	sunny, sunny2, shaded = plant("Steps", 0.9), plant("Gate", 0.7), plant("Below the cedar", 0.1)
	ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "lavandula-angustifolia", "height_m": 0.5})
	find = ok[finds.Find](h, "POST", "/finds", obj{"plant_id": sunny.ID, "cause": "lace-bug", "certainty": 0.9, "share": 0.6})
	return sunny, sunny2, shaded, find
}

// TestOnlyTheSunny: of lace bug those in the sun are treated along, those in shade are left, and the money of both is
// told; one write makes all the jobs, once.
func TestOnlyTheSunny(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, sunny2, shaded, find := h.azaleas()
	ok[treat.Product](h, "POST", "/products", obj{"name": "Soap", "active": "soap", "unit": "mL", "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{{"size": 500, "price": 10}, {"size": 1000, "price": 15}}})
	path := fmt.Sprintf("/finds/%d/treatment", find.ID)
	a := ok[treat.Treatment](h, "GET", path, nil)
	if len(a.Along) != 2 || a.Along[0].PlantID != sunny2.ID || !a.Along[0].Treat || a.Along[1].PlantID != shaded.ID || a.Along[1].Treat || a.Along[0].Why == "" {
		t.Fatalf("along: %+v", a.Along)
	}
	// 4 × 0.65 × 2 × 1.5² × 0.13 = 1.521 L × 20 mL × 3 times = 91.26 mL at 15 for a litre = 1.37
	if c := a.Takes; c.Product < 88 || c.Product > 94 || c.Cost < 1.3 || c.Cost > 1.45 || c.Unit != "mL" || a.Along[0].Takes.Cost != c.Cost {
		t.Errorf("takes: %+v, %+v", c, a.Along[0].Takes)
	}
	for says, ids := range map[string][]int64{"plants[0]": {999}, "plants[1]": {sunny2.ID, find.PlantID}} {
		if code, b := h.do("POST", path, obj{"plants": ids}); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%v: %d %s", ids, code, b)
		}
	}
	if n := len(ok[Run[work.Order]](h, "GET", "/orders", nil).Items); n != 0 {
		t.Fatalf("%d jobs after what was refused", n)
	}
	body := obj{"plants": []int64{sunny2.ID}}
	ok[treat.Treatment](h, "POST", path, body, "Idempotency-Key", "keep")
	ok[treat.Treatment](h, "POST", path, body, "Idempotency-Key", "keep")
	kept := ok[treat.Treatment](h, "POST", path, body) // asked again: nothing that stands is made anew
	jobs := ok[Run[work.Order]](h, "GET", "/orders", nil).Items
	if len(jobs) != 2 || jobs[0].PlantID == jobs[1].PlantID || kept.Along[0].FindID == 0 || kept.Along[1].FindID != 0 {
		t.Errorf("kept: %+v, %+v", jobs, kept.Along)
	}
	f := ok[treat.Treatment](h, "GET", fmt.Sprintf("/finds/%d/treatment", kept.Along[0].FindID), nil).Find
	if f.AlongOf != find.ID || f.Note == "" || len(f.Seen) != 0 {
		t.Errorf("a find that nobody made says so: %+v", f)
	}
	// The list before buying holds both, with the repeats of six weeks.
	l := ok[treat.Shopping](h, "GET", "/shopping", nil).Lines
	if len(l) != 1 || l[0].Times != 6 || l[0].Needed < 176 || l[0].Needed > 188 || l[0].Formula == "" {
		t.Errorf("shopping: %+v", l)
	}
	if l = ok[treat.Shopping](h, "GET", "/shopping?until="+(h.today+10).String(), nil).Lines; l[0].Times != 4 {
		t.Errorf("ten days: %+v", l)
	}
}

// TestAffectedAndHarvest: of a group only those that show it are counted, a pick that is due moves the spray, and both
// can be said later.
func TestAffectedAndHarvest(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.today = day.Of(2027, 6, 10)
	here := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Priory", "climate_type": "lake-foothills"})
	basil := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "ocimum-basilicum", "height_m": 0.4, "count": 20})
	soap := ok[treat.Product](h, "POST", "/products", obj{"name": "Soap", "active": "soap", "unit": "mL", "harvest_days": 3, "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{{"size": 500, "price": 10}}})
	ok[treat.Product](h, "POST", fmt.Sprintf("/products/%d/stock", soap.ID), obj{"amount": 500})
	f := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": basil.ID, "cause": "aphids", "certainty": 0.9, "share": 0.6, "affected": 5, "harvest": (h.today + 1).String()})
	path := fmt.Sprintf("/finds/%d/treatment", f.ID)
	a := ok[treat.Treatment](h, "GET", path, nil)
	if a.Answer.Treated != 5 || a.Answer.Steps[0].Day != h.today+2 || a.Answer.Steps[0].HarvestFrom != h.today+5 || !a.Edible {
		t.Fatalf("five of them, after the pick: %+v", a.Answer)
	}
	change := obj{"cause": "aphids", "certainty": 0.9, "share": 0.6, "state": "open", "affected": 21, "version": f.Version}
	if code, b := h.do("PUT", fmt.Sprintf("/finds/%d", f.ID), change); code != 422 || !strings.Contains(string(b), "body.affected") {
		t.Errorf("21 of 20: %d %s", code, b)
	}
	change["affected"] = 20
	ok[finds.Find](h, "PUT", fmt.Sprintf("/finds/%d", f.ID), change)
	if a = ok[treat.Treatment](h, "GET", path, nil); a.Answer.Treated != 20 || a.Answer.Steps[0].Day != h.today {
		t.Errorf("all of them, nothing to pick: %+v", a.Answer)
	}
	// Weevils in a bed that was measured: nematodes by its area, in the treatment and before buying.
	shrub := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "rhododendron-hybrid", "height_m": 1, "spread_m": 1})
	ok[treat.Product](h, "POST", "/products", obj{"name": "Nematodes", "active": "nematodes", "unit": "piece", "rates": []obj{{"amount": 0.5, "per": "m2"}}, "packs": []obj{{"size": 6, "price": 12}}})
	grubs := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": shrub.ID, "cause": "weevil", "certainty": 0.9, "share": 0.3, "bed_m2": 20})
	kept := ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", grubs.ID), nil)
	if got := kept.Answer.Steps[0].Amount.Product; got != 10 {
		t.Errorf("20 m² at a half each: %g", got)
	}
	if l := ok[treat.Shopping](h, "GET", "/shopping?until="+(h.today+200).String(), nil).Lines; len(l) != 1 || l[0].Needed != 10 || l[0].Buy.Price != 24 {
		t.Errorf("before buying: %+v", l)
	}
	jobs := ok[treat.Treatment](h, "POST", path, nil).Jobs
	ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", jobs[0].ID), obj{"state": "done", "version": jobs[0].Version, "use": obj{"product_id": soap.ID, "amount": 40, "spray_l": 2}})
	if a = ok[treat.Treatment](h, "GET", path, nil); len(a.Answer.Waits) == 0 || a.Answer.Waits[0].What != "harvest" || a.Answer.Waits[0].To != h.today+2 {
		t.Errorf("waits: %+v", a.Answer.Waits)
	}
}

// TestUsedBadly: what a label forbids is not entered unseen: a licence, more than there is, a day within a wait; of
// two phones the second is told what the first entered; nothing is kept in part.
func TestUsedBadly(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, _, find := h.gall()
	oil := ok[treat.Product](h, "POST", "/products", obj{"name": "Oil", "active": "oil", "unit": "mL", "licence": "Pesticide user", "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{}})
	ok[treat.Product](h, "POST", fmt.Sprintf("/products/%d/stock", oil.ID), obj{"amount": 500})
	jobs := ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", find.ID), nil).Jobs
	spray := jobs[1]
	h.today = spray.BestDay + 10
	tick := func(on day.Day, use obj, note string) (int, string) {
		code, b := h.do("PUT", fmt.Sprintf("/orders/%d/state", spray.ID), obj{"state": "done", "on": on.String(), "note": note, "version": spray.Version, "use": use})
		return code, string(b)
	}
	use := obj{"product_id": oil.ID, "amount": 60, "spray_l": 3, "who": "Rosa"}
	if code, b := tick(h.today, use, ""); code != 422 || !strings.Contains(b, "body.use.who") || !strings.Contains(b, "nobody of the firm") {
		t.Errorf("no licence: %d %s", code, b)
	}
	ok[crews.Person](h, "POST", "/people", obj{"name": "Rosa", "skills": []string{job.Ladder}})
	ok[crews.Person](h, "POST", "/people", obj{"name": "Ivo", "skills": []string{job.Restricted}})
	if code, b := tick(h.today, use, ""); code != 422 || !strings.Contains(b, "Licensed: Ivo") {
		t.Errorf("Rosa has none: %d %s", code, b)
	}
	use["who"] = "ivo"
	open := spray.BestDay - 4 // among open flowers
	if code, b := tick(open, use, ""); code != 422 || !strings.Contains(b, "body.use.anyway") || !strings.Contains(b, "bees") {
		t.Errorf("on open flowers: %d %s", code, b)
	}
	use["anyway"] = true
	if code, b := tick(open, use, " "); code != 422 || !strings.Contains(b, "body.note") {
		t.Errorf("without why: %d %s", code, b)
	}
	if n := len(ok[Run[treat.Used]](h, "GET", "/uses", nil).Items); n != 0 {
		t.Fatalf("%d lines of what was refused", n)
	}
	if code, b := tick(open, use, "In bud still, by eye"); code != 200 {
		t.Fatalf("by eye: %d %s", code, b)
	}
	if code, b := tick(open, use, "The other phone"); code != 409 || !strings.Contains(b, "done") {
		t.Errorf("the second phone: %d %s", code, b)
	}
	uses := ok[Run[treat.Used]](h, "GET", "/uses", nil).Items
	if len(uses) != 1 || uses[0].Note != "In bud still, by eye" {
		t.Errorf("the record: %+v", uses)
	}
	if p := ok[Run[treat.Product]](h, "GET", "/products", nil).Items[0]; p.OnHand != 440 {
		t.Errorf("on hand %g", p.OnHand)
	}
}

// TestLaneMarks: a lane tells the stage of the pest that its treatment hits, and the waits that run on its plant, the
// gap of its own means alone.
func TestLaneMarks(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, _, _, find := h.azaleas()
	soap := ok[treat.Product](h, "POST", "/products", obj{"name": "Soap", "active": "soap", "unit": "mL", "reentry_h": 30, "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{}})
	ok[treat.Product](h, "POST", fmt.Sprintf("/products/%d/stock", soap.ID), obj{"amount": 500})
	jobs := ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", find.ID), nil).Jobs
	lane := func() work.Lane { return ok[work.LanesPage](h, "GET", "/year", nil).Items[0] }
	if l := lane(); l.Stage == nil || l.Stage.Text != "young ones without wings" || l.Stage.From > h.today || l.Stage.To < h.today+30 || len(l.Waits) != 0 {
		t.Fatalf("before: %+v, %+v", l.Stage, l.Waits)
	}
	ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", jobs[0].ID), obj{"state": "done", "version": jobs[0].Version, "use": obj{"product_id": soap.ID, "amount": 40, "spray_l": 2}})
	if l := lane(); len(l.Waits) != 1 || l.Waits[0].What != "re-entry" || l.Waits[0].To != h.today+2 {
		t.Errorf("after: %+v", l.Waits)
	}
}

// TestGuards: a wish to keep a cause off is kept apart from what was found, and has its own programme.
func TestGuards(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.today = day.Of(2027, 2, 10)
	here := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Priory", "climate_type": "lake-foothills"})
	rose := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "rosa-bedding", "height_m": 1, "count": 30})
	path := fmt.Sprintf("/plants/%d/guards", rose.ID)
	spot := func() (out treat.Guard) {
		for _, g := range ok[Run[treat.Guard]](h, "GET", path, nil).Items {
			if g.Cause == "black-spot" {
				out = g
			}
		}
		return out
	}
	if g := spot(); g.Name == "" || g.Do == "" || g.FindID != 0 {
		t.Fatalf("guards: %+v", g)
	}
	wish := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": rose.ID, "cause": "black-spot", "certainty": 1, "prevent": true})
	if g := spot(); g.FindID != wish.ID {
		t.Errorf("the wish: %+v", g)
	}
	if code, b := h.do("GET", "/finds", nil); code != 200 || !strings.Contains(string(b), `"items":[]`) {
		t.Errorf("finds of what is not there: %d %s", code, b)
	}
	a := ok[treat.Treatment](h, "GET", fmt.Sprintf("/finds/%d/treatment", wish.ID), nil)
	if a.Answer.Rung != "soft" || len(a.Answer.Steps) != 2 || !strings.Contains(a.Answer.Steps[0].Do, "rake") {
		t.Errorf("its programme: %+v", a.Answer)
	}
	if kept := ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", wish.ID), nil); len(kept.Jobs) != 2 {
		t.Errorf("kept: %+v", kept.Jobs)
	}
	if code, b := h.do("POST", "/finds", obj{"property_id": here.ID, "cause": "black-spot", "certainty": 1, "prevent": true}); code != 422 || !strings.Contains(string(b), "body.plant_id") {
		t.Errorf("of a property: %d %s", code, b)
	}
}

// TestFeedingKept: a season's feeding is one job that comes again after each tick till the season ends, and its
// product is in the list and the record.
func TestFeedingKept(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.today = day.Of(2027, 4, 25)
	here := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Priory", "climate_type": "lake-foothills"})
	pot := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "nerium-oleander", "height_m": 1.5, "pot_l": 40, "count": 2})
	feed := ok[treat.Product](h, "POST", "/products", obj{"name": "Liquid feed", "active": "organic-feed", "unit": "mL", "rates": []obj{{"amount": 5, "per": "L"}}, "packs": []obj{{"size": 1000, "price": 9}}})
	path := fmt.Sprintf("/plants/%d/feeding", pot.ID)
	o := ok[work.Order](h, "POST", path, obj{})
	if o.Kind != job.Feed || o.Origin != job.Programme || o.BestDay < h.today {
		t.Fatalf("kept: %+v", o)
	}
	if code, b := h.do("POST", path, nil); code != 409 && code != 422 || !strings.Contains(string(b), "already") {
		t.Errorf("twice: %d %s", code, b)
	}
	// 2 × 4 L × 5 mL, five times in 60 days
	l := ok[treat.Shopping](h, "GET", "/shopping?until="+(o.BestDay+60).String(), nil).Lines
	if len(l) != 1 || l[0].Times != 5 || l[0].Needed != 200 || l[0].Product != feed.ID {
		t.Errorf("shopping: %+v", l)
	}
	ok[treat.Product](h, "POST", fmt.Sprintf("/products/%d/stock", feed.ID), obj{"amount": 1000})
	times := 0
	for ; times < 20; times++ {
		jobs := ok[Run[work.Order]](h, "GET", "/orders", nil).Items
		if len(jobs) == 0 {
			break
		}
		h.today = max(h.today, jobs[0].BestDay)
		ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", jobs[0].ID), obj{"state": "done", "version": jobs[0].Version, "use": obj{"product_id": feed.ID, "amount": 40, "spray_l": 8}})
	}
	if times < 8 || times > 12 || h.today.Month() < 8 {
		t.Errorf("fed %d times, last %s", times, h.today)
	}
	uses := ok[Run[treat.Used]](h, "GET", "/uses", nil).Items
	if len(uses) != times || uses[0].Cause != "Feeding" || uses[0].Amount != 40 || uses[0].Plants != 2 {
		t.Errorf("the record: %d, %+v", len(uses), uses[0])
	}
	vine := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "wisteria-sinensis", "height_m": 4})
	if code, b := h.do("POST", fmt.Sprintf("/plants/%d/feeding", vine.ID), nil); code < 400 || !strings.Contains(string(b), "nitrogen") {
		t.Errorf("a wisteria: %d %s", code, b)
	}
	f := ok[treatment.Feeding](h, "POST", "/reckon/feeding", obj{"species": "rosa-bedding", "property": here.ID, "date": "2027-03-18", "bed_m2": 6, "mulch_cm": 7, "cards": []obj{}})
	if len(f.Amounts) != 3 {
		t.Errorf("a bed: %+v", f.Amounts)
	}
	for says, body := range map[string]obj{"body.mulch_cm": {"mulch_cm": 90}, "body.bed_m2": {"bed_m2": 1e9}} {
		body["species"], body["property"] = "rosa-bedding", here.ID
		if code, b := h.do("POST", "/reckon/feeding", body); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
}

// TestProductLabels: a label is kept as a picture or a PDF; what is neither, or is cut off, is refused and the one
// before stays.
func TestProductLabels(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	p := h.oil(0)
	path := fmt.Sprintf("/products/%d/label", p.ID)
	if code, _ := h.do("GET", path, nil); code != 404 {
		t.Errorf("none yet: %d", code)
	}
	var pic bytes.Buffer
	if err := png.Encode(&pic, image.NewGray(image.Rect(0, 0, 40, 30))); err != nil {
		t.Fatal(err)
	}
	pdf := "%PDF-1.4\n1 0 obj\n<<>>\nendobj\ntrailer\n%%EOF\n"
	if code, b := h.do("PUT", path, pic.String(), "Content-Type", "image/png"); code != 200 || !strings.Contains(string(b), `"label":"jpg"`) {
		t.Fatalf("a picture: %d %s", code, b)
	}
	if code, b := h.do("GET", path, nil); code != 200 || !bytes.HasPrefix(b, []byte("\xff\xd8")) {
		t.Errorf("the picture: %d", code)
	}
	if code, b := h.do("PUT", path, pdf, "Content-Type", "application/pdf"); code != 200 || !strings.Contains(string(b), `"label":"pdf"`) {
		t.Fatalf("a PDF: %d %s", code, b)
	}
	for _, bad := range []string{"hello", pdf[:20]} {
		if code, b := h.do("PUT", path, bad, "Content-Type", "application/pdf"); code != 422 || !strings.Contains(string(b), "label") {
			t.Errorf("%q: %d %s", bad, code, b)
		}
	}
	if code, b := h.do("GET", path, nil); code != 200 || string(b) != pdf {
		t.Errorf("the one before: %d %.20s", code, b)
	}
	if q := ok[treat.Product](h, "DELETE", path, nil); q.Label != "" {
		t.Errorf("taken off: %+v", q)
	}
}

// TestPeople: entered, changed, removed and brought back; two of a name, a skill nobody knows, an old version are
// refused.
func TestPeople(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	p := ok[crews.Person](h, "POST", "/people", obj{"name": " Rosa ", "skills": []string{job.Ladder, job.Restricted}})
	if p.Name != "Rosa" || len(p.Skills) != 2 {
		t.Fatalf("%+v", p)
	}
	for says, body := range map[string]obj{"body.name": {"name": "rosa"}, "body.skills[0]": {"name": "Ivo", "skills": []string{"juggling"}}} {
		if code, b := h.do("POST", "/people", body); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
	one := fmt.Sprintf("/people/%d", p.ID)
	if q := ok[crews.Person](h, "PUT", one, obj{"name": "Rosa B", "version": 1}); q.Version != 2 || len(q.Skills) != 0 {
		t.Errorf("changed: %+v", q)
	}
	if code, b := h.do("PUT", one, obj{"name": "Rosa C", "version": 1}); code != 409 || !strings.Contains(string(b), "Rosa B") {
		t.Errorf("an old version: %d %s", code, b)
	}
	h.do("DELETE", one, nil)
	if n := len(ok[Run[crews.Person]](h, "GET", "/people", nil).Items); n != 0 {
		t.Errorf("%d after removal", n)
	}
	h.do("POST", one+"/restore", nil)
	if n := len(ok[Run[crews.Person]](h, "GET", "/people", nil).Items); n != 1 {
		t.Errorf("%d after restoring", n)
	}
}

// BenchmarkShopping200 sums what is to be bought for 1,000 standing treatments, with their repeats, over 200
// properties.
func BenchmarkShopping200(b *testing.B) {
	h := newHouse(b)
	many(b, h, 200)
	h.oil(1000)
	ok[treat.Product](h, "POST", "/products", obj{"name": "Soap", "active": "soap", "unit": "mL", "rates": []obj{{"amount": 20, "per": "L"}}, "packs": []obj{{"size": 500, "price": 8}, {"size": 5000, "price": 40}}})
	for plant := 1; plant <= 10_000; plant += 10 {
		f := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": plant, "cause": []string{"aphids", "soft-scale"}[plant/10%2], "certainty": 0.9, "share": 0.6})
		if code, body := h.do("POST", fmt.Sprintf("/finds/%d/treatment", f.ID), nil); code != 200 {
			b.Fatal(code, string(body))
		}
	}
	path := "/shopping?until=" + (h.today + 84).String()
	ok[treat.Shopping](h, "GET", path, nil)
	jobs := 0
	for b.Loop() {
		l := ok[treat.Shopping](h, "GET", path, nil)
		jobs = 0
		for _, line := range l.Lines {
			jobs += line.Jobs
		}
	}
	b.ReportMetric(float64(jobs), "jobs")
}
