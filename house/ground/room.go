// Package ground is the place itself: its plan, sun and shelter, what fits there, planting and wintering.
package ground

import (
	"mezzadro/house/cuts"
	"mezzadro/house/estate"
	"mezzadro/house/work"
)

// Room is the ground, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work *work.Room
	Cuts *cuts.Room
}
