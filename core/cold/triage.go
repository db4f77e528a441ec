package cold

import (
	"fmt"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/weather"
)

// Look is how pressing it is to look at a plant after a freeze.
type Look struct {
	BeyondC  float64 // how far the freeze went below what the wood bore that day, °C; negative: stayed above
	BudsC    float64 // the same for buds
	WoodC    float64 // what the wood bore that day, °C
	Expected string  // "wood", "buds" or "nothing": what is likely hurt
	Reason   string
}

// nearMissC is how close to what buds bear a freeze still makes a look worth while, °C: one plant stands colder than
// the next.
const nearMissC = 1.5

// Triage says how far a freeze went below a species' hardiness on the day it struck, and why in words.
func Triage(e catalogue.Entry, share float64, f weather.Freeze, on day.Day) Look {
	l := Look{WoodC: WoodKillC(e.HardinessC, share)}
	l.BeyondC = l.WoodC - f.MinC
	l.BudsC = BudKillC(e.HardinessC, share) - f.MinC
	bore := Degrees(l.WoodC)
	if e.HardinessC < UnhardenedC {
		bore += fmt.Sprintf(", %s in midwinter", Degrees(e.HardinessC))
	}
	if e.Form == catalogue.Palm {
		l.BudsC = l.BeyondC // no buds but the one inside the trunk
	}
	at := fmt.Sprintf("%s on %s", Degrees(f.MinC), on.Words())
	switch {
	case l.BeyondC > 0:
		l.Expected = "wood"
		l.Reason = fmt.Sprintf("%s: %.1f °C below what its wood bore that day (%s).", at, l.BeyondC, bore)
	case l.BudsC > 0:
		l.Expected = "buds"
		l.Reason = fmt.Sprintf("%s: %.1f °C below what its buds bore that day (wood %s).", at, l.BudsC, bore)
	case l.BudsC > -nearMissC:
		l.Expected = "buds"
		l.Reason = fmt.Sprintf("%s: came within %.1f °C of what its buds bore that day (wood %s).", at, max(0.1, -l.BudsC), bore)
	default:
		l.Expected = "nothing"
		l.Reason = fmt.Sprintf("%s: stayed %.1f °C above what its buds bore that day (wood %s).", at, -l.BudsC, bore)
	}
	return l
}

// Degrees writes a temperature with one figure after the point and a true minus sign.
func Degrees(c float64) string {
	return strings.Replace(fmt.Sprintf("%.1f °C", c), "-", "−", 1)
}

// Story tells a freeze in one sentence.
func Story(f weather.Freeze) string {
	s := fmt.Sprintf("Down to %s, %d h below 0 °C", Degrees(f.MinC), f.HoursBelow0)
	if f.FallC >= 5 {
		s += fmt.Sprintf(", the night minimum fell %.0f °C within three days", f.FallC)
	}
	switch {
	case f.BeforeOffC >= 2:
		s += fmt.Sprintf(", after a fortnight %.1f °C warmer than normal, which had woken plants", f.BeforeOffC)
	case f.BeforeOffC <= -2:
		s += fmt.Sprintf(", after a fortnight %.1f °C colder than normal", -f.BeforeOffC)
	}
	return s + "."
}
