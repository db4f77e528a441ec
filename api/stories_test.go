package api_test

import (
	"fmt"
	"strings"
	"testing"

	. "mezzadro/api"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/load"
	"mezzadro/house/crews"
	"mezzadro/house/cuts"
	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/garden"
	"mezzadro/house/ground"
	"mezzadro/house/ledger"
	"mezzadro/house/letters"
	"mezzadro/house/overview"
	"mezzadro/house/treat"
	"mezzadro/house/walks"
	"mezzadro/house/work"
)

// Stories of a firm's weeks, each over three screens or more: what one part knows binds the others.

func (h *opened) story(plant int64) walks.Story {
	h.t.Helper()
	return ok[walks.Story](h, "GET", fmt.Sprintf("/plants/%d/story", plant), nil)
}

func (h *opened) order(id int64) work.OrderDetail {
	h.t.Helper()
	return ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", id), nil)
}

// ends brings a job to an end, or part of the way.
func (h *opened) ends(id int64, body obj) work.OrderDetail {
	h.t.Helper()
	body["version"] = h.order(id).Version
	return ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", id), body)
}

// walked finds something on a plant today, and decides when asked.
func (h *opened) walked(property, plant int64, checks []obj, decide obj) (damage.Answer, walks.Decided) {
	h.t.Helper()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant)
	var a damage.Answer
	if checks != nil {
		a = ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": checks})
	}
	var d walks.Decided
	if decide != nil {
		d = ok[walks.Decided](h, "POST", at+"/verdict", decide)
	}
	return a, d
}

// jobOn asks for a job, and puts it on a day where one is given.
func (h *opened) jobOn(body obj, on day.Day) work.Order {
	h.t.Helper()
	o := ok[work.OrderDetail](h, "POST", "/orders", body)
	if on.Given() {
		return ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": on, "version": o.Version}).Order.Order
	}
	return o.Order
}

// sheet is what a day sheet says of a job; nil where it is not on it.
func (h *opened) sheet(on day.Day, id int64) *days.SheetJob {
	h.t.Helper()
	for _, v := range ok[days.Sheet](h, "GET", "/rounds/sheet?day="+on.String(), nil).Visits {
		for i := range v.Jobs {
			if v.Jobs[i].ID == id {
				return &v.Jobs[i]
			}
		}
	}
	return nil
}

// csvOf is a day of hours of one temperature, as a logger writes it.
func csvOf(on day.Day, tempC float64) string {
	b := &strings.Builder{}
	b.WriteString("time,temp_c\n")
	for n := range 24 {
		fmt.Fprintf(b, "%sT%02d:00:00Z,%g\n", on, n, tempC)
	}
	return b.String()
}

var bracketed = []obj{{"kind": "scratch", "height_m": 1.2, "result": "green"}, {"kind": "scratch", "height_m": 1.15, "result": "green"},
	{"kind": "scratch", "height_m": 1.6, "result": "brown"}, {"kind": "scratch", "height_m": 1.7, "result": "brown"}, {"kind": "bud_rub", "height_m": 1.8, "broke": 6}}

// TestStoryTwoWalksACutAndAFrost: life ends where the first walk bracketed it, on the second walk too; cut there, the dead wood
// is gone; a second frost is what the next walk expects, and plant page, walk and Lookout agree.
func TestStoryTwoWalksACutAndAFrost(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	first, d := h.walked(property.ID, plant.ID, bracketed, obj{"decision": "overruled", "kind": "cut back to live wood", "cut_m": 1.3, "note": "Brown above"})
	if b := first.Boundary; b.BestM < 1.15 || b.BestM > 1.6 {
		t.Fatalf("bracketed between 1.2 and 1.6 m, and life ends at %.2f", b.BestM)
	}
	h.today += 9
	second, _ := h.walked(property.ID, plant.ID, []obj{{"kind": "scratch", "height_m": 0.5, "result": "green"}}, nil)
	if diff := second.Boundary.BestM - first.Boundary.BestM; diff > 0.05 || diff < -0.05 || second.Known == "" {
		t.Errorf("a green scratch far below moved it by %.2f m (%q)", diff, second.Known)
	}
	for _, o := range d.Jobs {
		if o.Kind == job.CutBack {
			h.ends(o.ID, obj{"state": "done"})
		}
	}
	h.today += 30
	if now := h.story(plant.ID); now.Now.Boundary.HighM > 1.36 || len(now.Ends) < 2 || now.Now.Verdict.Kind == damage.CutBack {
		t.Errorf("cut at 1.3 m: life ends up to %.2f m, %d ends, %s", now.Now.Boundary.HighM, len(now.Ends), now.Now.Verdict.Sentence)
	}
	ok[overview.WeatherKept](h, "POST", fmt.Sprintf("/properties/%d/weather", property.ID), csvOf(h.today-1, -11))
	look := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil).Look
	third, _ := h.walked(property.ID, plant.ID, []obj{}, nil)
	listed := false
	for _, g := range ok[overview.Lookout](h, "GET", "/lookout", nil).Groups {
		for _, p := range g.Looks {
			listed = listed || p.ID == plant.ID
		}
	}
	if look == nil || !look.Worth || !listed || third.Boundary.LowM > 1 {
		t.Errorf("after -11 °C in April: look %+v, on Lookout %v, life ends at %.2f m at the lowest", look, listed, third.Boundary.LowM)
	}
}

