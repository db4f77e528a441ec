package check

import (
	_ "embed"
	"fmt"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
)

//go:embed data/checks.yaml
var kindsFile []byte

// Info is what is known of a kind of check: its words, where it is made, what can be found and what that tells.
type Info struct {
	Kind     Kind     `yaml:"kind" json:"kind"`
	Name     string   `yaml:"name" json:"name"`
	LooksAt  string   `yaml:"looks_at" json:"looks_at"`
	How      string   `yaml:"how" json:"how"`
	Found    string   `yaml:"found" json:"found"`                 // how a find reads, with {word}, {held}, {broke}, {n}, {share}, {length}, {answer}, {skipped}
	Height   bool     `yaml:"height" json:"height,omitempty"`     // made at a height on the plant
	At       float64  `yaml:"at" json:"-"`                        // where else it is felt, as a share of the plant's height
	Forms    string   `yaml:"forms" json:"forms,omitempty"`       // "palm", "not palm" or any
	Results  []Result `yaml:"results" json:"results,omitempty"`   // what can be found
	Amount   *Amount  `yaml:"amount" json:"amount,omitempty"`     // a figure that goes with it
	Count    *Count   `yaml:"count" json:"count,omitempty"`       // counts that go with it
	Answer   bool     `yaml:"answer" json:"answer,omitempty"`     // answered yes or no
	Proposed bool     `yaml:"proposed" json:"proposed,omitempty"` // it may be asked for next
	Keeps    string   `yaml:"keeps" json:"keeps,omitempty"`       // how many stand beside each other: "one", one a "height", one a "result", or any number
	Skip     bool     `yaml:"skip" json:"skip,omitempty"`         // it can be noted as not looked at
}

// Result is one thing a check can find.
type Result struct {
	Key       string     `yaml:"key" json:"key"`
	Word      string     `yaml:"word" json:"word"`
	Says      string     `yaml:"says" json:"-"`      // how it stands among the reasons
	Tells     [2]float64 `yaml:"tells" json:"-"`     // chances of it where the plant lives and where it is dead; 0, 0: tells neither
	Sign      string     `yaml:"sign" json:"-"`      // "living" and "dead" are plain signs of it, "hurt" one that something is wrong
	Evergreen bool       `yaml:"evergreen" json:"-"` // tells only of a plant that keeps its leaves
}

// Amount is a figure that goes with a check.
type Amount struct {
	What     string   `yaml:"what" json:"what"` // girth: share of it; length and distance: m
	Most     any      `yaml:"most" json:"-"`    // a number, or "height"
	Needs    []string `yaml:"needs" json:"needs,omitempty"`
	Optional bool     `yaml:"optional" json:"optional,omitempty"`
}

// Count is what is counted as held and broke.
type Count struct {
	What string `yaml:"what" json:"what"`
	Most any    `yaml:"most" json:"-"` // a number, or "count"
}

var kinds, byKind = must(read(kindsFile))

// Kinds are all kinds of check, in the order they are told.
func Kinds() []Info { return kinds }

// Of is what is known of a kind; nil for one that is none.
func Of(k Kind) *Info { return byKind[k] }

// Result is one of the kind's results; nil for one that is none.
func (i *Info) Result(key string) *Result {
	for n := range i.Results {
		if i.Results[n].Key == key {
			return &i.Results[n]
		}
	}
	return nil
}

// Keys are the kind's results; of not_looked the kinds that can be passed over.
func (i *Info) Keys() []string {
	var out []string
	for _, r := range i.Results {
		out = append(out, r.Key)
	}
	if i.Kind == NotLooked {
		for _, k := range kinds {
			if k.Skip {
				out = append(out, string(k.Kind))
			}
		}
	}
	return out
}

// Fits reports whether the check can be made on a form of plant.
func (i *Info) Fits(f catalogue.Form) bool {
	switch i.Forms {
	case "palm":
		return f == catalogue.Palm
	case "not palm":
		return f != catalogue.Palm
	}
	return true
}

func must(all []Info, by map[Kind]*Info, err error) ([]Info, map[Kind]*Info) {
	if err != nil {
		panic(err) // it ships with the program, and a test reads it
	}
	return all, by
}

// read reads the kinds and says what is missing in them.
func read(file []byte) ([]Info, map[Kind]*Info, error) {
	var all []Info
	if err := written.Read(file, &all); err != nil {
		return nil, nil, fmt.Errorf("checks.yaml: %w", err)
	}
	by := map[Kind]*Info{}
	for n := range all {
		i := &all[n]
		switch {
		case i.Kind == "" || i.Name == "" || i.How == "" || i.LooksAt == "" || i.Found == "":
			return nil, nil, fmt.Errorf("checks.yaml: %d (%q): want kind, name, looks_at, how and found", n+1, i.Kind)
		case by[i.Kind] != nil:
			return nil, nil, fmt.Errorf("checks.yaml: %q twice", i.Kind)
		}
		for _, r := range i.Results {
			if r.Key == "" || r.Word == "" || r.Tells != [2]float64{} && (r.Says == "" || r.Tells[0] <= 0 || r.Tells[1] <= 0) {
				return nil, nil, fmt.Errorf(
					"checks.yaml: %s: result %q: want key, word, and what it says where it tells",
					i.Kind,
					r.Key,
				)
			}
		}
		by[i.Kind] = i
	}
	return all, by, nil
}
