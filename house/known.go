package house

import (
	"context"
	"maps"

	"github.com/paulmach/orb"
	"github.com/paulmach/orb/geo"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/cold"
	"mezzadro/core/job"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// How far back the record is asked for what bears on a plant, days.
const (
	dryingBack  = 90
	frozenBack  = 150
	workBack    = 365
	frozenPotC  = -5.0 // a night that goes through a small pot
	frozenPotL  = 40.0
	findsBack   = 4 * 365 // soil fungi are remembered for years
	hardlyABite = 0.5     // metres of height below which taking a neighbour out changes no light
)

// lately is the weather of the last weeks at a place.
func (p *Place) lately(hours []weather.Hour) cause.Lately {
	l := cause.LatelyOf(hours, p.Zone, p.Today)
	for _, e := range p.Course.Events {
		l.Drying = l.Drying || e.Kind == cold.DryingWind && e.Day >= p.Today-dryingBack && e.Day <= p.Today
	}
	return l
}

// knownOf is what the record tells of a property's weeks and of a plant's place and work; p is nil where no plant is named.
func (h *House) knownOf(ctx context.Context, pl *Place, p *store.Plant) (map[string]bool, error) {
	out := pl.Lately.Signs()
	if p == nil {
		return out, nil
	}
	e := p.Exposure.Or(pl.Property.Exposure.V)
	s := cause.Spot{Wet: e.Wet, Sun: p.Sun, PotL: p.PotL, HeightM: p.HeightM, Years: h.years(*p)}
	for _, ev := range pl.Course.Events {
		s.PotFrozen = s.PotFrozen || p.PotL > 0 && p.PotL < frozenPotL && ev.Kind == weather.Freeze && ev.Value <= frozenPotC && ev.Day >= pl.Today-frozenBack
	}
	done, err := h.Store.DoneSince(ctx, p.PropertyID, (pl.Today - workBack).String())
	if err != nil {
		return nil, err
	}
	for _, d := range done {
		switch job.Kind(d.Kind) {
		case job.CutBack, job.CutToBase:
			s.CutHard = s.CutHard || d.PlantID.Valid && d.PlantID.Int64 == p.ID
			s.NeighbourC = s.NeighbourC || d.PlantID.Valid && d.PlantID.Int64 != p.ID && h.shades(ctx, d.PlantID.Int64, p)
		case job.Replace:
			s.NeighbourC = s.NeighbourC || d.PlantID.Valid && d.PlantID.Int64 != p.ID && h.shades(ctx, d.PlantID.Int64, p)
		}
	}
	maps.Copy(out, s.Signs())
	return out, nil
}

// shades reports a neighbour on the way round that may have shaded a plant: one stop off at most, and taller.
func (h *House) shades(ctx context.Context, neighbour int64, p *store.Plant) bool {
	n, err := h.Store.Plant(ctx, neighbour)
	if err != nil || n.Stop == 0 || p.Stop == 0 {
		return false
	}
	return n.Stop-p.Stop <= 1 && p.Stop-n.Stop <= 1 && n.HeightM > p.HeightM+hardlyABite
}

// founds are the finds that may still tell something.
func (h *House) founds(ctx context.Context) ([]cause.Found, error) {
	rows, err := h.Store.Finds(ctx, store.FindsOf{Since: (h.Today() - findsBack).String(), Limit: all})
	if err != nil {
		return nil, err
	}
	out := make([]cause.Found, len(rows))
	for i, f := range rows {
		out[i] = cause.Found{ID: f.ID, Cause: f.Cause, Plant: f.PlantID.Int64, Property: f.PropertyID, Day: parsed(&f.Day), Certainty: f.Certainty, Closed: f.State == "closed"}
	}
	return out, nil
}

// between tells how far apart properties are. Where the coordinates are still those of the climate type nobody knows.
func (h *House) between(properties []store.Property, book *catalogue.Catalogue) cause.Between {
	at := map[int64]orb.Point{}
	for _, p := range properties {
		c := p.Climate.V
		t, err := book.Climate(p.ClimateType)
		if err == nil && t.Climate.Latitude == c.Latitude && t.Climate.Longitude == c.Longitude {
			continue
		}
		at[p.ID] = orb.Point{c.Longitude, c.Latitude}
	}
	return func(a, b int64) float64 {
		x, knownX := at[a]
		y, knownY := at[b]
		if !knownX || !knownY {
			return -1
		}
		return geo.DistanceHaversine(x, y) / 1000
	}
}
