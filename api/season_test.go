package api_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"math"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/season"
	"mezzadro/core/weather"
	"mezzadro/demo"
	"mezzadro/house/cuts"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/overview"
	"mezzadro/house/walks"
	"mezzadro/store"
)

// frost is hourly weather as CSV: a mild season, then a run of hours at one temperature.
func frost(from day.Day, days, start, hours int, c, wind float64) string {
	var b strings.Builder
	b.WriteString("time,temp_c,wind_ms,rh_pct,sun\n")
	for i := range 24 * days {
		t, w, rh, sun := 4+3*math.Sin(float64(i%24-9)/24*2*math.Pi), 1.5, 80.0, 0.0
		if i%24 > 7 && i%24 < 17 {
			sun = 0.9
		}
		if i >= start && i < start+hours {
			t, w, rh = c, wind, 55
		}
		fmt.Fprintf(&b, "%s,%.1f,%.1f,%.0f,%.1f\n", from.Time().Add(time.Duration(i)*time.Hour).Format(time.RFC3339), t, w, rh, sun)
	}
	return b.String()
}

func TestReckonFreeze(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	lake, err := catalogue.Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	plants := []obj{
		{"species": "nerium-oleander", "height_m": 2},
		{"species": "syringa-vulgaris"},
		{"species": "salvia-rosmarinus", "height_m": 1, "pot_l": 10},
		{"species": "camellia-japonica", "height_m": 2, "shelter": 0, "sun": 1},
		{"species": "camellia-japonica", "height_m": 2, "shelter": 1, "sun": 0},
	}
	ask := func(c float64, hours int) walks.FreezeOut {
		return ok[walks.FreezeOut](h, "POST", "/reckon/freeze", obj{"climate": lake.Climate, "weather_csv": frost(day.Of(2026, 11, 1), 100, 80*24, hours, c, 9), "plants": plants})
	}
	hard := ask(-9, 120)
	var freeze, drying *walks.FreezeEvent
	for i := range hard.Events {
		switch hard.Events[i].Kind {
		case weather.Freeze:
			freeze = &hard.Events[i]
		}
	}
	long := ask(-8, 16*24) // five days of it dry nothing
	for i := range long.Events {
		if e := &long.Events[i]; e.Kind == cold.DryingWind && (drying == nil || e.Value > drying.Value) {
			drying = e
		}
	}
	if freeze == nil || drying == nil || freeze.Value != -9 || freeze.Hours < 120 || len(freeze.Plants) != len(plants) {
		t.Fatalf("events: %+v", hard.Events)
	}
	oleander, lilac, rosemary := freeze.Plants[0], freeze.Plants[1], freeze.Plants[2]
	if oleander.Dieback < 0.15 || oleander.WoodKillC < -9 || oleander.ThickestMM < 6 || len(oleander.Reasons) != 1 {
		t.Errorf("oleander: %+v", oleander)
	}
	if lilac.Dieback != 0 || lilac.WoodKillC > -15 || lilac.Severity > 0.1 {
		t.Errorf("lilac: %+v", lilac)
	}
	roots := 0.0
	for _, o := range rosemary.Organs {
		if o.Organ == cold.Roots {
			roots = o.Share
		}
	}
	if roots < 0.5 {
		t.Errorf("rosemary in a 10 L pot keeps its roots: %+v", rosemary.Organs)
	}
	open, shut := drying.Plants[3], drying.Plants[4]
	if open.DryingKPAH <= shut.DryingKPAH || open.DryingInjury == 0 || shut.DryingInjury != 0 || open.BaseAlive < 0.9 || open.DryingBorne != 15 {
		t.Errorf("drying, in sun and wind %+v, sheltered %+v", open, shut)
	}
	if mild := ask(-4.5, 8); len(mild.Events) == 0 || mild.Events[0].Kind != weather.Freeze || mild.Events[0].Plants[0].Severity >= oleander.Severity {
		t.Errorf("a short mild frost: %+v", mild.Events)
	}
	if none := ok[walks.FreezeOut](h, "POST", "/reckon/freeze", obj{"climate": lake.Climate, "weather_csv": frost(day.Of(2026, 11, 1), 100, 0, 0, 0, 0), "plants": plants}); len(none.Events) != 0 || len(none.Reasons) != 2 {
		t.Errorf("no frost: %+v", none)
	}
	// The same hours as JSON, and a property with weather of its own.
	var hours []obj
	for i := range 72 {
		hours = append(hours, obj{"time": time.Date(2027, 1, 10, i, 0, 0, 0, time.UTC), "temp_c": -8})
	}
	if o := ok[walks.FreezeOut](h, "POST", "/reckon/freeze", obj{"climate": lake.Climate, "hours": hours, "plants": plants[:1]}); len(o.Events) == 0 || o.Events[0].Hours != 72 {
		t.Errorf("hours as JSON: %+v", o.Events)
	}
	property, _ := h.villa()
	if o := ok[walks.FreezeOut](h, "POST", "/reckon/freeze", obj{"property": property.ID, "plants": plants[:1]}); len(o.Events) < 3 || o.Events[0].Property != "Villa Lumera" {
		t.Errorf("a property's own weather: %+v", o.Events)
	}
}

