package e2e

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"reflect"
	"regexp"
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"
)

// devicePage is a page that has the modules at hand which work on the device alone; no house stands behind it.
func devicePage(t *testing.T) *browser {
	t.Helper()
	files := http.FileServer(http.Dir("../web/dist-device"))
	site := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Path == "/api/v1/me" || r.URL.Path == "/api/v1/frame" {
			w.Header().Set("Content-Type", "application/json")
			_, _ = w.Write([]byte(`{}`))
			return
		}
		files.ServeHTTP(w, r)
	}))
	t.Cleanup(site.Close)
	b := open(t, &server{t: t, url: site.URL}, 800, 600)
	b.expect("favicon")
	b.visit("/device.html")
	b.until("the modules", "window.device")
	return b
}

// on runs an expression of the page and decodes its value.
func on[T any](b *browser, expression string) (out T) {
	b.t.Helper()
	text, err := chromedp.Run(b.ctx, chromedp.Evaluate[string]("(async () => JSON.stringify(await ("+expression+")))()", chromedp.EvalAwaitPromise))
	if err == nil {
		err = json.Unmarshal([]byte(text), &out)
	}
	if err != nil {
		b.t.Fatalf("%s: %v", expression, err)
	}
	return out
}

// TestJoinOfTwoPhones: what two people found at one plant while neither had signal is one list with every check as often
// as it was made, and both their notes.
func TestJoinOfTwoPhones(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	green, brown, broke := `{"kind":"scratch","height_m":1,"result":"green"}`, `{"kind":"scratch","height_m":2,"result":"brown"}`, `{"kind":"bud_rub","height_m":2,"broke":6}`
	for _, c := range []struct {
		name, known, mine, theirs string
		want                      []string
	}{
		{"neither found anything", "", "", "", nil},
		{"I found one, they none", "", green, "", []string{green}},
		{"they found one, I none", "", "", brown, []string{brown}},
		{"each found another", "", green, brown, []string{brown, green}},
		{"both knew the first, each added one", green, green + "," + brown, green + "," + broke, []string{green, broke, brown}},
		{"the same scratch made twice by different hands is two", "", green, green, []string{green, green}},
		{"I took one back that both knew: theirs stands", green + "," + brown, green, green + "," + brown, []string{green, brown}},
		{"fields in another order are the same check", green, `{"result":"green","height_m":1,"kind":"scratch"},` + broke, green, []string{green, broke}},
	} {
		got := on[[]map[string]any](b, fmt.Sprintf("device.joined([%s], [%s], [%s])", c.known, c.mine, c.theirs))
		want := []map[string]any{}
		for _, w := range c.want {
			var m map[string]any
			if err := json.Unmarshal([]byte(w), &m); err != nil {
				t.Fatal(err)
			}
			want = append(want, m)
		}
		if !reflect.DeepEqual(got, want) {
			t.Errorf("%s: %v, want %v", c.name, got, want)
		}
	}
	for _, c := range [][3]string{
		{"", "", ""}, {"mine", "", "mine"}, {"", "theirs", "theirs"}, {"split at the fork", "ties cut in", "ties cut in\nsplit at the fork"},
		{"wet", "wet at the root", "wet at the root"}, {"wet at the root", "wet", "wet at the root"},
	} {
		if got := on[string](b, fmt.Sprintf("device.joinedNote(%q, %q)", c[0], c[1])); got != c[2] {
			t.Errorf("%q and %q: %q, want %q", c[0], c[1], got, c[2])
		}
	}
}

