package pruning

import (
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/region"
)

// Where one stands.
const (
	reachM      = 2.5 // height up to which one works from the ground
	ladderM     = 5.0 // and from a ladder; above that one climbs
	bagM3       = 0.25
	trailerM3   = 2.0  // what a small trailer takes, loose
	setUp       = 4.0  // minutes at each plant or group
	protectedM  = 8.0  // height from which a tree is often protected
	spiny       = 1.2  // of the time, where it pricks
	rangeLow    = 0.6  // of the estimate, where all goes well
	rangeHigh   = 1.65 // and where it does not
	wholeAt     = 0.9  // share of a crown from which it is taken down, not cut
	stemShare   = 0.17 // m³ loose, stem and all, for a square metre of a tree's outline, height × spread
	cutShare    = 0.22 // of the same, for the share of its crown that is cut: the inside of a large crown is empty
	raiseShare  = 0.016
	wholeFaceM2 = 8.0 // from which heads are taken off at an even pace
	deadShare   = 0.01
	roseShare   = 0.055
)

// outline is what a plant shows from the side, height × spread, m²: branches stand in a shell, so that what comes off
// goes with it and not with the room of the crown.
func outline(heightM, spreadM float64) float64 { return heightM * spreadM }

// Waste is what comes off one plant of a size, m, when a share of its crown is cut for a purpose, loose, m³: an
// estimate.
func Waste(e *catalogue.Entry, heightM, spreadM, share float64, purpose Purpose) float64 {
	face := outline(heightM, spreadM)
	tree := e.Form == catalogue.Tree || e.Form == catalogue.Conifer
	switch {
	case e.Form == catalogue.Palm:
		return 0.065 * spreadM * spreadM
	case purpose == Deadhead:
		return 0.004 * face
	case tree && share >= wholeAt:
		return stemShare * face
	case tree && purpose == Raise:
		return raiseShare * face
	case tree && purpose == Dead:
		return deadShare * face
	case purpose == Dead && e.Form != catalogue.Perennial:
		return 0.03 * face
	case e.Form == catalogue.Perennial:
		return 0.055 * math.Pow(face, 1.3) * max(0.2, share)
	case e.Form == catalogue.Climber:
		return 0.045 * math.Pow(face, 0.85) * math.Sqrt(max(0.1, share)/0.4)
	case e.Genus() == "Rubus", e.Genus() == "Vitis":
		return 0.025 * face
	case e.Genus() == "Rosa":
		return roseShare * face * max(0.1, share)
	case !tree && share >= 0.85:
		return 0.1 * face // whips and soft stems lie close
	}
	return cutShare * face * max(0.05, share)
}

// UsualShare is the share of a crown that a purpose takes where nobody says more; a third where it has no usual one.
func UsualShare(p Purpose) float64 {
	if s, known := usualShare[p]; known {
		return s
	}
	return 1.0 / 3
}

// spacing is how far apart the plants of a hedge stand, m, by their kind.
func spacing(e *catalogue.Entry) float64 {
	switch {
	case e.GrowthCMYear <= 15:
		return 0.22
	case e.Form == catalogue.Conifer:
		return 0.6
	case e.LeafSeason == catalogue.Deciduous, e.Mature.SpreadM < 1.6, e.Genus() == "Ligustrum":
		return 0.33
	}
	return 0.7
}

// hedge is the face of a hedge, both sides and the top, m², with the minutes for a square metre and what comes off it,
// m³.
func (a *Ask) hedge() (minutes, waste float64) {
	length := a.RowM
	if length == 0 {
		length = float64(a.Count) * spacing(a.Species)
	}
	face := length * (2*a.HeightM + min(a.SpreadM, 2.5))
	each := 1.55 * (1 + 0.55*max(0, a.HeightM-2))
	if a.HeightM < 0.8 {
		each *= 2.2 // by hand shears, along a line
	}
	if a.Species.Genus() == "Prunus" {
		each *= 1.5 // large leaves, by secateurs
	}
	return setUp + each*face, 0.019 * face
}

