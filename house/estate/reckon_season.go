package estate

import (
	"context"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// Simulated is how many years an outlook is made from.
const Simulated = 300

// SeasonIn asks where a climate stands in its year.
type SeasonIn struct {
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id, with the weather observed there"`
}

// SeasonOut is the outlook of the garden year.
type SeasonOut struct {
	Zone       string          `json:"zone" doc:"Hardiness zone of the mean yearly extreme minimum"`
	From       day.Day         `json:"garden_year_from" format:"date"`
	To         day.Day         `json:"garden_year_to" format:"date" doc:"First day of the next one"`
	DegreeDays float64         `json:"degree_days" doc:"Base 10 °C from midwinter to the date, with days not observed as normal"`
	Outlook    season.Outlook  `json:"outlook" doc:"From simulated years: an estimate, not a forecast"`
	Usual      *season.Outlook `json:"usual,omitempty" doc:"The same as if this year's weather were not known; where some is"`
	Reasons    []string        `json:"reasons"`
	Cautions   []string        `json:"cautions"`
}

// ReckonSeason says where a climate stands in its year.
func (h *House) ReckonSeason(ctx context.Context, in SeasonIn) (SeasonOut, error) {
	y, at, err := h.YearOf(ctx, in.Climate, in.Property)
	if err != nil {
		return SeasonOut{}, err
	}
	d := h.DateOr(in.Date)
	c := y.Normals.Climate
	from, to := c.GardenYear(d)
	simulate := func() season.Outlook { return y.Simulate(d, Simulated, 1) }
	var usual *season.Outlook
	if at != nil && d == at.Today {
		simulate = at.Outlook
		if y.LastObserved() != day.None {
			u := at.Usual()
			usual = &u
		}
	}
	o := SeasonOut{
		Zone:       season.Zone(c.ExtremeMinC),
		From:       from,
		To:         to,
		DegreeDays: quantity.Tenth(y.DegreeDays(d)),
		Outlook:    simulate(),
		Usual:      usual,
		Reasons: []string{
			"The zone follows from the mean yearly extreme minimum; the bands from 300 simulated years around the " +
				"monthly normals.",
		},
		Cautions: []string{},
	}
	tidy(&o.Outlook)
	if usual != nil {
		tidy(usual)
	}
	if last := y.LastObserved(); last != day.None {
		o.Reasons = append(
			o.Reasons,
			"Weather observed to "+quantity.Day(last)+" is taken as it was; only the days after it are simulated.",
		)
	}
	return o, nil
}

// tidy rounds an outlook to what it is good for, on a list of its own: the place keeps the unrounded one.
func tidy(o *season.Outlook) {
	round := func(s *season.Spread) {
		s.Low, s.Mid, s.High = quantity.Tenth(s.Low), quantity.Tenth(s.Mid), quantity.Tenth(s.High)
	}
	for _, s := range []*season.Spread{&o.HottestWeekC, &o.ChillHours, &o.ExtremeMinC} {
		round(s)
	}
	o.DegreeDays = slices.Clone(o.DegreeDays)
	for i := range o.DegreeDays {
		round(&o.DegreeDays[i].Spread)
	}
}

// YearOf is the year of an inline climate, or of a property with its weather; then the place is given too.
func (h *House) YearOf(ctx context.Context, c *season.Climate, property int64) (*season.Year, *Place, error) {
	switch {
	case c != nil:
		if err := c.Validate(); err != nil {
			var bad invalid.Fields
			bad.Below("climate", err)
			return nil, nil, bad
		}
		return season.NewYear(c.Daily(), nil), nil, nil
	case property != 0:
		p, err := h.Place(ctx, property)
		if err != nil {
			return nil, nil, err
		}
		return p.Year, p, nil
	}
	return nil, nil, invalid.One("climate", nil, "is missing: give a climate, or a property's id as property")
}
