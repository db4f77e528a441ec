package treat

import (
	"context"
	"errors"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/core/treatment"
	"mezzadro/house/cuts"
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
	RowM     float64           `json:"row_m,omitempty" minimum:"0" maximum:"1000" doc:"Length of the row or hedge a group stands in, m"`
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
func (h *Room) ReckonTreatment(ctx context.Context, in TreatmentIn) (treatment.Answer, error) {
	var none treatment.Answer
	var bad invalid.Fields
	if in.Plant != 0 {
		p, err := h.Store.Plant(ctx, in.Plant)
		if err != nil {
			return none, err
		}
		size := cuts.PruningIn{Species: in.Species, HeightM: in.HeightM, SpreadM: in.SpreadM, Count: in.Count, RowM: in.RowM}
		size.Sized(p)
		in.Species, in.Property, in.HeightM, in.SpreadM, in.Count, in.RowM = size.Species, size.Property, size.HeightM, size.SpreadM, size.Count, size.RowM
		in.Shade = in.Shade || treatment.Shaded(p.Sun)
	}
	book, err := h.Book(ctx)
	if err != nil {
		return none, err
	}
	e, err := book.Species(in.Species)
	if err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	y, pl, err := h.YearOf(ctx, in.Climate, in.Property)
	if errors.Is(err, store.ErrNotFound) {
		return none, err
	}
	bad = append(bad, invalid.Of(err)...)
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
		RowM:     in.RowM,
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
		ask.Place, ask.Rules = pl.Cuts.Place, pl.Rules
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
		if err := invalid.Under("house_rules", in.Rules.Validate()); err != nil {
			return none, err
		}
	}
	if ask.Cards, err = h.cardsFor(ctx, in.Cards); err != nil {
		return none, err
	}
	return treatment.Built().Plan(ask)
}
