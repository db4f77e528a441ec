package rounds

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// Sky is the weather of a day: told for the near ones, usual for the rest.
type Sky struct {
	Day    day.Day `json:"day" format:"date"`
	Told   bool    `json:"told,omitempty" doc:"An outlook, which forbids; else what is usual, which only makes a day dearer"`
	RainMM float64 `json:"rain_mm,omitempty" minimum:"0" maximum:"500"`
	Chance float64 `json:"rain_chance,omitempty" minimum:"0" maximum:"1" doc:"Of a wet day, where none is told"`
	WindMS float64 `json:"wind_ms,omitempty" minimum:"0" maximum:"60"`
	MinC   float64 `json:"min_c" minimum:"-60" maximum:"50"`
	MaxC   float64 `json:"max_c" minimum:"-60" maximum:"60"`
}

// Text says the weather in words, with its units; usual weather says so.
func (w Sky) Text() string {
	parts := []string{quantity.Temperature(w.MinC) + " to " + quantity.Temperature(w.MaxC)}
	switch {
	case !w.Told && w.Chance > 0:
		parts = append(parts, fmt.Sprintf("wet on %.0f of 100 such days", 100*w.Chance))
	case w.RainMM >= 0.5:
		parts = append(parts, quantity.Rain(w.RainMM)+" of rain")
	case w.Told:
		parts = append(parts, "dry")
	}
	if w.WindMS >= 4 {
		parts = append(parts, "wind "+quantity.Speed(w.WindMS))
	}
	if !w.Told {
		return "as usual: " + strings.Join(parts, ", ")
	}
	return strings.Join(parts, ", ")
}

// Work is what kind of weather work wants.
type Work string

// Kinds of work by the weather they want.
const (
	Any   Work = ""      // in any, though heavy rain is no pleasure
	Spray Work = "spray" // dry, and dry the day after; no wind; not hot
	Cut   Work = "cut"   // not in hard frost
	Aloft Work = "aloft" // climbing and felling: no wind, no frost, no heavy rain
	Earth Work = "earth" // planting and digging: neither frozen nor sodden
)

// The usual weather of a day.
const (
	wetFall = 8.0 // mm on a wet day
	wettest = 0.8
)

// Usual is the weather of a day that nobody has told, by a place's normals.
func Usual(n *season.Normals, d day.Day) Sky {
	return Sky{Day: d, Chance: math.Min(wettest, n.Rain.At(d)/wetFall), MinC: n.TMin.At(d), MaxC: n.TMax.At(d)}
}

// Daylight is from sunrise to sunset at a latitude, by the sun.
func Daylight(latitude float64, d day.Day) Span {
	sun := season.SunOn(latitude, d)
	return Span{int(60 * sun.Rise), int(60 * sun.Set)}
}

// limits of a kind of work; a limit of 0 does not hold.
type limits struct {
	rain, next, wind, least, most float64
	cold                          bool // least holds
}

var limitsOf = map[Work]limits{
	Any:   {rain: 25},
	Spray: {rain: 1, next: 3, wind: 4, least: 5, most: 30, cold: true},
	Cut:   {rain: 25, least: -5, cold: true},
	Aloft: {rain: 10, wind: 9, least: -3, cold: true},
	Earth: {rain: 12, least: -1, cold: true},
}

// putOff is what it costs that a day not told of may have to be put off, times the chance of that.
const putOff = 30

// against is what speaks against a day: told, it forbids; usual, it costs something.
func (l limits) against(today, tomorrow Sky) string {
	switch {
	case l.rain > 0 && today.RainMM >= l.rain:
		return quantity.Rain(today.RainMM) + " of rain"
	case l.next > 0 && tomorrow.Told && tomorrow.RainMM >= l.next:
		return "rain the day after would wash it off"
	case l.wind > 0 && today.WindMS > l.wind:
		return "wind of " + quantity.Speed(today.WindMS)
	case l.cold && today.MaxC < l.least+4 && today.MinC < l.least:
		return "frost of " + quantity.Temperature(today.MinC)
	case l.most > 0 && today.MaxC > l.most:
		return "heat of " + quantity.Temperature(today.MaxC)
	}
	return ""
}

// Against is what the weather that is told for a day, and for the day after it, forbids of work; empty where it bears it or
// nothing is told.
func Against(w Work, today, tomorrow Sky) string {
	if !today.Told || w == Any {
		return ""
	}
	return limitsOf[w].against(today, tomorrow)
}

// weathered is the problem with what the weather adds to the days, and why.
func (p *Problem) weathered() *Problem {
	if len(p.Sky) == 0 && !slices.ContainsFunc(p.Places, func(q Place) bool { return len(q.Sky) > 0 }) {
		return p
	}
	out := *p
	out.Jobs, out.said = slices.Clone(p.Jobs), map[[2]int]string{}
	common := p.byDay(p.Sky)
	own := map[int][]*Sky{}
	for i, q := range p.Places {
		if len(q.Sky) > 0 {
			own[i] = p.byDay(q.Sky)
		}
	}
	for j := range out.Jobs {
		k := &out.Jobs[j]
		l := limitsOf[k.Work]
		k.Costs = slices.Clone(k.Costs)
		sky := common
		if there := own[k.Place]; there != nil {
			sky = there
		}
		for d := range min(len(k.Costs), p.Days) {
			if sky[d] == nil || k.Costs[d] >= Forbidden {
				continue
			}
			next := Sky{}
			if sky[d+1] != nil {
				next = *sky[d+1]
			}
			text := l.against(*sky[d], next)
			switch {
			case text != "" && sky[d].Told && k.Work != Any && k.Pin == nil:
				k.Costs[d], out.said[[2]int{j, d}] = Forbidden, text
			case text != "":
				k.Costs[d], out.said[[2]int{j, d}] = min(100, k.Costs[d]+putOff), text
			case !sky[d].Told && sky[d].Chance > 0 && l.rain > 0 && l.rain < 25:
				k.Costs[d] = min(100, k.Costs[d]+int(putOff*sky[d].Chance))
				out.said[[2]int{j, d}] = fmt.Sprintf("a chance of %.0f %% that rain puts it off", 100*sky[d].Chance)
			}
		}
	}
	return &out
}

// byDay is the weather of each day of the span and of the one after it; nil where nothing is known.
func (p *Problem) byDay(list []Sky) []*Sky {
	out := make([]*Sky, p.Days+1)
	for i := range list {
		if d := int(list[i].Day - p.From); d >= 0 && d <= p.Days {
			out[d] = &list[i]
		}
	}
	return out
}

// rainedOff is the rain of a day that somebody says is wet, mm: what wants it dry is not done on it.
const rainedOff = 15

// RainOn has it rain on a day of a stretch of weather, as somebody says who sees the sky; more, if more was told.
func RainOn(sky []Sky, d day.Day) {
	for i := range sky {
		if sky[i].Day == d {
			sky[i].Told, sky[i].RainMM = true, max(rainedOff, sky[i].RainMM)
		}
	}
}
