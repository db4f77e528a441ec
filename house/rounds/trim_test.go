package rounds

import (
	"slices"
	"testing"

	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/store"
)

// TestTrim: where more jobs have a day than are planned at once, a limb that hangs stays, and a job that has its day, and
// the rose that loses its moment, whatever they were entered after; what can as well be done later goes.
func TestTrim(t *testing.T) {
	o := planned{problem: &rounds.Problem{Jobs: []rounds.Job{
		{Title: "hedge, any week", Costs: []int{10, 10}, Later: 10},
		{Title: "mulch, a little better now", Costs: []int{20, 20}, Later: 30},
		{Title: "rose in bud", Costs: []int{0, 40}, Later: 90},
		{Title: "stands on its day", Costs: []int{0, 0}, Later: 0, Was: &rounds.Pin{}},
		{Title: "stands on its day, by nobody yet", Costs: []int{0, rounds.Forbidden}, Later: 0},
		{Title: "hanging limb", Costs: []int{0, 0}, Later: 0, Urgent: true},
	}}}
	for i := range o.problem.Jobs {
		o.orders, o.curves = append(o.orders, &store.OrderFull{Order: store.Order{ID: int64(i)}}), append(o.curves, job.Curve{})
	}
	onDay := "2027-03-18"
	o.orders[4].Day = &onDay
	o.trim(4)
	var kept []int64
	for _, k := range o.orders {
		kept = append(kept, k.ID)
	}
	if !slices.Equal(kept, []int64{2, 3, 4, 5}) || o.problem.Jobs[0].Title != "rose in bud" || len(o.problem.Jobs) != 4 || o.beyond != 2 {
		t.Errorf("kept %v of %d jobs, %d beyond", kept, len(o.problem.Jobs), o.beyond)
	}
	if o.trim(4); len(o.orders) != 4 || o.beyond != 2 {
		t.Error("nothing more goes where all have room")
	}
}
