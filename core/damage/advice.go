package damage

import (
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
)

// word puts the decision into words: sentence, advice, dates, prognosis, reasons, cautions.
func (a *Answer) word(t told) {
	a.Verdict = t.verdict()
	t.advise()
	a.LookAgain = t.lookAgain()
	t.changes()
	a.Prognosis = prognosis(t.q, a, t.e, t.d)
	if t.palm() && t.d.kind == Leave && a.LookAgain.Given() {
		a.Prognosis = t.s.holds(t.e)
	}
	if a.Prognosis.Heights == nil {
		a.Prognosis.Heights = []float64{}
	}
	a.Reasons = reasons(t.q, a, t.s)
	a.Cautions = cautions(t.q, t.d)
}

// told is the case of advice that takes the place of the verdict's own; "" for none.
func (t told) adviceCase() string {
	e, d := t.e, t.d
	switch {
	case d.kind == MakeSafe:
	case d.kind == Lift && t.q.Plant.PotL > 0:
		return "pot"
	case d.kind == Lift && t.s.species.LeafSeason == catalogue.Herbaceous:
		return "tubers"
	case d.kind == Lift:
	case t.palm() && d.kind == CutToBase:
		return "new stems"
	case t.palm() && !t.s.species.HasSpear():
		return "no spear"
	case t.palm():
		return "palm"
	case t.s.species.Form == catalogue.Perennial && (d.kind == Wait || d.kind == Look):
		return "crown"
	case d.kind == Wait && t.s.resting:
		return "at rest"
	case d.kind == Regraft && e.girdle.whole:
		return "ring"
	case d.kind == TipBack && t.s.shortens(e):
		return "rocking in autumn"
	case d.kind == Look && e.below && !e.living:
		return "shoots from under the graft"
	case d.kind == CutToBase && t.s.species.LeafSeason == catalogue.Herbaceous && t.s.place.Rules.Perennials == rules.AtFrost:
		return "herbaceous at frost"
	}
	return ""
}

// advise says what to do, what not to do, and which ways are open.
func (t told) advise() {
	a, e, d := t.a, t.e, t.d
	w := knowledge.Verdicts[d.kind]
	if c := t.adviceCase(); c != "" {
		w = knowledge.Cases[c]
	}
	a.Do, a.Dont, a.Choices = slices.Clone(w.Do), slices.Clone(w.Dont), []Choice{}
	if d.kind == Regraft {
		a.Choices = []Choice{{Regraft, "Graft the variety on again"}, {Replace, "Replace it"}, {Leave, "Keep it as it is"}}
		if e.girdle.whole {
			a.Choices = []Choice{
				{Regraft, "Bridge the ring with grafts"},
				{Replace, "Replace it"},
				{CutToBase, "Let it shoot from below"},
			}
		}
	}
	if e.rocking && d.kind != MakeSafe && d.kind != Lift && !(d.kind == TipBack && t.s.autumn) {
		a.Do = append(a.Do, knowledge.Also["rocking"])
	}
	if e.girdle.share > 0 && d.kind != MakeSafe {
		a.Do = append(a.Do, knowledge.Also["wound"])
	}
	if cause := a.Spot.Suspect(); cause != "" && d.kind != MakeSafe {
		a.Do = append([]string{"Mend the spot first: " + cause + ". " + a.Spot.Reasons[0].Mend}, a.Do...)
	}
	if e.stock && e.living {
		a.Do = append(a.Do, knowledge.Also["rootstock"])
	}
	if t.q.Plant.Graft() > 0 && (d.kind == CutBack || d.kind == CutToBase) {
		a.Dont = append(a.Dont, knowledge.Also["graft"])
	}
}

// lookAgain is the day of the follow-up; day.None where none is needed.
func (t told) lookAgain() day.Day {
	due := func(w job.When) day.Day { return t.s.place.Due(w, &t.s.species, t.q.Today) }
	switch t.d.kind {
	case Look:
		return due(job.LeafDue)
	case Wait:
		return max(t.a.Verdict.Until, t.q.Today)
	case MakeSafe:
		return due(job.InAWeek)
	case CutBack, CutToBase, TipBack:
		if t.d.kind == TipBack && t.s.shortens(t.e) {
			return due(job.FrostPast)
		}
		return due(job.CutShows)
	case Lift:
		return due(job.FrostPast)
	case Leave:
		if t.e.girdle.share > 0 {
			return due(job.LeafDueNext)
		}
		if t.palm() {
			return t.s.pullAgain(t.e, t.q.Today)
		}
	}
	return day.None
}

// changes says what would change a verdict to wait.
func (t told) changes() {
	if t.q.waitsAsTold() {
		return
	}
	if t.d.kind != Wait {
		return
	}
	if t.e.girdle.rules(t.d) {
		t.a.Changes = append(
			t.a.Changes,
			"No bridge left, or bark gone all round: everything above is lost unless it is grafted across.",
			"Full, green growth by then: it is fed, and heals.",
		)
		return
	}
	if t.palm() {
		return
	}
	above, by := "", quantity.Day(t.a.Patience)
	if t.e.living {
		above = " above " + quantity.Length(t.a.Boundary.LowM)
	}
	t.a.Changes = append(
		t.a.Changes,
		fmt.Sprintf("Leaf or a living shoot%s before %s: it is alive there after all.", above, by),
		fmt.Sprintf("No leaf%s by %s: what has not shown is dead.", above, by),
	)
}
