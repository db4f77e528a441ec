package pruning

import (
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
)

// Height is how tall it stands so many seasons after the cut.
type Height struct {
	Season int     `json:"season" doc:"0 right after the cut"`
	M      float64 `json:"m"`
}

// seasonsAhead is how far regrowth is foretold.
const seasonsAhead = 3

// hardFrom is the share of the height from which on the answer is that to a hard cut.
const hardFrom = 0.6

// grows is how much taller it gets in the season after a cut that took a share of its height, m; half of that beyond the usual
// in each season after.
func grows(e *catalogue.Entry, cut float64, season int) float64 {
	usual, hard := e.GrowthCMYear/100, max(e.RegrowthCM, e.GrowthCMYear)/100
	more := (hard - usual) * min(1, cut/hardFrom) * math.Exp2(-float64(season-1))
	return usual + more
}

// heights are those after a cut from one height to another; it grows no taller than its kind.
func heights(e *catalogue.Entry, from, to float64) []Height {
	out := []Height{{0, quantity.Round(to, 0.01)}}
	h := to
	for n := 1; n <= seasonsAhead; n++ {
		h = min(max(e.Mature.HeightM, from), h+grows(e, 1-to/from, n))
		out = append(out, Height{n, quantity.Round(h, 0.01)})
	}
	return out
}

// cutFor is the height to cut to so that it stands at the wanted height after the next season; below 0 where even a cut to
// the ground would not keep it so low.
func cutFor(e *catalogue.Entry, height, wanted float64) float64 {
	lo, hi := 0.0, min(height, wanted)
	if grows(e, 1, 1) > wanted {
		return -1
	}
	for range 40 {
		mid := (lo + hi) / 2
		if mid+grows(e, 1-mid/height, 1) > wanted {
			hi = mid
		} else {
			lo = mid
		}
	}
	return lo
}

// leastHeight is the lowest that a kind may be cut to at all, of its height: below that it does not come again.
func leastHeight(e *catalogue.Entry, height float64) float64 {
	switch e.HardPruning {
	case catalogue.FromBase:
		return 0.05 * height
	case catalogue.OldWood:
		return 0.3 * height
	case catalogue.GreenWood:
		return 0.7 * height
	}
	return height
}
