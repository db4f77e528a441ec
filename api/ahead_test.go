package api_test

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"testing"

	ics "github.com/arran4/golang-ical"

	. "mezzadro/api"
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	round "mezzadro/core/rounds"
	"mezzadro/exchange"
	"mezzadro/house/days"
	"mezzadro/house/letters"
	"mezzadro/house/rounds"
	"mezzadro/house/work"
	"mezzadro/standin"
)

// stormy has the station tell so many days of heavy rain.
func (h *opened) stormy(days int) {
	w := &standin.WeatherStation{Seed: 3}
	for _, c := range catalogue.Built().Climates {
		w.Climates = append(w.Climates, c.Climate)
	}
	if err := w.Write(standin.Event{Kind: "shift", From: h.today, To: h.today + day.Day(days-1), Rain: 15}); err != nil {
		h.t.Fatal(err)
	}
	h.server.Estate.Station = &exchange.Station{URL: "http://simulated", Client: exchange.Local(w)}
}

// TestWeatherAhead: the station tells a week of rain: what wants dry soil waits until it is over, and says why;
// sweeping does not wait. Without a station the usual weather stands, and nothing is forbidden.
func TestWeatherAhead(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, box, _, _ := h.boxes()
	h.crewOf("Ilda")
	plant := ok[work.OrderDetail](h, "POST", "/orders",
		obj{"property_id": here.ID, "title": "Plant the box hedge anew", "minutes": 60, "kind": "replace", "plants": []int64{box.ID}}).Order
	sweep := h.byHand(here.ID, "Sweep the court", 60, obj{"spans": []obj{{"from": h.today.String(), "to": (h.today + 4).String()}}})
	days := func(p rounds.Proposal) map[int64]int {
		out := map[int64]int{}
		for _, v := range p.Visits {
			for _, j := range v.Jobs {
				out[j.ID] = int(v.Day - h.today)
			}
		}
		return out
	}
	h.server.Estate.Station = nil
	usual := h.proposed(obj{"days": 10, "seconds": 0.2})
	why := func(p rounds.Proposal) round.Other {
		return ok[round.Why](h, "GET", fmt.Sprintf("/rounds/proposals/%d/why/%d", p.ID, plant.ID), nil).Others[1]
	}
	if tomorrow := why(usual); tomorrow.Crew < 0 || usual.Sky[1].Told || !strings.Contains(usual.Sky[1].Text, "as usual") {
		t.Errorf("without a station: %+v, %+v", tomorrow, usual.Sky[1])
	}
	h.stormy(7)
	wet := h.proposed(obj{"days": 10, "seconds": 0.2})
	at := days(wet)
	if d, there := at[plant.ID]; there && d < 7 {
		t.Errorf("in a wet week planting stands on day %d", d)
	}
	if d, there := at[sweep.ID]; !there || d > 4 {
		t.Errorf("sweeping waits for the rain to end: %v", at)
	}
	if w := wet.Sky[2]; !w.Told || w.RainMM < 14 || !strings.Contains(w.Text, "rain") || wet.SkyAt != here.Name || wet.Sky[9].Told {
		t.Errorf("the weather told: %+v at %s", w, wet.SkyAt)
	}
	if tomorrow := why(wet); tomorrow.Crew >= 0 || !strings.Contains(tomorrow.Why, "of rain") {
		t.Errorf("why not tomorrow: %+v", tomorrow)
	}
	// A station that fails is no reason to have no rounds.
	h.today++
	h.server.Estate.Station = &exchange.Station{URL: "http://gone", Client: &http.Client{Transport: broken{}}}
	if p := h.proposed(obj{"days": 10, "seconds": 0.1}); !p.Sky[1].Told {
		t.Errorf("yesterday's outlook still holds: %+v", p.Sky[1])
	}
	h.today += 3
	if p := h.proposed(obj{"days": 10, "seconds": 0.1}); p.Sky[1].Told {
		t.Errorf("one of four days ago does not: %+v", p.Sky[1])
	}
}

type broken struct{}

func (broken) RoundTrip(*http.Request) (*http.Response, error) { return nil, errors.New("no route") }

