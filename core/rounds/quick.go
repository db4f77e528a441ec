package rounds

import (
	"cmp"
	"slices"
)

const (
	blink       = 0.05 // of the ways that a quick build does not look at, so that it finds others
	passes      = 3    // over what waits for something else before it
	stringsMost = 6    // ways that are taken from
	stringLong  = 3    // stops that are taken from each
	wholeIn     = 4    // one quick build in so many takes whole properties
	wholeMost   = 5    // of them at once
	nearMost    = 8    // of those that wait, looked at with what was taken
)

// rebuildQuickly takes strings of stops off some ways and builds them up property by property.
func (s *search) rebuildQuickly() {
	var taken []int
	if s.rng.IntN(wholeIn) == 0 {
		taken = s.properties()
	} else {
		taken = s.strings()
	}
	q := &pool{s: s, jobs: append(taken, s.waitingNear(taken)...)}
	q.quick()
}

// strings takes stops that follow one another off some ways that come near a place.
func (s *search) strings() (taken []int) {
	placed := []int{}
	for _, w := range s.working {
		if len(s.list[w].stops) > 0 {
			placed = append(placed, w)
		}
	}
	if len(placed) == 0 {
		return nil
	}
	way := &s.list[placed[s.rng.IntN(len(placed))]]
	seed := way.stops[s.rng.IntN(len(way.stops))].place
	list := s.nearWays(placed, seed)
	for _, n := range list[:min(len(list), 1+s.rng.IntN(stringsMost))] {
		stops := s.list[n.w].stops
		if len(stops) == 0 {
			continue // what came before took it along
		}
		long := 1 + s.rng.IntN(min(stringLong, len(stops)))
		from := max(0, min(n.i, len(stops)-1)-s.rng.IntN(long))
		to := min(len(stops), from+long)
		taken = append(taken, s.takeAll(slices.Clone(stops[from:to]))...)
	}
	return taken
}

// properties takes all that is done at a property and at some near it, on whatever days: two visits may become one.
func (s *search) properties() (taken []int) {
	seed := s.p.Jobs[s.rng.IntN(len(s.p.Jobs))].Place
	list := make([]passing, 0, len(s.ofPlace))
	for k, jobs := range s.ofPlace {
		if len(jobs) > 0 && k != seed {
			list = append(list, passing{i: k, leg: (s.ways.place[seed][k] + parking) * s.rng.Float64()})
		}
	}
	slices.SortFunc(list, func(a, b passing) int { return cmp.Compare(a.leg, b.leg) })
	taken = s.take(nil, s.ofPlace[seed]...)
	for _, n := range list[:min(len(list), s.rng.IntN(wholeMost))] {
		taken = s.take(taken, s.ofPlace[n.i]...)
	}
	return taken
}

// waitingNear are some of those without a day, rather near than far from what was just taken.
func (s *search) waitingNear(taken []int) []int {
	out := s.unplaced(taken)
	if len(taken) == 0 {
		return out[:min(nearMost, len(out))]
	}
	if s.key == nil {
		s.key = make([]float64, len(s.at))
	}
	row := s.ways.place[s.p.Jobs[taken[0]].Place]
	for _, j := range out {
		s.key[j] = (row[s.p.Jobs[j].Place] + parking) * s.rng.Float64()
	}
	slices.SortFunc(out, func(a, b int) int { return cmp.Or(cmp.Compare(s.key[a], s.key[b]), a-b) })
	return out[:min(nearMost, len(out))]
}

// passing is a way with its stop that is nearest to a place.
type passing struct {
	w, i int
	leg  float64 // to that, minutes, shaken somewhat
}

// nearWays are ways by how near they come to a place.
func (s *search) nearWays(ways []int, place int) (list []passing) {
	for _, w := range ways {
		best := passing{w, -1, far}
		for i := range s.list[w].stops {
			if leg := s.ways.place[place][s.list[w].stops[i].place]; leg < best.leg {
				best = passing{w, i, leg}
			}
		}
		best.leg *= 1 + 0.5*s.rng.Float64()
		list = append(list, best)
	}
	slices.SortFunc(list, func(a, b passing) int { return cmp.Compare(a.leg, b.leg) })
	return list
}

