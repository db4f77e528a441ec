package catalogue

import (
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Stage is where a species stands on a day: what frost would meet.
type Stage struct {
	SinceLeafOut int  // days since leaf-out; negative before
	Leafing      bool // leaf-out is known at all
	InBloom      bool
	Leafy        bool // it has come into leaf and not shed its leaves or died back
	Blooms       bool // its bloom is known to come this year
	ToBloom      int  // days until its first flowers open; negative after
	PastBloom    int  // days since its last flowers fell; negative before
}

// lastYearsBloom: a bloom so many days ahead is nearer as last year's.
const lastYearsBloom = 270

// Stages answers Stage for the garden year of d, by the middle of each band, without working the dates out each time.
func (e Entry) Stages(y *season.Year, d day.Day) func(day.Day) Stage {
	known := map[string]day.Day{}
	leaf, leafs := y.When(e.LeafOut, d, known)
	if leafs {
		known["leaf_out"] = leaf
	}
	drop := day.None
	if e.LeafDrop != nil {
		if x, ok := y.When(*e.LeafDrop, d, known); ok {
			known["leaf_drop"], drop = x, x
		}
	}
	midwinter := y.Normals.Climate.Midwinter(d)
	start, blooms := y.When(e.Bloom.Start, d, known)
	end := start
	if blooms {
		known["bloom_start"] = start
		end, blooms = y.When(e.Bloom.End, d, known)
	}
	green := e.greenUntil(y, midwinter, drop)
	return func(x day.Day) Stage {
		start, end := start, end
		if start.Sub(x) > lastYearsBloom { // it began before midwinter, and may go on
			start, end = start-365, end-365
		}
		leafy := e.LeafSeason == Evergreen || leafs && x >= leaf && (drop == day.None || x < drop) ||
			x < green && (!leafs || x < leaf)
		return Stage{SinceLeafOut: x.Sub(leaf), Leafing: leafs, InBloom: blooms && x >= start && x <= end, Leafy: leafy,
			Blooms: blooms, ToBloom: start.Sub(x), PastBloom: x.Sub(end)}
	}
}

// greenUntil is when last year's leaves fell or will fall: as this year's will, or, of what frost takes, when frost
// comes. Where winters are mild that may be after midwinter, or not at all.
func (e *Entry) greenUntil(y *season.Year, midwinter, drop day.Day) day.Day {
	switch {
	case drop != day.None && e.LeafDrop.FirstFrost == 0:
		return min(midwinter, drop-365)
	case e.LeafDrop == nil || e.LeafDrop.FirstFrost == 0:
		return day.None
	}
	if last, came := y.When(*e.LeafDrop, midwinter-365, nil); came {
		return last
	}
	x := midwinter
	for ; x < midwinter+182; x++ {
		if t, observed := y.Extremes(x); observed && t.Min < 0 {
			return x + day.Day(e.LeafDrop.Days)
		}
	}
	return x
}