func TestSeasonRefusals(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	lake, _ := catalogue.Built().Climate("lake-foothills")
	freeze := func(change func(obj)) obj {
		b := obj{"climate": lake.Climate, "weather_csv": frost(day.Of(2027, 1, 1), 9, 48, 9, -9, 2), "plants": []obj{{"species": "olea-europaea"}}}
		change(b)
		return b
	}
	at := fmt.Sprintf("/properties/%d", property.ID)
	entry, _ := catalogue.Built().Species("olea-europaea")
	entry.HardinessC = -40
	for _, c := range []struct {
		name, method, path string
		body               any
		status             int
		says               []string
	}{
		{"no weather", "POST", "/reckon/freeze", freeze(func(b obj) { delete(b, "weather_csv") }), 422, []string{"body.hours", "is missing"}},
		{"two weathers", "POST", "/reckon/freeze", freeze(func(b obj) { b["hours"] = []obj{{"time": "2027-01-01T00:00:00Z", "temp_c": 1}} }), 422, []string{"body.weather_csv"}},
		{"broken CSV", "POST", "/reckon/freeze", freeze(func(b obj) { b["weather_csv"] = "time,temp_c\n2027-01-01T00:00Z,cold\n" }), 422, []string{"body.weather_csv.line 2", "cold"}},
		{"hour without temperature", "POST", "/reckon/freeze", freeze(func(b obj) { delete(b, "weather_csv"); b["hours"] = []obj{{"time": "2027-01-01T00:00:00Z"}} }), 422, []string{"hours[0]", "temp_c"}},
		{"hotter than any hour", "POST", "/reckon/freeze", freeze(func(b obj) {
			delete(b, "weather_csv")
			b["hours"] = []obj{{"time": "2027-01-01T00:00:00Z", "temp_c": 120}}
		}), 422, []string{"hours[0].temp_c", "outside"}},
		{"the same hour twice", "POST", "/reckon/freeze", freeze(func(b obj) {
			delete(b, "weather_csv")
			b["hours"] = []obj{{"time": "2027-01-01T00:00:00Z", "temp_c": 1}, {"time": "2027-01-01T00:30:00Z", "temp_c": 1}}
		}), 422, []string{"body.hours", "twice"}},
		{"unknown plant", "POST", "/reckon/freeze", freeze(func(b obj) { b["plants"] = []obj{{"species": "olive-tree"}} }), 422, []string{"plants[0].species"}},
		{"sun beyond all day", "POST", "/reckon/freeze", freeze(func(b obj) { b["plants"] = []obj{{"species": "olea-europaea", "sun": 3}} }), 422, []string{"plants[0].sun"}},
		{"no plants", "POST", "/reckon/freeze", freeze(func(b obj) { b["plants"] = []obj{} }), 422, []string{"body.plants"}},
		{"no climate", "POST", "/reckon/freeze", freeze(func(b obj) { delete(b, "climate") }), 422, []string{"body.climate"}},
		{"property not there", "POST", "/reckon/freeze", obj{"property": 99, "plants": []obj{{"species": "olea-europaea"}}}, 404, []string{"property"}},
		{"pot of minus ten litres", "POST", "/plants", obj{"property_id": property.ID, "species": "olea-europaea", "height_m": 1, "pot_l": -10}, 422, []string{"body.pot_l"}},
		{"plant file, unknown species beside another fault", "POST", at + "/plants", "species,height_m\nOlive,2\nTriffid,3\nOlive,0\n", 422, []string{"line 3", "Triffid", "line 4"}},
		{"plant file, no height", "POST", at + "/plants", "species,height_m\nOlive,\n", 422, []string{"line 2", "height_m"}},
		{"normals, eleven months", "POST", "/reckon/normals", "month,tmin_c,tmax_c\n1,0,5\n", 422, []string{"month 2 is missing"}},
		{"an olive of the tundra", "PUT", "/species/olea-europaea", entry, 422, []string{"body.hardiness_c", "genus Olea"}},
		{"another entry's id", "PUT", "/species/acer-palmatum", entry, 422, []string{"body.id"}},
		{"pack with a fault", "POST", "/species", "- id: x\n  common: X\n", 422, []string{"entry", "botanical"}},
		{"pack that is none", "POST", "/species", "][", 422, []string{"pack"}},
		{"built entry taken out", "DELETE", "/species/olea-europaea", nil, 404, []string{"own or corrected"}},
		{"event that never was", "GET", at + "/event?kind=freeze&peak=2027-03-01", nil, 404, []string{"2027-03-01"}},
		{"moving the clock's day", "PUT", "/today", obj{"day": "2027-04-18"}, 409, []string{"only the sample's"}},
	} {
		code, b := h.do(c.method, c.path, c.body)
		if code != c.status {
			t.Errorf("%s: %d %.300s, want %d", c.name, code, b, c.status)
		}
		for _, s := range c.says {
			if !strings.Contains(string(b), s) {
				t.Errorf("%s: does not say %q: %.300s", c.name, s, b)
			}
		}
	}
	if n := len(ok[List[estate.PlantOut]](h, "GET", "/plants", nil).Items); n != 1 {
		t.Errorf("%d plants after the refusals, want the one", n)
	}
	if e := ok[estate.SpeciesDetail](h, "GET", "/species/olea-europaea", nil); e.Source != "built" || e.HardinessC == -40 {
		t.Errorf("a refused entry was kept: %+v", e)
	}
}

