package damage

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/season"
)

// advice is what to do and not to do, by verdict.
var advice = map[string]struct{ do, dont []string }{
	Look:      {do: []string{"Make the suggested check; start where you can reach without a ladder."}, dont: []string{"Do not cut before the checks have told where life ends."}},
	Leave:     {do: []string{"Leave it alone; look in passing on the next visit."}, dont: []string{"Do not feed to make up for the frost: growth comes by itself."}},
	Wait:      {do: []string{"Leave dead-looking wood on: it shelters what lives below.", "Water if the soil is dry; mulch the root run.", "Keep fleece at hand for the next frost."}, dont: []string{"Do not cut above the living part yet.", "Do not feed before growth shows."}},
	TipBack:   {do: []string{"Take the dead tips off above the first pair of live buds, once frost is past."}, dont: []string{"Do not shear: each cut goes to a live bud."}},
	CutBack:   {do: []string{"Cut to a live bud that faces outward, 6 mm above it, sloping away.", "Clean the blade between plants.", "Water through the first dry weeks; mulch.", "Feed once, lightly, when new shoots are a hand long."}, dont: []string{"Do not cut while hard frost is still likely.", "Do not feed before growth shows."}},
	CutToBase: {do: []string{"Cut to short stubs over the crown once frost is past and buds push.", "Choose the strongest new shoots in summer, take the rest out.", "Water and mulch through the first season."}, dont: []string{"Do not dig it out: the crown lives.", "Do not bury the crown."}},
	Regraft:   {do: []string{"Ask the client: is the variety wanted again?", "Regraft in the season for its kind, on the strongest rootstock shoot, or replace it.", "Or keep it as it is, if its owner likes what has come up."}, dont: []string{"Do not wait for the variety to come from below the graft: it cannot.", "Do not bury the graft."}},
	MakeSafe: {do: []string{"Keep people and vehicles out from under it: rope off one and a half times its height all round, and tell the client today.",
		"Photograph it from a distance.", "Judge the plant again when it is safe to go near."}, dont: []string{"Do not work, park or stand under it.", "Do not pull on what hangs."}},
	Lift: {do: []string{"Cut it to about 30 cm, so that roots and top are in balance.", "Lift it with as many roots as the pot takes; pot it in open soil and water once.", "Keep it frost-free and light, about 5 to 10 °C, and nearly dry.", "Take it out again after the last frost, over two weeks, first into shade."},
		dont: []string{"Do not wait for the first frost to see whether it was meant.", "Do not feed before it grows in spring.", "Do not promise the client that it comes through."}},
	Replace: {do: []string{"Agree with the client before digging it out.", "Look at why it died here before choosing what follows."}, dont: []string{"Do not plant the same kind in the same spot without knowing the cause."}},
}

var leaveHint = map[catalogue.Form]struct{ do, dont []string }{
	catalogue.Palm: {do: []string{"Leave browned leaves on until new ones have opened; keep the heart dry and open to air."}, dont: []string{"Do not cut the trunk or the spear: a palm has one growing point."}},
}

