// Package walks is what is found at plants on a walk, the verdict it comes to, and how plants turned out.
package walks

import (
	"mezzadro/house/estate"
	"mezzadro/house/work"
)

// Room is the walks, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work *work.Room
}
