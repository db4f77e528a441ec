package pruning

import (
	"mezzadro/core/day"
	"mezzadro/core/moment"
)

// span is days on which to cut.
type span struct {
	from, to day.Day
	why      string
}

// longest a window may be before it is taken as not of one season, days.
const longest = 300

// spans are the days of a window over the years that are known.
func spansOf(c moment.Calendar, w Window) (out []span) {
	if w.Open && c.Frostless {
		all := c.On("midwinter")
		return []span{{all[0] - 200, all[len(all)-1] + 370, w.Why}}
	}
	for _, from := range c.All(w.From) {
		if w.NotBefore.Event != "" {
			from = max(from, c.Nearest(w.NotBefore, from))
		}
		to, ok := c.Next(w.To, from)
		if !ok || to-from > longest {
			continue
		}
		to = max(to, from+day.Day(w.Span))
		if w.Until.Event != "" {
			if end, ok := c.Next(w.Until, from); ok {
				to = min(to, end-3)
			}
		}
		if to > from {
			out = append(out, span{from, to, w.Why})
		}
	}
	return out
}
