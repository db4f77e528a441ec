package api

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/exchange"
	"mezzadro/store"
)

// Lane is a job with its windows and costs.
type Lane struct {
	store.JobRecord
	Common   string       `json:"common"`
	Windows  []job.Window `json:"windows"`
	BestDay  day.Day      `json:"best_day" format:"date" doc:"The cheapest day from today on; empty when every day is forbidden"`
	BestCost job.Cost     `json:"best_cost"`
	Start    day.Day      `json:"start" format:"date" doc:"First day of the costs"`
	Costs    []job.Cost   `json:"costs" doc:"0 best to 100 worst; 101 forbidden"`
	Reasons  []job.Reason `json:"reasons" doc:"What makes up the costs"`
	After    []AfterOut   `json:"after" doc:"Jobs that come first"`
	Cautions []string     `json:"cautions"`
	Kit      []string     `json:"kit"`
	Why      []string     `json:"why"`
}

// AfterOut is a gap to another job.
type AfterOut struct {
	Kind    string `json:"kind"`
	MinDays int    `json:"min_days"`
	MaxDays int    `json:"max_days"`
}

// lane joins a kept job with what its curve says.
func (s *Server) lane(k store.JobRecord) (Lane, error) {
	j, err := k.Core()
	if err != nil {
		return Lane{}, err
	}
	l := Lane{JobRecord: k, Windows: j.Curve.Windows(job.Acceptable), Start: j.Curve.Start, Costs: j.Curve.Costs(), Reasons: j.Curve.Reasons,
		After: []AfterOut{}, Cautions: j.Cautions, Kit: j.Kit, Why: j.Reasons, BestDay: day.None, BestCost: job.Never}
	if l.Windows == nil {
		l.Windows = []job.Window{}
	}
	if l.Reasons == nil {
		l.Reasons = []job.Reason{}
	}
	if d, ok := j.Curve.Best(s.Today()); ok {
		l.BestDay, l.BestCost = d, j.Curve.On(d)
	}
	for _, g := range j.After {
		l.After = append(l.After, AfterOut{g.Job, g.MinDays, g.MaxDays})
	}
	return l, nil
}

func (s *Server) lanes(ctx context.Context, property int64) ([]Lane, error) {
	jobs, err := s.Store.Jobs(ctx, property)
	if err != nil {
		return nil, err
	}
	return s.lanesOf(ctx, jobs)
}

// lanesOf joins kept jobs with what their curves say.
func (s *Server) lanesOf(ctx context.Context, jobs []store.JobRecord) ([]Lane, error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Lane, 0, len(jobs))
	for _, k := range jobs {
		l, err := s.lane(k)
		if err != nil {
			return nil, err
		}
		l.Common = entryOf(book, k.Species).Common
		out = append(out, l)
	}
	return out, nil
}

// closing are the jobs without a day whose running window ends within a fortnight.
func closing(lanes []Lane, today day.Day) []Lane {
	out := []Lane{}
	for _, l := range lanes {
		for _, w := range l.Windows {
			if l.Day == nil && w.From <= today && w.To >= today && w.To <= today+14 {
				out = append(out, l)
			}
		}
	}
	return out
}

// Year is the ribbon's lanes.
type Year struct {
	Lanes []Lane `json:"lanes"`
	More  int    `json:"more" doc:"Lanes beyond those given"`
}

// lanesShown is how many lanes are sent at once: each carries a year of costs.
const lanesShown = 120

func (s *Server) year(ctx context.Context, in *struct {
	Property int64 `query:"property" doc:"Of one property; all when absent"`
}) (*Out[Year], error) {
	lanes, err := s.lanes(ctx, in.Property)
	if err != nil {
		return nil, s.problem(ctx, "jobs", err)
	}
	slices.SortStableFunc(lanes, func(a, b Lane) int { return cmp.Compare(a.BestDay, b.BestDay) })
	o := Year{Lanes: lanes}
	if len(lanes) > lanesShown {
		o = Year{lanes[:lanesShown], len(lanes) - lanesShown}
	}
	return out(o), nil
}

