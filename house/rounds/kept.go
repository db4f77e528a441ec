package rounds

import (
	"context"
	"encoding/json"
	"fmt"

	"mezzadro/core/invalid"
	"mezzadro/core/rounds"
	"mezzadro/store"
)

// kept is a proposal as it is written down: what was told, and what taking it, asking why and going on from it want.
type kept struct {
	Told    Proposal
	Problem *rounds.Problem
	Visits  []rounds.Visit
	Jobs    []keptJob // of the plan, by index
	Held    []keptJob
	Undo    []undone
}

// keptJob is an order as it stood when rounds were proposed, and which part of it a job of the plan is.
type keptJob struct {
	ID, PropertyID int64
	Title          string
	Version        int
	Minutes        int
	Stand          store.Stand
	Cost           int // of the day it is proposed on
	Part           *keptPart
}

// keptPart is one of the jobs that are made of one.
type keptPart struct {
	N       int
	Pieces  []store.Piece
	Running bool
}

// written is a proposal, whose lock is held, as text.
func (p *proposal) written() (string, error) {
	k := kept{Told: p.told, Problem: p.of.problem, Visits: p.plan.Visits, Undo: p.undo}
	for j, o := range p.of.orders {
		x := keptOrder(*o)
		if part, is := p.of.parts[j]; is {
			x.Part = &keptPart{part.n, part.pieces, part.running}
		}
		k.Jobs = append(k.Jobs, x)
	}
	for _, v := range p.plan.Visits {
		for _, j := range v.Jobs {
			k.Jobs[j].Cost = p.of.dayCost(j, v)
		}
	}
	for _, o := range p.of.held {
		k.Held = append(k.Held, keptOrder(o))
	}
	text, err := json.Marshal(k)
	return string(text), err
}

func keptOrder(o store.OrderFull) keptJob {
	return keptJob{
		ID:         o.ID,
		PropertyID: o.PropertyID,
		Title:      o.Title,
		Version:    o.Version,
		Minutes:    o.Minutes,
		Stand:      standOf(o),
	}
}

// order is the order as far as taking a proposal wants it.
func (k keptJob) order() (out store.OrderFull) {
	out.ID, out.PropertyID, out.Title, out.Version, out.Minutes = k.ID, k.PropertyID, k.Title, k.Version, k.Minutes
	out.State, out.Day, out.Crew, out.CrewID, out.Place, out.DayCost = k.Stand.State, k.Stand.Day, k.Stand.Crew, k.Stand.CrewID, k.Stand.Place, k.Stand.DayCost
	return out
}

// dayCost is what a job's day costs for it.
func (o *planned) dayCost(j int, v rounds.Visit) int {
	if o.curves == nil {
		return o.costs[j]
	}
	return o.curves[j].On(v.Date).Int()
}

// readKept is a proposal again that was written down.
func readKept(text string) (*proposal, error) {
	var k kept
	if err := json.Unmarshal([]byte(text), &k); err != nil {
		return nil, err
	}
	of := &planned{problem: k.Problem, crews: k.Told.Crews, parts: map[int]part{}}
	for j, x := range k.Jobs {
		order := x.order()
		of.orders, of.costs = append(of.orders, &order), append(of.costs, x.Cost)
		if x.Part != nil {
			of.parts[j] = part{x.Part.N, x.Part.Pieces, x.Part.Running}
		}
	}
	for _, x := range k.Held {
		of.held = append(of.held, x.order())
	}
	plan, err := rounds.Restore(k.Problem, k.Visits)
	if err != nil {
		return nil, err
	}
	plan.Visits = k.Visits // as they were told, to the minute
	p := &proposal{told: k.Told, of: of, plan: plan, undo: k.Undo, ended: make(chan struct{})}
	close(p.ended)
	return p, nil
}

// proposal is one by its number: looked for now, or kept from before.
func (h *Room) proposal(ctx context.Context, id int64) (*proposal, error) {
	h.proposed.mu.Lock()
	defer h.proposed.mu.Unlock()
	if p := h.proposed.by[id]; p != nil {
		return p, nil
	}
	row, err := h.Store.Proposal(ctx, id)
	if err != nil {
		return nil, err
	}
	p, err := readKept(row.Body)
	if err != nil {
		h.Log.Error("a kept proposal cannot be read", "proposal", id, "error", err)
		return nil, store.Refused("this proposal cannot be read any more: propose again")
	}
	h.proposed.hold(id, p)
	return p, nil
}

// hold keeps a proposal at hand, and lets the oldest go; the lock is held.
func (p *proposals) hold(id int64, of *proposal) {
	if p.by == nil {
		p.by = map[int64]*proposal{}
	}
	p.by[id] = of
	for len(p.by) > proposalsMax {
		oldest := id
		for other := range p.by {
			oldest = min(oldest, other)
		}
		delete(p.by, oldest)
	}
}

// forget has a proposal be read from what is kept when it is asked for again: what was done to it was called off
// halfway.
func (h *Room) forget(id int64) {
	h.proposed.mu.Lock()
	defer h.proposed.mu.Unlock()
	if p := h.proposed.by[id]; p != nil {
		select {
		case <-p.ended:
			delete(h.proposed.by, id)
		default: // it is still being looked for
		}
	}
}

// write keeps a proposal, whose lock is held, within a write.
func (p *proposal) write(ctx context.Context, tx store.Tx) error {
	text, err := p.written()
	if err != nil {
		return fmt.Errorf("proposal %d: %w", p.told.ID, err)
	}
	return tx.KeepProposal(ctx, p.told.ID, text)
}

// LastProposal is the last that was found, taken or not; its ID is 0 where none is kept.
func (h *Room) LastProposal(ctx context.Context) (Proposal, error) {
	row, err := h.Store.LastProposal(ctx)
	there, err := store.There(err)
	if err != nil || !there {
		return Proposal{}, err
	}
	return h.ReadProposal(ctx, row.ID)
}

// base has jobs begin where another proposal puts them.
func (h *Room) base(ctx context.Context, of *planned, id int64, index map[partOf]int) error {
	base, err := h.proposal(ctx, id)
	if err != nil {
		return invalid.One("base", id, "this proposal is not kept any more: propose again")
	}
	base.mu.Lock()
	defer base.mu.Unlock()
	for _, v := range base.plan.Visits {
		for _, j := range v.Jobs {
			d := int(v.Date - of.problem.From)
			if k, there := index[base.of.partOf(j)]; there && d >= 0 && d < of.problem.Days && v.Crew < len(of.crews) &&
				of.problem.Jobs[k].Pin == nil {
				of.problem.Jobs[k].Was = &rounds.Pin{Crew: v.Crew, Day: d}
			}
		}
	}
	return nil
}
