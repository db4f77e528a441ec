package rounds

import (
	"fmt"
	"math/rand/v2"
	"runtime/debug"
	"slices"
)

// Of large plans two halves are bettered beside each other: some of the days, and the rest.
const (
	halvesFrom = 700 // jobs; what is less is searched as well by one
	halvesDays = 4   // with work, at least
	halfRounds = 5   // in each half before days are shared out anew, of so much work that both take as long
	roundTakes = 180 // looks at a stop on a way, for each build of a round in a half
)

// half is a search that betters some days of a plan, while another betters the rest: what a plan costs is a sum over
// its days, so that both gains count. Jobs that hang together across both stay where they are meanwhile.
type half struct {
	*search
	best  standing // the best that was found since the days were shared out
	tried int      // builds
}

// improveHalves does what improve does, in two halves whose days are drawn anew all the time. Each half is as cheap
// again to search as the whole, and both go on at once: twice to four times as many builds in the same time.
func (s *search) improveHalves(first float64, goOn func(rounds int, best float64) (done float64, more bool)) int {
	best := s.copy()
	groups := joined(s.next, s.mates) // by gaps, or by a treatment of the same plants
	halves := [2]*half{s.newHalf(), s.newHalf()}
	n := 0
	for {
		done, more := goOn(n, best.sum)
		if !more {
			break
		}
		n += halfRounds
		s.shareOut(halves, groups)
		heat := heatAt(first, done)
		both(func() { halves[0].goOn(best.sum, heat) }, func() { halves[1].goOn(best.sum, heat) })
		from := s.sum
		if sum := halves[0].best.sum + halves[1].best.sum - from; sum < best.sum-1e-6 {
			for _, h := range halves {
				s.adopt(h, h.best)
			}
			s.sum = sum
			best = s.copy()
		}
		for _, h := range halves {
			s.adopt(h, standing{list: h.list, at: h.at})
		}
		s.sum = halves[0].sum + halves[1].sum - from
	}
	s.restore(best)
	return n
}

// inHalves reports a plan that is large enough for halves.
func (s *search) inHalves() bool { return s.p.Cores() > 1 && len(s.worked()) >= halvesDays }

// Cores is how many cores a plan is searched on at once.
func (p *Problem) Cores() int {
	if len(p.Jobs) >= halvesFrom {
		return 2
	}
	return 1
}

// worked are the days with hours.
func (s *search) worked() (days []int) {
	for d, ways := range s.peers {
		if len(ways) > 0 {
			days = append(days, d)
		}
	}
	return days
}

// newHalf shares with the search what is never changed, and has the rest of its own.
func (s *search) newHalf() *half {
	h := *s
	h.list, h.at = slices.Clone(s.list), slices.Clone(s.at)
	h.going, h.mine = make([]bool, len(s.going)), make([]bool, len(s.mine))
	h.touched = make([]bool, len(s.touched))
	h.value, h.fits = make([]float64, len(s.value)), make([]spot, len(s.fits))
	h.log, h.olds, h.aside, h.store, h.scratch = nil, nil, nil, nil, nil
	h.key, h.gain, h.working, h.courses = nil, nil, nil, nil
	return &half{search: &h}
}

// shareOut draws which half betters which days, and gives each the plan as it stands.
func (s *search) shareOut(halves [2]*half, groups [][]int) {
	days := s.worked()
	side := make([]int, s.p.Days)
	for i, k := range s.rng.Perm(len(days)) {
		side[days[k]] = 2 * i / len(days)
	}
	for i, h := range halves {
		h.rng = rand.New(rand.NewPCG(s.rng.Uint64(), uint64(i)))
		h.sum, h.working, h.courses = s.sum, h.working[:0], h.courses[:0]
		copy(h.list, s.list)
		copy(h.at, s.at)
		clear(h.mine)
	}
	for _, w := range s.working {
		h := halves[side[s.list[w].day]]
		h.working = append(h.working, w)
		h.list[w].stops = slices.Clone(s.list[w].stops)
	}
	for _, g := range groups {
		if i := s.sideOf(g, side); i >= 0 {
			for _, j := range g {
				halves[i].mine[j] = true
			}
		}
	}
	for _, c := range s.courses {
		for _, h := range halves {
			if h.mine[c[0]] {
				h.courses = append(h.courses, c)
			}
		}
	}
}

// sideOf is the half in which jobs are that hang together, drawn where none has a day; -1 where they are in both.
func (s *search) sideOf(group, side []int) int {
	on := -1
	for _, j := range group {
		if w := s.at[j]; w >= 0 {
			i := side[s.list[w].day]
			if on >= 0 && on != i {
				return -1
			}
			on = i
		}
	}
	if on < 0 {
		on = s.rng.IntN(2)
	}
	return on
}

// goOn betters a half for about so many rounds; least is what the best plan cost before them. Builds are not counted,
// but the work they make: a half that is done before the other waits, and on a busy machine for long.
func (h *half) goOn(least, heat float64) {
	h.best = h.copy()
	for until := h.effort + halfRounds*roundTakes*h.builds(); h.effort < until; h.tried++ {
		h.tryOne(&h.best, least, heat, h.tried%h.builds() == 0)
	}
}

// adopt takes the days and jobs of a half as they stand in a plan of it.
func (s *search) adopt(h *half, plan standing) {
	for _, w := range h.working {
		s.list[w] = plan.list[w]
	}
	for j, mine := range h.mine {
		if mine {
			s.at[j] = plan.at[j]
		}
	}
}

// both does two things beside each other. What breaks in either breaks here.
func both(one, other func()) {
	broke := make(chan any, 1)
	go func() {
		defer func() {
			what := recover()
			if what != nil {
				what = fmt.Sprintf("%v\n%s", what, debug.Stack())
			}
			broke <- what
		}()
		other()
	}()
	one()
	if what := <-broke; what != nil {
		panic(what)
	}
}
