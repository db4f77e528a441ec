package cause

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// SiteOf is what a climate tells of a place for a day.
func SiteOf(n *season.Normals, d day.Day) Site {
	return Site{Known: true, MeanC: n.Mean(d), ColdC: n.Climate.ExtremeMinC, Region: n.Climate.Region()}
}

// Usual means of a month, °C, from which on what lives is at work whatever the month is called.
const (
	insectsC   = 14.0
	fungiC     = 11.0
	shortageC  = 9.0
	heatMeanC  = 24.0
	droughtC   = 14.0
	frostMeanC = 18.0 // in a month this warm there was no frost of late
	growsC     = 8.0  // an evergreen pushes
	frostlessC = 4.0  // coldest night of the year above which frost is no trouble
	hardySpare = 10.0 // a kind that bears this much more than the place has, °C, is seldom hurt by it
)

// inMonth reports whether a cause can be at work in a month of the northern year.
func (c *Cause) inMonth(month int) bool {
	if len(c.When) == 0 {
		return true
	}
	if c.When[0] <= c.When[1] {
		return month >= c.When[0] && month <= c.When[1]
	}
	return month >= c.When[0] || month <= c.When[1]
}

// inSeason reports whether a cause can be at work: by the warmth that woke it where that is known, by the month, and by
// the year of the place, which may have no winter. Warmth counts in the first half of the year alone; in autumn all are
// awake until their months end.
func (c *Cause) inSeason(k Case) bool {
	if c.grows(k) {
		return true
	}
	if c.Way.Warmth > 0 && k.Warmth > 0 && k.Month <= 6 {
		last := 12
		if len(c.When) == 2 && c.When[0] <= c.When[1] {
			last = c.When[1]
		}
		return k.Warmth >= c.Way.Warmth && k.Month <= last
	}
	return c.inMonth(k.Month)
}

// grows reports that the place is warm enough in this month for a cause, whatever the month is called.
func (c *Cause) grows(k Case) bool {
	if !k.Site.Known {
		return false
	}
	mean := k.Site.MeanC
	evergreen := k.Species != nil && k.Species.LeafSeason == catalogue.Evergreen
	switch c.Group {
	case "insect", "mite", "helper":
		return mean >= insectsC
	case "fungus", "bacterium", "plant", "animal":
		return mean >= fungiC
	case "shortage":
		return mean >= shortageC && (evergreen || mean >= insectsC)
	}
	switch c.ID {
	case "heat", "sunscald-leaf":
		return mean >= heatMeanC
	case "drought":
		return mean >= droughtC
	case "frost-on-growth":
		return evergreen && mean >= growsC && mean <= frostMeanC
	}
	return false
}

// here is how likely a cause is at the place beside elsewhere: by the part of the world, and frost by what the kind
// bears.
func (c *Cause) here(k Case) float64 {
	if !k.Site.Known {
		return 1
	}
	f := 1.0
	if len(c.Home) > 0 && k.Site.Region != "" && !slices.Contains(c.Home, k.Site.Region) {
		f = abroad
	}
	if c.Warm != 0 && k.Site.ColdC < c.Warm {
		f *= abroad
	}
	f *= c.shed(k)
	if c.ID == "want-of-chill" && k.Site.ColdC > mildWinter {
		f *= tender
	}
	if c.Group != "weather" || !slices.Contains(frosts, c.ID) {
		return f
	}
	if k.Site.ColdC > frostlessC {
		return f * frostless
	}
	if k.Site.MeanC > frostMeanC && !slices.Contains(k.Seen, "was_frost") {
		f *= longPast
	}
	if e := k.Species; e != nil && c.ID != "frost-on-growth" {
		bears := e.HardinessC
		if e.LeafSeason == catalogue.Evergreen && e.LeafHardinessC != 0 {
			bears = max(bears, e.LeafHardinessC)
		}
		switch {
		case bears > k.Site.ColdC-2:
			return f * tender
		case bears < k.Site.ColdC-hardySpare && c.ID == "frost-in-winter":
			return f * hardy
		}
	}
	return f
}

// shed is how much likelier it is that leaves fall as they do each year: of what is bare in winter from autumn on.
func (c *Cause) shed(k Case) float64 {
	if c.ID != "old-age-leaves" || k.Species == nil || k.Species.LeafSeason == catalogue.Evergreen {
		return 1
	}
	last := 1
	if k.Site.ColdC > mildWinter {
		last = 3 // where winter is mild or dry it is bare late
	}
	if k.Month >= 10 || k.Month <= last {
		return sheds
	}
	return 1
}

var frosts = []string{
	"frost-on-growth",
	"frost-in-winter",
	"winter-drying",
	"frost-crack",
	"root-freeze",
	"winter-colour",
}

// Factors on a cause's odds by its place.
const (
	abroad     = 0.1  // where it is not known to live
	frostless  = 0.02 // of frost where there is none
	tender     = 2.5  // of frost on what the coldest night of a usual year hurts
	hardy      = 0.4  // and on what bears much more
	longPast   = 0.2  // of frost in a warm month
	sheds      = 12.0
	mildWinter = 0.0 // coldest night of the year, °C
)