func TestPlantFileRoundTrip(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	at := fmt.Sprintf("/properties/%d/plants", property.ID)
	file := "species,label,height_m,pot_l,sun,mulched,stop\nOlive,\"Court, south\",3,,1,no,2\nCitrus × limon,Steps,1.5,60,,yes,1\n"
	took := ok[garden.PlantsTaken](h, "POST", at, file, "Idempotency-Key", "once")
	if again := ok[garden.PlantsTaken](h, "POST", at, file, "Idempotency-Key", "once"); len(took.Added) != 2 || fmt.Sprint(again) != fmt.Sprint(took) {
		t.Errorf("taken %v, again %v", took, again)
	}
	lemon := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", took.Added[1]), nil)
	if lemon.Species != "citrus-limon" || lemon.PotL != 60 || lemon.Sun != cold.UsualSun || !lemon.Mulched || lemon.SpreadM != 1 || lemon.Stop != 1 {
		t.Errorf("%+v", lemon)
	}
	_, csv := h.do("GET", at+".csv", nil)
	other := ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": "Mill", "climate_type": "lake-foothills"})
	ok[garden.PlantsTaken](h, "POST", fmt.Sprintf("/properties/%d/plants", other.ID), string(csv))
	_, back := h.do("GET", fmt.Sprintf("/properties/%d/plants.csv", other.ID), nil)
	if string(back) != string(csv) || !strings.Contains(string(csv), `"Court, south"`) {
		t.Errorf("written\n%s\ncame back as\n%s", csv, back)
	}
	// The same file once more: it is asked about, and then left, replaced or added as is said.
	plants := func() int {
		return len(ok[List[estate.PlantOut]](h, "GET", fmt.Sprintf("/plants?property=%d&limit=100", property.ID), nil).Items)
	}
	n := plants()
	if asked := ok[garden.PlantsTaken](h, "POST", at, file); !asked.Ask || asked.Same != 2 || asked.Lines != 2 || plants() != n {
		t.Errorf("asked: %+v, %d plants of %d", asked, plants(), n)
	}
	if left := ok[garden.PlantsTaken](h, "POST", at+"?standing=leave", file); len(left.Added) != 0 || plants() != n {
		t.Errorf("left: %+v", left)
	}
	taller := strings.Replace(file, "Olive,\"Court, south\",3", "Olive,\"court, south\",3.4", 1)
	if r := ok[garden.PlantsTaken](h, "POST", at+"?standing=replace", taller); len(r.Replaced) != 2 || plants() != n {
		t.Errorf("replaced: %+v", r)
	} else if p := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", r.Replaced[0]), nil); p.HeightM != 3.4 || p.ID != took.Added[0] {
		t.Errorf("replaced by %+v", p)
	}
	if added := ok[garden.PlantsTaken](h, "POST", at+"?standing=add", file); len(added.Added) != 2 || plants() != n+2 {
		t.Errorf("added again: %+v", added)
	}
	// All faults at once, of cells and of what the book knows, by the file's own names.
	code, b := h.do("POST", at, "Plant;Height (m)\nOliv;3\nOlive;tall\nOlive;0,5\n")
	for _, want := range []string{"line 2", "Plant: ", "olea-europaea", "line 3", "Height (m): "} {
		if code != 422 || !strings.Contains(string(b), want) {
			t.Errorf("faults: %d, no %q in %s", code, want, b)
		}
	}
}