func (s *Server) job(ctx context.Context, in *ByID) (*Out[Lane], error) {
	k, err := s.Store.Job(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "job", err)
	}
	l, err := s.lane(k)
	return out(l), s.problem(ctx, "job", err)
}

// PutOut is a job after it was put on a day, with what that costs.
type PutOut struct {
	Job      Lane       `json:"job"`
	Cost     job.Cost   `json:"cost"`
	Why      []job.Part `json:"parts"`
	Warnings []string   `json:"warnings"`
}

func (s *Server) putJob(ctx context.Context, in *struct {
	ByID
	Body struct {
		Day     *day.Day `json:"day" format:"date" nullable:"true" doc:"null takes it off its day"`
		Version int      `json:"version"`
	}
}) (*Out[PutOut], error) {
	k, err := s.Store.Job(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "job", err)
	}
	j, err := k.Core()
	if err != nil {
		return nil, s.problem(ctx, "job", err)
	}
	o := PutOut{Warnings: []string{}, Why: []job.Part{}}
	var text *string
	if d := in.Body.Day; d != nil {
		t := d.String()
		text = &t
		if *d < s.Today() {
			return nil, s.problem(ctx, "job", refuse("day", t, "is past"))
		}
		o.Cost = j.Curve.On(*d)
		o.Why = append(o.Why, j.Curve.Why(*d)...)
		if o.Cost == job.Never {
			why := "is outside the time this job was planned for"
			for _, p := range o.Why {
				if p.Cost == job.Never {
					why = "is forbidden: " + p.Text
				}
			}
			return nil, s.problem(ctx, "job", refuse("day", t, why))
		}
		o.Warnings, err = s.gaps(ctx, k, j, *d)
		if err != nil {
			return nil, s.problem(ctx, "job", err)
		}
	}
	err = s.Store.Write(ctx, func(tx store.Tx) error { k, err = tx.PutJob(ctx, in.ID, in.Body.Version, text); return err })
	if err != nil {
		return nil, s.problem(ctx, "job", err)
	}
	o.Job, err = s.lane(k)
	return out(o), s.problem(ctx, "job", err)
}

// gaps warns where a day breaks the order with the jobs made by the same verdict.
func (s *Server) gaps(ctx context.Context, k store.JobRecord, j job.Job, d day.Day) ([]string, error) {
	others, err := s.Store.Siblings(ctx, k.VerdictID)
	if err != nil {
		return nil, err
	}
	out := []string{}
	for _, o := range others {
		core, err := o.Core()
		if err != nil {
			return nil, err
		}
		if o.ID == k.ID || o.Day == nil {
			continue
		}
		other, err := day.Parse(*o.Day)
		if err != nil {
			return nil, err
		}
		for _, g := range j.After {
			if g.Job == core.Key && d < other+day.Day(g.MinDays) {
				out = append(out, fmt.Sprintf("%q comes first, on %s; at least %d days lie between.", o.Title, other.Words(), g.MinDays))
			} else if g.Job == core.Key && g.MaxDays > 0 && d > other+day.Day(g.MaxDays) {
				out = append(out, fmt.Sprintf("More than %d days after %q on %s.", g.MaxDays, o.Title, other.Words()))
			}
		}
		for _, g := range core.After {
			if g.Job == j.Key && other < d+day.Day(g.MinDays) {
				out = append(out, fmt.Sprintf("%q on %s was to come after this; at least %d days lie between.", o.Title, other.Words(), g.MinDays))
			}
		}
	}
	return out, nil
}

// RoundDay is one day of the crew.
type RoundDay struct {
	Day     day.Day `json:"day" format:"date"`
	Minutes int     `json:"minutes" doc:"Work, without travel"`
	Jobs    []Lane  `json:"jobs"`
}

