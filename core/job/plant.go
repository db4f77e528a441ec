package job

import (
	_ "embed"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job/reason"
	"mezzadro/core/season"
	"mezzadro/core/written"
)

// When something is planted: while the soil is open and moist, and long enough before the season that is hard on it.
const (
	rootsHotC    = 22.0 // mean daily maximum from which new plants root badly, °C
	rootsHotEach = 7.0  // points for each °C above
	wetFromMM    = 80.0 // rain of a month from which heat does less harm where it is so many times the usual one,
	wetFrom      = 1.4
	wetAllMM     = 170.0 // and at which it does none: one plants with the rains
	wetAll       = 2.2
	newFrost     = 70.0 // points that a certain hard frost costs what is newly planted and tender
	spareC       = 12.0 // °C to spare in a usual winter from which winter does new plants no harm
	winterFelt   = 165  // days before midwinter from which a tender kind has ever less time to root before it,
	firstWinter  = 110  // and from which it is no longer planted
	winterGone   = 60   // and after it until which it is not yet
	winterCosts  = 45.0 // points where it has nothing to spare
	leafyShare   = 0.4  // of it for evergreens, which go on drinking
	setOutNights = 14   // in which no frost may come on what the first frost kills
	annualDays   = 70   // in which what lives for one season gives something,
	annualCosts  = 60.0
	restC        = 5.5 // mean of days under which roots stand still, °C
	restEach     = 14.0
	bulbsRestC   = 0.5  // the same for bulbs
	palmSoilC    = 18.0 // mean of days from which palms root, °C
	palmEach     = 6.0
	palmHeat     = 0.1 // of what heat costs others
	dryDays      = 75  // that are looked ahead for a dry hot season
	dryMM        = 60.0
	dryHotC      = 27.0
	dryCosts     = 20.0
	slowWinterC  = -2.0 // mean of the coldest month under which kinds that root slowly wait for spring,
	slowFrom     = 125  // days before midwinter from which they do
	slowCosts    = 45.0
	heatBorne    = 9.0  // °C by which desert kinds root in more heat
	frostedC     = -6.0 // what bears less is set out when nights without frost are to come
	bulbsCoolC   = 17.0 // mean of days under which spring bulbs root without starting, °C
	bulbsEach    = 8.0
	bulbsSold    = 215 // days from midwinter on which dry bulbs are to be had again, until
	bulbsGone    = 20  // so many days after the next
	inGreen      = 45  // days from the end of bloom in which some are moved in leaf
	rhizomesFrom = 30  // and from which rhizomes are set,
	rhizomesFor  = 75  // for so many days
)

//go:embed data/planting.yaml
var plantingYAML []byte

// seasons are the kinds that keep a planting season of their own, by genus or catalogue id. It panics when the shipped
// data is broken: a test loads it.
var seasons = sync.OnceValue(func() (out struct {
	Slow   []string           `yaml:"slow"`
	Heat   []string           `yaml:"heat"`
	Green  []string           `yaml:"green"`
	Summer []string           `yaml:"summer"`
	Bulbs  map[string]float64 `yaml:"bulbs"`
}) {
	if err := written.Read(plantingYAML, &out); err != nil {
		panic("core/job/data/planting.yaml: " + err.Error())
	}
	return out
})

// ownSeason is what planting a kind goes by that is its own.
type ownSeason struct {
	slow, heat, green, summer bool
	bulbsC                    float64 // mean of days under which its dry bulbs are set, °C
}

func seasonOf(sp *catalogue.Entry) ownSeason {
	out := ownSeason{bulbsC: bulbsCoolC}
	if sp == nil {
		return out
	}
	all := seasons()
	out.slow, out.heat, out.green, out.summer = sp.In(all.Slow), sp.In(all.Heat), sp.In(all.Green), sp.In(all.Summer)
	if c, known := all.Bulbs[sp.Genus()]; known {
		out.bulbsC = c
	}
	return out
}

func (w *frame) replace() {
	sp, rests := w.species, restC
	w.own = seasonOf(sp)
	if sp != nil && sp.Stems == catalogue.Bulb {
		rests = bulbsRestC
	}
	w.curve.Because(
		reason.Why{Name: "cold soil", Text: "roots stand still, or the soil is frozen", On: func(d day.Day) reason.Cost {
			return reason.Points(restEach * (rests - w.Year.Normals.Mean(d)))
		}},
		w.newlyFrosted(),
		reason.Why{Name: "winter", Text: "it would go into its first winter without roots of its own", On: w.beforeWinter},
		reason.Why{Name: "slow roots", Text: "it roots slowly in cooling ground that soon freezes: in spring", On: w.slowRoots},
		reason.Why{Name: "heat", Text: "new plants root badly in heat and need daily water", On: w.heatOnNew},
		reason.Why{Name: "dry season", Text: "the dry months come before it has rooted", On: func(d day.Day) reason.Cost {
			if (sp == nil || sp.Form != catalogue.Palm) && w.dryAhead(d) {
				return reason.Points(dryCosts)
			}
			return reason.Cost{}
		}},
	)
	switch {
	case sp == nil:
	case w.forOneSeason():
		w.curve.Because(reason.Frost("frost comes before it has given much", annualCosts, w.frostWithin(w.made, annualDays, 0)))
	case sp.Form == catalogue.Palm:
		w.curve.Because(reason.Why{Name: "palm", Text: "palms root in warm soil alone", On: func(d day.Day) reason.Cost {
			return reason.Points(palmEach * (palmSoilC - w.Year.Normals.Mean(d)))
		}})
	case sp.Stems == catalogue.Bulb && w.springBulb():
		w.curve.Because(reason.Why{Name: "bulbs", Text: "dry bulbs are set when the soil has cooled", On: w.bulbs})
	}
}

