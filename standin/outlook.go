package standin

import (
	"math"
	"time"

	"mezzadro/core/day"
	"mezzadro/exchange"
)

// outlookDays is how far ahead the simulated station tells the weather.
const outlookDays = 7

// Outlook tells the days from one on, up to seven: the simulated weather itself, so it comes true.
func (s *WeatherStation) Outlook(lat, lon, elevation float64, from, to day.Day) []exchange.OutlookDay {
	to = min(to, from+outlookDays-1)
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
