// Package region knows what holds in a country or a state and not everywhere: seasons in which kinds are not cut,
// troubles that are reported, protected trees, fire, water, weeds, feeding, wires, licences. It is told in our own words
// and never the law's text; each rule says who knows for sure.
package region

import (
	_ "embed"
	"slices"
	"strings"
	"sync"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/written"
)

//go:embed data/rules.yaml
var rulesYAML []byte

//go:embed data/states.yaml
var statesYAML []byte

//go:embed data/zones.yaml
var zonesYAML []byte

// Rule is what holds in some places.
type Rule struct {
	ID    string   `yaml:"id" json:"id"`
	Where []string `yaml:"where" json:"where" doc:"Countries and states, ISO 3166"`
	Topic string   `yaml:"topic" json:"topic" enum:"cuts,pests,wood,trees,fire,water,weeds,feeding,wires,licences,records" doc:"What it is about"`
	Says  string   `yaml:"says" json:"says" doc:"In our own words, not the law's"`
	Ask   string   `yaml:"ask" json:"ask" doc:"Who knows for sure"`
	Basis string   `yaml:"basis" json:"basis" enum:"law,rule,practice" doc:"law: a law or order is known to hold; rule: ordinances that differ by place; practice: what the trade does"`

	Genus    []string `yaml:"genus" json:"genus,omitempty" doc:"Kinds of these genera alone"`
	Family   []string `yaml:"family" json:"family,omitempty" doc:"Kinds of these families alone"`
	Cause    []string `yaml:"cause" json:"cause,omitempty" doc:"Troubles that it is about"`
	Work     []string `yaml:"work" json:"work,omitempty" enum:"cut,fell,treat,feed,plant,burn,water" doc:"Work that it is about"`
	Trees    bool     `yaml:"trees" json:"trees,omitempty" doc:"Of trees, conifers and palms alone"`
	Birds    bool     `yaml:"birds" json:"birds,omitempty" doc:"In the nesting season of the hemisphere"`
	From     string   `yaml:"from" json:"from,omitempty" doc:"Month and day from which it holds each year; absent: always"`
	To       string   `yaml:"to" json:"to,omitempty"`
	AnySpray bool     `yaml:"any_spray" json:"any_spray,omitempty" doc:"Whatever is put on plants for hire needs a licence there"`
	Weeds    []string `yaml:"weeds" json:"weeds,omitempty" doc:"Kinds that are not planted there"`
}

// Kinds of work that rules are about.
const (
	Cut   = "cut"
	Fell  = "fell"
	Treat = "treat"
	Feed  = "feed"
	Plant = "plant"
	Water = "water"
)

// Rules are all that ship. It panics when they are broken: a test loads them.
var Rules = sync.OnceValue(func() (out []Rule) {
	if err := written.Read(rulesYAML, &out); err != nil {
		panic("core/region/data/rules.yaml: " + err.Error())
	}
	return out
})

// states are those of countries whose rules tell them apart, by country.
var states = sync.OnceValue(func() (out map[string]map[string]string) {
	if err := written.Read(statesYAML, &out); err != nil {
		panic("core/region/data/states.yaml: " + err.Error())
	}
	return out
})

// countryOf are the countries of time zones.
var countryOf = sync.OnceValue(func() map[string]string {
	var zones map[string][]string
	if err := written.Read(zonesYAML, &zones); err != nil {
		panic("core/region/data/zones.yaml: " + err.Error())
	}
	out := map[string]string{}
	for country, names := range zones {
		for _, name := range names {
			out[name] = country
		}
	}
	return out
})

// Of is where a property lies: what was entered, or the country of its time zone; empty where that has none.
func Of(entered, zone string) string {
	if entered != "" {
		return entered
	}
	return countryOf()[zone]
}

// Country is that of a state.
func Country(code string) string {
	country, _, _ := strings.Cut(code, "-")
	return country
}

// Validate refuses what is no country, or no state that is known of it.
func Validate(code string) error {
	if code == "" {
		return nil
	}
	country, state, has := strings.Cut(code, "-")
	if !slices.Contains(Countries(), country) {
		return invalid.One("region", code, "is no country by its two letters, as US or AU")
	}
	if _, known := states()[country][state]; has && !known {
		return invalid.One("region", code, "is no state that is known of it")
	}
	return nil
}

