// Package work is the jobs of the record: asked for, put on days, ended, with windows that follow the season.
package work

import (
	"sync"
	"sync/atomic"

	"mezzadro/core/job"
	"mezzadro/house/estate"
)

// Room is what there is to do, with the estate and the rooms it leans on.
type Room struct {
	*estate.House

	refreshing sync.Mutex
	refreshed  string // what all windows were last worked out for
	trouble    atomic.Pointer[string]

	telling sync.Mutex
	teller  *Teller

	followUps map[job.Kind]FollowUp
}

// New opens it.
func New(house *estate.House) *Room {
	return &Room{House: house, followUps: map[job.Kind]FollowUp{}}
}