// word puts the decision into words: sentence, advice, dates, prognosis, reasons, cautions.
func (a *Answer) word(q Question, e *evidence, s situation, d decision) {
	sp, h := q.Plant.Species, q.Plant.HeightM
	b := a.Boundary
	v := Verdict{Kind: d.kind, Until: day.None, CutM: 0}
	palm := sp.Form == catalogue.Palm
	switch d.kind {
	case Look:
		v.Sentence = "Nothing has been checked yet: make the first check."
		switch {
		case e.below && !e.living && s.late:
			v.Sentence = "Look at the leaf first: it shoots only from under the graft, and the leaf tells whether that is the variety."
			v.Sure = e.belief.chanceBelow(e.graft + graftMargin)
		case e.any && e.crown == "" && e.skip[Crown] && e.belief.chanceBelow(0.08) > sureShare:
			v.Sentence = "Dead to the ground as far as it was checked, and the crown could not be looked at: come back for it before giving it up."
			v.Sure = e.belief.chanceBelow(0.08)
		case e.any && a.Next != nil && a.Next.Kind == Crown:
			v.Sentence = "Dead to the ground as far as it was checked: look at the crown before giving it up."
			v.Sure = e.belief.chanceBelow(0.08)
		case e.any && !e.dying && !s.struck:
			v.Sentence = fmt.Sprintf("Nothing dead was seen so far, but the top was not looked at: check above %s.", metres(b.LowM))
			v.Sure = 1 - e.belief.chanceBelow(b.LowM/h)
		case e.any:
			v.Sentence = fmt.Sprintf("Check on before cutting: life ends somewhere between %s and %s.", metres(b.LowM), metres(b.HighM))
			v.Sure = 0.8
		}
	case Leave:
		v.Sentence = "Leave it: it is alive to the tips."
		v.Sure = 1 - e.belief.chanceBelow(0.97)
		switch {
		case e.girdle.share > 0 && !e.girdle.whole && e.girdle.share < healsUnder:
			v.Sentence = fmt.Sprintf("Leave it: bark gone over %.0f %% of the girth heals over.", 100*e.girdle.share)
			v.Sure = 0.9
		case e.girdle.share > 0 && !e.girdle.whole:
			v.Sentence = fmt.Sprintf("Leave it: bark gone over %.0f %% of the girth slows it for some seasons, and heals.", 100*e.girdle.share)
			v.Sure = 0.75
		case e.rocking && !e.stem:
			v.Sentence = "Leave it, but firm its roots in and tie it: it rocks in the wind."
			v.Sure = 0.8
		}
		if palm {
			v.Sentence, v.Sure = "Leave it: the growing point lives.", 1-CrownMisread
		}
	case Wait:
		v.Until = a.Patience
		v.Sure = e.belief.chanceBelow(b.HighM/h) - e.belief.chanceBelow(b.LowM/h)
		until := a.Patience.Words()
		switch {
		case e.girdle.rules(d) && !palm:
			v.Until = a.ringDate(q, s)
			v.Sentence = fmt.Sprintf("Wait until %s: bark gone over %.0f %% of the girth, but a bridge is left; whether it feeds the top, growth will tell.", v.Until.Words(), 100*e.girdle.share)
			v.Sure = 0.6
		case e.below && !e.living:
			v.Sentence = fmt.Sprintf("Wait until %s: so far it shoots only from under the graft; the leaf will tell whether it is the variety.", until)
		case e.stock && !e.living:
			v.Sentence = fmt.Sprintf("Wait until %s: so far only the rootstock shoots, from below the graft; it is too early to give the variety up.", until)
		case palm && e.spear == "":
			v.Sentence = fmt.Sprintf("Wait until %s, and pull the spear: nothing else tells on a palm.", until)
			v.Sure = 0
		case palm:
			v.Sentence = fmt.Sprintf("Wait until %s: the spear came out, but the growing point may still live.", until)
			v.Sure = spearPulledDead / (spearPulledDead + spearPulledAlive)
		case e.crown == "soft":
			v.Sentence = fmt.Sprintf("Wait until %s: the crown feels soft, but nothing is lost by waiting.", until)
			v.Sure = 1 - CrownMisread
		case !e.living:
			v.Sentence = fmt.Sprintf("Wait until %s: nothing living found so far, and it is too early to give it up.", until)
		case b.LowM < 0.12*h:
			v.Sentence = fmt.Sprintf("Wait until %s: it is too early to call how far up it lives.", until)
		default:
			v.Sentence = fmt.Sprintf("Too early to call above %s; wait until %s. Alive below.", metres(b.LowM), until)
		}
	case TipBack:
		v.CutM, v.CutTo = floorTo(d.cut*h), "the first pair of live buds"
		v.Sentence = fmt.Sprintf("Tip back to %s: only the ends are dead.", metres(v.CutM))
		v.Sure = 1 - e.belief.chanceBelow(d.cut)
		if e.rocking && s.autumn {
			v.Sentence = fmt.Sprintf("Shorten by a third now, to %s, so that wind does not rock it loose; the rest after hard frost, when spring comes.", metres(v.CutM))
			v.Sure = 0.9
		}
	case CutBack:
		v.CutM, v.CutTo = floorTo(d.cut*h), "an outward-facing live bud at or just under this height"
		v.Sentence = fmt.Sprintf("Cut back to the live bud at about %s, when frost is past and growth shows.", metres(v.CutM))
		if s.late {
			v.Sentence = fmt.Sprintf("Cut back to the live bud at about %s.", metres(v.CutM))
		}
		v.Sure = 1 - e.belief.chanceBelow(d.cut)
	case Lift:
		v.CutM, v.CutTo = min(liftedCutM, h), "about 30 cm above the ground"
		v.Sure = round(1-s.winters, 0.01)
		v.Sentence = fmt.Sprintf("Lift and shelter it before the first frost: out here it comes through %s.", inTen(s.winters))
		if q.Plant.PotL > 0 {
			v.CutM, v.CutTo = 0, ""
			v.Sentence = fmt.Sprintf("Shelter the pot before the first frost: out here it comes through %s.", inTen(s.winters))
		}
	case CutToBase:
		v.CutM, v.CutTo = floorTo(min(0.1, baseShare*h)), "short stubs over the crown"
		if g := q.Plant.graft(); g > 0 && v.CutM < g+0.03 && !e.ownRoots {
			v.CutM, v.CutTo = round(min(h, g+0.05), 0.01), "short stubs over the graft"
		}
		v.Sentence = "Cut to the base and let it renew: the crown lives."
		v.Sure = 1 - CrownMisread
		if e.girdle.rules(d) && e.crown == "" && !(e.belief.chanceBelow(0.08) > sureShare) {
			v.Sentence = fmt.Sprintf("Cut to the base, under the ring, and let it renew: the bark is gone all round at %s and nothing above is fed.", metres(e.girdle.at*h))
			v.CutM = min(v.CutM, max(0.02, floorTo(e.girdle.at*h-0.02)))
		}
		if sp.LeafSeason == catalogue.Herbaceous {
			v.Sentence = "Cut the dead tops to the base when frost is past: the crown lives."
		}
	case MakeSafe:
		v.Sentence = "Make it safe first: " + dangers[e.danger] + "."
		if q.Overrule != "" && dangers[e.danger] == "" {
			v.Sentence = "Make it safe first."
		}
		v.Sure = 1
	case Regraft:
		v.Sentence = fmt.Sprintf("Regraft it or replace it: only the rootstock lives, below the graft at %s.", metres(q.Plant.graft()))
		v.Sure = e.belief.chanceBelow(e.graft + graftMargin)
		if e.girdle.whole {
			v.Sentence = fmt.Sprintf("Bridge-graft it or replace it: the bark is gone all round at %s, and everything above is lost unless it is bridged now.", metres(e.girdle.at*h))
			v.Sure = 1 - ScratchMisread
		}
	case Replace:
		v.Sentence = "Replace it: dead to the crown, and past the day by which it would have shown life."
		v.Sure = 1 - CrownMisread
		switch {
		case e.stock && e.crown != "soft":
			v.Sentence = "Replace it: only the rootstock lives, and it is young enough to start anew."
			v.Sure = e.belief.chanceBelow(e.graft + graftMargin)
		case palm:
			v.Sentence = "Replace it: the growing point is dead and the time to recover is past."
		case e.crown != "soft":
			v.Sentence = "Replace it: what is still alive is bare wood, and this kind does not shoot from it."
			v.Sure = e.belief.chanceBelow(0.35)
		}
	}
	v.Sure = round(max(0, min(1, v.Sure)), 0.01)
	a.Verdict = v

	words := advice[d.kind]
	if palm && d.kind != MakeSafe && d.kind != Lift {
		words = leaveHint[catalogue.Palm]
	}
	a.Do, a.Dont = slices.Clone(words.do), slices.Clone(words.dont)
	a.Choices = []Choice{}
	if d.kind == Regraft {
		a.Choices = []Choice{{Regraft, "Graft the variety on again"}, {Replace, "Replace it"}, {Leave, "Keep it as it is"}}
		if e.girdle.whole {
			a.Choices[0].Text, a.Choices[2].Text = "Bridge the ring with grafts", "Let it shoot from below"
			a.Choices[2].Kind = CutToBase
			a.Do = []string{"Bridge the ring with twigs of the same tree set under the bark above and below, while the bark slips: about leaf-out.", "Keep the wound moist and covered until then.",
				"Young and easily had again: replacing it costs less."}
			a.Dont = []string{"Do not trust that it is in leaf: it lives on its stores for a season.", "Do not paint the wound with tar."}
		}
	}
	if e.rocking {
		switch {
		case d.kind == TipBack && s.autumn:
			a.Do = []string{"Take a third off all round now, to lower the sail; no closer.", "Firm the soil round its foot and tie it if it still rocks.", "Cut the rest in spring, when hard frost is past and buds push."}
			a.Dont = []string{"Do not cut it down now: the stems shelter the crown, and hollow stubs let frost and wet in."}
		case d.kind != MakeSafe && d.kind != Lift:
			a.Do = append(a.Do, "Firm the soil round its foot and tie it low until it stands by itself.")
		}
	}
	if d.kind == Lift && q.Plant.PotL > 0 {
		a.Do = append([]string{"Take the pot in whole, before the first frost."}, a.Do[2:]...)
	}
	if e.girdle.share > 0 && d.kind != MakeSafe {
		a.Do = append(a.Do, "Guard the stem, so that it does not happen again.")
	}
	if e.below && !e.living && d.kind == Look {
		a.Do = []string{"Look at the leaf of the shoots from under the graft: compare it with the variety's."}
	}
	if cause := a.Spot.suspect(); cause != "" && d.kind != MakeSafe {
		a.Do = append([]string{"Mend the spot first: " + cause + ". " + a.Spot.Reasons[0].Mend}, a.Do...)
	}
	if e.stock && e.living {
		a.Do = append(a.Do, "Tear out the rootstock's shoots where they arise; cutting them off leaves buds.")
	}
	if q.Plant.graft() > 0 && (d.kind == CutBack || d.kind == CutToBase) {
		a.Dont = append(a.Dont, "Do not cut below the graft, and do not bury the graft.")
	}
	switch d.kind {
	case Look, Wait:
		a.LookAgain = max(a.Patience, q.Today)
	case MakeSafe:
		a.LookAgain = q.Today + 7
	case CutBack, CutToBase, TipBack:
		a.LookAgain = max(a.Patience, q.Today) + 42 // six weeks of growth show whether the cut was right
	case Lift:
		a.LookAgain = outAgain(q)
	case Leave:
		if e.girdle.share > 0 {
			a.LookAgain = a.ringDate(q, s)
		}
	}
	if v.Until != day.None && d.kind == Wait {
		a.LookAgain = max(v.Until, q.Today)
	}
	if e.rocking && s.autumn && d.kind == TipBack {
		a.LookAgain = outAgain(q)
	}
	if d.kind == Wait && e.girdle.rules(d) {
		a.Changes = append(a.Changes, "No bridge left, or bark gone all round: everything above is lost unless it is grafted across.", "Full, green growth by then: it is fed, and heals.")
	} else if d.kind == Wait && !palm {
		above := ""
		if e.living {
			above = " above " + metres(b.LowM)
		}
		a.Changes = append(a.Changes, fmt.Sprintf("Leaf or a living shoot%s before %s: it is alive there after all.", above, a.Patience.Words()),
			fmt.Sprintf("No leaf%s by %s: what has not shown is dead.", above, a.Patience.Words()))
	}
	a.Prognosis = prognosis(q, a, e, d)
	if a.Prognosis.Heights == nil {
		a.Prognosis.Heights = []float64{}
	}
	a.Reasons = reasons(q, a, s)
	a.Cautions = cautions(q, d)
}

