// Package pruning says when a plant is cut, how much may go, how far, and what that costs in bloom.
package pruning

import (
	"embed"
	"slices"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/core/moment"
)

//go:embed data
var data embed.FS

// Class is a way of cutting that some kinds of plants share.
type Class struct {
	ID       string   `yaml:"id"`
	Name     string   `yaml:"name"`
	Match    Match    `yaml:"match"`
	Windows  []Window `yaml:"windows"`
	Size     []Window `yaml:"size"`     // when it is cut to be kept smaller, where that is another time
	Renewal  []Window `yaml:"renewal"`  // when its old stems come out, where that is another time
	Before   string   `yaml:"before"`   // why not earlier
	After    string   `yaml:"after"`    // why not later
	Bloom    float64  `yaml:"bloom"`    // points that the loss of a whole bloom costs
	Spares   bool     `yaml:"spares"`   // the usual cut takes no flower buds
	Most     float64  `yaml:"most"`     // share of the living crown at most at once
	Renewing float64  `yaml:"renewing"` // the same when it is renewed, where it then bears more
	Nests    float64  `yaml:"nests"`    // points that a cut costs while birds nest, where they nest in most of the kind; 0: as usual
	Frost    float64  `yaml:"frost"`    // a night that burns what was cut or pushes after it, °C
	Heat     float64  `yaml:"heat"`     // usual maximum from which bared bark burns, °C; 0 takes what is usual
	Soft     bool     `yaml:"soft"`     // growth after a late cut does not ripen
	Draw     string   `yaml:"draw"`     // the drawing of where the blade goes
	Renew    bool     `yaml:"renew"`    // once old, a third of its oldest stems goes each year
	Together []string `yaml:"together"` // what is done in the same visit
	Where    string   `yaml:"where"`
	How      []string `yaml:"how"`

	free  bool   // by house rule it keeps its natural form
	wound string // what becomes of large wounds, by house rule
}

// Drawings are those of where the blade goes.
var Drawings = []string{
	"pair",
	"bud",
	"collar",
	"sideshoot",
	"stems",
	"canes",
	"ground",
	"spur",
	"whips",
	"shear",
	"taper",
	"frond",
	"green",
	"mound",
	"crown",
	"faded",
}

// Match is the kinds that a class fits: all that is named has to fit.
type Match struct {
	Species []string `yaml:"species"`
	Genus   []string `yaml:"genus"`
	Family  []string `yaml:"family"`
	Habit   []string `yaml:"habit"`
	Form    []string `yaml:"form"`
	Leaf    []string `yaml:"leaf"`
	Hard    []string `yaml:"hard"`
	Bleeds  []string `yaml:"bleeds"`
	Stems   []string `yaml:"stems"`
}

func (m Match) fits(e *catalogue.Entry) bool {
	for _, x := range []struct {
		of []string
		is string
	}{{m.Species, e.ID}, {m.Genus, e.Genus()}, {m.Family, e.Family}, {m.Habit, e.Bloom.Habit}, {m.Form, string(e.Form)},
		{m.Leaf, string(e.LeafSeason)}, {m.Hard, string(e.HardPruning)}, {m.Bleeds, e.SapBleeding}, {m.Stems, e.Standing()}} {
		if len(x.of) > 0 && !slices.Contains(x.of, x.is) {
			return false
		}
	}
	return true
}

// Window is days on which a class is cut: from one event to another.
type Window struct {
	From      moment.When `yaml:"from"`
	To        moment.When `yaml:"to"`
	Until     moment.When `yaml:"until"`      // ends it early
	NotBefore moment.When `yaml:"not_before"` // begins it late
	Span      int         `yaml:"span"`       // days it lasts at least, from its beginning
	Open      bool        `yaml:"open"`       // all year round where there is no frost
	Why       string      `yaml:"why"`
}

// classes are those that ship with the house. It panics when the shipped data is broken: a test loads it.
var classes = sync.OnceValue(func() []Class {
	text, err := data.ReadFile("data/classes.yaml")
	var list []Class
	if err == nil {
		err = written.Read(text, &list)
	}
	var bad invalid.Fields
	for _, c := range list {
		if len(c.Windows) == 0 || len(c.How) == 0 || c.Where == "" || !slices.Contains(Drawings, c.Draw) ||
			!(c.Most > 0 && c.Most <= 1) {
			bad.Add("classes."+c.ID, c.ID, "says too little, or how much may go is no share")
		}
	}
	if err == nil {
		err = bad.Err()
	}
	if err != nil {
		panic(err)
	}
	return list
})

// ClassOf is how a kind is cut.
func ClassOf(e *catalogue.Entry) *Class {
	list := classes()
	for i := range list {
		if list[i].Match.fits(e) {
			return &list[i]
		}
	}
	return &list[len(list)-1]
}
