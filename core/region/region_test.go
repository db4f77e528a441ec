package region

import (
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
)

func kind(t *testing.T, id string) *catalogue.Entry {
	t.Helper()
	e, ok := catalogue.Built().Entry(id)
	if !ok {
		t.Fatal(id)
	}
	return e
}

// TestRulesAreWhole: each rule says what it is, where, and whom to ask, of kinds, causes and places that are known.
func TestRulesAreWhole(t *testing.T) {
	known := map[string]bool{}
	for _, e := range catalogue.Built().Entries {
		known[e.ID], known[e.Genus()], known[e.Family] = true, true, true
	}
	date := regexp.MustCompile(`^\d\d-\d\d$`)
	seen := map[string]bool{}
	for _, r := range Rules() {
		if seen[r.ID] || r.ID == "" || len(r.Where) == 0 || len(r.Says) < 30 || r.Ask == "" || !slices.Contains([]string{"law", "rule", "practice"}, r.Basis) {
			t.Errorf("%+v", r)
		}
		seen[r.ID] = true
		if !strings.HasSuffix(r.Says, ".") || strings.Contains(r.Ask, ".") {
			t.Errorf("%s: says %q, ask %q", r.ID, r.Says, r.Ask)
		}
		for _, code := range r.Where {
			if err := Validate(code); err != nil {
				t.Errorf("%s: %v", r.ID, err)
			}
		}
		for _, name := range slices.Concat(r.Genus, r.Family, r.Weeds) {
			if !known[name] {
				t.Errorf("%s: %s is no kind", r.ID, name)
			}
		}
		for _, c := range r.Cause {
			if cause.Built().Cause(c) == nil {
				t.Errorf("%s: %s is no cause", r.ID, c)
			}
		}
		if (r.From == "") != (r.To == "") || r.From != "" && (!date.MatchString(r.From) || !date.MatchString(r.To)) {
			t.Errorf("%s: from %q to %q", r.ID, r.From, r.To)
		}
		if len(r.Work)+len(r.Cause)+len(r.Weeds) == 0 && r.Topic != "pests" && r.Topic != "weeds" {
			t.Errorf("%s is about nothing", r.ID)
		}
	}
	if len(seen) < 45 {
		t.Errorf("only %d rules", len(seen))
	}
}

// TestWhatArboristsKnow: what people of a place have in mind before they take up the saw, by what they say themselves.
func TestWhatArboristsKnow(t *testing.T) {
	on := func(m time.Month, d int) day.Day { return day.Of(2027, m, d) }
	for _, c := range []struct {
		where, kind, work, cause string
		on                       day.Day
		south                    bool
		told, untold             string // a word of what is said; of what is not
	}{
		{"US-WI", "quercus-rubra", Cut, "", on(5, 10), false, "oak wilt", "Elms"},
		{"US-WI", "quercus-rubra", Cut, "", on(12, 10), false, "heritage", "oak wilt"},
		{"US-WI", "acer-saccharum", Cut, "", on(5, 10), false, "Nests", "oak wilt"},
		{"US-TX", "quercus-virginiana", Cut, "", on(2, 20), false, "oak wilt", "from April"},
		{"CA-AB", "ulmus-americana", Cut, "", on(6, 1), false, "by law", "Texas"},
		{"DE", "ligustrum-vulgare", Cut, "", on(4, 20), false, "1 March to 30 September", "council"},
		{"DE", "ligustrum-vulgare", Cut, "", on(11, 20), false, "", "1 March"},
		{"GB", "quercus-robur", Fell, "", on(11, 20), false, "preservation order", "Nests"},
		{"AU-VIC", "eucalyptus-gunnii", Cut, "", on(1, 15), true, "total fire ban", "red flag"},
		{"AU-VIC", "eucalyptus-gunnii", Cut, "", on(7, 15), true, "permit", "total fire ban"},
		{"AU-VIC", "agapanthus-africanus", Plant, "", on(5, 1), true, "run wild", ""},
		{"IT", "agapanthus-africanus", Plant, "", on(5, 1), false, "", "run wild"},
		{"AU-NSW", "callistemon-citrinus", "", "rust", on(3, 1), true, "myrtle rust", ""},
		{"AU-NSW", "rosa-bedding", "", "rust", on(3, 1), true, "", "myrtle rust"},
		{"IT", "olea-europaea", "", "leaf-scorch-bacterium", on(7, 1), false, "quarantine pest", ""},
		{"US-MI", "fraxinus-pennsylvanica", Fell, "ash-borer", on(10, 1), false, "Firewood", ""},
		{"US-FL", "citrus-sinensis", Feed, "", on(7, 1), false, "rainy season", "soil test"},
		{"US-OH", "rosa-bedding", Treat, "", on(5, 1), false, "commercial applicator", ""},
		{"CH", "rosa-bedding", Treat, "", on(5, 1), false, "permit for gardens", "commercial"},
		{"", "quercus-rubra", Cut, "", on(5, 10), false, "", "oak"},
	} {
		said := ""
		m := Matter{Kind: kind(t, c.kind), Work: c.work, Cause: c.cause, On: c.on, South: c.south}
		for _, r := range About(c.where, m) {
			said += r.Words() + "\n"
		}
		if !strings.Contains(said, c.told) || c.untold != "" && strings.Contains(said, c.untold) {
			t.Errorf("%s, %s %s %s on %s: want %q and not %q in:\n%s", c.where, c.work, c.kind, c.cause, c.on, c.told, c.untold, said)
		}
	}
}

// TestPlaces: a country by its time zone, what was entered before it; what is none is refused by name.
func TestPlaces(t *testing.T) {
	for zone, want := range map[string]string{"America/Chicago": "US", "Australia/Melbourne": "AU", "Europe/Zurich": "CH", "Pacific/Auckland": "NZ", "UTC": ""} {
		if got := Of("", zone); got != want {
			t.Errorf("%s: %q, want %q", zone, got, want)
		}
	}
	if Of("US-WI", "Europe/Zurich") != "US-WI" || Country("US-WI") != "US" || len(States("US")) != 50 || len(States("AU")) != 8 {
		t.Error("states")
	}
	for _, bad := range []string{"XX", "US-ZZ", "usa", "US-"} {
		if err := Validate(bad); err == nil || !strings.Contains(err.Error(), "region") {
			t.Errorf("%q: %v", bad, err)
		}
	}
	if !AnySpray("US-WI") || AnySpray("NZ") || AnySpray("") || !slices.Contains(Weeds("US-OH"), "pyrus-calleryana") ||
		slices.Contains(Weeds("AU-VIC"), "agapanthus-africanus") {
		t.Error("sprays and weeds")
	}
}