// TestStoryWaitAgainstAYearOfCuts: cuts kept before a verdict to wait are held in bench, job, Lookout and sheet, dated; those
// kept after it begin after its day.
func TestStoryWaitAgainstAYearOfCuts(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, rose, _ := h.boxes()
	path := fmt.Sprintf("/properties/%d/cuts", here.ID)
	before := ok[Run[work.Order]](h, "POST", path, obj{"cuts": []obj{{"plant_id": rose.ID}}}).Items[0]
	put := ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", before.ID), obj{"day": h.today + 1, "version": before.Version}).Order
	until := h.today + 45
	for _, p := range []int64{rose.ID, box.ID} {
		h.walked(here.ID, p, nil, obj{"decision": "overruled", "kind": "wait until", "until": until, "note": "Hard frost"})
	}
	bench := ok[cuts.PruningOut](h, "POST", "/reckon/pruning", obj{"plant": rose.ID, "purpose": "shape"})
	j, o := h.sheet(put.Day, before.ID), h.order(before.ID)
	if bench.Hold == nil || o.Hold == nil || j == nil || j.Hold == nil || bench.Hold.Until != until || j.Hold.Until != until || o.Hold.Why != j.Hold.Why {
		t.Errorf("held: bench %+v, job %+v, sheet %+v", bench.Hold, o.Hold, j)
	}
	if waits := ok[overview.Lookout](h, "GET", "/lookout", nil).Waits; len(waits) != 1 || waits[0].ID != before.ID {
		t.Errorf("on Lookout: %+v", waits)
	}
	after := ok[Run[work.Order]](h, "POST", path, obj{"cuts": []obj{{"plant_id": box.ID}}}).Items[0]
	if after = h.order(after.ID).Order; after.From < until {
		t.Errorf("kept after the verdict, and due from %s; it is to wait until %s", after.From, until)
	}
	if along := ok[days.Load](h, "GET", "/rounds/load?from="+put.Day.String(), nil); len(along.Items) != 0 {
		t.Errorf("taken along for what waits: %+v", along.Items)
	}
}

// TestStoryReplaceEndsProgrammes: what is replaced has no programme any more, is taken out before the new one is planted, and
// the van takes the new plant.
func TestStoryReplaceEndsProgrammes(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	f := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": box.ID, "cause": "box-caterpillar", "certainty": 0.9, "share": 0.5})
	kept := ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", f.ID), nil)
	if len(kept.Jobs) == 0 {
		t.Fatal("no programme runs")
	}
	made := ok[ground.Planted](h, "POST", fmt.Sprintf("/properties/%d/planting", here.ID), obj{"plant": box.ID, "kinds": []obj{{"species": "malus-domestica", "count": 2}}})
	if len(made.Closed) < len(kept.Jobs) {
		t.Errorf("closed are %v of %d jobs", made.Closed, len(kept.Jobs))
	}
	for _, o := range h.story(box.ID).Jobs {
		if o.Kind == job.Treat && (o.State == job.Waiting || o.State == job.Placed) {
			t.Errorf("still to be treated: %s", o.Title)
		}
	}
	planting := h.order(made.Orders[0])
	if len(planting.After) != 1 || !strings.Contains(planting.After[0].Title, "Take out") {
		t.Fatalf("planted after %+v", planting.After)
	}
	bought := map[string]float64{}
	for _, x := range ok[days.Load](h, "GET", fmt.Sprintf("/rounds/load?to=%s&waiting=true", h.today+380), nil).Items {
		bought[x.Group] += x.Amount
	}
	if bought[load.Plants] != 2 || bought[load.Stuff] == 0 {
		t.Errorf("to be bought: %v", bought)
	}
	if n := len(ok[Run[work.Order]](h, "GET", fmt.Sprintf("/orders?list=due&property=%d", here.ID), nil).Items); n > 2 {
		t.Errorf("%d jobs are due", n)
	}
}

