package cold

import (
	"math"

	"mezzadro/core/catalogue"
)

// Old wood bears more than the tips: stem bases wake later and ripen more fully than the last shoots. How much, in °C
// for each tenfold of thickness, hangs on how fully a kind rests: agedTender where it hardly does, agedHardy where
// winters make it, once it rests: in autumn the base is the last to ripen.
const (
	agedTender  = 2.4
	agedHardy   = 3.2
	agedTenderC = -12.0
	agedHardyC  = -16.0
)

// aged is how much more old wood of a kind bears than its tips, °C for each tenfold of thickness, when the kind is
// hardened by a share.
func aged(e *catalogue.Entry, hardened float64) float64 {
	rests := max(0, min(1, (agedTenderC-e.HardinessC)/(agedTenderC-agedHardyC)))
	return agedTender + (agedHardy-agedTender)*rests*hardened
}

// Shrubs of the height of a person that bloom on this year's wood into autumn and come again from the base grow until
// frost, so that their ends never ripen: these bear unripeShare less than the kind's wood, which is ripe from ripeMM
// on. Kinds of hard winters end their growth in time.
const (
	unripeShare = 0.35
	ripeMM      = 10.0
	unripeFromC = -8.0 // kinds that bear less than this are tender as a whole
	unripeToC   = -36.0
	unripeHighM = 3.2

	lateBloomWarmth = 1500 // bloom begins in late summer
	longBloomDays   = 100  // or goes on until then
)

// unripe is how much less the ends of a kind bear than its ripe wood, hardened by a share, °C.
func unripe(e *catalogue.Entry, hardened float64) float64 {
	grows := e.Bloom.Habit == "new wood" || e.Bloom.Habit == "repeat rose"
	late := e.Bloom.Start.Warmth >= lateBloomWarmth || e.Bloom.End.Days >= longBloomDays
	if !grows || !late || e.HardPruning != catalogue.FromBase || e.LeafSeason == catalogue.Evergreen ||
		e.HardinessC > unripeFromC || e.Mature.HeightM > unripeHighM {
		return 0
	}
	south := max(0, min(1, (e.HardinessC-unripeToC)/8))
	return -unripeShare * south * hardened * e.HardinessC
}

// ripeness is how the wood of a plant differs from its tips to its base.
type ripeness struct {
	unripeC float64 // how much less the ends bear than ripe wood, °C
	agedC   float64 // how much more old wood bears, °C for each tenfold of thickness
	stretch float64 // by how much more the wood of a small plant ages with its thickness than that of a tree
}

// oldBase is how old the base of a plant is at least, in tenfolds of thickness: that of a low shrub is thin, not young.
const oldBase = 1.0

// stretch is how much more the wood of a plant ages with its thickness than that of a tree, 1 or more.
func (p *Plant) stretch() float64 { return max(1, oldBase/math.Log10(p.Thickness(0)/tips)) }

// killAt is the temperature at which half of the wood of a thickness dies, when the ends die at kill °C.
func (r ripeness) killAt(kill, mm float64) float64 {
	thick := math.Log10(max(tips, mm) / tips)
	return kill - r.agedC*r.stretch*thick - r.unripeC*min(1, thick/math.Log10(ripeMM/tips))
}

// thickest is the thickest wood, mm, half of which dies when the ends die at kill °C.
func (s *Struck) thickest(kill float64, r ripeness) float64 {
	spare := func(k int) float64 { return s.tissue[k] - r.killAt(kill, rungs[k]) } // rises with thickness
	if spare(0) > 0 {
		return 0
	}
	for k := 1; k < len(rungs); k++ {
		if spare(k) > 0 {
			w := -spare(k-1) / (spare(k) - spare(k-1))
			return rungs[k-1] * math.Pow(rungs[k]/rungs[k-1], w)
		}
	}
	return rungs[len(rungs)-1]
}

// dieback is the share of the height over which the stem is no thicker than mm.
func (p *Plant) dieback(mm float64) float64 {
	base := p.Thickness(0)
	return max(0, min(1, (mm-tips)/(base-tips)))
}
