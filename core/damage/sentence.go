package damage

import (
	"fmt"
	"math"
	"strings"

	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/overwinter"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
)

// told is all that the words of a verdict are made from.
type told struct {
	q Question
	e *evidence
	s situation
	d decision
	a *Answer
}

// alive is up to where it lives for all that was found: what was found living itself counts, unless something dead was
// found under it.
func (t told) alive() float64 {
	low := t.a.Boundary.LowM
	if g := t.e.greenAt; t.e.deadAt == 0 || t.e.deadAt > g {
		low = max(low, g*t.q.Plant.HeightM)
	}
	return low
}

func (t told) palm() bool { return t.q.Plant.Species.Form == catalogue.Palm }

// sentences are how each verdict is said and how sure it is.
var sentences = map[string]func(told, *Verdict){
	Look:      told.lookFirst,
	Leave:     told.leave,
	Wait:      told.wait,
	TipBack:   told.tipBack,
	CutBack:   told.cutBack,
	CutToBase: told.cutToBase,
	Regraft:   told.regraft,
	Replace:   told.replace,
	Lift:      told.lift,
	MakeSafe:  told.makeSafe,
}

// verdict says the decision.
func (t told) verdict() Verdict {
	v := Verdict{Kind: t.d.kind, Until: day.None}
	sentences[t.d.kind](t, &v)
	if t.q.Overrule != "" {
		v.Sentence = t.overruled(v)
	}
	v.Sure = quantity.Round(max(0, min(1, v.Sure)), 0.01)
	return v
}

// overruled is a verdict that a person gave: it claims nothing of what was found.
func (t told) overruled(v Verdict) string {
	switch t.d.kind {
	case Wait:
		return "Wait until " + quantity.Day(v.Until) + ", as decided on the spot."
	case TipBack:
		return "Tip back to " + quantity.Length(v.CutM) + ", as decided on the spot."
	case CutBack:
		return "Cut back to " + quantity.Length(v.CutM) + ", as decided on the spot."
	case CutToBase:
		return "Cut to the base, as decided on the spot."
	case Regraft:
		return "Graft it again, as decided on the spot."
	case Replace:
		return "Replace it, as decided on the spot."
	case Lift:
		return "Lift it and bring it in, as decided on the spot."
	case MakeSafe:
		return "Make it safe first, as decided on the spot."
	case Look:
		return "Check it again first, as decided on the spot."
	}
	return "Leave it, as decided on the spot."
}

func (t told) lookFirst(v *Verdict) {
	e, b := t.e, t.a.Boundary
	switch {
	case t.s.stale:
		v.Sentence = fmt.Sprintf(
			"Look at it again now: leaf was due by %s, and it was last looked at on %s.",
			quantity.Day(t.a.Patience),
			quantity.Day(t.s.found),
		)
	case !e.any && len(t.q.foundToday()) > 0:
		v.Sentence = "Found today: " + strings.Join(t.q.foundToday(), ", ") + ". How far up its wood lives was not checked."
	case !e.any && t.q.Forecast != nil && t.q.Forecast.Expects() != "":
		v.Sentence = "Nothing has been checked yet. The weather leads to expect " + t.q.Forecast.Expects() +
			": make the first check."
	case !e.any:
		v.Sentence = "Nothing has been checked yet: make the first check."
	case t.palm():
		v.Sentence = "Its head is lost: look at its foot for new stems before giving it up."
		v.Sure = 1 - belief.CrownMisread
	case e.crown == "soft" && e.living:
		v.Sentence, v.Sure = "Look again: the crown felt soft, but there is life above it. Draw the soil back and "+
			"feel once more.", 0.5
	case e.below && !e.living && t.s.late:
		v.Sentence = "Look at the leaf first: it shoots only from under the graft, and the leaf tells whether " +
			"that is the variety."
		v.Sure = e.belief.ChanceBelow(e.graft + graftMargin)
	case t.s.highOnly(e) && e.crown == "":
		v.Sentence = fmt.Sprintf("Dead at %s, and nothing lower was looked at: scratch lower before giving it up.",
			quantity.Length(e.lowest*t.q.Plant.HeightM))
		v.Sure = e.belief.ChanceBelow(e.lowest)
	case e.crown == "" && e.skip[check.Crown] && e.belief.ChanceBelow(toTheGround) > sureShare:
		v.Sentence = "Dead to the ground as far as it was checked, and the crown could not be looked at: come " +
			"back for it before giving it up."
		v.Sure = e.belief.ChanceBelow(toTheGround)
	case t.a.Next != nil && t.a.Next.Kind == check.Crown && !(e.dying && !e.living):
		v.Sentence = "Look at the crown: it decides whether the plant comes again."
		v.Sure = 0.8
	case t.a.Next != nil && t.a.Next.Kind == check.Crown:
		v.Sentence = "Dead to the ground as far as it was checked: look at the crown before giving it up."
		v.Sure = e.belief.ChanceBelow(toTheGround)
	case !e.dying && !t.s.struck:
		v.Sentence = fmt.Sprintf(
			"Nothing dead was seen so far, but the top was not looked at: check above %s.",
			quantity.Length(t.alive()),
		)
		v.Sure = 1 - e.belief.All.ChanceBelow(b.LowM/t.q.Plant.HeightM)
	default:
		v.Sentence = fmt.Sprintf(
			"Check on before cutting: life ends somewhere between %s and %s.",
			quantity.Length(min(t.alive(), b.HighM)),
			quantity.Length(b.HighM),
		)
		v.Sure = 0.8
	}
}

