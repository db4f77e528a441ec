// Package rounds is who goes where on which day: people, crews, ways, the search for rounds, and the day's sheet.
package rounds

import (
	"mezzadro/house/estate"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// Room is the rounds, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work  *work.Room
	Treat *treat.Room

	proposed proposals
}
