package estimate

import (
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/job"
	"mezzadro/core/quantity"
)

// Good is something that a job uses up or plants.
type Good struct {
	Name   string
	Amount float64
	Unit   string
	Price  Amount // of so many units, before the firm's share; 0: by the firm's list
	Per    int64  // units that the price is for; 0 with the price
}

// Job is a piece of work that is to be priced.
type Job struct {
	Order   int64
	Kind    job.Kind
	Title   string
	Plant   string
	Minutes int // of each of its people
	People  int
	Skills  []string
	Tools   []string // of its load list
	Goods   []Good
	WasteM3 float64
	Every   int    // days after which it comes again; 0: once
	Waits   string // what waiting costs, told beside a no
}

// Part is one part of what a job costs, or a line of its own.
type Part struct {
	What string `json:"what" enum:"work,machine,goods,waste,visit,free"`
	Text string `json:"text" maxLength:"300"`
	Of   string `json:"of,omitempty" maxLength:"300" doc:"How it was reckoned, in words; of what was changed by hand: that it was"`
	Range
	Unpriced bool `json:"unpriced,omitempty" doc:"The firm has no price for it yet: it counts nothing"`
	ByHand   bool `json:"by_hand,omitempty" doc:"The amount was entered"`
}

// Line is what a client says yes or no to: a job with what it costs, or something that was added by hand.
type Line struct {
	ID     int     `json:"id" minimum:"1" doc:"Within the estimate; it stays when others go"`
	Order  int64   `json:"order,omitempty" doc:"The job that it is for; absent for what was added by hand"`
	Title  string  `json:"title" maxLength:"300"`
	Plant  string  `json:"plant,omitempty" maxLength:"300"`
	Parts  []Part  `json:"parts" maxItems:"40"`
	Waits  string  `json:"waits,omitempty" maxLength:"600" doc:"What waiting costs"`
	Note   string  `json:"note,omitempty" maxLength:"600" doc:"To the client"`
	Answer *Answer `json:"answer,omitempty" doc:"Absent while nobody has said"`
	Range
}

// How far work and waste may differ from what is reckoned, as shares in hundredths of a per cent: work whose amount shows
// only when one is at it differs more.
const (
	usualSpread  Share = 2000
	unsureSpread Share = 3500
	wasteSpread  Share = 3000
)

// unsure are kinds of work whose time nobody knows before.
var unsure = []job.Kind{job.MakeSafe, job.CutBack, job.CutToBase, job.Replace, job.Graft, job.Lift}

// Unsure reports work whose time nobody knows before.
func Unsure(k job.Kind) bool { return slices.Contains(unsure, k) }

func spreadOf(k job.Kind) Share {
	if Unsure(k) {
		return unsureSpread
	}
	return usualSpread
}

// spread is an amount that may differ by a share.
func spread(a Amount, s Share) Range {
	return Range{a.part(whole, whole-int64(s)), a, a.part(whole, whole+int64(s))}
}

// LineOf is what a job costs by the rates: its work, what it uses up, what is taken away.
func (r *Rates) LineOf(j Job) Line {
	l := Line{Order: j.Order, Title: j.Title, Plant: j.Plant, Waits: j.Waits, Parts: []Part{}}
	if j.Minutes > 0 {
		l.Parts = append(append(l.Parts, r.work(j)), r.machines(j)...)
	}
	for _, g := range j.Goods {
		l.Parts = append(l.Parts, r.goods(g))
	}
	if j.WasteM3 > 0 {
		a := r.WasteM3.part(1000, thousandths(j.WasteM3))
		l.Parts = append(
			l.Parts,
			Part{
				What:     "waste",
				Text:     "Waste taken away",
				Of:       "about " + quantity.Bulk(j.WasteM3),
				Range:    spread(a, wasteSpread),
				Unpriced: r.WasteM3 == 0,
			},
		)
	}
	if j.Every > 0 {
		l.Note = fmt.Sprintf("For one time. It comes again about every %d days while it is wanted.", j.Every)
	}
	if r.Fixed {
		for i := range l.Parts {
			l.Parts[i].Range = exactly(l.Parts[i].Amount)
		}
	}
	l.add()
	return l
}