// TestStoryNeighbourNotInfested: the neighbour of an infested box is offered as one to look at where only what shows it is
// treated; the client reads of the one plant, and the look is a job of its own.
func TestStoryNeighbourNotInfested(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, rose, _ := h.boxes()
	second := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": here.ID, "species": "rosa-bedding", "label": "Well", "height_m": 1})
	f := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": rose.ID, "cause": "aphids", "certainty": 0.9, "share": 0.3})
	along := ok[treat.Treatment](h, "GET", fmt.Sprintf("/finds/%d/treatment", f.ID), nil).Along
	if len(along) != 1 || along[0].PlantID != second.ID || !along[0].Look || along[0].Treat {
		t.Fatalf("along: %+v", along)
	}
	o := ok[work.OrderDetail](h, "POST", fmt.Sprintf("/finds/%d/look", f.ID), obj{"property_id": here.ID, "plants": []int64{second.ID}})
	if o.PlantID != second.ID || !strings.Contains(o.Title, "aphids") {
		t.Errorf("the look: %+v", o.Order)
	}
	link := ok[ledger.ClientLink](h, "POST", fmt.Sprintf("/properties/%d/client-links", here.ID), obj{"days": 30})
	page := ok[ledger.ClientPage](h, "GET", "/client/"+link.Token, nil)
	if len(page.Found) != 1 || !strings.Contains(page.Found[0].Plant, "Gate") {
		t.Errorf("the client reads %+v", page.Found)
	}
	if f := h.story(second.ID).Now.Finds; len(f) != 0 {
		t.Errorf("found on the neighbour: %v", f)
	}
	if f := h.story(box.ID).Now.Finds; len(f) != 0 {
		t.Errorf("found on the box: %v", f)
	}
}

// TestStoryCallFindVisitJob: a client calls about a plant; the visit stands on its day and names the plant, what was told is
// there to be confirmed; found on the visit it becomes a treatment, and nobody is told to make the first check.
func TestStoryCallFindVisitJob(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	c := ok[finds.Call](h, "POST", "/calls", obj{"plant_id": box.ID, "caller": "The housekeeper", "answers": obj{"how_long": "weeks"}, "seen": []string{"webbing"},
		"ending": "visit", "said": "We come and look.", "visit_on": h.today + 2})
	visit := h.sheet(h.today+2, c.OrderID)
	if visit == nil || visit.PlantID != box.ID || visit.Kind != job.Walk {
		t.Fatalf("the visit: %+v", visit)
	}
	if told := ok[Run[finds.Call]](h, "GET", fmt.Sprintf("/calls?property=%d", here.ID), nil).Items; len(told) != 1 || told[0].Seen[0] != "webbing" || told[0].PlantID != box.ID {
		t.Errorf("told: %+v", told)
	}
	h.today += 2
	f := ok[finds.Find](h, "POST", "/finds", obj{"plant_id": box.ID, "cause": "box-caterpillar", "certainty": 0.95, "share": 0.4, "seen": []string{"webbing"}, "how": "walk"})
	a, _ := h.walked(here.ID, box.ID, []obj{}, nil)
	if len(a.Finds) != 1 || strings.Contains(a.Verdict.Sentence, "first check") {
		t.Errorf("on the walk: %v, %q", a.Finds, a.Verdict.Sentence)
	}
	kept := ok[treat.Treatment](h, "POST", fmt.Sprintf("/finds/%d/treatment", f.ID), nil)
	if len(kept.Jobs) == 0 || kept.Jobs[0].PlantID != box.ID {
		t.Errorf("its treatment: %+v", kept.Jobs)
	}
	h.ends(c.OrderID, obj{"state": "done"})
	if h.sheet(h.today, c.OrderID).State != job.Done {
		t.Error("the visit is not done on the sheet")
	}
}

