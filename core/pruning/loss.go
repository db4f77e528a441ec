package pruning

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/moment"
)

// budsForm is how many days next year's flower buds take to be all there, from the day they are set.
const budsForm = 30

// lossOf is the share of the next bloom that goes with a whole crown cut on a day: what stands on last year's wood from
// bud set until it has bloomed, and what stands on this year's shoots from when they push until they have bloomed.
func lossOf(c moment.Calendar, e *catalogue.Entry, d day.Day) float64 {
	old, young := e.Bloom.OldWood, e.Bloom.NewWood
	if old+young == 0 {
		old = 1
	}
	loss := 0.0
	if old > 0 {
		loss += old * onOld(c, d)
	}
	if young > 0 {
		loss += young * onNew(c, d)
	}
	return min(1, loss)
}

// onOld is the share of flower buds on last year's wood that are there on a day.
func onOld(c moment.Calendar, d day.Day) float64 {
	end, blooms := c.Next(moment.When{Event: "bloom_end"}, d)
	if !blooms {
		return 0
	}
	start := c.Before("bloom_start", end)
	set := c.Before("buds_set", start-1)
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
func onNew(c moment.Calendar, d day.Day) float64 {
	end, blooms := c.Next(moment.When{Event: "bloom_end"}, d)
	if !blooms {
		return 0
	}
	start := c.Before("bloom_start", end)
	out := c.Before("leaf_out", start)
	switch {
	case out == day.None || d < out:
		return 0
	case d >= start:
		return share(float64(end-d), float64(end-start))
	}
	return share(float64(d-out), float64(start-out))
}

func share(part, whole float64) float64 {
	if whole <= 0 {
		return 1
	}
	return max(0, min(1, part/whole))
}
