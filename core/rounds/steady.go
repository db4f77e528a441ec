package rounds

import (
	"math"
	"math/rand/v2"
)

// How a plan is made that holds: found as reckoned first, then with days cut so short that what is unsure still fits.
const (
	plainShare = 0.5  // of the search, before days are cut
	overFirmly = 6.0  // each minute beyond hours that were cut
	leastCut   = 0.07 // of a day's hours in work: how unsure it is at least taken for
	cutTwice   = 2    // cuts, the second by what then stands on the days
)

// find finds a plan, and one that holds where that is asked for; it returns how often parts were torn down and built
// up.
func (s *search) find(seed uint64, goOn func(int, float64) (float64, bool)) (int, *Drawn) {
	if s.p.Sure == 0 && s.p.Fortnights == 0 {
		return s.improve(s.hottest(), goOn), nil
	}
	share := 1.0
	if s.p.Sure > 0 {
		share = plainShare
	}
	n := s.improve(s.hottest(), during(goOn, 0, 0, share))
	plans, kinds := []standing{s.copy()}, []string{"as reckoned"}
	if s.p.Sure > 0 {
		sure := []float64{s.p.Sure, (1 + s.p.Sure) / 2}
		for i, q := range sure {
			from := share + (1-share)*float64(i)/float64(len(sure))
			n += s.steady(q, during(goOn, n, from, from+(1-share)/float64(len(sure))))
			plans, kinds = append(plans, s.copy()), append(kinds, []string{"with room", "with more room"}[i])
		}
	}
	return n, s.choose(seed, plans, kinds)
}

// during is a part of a search, that begins after so many rounds, from one share of its time to another.
func during(goOn func(int, float64) (float64, bool), after int, from, to float64) func(int, float64) (float64, bool) {
	return func(n int, best float64) (float64, bool) {
		done, more := goOn(after+n, best)
		if done >= to-1e-9 && to < 1 {
			return 1, false
		}
		return math.Max(0, (done-from)/(to-from)), more
	}
}

// steady goes on from a plan with days cut so short that each ends within its hours with so much chance, and returns
// the rounds it took. The hours are as they were after it.
func (s *search) steady(sure float64, goOn func(int, float64) (float64, bool)) int {
	hours, n := s.hours(), 0
	for i := range cutTwice {
		s.cutAll(hours, sure)
		from, to := float64(i)/cutTwice, float64(i+1)/cutTwice
		n += s.improve(warm, during(goOn, n, from, to))
	}
	s.uncut(hours)
	return n
}

// cutAll makes all days so much shorter than their hours as what stands on them is unsure.
func (s *search) cutAll(hours []Span, sure float64) {
	s.overEach = overFirmly
	for w := range s.list {
		s.cut(w, hours[w], sure)
	}
	s.sumUp()
}

// uncut gives days their hours back.
func (s *search) uncut(hours []Span) {
	s.overEach = overEach
	for w := range s.list {
		s.list[w].hours = hours[w]
	}
	s.sumUp()
}

// held has a plan be looked at as it was found, with days that are cut, and returns what puts it back.
func (s *search) held() (back func()) {
	if s.p.Sure == 0 {
		return func() {}
	}
	kept, hours := s.copy(), s.hours()
	s.cutAll(hours, s.p.Sure)
	return func() {
		s.restore(kept)
		s.uncut(hours)
	}
}

// hours are those of all crews and days.
func (s *search) hours() []Span {
	out := make([]Span, len(s.list))
	for w := range s.list {
		out[w] = s.list[w].hours
	}
	return out
}

// cut makes a crew's day so much shorter than its hours as what stands on it, or would fill it, is unsure.
func (s *search) cut(w int, hours Span, sure float64) {
	way := &s.list[w]
	if hours.empty() {
		return
	}
	way.hours = hours
	sd := math.Max(s.unsure(way, s.simulate(way, way.stops, false)), leastCut*float64(hours.To-hours.From))
	way.hours.To = max(hours.From+1, hours.To-int(math.Ceil(math.Sqrt2*math.Erfinv(2*sure-1)*sd)))
}

