package weather

import (
	"math"
	"testing"
	"time"

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

// course makes hourly records from 1 February 2027 by a function of the hour.
func course(n int, temp func(h int) float64) []Hour {
	out := make([]Hour, n)
	for i := range out {
		out[i] = Hour{Time: time.Date(2027, 2, 1, i, 0, 0, 0, time.UTC), TempC: temp(i)}
	}
	return out
}

func TestFreezes(t *testing.T) {
	n := foothill()
	if got := Threshold(n.Climate); math.Abs(got+4.75) > 1e-9 {
		t.Fatalf("threshold %.2f °C, want halfway from -1.5 to -8", got)
	}
	mild := func(int) float64 { return 8 }
	sudden := func(h int) float64 {
		if h >= 600 && h < 630 {
			return -11 + math.Abs(float64(h-612))/3
		}
		return 8
	}
	twoNights := func(h int) float64 { // two cold nights with a short thaw by day
		switch h {
		case 400, 401, 402, 420, 421:
			return -7
		}
		return 3
	}
	apart := func(h int) float64 {
		if h == 300 || h == 400 {
			return -6
		}
		return 3
	}
	for _, c := range []struct {
		name   string
		temp   func(int) float64
		events int
		minC   float64
		from   int
		to     int
		fall   float64
	}{
		{"mild month", mild, 0, 0, 0, 0, 0},
		{"sudden freeze", sudden, 1, -11, 600, 629, 19},
		{"two nights make one event", twoNights, 1, -7, 400, 421, 10},
		{"four days apart make two", apart, 2, -6, 300, 300, 9},
	} {
		hours := course(672, c.temp)
		got := Find(hours, n, time.UTC, LimitsOf(n))
		if len(got) != c.events {
			t.Errorf("%s: %d events, want %d", c.name, len(got), c.events)
			continue
		}
		if c.events == 0 {
			continue
		}
		f := got[0]
		if f.Kind != Freeze || f.Value != c.minC || !f.From.Equal(hours[c.from].Time) || !f.To.Equal(hours[c.to].Time) || math.Abs(f.FallC-c.fall) > 0.01 {
			t.Errorf("%s: %+v", c.name, f)
		}
	}
	f := Find(course(672, sudden), n, time.UTC, LimitsOf(n))[0]
	if f.Hours != 30 || f.BeforeC != 8 || f.BeforeOffC < 3 {
		t.Errorf("30 h of frost after a mild fortnight: %+v", f)
	}
	// What counts depends on the day: the same −3 °C is nothing in winter and a late frost on open growth.
	small := func(h int) float64 {
		if h == 100 || h == 600 {
			return -3
		}
		return 6
	}
	l := LimitsOf(n)
	l.Growing = func(d day.Day) bool { return d >= day.Of(2027, 2, 20) }
	if got := Find(course(672, small), n, time.UTC, l); len(got) != 1 || got[0].Kind != LateFrost || got[0].Value != -3 {
		t.Errorf("late frost: %+v", got)
	}
}

func TestFreezeAtTheStartOfTheRecord(t *testing.T) {
	n := foothill()
	f := Find(course(30, func(int) float64 { return -9 }), n, time.UTC, LimitsOf(n))
	if len(f) != 1 || f[0].FallC != 0 || !math.IsNaN(f[0].BeforeC) {
		t.Errorf("a record that starts in the freeze: %+v", f)
	}
}

func TestOtherEvents(t *testing.T) {
	n := foothill()
	l := LimitsOf(n)
	hours := course(600, func(h int) float64 {
		if h >= 50 && h < 56 || h >= 74 && h < 80 {
			return l.HeatC + 2
		}
		return 20
	})
	for i := range hours {
		hours[i].WindMS, hours[i].RainMM = math.NaN(), 0
	}
	hours[300].WindMS = l.GaleMS + 3
	for i := 400; i < 450; i++ {
		hours[i].RainMM = l.WetMM / 40
	}
	got := Find(hours, n, time.UTC, l)
	// The wet spell began a week before its last rain, and so before the gale.
	if len(got) != 3 || got[0].Kind != Heat || got[0].Hours != 12 || got[0].Value != l.HeatC+2 || got[2].Kind != Gale || got[2].Hours != 1 ||
		got[1].Kind != Wet || math.Abs(got[1].Value-1.25*l.WetMM) > 1e-9 {
		t.Errorf("%+v", got)
	}
}

func TestSiteMovesWhatWasMeasuredElsewhere(t *testing.T) {
	hours := course(24, func(int) float64 { return 0 })
	hours[1].Here = true
	for i := range hours {
		hours[i].Sun, hours[i].WindMS = math.NaN(), 2
	}
	hours[3].Sun = 0.2 // light in the small hours, by whatever measured it
	got := At(hours, season.Site{FrostPocket: true, Windy: true}, 8.6)
	if got[0].TempC >= 0 || got[1].TempC != 0 || got[12].TempC != 0 || got[3].TempC != 0 || hours[0].TempC != 0 || got[0].WindMS <= 2 {
		t.Errorf("%+v", got)
	}
	if far := At(hours, season.Site{FrostPocket: true}, -172); far[12].TempC >= 0 || far[0].TempC != 0 {
		t.Errorf("half the world away it is night at noon: %+v", far[12])
	}
	if same := At(hours, season.Site{}, 0); &same[0] != &hours[0] {
		t.Error("a site like the open country copies the record")
	}
}

func TestDaily(t *testing.T) {
	zone := time.FixedZone("", 3600)
	hours := course(72, func(h int) float64 { return float64(h % 24) })
	hours[30].TempC = math.NaN()
	d := Daily(hours, zone)
	if len(d) != 3 {
		t.Fatalf("%d full days, want 3 (the last hour falls on a fourth)", len(d))
	}
	if e := d[day.Of(2027, 2, 2)]; e.Min != 0 || e.Max != 23 {
		t.Errorf("2 February: %+v", e)
	}
}

func BenchmarkEventsOfAYear(b *testing.B) {
	n := foothill()
	hours := course(8760, func(h int) float64 {
		return 6 - 9*math.Cos(float64(h)/8760*2*math.Pi) + 5*math.Sin(float64(h)/24*2*math.Pi)
	})
	for b.Loop() {
		Find(hours, n, time.UTC, LimitsOf(n))
	}
}
