package damage

import (
	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
)

// Sight is what checks since a freeze hold alone about where the stem's life ends, beside what the freeze was expected
// to do.
type Sight struct {
	Found, Before []float64 // chances as belief.Chances: after the checks alone, and without any
	Ends          float64   // where life was found to end, as a share of the height
	Low, High     float64   // where the forecast had it end, four times in five
}

// Shown is what there is to compare the freeze of the forecast with, to learn how mild the spot is and what the kind
// bears. ok is false where the checks say nothing of that: no stem, no freeze, no check of it since, a cut since, or
// another cause that was found.
func Shown(q Question) (out Sight, ok bool) {
	o := q.Forecast
	if o == nil || !o.Event.Cold() || len(q.Checks) == 0 || len(q.Finds) > 0 ||
		q.Found.Given() && q.Found < o.Event.Day {
		return out, false
	}
	switch q.Plant.Species.Form {
	case catalogue.Tree, catalogue.Conifer, catalogue.Shrub, catalogue.Subshrub, catalogue.Climber:
	default:
		return out, false
	}
	for _, c := range q.Cuts {
		if c.Day >= o.Event.Day {
			return out, false
		}
	}
	before := belief.Forecast(o)
	out.Low, out.High = before.Interval()
	q.Forecast, q.Earlier, q.Blows = nil, nil, nil
	q = q.shortened()
	e := gather(q)
	if !e.stem || e.girdle.share > 0 || e.danger != "" && e.danger != "none" {
		return out, false
	}
	none := belief.Uninformed()
	out.Found, out.Before = e.belief.Belief.Chances(), none.Chances()
	out.Ends = e.belief.Quantile(0.5)
	return out, true
}