func (t told) leave(v *Verdict) {
	g := t.e.girdle
	v.Sentence, v.Sure = "Leave it: it is alive to the tips.", 1-t.e.belief.ChanceBelow(wholeFrom)
	switch sp := t.s.species; {
	case t.d.climb:
		v.Sentence = "Leave it: only its ends are dead, and too little of it to climb for. They break off or are grown over; " +
			"where people pass beneath, look up after wind."
		v.Sure = 0.9
	case t.d.ends:
		v.Sentence, v.Sure = "Leave it: an annual ends with the first hard frost. Pick or cut what is wanted before it.", 0.9
	case t.palm() && t.s.pullAgain(t.e, t.q.Today).Given():
		t.holdsSoFar(v, t.s.pullAgain(t.e, t.q.Today))
	case t.palm():
		v.Sentence, v.Sure = "Leave it: the growing point lives.", 1-belief.CrownMisread
	case sp.Form == catalogue.Perennial && t.e.living && !t.e.dying:
		v.Sentence = "Leave it: it is alive. Take off what is dead or scorched when new leaves show."
		v.Sure = 0.9
	case sp.Form == catalogue.Perennial && t.e.crown != "":
		v.Sentence, v.Sure = "Leave it: the crown is firm and grows again; take dead leaves off when new ones "+
			"show.", 1-belief.CrownMisread
	case t.budsGone() && sp.Edible != "":
		v.Sentence = "Leave it: the wood is green, but its buds are dead. This year's bloom and crop are lost, " +
			"the plant is not."
	case t.budsGone():
		v.Sentence = "Leave it: the wood is green, but its buds are dead. This year's bloom is lost, the plant is not."
	case g.share > 0 && !g.whole && g.share < healsUnder:
		v.Sentence, v.Sure = fmt.Sprintf("Leave it: bark gone over %.0f %% of the girth heals over.", 100*g.share), 0.9
	case g.share > 0 && !g.whole:
		v.Sentence, v.Sure = fmt.Sprintf(
			"Leave it: bark gone over %.0f %% of the girth slows it for some seasons, and heals.",
			100*g.share,
		), 0.75
	case t.d.reach:
		v.Sentence = fmt.Sprintf(
			"Leave it: alive at %s, and nothing dead was seen.",
			quantity.Length(t.e.greenAt*t.q.Plant.HeightM),
		)
		v.Sure = max(v.Sure, 0.8)
	case t.e.rocking && !t.e.stem:
		v.Sentence, v.Sure = "Leave it, but firm its roots in and tie it: it rocks in the wind.", 0.8
	}
}

