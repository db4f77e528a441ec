package cause

import (
	"maps"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
)

// Lately is the weather of the weeks before a day, as far as it bears on what is seen on plants.
type Lately struct {
	Days   int     // observed of the last 30; under 10 nothing is said
	MinC   float64 // coldest of the last 30 days
	MaxC   float64 // hottest of the last 21 days
	Rain30 float64 // mm in 30 days
	Rain21 float64 // mm in 21 days
	Wet14  int     // days with more than 1 mm in the last 14
	Mildew int     // days of the last 21 that were warm and close, without rain on the leaf
	Gale   bool    // a gale in the last 30 days
	Drying bool    // a spell of cold drying wind in the last 90 days
}

// Days of mildew weather: warm and close, and no rain to wash the leaf.
const (
	mildewFromC = 18.0
	mildewToC   = 27.0
	closeRH     = 60.0 // mean relative humidity, %
	leafDryMM   = 1.0
	galeMS      = 17.0
)

// LatelyOf sums up hours up to the end of a day.
func LatelyOf(hours []weather.Hour, zone *time.Location, today day.Day) Lately {
	type sum struct {
		n              float64
		temp, rh, rain float64
		min, max       float64
		gale           bool
	}
	days := map[day.Day]*sum{}
	for _, h := range hours {
		d := day.FromTime(h.Time.In(zone))
		if d <= today-30 || d > today {
			continue
		}
		s := days[d]
		if s == nil {
			s = &sum{min: h.TempC, max: h.TempC}
			days[d] = s
		}
		s.n++
		s.temp, s.rh, s.rain = s.temp+h.TempC, s.rh+h.RHPct, s.rain+h.RainMM
		s.min, s.max, s.gale = min(s.min, h.TempC), max(s.max, h.TempC), s.gale || h.WindMS >= galeMS
	}
	out := Lately{Days: len(days), MinC: 99, MaxC: -99}
	for _, d := range slices.Sorted(maps.Keys(days)) {
		s := days[d]
		ago := today.Sub(d)
		out.MinC, out.Rain30, out.Gale = min(out.MinC, s.min), out.Rain30+s.rain, out.Gale || s.gale
		if ago < 14 && s.rain > leafDryMM {
			out.Wet14++
		}
		if ago >= 21 {
			continue
		}
		out.MaxC, out.Rain21 = max(out.MaxC, s.max), out.Rain21+s.rain
		if mean := s.temp / s.n; mean >= mildewFromC && mean <= mildewToC && s.rh/s.n >= closeRH && s.rain < leafDryMM {
			out.Mildew++
		}
	}
	return out
}

// Limits from which weather of the last weeks is said to have been something, or not to have been.
const (
	fewDays     = 10
	frostC      = -0.5
	noFrostC    = 3.0
	heatC       = 33.0
	noHeatC     = 28.0
	dryMM       = 12.0 // of 30 days
	notDryMM    = 60.0
	wetDays     = 8    // of 14
	drizzleMM   = 40.0 // of 21 days: less, however often, is no wet spell
	wetMM       = 90.0
	notWetMM    = 20.0
	mildewSpell = 5
)

// Signs are what the weather answers by itself: there, or not there. What lies between is left to be asked.
func (l Lately) Signs() map[string]bool {
	out := map[string]bool{}
	if l.Drying {
		out["was_dry_wind"] = true
	}
	if l.Days < fewDays {
		return out
	}
	said := func(sign string, yes, no bool) {
		if yes || no {
			out[sign] = yes
		}
	}
	said("was_frost", l.MinC <= frostC, l.MinC >= noFrostC)
	said("was_heat", l.MaxC >= heatC, l.MaxC < noHeatC)
	said("was_dry", l.Days >= 25 && l.Rain30 < dryMM && l.MaxC > 15, l.Rain30 > notDryMM)
	said("was_wet", l.Wet14 >= wetDays && l.Rain21 >= drizzleMM || l.Rain21 >= wetMM, l.Days >= 20 && l.Rain21 < notWetMM)
	said("mildew_days", l.Mildew >= mildewSpell, l.Mildew == 0)
	if !l.Gale {
		return out // hail falls without a gale: nothing is said
	}
	out["was_hail"] = true
	return out
}

// Spot is what the record knows of where a plant stands and what was done there.
type Spot struct {
	Wet        bool
	Sun        float64 // 0 shade to 1 sun all day; below 0 not known
	PotL       float64 // 0 in the ground
	HeightM    float64
	Years      int  // since planted; 0 not known
	CutHard    bool // cut to the base or cut back within the year
	NeighbourC bool // a plant beside it was cut back or taken out within the year
	Thirsty    bool // a big thirsty plant within its roots' reach
	PotFrozen  bool // a freeze of the last months went through its pot
}

// FreezesThrough reports a night that goes through a pot to its roots.
func FreezesThrough(nightC, potL float64) bool {
	return potL > 0 && potL < frozenPotL && nightC <= frozenPotC
}

// ShadedBy reports a neighbour on the way round whose cut changes a plant's light: one stop off at most, and plainly taller.
func ShadedBy(stop, neighbourStop int, heightM, neighbourM float64) bool {
	apart := max(neighbourStop-stop, stop-neighbourStop)
	return stop > 0 && neighbourStop > 0 && apart <= 1 && neighbourM > heightM+tallerBy
}

const (
	deepShade   = 0.2
	potMetre    = 40.0 // litres a plant of one metre does well in; a quarter of that is small
	youngYears  = 2
	settled     = 5 // years from which on it is certainly no new planting
	fullSun     = 0.6
	smallPotPer = 0.25
	frozenPotC  = -5.0 // a night that goes through a small pot
	frozenPotL  = 40.0
	tallerBy    = 0.5 // metres a neighbour has to be taller by for its cut to change the light
)

// Signs are what the record answers of the place and the work.
func (s Spot) Signs() map[string]bool {
	out := map[string]bool{}
	for sign, is := range map[string]bool{"water_stands": s.Wet, "cut_hard": s.CutHard, "neighbour_cut": s.NeighbourC, "big_neighbour": s.Thirsty,
		"pot_frozen": s.PotFrozen} {
		if is {
			out[sign] = true
		}
	}
	if s.Sun >= 0 && s.Sun <= deepShade {
		out["deep_shade"] = true
	} else if s.Sun >= fullSun {
		out["deep_shade"] = false
	}
	if s.PotL > 0 && s.PotL < smallPotPer*potMetre*s.HeightM {
		out["pot_small"] = true
	} else if s.PotL == 0 {
		out["pot_small"], out["pot_frozen"] = false, false
	}
	switch {
	case s.Years > 0 && s.Years <= youngYears:
		out["planted_lately"] = true
	case s.Years >= settled:
		out["planted_lately"] = false
	}
	return out
}
