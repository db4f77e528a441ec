package catalogue

import (
	"fmt"
	"io/fs"
	"maps"
	"slices"
	"strings"

	"mezzadro/core/written"

	"mezzadro/core/invalid"
)

// trait is a line of the list of what each kind is.
type trait struct {
	Stems     string  `yaml:"stems"`
	Base      string  `yaml:"base"`
	OldWood   string  `yaml:"old_wood"`
	LeavesC   float64 `yaml:"leaves_c"`
	Livestock string  `yaml:"livestock"`
	Bees      string  `yaml:"bees"`
	Wet       string  `yaml:"wet"`
	For       string  `yaml:"for"` // leaf: it is not grown for its bloom
}

// bees are the words of the list in those of a flower.
var bees = map[string]string{"none": "", "some": "some", "much": "rich"}

// setTraits gives each entry what the list says of it. An entry that the list leaves out, and a line of none, are faults.
func setTraits(files fs.FS, entries []Entry) error {
	b, err := fs.ReadFile(files, "data/traits.yaml")
	if err != nil {
		return err
	}
	var of map[string]trait
	if err := written.Read(b, &of); err != nil {
		return fmt.Errorf("data/traits.yaml: %w", err)
	}
	var bad invalid.Fields
	for i := range entries {
		e := &entries[i]
		t, there := of[e.ID]
		if !there {
			bad.Add("traits."+e.ID, e.ID, "%q is not in the list of traits", e.ID)
			continue
		}
		delete(of, e.ID)
		e.Stems, e.Resprouts, e.BreaksOld, e.LeafHardinessC, e.LivestockDanger, e.WetFeet = t.Stems, t.Base, t.OldWood, t.LeavesC, t.Livestock, t.Wet
		e.ForLeaf = t.For == "leaf"
		e.withFlower()
		e.visited(bees[t.Bees])
	}
	for _, id := range slices.Sorted(maps.Keys(of)) {
		bad.Add("traits."+id, id, "%q is no entry", id)
	}
	return bad.Err()
}

// visited says what bees find in its flowers: known of the kind, and not only of its genus.
func (e *Entry) visited(bees string) {
	if e.Flower == nil && bees == "" {
		return
	}
	f := Flower{}
	if e.Flower != nil {
		f = *e.Flower
	}
	f.Bees = bees
	e.Flower = &f
}

// inherit takes what an own entry leaves out from the built one that it stands for.
func (e *Entry) inherit(from *Entry) {
	for _, x := range []struct{ to, of *string }{{&e.Stems, &from.Stems}, {&e.Resprouts, &from.Resprouts}, {&e.BreaksOld, &from.BreaksOld},
		{&e.LivestockDanger, &from.LivestockDanger}, {&e.WetFeet, &from.WetFeet}} {
		if *x.to == "" {
			*x.to = *x.of
		}
	}
	if e.LeafHardinessC == 0 {
		e.LeafHardinessC = from.LeafHardinessC
	}
	e.ForLeaf = e.ForLeaf || from.ForLeaf
	if len(e.Also) == 0 {
		e.Also = from.Also
	}
}

// Standing is how it stands: as it is known, or as its form has it.
func (e *Entry) Standing() string {
	if e.Stems != "" {
		return e.Stems
	}
	switch e.Form {
	case Tree, Conifer:
		return SingleTrunk
	case Climber:
		return Climbing
	case Palm:
		if e.Suckers {
			return PalmClump
		}
		return PalmTrunk
	case Perennial:
		if e.Annual {
			return AnnualStem
		}
		return Clump
	}
	return Several
}

// FromBase reports whether it comes again from its base: yes, weak or no.
func (e *Entry) FromBase() string {
	if e.Resprouts != "" {
		return e.Resprouts
	}
	switch {
	case e.HardPruning == FromBase || e.LeafSeason == Herbaceous:
		return "yes"
	case e.HardPruning == OldWood && e.Standing() != SingleTrunk:
		return "weak"
	}
	return "no"
}

// FromOldWood reports whether bare old wood shoots again: yes, weak or no.
func (e *Entry) FromOldWood() string {
	if e.BreaksOld != "" {
		return e.BreaksOld
	}
	if e.HardPruning == FromBase || e.HardPruning == OldWood {
		return "yes"
	}
	return "no"
}

// GrownForFruit reports a kind grown for the fruit that follows its bloom.
func (e *Entry) GrownForFruit() bool {
	for _, what := range []string{"fruit", "berries", "nuts", "sloes"} {
		if strings.Contains(e.Edible, what) {
			return true
		}
	}
	return false
}
