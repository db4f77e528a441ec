package days

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// VisitOf names a visit: all jobs of one property on one day with one crew.
type VisitOf struct {
	Property int64   `json:"property_id" minimum:"1"`
	Day      day.Day `json:"day" format:"date"`
	Crew     int64   `json:"crew,omitempty" doc:"By id; those that no crew has when absent"`
}

// VisitIn is what becomes of a visit.
type VisitIn struct {
	VisitOf
	Do     string  `json:"do" enum:"move,off,cancelled" doc:"move: to another day, or to another crew; off: off its day; cancelled: the client does not want it, which stands on each job"`
	To     day.Day `json:"to,omitempty" format:"date" doc:"move: the day; the same when absent"`
	ToCrew int64   `json:"to_crew,omitempty" doc:"move: the crew; the same when absent"`
	Reason string  `json:"reason,omitempty" maxLength:"200" doc:"cancelled: why"`
}

// WasAt is where a job stood before, with the version it has since.
type WasAt struct {
	Order   int64   `json:"order" minimum:"1"`
	Version int     `json:"version"`
	Day     day.Day `json:"day,omitempty" format:"date"`
	Crew    string  `json:"crew,omitempty" maxLength:"80"`
	CrewID  int64   `json:"crew_id,omitempty" doc:"Of the crew it was with; absent where none had it"`
	Place   int     `json:"place,omitempty" doc:"Among the day's work"`
	Stint   bool    `json:"stint,omitempty" doc:"That it was cancelled stands on it, and goes too"`
}

// VisitChanged is what was done.
type VisitChanged struct {
	Moved   int      `json:"moved" doc:"Jobs"`
	Changed []string `json:"changed" doc:"Titles of jobs that were changed meanwhile, or that the day does not bear, and stay as they are"`
	Was     []WasAt  `json:"was" doc:"Where they stood, to be given back where it is undone"`
}

// jobsOf are the jobs of a visit that are still to be done.
func (h *Room) jobsOf(ctx context.Context, v VisitOf) ([]store.OrderFull, error) {
	list, err := h.Store.SheetOf(ctx, v.Day.String(), Shown)
	return slices.DeleteFunc(list, func(k store.OrderFull) bool {
		return k.State != job.Placed || k.PropertyID != v.Property || k.CrewID != v.Crew
	}), err
}

// crewOf is a crew by id; nil for none.
func (h *Room) crewOf(ctx context.Context, id int64) (*crews.Crew, error) {
	if id == 0 {
		return nil, nil
	}
	all, err := h.Crew.Crews(ctx)
	if err != nil {
		return nil, err
	}
	for i := range all {
		if all[i].ID == id {
			return &all[i], nil
		}
	}
	return nil, store.ErrNotFound
}

// ChangeVisit does one thing to all jobs of a visit, in one write.
func (h *Room) ChangeVisit(ctx context.Context, key store.Key, in VisitIn) (VisitChanged, error) {
	list, err := h.jobsOf(ctx, in.VisitOf)
	if err != nil {
		return VisitChanged{}, err
	}
	to := move{day: cmp.Or(in.To, in.Day), reason: in.Reason, do: in.Do}
	switch {
	case len(list) == 0:
		return VisitChanged{}, store.ErrNotFound
	case in.Do == "cancelled" && in.Reason == "":
		return VisitChanged{}, invalid.One("reason", in.Reason, "is missing: say why it is cancelled")
	case in.Do == "move" && !in.To.Given() && in.ToCrew == 0:
		return VisitChanged{}, invalid.One("to", nil, "is missing: say to which day, or to which crew")
	case in.Do == "move" && to.day < h.Today():
		return VisitChanged{}, invalid.One("to", to.day.String(), "is past")
	}
	if to.crew, err = h.crewOf(ctx, cmp.Or(in.ToCrew, in.Crew)); err != nil {
		return VisitChanged{}, err
	}
	moves := make([]moved, 0, len(list))
	fits := false
	for _, k := range list {
		m, err := h.moved(ctx, k, to)
		if err != nil {
			return VisitChanged{}, err
		}
		fits = fits || !m.refused
		moves = append(moves, m)
	}
	if !fits {
		return VisitChanged{}, invalid.One("to", to.day.String(), "is forbidden for all of its jobs")
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (VisitChanged, error) { return keepMoves(ctx, tx, moves) })
}

