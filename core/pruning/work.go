package pruning

import (
	"fmt"
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
)

// Work on one plant.
const (
	reachM      = 2.5  // height up to which one works from the ground
	ladderM     = 5.0  // and from a ladder; above that one climbs
	looseness   = 0.35 // of the crown's room that its cut twigs take up, loose
	climberM    = 0.5  // how deep a climber grows from its wall
	bagM3       = 0.25
	trailerM3   = 2.0  // what a small trailer takes, loose
	setUp       = 4.0  // minutes at each plant or group
	each        = 0.5  // and for going on to each plant of it
	perM3       = 25.0 // minutes for a cubic metre of loose waste from the ground
	deadPerM    = 2.0  // minutes of looking over a metre of height
	ladderSlow  = 1.6
	climbSlow   = 3.0
	protectedM  = 8.0 // height from which a tree is often protected
	leastOfCut  = 0.03
	crownFilled = 0.6 // of the box round it that a crown fills
)

// work adds minutes, waste, skills and cautions.
func (a *Ask) work(p *Plan) {
	e := a.Species
	waste := Waste(e, a.HeightM, a.SpreadM, a.Share)
	n := float64(max(1, a.Count))
	minutes := setUp + n*(each+perM3*waste+deadPerM*a.HeightM)
	tall := a.HeightM > reachM && e.Form != catalogue.Climber || a.HeightM > 2*reachM
	woody := e.Form != catalogue.Perennial && e.Form != catalogue.Subshrub
	switch {
	case !woody:
	case a.HeightM > ladderM && (e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Palm):
		minutes *= climbSlow
		p.Skills = append(p.Skills, "licensed arborist")
		p.Cautions = append(
			p.Cautions,
			"Above a ladder's reach: a licensed arborist and a second person; nobody below.",
		)
	case tall:
		minutes *= ladderSlow
		p.Skills = append(p.Skills, "ladder")
		p.Cautions = append(p.Cautions, "From a ladder on firm ground, with a second person; never with a chainsaw.")
	}
	if (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) && a.HeightM > protectedM {
		p.Cautions = append(p.Cautions, "It may be protected: ask for the permit first.")
	}
	if tall {
		p.Cautions = append(p.Cautions, "Near power lines only the line's owner or a person licensed for it cuts.")
	}
	if woody {
		p.Cautions = append(
			p.Cautions,
			"From spring to late summer look for nests first; local rules may forbid the cut.",
		)
	}
	if a.Purpose == Sick {
		p.Steps = append([]string{"Sound plants first that day; clean the blade after each cut."}, p.Steps...)
		p.Cautions = append(p.Cautions, "Bag what is sick; burn it where that is allowed, never on the compost.")
	} else {
		p.Steps = append(p.Steps, "Clean the blade before the next plant.")
	}
	for _, c := range e.Cautions {
		p.Cautions = append(p.Cautions, c.Text)
	}
	p.Minutes = int(math.Ceil(minutes/5) * 5)
	p.WasteM3 = quantity.Round(waste, 0.01)
	p.Bags = int(math.Ceil(waste / bagM3))
	p.WasteText = wasteText(n * waste)
}

// Waste is what comes off one plant of a size, m, when a share of its crown is cut, loose, m³: an estimate.
func Waste(e *catalogue.Entry, heightM, spreadM, share float64) float64 {
	depth := spreadM
	if e.Form == catalogue.Climber { // a sheet on its wall or wires
		depth = min(depth, climberM)
	}
	return crownFilled * heightM * spreadM * depth * looseness * max(leastOfCut, share)
}

// UsualShare is the share of a crown that a purpose takes where nobody says more; a third where it has no usual one.
func UsualShare(p Purpose) float64 {
	if s, known := usualShare[p]; known {
		return s
	}
	return 1.0 / 3
}

// wasteText is how the waste is carried off.
func wasteText(m3 float64) string {
	n, of := int(math.Ceil(m3/bagM3)), "bag"
	if m3 > trailerM3 {
		n, of = int(math.Ceil(m3/trailerM3)), "trailer load"
	}
	if n != 1 {
		of += "s"
	}
	return fmt.Sprintf("%s of loose waste, %d %s.", quantity.Bulk(m3), n, of)
}
