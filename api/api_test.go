package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	. "mezzadro/api"
	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/season"
	"mezzadro/demo"
	"mezzadro/exchange"
	"mezzadro/house"
	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/housetest"
	"mezzadro/house/overview"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"

	"github.com/go-chi/chi/v5"
)

// estate is a whole site over a record of its own.
type opened struct {
	t      testing.TB
	folder string
	today  day.Day
	server *Server
	site   http.Handler
}

// newHouse opens an empty record on 18 March 2027, with the sample's simulated weather station.
func newHouse(t testing.TB) *opened {
	t.Helper()
	h := &opened{t: t, folder: housetest.Folder(t), today: day.Of(2027, 3, 18)}
	h.open()
	return h
}

func (h *opened) open() {
	h.t.Helper()
	st, err := h.openAt()
	if err != nil {
		h.t.Fatal(err)
	}
	h.t.Cleanup(func() { _ = st.Close() })
}

// openAt opens the record in the folder.
func (h *opened) openAt() (*store.Store, error) {
	st, err := store.Open(context.Background(), h.folder)
	if err != nil {
		return nil, err
	}
	sample, err := demo.Read()
	if err != nil {
		return st, err
	}
	station, err := sample.Station()
	if err != nil {
		return st, err
	}
	h.server = &Server{House: house.Open(&estate.House{Store: st, Catalogue: catalogue.Built(), Today: func() day.Day { return h.today }, Station: station, Log: slog.New(slog.DiscardHandler)}),
		Files: fstest.MapFS{"index.html": {Data: []byte("<title>Mezzadro</title>")}, "assets/a.js": {Data: bytes.Repeat([]byte("let a = 1;"), 500)}}}
	h.site = h.server.Handler()
	return st, nil
}

// do sends one request; a string body goes as it is, anything else as JSON.
func (h *opened) do(method, path string, body any, headers ...string) (int, []byte) {
	h.t.Helper()
	var r io.Reader
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case string:
		r = strings.NewReader(b)
		switch {
		case strings.HasPrefix(path, "/species"):
			kind = "application/yaml"
		case !strings.HasPrefix(path, "/reckon/damage"):
			kind = "text/csv"
		}
	default:
		j, err := json.Marshal(b)
		if err != nil {
			h.t.Fatal(err)
		}
		r = bytes.NewReader(j)
	}
	req := httptest.NewRequest(method, "/api/v1"+path, r)
	if r != nil {
		req.Header.Set("Content-Type", kind)
	}
	for i := 0; i+1 < len(headers); i += 2 {
		req.Header.Set(headers[i], headers[i+1])
	}
	w := httptest.NewRecorder()
	h.site.ServeHTTP(w, req)
	return w.Code, w.Body.Bytes()
}

// ok sends a request that must succeed and decodes its answer.
func ok[T any](h *opened, method, path string, body any, headers ...string) T {
	h.t.Helper()
	var out T
	code, b := h.do(method, path, body, headers...)
	if code >= 300 {
		h.t.Fatalf("%s %s: %d %s", method, path, code, b)
	}
	if len(b) > 0 {
		if err := json.Unmarshal(b, &out); err != nil {
			h.t.Fatalf("%s %s: %v in %s", method, path, err, b)
		}
	}
	return out
}

type obj = map[string]any

// from are the orders of one origin.
func from(list []work.Order, o job.Origin) (out []work.Order) {
	for _, x := range list {
		if x.Origin == o {
			out = append(out, x)
		}
	}
	return out
}

// placed are the lanes that are on a day.
func placed(list []work.Lane) (out []work.Lane) {
	for _, x := range list {
		if x.State == job.Placed {
			out = append(out, x)
		}
	}
	return out
}

// villa adds a property with a camellia and its weather.
func (h *opened) villa() (property garden.PropertyOut, plant estate.PlantOut) {
	h.t.Helper()
	property = ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Villa Lumera", "climate_type": "lake-foothills", "elevation_m": 210})
	plant = ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "camellia-japonica", "label": "East wall", "height_m": 2})
	ok[overview.WeatherKept](h, "POST", fmt.Sprintf("/properties/%d/weather/read", property.ID), nil)
	return property, plant
}

var doubt = []check.Check{{Kind: check.BudRub, HeightM: 1.8, Broke: 6}, {Kind: check.Scratch, HeightM: 1.2, Result: "green"}}

