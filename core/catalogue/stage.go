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
}

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
		leafy := e.LeafSeason == Evergreen || leafs && x >= leaf && (drop == day.None || x < drop) ||
			x < green && (!leafs || x < leaf)
		return Stage{x.Sub(leaf), leafs, blooms && x >= start && x <= end, leafy}
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
