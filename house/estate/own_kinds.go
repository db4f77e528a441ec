package estate

import (
	"context"
	"fmt"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/store"
)

// KeepSpecies keeps the firm's own or corrected entry.
func (h *House) KeepSpecies(
	ctx context.Context,
	key store.Key,
	id string,
	version int,
	e catalogue.Entry,
) (SpeciesDetail, error) {
	if e.ID != id {
		return SpeciesDetail{}, invalid.One("id", e.ID, fmt.Sprintf("%q is not the entry that is changed, %q", e.ID, id))
	}
	if err := e.Validate(); err != nil {
		return SpeciesDetail{}, err
	}
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.KeepSpecies(ctx, e, version) },
	)
	if err != nil {
		return SpeciesDetail{}, err
	}
	return h.Species(ctx, id)
}

// AddKind keeps a kind that is not in the book, in five fields: the rest is as the kind it is like.
func (h *House) AddKind(ctx context.Context, key store.Key, in catalogue.NewKind) (SpeciesDetail, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return SpeciesDetail{}, err
	}
	like, err := book.Species(in.Like)
	if err != nil {
		return SpeciesDetail{}, invalid.One("like", in.Like, err.Error())
	}
	e, err := in.Of(like)
	if err != nil {
		return SpeciesDetail{}, err
	}
	for field, name := range map[string]string{"common": e.Common, "botanical": e.Botanical} {
		if id, _ := book.Named(name); id != "" && !(field == "common" && e.Botanical != e.Common) {
			return SpeciesDetail{}, invalid.One(field, name, fmt.Sprintf("%q is in the book already, as %s", name, EntryOf(book, id).Common))
		}
	}
	return h.KeepSpecies(ctx, key, e.ID, 0, e)
}

// DropSpecies takes the firm's entry out: a corrected one is as built again, an own one is gone, unless plants are of
// it.
func (h *House) DropSpecies(ctx context.Context, key store.Key, id string) (catalogue.Entry, error) {
	return store.Once(ctx, h.Store, key, func(tx store.Tx) (catalogue.Entry, error) {
		was, err := tx.DropSpecies(ctx, id)
		if err != nil {
			return was, err
		}
		if _, err := h.Catalogue.Species(id); err == nil {
			return was, nil
		}
		n, err := tx.SpeciesInUse(ctx, id)
		if err == nil && n > 0 {
			err = store.Refused(fmt.Sprintf("%d plants or groups are of this species; give them another one first", n))
		}
		return was, err
	})
}
