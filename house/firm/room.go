// Package firm is the firm's own affairs: settings, who may sign in, backups, letters, clients' pages, and everything
// in one file.
package firm

import (
	"sync"
	"sync/atomic"

	"mezzadro/house/days"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
	"mezzadro/house/ground"
	"mezzadro/house/ledger"
	"mezzadro/house/work"
)

// Room is the firm's affairs, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work   *work.Room
	Garden *garden.Room
	Ground *ground.Room
	Days   *days.Room
	Ledger *ledger.Room

	Backups Backups

	backing    sync.Mutex
	guarded    atomic.Bool // somebody may sign in
	tries      tries
	ceremonies ceremonies
}
