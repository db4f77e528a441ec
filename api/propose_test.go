package api_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/core/job"
	round "mezzadro/core/rounds"
	"mezzadro/house/crews"
	"mezzadro/house/days"
	"mezzadro/house/letters"
	"mezzadro/house/rounds"
	"mezzadro/house/standing"
	"mezzadro/house/work"
)

// weekOf is Monday to Friday from eight to five.
func weekOf() (out [7]round.Span) {
	for d := 1; d <= 5; d++ {
		out[d] = round.Span{From: 480, To: 1020}
	}
	return out
}

// crewOf enters a person and a crew of that one.
func (h *opened) crewOf(name string, skills ...string) crews.Crew {
	h.t.Helper()
	p := ok[crews.Person](h, "POST", "/people", obj{"name": name, "skills": append([]string{}, skills...)})
	return ok[crews.Crew](h, "POST", "/crews", obj{"name": name, "people": []int64{p.ID}, "hours": weekOf(), "start": obj{"latitude": 45.9, "longitude": 8.6}})
}

// proposed looks for rounds until they are there.
func (h *opened) proposed(in obj) rounds.Proposal {
	h.t.Helper()
	p := ok[rounds.Proposal](h, "POST", "/rounds/proposals", in)
	for deadline := time.Now().Add(time.Minute); p.State == "working" && time.Now().Before(deadline); time.Sleep(10 * time.Millisecond) {
		p = ok[rounds.Proposal](h, "GET", fmt.Sprintf("/rounds/proposals/%d", p.ID), nil)
	}
	if p.State != "done" {
		h.t.Fatalf("the proposal is %s", p.State)
	}
	return p
}

func (h *opened) byHand(property int64, title string, minutes int, more obj) work.Order {
	h.t.Helper()
	body := obj{"property_id": property, "title": title, "minutes": minutes, "spans": []obj{{"from": h.today.String(), "to": (h.today + 10).String()}}}
	for k, v := range more {
		body[k] = v
	}
	return ok[work.OrderDetail](h, "POST", "/orders", body).Order
}

// TestProgressStreams: how far a search is comes as events while it goes on, ever further, and ends with it.
func TestProgressStreams(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	h.crewOf("Ilda")
	h.byHand(here.ID, "Sweep the court", 60, nil)
	p := ok[rounds.Proposal](h, "POST", "/rounds/proposals", obj{"days": 10, "seconds": 0.7})
	code, b := h.do("GET", fmt.Sprintf("/rounds/proposals/%d/progress", p.ID), nil)
	var told []rounds.Progress
	for line := range strings.Lines(string(b)) {
		if data, is := strings.CutPrefix(strings.TrimSpace(line), "data: "); is {
			var one rounds.Progress
			if err := json.Unmarshal([]byte(data), &one); err != nil {
				t.Fatal(err)
			}
			told = append(told, one)
		}
	}
	if code != 200 || len(told) < 3 || told[len(told)-1].State != "done" {
		t.Fatalf("%d %s", code, b)
	}
	for i := 1; i < len(told); i++ {
		if told[i].Done < told[i-1].Done || told[i].Rounds < told[i-1].Rounds {
			t.Errorf("it goes back: %+v", told)
		}
	}
}

