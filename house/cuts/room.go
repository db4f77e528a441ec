// Package cuts is when and how far plants are cut, and a property's cuts of a year as jobs.
package cuts

import (
	"mezzadro/house/estate"
	"mezzadro/house/work"
)

// Room is the cuts, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work *work.Room
}
