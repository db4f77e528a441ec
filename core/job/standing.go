package job

import (
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job/reason"
)

// Standing is a visit that comes again: every so many weeks on a weekday, in its months, with general care.
type Standing struct {
	First   day.Day       `json:"first" format:"date" doc:"The first visit is on its weekday on this day or after it"`
	Until   day.Day       `json:"until,omitempty" format:"date" doc:"The last day there may be one; without an end when absent"`
	Weekday time.Weekday  `json:"weekday" minimum:"0" maximum:"6" doc:"0 Sunday"`
	Every   int           `json:"every" minimum:"1" maximum:"26" doc:"Weeks from one to the next"`
	Months  [2]time.Month `json:"months" doc:"First and last month in which people come, 1 to 12; over the new year where the first is the later; 0, 0: all year"`
}

// Visit is one of them.
type Visit struct {
	Regular day.Day // the day it belongs on
	On      day.Day // the day it can be; day.None where none is near enough, and it falls
}

// nearDays is how far a visit may lie off its day where nobody can come on it.
const nearDays = 3

// Faults names what cannot be.
func (s Standing) Faults() (bad invalid.Fields) {
	if !s.First.Given() {
		bad.Add("first", "", "is missing: from when on do you come?")
	}
	if s.Until.Given() && s.First.Given() && s.Until < s.First {
		bad.Add("until", s.Until.String(), "is before the first, %s", s.First)
	}
	bad.Within("every", float64(s.Every), 1, 26, "weeks")
	bad.Within("weekday", float64(s.Weekday), 0, 6, "from Sunday, 0")
	if (s.Months[0] == 0) != (s.Months[1] == 0) {
		bad.Add("months", s.Months, "want the first and the last month, or neither")
	}
	for _, m := range s.Months {
		bad.Within("months", float64(m), 0, 12, "months")
	}
	return bad
}

// inSeason reports a day in the months in which people come.
func (s Standing) inSeason(on day.Day) bool {
	m, first, last := on.Month(), s.Months[0], s.Months[1]
	switch {
	case first == 0:
		return true
	case first <= last:
		return m >= first && m <= last
	}
	return m >= first || m <= last
}

// Visits are those whose days lie in a span, both ends in it. A visit on whose day nobody can come is on the nearest
// day on which somebody can, the later of two, up to three days off and not before the span; else it falls.
func (s Standing) Visits(from, to day.Day, can func(day.Day) bool) (out []Visit) {
	if s.Every < 1 {
		return nil
	}
	on := s.First + day.Day((int(s.Weekday)-int(s.First.Weekday())+7)%7)
	step := day.Day(7 * s.Every)
	if on < from {
		on += (from - on + step - 1) / step * step
	}
	for ; on <= to && (!s.Until.Given() || on <= s.Until); on += step {
		if s.inSeason(on) {
			out = append(out, Visit{on, nearest(on, from, can)})
		}
	}
	return out
}

func nearest(on, from day.Day, can func(day.Day) bool) day.Day {
	if can(on) {
		return on
	}
	for off := day.Day(1); off <= nearDays; off++ {
		if can(on + off) {
			return on + off
		}
		if on-off >= from && can(on-off) {
			return on - off
		}
	}
	return day.None
}

// offEach is what each day off its own costs a visit; beyond the days of its week it costs most.
const offEach = 15

// Spans is what the days about a visit's own cost: best on it, worse by each day off, to three days and to a fourth of
// the time between two visits, ten days at most.
func (s Standing) Spans(regular day.Day) []Span {
	far := day.Day(min(max(nearDays, 7*s.Every/4), 10))
	out := make([]Span, 0, 2*far+1)
	for off := -far; off <= far; off++ {
		cost := reason.Points(float64(min(95, offEach*int(max(off, -off)))))
		out = append(out, Span{From: regular + off, To: regular + off, Cost: cost})
	}
	return out
}