func TestFromFreezeToDatedJob(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()

	l := ok[overview.Lookout](h, "GET", "/lookout", nil)
	if len(l.Events) == 0 || l.Events[0].Value > -10.8 || l.Events[0].Peak.Month() != time.February || !strings.Contains(l.Events[0].Story, "warmer than normal") {
		t.Fatalf("events: %+v", l.Events)
	}
	if l.Looks != 1 || l.Groups[0].Looks[0].ID != plant.ID || !strings.Contains(l.Groups[0].Looks[0].Look.Reason, "26 February") {
		t.Fatalf("look-list: %+v", l.Groups)
	}

	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	if again := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID}); again.ID != walk.ID {
		t.Errorf("a second walk on the same day: %d and %d", walk.ID, again.ID)
	}
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	a := ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": doubt})
	if a.Verdict.Kind != damage.Wait || a.Verdict.Until.Month() != time.April || !strings.Contains(a.Verdict.Sentence, "Too early to call above 1.2 m") {
		t.Fatalf("verdict: %+v", a.Verdict)
	}
	d := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"}, "Idempotency-Key", "press-1")
	asked, care := from(d.Jobs, job.Verdict), from(d.Jobs, job.AfterCare)
	if len(asked) != 2 || len(care) != 2 || d.Verdict.Decision != "accepted" {
		t.Fatalf("accepted: %+v", d)
	}
	if again := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"}, "Idempotency-Key", "press-1"); again.Verdict.ID != d.Verdict.ID {
		t.Errorf("the same press twice made verdicts %d and %d", d.Verdict.ID, again.Verdict.ID)
	}
	y := ok[work.LanesPage](h, "GET", fmt.Sprintf("/year?property=%d", property.ID), nil)
	if len(y.Items) != 4 || len(y.Items[2].Windows) == 0 || len(y.Items[2].Costs) < 200 || y.Total != 4 {
		t.Fatalf("lanes: %d", len(y.Items))
	}
	look := asked[0]
	best := ok[work.OrderDetail](h, "GET", fmt.Sprintf("/orders/%d", look.ID), nil).BestDay
	put := ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", look.ID), obj{"day": best, "version": look.Version})
	if put.Cost != 0 || put.Order.Day != best || put.Order.State != job.Placed {
		t.Errorf("put on %s: %+v", best, put)
	}
	// The cut comes after the look; a day before it is warned of.
	early := ok[work.PutOut](h, "PUT", fmt.Sprintf("/orders/%d/day", asked[1].ID), obj{"day": best - 5, "version": 1})
	if len(early.Warnings) != 1 || !strings.Contains(early.Warnings[0], "comes first") {
		t.Errorf("cut before the look: warnings %v", early.Warnings)
	}
	r := ok[days.Rounds](h, "GET", fmt.Sprintf("/rounds?from=%s&days=7", best), nil)
	if r.Days[0].Minutes != look.Minutes || len(r.Days[0].Jobs) != 1 || len(r.Waiting) != 2 || r.Count != 2 {
		t.Errorf("the day's list: %+v", r.Days[0])
	}
	code, cal := h.do("GET", fmt.Sprintf("/rounds.ics?from=%s&to=%s", best, best), nil)
	if code != 200 || !strings.Contains(string(cal), "DTSTART:"+strings.ReplaceAll(best.String(), "-", "")+"T080000") || !strings.Contains(string(cal), "Villa Lumera") {
		t.Errorf("calendar: %d %s", code, cal)
	}

	// A restart keeps all of it.
	_ = h.server.Estate.Store.Close()
	h.open()
	if again := ok[work.LanesPage](h, "GET", "/year", nil); len(again.Items) != 4 || len(placed(again.Items)) != 2 {
		t.Errorf("after a restart: %d lanes", len(again.Items))
	}
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Looks != 0 || l.Looked != 1 {
		t.Errorf("the decided plant is still on the look-list")
	}
	// A later freeze asks for another look, whatever was decided before it.
	h.today += 10
	var later strings.Builder
	later.WriteString("time,temp_c\n")
	for i := range 48 {
		fmt.Fprintf(&later, "%s,-14\n", time.Date(2027, 3, 24, i, 0, 0, 0, time.UTC).Format(time.RFC3339))
	}
	ok[overview.WeatherKept](h, "POST", fmt.Sprintf("/properties/%d/weather", property.ID), later.String())
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Looks != 1 || l.Groups[0].Looks[0].Verdict == nil || l.Groups[0].Looks[0].Decided {
		t.Errorf("after a second freeze: %+v", l.Groups)
	}
	h.today -= 10
	// Undo brings everything back as it was.
	ok[struct{}](h, "DELETE", fmt.Sprintf("/verdicts/%d", d.Verdict.ID), nil)
	if again := ok[work.LanesPage](h, "GET", "/year", nil); len(again.Items) != 0 {
		t.Errorf("after undo: %d lanes", len(again.Items))
	}
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Looks != 1 {
		t.Errorf("after undo: %d on the look-list", l.Looks)
	}
}