// move is where the jobs of a visit go.
type move struct {
	do, reason string
	day        day.Day
	crew       *crews.Crew
}

// moved is a job with where it goes.
type moved struct {
	order   store.OrderFull
	stand   store.Stand
	stint   string // why it was cancelled
	refused bool   // the day does not bear it
}

// moved works out where a job of a visit goes.
func (h *Room) moved(ctx context.Context, k store.OrderFull, to move) (moved, error) {
	m := moved{order: k, stand: store.Stand{State: job.Waiting, DayCost: job.Never.Int()}}
	if to.do == "cancelled" {
		m.stint = to.reason
	}
	if to.do != "move" {
		return m, nil
	}
	pl, err := h.Place(ctx, k.PropertyID)
	if err != nil {
		return m, err
	}
	teller, err := h.Work.Teller(ctx)
	if err != nil {
		return m, err
	}
	_, c, err := h.Work.CurveOf(ctx, k, pl)
	if err != nil {
		return m, err
	}
	cost, text := teller.Curve(k.Order, c).On(to.day), to.day.String()
	m.refused = cost.Forbids()
	m.stand = store.Stand{State: job.Placed, Day: &text, Place: k.Place, DayCost: cost.Int()}
	if to.crew != nil {
		m.stand.Crew, m.stand.CrewID = to.crew.Name, to.crew.ID
	}
	return m, nil
}

// keepMoves writes them; what was changed meanwhile stays as it is.
func keepMoves(ctx context.Context, tx store.Tx, moves []moved) (VisitChanged, error) {
	out := VisitChanged{Changed: []string{}, Was: []WasAt{}}
	for _, m := range moves {
		k := m.order
		if m.refused {
			out.Changed = append(out.Changed, k.Title)
			continue
		}
		var kept store.OrderFull
		var err error
		if m.stint != "" {
			kept, err = tx.AddStint(ctx, k, store.Stint{Kind: work.NotToday, Day: *k.Day, Reason: m.stint}, k.Minutes)
		} else {
			kept, err = tx.SetStand(ctx, k.ID, k.Version, m.stand)
		}
		if stale := (store.Stale{}); estate.AsStale(err, &stale) {
			out.Changed = append(out.Changed, k.Title)
			continue
		}
		if err != nil {
			return out, fmt.Errorf("%s: %w", k.Title, err)
		}
		out.Moved++
		out.Was = append(out.Was, WasAt{k.ID, kept.Version, store.DayOf(k.Day), k.Crew, k.CrewID, k.Place, m.stint != ""})
	}
	return out, nil
}

// VisitBack has jobs stand where they stood, as far as nobody has changed them since.
func (h *Room) VisitBack(ctx context.Context, key store.Key, was []WasAt) (VisitChanged, error) {
	costs := map[int64]int{}
	stints := map[int64]store.Stint{}
	for _, w := range was {
		k, err := h.Store.Order(ctx, w.Order)
		if err != nil {
			return VisitChanged{}, err
		}
		pl, err := h.Place(ctx, k.PropertyID)
		if err != nil {
			return VisitChanged{}, err
		}
		_, c, err := h.Work.CurveOf(ctx, k, pl)
		if err != nil {
			return VisitChanged{}, err
		}
		costs[w.Order] = estate.DayCost(c, w.Day, pl.Today)
		if w.Stint {
			if stints[w.Order], err = h.Store.LastStint(ctx, w.Order); err != nil {
				return VisitChanged{}, err
			}
		}
	}
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (VisitChanged, error) {
		out := VisitChanged{Changed: []string{}, Was: []WasAt{}}
		for _, w := range was {
			var err error
			if w.Stint {
				_, err = tx.TakeBackStint(ctx, stints[w.Order], w.Version, costs[w.Order])
			} else {
				text := w.Day.String()
				_, err = tx.SetStand(ctx, w.Order, w.Version, store.Stand{State: job.Placed, Day: &text, Crew: w.Crew, CrewID: w.CrewID, Place: w.Place, DayCost: costs[w.Order]})
			}
			if stale := (store.Stale{}); estate.AsStale(err, &stale) {
				out.Changed = append(out.Changed, fmt.Sprint(w.Order))
				continue
			}
			if err != nil {
				return out, err
			}
			out.Moved++
		}
		return out, nil
	})
}
