// Package garden is the properties and the plants on them: entered, changed, taken in from files, labelled.
package garden

import (
	"mezzadro/house/estate"
	"mezzadro/house/work"
)

// Room is the properties and their plants, with the estate and the room it leans on.
type Room struct {
	*estate.House
	Work *work.Room
}
