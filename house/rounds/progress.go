package rounds

import (
	"context"
	"time"
)

// Progress is how far the search for a proposal is.
type Progress struct {
	State  string  `json:"state" enum:"working,done,accepted"`
	Done   float64 `json:"done" doc:"0 to 1"`
	Rounds int     `json:"rounds" doc:"How often parts were torn down and built up again"`
	Best   float64 `json:"best" doc:"Score of the best so far"`
}

// progressEvery is how often progress is told.
const progressEvery = 150 * time.Millisecond

// WatchProposal tells how far a search is, again and again, until it has ended, nobody listens any more, or the
// context is over.
func (h *Room) WatchProposal(ctx context.Context, id int64, tell func(Progress) error) error {
	p, err := h.proposal(ctx, id)
	if err != nil {
		return err
	}
	tick := time.NewTicker(progressEvery)
	defer tick.Stop()
	for {
		now := p.read()
		if err := tell(Progress{now.State, now.Done, now.Rounds, now.Best}); err != nil || now.State != "working" {
			return err
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-p.ended:
		case <-tick.C:
		}
	}
}

// StopProposal ends the search: what it has found so far is the proposal.
func (h *Room) StopProposal(ctx context.Context, id int64) (Proposal, error) {
	p, err := h.proposal(ctx, id)
	if err != nil {
		return Proposal{}, err
	}
	p.mu.Lock()
	p.stop = true
	p.mu.Unlock()
	<-p.ended
	return p.read(), nil
}
