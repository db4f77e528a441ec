package rounds

import "math"

// How far work and ways differ from what is reckoned, as standard deviations: shares of themselves. A crew's day as a
// whole goes well or badly, too. Estimates, until a firm's own record says better.
const (
	usualSpread = 0.2  // of a job that says nothing else
	waySpread   = 0.15 // of a way
	daySpread   = 0.1  // of all work of a day together
)

// Late is the chance that a crew's day goes on past its hours.
type Late struct {
	Crew   int     `json:"crew" doc:"Index"`
	Day    int     `json:"day" doc:"Days from the first of the span"`
	End    int     `json:"end" doc:"When they are home as planned, minutes after midnight"`
	Chance float64 `json:"chance" doc:"That it goes on past their hours, 0 to 1: an estimate"`
}

// late is that chance for each day that has visits.
func (s *search) late() []Late {
	out := []Late{}
	for i := range s.list {
		w := &s.list[i]
		if len(w.stops) == 0 {
			continue
		}
		t := s.simulate(w, w.stops, false)
		out = append(out, Late{w.crew, w.day, int(math.Round(t.end)), s.chanceLate(w, t)})
	}
	return out
}

// chanceLate is the chance that a timed way goes on past its hours.
func (s *search) chanceLate(w *way, t timed) float64 {
	sd := s.unsure(w, t)
	if sd < 1e-9 {
		return 0
	}
	return math.Round(100*(0.5*math.Erfc((float64(w.hours.To)-t.end)/(sd*math.Sqrt2)))) / 100
}

// unsure is how far the end of a timed way may differ from what is reckoned, a standard deviation in minutes: jobs and ways
// are taken as independent of each other but for what the day as a whole brings, and their sum as normal.
func (s *search) unsure(w *way, t timed) float64 {
	square, work := 0.0, 0.0
	for i := range w.stops {
		for _, j := range w.stops[i].jobs {
			m := s.minutes[j][w.crew]
			square += math.Pow(m*s.p.Jobs[j].spread(), 2)
			work += m
		}
	}
	return math.Sqrt(square + math.Pow(waySpread*t.travel, 2) + math.Pow(daySpread*work, 2))
}

// spread is how far a job's minutes differ from what is reckoned, as a share of them.
func (j *Job) spread() float64 {
	if j.Spread > 0 {
		return j.Spread
	}
	return usualSpread
}