func TestLaterVerdictTakesThePlaceOfTheEarlier(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": doubt})
	first := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"})
	second := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "overruled", "kind": "cut back to live wood", "cut_m": 0.9, "note": "The client wants it lower."})
	y := ok[work.LanesPage](h, "GET", "/year", nil)
	if len(y.Items) < 4 || y.Items[0].OriginID != second.Verdict.ID || y.Items[len(y.Items)-1].OriginID != second.Verdict.ID {
		t.Fatalf("standing jobs: %+v", y.Items)
	}
	if code, b := h.do("DELETE", fmt.Sprintf("/verdicts/%d", first.Verdict.ID), nil); code != 409 || !strings.Contains(string(b), "later verdict") {
		t.Errorf("taking back the earlier first: %d %s", code, b)
	}
	ok[struct{}](h, "DELETE", fmt.Sprintf("/verdicts/%d", second.Verdict.ID), nil)
	if y := ok[work.LanesPage](h, "GET", "/year", nil); len(y.Items) != 4 || y.Items[0].OriginID != first.Verdict.ID {
		t.Errorf("after undo the first verdict's jobs stand: %+v", y.Items)
	}
	if n := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "not now"}); len(n.Jobs) != 0 {
		t.Errorf("not now made %d jobs", len(n.Jobs))
	}
}

// TestDamageOfAGroup: plants kept as one are asked for with their count, and a sample tells of the others.
func TestDamageOfAGroup(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	lake, err := catalogue.Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	in := obj{"species": "lavandula-angustifolia", "date": "2027-05-25", "climate": lake.Climate, "height_m": 0.5, "count": 24, "checks": []obj{
		{"kind": "scratch", "height_m": 0.3, "result": "brown"}, {"kind": "scratch", "height_m": 0.1, "result": "green"}, {"kind": "sample", "held": 7, "broke": 3}}}
	a := ok[damage.Answer](h, "POST", "/reckon/damage", in)
	if a.Rest == nil || a.Rest.Of != 24 || a.Rest.Looked != 10 || a.Rest.Alike != 7 || a.Rest.Low < 1 || a.Rest.High > 14 {
		t.Errorf("the rest of a row: %+v", a.Rest)
	}
}

func TestReckonDamage(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	lake, _ := catalogue.Built().Climate("lake-foothills")
	ask := func(c season.Climate, date string) damage.Answer {
		return ok[damage.Answer](h, "POST", "/reckon/damage", obj{"species": "nerium-oleander", "date": date, "climate": c, "height_m": 2.4, "checks": doubt})
	}
	north := ask(lake.Climate, "2027-03-18")
	south := lake.Climate
	south.Latitude = -south.Latitude
	south.Normals = append(append([]season.Normal{}, south.Normals[6:]...), south.Normals[:6]...)
	s := ask(south, "2027-09-18")
	if gap := s.Patience.Sub(north.Patience); gap < 178 || gap > 190 {
		t.Errorf("north %s, south %s: not half a year apart", north.Patience, s.Patience)
	}
	if len(north.Cautions) < 3 || len(north.Reasons) != 3 || north.Next == nil || north.Buds.Rubbed != 6 || len(north.Jobs) != 2 {
		t.Errorf("oleander: %+v", north)
	}
	if list := ok[List[estate.PlantOut]](h, "GET", "/plants", nil); len(list.Items) != 0 {
		t.Errorf("reckoning stored %+v", list.Items)
	}
}