// TestPinnedHour: a visit that is wanted at ten is come to at ten; the rest goes round it; an hour at night is left
// with the reason.
func TestPinnedHour(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, _, _, _ := h.boxes()
	h.crewOf("Ilda")
	sweep := h.byHand(here.ID, "Sweep the court", 60, nil)
	h.byHand(there.ID, "Rake the gravel", 60, nil)
	on := h.today + 1
	p := h.proposed(obj{"days": 5, "seconds": 0.2, "pins": []obj{{"order": sweep.ID, "crew": 0, "day": on.String(), "at": 600}}})
	found := false
	for _, v := range p.Visits {
		for _, j := range v.Jobs {
			if j.ID == sweep.ID {
				found = v.Day == on && v.From >= 600 && v.From <= 620
			}
		}
	}
	if !found || len(p.Left) != 0 {
		t.Errorf("wanted at ten: %+v, left %+v", p.Visits, p.Left)
	}
	p = h.proposed(obj{"days": 5, "seconds": 0.2, "pins": []obj{{"order": sweep.ID, "crew": 0, "day": on.String(), "at": 1380}}})
	if len(p.Left) == 0 || p.Left[0].Job.ID != sweep.ID || !strings.Contains(p.Left[0].Why, "23:00") {
		t.Errorf("wanted at night: %+v", p.Left)
	}
}

type silent struct{}

func (silent) Send(context.Context, letters.Outgoing) (string, error) {
	return "", fmt.Errorf("no such address: %w", letters.ErrNotTaken)
}

// TestLetters: a letter that is sent is kept with the post's receipt and its day is known to the client, once; one
// that the post does not take leaves nothing; one without words, or of a day on which the job does not stand, is
// refused.
func TestLetters(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there, _, _, _ := h.boxes()
	o := h.byHand(here.ID, "Sweep the court", 60, nil)
	on := h.today + 2
	ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": on.String(), "version": o.Version})
	letter := func(more obj) obj {
		b := obj{"property_id": here.ID, "day": on.String(), "text": "We come on Saturday.", "orders": []int64{o.ID}}
		for k, v := range more {
			b[k] = v
		}
		return b
	}
	known := func() bool { return len(ok[Run[letters.Telling]](h, "GET", "/rounds/tellings", nil).Items) == 0 }
	h.server.Letters.Post = silent{}
	if code, b := h.do("POST", "/rounds/letters", letter(nil)); code != 409 || !strings.Contains(string(b), "no such address") || known() {
		t.Errorf("an address that is none: %d %s", code, b)
	}
	h.server.Letters.Post = standin.Post{}
	for says, more := range map[string]obj{"body.text": {"text": "  "}, "job on that day": {"day": (on + 1).String()}, "job on that": {"property_id": there.ID}} {
		if code, b := h.do("POST", "/rounds/letters", letter(more)); code < 400 || !strings.Contains(string(b), says) || known() {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
	if l := ok[Run[letters.Letter]](h, "GET", "/rounds/letters", nil).Items; len(l) != 0 {
		t.Errorf("refused letters are kept: %+v", l)
	}
	ok[letters.Letter](h, "POST", "/rounds/letters", letter(nil), "Idempotency-Key", "send")
	ok[letters.Letter](h, "POST", "/rounds/letters", letter(nil), "Idempotency-Key", "send")
	l := ok[Run[letters.Letter]](h, "GET", "/rounds/letters", nil).Items
	if len(l) != 1 || !strings.Contains(l[0].Receipt, "simulated") || l[0].Text != "We come on Saturday." || !known() {
		t.Errorf("sent: %+v", l)
	}
}

// TestCalendarReadBack: a calendar program reads the file: each job once, at its time, and under the same id after it
// has moved.
func TestCalendarReadBack(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	o := h.byHand(here.ID, "Sweep the court; rake, and oil", 60, nil)
	read := func() *ics.VEvent {
		_, b := h.do("GET", fmt.Sprintf("/rounds.ics?from=%s&to=%s", h.today, h.today+9), nil)
		c, err := ics.ParseCalendar(strings.NewReader(string(b)))
		if err != nil || len(c.Events()) != 1 {
			t.Fatalf("%v:\n%s", err, b)
		}
		return c.Events()[0]
	}
	put := func(in day.Day) {
		body := obj{"day": (h.today + in).String(), "version": o.Version}
		o = ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), body).Order.Order
	}
	put(2)
	first := read()
	put(5)
	second := read()
	at := func(e *ics.VEvent) string { return e.GetProperty(ics.ComponentPropertyDtStart).Value[:8] }
	if first.Id() != second.Id() || at(first) == at(second) || at(second) != strings.ReplaceAll((h.today+5).String(), "-", "") {
		t.Errorf("first %s on %s, then %s on %s", first.Id(), at(first), second.Id(), at(second))
	}
	if s := second.GetProperty(ics.ComponentPropertySummary).Value; !strings.Contains(s, "Sweep the court; rake, and oil") {
		t.Errorf("summary %q", s)
	}
}

