package ledger

import (
	"cmp"
	"context"
	"slices"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/store"
)

// CauseMonths is how often a cause was found in each of the last twelve months.
type CauseMonths struct {
	Cause  string `json:"cause"`
	Name   string `json:"name"`
	Finds  int    `json:"finds" doc:"In all of them"`
	Months []int  `json:"months" minItems:"12" maxItems:"12" doc:"Finds of each month, this one last"`
}

// causes are those that were found within a year, the most frequent first; what was only treated along is no find.
func (h *Room) causes(ctx context.Context, out *Overview) error {
	today := h.Today()
	first := day.Of(today.Year()-1, today.Month()+1, 1)
	finds, err := h.Store.Finds(ctx, store.FindsOf{Since: first.String(), Limit: store.All})
	at := map[string]int{}
	for _, f := range finds {
		d := store.DayOf(&f.Day)
		month := (d.Year()-first.Year())*12 + int(d.Month()) - int(first.Month())
		if f.AlongOf.Valid || month < 0 || month > 11 {
			continue
		}
		i, known := at[f.Cause]
		if !known {
			i = len(out.Causes)
			at[f.Cause] = i
			out.Causes = append(
				out.Causes,
				CauseMonths{Cause: f.Cause, Name: cause.NameOf(f.Cause), Months: make([]int, 12)},
			)
		}
		c := &out.Causes[i]
		c.Finds, c.Months[month] = c.Finds+1, c.Months[month]+1
	}
	slices.SortStableFunc(
		out.Causes,
		func(a, b CauseMonths) int { return cmp.Or(cmp.Compare(b.Finds, a.Finds), cmp.Compare(a.Name, b.Name)) },
	)
	return err
}