// TestStoryUnknownSample: none of the causes fits: words, a picture and what was sent stand on the plant, the answer is awaited
// on Lookout, and once it has a name it is a find like any other; taken back it is open again.
func TestStoryUnknownSample(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	for field, body := range map[string]obj{
		"words":     {"plant_id": box.ID, "words": "  "},
		"answer_by": {"plant_id": box.ID, "words": "x", "sent": "Twigs", "sent_on": h.today - 1, "answer_by": h.today - 5},
		"sent_on":   {"plant_id": box.ID, "words": "x", "sent_on": h.today + 1},
		"sent":      {"plant_id": box.ID, "words": "x", "sent_to": "The clinic"},
		"seen[0]":   {"plant_id": box.ID, "words": "x", "seen": []string{"no-such-sign"}},
	} {
		if code, b := h.do("POST", "/unnamed", body); code != 422 || !strings.Contains(string(b), "body."+field) {
			t.Errorf("%s: %d %s", field, code, b)
		}
	}
	u := ok[finds.Unnamed](h, "POST", "/unnamed", obj{"plant_id": box.ID, "words": "Grey felt under the twigs", "seen": []string{"webbing"},
		"sent": "Two twigs", "sent_to": "The plant clinic", "answer_by": h.today + 10})
	if code, b := h.send(fmt.Sprintf("/unnamed/%d/photos", u.ID), picture(t, 800, 600, "jpeg"), "Idempotency-Key", "p"); code != 200 {
		t.Fatalf("%d %s", code, b)
	}
	u = ok[List[finds.Unnamed]](h, "GET", fmt.Sprintf("/unnamed?plant=%d", box.ID), nil).Items[0]
	if len(u.Pictures) != 1 || u.SentOn != h.today || u.State != "open" || !strings.Contains(u.Plant, "Parterre") {
		t.Fatalf("kept: %+v", u)
	}
	if code, _ := h.do("GET", "/pictures/"+u.Pictures[0], nil); code != 200 {
		t.Errorf("its picture: %d", code)
	}
	awaited := func() []finds.Unnamed { return ok[overview.Lookout](h, "GET", "/lookout", nil).Awaited }
	if a := awaited(); len(a) != 1 || a[0].ID != u.ID {
		t.Errorf("awaited: %+v", a)
	}
	if now := h.story(box.ID).Now; len(now.Finds) != 1 || strings.Contains(now.Verdict.Sentence, "first check") {
		t.Errorf("on the plant: %v, %q", now.Finds, now.Verdict.Sentence)
	}
	h.today += 11
	if code, _ := h.do("POST", fmt.Sprintf("/unnamed/%d/name", u.ID), obj{"cause": "no-such", "certainty": 1, "version": u.Version}); code != 422 {
		t.Errorf("named what is not in the book: %d", code)
	}
	named := ok[finds.Unnamed](h, "POST", fmt.Sprintf("/unnamed/%d/name", u.ID), obj{"cause": "soft-scale", "certainty": 0.9, "answer": "A felt scale", "version": u.Version})
	list := ok[List[finds.Find]](h, "GET", fmt.Sprintf("/finds?plant=%d", box.ID), nil).Items
	if named.FindID == 0 || len(list) != 1 || list[0].ID != named.FindID || list[0].Day != u.Day || !strings.Contains(list[0].Note, "felt scale") || len(awaited()) != 0 {
		t.Errorf("named: %+v, finds %+v", named, list)
	}
	again := ok[finds.Unnamed](h, "PUT", fmt.Sprintf("/unnamed/%d", u.ID), obj{"words": u.Words, "state": "open", "version": named.Version})
	if again.State != "open" || len(ok[List[finds.Find]](h, "GET", fmt.Sprintf("/finds?plant=%d", box.ID), nil).Items) != 0 {
		t.Errorf("taken back: %+v", again)
	}
	if code, _ := h.do("PUT", fmt.Sprintf("/unnamed/%d", u.ID), obj{"words": u.Words, "state": "closed", "version": named.Version}); code != 409 {
		t.Errorf("changed on an old version: %d", code)
	}
	_ = here
}

