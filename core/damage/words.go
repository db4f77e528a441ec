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
		case e.any && a.Next != nil && a.Next.Kind == Crown:
			v.Sentence = "Dead to the ground as far as it was checked: look at the crown before giving it up."
			v.Sure = e.belief.chanceBelow(0.08)
		case e.any:
			v.Sentence = fmt.Sprintf("Check on before cutting: life ends somewhere between %s and %s.", metres(b.LowM), metres(b.HighM))
			v.Sure = 0.8
		}
	case Leave:
		v.Sentence = "Leave it: it is alive to the tips."
		v.Sure = 1 - e.belief.chanceBelow(0.97)
		if palm {
			v.Sentence, v.Sure = "Leave it: the growing point lives.", 1-CrownMisread
		}
	case Wait:
		v.Until = a.Patience
		v.Sure = e.belief.chanceBelow(b.HighM/h) - e.belief.chanceBelow(b.LowM/h)
		until := a.Patience.Words()
		switch {
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
	case CutBack:
		v.CutM, v.CutTo = floorTo(d.cut*h), "an outward-facing live bud at or just under this height"
		v.Sentence = fmt.Sprintf("Cut back to the live bud at about %s, when frost is past and growth shows.", metres(v.CutM))
		if s.late {
			v.Sentence = fmt.Sprintf("Cut back to the live bud at about %s.", metres(v.CutM))
		}
		v.Sure = 1 - e.belief.chanceBelow(d.cut)
	case CutToBase:
		v.CutM, v.CutTo = floorTo(min(0.1, baseShare*h)), "short stubs over the crown"
		if g := q.Plant.graft(); g > 0 && v.CutM < g+0.03 && !e.ownRoots {
			v.CutM, v.CutTo = round(min(h, g+0.05), 0.01), "short stubs over the graft"
		}
		v.Sentence = "Cut to the base and let it renew: the crown lives."
		v.Sure = 1 - CrownMisread
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
	if palm && d.kind != MakeSafe {
		words = leaveHint[catalogue.Palm]
	}
	a.Do, a.Dont = slices.Clone(words.do), slices.Clone(words.dont)
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
	}
	if d.kind == Wait && !palm {
		above := ""
		if e.living {
			above = " above " + metres(b.LowM)
		}
		a.Changes = append(a.Changes, fmt.Sprintf("Leaf or a living shoot%s before %s: it is alive there after all.", above, a.Patience.Words()),
			fmt.Sprintf("No leaf%s by %s: what has not shown is dead.", above, a.Patience.Words()))
	}
	a.Prognosis = prognosis(q, a, e, d)
	a.Reasons = reasons(q, a, s)
	a.Cautions = cautions(q, d)
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
	case Regraft:
		return Prognosis{3, 5, 0.6, "A new graft on an old root grows fast: a bearing crown again in three to five seasons, if it takes. What shoots now is the rootstock's and stays so."}
	case MakeSafe:
		return Prognosis{Text: "No prognosis before it is safe to look closer."}
	case Replace:
		return Prognosis{Text: "It will not come back. A new plant needs its first two summers watered."}
	case CutToBase:
		keep, lost, alive = a.Verdict.CutM, 1, 1-CrownMisread
		if sp.LeafSeason == catalogue.Herbaceous {
			return Prognosis{1, 1, alive, "Full size again within the season, from the crown."}
		}
	case CutBack, TipBack:
		keep = a.Verdict.CutM
	case Leave:
		return Prognosis{0, 1, round(0.97, 0.01), "Looks right by summer."}
	}
	if sp.Form == catalogue.Palm {
		c := 0.3
		if e.spear == "" {
			c = 0.6
		}
		return Prognosis{1, 3, c, "If the growing point lives, new leaves come by late summer and the head fills in two to three seasons."}
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
	text := fmt.Sprintf("Looks right again in %s, if it lives: it grows about %.0f cm a year.", span(lo, hi), sp.GrowthCMYear)
	if lost > 0.3 && (sp.Bloom.Habit == "old wood" || sp.Bloom.Habit == "spur") {
		text += " It blooms on older wood: the coming bloom above the cut is lost."
	}
	return Prognosis{lo, hi, round(chance, 0.01), text}
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
		}
	}
	sp := q.Plant.Species
	due := fmt.Sprintf("Leaf is due about %s this year, one year in ten after %s; %d days more for coming late after damage: %s",
		a.LeafOut.Mid.Words(), a.LeafOut.Late.Words(), sp.LatenessDays, a.Patience.Words())
	if s.late {
		out = append(out, Reason{due + ", and that is past", "dead", 0})
	} else {
		out = append(out, Reason{due + "; silence before then proves nothing", "wait", 0})
	}
	return out
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
	case CutBack, CutToBase, TipBack, Replace:
		out = append(out, catalogue.Caution{Kind: "tools", Text: "Gloves and eye protection; look for nests first. Local rules on protected trees and cutting times come first."})
	}
	return out
}

// frostMatters is how many days after a cut a killing frost still burns it and what it has pushed.
const frostMatters = 45

// jobs turns the verdict into work with day costs.
func jobs(q Question, a *Answer, d decision) []job.Job {
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
	caution := make([]string, 0, len(a.Cautions))
	for _, c := range a.Cautions {
		caution = append(caution, c.Text)
	}
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
	case MakeSafe:
		found := gather(q).danger
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
	case Wait, Look:
		out := []job.Job{look(a.LookAgain, a.Verdict.Sentence)}
		if sp.Form != catalogue.Palm {
			title := "Cut " + sp.Common + " back to live wood, as the follow-up finds"
			out = append(out, cut("cut back", title, minutes(10), job.Gap{Job: "look", MinDays: 0, MaxDays: 30}))
		}
		return out
	case TipBack:
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
