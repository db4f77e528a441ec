package cause

import (
	"embed"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/invalid"
)

//go:embed data
var data embed.FS

// Sign is something that can be seen on a plant or around it.
type Sign struct {
	ID      string  `yaml:"id" json:"id"`
	Part    string  `yaml:"-" json:"part" doc:"Of the plant or its place"`
	Name    string  `yaml:"name" json:"name"`
	Words   string  `yaml:"words" json:"words,omitempty" doc:"Others that people use for it, to be found by"`
	Ask     string  `yaml:"ask" json:"ask" doc:"The question as a client is asked"`
	How     string  `yaml:"how" json:"how,omitempty" doc:"How to look, where it is not plain"`
	Minutes float64 `yaml:"minutes" json:"minutes" doc:"Of looking"`
	Lasts   bool    `yaml:"lasts" json:"lasts" doc:"It stays when the culprit has gone"`
	Rare    float64 `yaml:"rare" json:"-"` // how often it is seen where nothing known is the cause

	Confused  []string `yaml:"confused" json:"confused,omitempty" doc:"Signs it is taken for, by id"`
	Draw      []string `yaml:"draw" json:"draw,omitempty" doc:"Its drawing: the part, then the mark on it"`
	Share     bool     `yaml:"share" json:"share,omitempty" doc:"How much of the plant shows it matters"`
	Trunk     bool     `yaml:"trunk" json:"-"`      // what has stems and no trunk cannot show it
	Pattern   bool     `yaml:"pattern" json:"-"`    // how it came about or spreads, not what it is
	Weed      bool     `yaml:"weed" json:"-"`       // of the ground, and a thing of its own
	On        []string `yaml:"on" json:"-"`         // forms that can show it; all where absent
	NotOn     []string `yaml:"not_on" json:"-"`     // forms that cannot
	NeverWith []string `yaml:"never_with" json:"-"` // signs, or whole parts, that cannot be seen together with it
}

// OnLeaves reports a sign that only leaves can show.
func (s *Sign) OnLeaves() bool { return strings.HasSuffix(s.Part, "of leaves") }

// FromRecord reports a sign of the weather, the work or the place, which the house may know without a look.
func (s *Sign) FromRecord() bool {
	return s.Part == "weather and work of late" || s.Part == "ground and place" || s.Part == "neighbours"
}

// Hosts are the plants a cause keeps to.
type Hosts struct {
	Genus  []string `yaml:"genus"`
	Family []string `yaml:"family"`
	Form   []string `yaml:"form"`
	Leaf   string   `yaml:"leaf"`
	Fruit  bool     `yaml:"fruit"`
}

// Cause is what may be wrong with a plant.
type Cause struct {
	ID       string             `yaml:"id"`
	Name     string             `yaml:"name"`
	Group    string             `yaml:"group"`
	Hosts    *Hosts             `yaml:"hosts"`
	Any      float64            `yaml:"any"`   // how likely on plants that are no hosts
	Prior    float64            `yaml:"prior"` // how often it is met on its hosts, 1 ordinary
	When     []int              `yaml:"when"`  // first and last month of the northern year it can be at work in
	Harm     string             `yaml:"harm"`
	To       string             `yaml:"to"`
	Act      string             `yaml:"act"`
	Do       string             `yaml:"do"`
	Signs    map[string]float64 `yaml:"signs"`
	Brings   map[string]float64 `yaml:"brings"` // what brings it about, as a factor on its odds
	Mistaken []string           `yaml:"mistaken"`
	Follows  []string           `yaml:"follows"` // causes it comes after
	Report   bool               `yaml:"report"`  // reportable in many places
	Helpers  bool               `yaml:"helpers"` // helpers deal with it when left alone
	Home     []string           `yaml:"home"`    // parts of the world it lives in; all where absent
	Warm     float64            `yaml:"warm"`    // coldest night of the year it lives with, °C; any where absent
	Danger   string             `yaml:"danger"`  // to people: falls, hairs or dust; none where absent
	Way      Way                `yaml:"-"`
	Picture  [][]string         `yaml:"-"` // as Sign.Draw, up to two, the one that tells it best first
}

// Book is all signs and causes.
type Book struct {
	Signs  []Sign
	Causes []Cause
	sign   map[string]*Sign
	cause  map[string]*Cause
	miss   [][]float64 // by cause and sign, in their order: that the cause does not show it
}

// Words that classes of a cause are told by.
var (
	harms = []string{"harmless", "ugly", "weakening", "deadly"}
	tos   = []string{"it", "its kind", "all"}
	acts  = []string{"none", "watch", "habitat", "hands", "water", "cut", "soft", "strong", "replace"}
)

const (
	usualRare   = 0.03
	tellingRare = 0.005 // of a sign that belongs to one or two causes alone
)