// budsGone reports living wood whose buds are mostly dead, on a kind that blooms from them.
func (t told) budsGone() bool {
	return t.s.species.Bloom.OldWood >= 0.5 && t.e.broke >= 4 && t.e.held*4 < t.e.broke
}

// wait says until when, and what the finds themselves say.
func (t told) wait(v *Verdict) {
	e, b, h := t.e, t.a.Boundary, t.q.Plant.HeightM
	if t.q.waitsAsTold() {
		v.Until = t.q.OverruleUntil
		v.Sentence = fmt.Sprintf("Wait until %s, as decided on the spot.", quantity.Day(v.Until))
		return
	}
	v.Until = t.a.Patience
	if t.d.until.Given() && t.d.until > t.q.Today {
		v.Until = t.d.until
	}
	if v.Until <= t.q.Today {
		v.Until = t.q.Today + againIn
	}
	v.Sure = e.belief.All.ChanceBelow(b.HighM/h) - e.belief.All.ChanceBelow(b.LowM/h)
	until := quantity.Day(v.Until)
	if t.s.resting {
		until = "spring (" + quantity.DayOfYear(v.Until) + ")"
	}
	switch {
	case e.girdle.rules(t.d) && !t.palm():
		v.Until = t.s.place.Due(job.LeafDueNext, &t.s.species, t.q.Today)
		if fed := t.q.Year.Normals.Climate.Midwinter(t.q.Today) + growthTells; t.q.Today+14 <= fed && !t.s.resting {
			v.Until = fed
		}
		v.Sentence = fmt.Sprintf(
			"Wait until %s: bark gone over %.0f %% of the girth, but a bridge is left; whether it feeds the top, "+
				"growth will tell.",
			quantity.Day(v.Until),
			100*e.girdle.share,
		)
		v.Sure = 0.6
	case e.below && !e.living:
		v.Sentence = fmt.Sprintf(
			"Wait until %s: so far it shoots only from under the graft; the leaf will tell whether it is the variety.",
			until,
		)
	case e.stock && !e.living:
		v.Sentence = fmt.Sprintf(
			"Wait until %s: so far only the rootstock shoots, from below the graft; it is too early to give the "+
				"variety up.",
			until,
		)
	case t.palm():
		t.waitForPalm(v, until)
	case e.crown == "soft":
		v.Sentence, v.Sure = fmt.Sprintf(
			"Wait until %s: the crown feels soft, but nothing is lost by waiting.",
			until,
		), 1-belief.CrownMisread
	case !e.living && e.held > 0:
		v.Sentence = fmt.Sprintf(
			"Wait until %s: only %s held, and it is too early to give it up.",
			until,
			counted(e.held, "bud", "buds"),
		)
	case !e.living && (e.crown == "firm" || e.crown == "firm_buds"):
		v.Sentence = fmt.Sprintf("Wait until %s: the crown is firm, but nothing above it was found alive so far.", until)
	case !e.living && e.broke > 0 && e.held > 0:
		v.Sentence = fmt.Sprintf("Wait until %s: %d of %d buds held, too few to tell.", until, e.held, e.held+e.broke)
	case !e.living && e.dying && e.lowest > highOnly && t.s.species.Form != catalogue.Perennial:
		v.Sentence = fmt.Sprintf(
			"Wait until %s: dead at %s, and nothing lower was looked at. Scratch lower.",
			until,
			quantity.Length(e.lowest*h),
		)
	case !e.living && t.s.resting:
		v.Sentence = fmt.Sprintf("Leave it standing and judge it in %s: what an autumn freeze did shows then.", until)
	case !e.living:
		v.Sentence = fmt.Sprintf("Wait until %s: nothing living found so far, and it is too early to give it up.", until)
	case t.alive() < 0.12*h:
		v.Sentence = fmt.Sprintf("Wait until %s: it is too early to call how far up it lives.", until)
	default:
		v.Sentence = fmt.Sprintf("Too early to call above %s; wait until %s. Alive below.", quantity.Length(t.alive()), until)
	}
}

// highOnly is the share of the height above which what was found says nothing of the stem below.
const highOnly = 0.4