// TestKeptAndSentLater: what is kept goes out once, in its order; what is refused is told and goes; what is broken stops
// nothing behind it; without a connection all of it waits.
func TestKeptAndSentLater(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	type told struct {
		Out   map[string]string
		Sent  []string
		Left  int
		Shelf []string
	}
	for _, c := range []struct {
		name, things, answers string
		want                  told
	}{
		{"all goes well", `['a', 'b']`, `{}`, told{map[string]string{"a": "kept a", "b": "kept b"}, []string{"a", "b"}, 0, []string{}}},
		{"the first is refused", `['a', 'b']`, `{a: ['422']}`, told{map[string]string{"a": "refused: answered 422", "b": "kept b"}, []string{"b"}, 0, []string{}}},
		{"the first is broken on this device", `['a', 'b']`, `{a: ['broken']}`, told{map[string]string{"b": "kept b"}, []string{"b"}, 0, []string{}}},
		{"the house stumbles over the first, then takes it", `['a', 'b']`, `{a: ['500', '500']}`, told{map[string]string{"a": "waits", "b": "kept b"}, []string{"b", "a"}, 0, []string{}}},
		{"called off on the way, which says nothing of it", `['a', 'b']`, `{a: ['499', '499']}`, told{map[string]string{"a": "waits", "b": "kept b"}, []string{"b", "a"}, 0, []string{}}},
		{"no connection", `['a', 'b']`, `{a: ['down', 'down', 'down'], b: ['down', 'down', 'down']}`, told{map[string]string{"a": "waits", "b": "waits"}, []string{}, 2, []string{"a", "b"}}},
	} {
		got := on[told](b, fmt.Sprintf("device.queued(%s, %s)", c.things, c.answers))
		if c.name == "the first is broken on this device" {
			if got.Out["a"] == "" || got.Out["a"] == "waits" {
				t.Errorf("%s: of it is said %q", c.name, got.Out["a"])
			}
			delete(got.Out, "a")
		}
		if !reflect.DeepEqual(got, c.want) {
			t.Errorf("%s: %+v, want %+v", c.name, got, c.want)
		}
	}
}

// TestScalesOnTheDevice: where amounts stand in a chart, what stands where, round marks, and lines with gaps.
func TestScalesOnTheDevice(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	for _, c := range []struct{ expression, want string }{
		{"device.scale.scale([0, 100], [10, 210])(25)", "60"},
		{"device.scale.scale([0, 100], [10, 210]).back(60)", "25"},
		{"device.scale.scale([-20, 30], [100, 0])(-20)", "100"}, // cold below
		{"device.scale.scale([5, 5], [10, 20])(5)", "10"},       // all the same: nothing is stretched
		{"device.scale.scale([5, 5], [10, 20]).back(12)", "5"},
		{"device.scale.scale([-13.3, 18.2], [100, 0], 5).back(100)", "-15"}, // widened to round amounts
		{"device.scale.scale([-13.3, 18.2], [100, 0], 5).ticks(5)", "-15,-10,-5,0,5,10,15,20"},
		{"device.scale.lineThrough([[0, 1], [2, 3.14159]])", "M0 1L2 3.1"},
		{"device.scale.lineThrough([[0, 1], [1, 1], undefined, [3, 3], [4, 4]])", "M0 1L1 1M3 3L4 4"},
		{"device.scale.lineThrough([undefined, [3, 3], undefined])", "M3 3Z"}, // a day alone is a dot
		{"device.scale.lineThrough([])", ""},
		{"device.scale.between([[0, 5, 1], [2, 6, 2]])", "M0 1L2 2L2 6L0 5Z"},
		{"device.scale.between([[0, 5, 1], undefined, [2, 6, 2]])", "M0 1L0 5ZM2 2L2 6Z"},
	} {
		if got := on[string](b, "String("+c.expression+")"); got != c.want {
			t.Errorf("%s is %q, want %q", c.expression, got, c.want)
		}
	}
}

// TestUnitsOnTheDevice: figures as they are shown and entered, in both systems, and what people write into a field.
func TestUnitsOnTheDevice(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	for _, c := range []struct{ system, expression, want string }{
		{"metric", "device.units.metres(0.4)", "40 cm"}, {"metric", "device.units.metres(2.5)", "2.5 m"}, {"metric", "device.units.metres(12)", "12 m"},
		{"metric", "device.units.degrees(-3.25, 1)", "−3.3 °C"}, {"metric", "device.units.degrees(-0.01)", "0.0 °C"},
		{"imperial", "device.units.metres(0.5)", "20 in"}, {"imperial", "device.units.metres(1.83)", "6 ft"}, {"imperial", "device.units.metres(1.7)", "5 ft 7 in"},
		{"imperial", "device.units.metres(device.units.named(1.09))", "3 ft 6 in"}, {"imperial", "device.units.metres(device.units.named(2.79))", "9 ft"},
		{"imperial", "device.units.metres(device.units.named(0.41))", "15 in"}, {"metric", "String(device.units.named(1.09))", "1.09"},
		{"imperial", "device.units.degrees(0)", "32 °F"}, {"imperial", "device.units.degrees(-40)", "−40 °F"}, {"imperial", "device.units.apart(10)", "18 °F"},
		{"metric", "String(device.units.read('1,5'))", "1.5"}, {"metric", "String(device.units.read('−3'))", "-3"}, {"imperial", "String(device.units.read('5 ft 6 in', 'length'))", "5.5"},
		{"imperial", `String(device.units.read("6'", 'length'))`, "6"}, {"metric", "String(device.units.read(''))", "NaN"}, {"metric", "String(device.units.read('tall'))", "NaN"},
		{"metric", "String(device.units.read('6 m'))", "NaN"}, {"imperial", "String(device.units.bare(''))", "0"}, {"imperial", "String(device.units.bare('1,050'))", "1050"},
		{"imperial", "String(device.units.entered('temperature', 32))", "0"}, {"imperial", "device.units.inField('length', 3.048)", "10"},
		{"imperial", "device.units.figure(1000, 'L')", "264 gal"}, {"metric", "device.units.figure(0.04, 'm³')", "0.04 m³"}, {"imperial", "device.units.figure(10, 'kg')", "22 lb"},
	} {
		on[bool](b, fmt.Sprintf("(device.inUnits(%q), true)", c.system))
		if got := on[string](b, c.expression); got != c.want {
			t.Errorf("%s, %s: %q, want %q", c.system, c.expression, got, c.want)
		}
	}
}

