package rounds

// Restore is a plan again that was made of a problem: its visits, as they are kept, in the order of each day. What is
// left and what it scores are worked out anew. A visit to a place, by a crew or of a job that the problem does not
// know is left out. Its error is a list of refused fields.
func Restore(p *Problem, visits []Visit) (Plan, error) {
	if err := p.Validate(); err != nil {
		return Plan{}, err
	}
	s := newSearch(p.weathered(), 0)
	for _, v := range visits {
		if v.Crew < 0 || v.Crew >= len(p.Crews) || v.Day < 0 || v.Day >= p.Days {
			continue
		}
		w := v.Crew*p.Days + v.Day
		for _, j := range v.Jobs {
			if j < 0 || j >= len(p.Jobs) || s.at[j] >= 0 {
				continue
			}
			at := s.list[w].find(p.Jobs[j].Place)
			if at >= 0 {
				s.put(w, spot{at, false}, j)
			} else {
				s.put(w, spot{len(s.list[w].stops), true}, j)
			}
		}
	}
	s.forgetSteps()
	return s.plan(0), nil
}
