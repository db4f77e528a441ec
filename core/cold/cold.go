// Package cold answers what a freeze, a drying wind, a heat spell, a gale or a wet spell did to plants before anyone
// looks.
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

import "math"

// Starting values of the model, to be calibrated.
const (
	BudsTenderC  = 2    // hardened buds bear this much less than wood, °C
	UnhardenedC  = -2.5 // what woody plants bear in growth, °C
	UnhardenedTC = -1   // what tender plants bear at any time, °C
	OpenGrowthC  = -2   // what open blossom and new shoots bear, however hardened the rest is, °C
	Steepness    = 0.9  // how many °C lie between a little and much injury
	LeavesC      = 0.5  // an evergreen's leaves bear this much less than its wood, °C
	SoftDays     = 60   // how long after leaf-out shoots are still soft
)

// injury is the share of a tissue killed at t °C when half dies at kill °C.
func injury(t, kill float64) float64 { return 1 / (1 + math.Exp((t-kill)/Steepness)) }
