package rounds

import "math"

// tips reports that so much waste does not go on a crew's vehicle at once, and that there is where to take it.
func (s *search) tips(crew int, waste float64) bool {
	c := &s.p.Crews[crew]
	return c.Tip != nil && waste > c.LoadM3+1e-9
}

// aboard is what a vehicle has on it as the day passes.
type aboard struct{ m3 float64 }

// onward is the way on to a stop from the one before, minutes: over the tip, where its waste would not go on top.
func (s *search) onward(a *aboard, crew, from int, to *stop) (minutes float64, tipped bool) {
	if from < 0 || a.m3 == 0 || to.waste == 0 || !s.tips(crew, a.m3+to.waste) {
		return s.leg(crew, from, to.place), false
	}
	a.m3 = 0
	return s.ways.tip[crew][from] + s.p.Crews[crew].Tip.Minutes + s.ways.tip[crew][to.place], true
}

// away is how often a visit's own waste is taken to the tip, and what that takes, minutes; what is left stays aboard.
func (s *search) away(a *aboard, crew int, st *stop) (times int, minutes float64) {
	a.m3 += st.waste
	if !s.tips(crew, a.m3) {
		return 0, 0
	}
	c := &s.p.Crews[crew]
	times = int(math.Ceil((a.m3-c.LoadM3)/c.LoadM3 - 1e-9))
	a.m3 -= float64(times) * c.LoadM3
	return times, float64(times) * (2*s.ways.tip[crew][st.place] + c.Tip.Minutes)
}