// ringDate is when a wound round the stem is looked at again: when leaf is due, or where that is past, next year.
func (a *Answer) ringDate(q Question, s situation) day.Day {
	if !s.late {
		return a.Patience
	}
	_, yearEnd := q.Year.Normals.Climate.GardenYear(q.Today)
	next, _ := PatienceDate(s.species, q.Year, yearEnd)
	return next
}

// springOver is how many days after midwinter the next last frost is the coming year's.
const springOver = 120

// outAgain is the day after the last usual frost of the coming spring.
func outAgain(q Question) day.Day {
	_, yearEnd := q.Year.Normals.Climate.GardenYear(q.Today)
	in := q.Today
	if q.Today > q.Year.Normals.Climate.Midwinter(q.Today)+springOver {
		in = yearEnd
	}
	b, ok := q.Year.Normals.LastFrost(q.Year.Normals.Climate.Midwinter(in), 0)
	if !ok {
		return q.Today + 150
	}
	return max(b.Late, q.Today)
}

// degrees is a temperature in words.
func degrees(c float64) string { return strings.Replace(fmt.Sprintf("%.0f °C", c), "-", "−", 1) }

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

// floorTo sets a cut on a height one can measure, never above the belief's: 5 cm steps.
func floorTo(m float64) float64 {
	if m < 0.2 {
		return round(m, 0.01)
	}
	return math.Floor(m*20+1e-9) / 20
}

// Regrowth figures, to be calibrated by outcomes.
const (
	vigour     = 1.4  // a whole root run under less crown grows that much faster than the yearbook figure
	looksRight = 0.85 // share of its former height at which a plant looks right again
)

