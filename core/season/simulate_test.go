package season

import (
	"math"
	"reflect"
	"testing"

	"mezzadro/core/day"
)

func TestZone(t *testing.T) {
	for c, want := range map[float64]string{-51.2: "1a", -28.7: "5a", -23.4: "5b", -17.8: "6b", -17.7: "7a", -12.3: "7b", -6.5: "9a", -1.2: "9b", -1: "10a", 4.5: "11a", -70: "1a", 40: "13b"} {
		if got := Zone(c); got != want {
			t.Errorf("%g °C: zone %s, want %s", c, got, want)
		}
	}
}

const simulated = 300

func outlook(c Climate, d day.Day) Outlook { return NewYear(c.Daily(), nil).Simulate(d, simulated, 1) }

func TestOutlookAgreesWithTheClimate(t *testing.T) {
	for name, c := range climates {
		d := day.Of(2027, 3, 18)
		if c.South() {
			d = day.Of(2027, 9, 18)
		}
		o := outlook(c, d)
		if math.Abs(o.ExtremeMinC.Mid-c.ExtremeMinC) > 1.4 { // half a zone is 2.8 °C
			t.Errorf("%s: coldest night %.1f °C, climate says %.1f", name, o.ExtremeMinC.Mid, c.ExtremeMinC)
		}
		if len(o.DegreeDays) != weeks || o.ChillHours.Low > o.ChillHours.High {
			t.Fatalf("%s: %+v", name, o)
		}
		prev := 0.0
		for m, s := range o.DegreeDays {
			if s.Low > s.Mid || s.Mid > s.High || s.Mid < prev {
				t.Errorf("%s, week %d: %+v after %.0f", name, m, s, prev)
			}
			prev = s.Mid
		}
		// The quick bands by formula and the simulated ones say the same.
		if b, ok := c.Daily().LastFrost(c.Midwinter(d), 0); ok && o.LastFrost != nil && abs(b.Mid.Sub(o.LastFrost.Mid)) > 6 {
			t.Errorf("%s: last frost by formula %s, simulated %s", name, b.Mid, o.LastFrost.Mid)
		}
		y := NewYear(c.Daily(), nil)
		if b, ok := y.ReachDegreeDays(d, 200); ok {
			n := 0
			for _, s := range o.DegreeDays {
				if s.Mid < 200 && s.Day > b.Mid+14 || s.Mid > 200 && s.Day < b.Mid-14 {
					n++
				}
			}
			if n > 0 {
				t.Errorf("%s: 200 °C·days on %s by formula, but %d weeks say otherwise", name, b.Mid, n)
			}
		}
	}
	if f := outlook(foothill(), day.Of(2027, 3, 18)); f.LastFrost == nil || f.FirstFrost == nil || f.LastFrost.Mid.Month() > 4 || f.FirstFrost.Mid.Month() < 10 || f.HottestWeek.Mid.Month() < 6 || f.HottestWeek.Mid.Month() > 8 {
		t.Errorf("foothill: %+v", f)
	}
	if g := outlook(gulf(), day.Of(2027, 3, 18)); g.LastKillingFrost != nil && g.LastKillingFrost.Mid.Month() > 3 {
		t.Errorf("gulf coast: last killing frost %+v", g.LastKillingFrost)
	}
}

func TestOutlookMirrored(t *testing.T) {
	n, s := outlook(foothill(), day.Of(2027, 3, 18)), outlook(southern(), day.Of(2027, 9, 18))
	if gap := s.LastFrost.Mid.Sub(n.LastFrost.Mid); gap < 170 || gap > 194 {
		t.Errorf("north %s, south %s", n.LastFrost.Mid, s.LastFrost.Mid)
	}
}

func TestOutlookNarrowsAndRepeats(t *testing.T) {
	n := foothill().Daily()
	d := day.Of(2027, 3, 18)
	seen := map[day.Day]Extremes{}
	for x := day.Of(2026, 11, 1); x < day.Of(2027, 4, 1); x++ {
		seen[x] = Extremes{n.TMin.At(x) + 1, n.TMax.At(x) + 1}
	}
	before, after := NewYear(n, nil).Simulate(d, simulated, 1), NewYear(n, seen).Simulate(d, simulated, 1)
	if w, v := before.DegreeDays[25], after.DegreeDays[25]; v.High-v.Low >= w.High-w.Low {
		t.Errorf("degree-days at midyear did not narrow: %+v, before %+v", v, w)
	}
	if w, v := before.ChillHours, after.ChillHours; v.High-v.Low >= (w.High-w.Low)/2 {
		t.Errorf("chill did not narrow: %+v, before %+v", v, w)
	}
	if again := NewYear(n, seen).Simulate(d, simulated, 1); !reflect.DeepEqual(after, again) {
		t.Error("the same seed gave another outlook")
	}
}

func BenchmarkSimulate(b *testing.B) {
	y := NewYear(foothill().Daily(), nil)
	for b.Loop() {
		y.Simulate(day.Of(2027, 3, 18), simulated, 1)
	}
}
