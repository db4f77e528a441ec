package site

import "math"

// WayRound is the order in which one goes past all plants on a plan and back, from its gate, or a door, or the first of
// them; by ids. It is short, not proven shortest: the nearest next one, then with no two legs that are better exchanged
// (2-opt). What stands between two plants is gone round: such a leg counts three times.
func (p *Plan) WayRound() []string {
	ids, at := []string{}, []At{}
	start, found := At{}, false
	for _, want := range []Kind{Gate, Door, Plant} {
		for i := range p.Things {
			if t := &p.Things[i]; t.Kind == want && !found {
				start, found = t.Points[0], true
			}
		}
	}
	for i := range p.Things {
		if t := &p.Things[i]; t.Kind == Plant || t.Row() || t.Filled() {
			ids, at = append(ids, t.ID), append(at, t.Points[0])
		}
	}
	if len(ids) == 0 {
		return ids
	}
	walls := []edge{}
	for i := range p.Things {
		switch t := &p.Things[i]; t.Kind {
		case Wall, Building, Fence, Hedge:
			walls = append(walls, t.edges()...)
		}
	}
	w := newWay(append([]At{start}, at...), walls)
	w.nearest()
	w.untangle()
	out := make([]string, len(ids))
	for i, n := range w.order[1:] {
		out[i] = ids[n-1]
	}
	return out
}

// way is a round under work; place 0 is where it begins and ends.
type way struct {
	leg   [][]float64
	order []int
}

// roundAbout is by how much a leg counts more that something stands in the way of.
const roundAbout = 3.0

func newWay(at []At, walls []edge) *way {
	w := &way{leg: make([][]float64, len(at))}
	for i := range at {
		w.leg[i] = make([]float64, len(at))
		for k := range i {
			d := Distance(at[i], at[k])
			for _, e := range walls {
				if meet(at[i], at[k], e.a, e.b) {
					d *= roundAbout
					break
				}
			}
			w.leg[i][k], w.leg[k][i] = d, d
		}
	}
	return w
}

func (w *way) nearest() {
	seen := make([]bool, len(w.leg))
	w.order, seen[0] = []int{0}, true
	for len(w.order) < len(w.leg) {
		last, next, least := w.order[len(w.order)-1], -1, math.Inf(1)
		for k := range w.leg {
			if d := w.leg[last][k]; !seen[k] && d < least {
				next, least = k, d
			}
		}
		seen[next] = true
		w.order = append(w.order, next)
	}
}

// untangle turns round parts of the way while that makes it shorter.
func (w *way) untangle() {
	n := len(w.order)
	for better := true; better; {
		better = false
		for i := 1; i < n-1; i++ {
			for k := i + 1; k < n; k++ {
				a, b, c, d := w.order[i-1], w.order[i], w.order[k], w.order[(k+1)%n]
				if w.leg[a][c]+w.leg[b][d] < w.leg[a][b]+w.leg[c][d]-1e-9 {
					for x, y := i, k; x < y; x, y = x+1, y-1 {
						w.order[x], w.order[y] = w.order[y], w.order[x]
					}
					better = true
				}
			}
		}
	}
}
