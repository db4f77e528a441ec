// Package treatment decides the least that works against a cause, as a programme of dated steps, and what that takes.
// It never knows a dose: rates come from the firm's own product cards.
package treatment

import (
	"embed"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/cause"
	"mezzadro/core/invalid"
	"mezzadro/core/moment"
)

//go:embed data
var data embed.FS

// Active is a means by what works in it.
type Active struct {
	ID      string         `yaml:"id" json:"id"`
	Name    string         `yaml:"name" json:"name"`
	Class   string         `yaml:"class" json:"class"`
	Soft    bool           `yaml:"soft" json:"soft"`
	MaxC    float64        `yaml:"max_c" json:"max_c" doc:"Warmest day it is put on at, °C"`
	MinC    float64        `yaml:"min_c" json:"min_c"`
	WindMS  float64        `yaml:"wind_ms" json:"wind_ms" doc:"Up to which it is sprayed; 0: wind does not matter"`
	RainH   float64        `yaml:"rain_h" json:"rain_h" doc:"Rain within so many hours washes it off"`
	Bees    bool           `yaml:"bees" json:"bees" doc:"Harms bees on open flowers"`
	Ground  bool           `yaml:"ground" json:"ground" doc:"Goes on the ground or the trunk, not on leaves"`
	Kitchen bool           `yaml:"kitchen" json:"kitchen" doc:"May be thought of on kitchen plants, where its label names them"`
	Weak    bool           `yaml:"weak" json:"weak" doc:"The evidence for it is weak"`
	Gaps    map[string]int `yaml:"gaps" json:"gaps" doc:"Days to other actives, either way"`
	Group   string         `yaml:"group" json:"group" doc:"How it works, for rotation"`
	Most    int            `yaml:"most" json:"most" doc:"Uses in one garden year; 0: no limit but the label's"`
	Kills   string         `yaml:"kills" json:"kills" doc:"What it also takes"`
	Licence bool           `yaml:"licence" json:"licence" doc:"In many places for holders of a licence only"`
}

// Rungs of the ladder, from the least up.
var Rungs = []string{"none", "habitat", "hands", "water", "barriers", "cutting", "soft", "strong", "replace"}

// severities in the order of harm.
var severities = []string{"light", "plain", "heavy"}

// When is a day that a step hangs on: an event, a sum of warmth, or at once.
type When struct {
	moment.When
	Now    bool
	Warmth float64 // degree-days over 10 °C since midwinter
}

// UnmarshalText reads "now", "dd+90" or an event with days from it.
func (w *When) UnmarshalText(b []byte) error {
	text := string(b)
	if text == "now" {
		w.Now = true
		return nil
	}
	if rest, warm := strings.CutPrefix(text, "dd+"); warm {
		v, err := strconv.ParseFloat(rest, 64)
		w.Warmth = v
		return err
	}
	return w.When.UnmarshalText(b)
}

func (w When) given() bool { return w.Now || w.Warmth > 0 || w.Event != "" }

// Step is one thing that is done, once or again and again.
type Step struct {
	Do    string `yaml:"do"`
	Who   string `yaml:"who"` // arborist: licensed work, whatever is used
	Use   string `yaml:"use"`
	Where string `yaml:"where"`
	Stage string `yaml:"stage"`
	From  When   `yaml:"from"`
	To    When   `yaml:"to"`
	After int    `yaml:"after"`
	Every int    `yaml:"every"`
	Most  int    `yaml:"most"`
	Stop  string `yaml:"stop"`
	Look  int    `yaml:"look"`
}

// Rung is one way to go about it.
type Rung struct {
	Rung  string   `yaml:"rung"`
	Upto  string   `yaml:"upto"`
	Steps []Step   `yaml:"steps"`
	Not   []string `yaml:"not"`  // causes it does not hold for
	Only  []string `yaml:"only"` // causes it holds for alone
	To    When     `yaml:"to"`   // it is not begun later
}

// does is what is done on a rung, step after step: the last may be what it is named for.
func (r Rung) does() string {
	var all []string
	for _, s := range r.Steps {
		if !slices.Contains(all, s.Do) {
			all = append(all, s.Do)
		}
	}
	return strings.Join(all, " ")
}

// Programme is the ladder of a cause.
type Programme struct {
	ID      string   `yaml:"id"`
	Causes  []string `yaml:"causes"`
	On      *On      `yaml:"on"` // plants it holds for; all where absent
	Rungs   []Rung   `yaml:"rungs"`
	Prevent []Rung   `yaml:"prevent"`
	Says    []string `yaml:"says"`
	Never   []string `yaml:"never"`
	Helpers string   `yaml:"helpers"` // why it waits where helpers are seen
	Late    string   `yaml:"late"`
	Bed     bool     `yaml:"bed"`   // all of the kind in the bed are treated
	Sunny   bool     `yaml:"sunny"` // in shade it hardly takes harm
	Waste   string   `yaml:"waste"` // bag or burn
	Tools   bool     `yaml:"tools"` // the blade is cleaned after each cut
	Report  bool     `yaml:"report"`
	Resist  bool     `yaml:"resist"` // kinds that resist it are left alone
}

