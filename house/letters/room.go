// Package letters is what clients are written: drafts of days to come and of visits that were made, reminders, and the
// post that takes them.
package letters

import (
	"sync"

	"mezzadro/house/clients"
	"mezzadro/house/estate"
	"mezzadro/house/ledger"
	"mezzadro/house/work"
)

// Room writes to clients.
type Room struct {
	*estate.House
	Work    *work.Room
	Ledger  *ledger.Room
	Clients *clients.Room

	Post Poster // takes letters to clients; nil: there is none

	posting sync.Mutex
	refused sync.Map // visits whose reminder the post will not take: tried once
}
