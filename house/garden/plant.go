package garden

import (
	"context"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// PlantIn is what is entered of a plant.
type PlantIn struct {
	PropertyID int64   `json:"property_id,omitempty" doc:"When adding"`
	Species    string  `json:"species" minLength:"1" doc:"Catalogue id"`
	Label      string  `json:"label,omitempty" maxLength:"300"`
	HeightM    float64 `json:"height_m" doc:"m"`
	SpreadM    float64 `json:"spread_m,omitempty" doc:"m; two thirds of the height when absent"`
	Count      int     `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"1 when absent"`
	estate.Standing
	Value   float64 `json:"value,omitempty" doc:"To the client: 1 ordinary (when absent), 2 dear, 0.5 hardly minded"`
	Stop    int     `json:"stop,omitempty" minimum:"0" maximum:"10000" doc:"Place on the way round the property, from the gate; after the others when absent"`
	GraftM  float64 `json:"graft_m,omitempty" doc:"Height of the graft, m"`
	Planted int     `json:"planted,omitempty" doc:"Year it was planted"`
	RowM    float64 `json:"row_m,omitempty" doc:"Length of the row or hedge a group stands in, m"`
	BedM2   float64 `json:"bed_m2,omitempty" doc:"Area of the bed a group fills, m²"`
	Note    string  `json:"note,omitempty" maxLength:"2000"`
	Version int     `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// plantRecord checks what was entered, with species from the book, and makes the record of it.
func (h *Room) plantRecord(in PlantIn, book *catalogue.Catalogue) (store.Plant, error) {
	p := store.Plant{
		PropertyID: in.PropertyID,
		Species:    in.Species,
		Label:      strings.TrimSpace(in.Label),
		HeightM:    in.HeightM,
		SpreadM:    in.SpreadM,
		Count:      max(1, in.Count),
		Value:      in.Value,
		Stop:       in.Stop,
		GraftM:     in.GraftM,
		Planted:    in.Planted,
		RowM:       in.RowM,
		BedM2:      in.BedM2,
		Note:       in.Note,
		Version:    in.Version,
	}
	in.Standing.Set(&p)
	bad := invalid.Of(in.Standing.Validate())
	if _, err := book.Species(in.Species); err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	if !(in.HeightM > 0 && in.HeightM <= catalogue.TallestM) {
		bad.Add("height_m", in.HeightM, "%g m: a plant's height must be above 0 and at most 60 m", in.HeightM)
	}
	if in.SpreadM == 0 {
		p.SpreadM = in.HeightM * 2 / 3
	} else if !(in.SpreadM > 0 && in.SpreadM <= 100) {
		bad.Add("spread_m", in.SpreadM, "%g m: a plant's spread must be above 0 and at most 100 m", in.SpreadM)
	}
	if in.Value == 0 {
		p.Value = 1
	} else {
		bad.Within("value", in.Value, 0.5, 2, "")
	}
	if !(in.GraftM >= 0 && in.GraftM <= max(in.HeightM, 0)) {
		bad.Add("graft_m", in.GraftM, "%g m: the graft must lie on the plant, from the ground to %g m", in.GraftM, in.HeightM)
	}
	bad.Within("row_m", in.RowM, 0, 1000, "m")
	bad.Within("bed_m2", in.BedM2, 0, 100_000, "m²")
	if now := h.Today().Year(); in.Planted != 0 && (in.Planted < 1500 || in.Planted > now) {
		bad.Add("planted", in.Planted, "%d is no year from 1500 to %d", in.Planted, now)
	}
	return p, bad.Err()
}

// Plants are a page of plants, of one property or with 0 of all, with what is known of each now.
func (h *Room) Plants(ctx context.Context, property, after int64, limit int) ([]estate.PlantOut, error) {
	list, err := h.Store.Plants(ctx, property, after, limit)
	if err != nil {
		return nil, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return nil, err
	}
	return t.Tell(list), nil
}

// Plant is one with what is known of it now.
func (h *Room) Plant(ctx context.Context, id int64) (estate.PlantOut, error) {
	p, err := h.Store.Plant(ctx, id)
	if err != nil {
		return estate.PlantOut{}, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return estate.PlantOut{}, err
	}
	return t.Tell([]store.Plant{p})[0], nil
}

// keepPlant keeps a plant one way or another, once, and takes over what was kept.
func (h *Room) keepPlant(
	ctx context.Context,
	key store.Key,
	p *store.Plant,
	way func(store.Tx, context.Context, store.Plant) (store.Plant, error),
) error {
	kept, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (estate.Plant, error) {
		kept, err := way(tx, ctx, *p)
		return estate.Plant(kept), err
	})
	*p = store.Plant(kept)
	return estate.Stale(err, estate.TellPlant)
}

// AddPlant keeps a new one.
func (h *Room) AddPlant(ctx context.Context, key store.Key, in PlantIn) (estate.PlantOut, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return estate.PlantOut{}, err
	}
	p, err := h.plantRecord(in, book)
	if err == nil && p.PropertyID == 0 {
		err = invalid.One("property_id", nil, "is missing: say on which property it stands")
	}
	if err == nil {
		err = h.keepPlant(ctx, key, &p, store.Tx.AddPlant)
	}
	if err != nil {
		return estate.PlantOut{}, err
	}
	return h.Plant(ctx, p.ID)
}

// ChangePlant keeps new values; the windows of its orders follow.
func (h *Room) ChangePlant(ctx context.Context, key store.Key, id int64, in PlantIn) (estate.PlantOut, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return estate.PlantOut{}, err
	}
	p, err := h.plantRecord(in, book)
	if err == nil {
		p.ID = id
		err = h.keepPlant(ctx, key, &p, store.Tx.ChangePlant)
	}
	if err == nil {
		err = h.Work.RefreshProperty(ctx, p.PropertyID)
	}
	if err != nil {
		return estate.PlantOut{}, err
	}
	return h.Plant(ctx, id)
}

// RemovePlant takes a plant out of sight, or brings it back, with its orders.
func (h *Room) RemovePlant(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemovePlant(ctx, id, remove) },
	)
	return err
}
