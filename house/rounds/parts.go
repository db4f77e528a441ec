package rounds

import (
	"context"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// part is one of the jobs that are made of one: on days running, or for two crews that come together.
type part struct {
	n       int // from 0
	pieces  []store.Piece
	running bool
}

// part cuts up what no day holds, and what needs two crews. What stands on a day stays whole, and a treatment is done
// in one go.
func (o *planned) part() {
	p := o.problem
	o.parts = map[int]part{}
	joins := p.Joins()
	for j, n := 0, len(p.Jobs); j < n; j++ {
		if k := &p.Jobs[j]; k.Pin != nil || k.Was != nil || o.orders[j].Kind == job.Treat ||
			o.orders[j].Kind == job.Care {
			continue
		}
		if x, two := joins[j]; two {
			o.join(j, x)
		} else if cut := p.Parts(j); len(cut) > 1 {
			o.run(j, cut)
		}
	}
}

// longer is how many times as long a job takes the firm as is reckoned: its parts are kept as reckoned.
func (o *planned) longer(j int) float64 {
	return o.problem.Jobs[j].Minutes / float64(max(1, o.orders[j].Minutes))
}

// run has a job be done on days running.
func (o *planned) run(j int, minutes []float64) {
	whole, of := o.problem.Jobs[j], part{running: true}
	for i, m := range minutes {
		of.pieces = append(of.pieces, store.Piece{
			Title: job.DayTitle(
				whole.Title,
				i+1,
				len(minutes),
			), Minutes: int(math.Ceil(m / o.longer(j))), People: max(1, whole.People)})
	}
	last := j
	for of.n = range of.pieces {
		x := o.piece(j, of, whole)
		if of.n > 0 {
			o.problem.Jobs[x].After = []rounds.Gap{{Job: last, Min: 1, Max: job.RunningMost}}
		}
		last = x
	}
}

// join has two crews do a job together, first thing in a morning: what each needs of the skills, it has.
func (o *planned) join(j int, x rounds.Joined) {
	whole, of := o.problem.Jobs[j], part{}
	for i, c := range x.Crews {
		of.pieces = append(of.pieces, store.Piece{
			Title:   job.WithTitle(whole.Title, o.crews[x.Crews[1-i]].Name),
			Minutes: int(math.Ceil(x.Minutes / o.longer(j))),
			People:  o.problem.Crews[c].Size,
		})
	}
	for of.n = range of.pieces {
		c := x.Crews[of.n]
		k := &o.problem.Jobs[o.piece(j, of, whole)]
		k.Pin = &rounds.Pin{Crew: c, Day: x.Day, At: x.At}
		k.Skills = slices.DeleteFunc(
			slices.Clone(whole.Skills),
			func(s string) bool { return !slices.Contains(o.problem.Crews[c].Skills, s) },
		)
	}
}

// piece makes one part of a job a job of the plan, the first in its place, and returns its index.
func (o *planned) piece(j int, of part, whole rounds.Job) int {
	p, at := o.problem, j
	longer := whole.Minutes / float64(max(1, o.orders[j].Minutes))
	if of.n > 0 {
		at = len(p.Jobs)
		p.Jobs, o.orders, o.curves = append(p.Jobs, whole), append(o.orders, o.orders[j]), append(o.curves, o.curves[j])
	}
	all := 0
	for _, y := range of.pieces {
		all += y.Minutes * y.People
	}
	x, k := of.pieces[of.n], &p.Jobs[at]
	k.Title, k.Minutes, k.People = x.Title, math.Max(1, longer*float64(x.Minutes)), x.People
	k.WasteM3 = whole.WasteM3 * float64(x.Minutes*x.People) / float64(all)
	o.parts[at] = of
	return at
}

// partOf names a part of an order: from 0, and 0 where it is done whole.
type partOf struct {
	order int64
	n     int
}

func (o *planned) partOf(j int) partOf { return partOf{o.orders[j].ID, o.parts[j].n} }

// pin has a job be where somebody wants it. What two crews do together stays with both, at the same hour.
func (o *planned) pin(j int, at rounds.Pin) error {
	x, is := o.parts[j]
	if !is || x.running {
		o.problem.Jobs[j].Pin = &at
		return nil
	}
	was := o.problem.Jobs[j].Pin
	if was.Crew != at.Crew {
		return fmt.Errorf(
			"%s is done by two crews together, and stays with them: put it on another day",
			o.problem.Jobs[j].Title,
		)
	}
	if at.At == 0 {
		at.At = was.At
	}
	for i := range o.orders {
		if _, too := o.parts[i]; too && o.orders[i].ID == o.orders[j].ID {
			o.problem.Jobs[i].Pin = &rounds.Pin{Crew: o.problem.Jobs[i].Pin.Crew, Day: at.Day, At: at.At}
		}
	}
	return nil
}

// number is which part of its order a job of the plan is, from 1; 0 where it is done whole.
func (o *planned) number(j int) int {
	if x, is := o.parts[j]; is {
		return x.n + 1
	}
	return 0
}

// tell is a job as it is told, by its part where it is done in parts.
func (o *planned) tell(t *work.Teller, j int) work.Order {
	out := t.Tell(o.orders[j].Order)
	if x, is := o.parts[j]; is {
		out.Title, out.Minutes = x.pieces[x.n].Title, x.pieces[x.n].Minutes
	}
	return out
}

// alone takes a crew out of a plan that would stand before a job for two crews alone.
func (o *planned) alone(plan *rounds.Plan) {
	left := map[int64]bool{}
	for _, l := range plan.Left {
		if x, is := o.parts[l.Job]; is && !x.running {
			left[o.orders[l.Job].ID] = true
		}
	}
	for v := range plan.Visits {
		visit := &plan.Visits[v]
		visit.Jobs = slices.DeleteFunc(visit.Jobs, func(j int) bool {
			x, is := o.parts[j]
			off := is && !x.running && left[o.orders[j].ID]
			if off {
				plan.Left = append(
					plan.Left,
					rounds.Left{
						Job:   j,
						Why:   "The other crew that it needs has no time for it.",
						Takes: "A morning of both.",
					},
				)
			}
			return off
		})
	}
	plan.Visits = slices.DeleteFunc(plan.Visits, func(v rounds.Visit) bool { return len(v.Jobs) == 0 })
}

// parted are the jobs that were made of one within a write, by index in the plan.
type parted struct {
	ids map[int]int64
	was map[int64]store.Whole
}

// partUp makes jobs of their own of the parts of those that a plan has days for.
func (o *planned) partUp(ctx context.Context, tx store.Tx, visits []rounds.Visit) (parted, []string, error) {
	out, changed := parted{map[int]int64{}, map[int64]store.Whole{}}, []string{}
	for _, v := range visits {
		for _, j := range v.Jobs {
			x, is := o.parts[j]
			if !is || x.n > 0 {
				continue
			}
			k := o.orders[j]
			ids, was, err := tx.Part(ctx, k.ID, k.Version, x.pieces, x.running)
			if stale := (store.Stale{}); estate.AsStale(err, &stale) {
				changed = append(changed, k.Title)
				continue
			}
			if err != nil {
				return out, nil, fmt.Errorf("%s: %w", k.Title, err)
			}
			out.was[k.ID] = was
			for i := range o.orders {
				if y, too := o.parts[i]; too && o.orders[i].ID == k.ID {
					out.ids[i] = ids[y.n]
				}
			}
		}
	}
	return out, changed, nil
}

// untouched reports that nobody has changed the parts of a job since, but for the rounds.
func untouched(ctx context.Context, tx store.Tx, was store.Whole, known map[int64]int) (bool, error) {
	for _, id := range was.Parts {
		k, err := tx.Order(ctx, id)
		there, err := store.There(err)
		if err != nil || !there {
			return false, err
		}
		if k.Version != max(1, known[id]) || slices.Contains([]job.State{job.Done, job.Skipped}, k.State) {
			return false, nil
		}
	}
	return true, nil
}
