package pruning

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// events that windows hang on.
var events = []string{"leaf_out", "leaf_drop", "bloom_start", "bloom_end", "buds_set", "midwinter", "last_frost", "last_hard", "first_frost", "ripening"}

// calendar is the events of a plant and its place over some garden years, each in order.
type calendar struct {
	at        map[string][]day.Day
	frostless bool
}

// Days taken for events a year or a plant does not have.
const (
	noLeafOut   = 60  // after midwinter
	noLeafDrop  = -20 // from midwinter
	noLastFrost = 30
	noLastHard  = 15
	noFirst     = 330
	budsAfter   = 70 // after bloom
	ripens      = 45 // days before the first frost from which shoots do not ripen any more
)

// calendarOf gathers the events of the year before, the garden year of d, and the year after.
func calendarOf(e *catalogue.Entry, p *Place, d day.Day) calendar {
	c := calendar{at: map[string][]day.Day{}}
	y, climate := p.Year, p.Year.Normals.Climate
	add := func(event string, on day.Day) { c.at[event] = append(c.at[event], on) }
	for _, in := range []day.Day{d - 365, d, d + 365} {
		m := climate.Midwinter(in)
		add("midwinter", m)
		dates := e.Dates(y, in)
		or := func(b season.Band, known bool, otherwise day.Day) day.Day {
			if known {
				return b.Mid
			}
			return otherwise
		}
		out := or(dates.LeafOut, dates.InLeaf, m+noLeafOut)
		add("leaf_out", out)
		add("leaf_drop", or(dates.LeafDrop, dates.Drops, m+noLeafDrop))
		start := or(dates.BloomStart, dates.Blooms, out+30)
		end := or(dates.BloomEnd, dates.Blooms, start+30)
		add("bloom_start", start)
		add("bloom_end", end)
		add("buds_set", or(dates.BudsSet, dates.Sets, end+budsAfter))
		f := p.frostsOf(m)
		c.frostless = c.frostless || f.none
		add("last_frost", f.last)
		add("last_hard", f.hard)
		add("first_frost", f.first)
		add("ripening", f.first-ripens)
	}
	for event := range c.at {
		slices.Sort(c.at[event])
		c.at[event] = slices.Compact(c.at[event])
	}
	return c
}

// all are the days that a moment falls on.
func (c calendar) all(w When) []day.Day {
	out := make([]day.Day, len(c.at[w.Event]))
	for i, d := range c.at[w.Event] {
		out[i] = d + day.Day(w.Off)
	}
	return out
}

// next is the first day of a moment from a day on; false where it comes no more.
func (c calendar) next(w When, from day.Day) (day.Day, bool) {
	off := day.Day(w.Off)
	for _, d := range c.at[w.Event] {
		if d+off >= from {
			return d + off, true
		}
	}
	return 0, false
}

// nearest is the day of a moment that lies nearest to a day.
func (c calendar) nearest(w When, to day.Day) day.Day {
	best, off := day.None, day.Day(w.Off)
	for _, d := range c.at[w.Event] {
		if d += off; best == day.None || max(d-to, to-d) < max(best-to, to-best) {
			best = d
		}
	}
	return best
}

// span is days on which to cut.
type span struct {
	from, to day.Day
	why      string
}

// longest a window may be before it is taken as not of one season, days.
const longest = 300

// spans are the days of a window over the years that are known.
func (c calendar) spans(w Window) (out []span) {
	if w.Open && c.frostless {
		all := c.at["midwinter"]
		return []span{{all[0] - 200, all[len(all)-1] + 370, w.Why}}
	}
	for _, from := range c.all(w.From) {
		if w.NotBefore.Event != "" {
			from = max(from, c.nearest(w.NotBefore, from))
		}
		to, ok := c.next(w.To, from)
		if !ok || to-from > longest {
			continue
		}
		to = max(to, from+day.Day(w.Span))
		if w.Until.Event != "" {
			if end, ok := c.next(w.Until, from); ok {
				to = min(to, end-3)
			}
		}
		if to > from {
			out = append(out, span{from, to, w.Why})
		}
	}
	return out
}