func prognosis(q Question, a *Answer, e *evidence, d decision) Prognosis {
	sp, h := q.Plant.Species, q.Plant.HeightM
	lost := a.Boundary.CrownLost
	keep := a.Boundary.BestM
	alive := 1 - e.belief.chanceBelow(0.08)
	switch d.kind {
	case Look:
		return Prognosis{Text: "No prognosis before the checks."}
	case Lift:
		c := round(q.Plant.liftedLives(), 0.01)
		if q.Plant.PotL > 0 {
			return Prognosis{SeasonsLow: 0, SeasonsHigh: 1, Chance: c, Text: fmt.Sprintf("Taken in with its roots as they are, about %.0f in ten go out again as they came.", 10*c)}
		}
		return Prognosis{SeasonsLow: 1, SeasonsHigh: 2, Chance: c, Text: fmt.Sprintf("Lifted, about %.0f in ten live to go out again, and bloom later than plants that stayed; old wood roots anew badly.", 10*c)}
	case Regraft:
		if e.girdle.whole {
			return Prognosis{SeasonsLow: 1, SeasonsHigh: 3, Chance: 0.5, Text: "Bridged while the bark slips, about every second tree lives on; unbridged, everything above the ring dies within a season or two."}
		}
		return Prognosis{SeasonsLow: 3, SeasonsHigh: 5, Chance: 0.6, Text: "A new graft on an old root grows fast: a bearing crown again in three to five seasons, if it takes. What shoots now is the rootstock's and stays so."}
	case MakeSafe:
		return Prognosis{Text: "No prognosis before it is safe to look closer."}
	case Replace:
		return Prognosis{Text: "It will not come back. A new plant needs its first two summers watered."}
	case CutToBase:
		keep, lost, alive = a.Verdict.CutM, 1, 1-CrownMisread
		if sp.LeafSeason == catalogue.Herbaceous {
			return Prognosis{SeasonsLow: 1, SeasonsHigh: 1, Chance: alive, Text: "Full size again within the season, from the crown."}
		}
	case CutBack, TipBack:
		keep = a.Verdict.CutM
	case Leave:
		switch g := e.girdle.share; {
		case g >= healsUnder:
			return Prognosis{SeasonsLow: 2, SeasonsHigh: 4, Chance: round(0.97-0.3*(g-healsUnder)/healsUnder, 0.01), Text: "Grows less for two to four seasons, until the bark has closed."}
		case g > 0:
			return Prognosis{SeasonsLow: 1, SeasonsHigh: 2, Chance: 0.95, Text: "The bark closes from its edges in one or two seasons."}
		}
		return Prognosis{SeasonsLow: 0, SeasonsHigh: 1, Chance: round(0.97, 0.01), Text: "Looks right by summer."}
	case Wait:
		if e.girdle.rules(d) && !e.girdle.whole {
			return Prognosis{SeasonsLow: 2, SeasonsHigh: 5, Chance: round(0.6-0.5*(e.girdle.share-slowsUnder), 0.01), Text: "A bridge of bark may widen and feed the top: about every second one does. If it thins out or dies back, it is lost above the wound."}
		}
	}
	if e.rocking && q.Today < a.LookAgain && d.kind == TipBack {
		return Prognosis{SeasonsLow: 1, SeasonsHigh: 1, Chance: 0.9, Text: "Full size again within the season, if the crown is not rocked loose."}
	}
	if sp.Form == catalogue.Palm {
		c := 0.3
		if e.spear == "" {
			c = 0.6
		}
		return Prognosis{SeasonsLow: 1, SeasonsHigh: 3, Chance: c, Text: "If the growing point lives, new leaves come by late summer and the head fills in two to three seasons."}
	}
	mend := map[catalogue.Pruning]float64{catalogue.FromBase: 0.95, catalogue.OldWood: 0.9, catalogue.GreenWood: 0.55}[sp.HardPruning]
	chance := alive * (1 - lost*(1-mend))
	if e.crown == "soft" {
		chance = CrownMisread
	} else if d.kind == Wait && alive < 0.5 && sp.HardPruning == catalogue.FromBase {
		chance = max(chance, 0.5*mend) // stems gone, but the base often comes again
	}
	seasons := max(0, looksRight*h-keep) / (sp.GrowthCMYear / 100 * vigour)
	lo, hi := int(math.Ceil(seasons*0.7)), int(math.Ceil(seasons*1.4))
	if lost > 0.05 {
		lo, hi = max(1, lo), max(1, hi)
	}
	chance = min(chance, 0.97)
	if hi == 0 {
		return Prognosis{Chance: round(chance, 0.01), Text: "It looks right as it stands, if no more of it is dead than was seen."}
	}
	text := fmt.Sprintf("Looks right again in %s, if it lives: it grows about %.0f cm a year.", span(lo, hi), sp.GrowthCMYear)
	if lost > 0.3 && (sp.Bloom.Habit == "old wood" || sp.Bloom.Habit == "spur") {
		text += " It blooms on older wood: the coming bloom above the cut is lost."
	}
	return Prognosis{SeasonsLow: lo, SeasonsHigh: hi, Chance: round(chance, 0.01), Text: text, Heights: regrown(sp, keep, h, lost)}
}

func span(lo, hi int) string {
	if lo == hi {
		if lo == 1 {
			return "one season"
		}
		return fmt.Sprintf("%d seasons", lo)
	}
	return fmt.Sprintf("%d to %d seasons", lo, hi)
}

