package rounds

import "slices"

// web is all ways of a crew's day by steps of time: the cheapest up to each place at each time, and the cheapest that
// came there from another place, so that no way turns straight back to where it came from.
type web struct {
	here []*floorPlace // those that gain something
	come twice         // by step and place: having come there and done the shortest job
	left twice         // having left it
	end  int32         // where the cheapest way ends; -1: there is none

	leg  []float64 // from place to place
	skip []int32   // how far on the point of the next place lies
}

// twice are, for each point, the cheapest way up to it and the cheapest that came from another place: two after each
// other.
type twice struct {
	cost []float64
	from []int32 // the point before; -1 none
	pred []int16 // the place before; -1 none
}

func (k *twice) clear(n int) {
	k.cost, k.from, k.pred = grow(k.cost, 2*n), grow(k.from, 2*n), grow(k.pred, 2*n)
	for i := range k.cost {
		k.cost[i], k.pred[i] = far, -1
	}
}

func grow[T any](s []T, n int) []T { return slices.Grow(s[:0], n)[:n] }

// keep keeps a way up to a point if it is one of the two, and reports whether it is.
func (k *twice) keep(i int, cost float64, from int32, pred int16) bool {
	a, b := 2*i, 2*i+1
	switch {
	case cost < k.cost[a]:
		if k.pred[a] != pred {
			k.cost[b], k.from[b], k.pred[b] = k.cost[a], k.from[a], k.pred[a]
		}
		k.cost[a], k.from[a], k.pred[a] = cost, from, pred
	case cost < k.cost[b] && pred != k.pred[a]:
		k.cost[b], k.from[b], k.pred[b] = cost, from, pred
	default:
		return false
	}
	return true
}

// solve is what the cheapest way of a day costs by the prices, 0 or less.
func (d *floorDay) solve(f *floor) float64 {
	d.here, d.end = d.here[:0], -1
	for i := range d.places {
		if q := &d.places[i]; q.set(f, f.s.list[d.w].crew) {
			d.here = append(d.here, q)
		}
	}
	if len(d.here) == 0 {
		return 0
	}
	s, way := f.s, &f.s.list[d.w]
	start := s.ways.start[way.crew]
	steps := d.spread(f, way, start)
	hours, n := float64(way.hours.To)-s.out(way), len(d.here)
	early, best := twice{}, 0.0 // early: of having left a place by now
	early.clear(n)
	for t := 1; t < steps; t++ {
		for i, q := range d.here {
			d.work(q, t, i, steps)
		}
		for i, q := range d.here {
			x := 2 * (t*n + i)
			a, b := d.left.cost[x], d.left.cost[x+1]
			if a >= far {
				continue
			}
			back := start[q.place]
			if c := a + back + overEach*max(0, float64(t)*f.step+back-hours); c < best {
				best, d.end = c, int32(x)
			}
			fresh := early.keep(i, a, 0, d.left.pred[x])
			if b < far && early.keep(i, b, 0, d.left.pred[x+1]) || fresh {
				d.on(t, i, a, b)
			}
		}
	}
	return best
}

// spread makes the points of a day, puts the first visits on them, and says how many steps the day has.
func (d *floorDay) spread(f *floor, way *way, start []float64) int {
	s := f.s
	n, room := len(d.here), float64(way.hours.To)-s.out(way)+overMost
	d.leg, d.skip = grow(d.leg, n*n), grow(d.skip, n*n)
	most := 1
	for j, b := range d.here {
		own := s.p.Places[b.place].Arrive + float64(b.least)*f.step
		short := start[b.place]
		for i, a := range d.here {
			leg := s.ways.place[a.place][b.place]
			if i != j {
				short = min(short, leg)
			}
			take := max(1, int((leg+own)/f.step+1e-9))
			d.leg[i*n+j], d.skip[i*n+j] = leg, int32(take*n+j)
			most = max(most, take)
		}
		room += max(0, f.step-short-own) // a visit shorter than a step counts as one
	}
	steps := int(room/f.step) + 1
	d.come.clear((steps + most + 1) * n)
	d.left.clear((steps + most + 1) * n)
	for j, q := range d.here {
		if t := max(1, int((start[q.place]+s.p.Places[q.place].Arrive)/f.step+1e-9)+q.least); t < steps {
			d.come.keep(t*n+j, start[q.place], -1, -1)
		}
	}
	return steps
}

// work spends steps of work at a place after having come there.
func (d *floorDay) work(q *floorPlace, t, i, steps int) {
	n := len(d.here)
	for x := 2 * (t*n + i); x < 2*(t*n+i)+2 && d.come.cost[x] < far; x++ {
		for _, g := range q.gain {
			if t+g.more >= steps {
				break
			}
			d.left.keep((t+g.more)*n+i, d.come.cost[x]-g.got, int32(x), d.come.pred[x])
		}
	}
}

// on goes from a place to all others: by the cheapest way, or to where that came from by the other.
func (d *floorDay) on(t, i int, a, b float64) {
	n := len(d.here)
	leg, skip := d.leg[i*n:i*n+n], d.skip[i*n:i*n+n]
	come := d.come.cost[2*t*n:]
	x := 2 * (t*n + i)
	pred := int(d.left.pred[x])
	for j := range leg {
		k := int(skip[j])
		switch {
		case a+leg[j] >= come[2*k+1] || j == i:
		case j != pred:
			d.come.keep(t*n+k, a+leg[j], int32(x), int16(i))
		case b < far:
			d.come.keep(t*n+k, b+leg[j], int32(x+1), int16(i))
		}
	}
}

// each visits what the cheapest way of a day comes to, with the jobs done there.
func (d *floorDay) each(f *floor, visit func(q *floorPlace, done []int)) {
	n := len(d.here)
	for at := d.end; at >= 0; {
		from := d.left.from[at]
		q := d.here[int(at/2)%n]
		visit(q, q.done(q.least+int(at/2)/n-int(from/2)/n))
		at = d.come.from[from]
	}
}
