package rounds

import (
	"math"
	"slices"
)

// How much is torn down at once.
const (
	ruinMost  = 28
	ruinShare = 0.35 // of the jobs on a day
	poolMost  = 16   // of those that wait, looked at with what was torn down
	eagerIn   = 3    // one in so many builds puts more than is worth it, and prunes
	eagerMost = 250
	wildest   = 120   // minutes by which a build may misjudge a place for a job, so that it finds others
	hottest   = 200.0 // minutes by which a plan may be worse at first and still be gone on from,
	warm      = 20.0  // at first where most jobs stood: a plan that is only to be mended,
	coolest   = 6.0   // and at the end
	quickMost = 15    // quick builds in a round
	quickFrom = 40    // jobs for each of them
)

// improve tears parts of a plan down and builds them up again (Schrimpf et al. 2000; Ropke and Pisinger 2006), as long
// as it may go on: so told after each round by how far it is, from 0 to 1. At first a plan that is so many minutes
// worse than the best is gone on from, too. The best plan found stays. It returns how many rounds that took.
func (s *search) improve(first float64, goOn func(rounds int, best float64) (done float64, more bool)) int {
	if s.inHalves() {
		return s.improveHalves(first, goOn)
	}
	return s.improveWhole(first, goOn)
}

// improveWhole does it with all days at once.
func (s *search) improveWhole(first float64, goOn func(rounds int, best float64) (done float64, more bool)) int {
	best := s.copy()
	for n := 0; ; n++ {
		done, more := goOn(n, best.sum)
		if !more {
			s.restore(best)
			return n
		}
		s.tryOut(&best, far, heatAt(first, done))
	}
}

// tryOut is a round: one thorough build and, the more jobs there are, several quick ones. What is worse than before
// stays only where it is by less than so much worse than the best, here or elsewhere.
func (s *search) tryOut(best *standing, elsewhere, heat float64) {
	for i := range s.builds() {
		s.tryOne(best, elsewhere, heat, i == 0)
	}
}

// builds is how many of them are one round.
func (s *search) builds() int { return 1 + min(quickMost, len(s.p.Jobs)/quickFrom) }

// tryOne is one build.
func (s *search) tryOne(best *standing, elsewhere, heat float64, thorough bool) {
	s.forgetSteps()
	s.effort += buildTakes
	now := s.sum
	if thorough {
		s.rebuild()
	} else {
		s.rebuildQuickly()
	}
	switch {
	case s.sum < best.sum-1e-6:
		*best = s.copy()
	case s.sum > now && s.sum >= min(elsewhere, best.sum)+heat*s.rng.Float64():
		s.back(0, now)
	}
}

// hottest is by how many minutes a plan may be worse at first and still be gone on from.
func (s *search) hottest() float64 {
	stood := 0
	for j := range s.p.Jobs {
		if s.p.Jobs[j].Was != nil || s.p.Jobs[j].Pin != nil {
			stood++
		}
	}
	if 2*stood > len(s.p.Jobs) {
		return warm
	}
	return hottest
}

// heatAt is by how many minutes a plan may be worse and still be gone on from: so many at first, by how far the search
// is, 0 to 1.
func heatAt(first, done float64) float64 { return first * math.Pow(coolest/first, done) }

// rebuild tears some down and builds it up with regret.
func (s *search) rebuild() {
	taken := s.ruin()
	q := &pool{s: s, jobs: append(taken, s.waiting(taken)...), wild: wildest * math.Pow(s.rng.Float64(), 3)}
	q.whole = s.rng.IntN(2) == 0
	if s.rng.IntN(eagerIn) == 0 {
		q.eager = eagerMost * s.rng.Float64()
	}
	q.fill()
	if q.eager > 0 {
		s.prune()
	}
	s.relinkSome(taken)
}