func reasons(q Question, a *Answer, s situation) []Reason {
	var out []Reason
	say := func(text string, alive, dead float64) {
		w := math.Log(alive / dead)
		r := Reason{Text: text, Speaks: "alive", Weight: round(w, 0.01)}
		if w < 0 {
			r.Speaks, r.Weight = "dead", round(-w, 0.01)
		}
		out = append(out, r)
	}
	if o := q.Forecast; o != nil && o.Worst.Organ != "" {
		r := Reason{Text: "Expected before any check: " + o.Reason(), Speaks: "wait"}
		if lost := o.Dieback; o.Worst.Organ == cold.Wood && lost > 0.03 {
			r.Speaks, r.Weight = "dead", round(forecastTrust*o.Share(cold.Wood), 0.01)
		}
		out = append(out, r)
	}
	for _, c := range q.Checks {
		at := metres(c.HeightM)
		switch {
		case c.Kind == BudRub:
			alive, dead := budChances(c.Held, c.Broke, budsAlone(q.Forecast))
			say(fmt.Sprintf("%d of %d buds held at %s", c.Held, c.Held+c.Broke, at), alive, dead)
		case c.Kind == Scratch && c.Result == "green":
			say("Bark green at "+at, 1-ScratchMisread, ScratchMisread)
		case c.Kind == Scratch && c.Result == "brown":
			say("Bark brown at "+at, ScratchMisread, 1-ScratchMisread)
		case c.Kind == Scratch:
			out = append(out, Reason{"Bark unclear at " + at + ": tells nothing either way", "wait", 0})
		case c.Kind == Shoot && c.Leaf == "rootstock":
			out = append(out, Reason{"Shoot with the rootstock's leaf at " + at + ": it comes from below the graft and says nothing for the variety", "wait", 0})
		case c.Kind == Shoot && c.Leaf == "true" && q.Plant.graft() > c.HeightM:
			say("Living shoot at "+at+", leaf true to the variety, from under where the graft would be: it may be on its own roots; keep it and watch", 1-ShootMisread, ShootMisread)
		case c.Kind == Shoot && c.Leaf != "true" && q.Plant.graft() > c.HeightM && q.Plant.maybeOwnRoots():
			say(fmt.Sprintf("Living shoot at %s; no graft found on a plant of %d years: it may be on its own roots; keep it and watch its leaf", at, q.Plant.Years), 1-ShootMisread, ShootMisread)
		case c.Kind == Shoot && c.Leaf != "true" && q.Plant.graft() > c.HeightM:
			out = append(out, Reason{"Shoot from under the graft at " + at + ", leaf not told: it may be the rootstock's", "wait", 0})
		case c.Kind == Shoot:
			say("Living shoot at "+at, 1-ShootMisread, ShootMisread)
		case c.Kind == Crown && c.Result == "soft":
			say("Crown soft under the soil", CrownMisread, 1-CrownMisread)
		case c.Kind == Crown:
			say("Crown firm under the soil", 1-CrownMisread, CrownMisread)
		case c.Kind == Spear && c.Result == "pulled":
			say("Spear came out when pulled", spearPulledAlive, spearPulledDead)
		case c.Kind == Danger && c.Result == "none":
			out = append(out, Reason{"Looked for loose and split wood, fungus at the base and lifted roots: nothing found", "wait", 0})
		case c.Kind == Danger:
			out = append(out, Reason{strings.ToUpper(dangers[c.Result][:1]) + dangers[c.Result][1:], "danger", 0})
		case c.Kind == Spear:
			say("Spear held when pulled", 1-CrownMisread, CrownMisread)
		case c.Kind == Head:
			say("Head of the palm "+c.Result, math.Exp(headTells[c.Result]), 1)
		case c.Kind == BarkRing && (c.Result == "no_bridge" || c.Amount >= allRound):
			out = append(out, Reason{"Bark gone all round at " + at + ", no bridge left: what is above is no longer fed", "dead", 3})
		case c.Kind == BarkRing:
			out = append(out, Reason{fmt.Sprintf("Bark gone over %.0f %% of the girth at %s, a bridge is left: %s", 100*c.Amount, at, ringSays(c.Amount)), "wait", 0})
		case c.Kind == SplitBark && c.Result == "loose":
			out = append(out, Reason{fmt.Sprintf("Bark split and loose over %.0f %% of the girth at %s: what has come off the wood dies; %s", 100*c.Amount, at, ringSays(c.Amount)), "wait", 0})
		case c.Kind == SplitBark:
			out = append(out, Reason{"Bark split at " + at + " but tight on the wood: it closes by itself", "alive", 0})
		case c.Kind == TipDead:
			say(fmt.Sprintf("Shoots dead over %s from the tips", metres(c.Amount)), TipMisread, 1-TipMisread)
		case c.Kind == LeafState:
			if l, tells := leafTells[c.Result]; tells {
				say(leafWords[c.Result]+" at "+at, l[0], l[1])
			}
		case c.Kind == Base && c.Result == "sound":
			say("Foot of the stem sound", 1-ScratchMisread, ScratchMisread)
		case c.Kind == Base && c.Result == "soft_bark":
			say("Bark soft and brown at the foot", ScratchMisread, 1-ScratchMisread)
		case c.Kind == Base:
			out = append(out, Reason{"It rocks in its hole: fine roots tear and water stands round its foot", "wait", 0})
		case c.Kind == Sample && a.Rest != nil:
			out = append(out, Reason{a.Rest.Text, "wait", 0})
		case c.Kind == Growth:
			out = append(out, Reason{"Grew " + metres(c.Amount) + " last season", "wait", 0})
		case c.Kind == NotLooked:
			out = append(out, Reason{"Not looked at: " + kindWords[c.Result] + "; nothing is concluded from it", "wait", 0})
		case c.Kind == Spot:
			out = append(out, Reason{spotSays(c), "wait", 0})
		}
	}
	if c := a.Fellows; c != nil && c.What != "" {
		text := c.Text + " The spot is suspect, not the kind."
		if cause := a.Spot.suspect(); cause != "" {
			text = c.Text + " Suspect the spot: " + cause + "."
		}
		out = append(out, Reason{text, "wait", 0})
	}
	sp := q.Plant.Species
	if a.Verdict.Kind == Lift {
		return append(out, Reason{fmt.Sprintf("Bears about %s; the coldest night of a usual winter here is %s", degrees(sp.HardinessC), degrees(q.Year.Normals.Climate.ExtremeMinC)), "dead", 0})
	}
	due := fmt.Sprintf("Leaf is due about %s this year, one year in ten after %s; %d days more for coming late after damage: %s",
		a.LeafOut.Mid.Words(), a.LeafOut.Late.Words(), sp.LatenessDays, a.Patience.Words())
	if s.late {
		out = append(out, Reason{due + ", and that is past", "dead", 0})
	} else {
		out = append(out, Reason{due + "; silence before then proves nothing", "wait", 0})
	}
	return out
}

