package cold

import "mezzadro/core/catalogue"

// leavesBear is what the young leaves and shoots of a kind bear, °C: kinds of hard winters that open early in spring
// are made for frost; those that wait for warmth are not, nor are those of mild winters.
func leavesBear(e *catalogue.Entry) float64 {
	if e.LeafOut.Warmth <= 0 {
		return OpenGrowthC
	}
	early := max(0, softWarmth-e.LeafOut.Warmth) / warmthOfADegree
	northern := min(1, max(0, (mildWinterC-e.HardinessC)/(mildWinterC-hardWinterC)))
	return OpenGrowthC - min(mostDegrees, early)*northern
}

// justOpen is how much more leaves bear while they unfold, °C: small, and no shoot with them yet. It is lost over
// unfoldDays; kinds that come late and soft out of their buds have none of it.
func justOpen(e *catalogue.Entry, stage catalogue.Stage) float64 {
	early := min(1, max(0, softWarmth-e.LeafOut.Warmth)/warmthOfADegree)
	return justOpenC * early * max(0, 1-float64(stage.SinceLeafOut)/unfoldDays)
}

// Of leaves that unfold.
const (
	justOpenC  = 2.2
	unfoldDays = 14
)

// Kinds that leaf out at softWarmth or later bear no more than open flowers do, earlier ones a degree more for each
// warmthOfADegree: all of it where the kind bears hardWinterC, none where it bears no more than mildWinterC.
const (
	softWarmth      = 280
	warmthOfADegree = 40
	mostDegrees     = 4
	mildWinterC     = -26
	hardWinterC     = -30
)

// blossomBears is what the open flowers of a kind bear, °C.
func blossomBears(e *catalogue.Entry) float64 {
	if e.Flower == nil || e.Flower.BearsC == 0 {
		return OpenGrowthC
	}
	return e.Flower.BearsC
}

// topsBear is what the growing tops of a kind bear that dies back in winter, °C: those of tender kinds go black at
// the first frost.
func topsBear(e *catalogue.Entry) float64 {
	if e.HardinessC > tenderCrownC {
		return firstFrostC + 0.5 // their leaves radiate, and are colder than the air in a clear night
	}
	return -3.5
}

// Annuals are set out before they would leaf by themselves, and are dead a little after their leaves are. Tender
// crowns and tubers sprout when the soil is warm: some of them before their kind's date.
const (
	setOutDays   = 30
	annualDiesC  = 1.5
	hardyAnnualC = -3.0 // those that bear more are not taken by the first frost
	sproutsDays  = 10
)

// tenderAnnual reports a kind that lives for one season and ends with the first frost.
func tenderAnnual(e *catalogue.Entry) bool {
	return e.Stems == catalogue.AnnualStem && e.HardinessC > hardyAnnualC
}

// sprouts reports that a crown of the kind may stand in its first leaves, some days before it is due.
func sprouts(stage catalogue.Stage) bool {
	return stage.Leafing && stage.SinceLeafOut < 0 && stage.SinceLeafOut >= -sproutsDays
}

// tenderCrownC: kinds whose crown bears less than this come from where it never freezes for long, °C.
const tenderCrownC = -14
