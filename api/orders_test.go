package api_test

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"
)

// TestRecordBeforeOrders opens a record that the program before orders made: every verdict, job and day is there, and the
// windows say the same within five days: what the last frosts are reckoned from was set anew since (4 days at most).
func TestRecordBeforeOrders(t *testing.T) {
	t.Parallel()
	h := &opened{t: t, folder: t.TempDir(), today: day.Of(2027, 3, 18)}
	dump, err := os.ReadFile("../store/testdata/record-before-orders.sql")
	if err != nil {
		t.Fatal(err)
	}
	db, err := sql.Open("sqlite", filepath.Join(h.folder, "mezzadro.db"))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec(string(dump)); err != nil {
		t.Fatal(err)
	}
	var verdicts int
	if err := db.QueryRow(`SELECT count(*) FROM verdict`).Scan(&verdicts); err != nil || verdicts == 0 {
		t.Fatalf("%d verdicts, %v", verdicts, err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	h.open()
	var was []struct {
		ID       int64        `json:"id"`
		PlantID  int64        `json:"plant_id"`
		Kind     string       `json:"kind"`
		Title    string       `json:"title"`
		Day      string       `json:"day"`
		BestDay  day.Day      `json:"best_day"`
		BestCost int          `json:"best_cost"`
		Windows  []job.Window `json:"windows"`
	}
	b, err := os.ReadFile("../store/testdata/windows-before-orders.json")
	if err == nil {
		err = json.Unmarshal(b, &was)
	}
	if err != nil || len(was) < 15 {
		t.Fatalf("%d jobs, %v", len(was), err)
	}
	near := func(a, b day.Day) bool { return a-b <= 5 && b-a <= 5 }
	for _, w := range was {
		o := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", w.ID), nil)
		if o.PlantID != w.PlantID || string(o.Kind) != w.Kind || o.Title != w.Title || o.Day.String() != w.Day {
			t.Errorf("job %d was %+v and is %+v", w.ID, w, o.Order)
		}
		if !near(o.BestDay, w.BestDay) || len(o.Windows) != len(w.Windows) {
			t.Errorf("%s: best %s, was %s; windows %v, were %v", w.Title, o.BestDay, w.BestDay, o.Windows, w.Windows)
			continue
		}
		for i := range w.Windows {
			if !near(o.Windows[i].From, w.Windows[i].From) || !near(o.Windows[i].To, w.Windows[i].To) {
				t.Errorf("%s: window %v, was %v", w.Title, o.Windows[i], w.Windows[i])
			}
		}
	}
	if list := ok[Run[work.Order]](h, "GET", "/orders?limit=500", nil); len(list.Items) != len(was) {
		t.Errorf("%d jobs stand, %d did", len(list.Items), len(was))
	}
}

// decide accepts or overrules a verdict on the villa's camellia.
func (h *opened) decide(property garden.PropertyOut, plant estate.PlantOut, d obj) walks.Decided {
	h.t.Helper()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": doubt})
	return ok[walks.Decided](h, "POST", at+"/verdict", d)
}

// TestAnOrdersLife: put on a day, overdue, ticked off, taken back; what was skipped says why; two devices at one order.
func TestAnOrdersLife(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	look := from(h.decide(property, plant, obj{"decision": "accepted"}).Jobs, job.Verdict)[0]
	path := fmt.Sprintf("/orders/%d", look.ID)
	put := ok[work.PutOut](h, "PUT", path+"/day", obj{"day": "2027-04-26", "version": 1, "crew": "Crew 1"})
	h.today = day.Of(2027, 4, 29)
	late := ok[Run[work.Order]](h, "GET", "/orders?list=overdue", nil).Items
	if len(late) != 1 || !late[0].Overdue || late[0].Crew != "Crew 1" {
		t.Fatalf("overdue: %+v", late)
	}
	if f := ok[Frame](h, "GET", "/frame", nil); f.Counts.Overdue != 1 {
		t.Errorf("counts: %+v", f.Counts)
	}
	for name, c := range map[string]struct {
		body obj
		code int
		says string
	}{
		"skipped without a reason": {obj{"state": "skipped", "version": 2}, 422, "body.note"},
		"done tomorrow":            {obj{"state": "done", "on": "2027-04-30", "version": 2}, 422, "body.on"},
		"took less than no time":   {obj{"state": "done", "took_minutes": -3, "version": 2}, 422, "body.took_minutes"},
		"on an old version":        {obj{"state": "done", "version": 1}, 409, `"crew":"Crew 1"`},
	} {
		if code, b := h.do("PUT", path+"/state", c.body); code != c.code || !strings.Contains(string(b), c.says) {
			t.Errorf("%s: %d %s", name, code, b)
		}
	}
	tick := obj{"state": "done", "took_minutes": 12, "note": "In leaf all over", "version": put.Order.Version}
	done := ok[work.OrderDetail](h, "PUT", path+"/state", tick, "Idempotency-Key", "tick")
	if again := ok[work.OrderDetail](h, "PUT", path+"/state", tick, "Idempotency-Key", "tick"); again.Version != done.Version || again.State != job.Done {
		t.Errorf("the same tick twice: %+v, %+v", done.Order, again.Order)
	}
	if done.Took != 12 || done.Ended != h.today || done.Overdue {
		t.Errorf("done: %+v", done.Order)
	}
	if r := ok[days.Rounds](h, "GET", "/rounds?from=2027-04-29&days=7", nil); len(r.Overdue) != 0 || len(r.Days[0].Jobs) != 1 || r.Days[0].Jobs[0].State != job.Done {
		t.Errorf("the day's list: %+v", r.Days[0])
	}
	if code, b := h.do("PUT", path+"/day", obj{"day": "2027-05-02", "version": done.Version}); code != 409 || !strings.Contains(string(b), "done already") {
		t.Errorf("what is done was put on a day: %d %s", code, b)
	}
	back := ok[work.OrderDetail](h, "PUT", path+"/state", obj{"state": "waiting", "version": done.Version})
	if back.State != job.Placed || !back.Overdue || back.Took != 0 {
		t.Errorf("taken back: %+v", back.Order)
	}
	// A later verdict leaves what is done alone and drops what is not.
	ok[work.OrderDetail](h, "PUT", path+"/state", obj{"state": "done", "version": back.Version})
	h.decide(property, plant, obj{"decision": "overruled", "kind": "leave", "note": "It leafs"})
	story := ok[walks.Story](h, "GET", fmt.Sprintf("/plants/%d/story", plant.ID), nil)
	if len(story.Jobs) != 1 || story.Jobs[0].ID != look.ID {
		t.Errorf("after a verdict to leave it: %+v", story.Jobs)
	}
}

// TestByHandOnADay: an order by hand can be put on a day as it is entered; one that cannot stand there is not kept at all.
// A change leaves the day to the operation that is there for it.
func TestByHandOnADay(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	on := h.today + 4
	body := obj{"property_id": property.ID, "kind": "walk", "title": "Walk of it", "minutes": 30, "day": on.String(),
		"spans": []obj{{"from": on.String(), "to": (on + 28).String()}}}
	walk := ok[work.OrderDetail](h, "POST", "/orders", body)
	if walk.Kind != job.Walk || walk.State != job.Placed || walk.Day != on || walk.Plants != 0 {
		t.Fatalf("put on a day: %+v", walk)
	}
	for name, d := range map[string]day.Day{"outside its days": on - 1, "past": h.today - 1} {
		body["day"] = d.String()
		if code, b := h.do("POST", "/orders", body); code != 422 || !strings.Contains(string(b), "body.day") {
			t.Errorf("%s: %d %s", name, code, b)
		}
	}
	if n := len(ok[Run[work.Order]](h, "GET", "/orders", nil).Items); n != 1 {
		t.Errorf("%d orders are kept, want the one", n)
	}
	if code, b := h.do("PUT", fmt.Sprintf("/orders/%d", walk.ID), obj{"property_id": property.ID, "kind": "walk", "title": "Walk",
		"minutes": 30, "day": on.String(), "spans": body["spans"], "version": walk.Version}); code != 422 || !strings.Contains(string(b), "body.day") {
		t.Errorf("a change that brings a day: %d %s", code, b)
	}
}

// TestByHandAndAcross: an order by hand survives verdicts, keeps gaps to orders of any origin, and can be changed.
func TestByHandAndAcross(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	look := from(h.decide(property, plant, obj{"decision": "accepted"}).Jobs, job.Verdict)[0]
	ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", look.ID), obj{"day": "2027-04-26", "version": 1})
	body := obj{"property_id": property.ID, "plants": []int64{plant.ID}, "title": "Wrap the stem", "minutes": 20, "every_days": 10,
		"spans": []obj{{"from": "2027-03-20", "to": "2027-05-10", "cost": 10}}, "after": []obj{{"id": look.ID, "min_days": 5, "why": "the look comes first"}}}
	hand := ok[work.OrderDetail](h, "POST", "/orders", body)
	if hand.Origin != job.Hand || hand.BestCost != 10 || len(hand.After) != 1 || len(hand.PlantIDs) != 1 {
		t.Fatalf("%+v", hand)
	}
	if p := ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", hand.ID), obj{"day": "2027-04-28", "version": 1}); len(p.Warnings) != 1 || !strings.Contains(p.Warnings[0], "26 April") {
		t.Errorf("two days after: %v", p.Warnings)
	}
	if code, b := h.do("PUT", fmt.Sprintf("/orders/%d/day", hand.ID), obj{"day": "2027-05-20", "version": 2}); code != 422 || !strings.Contains(string(b), "body.day") {
		t.Errorf("on a day that was not entered: %d %s", code, b)
	}
	// Done, a repeat asks for the next time, and only for that; taken back, that goes again.
	h.today = day.Of(2027, 4, 28)
	done := ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", hand.ID), obj{"state": "done", "version": 2})
	wraps := func() (out []work.Order) {
		for _, o := range ok[Run[work.Order]](h, "GET", "/orders", nil).Items {
			if o.Title == "Wrap the stem" {
				out = append(out, o)
			}
		}
		return out
	}
	if w := wraps(); len(w) != 1 || w[0].BestDay != h.today+10 {
		t.Errorf("the next time: %+v", w)
	}
	back := ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d/state", hand.ID), obj{"state": "waiting", "version": done.Version})
	if w := wraps(); len(w) != 1 || w[0].ID != hand.ID {
		t.Errorf("after taking it back: %+v", w)
	}
	h.decide(property, plant, obj{"decision": "overruled", "kind": "leave", "note": "fine"})
	if len(wraps()) != 1 {
		t.Error("a verdict dropped an order by hand")
	}
	for name, c := range map[string]struct {
		change obj
		field  string
	}{
		"no title": {obj{"title": " "}, "body.title"}, "no minutes": {obj{"minutes": 0}, "body.minutes"}, "no days": {obj{"spans": []obj{}}, "body.spans"},
		"backwards": {obj{"spans": []obj{{"from": "2027-05-10", "to": "2027-05-01"}}}, "body.spans[0].to"}, "no such plant": {obj{"plants": []int64{99}}, "body.plants[0]"},
		"after itself": {obj{"after": []obj{{"id": hand.ID}}}, "body.after[0].id"}, "no kind of work": {obj{"kind": "felling"}, "body.kind"},
	} {
		b := obj{"version": back.Version}
		for k, v := range body {
			b[k] = v
		}
		for k, v := range c.change {
			b[k] = v
		}
		if code, got := h.do("PUT", fmt.Sprintf("/orders/%d", hand.ID), b); code != 422 || !strings.Contains(string(got), c.field) {
			t.Errorf("%s: %d %s", name, code, got)
		}
	}
	delete(body, "after") // the look went with its verdict
	body["title"], body["version"] = "Wrap the stem in jute", back.Version
	if c := ok[work.OrderDetail](h, "PUT", fmt.Sprintf("/orders/%d", hand.ID), body); c.Title != "Wrap the stem in jute" || c.Day != day.Of(2027, 4, 28) {
		t.Errorf("changed: %+v", c.Order)
	}
}

// TestPassed: an order past its curve comes last, and can be given the coming year's window or dropped and brought back.
func TestPassed(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	d := h.decide(property, plant, obj{"decision": "overruled", "kind": "cut back to live wood", "cut_m": 1, "note": "so be it"})
	h.today = day.Of(2028, 3, 1)
	list := ok[Run[work.Order]](h, "GET", "/orders?list=waiting", nil).Items
	if len(list) != len(d.Jobs) || !list[0].Passed {
		t.Fatalf("%+v", list)
	}
	var cut work.Order
	for _, o := range list {
		if o.Kind == job.CutBack {
			cut = o
		}
	}
	next := ok[work.OrderDetail](h, "POST", fmt.Sprintf("/orders/%d/next-year?version=%d", cut.ID, cut.Version), nil)
	if next.Passed || next.BestDay.Year() != 2028 || next.BestDay <= h.today {
		t.Errorf("in the coming year: %+v", next.Order)
	}
	if first := ok[Run[work.Order]](h, "GET", "/orders?list=waiting", nil).Items[0]; first.ID != cut.ID {
		t.Errorf("first in the list is %+v", first)
	}
	ok[struct{}](h, "DELETE", fmt.Sprintf("/orders/%d?version=%d", cut.ID, next.Version), nil)
	if code, _ := h.do("GET", fmt.Sprintf("/orders/%d", cut.ID), nil); code != 404 {
		t.Errorf("a dropped order answers %d", code)
	}
	ok[work.OrderDetail](h, "POST", fmt.Sprintf("/orders/%d/restore", cut.ID), nil)
}

// TestUnits: the firm's units are those of every text, figures stay SI, and the reader's region orders day and month.
func TestUnits(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	d := h.decide(property, plant, obj{"decision": "overruled", "kind": "cut back to live wood", "cut_m": 1, "note": "so be it"})
	f := ok[FirmOut](h, "PUT", "/firm", obj{"name": "Our firm", "units": "imperial", "week_start": 0, "rules": obj{"perennials": "at frost"}, "version": 0})
	if f.Units != "imperial" || f.Rules.Perennials != "at frost" {
		t.Fatalf("%+v", f)
	}
	o := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", d.Jobs[0].ID), nil)
	if o.Title != "Cut Common camellia back to 3 ft 3 in" || o.Params.CutM != 1 {
		t.Errorf("%q at %g m", o.Title, o.Params.CutM)
	}
	at := fmt.Sprintf("/plants/%d", plant.ID)
	_, b := h.do("GET", at, nil, "Accept-Language", "en-US,en;q=0.9")
	if !strings.Contains(string(b), " °F") || strings.ContainsAny(string(b), "\ue000\ue001") {
		t.Errorf("a plant in imperial: %.600s", b)
	}
	if !strings.Contains(string(b), "February 26") {
		t.Errorf("a reader in the United States is told days first: %.600s", b)
	}
	if _, b := h.do("GET", at, nil, "Accept-Language", "en-GB"); !strings.Contains(string(b), "26 February") {
		t.Error("a reader in Britain is told months first")
	}
	if code, b := h.do("PUT", "/firm", obj{"name": "Theirs", "units": "metric", "week_start": 1, "rules": obj{"perennials": "stand"}, "version": 0}); code != 409 || !strings.Contains(string(b), `"units":"imperial"`) {
		t.Errorf("on an old version: %d %s", code, b)
	}
}

// TestContract goes through all operations of the description: each says what it is, and what it answers to its own example,
// and to an id that is not there, is one of the answers it declares.
func TestContract(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	var doc struct {
		Paths map[string]map[string]struct {
			ID          string   `json:"operationId"`
			Summary     string   `json:"summary"`
			Description string   `json:"description"`
			Tags        []string `json:"tags"`
			Parameters  []struct {
				Name string `json:"name"`
				In   string `json:"in"`
			} `json:"parameters"`
			RequestBody struct {
				Content map[string]struct {
					Example any `json:"example"`
				} `json:"content"`
			} `json:"requestBody"`
			Responses map[string]any `json:"responses"`
		} `json:"paths"`
	}
	b, err := Describe()
	if err == nil {
		err = json.Unmarshal(b, &doc)
	}
	if err != nil {
		t.Fatal(err)
	}
	seen := 0
	for path, methods := range doc.Paths {
		for method, op := range methods {
			seen++
			if op.Summary == "" || op.Description == "" || len(op.Tags) != 1 {
				t.Errorf("%s %s says too little of itself", method, path)
			}
			keyed := false
			for _, p := range op.Parameters {
				keyed = keyed || p.Name == "Idempotency-Key"
			}
			if method != "get" && !strings.Contains(path, "/reckon/") && !keyed {
				t.Errorf("%s %s takes no idempotency key", method, path)
			}
			for _, id := range []string{"1", "987654"} {
				at := strings.NewReplacer("/api/v1", "", "{id}", id, "{plant}", id, "{hash}", strings.Repeat("0", 64)).Replace(path)
				var body any
				if e, has := op.RequestBody.Content["application/json"]; has {
					if body = e.Example; body == nil && op.ID != "keep-species" {
						t.Errorf("%s has no example", op.ID)
					}
				}
				for kind, e := range op.RequestBody.Content {
					if text, is := e.Example.(string); is && kind != "application/json" {
						body = text
					}
				}
				if op.ID == "first-owner" || op.ID == "sign-in" { // they close the door, or wait: tried by themselves
					continue
				}
				code, answer := h.do(strings.ToUpper(method), at, body)
				if _, declared := op.Responses[fmt.Sprint(code)]; !declared || code >= 500 {
					t.Errorf("%s %s answers %d, which it does not declare: %.200s", method, at, code, answer)
				}
			}
		}
	}
	if seen < 60 {
		t.Errorf("only %d operations were gone through", seen)
	}
}

// manyOrders adds so many orders on each plant of a large record, as verdicts would.
func manyOrders(b *testing.B, h *opened, each int) {
	b.Helper()
	ctx := context.Background()
	plants, err := h.server.Estate.Store.Plants(ctx, 0, 0, 1<<31)
	if err != nil {
		b.Fatal(err)
	}
	kinds := []job.Order{{Kind: job.Look, Title: "Look again", Params: job.Params{When: job.LeafDue}}, {Kind: job.CutBack, Title: "Cut back", Params: job.Params{When: job.AsFound}},
		{Kind: job.Feed, Title: "Feed", Params: job.Params{EveryDays: job.FeedEvery}}}
	n := 0
	err = h.server.Estate.Store.Write(ctx, func(tx store.Tx) error {
		for i, p := range plants {
			for k := range each {
				if each == 3 && i%2 == 1 && k == 2 {
					continue
				}
				o := kinds[k]
				o.Key, o.Origin, o.For, o.Minutes, o.Crew = fmt.Sprint(k), job.Verdict, h.today-day.Day(i%3), 20, 1
				id, err := tx.AddOrder(ctx, store.NewOrder{PropertyID: p.PropertyID, Plants: []int64{p.ID}, Trouble: "damage", Order: o, Outlook: job.Outlook{Best: h.today + day.Day(i%90), Window: job.Window{From: h.today, To: h.today + 30}}})
				if err != nil {
					return err
				}
				if n++; i%25 == 0 && k == 0 {
					d := (h.today + day.Day(i%14)).String()
					if _, err := tx.SetStand(ctx, id, 1, store.Stand{State: job.Placed, Day: &d}); err != nil {
						return err
					}
				}
			}
		}
		return nil
	})
	if err != nil {
		b.Fatal(err)
	}
	b.Logf("%d orders on %d plants", n, len(plants))
}

// page, days, plants and counted are the raw reads of the rows that the places show, without what is made of them.
func (h *opened) page(list store.OrderList, limit int) func() error {
	return func() error {
		_, err := h.server.Estate.Store.OrderPage(context.Background(),
			store.OrderPage{List: list, Today: h.today.String(), Soon: (h.today + 14).String(), Limit: limit})
		return err
	}
}

func (h *opened) days(n int) func() error {
	return func() error {
		from, to := h.today.String(), (h.today + day.Day(n-1)).String()
		if _, err := h.server.Estate.Store.OrdersBetween(context.Background(), from, to, 2000); err != nil {
			return err
		}
		_, err := h.server.Estate.Store.EndedBetween(context.Background(), from, to, 2000)
		return err
	}
}

func (h *opened) plants(n int) func() error {
	return func() error {
		_, err := h.server.Estate.Store.Plants(context.Background(), 0, 0, n)
		return err
	}
}

func (h *opened) counted() func() error {
	return func() error {
		_, err := h.server.Estate.Store.CountOrders(context.Background(), h.today.String(), (h.today + 14).String())
		return err
	}
}

// BenchmarkOrders25000 asks for the places' first pages over 25,000 orders on 10,000 plants of 200 properties, beside the raw
// read of the same rows, and works all windows out anew after a day of weather.
func BenchmarkOrders25000(b *testing.B) {
	h := newHouse(b)
	many(b, h, 200)
	manyOrders(b, h, 3)
	for plant := range 40 {
		in := obj{"plant_id": plant + 1, "cause": []string{"honey-fungus", "root-rot", "black-spot", "soft-scale", "lace-bug"}[plant%5], "certainty": 0.9}
		if code, body := h.do("POST", "/finds", in); code != 200 {
			b.Fatal(code, string(body))
		}
	}
	ctx := context.Background()
	if code, body := h.do("GET", "/frame", nil); code != 200 {
		b.Fatal(code, string(body))
	}
	for _, c := range []struct {
		name, path string
		raw        []func() error
	}{
		{"year", "/year?limit=40", []func() error{h.page(store.ListStanding, 41), h.counted()}},
		{"rounds", "/rounds", []func() error{h.days(14), h.page(store.ListOverdue, 201), h.page(store.ListWaiting, 61), h.counted()}},
		{"lookout", "/lookout", []func() error{h.plants(30 * 12),
			h.page(store.ListOverdue, 61), h.page(store.ListDue, 61), h.page(store.ListClosing, 61), h.counted(),
		}},
		{"frame", "/frame", []func() error{h.counted()}},
		{"spread watch", "/watch", []func() error{h.plants(1 << 30)}},
	} {
		b.Run(c.name, func(b *testing.B) {
			for b.Loop() {
				if code, body := h.do("GET", c.path, nil); code != 200 {
					b.Fatal(code, string(body))
				}
			}
			took := b.Elapsed() / time.Duration(b.N)
			from := time.Now()
			const runs = 5
			for range runs {
				for _, read := range c.raw {
					if err := read(); err != nil {
						b.Fatal(err)
					}
				}
			}
			b.ReportMetric(float64(took)/float64(time.Since(from)/runs), "×raw")
		})
	}
	b.Run("all windows anew", func(b *testing.B) {
		for b.Loop() {
			b.StopTimer()
			h.today++
			if code, _ := h.do("GET", "/climates", nil); code != 200 {
				b.Fatal(code)
			}
			if err := h.server.Estate.Warm(ctx); err != nil {
				b.Fatal(err)
			}
			b.StartTimer()
			if err := h.server.Work.RefreshWindows(ctx); err != nil {
				b.Fatal(err)
			}
		}
	})
}

// TestLanesInOrder: the year's jobs by time, property, plant or kind, filtered by kind, word and what closes soon, from any place on.
func TestLanesInOrder(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, box, rose, farBox := h.boxes()
	add := func(p garden.PropertyOut, plant estate.PlantOut, kind, title string) {
		ok[work.OrderDetail](h, "POST", "/orders", obj{"property_id": p.ID, "plants": []int64{plant.ID}, "kind": kind, "title": title, "minutes": 20})
	}
	add(there, farBox, "mulch", "Mulch the court")
	add(here, rose, "prune", "Cut the roses")
	add(here, box, "feed", "Feed the box")
	add(here, rose, "feed", "Feed the roses")
	titles := func(query string) (out []string) {
		y := ok[work.LanesPage](h, "GET", "/year"+query, nil)
		for _, l := range y.Items {
			out = append(out, l.Title)
		}
		return append(out, fmt.Sprint(y.Total))
	}
	for _, c := range []struct{ query, want string }{
		{"?by=property", "Cut the roses, Feed the roses, Feed the box, Mulch the court, 4"},
		{"?by=plant", "Feed the box, Cut the roses, Feed the roses, Mulch the court, 4"},
		{"?by=kind", "Feed the roses, Feed the box, Mulch the court, Cut the roses, 4"},
		{"?by=kind&from=2&limit=1", "Mulch the court, 4"},
		{"?by=property&from=9", "4"},
		{"?kind=feed&by=plant", "Feed the box, Feed the roses, 2"},
		{"?text=feed%20roses", "Feed the roses, 1"},
		{"?text=mill", "Mulch the court, 1"},
		{fmt.Sprintf("?property=%d", there.ID), "Mulch the court, 1"},
		{"?closing=60&by=plant", "Cut the roses, Mulch the court, 2"},
		{"?closing=1", "0"},
	} {
		if got := strings.Join(titles(c.query), ", "); got != c.want {
			t.Errorf("%s: %s, want %s", c.query, got, c.want)
		}
	}
	if code, b := h.do("GET", "/year?by=colour", nil); code != 422 || !strings.Contains(string(b), "query.by") {
		t.Errorf("no such order: %d %s", code, b)
	}
}
