package damage

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/job"
	"mezzadro/core/overwinter"
)

// orders is the work a verdict asks for, but for its after-care.
func orders(q Question, a *Answer, d decision, s situation, e *evidence) []job.Order {
	c := a.cautionWords()
	why := a.Verdict.Sentence
	ask := func(work string, k job.Kind, key string, p job.Params, after ...job.Gap) job.Order {
		return q.ask(work, k, key, p, why, c, after...)
	}
	look := func(w job.When, why string, after ...job.Gap) job.Order {
		return q.ask("look", job.Look, "look", job.Params{When: w}, why, c, after...)
	}
	switch d.kind {
	case Leave:
		if e.girdle.share > 0 {
			return []job.Order{look(job.LeafDueNext, "See whether the wound closes.")}
		}
		if a.LookAgain.Given() { // a palm whose spear is pulled again
			again := look(job.OnDay, why)
			again.Params.Due = a.LookAgain
			return []job.Order{again}
		}
	case MakeSafe:
		work := "make safe"
		if licensed(q, e.danger) {
			work = "make safe, licensed"
		}
		return []job.Order{
			ask(work, job.MakeSafe, "safe", job.Params{}),
			look(job.InAWeek, "Judge the plant again once it is safe.", job.Gap{Job: "safe"}),
		}
	case Lift:
		return q.lifting(a)
	case Wait, Look:
		when := job.LeafDue
		if d.kind == Wait && e.girdle.rules(d) {
			when = job.LeafDueNext
		}
		again := look(when, why)
		if q.waitsAsTold() {
			again.Params = job.Params{When: job.OnDay, Due: q.OverruleUntil}
		}
		out := []job.Order{again}
		wood := s.species.Form != catalogue.Palm && s.species.Form != catalogue.Perennial
		if wood && !e.girdle.rules(d) {
			out = append(
				out,
				ask("cut as found", job.CutBack, "cut", job.Params{When: job.AsFound}, job.Gap{Job: "look", MaxDays: 30}),
			)
		}
		return out
	case TipBack:
		if s.shortens(e) && a.Verdict.CutM > 0 {
			return []job.Order{ask("shorten", job.Shorten, "shorten", job.Params{CutM: a.Verdict.CutM}),
				ask("cut the rest", job.CutBack, "cut", job.Params{}, job.Gap{Job: "shorten"})}
		}
		return []job.Order{ask("tip back", job.TipBack, "cut", job.Params{CutM: a.Verdict.CutM})}
	case CutBack, CutToBase:
		cut := ask("cut back", job.CutBack, "cut", job.Params{CutM: a.Verdict.CutM})
		if d.kind == CutToBase {
			cut = ask("cut to the base", job.CutToBase, "cut", job.Params{CutM: a.Verdict.CutM})
		}
		return []job.Order{
			cut,
			look(job.CutShows, "See whether the cut plant shoots as foretold.", job.Gap{Job: "cut", MinDays: 28}),
		}
	case Regraft:
		switch {
		case e.girdle.whole:
			return []job.Order{ask("bridge-graft", job.Graft, "graft", job.Params{})}
		case q.Overrule == Regraft:
			return []job.Order{ask("graft", job.Graft, "graft", job.Params{})}
		}
		return []job.Order{ask("ask the client", job.Ask, "ask", job.Params{})}
	case Replace:
		return []job.Order{ask("replace", job.Replace, "replace", job.Params{})}
	}
	return nil
}

// Work that is not for a gardener on the ground: above a height, with a saw from a ladder, or on a stem that falls
// with weight.
const (
	thickMM     = 100.0
	forArborist = "licensed arborist"
)

// aloft names the licensed skill, a second person and the danger in an order whose work is off the ground or on a
// thick stem.
func (q Question) aloft(o job.Order, d decision) job.Order {
	base := cold.Plant{Species: q.Plant.Species, HeightM: q.Plant.HeightM}
	tree := overwinter.Treelike(q.Plant.Species.Form)
	high := (o.Kind == job.CutBack || o.Kind == job.TipBack) && q.Plant.HeightM > inReach &&
		(d.cut == 0 || d.cut*q.Plant.HeightM > inReach)
	felled := tree && (o.Kind == job.CutToBase || o.Kind == job.Replace) && base.Thickness(0) > thickMM
	if !high && !felled {
		return o
	}
	if !slices.Contains(o.Skills, forArborist) {
		o.Skills = append(o.Skills, forArborist)
	}
	o.Crew = max(2, o.Crew)
	o.Cautions = append(o.Cautions, knowledge.Cautions["aloft"])
	return o
}

// heavyPotL is the pot that one person does not move alone, L.
const heavyPotL = 25

// lifting is the work of bringing a tender plant in and out again.
func (q Question) lifting(a *Answer) []job.Order {
	c := a.cautionWords()
	in, out := "lift", "plant out"
	switch {
	case q.Plant.PotL > 0:
		in, out = "take in", "bring out"
	case q.Plant.Species.LeafSeason == catalogue.Herbaceous:
		in, out = "lift tubers", "plant tubers"
	}
	o := []job.Order{
		q.ask(in, job.Lift, "lift", job.Params{CutM: a.Verdict.CutM}, a.Verdict.Sentence, c),
		q.ask(
			out,
			job.PlantOut,
			"return",
			job.Params{When: job.FrostPast},
			"After the last frost of spring.",
			c,
			job.Gap{Job: "lift", MinDays: 60},
		),
	}
	for i := range o {
		o[i].Origin = job.TakingIn
		if q.Plant.PotL > heavyPotL {
			o[i].Crew = 2
		}
	}
	return o
}

// Troubles that verdicts are given on. A later verdict takes the place of an earlier one's work on the same trouble
// only.
const (
	Hurt   = "damage"        // by weather, teeth or blade
	Winter = "coming winter" // what is brought to safety before it
)

// trouble is what a verdict is given on.
func (d decision) trouble(s situation, e *evidence) string {
	if d.kind == Lift || d.kind == TipBack && s.shortens(e) {
		return Winter
	}
	return Hurt
}
