package pruning

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// yearlyFrom is the share of its crown from which a kind that is cut so each spring counts as cut hard.
const yearlyFrom = 0.6

// CutHard reports a woody kind that is cut hard each spring, so that what frost takes of it the saw would have taken.
func CutHard(e *catalogue.Entry) bool {
	woody := e.Form == catalogue.Shrub || e.Form == catalogue.Subshrub || e.Form == catalogue.Climber
	rose := e.Genus() == "Rosa" && e.Bloom.Habit != "once-flowering rose"
	return woody && !e.Annual && (rose || ClassOf(e).Most >= yearlyFrom && e.Bloom.NewWood >= 0.5)
}

// Yearly is the window of a kind's yearly cut that runs on a day or comes next; false where there is none within a
// year.
func Yearly(e *catalogue.Entry, at *Place, d day.Day) (from, to day.Day, ok bool) {
	cal := at.Of(e, d)
	for _, w := range ClassOf(e).Windows {
		for _, s := range spansOf(cal, w) {
			if s.to >= d && s.from < d+366 && (!ok || s.from < from) {
				from, to, ok = s.from, s.to, true
			}
		}
	}
	return from, to, ok
}
