package house

import (
	"cmp"
	"context"
	"errors"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/core/treatment"
	"mezzadro/store"
)

// TreatmentIn asks what is done about a cause.
type TreatmentIn struct {
	Cause    string            `json:"cause" maxLength:"60" doc:"Id in the book of causes"`
	Prevent  bool              `json:"prevent,omitempty" doc:"It is not there yet"`
	Species  string            `json:"species,omitempty" doc:"Catalogue id; may be left out where a plant is named"`
	Plant    int64             `json:"plant,omitempty" doc:"A plant's id: its species, its property and its size count"`
	Date     day.Day           `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate   `json:"climate,omitempty"`
	Property int64             `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	Share    float64           `json:"share,omitempty" doc:"Of the leaves or shoots that show it, 0 to 1; not told when absent"`
	Count    int               `json:"count,omitempty" doc:"Plants of a group; one when absent"`
	Affected int               `json:"affected,omitempty" doc:"How many of them show it"`
	HeightM  float64           `json:"height_m,omitempty"`
	SpreadM  float64           `json:"spread_m,omitempty"`
	BedM2    float64           `json:"bed_m2,omitempty" doc:"Area of the bed; as wide as the crowns when absent"`
	Value    float64           `json:"value,omitempty" minimum:"0" maximum:"4" doc:"The client's weight, 1 ordinary"`
	Helpers  bool              `json:"helpers,omitempty" doc:"Hunters or parasitised ones are seen"`
	Shade    bool              `json:"shade,omitempty" doc:"It stands in shade"`
	Harvest  day.Day           `json:"harvest,omitempty" format:"date" doc:"When it is eaten from next"`
	History  []treatment.Use   `json:"history,omitempty" maxItems:"200" doc:"What was used or done, with the rain that followed"`
	Weather  []treatment.Ahead `json:"weather,omitempty" maxItems:"60" doc:"Of the days to come, as far as it is told"`
	Cards    []treatment.Card  `json:"cards,omitempty" maxItems:"100" doc:"Product cards; the firm's own when absent"`
	Rules    *rules.House      `json:"house_rules,omitempty" doc:"The firm's when absent"`
}

// ReckonTreatment decides what is done from inline values or a kept plant, storing nothing.
func (h *House) ReckonTreatment(ctx context.Context, in TreatmentIn) (treatment.Answer, error) {
	var none treatment.Answer
	var bad invalid.Fields
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return none, err
		}
		size := PruningIn{Species: in.Species, HeightM: in.HeightM, SpreadM: in.SpreadM, Count: in.Count}
		size.sized(p)
		in.Species, in.Property, in.HeightM, in.SpreadM, in.Count = size.Species, size.Property, size.HeightM, size.SpreadM, size.Count
		in.Shade = in.Shade || p.Sun < shadyBelow
	}
	book, err := h.Book(ctx)
	if err != nil {
		return none, err
	}
	e, err := book.Species(in.Species)
	if err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	y, pl, err := h.yearOf(ctx, in.Climate, in.Property)
	if errors.Is(err, store.ErrNotFound) {
		return none, err
	}
	bad = append(bad, fields(err)...)
	if bad != nil {
		return none, bad
	}
	ask := treatment.Ask{
		Cause:    in.Cause,
		Prevent:  in.Prevent,
		Species:  &e,
		Date:     h.DateOr(in.Date),
		Share:    in.Share,
		Count:    in.Count,
		Affected: in.Affected,
		HeightM:  in.HeightM,
		SpreadM:  in.SpreadM,
		BedM2:    in.BedM2,
		Value:    in.Value,
		Helpers:  in.Helpers,
		Shade:    in.Shade,
		Harvest:  in.Harvest,
		Uses:     in.History,
		Ahead:    in.Weather,
		Cards:    in.Cards,
	}
	if pl != nil {
		ask.Place, ask.Rules = pl.Cuts.Place, pl.rules
	} else {
		ask.Place = moment.At(y)
		f, err := h.Firm(ctx)
		if err != nil {
			return none, err
		}
		ask.Rules = f.Rules.V
	}
	if in.Rules != nil {
		ask.Rules = *in.Rules
		if err := belowField("house_rules", in.Rules.Validate()); err != nil {
			return none, err
		}
	}
	if in.Cards == nil {
		if ask.Cards, err = h.cards(ctx); err != nil {
			return none, err
		}
	}
	return treatment.Built().Plan(ask)
}

