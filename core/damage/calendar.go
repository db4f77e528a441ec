package damage

import (
	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/pruning"
	"mezzadro/core/rules"
)

// What is found speaks louder with the year: what shoots tells where it lives, whatever the patience date says; what is
// cut hard each spring is cut at its time; what is plainly rotten is not waited for.

const (
	growthSeen  = 21 // days before its earliest leaf from which growth that is seen is the year's own
	yearlyPast  = 40 // days after the window of the yearly cut in which it is still made
	lowBrown    = 0.3
	wideGap     = 0.4 // between green and brown, as a share of the height: more of it was not looked at
	mostBare    = 0.7 // share of the crown that may be lost of what does not come from bare wood
	annualWaits = 14  // days in which an annual shows whether it shoots again
	tuberC      = -9  // kinds no hardier than this come late from what lies in the ground
)

// yearlyCut notes when a kind that is cut hard each spring is cut.
func (s *situation) yearlyCut(q Question) {
	if !pruning.CutHard(&s.species) {
		return
	}
	at := q.CutsAt
	if at == nil {
		at = pruning.At(q.Year)
	}
	from, to, ok := pruning.Yearly(&s.species, at, s.found-yearlyPast)
	if !ok {
		return
	}
	s.cutNow = s.found >= from && s.found <= to+yearlyPast
	if s.found > to+yearlyPast {
		from, to, ok = pruning.Yearly(&s.species, at, s.found)
	}
	if ok && !s.cutNow && from > s.found {
		s.yearly = from + (to-from)/3
	}
}

// atFrost reports the house rule that perennials are cut at the first killing frost.
func (s situation) atFrost() bool { return s.place.Rules.Perennials == rules.AtFrost }

// annual is the verdict on what lives for one season: its end, or the frost that came too late or too early for it.
func (s situation) annual(e *evidence) (decision, bool) {
	switch {
	case !s.species.Annual:
		return decision{}, false
	case s.frosted && s.autumn || e.softFoot && !e.living:
		return decision{kind: Replace, ends: s.autumn}, true
	case s.autumn:
		return decision{kind: Leave, ends: true}, true
	case e.clings && e.living:
		return decision{kind: Wait, until: s.found + annualWaits}, true
	}
	return decision{}, false
}

// lost reports a tender plant that autumn has frozen to the foot.
func (s situation) lost(e *evidence) bool {
	return s.autumn && s.winters < 0.5 && !e.living && (e.crown == "soft" && s.liftable || e.softFoot && e.clings)
}

// rotten reports a crown or foot that is plainly gone: two signs that agree, or one when it should have been in growth.
func (s situation) rotten(e *evidence) bool {
	if e.living || s.resting || s.autumn {
		return false
	}
	low := e.deadAt > 0 && e.deadAt < lowBrown
	return e.crown == "soft" && (s.found >= s.leaf.Mid || s.spring && (e.softFoot || low))
}

// crownDecision is the verdict on what dies back each winter, from its crown.
func (s situation) crownDecision(e *evidence) decision {
	switch {
	case s.resting && !s.atFrost():
		return decision{kind: Leave} // old tops shelter the crown
	case s.found >= s.leaf.Late && !s.resting && s.species.HardinessC <= tuberC && e.deadAt == 0:
		return decision{kind: Leave} // what it has put up was burnt; more comes
	case s.species.HardinessC > tuberC && e.crown == "firm" && e.deadAt == 0 && !e.clings && !e.living && !s.late && !s.resting:
		return decision{kind: Wait} // firm says that it is not rotten, not that it lives
	}
	return decision{kind: CutToBase} // dead tops are how it winters; the crown lives
}

// calendarDecision is the verdict where what was found and the time of year say enough together.
func (s situation) calendarDecision(e *evidence) (decision, bool) {
	top := e.deadAt
	if b := e.budsDead; b > e.greenAt && (top == 0 || b < top) {
		top = b // buds that break off above wood that lives
	}
	dead := top > 0 || e.broke > e.held
	switch {
	case s.resting && s.yearly.Given() && s.yearly > 0:
		return decision{kind: Wait, until: s.yearly}, dead || e.clings
	case s.resting || !dead && !e.clings:
		return decision{}, false
	case e.shootAt > 0 && e.shootAt < top && (s.spring || s.cutNow):
		return s.cutTo(e, e.shootAt, top), true
	case s.cutNow && e.greenAt > 0 && dead && (top == 0 || e.greenAt < top):
		return s.cutTo(e, e.greenAt, top), true
	case (s.cutNow || s.spring && s.comesAgain()) && e.crown == "firm_buds" && dead && !e.living:
		return decision{kind: CutToBase}, true
	case s.yearly > s.found && s.yearly < s.patience:
		return decision{kind: Wait, until: s.yearly}, true
	case s.spring && s.found >= s.leaf.Early && e.greenAt > 0 && top > 0 && e.greenAt < top && s.stemTells(e, top):
		return s.cutTo(e, e.greenAt, top), true
	case s.spring && s.found >= s.leaf.Early && !e.living && e.softFoot && top > 0 && top < lowBrown && (s.stemIsAll() || s.potted):
		return decision{kind: Replace}, true
	}
	return decision{}, false
}

// stemTells reports that what was found green on a stem can be believed beside the brown above it.
func (s situation) stemTells(e *evidence, top float64) bool {
	bare := s.species.HardPruning == catalogue.GreenWood && CrownAbove(s.species.Form, e.greenAt) > mostBare
	return e.belief.ChanceBelow(e.greenAt) < 0.25 && top-e.greenAt <= wideGap && !bare
}

// comesAgain reports a kind that shoots from below.
func (s situation) comesAgain() bool { return s.species.HardPruning == catalogue.FromBase }

// cutTo is a cut in living wood at or above a place that was found living, and never below it.
func (s situation) cutTo(e *evidence, living, top float64) decision {
	cut := max(living, min(e.belief.Quantile(cutCaution), max(living, top-belief.StemSpread)))
	switch {
	case CrownAbove(s.species.Form, cut) < tipsOnly:
		return decision{kind: TipBack, cut: cut}
	case cut < baseShare && s.species.HardPruning != catalogue.GreenWood:
		return decision{kind: CutToBase}
	}
	return decision{kind: CutBack, cut: cut}
}

// enough is the share of its height up to which something living speaks for the rest.
func (s situation) enough(e *evidence) float64 {
	if e.leafWell {
		return leafEnough
	}
	return highEnough
}