func TestReckonSeason(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	for _, ct := range catalogue.Built().Climates {
		o := ok[estate.SeasonOut](h, "POST", "/reckon/season", obj{"climate": ct.Climate, "date": "2027-03-18"})
		if o.Zone == "" || o.To.Sub(o.From) < 365 || o.Outlook.Years != 300 || len(o.Reasons) != 1 {
			t.Errorf("%s: %+v", ct.ID, o)
		}
		if lo, hi := season.Zone(o.Outlook.ExtremeMinC.Mid-2.8), season.Zone(o.Outlook.ExtremeMinC.Mid+2.8); o.Zone != season.Zone(o.Outlook.ExtremeMinC.Mid) && o.Zone != lo && o.Zone != hi {
			t.Errorf("%s: zone %s, simulated coldest night %.1f °C", ct.ID, o.Zone, o.Outlook.ExtremeMinC.Mid)
		}
	}
	property, _ := h.villa()
	o := ok[estate.SeasonOut](h, "POST", "/reckon/season", obj{"property": property.ID})
	if o.Zone != "9a" || len(o.Reasons) != 2 || !strings.Contains(o.Reasons[1], "17 March") {
		t.Errorf("villa: %+v", o)
	}
	if code, b := h.do("POST", "/reckon/season", obj{}); code != 422 || !strings.Contains(string(b), "body.climate") {
		t.Errorf("no climate: %d %s", code, b)
	}
	if code, _ := h.do("POST", "/reckon/season", obj{"property": 99}); code != 404 {
		t.Errorf("no such property: %d", code)
	}
}

func TestSpeciesYear(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	year := func(id string) estate.SpeciesYear {
		return ok[estate.SpeciesYear](h, "GET", fmt.Sprintf("/species/%s/year?property=%d", id, property.ID), nil)
	}
	lilac, lemon := year("syringa-vulgaris"), year("citrus-limon")
	if lilac.LeafOut == nil || lilac.BloomStart.Mid <= lilac.LeafOut.Mid || lilac.Patience <= lilac.LeafOut.Late || lilac.SpareC < 20 {
		t.Errorf("lilac: %+v", lilac)
	}
	if lemon.SpareC > 0 || lemon.Zone != "9a" {
		t.Errorf("a lemon left out through the winter: %+v", lemon)
	}
	if code, _ := h.do("GET", "/species/triffid/year?property=1", nil); code != 404 {
		t.Errorf("unknown species: %d", code)
	}
}

