package rounds

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"sync"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/house/work"
)

// WeeksAhead is the season in weeks.
type WeeksAhead struct {
	Weeks []WeekAhead  `json:"weeks"`
	Moved []WeekMoved  `json:"moved" doc:"Jobs that are not in their best week, the dearest first; up to 200"`
	Left  []work.Order `json:"left" doc:"Jobs for which no week has hours; up to 200"`
	Crews int          `json:"crews"`
}

// WeekAhead is seven days of all crews.
type WeekAhead struct {
	From     day.Day `json:"from" format:"date"`
	Capacity int     `json:"capacity" doc:"Minutes of people at work, less three tenths for ways and arrivals"`
	Wanted   int     `json:"wanted" doc:"Minutes, were each job done in its best week"`
	Load     int     `json:"load" doc:"Minutes, as it is spread"`
	Jobs     int     `json:"jobs"`

	Kinds []WeekKind   `json:"kinds" doc:"What it is made of, the most minutes first"`
	Most  []work.Order `json:"most" doc:"Its longest jobs, up to 8"`
}

// WeekKind is the work of a kind in a week.
type WeekKind struct {
	Kind    job.Kind `json:"kind"`
	Jobs    int      `json:"jobs"`
	Minutes int      `json:"minutes" doc:"Minutes of people"`
}

// weekShown is how many jobs of a week are named.
const weekShown = 8

// WeekMoved is a job in another week than its best.
type WeekMoved struct {
	Job  work.Order `json:"job"`
	Best day.Day    `json:"best" format:"date" doc:"First day of its best week"`
	To   day.Day    `json:"to" format:"date" doc:"First day of the week it is in"`
	Cost float64    `json:"cost" doc:"More than in its best week, by weight"`
}

// seasonShown is how many jobs of a season are named.
const seasonShown = 200

// spreadOver is what the weeks were last worked out for; what they hang on is told by its text.
type spreadOver struct {
	mu   sync.Mutex
	of   string
	told WeeksAhead
}

// SeasonOf spreads all standing jobs over the weeks to come: worked out once for a state of the record and a day.
func (h *Room) SeasonOf(ctx context.Context, weeks int) (WeeksAhead, error) {
	h.spread.mu.Lock()
	defer h.spread.mu.Unlock()
	of := fmt.Sprint(h.Today(), " ", h.Store.Rev(), " ", weeks)
	if h.spread.of == of {
		return h.spread.told, nil
	}
	out, err := h.seasonOf(ctx, weeks)
	if err == nil {
		h.spread.of, h.spread.told = of, out
	}
	return out, err
}

func (h *Room) seasonOf(ctx context.Context, weeks int) (WeeksAhead, error) {
	out := WeeksAhead{Weeks: []WeekAhead{}, Moved: []WeekMoved{}, Left: []work.Order{}}
	of, err := h.problemOf(ctx, h.Today(), 7*weeks, true, true)
	if err != nil {
		return out, err
	}
	for i := range of.problem.Places {
		of.problem.Places[i].Sky = nil
	}
	o, err := rounds.Season(of.problem, weeks)
	if err != nil {
		return out, err
	}
	teller, err := h.Work.Teller(ctx)
	if err != nil {
		return out, err
	}
	out.Crews = len(of.crews)
	for _, w := range o.Weeks {
		out.Weeks = append(out.Weeks, of.week(w, teller))
	}
	for _, m := range o.Moved[:min(seasonShown, len(o.Moved))] {
		out.Moved = append(
			out.Moved,
			WeekMoved{
				teller.Tell(of.orders[m.Job].Order),
				o.Weeks[m.Best].From,
				o.Weeks[m.To].From,
				m.Cost,
			},
		)
	}
	for _, j := range o.Left[:min(seasonShown, len(o.Left))] {
		out.Left = append(out.Left, teller.Tell(of.orders[j].Order))
	}
	return out, nil
}

// week tells a week of the season with what it is made of.
func (o *planned) week(w rounds.Week, teller *work.Teller) WeekAhead {
	out := WeekAhead{From: w.From, Capacity: int(w.Capacity), Wanted: int(w.Wanted), Load: int(w.Load), Jobs: len(w.Jobs),
		Kinds: []WeekKind{}, Most: []work.Order{}}
	takes := func(j int) float64 { return o.problem.Jobs[j].Takes() }
	at := map[job.Kind]int{}
	minutes := []float64{}
	for _, j := range w.Jobs {
		kind := o.orders[j].Kind
		i, known := at[kind]
		if !known {
			i = len(out.Kinds)
			at[kind] = i
			out.Kinds, minutes = append(out.Kinds, WeekKind{Kind: kind}), append(minutes, 0)
		}
		out.Kinds[i].Jobs++
		minutes[i] += takes(j)
	}
	for i := range out.Kinds {
		out.Kinds[i].Minutes = int(math.Round(minutes[i]))
	}
	slices.SortStableFunc(out.Kinds, func(a, b WeekKind) int { return cmp.Compare(b.Minutes, a.Minutes) })
	longest := slices.Clone(w.Jobs)
	slices.SortStableFunc(longest, func(a, b int) int { return cmp.Compare(takes(b), takes(a)) })
	for _, j := range longest[:min(weekShown, len(longest))] {
		out.Most = append(out.Most, teller.Tell(o.orders[j].Order))
	}
	return out
}
