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

// part is which of the days running it is on which a job is done, from 0, and the minutes of each.
type part struct {
	n       int
	minutes []int
}

// part cuts up what no day holds: its parts are jobs of their own, on days running. What stands on a day stays whole, and
// a treatment is done in one go.
func (o *planned) part() {
	p := o.problem
	for j, n := 0, len(p.Jobs); j < n; j++ {
		k := &p.Jobs[j]
		if k.Pin != nil || k.Was != nil || o.orders[j].Kind == job.Treat || o.orders[j].Kind == job.Care {
			continue
		}
		cut := p.Parts(j)
		if len(cut) < 2 {
			continue
		}
		of, whole := part{minutes: make([]int, len(cut))}, k.Minutes
		for i, m := range cut {
			of.minutes[i] = int(math.Ceil(m))
		}
		if o.parts == nil {
			o.parts = map[int]part{}
		}
		title, waste, last := k.Title, k.WasteM3, j
		for i, m := range of.minutes {
			at := j
			if i > 0 {
				at = len(p.Jobs)
				next := p.Jobs[j]
				next.After = []rounds.Gap{{Job: last, Min: 1, Max: job.RunningMost}}
				p.Jobs, o.orders, o.curves = append(p.Jobs, next), append(o.orders, o.orders[j]), append(o.curves, o.curves[j])
			}
			x := &p.Jobs[at]
			x.Title, x.Minutes, x.WasteM3 = job.DayTitle(title, i+1, len(cut)), float64(m), waste*float64(m)/whole
			o.parts[at], last = part{i, of.minutes}, at
		}
	}
}

// tell is a job as it is told, with the part of it where it is done on days running.
func (o *planned) tell(t *work.Teller, j int) work.Order {
	out := t.Tell(o.orders[j].Order)
	if x, is := o.parts[j]; is {
		out.Title, out.Minutes = job.DayTitle(out.Title, x.n+1, len(x.minutes)), x.minutes[x.n]
	}
	return out
}

// parted are the jobs that were made of one within a write, by index in the plan.
type parted struct {
	ids map[int]int64
	was map[int64]store.Whole
}

// partUp makes jobs of their own of the parts of those that a plan has on days running.
func (o *planned) partUp(ctx context.Context, tx store.Tx, visits []rounds.Visit) (parted, []string, error) {
	out, changed := parted{map[int]int64{}, map[int64]store.Whole{}}, []string{}
	for _, v := range visits {
		for _, j := range v.Jobs {
			x, is := o.parts[j]
			if !is || x.n > 0 {
				continue
			}
			k := o.orders[j]
			ids, was, err := tx.Part(ctx, k.ID, k.Version, x.minutes)
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