// TestRefusals sends what cannot be: each gets a problem document naming the field, and nothing is stored.
func TestRefusals(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	lake, _ := catalogue.Built().Climate("lake-foothills")
	damageOf := func(change func(obj)) obj {
		b := obj{"species": "camellia-japonica", "date": "2027-03-18", "climate": lake.Climate, "height_m": 2, "checks": []obj{{"kind": "scratch", "height_m": 1, "result": "green"}}}
		change(b)
		return b
	}
	checks := fmt.Sprintf("/walks/%d/plants/%d/checks", walk.ID, plant.ID)
	csv := fmt.Sprintf("/properties/%d/weather", property.ID)
	before := ok[estate.Season](h, "GET", fmt.Sprintf("/properties/%d/season", property.ID), nil)
	for _, c := range []struct {
		name, method, path string
		body               any
		status             int
		says               []string
	}{
		{"height of 0", "POST", "/plants", obj{"property_id": property.ID, "species": "olea-europaea", "height_m": 0}, 422, []string{"body.height_m", "above 0"}},
		{"unknown species", "POST", "/plants", obj{"property_id": property.ID, "species": "camelia-japonica", "height_m": 1}, 422, []string{"body.species", "camellia-japonica"}},
		{"property not there", "POST", "/plants", obj{"property_id": 999, "species": "olea-europaea", "height_m": 1}, 404, []string{"property 999"}},
		{"no property", "POST", "/plants", obj{"species": "olea-europaea", "height_m": 1}, 422, []string{"body.property_id"}},
		{"height in words", "POST", "/plants", obj{"property_id": property.ID, "species": "olea-europaea", "height_m": "tall"}, 422, []string{"body.height_m", "number"}},
		{"no name", "POST", "/properties", obj{"name": " ", "climate_type": "lake-foothills"}, 422, []string{"body.name"}},
		{"no climate", "POST", "/properties", obj{"name": "Orchard"}, 422, []string{"body.climate_type"}},
		{"unknown zone", "POST", "/properties", obj{"name": "Orchard", "climate_type": "lake-foothills", "zone": "Moon/Sea"}, 422, []string{"body.zone"}},
		{"eleven months", "POST", "/properties", obj{"name": "Orchard", "climate": obj{"latitude": 45, "longitude": 8, "elevation_m": 1, "extreme_min_c": -8, "normals": lake.Climate.Normals[:11]}}, 422, []string{"body.climate.normals", "11 months"}},
		{"reckon: height of 0", "POST", "/reckon/damage", damageOf(func(b obj) { b["height_m"] = 0 }), 422, []string{"body.height_m", "above 0"}},
		{"reckon: unknown species", "POST", "/reckon/damage", damageOf(func(b obj) { b["species"] = "triffid" }), 422, []string{"body.species", "triffid"}},
		{"reckon: a date that is none", "POST", "/reckon/damage", damageOf(func(b obj) { b["date"] = "2027-02-30" }), 422, []string{"body.date", "a day of the calendar"}},
		{"reckon: check above the plant", "POST", "/reckon/damage", damageOf(func(b obj) { b["height_m"] = 0.5 }), 422, []string{"body.checks[0].height_m", "above the plant"}},
		{"reckon: unknown kind", "POST", "/reckon/damage", damageOf(func(b obj) { b["checks"] = []obj{{"kind": "lick"}} }), 422, []string{"body.checks[0].kind"}},
		{"reckon: no climate", "POST", "/reckon/damage", damageOf(func(b obj) { delete(b, "climate") }), 422, []string{"body.climate"}},
		{"reckon: a field too many", "POST", "/reckon/damage", damageOf(func(b obj) { b["mood"] = "good" }), 422, []string{"mood"}},
		{"not JSON", "POST", "/reckon/damage", "{", 400, []string{"detail"}},
		{"checks that cannot be", "PUT", checks, obj{"checks": []obj{{"kind": "scratch", "height_m": 3, "result": "green"}}}, 422, []string{"checks[0].height_m"}},
		{"nothing checked", "POST", strings.Replace(checks, "checks", "verdict", 1), obj{"decision": "accepted"}, 422, []string{"body.decision"}},
		{"overruled without a note", "POST", strings.Replace(checks, "checks", "verdict", 1), obj{"decision": "overruled", "kind": "leave"}, 422, []string{"body.note"}},
		{"weather with a broken line", "POST", csv, "time,temp_c\n2027-02-26T05:00Z,-9\n2027-02-26T06:00Z,cold\n", 422, []string{"line 3", "cold"}},
		{"20 MB body", "POST", "/reckon/damage", strings.Repeat(" ", 20<<20), 413, []string{"too large"}},
		{"20 MB weather", "POST", csv, strings.Repeat(" ", 20<<20), 413, []string{"too large"}},
		{"calendar backwards", "GET", "/rounds.ics?from=2027-03-18&to=2027-03-01", nil, 422, []string{"before from"}},
		{"rounds from no day", "GET", "/rounds?from=2027-02-30", nil, 422, []string{"from"}},
		{"plant not there", "GET", "/plants/999", nil, 404, []string{"plant"}},
		{"no such operation", "GET", "/forecast", nil, 404, []string{"no such operation"}},
	} {
		code, b := h.do(c.method, c.path, c.body)
		var p struct {
			Status int
			Detail string
		}
		if err := json.Unmarshal(b, &p); err != nil || code != c.status || p.Status != c.status || p.Detail == "" {
			t.Errorf("%s: %d %.300s (%v), want a problem document with %d", c.name, code, b, err, c.status)
		}
		for _, s := range c.says {
			if !strings.Contains(string(b), s) {
				t.Errorf("%s: does not say %q: %.300s", c.name, s, b)
			}
		}
	}
	after := ok[estate.Season](h, "GET", fmt.Sprintf("/properties/%d/season", property.ID), nil)
	if fmt.Sprint(len(after.SeenMin), after.ObservedTo, after.Source) != fmt.Sprint(len(before.SeenMin), before.ObservedTo, before.Source) {
		t.Error("a refused file changed the weather")
	}
	if n := len(ok[List[estate.PlantOut]](h, "GET", "/plants", nil).Items); n != 1 {
		t.Errorf("%d plants after the refusals, want the one", n)
	}
	if n := len(ok[List[garden.PropertyOut]](h, "GET", "/properties", nil).Items); n != 1 {
		t.Errorf("%d properties after the refusals, want the one", n)
	}
	if w := ok[walks.Walk](h, "GET", fmt.Sprintf("/walks/%d", walk.ID), nil); len(w.Looks) != 0 {
		t.Errorf("refused checks were kept: %+v", w.Looks)
	}
}

