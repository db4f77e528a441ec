package treatment

import (
	"fmt"
	"math"
	"strings"

	"mezzadro/core/cause"
	"mezzadro/core/job"
)

// What treatments take, minutes.
const (
	treatSetUp  = 10.0
	perSprayL   = 2.0
	perPlantMin = 2.0
)

// verbs name the work of a rung that needs no product.
var verbs = map[string]string{
	"none": "Watch", "habitat": "Look after", "hands": "Clean by hand:", "water": "Wash", "barriers": "Guard",
	"cutting": "Cut out of", "soft": "Treat", "strong": "Treat", "replace": "Take out",
}

// Order is a step of the answer as a piece of work, asked for on the day of the ask.
func (o Answer) Order(a Ask, d Dated) job.Order {
	minutes := treatSetUp + perPlantMin*float64(max(1, o.Treated))
	if d.Amount != nil {
		minutes += perSprayL * d.Amount.SprayL
	}
	kept := job.Order{
		Key:      fmt.Sprintf("%s %d", o.Rung, d.N),
		Kind:     job.Treat,
		Title:    o.title(a, d),
		Origin:   job.Programme,
		For:      a.Date,
		Minutes:  int(math.Ceil(minutes/5) * 5),
		Crew:     1,
		Params:   job.Params{Cause: a.Cause, Rung: o.Rung, Step: d.N, Use: d.Use},
		Skills:   []string{},
		Kit:      []string{},
		Reasons:  append([]string{d.Do}, d.Why...),
		Cautions: append(append([]string{}, d.Limits...), o.Cautions...),
	}
	if d.Where != "" {
		kept.Reasons = append(kept.Reasons, "Where: "+d.Where+".")
	}
	if act := Built().Active(d.Use); act != nil && act.Licence {
		kept.Skills = append(kept.Skills, "licence for restricted products")
	}
	if !d.Seasonal { // a day that the season sets is found anew from the year
		kept.Params.Due = d.Day
	}
	return kept
}

// title names a step.
func (o Answer) title(a Ask, d Dated) string {
	what := verbs[o.Rung]
	if d.UseName != "" {
		means := strings.TrimPrefix(d.UseName, "a ")
		what = strings.ToUpper(means[:1]) + means[1:] + " on"
	}
	title := what + " " + a.Species.Common
	if a.Count > 1 {
		title += fmt.Sprintf(" × %d", o.Treated)
	}
	return title + ": " + strings.ToLower(cause.Built().Cause(a.Cause).Name)
}
