package rounds

import (
	"math"
	"slices"
)

// Joined is two crews who come together to a job for which each alone is too few.
type Joined struct {
	Crews   [2]int
	Day     int
	At      int     // when both are there, minutes after midnight
	Minutes float64 // of work, for all of them together
}

// Joins are the jobs that need more people than any crew has that may do them, with the two crews and the morning that
// suit them best: both come as the first thing in their day, so that neither waits for the other. What makes safe chooses
// first. By index of the job.
func (p *Problem) Joins() map[int]Joined {
	out := map[int]Joined{}
	taken := map[[2]int]bool{} // crew and day
	q := p.weathered()
	order := make([]int, len(q.Jobs))
	for j := range order {
		order[j] = j
	}
	slices.SortStableFunc(order, func(a, b int) int { // what makes safe has the first morning
		switch {
		case q.Jobs[a].Urgent == q.Jobs[b].Urgent:
			return 0
		case q.Jobs[a].Urgent:
			return -1
		}
		return 1
	})
	for _, j := range order {
		k := &q.Jobs[j]
		if k.Pin != nil || q.able(j) {
			continue
		}
		best, least := Joined{}, math.Inf(1)
		for a := range q.Crews {
			for b := a + 1; b < len(q.Crews); b++ {
				if !q.together(k, a, b) {
					continue
				}
				for d := range q.Days {
					at, cost, can := q.morning(k, a, b, d)
					if can && cost < least && !taken[[2]int{a, d}] && !taken[[2]int{b, d}] {
						least, best = cost, Joined{[2]int{a, b}, d, at, q.shared(k, a, b)}
					}
				}
			}
		}
		if !math.IsInf(least, 1) {
			out[j] = best
			taken[[2]int{best.Crews[0], best.Day}], taken[[2]int{best.Crews[1], best.Day}] = true, true
		}
	}
	return out
}

// able reports a job that some crew can do by itself.
func (p *Problem) able(j int) bool {
	for c := range p.Crews {
		if p.lacks(j, c) == "" {
			return true
		}
	}
	return false
}

// together reports two crews who are enough for a job, one of which has all of its skills: who climbs with a chainsaw is one
// person, not two.
func (p *Problem) together(k *Job, a, b int) bool {
	if p.Crews[a].Size+p.Crews[b].Size < k.people() {
		return false
	}
	return p.Crews[a].has(k.Skills) || p.Crews[b].has(k.Skills)
}

// has reports a crew that has all of some skills.
func (c *Crew) has(skills []string) bool {
	return !slices.ContainsFunc(skills, func(s string) bool { return !slices.Contains(c.Skills, s) })
}

// shared is how long a job takes two crews.
func (p *Problem) shared(k *Job, a, b int) float64 {
	return math.Ceil(k.Minutes * float64(k.people()) / float64(p.Crews[a].Size+p.Crews[b].Size))
}

// morning is when two crews can both be at a job first thing in a day, and what the day costs for it.
func (p *Problem) morning(k *Job, a, b, d int) (at int, cost float64, can bool) {
	q, open := &p.Places[k.Place], p.open(k.Place, d)
	if k.cost(d) >= Forbidden || open.empty() {
		return 0, 0, false
	}
	from, to, way := float64(open.From), float64(open.To), 0.0
	for _, c := range []int{a, b} {
		h, crew := p.at(c, d), &p.Crews[c]
		if h.empty() {
			return 0, 0, false
		}
		leg := 0.0
		if crew.Start != nil && q.At != nil {
			leg = Minutes(*crew.Start, *q.At)
		}
		from = math.Max(from, float64(h.From+crew.Load)+leg)
		to = math.Min(to, float64(h.To)-leg-crew.Break.Within(h))
		way += leg
	}
	from = math.Ceil(from)
	if from+q.Arrive+p.shared(k, a, b) > to {
		return 0, 0, false
	}
	return int(from), float64(k.cost(d))*k.weight() + soonEach*float64(d) + way, true
}
