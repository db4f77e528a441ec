// Package night is what is done on the eve of a freeze: which plants are covered, carried in or mulched first, by what
// is saved in a minute of work. It rests on a forecast, and is as sure as that.
package night

import (
	"cmp"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
)

// What is done before a freeze.
const (
	Cover   = "cover"
	CarryIn = "carry in"
	Mulch   = "mulch"
)

// Plant is one at a place, with where its growth stands in that night.
type Plant struct {
	ID int64
	cold.Case
	Stage catalogue.Stage
}

// Act is what is done for a plant before the night.
type Act struct {
	Plant   int64
	Do      string
	Minutes int     // an estimate
	Saves   float64 // what is likely not lost for it: severity, by value, size and number
	Without float64 // severity of what the night does to it as it stands, 0 unhurt to 1 lost
	With    float64 // and once that is done
	Worst   string  // the organ that is hurt worst as it stands
}

// How far covering goes: two layers of fleece or cloth to the ground.
const (
	coverC     = 3.0 // °C that it keeps tissue warmer
	coverMostM = 3.0 // what is taller is not covered from the ground
	carryMostL = 90  // what two people carry
)

// From how badly a plant is hurt an evening's work is worth it: new leaf and shoots are outgrown, buds and blossom are a
// year's.
const (
	worthFrom = 0.05
	softFrom  = 0.2
)

func worth(o *cold.Outcome) bool {
	switch o.Worst.Organ {
	case cold.Shoots, cold.Leaves, cold.Tops:
		return o.Severity >= softFrom
	}
	return o.Severity >= worthFrom
}

// Watch names what is done for each plant that a night will likely hurt, as far as it helps: what saves most in a
// minute first.
func Watch(e *cold.Struck, plants []Plant) []Act {
	out := []Act{}
	covered := e.Under(coverC)
	for i := range plants {
		if a, helps := best(e, covered, &plants[i]); helps {
			out = append(out, a)
		}
	}
	slices.SortStableFunc(out, func(a, b Act) int {
		return cmp.Or(
			cmp.Compare(b.Saves/float64(b.Minutes), a.Saves/float64(a.Minutes)),
			cmp.Compare(a.Plant, b.Plant),
		)
	})
	return out
}

// best is what saves most in a minute of what can be done for a plant.
func best(e, covered *cold.Struck, p *Plant) (out Act, helps bool) {
	o := e.Meet(&p.Plant, p.Stage)
	if !worth(&o) {
		return out, false
	}
	try := func(do string, minutes float64, with float64) {
		a := Act{
			Plant:   p.ID,
			Do:      do,
			Minutes: int(math.Ceil(minutes)),
			Without: o.Severity,
			With:    with,
			Worst:   o.Worst.Organ,
		}
		a.Saves = (o.Severity - with) * p.dear()
		if o.Severity-with >= worthFrom && (!helps || a.Saves*float64(out.Minutes) > out.Saves*float64(a.Minutes)) {
			out, helps = a, true
		}
	}
	n := float64(max(1, p.Count))
	if p.PotL > 0 && p.PotL <= carryMostL {
		try(CarryIn, n*(3+p.PotL/12), 0)
	}
	if p.HeightM <= coverMostM {
		under := covered.Meet(&p.Plant, p.Stage)
		try(Cover, n*(4+3*p.HeightM*math.Max(0.3, p.SpreadM)), under.Severity)
	}
	if p.PotL == 0 && !p.Mulched {
		mulched := p.Plant
		mulched.Mulched = true
		under := e.Meet(&mulched, p.Stage)
		try(Mulch, n*(3+2*math.Pow(math.Min(1.5, math.Max(0.3, p.SpreadM)), 2)), under.Severity)
	}
	return out, helps
}

// dear is what the loss of a plant or group weighs.
func (p *Plant) dear() float64 {
	return max(0.5, p.Value) * float64(max(1, p.Count)) * (1 + 0.15*math.Log1p(p.HeightM*max(0.3, p.SpreadM)))
}