// TestOwnSpecies corrects an entry, adds one, exchanges both as a pack, and goes back to the built one.
func TestOwnSpecies(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	before := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil)
	e := ok[estate.SpeciesDetail](h, "GET", "/species/camellia-japonica", nil).Entry
	e.HardinessC, e.Habit = -9, "Ours are tenderer than the book says."
	got := ok[estate.SpeciesDetail](h, "PUT", "/species/camellia-japonica?version=0", e)
	if got.Source != "corrected" || got.Original == nil || got.Original.HardinessC != -15 || len(got.Differences) != 2 || got.Differences[0].Field != "hardiness_c" || got.Differences[0].Yours != "-9" {
		t.Fatalf("corrected: %+v", got)
	}
	if code, b := h.do("PUT", "/species/camellia-japonica?version=0", e); code != 409 || !strings.Contains(string(b), "changed meanwhile") {
		t.Errorf("a stale correction: %d %s", code, b)
	}
	if after := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", plant.ID), nil); after.Look.Severity <= before.Look.Severity {
		t.Errorf("the look-list does not follow the correction: %.2f, before %.2f", after.Look.Severity, before.Look.Severity)
	}
	mine := e
	mine.ID, mine.Common, mine.Botanical = "camellia-ours", "Our camellia", "Camellia oleifera"
	if d := ok[estate.SpeciesDetail](h, "PUT", "/species/camellia-ours", mine); d.Source != "own" || d.Original != nil {
		t.Errorf("own: %+v", d)
	}
	p := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "camellia-ours", "height_m": 1})
	if code, b := h.do("DELETE", "/species/camellia-ours", nil); code != 409 || !strings.Contains(string(b), "1 plants") {
		t.Errorf("an entry in use taken out: %d %s", code, b)
	}
	_, pack := h.do("GET", "/species.yaml", nil)
	other := newHouse(t)
	if took := ok[estate.PackTaken](other, "POST", "/species", string(pack)); len(took.Added) != 1 || len(took.Changed) != 1 || len(took.Same) != 0 {
		t.Errorf("pack: %+v\n%s", took, pack)
	}
	if took := ok[estate.PackTaken](other, "POST", "/species", string(pack)); len(took.Same) != 2 {
		t.Errorf("the same pack again: %+v", took)
	}
	if n := len(ok[List[estate.SpeciesOut]](other, "GET", "/species", nil).Items); n != len(catalogue.Built().Entries)+1 {
		t.Errorf("%d species after the pack", n)
	}
	// A restart keeps them; going back is one call, and gives what was there.
	_ = h.server.Estate.Store.Close()
	h.open()
	if was := ok[catalogue.Entry](h, "DELETE", "/species/camellia-japonica", nil); was.HardinessC != -9 {
		t.Errorf("gave back %+v", was)
	}
	if d := ok[estate.SpeciesDetail](h, "GET", "/species/camellia-japonica", nil); d.Source != "built" || d.HardinessC != -15 {
		t.Errorf("as built: %+v", d)
	}
	ok[struct{}](h, "DELETE", fmt.Sprintf("/plants/%d", p.ID), nil)
	ok[catalogue.Entry](h, "DELETE", "/species/camellia-ours", nil)
	if code, _ := h.do("GET", "/species/camellia-ours", nil); code != 404 {
		t.Errorf("an own entry taken out answers %d", code)
	}
}

