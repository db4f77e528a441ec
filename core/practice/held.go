package practice

import (
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// Decided is what somebody decided of a plant, after the checks they made.
type Decided struct {
	Checks []check.Check `json:"checks" maxItems:"60"`
	Kind   string        `json:"kind" enum:"leave,wait until,tip back,cut back to live wood,cut to the base,replace"`
	CutM   float64       `json:"cut_m,omitempty" minimum:"0" maximum:"60" doc:"Height of the cut, m, where there is one"`
}

// Held is what was decided of a plant, held against the truth.
type Held struct {
	Decided
	EndsM       float64 `json:"ends_m" doc:"Where life ended, m above ground"`
	BudsDead    bool    `json:"buds_dead" doc:"The frost had taken the buds of living wood"`
	Best        string  `json:"best" doc:"What would have been decided by one who knew"`
	BestCutM    float64 `json:"best_cut_m" doc:"Where they would have cut, m; 0 without a cut"`
	Program     string  `json:"program" doc:"What the program said by the same checks"`
	ProgramM    float64 `json:"program_cut_m" doc:"Where it said to cut, m; 0 without a cut"`
	Right       bool    `json:"right" doc:"It was as good as the best, or nearly, or to wait while that was early"`
	Lost        float64 `json:"lost" doc:"What the decision cost more than the best, as a share of the plant"`
	ProgramLost float64 `json:"program_lost" doc:"What the program's would have"`
	Early       bool    `json:"early" doc:"A living one need not have shown leaf yet: to wait was no fault"`
	Says        string  `json:"says" doc:"What came of it, in words"`
	Tell        string  `json:"tell" doc:"Which check would have told; empty where nothing was lost"`
}

// What a decision costs, as shares of the plant.
const (
	deadLeft  = 0.4  // of what is left dead
	waited    = 0.08 // for having waited though it was to be seen
	thrown    = 0.5  // for throwing a living plant away, beside what lived of it
	tipLength = 0.15 // share of the height up to which taking tips is right
	right     = 0.06 // cost up to which a decision was right
	leaveTip  = 0.05 // share of the height that nobody cuts for
	footOnly  = 0.08 // share of the height up to which one cuts to the base
)

// Hold holds decisions against the truth, plant by plant.
func (g *Garden) Hold(list []Decided) []Held {
	out := []Held{}
	for i, d := range list {
		if i < len(g.Plants) {
			out = append(out, g.hold(i, d))
		}
	}
	return out
}

// Score is how much of what was there to be saved was saved, 0 to 100: by somebody, and by what the program said.
func Score[T interface{ Losses() (own, program float64) }](list []T) (own, program float64) {
	if len(list) == 0 {
		return 0, 0
	}
	for _, h := range list {
		mine, theirs := h.Losses()
		own, program = own+1-math.Min(1, mine), program+1-math.Min(1, theirs)
	}
	n := float64(len(list))
	return math.Round(100 * own / n), math.Round(100 * program / n)
}

// Losses are what the decision and the program's cost more than the best.
func (h Held) Losses() (own, program float64) { return h.Lost, h.ProgramLost }

func (g *Garden) hold(i int, d Decided) Held {
	p, t := &g.Plants[i], g.truth[i]
	h := Held{Decided: d, EndsM: quantity.Round(t.ends*p.HeightM, 0.05), BudsDead: t.budsDead && t.ends > 0.1}
	h.Best, h.BestCutM = best(t.ends, p.HeightM)
	h.Lost = math.Max(0, cost(t.ends, d.Kind, d.CutM/p.HeightM)-cost(t.ends, h.Best, h.BestCutM/p.HeightM))
	said := g.program(i, d.Checks)
	h.Early = g.Today < said.Patience
	h.Program, h.ProgramM = said.Verdict.Kind, said.Verdict.CutM
	h.ProgramLost = math.Max(0, cost(t.ends, h.Program, h.ProgramM/p.HeightM)-cost(t.ends, h.Best, h.BestCutM/p.HeightM))
	h.Lost, h.ProgramLost = math.Round(100*h.Lost)/100, math.Round(100*h.ProgramLost)/100
	h.Right = h.Lost <= right || h.Kind == damage.Wait && h.Early
	h.Says = says(d, t.ends, p.HeightM)
	if n := said.Next; n != nil && !h.Right && slices.Contains(Kinds, n.Kind) {
		h.Tell = fmt.Sprintf("%s at %s would have told most.", check.Of(n.Kind).Name, quantity.Length(n.HeightM))
	}
	return h
}

// program is what the program says by checks.
func (g *Garden) program(i int, checks []check.Check) damage.Answer {
	w := g.onWalk(&g.Plants[i])
	book := func(id string) catalogue.Entry {
		e, _ := g.book.Species(id) // ours
		return e
	}
	real := []check.Check{}
	for _, c := range checks {
		if c.HeightM > 0 { // else no shoot was seen
			real = append(real, c)
		}
	}
	a, err := damage.Judge(g.ground.Ask(&w, nil, book, real, day.None))
	if err != nil {
		return damage.Answer{Verdict: damage.Verdict{Kind: damage.Look}}
	}
	return a
}

// best is what one would decide who knew where life ends, and where they would cut, m.
func best(ends, heightM float64) (kind string, cutM float64) {
	switch {
	case ends >= 1-leaveTip:
		return damage.Leave, 0
	case ends <= 0.01:
		return damage.Replace, 0
	case ends <= footOnly:
		return damage.CutToBase, 0
	case ends >= 1-tipLength:
		return damage.TipBack, quantity.Round(ends*heightM, 0.05)
	}
	return damage.CutBack, quantity.Round(ends*heightM, 0.05)
}

// cost is what a decision takes of a plant that lives so far up, as a share of it.
func cost(ends float64, kind string, cut float64) float64 {
	switch kind {
	case damage.Replace:
		if ends <= 0.01 {
			return 0
		}
		return thrown + (1-thrown)*ends
	case damage.CutToBase:
		if ends <= 0.01 {
			return waited // it has to be taken out all the same
		}
		return cutAt(ends, math.Min(ends, 0.05))
	case damage.CutBack:
		return cutAt(ends, cut)
	case damage.TipBack:
		if cut <= 0 {
			cut = math.Max(ends, 1-tipLength)
		}
		return cutAt(ends, cut)
	case damage.Leave:
		return deadLeft * (1 - ends)
	}
	if ends <= 0.01 { // waited for, or looked at again
		return 2 * waited
	}
	return waited
}

// cutAt is what a cut at a share of the height takes that lives, and what it leaves that is dead.
func cutAt(ends, cut float64) float64 {
	if cut <= ends {
		return ends - cut
	}
	return deadLeft * (cut - ends)
}

// says is what came of a decision.
func says(d Decided, ends, heightM float64) string {
	at := "It lived up to " + quantity.Length(quantity.Round(ends*heightM, 0.05)) + ". "
	switch {
	case ends <= 0.01:
		at = "It was dead, root and stem. "
	case ends <= footOnly:
		at = "It lived at the foot alone, and comes again from there. "
	case ends >= 1-leaveTip:
		at = "It lived to the tips. "
	}
	cuts := d.Kind == damage.CutBack || d.Kind == damage.TipBack
	gap := quantity.Length(math.Abs(quantity.Round(ends*heightM-d.CutM, 0.05)))
	switch {
	case d.Kind == damage.Replace && ends > 0.01:
		return at + "A living plant was thrown away."
	case d.Kind == damage.Leave && ends <= 0.01, cuts && ends <= 0.01, d.Kind == damage.CutToBase && ends <= 0.01:
		return at + "It has to be taken out on another visit."
	case cuts && d.CutM < ends*heightM-0.1:
		return at + gap + " of living wood went with the cut."
	case cuts && d.CutM > ends*heightM+0.1:
		return at + gap + " of dead wood was left below the cut."
	case d.Kind == damage.CutToBase && ends > 0.15:
		return at + "All of that was cut off."
	case d.Kind == damage.Leave && ends < 1-tipLength:
		return at + "The dead wood above stays, and has to be cut on another visit."
	case d.Kind == damage.Wait:
		return at + "Little is lost by waiting, but it has to be come to again."
	}
	return at + "That was right."
}
