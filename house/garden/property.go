package garden

import (
	"context"
	"math"
	"strings"

	"mezzadro/core/cold"
	"mezzadro/core/invalid"
	"mezzadro/core/region"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// PropertyIn is what is entered of a property. The climate is a type moved to the place's height, or given in full.
type PropertyIn struct {
	Name        string          `json:"name" minLength:"1" maxLength:"300"`
	Client      string          `json:"client,omitempty" maxLength:"300"`
	Address     string          `json:"address,omitempty" maxLength:"300"`
	Note        string          `json:"note,omitempty" maxLength:"2000"`
	Zone        string          `json:"zone,omitempty" doc:"Time zone; when absent that of its coordinates, or without them the climate type's"`
	Region      string          `json:"region,omitempty" maxLength:"8" doc:"Country and state, ISO 3166, as US-WI or CH; when absent the country of its time zone"`
	ClimateType string          `json:"climate_type,omitempty"`
	ElevationM  *float64        `json:"elevation_m,omitempty" doc:"Moves the climate type to this height"`
	Latitude    *float64        `json:"latitude,omitempty"`
	Longitude   *float64        `json:"longitude,omitempty"`
	Climate     *season.Climate `json:"climate,omitempty" doc:"In place of a type, which it overrules: the property's own normals"`
	Site        season.Site     `json:"site,omitempty" doc:"How the place differs from the open country"`
	cold.Exposure
	Rules   rules.House `json:"rules,omitempty" doc:"House rules that are others here than the firm's"`
	Value   float64     `json:"value,omitempty" doc:"The client's weight: 1 ordinary (when absent), 2 first, 0.5 last"`
	Version int         `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// PropertyOut is a property with its climate.
type PropertyOut struct {
	estate.Property
	Climate season.Climate `json:"climate" doc:"Of the open country at its height"`
	Site    season.Site    `json:"site"`
	cold.Exposure
	Rules rules.House    `json:"rules" doc:"House rules that are others here than the firm's"`
	Here  season.Climate `json:"climate_here" doc:"The climate on its site"`
	Hardy string         `json:"hardiness_zone" doc:"Of the climate on its site"`
}

// TellProperty is a kept property with its climate.
func TellProperty(p store.Property) PropertyOut {
	here := estate.ClimateOf(p)
	return PropertyOut{estate.TellRecord(p), p.Climate.V, p.Site.V, p.Exposure.V, p.Rules.V, here, season.Zone(here.ExtremeMinC)}
}

// record checks what was entered and makes the record of it.
func (h *Room) propertyRecord(in PropertyIn) (store.Property, error) {
	p := store.Property{
		Name:        strings.TrimSpace(in.Name),
		Client:      in.Client,
		Address:     in.Address,
		Note:        in.Note,
		Zone:        store.Zone(in.Zone),
		Region:      strings.ToUpper(strings.TrimSpace(in.Region)),
		ClimateType: in.ClimateType,
		Value:       in.Value,
		Version:     in.Version,
	}
	p.Site.V, p.Exposure.V, p.Rules.V = in.Site, in.Exposure, in.Rules
	bad := invalid.Of(in.Exposure.Validate())
	bad.Below("rules", in.Rules.Validate())
	bad = append(bad, invalid.Of(region.Validate(p.Region))...)
	if in.Value == 0 {
		p.Value = 1
	} else {
		bad.Within("value", in.Value, 0.5, 2, "")
	}
	if p.Name == "" {
		bad.Add("name", in.Name, "is missing")
	}
	place := h.placeOf(in, &bad, false)
	p.Climate.V, p.Zone = place.Climate, store.Zone(place.Zone)
	if in.Climate != nil {
		p.ClimateType = ""
	}
	return p, bad.Err()
}

// Properties are a page of the firm's.
func (h *Room) Properties(ctx context.Context, after int64, limit int) ([]PropertyOut, error) {
	list, err := h.Store.Properties(ctx, after, limit)
	out := make([]PropertyOut, len(list))
	for i, p := range list {
		out[i] = TellProperty(p)
	}
	return out, err
}

// Property reads one.
func (h *Room) Property(ctx context.Context, id int64) (PropertyOut, error) {
	p, err := h.Store.Property(ctx, id)
	return TellProperty(p), err
}

// AddProperty keeps a new one.
func (h *Room) AddProperty(ctx context.Context, key store.Key, in PropertyIn) (PropertyOut, error) {
	p, err := h.propertyRecord(in)
	if err != nil {
		return PropertyOut{}, err
	}
	id, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		p, err := tx.AddProperty(ctx, p)
		return p.ID, err
	})
	if err != nil {
		return PropertyOut{}, err
	}
	return h.Property(ctx, id)
}

// ChangeProperty keeps new values; the windows of its orders follow.
func (h *Room) ChangeProperty(ctx context.Context, key store.Key, id int64, in PropertyIn) (PropertyOut, error) {
	p, err := h.propertyRecord(in)
	if err != nil {
		return PropertyOut{}, err
	}
	p.ID = id
	before, err := h.Store.Property(ctx, id)
	if err != nil {
		return PropertyOut{}, err
	}
	moved := Moved(before.Climate.V, p.Climate.V)
	_, err = store.Once(ctx, h.Store, key, func(tx store.Tx) (int64, error) {
		p, err := tx.ChangeProperty(ctx, p)
		if err == nil && moved {
			err = tx.DropStations(ctx, id)
		}
		return p.ID, estate.Stale(err, TellProperty)
	})
	if err != nil {
		return PropertyOut{}, err
	}
	if moved && h.Station != nil {
		if _, err := h.ReadStation(ctx, id); err != nil && ctx.Err() == nil { // the watch reads it again
			h.Log.WarnContext(ctx, "weather of a property that moved", "property", id, "error", err)
		}
	}
	return h.Property(ctx, id)
}

// How far a property may be corrected without lying in other weather.
const (
	movedDeg = 0.02 // about two kilometres
	movedM   = 50.0 // in height
)

// Moved reports that a climate lies somewhere else than another: what a station told of the one says nothing of the other.
func Moved(from, to season.Climate) bool {
	return math.Abs(from.Latitude-to.Latitude) > movedDeg || math.Abs(from.Longitude-to.Longitude) > movedDeg ||
		math.Abs(from.ElevationM-to.ElevationM) > movedM
}

// RemoveProperty takes a property out of sight, or brings it back.
func (h *Room) RemoveProperty(ctx context.Context, key store.Key, id int64, remove bool) error {
	_, err := store.Once(
		ctx,
		h.Store,
		key,
		func(tx store.Tx) (struct{}, error) { return struct{}{}, tx.RemoveProperty(ctx, id, remove) },
	)
	return err
}
