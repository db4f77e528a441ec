package estate

import (
	"context"
	"sync"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/rules"
	"mezzadro/core/season"
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
	Property store.Property
	Today    day.Day
	Zone     *time.Location
	Book     *catalogue.Catalogue
	Normals  *season.Normals // on its site
	Year     *season.Year
	Course   *cold.Course
	Outlook  func() season.Outlook // of simulated years, with what was observed
	Usual    func() season.Outlook // the same as if nothing had been observed
	Work     *job.Place            // what orders cost here
	Cuts     *pruning.Place        // what cuts ask of the year
	Lately   cause.Lately          // the weather of the last weeks
	Sources  []WeatherFrom         // where its hours came from, the highest first
	SeenBy   map[day.Day]int       // by which rank most hours of a day were measured; days without any are missing

	Rules  rules.House
	mu     *sync.Mutex
	curves *sync.Map // kinds.Ask → *Shared
	stages map[stageOf]func(day.Day) catalogue.Stage
}

type stageOf struct {
	species   string
	midwinter day.Day
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
	if kept, ok := h.places.Load(p.ID); ok {
		if k := kept.(*Place); k.Today == today && k.Book == book && k.Rules == here && k.Property.Version == p.Version &&
			k.Property.WeatherRev == p.WeatherRev {
			fresh := *k
			fresh.Property = p
			return &fresh, nil
		}
	}
	zone, err := time.LoadLocation(string(p.Zone))
	if err != nil {
		return nil, err
	}
	n := h.normals(p)
	from := RecordFrom(n.Climate, today)
	// What comes after the day one stands on is not known yet, though the record may hold it.
	hours, sources, err := h.Store.WeatherFrom(ctx, p.ID, from.Time(), h.KnownUntil(today, zone))
	if err != nil {
		return nil, err
	}
	hours = weather.At(hours, p.Site.V, n.Climate.Longitude)
	out := &Place{
		Property: p,
		Today:    today,
		Zone:     zone,
		Book:     book,
		Normals:  n,
		Rules:    here,
		mu:       &sync.Mutex{},
		curves:   &sync.Map{},
		stages:   map[stageOf]func(day.Day) catalogue.Stage{},
	}
	out.from(sources, hours)
	out.Year = season.NewYear(n, weather.Daily(hours, zone))
	out.Work = job.At(out.Year, here)
	out.Course = cold.Follow(out.Year, hours, zone, today)
	out.Cuts = pruning.At(out.Year)
	out.Lately = out.lately(hours)
	out.Outlook = sync.OnceValue(func() season.Outlook { return out.Year.Simulate(today, Simulated, 1) })
	out.Usual = sync.OnceValue(func() season.Outlook { return season.NewYear(n, nil).Simulate(today, Simulated, 1) })
	h.places.Store(p.ID, out)
	return out, nil
}

// normals are those of a property's climate on its site, the same ones while its record is the same.
func (h *House) normals(p store.Property) *season.Normals {
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

// Stage is where a species' growth stands here on a day.
func (p *Place) Stage(e *catalogue.Entry, x day.Day) catalogue.Stage {
	k := stageOf{e.ID, p.Normals.Climate.Midwinter(x)}
	p.mu.Lock()
	defer p.mu.Unlock()
	f, known := p.stages[k]
	if !known {
		f = e.Stages(p.Year, x)
		p.stages[k] = f
	}
	return f(x)
}

// CaseOf is a plant as the core's triage takes it.
func CaseOf(p store.Plant, e catalogue.Entry, at store.Property) cold.Case {
	return cold.Case{
		Plant: cold.Plant{
			Species:  e,
			HeightM:  p.HeightM,
			BaseMM:   p.BaseMM,
			PotL:     p.PotL,
			Shelter:  p.Shelter,
			Sun:      p.Sun,
			Mulched:  p.Mulched,
			Exposure: p.Exposure.Or(at.Exposure.V),
			South:    at.Climate.V.South(),
		},
		SpreadM: p.SpreadM,
		Count:   p.Count,
		Value:   p.Value * at.Value,
	}
}

// look is the most pressing reason to look at a plant here; ok is false where no event is recent.
func (p *Place) look(c *cold.Case) (cold.Look, bool) {
	return p.Course.Look(c, func(x day.Day) catalogue.Stage { return p.Stage(&c.Species, x) }, p.Today)
}
