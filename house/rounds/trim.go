package rounds

import (
	"cmp"
	"math"
	"slices"
)

// trim keeps as many jobs as are planned at once: what has its day or makes safe, then what loses most by waiting for a
// day after the span. The others are counted.
func (o *planned) trim(most int) {
	if len(o.orders) <= most {
		return
	}
	jobs := o.problem.Jobs
	first := make([]int, len(jobs))
	for i := range first {
		first[i] = i
	}
	presses := func(i int) float64 {
		if o.orders[i].Day != nil { // with a crew or without
			return math.Inf(1)
		}
		return jobs[i].Presses()
	}
	slices.SortStableFunc(first, func(a, b int) int { return cmp.Compare(presses(b), presses(a)) })
	o.beyond = len(first) - most
	first = first[:most]
	slices.Sort(first)
	for to, from := range first {
		jobs[to], o.orders[to], o.curves[to] = jobs[from], o.orders[from], o.curves[from]
	}
	o.problem.Jobs, o.orders, o.curves = jobs[:most], o.orders[:most], o.curves[:most]
}