// On is the plants that a programme holds for: all that is named has to fit.
type On struct {
	Genus  []string `yaml:"genus"`
	Family []string `yaml:"family"`
	Form   []string `yaml:"form"`
	Not    []string `yaml:"not"`  // genera it does not hold for
	Tall   float64  `yaml:"tall"` // from this height on, m
	Low    float64  `yaml:"low"`  // up to this height, m
}

// fits reports a plant of a kind and height that a programme holds for.
func (o *On) fits(a *Ask) bool {
	if o == nil {
		return true
	}
	e := a.Species
	in := func(list []string, is string) bool { return len(list) == 0 || slices.Contains(list, is) }
	return in(o.Genus, e.Genus()) && in(o.Family, e.Family) && in(o.Form, string(e.Form)) && !slices.Contains(o.Not, e.Genus()) &&
		(o.Tall == 0 || a.HeightM >= o.Tall && !a.guessed) &&
		(o.Low == 0 || a.HeightM <= o.Low)
}

// forSome reports a programme for some plants alone.
func (p *Programme) forSome() bool { return p != nil && p.On != nil }

// programme is what is done about a cause on a plant: the first that fits it; nil where the book has none.
func (b *Book) programme(a *Ask) *Programme {
	for _, p := range b.of[a.Cause] {
		if p.On.fits(a) {
			return p
		}
	}
	return nil
}

// Unvisited is what bees do not seek: by family or genus.
type Unvisited struct {
	Families []string `yaml:"families"`
	Genera   []string `yaml:"genera"`
}

// Book is all actives and programmes.
type Book struct {
	Actives    []Active
	Programmes []Programme
	Unvisited  Unvisited
	active     map[string]*Active
	of         map[string][]*Programme // by cause, those for some plants before the one for all
}

// Built is the book that ships with the house. It panics when the shipped data is broken: a test loads it.
var Built = sync.OnceValue(func() *Book {
	b, err := load()
	if err != nil {
		panic(err)
	}
	return b
})

func load() (*Book, error) {
	b := &Book{active: map[string]*Active{}, of: map[string][]*Programme{}}
	for name, into := range map[string]any{"actives": &b.Actives, "programmes": &b.Programmes, "bees": &b.Unvisited} {
		text, err := data.ReadFile("data/" + name + ".yaml")
		if err == nil {
			err = written.Read(text, into)
		}
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
	}
	for i := range b.Actives {
		b.active[b.Actives[i].ID] = &b.Actives[i]
	}
	var bad invalid.Fields
	for i := range b.Programmes {
		b.check(&b.Programmes[i], &bad)
	}
	return b, bad.Err()
}

// check names what is wrong with a programme and files it under its causes.
func (b *Book) check(p *Programme, bad *invalid.Fields) {
	at := "programmes." + p.ID
	for _, c := range p.Causes {
		if last := len(b.of[c]) - 1; cause.Built().Cause(c) == nil || last >= 0 && b.of[c][last].On == nil {
			bad.Add(at, c, "%q is no cause, or has a programme for all plants already", c)
		}
		b.of[c] = append(b.of[c], p)
	}
	for _, r := range append(slices.Clone(p.Rungs), p.Prevent...) {
		if !slices.Contains(Rungs, r.Rung) || r.Upto != "" && !slices.Contains(severities, r.Upto) ||
			len(r.Steps) == 0 {
			bad.Add(at, r.Rung, "is no rung, or says too little")
		}
		for _, s := range r.Steps {
			if a := b.active[s.Use]; s.Use != "" && a == nil || s.Do == "" || !s.From.given() ||
				a != nil && !a.Soft && r.Rung != "strong" {
				bad.Add(at+"."+r.Rung, s.Do, "names no active, no day, or a strong one on a soft rung")
			}
		}
	}
}

// Pesticide reports a means that laws on plant protection products are about: not feeds, barriers or living helpers.
func (b *Book) Pesticide(id string) bool {
	a := b.active[id]
	return a != nil && id != "nematodes" && slices.Contains([]string{"insecticide", "fungicide", "herbicide", "molluscicide"}, a.Class)
}

// Active is one by id; nil where there is none.
func (b *Book) Active(id string) *Active { return b.active[id] }