func TestChangeRemoveRestore(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	path := fmt.Sprintf("/plants/%d", plant.ID)
	body := obj{"species": plant.Species, "label": "West wall", "height_m": 2.2, "version": plant.Version}
	if p := ok[estate.PlantOut](h, "PUT", path, body); p.Label != "West wall" || p.Version != 2 {
		t.Errorf("changed: %+v", p)
	}
	code, b := h.do("PUT", path, body)
	if code != 409 || !strings.Contains(string(b), "West wall") || !strings.Contains(string(b), "version 1") {
		t.Errorf("a stale change: %d %s", code, b)
	}
	ok[struct{}](h, "DELETE", path, nil)
	if code, _ := h.do("GET", path, nil); code != 404 {
		t.Errorf("removed plant answers %d", code)
	}
	if p := ok[estate.PlantOut](h, "POST", path+"/restore", nil); p.Label != "West wall" {
		t.Errorf("restored: %+v", p)
	}
	at := fmt.Sprintf("/properties/%d", property.ID)
	change := obj{"name": "Villa Lumera", "note": "Mind the dog.", "climate_type": "lake-foothills", "elevation_m": 400, "version": property.Version}
	if p := ok[garden.PropertyOut](h, "PUT", at, change); p.Note == "" || p.Climate.ElevationM != 400 {
		t.Errorf("changed property: %+v", p)
	}
	ok[struct{}](h, "DELETE", at, nil)
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Looks+len(l.Events) != 0 {
		t.Errorf("a removed property is still watched: %+v", l)
	}
	ok[garden.PropertyOut](h, "POST", at+"/restore", nil)
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Looks+l.Slight == 0 {
		t.Error("the property came back without its plants")
	}
}

func TestIdempotentAdd(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	body := obj{"name": "Orchard", "climate_type": "prairie"}
	a := ok[garden.PropertyOut](h, "POST", "/properties", body, "Idempotency-Key", "k1")
	b := ok[garden.PropertyOut](h, "POST", "/properties", body, "Idempotency-Key", "k1")
	c := ok[garden.PropertyOut](h, "POST", "/properties", body, "Idempotency-Key", "k2")
	// A key is bound to what was sent under it.
	for _, other := range []obj{{"name": "Orchard by the mill", "climate_type": "prairie"}, {"property_id": c.ID, "species": "rosa-shrub", "height_m": 1}} {
		path := "/properties"
		if other["species"] != nil {
			path = "/plants"
		}
		if code, b := h.do("POST", path, other, "Idempotency-Key", "k2"); code != 422 || !strings.Contains(string(b), "header.Idempotency-Key") {
			t.Errorf("the key of one write used for another: %d %s", code, b)
		}
	}
	// A change repeated answers as the first time, and is no conflict with itself.
	change := obj{"name": "Orchard", "client": "The mill", "climate_type": "prairie", "version": 1}
	first := ok[garden.PropertyOut](h, "PUT", fmt.Sprintf("/properties/%d", c.ID), change, "Idempotency-Key", "k3")
	if again := ok[garden.PropertyOut](h, "PUT", fmt.Sprintf("/properties/%d", c.ID), change, "Idempotency-Key", "k3"); again.Version != first.Version || first.Version != 2 {
		t.Errorf("a change, version %d, repeated: version %d", first.Version, again.Version)
	}
	if code, b := h.do("PUT", fmt.Sprintf("/properties/%d", c.ID), change); code != 409 || !strings.Contains(string(b), `"client":"The mill"`) {
		t.Errorf("without its key: %d %s", code, b)
	}
	if a.ID != b.ID || c.ID == a.ID {
		t.Errorf("ids %d, %d (same key), %d (another)", a.ID, b.ID, c.ID)
	}
}