// Countries are the codes of all countries, by letter.
func Countries() []string {
	out := []string{}
	for _, c := range countryOf() {
		out = append(out, c)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// States are those of a country that rules tell apart, by code; none for most countries.
func States(country string) map[string]string { return states()[country] }

// Holding are the rules of a place: those of its state, and of its country.
func Holding(code string) (out []Rule) {
	if code == "" {
		return nil
	}
	for _, r := range Rules() {
		if slices.Contains(r.Where, code) || slices.Contains(r.Where, Country(code)) {
			out = append(out, r)
		}
	}
	return out
}

// Cautions that are told everywhere, where no rule of the place says them more exactly.
const (
	Permit = "It may be protected: ask for the permit first."
	Nests  = "From spring to late summer look for nests first; local rules may forbid the cut."
)

// General are cautions without those that rules of the place say more exactly: nobody reads the same thing twice.
func General(cautions []string, rules []Rule) []string {
	return slices.DeleteFunc(slices.Clone(cautions), func(c string) bool {
		return slices.ContainsFunc(rules, func(r Rule) bool {
			return c == Permit && r.Topic == "trees" || c == Nests && r.Birds
		})
	})
}

// Matter is what a rule is asked about: work on a kind, a trouble, on a day.
type Matter struct {
	Kind  *catalogue.Entry // nil: none
	Work  string
	Cause string
	On    day.Day
	South bool

	AtWork bool // only what somebody at work must know; the rest is for who plans it
}

// urgent are the topics that somebody at work must know.
var urgent = map[string]bool{"cuts": true, "pests": true, "wood": true, "fire": true, "water": true, "feeding": true}

// About are the rules of a place that speak of a matter: by its trouble, or by its work, its kind and its season.
func About(code string, m Matter) (out []Rule) {
	for _, r := range Holding(code) {
		if r.about(m) && (!m.AtWork || urgent[r.Topic]) {
			out = append(out, r)
		}
	}
	return out
}

func (r *Rule) about(m Matter) bool {
	if r.Topic == "weeds" {
		return m.Work == Plant && m.Kind != nil && slices.Contains(r.Weeds, m.Kind.ID)
	}
	byCause, byWork := slices.Contains(r.Cause, m.Cause), m.Work != "" && slices.Contains(r.Work, m.Work)
	if len(r.Cause) > 0 && !byCause && !(len(r.Genus) > 0 && byWork) || len(r.Cause) == 0 && !byWork {
		return false
	}
	return r.of(m.Kind) && r.on(m.On, m.South)
}

// of reports that a rule is about a kind.
func (r *Rule) of(e *catalogue.Entry) bool {
	if e == nil {
		return len(r.Genus)+len(r.Family) == 0 && !r.Trees
	}
	if len(r.Genus)+len(r.Family) > 0 && !slices.Contains(r.Genus, e.Genus()) && !slices.Contains(r.Family, e.Family) {
		return false
	}
	tree := e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Palm
	return (!r.Trees || tree) && (!r.Birds || tree || e.Form == catalogue.Shrub || e.Form == catalogue.Climber)
}

// Nesting seasons, by hemisphere.
var nesting = map[bool][2]time.Month{false: {time.March, time.August}, true: {time.September, time.January}}

// on reports that a rule holds on a day; one without a season holds always.
func (r *Rule) on(d day.Day, south bool) bool {
	if d == 0 || d == day.None {
		return true
	}
	if r.Birds {
		m, n := d.Month(), nesting[south]
		if n[0] <= n[1] {
			return m >= n[0] && m <= n[1]
		}
		return m >= n[0] || m <= n[1]
	}
	if r.From == "" {
		return true
	}
	at := d.String()[5:]
	if r.From <= r.To {
		return at >= r.From && at <= r.To
	}
	return at >= r.From || at <= r.To
}

// Weeds are the kinds that may not be planted in a place by law.
func Weeds(code string) (out []string) {
	for _, r := range Holding(code) {
		if r.Basis == "law" {
			out = append(out, r.Weeds...)
		}
	}
	return out
}

// AnySpray reports a place where whatever is put on plants for hire needs a licence.
func AnySpray(code string) bool {
	return slices.ContainsFunc(Holding(code), func(r Rule) bool { return r.AnySpray })
}

// Words is a rule as a caution: what it says, and whom to ask.
func (r *Rule) Words() string { return r.Says + " Ask " + r.Ask + "." }