// TestSiteCorrections: a frost pocket makes the same weather worse and the zone colder, unless it was measured there.
func TestSiteCorrections(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	add := func(name string, site obj) garden.PropertyOut {
		return ok[garden.PropertyOut](h, "POST", "/properties", obj{"name": name, "climate_type": "lake-foothills", "site": site})
	}
	open, hollow := add("Open", obj{}), add("Hollow", obj{"frost_pocket": true})
	if hollow.Here.ExtremeMinC >= open.Here.ExtremeMinC || hollow.Climate.ExtremeMinC != open.Climate.ExtremeMinC || open.Hardy == "" {
		t.Errorf("open %+v, hollow %+v", open.Here, hollow.Here)
	}
	event := func(p garden.PropertyOut, here bool) estate.Event {
		k := ok[overview.WeatherKept](h, "POST", fmt.Sprintf("/properties/%d/weather?here=%v", p.ID, here), frost(day.Of(2027, 1, 1), 60, 900, 20, -9, 1))
		if len(k.Events) != 1 {
			t.Fatalf("%s: %+v", p.Name, k.Events)
		}
		return k.Events[0]
	}
	o, there, here := event(open, false), event(hollow, false), event(hollow, true)
	if there.Value >= o.Value || here.Value != o.Value {
		t.Errorf("open %.1f °C, in the hollow by a station %.1f, by its own thermometer %.1f", o.Value, there.Value, here.Value)
	}
	_, csv := h.do("GET", fmt.Sprintf("/properties/%d/normals.csv", open.ID), nil)
	if n := ok[NormalsRead](h, "POST", "/reckon/normals", string(csv)); fmt.Sprint(n.Normals) != fmt.Sprint(open.Climate.Normals) {
		t.Errorf("normals came back as %v", n.Normals)
	}
	_, hours := h.do("GET", fmt.Sprintf("/properties/%d/weather.csv", open.ID), nil)
	if strings.Count(string(hours), "\n") != 60*24+1 {
		t.Errorf("%d lines of weather", strings.Count(string(hours), "\n"))
	}
}

// loaded is the sample's record, loaded once: the files of its folder, and the day that it stands at.
var loaded = sync.OnceValues(func() (of struct {
	files map[string][]byte
	today day.Day
}, err error) {
	folder, err := os.MkdirTemp("", "sample")
	if err != nil {
		return of, err
	}
	defer os.RemoveAll(folder)
	h := &opened{folder: folder, today: day.Of(2027, 3, 18)}
	if _, err := h.openAt(); err != nil {
		return of, err
	}
	h.moves()
	sample, err := demo.Read()
	if err == nil {
		err = sample.Load(context.Background(), h.site, h.server.Estate.SetToday)
	}
	if err = errors.Join(err, h.server.Close()); err != nil {
		return of, err
	}
	of.files, of.today = map[string][]byte{}, h.today
	return of, filepath.WalkDir(folder, func(path string, e fs.DirEntry, err error) error {
		if err == nil && !e.IsDir() {
			name, _ := filepath.Rel(folder, path)
			of.files[name], err = os.ReadFile(path)
		}
		return err
	})
})

// moves has the day be moved, as the sample's is.
func (h *opened) moves() {
	h.server.Estate.Home, h.server.Estate.SetToday = h.today, func(d day.Day) { h.today = d }
}

// sampleHouse is the whole sample with its movable day: a copy of the one that was loaded.
func sampleHouse(t testing.TB) *opened {
	t.Helper()
	of, err := loaded()
	if err != nil {
		t.Fatal(err)
	}
	h := &opened{t: t, folder: t.TempDir(), today: of.today}
	for name, content := range of.files {
		path := filepath.Join(h.folder, name)
		if err := errors.Join(os.MkdirAll(filepath.Dir(path), 0o700), os.WriteFile(path, content, 0o600)); err != nil {
			t.Fatal(err)
		}
	}
	h.open()
	h.moves()
	return h
}