// TestFiguresOnTheDevice: figures as people of several regions write them are read as they mean them, in the field's own
// unit; what cannot be understood is nothing, and no default.
func TestFiguresOnTheDevice(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	for _, c := range []struct {
		system, kind string
		read         map[string]string
	}{
		{"imperial", "elevation", map[string]string{"1,050": "1050", "1050 feet": "1050", "1,050 ft": "1050", "1 050": "1050", "1'050": "1050", "320 m": "1049.86877",
			"1,050.5": "1050.5", "12,345,678": "12345678", "70ft.": "70"}},
		{"imperial", "length", map[string]string{`5'6"`: "5.5", "5′6″": "5.5", "5’ 6”": "5.5", `5' 6 1/2"`: "5.54166667", "5½": "5.5", "5 1/2": "5.5", "5 1/2 ft": "5.5",
			"5-1/2": "5.5", "30 in": "2.5", `30"`: "2.5", "70 feet": "70", "6 ft 3 in": "6.25", "6ft3": "6.25", "2 yd": "6", "1.5 m": "4.92125984", "150 cm": "4.92125984",
			"½": "0.5", "1/4": "0.25", ".5": "0.5", "6": "6", "6.": "6", "5,5": "5.5"}},
		{"metric", "length", map[string]string{"1.5": "1.5", "1,5": "1.5", "1.250": "1.25", "150 cm": "1.5", "1 m": "1", "5 ft": "1.524", `5'6"`: "1.6764", "30 in": "0.762", "800 mm": "0.8"}},
		{"imperial", "shoot", map[string]string{"8": "8", `8"`: "8", "20 cm": "7.87401575", "1 ft": "12"}},
		{"imperial", "temperature", map[string]string{"14": "14", "14 °F": "14", "−10 °C": "14", "-10C": "14", "32f": "32", "20°": "20"}},
		{"metric", "temperature", map[string]string{"−10": "-10", "–3.5": "-3.5", "14 °F": "-10", "-4,5 °C": "-4.5"}},
		{"imperial", "volume", map[string]string{"2.5 fl oz": "0.0195312365", "1 qt": "0.250000115", "5 gal": "5", "10 L": "2.64172", "3 gallons": "3"}},
		{"imperial", "bulk", map[string]string{"2 yd³": "2", "2 cu yd": "2", "2 yd": "2", "1 m³": "1.30795", "27 cu ft": "1.00000031"}},
		{"imperial", "area", map[string]string{"1,000 sq ft": "1000", "2 acres": "87120.0001", "10 m2": "107.639"}},
		{"imperial", "wind", map[string]string{"5 mph": "5", "8 km/h": "4.97097775", "2 m/s": "4.47388"}},
	} {
		on[bool](b, fmt.Sprintf("(device.inUnits(%q), true)", c.system))
		for text, want := range c.read {
			got := on[string](b, fmt.Sprintf("String(device.units.read(%q, %q))", text, c.kind))
			g, _ := strconv.ParseFloat(got, 64)
			if w, _ := strconv.ParseFloat(want, 64); math.Abs(g-w) > 2e-4*math.Max(1, math.Abs(w)) || got == "NaN" {
				t.Errorf("%s, %s: %q is read as %s, want %s", c.system, c.kind, text, got, want)
			}
		}
		for _, text := range []string{"", "tall", "5 apples", "5'14\"", "1.2.3", "12 34", "1/0", "--3", "5 ft m", "1,05,0", "about 3", "3 to 4"} {
			if got := on[string](b, fmt.Sprintf("String(device.units.read(%q, %q))", text, c.kind)); got != "NaN" {
				t.Errorf("%s, %s: %q is read as %s", c.system, c.kind, text, got)
			}
		}
	}
}

