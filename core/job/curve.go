package job

import (
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/job/reason"
)

// Names that are read most often where work is asked for.
type (
	Cost   = reason.Cost
	Reason = reason.Reason
)

// Limits of costs: see reason.
var (
	Never      = reason.Never
	Worst      = reason.Worst
	Acceptable = reason.Acceptable
)

// Curve is the cost of an order by day: the sum of its reasons, so that any day can say why it is good or bad.
type Curve struct {
	Start   day.Day  `json:"start"`
	Days    int      `json:"days"`
	Reasons []Reason `json:"reasons"`
}

// Until is the curve with every day before one forbidden, for a reason.
func (c Curve) Until(d day.Day, name, why string) Curve {
	costs := make(reason.Costs, c.Days)
	for i := range costs {
		if c.Start+day.Day(i) < d {
			costs[i] = Never
		}
	}
	c.Reasons = append(slices.Clone(c.Reasons), Reason{Name: name, Text: why, Costs: costs})
	return c
}

// Because adds reasons. Those that never cost anything are left out.
func (c *Curve) Because(whys ...reason.Why) {
	for _, w := range whys {
		if r, ok := w.Over(c.Start, c.Days); ok {
			c.Reasons = append(c.Reasons, r)
		}
	}
}

// End is the first day after the curve.
func (c Curve) End() day.Day { return c.Start + day.Day(c.Days) }

// On is the cost of d: the reasons added up, at most Worst; Never where one forbids it or outside the curve.
func (c Curve) On(d day.Day) Cost {
	i := int(d - c.Start)
	if i < 0 || i >= c.Days {
		return Never
	}
	sum := Cost{}
	for _, r := range c.Reasons {
		sum = sum.Plus(r.Costs[i])
	}
	return sum
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
		if !r.Costs[i].Free() {
			out = append(out, Part{r.Name, r.Text, r.Costs[i]})
		}
	}
	return out
}

// Costs is the whole curve as one list from Start.
func (c Curve) Costs() reason.Costs {
	out := make(reason.Costs, c.Days)
	for _, r := range c.Reasons {
		for i, v := range r.Costs {
			out[i] = out[i].Plus(v)
		}
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
	nearly  = 5 // how far those days may lie above the limit, points
)

// Windows are the runs of days that cost at most limit. Runs parted by no more than three days that cost hardly more
// are taken as one.
func (c Curve) Windows(limit Cost) []Window { return windows(c.Start, c.Costs(), limit) }

func windows(start day.Day, costs reason.Costs, limit Cost) []Window {
	var out []Window
	almost := limit.Plus(reason.Points(nearly))
	gap, near := bridged+1, false // days since the last window, and whether all of them came close
	for i, v := range costs {
		d := start + day.Day(i)
		if v.Forbids() || v.Over(limit) {
			gap, near = gap+1, near && !v.Over(almost)
			continue
		}
		if len(out) == 0 || gap > bridged || !near {
			out = append(out, Window{From: d, To: d, Best: d, Cost: v})
		}
		w := &out[len(out)-1]
		w.To = d
		if w.Cost.Over(v) {
			w.Best, w.Cost = d, v
		}
		gap, near = 0, true
	}
	return out
}

// Best is the cheapest day of the curve from a day on; ok is false when every day is forbidden.
func (c Curve) Best(from day.Day) (best day.Day, ok bool) {
	best, cost := bestOf(c.Start, c.Costs(), from)
	return best, !cost.Forbids()
}

func bestOf(start day.Day, costs reason.Costs, from day.Day) (best day.Day, cost Cost) {
	cost = Never
	for i := max(0, int(from-start)); i < len(costs); i++ {
		if cost.Over(costs[i]) {
			best, cost = start+day.Day(i), costs[i]
		}
	}
	return best, cost
}

// Outlook is what a list says of an order on a day: the window that runs or comes next, its cheapest day from then on
// (without a window that of all days to come), and whether its time has passed.
type Outlook struct {
	Window Window // without one, From and To are day.None
	Best   day.Day
	Cost   Cost // of Best
	Passed bool // no day from then on is better than the worst
}

// Outlook is that of the curve on a day.
func (c Curve) Outlook(today day.Day) Outlook {
	costs := c.Costs()
	o := Outlook{Window: Window{From: day.None, To: day.None, Best: day.None, Cost: Never}}
	for _, w := range windows(c.Start, costs, Acceptable) {
		if w.To >= today {
			o.Window = w
			break
		}
	}
	ahead := costs
	if o.Window.From.Given() {
		ahead = costs[:o.Window.To.Sub(c.Start)+1] // what runs or comes next, though the one after it may cost less
	}
	o.Best, o.Cost = bestOf(c.Start, ahead, today)
	if o.Cost.Forbids() {
		o.Best = day.None
	}
	o.Passed = !Worst.Over(o.Cost)
	return o
}

// Together is the curve of one order on plants of several kinds: of each reason the costliest kind counts. Curves cover
// the days that all of them know.
func Together(curves []Curve) Curve {
	if len(curves) == 0 {
		return Curve{}
	}
	out := Curve{Start: curves[0].Start, Days: curves[0].Days}
	for _, c := range curves[1:] {
		end := min(out.End(), c.End())
		out.Start = max(out.Start, c.Start)
		out.Days = max(0, int(end-out.Start))
	}
	at := map[string]int{}
	for _, c := range curves {
		for _, r := range c.Reasons {
			i, known := at[r.Name]
			if !known {
				i = len(out.Reasons)
				at[r.Name] = i
				out.Reasons = append(out.Reasons, Reason{Name: r.Name, Text: r.Text, Costs: make(reason.Costs, out.Days)})
			}
			for k := range out.Reasons[i].Costs {
				if v := r.Costs[k+int(out.Start-c.Start)]; v.Over(out.Reasons[i].Costs[k]) {
					out.Reasons[i].Costs[k] = v
				}
			}
		}
	}
	return out
}
