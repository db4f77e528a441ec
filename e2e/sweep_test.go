package e2e

import (
	"encoding/json"
	"flag"
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
	out := []string{"", "grounds", "walk", "year", "rounds", "stores", "almanac", "almanac/cause", "propose", "tell", "day", "mix", "settings", "owner", "ledger", "ledger/clients", "ledger/rates", "ledger/work",
		"estimate/1", "estimate/3", "report/1"}
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

var (
	imperial   = regexp.MustCompile(`(?:^|[\s(–-])\d[\d.,]*[\s\x{a0}](?:ft|yd³|mi|gal|fl oz|oz|lb|mph|°F|sq ft)(?:$|[\s).;:/×])`)
	daysFirst  = regexp.MustCompile(`\b\d{1,2} (?:January|February|March|April|May|June|July|August|September|October|November|December)\b`)
	monthFirst = regexp.MustCompile(`\b(?:January|February|March|April|May|June|July|August|September|October|November|December) \d{1,2}(?:[^\d.]|$)`)
	by24       = regexp.MustCompile(`(?:^|[\s(])\d{1,2}:\d\d(?:$|[\s).,;])`)
	notOwn     = regexp.MustCompile(`Guests on the terrace|^\s*(?:March 17|17 March|14:30|2:30 pm)\s*$`) // the sample's note; ways to choose from
)

// everywhere has the sweep go over the screens of all four regions, which takes some minutes: make sweep.
var everywhere = flag.Bool("everywhere", false, "sweep the screens of four regions of the world")

// TestSweepImperial: a firm that measures in feet meets no metre on any screen, in spring and in autumn; on four days of
// a year where all is swept.
func TestSweepImperial(t *testing.T) {
	t.Parallel()
	sweepScreens(t, nil, map[string]any{"units": "imperial"}, metric)
}

// TestSweepRegions: the same for firms of four regions of the world, with the order of day and month, and the clock.
func TestSweepRegions(t *testing.T) {
	if !*everywhere {
		t.Skip("the screens of one region are swept every time, those of four by make sweep")
	}
	for climate, r := range map[string]struct {
		firm  map[string]any
		never []*regexp.Regexp
	}{
		"great-lakes":           {map[string]any{"units": "imperial", "day_order": "month", "clock": "12"}, []*regexp.Regexp{metric, daysFirst, by24}},
		"southern-coast":        {map[string]any{"units": "metric", "day_order": "day", "clock": "12"}, []*regexp.Regexp{imperial, monthFirst, by24}},
		"south-africa-highveld": {map[string]any{"units": "metric", "day_order": "day", "clock": "24"}, []*regexp.Regexp{imperial, monthFirst}},
		"lake-foothills":        {map[string]any{"units": "metric", "day_order": "day", "clock": "24"}, []*regexp.Regexp{imperial, monthFirst}},
	} {
		t.Run(climate, func(t *testing.T) { sweepScreens(t, []string{"--climate", climate}, r.firm, r.never...) })
	}
}

// sweepScreens goes over all screens of a sample on days of a year, for a firm that writes in a way.
func sweepScreens(t *testing.T, args []string, written map[string]any, never ...*regexp.Regexp) {
	s := start(t, "demo", t.TempDir(), args...)
	var firm map[string]any
	s.get("/api/v1/firm", &firm)
	asked := map[string]any{"name": firm["name"], "week_start": 0, "rules": firm["rules"], "version": firm["version"]}
	maps.Copy(asked, written)
	body, _ := json.Marshal(asked)
	s.put("/api/v1/firm", string(body))
	var cards struct{ Items []struct{ Name string } }
	s.get("/api/v1/products", &cards)
	var names []string // as on their labels, which are the user's
	for _, c := range cards.Items {
		names = append(names, c.Name, "a product")
	}
	var today struct{ Today string }
	s.get("/api/v1/frame", &today)
	from, err := time.Parse(time.DateOnly, today.Today)
	if err != nil {
		t.Fatal(err)
	}
	b := open(t, s, 1280, 900)
	found := map[string]string{}
	days := 4
	if !*everywhere {
		days = 2
	}
	for n := range days {
		on := from.AddDate(0, 12/days*n, 0).Format(time.DateOnly)
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
				for _, bad := range append([]*regexp.Regexp{broken}, never...) {
					if m := bad.FindString(line); m != "" && !notOwn.MatchString(line) {
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