// TestDaysOnTheDevice: a day of this year is written without its year, one of another with it, whatever is shown; a span
// tells its year once, or both where they differ. No other place writes days.
func TestDaysOnTheDevice(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	for _, c := range []struct{ today, call, want string }{
		{"2027-03-18", `inWords("2027-06-28")`, "Mon 28 June"}, {"2027-03-18", `inWords("2028-06-28")`, "Wed 28 June 2028"},
		{"2028-01-01", `inWords("2027-12-31")`, "Fri 31 December 2027"}, {"2027-03-18", `inWords("2027-03-18", true)`, "Thu 18 March 2027"},
		{"2027-03-18", `brief("2026-08-20")`, "20 Aug 2026"}, {"2027-03-18", `brief("2027-08-20")`, "20 Aug"}, {"2027-03-18", `brief(undefined)`, ""},
		{"2027-03-18", `span("2027-08-20", "2027-09-01")`, "20 Aug – 1 Sep"}, {"2027-03-18", `span("2028-08-20", "2028-09-01")`, "20 Aug – 1 Sep 2028"},
		{"2027-03-18", `span("2027-12-20", "2028-01-04")`, "20 Dec 2027 – 4 Jan 2028"}, {"2028-01-02", `span("2027-12-20", "2028-01-04")`, "20 Dec 2027 – 4 Jan 2028"},
	} {
		if got := on[string](b, fmt.Sprintf("(device.on(%q), device.dates.%s)", c.today, c.call)); got != c.want {
			t.Errorf("on %s %s: %q, want %q", c.today, c.call, got, c.want)
		}
	}
	sources, err := filepath.Glob("../web/src/*/*.svelte")
	if err != nil || len(sources) < 80 {
		t.Fatalf("%d sources: %v", len(sources), err)
	}
	by := regexp.MustCompile(`toLocaleDateString|toLocaleString|DateTimeFormat\(.?[^).]|monthName\([^)]*\) *\+|\.slice\(0, 10\)\}`)
	for _, f := range sources {
		text, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		if filepath.Base(f) == "EventChart.svelte" {
			continue // the hours of its axis
		}
		if at := by.Find(text); at != nil {
			t.Errorf("%s writes a day by itself: %s", f, at)
		}
	}
}

// TestCoordinatesOnTheDevice: coordinates are read as people paste them; what is none, or off the globe, is nothing.
func TestCoordinatesOnTheDevice(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	for text, want := range map[string]string{
		"-36.76, 144.28": "-36.76 144.28", "-36.76 144.28": "-36.76 144.28", "−36.76,144.28": "-36.76 144.28", "geo:-36.76,144.28;u=35": "-36.76 144.28",
		`43°04'23"N 89°24'04"W`: "43.073056 -89.401111", "43° 4.383′ N, 89° 24.067′ W": "43.07305 -89.401117", "N 43.073 W 89.401": "43.073 -89.401",
		"89.401 W, 43.073 N": "43.073 -89.401", "45,99; 8,63": "45.99 8.63", "45,99 8,63": "45.99 8.63", "36.76 S 144.28 E": "-36.76 144.28",
		"https://maps.example/@-36.7570,144.2794,12z": "-36.757 144.2794", "geo:45.99,8.63?z=12": "45.99 8.63",
		"45.99": "", "": "", "about 45": "", "95.1, 8.6": "", "45.9, 188.6": "", "45°70'N 8°E": "", "by the lake": "", "45 N": "",
	} {
		got := on[string](b, fmt.Sprintf("((c) => c ? c.latitude + ' ' + c.longitude : '')(device.coordinates(%q))", text))
		if got != want {
			t.Errorf("%q: %q, want %q", text, got, want)
		}
	}
}

// TestRegionsOnTheDevice: a firm's units and week begin as its region has them; where no region is said nothing is taken
// for granted. Hours are written as the reader's region does.
func TestRegionsOnTheDevice(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	for language, want := range map[string]string{"en-US": "imperial 0", "es-US": "imperial 0", "en-AU": "metric 1", "en-GB": "metric 1", "en-ZA": "metric 0",
		"de-DE": "metric 1", "fr-CA": "metric 0", "en": "metric 1", "es-CL": "metric 1", "ar-EG": "metric 6"} {
		if got := on[string](b, fmt.Sprintf("((u) => u.units + ' ' + u.week_start)(device.usual(%q))", language)); got != want {
			t.Errorf("%s: %s, want %s", language, got, want)
		}
	}
	for minutes, want := range map[int]string{0: "00:00", 510: "08:30", 750: "12:30", 1439: "23:59"} {
		if got := on[string](b, fmt.Sprintf("device.dates.atHour(%d)", minutes)); got != want {
			t.Errorf("%d minutes: %s, want %s", minutes, got, want)
		}
	}
}

