// Package overview is what is seen over all properties: the morning's look, the search, and what new weather or
// another day moves.
package overview

import (
	"mezzadro/house/estate"
	"mezzadro/house/firm"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// Room is what is seen over all properties, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work  *work.Room
	Treat *treat.Room
	Firm  *firm.Room

	nights watched
}