// TestPropose: jobs of two properties get days, crews and times; each says why and what other days cost; they are
// taken in one write and can be taken back; what is pinned stays; what changed meanwhile stays as it is.
func TestPropose(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, _, _, _ := h.boxes()
	if code, b := h.do("POST", "/rounds/proposals", obj{}); code < 400 || !strings.Contains(string(b), "no crew") {
		t.Errorf("without a crew: %d %s", code, b)
	}
	h.crewOf("Ilda", job.Restricted)
	h.crewOf("Bruno", job.Climbing)
	ok[standing.Access](h, "PUT", fmt.Sprintf("/properties/%d/access", there.ID), obj{"arrive": 10, "hours": weekOf(), "shut": []int{4}, "note": "Key at the mill"})
	sweep, rake, gate := h.byHand(here.ID, "Sweep the court", 60, nil), h.byHand(there.ID, "Rake the gravel", 120, nil), h.byHand(there.ID, "Oil the gate", 20, nil)
	weeks := ok[rounds.WeeksAhead](h, "GET", "/rounds/season?weeks=8", nil)
	if len(weeks.Weeks) != 8 || weeks.Crews != 2 || weeks.Weeks[0].Jobs != 3 || weeks.Weeks[0].Wanted != 200 || weeks.Weeks[0].Capacity < 3000 || len(weeks.Left) != 0 {
		t.Errorf("the season: %+v", weeks)
	}
	p := h.proposed(obj{"days": 10, "seconds": 60, "tries": 20}) // ends by its tries, long before the minute
	if code, b := h.do("GET", fmt.Sprintf("/rounds/proposals/%d/progress", p.ID), nil); code != 200 ||
		!strings.HasPrefix(string(b), `data: {"state":"done","done":1,`) {
		t.Errorf("progress of what is done: %d %s", code, b)
	}
	if p.New != 3 || len(p.Left) != 0 || len(p.Visits) < 2 || p.Score.Total < p.Bound || p.Rounds == 0 {
		t.Fatalf("proposed: %+v", p)
	}
	for _, v := range p.Visits {
		if v.From < 480 || v.To > 1020 || v.To <= v.From || v.Property == there.Name && v.Day.Time().Weekday() == time.Thursday {
			t.Errorf("visit: %+v", v)
		}
		if v.Property == there.Name && len(v.Jobs) != 2 {
			t.Errorf("two visits where one does: %+v", v)
		}
	}
	why := ok[round.Why](h, "GET", fmt.Sprintf("/rounds/proposals/%d/why/%d", p.ID, rake.ID), nil)
	if len(why.Others) != 10 || why.Text == "" {
		t.Errorf("why: %+v", why)
	}
	// One is changed by hand meanwhile.
	ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", gate.ID), obj{"day": (h.today + 8).String(), "version": gate.Version, "crew": "Bruno"})
	a := ok[rounds.Accepted](h, "POST", fmt.Sprintf("/rounds/proposals/%d/accept", p.ID), nil, "Idempotency-Key", "take")
	again := ok[rounds.Accepted](h, "POST", fmt.Sprintf("/rounds/proposals/%d/accept", p.ID), nil, "Idempotency-Key", "take")
	if a.Placed != 2 || len(a.Changed) != 1 || a.Changed[0] != "Oil the gate" || again.Placed != 2 {
		t.Errorf("taken: %+v, %+v", a, again)
	}
	read := func(o work.Order) work.OrderDetail {
		return ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", o.ID), nil)
	}
	if o := read(sweep); o.State != job.Placed || o.Crew == "" || !o.Day.Given() {
		t.Errorf("after: %+v", o.Order)
	}
	on := read(sweep)
	sheet := ok[days.Sheet](h, "GET", fmt.Sprintf("/rounds/sheet?day=%s&crew=%d", on.Day, on.CrewID), nil)
	if len(sheet.Visits) == 0 || sheet.Visits[0].At < 480 || len(sheet.Visits[0].Jobs) == 0 || sheet.Crews[0].ID == 0 {
		t.Errorf("the day's sheet: %+v", sheet)
	}
	if code, cal := h.do("GET", fmt.Sprintf("/rounds.ics?from=%s&to=%s&crew=%d", on.Day, on.Day, on.CrewID), nil); code != 200 ||
		!strings.Contains(string(cal), "Sweep the court") || !strings.Contains(string(cal), fmt.Sprintf("T%02d%02d00", sheet.Visits[len(sheet.Visits)-1].At/60, sheet.Visits[len(sheet.Visits)-1].At%60)) {
		t.Errorf("the crew's calendar: %d %s", code, cal)
	}
	for _, path := range []string{"/rounds.ics?from=%[1]s&to=%[1]s&crew=99", "/rounds/sheet?day=%s&crew=99", "/rounds/sheet.pdf?day=%s&crew=99", "/rounds/route.gpx?day=%s&crew=99"} {
		if code, b := h.do("GET", fmt.Sprintf(path, on.Day), nil); code != 404 {
			t.Errorf("%s, of a crew that is not there: %d %s", path, code, b)
		}
	}
	if code, b := h.do("GET", fmt.Sprintf("/rounds/route.geojson?day=%s&crew=%d", on.Day, on.CrewID), nil); code != 200 || !strings.Contains(string(b), `"LineString"`) ||
		strings.Count(string(b), `"Point"`) != len(sheet.Visits)+2 {
		t.Errorf("the way as GeoJSON: %d %s", code, b)
	}
	if code, b := h.do("GET", fmt.Sprintf("/rounds/route.gpx?day=%s&crew=%d", on.Day, on.CrewID), nil); code != 200 || !strings.Contains(string(b), "GPX/1/1") ||
		strings.Count(string(b), "<rtept ") != len(sheet.Visits)+2 {
		t.Errorf("the way as GPX: %d %s", code, b)
	}
	if code, b := h.do("GET", "/rounds/route.gpx?day=2030-01-01", nil); code != 200 || strings.Contains(string(b), "<rtept") {
		t.Errorf("a day without work: %d %s", code, b)
	}
	tell := ok[Run[letters.Telling]](h, "GET", "/rounds/tellings", nil).Items
	if len(tell) < 2 || !strings.Contains(tell[0].Text, "We are coming to ") || len(tell[0].Orders) == 0 {
		t.Errorf("to be told: %+v", tell)
	}
	if code, b := h.do("PUT", "/rounds/told", obj{"orders": tell[0].Orders, "told": true}); code >= 300 {
		t.Errorf("told: %d %s", code, b)
	}
	if n := len(ok[Run[letters.Telling]](h, "GET", "/rounds/tellings", nil).Items); n != len(tell)-1 {
		t.Errorf("%d left of %d", n, len(tell))
	}
	if code, _ := h.do("PUT", "/rounds/told", obj{"orders": []int64{999}, "told": true}); code != 404 {
		t.Errorf("a job that is not there: %d", code)
	}
	h.do("PUT", "/rounds/told", obj{"orders": tell[0].Orders, "told": false})
	back := ok[rounds.Accepted](h, "POST", fmt.Sprintf("/rounds/proposals/%d/take-back", p.ID), nil)
	if o := read(sweep); back.Placed != 2 || o.State != job.Waiting || o.Day.Given() {
		t.Errorf("taken back: %+v, %+v", back, o.Order)
	}
}

