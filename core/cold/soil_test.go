package cold

import (
	"testing"

	"mezzadro/core/day"
)

// TestFrozenSoil is what thermometers in the ground show: hard frost goes slowly into bare soil and hardly through snow.
func TestFrozenSoil(t *testing.T) {
	after := func(airC float64, days int, snowM, mulch float64) float64 {
		l := soilAt(1, 6, mulch)
		for range days * 24 {
			l.hour(airC, snowM)
		}
		return l.tempC()
	}
	for _, c := range []struct {
		name        string
		got, lo, hi float64
	}{
		{"five days at −38 °C on bare ground", after(-38, 5, 0, 0), -17, -9},
		{"the same under 20 cm of snow", after(-38, 5, 0.2, 0), -5, 0.5},
		{"a night at −8 °C on bare ground", after(-8, 1, 0, 0), -1.5, 0.5},
		{"a fortnight at −5 °C on bare ground", after(-5, 14, 0, 0), -5, -0.5},
		{"the same under a hand of mulch", after(-5, 14, 0, mulchM), -2.5, 0.8},
		{"three weeks at −15 °C under 40 cm of snow", after(-15, 21, 0.4, 0), -2, 2},
	} {
		if c.got < c.lo || c.got > c.hi {
			t.Errorf("%s: %.1f °C at 10 cm, want %.1f to %.1f", c.name, c.got, c.lo, c.hi)
		}
	}
	// More cover is never colder; a thaw comes back.
	last := -99.0
	for _, snow := range []float64{0, 0.05, 0.1, 0.2, 0.4, 0.8} {
		v := after(-20, 7, snow, 0)
		if v < last {
			t.Errorf("under %.2f m of snow %.2f °C, under less %.2f", snow, v, last)
		}
		last = v
	}
	l := soilAt(-3, 8, 0)
	for range 20 * 24 {
		l.hour(8, 0)
	}
	if l.tempC() < 3 {
		t.Errorf("after twenty days at 8 °C the soil is at %.1f °C", l.tempC())
	}
	if s := snowAfter(snowAfter(0, -2, 10), 4, 0); s >= 10 || s < 9 || snowAfter(3, 1, 0) >= 3 || snowAfter(0, 2, 5) != 0 {
		t.Errorf("snow of %.2f mm after an hour of thaw", s)
	}
}

// TestGroundBeforeTheRecord: a record that begins in midwinter finds the soil as an ordinary winter leaves it, not at the air's mean.
func TestGroundBeforeTheRecord(t *testing.T) {
	for place, want := range map[string][2]float64{"prairie": {-7, 0}, "northern-prairie": {-7, 0}, "cold-lowland": {-3, 3}, "gulf-coast": {7, 16}, "hot-desert": {8, 20}} {
		bare, under, snow := groundBefore(climate(t, place).Daily(), day.Of(2027, 1, 20))
		if c := bare.tempC(); c < want[0] || c > want[1] {
			t.Errorf("%s: soil at %.1f °C on 20 January, want %v", place, c, want)
		}
		if under.tempC() < bare.tempC()-0.1 && bare.tempC() < 0 {
			t.Errorf("%s: under mulch %.1f, bare %.1f", place, under.tempC(), bare.tempC())
		}
		if snow < 0 || place == "gulf-coast" && snow > 0 {
			t.Errorf("%s: snow %.0f mm", place, snow)
		}
	}
}
