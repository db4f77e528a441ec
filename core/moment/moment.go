// Package moment tells when the events fall that work on plants hangs on: of a kind's year and of its place's.
package moment

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// When is an event of the year and days from it.
type When struct {
	Event string
	Off   int
}

// On is so many days from an event.
func On(event string, off int) When { return When{Event: event, Off: off} }

// UnmarshalText reads "bloom_end+42".
func (w *When) UnmarshalText(b []byte) error {
	text := string(b)
	w.Event = text
	if i := strings.IndexAny(text, "+-"); i > 0 {
		n, err := strconv.Atoi(text[i:])
		if err != nil {
			return fmt.Errorf("%q is no event with days from it", text)
		}
		w.Event, w.Off = text[:i], n
	}
	if !slices.Contains(events[:], w.Event) {
		return fmt.Errorf("%q is no event; want one of %v", w.Event, events)
	}
	return nil
}

// Events that moments are told by.
var events = [...]string{
	"leaf_out",
	"leaf_drop",
	"bloom_start",
	"bloom_end",
	"buds_set",
	"midwinter",
	"last_frost",
	"last_hard",
	"first_frost",
	"ripening",
}

// On are the days of an event, in order.
func (c *Calendar) On(event string) []day.Day {
	if i := slices.Index(events[:], event); i >= 0 {
		return c.days[i]
	}
	return nil
}

// Calendar is the events of a plant and its place over some garden years, each in order.
type Calendar struct {
	days      [len(events)][]day.Day
	Frostless bool // there is no frost in most years
}

// Days taken for events a year or a plant does not have.
const (
	noLeafOut   = 60  // after midwinter
	noLeafDrop  = -20 // from midwinter
	noLastFrost = 30
	noLastHard  = 15
	noFirst     = 330
	budsAfter   = 70 // after bloom
	Ripens      = 45 // days before the first frost from which shoots do not ripen any more
)

// Of gathers the events of the year before, the garden year of d, and the year after.
func (p *Place) Of(e *catalogue.Entry, d day.Day) Calendar {
	c := Calendar{}
	y, climate := p.Year, p.Year.Normals.Climate
	add := func(event string, on day.Day) {
		i := slices.Index(events[:], event)
		c.days[i] = append(c.days[i], on)
	}
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
		c.Frostless = c.Frostless || f.none
		add("last_frost", f.last)
		add("last_hard", f.hard)
		add("first_frost", f.first)
		add("ripening", f.first-Ripens)
	}
	for i := range c.days {
		slices.Sort(c.days[i])
		c.days[i] = slices.Compact(c.days[i])
	}
	return c
}

// All are the days that a moment falls on.
func (c *Calendar) All(w When) []day.Day {
	on := c.On(w.Event)
	out := make([]day.Day, len(on))
	for i, d := range on {
		out[i] = d + day.Day(w.Off)
	}
	return out
}

// Next is the first day of a moment from a day on; false where it comes no more.
func (c *Calendar) Next(w When, from day.Day) (day.Day, bool) {
	off := day.Day(w.Off)
	for _, d := range c.On(w.Event) {
		if d+off >= from {
			return d + off, true
		}
	}
	return 0, false
}

// Nearest is the day of a moment that lies nearest to a day.
func (c *Calendar) Nearest(w When, to day.Day) day.Day {
	best, off := day.None, day.Day(w.Off)
	for _, d := range c.On(w.Event) {
		if d += off; best == day.None || max(d-to, to-d) < max(best-to, to-best) {
			best = d
		}
	}
	return best
}

// Before is the last day of an event up to a day; none where there is no such.
func (c *Calendar) Before(event string, to day.Day) day.Day {
	at := day.None
	for _, d := range c.On(event) {
		if d <= to {
			at = d
		}
	}
	return at
}

// Place is a place's year, with what all calendars there share worked out once. It is safe for use by many at once.
type Place struct {
	Year *season.Year

	mu     sync.Mutex
	frosts map[day.Day]frosts // by midwinter
}

// At is a place.
func At(y *season.Year) *Place { return &Place{Year: y, frosts: map[day.Day]frosts{}} }

// frosts are the days round a winter on which frost ends and comes again.
type frosts struct {
	last, hard, first day.Day
	none              bool // there is no frost in most years
}

// frostsOf are those of the garden year of a midwinter.
func (p *Place) frostsOf(m day.Day) frosts {
	p.mu.Lock()
	defer p.mu.Unlock()
	if f, known := p.frosts[m]; known {
		return f
	}
	n := p.Year.Normals
	or := func(b season.Band, known bool, otherwise day.Day) day.Day {
		if known {
			return b.Mid
		}
		return otherwise
	}
	last, spring := n.LastFrost(m, 0)
	hard, hards := n.LastFrost(m, season.KillingFrostC)
	first, autumn := p.Year.FirstFrost(m+182, 0)
	f := frosts{
		or(last, spring, m+noLastFrost),
		or(hard, hards, m+noLastHard),
		or(first, autumn, m+noFirst),
		!spring && !autumn,
	}
	p.frosts[m] = f
	return f
}