// TestStoryStationBesideLogger: the garden's own freeze stands beside the station's figures on ribbon, plant and source list;
// the logger's file taken back, the freeze is gone from all of them.
func TestStoryStationBesideLogger(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	at := fmt.Sprintf("/properties/%d", property.ID)
	night := h.today - 3
	ok[overview.WeatherKept](h, "POST", at+"/weather?name=logger.csv", csvOf(night, -14))
	ok[overview.WeatherKept](h, "POST", at+"/weather/read", nil)
	look := func() (float64, estate.Season) {
		p := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil)
		s := ok[estate.Season](h, "GET", at+"/season", nil)
		if p.Look == nil {
			return 0, s
		}
		return p.Look.Severity, s
	}
	hurt, s := look()
	if s.SeenBy[night-s.From] != 2 || len(s.Sources) != 2 {
		t.Fatalf("seen by %d, sources %+v", s.SeenBy[night-s.From], s.Sources)
	}
	source := s.Sources[0]
	if source.Rank != 2 {
		source = s.Sources[1]
	}
	ok[struct{}](h, "DELETE", fmt.Sprintf("%s/weather/sources/%d", at, source.ID), nil)
	if less, s := look(); less >= hurt || s.SeenBy[night-s.From] != 1 {
		t.Errorf("taken back it is hurt as before: %.2f, then %.2f; seen by %d", hurt, less, s.SeenBy[night-s.From])
	}
	ok[struct{}](h, "POST", fmt.Sprintf("%s/weather/sources/%d/restore", at, source.ID), nil)
	if back, _ := look(); back != hurt {
		t.Errorf("restored: %.3f, was %.3f", back, hurt)
	}
}

// TestStoryMovedProperty: another place drops what the station told of the old one, on ribbon, plant and file alike; what was
// measured in the garden stays with it.
func TestStoryMovedProperty(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	at := fmt.Sprintf("/properties/%d", property.ID)
	told := func() (lines float64, file string) {
		_, b := h.do("GET", at+"/weather.csv", nil)
		return float64(strings.Count(string(b), "\n")), string(b)
	}
	n, before := told()
	hurt := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil).Look
	if n < 1000 || hurt == nil {
		t.Fatalf("the station told %g hours; %+v", n, hurt)
	}
	logged := h.today - 2
	ok[overview.WeatherKept](h, "POST", at+"/weather?name=logger.csv", csvOf(logged, 3.3))
	p := ok[garden.PropertyOut](h, "GET", at, nil)
	body := obj{"name": p.Name, "climate_type": "hot-desert", "latitude": 33.4, "longitude": -112, "elevation_m": 340, "version": p.Version}
	ok[garden.PropertyOut](h, "PUT", at, body)
	_, after := told()
	for _, line := range strings.Split(before, "\n")[1:200] {
		if line != "" && strings.Contains(after, line) {
			t.Fatalf("told of the old place: %s", line)
		}
	}
	if !strings.Contains(after, logged.String()+"T05:00:00Z,3.3") {
		t.Error("what the garden measured itself went with the move")
	}
	if l := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil).Look; l != nil && l.Reason == hurt.Reason {
		t.Errorf("hurt by the weather of another place: %+v", l)
	}
}

// threeTold are visits of one crew to three properties on a Monday that the clients know.
func (h *opened) threeTold() (crew crews.Crew, monday day.Day, places, orders []int64) {
	h.t.Helper()
	crew, monday = h.crewOf("North van"), day.Of(2027, 3, 22)
	for i, name := range []string{"Dune Row", "Brook End", "Weir House"} {
		p := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": name, "climate_type": "lake-foothills", "latitude": 45.9 + 0.01*float64(i), "longitude": 8.7})
		o := ok[work.OrderDetail](h, "POST", "/orders", obj{"property_id": p.ID, "title": "Sweep", "minutes": 60, "spans": []obj{{"from": monday, "to": monday + 25, "cost": 0}}})
		ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": monday, "crew": crew.Name, "version": o.Version})
		places, orders = append(places, p.ID), append(orders, o.ID)
	}
	ok[struct{}](h, "PUT", "/rounds/told", obj{"orders": orders, "told": true})
	return crew, monday, places, orders
}

// TestStoryWashedOutDay: a day of three visits that clients know is lost to rain: the plan says where each goes, the day is
// empty, each client's letter names both days, and the new days hold what was moved.
func TestStoryWashedOutDay(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, monday, _, orders := h.threeTold()
	plan := ok[days.Lost](h, "GET", "/rounds/lost?why=rain&all=true&day="+monday.String(), nil)
	if len(plan.Visits) != 3 {
		t.Fatalf("falls off: %+v", plan.Visits)
	}
	ok[days.VisitChanged](h, "POST", "/rounds/lost", obj{"day": monday, "why": "rain", "all": true})
	if v := ok[days.Sheet](h, "GET", "/rounds/sheet?day="+monday.String(), nil).Visits; len(v) != 0 {
		t.Errorf("still on the lost day: %+v", v)
	}
	for i, id := range orders {
		o := h.order(id)
		if o.Day != plan.Visits[i].To || h.sheet(o.Day, id) == nil {
			t.Errorf("%s goes to %s, the plan said %s", o.Property, o.Day, plan.Visits[i].To)
		}
	}
	letters := ok[Run[letters.Telling]](h, "GET", "/rounds/tellings", nil).Items
	for _, l := range letters {
		if l.Before != monday || !l.Day.Given() {
			t.Errorf("the letter to %s: %+v", l.Property, l)
		}
	}
	if len(letters) != 3 {
		t.Errorf("%d letters", len(letters))
	}
}

