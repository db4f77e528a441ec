package treatment

import (
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/moment"
)

// What days cost a step, in points.
const (
	earlyOnce, earlyEach = 40, 2 // before its day: at once, and for each day
	lateEach             = 1.5   // for each day after it
	missedOnce           = 75    // once its time has passed
	hotEach              = 8     // for each °C that the usual day is too warm
	coldEach             = 6
	stepAhead            = 366
)

// Job is a step kept as a piece of work.
type Job struct {
	Cause string
	Rung  string
	Step  int     // from 1
	Due   day.Day // the day it hangs on where a gap or a repeat sets it; none: its own window
	Made  day.Day
}

// Curve is what each day costs for a step that was asked for on a day: a year of days, drawn anew from the year as it
// is known now.
func (b *Book) Curve(a Ask, j Job) job.Curve {
	a.Cause, a.Date, a.Uses = j.Cause, j.Made, nil
	a.fill()
	c := job.Curve{Start: j.Made, Days: stepAhead}
	s := &search{book: b, ask: &a, programme: b.programme(&a), calendar: a.Place.Of(a.Species, a.Date)}
	st, known := s.stepOf(j)
	if !known {
		c.Because(reason.PutOff("put off", "it goes on meanwhile", j.Made, lateEach))
		return c
	}
	due, to := j.Made, day.None
	if from, end, ok := s.window(st); ok {
		due = max(due, from)
		if st.To.given() {
			to = end
		}
	}
	if j.Due.Given() {
		due = j.Due
	}
	c.Because(
		reason.TooEarly("not due yet", due, earlyOnce, earlyEach),
		reason.Why{
			Name: "put off",
			Text: "it goes on meanwhile",
			On:   func(d day.Day) job.Cost { return reason.Points(lateEach * float64(max(0, d-due-3))) },
		},
	)
	if to.Given() && to >= due {
		c.Because(
			reason.Why{Name: "missed", Text: "the time in which it helps has passed", On: func(d day.Day) job.Cost {
				if d <= to {
					return job.Cost{}
				}
				return reason.Points(missedOnce + float64(d-to))
			}},
		)
	}
	if act := b.active[st.Use]; act != nil {
		c.Because(s.dayLimits(act)...)
	}
	return c
}

// Stage is the span in which the stage of the pest that a job's step hits is there; false where the step names none.
func (b *Book) Stage(a Ask, j Job) (text string, from, to day.Day, known bool) {
	a.Cause, a.Date, a.Uses = j.Cause, j.Made, nil
	a.fill()
	s := &search{book: b, ask: &a, programme: b.programme(&a)}
	st, there := s.stepOf(j)
	if !there || st.Stage == "" || !st.To.given() {
		return "", 0, 0, false
	}
	s.calendar = a.Place.Of(a.Species, a.Date)
	from, to, known = s.window(st)
	return st.Stage, from, to, known
}

// stepOf is the step of the programme that a job stands for.
func (s *search) stepOf(j Job) (Step, bool) {
	if s.programme == nil {
		return Step{}, false
	}
	for _, r := range append(append([]Rung{}, s.programme.Rungs...), s.programme.Prevent...) {
		if r.Rung == j.Rung && j.Step >= 1 && j.Step <= len(r.Steps) {
			return r.Steps[j.Step-1], true
		}
	}
	return Step{}, false
}

// dayLimits are the days a means may not, or had better not, be used on.
func (s *search) dayLimits(a *Active) []reason.Why {
	n := s.ask.Place.Year.Normals
	out := []reason.Why{
		reason.Heat("too warm for "+a.Name, a.MaxC, hotEach, n.TMax.At),
		{
			Name: "cold",
			Text: "too cold for " + a.Name,
			On:   func(d day.Day) job.Cost { return reason.Points(coldEach * (a.MinC - n.TMax.At(d))) },
		},
	}
	if a.Bees && visited(s.ask.Species) {
		out = append(out, reason.Why{Name: "bees", Text: "bees visit its open flowers", On: func(d day.Day) job.Cost {
			end, blooms := s.calendar.Next(moment.On("bloom_end", 0), d)
			if start := s.calendar.Before("bloom_start", end); blooms && start.Given() && d >= start &&
				end-start < evergreenBloom {
				return job.Never
			}
			return job.Cost{}
		}})
	}
	return out
}
