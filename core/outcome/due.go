package outcome

import (
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// What is asked of a plant that was decided on.
const (
	Alive = "alive" // whether it lives
	Right = "right" // whether it looks right again, or crops
)

// Given is a verdict, as far as it is judged later.
type Given struct {
	Day       day.Day
	Patience  day.Day // by which a living plant would show leaf; none, or before the verdict, where nothing was waited for
	Gone      day.Day // when the plant was taken out; none while it stands
	Prognosis Prognosis
}

// Found is how a plant was found last since.
type Found struct {
	Day   day.Day
	State string
}

// Ask is what there is to look at, and since when.
type Ask struct {
	What  string  `json:"what" enum:"alive,right"`
	Since day.Day `json:"since" format:"date" doc:"From which day on"`
}

const (
	seasonShows = 75 // days after midsummer by which a season's growth is to be seen
	asksOn      = 1  // seasons after the last one foretold in which it is still asked
)

// Due is what is to be looked at so that it is known what came of a verdict; false where nothing is.
func Due(c season.Climate, v Given, last *Found, today day.Day) (Ask, bool) {
	switch {
	case last != nil && last.State != TurnedAlive:
		return Ask{}, false
	case v.Gone.Given():
		return Ask{Alive, v.Gone}, last == nil && v.Gone <= today
	}
	least, most := max(1, v.Prognosis.SeasonsLow), max(1, v.Prognosis.SeasonsHigh)+asksOn
	ask, due := Ask{}, false
	if last == nil && v.Patience > v.Day && v.Patience <= today {
		ask, due = Ask{Alive, v.Patience}, true
	}
	n := 0
	for x := v.Day; x+seasonShows <= today && n < most; x++ {
		if x == c.Midwinter(x)+182 {
			n++
			ends := x + seasonShows
			if n >= least && (last == nil || last.Day < ends) {
				ask, due = Ask{Right, ends}, true
			}
		}
	}
	return ask, due
}
