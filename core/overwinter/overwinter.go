// Package overwinter tells which plants do not come through a winter where they stand, and when they are brought to
// safety.
package overwinter

import (
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

const (
	beforeFrost  = 50 // days before the earliest usual frost from which lifting and tying are thought of
	afterFrost   = 25 // days after the latest usual first frost in which it may still be saved
	liftedM      = 3.0
	carried      = 120.0 // litres of a pot that two people still move with a trolley
	LiftedCutM   = 0.3   // what is lifted is cut to this height
	TubersCutM   = 0.15  // for one that is stored as a tuber or root
	RockedOff    = 1.0 / 3
	yearsApart   = 2.8  // spread of a year's coldest night about its mean, °C
	soilShields  = 9.0  // by how much the soil round a crown that dies back into it stays milder than the air in a cold night, °C
	tuberShields = 6.0  // the same for tubers and fleshy roots, which lie shallow and full of water
	tuberC       = -3.0 // roots that bear less than this are such
	footShields  = 3.0  // the same for the foot of a stem that stands in it
	mulchAdds    = 3.0  // and under a mulch
	clumpShields = 6.0  // the same for the crown of an evergreen perennial, that stands at the surface in its own leaves
	potShields   = 0.8  // a pot's roots stay milder than a cold night by this for each e-fold of its litres over potLeast,
	potLeast     = 10.0
	potMost      = 3.0 // and by no more than this, °C
)

// Autumn is the span about the first frosts of the coming winter in which tender plants are brought to safety. ok is
// false where frost is rare.
func Autumn(y *season.Year, today day.Day) (from, to day.Day, ok bool) {
	midwinter := y.Normals.Climate.Midwinter(today)
	if today > midwinter && today < midwinter+150 {
		return 0, 0, false
	}
	of := today
	if today <= midwinter { // the garden year that begins in autumn asks for the frost before its midwinter
		from, _ := y.Normals.Climate.GardenYear(today)
		of = from - 1
	}
	b, ok := y.FirstFrost(of, 0)
	if !ok {
		return 0, 0, false
	}
	return b.Early - beforeFrost, b.Late + afterFrost, true
}

// ToShelter reports a plant that is to be lifted or taken in about this day, before the first frost: since is when
// that span began, so that a decision made in it settles it, before the first day on which one year in ten has had
// frost, winters the chance that it came through outside. It is the verdict lift and shelter without any check.
func ToShelter(p check.Plant, y *season.Year, today day.Day) (since, before day.Day, winters float64, ok bool) {
	from, to, comes := Autumn(y, today)
	winters = Winters(p, y.Normals.Climate.ExtremeMinC)
	ok = comes && today >= from && today <= to && winters < 0.5 && ComesIn(p, &y.Normals.Climate)
	return from, from + beforeFrost, winters, ok
}

// Treelike forms are too large and deep-rooted to be lifted or tied up once they stand.
func Treelike(f catalogue.Form) bool {
	return f == catalogue.Tree || f == catalogue.Conifer || f == catalogue.Palm
}

// Liftable reports a plant that is small enough to be lifted, or stands in a pot that can be carried.
func Liftable(p check.Plant) bool {
	if p.Species.Annual {
		return false // nobody carries one through a winter
	}
	if p.PotL > 0 {
		return p.PotL <= carried
	}
	return !Treelike(p.Species.Form) && p.HeightM <= liftedM
}

// Winters is the chance that a plant comes through a winter whose coldest night is a climate's mean, from what its wood
// bears; what dies back and comes from a crown in the soil has that to shield it, and a pot's roots have little.
func Winters(p check.Plant, extremeMinC float64) float64 {
	sp := p.Species
	bears := sp.HardinessC
	shield := shielded(&p)
	if roots := sp.RootHardinessC - shield; p.PotL > 0 {
		bears = max(bears, roots) // the weaker of both decides
	} else if sp.HardPruning == catalogue.FromBase || sp.Form == catalogue.Perennial {
		bears = min(bears, roots) // it may come again from below
	}
	return distuv.Normal{Mu: 0, Sigma: yearsApart}.CDF(extremeMinC - bears)
}

// shielded is by how much the roots and crown of a plant stay milder than the air in a cold night, °C.
func shielded(p *check.Plant) (c float64) {
	sp := &p.Species
	switch {
	case p.PotL > 0:
		c = max(0, min(potMost, potShields*math.Log(p.PotL/potLeast)))
	case sp.LeafSeason == catalogue.Herbaceous && sp.RootHardinessC > tuberC:
		c = tuberShields
	case sp.LeafSeason == catalogue.Herbaceous:
		c = soilShields
	case sp.Form == catalogue.Perennial:
		c = clumpShields
	default:
		c = footShields
	}
	if p.Mulched {
		c += mulchAdds
	}
	return c
}

// LiftedLives is the chance that a lifted plant lives to go out again: young and soft ones root anew, old wood hardly.
func LiftedLives(p check.Plant) float64 {
	c := map[catalogue.Form]float64{catalogue.Perennial: 0.85, catalogue.Subshrub: 0.75, catalogue.Climber: 0.6, catalogue.Shrub: 0.65,
		catalogue.Tree: 0.4, catalogue.Conifer: 0.4, catalogue.Palm: 0.5}[p.Species.Form]
	if p.PotL > 0 {
		return 0.9 // its roots stay as they are
	}
	if p.HeightM > 1.5 {
		c -= 0.1
	}
	if p.Years >= 6 {
		c -= 0.15
	}
	return max(0.1, c)
}
