package rounds

import "slices"

// bundle is all that a pool holds for one property: it may well be done in one visit.
type bundle struct {
	place int
	jobs  []int
	value []float64 // by way: what a visit with all that may be done on it adds, against leaving it
}

// bundled are the jobs by property.
func (q *pool) bundled() (order []*bundle) {
	for _, j := range q.jobs {
		place := q.s.p.Jobs[j].Place
		i := slices.IndexFunc(order, func(b *bundle) bool { return b.place == place })
		if i < 0 {
			i = len(order)
			order = append(order, &bundle{place: place})
		}
		order[i].jobs = append(order[i].jobs, j)
	}
	return order
}

// bundles puts whole visits first, where that is better than to leave the work: job by job the first one would choose
// the day for all.
func (q *pool) bundles() {
	s := q.s
	order := slices.DeleteFunc(q.bundled(), func(b *bundle) bool { return len(b.jobs) < 2 })
	for _, b := range order {
		b.value = make([]float64, len(s.list))
		for _, w := range s.working {
			b.value[w] = q.visit(b, w, far)
		}
	}
	for len(order) > 0 {
		pick, on, most := -1, -1, 0.0
		for i, b := range order {
			w, least, second := -1, 0.0, 0.0
			for k, v := range b.value {
				if v < least {
					w, least, second = k, v, least
				} else if v < second {
					second = v
				}
			}
			if w >= 0 && (pick < 0 || second-least > most) {
				pick, on, most = i, w, second-least
			}
		}
		if pick < 0 {
			return
		}
		b := order[pick]
		for _, j := range slices.Clone(b.jobs) {
			if q.worth(j, on) {
				if v, at := s.try(j, on); v < far {
					s.put(on, at, j)
					b.jobs = slices.Delete(b.jobs, slices.Index(b.jobs, j), slices.Index(b.jobs, j)+1)
				}
			}
		}
		if len(b.jobs) < 2 {
			order = slices.Delete(order, pick, pick+1)
		} else {
			for _, w := range s.working {
				b.value[w] = q.visit(b, w, far)
			}
			b.value[on] = far
		}
		for _, other := range order {
			if other != b {
				other.value[on] = q.visit(other, on, far)
			}
		}
	}
}

// worth reports that a job is better done on a way than left, were the crew there anyway.
func (q *pool) worth(j, w int) bool { return q.s.there(j, w) < q.s.waits[j] && q.s.may(j, w) }

// visit is what a visit with all of a bundle that may be done on a way adds, against leaving that; far where it cannot
// be, or adds more than so much.
func (q *pool) visit(b *bundle, w int, most float64) float64 {
	s := q.s
	way := &s.list[w]
	if way.hours.empty() {
		return far
	}
	all, sum := stop{place: b.place}, 0.0
	for _, j := range b.jobs {
		if q.worth(j, w) {
			all.merge(&s.single[j])
			all.work += s.minutes[j][way.crew]
			sum += s.there(j, w) - s.waits[j]
		}
	}
	if all.work == 0 || q.wild == 0 && sum > most {
		return far
	}
	c, _ := s.add(way, all)
	if c >= far {
		return far
	}
	if q.wild > 0 {
		sum += q.wild * (s.rng.Float64() - 0.5)
	}
	return c + sum
}