// minutes is what one plant takes of all who work on it, clearing up included: by its outline, and for a tree by how
// one gets at it.
func (a *Ask) minutes() float64 {
	e, face := a.Species, outline(a.HeightM, a.SpreadM)
	tree := e.Form == catalogue.Tree || e.Form == catalogue.Conifer
	out := 4.8 * face
	switch {
	case e.Form == catalogue.Palm:
		out = 10 + 3*a.SpreadM*a.SpreadM
		if a.HeightM > ladderM {
			out += 4 * a.HeightM
		}
	case a.Purpose == Deadhead:
		out = 1.9*math.Pow(min(face, wholeFaceM2), 1.7) + 6*max(0, face-wholeFaceM2)
	case tree && a.Purpose == Raise:
		out = 5 + 1.1*face
	case tree && a.Purpose == Dead && a.HeightM > ladderM:
		out = 2.2 * face
	case tree:
		out = a.onTree(face)
	case e.Form == catalogue.Perennial:
		out = 4.3 * face
	case e.Form == catalogue.Climber:
		out = 4.9 * math.Pow(face, 0.93)
	}
	if e.Genus() == "Vitis" || e.Genus() == "Rubus" {
		out *= 0.75
	}
	if e.Spiny && e.Genus() != "Rubus" && e.Genus() != "Rosa" {
		out *= spiny
	}
	return out
}

// onTree is what cutting a tree's crown takes: from the ground and a ladder, and more and more from a rope or a
// platform.
func (a *Ask) onTree(face float64) float64 {
	low := 6 * math.Pow(face, 0.87)
	if fruits[ClassOf(a.Species).ID] {
		low = 4 * face
	}
	aloft := 12 * math.Pow(face, 0.82) * math.Pow(max(0.05, min(0.5, a.Share))/0.2, 0.6)
	w := max(0, min(1, (a.HeightM-ladderM)/7))
	return (1-w)*low + w*max(low, aloft)
}

// FellMinutes is what taking down a tree of a size, m, in pieces takes of all who do it, the stump not counted; an
// estimate.
func FellMinutes(heightM, spreadM float64) float64 {
	return 5.8 * math.Pow(outline(heightM, spreadM), 1.05)
}

// CutMinutes is what cutting so many plants of a kind to a height takes of all who do it, and who go; their spread is
// as usual for their height.
func CutMinutes(e *catalogue.Entry, heightM, cutM float64, count int) (minutes float64, people int) {
	a := Ask{
		Species: e,
		HeightM: heightM,
		SpreadM: heightM * e.Mature.SpreadM / e.Mature.HeightM,
		Count:   count,
		Purpose: Size,
	}
	a.Share = max(0.05, min(1, 1-cutM/max(heightM, 0.01)))
	minutes = setUp + float64(max(1, count))*a.minutes()
	return minutes, a.people()
}

// people are those who have to go: two where one is off the ground with a blade, three where a large tree is climbed.
// More may.
func (a *Ask) people() int {
	tree := a.Species.Form == catalogue.Tree || a.Species.Form == catalogue.Conifer || a.Species.Form == catalogue.Palm
	switch {
	case tree && a.HeightM >= 14 && a.Purpose != Raise:
		return 3
	case tree && a.HeightM > ladderM, a.HeightM > ladderM+1 && a.Species.Form == catalogue.Climber:
		return 2
	}
	return 1
}

// work adds minutes, people, waste, skills and cautions.
func (a *Ask) work(p *Plan) {
	if a.headless() != "" { // one looks, and leaves it
		p.Where, p.Steps, p.People, p.WasteText = "", []string{}, 1, wasteText(0)
		p.takes(setUp)
		return
	}
	n := float64(max(1, a.Count))
	waste := Waste(a.Species, a.HeightM, a.SpreadM, a.Share, a.Purpose)
	minutes := setUp + n*a.minutes()
	if a.Purpose == Hedge && inRow(a.Count, a.RowM) {
		minutes, waste = a.hedge()
		waste /= n
	}
	p.People = a.people()
	p.takes(minutes)
	a.careful(p)
	p.WasteM3 = quantity.Round(waste, 0.001)
	p.Bags = int(math.Ceil(waste / bagM3))
	p.WasteText = wasteText(n * waste)
}