// tender is how little a kind has to spare in a usual winter: 1 nothing, 0 spareC or more.
func (w *frame) tender() float64 {
	if w.species == nil {
		return 0
	}
	return max(0, min(1, 1-(w.Year.Normals.Climate.ExtremeMinC-w.species.HardinessC)/spareC))
}

// forOneSeason reports a kind that the first frost kills, and that is grown for a season.
func (w *frame) forOneSeason() bool {
	return w.species != nil && w.species.Stems == catalogue.AnnualStem && w.species.HardinessC > season.KillingFrostC
}

// fromMidwinter are the days from the nearest midwinter, before it below 0.
func (w *frame) fromMidwinter(d day.Day) int {
	since := d.Sub(w.Year.Normals.Climate.Midwinter(d))
	if since > midsummer {
		since -= 2*midsummer + 1
	}
	return since
}

// beforeWinter is what it costs a tender kind to go into its first winter just planted.
func (w *frame) beforeWinter(d day.Day) reason.Cost {
	since := w.fromMidwinter(d)
	if since < -winterFelt || since > winterGone || w.forOneSeason() {
		return reason.Cost{}
	}
	full := min(1, float64(winterFelt+since)/(winterFelt-firstWinter))
	return reason.Points(winterCosts * full * (2*w.tender() - 1))
}

// slowRoots is what autumn costs kinds that root slowly, where the ground freezes hard.
func (w *frame) slowRoots(d day.Day) reason.Cost {
	since := w.fromMidwinter(d)
	if !w.own.slow || since < -slowFrom || since > winterGone || w.Year.Normals.Climate.ColdestMonthC() >= slowWinterC {
		return reason.Cost{}
	}
	return reason.Points(slowCosts)
}

// afterBloom reports a day so many days after the end of this or last year's bloom.
func (w *frame) afterBloom(d day.Day, from, to int) bool {
	end := w.species.Dates(w.Year, w.winter+60).BloomEnd.Mid
	since := ((d.Sub(end) % 365) + 365) % 365
	return since >= from && since <= to
}

// newlyFrosted is what a hard frost costs what is newly planted: all where the kind has no degree to spare in a usual
// winter, nothing where it has many and rests.
func (w *frame) newlyFrosted() reason.Why {
	const text = "hard frost may still hurt what is newly planted"
	if w.species == nil {
		return reason.Frost(text, newFrost, w.frostWithin(w.made, frostMatters, season.KillingFrostC))
	}
	sp := w.species
	if w.forOneSeason() {
		return reason.Frost("a frost kills it: it is set out after the last one", 100, w.frostWithin(w.made, setOutNights, 0))
	}
	share := w.tender()
	switch {
	case sp.Stems == catalogue.Bulb, sp.LeafSeason == catalogue.Herbaceous && share < 1:
		share = 0
	case sp.LeafSeason == catalogue.Evergreen && sp.Form != catalogue.Perennial:
		share = max(share, leafyShare)
	}
	limit := season.KillingFrostC
	if share == 1 && sp.HardinessC > frostedC {
		limit = 0
	}
	return reason.Frost(text, newFrost*share, w.frostWithin(w.made, frostMatters, limit))
}

// heatOnNew is what a day's usual heat costs: less where rain falls with it, little for palms.
func (w *frame) heatOnNew(d day.Day) reason.Cost {
	n := w.Year.Normals
	usual := n.Climate.YearRainMM() / 12
	from, all := max(wetFromMM, wetFrom*usual), max(wetAllMM, wetAll*usual)
	dry := 1 - max(0, min(1, (30*n.Rain.At(d)-from)/(all-from)))
	if w.species != nil && w.species.Form == catalogue.Palm {
		dry *= palmHeat
	}
	hot := rootsHotC
	switch {
	case w.own.heat:
		hot += heatBorne
	case w.own.summer && w.afterBloom(d, rhizomesFrom, rhizomesFrom+rhizomesFor):
		return reason.Cost{}
	}
	return reason.Points(rootsHotEach * dry * (n.TMax.At(d) - hot))
}

// dryAhead reports that hot months with hardly any rain come within dryDays.
func (w *frame) dryAhead(d day.Day) bool {
	n, rain, hot := w.Year.Normals, 0.0, 0.0
	for i := range day.Day(dryDays) {
		rain += max(0, n.Rain.At(d+i))
		hot += n.TMax.At(d + i)
	}
	return rain < dryMM && hot/dryDays >= dryHotC
}

// springBulb reports a bulb that blooms before midsummer.
func (w *frame) springBulb() bool {
	dates := w.species.Dates(w.Year, w.winter+60)
	return dates.Blooms && dates.BloomStart.Mid < w.winter+midsummer
}

// bulbs is what a day costs dry bulbs: they are sold from late summer on, and rest warm until then.
func (w *frame) bulbs(d day.Day) reason.Cost {
	since := d.Sub(w.Year.Normals.Climate.Midwinter(d))
	if w.own.green && w.afterBloom(d, 0, inGreen) {
		return reason.Cost{}
	}
	if since > bulbsGone && since < bulbsSold {
		return reason.Points(60)
	}
	return reason.Points(bulbsEach * (w.Year.Normals.Mean(d) - w.own.bulbsC))
}