// quick puts the jobs property by property, in a chance order, each where a visit with all of them costs least: less
// thorough than fill, and many times as fast (slack induction by string removals: Christiaens and Vanden Berghe 2020).
func (q *pool) quick() {
	bundles := q.bundled()
	q.shuffle(bundles)
	for _, b := range bundles {
		q.spread(b)
	}
	rest := []int{}
	for _, b := range bundles {
		rest = append(rest, b.jobs...)
	}
	for range passes {
		rest = slices.DeleteFunc(rest, q.single)
	}
}

// shuffle puts bundles in one of some orders: any, those with most work first, far ones first, near ones first.
func (q *pool) shuffle(bundles []*bundle) {
	s := q.s
	s.rng.Shuffle(len(bundles), func(a, b int) { bundles[a], bundles[b] = bundles[b], bundles[a] })
	by := func(key func(b *bundle) float64) {
		slices.SortStableFunc(bundles, func(a, b *bundle) int { return cmp.Compare(key(b), key(a)) })
	}
	switch s.rng.IntN(6) {
	case 0, 1:
		by(func(b *bundle) float64 { return float64(len(b.jobs)) })
	case 2, 3:
		by(func(b *bundle) float64 { return s.ways.start[0][b.place] })
	case 4:
		by(func(b *bundle) float64 { return -s.ways.start[0][b.place] })
	}
}

// spread puts the jobs of one property: visit by visit, and each job on the best of the visits there are.
func (q *pool) spread(b *bundle) {
	s := q.s
	for len(b.jobs) > 0 {
		on, least := -1, 0.0
		gains := q.gains(b)
		for _, w := range s.working {
			if gains[w] >= least || s.rng.Float64() < blink {
				continue
			}
			if v := q.visit(b, w, least); v < least {
				on, least = w, v
			}
		}
		if on < 0 || !q.visited(b, on) {
			return
		}
	}
}

// gains are by how much all jobs of a bundle cost less on each way than left, were a crew there anyway.
func (q *pool) gains(b *bundle) []float64 {
	s := q.s
	if s.gain == nil {
		s.gain = make([]float64, len(s.list))
	}
	clear(s.gain)
	for _, j := range b.jobs {
		row, wait := s.days[j*len(s.list):(j+1)*len(s.list)], s.waits[j]
		for _, w := range s.working {
			s.gain[w] += min(0, row[w]-wait)
		}
	}
	return s.gain
}

// visited puts a visit on a way with all of a bundle that may be done there, and moves what another visit of the
// property does better.
func (q *pool) visited(b *bundle, on int) bool {
	s := q.s
	all, jobs := stop{place: b.place}, make([]int, 0, len(b.jobs))
	for _, j := range b.jobs {
		if q.worth(j, on) {
			st := s.stopOf(j, s.list[on].crew)
			all.merge(&st)
			jobs = append(jobs, j)
		}
	}
	c, at := s.add(&s.list[on], all)
	if len(jobs) == 0 || c >= far {
		return false
	}
	s.put(on, at, jobs...)
	b.jobs = slices.DeleteFunc(b.jobs, func(j int) bool { return s.at[j] == on })
	for _, k := range s.ofPlace[b.place] {
		w := s.at[k]
		if w < 0 || w == on || !s.mine[k] {
			continue
		}
		if s.there(k, on) < s.there(k, w) {
			s.move(k, on)
		}
		for _, j := range jobs {
			if s.at[j] == on && s.at[k] == w && s.there(j, w) < s.there(j, on) {
				s.move(j, w)
			}
		}
	}
	return true
}

// move moves one job to another way where its property is come to, if that is better.
func (s *search) move(j, to int) {
	mark, sum := len(s.log), s.sum
	s.lift(j)
	if v, at := s.try(j, to); v < far {
		if s.put(to, at, j); s.sum < sum-1e-9 {
			return
		}
	}
	s.back(mark, sum)
}

// single puts a job by itself where it costs least, if that is better than to leave it.
func (q *pool) single(j int) bool {
	s := q.s
	least, on, at := s.waits[j], -1, spot{}
	for _, w := range s.working {
		if s.there(j, w) >= least || s.rng.Float64() < blink {
			continue
		}
		if v, how := s.try(j, w); v < least {
			least, on, at = v, w, how
		}
	}
	if on >= 0 {
		s.put(on, at, j)
	}
	return on >= 0
}
