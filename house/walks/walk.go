package walks

import (
	"context"
	"errors"
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/walk"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// Walk is a walk with what was found so far.
type Walk struct {
	estate.WalkDay
	Looks  []estate.Look  `json:"looks"`
	Photos []estate.Photo `json:"photos"`
	First  *Found         `json:"first,omitempty" doc:"The verdict on the plant that was named when it was started"`
}

// longAgo is how old a walk may be that is still entered.
const longAgo = 366

// StartWalk is the property's walk of a day; one that was noted elsewhere may be entered up to a year later. With the
// verdict on the plant where it begins, where one is named: whoever stands there needs no second answer.
func (h *Room) StartWalk(ctx context.Context, key store.Key, property int64, on day.Day, plant int64) (Walk, error) {
	d := h.DateOr(on)
	if err := h.mayStart(ctx, property, d, plant); err != nil {
		return Walk{}, err
	}
	w, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (estate.WalkDay, error) {
			w, err := tx.StartWalk(ctx, property, d.String())
			return estate.WalkDay(w), err
		},
	)
	if err != nil {
		return Walk{}, err
	}
	o, err := h.Walk(ctx, w.ID)
	if err != nil || plant == 0 {
		return o, err
	}
	first, err := h.TellLook(ctx, w.ID, plant)
	o.First = &first
	return o, err
}

// mayStart reports why a walk cannot be started on a day, or at a plant.
func (h *Room) mayStart(ctx context.Context, property int64, d day.Day, plant int64) error {
	today := h.Today()
	switch {
	case d > today:
		coming := fmt.Sprintf("%s is still to come: a walk is entered on its day or later", quantity.Day(d))
		return invalid.One("day", d, coming)
	case d < today-longAgo:
		return invalid.One("day", d, fmt.Sprintf("%s is more than a year ago", quantity.Day(d)))
	case plant == 0:
		return nil
	}
	p, err := h.Store.Plant(ctx, plant)
	if errors.Is(err, store.ErrNotFound) || err == nil && p.PropertyID != property {
		return invalid.One("plant_id", plant, "is not on this property, or was removed")
	}
	return err
}

// Walk reads one.
func (h *Room) Walk(ctx context.Context, id int64) (Walk, error) {
	w, err := h.Store.Walk(ctx, id)
	if err != nil {
		return Walk{}, err
	}
	o := Walk{WalkDay: estate.WalkDay(w)}
	looks, err := h.Store.Looks(ctx, w.ID)
	if err != nil {
		return o, err
	}
	photos, err := h.Store.WalkPhotos(ctx, w.ID)
	o.Looks, o.Photos = estate.TellAll(looks, estate.TellFound), estate.TellAll(photos, estate.TellPhoto)
	return o, err
}

// question joins a plant on a walk with its property's season. What was found is judged by the day it was found on.
func (h *Room) question(
	ctx context.Context,
	walk, plant int64,
	checks []check.Check,
) (damage.Question, store.Walk, error) {
	w, err := h.Store.Walk(ctx, walk)
	if err != nil {
		return damage.Question{}, w, err
	}
	p, err := h.Store.Plant(ctx, plant)
	if err != nil {
		return damage.Question{}, w, err
	}
	if p.PropertyID != w.PropertyID {
		return damage.Question{}, w, store.ErrNotFound
	}
	on := store.DayOf(&w.Day)
	q, err := h.ask(ctx, p, checks, on)
	if len(checks) > 0 {
		q.Found = on
	}
	return q, w, err
}

// ask is the question about a plant where it stands, today: with what was found now, and what was found before a day.
func (h *Room) ask(ctx context.Context, p store.Plant, checks []check.Check, before day.Day) (damage.Question, error) {
	pl, err := h.Place(ctx, p.PropertyID)
	if err != nil {
		return damage.Question{}, err
	}
	if _, err := pl.Book.Species(p.Species); err != nil {
		return damage.Question{}, invalid.One("species", p.Species, err.Error())
	}
	here, err := h.standing(ctx, pl)
	if err != nil {
		return damage.Question{}, err
	}
	of := []walk.Plant{pl.OnWalk(p, h.YearsStood(p))}
	if err := h.recall(ctx, pl, p.ID, of); err != nil {
		return damage.Question{}, err
	}
	return pl.Ask(&of[0], here, func(id string) catalogue.Entry { return estate.EntryOf(pl.Book, id) }, checks, before), nil
}

// Found is the verdict that what was found comes to.
type Found struct {
	damage.Answer
	Rev   int           `json:"rev" doc:"The kept look's"`
	Found []check.Check `json:"found" doc:"The checks that are kept"`
	Note  string        `json:"note"`
}

// TellLook is the verdict of what is kept of a plant on a walk.
func (h *Room) TellLook(ctx context.Context, walk, plant int64) (Found, error) {
	l, err := h.Store.Look(ctx, walk, plant)
	if err != nil {
		return Found{}, err
	}
	q, _, err := h.question(ctx, walk, plant, l.Checks)
	if err != nil {
		return Found{}, err
	}
	o := Found{Rev: l.Rev, Found: l.Checks, Note: l.Note}
	o.Answer, err = damage.Judge(q)
	return o, err
}

// FoundIn is what was found at a plant.
type FoundIn struct {
	Checks []check.Check
	Note   string
	Base   *int // the rev it is based on; nil replaces whatever is kept
}

// KeepLook keeps what was found at a plant and answers the verdict it forms.
func (h *Room) KeepLook(ctx context.Context, key store.Key, walk, plant int64, in FoundIn) (Found, error) {
	q, w, err := h.question(ctx, walk, plant, in.Checks)
	if err != nil {
		return Found{}, err
	}
	o := Found{Found: in.Checks, Note: in.Note}
	if o.Answer, err = damage.Judge(q); err != nil {
		return o, err
	}
	l, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (estate.Look, error) {
		l, err := tx.KeepLook(ctx, store.Look{WalkID: w.ID, PlantID: plant, Note: in.Note, Checks: in.Checks}, in.Base)
		return estate.Look(l), err
	})
	o.Rev = l.Rev
	return o, estate.Stale(err, estate.TellFound)
}
