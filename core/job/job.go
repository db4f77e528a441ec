// Package job is the one currency between those who ask for work and those who plan it: a job with a cost for each
// day. 0 is the best day, 100 the worst that is allowed, Never a day on which it must not be done. A curve is the sum
// of named reasons, so that any day can say why it is good or bad; windows are runs of days at or under a limit.
package job

import "mezzadro/core/day"

// Cost is what doing the job on a day costs: 0 to 100, or Never.
type Cost int

const (
	// Worst is the highest cost of an allowed day.
	Worst Cost = 100
	// Never marks a forbidden day.
	Never Cost = 101
	// Acceptable is the cost up to which a day counts as part of a window.
	Acceptable Cost = 30
)

// Reason is one named part of a curve: why days cost what they cost. Costs runs from the curve's start.
type Reason struct {
	Name  string `json:"name"`
	Text  string `json:"text"`
	Costs []Cost `json:"costs"`
}

// Curve is the cost of a job by day.
type Curve struct {
	Start   day.Day  `json:"start"`
	Days    int      `json:"days"`
	Reasons []Reason `json:"reasons"`
}

// Because adds a reason whose cost on each day is given by a function. Reasons that never cost anything are left out.
func (c *Curve) Because(name, text string, cost func(d day.Day) Cost) {
	costs, any := make([]Cost, c.Days), false
	for i := range costs {
		v := cost(c.Start + day.Day(i))
		if v < 0 {
			v = 0
		} else if v > Worst && v != Never {
			v = Worst
		}
		costs[i] = v
		any = any || v > 0
	}
	if any {
		c.Reasons = append(c.Reasons, Reason{name, text, costs})
	}
}

// On is the cost of d: the reasons added up, at most Worst; Never where one forbids it or outside the curve.
func (c Curve) On(d day.Day) Cost {
	i := int(d - c.Start)
	if i < 0 || i >= c.Days {
		return Never
	}
	sum := Cost(0)
	for _, r := range c.Reasons {
		if r.Costs[i] == Never {
			return Never
		}
		sum += r.Costs[i]
	}
	return min(sum, Worst)
}

// Part is what one reason adds on one day.
type Part struct {
	Name string `json:"name"`
	Text string `json:"text"`
	Cost Cost   `json:"cost"`
}

// Why lists the reasons that cost something on d, as they stand in the curve.
func (c Curve) Why(d day.Day) []Part {
	i := int(d - c.Start)
	if i < 0 || i >= c.Days {
		return nil
	}
	var out []Part
	for _, r := range c.Reasons {
		if r.Costs[i] > 0 {
			out = append(out, Part{r.Name, r.Text, r.Costs[i]})
		}
	}
	return out
}

// Costs is the whole curve as one list from Start.
func (c Curve) Costs() []Cost {
	out := make([]Cost, c.Days)
	for i := range out {
		out[i] = c.On(c.Start + day.Day(i))
	}
	return out
}

// Window is a run of days on which a job may well be done.
type Window struct {
	From day.Day `json:"from"`
	To   day.Day `json:"to"`
	Best day.Day `json:"best"`
	Cost Cost    `json:"cost"` // of the best day
}

// Costs that hover round a limit make one window, not a row of slivers.
const (
	bridged = 3 // days of the longest gap that two windows are joined over
	nearly  = 5 // how far those days may lie above the limit
)

// Windows are the runs of days that cost at most limit. Runs parted by no more than three days that cost hardly more
// are taken as one.
func (c Curve) Windows(limit Cost) []Window {
	var out []Window
	gap, near := bridged+1, false // days since the last window, and whether all of them came close
	for i, v := range c.Costs() {
		d := c.Start + day.Day(i)
		if v > limit || v == Never {
			gap, near = gap+1, near && v <= limit+nearly
			continue
		}
		if len(out) == 0 || gap > bridged || !near {
			out = append(out, Window{From: d, To: d, Best: d, Cost: v})
		}
		w := &out[len(out)-1]
		w.To = d
		if v < w.Cost {
			w.Best, w.Cost = d, v
		}
		gap, near = 0, true
	}
	return out
}

// Best is the cheapest day of the curve from a day on; ok is false when every day is forbidden.
func (c Curve) Best(from day.Day) (best day.Day, ok bool) {
	cost := Never
	for d := max(from, c.Start); d < c.Start+day.Day(c.Days); d++ {
		if v := c.On(d); v < cost {
			best, cost, ok = d, v, true
		}
	}
	return best, ok
}

// Gap ties a job to another one of the same verdict or programme.
type Gap struct {
	Job     string `json:"job"` // the other job's key
	MinDays int    `json:"min_days"`
	MaxDays int    `json:"max_days"` // 0: no limit
}

// Job is a piece of work on a plant.
type Job struct {
	Key      string   `json:"key"`  // names the job among those made together
	Kind     string   `json:"kind"` // look, tip back, cut back, cut to the base, replace
	Title    string   `json:"title"`
	Curve    Curve    `json:"curve"`
	Minutes  int      `json:"minutes"`
	Crew     int      `json:"crew"` // people needed
	Skills   []string `json:"skills"`
	Kit      []string `json:"kit"`
	After    []Gap    `json:"after"`
	Reasons  []string `json:"reasons"`
	Cautions []string `json:"cautions"`
}