// sumUp works all ways and the sum out anew.
func (s *search) sumUp() {
	s.sum = 0
	for w := range s.list {
		s.reckon(&s.list[w])
		s.sum += s.list[w].cost
	}
	for d := range s.p.Days {
		for w := d; w < len(s.list); w += s.p.Days {
			if !s.list[w].hours.empty() {
				s.sum += s.fairNow(w)
				break
			}
		}
	}
	for j, w := range s.at {
		if w < 0 {
			s.sum += s.waits[j]
		} else {
			s.sum += s.here(j, w)
		}
	}
}

// Drawn is how plans fare over drawn spans of days: it rains where none was told, and work and ways take as long as
// they take. An estimate.
type Drawn struct {
	Times  int    `json:"times" doc:"How many spans were drawn"`
	Chosen string `json:"chosen" doc:"Which of the plans: as reckoned, with room, with more room"`
	Fares  []Fare `json:"fares" doc:"Of each plan that was compared, the one that was made first"`
}

// Fare is how one plan fares in the mean of drawn spans.
type Fare struct {
	Plan   string  `json:"plan" doc:"Which: as reckoned, with room, with more room"`
	Cost   float64 `json:"cost" doc:"As it comes, in the score's minutes"`
	Late   float64 `json:"late" doc:"Share of days with visits that go on past the crew's hours"`
	Rained float64 `json:"rained" doc:"Jobs that rain puts off"`
	Left   float64 `json:"left" doc:"Jobs without a day at the end"`
}

// Of is how the plan fares that was chosen.
func (d *Drawn) Of() Fare {
	for _, f := range d.Fares {
		if f.Plan == d.Chosen {
			return f
		}
	}
	return Fare{}
}

// choose leaves the search with the plan that fares best over the drawn spans: of those whose days hold as asked for,
// the one that costs least as it comes; where none holds, the one that holds best.
func (s *search) choose(seed uint64, plans []standing, kinds []string) *Drawn {
	out := &Drawn{Times: s.times(len(plans))}
	best := len(plans) - 1
	if s.p.Fortnights > 0 {
		for i, k := range plans {
			out.Fares = append(out.Fares, s.fares(seed, k, kinds[i], out.Times))
		}
		best = 0
		for i, f := range out.Fares {
			if s.better(f, out.Fares[best]) {
				best = i
			}
		}
	} else {
		best = min(1, best)
	}
	s.restore(plans[best])
	s.sumUp()
	out.Chosen = kinds[best]
	return out
}

// drawnMost is how many jobs, times crews' days, times spans are gone through at most: some seconds.
const drawnMost = 20_000_000

// times is how many spans are drawn for so many plans: as many as asked for, fewer where there is very much to plan.
func (s *search) times(plans int) int {
	if s.p.Fortnights == 0 {
		return 0
	}
	return max(1, min(s.p.Fortnights, drawnMost/max(1, plans*len(s.p.Jobs)*len(s.list))))
}

// better reports that a plan fares better than another.
func (s *search) better(a, b Fare) bool {
	if s.p.Sure > 0 {
		most := 1 - s.p.Sure
		if (a.Late <= most) != (b.Late <= most) {
			return a.Late <= most
		}
		if a.Late > most {
			return a.Late < b.Late
		}
	}
	return a.Cost < b.Cost
}

// fares draws the spans, the same for each plan, and lives through them.
func (s *search) fares(seed uint64, plan standing, kind string, times int) Fare {
	rng, out := rand.New(rand.NewPCG(seed, 41)), Fare{Plan: kind}
	n, days := float64(times), 0.0
	for range times {
		s.restore(plan)
		f := s.live(s.draw(rng))
		out.Cost += f.cost / n
		out.Rained += f.rained / n
		out.Left += f.left / n
		out.Late += f.late
		days += f.days
	}
	out.Late /= math.Max(1, days)
	out.Cost, out.Late = math.Round(10*out.Cost)/10, math.Round(1000*out.Late)/1000
	out.Rained, out.Left = math.Round(10*out.Rained)/10, math.Round(10*out.Left)/10
	return out
}
