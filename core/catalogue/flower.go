package catalogue

import (
	"io/fs"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/invalid"
)

// Flower is what a kind's flowers look and smell like, and what they are worth to insects.
type Flower struct {
	Colours []string `json:"colours,omitempty" yaml:"colours,omitempty" enum:"white,cream,yellow,orange,red,pink,purple,blue,green" doc:"The usual ones of the kind's varieties"`
	Scent   bool     `json:"scent,omitempty" yaml:"scent,omitempty" doc:"One smells it from a step away"`
	Bees    string   `json:"bees,omitempty" yaml:"bees,omitempty" enum:"some,rich," doc:"What bees and other visitors find: rich, some, or absent where it is little"`
	BearsC  float64  `json:"bears_c,omitempty" yaml:"bears_c,omitempty" minimum:"-25" maximum:"0" doc:"The frost that open flowers bear, °C; −2 when absent"`
}

// FlowersSeen reports a kind whose flowers anybody looks for. Ferns have none, and nobody says of a pine or an oak that
// it is in bloom.
func (e *Entry) FlowersSeen() bool {
	return !e.ForLeaf || e.Flower != nil && (len(e.Flower.Colours) > 0 || e.Flower.Bees != "")
}

// Colours of flowers.
var Colours = []string{"white", "cream", "yellow", "orange", "red", "pink", "purple", "blue", "green"}

// Validate names every field that cannot be.
func (f *Flower) Validate() error {
	var bad invalid.Fields
	for _, c := range f.Colours {
		oneOf(&bad, "colours", c, Colours)
	}
	oneOf(&bad, "bees", f.Bees, []string{"", "some", "rich"})
	if f.BearsC < -25 || f.BearsC > 0 {
		bad.Add("bears_c", f.BearsC, "must lie between −25 and 0")
	}
	return bad.Err()
}

// flowers by genus, or by id where a kind differs from its genus.
var flowers = sync.OnceValue(func() map[string]Flower {
	out := map[string]Flower{}
	b, err := fs.ReadFile(data, "data/flowers.yaml")
	if err == nil {
		err = written.Read(b, &out)
	}
	if err != nil {
		panic(err) // a test loads it
	}
	return out
})

// withFlower fills what an entry does not say of its flowers from its genus.
func (e *Entry) withFlower() {
	if e.Flower != nil {
		return
	}
	f, own := flowers()[e.ID]
	if !own {
		f = flowers()[e.Genus()]
	}
	e.Flower = &f
}
