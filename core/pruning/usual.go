package pruning

import "mezzadro/core/catalogue"

// hedgeFrom is how many plants of a shrub kept as one are taken for a hedge, and hedgeBloom the points of bloom from which
// they are kept for it and not trimmed.
const (
	hedgeFrom  = 10
	hedgeBloom = 40
)

// fruits are the classes of trees that are cut every year; of other trees only dead wood is cleared.
var fruits = map[string]bool{"pome": true, "stone-fruit": true, "peach": true, "citrus": true, "olive": true, "fig": true}

// Usual is what so many plants of a kind are cut for where nobody said; empty for what is best left alone.
func Usual(e *catalogue.Entry, count int) Purpose {
	c := ClassOf(e)
	woody := e.Form == catalogue.Shrub || e.Form == catalogue.Conifer
	rose := e.Bloom.Habit == "repeat rose" || e.Bloom.Habit == "once-flowering rose"
	switch {
	case e.Annual:
		return ""
	case count >= hedgeFrom && woody && !rose && e.LeafSeason != catalogue.Herbaceous && c.Bloom < hedgeBloom:
		return Hedge
	case (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) && !fruits[c.ID]:
		return Dead
	}
	return Shape
}
