package kinds

import (
	"strings"

	"mezzadro/core/cause"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/rounds"
)

// forClients is each kind of work in a client's words; what is missing is the firm's own and is not told.
var forClients = map[job.Kind]string{
	job.Look: "A check on how it is doing", job.CutBack: "Cutting back to living wood", job.TipBack: "Taking off dead ends",
	job.CutToBase: "Cutting to the base, from where it comes again", job.Shorten: "Shortening before the winter gales",
	job.MakeSafe: "Making safe", job.Lift: "Bringing in for the winter", job.PlantOut: "Bringing out again", job.Guard: "A guard round the stem",
	job.Graft: "Grafting", job.Replace: "Taking out, to be replaced", job.Feed: "Feeding", job.Water: "Watering", job.Mulch: "Mulching",
	job.Shade: "Shading the bark", job.Fruit: "Taking off small fruit", job.Walk: "A walk through the garden",
}

// cutsForClients are cuts for a purpose in a client's words; the others are pruning.
var cutsForClients = map[pruning.Purpose]string{
	pruning.Dead: "Clearing dead wood", pruning.Frosted: "Cutting out frost damage", pruning.Renew: "Renewing, a part a year", pruning.Raise: "Raising the crown",
	pruning.Thin: "Thinning the crown", pruning.Deadhead: "Taking off faded flowers", pruning.Hedge: "Cutting the hedge",
	pruning.Train: "Training", pruning.Sick: "Cutting out what is sick", pruning.Storm: "Making ready for storms",
}

// ForClient is a piece of work in a client's words; false where it is not for them: what the firm does for itself, and what
// was marked so.
func ForClient(kind job.Kind, p job.Params, title string) (string, bool) {
	switch {
	case p.Private:
		return "", false
	case kind == job.Other, kind == job.Care:
		return title, true
	case kind == job.Prune:
		if words := cutsForClients[pruning.Purpose(p.Purpose)]; words != "" {
			return words, true
		}
		return "Pruning", true
	case kind == job.Treat:
		if p.Cause == "" {
			return "Treatment", true
		}
		return "Treatment against " + strings.ToLower(cause.NameOf(p.Cause)), true
	}
	words := forClients[kind]
	return words, words != ""
}

// Prepare is what a client gets ready before a piece of work, so that nobody is hurt and nothing is spoilt; empty for nothing.
func Prepare(kind job.Kind, p job.Params, skills []string) string {
	switch {
	case kind == job.MakeSafe:
		return "Please move cars and garden furniture from below the tree, and let nobody go under it."
	case Weather(kind, p.Use, skills) == rounds.Spray:
		return "We spray: please keep windows and doors shut on that side, take washing and toys in, and keep children and pets indoors until we say so."
	case Weather(kind, p.Use, skills) == rounds.Aloft:
		return "We work high up: please keep cars and people away from below."
	}
	return ""
}