// prune takes off again what is not worth its way after all, on the ways that were just changed: whole visits, then
// single jobs with what comes after them.
func (s *search) prune() {
	drop := func(jobs []int) {
		mark, sum := len(s.log), s.sum
		s.take(nil, jobs...)
		if s.sum > sum-1e-9 {
			s.back(mark, sum)
		}
	}
	seen := map[int]bool{}
	for _, st := range slices.Clone(s.log) {
		if st.w < 0 || seen[st.w] {
			continue
		}
		seen[st.w] = true
		for i := len(s.list[st.w].stops) - 1; i >= 0; i-- {
			if i < len(s.list[st.w].stops) {
				drop(slices.Clone(s.list[st.w].stops[i].jobs))
			}
		}
		for _, stop := range slices.Clone(s.list[st.w].stops) {
			for _, j := range stop.jobs {
				if s.at[j] == st.w {
					drop([]int{j})
				}
			}
		}
	}
}

// standing is a plan as it can be gone back to.
type standing struct {
	list []way
	at   []int
	sum  float64
}

// copy shares the lists of jobs in stops: those are never changed, but made anew.
func (s *search) copy() standing {
	out := standing{slices.Clone(s.list), slices.Clone(s.at), s.sum}
	for i := range out.list {
		out.list[i].stops = slices.Clone(out.list[i].stops)
	}
	return out
}

func (s *search) restore(k standing) {
	s.list, s.at, s.sum = slices.Clone(k.list), slices.Clone(k.at), k.sum
	for i := range s.list {
		s.list[i].stops = slices.Clone(s.list[i].stops)
	}
}

// ruin takes some jobs off their ways, by one of several ideas of which belong together.
func (s *search) ruin() []int {
	placed := []int{}
	for j, w := range s.at {
		if w >= 0 && s.mine[j] {
			placed = append(placed, j)
		}
	}
	if len(placed) == 0 {
		return nil
	}
	many := 1 + s.rng.IntN(min(ruinMost, len(placed)))
	seed := placed[s.rng.IntN(len(placed))]
	switch s.rng.IntN(5) {
	case 0: // any
		taken := []int{}
		for range many {
			taken = s.take(taken, placed[s.rng.IntN(len(placed))])
		}
		return taken
	case 1: // a whole day of a crew
		return s.takeAll(s.list[s.at[seed]].stops)
	case 2: // all at one property, and at the nearest to it
		return s.takeNear(
			placed,
			seed,
			many,
			func(j int) float64 { return s.ways.place[s.p.Jobs[seed].Place][s.p.Jobs[j].Place] },
		)
	case 3: // near in place and time
		return s.takeNear(placed, seed, many, func(j int) float64 {
			days := math.Abs(float64(s.list[s.at[seed]].day - s.list[s.at[j]].day))
			return s.ways.place[s.p.Jobs[seed].Place][s.p.Jobs[j].Place] + 12*days + 8*s.rng.Float64()
		})
	}
	return s.takeNear(placed, seed, many, func(j int) float64 { // what costs most where it is
		return -s.here(j, s.at[j]) * (0.3 + s.rng.Float64())
	})
}

func (s *search) takeAll(stops []stop) []int {
	jobs := []int{}
	for _, st := range stops {
		jobs = append(jobs, st.jobs...)
	}
	return s.take(nil, jobs...)
}

// takeNear takes the first so many in an order.
func (s *search) takeNear(placed []int, seed, many int, by func(j int) float64) []int {
	if s.key == nil {
		s.key = make([]float64, len(s.at))
	}
	key := s.key
	for _, j := range placed {
		key[j] = by(j)
	}
	slices.SortFunc(placed, func(a, b int) int {
		switch {
		case key[a] < key[b]:
			return -1
		case key[a] > key[b]:
			return 1
		}
		return a - b
	})
	return s.take(s.take(nil, placed[:min(many, len(placed))]...), seed)
}

// waiting are some of those without a day, beside what was just taken.
func (s *search) waiting(taken []int) []int {
	out := s.unplaced(taken)
	s.rng.Shuffle(len(out), func(a, b int) { out[a], out[b] = out[b], out[a] })
	return out[:min(poolMost, len(out))]
}

// unplaced are those without a day that were not just taken.
func (s *search) unplaced(taken []int) (out []int) {
	for j, w := range s.at {
		if w < 0 && s.mine[j] && !s.round[j] && !slices.Contains(taken, j) {
			out = append(out, j)
		}
	}
	return out
}
