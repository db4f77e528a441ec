package treatment

import (
	"slices"
	"strings"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/job"
)

// feedMeans are the means a plant is fed with by its kind: the card in hand serves.
var feedMeans = []string{"organic-feed", "mineral-feed"}

// Serves reports that a card's means is what a job asks for.
func Serves(card, asked string) bool {
	return card == asked || slices.Contains(feedMeans, card) && slices.Contains(feedMeans, asked)
}

// Strongest is the rung of those named that stands highest on the ladder; empty where none does.
func Strongest(rungs []string) (out string) {
	for _, r := range rungs {
		if slices.Index(Rungs, r) > slices.Index(Rungs, out) {
			out = r
		}
	}
	return out
}

// lookMinutes is what a look whether it helped takes.
const lookMinutes = 10

// After is what a treatment asks for once a time of a step was done, by the plan that knows of it: that step's next time,
// with its date, or else the look whether it helped; false for neither.
func (o Answer) After(a Ask, rung string, step int, today day.Day) (job.Order, Dated, bool) {
	for _, d := range o.Steps {
		if d.N == step && o.Rung == rung {
			return o.Order(a, d), d, true
		}
	}
	if !o.Look.Given() || o.Ends != "done" && len(o.Steps) > 0 {
		return job.Order{}, Dated{}, false
	}
	return job.Order{
		Key:      "look",
		Kind:     job.Look,
		Title:    "Look whether it helped: " + strings.ToLower(cause.NameOf(a.Cause)),
		Origin:   job.Programme,
		For:      today,
		Minutes:  lookMinutes,
		Crew:     1,
		Params:   job.Params{When: job.OnDay, Due: o.Look},
		Skills:   []string{},
		Kit:      []string{},
		Reasons:  []string{"The treatment is done: say whether it is gone, less or the same."},
		Cautions: []string{},
	}, Dated{}, true
}

// ClosedDays is for how many days after a treatment nobody works on the plant, by the first of the firm's own cards of
// that means; 0 without one.
func ClosedDays(use string, cards []Card) int {
	for i := range cards {
		if use != "" && cards[i].Active == use {
			return cards[i].ClosedDays()
		}
	}
	return 0
}

// shadyBelow is the share of sun from which down a plant stands in shade.
const shadyBelow = 0.35

// Shaded reports that a plant with a share of the sun, 0 shade to 1 all day, stands in shade.
func Shaded(sun float64) bool { return sun < shadyBelow }