// TestProposeAnew: what is pinned stays though the rest is found anew; one job is put elsewhere and the rest stays;
// where somebody is ill only what stood there finds other days; what cannot be is refused by its field.
func TestProposeAnew(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, _, _, _ := h.boxes()
	h.crewOf("Ilda", job.Restricted)
	h.crewOf("Bruno", job.Climbing)
	sweep, rake, gate := h.byHand(here.ID, "Sweep the court", 60, nil), h.byHand(there.ID, "Rake the gravel", 120, nil), h.byHand(there.ID, "Oil the gate", 20, nil)
	ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", gate.ID), obj{"day": (h.today + 1).String(), "version": gate.Version, "crew": "Bruno"})
	read := func(o work.Order) work.OrderDetail {
		return ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", o.ID), nil)
	}
	// What is pinned stays though the rest is found anew.
	o := read(gate)
	pinned := ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/pin", o.ID), obj{"pinned": true, "version": o.Version})
	if !pinned.Pinned {
		t.Errorf("pinned: %+v", pinned.Order)
	}
	for _, v := range h.proposed(obj{"days": 10, "seconds": 0.3, "anew": true}).Visits {
		for _, k := range v.Jobs {
			if k.ID == gate.ID && (v.Day != h.today+1 || v.Crew != 1) {
				t.Errorf("the pinned one moved: %+v", v)
			}
		}
	}
	// One is put elsewhere, and the rest stays.
	first := h.proposed(obj{"days": 10, "seconds": 0.2})
	pins := []obj{{"order": sweep.ID, "crew": 1, "day": (h.today + 6).String()}}
	next := h.proposed(obj{"days": 10, "seconds": 0.2, "base": first.ID, "pins": pins})
	for _, v := range next.Visits {
		for _, k := range v.Jobs {
			if k.ID == sweep.ID && (v.Crew != 1 || v.Day != h.today+6) {
				t.Errorf("pinned in the proposal: %+v", v)
			}
		}
	}
	if code, b := h.do("POST", "/rounds/proposals", obj{"pins": []obj{{"order": 99, "crew": 0, "day": h.today.String()}}}); code != 422 || !strings.Contains(string(b), "body.pins[0]") {
		t.Errorf("no such job: %d %s", code, b)
	}
	// It rains, and somebody is ill: what stood there finds other days, the rest stays.
	stood := map[int64]rounds.ProposedVisit{}
	for _, v := range next.Visits {
		for _, k := range v.Jobs {
			stood[k.ID] = v
		}
	}
	ill := stood[rake.ID]
	healed := h.proposed(obj{"days": 10, "seconds": 0.3, "base": next.ID, "pins": pins, "away": []obj{{"crew": ill.Crew, "day": ill.Day.String()}}})
	for _, v := range healed.Visits {
		for _, k := range v.Jobs {
			if v.Crew == ill.Crew && v.Day == ill.Day {
				t.Errorf("%s is done by who is ill", k.Title)
			}
			if was := stood[k.ID]; (was.Crew != ill.Crew || was.Day != ill.Day) && k.ID != gate.ID && was.Day != v.Day {
				t.Errorf("%s moves from %s to %s for nothing", k.Title, was.Day, v.Day)
			}
		}
	}
	if code, b := h.do("POST", "/rounds/proposals", obj{"away": []obj{{"crew": 7, "day": h.today.String()}}}); code != 422 || !strings.Contains(string(b), "body.away[0].crew") {
		t.Errorf("a seventh crew: %d %s", code, b)
	}
	for path, says := range map[string]string{"/rounds/proposals/99": "proposal", fmt.Sprintf("/rounds/proposals/%d/why/99", first.ID): "job"} {
		if code, b := h.do("GET", path, nil); code != 404 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", path, code, b)
		}
	}
	if code, b := h.do("POST", "/rounds/proposals", obj{"from": "2020-01-01"}); code != 422 || !strings.Contains(string(b), "body.from") {
		t.Errorf("in the past: %d %s", code, b)
	}
}

