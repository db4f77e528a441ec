package api

import (
	"context"
	"math"
	"sync"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// place is a property with its season worked out: kept until its record, its weather, the book or the day changes.
type place struct {
	property store.Property
	today    day.Day
	zone     *time.Location
	book     *catalogue.Catalogue
	normals  *season.Normals // on its site
	year     *season.Year
	course   *cold.Course
	outlook  func() season.Outlook // of simulated years, with what was observed
	usual    func() season.Outlook // the same as if nothing had been observed

	mu     *sync.Mutex
	stages map[stageOf]func(day.Day) catalogue.Stage
}

type stageOf struct {
	species   string
	midwinter day.Day
}

func (s *Server) place(ctx context.Context, id int64) (*place, error) {
	p, err := s.Store.Property(ctx, id)
	if err != nil {
		return nil, err
	}
	return s.placeOf(ctx, p)
}

func (s *Server) placeOf(ctx context.Context, p store.Property) (*place, error) {
	today := s.Today()
	book, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	if kept, ok := s.places.Load(p.ID); ok {
		if k := kept.(*place); k.today == today && k.book == book && k.property.Version == p.Version && k.property.WeatherRev == p.WeatherRev {
			fresh := *k
			fresh.property = p
			return &fresh, nil
		}
	}
	zone, err := time.LoadLocation(p.Zone)
	if err != nil {
		return nil, err
	}
	n := climateOf(p).Daily()
	from := recordFrom(n.Climate, today)
	// What comes after the day one stands on is not known yet, though the record may hold it.
	hours, err := s.Store.Weather(ctx, p.ID, from.Time(), midnight(today+1, zone))
	if err != nil {
		return nil, err
	}
	hours = weather.At(hours, p.Site.V, n.Climate.Longitude)
	out := &place{property: p, today: today, zone: zone, book: book, normals: n, mu: &sync.Mutex{}, stages: map[stageOf]func(day.Day) catalogue.Stage{}}
	out.year = season.NewYear(n, weather.Daily(hours, zone))
	out.course = cold.Follow(out.year, hours, zone, today)
	out.outlook = sync.OnceValue(func() season.Outlook { return out.year.Simulate(today, simulated, 1) })
	out.usual = sync.OnceValue(func() season.Outlook { return season.NewYear(n, nil).Simulate(today, simulated, 1) })
	s.places.Store(p.ID, out)
	return out, nil
}

// midnight is the start of a civil day in a zone.
func midnight(d day.Day, zone *time.Location) time.Time {
	return time.Date(d.Year(), d.Month(), d.DayOfMonth(), 0, 0, 0, 0, zone)
}

// climateOf is a property's climate on its site.
func climateOf(p store.Property) season.Climate { return p.Climate.V.At(p.Site.V) }

// recordFrom is the first day whose weather still matters on a day: the garden year's first, the late summer in which
// plants began to harden, or the weeks before the oldest event still looked at.
func recordFrom(c season.Climate, today day.Day) day.Day {
	from, _ := c.GardenYear(today)
	return min(from, c.Midwinter(today)-140, today-cold.Recent-30)
}

// day is the civil day of t at the place.
func (p *place) day(t time.Time) day.Day { return day.FromTime(t.In(p.zone)) }

// stage is where a species' growth stands here on a day.
func (p *place) stage(e *catalogue.Entry, x day.Day) catalogue.Stage {
	k := stageOf{e.ID, p.normals.Climate.Midwinter(x)}
	p.mu.Lock()
	defer p.mu.Unlock()
	f, known := p.stages[k]
	if !known {
		f = e.Stages(p.year, x)
		p.stages[k] = f
	}
	return f(x)
}

// caseOf is a plant as the core's triage takes it.
func caseOf(p store.Plant, e catalogue.Entry, at store.Property) cold.Case {
	return cold.Case{Plant: cold.Plant{Species: e, HeightM: p.HeightM, BaseMM: p.BaseMM, PotL: p.PotL, Shelter: p.Shelter, Sun: p.Sun, Mulched: p.Mulched,
		Exposure: p.Exposure.Or(at.Exposure.V), South: at.Climate.V.South()}, SpreadM: p.SpreadM, Count: p.Count, Value: p.Value * at.Value}
}

// look is the most pressing reason to look at a plant here; ok is false where no event is recent.
func (p *place) look(c *cold.Case) (cold.Look, bool) {
	return p.course.Look(c, func(x day.Day) catalogue.Stage { return p.stage(&c.Species, x) }, p.today)
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

var unitOf = map[string]string{weather.Freeze: "°C", weather.LateFrost: "°C", weather.Heat: "°C", weather.Gale: "m/s", weather.Wet: "mm", cold.DryingWind: "kPa·h"}

func (p *place) tellEvent(e *cold.Struck) Event {
	out := Event{Kind: e.Kind, PropertyID: p.property.ID, Property: p.property.Name, From: p.day(e.From), To: p.day(e.To), Peak: e.Day,
		Value: tenth(e.Value), Unit: unitOf[e.Kind], Threshold: tenth(e.Threshold), Hours: e.Hours, FallC: tenth(e.FallC),
		Hardened: math.Round(100*e.Hardened) / 100, Story: cold.Story(e.Event)}
	if e.Cold() && !math.IsNaN(e.BeforeC) {
		v := tenth(e.BeforeOffC)
		out.BeforeOffC = &v
	}
	return out
}

func (p *place) tellEvents() []Event {
	out := []Event{}
	for i := range p.course.Events {
		out = append(out, p.tellEvent(&p.course.Events[i]))
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
var tickSums = []int{10, 25, 50, 100, 150, 200, 300, 400, 500, 600, 800, 1000, 1200, 1400, 1600, 1800, 2000, 2250, 2500, 2750, 3000, 3500, 4000}

func (p *place) tellSeason() Season {
	from, to := p.normals.Climate.GardenYear(p.today)
	out := Season{From: from, To: to, Today: p.today, Events: p.tellEvents(), Source: p.property.WeatherSource, Ticks: []Tick{},
		ObservedTo: p.year.LastObserved(), DegreeDays: math.Round(p.year.DegreeDays(p.today)), ExtremeMinC: tenth(p.normals.Climate.ExtremeMinC)}
	next := 0
	for d := from; d < to; d++ {
		out.NormalMin = append(out.NormalMin, tenth(p.normals.TMin.At(d)))
		out.NormalMax = append(out.NormalMax, tenth(p.normals.TMax.At(d)))
		out.Frost = append(out.Frost, math.Round(100*p.normals.FrostChance(d, 0))/100)
		var lo, hi *float64
		if e, seen := p.year.Extremes(d); seen {
			a, b := tenth(e.Min), tenth(e.Max)
			lo, hi = &a, &b
		}
		out.SeenMin, out.SeenMax = append(out.SeenMin, lo), append(out.SeenMax, hi)
		if d < p.normals.Climate.Midwinter(p.today) {
			continue
		}
		sum := p.year.DegreeDays(d)
		for ; next < len(tickSums) && sum >= float64(tickSums[next]); next++ {
			out.Ticks = append(out.Ticks, Tick{d, tickSums[next]})
		}
	}
	chance := func(limit float64) float64 {
		return math.Round(100*p.normals.FrostToCome(p.today, p.today, limit)[0]) / 100
	}
	out.FrostToCome, out.KillToCome = chance(0), chance(season.KillingFrostC)
	if b, ok := p.normals.LastFrost(p.today, 0); ok {
		out.LastFrost = &BandDays{b.Early, b.Mid, b.Late}
	}
	if b, ok := p.year.FirstFrost(p.today, 0); ok {
		out.FirstFrost = &BandDays{b.Early, b.Mid, b.Late}
	}
	return out
}

func tenth(v float64) float64 { return math.Round(v*10) / 10 }
