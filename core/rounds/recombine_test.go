package rounds

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

// takenWay is a crew's day of some plan: what it costs with its jobs' days, how even days are left out.
type takenWay struct {
	w    int
	cost float64
	jobs []int
}

// collected are good ways of several searches: those of each plan that was gone on from in the second half of a search.
type collected struct {
	s     *search
	ways  []takenWay
	known map[string]int
	best  float64 // the cheapest plan, how even its days are left out
}

func collect(p *Problem, searches, rounds int) *collected {
	p = p.weathered()
	c := &collected{s: newSearch(p, 0), known: map[string]int{}, best: math.Inf(1)}
	for seed := range searches {
		s := newSearch(p, uint64(seed+1))
		s.build()
		s.improve(s.hottest(), func(n int, _ float64) (float64, bool) {
			if 2*n > rounds {
				c.take(s)
			}
			return float64(n) / float64(rounds), n < rounds
		})
		c.take(s)
	}
	return c
}

func (c *collected) take(s *search) {
	sum := 0.0
	for w := range s.list {
		t := takenWay{w: w, cost: s.list[w].cost}
		for _, st := range s.list[w].stops {
			for _, j := range st.jobs {
				t.jobs, t.cost = append(t.jobs, j), t.cost+s.here(j, w)
			}
		}
		sum += t.cost
		slices.Sort(t.jobs)
		if len(t.jobs) == 0 {
			continue
		}
		key := fmt.Sprint(w, t.jobs)
		if i, known := c.known[key]; !known {
			c.known[key] = len(c.ways)
			c.ways = append(c.ways, t)
		} else if t.cost < c.ways[i].cost {
			c.ways[i] = t // the same jobs in a better order
		}
	}
	for j, w := range s.at {
		if w < 0 {
			sum += s.leave(j)
		}
	}
	c.best = min(c.best, sum)
}

// floor is what no plan costs less than that is put together of the ways, one of each crew's day at most, each job on
// one at least or left: half of it, one third of another and so on are let in, and gaps are not looked at. Jobs' prices
// are found by a primal-dual hybrid gradient (Chambolle and Pock 2011); any prices give such a floor, and the best that
// is come by is told.
func (c *collected) floor(steps int) float64 {
	const scale = 30 // minutes of a price for one whole way
	s := c.s
	price, left, rent := make([]float64, len(s.at)), make([]float64, len(s.at)), make([]float64, len(s.list))
	part, inWays, ofDay := make([]float64, len(c.ways)), make([]float64, len(s.at)), make([]float64, len(s.list))
	for _, t := range c.ways {
		ofDay[t.w]++
		for _, j := range t.jobs {
			inWays[j]++
		}
	}
	mean, best := make([]float64, len(price)), 0.0
	for n := range steps {
		done, day := make([]float64, len(s.at)), make([]float64, len(s.list))
		for i, t := range c.ways {
			was := part[i]
			part[i] = max(0, was-(t.above(price)+rent[t.w])/(scale*float64(1+len(t.jobs))))
			day[t.w] += 2*part[i] - was
			for _, j := range t.jobs {
				done[j] += 2*part[i] - was
			}
		}
		for j := range price {
			was := left[j]
			left[j] = max(0, was-(s.leave(j)-price[j])/scale)
			price[j] = max(0, price[j]+scale*(1-done[j]-2*left[j]+was)/(1+inWays[j]))
			mean[j] += (price[j] - mean[j]) / float64(n%500+1)
		}
		for w := range rent {
			rent[w] = max(0, rent[w]+scale*(day[w]-1)/(1+ofDay[w]))
		}
		if n%100 == 99 {
			best = max(best, c.weigh(price), c.weigh(mean))
		}
	}
	return best
}

// above is what a way costs above what its jobs' prices give.
func (t takenWay) above(price []float64) float64 {
	c := t.cost
	for _, j := range t.jobs {
		c -= price[j]
	}
	return c
}

func (c *collected) weigh(price []float64) (sum float64) {
	capped, least := slices.Clone(price), make([]float64, len(c.s.list))
	for j := range capped {
		capped[j] = min(capped[j], c.s.leave(j))
		sum += capped[j]
	}
	for _, t := range c.ways {
		least[t.w] = min(least[t.w], t.above(capped))
	}
	for _, v := range least {
		sum += v
	}
	return sum
}

// TestRecombinedFloor: over 40 small cases the floor of ways put together anew is never above the best of the plans
// they come from; where one plan is good on one day and another on the other, it sees what both together cost.
func TestRecombinedFloor(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 15))
	for n := range 40 {
		c := collect(random(r, 10+r.IntN(20), 2+r.IntN(4), 1+r.IntN(2), 3+r.IntN(3)), 2, 20)
		if floor := c.floor(1000); floor > c.best+1e-6 || floor < 0.5*c.best {
			t.Errorf("case %d: floor %.1f, best of the plans %.1f", n, floor, c.best)
		}
	}
	p := &Problem{From: monday, Days: 2}
	p.Crews = []Crew{{Name: "Crew", Size: 1, Hours: week(8, 16), Start: &Point{45.9, 8.6}}}
	p.Places = []Place{{Name: "Garden", At: &Point{45.95, 8.7}}}
	p.Jobs = []Job{{Minutes: 20, Costs: []int{0, 90}, Later: 95}, {Minutes: 20, Costs: []int{90, 0}, Later: 95}}
	c := &collected{s: newSearch(p, 0), known: map[string]int{}, best: math.Inf(1)}
	for w := range 2 {
		c.ways = append(c.ways, takenWay{w: w, cost: 80, jobs: []int{w}}, takenWay{w: w, cost: 120, jobs: []int{w}})
	}
	if floor := c.floor(3000); math.Abs(floor-160) > 1 {
		t.Errorf("two ways of 80, of two plans that cost 200 each: floor %.1f, want 160", floor)
	}
}

// BenchmarkRecombined collects the good ways of six searches of some made-up firms, and says by how much at most a plan
// put together of them anew could be cheaper than the best of the six, in per cent: what recombining would be for.
func BenchmarkRecombined(b *testing.B) {
	for _, f := range []struct {
		jobs, rounds int
		p            *Problem
	}{
		{1500, 500, firm(3, 200, 1500, 3, 14)},
		{800, 800, firm(5, 120, 800, 2, 14)},
		{400, 2000, firm(7, 60, 400, 2, 10)},
	} {
		b.Run(fmt.Sprint(f.jobs), func(b *testing.B) {
			var c *collected
			floor := 0.0
			for b.Loop() {
				c = collect(f.p, 6, f.rounds)
				floor = c.floor(8000)
			}
			b.ReportMetric(100*(1-floor/c.best), "%most")
			b.ReportMetric(float64(len(c.ways)), "ways")
			b.ReportMetric(c.best, "best")
		})
	}
}
