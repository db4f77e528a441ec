// Package days is the days of the crews as they stand: the stretch of days, the sheet of one, its calendar and its way, and
// what becomes of a visit.
package days

import (
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// Room is the days, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work  *work.Room
	Crew  *crews.Room // who goes
	Treat *treat.Room // what is mixed and fed
}