// Rounds is a stretch of days and what is still without one.
type Rounds struct {
	Days       []RoundDay `json:"days"`
	Waiting    []Lane     `json:"waiting" doc:"Jobs without a day, the first window first"`
	DayMinutes int        `json:"day_minutes" doc:"A crew's working day"`
}

// dayMinutes is a crew's working day until Settings has it.
const dayMinutes = 480

func (s *Server) rounds(ctx context.Context, in *struct {
	From string `query:"from" format:"date" doc:"Today when absent"`
	Days int    `query:"days" default:"14" minimum:"1" maximum:"120"`
}) (*Out[Rounds], error) {
	from := s.Today()
	if in.From != "" {
		d, err := day.Parse(in.From)
		if err != nil {
			return nil, s.problem(ctx, "rounds", refuse("from", in.From, err.Error()))
		}
		from = d
	}
	lanes, err := s.lanes(ctx, 0)
	if err != nil {
		return nil, s.problem(ctx, "jobs", err)
	}
	o := Rounds{Waiting: []Lane{}, DayMinutes: dayMinutes}
	for i := range in.Days {
		o.Days = append(o.Days, RoundDay{Day: from + day.Day(i), Jobs: []Lane{}})
	}
	for _, l := range lanes {
		if l.Day == nil {
			o.Waiting = append(o.Waiting, l)
			continue
		}
		d, err := day.Parse(*l.Day)
		if err != nil {
			return nil, s.problem(ctx, "job", err)
		}
		if i := d.Sub(from); i >= 0 && i < in.Days {
			o.Days[i].Jobs = append(o.Days[i].Jobs, l)
			o.Days[i].Minutes += l.Minutes
		}
	}
	slices.SortStableFunc(o.Waiting, func(a, b Lane) int { return cmp.Compare(a.BestDay, b.BestDay) })
	if len(o.Waiting) > lanesShown {
		o.Waiting = o.Waiting[:lanesShown]
	}
	return out(o), nil
}

// File is an answer that is a file to keep.
type File struct {
	Type string `header:"Content-Type"`
	Name string `header:"Content-Disposition"`
	Body []byte
}

func (s *Server) calendar(ctx context.Context, in *struct {
	From string `query:"from" required:"true" format:"date"`
	To   string `query:"to" required:"true" format:"date"`
}) (*File, error) {
	if in.To < in.From {
		return nil, s.problem(ctx, "calendar", refuse("to", in.To, "is before from"))
	}
	jobs, err := s.Store.JobsBetween(ctx, in.From, in.To)
	if err != nil {
		return nil, s.problem(ctx, "jobs", err)
	}
	var entries []exchange.Entry
	at := 0
	for i, k := range jobs {
		d, err := day.Parse(*k.Day)
		if err != nil {
			return nil, s.problem(ctx, "job", err)
		}
		j, err := k.Core()
		if err != nil {
			return nil, s.problem(ctx, "job", err)
		}
		if i == 0 || *jobs[i-1].Day != *k.Day {
			at = 8 * 60 // the crew's day starts at eight
		}
		title := k.Title
		if k.Label != "" {
			title += ", " + k.Label
		}
		detail := append([]string{fmt.Sprintf("%d min", k.Minutes)}, j.Reasons...)
		if len(j.Kit) > 0 {
			detail = append(detail, fmt.Sprint("Kit: ", j.Kit))
		}
		for _, c := range j.Cautions {
			detail = append(detail, "Caution: "+c)
		}
		place := k.Property
		if k.Address != "" {
			place += ", " + k.Address
		}
		entries = append(entries, exchange.Entry{ID: k.ID, Day: d, Title: title, Place: place, Detail: detail, Minutes: k.Minutes, StartMinute: at})
		at += k.Minutes
	}
	name := fmt.Sprintf("round-%s.ics", in.From)
	return &File{"text/calendar; charset=utf-8", fmt.Sprintf("attachment; filename=%q", name),
		[]byte(exchange.Calendar("Round from "+in.From, s.Today().Time().Add(6*time.Hour), entries))}, nil
}
