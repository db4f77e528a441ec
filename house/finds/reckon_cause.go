package finds

import (
	"context"
	"errors"
	"maps"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// CauseIn asks what may be wrong with a plant by what was seen on it.
type CauseIn struct {
	Species  string          `json:"species,omitempty" doc:"Catalogue id; empty where nobody knows the plant"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty" doc:"For its year and its part of the world; a cool northern one when both are absent"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id. Its weather and the finds nearby count"`
	Plant    int64           `json:"plant,omitempty" doc:"A plant's id: its species, its property, its place and the work done there count"`
	Weather  *LatelyIn       `json:"weather,omitempty" doc:"Of the last weeks, where no property tells it"`
	Place    *SpotIn         `json:"place,omitempty" doc:"Where it stands, where no plant tells it"`
	Seen     []string        `json:"seen" maxItems:"60" doc:"Signs that are there, by id"`
	Absent   []string        `json:"not_seen,omitempty" maxItems:"60" doc:"Signs that were looked for and are not there; of all others nobody has looked"`
	Skipped  []string        `json:"cannot_tell,omitempty" maxItems:"60" doc:"Signs that were asked for and that nobody on site can tell: they are not asked for again"`
	Share    float64         `json:"share,omitempty" doc:"Of the leaves or shoots that show it, 0 to 1"`
}

// LatelyIn is the weather of the last weeks.
type LatelyIn struct {
	MinC       float64 `json:"min_c" doc:"Coldest of the last 30 days"`
	MaxC       float64 `json:"max_c" doc:"Hottest of the last 21 days"`
	RainMM     float64 `json:"rain_mm" minimum:"0" doc:"Of the last 30 days"`
	WetDays    int     `json:"wet_days,omitempty" minimum:"0" maximum:"14" doc:"With more than 1 mm, of the last 14"`
	MildewDays int     `json:"mildew_days,omitempty" minimum:"0" maximum:"21" doc:"Warm (mean 18 to 27 °C) and close, without rain on the leaf, of the last 21"`
	Gale       bool    `json:"gale,omitempty"`
	DryingWind bool    `json:"drying_wind,omitempty" doc:"A spell of cold dry wind in the last 90 days"`
}

// SpotIn is where a plant stands.
type SpotIn struct {
	Wet     bool     `json:"wet,omitempty" doc:"Water stands there after rain"`
	Sun     *float64 `json:"sun,omitempty" minimum:"0" maximum:"1" doc:"0 shade to 1 sun all day"`
	PotL    float64  `json:"pot_l,omitempty" minimum:"0" doc:"Litres of its pot; 0 in the ground"`
	HeightM float64  `json:"height_m,omitempty" minimum:"0"`
	Years   int      `json:"years,omitempty" minimum:"0" doc:"Since it was planted; 0 not known"`
	CutHard bool     `json:"cut_hard,omitempty" doc:"Cut hard within the year"`
	Lost    bool     `json:"neighbour_cut,omitempty" doc:"What shaded it was cut back or taken out within the year"`
	Thirsty bool     `json:"big_neighbour,omitempty" doc:"A large tree or hedge within two of its heights"`
}

// CauseOut is what it comes to.
type CauseOut struct {
	cause.Diagnosis
	Species string          `json:"species" doc:"Common name; empty where nobody knows the plant"`
	Known   map[string]bool `json:"known" doc:"Signs that the record answers by itself: there, or not there"`
}

// signs are what inline weather and place answer.
func (in CauseIn) signs() map[string]bool {
	out := map[string]bool{}
	if w := in.Weather; w != nil {
		maps.Copy(
			out,
			cause.Lately{
				Days:   30,
				MinC:   w.MinC,
				MaxC:   w.MaxC,
				Rain30: w.RainMM,
				Rain21: 0.7 * w.RainMM,
				Wet14:  w.WetDays,
				Mildew: w.MildewDays,
				Gale:   w.Gale,
				Drying: w.DryingWind,
			}.Signs(),
		)
	}
	if s := in.Place; s != nil {
		sun := -1.0
		if s.Sun != nil {
			sun = *s.Sun
		}
		maps.Copy(
			out,
			cause.Spot{
				Wet:        s.Wet,
				Sun:        sun,
				PotL:       s.PotL,
				HeightM:    s.HeightM,
				Years:      s.Years,
				CutHard:    s.CutHard,
				NeighbourC: s.Lost,
				Thirsty:    s.Thirsty,
			}.Signs(),
		)
	}
	return out
}

// ReckonCause names causes by what was seen, storing nothing.
func (h *Room) ReckonCause(ctx context.Context, in CauseIn) (CauseOut, error) {
	k, err := h.caseOfSigns(ctx, in)
	if err != nil {
		return CauseOut{Diagnosis: cause.Diagnosis{}}, err
	}
	d, err := cause.Built().Diagnose(k)
	out := CauseOut{Diagnosis: d, Known: k.Known}
	if k.Species != nil {
		out.Species = k.Species.Common
	}
	return out, err
}

// caseOfSigns joins what was seen with the plant, the season, and what the record knows.
func (h *Room) caseOfSigns(ctx context.Context, in CauseIn) (cause.Case, error) {
	var bad invalid.Fields
	k := cause.Case{Seen: in.Seen, Absent: in.Absent, Skipped: in.Skipped, Share: in.Share, Known: in.signs()}
	var plant *store.Plant
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return k, err
		}
		plant, in.Property = &p, p.PropertyID
		if in.Species == "" {
			in.Species = p.Species
		}
	}
	if in.Species != "" {
		book, err := h.Book(ctx)
		if err != nil {
			return k, err
		}
		e, err := book.Species(in.Species)
		if err != nil {
			bad.Add("species", in.Species, "%v", err)
		}
		k.Species = &e
	}
	south := false
	if in.Climate != nil || in.Property != 0 {
		y, pl, err := h.YearOf(ctx, in.Climate, in.Property)
		if errors.Is(err, store.ErrNotFound) {
			return k, err
		}
		bad = append(bad, invalid.Of(err)...)
		if err == nil {
			south = y.Normals.Climate.South()
			k.Warmth = y.DegreeDays(h.DateOr(in.Date))
			k.Site = cause.SiteOf(y.Normals, h.DateOr(in.Date))
		}
		if pl != nil && h.DateOr(in.Date) == h.Today() {
			if err := h.addRecord(ctx, &k, pl, plant); err != nil {
				return k, err
			}
		}
	}
	k.Month = cause.Northern(int(h.DateOr(in.Date).Month()), south)
	bad = append(bad, invalid.Of(cause.Built().Validate(k))...)
	return k, bad.Err()
}

// addRecord adds what the record knows; what was given inline stands.
func (h *Room) addRecord(ctx context.Context, k *cause.Case, pl *estate.Place, plant *store.Plant) error {
	known, err := h.knownOf(ctx, pl, plant)
	if err != nil {
		return err
	}
	maps.Copy(known, k.Known)
	k.Known = known
	if k.Ours, err = h.Learn.Ours(ctx); err != nil {
		return err
	}
	finds, err := h.founds(ctx)
	if err != nil || len(finds) == 0 {
		return err
	}
	properties, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return err
	}
	at := cause.Standing{Property: pl.Property.ID, Species: k.Species}
	if plant != nil {
		at.Plant = plant.ID
	}
	k.Near = cause.Built().Nearby(finds, at, h.between(properties, pl.Book), pl.Today)
	return nil
}

// Signs are all that can be seen, by part.
func (h *Room) Signs() []cause.Sign { return cause.Built().Signs }
