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
		kept.Skills = append(kept.Skills, job.Restricted)
	}
	if d.Who != "" {
		kept.Skills = append(kept.Skills, d.Who)
	}
	if !d.Seasonal { // a day that the season sets is found anew from the year
		kept.Params.Due = d.Day
	}
	return kept
}

// feedMin is what it takes to feed one plant, or a square metre, minutes.
const feedMin = 2.0

// Order is the next feeding of the season as a piece of work that comes again; false where none is due.
func (f Feeding) Order(a FeedAsk) (job.Order, bool) {
	if f.None || len(f.Days) == 0 {
		return job.Order{}, false
	}
	n := max(1, a.Count)
	kept := job.Order{
		Key:     "feed",
		Kind:    job.Feed,
		Title:   "Feed " + a.Species.Common,
		Origin:  job.Programme,
		For:     a.Date,
		Minutes: int(math.Ceil((treatSetUp+feedMin*float64(n))/5) * 5),
		Crew:    1,
		Params: job.Params{
			Use:   feedActives(&f)[0],
			Spans: []job.Span{{From: f.Days[0], To: max(f.To, f.Days[len(f.Days)-1])}},
		},
		Skills:  []string{},
		Kit:     []string{},
		Reasons: append([]string{f.Text}, f.Says...),
		Cautions: []string{
			"The label is law: how much and how often. No rate stands here that you did not enter from it.",
		},
	}
	if n > 1 {
		kept.Title += fmt.Sprintf(" × %d", n)
	}
	if len(f.Days) > 1 {
		kept.Params.EveryDays = f.Every
	}
	for _, x := range f.Amounts {
		if x.What != "lime" && x.What != "sulphur" {
			kept.Reasons = append(kept.Reasons, strings.ToUpper(x.What[:1])+x.What[1:]+": "+x.Formula+".")
		}
	}
	return kept, true
}

// longTitle is how many letters what is done may have to stand as a title.
const longTitle = 60

// title names a step.
func (o Answer) title(a Ask, d Dated) string {
	what := verbs[o.Rung]
	if d.UseName != "" {
		means := strings.TrimPrefix(d.UseName, "a ")
		what = strings.ToUpper(means[:1]) + means[1:] + " on"
	}
	of := a.Species.Common
	if a.Count > 1 {
		of += fmt.Sprintf(" × %d", o.Treated)
	}
	if do := strings.TrimSuffix(d.Do, "."); d.Use == "" && what == verbs["soft"] && len(do) <= longTitle {
		return do + ": " + of
	}
	title := what + " " + of
	return title + ": " + strings.ToLower(cause.Built().Cause(a.Cause).Name)
}
