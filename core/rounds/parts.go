package rounds

import "math"

// fullPart is how much of a day's room the part of a job may fill, so that the day runs over in one case of five, as far as
// work differs from what is reckoned.
const fullPart = 0.85

// Parts are the minutes of a job on each of the days running that it takes, where no day of any crew that can do it
// holds it whole: as few days as can be, shared out evenly. Nil where one day holds it, or nobody is able.
func (p *Problem) Parts(j int) (out []float64) {
	k := &p.Jobs[j]
	for c := range p.Crews {
		if p.lacks(j, c) != "" {
			continue
		}
		room := math.Floor(p.roomFor(j, c) * k.Minutes / p.takes(j, c))
		if room >= k.Minutes {
			return nil
		}
		if room < 2 {
			continue
		}
		room = math.Floor(fullPart * room)
		parts := make([]float64, int(math.Ceil(k.Minutes/room)))
		for i := range parts {
			parts[i] = k.Minutes / float64(len(parts))
		}
		if out == nil || len(parts) < len(out) {
			out = parts
		}
	}
	return out
}

// roomFor is how many minutes a crew can work at a job's place on the longest day that is allowed for the job.
func (p *Problem) roomFor(j, c int) (most float64) {
	k, crew := &p.Jobs[j], &p.Crews[c]
	q, way := &p.Places[k.Place], 0.0
	if crew.Start != nil && q.At != nil {
		way = Minutes(*crew.Start, *q.At)
	}
	for d := range p.Days {
		h, open := p.at(c, d), p.open(k.Place, d)
		if k.cost(d) >= Forbidden || h.empty() || open.empty() {
			continue
		}
		from := math.Max(float64(h.From+crew.Load)+way, float64(open.From))
		to := math.Min(float64(h.To)-way, float64(open.To))
		most = math.Max(most, to-from-q.Arrive-crew.Break.Within(h))
	}
	return most
}