// TestSheetPDF: the day's sheet is a PDF with its jobs, also of a day without any.
func TestSheetPDF(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	o := h.byHand(here.ID, "Sweep the court", 60, nil)
	ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": h.today.String(), "version": o.Version})
	_, empty := h.do("GET", "/rounds/sheet.pdf?day=2027-08-01", nil)
	code, full := h.do("GET", "/rounds/sheet.pdf", nil)
	if code != 200 || !strings.HasPrefix(string(full), "%PDF") || !strings.HasPrefix(string(empty), "%PDF") || len(full) <= len(empty) {
		t.Errorf("%d, %d bytes with a job, %d without", code, len(full), len(empty))
	}
	page, err := h.server.Days.SheetPage(context.Background(), h.today, 0, h.server.StyleOf(context.Background(), "en"))
	if err != nil || len(page.Visits) != 1 || page.Visits[0].Jobs[0].Title != "Sweep the court" || !strings.Contains(page.Title, "18 March") {
		t.Errorf("%+v, %v", page, err)
	}
}

// TestOrderPhotos: a picture taken at a job is kept once under its key, shown on the day's sheet, removed and brought
// back; what is no picture, or a job that is not there, leaves nothing.
func TestOrderPhotos(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, _, _, _, _ := h.boxes()
	o := h.byHand(here.ID, "Sweep the court", 60, nil)
	ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", o.ID), obj{"day": h.today.String(), "version": o.Version})
	path := fmt.Sprintf("/orders/%d/photos", o.ID)
	shot := string(picture(t, 60, 40, "jpeg"))
	for range 2 { // the answer to the first was lost
		if code, b := h.do("POST", path, shot, "Content-Type", "image/jpeg", "Idempotency-Key", "shot"); code != 200 {
			t.Fatalf("%d %s", code, b)
		}
	}
	list := ok[Run[work.OrderPhoto]](h, "GET", path, nil).Items
	if len(list) != 1 || list[0].Width == 0 || list[0].OrderID != o.ID {
		t.Fatalf("kept: %+v", list)
	}
	if sheet := ok[days.Sheet](h, "GET", "/rounds/sheet", nil); len(sheet.Visits[0].Jobs[0].Photos) != 1 {
		t.Errorf("on the sheet: %+v", sheet.Visits[0].Jobs[0])
	}
	if code, b := h.do("GET", "/pictures/"+list[0].Hash, nil); code != 200 || len(b) == 0 {
		t.Errorf("read back: %d", code)
	}
	h.do("DELETE", fmt.Sprintf("/order-photos/%d", list[0].ID), nil)
	if l := ok[Run[work.OrderPhoto]](h, "GET", path, nil).Items; len(l) != 0 {
		t.Errorf("removed: %+v", l)
	}
	h.do("POST", fmt.Sprintf("/order-photos/%d/restore", list[0].ID), nil)
	if l := ok[Run[work.OrderPhoto]](h, "GET", path, nil).Items; len(l) != 1 {
		t.Errorf("brought back: %+v", l)
	}
	if code, b := h.do("POST", path, "<html>", "Content-Type", "image/jpeg"); code != 422 || !strings.Contains(string(b), "photo") {
		t.Errorf("no picture: %d %s", code, b)
	}
	if code, _ := h.do("POST", "/orders/999/photos", shot, "Content-Type", "image/jpeg"); code != 404 {
		t.Errorf("no such job: %d", code)
	}
	if l := ok[Run[work.OrderPhoto]](h, "GET", path, nil).Items; len(l) != 1 {
		t.Errorf("after what was refused: %+v", l)
	}
}