// TestStoryCancelledClient: a client cancels: the visit is off sheet and calendar, its job waits with the reason, and the
// other visits stand.
func TestStoryCancelledClient(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	crew, monday, places, orders := h.threeTold()
	done := ok[days.VisitChanged](h, "POST", "/rounds/visits", obj{"property_id": places[1], "day": monday, "crew": crew.ID, "do": "cancelled", "reason": "A wedding in the garden"})
	o := h.order(orders[1])
	if o.Day.Given() || o.PutOff != 1 || !strings.Contains(o.PutOffWhy, "wedding") || h.sheet(monday, o.ID) != nil || h.sheet(monday, orders[0]) == nil {
		t.Errorf("cancelled: %+v", o.Order)
	}
	_, ics := h.do("GET", fmt.Sprintf("/rounds.ics?from=%s&to=%s", monday, monday), nil)
	if strings.Contains(string(ics), "Brook End") || !strings.Contains(string(ics), "Dune Row") {
		t.Error("the calendar has the cancelled visit, or has lost another")
	}
	ok[days.VisitChanged](h, "POST", "/rounds/visits/back", obj{"was": done.Was})
	if h.sheet(monday, o.ID) == nil {
		t.Error("taken back, it does not stand")
	}
}

// TestStoryHalfDoneHedge: half a hedge is cut: the rest is a job of its minutes, off today's sheet and in the list; put on
// another day, the van takes the trimmer again.
func TestStoryHalfDoneHedge(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	body := obj{"property_id": here.ID, "plants": []int64{box.ID}, "kind": "other", "title": "Cut the hedge", "minutes": 120, "kit": []string{"hedge trimmer"}, "spans": []obj{{"from": h.today, "to": h.today + 60, "cost": 0}}}
	o := h.jobOn(body, h.today)
	got := h.ends(o.ID, obj{"state": "partly done", "left_minutes": 50, "took_minutes": 70, "note": "the street side"})
	if got.Minutes != 50 || got.Day.Given() || h.sheet(h.today, o.ID) != nil {
		t.Errorf("half done: %+v", got.Order)
	}
	listed := false
	for _, w := range ok[days.Rounds](h, "GET", "/rounds", nil).Waiting {
		listed = listed || w.ID == o.ID && w.Minutes == 50
	}
	ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": h.today + 1, "version": got.Version})
	along := ok[days.Load](h, "GET", fmt.Sprintf("/rounds/load?from=%s", h.today+1), nil).Items
	if !listed || len(along) != 1 || along[0].Name != "hedge trimmer" {
		t.Errorf("in the list %v, taken along %+v", listed, along)
	}
}

// TestStorySheetAgreesWithEveryVerdict: over the sample, each job of each day sheet says of its plant what the plant's page,
// the job's own page and the load list say: what waits is flagged, and nothing is taken along for it.
func TestStorySheetAgreesWithEveryVerdict(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	read, today := 0, h.server.Estate.Today()
	for n := range 21 {
		on := today + day.Day(n)
		for _, v := range ok[days.Sheet](h, "GET", "/rounds/sheet?day="+on.String(), nil).Visits {
			for _, j := range v.Jobs {
				o := h.order(j.ID)
				if (o.Hold == nil) != (j.Hold == nil) || o.Hold != nil && o.Hold.Why != j.Hold.Why {
					t.Errorf("%s on %s: the sheet says %+v, the job %+v", j.Title, on, j.Hold, o.Hold)
				}
				if j.PlantID == 0 {
					continue
				}
				read++
				verdict := h.story(j.PlantID).Plant.Verdict
				if verdict != nil && verdict.Kind == damage.Wait && verdict.Until > on.String() && verdict.Decision != "not now" &&
					(j.Kind == job.CutBack || j.Kind == job.CutToBase || j.Kind == job.Feed) && j.Hold == nil && j.OriginID != verdict.ID {
					t.Errorf("%s stands on %s, and %q", j.Title, on, verdict.Sentence)
				}
			}
		}
	}
	if read < 5 {
		t.Errorf("%d jobs of plants were on sheets: too few to tell", read)
	}
}
