package exchange

import (
	"math"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
)

// byDays reports a table that tells the lowest and highest temperature of each line.
func (t *table) byDays() bool {
	holds := func(index int) bool {
		return slices.ContainsFunc(t.cols, func(w what) bool { return w.index == index })
	}
	return holds(lowest) && holds(highest)
}

// dayAt is the day that a date without an hour names, as midnight UTC: a day is of the garden's clock, whatever zone is
// told.
func (t *table) dayAt(text string) time.Time {
	zone := t.zone
	t.zone = time.UTC
	at, _, _ := t.time(text)
	t.zone = zone
	return at
}

// gatherDays makes hours of days. A day without one of its two temperatures is none.
func (t *table) gatherDays(sums map[int64]*hourly) {
	var days []weather.DayMeasured
	for _, g := range sums {
		mean := func(k int) float64 {
			if g.n[k] == 0 {
				return math.NaN()
			}
			return g.sum[k] / float64(g.n[k])
		}
		d := weather.DayMeasured{Day: day.FromTime(g.at), MinC: mean(lowest), MaxC: mean(highest), RainMM: mean(3),
			WindMS: mean(2), RHPct: mean(4)}
		if math.IsNaN(d.MinC) || math.IsNaN(d.MaxC) {
			continue
		}
		d.MinC, d.MaxC = math.Min(d.MinC, d.MaxC), math.Max(d.MinC, d.MaxC)
		days = append(days, d)
	}
	t.hours = weather.OfDays(days, t.clock.Latitude, t.clock.Longitude, t.clock.Zone)
	t.told = append(t.told, "by days: the hours between the lowest and the highest of each are made up, an estimate")
}
