// Package learn is what the firm's own record teaches: here, its pace. What is learnt is shown, used where it helps, and
// switched off by a press.
package learn

import (
	"context"
	"fmt"
	"sync"

	"mezzadro/core/pace"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Room is what was learnt, with the estate it is drawn from.
type Room struct {
	*estate.House

	mu   sync.Mutex
	of   string // what it was last drawn from
	last *pace.Pace

	shown    shifts
	practice gardens
	causes   counts
}

// ourPace names the pace among what can be switched off.
const ourPace = "pace"

// paceJobs is from how many jobs the pace is drawn, the newest.
const paceJobs = 3000

// Pace is the firm's, as it is used: nil where it is switched off. Too few jobs say nothing.
func (h *Room) Pace(ctx context.Context) (*pace.Pace, error) {
	off, err := h.Store.LearntOff(ctx)
	if err != nil || off[ourPace] {
		return nil, err
	}
	return h.drawn(ctx)
}

// drawn is the pace as the record has it: drawn once for a state of the record.
func (h *Room) drawn(ctx context.Context) (*pace.Pace, error) {
	h.mu.Lock()
	defer h.mu.Unlock()
	of := fmt.Sprint(h.Store.Rev())
	if h.last != nil && h.of == of {
		return h.last, nil
	}
	rows, err := h.Store.DoneMinutes(ctx, paceJobs)
	if err != nil {
		return nil, err
	}
	list := make([]pace.Done, len(rows))
	for i, r := range rows {
		list[i] = pace.Done{Kind: r.Kind, Crew: r.Crew, Reckoned: float64(r.Reckoned), Took: float64(r.Took)}
	}
	h.of, h.last = of, pace.Of(list)
	return h.last, nil
}

// PaceTold is the firm's pace as it is shown.
type PaceTold struct {
	On    bool          `json:"on" doc:"It is used in rounds and estimates"`
	Known bool          `json:"known" doc:"There are jobs enough to say anything; else all times are as reckoned"`
	Jobs  int           `json:"jobs" doc:"Whose time was noted: the last 3000"`
	Kinds []pace.Factor `json:"kinds" doc:"By kind of work, those with the most jobs first"`
	Crews []pace.Factor `json:"crews" doc:"By crew, against the others"`
	Sizes []pace.Factor `json:"sizes" doc:"Short jobs (up to 30 min), usual and long ones (over 2 h), against each other"`
}

// PaceTold shows it, whether it is used or not.
func (h *Room) PaceTold(ctx context.Context) (PaceTold, error) {
	off, err := h.Store.LearntOff(ctx)
	if err != nil {
		return PaceTold{}, err
	}
	p, err := h.drawn(ctx)
	if err != nil {
		return PaceTold{}, err
	}
	return PaceTold{
		On:    !off[ourPace],
		Known: p.Known(),
		Jobs:  p.Jobs(),
		Kinds: p.Kinds(),
		Crews: p.Crews(),
		Sizes: p.Sizes(),
	}, nil
}

// SetPace has it be used, or not.
func (h *Room) SetPace(ctx context.Context, key store.Key, on bool) (PaceTold, error) {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.SetLearntOff(ctx, ourPace, !on)
	})
	if err != nil {
		return PaceTold{}, err
	}
	return h.PaceTold(ctx)
}