// TestStopProposal: what was found so far is the proposal.
func TestStopProposal(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	h.crewOf("Ilda")
	h.byHand(here.ID, "Sweep the court", 60, nil)
	p := ok[rounds.Proposal](h, "POST", "/rounds/proposals", obj{"seconds": 60})
	from := time.Now()
	p = ok[rounds.Proposal](h, "POST", fmt.Sprintf("/rounds/proposals/%d/stop", p.ID), nil)
	if p.State != "done" || p.New != 1 || time.Since(from) > 30*time.Second {
		t.Errorf("stopped: %+v", p)
	}
}

// TestCrews: a crew without hours or people that are there, and an old version, are refused by their fields.
func TestCrews(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	c := h.crewOf("Ilda", job.Ladder, job.Restricted)
	if len(c.Skills) != 2 || len(c.People) != 1 {
		t.Fatalf("%+v", c)
	}
	good := func() obj { return obj{"name": "Two", "people": []int64{1}, "hours": weekOf(), "version": c.Version} }
	for says, change := range map[string]func(obj){
		"body.name":           func(o obj) { o["name"] = " " },
		"body.people[0]":      func(o obj) { o["people"] = []int64{9} },
		"body.hours":          func(o obj) { o["hours"] = [7]round.Span{} },
		"body.hours[2]":       func(o obj) { w := weekOf(); w[2] = round.Span{From: 900, To: 800}; o["hours"] = w },
		"body.start.latitude": func(o obj) { o["start"] = obj{"latitude": 95, "longitude": 0} },
	} {
		body := good()
		change(body)
		if code, b := h.do("POST", "/crews", body); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
	one := fmt.Sprintf("/crews/%d", c.ID)
	ok[crews.Crew](h, "PUT", one, good())
	if code, b := h.do("PUT", one, good()); code != 409 || !strings.Contains(string(b), "Two") {
		t.Errorf("an old version: %d %s", code, b)
	}
	h.do("DELETE", one, nil)
	if n := len(ok[Run[crews.Crew]](h, "GET", "/crews", nil).Items); n != 0 {
		t.Errorf("%d after removal", n)
	}
	h.do("POST", one+"/restore", nil)
	if n := len(ok[Run[crews.Crew]](h, "GET", "/crews", nil).Items); n != 1 {
		t.Errorf("%d after restoring", n)
	}
	here, _, _, _, _ := h.boxes()
	path := fmt.Sprintf("/properties/%d/access", here.ID)
	if a := ok[standing.Access](h, "GET", path, nil); a.Arrive != 0 || len(a.Shut) != 0 {
		t.Errorf("nothing entered: %+v", a)
	}
	if code, b := h.do("PUT", path, obj{"arrive": 5, "hours": weekOf(), "shut": []int{9}, "note": ""}); code != 422 || !strings.Contains(string(b), "body.shut[0]") {
		t.Errorf("a ninth weekday: %d %s", code, b)
	}
}

// TestWays: timed ways by name are taken from a file and given back among the estimated ones; holes are estimated;
// faults are named by line and nothing is taken.
func TestWays(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, _, _, _ := h.boxes()
	h.crewOf("Ilda")
	h.byHand(there.ID, "Rake the gravel", 60, nil)
	csv := fmt.Sprintf("from,to,minutes\nIlda,%s,41\n%s,%s,\n%s,%s,17.5\n", there.Name, here.Name, there.Name, there.Name, here.Name)
	if code, b := h.do("POST", "/ways", csv, "Content-Type", "text/csv"); code != 200 || !strings.Contains(string(b), `"ways":2`) {
		t.Fatalf("taken: %d %s", code, b)
	}
	if code, b := h.do("GET", "/ways.csv", nil); code != 200 || !strings.Contains(string(b), "Ilda,"+there.Name+",41\n") || !strings.Contains(string(b), ",17.5\n") ||
		strings.Count(string(b), "\n") != 4 {
		t.Errorf("given back: %d %s", code, b)
	}
	if v := h.proposed(obj{"days": 5, "seconds": 0.1}).Visits; len(v) != 1 || v[0].Travel != 41 {
		t.Errorf("the way that was timed: %+v", v)
	}
	for says, text := range map[string]string{
		"line 2 to":           "from,to,minutes\nIlda,Nowhere,5\n",
		"line 3: minutes":     fmt.Sprintf("from,to,minutes\nIlda,%s,5\nIlda,%s,soon\n", here.Name, there.Name),
		"line 2 from":         fmt.Sprintf("from,to,minutes\nNobody,%s,5\n", here.Name),
		"from is missing":     "a,b,c\n1,2,3\n",
		"to itself":           fmt.Sprintf("from,to,minutes\n%s,%s,5\n", here.Name, here.Name),
		"no way with minutes": "from,to,minutes\na,b\n",
	} {
		if code, b := h.do("POST", "/ways", text, "Content-Type", "text/csv"); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
	if _, b := h.do("GET", "/ways.csv", nil); !strings.Contains(string(b), ",41\n") {
		t.Errorf("after what was refused: %s", b)
	}
}

// TestReckonRounds: inline values, repeatable by seed; faults by their fields.
func TestReckonRounds(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	body := func() obj {
		return obj{"from": "2027-03-22", "days": 5, "rounds": 40, "seed": 3, "explain": []int{0},
			"crews":  []obj{{"name": "Two", "size": 2, "hours": weekOf(), "start": obj{"latitude": 45.9, "longitude": 8.6}}},
			"places": []obj{{"name": "Villa", "at": obj{"latitude": 45.92, "longitude": 8.63}}},
			"jobs":   []obj{{"title": "Spray", "place": 0, "minutes": 90, "costs": []int{0, 5, 10, 20, 30}, "work": "spray"}},
			"weather": []obj{{"day": "2027-03-22", "told": true, "rain_mm": 9, "min_c": 5, "max_c": 12},
				{"day": "2027-03-23", "told": true, "min_c": 5, "max_c": 12}}}
	}
	a := ok[rounds.ReckonRoundsOut](h, "POST", "/reckon/rounds", body())
	if len(a.Visits) != 1 || a.Visits[0].Day != 1 || len(a.Why) != 1 || !strings.Contains(a.Why[0].Others[0].Why, "rain") {
		t.Errorf("%+v", a)
	}
	idle := body()
	idle["crews"] = []obj{{"name": "None", "size": 2, "hours": [7]round.Span{}}}
	a = ok[rounds.ReckonRoundsOut](h, "POST", "/reckon/rounds", idle)
	if len(a.Left) != 1 || !strings.Contains(a.Left[0].Why, "at work") || !strings.Contains(strings.Join(a.Notes, " "), "None has no hours") {
		t.Errorf("a crew without hours: %+v", a)
	}
	for says, change := range map[string]func(obj){
		"body.crews[0].hours[1]": func(o obj) {
			o["crews"] = []obj{{"name": "None", "size": 2, "hours": [7]round.Span{1: {From: 900, To: 800}}}}
		},
		"body.jobs[0].place":    func(o obj) { o["places"] = []obj{} },
		"body.explain[0]":       func(o obj) { o["explain"] = []int{4} },
		"body.jobs[0].costs[1]": func(o obj) { o["jobs"] = []obj{{"place": 0, "minutes": 10, "costs": []int{0, 300}}} },
	} {
		b := body()
		change(b)
		if code, text := h.do("POST", "/reckon/rounds", b); code != 422 || !strings.Contains(string(text), says) {
			t.Errorf("%s: %d %s", says, code, text)
		}
	}
}

// TestDocumentedSizesFit: as many jobs as the operation says it takes, with a cost for each of sixty days, are read: the
// fault that is in them is named, not that they are too many.
func TestDocumentedSizesFit(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	costs := make([]int, 60)
	for d := range costs {
		costs[d] = 100
	}
	jobs := make([]obj, 5000)
	for i := range jobs {
		jobs[i] = obj{"title": fmt.Sprintf("Work of some length, number %d", i), "place": 0, "minutes": 60, "costs": costs}
	}
	jobs[4999]["minutes"] = 0
	code, b := h.do("POST", "/reckon/rounds", obj{"from": "2027-03-22", "days": 60, "jobs": jobs, "places": []obj{{"name": "Villa"}},
		"crews": []obj{{"name": "Crew", "size": 1, "hours": make([]obj, 0)}}})
	if code != 422 || !strings.Contains(string(b), "jobs[4999].minutes") && !strings.Contains(string(b), "crews[0].hours") {
		t.Errorf("%d %.300s", code, b)
	}
}