func (t told) waitForPalm(v *Verdict, until string) {
	if !t.s.species.HasSpear() {
		v.Sentence, v.Sure = fmt.Sprintf(
			"Wait until %s: browned leaves say little; new ones from the heart will tell.",
			until,
		), 0.5
		return
	}
	switch t.e.spear {
	case "":
		v.Sentence, v.Sure = fmt.Sprintf("Wait until %s, and pull the spear: nothing else tells on a palm.", until), 0
	case "held":
		v.Sentence, v.Sure = fmt.Sprintf(
			"Wait until %s: the spear held, but the head looks bad; new growth will tell.",
			until,
		), 0.5
	default:
		v.Sentence = fmt.Sprintf("Wait until %s: the spear came out, but the growing point may still live.", until)
		v.Sure = belief.SpearPulledDead / (belief.SpearPulledDead + belief.SpearPulledAlive)
	}
}

const (
	growthTells = 240 // days from midwinter on which a summer's growth has told whether a bridge feeds the top
	againIn     = 24  // days until the next look where the day to wait for is past
)

func counted(n int, one, many string) string {
	if n == 1 {
		return "one " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

func (t told) tipBack(v *Verdict) {
	v.CutM, v.CutTo = floorTo(t.d.cut*t.q.Plant.HeightM), "the first pair of live buds"
	v.Sentence = fmt.Sprintf("Tip back to %s: only the ends are dead.", quantity.Length(v.CutM))
	v.Sure = 1 - t.e.belief.ChanceBelow(t.d.cut)
	if t.s.shortens(t.e) {
		v.Sentence = fmt.Sprintf(
			"Shorten by a third now, to %s, so that wind does not rock it loose; the rest after hard frost, when "+
				"spring comes.",
			quantity.Length(v.CutM),
		)
		v.Sure = 0.9
	}
}

func (t told) cutBack(v *Verdict) {
	v.CutM, v.CutTo = floorTo(t.d.cut*t.q.Plant.HeightM), "an outward-facing live bud at or just under this height"
	v.Sentence = fmt.Sprintf(
		"Cut back to the live bud at about %s, when frost is past and growth shows.",
		quantity.Length(v.CutM),
	)
	if t.s.late {
		v.Sentence = fmt.Sprintf("Cut back to the live bud at about %s.", quantity.Length(v.CutM))
	}
	v.Sure = 1 - t.e.belief.ChanceBelow(t.d.cut)
}

func (t told) lift(v *Verdict) {
	v.Sure = quantity.Round(1-t.s.winters, 0.01)
	if t.q.Plant.PotL > 0 {
		if t.s.frosted {
			v.Sentence = fmt.Sprintf(
				"Shelter the pot now: frost has been already, and out here it comes through %s.",
				inTen(t.s.winters),
			)
			return
		}
		v.Sentence = fmt.Sprintf("Shelter the pot before the first frost: out here it comes through %s.", inTen(t.s.winters))
		return
	}
	herb := t.s.species.LeafSeason == catalogue.Herbaceous
	cut := overwinter.LiftedCutM
	if herb {
		cut = overwinter.TubersCutM
	}
	v.CutM, v.CutTo = min(cut, t.q.Plant.HeightM), "about "+quantity.Length(cut)+" above the ground"
	switch {
	case t.s.frosted && herb:
		v.Sentence = fmt.Sprintf(
			"Lift it now: frost has blackened its tops, and out here the crown comes through %s.",
			inTen(t.s.winters),
		)
		return
	case t.s.frosted:
		v.Sentence = fmt.Sprintf(
			"Lift and shelter it now: frost has been already, and out here it comes through %s.",
			inTen(t.s.winters),
		)
		return
	case herb:
		v.Sentence = fmt.Sprintf(
			"Lift it when the first frost has blackened its tops: out here the crown comes through %s.",
			inTen(t.s.winters),
		)
		return
	}
	v.Sentence = fmt.Sprintf(
		"Lift and shelter it before the first frost: out here it comes through %s.",
		inTen(t.s.winters),
	)
}

func (t told) cutToBase(v *Verdict) {
	e, h := t.e, t.q.Plant.HeightM
	v.CutM, v.CutTo = floorTo(min(0.1, baseShare*h)), "short stubs over the crown"
	if g := t.q.Plant.Graft(); g > 0 && v.CutM < g+0.03 && !e.ownRoots {
		v.CutM, v.CutTo = quantity.Round(min(h, g+0.05), 0.01), "short stubs over the graft"
	}
	v.Sentence, v.Sure = "Cut to the base and let it renew: the crown lives.", 1-belief.CrownMisread
	if t.palm() {
		v.Sentence = "Take the dead stem off at the base: its head is lost, and it comes again from its foot."
	}
	if e.girdle.rules(t.d) && e.crown == "" && !(e.belief.ChanceBelow(toTheGround) > sureShare) {
		v.Sentence = fmt.Sprintf(
			"Cut to the base, under the ring, and let it renew: the bark is gone all round at %s and nothing "+
				"above is fed.",
			quantity.Length(e.girdle.at*h),
		)
		v.CutM = min(v.CutM, max(0.02, floorTo(e.girdle.at*h-0.02)))
	}
	if t.s.species.LeafSeason == catalogue.Herbaceous {
		v.Sentence = "Cut the dead tops to the base when frost is past: the crown lives."
		if t.s.place.Rules.Perennials == rules.AtFrost {
			v.Sentence = "Cut the dead tops to the base now, as the house does, and mulch: the crown lives."
		}
	}
}

func (t told) makeSafe(v *Verdict) {
	v.Sentence, v.Sure = "Make it safe first.", 1
	if r := check.Of(check.Danger).Result(t.e.danger); r != nil && r.Says != "" {
		v.Sentence = "Make it safe first: " + r.Says + "."
	}
}

func (t told) regraft(v *Verdict) {
	v.Sentence = fmt.Sprintf(
		"Regraft it or replace it: only the rootstock lives, below the graft at %s.",
		quantity.Length(t.q.Plant.Graft()),
	)
	v.Sure = t.e.belief.ChanceBelow(t.e.graft + graftMargin)
	if t.e.girdle.whole {
		v.Sentence = fmt.Sprintf(
			"Bridge-graft it or replace it: the bark is gone all round at %s, and everything above is lost unless "+
				"it is bridged now.",
			quantity.Length(t.e.girdle.at*t.q.Plant.HeightM),
		)
		v.Sure = 1 - belief.ScratchMisread
	}
}

func (t told) replace(v *Verdict) {
	switch {
	case t.d.ends:
		v.Sentence, v.Sure = "Clear it away: frost has ended it, and an annual is sown or planted again in spring.", 0.95
	case t.e.stock && t.e.crown != "soft":
		v.Sentence = "Replace it: only the rootstock lives, and it is young enough to start again."
		v.Sure = t.e.belief.ChanceBelow(t.e.graft + graftMargin)
	case t.s.stemIsAll() && t.e.crown == "" && t.e.belief.ChanceBelow(toTheGround) > sureShare:
		v.Sentence = "Replace it: dead down to the ground, and this kind comes again neither from bare wood nor from " +
			"below."
		v.Sure = t.e.belief.ChanceBelow(toTheGround)
	case t.palm():
		v.Sentence, v.Sure = "Replace it: the growing point is dead and the time to recover is past.", 1-belief.CrownMisread
	case t.e.crown != "soft":
		v.Sentence = "Replace it: what is still alive is bare wood, and this kind does not shoot from it."
		if t.e.shootAt > 0 {
			v.Sentence = "Replace it: too little of it lives to make a whole plant again, and this kind does not shoot " +
				"from bare wood."
		}
		v.Sure = t.e.belief.ChanceBelow(0.35)
	default:
		v.Sentence, v.Sure = "Replace it: dead to the crown, and past the day by which it would have shown life.", 1-belief.CrownMisread
	}
}

// floorTo sets a cut on a height one can measure, never above the belief's: 5 cm steps.
func floorTo(m float64) float64 {
	if m < 0.2 {
		return quantity.Round(m, 0.01)
	}
	return math.Floor(m*20+1e-9) / 20
}
