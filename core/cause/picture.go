package cause

import (
	"cmp"
	"math"
	"slices"
)

// pictured is how many signs a cause is drawn by.
const pictured = 2

// picture is how a cause is drawn: by the drawings of the signs that it shows most surely and few others do.
func (b *Book) picture(c *Cause) (out [][]string) {
	type drawn struct {
		draw  []string
		worth float64
	}
	var list []drawn
	for i := range b.Signs {
		s := &b.Signs[i]
		if p := c.Signs[s.ID]; len(s.Draw) > 0 && p > usually {
			list = append(list, drawn{s.Draw, p * math.Log(p/b.usual(s.ID))})
		}
	}
	slices.SortStableFunc(list, func(x, y drawn) int { return cmp.Compare(y.worth, x.worth) })
	for _, d := range list {
		if len(out) < pictured && d.worth > 0 && !slices.ContainsFunc(out, func(o []string) bool { return slices.Equal(o, d.draw) }) {
			out = append(out, d.draw)
		}
	}
	return out
}

// usually is the least chance of a sign that a cause is drawn by.
const usually = 0.4

// usual is how often a sign is seen over all causes.
func (b *Book) usual(sign string) float64 {
	sum := usualRare
	for i := range b.Causes {
		sum += b.Causes[i].Signs[sign]
	}
	return sum / float64(len(b.Causes))
}
