package weather

import (
	"math"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// DayMeasured is a day as stations that keep no hours tell it. NaN was not measured.
type DayMeasured struct {
	Day    day.Day // of the place's clock
	MinC   float64
	MaxC   float64
	RainMM float64
	WindMS float64 // mean
	RHPct  float64 // mean
}

// warmestHour is when a day is warmest, by the sun.
const warmestHour = 15.0

// OfDays are hours made up between the lowest and highest temperatures of days: coldest as the sun rises, warmest at
// three by the sun, in halves of a cosine between, never under the day's lowest nor over its highest. Rain is spread
// over the day, wind and humidity are its means. An estimate: how long a night was cold is not measured.
func OfDays(days []DayMeasured, latitude, longitude float64, zone *time.Location) []Hour {
	days = slices.Clone(days)
	slices.SortFunc(days, func(a, b DayMeasured) int { return int(a.Day - b.Day) })
	out := make([]Hour, 0, 24*len(days))
	turns := turningPoints(days, latitude, longitude)
	for _, d := range days {
		date := d.Day.Time()
		at := time.Date(date.Year(), date.Month(), date.Day(), 0, 0, 0, 0, zone)
		end := time.Date(date.Year(), date.Month(), date.Day()+1, 0, 0, 0, 0, zone)
		first, n := len(out), end.Sub(at).Hours()
		for ; at.Before(end); at = at.Add(time.Hour) {
			temp := math.Max(d.MinC, math.Min(d.MaxC, between(turns, at.Add(time.Hour/2))))
			out = append(out, Hour{Time: at.UTC(), TempC: temp, RainMM: d.RainMM / n, WindMS: d.WindMS, RHPct: d.RHPct,
				Sun: math.NaN()})
		}
		reach(out[first:], d)
	}
	return out
}

// turning is a time at which a temperature was reached.
type turning struct {
	at   time.Time
	temp float64
}

// turningPoints are the coldest and warmest times of days.
func turningPoints(days []DayMeasured, latitude, longitude float64) (out []turning) {
	for _, d := range days {
		midnight := d.Day.Time().Add(-time.Duration(longitude / 15 * float64(time.Hour))) // by the sun
		rise := 12 - season.Daylength(latitude, d.Day)/2
		out = append(out,
			turning{midnight.Add(time.Duration(rise * float64(time.Hour))), d.MinC},
			turning{midnight.Add(time.Duration(warmestHour * float64(time.Hour))), d.MaxC})
	}
	return out
}

// between is the temperature at a time, along halves of a cosine; before the first turn and after the last it is
// theirs.
func between(turns []turning, at time.Time) float64 {
	i, _ := slices.BinarySearchFunc(turns, at, func(t turning, at time.Time) int { return t.at.Compare(at) })
	if i == 0 {
		return turns[0].temp
	}
	if i == len(turns) {
		return turns[i-1].temp
	}
	a, b := turns[i-1], turns[i]
	if b.at.Sub(a.at) > 36*time.Hour {
		return a.temp // days are missing between
	}
	x := float64(at.Sub(a.at)) / float64(b.at.Sub(a.at))
	return a.temp + (b.temp-a.temp)*(1-math.Cos(math.Pi*x))/2
}

// reach has the hours of a day come to its lowest and highest: the hour that is nearest to each takes it.
func reach(hours []Hour, d DayMeasured) {
	low, high := 0, 0
	for i, h := range hours {
		if h.TempC < hours[low].TempC {
			low = i
		}
		if h.TempC > hours[high].TempC {
			high = i
		}
	}
	hours[low].TempC, hours[high].TempC = d.MinC, d.MaxC
}
