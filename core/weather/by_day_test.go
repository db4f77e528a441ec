package weather

import (
	"math"
	"testing"
	"time"

	"mezzadro/core/day"
)

// TestOfDays: hours that are made up of days come to each day's own lowest and highest, coldest towards sunrise and warmest
// after noon by the garden's clock, in four parts of the world; rain adds up, and a day of another length has its hours.
func TestOfDays(t *testing.T) {
	for _, c := range []struct {
		zone     string
		lat, lon float64
		first    day.Day
	}{
		{"Europe/Rome", 45.8, 9, day.Of(2027, time.March, 25)}, // the clock goes forward on the 28th
		{"America/Chicago", 44, -93, day.Of(2027, time.January, 10)},
		{"Australia/Melbourne", -37.8, 145, day.Of(2027, time.July, 1)},
		{"Europe/Oslo", 69, 19, day.Of(2026, time.December, 18)}, // the sun does not rise
	} {
		zone, err := time.LoadLocation(c.zone)
		if err != nil {
			t.Fatal(err)
		}
		lows, highs := []float64{-2, 3, -9, -4, 0}, []float64{6, 9, 1, 3, 8}
		var days []DayMeasured
		for i := range lows {
			days = append(days, DayMeasured{c.first + day.Day(i), lows[i], highs[i], 12, math.NaN(), 80})
		}
		hours := OfDays(days, c.lat, c.lon, zone)
		seen := Daily(hours, zone)
		rain := map[day.Day]float64{}
		for i, h := range hours {
			local := h.Time.In(zone)
			d := day.FromTime(local)
			rain[d] += h.RainMM
			if i > 0 && h.Time.Sub(hours[i-1].Time) != time.Hour {
				t.Errorf("%s: from %s to %s", c.zone, hours[i-1].Time, h.Time)
			}
			if !math.IsNaN(h.WindMS) || h.RHPct != 80 {
				t.Errorf("%s: wind %g, humidity %g", c.zone, h.WindMS, h.RHPct)
			}
			// The middle day, a hard one, is cold in the morning and mild after noon.
			if d == c.first+2 && c.lat < 60 {
				if n := local.Hour(); (n == 6 && h.TempC > -5) || (n == 15 && h.TempC < -1) {
					t.Errorf("%s: %.1f °C at %d", c.zone, h.TempC, n)
				}
			}
		}
		for i := range lows {
			d := c.first + day.Day(i)
			if e := seen[d]; e.Min != lows[i] || e.Max != highs[i] || math.Abs(rain[d]-12) > 1e-9 {
				t.Errorf("%s, day %d: %.1f to %.1f °C, %.1f mm; want %.0f to %.0f and 12", c.zone, i, e.Min, e.Max, rain[d], lows[i], highs[i])
			}
		}
	}
}

// TestOfDaysWithAGap: days that are missing are not made up.
func TestOfDaysWithAGap(t *testing.T) {
	d := day.Of(2027, time.February, 1)
	hours := OfDays([]DayMeasured{{d + 5, -1, 4, 0, 0, 0}, {d, -3, 2, 0, 0, 0}}, 46, 9, time.UTC)
	if len(hours) != 48 || day.FromTime(hours[24].Time) != d+5 {
		t.Errorf("%d hours, the second day is %s", len(hours), day.FromTime(hours[24].Time))
	}
}
