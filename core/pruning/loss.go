package pruning

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// budsForm is how many days next year's flower buds take to be all there, from the day they are set.
const budsForm = 30

// loss is the share of the next bloom that goes with a whole crown cut on a day: what stands on last year's wood from bud set until
// it has bloomed, and what stands on this year's shoots from when they push until they have bloomed.
func (c calendar) loss(e *catalogue.Entry, d day.Day) float64 {
	old, young := e.Bloom.OldWood, e.Bloom.NewWood
	if old+young == 0 {
		old = 1
	}
	return min(1, old*c.onOld(d)+young*c.onNew(d))
}

// onOld is the share of flower buds on last year's wood that are there on a day.
func (c calendar) onOld(d day.Day) float64 {
	end, blooms := c.next(When{Event: "bloom_end"}, d)
	if !blooms {
		return 0
	}
	start := c.before("bloom_start", end)
	set := c.before("buds_set", start-1)
	if set == day.None || start-set > 420 {
		return 1
	}
	switch {
	case d < set:
		return 0
	case d >= start:
		return share(float64(end-d), float64(end-start))
	}
	return share(float64(d-set), budsForm)
}

// onNew is the same of this year's shoots.
func (c calendar) onNew(d day.Day) float64 {
	end, blooms := c.next(When{Event: "bloom_end"}, d)
	if !blooms {
		return 0
	}
	start := c.before("bloom_start", end)
	out := c.before("leaf_out", start)
	switch {
	case out == day.None || d < out:
		return 0
	case d >= start:
		return share(float64(end-d), float64(end-start))
	}
	return share(float64(d-out), float64(start-out))
}

// before is the last day of an event up to a day; none where there is no such.
func (c calendar) before(event string, to day.Day) day.Day {
	at := day.None
	for _, d := range c.at[event] {
		if d <= to {
			at = d
		}
	}
	return at
}

func share(part, whole float64) float64 {
	if whole <= 0 {
		return 1
	}
	return max(0, min(1, part/whole))
}
