package damage

import (
	"fmt"
	"math"

	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/outcome"
	"mezzadro/core/overwinter"
	"mezzadro/core/quantity"
)

// inTen is a chance as winters in ten.
func inTen(c float64) string {
	switch n := math.Round(10 * c); n {
	case 0:
		return "hardly any winter"
	case 1:
		return "about one winter in ten"
	case 10:
		return "nearly every winter"
	default:
		return fmt.Sprintf("about %.0f winters in ten", n)
	}
}

// settled is the prognosis where it does not hang on how much of the plant is kept; fixed is false where it does.
func settled(q Question, e *evidence, d decision) (p outcome.Prognosis, fixed bool) {
	switch d.kind {
	case Look:
		return outcome.Prognosis{Text: "No prognosis before the checks."}, true
	case Lift:
		c := quantity.Round(overwinter.LiftedLives(q.Plant), 0.01)
		if q.Plant.PotL > 0 {
			return outcome.Prognosis{SeasonsLow: 0, SeasonsHigh: 1, Chance: c, Text: fmt.Sprintf("Taken in with "+
				"its roots as they are, about %.0f in ten go out again as they came.", 10*c)}, true
		}
		return outcome.Prognosis{SeasonsLow: 1, SeasonsHigh: 2, Chance: c, Text: fmt.Sprintf("Lifted, about %.0f "+
			"in ten live to go out again, and bloom later than plants that stayed; old wood hardly roots again.", 10*c)}, true
	case Regraft:
		if e.girdle.whole {
			return outcome.Prognosis{SeasonsLow: 1, SeasonsHigh: 3, Chance: 0.5, Text: "Bridged while the bark " +
				"slips, about every second tree lives on; unbridged, everything above the ring dies within a " +
				"season or two."}, true
		}
		return outcome.Prognosis{SeasonsLow: 3, SeasonsHigh: 5, Chance: 0.6, Text: "A new graft on an old root " +
			"grows fast: a bearing crown again in three to five seasons, if it takes. What shoots now is the " +
			"rootstock's and stays so."}, true
	case MakeSafe:
		return outcome.Prognosis{Text: "No prognosis before it is safe to look closer."}, true
	case Replace:
		return outcome.Prognosis{Text: "It will not come back. A new plant needs its first two summers watered."}, true
	case CutToBase:
		if q.Plant.Species.LeafSeason == catalogue.Herbaceous {
			return outcome.Prognosis{SeasonsLow: 1, SeasonsHigh: 1, Chance: 1 - belief.CrownMisread,
				Text: "Full size again within the season, from the crown."}, true
		}
	case Leave:
		switch g := e.girdle.share; {
		case g >= healsUnder:
			return outcome.Prognosis{SeasonsLow: 2, SeasonsHigh: 4, Chance: quantity.Round(0.97-0.3*(g-healsUnder)/healsUnder, 0.01), Text: "Grows less for two to four seasons, until the bark has closed."}, true
		case g > 0:
			return outcome.Prognosis{SeasonsLow: 1, SeasonsHigh: 2, Chance: 0.95, Text: "The bark closes from its " +
				"edges in one or two seasons."}, true
		}
		return outcome.Prognosis{SeasonsLow: 0, SeasonsHigh: 1, Chance: quantity.Round(0.97, 0.01), Text: "Looks right by summer."}, true
	case Wait:
		if e.girdle.rules(d) && !e.girdle.whole {
			return outcome.Prognosis{SeasonsLow: 2, SeasonsHigh: 5, Chance: quantity.Round(0.6-0.5*(e.girdle.share-slowsUnder), 0.01), Text: "A bridge of bark may widen and feed the top: about every second one does. If it thins out or dies back, it is lost above the wound."}, true
		}
	}
	return p, false
}

func prognosis(q Question, a *Answer, e *evidence, d decision) outcome.Prognosis {
	sp, h := q.Plant.Species, q.Plant.HeightM
	lost := a.Boundary.CrownLost
	keep := a.Boundary.BestM
	alive := 1 - e.belief.ChanceBelow(toTheGround)
	if p, fixed := settled(q, e, d); fixed {
		return p
	}
	switch d.kind {
	case CutToBase:
		keep, lost, alive = a.Verdict.CutM, 1, 1-belief.CrownMisread
	case CutBack, TipBack:
		keep = a.Verdict.CutM
	}
	if e.rocking && q.Today < a.LookAgain && d.kind == TipBack {
		return outcome.Prognosis{SeasonsLow: 1, SeasonsHigh: 1, Chance: 0.9, Text: "Full size again within the " +
			"season, if the crown is not rocked loose."}
	}
	if sp.Form == catalogue.Palm && d.kind == CutToBase {
		return outcome.Prognosis{SeasonsLow: 3, SeasonsHigh: 8, Chance: 0.8, Text: "New stems from its foot make heads " +
			"of their own; at its old height only after many years."}
	}
	if sp.Form == catalogue.Palm {
		c := 0.3
		if e.spear == "" {
			c = 0.6
		}
		return outcome.Prognosis{SeasonsLow: 1, SeasonsHigh: 3, Chance: c, Text: "If the growing point lives, new " +
			"leaves come by late summer and the head fills in two to three seasons."}
	}
	mend := map[catalogue.Pruning]float64{catalogue.FromBase: 0.95, catalogue.OldWood: 0.9, catalogue.GreenWood: 0.55}[sp.HardPruning]
	chance := alive * (1 - lost*(1-mend))
	if e.crown == "soft" {
		chance = belief.CrownMisread
	} else if d.kind == Wait && alive < 0.5 && sp.HardPruning == catalogue.FromBase {
		chance = max(chance, 0.5*mend) // stems gone, but the base often comes again
	}
	wanted, first, grows := max(0, outcome.LooksRight*h-keep), 0.0, sp.GrowthCMYear/100*outcome.Vigour
	if lost > 0.5 { // what it regrows after a hard cut is its kind's own
		first = min(wanted, sp.RegrowthCM/100)
	}
	seasons := (wanted - first) / grows
	if first > 0 {
		seasons++
	}
	lo, hi := int(math.Ceil(seasons*0.7)), int(math.Ceil(seasons*1.4))
	if lost > 0.05 {
		lo, hi = max(1, lo), max(1, hi)
	}
	chance = min(chance, 0.97)
	if hi == 0 {
		return outcome.Prognosis{Chance: quantity.Round(chance, 0.01), Text: "It looks right as it stands, if no " +
			"more of it is dead than was seen."}
	}
	text := fmt.Sprintf("Looks right again in %s, if it lives: it grows about %s a year.", outcome.Span(lo, hi), quantity.Length(sp.GrowthCMYear/100))
	if lost > 0.3 && (sp.Bloom.Habit == "old wood" || sp.Bloom.Habit == "spur") {
		text += " It blooms on older wood: the coming bloom above the cut is lost."
	}
	return outcome.Prognosis{SeasonsLow: lo, SeasonsHigh: hi, Chance: quantity.Round(chance, 0.01), Text: text, Heights: outcome.Regrown(sp, keep, h, lost)}
}