// rarity sets how often a sign is seen where nothing known is the cause, where the book does not say so.
func (b *Book) rarity(s *Sign) {
	if s.Rare != 0 {
		return
	}
	strong, some := 0, 0
	for i := range b.Causes {
		if p := b.Causes[i].Signs[s.ID]; p >= 0.85 {
			strong++
		} else if p > 0.15 {
			some++
		}
	}
	s.Rare = usualRare
	if strong > 0 && strong+some <= 2 {
		s.Rare = tellingRare
	}
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
	var parts []struct {
		Part  string `yaml:"part"`
		Signs []Sign `yaml:"signs"`
	}
	b := &Book{sign: map[string]*Sign{}, cause: map[string]*Cause{}}
	ways := map[string]Way{}
	if err := errors.Join(read("data/signs.yaml", &parts), read("data/causes.yaml", &b.Causes), read("data/ways.yaml", &ways)); err != nil {
		return nil, err
	}
	for _, p := range parts {
		for _, s := range p.Signs {
			s.Part = p.Part
			if s.Minutes == 0 {
				s.Minutes = 1
			}
			b.Signs = append(b.Signs, s)
		}
	}
	var bad invalid.Fields
	for i := range b.Signs {
		s := &b.Signs[i]
		if b.sign[s.ID] != nil || s.Name == "" || s.Ask == "" {
			bad.Add("signs."+s.ID, s.ID, "stands there twice, or says too little")
		}
		b.sign[s.ID] = s
	}
	for i := range b.Causes {
		c := &b.Causes[i]
		if b.cause[c.ID] != nil {
			bad.Add("causes."+c.ID, c.ID, "stands there twice")
		}
		b.cause[c.ID] = c
	}
	for id, w := range ways {
		if c := b.cause[id]; c == nil || w.By != "" && reaches[w.By] == (reach{}) {
			bad.Add("ways."+id, id, "is no cause, or travels in a way nobody knows")
		} else {
			c.Way = w
		}
	}
	for i := range b.Signs {
		b.checkSign(&b.Signs[i], &bad)
		b.rarity(&b.Signs[i])
	}
	for i := range b.Causes {
		b.check(&b.Causes[i], &bad)
	}
	b.miss = make([][]float64, len(b.Causes))
	for i := range b.Causes {
		b.miss[i] = make([]float64, len(b.Signs))
		for j := range b.Signs {
			b.miss[i][j] = 1 - b.Causes[i].Signs[b.Signs[j].ID]
		}
		b.Causes[i].Picture = b.picture(&b.Causes[i])
	}
	return b, bad.Err()
}

func read(name string, into any) error {
	text, err := data.ReadFile(name)
	if err == nil {
		err = written.Read(text, into)
	}
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	return nil
}

// checkSign names what a sign refers to and is not there.
func (b *Book) checkSign(s *Sign, bad *invalid.Fields) {
	for _, id := range s.Confused {
		if b.sign[id] == nil {
			bad.Add("signs."+s.ID+".confused", id, "%q is no sign", id)
		}
	}
	for _, id := range s.NeverWith {
		part := slices.ContainsFunc(b.Signs, func(o Sign) bool { return o.Part == id })
		if b.sign[id] == nil && !part {
			bad.Add("signs."+s.ID+".never_with", id, "%q is neither a sign nor a part", id)
		}
	}
}

// check names what cannot be in a cause.
func (b *Book) check(c *Cause, bad *invalid.Fields) {
	at := "causes." + c.ID
	if c.Name == "" || c.Do == "" || len(c.Signs) == 0 || !(c.Prior > 0) || !(c.Any > 0) ||
		len(c.When) != 0 && len(c.When) != 2 {
		bad.Add(at, c.Name, "says too little, or has no prior")
	}
	for _, w := range []struct {
		is string
		of []string
	}{{c.Harm, harms}, {c.To, tos}, {c.Act, acts}} {
		if !slices.Contains(w.of, w.is) {
			bad.Add(at, w.is, "%q: want one of %v", w.is, w.of)
		}
	}
	for id, p := range c.Signs {
		if b.sign[id] == nil || !(p > 0 && p < 1) {
			bad.Add(at+".signs", id, "%q at %g is no sign with a chance", id, p)
		}
	}
	for id := range c.Brings {
		if b.sign[id] == nil {
			bad.Add(at+".brings", id, "%q is no sign", id)
		}
	}
	for _, id := range append(slices.Clone(c.Mistaken), c.Follows...) {
		if b.cause[id] == nil {
			bad.Add(at, id, "%q is no cause", id)
		}
	}
}

// Cause finds a cause; nil where there is none.
func (b *Book) Cause(id string) *Cause { return b.cause[id] }

// Sign finds a sign; nil where there is none.
func (b *Book) Sign(id string) *Sign { return b.sign[id] }

// NameOf is a cause in words; one that is not in the book is its id.
func NameOf(id string) string {
	if c := Built().Cause(id); c != nil {
		return c.Name
	}
	return id
}
