package finds

import (
	"context"
	"maps"

	"github.com/paulmach/orb"
	"github.com/paulmach/orb/geo"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/weather"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// How far back the record is asked for what bears on a plant, days.
const (
	frozenBack = 150
	workBack   = 365
)

// knownOf is what the record tells of a property's weeks and of a plant's place and work; p is nil where no plant is
// named.
func (h *Room) knownOf(ctx context.Context, pl *estate.Place, p *store.Plant) (map[string]bool, error) {
	out := pl.Lately.Signs()
	if p == nil {
		return out, nil
	}
	done, err := h.Store.DoneSince(ctx, p.PropertyID, (pl.Today - workBack).String())
	if err != nil {
		return out, err
	}
	plants, err := h.Store.Plants(ctx, p.PropertyID, 0, store.All)
	maps.Copy(out, h.spotSigns(pl, p, byID(plants), done))
	return out, err
}

// byID are plants by their ids.
func byID(plants []store.Plant) map[int64]*store.Plant {
	out := make(map[int64]*store.Plant, len(plants))
	for i := range plants {
		out[plants[i].ID] = &plants[i]
	}
	return out
}

// spotSigns is what the record tells of a plant's place and of the work that was done on its property.
func (h *Room) spotSigns(
	pl *estate.Place,
	p *store.Plant,
	near map[int64]*store.Plant,
	done []store.DoneWork,
) map[string]bool {
	e := p.Exposure.Or(pl.Property.Exposure.V)
	s := cause.Spot{Wet: e.Wet, Sun: p.Sun, PotL: p.PotL, HeightM: p.HeightM, Years: h.YearsStood(*p)}
	for _, ev := range pl.Course.Events {
		s.PotFrozen = s.PotFrozen ||
			ev.Kind == weather.Freeze && cause.FreezesThrough(ev.Value, p.PotL) && ev.Day >= pl.Today-frozenBack
	}
	for _, d := range done {
		kind := job.Kind(d.Kind)
		if p := pruning.Purpose(d.Purpose); kind == job.Prune &&
			(p == pruning.Size || p == pruning.Renew || p == pruning.Raise) {
			kind = job.CutBack
		}
		switch kind {
		case job.CutBack, job.CutToBase:
			s.CutHard = s.CutHard || d.PlantID.Valid && d.PlantID.Int64 == p.ID
			s.NeighbourC = s.NeighbourC || d.PlantID.Valid && d.PlantID.Int64 != p.ID && shades(near[d.PlantID.Int64], p)
		case job.Replace:
			s.NeighbourC = s.NeighbourC || d.PlantID.Valid && d.PlantID.Int64 != p.ID && shades(near[d.PlantID.Int64], p)
		}
	}
	return s.Signs()
}

// KnownHere is what a device takes along to name causes without a connection.
type KnownHere struct {
	Month  int                    `json:"month" doc:"Of the northern year: half a year on in the south"`
	Warmth float64                `json:"warmth" doc:"Degree-days over 10 °C since midwinter"`
	Site   cause.Site             `json:"site"`
	Known  map[string]bool        `json:"known" doc:"Signs that the weather answers by itself: there, or not there"`
	Ours   map[string]float64     `json:"ours,omitempty" doc:"By cause: how much oftener the firm finds it than the book lets expect, where that is beyond chance"`
	Plants map[int64]KnownOfPlant `json:"plants" doc:"By plant: what its place and work answer beside it"`
}

// KnownOfPlant is what the record knows of one plant.
type KnownOfPlant struct {
	Known map[string]bool    `json:"known"`
	Near  map[string]float64 `json:"near,omitempty" doc:"By cause: how much likelier it is, as it was found nearby"`
}

// KnownHere tells it of a property.
func (h *Room) KnownHere(ctx context.Context, property int64) (KnownHere, error) {
	pl, err := h.Place(ctx, property)
	if err != nil {
		return KnownHere{}, err
	}
	out := KnownHere{
		Month:  cause.Northern(int(pl.Today.Month()), pl.Normals.Climate.South()),
		Warmth: pl.Year.DegreeDays(pl.Today),
		Site:   cause.SiteOf(pl.Normals, pl.Today),
		Known:  pl.Lately.Signs(),
		Plants: map[int64]KnownOfPlant{},
	}
	if out.Ours, err = h.Learn.Ours(ctx); err != nil {
		return out, err
	}
	done, err := h.Store.DoneSince(ctx, property, (pl.Today - workBack).String())
	if err != nil {
		return out, err
	}
	finds, err := h.founds(ctx)
	if err != nil {
		return out, err
	}
	properties, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return out, err
	}
	plants, err := h.Store.Plants(ctx, property, 0, store.All)
	if err != nil {
		return out, err
	}
	between, here := h.between(properties, pl.Book), byID(plants)
	for i := range plants {
		p := &plants[i]
		e := estate.EntryOf(pl.Book, p.Species)
		out.Plants[p.ID] = KnownOfPlant{h.spotSigns(pl, p, here, done),
			cause.Built().Nearby(finds, cause.Standing{Plant: p.ID, Property: property, Species: &e}, between, pl.Today)}
	}
	return out, nil
}

// shades reports a neighbour that may have shaded a plant; nil is one that is not there any more.
func shades(neighbour, p *store.Plant) bool {
	return neighbour != nil && cause.ShadedBy(p.Stop, neighbour.Stop, p.HeightM, neighbour.HeightM)
}

// founds are the finds that may still tell something.
func (h *Room) founds(ctx context.Context) ([]cause.Found, error) {
	rows, err := h.Store.Finds(ctx, store.FindsOf{Since: cause.TellsSince(h.Today()).String(), Limit: store.All})
	if err != nil {
		return nil, err
	}
	out := make([]cause.Found, len(rows))
	for i, f := range rows {
		out[i] = cause.Found{
			ID:        f.ID,
			Cause:     f.Cause,
			Plant:     f.PlantID.Int64,
			Property:  f.PropertyID,
			Day:       store.DayOf(&f.Day),
			Certainty: f.Certainty,
			Closed:    f.State == "closed",
		}
	}
	return out, nil
}

// between tells how far apart properties are. Where the coordinates are still those of the climate type nobody knows.
func (h *Room) between(properties []store.Property, book *catalogue.Catalogue) cause.Between {
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
