// Package rounds is who goes where on which day: the search for rounds, and the day's sheet.
package rounds

import (
	"context"
	"sync"

	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/learn"
	"mezzadro/house/standing"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

// Room is the rounds, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Team     *crews.Room
	Work     *work.Room
	Treat    *treat.Room
	Standing *standing.Room
	Learn    *learn.Room

	spread    spreadOver
	drawn     drawn
	proposed  proposals
	searching sync.Mutex // one search at a time: each takes all cores
	searches  sync.WaitGroup
	life      context.Context // of the program
	end       context.CancelFunc
}

// New opens it.
func New(house *estate.House, team *crews.Room, work *work.Room, treat *treat.Room, standing *standing.Room, learn *learn.Room) *Room {
	h := &Room{House: house, Team: team, Work: work, Treat: treat, Standing: standing, Learn: learn}
	h.life, h.end = context.WithCancel(context.Background())
	return h
}

// Close ends what is being searched, and waits for its end.
func (h *Room) Close() {
	h.end()
	h.searches.Wait()
}