// TestNamesOnAPlan: forty names on a sheet, some in heaps, each stand clear of all others and of the plants; what cannot be told
// in full nearby is shortened or led to by a line, and what is picked is told in full.
func TestNamesOnAPlan(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	type placed struct {
		ID, Text string
		X, Y, W  float64
		Led      bool
	}
	got := on[[]placed](b, `(() => {
		const names = [];
		const words = ['Common camellia, East wall', 'Box', 'Oleander, Terrace row', 'Large-leaved rhododendron', 'Fig'];
		for (let i = 0; i < 40; i++) {
			const heap = i < 15;
			names.push({ id: 'n' + i, text: words[i % 5], x: heap ? 200 + (i % 4) * 22 : 40 + ((i * 97) % 620), y: heap ? 150 + i * 7 : 30 + ((i * 61) % 440),
				r: 4 + (i % 3) * 6, inside: i % 7 === 0, size: 11, first: i === 9 });
		}
		return device.placed(names, 700, 500).map((p) => ({ ID: p.id, Text: p.text, X: p.x, Y: p.y, W: device.widthOf(p.text, 11), Led: p.led }));
	})()`)
	if len(got) < 34 {
		t.Errorf("only %d of 40 names found a place", len(got))
	}
	led, full := 0, false
	for i, a := range got {
		if a.Led {
			led++
		}
		full = full || a.ID == "n9" && a.Text == "Fig"
		if a.X-a.W/2 < 0 || a.X+a.W/2 > 700 || a.Y-8 < 0 || a.Y > 500 {
			t.Errorf("%s (%s) lies off the sheet at %.0f, %.0f", a.ID, a.Text, a.X, a.Y)
		}
		for _, o := range got[:i] {
			if a.X-a.W/2 < o.X+o.W/2 && o.X-o.W/2 < a.X+a.W/2 && a.Y-9 < o.Y && o.Y-9 < a.Y {
				t.Errorf("%s %q lies on %s %q", a.ID, a.Text, o.ID, o.Text)
			}
		}
	}
	if led == 0 || led > 20 || !full {
		t.Errorf("%d of %d are led to by a line; what is picked is there: %v", led, len(got), full)
	}
}

// TestStandingOnAPlan: a plant pressed onto a wall stands a foot before it, on the side that was pressed; one at the face of a
// house stands outside; one well inside is told. Corners drawn close to a wall are on it, and meet its corners.
func TestStandingOnAPlan(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	const things = `[{ id: 'h', kind: 'building', name: 'Villa', points: [{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 8 }, { x: 0, y: 8 }] },
		{ id: 'w', kind: 'wall', points: [{ x: -20, y: -5 }, { x: -5, y: -5 }] }]`
	for at, want := range map[string]string{
		"-10, -4.9": "-10 -4.7",         // above the wall
		"-10, -5.1": "-10 -5.3",         // below it
		"-10, -5":   "-10 -5.3",         // on it
		"5, 0.2":    "5 -0.3",           // just inside the south face
		"9.7, 4":    "10.3 4",           // just inside the east face
		"5, -0.1":   "5 -0.3",           // right before the south face
		"5, -2":     "5 -2",             // in the open
		"5, 4":      "5 4 within Villa", // in the middle of the house
	} {
		got := on[string](b, fmt.Sprintf("((s) => s.at.x + ' ' + s.at.y + (s.within ? ' within ' + s.within.name : ''))(device.plan.stood(%s, ((x, y) => ({ x, y }))(%s)))", things, at))
		if got != want {
			t.Errorf("pressed at %s it stands at %s, want %s", at, got, want)
		}
	}
	for at, want := range map[string]string{"0.2, -0.2": "0 0", "4, 0.2": "4 0", "4, -3": "4 -3", "-5.1, -4.8": "-5 -5"} {
		got := on[string](b, fmt.Sprintf("((s) => s.x + ' ' + s.y)(device.plan.snapped(%s, ((x, y) => ({ x, y }))(%s), 0.4))", things, at))
		if got != want {
			t.Errorf("a corner at %s is at %s, want %s", at, got, want)
		}
	}
}
