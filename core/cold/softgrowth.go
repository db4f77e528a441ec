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
// unfoldDays; kinds that come late and soft out of their buds have none of it. Those that flower before or with their
// first leaves open these slowly, bloom taking what the wood has stored.
func justOpen(e *catalogue.Entry, stage catalogue.Stage) float64 {
	early := min(1, max(0, softWarmth-e.LeafOut.Warmth)/warmthOfADegree)
	since := float64(stage.SinceLeafOut)
	if flowersFirst(e) {
		early, since = max(early, leastSlow), since-slowDays
	}
	return justOpenC * early * max(0, min(1, 1-since/unfoldDays))
}

// flowersFirst reports a kind that sheds its leaves and flowers before the new ones or with them.
func flowersFirst(e *catalogue.Entry) bool {
	return e.LeafSeason == catalogue.Deciduous && e.Flower != nil && len(e.Flower.Colours) > 0 &&
		e.Bloom.OldWood >= budsCarried && e.Bloom.Start.Warmth > 0 && e.Bloom.Start.Warmth <= e.LeafOut.Warmth+withLeaves
}

// Of leaves that unfold.
const (
	justOpenC  = 2.2
	unfoldDays = 14
	slowDays   = 8
	leastSlow  = 0.7
	withLeaves = 110 // °C·days
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

// winterLeavesBear is what the leaves of an evergreen bear that is hardened by a share and whose wood bears woodC, °C.
func winterLeavesBear(e *catalogue.Entry, share, woodC float64) float64 {
	off := LeavesC
	if e.LeafHardinessC != 0 {
		off += leavesShare * max(0, e.LeafHardinessC-e.HardinessC-LeavesC) * share
	}
	return min(UnhardenedTC, woodC+off)
}

// leavesShare: how much of the difference between a kind's leaves and its wood shows as dead leaves; the rest is
// colour.
const leavesShare = 0.6

// grownLeavesBear is what leaves bear that are grown and will fall, °C: more than they did when young, and never less
// than the wood.
func grownLeavesBear(e *catalogue.Entry, woodC float64) float64 {
	if e.HardinessC > UnhardenedC {
		return UnhardenedTC
	}
	return max(leavesBear(e)-grownLeavesC, woodC)
}

// grownLeavesC is how much more grown leaves bear than young ones, °C.
const grownLeavesC = 1.5

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
