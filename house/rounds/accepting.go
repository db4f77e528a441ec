package rounds

import (
	"context"
	"fmt"

	"mezzadro/core/job"
	"mezzadro/core/rounds"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// PlanPlace is what a job's place in the day is counted in where rounds put it there: the minute it is come to, and
// its number within the visit.
const PlanPlace = 100

// Accepted is what became of a proposal that was taken.
type Accepted struct {
	Placed  int      `json:"placed"`
	OffDays int      `json:"off_days" doc:"Jobs taken off their days, which wait for what is not known yet of their plants"`
	Changed []string `json:"changed" doc:"Titles of jobs that were changed meanwhile, and stay as they are"`
}

// undone is where a job stood, and the version it has since.
type undone struct {
	ID      int64
	Title   string
	Version int
	Stand   store.Stand
	Whole   store.Whole // what it was before it was parted
	Further bool        // it is a further part of a job, and goes with the first
}

// Accept puts the jobs of a proposal on their days, in one write. What was changed meanwhile stays as it is.
func (h *Room) Accept(ctx context.Context, key store.Key, id int64) (Accepted, error) {
	p, err := h.proposal(ctx, id)
	if err != nil {
		return Accepted{}, err
	}
	out, err := h.take(ctx, key, p)
	if err != nil {
		h.forget(id)
	}
	return out, err
}

// take does it with the proposal locked.
func (h *Room) take(ctx context.Context, key store.Key, p *proposal) (Accepted, error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.told.State == "working" {
		return Accepted{}, store.Refused("it is still being looked for: stop it, or wait")
	}
	undo := []undone{}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Accepted, error) {
		parts, changed, err := p.of.partUp(ctx, tx, p.plan.Visits)
		a := Accepted{Changed: changed}
		if err != nil {
			return a, err
		}
		for _, v := range p.plan.Visits {
			for n, j := range v.Jobs {
				if err := h.accept(ctx, tx, p.of, v, n, j, parts, &a, &undo); err != nil {
					return a, err
				}
			}
		}
		if err := h.letWait(ctx, tx, p.of, &a, &undo); err != nil {
			return a, err
		}
		if len(undo) > 0 {
			p.undo = undo
		}
		p.told.State = "accepted"
		return a, p.write(ctx, tx)
	})
}

// accept puts one job on its day.
func (h *Room) accept(
	ctx context.Context,
	tx store.Tx,
	of *planned,
	v rounds.Visit,
	n, j int,
	parts parted,
	a *Accepted,
	undo *[]undone,
) error {
	k, crew, on := *of.orders[j], of.crews[v.Crew], v.Date.String()
	x, running := of.parts[j]
	if running {
		id, there := parts.ids[j]
		if !there {
			return nil // it was changed meanwhile
		}
		if k.ID, k.Version = id, 1; x.n == 0 {
			k.Version = of.orders[j].Version + 1
		}
	}
	stays, place := k.Day != nil && *k.Day == on && k.CrewID == crew.ID, PlanPlace*v.From+n
	if stays && k.Place == place {
		return nil
	}
	cost := of.dayCost(j, v)
	kept, err := tx.SetStand(
		ctx,
		k.ID,
		k.Version,
		store.Stand{State: job.Placed, Day: &on, Crew: crew.Name, CrewID: crew.ID, Place: place, DayCost: cost},
	)
	if stale := (store.Stale{}); estate.AsStale(err, &stale) {
		a.Changed = append(a.Changed, k.Title)
		return nil
	}
	if err != nil {
		return fmt.Errorf("%s: %w", k.Title, err)
	}
	if !stays {
		a.Placed++
	}
	*undo = append(*undo, undone{k.ID, k.Title, kept.Version, standOf(k), parts.was[k.ID], running && x.n > 0})
	return nil
}

// letWait takes jobs that wait for what is not known yet of their plants off the days that were planned.
func (h *Room) letWait(ctx context.Context, tx store.Tx, of *planned, a *Accepted, undo *[]undone) error {
	for _, k := range of.held {
		if on := store.DayOf(k.Day); !on.Given() || on < of.problem.From {
			continue
		}
		kept, err := tx.SetStand(ctx, k.ID, k.Version, store.Stand{State: job.Waiting, DayCost: job.Never.Int()})
		if stale := (store.Stale{}); estate.AsStale(err, &stale) {
			a.Changed = append(a.Changed, k.Title)
			continue
		}
		if err != nil {
			return fmt.Errorf("%s: %w", k.Title, err)
		}
		a.OffDays++
		*undo = append(*undo, undone{k.ID, k.Title, kept.Version, standOf(k), store.Whole{}, false})
	}
	return nil
}

// standOf is where an order stands.
func standOf(k store.OrderFull) store.Stand {
	return store.Stand{State: k.State, Day: k.Day, Crew: k.Crew, CrewID: k.CrewID, Place: k.Place, DayCost: k.DayCost}
}

// TakeBack puts the jobs of an accepted proposal back to where they stood, as far as nobody has changed them since.
func (h *Room) TakeBack(ctx context.Context, key store.Key, id int64) (Accepted, error) {
	p, err := h.proposal(ctx, id)
	if err != nil {
		return Accepted{}, err
	}
	out, err := h.takeBack(ctx, key, p)
	if err != nil {
		h.forget(id)
	}
	return out, err
}

// takeBack does it with the proposal locked.
func (h *Room) takeBack(ctx context.Context, key store.Key, p *proposal) (Accepted, error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	now, known := map[int64]int{}, map[int64]int{}
	for _, u := range p.undo {
		known[u.ID] = u.Version
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (Accepted, error) {
		a := Accepted{Changed: []string{}}
		for _, u := range p.undo {
			if u.Further {
				continue
			}
			if same, err := untouched(ctx, tx, u.Whole, known); err != nil || !same {
				if a.Changed = append(a.Changed, u.Title); err != nil {
					return a, err
				}
				continue
			}
			k, err := tx.SetStand(ctx, u.ID, u.Version, u.Stand)
			if stale := (store.Stale{}); estate.AsStale(err, &stale) {
				a.Changed = append(a.Changed, u.Title)
				continue
			}
			if err != nil {
				return a, err
			}
			a.Placed++
			if now[u.ID] = k.Version; len(u.Whole.Parts) > 0 {
				if err := tx.Unpart(ctx, u.ID, u.Whole); err != nil {
					return a, err
				}
				now[u.ID]++
			}
		}
		for j := range p.of.orders { // so that it can be taken again
			if v := now[p.of.orders[j].ID]; v != 0 {
				fresh := *p.of.orders[j]
				fresh.Version, p.of.orders[j] = v, &fresh
			}
		}
		p.undo, p.told.State = nil, "done"
		return a, p.write(ctx, tx)
	})
}

// PinOrder has a job stay on its day and with its crew when rounds are proposed, or not.
func (h *Room) PinOrder(ctx context.Context, key store.Key, id int64, version int, pinned bool) (work.OrderDetail, error) {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.Pin(ctx, id, version, pinned) },
	)
	if err != nil {
		return work.OrderDetail{}, h.Work.StaleOrder(ctx, err)
	}
	return h.Work.Order(ctx, id)
}
