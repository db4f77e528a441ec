// Package cold answers what a freeze, a drying wind, a heat spell, a gale or a wet spell did to plants before anyone looks.
//
// Plants harden as days shorten and cool, and lose it again in warm spells, sooner once their need for chill is met:
// the same −11 °C that a shrub shrugs off in mid January takes its buds after a warm February. Hardening depends on
// the place, not on the species, so it is worked out once for a place and used for every plant there. Wood lags the air
// by its thickness, so that a short frost takes buds and tips and a long one works down the wood. Roots stand in soil
// that changes slowly, or in pots that do not. Wind and sun over frozen soil dry leaves and twigs; that is told apart
// from cold, because plants hurt so are often alive at the base.
//
// The shape follows the dynamic thermal-time models of cold hardiness (Ferguson et al. 2011, Annals of Botany 107:389;
// 2014, American Journal of Enology and Viticulture 65:59). What comes out is an estimate to look by, not a finding.
package cold

import (
	"math"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Starting values of the model, to be calibrated.
const (
	HardenRate   = 0.012 // share a day and °C under 10 °C
	LoseDormant  = 0.003 // share a day and °C over 6 °C, before the chill need is met
	LoseReleased = 0.010 // the same, after
	Regain       = 0.5   // how fast plants harden again in late cold once their chill need is met, against autumn
	ChillNeedH   = 700   // hours between 0 and 7.2 °C after which warm days wake the plant
	DarkH        = 13    // daylength, hours, under which hardening begins
	BudsTenderC  = 2     // buds bear this much less than wood, °C
	UnhardenedC  = -2.5  // what woody plants bear in growth, °C
	UnhardenedTC = -1    // what tender plants bear at any time, °C
	OpenGrowthC  = -2    // what open blossom and new shoots bear, however hardened the rest is, °C
	Steepness    = 1.2   // how many °C lie between a little and much injury
	LeavesC      = 1     // an evergreen's leaves bear this much less than its wood, °C
	SoftDays     = 60    // how long after leaf-out shoots are still soft
)

// injury is the share of a tissue killed at t °C when half dies at kill °C.
func injury(t, kill float64) float64 { return 1 / (1 + math.Exp((t-kill)/Steepness)) }

// Hardiness is how hardened plants are at a place, by day, from 0 (in growth) to 1 (midwinter).
type Hardiness struct {
	from  day.Day
	share []float64
}

// Harden follows hardening from the end of summer before the garden year of d up to d.
func Harden(y *season.Year, d day.Day) Hardiness {
	c := y.Normals.Climate
	from := c.Midwinter(d) - 140 // late summer: nothing is hardened yet
	if from > d {
		from = d - 1
	}
	out := Hardiness{from: from, share: make([]float64, 0, d-from+1)}
	h, chill := 0.0, 0.0
	for x := from; x <= d; x++ {
		e, _ := y.Extremes(x)
		mean := (e.Min + e.Max) / 2
		chill += season.ChillHours(e.Min, e.Max)
		lose, harden := LoseDormant, HardenRate
		if chill >= ChillNeedH {
			lose, harden = LoseReleased, HardenRate*Regain
		}
		gain := 0.0
		if mean < 10 && season.Daylength(c.Latitude, x) < DarkH {
			gain = harden * (10 - mean) * (1 - h)
		}
		loss := 0.0
		if mean > 6 {
			loss = lose * (mean - 6) * h
		}
		h = max(0, min(1, h+gain-loss))
		out.share = append(out.share, h)
	}
	return out
}

// On is the hardened share on d; days outside the followed stretch take its nearest end.
func (h Hardiness) On(d day.Day) float64 {
	i := max(0, min(len(h.share)-1, int(d-h.from)))
	return h.share[i]
}

// WoodKillC is the temperature, °C, at which half the wood of a species dies when it is hardened by a share.
// midwinterC is the species' hardiness in midwinter, °C.
func WoodKillC(midwinterC, share float64) float64 {
	u := UnhardenedC
	if midwinterC > UnhardenedC {
		u = max(midwinterC, UnhardenedTC)
	}
	return u + share*(min(midwinterC, u)-u)
}

// BudKillC is the same for buds.
func BudKillC(midwinterC, share float64) float64 {
	return min(WoodKillC(midwinterC, share)+BudsTenderC, UnhardenedTC)
}
