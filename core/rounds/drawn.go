package rounds

import (
	"math"
	"math/rand/v2"
)

// How the weather comes in a drawn span.
const (
	dryMiss  = 0.03 // chance that a day told dry is wet all the same, tomorrow,
	dryGrows = 0.02 // and for each day farther off
	dryMost  = 0.3
	wetFails = 0.2 // chance that a day told wet stays dry
	lasting  = 0.5 // how much of a day's weather the next one keeps
	phoned   = movedEach
)

// drawn is a span of days as it comes.
type drawn struct {
	wet  []float64 // by day: below the chance of rain it rains, everywhere in the region
	fall []float64 // by day: how much, as a multiple of what is usual on a wet day
	work []float64 // by job: how many times as long it takes
	day  []float64 // by crew and day: the same of all its work
	way  []float64 // by crew and day: of its ways
}

// lognormal draws about 1, with a standard deviation as a share of it.
func lognormal(rng *rand.Rand, spread float64) float64 {
	v := math.Log(1 + spread*spread)
	return math.Exp(math.Sqrt(v)*rng.NormFloat64() - v/2)
}

func (s *search) draw(rng *rand.Rand) (out drawn) {
	z := rng.NormFloat64()
	for range s.p.Days {
		out.wet = append(out.wet, 0.5*math.Erfc(-z/math.Sqrt2))
		out.fall = append(out.fall, rng.ExpFloat64())
		z = lasting*z + math.Sqrt(1-lasting*lasting)*rng.NormFloat64()
	}
	for j := range s.p.Jobs {
		out.work = append(out.work, lognormal(rng, s.p.Jobs[j].spread()))
	}
	for range s.list {
		out.day, out.way = append(out.day, lognormal(rng, daySpread)), append(out.way, lognormal(rng, waySpread))
	}
	return out
}

// rain is what falls at a place on a day, mm.
func (d *drawn) rain(sky *Sky, on int) float64 {
	if sky == nil {
		return 0
	}
	chance, usual := sky.Chance, wetFall
	switch {
	case sky.Told && sky.RainMM >= 1:
		chance, usual = 1-wetFails, sky.RainMM
	case sky.Told:
		chance = math.Min(dryMost, dryMiss+dryGrows*float64(on))
	}
	if d.wet[on] >= chance {
		return 0
	}
	return usual * d.fall[on]
}

// lived is how a span went.
type lived struct{ cost, late, days, rained, left float64 }

// live goes through a drawn span day by day: what rain puts off finds the best day that is left for it, or waits; what
// bears rain and has no day takes its hours. Nobody knows the next day's weather better than was told.
func (s *search) live(d drawn) (out lived) {
	skies := s.skies()
	for on := range s.p.Days {
		off := []int{}
		for c := range s.p.Crews {
			for _, st := range s.list[c*s.p.Days+on].stops {
				for _, j := range st.jobs {
					l := limitsOf[s.p.Jobs[j].Work]
					if s.p.Jobs[j].Work != Any && d.rain(skies[s.p.Jobs[j].Place][on], on) >= l.rain {
						off = append(off, j)
					}
				}
			}
		}
		if len(off) == 0 {
			continue
		}
		out.rained += float64(len(off))
		for _, j := range s.take(nil, off...) {
			if s.putFrom(j, on+1, s.p.Days) {
				out.cost += phoned
			}
		}
		for j := range s.at {
			if s.at[j] < 0 && !s.round[j] && s.p.Jobs[j].Work == Any {
				s.putFrom(j, on, on+1)
			}
		}
	}
	s.forgetSteps()
	out.cost += s.sum
	for _, w := range s.at {
		if w < 0 {
			out.left++
		}
	}
	for w := range s.list {
		if len(s.list[w].stops) > 0 {
			out.days++
			if over, more := s.runsOver(w, &d); over {
				out.late++
				out.cost += more
			}
		}
	}
	return out
}

// skies are the weather of each place by day; nil where nothing is known.
func (s *search) skies() [][]*Sky {
	common, out := s.p.byDay(s.p.Sky), make([][]*Sky, len(s.p.Places))
	for i, q := range s.p.Places {
		if out[i] = common; len(q.Sky) > 0 {
			out[i] = s.p.byDay(q.Sky)
		}
	}
	return out
}

// putFrom puts a job on the day of a stretch where it costs least, if that is better than to leave it.
func (s *search) putFrom(j, from, to int) bool {
	least, on, at := s.waits[j], -1, spot{}
	for c := range s.p.Crews {
		for d := from; d < to; d++ {
			w := c*s.p.Days + d
			if s.there(j, w) >= least {
				continue
			}
			if v, how := s.try(j, w); v < least {
				least, on, at = v, w, how
			}
		}
	}
	if on >= 0 {
		s.put(on, at, j)
	}
	return on >= 0
}

// runsOver reports that a crew's day goes on past its hours as it comes, and what that costs more than was reckoned.
func (s *search) runsOver(w int, d *drawn) (bool, float64) {
	way := &s.list[w]
	t := s.simulate(way, way.stops, false)
	end := t.end + t.travel*(d.way[w]-1)
	for _, st := range way.stops {
		for _, j := range st.jobs {
			end += s.minutes[j][way.crew] * (d.work[j]*d.day[w] - 1)
		}
	}
	over := math.Max(0, end-float64(way.hours.To))
	return over > 0, overEach * (over - t.over)
}
