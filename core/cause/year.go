package cause

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// Northern is the month of the northern year that a month stands for: half a year on in the south.
func Northern(month int, south bool) int {
	if south {
		return (month+5)%12 + 1
	}
	return month
}

// hostFrom is how likely a kind takes a cause from where on it counts as a host of it.
const hostFrom = 0.5

// Takes reports that a kind is a host of the cause.
func (c *Cause) Takes(e *catalogue.Entry) bool { return c.OnKind(e) >= hostFrom }

// PlainShare is the share of a plant at which a cause shows plainly.
const PlainShare = 0.25

// How long finds matter, days.
const (
	enterBack = 366     // something may have been found that is entered now
	tellsBack = 4 * 365 // soil fungi are remembered for years
)

// Enterable reports that something found on a day can be entered today.
func Enterable(found, today day.Day) bool { return found <= today && found >= today-enterBack }

// TellsSince is the first day whose finds may still tell something today.
func TellsSince(today day.Day) day.Day { return today - tellsBack }
