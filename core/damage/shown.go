package damage

import (
	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
)

// Shown is what the checks since the freeze of the forecast hold alone about where the stem's life ends, and what is held
// without any: what the freeze is compared with to learn how mild the spot is and what the kind bears. ok is false where they
// say nothing of that: no stem, no freeze, no check of it since, a cut since, or another cause that was found.
func Shown(q Question) (found, before []float64, ok bool) {
	o := q.Forecast
	if o == nil || !o.Event.Cold() || len(q.Checks) == 0 || len(q.Finds) > 0 || q.Found.Given() && q.Found < o.Event.Day {
		return nil, nil, false
	}
	switch q.Plant.Species.Form {
	case catalogue.Tree, catalogue.Conifer, catalogue.Shrub, catalogue.Subshrub, catalogue.Climber:
	default:
		return nil, nil, false
	}
	for _, c := range q.Cuts {
		if c.Day >= o.Event.Day {
			return nil, nil, false
		}
	}
	q.Forecast, q.Earlier, q.Blows = nil, nil, nil
	q = q.shortened()
	e := gather(q)
	if !e.stem || e.girdle.share > 0 || e.danger != "" && e.danger != "none" {
		return nil, nil, false
	}
	none := belief.Uninformed()
	return e.belief.Belief.Chances(), none.Chances(), true
}
