// Package weather reads what the weather was from hourly records: the days' extremes, and the freezes that struck.
// Nobody types a freeze in: it is found from the hours, by a threshold that follows from the climate, since a night
// that is nothing on the prairie is a disaster on the gulf coast.
package weather

import (
	"math"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Hour is one record. Figures that a source does not give are NaN.
type Hour struct {
	Time   time.Time // start of the hour, UTC
	TempC  float64
	WindMS float64
	RainMM float64
	RHPct  float64
	Sun    float64 // share of the clear-sky sun, 0 to 1
}

// fullDay is how many hourly records make a day's extremes trustworthy.
const fullDay = 20

// Daily gives the lowest and highest temperature of each day of the zone that has at least 20 hourly records.
func Daily(hours []Hour, zone *time.Location) map[day.Day]season.Extremes {
	out, count := map[day.Day]season.Extremes{}, map[day.Day]int{}
	for _, h := range hours {
		if math.IsNaN(h.TempC) {
			continue
		}
		d := day.FromTime(h.Time.In(zone))
		e, seen := out[d]
		if !seen {
			e = season.Extremes{Min: h.TempC, Max: h.TempC}
		}
		out[d] = season.Extremes{Min: min(e.Min, h.TempC), Max: max(e.Max, h.TempC)}
		count[d]++
	}
	for d, n := range count {
		if n < fullDay {
			delete(out, d)
		}
	}
	return out
}

// Freeze is one cold event.
type Freeze struct {
	From, To    time.Time // first and last hour under the threshold
	Coldest     time.Time
	MinC        float64 // lowest temperature, °C
	ThresholdC  float64 // what counted as a freeze here, °C
	HoursBelow0 int     // hours under 0 °C around the event, unbroken but for short thaws
	FallC       float64 // how far the minimum fell within 72 h: suddenness, °C
	BeforeC     float64 // mean temperature of the fourteen days before, °C
	BeforeOffC  float64 // how much that was above the normal of those days, °C
}

// Threshold is the night minimum, °C, from which a frost counts as an event: half way from the coldest month's mean
// night to the mean coldest night of the year, never above −1 °C.
func Threshold(c season.Climate) float64 {
	coldest := math.Inf(1)
	for _, n := range c.Normals {
		coldest = min(coldest, n.TMinC)
	}
	return min(-1, (coldest+c.ExtremeMinC)/2)
}

const (
	joinGap = 24 * time.Hour // how long it may be milder than the threshold inside one event
	thaw    = 6 * time.Hour  // how long a thaw must last to end a frost: a midday above 0 °C does not
)

// Freezes finds the events in records sorted by time, oldest first.
func Freezes(hours []Hour, normals *season.Normals, zone *time.Location) []Freeze {
	limit := Threshold(normals.Climate)
	var found []Freeze
	for i := 0; i < len(hours); i++ {
		if !(hours[i].TempC <= limit) {
			continue
		}
		first, last, coldest := i, i, i
		for j := i; j < len(hours) && hours[j].Time.Sub(hours[last].Time) <= joinGap; j++ {
			if hours[j].TempC <= limit {
				last = j
				if hours[j].TempC < hours[coldest].TempC {
					coldest = j
				}
			}
		}
		f := Freeze{From: hours[first].Time, To: hours[last].Time, Coldest: hours[coldest].Time,
			MinC: hours[coldest].TempC, ThresholdC: limit, HoursBelow0: below0(hours, coldest)}
		f.FallC = fall(hours, coldest)
		f.BeforeC, f.BeforeOffC = before(hours, first, normals, zone)
		found = append(found, f)
		i = last
	}
	return found
}

// below0 counts the frost hours around the coldest one, out to the first real thaw either way.
func below0(hours []Hour, coldest int) int {
	n := 0
	for _, step := range []int{-1, 1} {
		lastFrost := hours[coldest].Time
		for j := coldest; j >= 0 && j < len(hours); j += step {
			if hours[j].Time.Sub(lastFrost).Abs() > thaw {
				break
			}
			if hours[j].TempC < 0 {
				lastFrost = hours[j].Time
				if j != coldest || step > 0 {
					n++
				}
			}
		}
	}
	return n
}

// fall is the drop from the lowest temperature three to four days earlier to the coldest hour.
func fall(hours []Hour, coldest int) float64 {
	earlier, t := math.Inf(1), hours[coldest].Time
	for j := coldest; j >= 0 && t.Sub(hours[j].Time) <= 96*time.Hour; j-- {
		if t.Sub(hours[j].Time) >= 72*time.Hour {
			earlier = min(earlier, hours[j].TempC)
		}
	}
	if math.IsInf(earlier, 1) {
		return 0
	}
	return max(0, earlier-hours[coldest].TempC)
}

// before is the mean temperature of the fortnight before the event and how far above normal it was.
func before(hours []Hour, first int, n *season.Normals, zone *time.Location) (mean, off float64) {
	count := 0
	for j := first - 1; j >= 0 && hours[first].Time.Sub(hours[j].Time) <= 14*24*time.Hour; j-- {
		if !math.IsNaN(hours[j].TempC) {
			mean += hours[j].TempC
			off += hours[j].TempC - n.Mean(day.FromTime(hours[j].Time.In(zone)))
			count++
		}
	}
	if count == 0 {
		return math.NaN(), 0
	}
	return mean / float64(count), off / float64(count)
}
