package estate

import (
	"context"
	"fmt"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/invalid"
	"mezzadro/store"
)

// plantTitle is a plant's common name and where it stands.
func PlantTitle(book *catalogue.Catalogue, p store.Plant) string {
	title := EntryOf(book, p.Species).Common
	if p.Label != "" {
		title += ", " + p.Label
	}
	if p.Count > 1 {
		title += fmt.Sprintf(" × %d", p.Count)
	}
	return title
}

// Standing is how a plant stands: what decides, beside its species, how an event meets it.
type Standing struct {
	BaseMM  float64  `json:"base_mm,omitempty" doc:"Stem thickness at the base, mm; what is usual for form and height when absent"`
	PotL    float64  `json:"pot_l,omitempty" doc:"Litres of the pot; in the ground when absent"`
	Shelter *float64 `json:"shelter,omitempty" doc:"From wind: 0 open to 1 wholly sheltered; 0.5 when absent"`
	Sun     *float64 `json:"sun,omitempty" doc:"0 shade to 1 sun all day; 0.6 when absent"`
	Mulched bool     `json:"mulched,omitempty"`
	cold.Exposure
}

// Set puts it on a plant.
func (st Standing) Set(p *store.Plant) {
	p.BaseMM, p.PotL, p.Mulched, p.Shelter, p.Sun, p.Exposure = st.BaseMM, st.PotL, st.Mulched, cold.UsualShelter, cold.UsualSun, st.Exposure
	if st.Shelter != nil {
		p.Shelter = *st.Shelter
	}
	if st.Sun != nil {
		p.Sun = *st.Sun
	}
}

// Validate checks it with the core's own limits; the height is checked apart.
func (st Standing) Validate() error {
	p := store.Plant{HeightM: 1}
	st.Set(&p)
	c := CaseOf(p, catalogue.Entry{}, store.Property{Value: 1})
	return c.Plant.Validate()
}

// PlantIn is what is entered of a plant.
type PlantIn struct {
	PropertyID int64   `json:"property_id,omitempty" doc:"When adding"`
	Species    string  `json:"species" minLength:"1" doc:"Catalogue id"`
	Label      string  `json:"label,omitempty" maxLength:"300"`
	HeightM    float64 `json:"height_m" doc:"m"`
	SpreadM    float64 `json:"spread_m,omitempty" doc:"m; two thirds of the height when absent"`
	Count      int     `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"1 when absent"`
	Standing
	Value   float64 `json:"value,omitempty" doc:"To the client: 1 ordinary (when absent), 2 dear, 0.5 hardly minded"`
	Stop    int     `json:"stop,omitempty" minimum:"0" maximum:"10000" doc:"Place on the way round the property, from the gate; after the others when absent"`
	GraftM  float64 `json:"graft_m,omitempty" doc:"Height of the graft, m"`
	Planted int     `json:"planted,omitempty" doc:"Year it was planted"`
	Note    string  `json:"note,omitempty" maxLength:"2000"`
	Version int     `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// plantRecord checks what was entered, with species from the book, and makes the record of it.
func (h *House) plantRecord(in PlantIn, book *catalogue.Catalogue) (store.Plant, error) {
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
	if now := h.Today().Year(); in.Planted != 0 && (in.Planted < 1500 || in.Planted > now) {
		bad.Add("planted", in.Planted, "%d is no year from 1500 to %d", in.Planted, now)
	}
	return p, bad.Err()
}

// Plants are a page of plants, of one property or with 0 of all, with what is known of each now.
func (h *House) Plants(ctx context.Context, property, after int64, limit int) ([]PlantOut, error) {
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
func (h *House) Plant(ctx context.Context, id int64) (PlantOut, error) {
	p, err := h.Store.Plant(ctx, id)
	if err != nil {
		return PlantOut{}, err
	}
	t, err := h.Triage(ctx)
	if err != nil {
		return PlantOut{}, err
	}
	return t.Tell([]store.Plant{p})[0], nil
}

// keepPlant keeps a plant one way or another, once, and takes over what was kept.
func (h *House) keepPlant(
	ctx context.Context,
	key store.Key,
	p *store.Plant,
	way func(store.Tx, context.Context, store.Plant) (store.Plant, error),
) error {
	kept, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (Plant, error) {
		kept, err := way(tx, ctx, *p)
		return Plant(kept), err
	})
	*p = store.Plant(kept)
	return Stale(err, tellPlant)
}

// AddPlant keeps a new one.
func (h *House) AddPlant(ctx context.Context, key store.Key, in PlantIn) (PlantOut, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return PlantOut{}, err
	}
	p, err := h.plantRecord(in, book)
	if err == nil && p.PropertyID == 0 {
		err = invalid.One("property_id", nil, "is missing: say on which property it stands")
	}
	if err == nil {
		err = h.keepPlant(ctx, key, &p, store.Tx.AddPlant)
	}
	if err != nil {
		return PlantOut{}, err
	}
	return h.Plant(ctx, p.ID)
}

// ChangePlant keeps new values; the windows of its orders follow.
func (h *House) ChangePlant(ctx context.Context, key store.Key, id int64, in PlantIn) (PlantOut, error) {
	book, err := h.Book(ctx)
	if err != nil {
		return PlantOut{}, err
	}
	p, err := h.plantRecord(in, book)
	if err == nil {
		p.ID = id
		err = h.keepPlant(ctx, key, &p, store.Tx.ChangePlant)
	}
	if err == nil {
		err = h.changed(ctx, p.PropertyID)
	}
	if err != nil {
		return PlantOut{}, err
	}
	return h.Plant(ctx, id)
}

// RemovePlant takes a plant out of sight, or brings it back, with its orders.
func (h *House) RemovePlant(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemovePlant(ctx, id, remove) },
	)
	return err
}

func PlantName(common, label string) string {
	if label == "" {
		return common
	}
	return common + ", " + label
}
