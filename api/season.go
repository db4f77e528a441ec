package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
)

// simulated is how many years an outlook is made from.
const simulated = 300

// SeasonIn asks where a climate stands in its year.
type SeasonIn struct {
	Date     day.Day         `json:"date,omitempty" format:"date" doc:"Today when absent"`
	Climate  *season.Climate `json:"climate,omitempty"`
	Property int64           `json:"property,omitempty" doc:"In place of a climate: a property's id, with the weather observed there"`
}

// SeasonOut is the outlook of the garden year.
type SeasonOut struct {
	Zone       string         `json:"zone" doc:"Hardiness zone of the mean yearly extreme minimum"`
	From       day.Day        `json:"garden_year_from" format:"date"`
	To         day.Day        `json:"garden_year_to" format:"date" doc:"First day of the next one"`
	DegreeDays float64        `json:"degree_days" doc:"Base 10 °C from midwinter to the date, with days not observed as normal"`
	Outlook    season.Outlook `json:"outlook" doc:"From simulated years: an estimate, not a forecast"`
	Reasons    []string       `json:"reasons"`
	Cautions   []string       `json:"cautions"`
}

func (s *Server) reckonSeason(ctx context.Context, in *struct{ Body SeasonIn }) (*Out[SeasonOut], error) {
	y, err := s.yearOf(ctx, in.Body.Climate, in.Body.Property)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	d := s.dateOr(in.Body.Date)
	c := y.Normals.Climate
	from, to := c.GardenYear(d)
	o := SeasonOut{Zone: season.Zone(c.ExtremeMinC), From: from, To: to, DegreeDays: tenth(y.DegreeDays(d)), Outlook: y.Simulate(d, simulated, 1),
		Reasons: []string{"The zone follows from the mean yearly extreme minimum; the bands from 300 simulated years around the monthly normals."}, Cautions: []string{}}
	if last := y.LastObserved(); last != day.None {
		o.Reasons = append(o.Reasons, "Weather observed to "+last.Words()+" is taken as it was; only the days after it are simulated.")
	}
	return out(o), nil
}

// yearOf is the year of an inline climate, or of a property with its weather.
func (s *Server) yearOf(ctx context.Context, c *season.Climate, property int64) (*season.Year, error) {
	switch {
	case c != nil:
		if err := c.Validate(); err != nil {
			var bad invalid.Fields
			bad.Below("climate", err)
			return nil, bad
		}
		return season.NewYear(c.Daily(), nil), nil
	case property != 0:
		p, err := s.place(ctx, property)
		if err != nil {
			return nil, err
		}
		return p.year, nil
	}
	return nil, refuse("climate", nil, "is missing: give a climate, or a property's id as property")
}

// dateOr is the date given, or today.
func (s *Server) dateOr(d day.Day) day.Day {
	if d == 0 || d == day.None {
		return s.Today()
	}
	return d
}

// SpeciesYear is an entry's own dates in this year at a place.
type SpeciesYear struct {
	LeafOut    *BandDays `json:"leaf_out" doc:"First leaves, or the new flush of an evergreen; null where the year never gets so warm"`
	BloomStart *BandDays `json:"bloom_start"`
	BloomEnd   *BandDays `json:"bloom_end"`
	Patience   day.Day   `json:"patience_date" format:"date" doc:"By this day a hurt plant, if alive, would have shown leaf"`
	Zone       string    `json:"zone" doc:"The place's hardiness zone"`
	SpareC     float64   `json:"spare_c" doc:"How much colder than the place's coldest night of a year the wood bears in midwinter, °C; negative: too tender"`
}

func (s *Server) speciesYear(ctx context.Context, in *struct {
	ID       string `path:"id"`
	Property int64  `query:"property" required:"true"`
}) (*Out[SpeciesYear], error) {
	e, err := s.Catalogue.Species(in.ID)
	if err != nil {
		return nil, huma.Error404NotFound(err.Error())
	}
	y, err := s.yearOf(ctx, nil, in.Property)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	today := s.Today()
	d := e.Dates(y, today)
	told := func(b season.Band, ok bool) *BandDays {
		if !ok {
			return nil
		}
		return &BandDays{b.Early, b.Mid, b.Late}
	}
	patience, _ := damage.PatienceDate(e, y, today)
	cold := y.Normals.Climate.ExtremeMinC
	return out(SpeciesYear{told(d.LeafOut, d.InLeaf), told(d.BloomStart, d.Blooms), told(d.BloomEnd, d.Blooms), patience, season.Zone(cold), tenth(cold - e.HardinessC)}), nil
}
