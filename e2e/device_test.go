package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"reflect"
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

// TestUnitsOnTheDevice: figures as they are shown and entered, in both systems, and what people write into a field.
func TestUnitsOnTheDevice(t *testing.T) {
	t.Parallel()
	b := devicePage(t)
	for _, c := range []struct{ system, expression, want string }{
		{"metric", "device.units.metres(0.4)", "40 cm"}, {"metric", "device.units.metres(2.5)", "2.5 m"}, {"metric", "device.units.metres(12)", "12 m"},
		{"metric", "device.units.degrees(-3.25, 1)", "−3.3 °C"}, {"metric", "device.units.degrees(-0.01)", "0.0 °C"},
		{"imperial", "device.units.metres(0.5)", "20 in"}, {"imperial", "device.units.metres(1.83)", "6 ft"}, {"imperial", "device.units.metres(1.7)", "5 ft 7 in"},
		{"imperial", "device.units.degrees(0)", "32 °F"}, {"imperial", "device.units.degrees(-40)", "−40 °F"}, {"imperial", "device.units.apart(10)", "18 °F"},
		{"metric", "String(device.units.read('1,5'))", "1.5"}, {"metric", "String(device.units.read('−3'))", "-3"}, {"imperial", "String(device.units.read('5 ft 6 in'))", "5.5"},
		{"imperial", `String(device.units.read("6'"))`, "6"}, {"metric", "String(device.units.read(''))", "NaN"}, {"metric", "String(device.units.read('tall'))", "NaN"},
		{"imperial", "String(device.units.entered('temperature', 32))", "0"}, {"imperial", "device.units.inField('length', 3.048)", "10"},
		{"imperial", "device.units.figure(1000, 'L')", "264 gal"}, {"metric", "device.units.figure(0.04, 'm³')", "0.04 m³"}, {"imperial", "device.units.figure(10, 'kg')", "22 lb"},
	} {
		on[bool](b, fmt.Sprintf("(device.inUnits(%q), true)", c.system))
		if got := on[string](b, c.expression); got != c.want {
			t.Errorf("%s, %s: %q, want %q", c.system, c.expression, got, c.want)
		}
	}
}
