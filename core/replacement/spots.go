package replacement

import (
	_ "embed"
	"slices"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
)

//go:embed data/spots.yaml
var spotsYAML []byte

// spotLists are the kinds that salt, lime and fire tell apart, and those that run wild, by part of the world: genera
// or catalogue ids.
type spotLists struct {
	Salt struct {
		Well   []string `yaml:"well"`
		Poorly []string `yaml:"poorly"`
	} `yaml:"salt"`
	Sour []string `yaml:"sour"`
	Fire struct {
		Fast []string `yaml:"fast"`
		Slow []string `yaml:"slow"`
	} `yaml:"fire"`
	Paved   []string            `yaml:"paved"`
	Breaks  []string            `yaml:"breaks"`
	Spreads map[string][]string `yaml:"spreads"`
}

//go:embed data/bears.yaml
var bearsYAML []byte

// bears are the kinds that take a trouble, and those that bear it, by the trouble's id. It panics when the shipped data
// is broken: a test loads it.
var bears = sync.OnceValue(func() (out map[string]struct {
	Takes []string `yaml:"takes"`
	Bears []string `yaml:"bears"`
}) {
	if err := written.Read(bearsYAML, &out); err != nil {
		panic("core/replacement/data/bears.yaml: " + err.Error())
	}
	return out
})

// susceptible is how much a kind is a host of a trouble, 0 to 1: by what is told of the kind, or by the trouble's hosts.
func susceptible(c *cause.Cause, e *catalogue.Entry) float64 {
	b := bears()[c.ID]
	switch {
	case listed(e, b.Takes, b.Bears):
		return max(1, c.OnKind(e))
	case listed(e, b.Bears, b.Takes):
		return 0
	}
	return c.OnKind(e)
}

// lists are the shipped ones. It panics when they are broken: a test loads them.
var lists = sync.OnceValue(func() (out spotLists) {
	if err := written.Read(spotsYAML, &out); err != nil {
		panic(err)
	}
	return out
})

// listed reports a kind that stands in a list by itself or by its genus; one that stands by itself in the other list
// is not of it by its genus.
func listed(e *catalogue.Entry, list, other []string) bool {
	return slices.Contains(list, e.ID) || e.In(list) && !slices.Contains(other, e.ID)
}

const limePH = 7.2 // from which soil holds lime

// ground judges salt, lime and fire.
func (f *fitting) ground() {
	l := lists()
	if f.Spot.Salt {
		switch {
		case listed(f.e, l.Salt.Poorly, l.Salt.Well):
			f.counts("salt", "poorly", 1, "salt burns it, and its twigs die back")
		case listed(f.e, l.Salt.Well, l.Salt.Poorly):
			f.counts("salt", "well", 1, "it bears salt")
		default:
			f.counts("salt", "unsure", 1, "nobody knows for sure how much salt it bears")
		}
	}
	if f.Spot.PH >= limePH && listed(f.e, l.Sour, nil) {
		f.counts("lime", "holds_lime", 1, "it yellows where the soil holds lime (pH %.1f)", f.Spot.PH)
	}
	if f.Spot.Paving && listed(f.e, l.Paved, nil) {
		f.counts("heat", "paved", 1, "it suffers in soil that is paved over, hot and narrow")
	}
	if f.Spot.Fire {
		switch {
		case listed(f.e, l.Fire.Fast, l.Fire.Slow):
			f.counts("fire", "fast", 1, "it burns fast, and wildfire comes here")
			f.care("In wildfire country keep it well away from buildings: the local fire service says how far.")
		case listed(f.e, l.Fire.Slow, l.Fire.Fast):
			f.counts("fire", "slow", 1, "it is slow to light where it is watered")
		}
	}
}

// wild judges whether it runs wild in this part of the world. What law and the firm's own list say comes first.
func (f *fitting) wild() {
	region := f.Year.Normals.Climate.Region()
	here := slices.Contains(lists().Spreads[region], f.e.ID)
	switch {
	case slices.Contains(f.Spot.Invasive, f.e.ID):
		f.out("It must not be planted in this region: it spreads into the wild.")
	case f.Wish.Tame && (here || f.e.Invasive):
		f.out("It spreads into the wild or to the neighbours, and that is not wanted.")
	case here:
		f.counts("spread", "here", 1, "it runs wild in this part of the world")
		f.care("It spreads here: ask what holds before it is bought. In some places it must not be planted.")
	case f.e.Invasive:
		f.counts("spread", "away", 1, "it spreads into the wild or to the neighbours in some regions")
		f.care("It spreads in some regions: ask what holds here before it is bought.")
	}
}