// TestTheSampleYearGoesBy moves the sample's day through its year: each event comes up when its time has come, and the
// outlook narrows.
func TestTheSampleYearGoesBy(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	props := ok[List[garden.PropertyOut]](h, "GET", "/properties", nil).Items
	plants := ok[List[estate.PlantOut]](h, "GET", "/plants?limit=1000", nil).Items
	if len(props) != 8 || len(plants) < 145 {
		t.Errorf("%d properties, %d plants", len(props), len(plants))
	}
	frost := func() int {
		b := ok[estate.SeasonOut](h, "POST", "/reckon/season", obj{"property": 3}).Outlook.LastFrost
		return b.Late.Sub(b.Early)
	}
	kinds := func() (out string) {
		for _, e := range ok[overview.Lookout](h, "GET", "/lookout", nil).Events {
			if e.Hurt > 0 {
				out += e.Kind + " "
			}
		}
		return out
	}
	last := 1000
	for _, step := range []struct {
		to       string
		says     string
		silent   string
		narrower bool
	}{
		{"2027-02-01", "drying wind", "heat", true},
		{"2027-03-18", "freeze", "heat", true},
		{"2027-04-18", "freeze", "heat", true},
		{"2027-05-10", "late frost", "heat", false},
		{"2027-07-28", "heat", "freeze", false},
		{"2027-08-14", "gale", "freeze", false},
		{"2027-11-05", "wet spell", "drying", false},
		{"2027-11-20", "freeze", "drying", false},
		{"2027-03-18", "freeze", "heat", false},
	} {
		f := ok[Frame](h, "PUT", "/today", obj{"day": step.to})
		if f.Today.String() != step.to || !f.Movable || f.Home.String() != "2027-03-18" {
			t.Fatalf("moved to %s: %+v", step.to, f)
		}
		k := kinds()
		if !strings.Contains(k, step.says) || strings.Contains(k, step.silent) {
			t.Errorf("%s: %s; want %s and no %s", step.to, k, step.says, step.silent)
		}
		if step.narrower {
			if n := frost(); n >= last {
				t.Errorf("%s: last frost spread over %d days, before %d", step.to, n, last)
			} else {
				last = n
			}
		}
	}
	if code, b := h.do("PUT", "/today", obj{"day": "2031-01-01"}); code != 422 || !strings.Contains(string(b), "body.day") {
		t.Errorf("beyond the sample's time: %d %s", code, b)
	}
}

// TestEventChart holds the hours of the sample's freeze against what its plants bore.
func TestEventChart(t *testing.T) {
	t.Parallel()
	h := sampleHouse(t)
	l := ok[overview.Lookout](h, "GET", "/lookout", nil)
	e := l.Events[0]
	c := ok[overview.EventChart](h, "GET", fmt.Sprintf("/properties/%d/event?kind=%s&peak=%s", e.PropertyID, e.Kind, e.Peak), nil)
	low := 99.0
	for _, v := range c.Values {
		low = min(low, *v)
	}
	if low != e.Value || len(c.Times) != len(c.Values) || len(c.Times) < 72 || len(c.Lines) < 3 {
		t.Fatalf("%d hours down to %.1f °C, event %.1f; lines %+v", len(c.Values), low, e.Value, c.Lines)
	}
	for i, line := range c.Lines {
		if i > 0 && line.C > c.Lines[i-1].C || (line.Share >= 0.5) != (line.C >= low) && line.Organ == cold.Wood {
			t.Errorf("line %d: %+v against %.1f °C", i, line, low)
		}
	}
	for _, g := range l.Groups {
		if len(g.Looks) == 0 || g.Minutes < cold.LookMinutes*len(g.Looks) {
			t.Errorf("%+v", g)
		}
		for i, p := range g.Looks {
			if i > 0 && p.Look.Score > g.Looks[i-1].Look.Score || p.PropertyID != g.PropertyID || !p.Look.Worth {
				t.Errorf("%s, place %d: %+v", g.Property, i, p.Look)
			}
		}
	}
}

