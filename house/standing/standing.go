// Package standing is when a property is visited whatever there is to do: when one may be there, visits that come
// again, and the jobs that are made of them as days come near.
package standing

import (
	"context"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// Room is the standing visits, with the estate and the rooms it leans on.
type Room struct {
	*estate.House
	Work *work.Room
}

// Regular is one that comes again.
type Regular struct {
	ID         int64    `json:"id"`
	PropertyID int64    `json:"property_id"`
	Property   string   `json:"property"`
	Crew       string   `json:"crew" doc:"Name of the crew"`
	Next       []Coming `json:"next" doc:"The next days on which it belongs, up to six"`
	RegularIn
}

// Coming is a day on which it belongs, and the day it is on.
type Coming struct {
	Day     day.Day `json:"day" format:"date" doc:"On which it belongs"`
	On      day.Day `json:"on,omitempty" format:"date" doc:"On which it is; absent where it falls or waits for a day"`
	OrderID int64   `json:"order_id,omitempty" doc:"Its job; absent where nobody can come near that day"`
	Falls   bool    `json:"falls" doc:"Nobody can come near that day, or it was taken out"`
}

// RegularIn is what is entered of one.
type RegularIn struct {
	job.Standing
	CrewID  int64  `json:"crew_id" minimum:"1" doc:"The crew that the client knows"`
	Title   string `json:"title,omitempty" maxLength:"200" doc:"General care when absent"`
	Minutes int    `json:"minutes" minimum:"1" maximum:"1440" doc:"Of general care, for the people it needs"`
	People  int    `json:"people,omitempty" minimum:"0" maximum:"20" doc:"Needed; 1 when absent"`
	Known   bool   `json:"known,omitempty" doc:"The client knows these days: nobody is written to before one comes"`
	Version int    `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// usualTitle is what is done where nobody said.
const usualTitle = "General care"

// body checks what was entered.
func (h *Room) body(ctx context.Context, in RegularIn) (store.StandingBody, error) {
	bad := in.Faults()
	if c, err := h.Store.Crews(ctx); err != nil {
		return store.StandingBody{}, err
	} else if !slices.ContainsFunc(c, func(c store.Crew) bool { return c.ID == in.CrewID }) {
		bad.Add("crew_id", in.CrewID, "is no crew, or was removed")
	}
	b := store.StandingBody{
		Standing: in.Standing,
		Title:    strings.TrimSpace(in.Title),
		Minutes:  in.Minutes,
		People:   max(1, in.People),
		Known:    in.Known,
	}
	if b.Title == "" {
		b.Title = usualTitle
	}
	return b, bad.Err()
}

// Visits are the standing visits of a property, or of all (0).
func (h *Room) Visits(ctx context.Context, property int64) ([]Regular, error) {
	if property != 0 {
		if _, err := h.Store.Property(ctx, property); err != nil {
			return nil, err
		}
	}
	list, err := h.Store.StandingVisits(ctx, property)
	if err != nil {
		return nil, err
	}
	rows, err := h.Store.StandingDays(ctx, h.Today().String())
	if err != nil {
		return nil, err
	}
	ids := []int64{}
	for _, d := range rows {
		ids = append(ids, d.OrderID.Int64)
	}
	orders, err := h.Store.OrdersFull(ctx, ids)
	if err != nil {
		return nil, err
	}
	return estate.TellAll(list, func(v store.StandingVisit) Regular { return tell(v, rows, orders) }), nil
}

// shownAhead is how many of the next days are told.
const shownAhead = 6

func tell(v store.StandingVisit, rows []store.StandingDay, orders map[int64]store.OrderFull) Regular {
	b := v.Body.V
	out := Regular{
		ID:         v.ID,
		PropertyID: v.PropertyID,
		Property:   v.Property,
		Crew:       v.Crew,
		Next:       []Coming{},
		RegularIn: RegularIn{
			Standing: b.Standing, CrewID: v.CrewID, Title: b.Title, Minutes: b.Minutes, People: b.People, Known: b.Known, Version: v.Version},
	}
	for _, d := range rows {
		if d.StandingID != v.ID || len(out.Next) == shownAhead {
			continue
		}
		c := Coming{Day: store.DayOf(&d.Day), OrderID: d.OrderID.Int64}
		o, there := orders[c.OrderID]
		switch {
		case !there || o.State == job.Dropped || o.State == job.Skipped:
			c.Falls = true
		default:
			c.On = store.DayOf(o.Day)
		}
		out.Next = append(out.Next, c)
	}
	return out
}

// kept is one as it is stored.
func (h *Room) kept(ctx context.Context, id int64) (store.StandingVisit, error) {
	list, err := h.Store.StandingVisits(ctx, 0)
	if err != nil {
		return store.StandingVisit{}, err
	}
	i := slices.IndexFunc(list, func(v store.StandingVisit) bool { return v.ID == id })
	if i < 0 {
		return store.StandingVisit{}, store.ErrNotFound
	}
	return list[i], nil
}

// Knows is the crew that the client of each property knows: of its first standing visit.
func (h *Room) Knows(ctx context.Context) (map[int64]int64, error) {
	list, err := h.Store.StandingVisits(ctx, 0)
	out := make(map[int64]int64, len(list))
	for _, v := range list {
		if out[v.PropertyID] == 0 {
			out[v.PropertyID] = v.CrewID
		}
	}
	return out, err
}

// visit is one of them.
func (h *Room) visit(ctx context.Context, property, id int64) (Regular, error) {
	list, err := h.Visits(ctx, property)
	if err != nil {
		return Regular{}, err
	}
	i := slices.IndexFunc(list, func(v Regular) bool { return v.ID == id })
	if i < 0 {
		return Regular{}, store.ErrNotFound
	}
	return list[i], nil
}

// Add keeps a new one and makes the jobs of its next days.
func (h *Room) Add(ctx context.Context, key store.Key, property int64, in RegularIn) (Regular, error) {
	if _, err := h.Store.Property(ctx, property); err != nil {
		return Regular{}, err
	}
	b, err := h.body(ctx, in)
	if err != nil {
		return Regular{}, err
	}
	at, err := h.where(ctx, property, in.CrewID)
	if err != nil {
		return Regular{}, err
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		v := store.StandingVisit{PropertyID: property, CrewID: in.CrewID}
		v.Body.V = b
		id, err := tx.AddStandingVisit(ctx, v)
		if err != nil {
			return 0, err
		}
		return id, h.make(ctx, tx, id, at)
	})
	if err != nil {
		return Regular{}, err
	}
	return h.visit(ctx, property, id)
}

// Change keeps what was changed. Days to come are made anew, but for those that were pinned or are done.
func (h *Room) Change(ctx context.Context, key store.Key, id int64, in RegularIn) (Regular, error) {
	b, err := h.body(ctx, in)
	if err != nil {
		return Regular{}, err
	}
	known, err := h.kept(ctx, id)
	if err != nil {
		return Regular{}, err
	}
	at, err := h.where(ctx, known.PropertyID, in.CrewID)
	if err != nil {
		return Regular{}, err
	}
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		was, err := tx.StandingVisit(ctx, id)
		if err != nil {
			return 0, err
		}
		v := was
		v.CrewID, v.Body.V, v.Version = in.CrewID, b, in.Version
		if err := tx.ChangeStandingVisit(ctx, v); err != nil {
			return 0, err
		}
		if err := h.clear(ctx, tx, id); err != nil {
			return 0, err
		}
		return id, h.make(ctx, tx, id, at)
	})
	if err != nil {
		return Regular{}, estate.Stale(err, func(v store.StandingVisit) Regular { return tell(v, nil, nil) })
	}
	return h.visit(ctx, known.PropertyID, id)
}

// Remove ends one with its jobs to come.
func (h *Room) Remove(ctx context.Context, key store.Key, id int64) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		if err := h.clear(ctx, tx, id); err != nil {
			return struct{}{}, err
		}
		return struct{}{}, tx.RemoveStandingVisit(ctx, id, true)
	})
	return err
}

// Restore brings one back that was ended; its jobs are made anew.
func (h *Room) Restore(ctx context.Context, key store.Key, id int64) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.RemoveStandingVisit(ctx, id, false)
	})
	if err != nil {
		return err
	}
	return h.Ahead(ctx)
}
