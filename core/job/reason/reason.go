package reason

import (
	"mezzadro/core/day"
)

// Reason is one named part of what days cost, from a curve's first day.
type Reason struct {
	Name  string `json:"name"`
	Text  string `json:"text"`
	Costs Costs  `json:"costs"`
}

// Why is a reason before it is laid over days.
type Why struct {
	Name string
	Text string
	On   func(d day.Day) Cost
}

// Over lays the reason over a run of days. ok is false where it never costs anything.
func (w Why) Over(start day.Day, days int) (r Reason, ok bool) {
	r = Reason{w.Name, w.Text, make(Costs, days)}
	for i := range r.Costs {
		r.Costs[i] = w.On(start + day.Day(i))
		ok = ok || !r.Costs[i].Free()
	}
	return r, ok
}

// Frost is that frost may follow within the days that still matter to the work. chance gives it by day, 0 to 1; full
// is what a certain frost costs.
func Frost(text string, full float64, chance func(day.Day) float64) Why {
	return Why{"frost", text, func(d day.Day) Cost { return Points(full * chance(d)) }}
}

// Heat is that days are hotter than the work bears: points for each °C of the usual maximum above it.
func Heat(text string, fromC, each float64, tmax func(day.Day) float64) Why {
	return Why{"heat", text, func(d day.Day) Cost { return Points(each * (tmax(d) - fromC)) }}
}

// TooEarly is that the work tells or does nothing before a day: at once so many points, and more for each day before.
func TooEarly(text string, on day.Day, atOnce, each float64) Why {
	return Why{"too early", text, func(d day.Day) Cost {
		if d >= on {
			return Cost{}
		}
		return Points(atOnce + each*float64(on-d))
	}}
}

// PutOff is that waiting costs something from a day on.
func PutOff(name, text string, from day.Day, each float64) Why {
	return Why{name, text, func(d day.Day) Cost { return Days(each, d, from) }}
}

// Rising is a cost that falls evenly from full before one day to nothing on another.
func Rising(name, text string, full float64, from, to day.Day) Why {
	return Why{name, text, func(d day.Day) Cost { return Points(full * float64(to-d) / float64(to-from+1)) }}
}

// Until is one cost for each day before a day.
func Until(name, text string, first day.Day, cost Cost) Why {
	return Why{name, text, func(d day.Day) Cost {
		if d < first {
			return cost
		}
		return Cost{}
	}}
}

// Outside is what days cost before the first and after the last of a span: so much at once, and more for each day.
func Outside(before, after string, from, to day.Day, atOnce, each float64) []Why {
	return []Why{
		TooEarly(before, from, atOnce, each),
		{"too late", after, func(d day.Day) Cost {
			if d <= to {
				return Cost{}
			}
			return Points(atOnce + each*float64(d-to))
		}},
	}
}
