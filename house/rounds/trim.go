package rounds

import (
	"cmp"
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
	slices.SortStableFunc(first, func(a, b int) int { return cmp.Compare(jobs[b].Presses(), jobs[a].Presses()) })
	o.beyond = len(first) - most
	first = first[:most]
	slices.Sort(first)
	for to, from := range first {
		jobs[to], o.orders[to], o.curves[to] = jobs[from], o.orders[from], o.curves[from]
	}
	o.problem.Jobs, o.orders, o.curves = jobs[:most], o.orders[:most], o.curves[:most]
}
