package house

import (
	"context"
	"math"
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

	rules  rules.House
	mu     *sync.Mutex
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
	return h.placeOf(ctx, p)
}

func (h *House) placeOf(ctx context.Context, p store.Property) (*Place, error) {
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
		if k := kept.(*Place); k.Today == today && k.Book == book && k.rules == here && k.Property.Version == p.Version &&
			k.Property.WeatherRev == p.WeatherRev {
			fresh := *k
			fresh.Property = p
			return &fresh, nil
		}
	}
	zone, err := time.LoadLocation(p.Zone)
	if err != nil {
		return nil, err
	}
	n := h.normals(p)
	from := RecordFrom(n.Climate, today)
	// What comes after the day one stands on is not known yet, though the record may hold it.
	hours, err := h.Store.Weather(ctx, p.ID, from.Time(), h.known(today, zone))
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
		rules:    here,
		mu:       &sync.Mutex{},
		stages:   map[stageOf]func(day.Day) catalogue.Stage{},
	}
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

// midnight is the start of a civil day in a zone.
func midnight(d day.Day, zone *time.Location) time.Time {
	return time.Date(d.Year(), d.Month(), d.DayOfMonth(), 0, 0, 0, 0, zone)
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

// stage is where a species' growth stands here on a day.
func (p *Place) stage(e *catalogue.Entry, x day.Day) catalogue.Stage {
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

// caseOf is a plant as the core's triage takes it.
func caseOf(p store.Plant, e catalogue.Entry, at store.Property) cold.Case {
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
	return p.Course.Look(c, func(x day.Day) catalogue.Stage { return p.stage(&c.Species, x) }, p.Today)
}

// Event is something the weather did, in words and figures.
type Event struct {
	Kind       string   `json:"kind" enum:"freeze,late frost,drying wind,heat,wet spell,gale"`
	PropertyID int64    `json:"property_id"`
	Property   string   `json:"property"`
	From       day.Day  `json:"from" format:"date"`
	To         day.Day  `json:"to" format:"date"`
	Peak       day.Day  `json:"peak" format:"date"`
	Value      float64  `json:"value" doc:"At the peak: °C, m/s for a gale, mm in a week for a wet spell, kPa·h for a drying wind"`
	Unit       string   `json:"unit"`
	Threshold  float64  `json:"threshold" doc:"From where it counts as an event here, in the same unit"`
	Hours      int      `json:"hours" doc:"Of frost, unbroken but for short thaws; else past the threshold"`
	FallC      float64  `json:"fall_c" doc:"Suddenness of a frost: how far the minimum fell within 72 h"`
	BeforeOffC *float64 `json:"before_off_c" doc:"Cold: how much warmer than normal the fortnight before was; null without a record"`
	Hardened   float64  `json:"hardened" doc:"How hardened plants were that day, 0 in growth to 1 in midwinter"`
	Story      string   `json:"story"`
}

var unitOf = map[string]string{
	weather.Freeze:    "°C",
	weather.LateFrost: "°C",
	weather.Heat:      "°C",
	weather.Gale:      "m/s",
	weather.Wet:       "mm",
	cold.DryingWind:   "kPa·h",
}

func (p *Place) TellEvent(e *cold.Struck) Event {
	out := Event{
		Kind:       e.Kind,
		PropertyID: p.Property.ID,
		Property:   p.Property.Name,
		From:       p.day(e.From),
		To:         p.day(e.To),
		Peak:       e.Day,
		Value:      Tenth(e.Value),
		Unit:       unitOf[e.Kind],
		Threshold:  Tenth(e.Threshold),
		Hours:      e.Hours,
		FallC:      Tenth(e.FallC),
		Hardened:   math.Round(100*e.Hardened.Usual()) / 100,
		Story:      cold.Story(e.Event),
	}
	if e.Cold() && !math.IsNaN(e.BeforeC) {
		v := Tenth(e.BeforeOffC)
		out.BeforeOffC = &v
	}
	return out
}

func (p *Place) TellEvents() []Event {
	out := []Event{}
	for i := range p.Course.Events {
		out = append(out, p.TellEvent(&p.Course.Events[i]))
	}
	return out
}

// Season is what the ribbon draws: one garden year of a property, a figure a day from From.
type Season struct {
	From        day.Day    `json:"from" format:"date"`
	To          day.Day    `json:"to" format:"date" doc:"First day of the next garden year"`
	Today       day.Day    `json:"today" format:"date"`
	NormalMin   []float64  `json:"normal_min" doc:"°C"`
	NormalMax   []float64  `json:"normal_max" doc:"°C"`
	SeenMin     []*float64 `json:"seen_min" doc:"Observed minimum, °C; null where not observed"`
	SeenMax     []*float64 `json:"seen_max"`
	Frost       []float64  `json:"frost" doc:"Chance of a night under 0 °C"`
	DegreeDays  float64    `json:"degree_days" doc:"Base 10 °C, from midwinter to today"`
	Ticks       []Tick     `json:"ticks" doc:"When round sums of degree-days are reached, with days ahead as normal"`
	LastFrost   *BandDays  `json:"last_frost" doc:"Of the coming spring; null where hardly any is to come"`
	FirstFrost  *BandDays  `json:"first_frost" doc:"Of the coming autumn; null where most years have none"`
	FrostToCome float64    `json:"frost_to_come" doc:"Chance of another night under 0 °C before midsummer, 0 to 1"`
	KillToCome  float64    `json:"killing_to_come" doc:"The same for a killing frost, −2.2 °C"`
	Events      []Event    `json:"events"`
	Source      string     `json:"source" doc:"Where the observed weather comes from; empty without any"`
	ObservedTo  day.Day    `json:"observed_to" format:"date" doc:"Empty without observed weather"`
	ExtremeMinC float64    `json:"extreme_min_c"`
}

// Tick is the day on which a round sum of degree-days is reached.
type Tick struct {
	Day day.Day `json:"day" format:"date"`
	Sum int     `json:"sum" doc:"°C·days"`
}

// BandDays is a season.Band for the door.
type BandDays struct {
	Early day.Day `json:"early" format:"date"`
	Mid   day.Day `json:"mid" format:"date"`
	Late  day.Day `json:"late" format:"date"`
}

// tickSums are the degree-day sums marked on the ribbon.
var tickSums = []int{
	10,
	25,
	50,
	100,
	150,
	200,
	300,
	400,
	500,
	600,
	800,
	1000,
	1200,
	1400,
	1600,
	1800,
	2000,
	2250,
	2500,
	2750,
	3000,
	3500,
	4000,
}

func (p *Place) TellSeason() Season {
	from, to := p.Normals.Climate.GardenYear(p.Today)
	out := Season{
		From:        from,
		To:          to,
		Today:       p.Today,
		Events:      p.TellEvents(),
		Source:      p.Property.WeatherSource,
		Ticks:       []Tick{},
		ObservedTo:  p.Year.LastObserved(),
		DegreeDays:  math.Round(p.Year.DegreeDays(p.Today)),
		ExtremeMinC: Tenth(p.Normals.Climate.ExtremeMinC),
	}
	next := 0
	for d := from; d < to; d++ {
		out.NormalMin = append(out.NormalMin, Tenth(p.Normals.TMin.At(d)))
		out.NormalMax = append(out.NormalMax, Tenth(p.Normals.TMax.At(d)))
		out.Frost = append(out.Frost, math.Round(100*p.Normals.FrostChance(d, 0))/100)
		var lo, hi *float64
		if e, seen := p.Year.Extremes(d); seen {
			a, b := Tenth(e.Min), Tenth(e.Max)
			lo, hi = &a, &b
		}
		out.SeenMin, out.SeenMax = append(out.SeenMin, lo), append(out.SeenMax, hi)
		if d < p.Normals.Climate.Midwinter(p.Today) {
			continue
		}
		sum := p.Year.DegreeDays(d)
		for ; next < len(tickSums) && sum >= float64(tickSums[next]); next++ {
			out.Ticks = append(out.Ticks, Tick{d, tickSums[next]})
		}
	}
	chance := func(limit float64) float64 {
		return math.Round(100*p.Normals.FrostToCome(p.Today, p.Today, limit)[0]) / 100
	}
	out.FrostToCome, out.KillToCome = chance(0), chance(season.KillingFrostC)
	if b, ok := p.Normals.LastFrost(p.Today, 0); ok {
		out.LastFrost = &BandDays{b.Early, b.Mid, b.Late}
	}
	if b, ok := p.Year.FirstFrost(p.Today, 0); ok {
		out.FirstFrost = &BandDays{b.Early, b.Mid, b.Late}
	}
	return out
}

// Tenth rounds a figure to what it is good for.
func Tenth(v float64) float64 { return math.Round(v*10) / 10 }
