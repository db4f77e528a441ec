package e2e

import (
	"encoding/json"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"
)

// everyScreen are the addresses of all screens of the sample; what belongs to a property, a plant or a find for a quarter
// of those.
func everyScreen(s *server, quarter int64) []string {
	var plants, finds struct {
		Items []struct {
			ID       int64  `json:"id"`
			Property int64  `json:"property_id"`
			Species  string `json:"species"`
		}
	}
	s.get("/api/v1/plants?limit=1000", &plants)
	s.get("/api/v1/finds?limit=100", &finds)
	out := []string{"", "grounds", "walk", "year", "rounds", "stores", "almanac", "almanac/cause", "propose", "tell", "day", "mix", "settings", "owner"}
	seen := map[int64]int{}
	for _, p := range plants.Items {
		if p.Property%4 != quarter {
			continue
		}
		if seen[p.Property]++; seen[p.Property] == 1 {
			for _, of := range []string{"grounds/%d", "grounds/%d/climate", "grounds/%d/plan", "grounds/%d/winter", "cuts/%d", "walk/%d", "call/%d", "replace/%d", "year/%d"} {
				out = append(out, fmt.Sprintf(of, p.Property))
			}
		}
		if seen[p.Property] < 3 {
			out = append(out, fmt.Sprintf("plant/%d", p.ID), fmt.Sprintf("walk/%d/%d", p.Property, p.ID), fmt.Sprintf("cut/%d", p.ID),
				fmt.Sprintf("ails/%d", p.ID), "almanac/"+p.Species)
		}
	}
	for _, f := range finds.Items {
		if f.ID%4 != quarter {
			continue
		}
		out = append(out, fmt.Sprintf("treat/%d", f.ID))
	}
	return out
}

// allText is all that a screen shows or says of itself.
const allText = `(() => {
	const said = [document.body.innerText];
	for (const e of document.querySelectorAll('svg text, svg title')) said.push(e.textContent);
	for (const e of document.querySelectorAll('[aria-label], [title], [placeholder]'))
		said.push(e.getAttribute('aria-label') ?? '', e.getAttribute('title') ?? '', e.getAttribute('placeholder') ?? '');
	return said.join('\n');
})()`

var (
	metric = regexp.MustCompile(`(?:^|[\s(–-])\d[\d.,]*[\s\x{a0}]?(?:m|cm|mm|km|L|l|mL|ml|°C|m²|m³|kg|g|m/s|km/h|ha|litres?|metres?|centimetres?|grams?)(?:$|[\s).,;:/×])`)
	// What the sample's firm entered from metric labels is given back as it was entered.
	labelRate = regexp.MustCompile(`\d[\d.]* (?:mL|g) for (?:a litre|a square metre|a plant)`)
	broken    = regexp.MustCompile(`Invalid|NaN|undefined|\bnull\b|Infinity|-?58776|[\x{2060}-\x{206f}]\w|\[object`)
)

// TestSweepImperial: a firm that measures in feet meets no metre on any screen, on four days of a year.
func TestSweepImperial(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	var firm map[string]any
	s.get("/api/v1/firm", &firm)
	body, _ := json.Marshal(map[string]any{"name": firm["name"], "units": "imperial", "week_start": 0, "rules": firm["rules"], "version": firm["version"]})
	s.put("/api/v1/firm", string(body))
	var cards struct{ Items []struct{ Name string } }
	s.get("/api/v1/products", &cards)
	var names []string // as on their labels, which are the user's
	for _, c := range cards.Items {
		names = append(names, c.Name, "a product")
	}
	b := open(t, s, 1280, 900)
	found := map[string]string{}
	for n, on := range []string{"2027-03-18", "2027-06-20", "2027-09-20", "2027-12-15"} {
		if n > 0 {
			s.put("/api/v1/today", fmt.Sprintf(`{"day": %q}`, on))
		}
		for _, at := range everyScreen(s, int64(n)) {
			b.visit("/#/" + at)
			b.settled()
			time.Sleep(50 * time.Millisecond)
			text := strings.NewReplacer(names...).Replace(b.eval(allText).(string))
			text = labelRate.ReplaceAllString(text, "a rate")
			b.mu.Lock()
			for _, f := range b.faults {
				found[f] = on + " " + at
			}
			b.faults = nil
			b.mu.Unlock()
			for _, line := range strings.Split(text, "\n") {
				for _, bad := range []*regexp.Regexp{metric, broken} {
					if m := bad.FindString(line); m != "" {
						found[strings.TrimSpace(line)] = on + " " + at
					}
				}
			}
		}
	}
	for _, line := range slices.Sorted(maps.Keys(found)) {
		t.Errorf("%s: %.240s", found[line], line)
	}
}
