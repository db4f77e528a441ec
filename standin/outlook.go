package standin

import (
	"math"
	"math/rand/v2"
	"time"

	"mezzadro/core/day"
	"mezzadro/exchange"
)

// outlookDays is how far ahead the simulated station tells the weather: one that comes true, and one that errs.
const (
	outlookDays = 7
	erringDays  = 10
)

// Outlook tells the days from one on, up to seven: the simulated weather itself, so it comes true. A station that errs
// tells ten, each the less truly the farther ahead; see err.
func (s *WeatherStation) Outlook(lat, lon, elevation float64, from, to day.Day) []exchange.OutlookDay {
	if !s.Errs {
		return s.truly(lat, lon, elevation, from, min(to, from+outlookDays-1))
	}
	to = min(to, from+erringDays-1)
	days := s.truly(lat, lon, elevation, from-late, to+late)
	out := make([]exchange.OutlookDay, int(to-from)+1)
	for lead := range out {
		out[lead] = s.err(days, lead, from)
	}
	return out
}

// How the station errs. What is told of a day gets better as the day comes near: each day takes one part of the error
// away, and what is left is that of all days before.
const (
	late     = 2    // days by which rain may be told too early or too late
	firstSD  = 0.7  // error of today's temperatures, °C, as a standard deviation
	moreSD   = 1.05 // what each day ahead adds, °C
	alike    = 0.6  // how much of a day's part is shared with the day before it, told at the same time
	minOwn   = 0.6  // °C by which lows err on their own
	timing   = 0.16 // days by which rain is told early or late, per day ahead
	rainSD   = 0.12 // of the logarithm of its amount, today, and what each day ahead adds:
	rainMore = 0.07
	windSD   = 0.08
	windMore = 0.03
)

// err is what is told of the day that lies so far ahead.
func (s *WeatherStation) err(days []exchange.OutlookDay, lead int, from day.Day) exchange.OutlookDay {
	at := lead + late
	d := days[at]
	off, own := 0.0, 0.0
	for ahead := 0; ahead <= lead; ahead++ {
		sd := moreSD
		if ahead == 0 {
			sd = firstSD
		}
		told := d.Day - day.Day(ahead) // the day on which this part of the error goes
		off += sd * s.part(told, ahead)
		own += sd * minOwn * s.draw(told, ahead, 1)
	}
	moved := int(math.Round(timing * float64(lead) * s.part(from, lead)))
	d.RainMM = days[at+max(-late, min(late, moved))].RainMM
	d.RainMM *= math.Exp((rainSD + rainMore*float64(lead)) * s.draw(from, lead, 2))
	d.WindMS *= math.Exp((windSD + windMore*float64(lead)) * s.draw(from, lead, 3))
	d.MinC += off + own
	d.MaxC = max(d.MaxC+off, d.MinC)
	for _, v := range []*float64{&d.RainMM, &d.WindMS, &d.MinC, &d.MaxC} {
		*v = math.Round(10**v) / 10
	}
	return d
}

// part is one day's part of an error, with a standard deviation of 1: what was told on a day of the days ahead errs
// alike from one to the next.
func (s *WeatherStation) part(told day.Day, ahead int) float64 {
	v := s.draw(told, 0, 0)
	for i := 1; i <= ahead; i++ {
		v = alike*v + math.Sqrt(1-alike*alike)*s.draw(told, i, 0)
	}
	return v
}

// draw is a normal number, always the same for what was told on a day of a day ahead.
func (s *WeatherStation) draw(told day.Day, ahead int, what uint64) float64 {
	return rand.New(rand.NewPCG(s.Seed^0x5eed, uint64(told)<<16|uint64(ahead)<<8|what)).NormFloat64()
}

// truly is what the days will be.
func (s *WeatherStation) truly(lat, lon, elevation float64, from, to day.Day) []exchange.OutlookDay {
	out := make([]exchange.OutlookDay, int(to-from)+1)
	for i := range out {
		out[i] = exchange.OutlookDay{Day: from + day.Day(i), MinC: math.Inf(1), MaxC: math.Inf(-1)}
	}
	solar := time.Duration(math.Round(lon/15)) * time.Hour
	for _, h := range s.Hours(lat, lon, elevation, from-1, to+1) {
		at := h.Time.Add(solar)
		i := int(day.FromTime(at) - from)
		if i < 0 || i >= len(out) {
			continue
		}
		d := &out[i]
		d.RainMM += *h.RainMM
		d.MinC, d.MaxC = min(d.MinC, *h.TempC), max(d.MaxC, *h.TempC)
		if at.Hour() >= 7 && at.Hour() < 19 {
			d.WindMS = max(d.WindMS, *h.WindMS)
		}
	}
	for i := range out {
		out[i].RainMM = math.Round(10*out[i].RainMM) / 10
	}
	return out
}