// add sums a line's parts.
func (l *Line) add() {
	l.Range = Range{}
	for _, p := range l.Parts {
		l.Range = l.Range.add(p.Range)
	}
}

// work is the time of a job's people: one of them at the rate of the dearest skill that it asks for.
func (r *Rates) work(j Job) Part {
	people := max(1, j.People)
	first, skill := r.Hour, ""
	for _, s := range j.Skills {
		if a := r.Skills[s]; a > first {
			first, skill = a, s
		}
	}
	a := (first + Amount(people-1)*r.Hour).part(60, int64(j.Minutes))
	of := lasting(j.Minutes)
	if people > 1 {
		of = fmt.Sprintf("%d people, %s", people, of)
	}
	if skill != "" {
		of += ", one of them for " + skill
		if people == 1 {
			of = lasting(j.Minutes) + " of " + skill
		}
	}
	return Part{What: "work", Text: "Work", Of: of, Range: spread(a, spreadOf(j.Kind)), Unpriced: first == 0}
}

// machines are those of a job that the firm asks for by the hour, for as long as the work lasts.
func (r *Rates) machines(j Job) []Part {
	var out []Part
	for _, name := range Machines {
		needed := slices.ContainsFunc(j.Tools, func(tool string) bool { return strings.HasPrefix(tool, name) })
		if a := r.Machines[name]; a > 0 && needed {
			each := spread(a.part(60, int64(j.Minutes)), spreadOf(j.Kind))
			out = append(out, Part{What: "machine", Text: capital(name), Of: lasting(j.Minutes), Range: each})
		}
	}
	return out
}

// goods is what is used up or planted, with the firm's share on it.
func (r *Rates) goods(g Good) Part {
	p := Part{What: "goods", Text: capital(g.Name), Of: measured(g)}
	each, per, known := g.Price, 1000*g.Per, g.Price > 0 && g.Per > 0
	if !known {
		each, per, known = r.price(g.Name, g.Unit)
	}
	if !known {
		p.Unpriced = true
		return p
	}
	p.Range = exactly(each.part(per*whole, thousandths(g.Amount), whole+int64(r.Markup)))
	return p
}

func measured(g Good) string {
	switch g.Unit {
	case "piece":
		return fmt.Sprintf("%.0f", g.Amount)
	case "L":
		return "about " + quantity.Volume(g.Amount)
	case "m2":
		return "about " + quantity.Area(g.Amount)
	case "mL":
		return quantity.Liquid(g.Amount)
	case "g":
		return quantity.Weight(g.Amount)
	}
	return fmt.Sprintf("%g %s", g.Amount, g.Unit)
}

func capital(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}

// Visits is the line of so many visits; nothing where the firm asks nothing for them.
func (r *Rates) Visits(n int) Part {
	of := "one visit"
	if n != 1 {
		of = fmt.Sprintf("%d visits", n)
	}
	return Part{What: "visit", Text: "Way and setting up", Of: of, Range: exactly(r.Visit.part(1, int64(n)))}
}

// Total is what the lines come to that were not declined, with the visits where any line is left, and the tax.
func (r *Rates) Total(lines []Line, visits Part) Sum {
	return r.sum(lines, visits, func(a *Answer) bool { return a == nil || a.Yes })
}

// Agreed is what the lines come to that were agreed.
func (r *Rates) Agreed(lines []Line, visits Part) Sum {
	return r.sum(lines, visits, func(a *Answer) bool { return a != nil && a.Yes })
}

func (r *Rates) sum(lines []Line, visits Part, counts func(*Answer) bool) Sum {
	all, any := Range{}, false
	for _, l := range lines {
		if counts(l.Answer) {
			all, any = all.add(l.Range), true
		}
	}
	if any {
		all = all.add(visits.Range)
	}
	return r.taxed(all)
}

// lasting is a time in words.
func lasting(minutes int) string {
	switch h, m := minutes/60, minutes%60; {
	case h == 0:
		return fmt.Sprintf("%d min", m)
	case m == 0:
		return fmt.Sprintf("%d h", h)
	default:
		return fmt.Sprintf("%d h %d min", h, m)
	}
}