// leafWords and kindWords are the results and kinds of checks in words.
var (
	leafWords = map[string]string{"healthy": "Leaves sound", "scorched_margin": "Only the leaf edges scorched: dried, the twig lives,", "bleached": "Leaves bleached by sun, twig alive,",
		"bronzed": "Leaves bronzed by cold, which passes,", "dropped": "Leaves cast: a twig casts them only while it lives,", "clinging": "Brown leaves cling"}
	kindWords = map[string]string{"bud_rub": "the buds", "scratch": "the bark", "shoot": "shoots", "crown": "the crown under the soil", "bark_ring": "bark gone round the stem", "split_bark": "split bark",
		"leaf": "the leaves", "base": "the foot of the stem", "spear": "the spear", "head": "the head of the palm", "danger": "danger from a distance", "spot": "the spot"}
)

func ringSays(share float64) string {
	switch {
	case share < healsUnder:
		return "that heals"
	case share <= slowsUnder:
		return "that slows it and heals"
	}
	return "doubtful whether it feeds the top"
}

func spotSays(c Check) string {
	i := slices.IndexFunc(questions, func(q question) bool { return q.key == c.Result })
	if c.Result == "big_tree_near" && c.Amount > 0 {
		return fmt.Sprintf("A big tree or hedge stands %s away", metres(c.Amount))
	}
	return fmt.Sprintf("The spot, %s: %s", questions[i].name, c.Seen)
}

// dangers are what may fall or break, in words.
var dangers = map[string]string{
	"hanging_limb":   "a hanging limb may come down at any time",
	"split_stem":     "a split stem may break under wind, snow or its own load",
	"fungus_at_base": "fungus at the base can mean rotten roots or stem while the crown is still green",
	"roots_lifted":   "lifted roots or cracked soil mean it may fall whole",
}

// inReach is the height up to which a gardener may make safe from the ground.
const inReach = 3.0

// licensed reports danger that a licensed arborist has to see.
func licensed(q Question, danger string) bool {
	return q.Plant.HeightM > inReach || danger == "fungus_at_base" || danger == "roots_lifted"
}

func cautions(q Question, d decision) []catalogue.Caution {
	out := append([]catalogue.Caution{}, q.Plant.Species.Cautions...)
	if d.kind == MakeSafe {
		return append([]catalogue.Caution{{Kind: "falling", Text: "Wood under tension springs when it is cut and falls without warning: nobody under it. Near power lines keep away and call the network's operator. Climbing, felling and chainsaw work aloft are for a trained, licensed arborist; protected trees may need a permit even then."}}, out...)
	}
	if d.kind == Leave {
		return out
	}
	if h := q.Plant.HeightM; h > 2.5 {
		out = append(out, catalogue.Caution{Kind: "height", Text: "Above reach: a firm ladder on level ground with a second person, or a pole; keep well clear of power lines. Climbing and chainsaw work aloft is for a trained, licensed person."})
	}
	switch d.kind {
	case Lift:
		if q.Plant.PotL > 15 || q.Plant.HeightM > 1 {
			out = append(out, catalogue.Caution{Kind: "lifting", Text: "A root ball or pot is heavier than it looks: two people or a trolley, knees bent."})
		}
	case CutBack, CutToBase, TipBack, Replace:
		out = append(out, catalogue.Caution{Kind: "tools", Text: "Gloves and eye protection; look for nests first. Local rules on protected trees and cutting times come first."})
	}
	return out
}

// frostMatters is how many days after a cut a killing frost still burns it and what it has pushed.
const frostMatters = 45

