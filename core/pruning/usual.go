package pruning

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/rules"
)

// hedgeFrom is how many plants of a shrub kept as one are taken for a hedge, and hedgeBloom the points of bloom from which
// they are kept for it and not trimmed.
const (
	hedgeFrom  = 10
	hedgeBloom = 40
)

// fruits are the classes of trees that are cut every year; of other trees only dead wood is cleared.
var fruits = map[string]bool{"pome": true, "stone-fruit": true, "peach": true, "citrus": true, "olive": true, "fig": true,
	"almond": true, "mango": true, "loquat": true, "evergreen-fruit": true, "pomegranate": true}

// Of is a plant as far as its usual cut hangs on it.
type Of struct {
	Count   int     // plants of a group kept as one
	RowM    float64 // length of the row they stand in, m; 0: not measured
	HeightM float64 // 0: nobody measured
	Renewed bool    // its old stems were all renewed in the last years
	Rules   rules.House
}

// rowFromM is how long a measured row is at least that is cut as a hedge, m.
const rowFromM = 2

// inRow reports plants that stand in a row as a hedge does: by its length where it was measured, else by their number.
func inRow(count int, rowM float64) bool { return rowM >= rowFromM || rowM == 0 && count >= hedgeFrom }

// oldFrom is the share of its grown-up height from which a shrub has old stems to renew.
const oldFrom = 0.75

// Usual is what plants of a kind are cut for where nobody said; empty for what is best left alone.
func Usual(e *catalogue.Entry, of Of) Purpose {
	c, row := ClassOf(e), inRow(of.Count, of.RowM)
	free := slices.Contains(natural(), e.ID) && of.Rules.Or(rules.Usual).Natives != rules.Clip
	woody := e.Form == catalogue.Shrub || e.Form == catalogue.Conifer
	rose := e.Bloom.Habit == "repeat rose" || e.Bloom.Habit == "once-flowering rose"
	switch {
	case e.Annual:
		return ""
	case row && woody && !rose && !free && e.LeafSeason != catalogue.Herbaceous && c.Bloom < hedgeBloom:
		return Hedge
	case (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) && !fruits[c.ID]:
		return Dead
	case c.Renew && e.Form == catalogue.Shrub && !row && !of.Renewed && of.HeightM >= oldFrom*e.Mature.HeightM:
		return Renew
	}
	return Shape
}
