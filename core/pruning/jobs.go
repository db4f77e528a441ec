package pruning

import (
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
)

// Days between a cut and what comes after it.
const (
	sameVisit  = 14  // at most, for what is best done in one visit
	nextThird  = 300 // at least, from one third of a renewal to the next
	yearOfDays = 365 // from the year of one third to the year of the next
)

// InOneVisit is why what follows a cut hangs on it.
const InOneVisit = "best in one visit"

// Renewable reports that a kind comes again from old wood or from its base, so that it can be renewed; a tree on one trunk
// is not, unless it is cut for fruit.
func Renewable(e *catalogue.Entry) bool {
	comes := e.HardPruning == catalogue.FromBase || e.HardPruning == catalogue.OldWood
	tree := e.Form == catalogue.Tree && e.Standing() == catalogue.SingleTrunk
	return comes && (!tree || fruits[ClassOf(e).ID])
}

// verbs begin the titles of cuts for purposes that have a word of their own.
var verbs = map[Purpose]string{
	Hedge: "Trim ", Dead: "Clear dead wood from ", Renew: "Renew ", Sick: "Cut out what is sick: ",
	Deadhead: "Take faded heads off ",
}

// Title names a cut of so many plants of a kind: what is done, and to what.
func Title(purpose Purpose, e *catalogue.Entry, count int) string {
	title, end := verbs[purpose], ""
	switch {
	case e.Form == catalogue.Palm:
		title = "Take dead fronds off "
	case purpose == Renew && !Renewable(e):
		title, end = "Trim ", " lightly"
	case title == "":
		title = "Cut "
	}
	title += e.Common
	if count > 1 {
		title += fmt.Sprintf(" × %d", count)
	}
	return title + end
}

// Jobs are the jobs that a plan comes to: the cut, or each third of a renewal in its year, each after the one before,
// and with the first of them what is done in the same visit. Minutes are those of the cut of all plants, all people together, who
// share them; why is the
// first reason told; part is the third that comes next, 0 for none. What follows is asked for about the day with.
func (p *Plan) Jobs(a Ask, minutes int, why string, with day.Day) []job.Order {
	base := job.Order{
		Key:      "cut",
		Kind:     job.Prune,
		Title:    Title(a.Purpose, a.Species, a.Count),
		Origin:   job.Hand,
		For:      a.Date,
		Minutes:  max(1, (minutes+p.People-1)/max(1, p.People)),
		Crew:     max(1, p.People),
		Params:   job.Params{Purpose: string(a.Purpose), CutM: p.CutM, Part: a.Part},
		Skills:   p.Skills,
		Kit:      []string{},
		Reasons:  append([]string{why}, p.houseRules()...),
		Cautions: p.Cautions,
	}
	out := p.thirds(a, base)
	if a.Purpose == Renew && len(out) == 0 {
		base.Params.Part = 0
		base.Reasons = append([]string{p.Text}, base.Reasons...)
	}
	if len(out) == 0 {
		out = append(out, base)
	}
	for _, f := range p.Together {
		out = append(out, job.Order{
			Key:      f.Kind,
			Kind:     job.Kind(f.Kind),
			Title:    f.Title,
			Origin:   job.Hand,
			For:      p.follows(with),
			Minutes:  f.Minutes,
			Crew:     1,
			Skills:   []string{},
			Kit:      []string{},
			After:    []job.Gap{{Job: out[0].Key, MaxDays: sameVisit, Why: InOneVisit}},
			Reasons:  []string{f.Why},
			Cautions: []string{},
		})
	}
	return out
}

// feedAhead is how long before leaf-out what is fed and laid is best done, days: roots wake then.
const feedAhead = 24

// follows is the day about which what follows a cut is asked for: within the window of the cut, and near the flush.
func (p *Plan) follows(with day.Day) day.Day {
	for _, w := range p.Windows {
		if with >= w.From && with <= w.To && p.flush.Given() {
			return max(with, min(p.flush-feedAhead, w.To))
		}
	}
	return with
}

// houseRules are the house rules that the plan hangs on, each as a sentence.
func (p *Plan) houseRules() []string {
	out := make([]string, len(p.Rules))
	for i, r := range p.Rules {
		out[i] = "House rule: " + r + "."
	}
	return out
}

// thirds are the jobs of a renewal, a third a year; none of any other cut.
func (p *Plan) thirds(a Ask, base job.Order) (out []job.Order) {
	if a.Purpose != Renew {
		return nil
	}
	for i, step := range p.Years {
		o := base
		o.Params.Part = max(1, a.Part) + i
		o.Key = fmt.Sprintf("third %d", o.Params.Part)
		o.For += day.Day(yearOfDays * i)
		o.Title = fmt.Sprintf("%s, %d of %d", base.Title, o.Params.Part, len(Thirds))
		o.Reasons = append([]string{step.Text}, base.Reasons...)
		if i > 0 {
			o.After = []job.Gap{{Job: out[i-1].Key, MinDays: nextThird, Why: "a third a year"}}
		}
		out = append(out, o)
	}
	return out
}
