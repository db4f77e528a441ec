package rounds

import "math"

// boundDays is up to how many working days all sets of days on which a property may be come to are gone through.
const boundDays = 14

// bound is what no plan can cost less than. Each property is taken by itself, as if crews were never full: of all sets
// of days on which it may be come to, the one that costs least, each job on its best of those days or left, and for
// each such day an arrival with half the two shortest ways that lead there (each place on a way has two of its legs,
// and each leg two ends).
func (s *search) bound() float64 {
	byPlace := make([][]int, len(s.p.Places))
	for j := range s.p.Jobs {
		byPlace[s.p.Jobs[j].Place] = append(byPlace[s.p.Jobs[j].Place], j)
	}
	sum := 0.0
	for place, jobs := range byPlace {
		if len(jobs) > 0 {
			come := visitCost + arriveWeight*s.p.Places[place].Arrive + s.shortest(place)
			sum += s.placeBound(jobs, come)
		}
	}
	return sum
}

// placeBound is what the jobs of a property cost at least, with so much for each day on which it is come to.
func (s *search) placeBound(jobs []int, come float64) float64 {
	days := [][]float64{} // for each day that serves some job: what each job costs on it
	left := make([]float64, len(jobs))
	best := make([]float64, len(jobs))
	for i, j := range jobs {
		left[i] = s.leave(j)
		best[i] = left[i]
	}
	for d := range s.p.Days {
		row, serves := make([]float64, len(jobs)), false
		for i, j := range jobs {
			row[i] = s.leastOn(j, d)
			if row[i] < left[i] {
				serves = true
				best[i] = math.Min(best[i], row[i])
			}
		}
		if serves {
			days = append(days, row)
		}
	}
	none, all := 0.0, come
	for i := range jobs {
		none += left[i]
		all += best[i]
	}
	if len(days) > boundDays {
		return math.Min(none, all)
	}
	least := none
	var walk func(d int, now []float64, sum float64, visits int)
	walk = func(d int, now []float64, sum float64, visits int) {
		least = math.Min(least, sum+float64(visits)*come)
		if d == len(days) || float64(visits+1)*come+all-come >= least {
			return // one visit more cannot pay, even with each job on its best day
		}
		walk(d+1, now, sum, visits)
		next, total := make([]float64, len(now)), 0.0
		for i, v := range now {
			next[i] = math.Min(v, days[d][i])
			total += next[i]
		}
		if total < sum {
			walk(d+1, next, total, visits+1)
		}
	}
	walk(0, left, none, 0)
	return least
}

// leastOn is the least that a job costs on a day with any crew that can do it.
func (s *search) leastOn(j, d int) float64 {
	least := math.Inf(1)
	for c := range s.p.Crews {
		if w := c*s.p.Days + d; s.mayEver(j, w) {
			least = math.Min(least, s.here(j, w))
		}
	}
	return least
}

// mayEver reports that a job may be on a way, whatever stands elsewhere.
func (s *search) mayEver(j, w int) bool {
	k, way := &s.p.Jobs[j], &s.list[w]
	return s.minutes[j][way.crew] > 0 && k.cost(way.day) < Forbidden && !way.hours.empty() && !s.round[j] &&
		!s.open[way.day][k.Place].empty() && (k.Pin == nil || k.Pin.Crew == way.crew && k.Pin.Day == way.day)
}

// shortest is half the two shortest ways that lead to a place, each end of a day counted as one.
func (s *search) shortest(i int) float64 {
	a, b := math.Inf(1), math.Inf(1)
	see := func(v float64) {
		if v < a {
			a, b = v, a
		} else if v < b {
			b = v
		}
	}
	for k := range s.p.Places {
		if k != i {
			see(s.ways.place[i][k])
		}
	}
	for c := range s.p.Crews {
		see(s.ways.start[c][i])
		see(s.ways.start[c][i]) // it may be the only visit of a day: there and back
	}
	if math.IsInf(b, 1) {
		return 0
	}
	return (a + b) / 2
}
