package replacement

import (
	"cmp"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Standing is a kind that stands on a property.
type Standing struct {
	Name  string
	Kind  *catalogue.Entry
	Count int
}

// InBloom is when one blooms.
type InBloom struct {
	Name    string   `json:"name"`
	Species string   `json:"species"`
	Count   int      `json:"count"`
	From    day.Day  `json:"from" format:"date"`
	To      day.Day  `json:"to" format:"date"`
	Colours []string `json:"colours"`
	Bees    string   `json:"bees" enum:"some,rich,"`
}

// Calendar is what blooms on a property through a year.
type Calendar struct {
	Plants []InBloom `json:"plants" doc:"By when they begin; only those with a flower to look at"`
	Months [12]int   `json:"months" doc:"How many kinds are in bloom in a month, January first"`
	Gaps   []int     `json:"gaps" doc:"Months of the season in which nothing blooms, 1 January"`
	Bees   []int     `json:"bee_gaps" doc:"Months of the season in which insects find nothing"`
}

// Of gaps.
const (
	seasonFromC = 5.0 // mean of a month from which one is out in the garden, and insects fly
	lastWhole   = 7   // days of bloom in a month by which it counts
)

// CalendarOf is what blooms there in the garden year of a day.
func CalendarOf(y *season.Year, today day.Day, list []Standing) Calendar {
	out := Calendar{Plants: []InBloom{}, Gaps: []int{}, Bees: []int{}}
	kinds, fed := [12]map[string]bool{}, [12]bool{}
	for m := range kinds {
		kinds[m] = map[string]bool{}
	}
	for _, s := range list {
		f := s.Kind.Flower
		if f == nil || len(f.Colours) == 0 && f.Bees == "" {
			continue
		}
		dates := s.Kind.Dates(y, today)
		if !dates.Blooms {
			continue
		}
		from, to := dates.BloomStart.Mid, max(dates.BloomEnd.Mid, dates.BloomStart.Mid+lastWhole)
		for m, n := range daysByMonth(from, to) {
			if n < lastWhole {
				continue
			}
			fed[m] = fed[m] || f.Bees != ""
			if len(f.Colours) > 0 {
				kinds[m][s.Kind.ID] = true
			}
		}
		if len(f.Colours) > 0 {
			out.Plants = append(out.Plants, InBloom{s.Name, s.Kind.ID, max(1, s.Count), from, to, f.Colours, f.Bees})
		}
	}
	for m, n := range y.Normals.Climate.Normals {
		out.Months[m] = len(kinds[m])
		if (n.TMinC+n.TMaxC)/2 < seasonFromC {
			continue
		}
		if out.Months[m] == 0 {
			out.Gaps = append(out.Gaps, m+1)
		}
		if !fed[m] {
			out.Bees = append(out.Bees, m+1)
		}
	}
	slices.SortStableFunc(out.Plants, func(a, b InBloom) int { return cmp.Compare(a.From, b.From) })
	return out
}

// daysByMonth counts the days of a span in each month, January first.
func daysByMonth(from, to day.Day) (out [12]int) {
	for d := from; d <= to && d < from+365; d++ {
		out[d.Time().Month()-1]++
	}
	return out
}