func TestPages(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	for i := range 24 {
		ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "rosa-shrub", "label": fmt.Sprint(i), "height_m": 1})
	}
	seen, pages := map[int64]bool{}, 0
	for cursor := int64(0); ; pages++ {
		l := ok[List[estate.PlantOut]](h, "GET", fmt.Sprintf("/plants?property=%d&limit=10&cursor=%d", property.ID, cursor), nil)
		for _, p := range l.Items {
			seen[p.ID] = true
		}
		if cursor = l.Next; cursor == 0 {
			break
		}
	}
	if len(seen) != 25 || pages != 2 {
		t.Errorf("%d plants on %d pages", len(seen), pages+1)
	}
}

func TestWeatherFileMovesTheSeason(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	p := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Mill", "climate_type": "lake-foothills"})
	ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": p.ID, "species": "citrus-limon", "height_m": 1.5})
	var b strings.Builder
	b.WriteString("time,temp_c\n")
	for i := range 24 * 30 {
		c := 9.0
		if i > 600 && i < 630 {
			c = -10.5
		}
		fmt.Fprintf(&b, "%s,%g\n", time.Date(2027, 2, 10, i, 0, 0, 0, time.UTC).Format(time.RFC3339), c)
	}
	k := ok[overview.WeatherKept](h, "POST", fmt.Sprintf("/properties/%d/weather", p.ID), b.String())
	if k.Hours != 720 || len(k.Events) != 1 || k.Events[0].Value != -10.5 || k.Source != "CSV file" {
		t.Errorf("%+v", k)
	}
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Looks != 1 || l.Groups[0].Looks[0].Look.Expected != "wood" {
		t.Errorf("look-list after the file: %+v", l.Groups)
	}
	// Time moves on: what was pressing in March is history in October.
	h.today = day.Of(2027, 10, 1)
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Looks != 0 {
		t.Errorf("in October the February freeze is still on the list: %+v", l.Groups)
	}
}

func TestStationDown(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	p := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Mill", "climate_type": "prairie"})
	path := fmt.Sprintf("/properties/%d/weather/read", p.ID)
	h.server.Estate.Station = &exchange.Station{URL: "http://station", Client: exchange.Local(http.NotFoundHandler())}
	if code, b := h.do("POST", path, nil); code != 502 || !strings.Contains(string(b), "weather station answered") {
		t.Errorf("station down: %d %s", code, b)
	}
	// What a stranger says is not shown, and nobody is sent to another host.
	for says, answer := range map[string]http.HandlerFunc{
		"weather station answered 500": func(w http.ResponseWriter, _ *http.Request) {
			http.Error(w, "secret <script>alert(1)</script>", http.StatusInternalServerError)
		},
		"sends to another host": func(w http.ResponseWriter, r *http.Request) {
			if r.Host != "station" {
				t.Errorf("%s was asked", r.Host)
			}
			http.Redirect(w, r, "http://169.254.169.254/secret", http.StatusFound)
		},
		"cannot be read": func(w http.ResponseWriter, _ *http.Request) { fmt.Fprint(w, "secret, no JSON") },
	} {
		h.server.Estate.Station = &exchange.Station{URL: "http://station", Client: exchange.Local(answer)}
		if code, b := h.do("POST", path, nil); code != 502 || !strings.Contains(string(b), says) || strings.Contains(string(b), "secret") {
			t.Errorf("%s: %d %s", says, code, b)
		}
	}
	h.server.Estate.Station = nil
	if code, b := h.do("POST", path, nil); code != 409 || !strings.Contains(string(b), "take the weather from a file") {
		t.Errorf("no station: %d %s", code, b)
	}
}

