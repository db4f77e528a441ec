// Package ledger is what clients are offered and what they say to it, who they are, and what the work came to: hours and
// money.
package ledger

import (
	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/house/learn"
	"mezzadro/house/work"
)

// Room is the ledger, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work  *work.Room
	Days  *days.Room  // what jobs take along and bring back
	Learn *learn.Room // how long work takes the firm
}
