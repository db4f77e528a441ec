package estate

import (
	"context"
	"sync"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/offset"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/core/walk"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// dryingBack is how long ago a drying wind may have been that still counts, days.
const dryingBack = 90

// lately is the weather of the last weeks at a place.
func (p *Place) lately(hours []weather.Hour) cause.Lately {
	l := cause.LatelyOf(hours, p.Zone, p.Today)
	for _, e := range p.Course.Events {
		l.Drying = l.Drying || e.Kind == cold.DryingWind && e.Day >= p.Today-dryingBack && e.Day <= p.Today
	}
	return l
}

// Place is a property with its season worked out: kept until its record, its weather, the book or the day changes.
type Place struct {
	*walk.Ground
	Property store.Property
	Zone     *time.Location
	Book     *catalogue.Catalogue
	Normals  *season.Normals       // on its site
	Outlook  func() season.Outlook // of simulated years, with what was observed
	Usual    func() season.Outlook // the same as if nothing had been observed
	Lately   cause.Lately          // the weather of the last weeks
	Sources  []WeatherFrom         // where its hours came from, the highest first
	SeenBy   map[day.Day]int       // by which rank most hours of a day were measured; days without any are missing

	Rules  rules.House
	curves *sync.Map // kinds.Ask → *Shared
	shown  *offset.Offsets
}

// Place is a property with its season.
func (h *House) Place(ctx context.Context, id int64) (*Place, error) {
	p, err := h.Store.Property(ctx, id)
	if err != nil {
		return nil, err
	}
	return h.PlaceOf(ctx, p)
}

func (h *House) PlaceOf(ctx context.Context, p store.Property) (*Place, error) {
	today := h.Today()
	book, err := h.Book(ctx)
	if err != nil {
		return nil, err
	}
	firm, err := h.Firm(ctx)
	if err != nil {
		return nil, err
	}
	here := p.Rules.V.Or(firm.Rules.V)
	var shown *offset.Offsets
	if h.Shown != nil {
		if shown, err = h.Shown(ctx); err != nil {
			return nil, err
		}
	}
	if kept, ok := h.places.Load(p.ID); ok {
		if k := kept.(*Place); k.Today == today && k.Book == book && k.Rules == here && k.Property.Version == p.Version &&
			k.Property.WeatherRev == p.WeatherRev {
			fresh := *k
			fresh.Property, fresh.shown = p, shown
			return &fresh, nil
		}
	}
	zone, err := time.LoadLocation(string(p.Zone))
	if err != nil {
		return nil, err
	}
	n := h.NormalsOf(p)
	hours, sources, err := h.hoursOn(ctx, p, n.Climate, zone)
	if err != nil {
		return nil, err
	}
	out := &Place{
		Ground:   walk.At(n, hours, zone, today, here),
		Property: p,
		Zone:     zone,
		Book:     book,
		Normals:  n,
		Rules:    here,
		curves:   &sync.Map{},
		shown:    shown,
	}
	out.from(sources, hours)
	out.Lately = out.lately(hours)
	out.Outlook = sync.OnceValue(func() season.Outlook { return out.Year.Simulate(today, Simulated, 1) })
	out.Usual = sync.OnceValue(func() season.Outlook { return season.NewYear(n, nil).Simulate(today, Simulated, 1) })
	h.places.Store(p.ID, out)
	return out, nil
}

// NormalsOf are those of a property's climate on its site, the same ones while its record is the same.
func (h *House) NormalsOf(p store.Property) *season.Normals {
	if kept, ok := h.places.Load(p.ID); ok && kept.(*Place).Property.Version == p.Version {
		return kept.(*Place).Normals
	}
	return ClimateOf(p).Daily()
}

// ClimateOf is a property's climate on its site.
func ClimateOf(p store.Property) season.Climate { return p.Climate.V.At(p.Site.V) }

// RecordFrom is the first day whose weather still matters on a day: the garden year's first, the late summer in which
// plants began to harden, or the weeks before the oldest event still looked at.
func RecordFrom(c season.Climate, today day.Day) day.Day {
	from, _ := c.GardenYear(today)
	return min(from, c.Midwinter(today)-140, today-cold.Recent-30)
}

// day is the civil day of t at the place.
func (p *Place) day(t time.Time) day.Day { return day.FromTime(t.In(p.Zone)) }

// hoursOn are the hours that still matter today as they were on a property's site, and where they came from. What comes
// after the day one stands on is not known yet, though the record may hold it.
func (h *House) hoursOn(
	ctx context.Context,
	p store.Property,
	c season.Climate,
	zone *time.Location,
) ([]weather.Hour, []store.WeatherSource, error) {
	hours, sources, err := h.Store.WeatherFrom(ctx, p.ID, RecordFrom(c, h.Today()).Time(), h.KnownUntil(h.Today(), zone))
	return weather.At(hours, p.Site.V, c.Longitude), sources, err
}

// HoursOf are the hours of a place that still matter today.
func (h *House) HoursOf(ctx context.Context, p *Place) ([]weather.Hour, error) {
	hours, _, err := h.hoursOn(ctx, p.Property, p.Normals.Climate, p.Zone)
	return hours, err
}

// OnWalk is a plant as a walk knows it, but for what was found on it; years is how long it has stood.
func OnWalk(p store.Plant, at store.Property, years int) walk.Plant {
	return walk.Plant{
		ID:       p.ID,
		Species:  p.Species,
		Label:    p.Label,
		HeightM:  p.HeightM,
		SpreadM:  p.SpreadM,
		GraftM:   p.GraftM,
		BaseMM:   p.BaseMM,
		PotL:     p.PotL,
		Years:    years,
		Count:    p.Count,
		Mulched:  p.Mulched,
		Value:    p.Value * at.Value,
		Shelter:  p.Shelter,
		Sun:      p.Sun,
		Exposure: p.Exposure.Or(at.Exposure.V),
		WarmWall: at.Site.V.WarmWall,
		MadeSafe: day.None,
	}
}

// CaseOf is a plant as the core's triage takes it.
func CaseOf(p store.Plant, e catalogue.Entry, at store.Property) cold.Case {
	w := OnWalk(p, at, 0)
	return w.Case(e, at.Climate.V.South())
}