// jobs turns the verdict into work with day costs.
func jobs(q Question, a *Answer, d decision, e *evidence) []job.Job {
	n := q.Year.Normals
	sp := q.Plant.Species
	_, yearEnd := n.Climate.GardenYear(q.Today)
	midwinter, nextMidwinter := n.Climate.Midwinter(q.Today), n.Climate.Midwinter(yearEnd)
	end, next := yearEnd, season.Band{Early: yearEnd, Late: yearEnd}
	if q.Today > midwinter+182 { // after midsummer the work may have to wait for the next spring
		_, next = PatienceDate(sp, q.Year, yearEnd)
		end = nextMidwinter + 230
	}
	days := end.Sub(q.Today)
	frost := n.FrostWithin(q.Today, end, frostMatters, season.KillingFrostC)
	minutes := func(base float64) int { // grows with the plant's size, rounded up to five
		return int(math.Ceil((base+6*q.Plant.HeightM)/5) * 5)
	}
	caution := a.cautionWords()
	look := func(on day.Day, why string) job.Job {
		c := job.Curve{Start: q.Today, Days: days}
		c.Because("too early", "too early: nothing new can be seen yet", func(x day.Day) job.Cost {
			if gap := on.Sub(x); gap > 0 {
				return job.Cost(25 + 3*gap)
			}
			return 0
		})
		c.Because("put off", "the follow-up is overdue; dead wood stands and the client waits", func(x day.Day) job.Cost { return job.Cost(2 * x.Sub(on)) })
		return job.Job{Key: "look", Kind: "look", Title: "Look again at " + sp.Common, Curve: c, Minutes: 10, Crew: 1,
			Skills: []string{}, Kit: []string{"knife"}, After: []job.Gap{}, Reasons: []string{why}, Cautions: caution}
	}
	cut := func(kind, title string, mins int, after ...job.Gap) job.Job {
		c := job.Curve{Start: q.Today, Days: days}
		c.Because("frost", "hard frost may still come and burn the cut and the new growth", func(x day.Day) job.Cost { return job.Cost(math.Round(100 * frost[x-q.Today])) })
		if d.kind == Wait || d.kind == Look {
			c.Because("follow-up first", "the follow-up has yet to find where the live wood is", func(x day.Day) job.Cost {
				if x < a.LookAgain {
					return 40
				}
				return 0
			})
		}
		c.Because("growth not seen", "growth does not show yet where the live wood is", func(x day.Day) job.Cost {
			from, to := a.LeafOut.Early, a.Patience
			if x >= yearEnd {
				from, to = next.Early, next.Late+day.Day(sp.LatenessDays)
			}
			return job.Cost(math.Round(60 * float64(to-x) / float64(to-from+1)))
		})
		c.Because("dead wood stands", "dead wood stands in the way of new shoots", func(x day.Day) job.Cost {
			return min(25, job.Cost((x.Sub(max(a.Patience, q.Today))-21)/2))
		})
		c.Because("heat", "heat and sun on freshly opened bark", func(x day.Day) job.Cost { return job.Cost(8 * (n.TMax.At(x) - 27)) })
		c.Because("too late in the year", "shoots after a late cut do not ripen before frost", func(x day.Day) job.Cost {
			if x >= yearEnd {
				return job.Cost(x.Sub(nextMidwinter + 197))
			}
			return job.Cost(x.Sub(midwinter + 197))
		})
		return job.Job{Key: "cut", Kind: kind, Title: title, Curve: c, Minutes: mins, Crew: 1, Skills: []string{},
			Kit: []string{"secateurs", "pruning saw", "disinfectant for blades"}, After: append([]job.Gap{}, after...),
			Reasons: []string{a.Verdict.Sentence}, Cautions: caution}
	}
	switch d.kind {
	case Leave:
		if e.girdle.share > 0 {
			return []job.Job{look(a.LookAgain, "See whether the wound closes.")}
		}
	case MakeSafe:
		found := e.danger
		c := job.Curve{Start: q.Today, Days: days}
		c.Because("danger stands", "every day it stands it may fall on someone", func(x day.Day) job.Cost { return job.Cost(6 * x.Sub(q.Today)) })
		safe := job.Job{Key: "safe", Kind: "make safe", Title: "Make " + sp.Common + " safe", Curve: c, Minutes: minutes(30), Crew: 2, Skills: []string{},
			Kit: []string{"barrier tape", "warning signs", "helmet"}, After: []job.Gap{}, Reasons: []string{a.Verdict.Sentence}, Cautions: caution}
		if licensed(q, found) {
			safe.Skills = append(safe.Skills, "licensed arborist")
			safe.Title += ": call a licensed arborist"
		}
		l := look(a.LookAgain, "Judge the plant again once it is safe.")
		l.After = []job.Gap{{Job: "safe"}}
		return []job.Job{safe, l}
	case Lift:
		return lifted(q, a, look(a.LookAgain, "See whether it came through."))
	case Wait, Look:
		out := []job.Job{look(a.LookAgain, a.Verdict.Sentence)}
		if sp.Form != catalogue.Palm && !e.girdle.rules(d) {
			title := "Cut " + sp.Common + " back to live wood, as the follow-up finds"
			out = append(out, cut("cut back", title, minutes(10), job.Gap{Job: "look", MinDays: 0, MaxDays: 30}))
		}
		return out
	case TipBack:
		if b, e, ok := autumn(q.Year, q.Today); ok && a.Verdict.CutM > 0 && q.Today >= b && q.Today <= e && a.LookAgain == outAgain(q) {
			c := job.Curve{Start: q.Today, Days: days}
			c.Because("wind", "each storm rocks it further out of the ground", func(x day.Day) job.Cost { return job.Cost(3 * x.Sub(q.Today)) })
			first := job.Job{Key: "shorten", Kind: "tip back", Title: fmt.Sprintf("Shorten %s by a third, to %s, and firm it in", sp.Common, metres(a.Verdict.CutM)), Curve: c, Minutes: minutes(5), Crew: 1,
				Skills: []string{}, Kit: []string{"secateurs", "stake and soft tie"}, After: []job.Gap{}, Reasons: []string{a.Verdict.Sentence}, Cautions: caution}
			return []job.Job{first, cut("cut back", "Cut the rest of "+sp.Common+" back, after hard frost", minutes(10), job.Gap{Job: "shorten"})}
		}
		return []job.Job{cut("tip back", fmt.Sprintf("Tip %s back to %s", sp.Common, metres(a.Verdict.CutM)), minutes(5))}
	case CutBack, CutToBase:
		c := cut("cut back", fmt.Sprintf("Cut %s back to %s", sp.Common, metres(a.Verdict.CutM)), minutes(10))
		if d.kind == CutToBase {
			c.Kind, c.Title = "cut to the base", fmt.Sprintf("Cut %s to the base", sp.Common)
		}
		l := look(a.LookAgain, "See whether the cut plant shoots as foretold.")
		l.After = []job.Gap{{Job: "cut", MinDays: 28}}
		return []job.Job{c, l}
	case Regraft:
		if e.girdle.whole || q.Overrule == Regraft {
			return []job.Job{grafting(q, a, e, caution, minutes(60), days)}
		}
		c := job.Curve{Start: q.Today, Days: days}
		c.Because("put off", "the rootstock takes over and the client waits", func(x day.Day) job.Cost { return job.Cost(x.Sub(q.Today)) })
		return []job.Job{{Key: "ask", Kind: "ask the client", Title: "Settle with the client: regraft, replace or keep " + sp.Common, Curve: c, Minutes: 20, Crew: 1,
			Skills: []string{}, Kit: []string{}, After: []job.Gap{}, Reasons: []string{a.Verdict.Sentence}, Cautions: caution}}
	case Replace:
		c := job.Curve{Start: q.Today, Days: days}
		c.Because("frost", "hard frost may still hurt what is newly planted", func(x day.Day) job.Cost { return job.Cost(math.Round(70 * frost[x-q.Today])) })
		c.Because("heat", "new plants root badly in heat and need daily water", func(x day.Day) job.Cost { return job.Cost(7 * (n.TMax.At(x) - 22)) })
		return []job.Job{{Key: "replace", Kind: "replace", Title: "Take out and replace " + sp.Common, Curve: c,
			Minutes: minutes(45), Crew: 1, Skills: []string{}, Kit: []string{"spade", "mattock", "barrow"}, After: []job.Gap{},
			Reasons: []string{a.Verdict.Sentence}, Cautions: caution}}
	}
	return []job.Job{}
}

