package replacement

import (
	"cmp"
	"slices"
	"strings"
)

// Ranked are kinds for a spot, the best first, and those left out with their reasons.
type Ranked struct {
	Best []Fit `json:"ranked"`
	Out  []Fit `json:"out" doc:"Left out, by name"`
}

// Rank judges all kinds. Its error is a list of refused fields.
func (a *Ask) Rank() (Ranked, error) {
	if err := a.Validate(); err != nil {
		return Ranked{}, err
	}
	out := Ranked{Best: []Fit{}, Out: []Fit{}}
	for i := range a.Among {
		if strings.HasPrefix(a.Among[i].ID, "unknown-") { // stands for what nobody has named
			continue
		}
		if f := a.FitOf(&a.Among[i]); len(f.Out) > 0 {
			out.Out = append(out.Out, f)
		} else {
			out.Best = append(out.Best, f)
		}
	}
	slices.SortStableFunc(out.Best, func(x, y Fit) int {
		return cmp.Or(cmp.Compare(y.raw, x.raw), cmp.Compare(x.Minutes, y.Minutes), cmp.Compare(x.Common, y.Common))
	})
	slices.SortStableFunc(out.Out, func(x, y Fit) int { return cmp.Compare(x.Common, y.Common) })
	return out, nil
}
