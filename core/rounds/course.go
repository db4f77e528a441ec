package rounds

import (
	"cmp"
	"slices"
)

// Of courses: jobs that hang together by gaps are put as one, since the best day of the first may leave none to the
// rest.
const (
	beam       = 24 // arrangements of a course that are gone on with
	courseMost = 12 // jobs of a course; longer ones are put job by job
	coursesIn  = 3  // courses that are put anew in a round, at most
)

// findCourses are the groups of jobs that hang together, each in an order in which what is waited for comes first.
func (s *search) findCourses() [][]int {
	out := [][]int{}
	for _, list := range joined(s.next) {
		list = slices.DeleteFunc(list, func(j int) bool { return s.round[j] })
		if len(list) > 1 && len(list) <= courseMost {
			out = append(out, s.sorted(list))
		}
	}
	return out
}

// joined are the groups of jobs that are tied to one another, by what each is tied to; each alone that is tied to none.
func joined(ties ...[][]int) [][]int {
	group := make([]int, len(ties[0]))
	for j := range group {
		group[j] = j
	}
	var head func(j int) int
	head = func(j int) int {
		if group[j] != j {
			group[j] = head(group[j])
		}
		return group[j]
	}
	for _, tie := range ties {
		for j, to := range tie {
			for _, n := range to {
				group[head(n)] = head(j)
			}
		}
	}
	by := make([][]int, len(group))
	for j := range group {
		by[head(j)] = append(by[head(j)], j)
	}
	return slices.DeleteFunc(by, func(g []int) bool { return len(g) == 0 })
}

// sorted puts jobs in an order in which what is waited for comes first.
func (s *search) sorted(jobs []int) []int {
	var out []int
	for len(out) < len(jobs) {
		for _, j := range jobs {
			ready := !slices.Contains(out, j) && !slices.ContainsFunc(s.p.Jobs[j].After, func(g Gap) bool {
				return g.Job >= 0 && !slices.Contains(out, g.Job)
			})
			if ready {
				out = append(out, j)
			}
		}
	}
	return out
}

// arranged is a course in part: the way of each of its first jobs, -1 of one that is left.
type arranged struct {
	on   []int
	cost float64
}

// relink takes a course off its ways and puts it anew as one; where that is no better all stays as it was.
func (s *search) relink(course []int) {
	mark, sum := len(s.log), s.sum
	for i := len(course) - 1; i >= 0; i-- {
		if s.at[course[i]] >= 0 {
			s.lift(course[i])
		}
	}
	for _, a := range s.arrangements(course) {
		tried, bare := len(s.log), s.sum
		if s.lay(course, a.on) && s.sum < sum-1e-6 {
			return
		}
		s.back(tried, bare)
	}
	s.back(mark, sum)
}

// lay puts a course as arranged, and reports that all of it went there: beside each other jobs may not have room that
// each has alone.
func (s *search) lay(course, on []int) bool {
	for i, j := range course {
		if on[i] < 0 {
			continue
		}
		v, at := s.try(j, on[i])
		if v >= far {
			return false
		}
		s.put(on[i], at, j)
	}
	return true
}

// arrangements are the cheapest ways to put a course, the cheapest first: job by job, going on with the cheapest for
// each set of days that what comes after looks at. What a job costs on a way is taken as if it came there alone.
func (s *search) arrangements(course []int) []arranged {
	list := []arranged{{cost: 0}}
	for i, j := range course {
		values := s.alone(j)
		best := map[string]arranged{}
		keep := func(a arranged, on int, cost float64) {
			next := arranged{append(slices.Clone(a.on), on), a.cost + cost}
			key := s.openDays(course[:i+1], next.on)
			if was, known := best[key]; !known || next.cost < was.cost {
				best[key] = next
			}
		}
		for _, a := range list {
			keep(a, -1, s.waits[j])
			s.assume(course, a.on)
			for w, v := range values {
				if v < far && s.may(j, w) {
					keep(a, w, v)
				}
			}
			s.forget(course, a.on)
		}
		list = list[:0]
		for _, a := range best {
			list = append(list, a)
		}
		slices.SortFunc(
			list,
			func(a, b arranged) int { return cmp.Or(cmp.Compare(a.cost, b.cost), slices.Compare(a.on, b.on)) },
		)
		list = list[:min(len(list), beam)]
	}
	return list[:min(len(list), arrangedMost)]
}

// arrangedMost is how many arrangements of a course are tried in full.
const arrangedMost = 4

// alone is what a job costs on each way, whatever it waits for; far where it cannot be.
func (s *search) alone(j int) []float64 {
	out := make([]float64, len(s.list))
	for w := range out {
		out[w] = far
	}
	for _, w := range s.working {
		if s.there(j, w) < far {
			if c, _ := s.add(&s.list[w], s.stopOf(j, s.list[w].crew)); c < far {
				out[w] = c + s.there(j, w)
			}
		}
	}
	return out
}

// assume has the jobs of a course count as being where they are arranged, without being there.
func (s *search) assume(course, on []int) {
	for i, w := range on {
		s.at[course[i]] = w
	}
}

func (s *search) forget(course, on []int) {
	for i := range on {
		s.at[course[i]] = -1
	}
}

// openDays tells apart arrangements that leave different days to what comes after: by the ways of those that something
// still waits for.
func (s *search) openDays(course, on []int) string {
	key := make([]byte, 0, 2*len(on))
	for i, j := range course {
		waited := slices.ContainsFunc(s.next[j], func(n int) bool { return !slices.Contains(course, n) })
		if waited || len(s.mates[j]) > 0 {
			key = append(key, byte(on[i]), byte(on[i]>>8))
		} else if on[i] < 0 {
			key = append(key, 255, 255)
		} else {
			key = append(key, 254, 254)
		}
	}
	return string(key)
}

// relinkSome puts some courses anew, among them those of jobs that were just taken off.
func (s *search) relinkSome(taken []int) {
	if len(s.courses) == 0 {
		return
	}
	n := 0
	for i, c := range s.courses {
		if n < coursesIn && slices.ContainsFunc(taken, func(j int) bool { return slices.Contains(c, j) }) {
			s.relink(s.courses[i])
			n++
		}
	}
	if n == 0 {
		s.relink(s.courses[s.rng.IntN(len(s.courses))])
	}
}
