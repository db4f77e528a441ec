package walks

import (
	"context"
	"errors"

	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// DamageIn asks for a verdict from inline values. The climate is given in full, or a property's is used, with the
// weather observed there.
type DamageIn struct {
	Species  string          `json:"species" doc:"Catalogue id"`
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id"`
	HeightM  float64         `json:"height_m" doc:"The plant's height before the damage, m"`
	GraftM   float64         `json:"graft_m,omitempty" doc:"Height of the graft, m"`
	Count    int             `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"Plants kept as one; one when absent. A sample check tells of the others"`
	Years    int             `json:"years,omitempty" minimum:"0" maximum:"2000" doc:"Since it was planted"`
	estate.Standing
	Checks []check.Check    `json:"checks" maxItems:"500"`
	Found  []damage.Earlier `json:"found,omitempty" maxItems:"60" doc:"What was found on earlier days, which still tells"`
	Cuts   []damage.Cut     `json:"cuts,omitempty" maxItems:"60" doc:"Cuts since then, each with the height it was cut to"`
}

// ReckonDamage is the verdict on a plant from inline values, storing nothing.
func (h *Room) ReckonDamage(ctx context.Context, in DamageIn) (damage.Answer, error) {
	var bad invalid.Fields
	book, err := h.Book(ctx)
	if err != nil {
		return damage.Answer{}, err
	}
	e, err := book.Species(in.Species)
	if err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	stands := store.Plant{HeightM: in.HeightM, SpreadM: in.HeightM * 2 / 3, Count: max(1, in.Count), Value: 1}
	in.Standing.Set(&stands)
	q := damage.Question{
		Plant:   estate.CheckedPlant(stands, e, in.Years),
		Today:   h.DateOr(in.Date),
		Checks:  in.Checks,
		Earlier: in.Found,
		Cuts:    in.Cuts,
		Around:  estate.Around(stands, store.Property{}),
	}
	q.Plant.GraftM = in.GraftM
	var at *estate.Place
	q.Year, at, err = h.YearOf(ctx, in.Climate, in.Property)
	if errors.Is(err, store.ErrNotFound) {
		return damage.Answer{}, err
	} else if err != nil {
		bad = append(bad, invalid.Of(err)...)
	}
	bad = append(bad, invalid.Of(in.Standing.Validate())...)
	if at != nil && bad == nil {
		q.Around, q.CutsAt = estate.Around(stands, at.Property), at.Cuts
		if q.Today == at.Today {
			q.Forecast = at.Forecast(stands, e)
		}
	}
	bad = append(bad, invalid.Of(q.Validate())...)
	if bad != nil {
		return damage.Answer{}, bad
	}
	return damage.Judge(q)
}
