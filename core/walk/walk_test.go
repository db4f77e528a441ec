package walk

import (
	"encoding/json"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// inland is a climate with cold winters, on 18 March 2027 after a hard night on 12 January.
func inland() season.Climate {
	c := season.Climate{Latitude: 46, Longitude: 9, ElevationM: 400, ExtremeMinC: -13}
	for m := range 12 {
		mean := 11 - 10*math.Cos(2*math.Pi*(float64(m)-0.3)/12)
		c.Normals = append(c.Normals, season.Normal{TMinC: mean - 5, TMaxC: mean + 5, RainMM: 80, RHPct: 70, WindMS: 2})
	}
	return c
}

var today = day.Of(2027, time.March, 18)

// winter are the hours from November on: as the season has them, but for one night.
func winter() []weather.Hour {
	from := day.Of(2026, time.November, 1)
	var out []weather.Hour
	for d := from; d < today; d++ {
		for h := range 24 {
			temp := 4 + 4*math.Sin(2*math.Pi*float64(h-9)/24)
			if d == day.Of(2027, time.January, 12) && h < 9 {
				temp = -17.5
			}
			hour := weather.Hour{Time: d.Time().Add(time.Duration(h) * time.Hour), TempC: temp, WindMS: 1.7, RHPct: 71, RainMM: 0.1, Sun: math.NaN()}
			if h == 3 {
				hour.RHPct = math.NaN()
			}
			if d%9 != 0 || h != 14 { // the station was off for some hours
				out = append(out, hour)
			}
		}
	}
	return out
}

func kit(t *testing.T, species ...string) Kit {
	t.Helper()
	k := Kit{Property: 7, Today: today, Zone: "Europe/Rome", Climate: inland(), Rules: rules.House{}, Weather: Packed(winter())}
	for i, id := range species {
		e, err := catalogue.Built().Species(id)
		if err != nil {
			t.Fatal(err)
		}
		if !slices.ContainsFunc(k.Species, func(s catalogue.Entry) bool { return s.ID == id }) {
			k.Species = append(k.Species, e)
		}
		k.Plants = append(k.Plants, Plant{ID: int64(i + 1), Species: id, HeightM: 1.8, SpreadM: 1.4, Count: 1, Value: 1, Shelter: 0.5, Sun: 0.6, MadeSafe: day.None})
	}
	return k
}

// TestHoursComeBack: hours in columns are the same hours again, with what was not measured and the hours that are missing.
func TestHoursComeBack(t *testing.T) {
	was := winter()
	packed := Packed(was)
	got, err := packed.Unpacked()
	if err != nil || len(got) != len(was) {
		t.Fatalf("%d of %d hours, %v", len(got), len(was), err)
	}
	same := func(a, b float64) bool { return a == b || math.IsNaN(a) && math.IsNaN(b) }
	for i := range was {
		a, b := was[i], got[i]
		if !a.Time.Equal(b.Time) || !same(a.TempC, b.TempC) || !same(a.RHPct, b.RHPct) || !same(a.Sun, b.Sun) || !same(a.WindMS, b.WindMS) || !same(a.RainMM, b.RainMM) {
			t.Fatalf("hour %d: %v, was %v", i, b, a)
		}
	}
	if none, err := (&Hours{}).Unpacked(); err != nil || len(none) != 0 {
		t.Errorf("no hours: %v, %v", none, err)
	}
}

// TestHoursThatDoNotFit: a column with a number too few, or with something else in it, is named.
func TestHoursThatDoNotFit(t *testing.T) {
	for name, spoil := range map[string]func(h *Hours){
		"wind_ms": func(h *Hours) { h.Wind = "1,2" },
		"temp_c":  func(h *Hours) { h.Temp = strings.Replace(h.Temp, ",", ",warm,", 1) },
		"after":   func(h *Hours) { h.After = "0,soon" },
	} {
		h := Packed(winter())
		spoil(&h)
		if _, err := h.Unpacked(); err == nil || !strings.Contains(err.Error(), name) {
			t.Errorf("%s spoilt: %v", name, err)
		}
	}
}

// TestWhatWasTakenAlongJudgesAlike: a kit that went through JSON, as to a device, judges as the ground it was made from; the
// night of January is in it, and silence on a plant that leafs later is no verdict of death.
func TestWhatWasTakenAlongJudgesAlike(t *testing.T) {
	k := kit(t, "camellia-japonica", "laurus-nobilis", "hydrangea-macrophylla", "laurus-nobilis", "laurus-nobilis", "laurus-nobilis")
	lost := 0.8
	k.Plants[3].Lost, k.Plants[4].Lost = &lost, &lost
	text, err := json.Marshal(k)
	if err != nil {
		t.Fatal(err)
	}
	var there Kit
	if err := json.Unmarshal(text, &there); err != nil {
		t.Fatal(err)
	}
	zone, _ := time.LoadLocation(k.Zone)
	here := At(k.Climate.Daily(), winter(), zone, today, k.Rules)
	away, err := there.Open(today)
	if err != nil {
		t.Fatal(err)
	}
	book := func(id string) catalogue.Entry { e, _ := catalogue.Built().Species(id); return e }
	for i := range k.Plants {
		p := &k.Plants[i]
		for _, checks := range [][]check.Check{
			nil,
			{{Kind: check.Scratch, HeightM: 1.4, Result: "brown"}, {Kind: check.Scratch, HeightM: 0.4, Result: "green"}},
			{{Kind: check.BudRub, HeightM: 1, Broke: 8}, {Kind: check.Scratch, HeightM: 0.1, Result: "brown"}},
		} {
			q := here.Ask(p, k.Plants, book, checks, today)
			if len(checks) > 0 {
				q.Found = today
			}
			want, err := damage.Judge(q)
			if err != nil {
				t.Fatal(err)
			}
			q, err = away.Of(p.ID, checks, today)
			if err != nil {
				t.Fatal(err)
			}
			if q.Forecast == nil {
				t.Errorf("%s: the night of January is not known", p.Species)
			}
			got, err := damage.Judge(q)
			a, _ := json.Marshal(want)
			b, _ := json.Marshal(got)
			if err != nil || string(a) != string(b) {
				t.Errorf("%s with %v: %s\nwant %s, %v", p.Species, checks, b, a, err)
			}
			if got.Verdict.Kind == damage.Replace {
				t.Errorf("%s in March: %s", p.Species, got.Verdict.Sentence)
			}
		}
	}
	if _, err := away.Of(99, nil, today); err == nil {
		t.Error("a plant that was not taken along is judged")
	}
}

// TestEarlierDays: what was found on the day itself or later is not brought up as earlier, nor is a cut from before the first look.
func TestEarlierDays(t *testing.T) {
	k := kit(t, "laurus-nobilis")
	green := []check.Check{{Kind: check.Scratch, HeightM: 0.5, Result: "green"}}
	k.Plants[0].Earlier = []damage.Earlier{{Day: today - 30, Checks: green}, {Day: today - 2}, {Day: today, Checks: green}}
	k.Plants[0].Cuts = []damage.Cut{{Day: today - 40, ToM: 1.2}, {Day: today - 10, ToM: 1}}
	k.Plants[0].MadeSafe = today - 20
	o, err := k.Open(today)
	if err != nil {
		t.Fatal(err)
	}
	q, err := o.Of(1, green, today)
	if err != nil || len(q.Earlier) != 1 || q.Earlier[0].Day != today-30 || len(q.Cuts) != 1 || q.Cuts[0].ToM != 1 || q.MadeSafe != today-20 {
		t.Errorf("%+v, %+v, safe %s, %v", q.Earlier, q.Cuts, q.MadeSafe, err)
	}
	k.Plants[0].Earlier = nil
	if o, err = k.Open(today + 1); err != nil || o.Today != today+1 {
		t.Fatal("opened a day later:", o, err)
	}
	if q, _ = o.Of(1, nil, today+1); len(q.Cuts) != 0 || q.MadeSafe.Given() || q.Found.Given() {
		t.Errorf("nothing was found: %+v", q.Cuts)
	}
}

// BenchmarkOpen works a kit of a winter's weather out, as a phone does once a walk.
func BenchmarkOpen(b *testing.B) {
	k := Kit{Today: today, Zone: "UTC", Climate: inland(), Weather: Packed(winter())}
	for b.Loop() {
		if _, err := k.Open(today); err != nil {
			b.Fatal(err)
		}
	}
}
