package pruning

import (
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
)

// Neighbour is another plant of the property.
type Neighbour struct {
	Name    string
	Species *catalogue.Entry
	HeightM float64
}

// What makes a cut take shade away.
const (
	shadeFrom   = 1.5  // height from which a woody plant shades others, m
	shadeShare  = 0.15 // of its crown or its height that goes
	shadesNamed = 3
)

// shade warns of plants on the property that like shade and may stand in that of the plant that is cut: where they stand is not known.
func (a *Ask) shade(p *Plan) {
	woody := a.Species.Form != catalogue.Perennial && a.Species.Form != catalogue.Subshrub
	if !woody || a.HeightM < shadeFrom || p.Share < shadeShare || a.Purpose == Dead || a.Purpose == Deadhead {
		return
	}
	var names []string
	for _, n := range a.Near {
		if strings.Contains(n.Species.Light, "shade") && !strings.Contains(n.Species.Light, "sun") &&
			n.HeightM < a.HeightM &&
			!slices.Contains(names, n.Name) {
			names = append(names, n.Name)
		}
	}
	if len(names) == 0 {
		return
	}
	slices.Sort(names)
	more := ""
	if len(names) > shadesNamed {
		more = fmt.Sprintf(" and %d more", len(names)-shadesNamed)
		names = names[:shadesNamed]
	}
	p.Cautions = append(p.Cautions, "Who stands in its shade? "+strings.Join(names, ", ")+more+
		" on this property like shade and may scorch once it is gone: cut in cool weather, or shade them for a season.")
}