// shadyBelow is the share of sun from which down a plant stands in shade.
const shadyBelow = 0.35

// FeedingIn asks when and with what a plant is fed.
type FeedingIn struct {
	Species  string          `json:"species,omitempty" doc:"Catalogue id; may be left out where a plant is named"`
	Plant    int64           `json:"plant,omitempty" doc:"A plant's id: its species, its property, its pot and what winter did to it count"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	PotL     float64         `json:"pot_l,omitempty" minimum:"0" doc:"Litres of its pot; 0 in the ground"`
	Hurt     bool            `json:"hurt,omitempty" doc:"By frost, and not in growth yet"`
	PH       float64         `json:"ph,omitempty" minimum:"0" doc:"Of its soil; not measured when absent"`
	Rules    *rules.House    `json:"house_rules,omitempty" doc:"The firm's when absent"`

	Count     int              `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"Plants of a group; one when absent"`
	HeightM   float64          `json:"height_m,omitempty" minimum:"0" maximum:"60"`
	SpreadM   float64          `json:"spread_m,omitempty" minimum:"0" maximum:"40"`
	BedM2     float64          `json:"bed_m2,omitempty" minimum:"0" doc:"Area of the bed; as wide as the crowns when absent"`
	CompostCM float64          `json:"compost_cm,omitempty" minimum:"0" doc:"How deep; 2 when absent"`
	MulchCM   float64          `json:"mulch_cm,omitempty" minimum:"0" doc:"How deep; 5 when absent"`
	Cards     []treatment.Card `json:"cards,omitempty" maxItems:"100" doc:"Product cards; the firm's own when absent"`
}

// ReckonFeeding tells when and with what a plant is fed, storing nothing.
func (h *House) ReckonFeeding(ctx context.Context, in FeedingIn) (treatment.Feeding, error) {
	ask, err := h.feedAsk(ctx, in)
	if err != nil {
		return treatment.Feeding{}, err
	}
	return treatment.Feed(ask)
}

// feedAsk joins what is asked with a kept plant, its property and the firm's cards.
func (h *House) feedAsk(ctx context.Context, in FeedingIn) (treatment.FeedAsk, error) {
	none := treatment.FeedAsk{}
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return none, err
		}
		in.Property = p.PropertyID
		in.Species, in.PotL = cmp.Or(in.Species, p.Species), cmp.Or(in.PotL, p.PotL)
		in.Count, in.HeightM, in.SpreadM = cmp.Or(
			in.Count,
			p.Count,
		), cmp.Or(
			in.HeightM,
			p.HeightM,
		), cmp.Or(
			in.SpreadM,
			p.SpreadM,
		)
	}
	book, err := h.Book(ctx)
	if err != nil {
		return none, err
	}
	e, err := book.Species(in.Species)
	if err != nil {
		return none, Refuse("species", in.Species, err.Error())
	}
	y, pl, err := h.yearOf(ctx, in.Climate, in.Property)
	if err != nil {
		return none, err
	}
	ask := treatment.FeedAsk{
		Species:   &e,
		Date:      h.DateOr(in.Date),
		PotL:      in.PotL,
		Hurt:      in.Hurt,
		PH:        in.PH,
		Count:     in.Count,
		HeightM:   in.HeightM,
		SpreadM:   in.SpreadM,
		BedM2:     in.BedM2,
		CompostCM: in.CompostCM,
		MulchCM:   in.MulchCM,
		Cards:     in.Cards,
	}
	if in.Cards == nil {
		if ask.Cards, err = h.cards(ctx); err != nil {
			return none, err
		}
	}
	if pl != nil {
		ask.Place, ask.Rules = pl.Cuts.Place, pl.rules
	} else {
		ask.Place = moment.At(y)
	}
	if in.Rules != nil {
		ask.Rules = *in.Rules
		if err := belowField("house_rules", in.Rules.Validate()); err != nil {
			return none, err
		}
	}
	return ask, nil
}