func TestForbiddenDay(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	ok[damage.Answer](h, "PUT", at+"/checks", obj{"checks": doubt})
	j := from(ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted"}).Jobs, job.Verdict)[0]
	path := fmt.Sprintf("/orders/%d/day", j.ID)
	for d, says := range map[string]string{"2027-03-01": "past", "2030-01-01": "outside the time", "2027-02-31": "body.day"} {
		if code, b := h.do("PUT", path, obj{"day": d, "version": 1}); code != 422 || !strings.Contains(string(b), says) {
			t.Errorf("%s: %d %s", d, code, b)
		}
	}
	put := ok[work.PutOut](h, "PUT", path, obj{"day": "2027-04-25", "version": 1})
	if code, _ := h.do("PUT", path, obj{"day": nil, "version": 1}); code != 409 {
		t.Errorf("a stale move answers %d", code)
	}
	if off := ok[work.PutOut](h, "PUT", path, obj{"day": nil, "version": put.Order.Version}); off.Order.Day != day.None {
		t.Errorf("taken off, but on %s", off.Order.Day)
	}
}

func TestOpenAPIIsFresh(t *testing.T) {
	t.Parallel()
	want, err := Describe()
	if err != nil {
		t.Fatal(err)
	}
	if got, err := os.ReadFile("../openapi.json"); err != nil || !bytes.Equal(got, want) {
		t.Errorf("openapi.json is stale (%v): run make generate", err)
	}
}

// TestEverythingIsDescribed: every schema and every field says what it means, every operation who may do it, and no list
// is said to be null.
func TestEverythingIsDescribed(t *testing.T) {
	t.Parallel()
	o := (&Server{}).Register(chi.NewRouter()).OpenAPI()
	for name, s := range o.Components.Schemas.Map() {
		if s.Description == "" {
			t.Errorf("%s does not say what it is", name)
		}
		for field, p := range s.Properties {
			if p.Description == "" {
				t.Errorf("%s.%s does not say what it is: give it a doc, or a word in words.json", name, field)
			}
			if p.Type == "array" && p.Nullable {
				t.Errorf("%s.%s is said to be a list or null", name, field)
			}
		}
	}
}

// TestListsAreNeverNull: a list that nobody made is written as an empty one, also within others.
func TestListsAreNeverNull(t *testing.T) {
	t.Parallel()
	var b bytes.Buffer
	type inner struct {
		Left []string  `json:"left,omitempty"`
		List []string  `json:"list"`
		At   *float64  `json:"at"`
		Of   [][]int   `json:"of"`
		Zero int       `json:"zero,omitempty"`
		By   time.Time `json:"by"`
	}
	if err := ListsNeverNull.Marshal(&b, []inner{{Of: [][]int{nil}}}); err != nil {
		t.Fatal(err)
	}
	if got, want := strings.TrimSpace(b.String()), `[{"list":[],"at":null,"of":[[]],"by":"0001-01-01T00:00:00Z"}]`; got != want {
		t.Errorf("%s, want %s", got, want)
	}
}

func TestFilesAreCompressedAndKept(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	for path, cache := range map[string]string{"/": "no-cache", "/assets/a.js": "immutable"} {
		r := httptest.NewRequest("GET", path, nil)
		r.Header.Set("Accept-Encoding", "gzip")
		w := httptest.NewRecorder()
		h.site.ServeHTTP(w, r)
		if w.Code != 200 || !strings.Contains(w.Header().Get("Cache-Control"), cache) || w.Header().Get("Content-Security-Policy") == "" {
			t.Errorf("%s: %d %v", path, w.Code, w.Header())
		}
		if path != "/" && (w.Header().Get("Content-Encoding") != "gzip" || w.Body.Len() > 1000) {
			t.Errorf("%s: %d bytes, %q", path, w.Body.Len(), w.Header().Get("Content-Encoding"))
		}
	}
	r := httptest.NewRequest("POST", "/api/v1/walks", strings.NewReader(`{"property_id":1}`))
	r.Header.Set("Sec-Fetch-Site", "cross-site")
	w := httptest.NewRecorder()
	h.site.ServeHTTP(w, r)
	if w.Code != http.StatusForbidden {
		t.Errorf("a write from another site answers %d", w.Code)
	}
}

func BenchmarkLookout2000(b *testing.B) {
	h := newHouse(b)
	property, _ := h.villa()
	species := catalogue.Built().Entries
	err := h.server.Estate.Store.Write(context.Background(), func(tx store.Tx) error {
		for i := range 2000 {
			if _, err := tx.AddPlant(context.Background(), store.Plant{PropertyID: property.ID, Species: species[i%len(species)].ID, HeightM: 1, SpreadM: 1, Count: 1}); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		if code, _ := h.do("GET", "/lookout", nil); code != 200 {
			b.Fatal(code)
		}
	}
}
