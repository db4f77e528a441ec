package cold

import (
	"testing"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

func foothill() *season.Normals {
	c := season.Climate{Latitude: 45.9, Longitude: 8.6, ElevationM: 210, ExtremeMinC: -8}
	for _, m := range []float64{-1.5, -0.5, 3, 6.5, 11, 14.5, 17, 16.5, 13, 8.5, 3.5, -0.5} {
		c.Normals = append(c.Normals, season.Normal{TMinC: m, TMaxC: m + 9, RainMM: 100, RHPct: 75, WindMS: 1.5})
	}
	return c.Daily()
}

// spell is the normal year with some days warmer or colder.
func spell(n *season.Normals, from, to day.Day, shift float64) *season.Year {
	obs := map[day.Day]season.Extremes{}
	for d := from; d <= to; d++ {
		obs[d] = season.Extremes{Min: n.TMin.At(d) + shift, Max: n.TMax.At(d) + shift}
	}
	return season.NewYear(n, obs)
}

func TestWhatAFreezeMeetsDependsOnTheWeeksBefore(t *testing.T) {
	n := foothill()
	const midwinter = -16.0 // an established shrub of a middling cold climate
	normal := spell(n, 0, -1, 0)
	warmFeb := spell(n, day.Of(2027, 1, 31), day.Of(2027, 2, 24), 5)
	for _, c := range []struct {
		name      string
		year      *season.Year
		on        day.Day
		minC      float64
		budsHurt  bool
		woodSpare float64 // at least this much above what wood bears
	}{
		{"-11 °C in mid January of a normal winter", normal, day.Of(2027, 1, 15), -11, false, 2},
		{"-11 °C three weeks into a warm February", warmFeb, day.Of(2027, 2, 24), -11, true, -9},
		{"first -8 °C in mid November", normal, day.Of(2026, 11, 12), -8, true, -9},
		{"-8 °C in January", normal, day.Of(2027, 1, 15), -8, false, 4},
	} {
		h := Harden(c.year, c.on).On(c.on)
		wood, buds := WoodKillC(midwinter, h), BudKillC(midwinter, h)
		if hurt := c.minC < buds; hurt != c.budsHurt {
			t.Errorf("%s: hardened %.2f, buds bear %.1f °C: hurt %v, want %v", c.name, h, buds, hurt, c.budsHurt)
		}
		if c.minC-wood < c.woodSpare {
			t.Errorf("%s: wood bears %.1f °C, too little to spare", c.name, wood)
		}
	}
}

func TestHardinessStaysInBounds(t *testing.T) {
	n := foothill()
	for _, shift := range []float64{-25, -5, 0, 5, 25} {
		y := spell(n, day.Of(2026, 9, 1), day.Of(2027, 8, 1), shift)
		h := Harden(y, day.Of(2027, 7, 31))
		for d := day.Of(2026, 8, 1); d < day.Of(2027, 9, 1); d++ {
			if s := h.On(d); s < 0 || s > 1 {
				t.Fatalf("shift %g, %s: hardened %g", shift, d, s)
			}
		}
		if s := h.On(day.Of(2027, 7, 31)); shift == 0 && s > 0.05 {
			t.Errorf("in July plants are still hardened by %.2f", s)
		}
	}
	if WoodKillC(3, 1) > UnhardenedTC+4 || WoodKillC(-1.5, 1) != -1.5 {
		t.Errorf("tender plants: %g, %g", WoodKillC(3, 1), WoodKillC(-1.5, 1))
	}
	// More hardened never bears less.
	for s := 0.0; s < 1; s += 0.1 {
		if WoodKillC(-15, s+0.1) > WoodKillC(-15, s) || BudKillC(-15, s) < WoodKillC(-15, s) {
			t.Errorf("at %.1f: wood %.1f, buds %.1f", s, WoodKillC(-15, s), BudKillC(-15, s))
		}
	}
}

func BenchmarkHarden(b *testing.B) {
	y := spell(foothill(), day.Of(2026, 11, 1), day.Of(2027, 3, 18), 1)
	for b.Loop() {
		Harden(y, day.Of(2027, 3, 18))
	}
}
