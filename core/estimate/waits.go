package estimate

import (
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
)

// pastBest begins the reason of a day after the best time, which goes on with when that was.
const pastBest = "past the best time, "

// afterEnd is how long after the end of good days it is asked what makes waiting dear.
const afterEnd = 14

// Waits is what waiting with a job costs, as its curve has it, in a client's words: until when its good days last, what
// comes after, and when the next begin. Empty where nothing is to be said.
func Waits(k job.Kind, c job.Curve, today day.Day) string {
	switch k {
	case job.MakeSafe:
		return "It can hurt somebody. It does not wait."
	case job.Look, job.Walk, job.Ask, job.Care:
		return "" // what a look costs by waiting is the firm's affair
	}
	var now, next *job.Window
	for _, w := range c.Windows(job.Acceptable) {
		switch {
		case w.To < today:
		case now == nil:
			now = &w
		case next == nil:
			next = &w
		}
	}
	if now == nil || now.To >= c.End()-1 {
		return ""
	}
	why := dearest(c, now.To+afterEnd)
	out := "The good days for it end on " + quantity.Day(now.To) + "."
	if when, past := strings.CutPrefix(why, pastBest); past {
		out = "The good days for it, " + when + ", end on " + quantity.Day(now.To) + "."
	} else if why != "" {
		out = strings.TrimSuffix(out, ".") + "; after that: " + why + "."
	}
	if next != nil {
		out += " The next begin on " + quantity.Day(next.From) + "."
	}
	return out
}

// dearest is the reason that costs most on a day, in words; empty where none is told.
func dearest(c job.Curve, on day.Day) (text string) {
	most := 0
	for _, p := range c.Why(on) {
		if v := p.Cost.Int(); v > most && p.Text != "" {
			text, most = p.Text, v
		}
	}
	return strings.TrimSuffix(text, ".")
}