func (a *Answer) cautionWords() []string {
	out := make([]string, 0, len(a.Cautions))
	for _, c := range a.Cautions {
		out = append(out, c.Text)
	}
	return out
}

// guarding is the work of keeping teeth, strings and mowers from a wounded stem.
func guarding(q Question, a *Answer) job.Job {
	c := job.Curve{Start: q.Today, Days: 120}
	c.Because("bare", "until it is guarded it may happen again any day", func(x day.Day) job.Cost { return job.Cost(2 * x.Sub(q.Today)) })
	return job.Job{Key: "guard", Kind: "guard", Title: "Guard the stem of " + q.Plant.Species.Common, Curve: c, Minutes: 15, Crew: 1,
		Skills: []string{}, Kit: []string{"wire mesh or a spiral guard", "stakes"}, After: []job.Gap{}, Reasons: []string{a.Verdict.Sentence}, Cautions: a.cautionWords()}
}

// grafting is the work of bridging a ring or grafting a variety on again: while the bark slips, about leaf-out.
func grafting(q Question, a *Answer, e *evidence, caution []string, minutes, days int) job.Job {
	c := job.Curve{Start: q.Today, Days: days}
	slips := a.LeafOut
	if q.Today > slips.Late+21 {
		_, yearEnd := q.Year.Normals.Climate.GardenYear(q.Today)
		_, slips = PatienceDate(q.Plant.Species, q.Year, yearEnd)
	}
	c.Because("bark does not slip", "the bark parts from the wood only about leaf-out", func(x day.Day) job.Cost {
		if x < slips.Early-14 {
			return job.Cost(2 * (slips.Early - 14 - x))
		}
		return job.Cost(3 * x.Sub(slips.Late+14))
	})
	c.Because("stores run out", "every week the roots live on their stores", func(x day.Day) job.Cost { return job.Cost(x.Sub(q.Today) / 7) })
	title := "Graft the variety on " + q.Plant.Species.Common + " again"
	if e.girdle.whole {
		title = "Bridge-graft the ring on " + q.Plant.Species.Common
	}
	return job.Job{Key: "graft", Kind: "graft", Title: title, Curve: c, Minutes: minutes, Crew: 1, Skills: []string{"grafting"},
		Kit: []string{"grafting knife", "dormant twigs of the same tree", "ties", "wax"}, After: []job.Gap{}, Reasons: []string{a.Verdict.Sentence}, Cautions: caution}
}

// lifted is the work of bringing a tender plant in and out again.
func lifted(q Question, a *Answer, look job.Job) []job.Job {
	n := q.Year.Normals
	sp := q.Plant.Species
	end := a.LookAgain + 60
	frost := n.FrostWithin(q.Today, end, 7, 0)
	// The chance that frost has come by a day.
	in := job.Curve{Start: q.Today, Days: end.Sub(q.Today)}
	came := n.FrostWithin(q.Today, q.Today, 0, 0)[0]
	costs := make([]job.Cost, in.Days)
	for i := range costs {
		came = 1 - (1-came)*(1-n.FrostChance(q.Today+day.Day(i), 0))
		costs[i] = job.Cost(math.Round(100 * came))
	}
	in.Because("frost", "the first frost may have come and killed it", func(x day.Day) job.Cost { return costs[x-q.Today] })
	in.Because("still in bloom", "it still blooms and grows", func(x day.Day) job.Cost { return job.Cost(20 - 20*x.Sub(q.Today)/max(1, in.Days/8)) })
	out := job.Curve{Start: q.Today, Days: end.Sub(q.Today)}
	out.Because("frost", "a late frost would undo the winter's work", func(x day.Day) job.Cost { return job.Cost(math.Round(100 * frost[x-q.Today])) })
	out.Because("winter", "it has only just come in", func(x day.Day) job.Cost { return job.Cost(a.LookAgain-x) / 2 })
	out.Because("put off", "it grows thin and pale indoors", func(x day.Day) job.Cost { return job.Cost(x.Sub(a.LookAgain)) })
	mins := int(math.Ceil((20+8*q.Plant.HeightM)/5) * 5)
	title, kit := "Cut "+sp.Common+" to 30 cm, lift, pot and bring it in", []string{"secateurs", "spade", "pot and open soil", "label"}
	crew := 1
	if q.Plant.PotL > 0 {
		title, kit = "Bring "+sp.Common+" in its pot under shelter", []string{"pot trolley", "label"}
		if q.Plant.PotL > 25 {
			crew = 2
		}
	}
	caution := look.Cautions
	return []job.Job{
		{Key: "lift", Kind: "lift and shelter", Title: title, Curve: in, Minutes: mins, Crew: crew, Skills: []string{}, Kit: kit, After: []job.Gap{}, Reasons: []string{a.Verdict.Sentence}, Cautions: caution},
		{Key: "return", Kind: "plant out", Title: "Harden " + sp.Common + " off and plant it out again", Curve: out, Minutes: mins, Crew: crew, Skills: []string{}, Kit: []string{"spade", "compost", "fleece"},
			After: []job.Gap{{Job: "lift", MinDays: 60}}, Reasons: []string{"After the last frost of spring."}, Cautions: caution},
	}
}