// takes sets the minutes of all together, with the range in which they fall.
func (p *Plan) takes(minutes float64) {
	p.Minutes = rounded(minutes)
	p.MinutesFrom, p.MinutesTo = int(rangeLow*minutes), int(math.Ceil(rangeHigh*minutes))
}

// headless says why no faded heads are taken off a kind; empty where they are.
func (a *Ask) headless() string {
	switch {
	case a.Purpose != Deadhead:
		return ""
	case a.Species.ForLeaf, a.Species.Form == catalogue.Conifer, a.Species.Form == catalogue.Palm:
		return "There is nothing to take off: it is not grown for its bloom."
	case fruits[ClassOf(a.Species).ID]:
		return "There is nothing to take off: what has bloomed becomes the fruit."
	}
	return ""
}

// rounded are minutes as one plans with them: to five, from a quarter of an hour on.
func rounded(minutes float64) int {
	if minutes < 15 {
		return int(math.Ceil(minutes))
	}
	return int(math.Ceil(minutes/5) * 5)
}

// careful adds the skills that the cut asks for and what is to be minded.
func (a *Ask) careful(p *Plan) {
	e := a.Species
	tall := a.HeightM > reachM && e.Form != catalogue.Climber || a.HeightM > 2*reachM
	woody := e.Form != catalogue.Perennial && e.Form != catalogue.Subshrub
	tree := e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Palm
	switch {
	case !woody:
	case a.HeightM > ladderM && tree:
		p.Skills = append(p.Skills, "licensed arborist")
		p.Cautions = append(
			p.Cautions,
			"Above a ladder's reach: a licensed arborist from a platform or a rope, and a second person; nobody below.",
		)
		if e.Form != catalogue.Palm {
			p.Cautions = append(
				p.Cautions,
				"Before anybody climbs: its foot, forks and limbs are looked over; one that is hollow, cracked or dying is worked from a platform.",
			)
		}
	case a.HeightM > ladderM+1 && e.Form == catalogue.Climber:
		p.Skills = append(p.Skills, "climbing")
		p.Cautions = append(
			p.Cautions,
			"Above a ladder's reach on its wall: a platform, or a climber on a rope, and a second person; nobody below.",
		)
	case tall:
		p.Skills = append(p.Skills, "ladder")
		p.Cautions = append(
			p.Cautions,
			"From a ladder on firm ground, tied or held at its foot, somebody within call; never with a chainsaw.",
		)
	}
	if (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) && a.HeightM > protectedM {
		p.Cautions = append(p.Cautions, region.Permit)
	}
	switch {
	case a.Wire && woody:
		p.Skills = append(p.Skills, job.LineWork)
		p.Cautions = append(
			[]string{
				"A power line is within reach of it: the line's owner is asked first, and only a person licensed for line clearance cuts; no ladder, no pole, nobody else near it.",
			},
			p.Cautions...)
	case tall:
		p.Cautions = append(p.Cautions, "Near power lines only the line's owner or a person licensed for it cuts.")
	}
	if slices.Contains(burns, e.Genus()) && tree {
		p.Cautions = append(p.Cautions, "On days of high fire danger no saw and no engine: local bans come first.")
	}
	if woody {
		p.Cautions = append(p.Cautions, region.Nests)
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
}

// burns are genera of trees that catch fire from a spark in a dry summer.
var burns = []string{"Eucalyptus", "Corymbia", "Angophora", "Acacia", "Pinus", "Cupressus", "Juniperus"}

// wasteText is how the waste is carried off.
func wasteText(m3 float64) string {
	if m3 < 0.003 {
		return "Hardly any waste."
	}
	m3 = quantity.Round(m3, 0.001)
	n, of := int(math.Ceil(m3/bagM3)), "bag"
	if m3 > trailerM3 {
		n, of = int(math.Ceil(m3/trailerM3)), "trailer load"
	}
	if n != 1 {
		of += "s"
	}
	return fmt.Sprintf("%s of loose waste, %d %s.", quantity.Bulk(m3), n, of)
}
