package rounds

import "math"

// tips reports that so much waste does not go on a crew's vehicle at once, and that there is where to take it.
func (s *search) tips(crew int, waste float64) bool {
	c := &s.p.Crews[crew]
	return c.Tip != nil && waste > c.LoadM3+1e-9
}

// aboard is what a vehicle has on it as the day passes.
type aboard struct{ m3 float64 }

// drive is a way in minutes on a free road: to, then so long at the tip, then on. Most have no tip on them.
type drive struct {
	to, stands, on float64
	tipped         bool
}

// takes is how long a drive takes that is set out on at a minute: what it stands at the tip is not slowed.
func (v drive) takes(rush []Traffic, at float64) float64 {
	if len(rush) == 0 {
		return v.to + v.stands + v.on
	}
	took := driven(rush, at, v.to)
	if v.tipped {
		took += v.stands
		took += driven(rush, at+took, v.on)
	}
	return took
}

// onward is the way on to a stop from the one before: over the tip, where its waste would not go on top.
func (s *search) onward(a *aboard, crew, from int, to *stop) drive {
	if from < 0 || a.m3 == 0 || to.waste == 0 || !s.tips(crew, a.m3+to.waste) {
		return drive{to: s.leg(crew, from, to.place)}
	}
	a.m3 = 0
	return drive{s.ways.tip[crew][from], s.p.Crews[crew].Tip.Minutes, s.ways.tip[crew][to.place], true}
}

// away is how often a visit's own waste is taken to the tip; what is left stays aboard.
func (s *search) away(a *aboard, crew int, st *stop) (times int) {
	a.m3 += st.waste
	if !s.tips(crew, a.m3) {
		return 0
	}
	c := &s.p.Crews[crew]
	times = int(math.Ceil((a.m3-c.LoadM3)/c.LoadM3 - 1e-9))
	a.m3 -= float64(times) * c.LoadM3
	return times
}

// goesAway is how long a crew is on the way that goes so often to the tip and back, from a minute on.
func (s *search) goesAway(w *way, times, place int, at float64) (took float64) {
	if times == 0 {
		return 0
	}
	there := s.ways.tip[w.crew][place]
	trip := drive{there, s.p.Crews[w.crew].Tip.Minutes, there, true}
	for range times {
		took += trip.takes(s.rush[w.day], at+took)
	}
	return took
}
