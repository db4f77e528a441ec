package cold

import "testing"

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
