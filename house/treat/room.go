// Package treat is what is done about finds and before them: treatments, feeding, products, shopping, mixes and the
// use record.
package treat

import (
	"mezzadro/core/job"
	"mezzadro/house/cuts"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/work"
)

// Room is what is done about it, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work  *work.Room
	Finds *finds.Room
	Cuts  *cuts.Room
}

// New opens it; what comes of treatments and feeding that are ticked off is done here.
func New(house *estate.House, work *work.Room, finds *finds.Room, cuts *cuts.Room) *Room {
	h := &Room{House: house, Work: work, Finds: finds, Cuts: cuts}
	work.WhenDone(job.Treat, h.treated)
	work.WhenDone(job.Feed, h.fed)
	work.WhenDone(job.Look, h.lookedAgain)
	return h
}
