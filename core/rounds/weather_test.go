package rounds

import (
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Sunrise and sunset are from an almanac, to a quarter of an hour or so.
func TestDaylight(t *testing.T) {
	for _, c := range []struct {
		name     string
		latitude float64
		on       day.Day
		hours    float64
	}{
		{"midsummer at 52 north", 52, day.Of(2025, time.June, 21), 16.8},
		{"midwinter at 52 north", 52, day.Of(2025, time.December, 21), 7.7},
		{"midwinter at 38 south", -38, day.Of(2025, time.June, 21), 9.5},
		{"spring on the equator", 0, day.Of(2025, time.March, 20), 12.1},
	} {
		got := Daylight(c.latitude, c.on)
		if h := float64(got.To-got.From) / 60; h < c.hours-0.3 || h > c.hours+0.3 || got.From < 0 || got.To > 24*60 {
			t.Errorf("%s: light from %d to %d, %.1f h, not %.1f", c.name, got.From, got.To, h, c.hours)
		}
	}
}

// Where summers are dry and winters wet, rain puts off one day in a few of winter and hardly any of summer.
func TestUsualWeather(t *testing.T) {
	c := season.Climate{Latitude: 38, Longitude: 15, ElevationM: 100, ExtremeMinC: 0}
	for month := range 12 {
		n := season.Normal{TMinC: 8, TMaxC: 14, RainMM: 120, RHPct: 70, WindMS: 3}
		if month >= 4 && month <= 8 {
			n = season.Normal{TMinC: 20, TMaxC: 31, RainMM: 3, RHPct: 55, WindMS: 3}
		}
		c.Normals = append(c.Normals, n)
	}
	if err := c.Validate(); err != nil {
		t.Fatal(err)
	}
	n := c.Daily()
	winter, summer := Usual(n, day.Of(2025, time.January, 15)), Usual(n, day.Of(2025, time.July, 15))
	if winter.Chance < 0.25 || winter.Chance > 0.7 || summer.Chance > 0.05 {
		t.Errorf("rain puts off %.2f of the days in winter, %.2f in summer", winter.Chance, summer.Chance)
	}
	if winter.Told || summer.MaxC < 28 || winter.MaxC > 17 {
		t.Errorf("winter is %+v, summer %+v", winter, summer)
	}
}
