package api

import (
	"context"
	"math"
	"time"

	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// place is a property with its season worked out: kept until its record, its weather or the day changes.
type place struct {
	property store.Property
	today    day.Day
	zone     *time.Location
	normals  *season.Normals
	year     *season.Year
	freezes  []weather.Freeze
	cold     cold.Hardiness
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
	if kept, ok := s.places.Load(p.ID); ok {
		if k := kept.(*place); k.today == today && k.property.Version == p.Version && k.property.WeatherRev == p.WeatherRev {
			fresh := *k
			fresh.property = p
			return &fresh, nil
		}
	}
	zone, err := time.LoadLocation(p.Zone)
	if err != nil {
		return nil, err
	}
	n := p.Climate.Daily()
	from, _ := n.Climate.GardenYear(today)
	hours, err := s.Store.Weather(ctx, p.ID, min(from, n.Climate.Midwinter(today)-140).Time(), (today + 1).Time())
	if err != nil {
		return nil, err
	}
	out := &place{property: p, today: today, zone: zone, normals: n}
	seen := weather.Daily(hours, zone)
	for d := range seen {
		if d > today {
			delete(seen, d)
		}
	}
	out.year = season.NewYear(n, seen)
	out.freezes = weather.Freezes(hours, n, zone)
	out.cold = cold.Harden(out.year, today)
	s.places.Store(p.ID, out)
	return out, nil
}

// day is the civil day of t at the place.
func (p *place) day(t time.Time) day.Day { return day.FromTime(t.In(p.zone)) }

// recent is how long after a freeze plants are still put on the look-list.
const recent = 120

// look is the most pressing reason to look at a species here: over the freezes of the last months, the one that went
// furthest below what it bore. ok is false when there was none.
func (s *Server) look(p *place, species string) (l cold.Look, when day.Day, ok bool) {
	e, err := s.Catalogue.Species(species)
	if err != nil {
		return l, 0, false
	}
	for _, f := range p.freezes {
		on := p.day(f.Coldest)
		if p.today-on > recent {
			continue
		}
		if x := cold.Triage(e, p.cold.On(on-1), f, on); !ok || x.BudsC > l.BudsC {
			l, when, ok = x, on, true
		}
	}
	return l, when, ok
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
	LastFrost   *BandDays  `json:"last_frost" doc:"Of the coming spring; null where hardly any is to come"`
	FrostToCome float64    `json:"frost_to_come" doc:"Chance of another night under 0 °C before midsummer, 0 to 1"`
	KillToCome  float64    `json:"killing_to_come" doc:"The same for a killing frost, −2.2 °C"`
	Freezes     []Freeze   `json:"freezes"`
	Source      string     `json:"source" doc:"Where the observed weather comes from; empty without any"`
	ObservedTo  day.Day    `json:"observed_to" format:"date" doc:"Empty without observed weather"`
	ExtremeMinC float64    `json:"extreme_min_c"`
}

// BandDays is a season.Band for the door.
type BandDays struct {
	Early day.Day `json:"early" format:"date"`
	Mid   day.Day `json:"mid" format:"date"`
	Late  day.Day `json:"late" format:"date"`
}

// Freeze is a cold event in words and figures.
type Freeze struct {
	PropertyID int64   `json:"property_id"`
	Property   string  `json:"property"`
	From       day.Day `json:"from" format:"date"`
	To         day.Day `json:"to" format:"date"`
	Coldest    day.Day `json:"coldest" format:"date"`
	MinC       float64 `json:"min_c"`
	Hours      int     `json:"hours_below_0"`
	FallC      float64 `json:"fall_c"`
	Story      string  `json:"story"`
}

func (p *place) tellFreezes() []Freeze {
	out := []Freeze{}
	for _, f := range p.freezes {
		out = append(out, Freeze{p.property.ID, p.property.Name, p.day(f.From), p.day(f.To), p.day(f.Coldest),
			f.MinC, f.HoursBelow0, tenth(f.FallC), cold.Story(f)})
	}
	return out
}

func (p *place) tellSeason() Season {
	from, to := p.normals.Climate.GardenYear(p.today)
	out := Season{From: from, To: to, Today: p.today, Freezes: p.tellFreezes(), Source: p.property.WeatherSource,
		ObservedTo: p.year.LastObserved(), DegreeDays: math.Round(p.year.DegreeDays(p.today)), ExtremeMinC: p.normals.Climate.ExtremeMinC}
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
	}
	chance := func(limit float64) float64 {
		return math.Round(100*p.normals.FrostToCome(p.today, p.today, limit)[0]) / 100
	}
	out.FrostToCome, out.KillToCome = chance(0), chance(season.KillingFrostC)
	if b, ok := p.normals.LastFrost(p.today, 0); ok {
		out.LastFrost = &BandDays{b.Early, b.Mid, b.Late}
	}
	return out
}

func tenth(v float64) float64 { return math.Round(v*10) / 10 }
