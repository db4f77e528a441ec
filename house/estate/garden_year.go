package estate

import (
	"math"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// Season is what the ribbon draws: one garden year of a property, a figure a day from From.
type Season struct {
	From        day.Day       `json:"from" format:"date"`
	To          day.Day       `json:"to" format:"date" doc:"First day of the next garden year"`
	Today       day.Day       `json:"today" format:"date"`
	NormalMin   []float64     `json:"normal_min" doc:"°C"`
	NormalMax   []float64     `json:"normal_max" doc:"°C"`
	SeenMin     []*float64    `json:"seen_min" doc:"Observed minimum, °C; null where not observed"`
	SeenMax     []*float64    `json:"seen_max"`
	Frost       []float64     `json:"frost" doc:"Chance of a night under 0 °C"`
	DegreeDays  float64       `json:"degree_days" doc:"Base 10 °C, from midwinter to today"`
	Ticks       []Tick        `json:"ticks" doc:"When round sums of degree-days are reached, with days ahead as normal"`
	LastFrost   *BandDays     `json:"last_frost" doc:"Of the coming spring; null where hardly any is to come"`
	FirstFrost  *BandDays     `json:"first_frost" doc:"Of the coming autumn; null where most years have none"`
	FrostToCome float64       `json:"frost_to_come" doc:"Chance of another night under 0 °C before midsummer, 0 to 1"`
	KillToCome  float64       `json:"killing_to_come" doc:"The same for a killing frost, −2.2 °C"`
	Events      []Event       `json:"events"`
	Source      string        `json:"source" doc:"Where the observed weather comes from; empty without any"`
	Sources     []WeatherFrom `json:"sources" doc:"Where the hours came from, the highest first"`
	SeenBy      []int         `json:"seen_by" doc:"Day by day: 2 measured in the garden, 1 by the station or a file from elsewhere, 0 not measured"`
	ObservedTo  day.Day       `json:"observed_to" format:"date" doc:"Empty without observed weather"`
	ExtremeMinC float64       `json:"extreme_min_c"`
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
		Sources:     p.Sources,
		Ticks:       []Tick{},
		ObservedTo:  p.Year.LastObserved(),
		DegreeDays:  math.Round(p.Year.DegreeDays(p.Today)),
		ExtremeMinC: quantity.Tenth(p.Normals.Climate.ExtremeMinC),
	}
	next := 0
	for d := from; d < to; d++ {
		out.NormalMin = append(out.NormalMin, quantity.Tenth(p.Normals.TMin.At(d)))
		out.NormalMax = append(out.NormalMax, quantity.Tenth(p.Normals.TMax.At(d)))
		out.Frost = append(out.Frost, math.Round(100*p.Normals.FrostChance(d, 0))/100)
		var lo, hi *float64
		if e, seen := p.Year.Extremes(d); seen {
			a, b := quantity.Tenth(e.Min), quantity.Tenth(e.Max)
			lo, hi = &a, &b
		}
		out.SeenMin, out.SeenMax = append(out.SeenMin, lo), append(out.SeenMax, hi)
		out.SeenBy = append(out.SeenBy, p.SeenBy[d])
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