// many fills a record with properties of 50 plants and a year of hours each.
func many(b *testing.B, h *opened, properties int) {
	b.Helper()
	ctx, types, species := context.Background(), catalogue.Built().Climates, catalogue.Built().Entries
	for i := range properties {
		c := types[i%len(types)].Climate
		from := h.today - 365
		days := season.Generator{Normals: c.Daily(), Seed: uint64(i)}.Days(from, 365)
		hours := make([]weather.Hour, 0, 8760)
		for k, t := range season.Hourly(c.Latitude, from, days) {
			w := days[k/24]
			hours = append(hours, weather.Hour{Time: from.Time().Add(time.Duration(k) * time.Hour), TempC: t, WindMS: w.WindMS, RainMM: w.RainMM / 24, RHPct: w.RHPct, Sun: w.Sun})
		}
		err := h.server.Estate.Store.Write(ctx, func(tx store.Tx) error {
			p, err := tx.AddProperty(ctx, store.Property{Name: fmt.Sprint("Garden ", i), Zone: "UTC", Climate: store.JSON[season.Climate]{V: c}, Value: 1})
			if err != nil {
				return err
			}
			for k := range 50 {
				if _, err := tx.AddPlant(ctx, store.Plant{PropertyID: p.ID, Species: species[(i*50+k)%len(species)].ID, HeightM: 1.5, SpreadM: 1, Count: 1, Shelter: 0.5, Sun: 0.6, Value: 1, Stop: k + 1}); err != nil {
					return err
				}
			}
			_, err = tx.KeepWeather(ctx, p.ID, store.SourceIn{Name: "made up", Rank: store.OfTheRegion}, hours)
			return err
		})
		if err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkLookout10000 asks for the house.Lookout over 10,000 plants on 200 properties: once weather is in ("asked"),
// after a verdict ("decided"), after a plant was changed ("changed"), and with nothing worked out yet ("first").
func BenchmarkLookout10000(b *testing.B) {
	h := newHouse(b)
	many(b, h, 200)
	ask := func(b *testing.B) {
		code, body := h.do("GET", "/lookout", nil)
		var l overview.Lookout
		if err := json.Unmarshal(body, &l); code != 200 || err != nil || l.Looks == 0 {
			b.Fatal(code, err, l.Looks)
		}
	}
	b.Run("first", func(b *testing.B) {
		for b.Loop() {
			b.StopTimer()
			h.server.Estate.Forget()
			b.StartTimer()
			ask(b)
		}
	})
	write := func(b *testing.B, f func(tx store.Tx) error) {
		b.StopTimer()
		if err := h.server.Estate.Store.Write(context.Background(), f); err != nil {
			b.Fatal(err)
		}
		b.StartTimer()
	}
	b.Run("changed", func(b *testing.B) {
		for b.Loop() {
			write(b, func(tx store.Tx) error {
				_, err := tx.ExecContext(context.Background(), `UPDATE plant SET height_m = height_m + 0.001, version = version + 1 WHERE id = 77`)
				return errors.Join(err, tx.RemovePlant(context.Background(), 77, false))
			})
			ask(b)
		}
	})
	b.Run("decided", func(b *testing.B) {
		for b.Loop() {
			write(b, func(tx store.Tx) error { _, err := tx.StartWalk(context.Background(), 1, "2027-03-18"); return err })
			ask(b)
		}
	})
	b.Run("asked", func(b *testing.B) {
		for b.Loop() {
			ask(b)
		}
	})
}

// TestGraftIsKept: the graft, the year it was planted and a shoot's leaf come through the door, the record and the
// file.
func TestGraftIsKept(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.today = day.Of(2027, 9, 10)
	property, _ := h.villa()
	p := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "citrus-limon", "height_m": 1.6, "graft_m": 0.15, "planted": 2012})
	if p.GraftM != 0.15 || p.Planted != 2012 || p.Graft.Habit != "usually" || p.Graft.RootstockLeaf == "" {
		t.Errorf("kept as %+v", p)
	}
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d/checks", walk.ID, p.ID)
	checks := []obj{{"kind": "shoot", "height_m": 0.1, "leaf": "rootstock"}, {"kind": "scratch", "height_m": 0.3, "result": "brown"},
		{"kind": "scratch", "height_m": 1, "result": "brown"}}
	a := ok[damage.Answer](h, "PUT", at, obj{"checks": checks})
	if a.Verdict.Kind != damage.Regraft || !strings.Contains(a.Verdict.Sentence, "15 cm") {
		t.Errorf("only rootstock in September: %s", a.Verdict.Sentence)
	}
	if w := ok[walks.Walk](h, "GET", fmt.Sprintf("/walks/%d", walk.ID), nil); len(w.Looks) != 1 || w.Looks[0].Checks[0].Leaf != "rootstock" {
		t.Errorf("the leaf was not kept: %+v", w.Looks)
	}
	if young := ok[damage.Answer](h, "POST", "/reckon/damage", obj{"species": "citrus-limon", "property": property.ID, "height_m": 1.6, "graft_m": 0.15, "years": 3, "checks": checks}); young.Verdict.Kind != damage.Replace {
		t.Errorf("a young one: %s", young.Verdict.Sentence)
	}
	_, csv := h.do("GET", fmt.Sprintf("/properties/%d/plants.csv", property.ID), nil)
	if !strings.Contains(string(csv), ",0.15,2012,") {
		t.Errorf("the file lacks the graft: %s", csv)
	}
	for _, bad := range []obj{{"graft_m": 5}, {"planted": 2090}, {"planted": 12}} {
		b := obj{"property_id": property.ID, "species": "citrus-limon", "height_m": 1.6}
		for k, v := range bad {
			b[k] = v
		}
		if code, body := h.do("POST", "/plants", b); code != 422 {
			t.Errorf("%v was taken: %d %s", bad, code, body)
		}
	}
}

