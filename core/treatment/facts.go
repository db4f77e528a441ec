package treatment

import (
	"slices"
	"sync"

	"mezzadro/core/written"
)

// fact is what goes with a cause on some plants, whatever is done about it.
type fact struct {
	Causes []string `yaml:"causes"`
	On     *On      `yaml:"on"`   // plants it holds for; all where absent
	Harm   bool     `yaml:"harm"` // only where nothing is done
	Say    string   `yaml:"say"`
}

// facts are those that ship. It panics when the shipped data is broken: a test loads it.
var facts = sync.OnceValue(func() []fact {
	text, err := data.ReadFile("data/facts.yaml")
	var list []fact
	if err == nil {
		err = written.Read(text, &list)
	}
	if err != nil {
		panic(err)
	}
	return list
})

// handled are the rungs at which one touches the plant.
var handled = []string{"hands", "cutting", "barriers"}

// facts says what there is to know of the cause and of handling the plant.
func (s *search) facts(out *Answer) {
	for _, f := range facts() {
		if slices.Contains(f.Causes, s.cause.ID) && f.On.fits(s.ask) && (!f.Harm || out.Rung == "none") {
			out.Says = append(out.Says, f.Say)
		}
	}
	if !slices.Contains(handled, out.Rung) {
		return
	}
	for _, c := range s.ask.Species.Cautions {
		switch c.Kind {
		case "skin":
			out.Says = append(out.Says, "Its sap burns the skin: gloves, and eyes covered.")
			return
		case "poisonous":
			out.Says = append(out.Says, "It is poisonous: gloves, and hands washed before anything is eaten.")
			return
		case "thorns":
			out.Says = append(out.Says, "Thorns: gloves, and eyes covered.")
			return
		}
	}
}