// TestTenderBeforeFrost: in October the tender plants are named until they are decided on, and in March none is.
func TestTenderBeforeFrost(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	add := func(species string, height, pot float64) estate.PlantOut {
		return ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": species, "height_m": height, "pot_l": pot})
	}
	climber, pot, tree := add("bougainvillea-glabra", 2, 0), add("citrus-limon", 1.5, 50), add("citrus-limon", 4, 0)
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Tender != 0 || len(l.Shelter) != 0 {
		t.Errorf("in March: %+v", l.Shelter)
	}
	h.today = day.Of(2027, 10, 12)
	l := ok[overview.Lookout](h, "GET", "/lookout", nil)
	if l.Tender != 2 || len(l.Shelter) != 2 || l.Shelter[0].ID != climber.ID || l.Shelter[1].ID != pot.ID {
		t.Fatalf("in October: %d, %+v", l.Tender, l.Shelter)
	}
	if s := l.Shelter[0].TakeIn; s.Before <= h.today || s.Before.Year() != 2027 || s.Winters >= 0.5 {
		t.Errorf("%+v", s)
	}
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	d := ok[walks.Decided](h, "POST", fmt.Sprintf("/walks/%d/plants/%d/verdict", walk.ID, climber.ID), obj{"decision": "accepted"})
	if d.Verdict.Kind != damage.Lift || len(from(d.Jobs, job.TakingIn)) != 2 {
		t.Errorf("%+v", d)
	}
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Tender != 1 || l.Shelter[0].ID != pot.ID {
		t.Errorf("after one was decided: %+v", l.Shelter)
	}
	if p := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", tree.ID), nil); p.TakeIn != nil {
		t.Errorf("a tree of 4 m in the ground: %+v", p.TakeIn)
	}
}

// TestFrostCameFirst: what a freeze in autumn has likely killed to the wood is looked at, and no longer taken in
// before the first frost.
func TestFrostCameFirst(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, _ := h.villa()
	pot := ok[estate.PlantOut](h, "POST", "/plants", obj{"property_id": property.ID, "species": "citrus-limon", "height_m": 1.5, "pot_l": 50})
	h.today = day.Of(2027, 11, 8)
	if l := ok[overview.Lookout](h, "GET", "/lookout", nil); l.Tender != 1 {
		t.Fatalf("a lemon in a pot on 8 November: %+v", l.Shelter)
	}
	csv := frost(day.Of(2027, 9, 20), 49, 24*47, 9, -8, 1)
	ok[overview.WeatherKept](h, "POST", fmt.Sprintf("/properties/%d/weather", property.ID), csv)
	l := ok[overview.Lookout](h, "GET", "/lookout", nil)
	if l.Tender != 0 {
		t.Errorf("after nine hours at -8 °C it is still to be taken in before the first frost: %+v", l.Shelter)
	}
	if p := ok[estate.PlantOut](h, "GET", fmt.Sprintf("/plants/%d", pot.ID), nil); p.Look == nil || !p.Look.Worth {
		t.Errorf("nor is it looked at: %+v", p.Look)
	}
}

// BenchmarkCuts10000 proposes a year of cuts for 10,000 plants of one property.
func BenchmarkCuts10000(b *testing.B) {
	h := newHouse(b)
	property, _ := h.villa()
	species := catalogue.Built().Entries
	err := h.server.Estate.Store.Write(context.Background(), func(tx store.Tx) error {
		for i := range 10_000 {
			e := species[i%len(species)]
			p := store.Plant{PropertyID: property.ID, Species: e.ID, HeightM: e.Mature.HeightM * (0.3 + 0.07*float64(i%10)), SpreadM: e.Mature.SpreadM, Count: 1 + i%12, Value: 1, Stop: i + 1}
			if _, err := tx.AddPlant(context.Background(), p); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		b.Fatal(err)
	}
	path := fmt.Sprintf("/properties/%d/cuts", property.ID)
	for b.Loop() {
		code, body := h.do("GET", path, nil)
		var p cuts.CutsProposed
		if err := json.Unmarshal(body, &p); code != 200 || err != nil || len(p.Cuts) < 5000 {
			b.Fatal(code, err, len(p.Cuts))
		}
	}
}
