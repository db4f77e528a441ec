package season

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
)

// months builds a climate from mean minima and a constant daily range.
func months(lat, elev, extreme, dayRange float64, minima ...float64) Climate {
	c := Climate{Latitude: lat, Longitude: 8.6, ElevationM: elev, ExtremeMinC: extreme}
	for _, m := range minima {
		c.Normals = append(c.Normals, Normal{m, m + dayRange, 100, 75, 1.5})
	}
	return c
}

func foothill() Climate {
	return months(45.9, 210, -8, 9, -1.5, -0.5, 3, 6.5, 11, 14.5, 17, 16.5, 13, 8.5, 3.5, -0.5)
}

// southern is the same climate half a year on.
func southern() Climate {
	c := foothill()
	c.Latitude = -c.Latitude
	c.Normals = append(append([]Normal{}, c.Normals[6:]...), c.Normals[:6]...)
	return c
}

func gulf() Climate {
	return months(30, 5, -5, 10, 6, 8, 11, 15, 19, 22, 24, 24, 21, 15, 10, 7)
}

func prairie() Climate {
	return months(47, 300, -33, 11, -18, -15, -8, 0, 7, 12, 15, 14, 8, 2, -7, -15)
}

var climates = map[string]Climate{"foothill": foothill(), "southern": southern(), "gulf": gulf(), "prairie": prairie()}

func TestDailyNormalsKeepMonthlyMeans(t *testing.T) {
	for name, c := range climates {
		n := c.Daily()
		for m := range 12 {
			sum, days := 0.0, 0
			for d := day.Of(2027, time.Month(m+1), 1); d.Month() == time.Month(m+1); d++ {
				sum += n.TMin.At(d)
				days++
			}
			if got, want := sum/float64(days), c.Normals[m].TMinC; math.Abs(got-want) > 0.08 {
				t.Errorf("%s, month %d: daily minima average %.2f °C, want %.2f", name, m+1, got, want)
			}
		}
		for d := day.Of(2027, 1, 1); d < day.Of(2028, 1, 1); d++ {
			if step := math.Abs(n.TMin.At(d+1) - n.TMin.At(d)); step > 0.6 {
				t.Errorf("%s: the normal jumps by %.2f °C on %s", name, step, d)
			}
		}
	}
}

func TestGardenYear(t *testing.T) {
	for name, want := range map[string]time.Month{"foothill": 11, "southern": 5, "gulf": 10, "prairie": 10} {
		if got := climates[name].GardenYearMonth(); got != want {
			t.Errorf("%s: garden year starts in %v, want %v", name, got, want)
		}
	}
	from, to := foothill().GardenYear(day.Of(2027, 3, 18))
	if from != day.Of(2026, 11, 1) || to != day.Of(2027, 11, 1) {
		t.Errorf("garden year of 18 March 2027: %s to %s", from, to)
	}
	if w := foothill().Midwinter(day.Of(2026, 11, 20)); w != day.Of(2027, 1, 1) {
		t.Errorf("midwinter of the garden year of November 2026: %s", w)
	}
	if w := southern().Midwinter(day.Of(2027, 3, 18)); w != day.Of(2026, 7, 1) {
		t.Errorf("southern midwinter of the garden year of March 2027: %s", w)
	}
}

func TestElevation(t *testing.T) {
	c := foothill().AtElevation(480)
	if got, want := c.Normals[0].TMinC, -1.5-0.27*6.5; math.Abs(got-want) > 1e-9 {
		t.Errorf("January minimum at 480 m: %.3f, want %.3f", got, want)
	}
	if math.Abs(c.ExtremeMinC-(-8-0.27*6.5)) > 1e-9 {
		t.Errorf("extreme minimum at 480 m: %.3f", c.ExtremeMinC)
	}
	if foothill().Normals[0].TMinC != -1.5 {
		t.Error("moving a climate changed the original")
	}
}

func TestDegreeDay(t *testing.T) {
	for _, c := range []struct{ lo, hi, want float64 }{
		{-5, 8, 0},
		{12, 20, 6},
		{10, 20, 5},
		{0, 20, 10 / math.Pi}, // half the sine lies above its mean
		{5, 15, 5 / math.Pi},
		{10, 10, 0},
	} {
		if got := DegreeDay(c.lo, c.hi, 10); math.Abs(got-c.want) > 1e-9 {
			t.Errorf("%g to %g °C: %.4f, want %.4f", c.lo, c.hi, got, c.want)
		}
	}
	// Against the area under a sine, added up by the minute.
	sum := 0.0
	for i := range 1440 {
		sum += math.Max(0, 9+7*math.Sin(2*math.Pi*float64(i)/1440)-10) / 1440
	}
	if got := DegreeDay(2, 16, 10); math.Abs(got-sum) > 0.001 {
		t.Errorf("2 to 16 °C: %.4f, by the minute %.4f", got, sum)
	}
}

func TestDaylength(t *testing.T) {
	for _, c := range []struct {
		lat  float64
		d    day.Day
		want float64
	}{
		{45.9, day.Of(2027, 6, 21), 15.72},
		{45.9, day.Of(2026, 12, 21), 8.70},
		{45.9, day.Of(2027, 3, 20), 12.13},
		{-45.9, day.Of(2027, 6, 21), 8.70},
		{0, day.Of(2027, 1, 15), 12.12},
	} {
		if got := Daylength(c.lat, c.d); math.Abs(got-c.want) > 0.06 {
			t.Errorf("%g° on %s: %.2f h, want %.2f", c.lat, c.d, got, c.want)
		}
	}
}

func TestGeneratedYearsAgreeWithTheClimate(t *testing.T) {
	for name, c := range climates {
		n := c.Daily()
		const years = 200
		coldest, jan := 0.0, 0.0
		for i := range years {
			from := day.Of(1900+i, 4, 1)
			if c.South() {
				from = day.Of(1900+i, 10, 1)
			}
			low := 99.0
			for k, w := range (Generator{n, 7}).Days(from, 365) {
				low = math.Min(low, w.MinC)
				if (from + day.Day(k)).Month() == time.January {
					jan += w.MinC / 31 / years
				}
				if w.MaxC <= w.MinC || w.RainMM < 0 {
					t.Fatalf("%s: a day from %.1f to %.1f °C with %.1f mm", name, w.MinC, w.MaxC, w.RainMM)
				}
			}
			coldest += low / years
		}
		t.Logf("%s: winter spread %.2f °C, mean coldest night %.2f (climate %.1f)", name, n.winterSD, coldest, c.ExtremeMinC)
		if math.Abs(coldest-c.ExtremeMinC) > 0.8 {
			t.Errorf("%s: mean coldest night %.2f °C, climate says %.1f", name, coldest, c.ExtremeMinC)
		}
		if math.Abs(jan-c.Normals[0].TMinC) > 0.5 {
			t.Errorf("%s: January minima average %.2f °C, normal %.2f", name, jan, c.Normals[0].TMinC)
		}
	}
}

func TestGeneratorRepeats(t *testing.T) {
	g := Generator{foothill().Daily(), 11}
	long := g.Days(day.Of(2026, 11, 1), 120)
	short := g.Days(day.Of(2027, 1, 15), 10)
	for i, w := range short {
		if l := long[75+i]; math.Abs(l.MinC-w.MinC) > 0.01 || l.RainMM != w.RainMM {
			t.Fatalf("day %d differs by where one starts: %+v, %+v", i, l, w)
		}
	}
	if other := (Generator{g.Normals, 12}).Days(day.Of(2027, 1, 15), 1)[0]; other.MinC == short[0].MinC {
		t.Error("another seed gave the same day")
	}
}

func TestHourlyKeepsTheDay(t *testing.T) {
	from := day.Of(2027, 3, 1)
	days := Generator{foothill().Daily(), 3}.Days(from, 20)
	hours := Hourly(45.9, from, days)
	if len(hours) != 480 {
		t.Fatalf("%d hours", len(hours))
	}
	for i := 1; i < 19; i++ {
		lo, hi, at := 99.0, -99.0, 0
		for h, v := range hours[24*i : 24*i+24] {
			lo = math.Min(lo, v)
			if v > hi {
				hi, at = v, h
			}
		}
		if math.Abs(hi-days[i].MaxC) > 0.5 || at < 12 || at > 16 {
			t.Errorf("day %d: warmest %.1f °C at %d h, want %.1f early in the afternoon", i, hi, at, days[i].MaxC)
		}
		if lo > days[i].MinC+0.6 {
			t.Errorf("day %d: coldest %.1f °C, want %.1f", i, lo, days[i].MinC)
		}
	}
	for h := 1; h < len(hours); h++ {
		if math.Abs(hours[h]-hours[h-1]) > 4.5 {
			t.Errorf("hour %d: jump from %.1f to %.1f", h, hours[h-1], hours[h])
		}
	}
}

func TestLastFrost(t *testing.T) {
	n := foothill().Daily()
	b, ok := n.LastFrost(day.Of(2027, 1, 1), 0)
	if !ok || !(b.Early < b.Mid && b.Mid < b.Late) || b.Mid.Month() < 3 || b.Late.Month() > 5 {
		t.Errorf("foothill: last frost %+v (%v)", b, ok)
	}
	s, ok := southern().Daily().LastFrost(day.Of(2027, 7, 1), 0)
	if !ok || abs(s.Mid.Sub(b.Mid)-182) > 6 {
		t.Errorf("southern last frost %s is not half a year from %s", s.Mid, b.Mid)
	}
	if g, ok := gulf().Daily().LastFrost(day.Of(2027, 4, 1), 0); ok {
		t.Errorf("gulf coast after 1 April: last frost %+v", g)
	}
	// Against generated years.
	later := 0
	for i := range 300 {
		from := day.Of(1900+i, 1, 1)
		last := from
		for k, w := range (Generator{n, 5}).Days(from, 182) {
			if w.MinC < 0 {
				last = from + day.Day(k)
			}
		}
		if last.YearDay() > b.Mid.YearDay() {
			later++
		}
	}
	t.Logf("last frost %s, %s, %s; generated years later than the middle: %d of 300", b.Early, b.Mid, b.Late, later)
	if later < 100 || later > 200 {
		t.Errorf("generated years with a later last frost: %d of 300, want about half", later)
	}
}

func TestFrostWithin(t *testing.T) {
	n := foothill().Daily()
	from := day.Of(2027, 1, 1)
	p := n.FrostWithin(from, from+400, 45, KillingFrostC)
	on := func(d day.Day) float64 { return p[d-from] }
	if len(p) != 401 || on(day.Of(2027, 1, 15)) < 0.95 || on(day.Of(2027, 7, 1)) > 0.001 || on(day.Of(2027, 12, 15)) < 0.9 {
		t.Errorf("January %.2f, July %.3f, December %.2f", on(day.Of(2027, 1, 15)), on(day.Of(2027, 7, 1)), on(day.Of(2027, 12, 15)))
	}
	for d := day.Of(2027, 2, 1); d < day.Of(2027, 6, 1); d++ { // it fades through the spring
		if on(d+1) > on(d)+1e-9 {
			t.Fatalf("%s: %.3f, the day after %.3f", d, on(d), on(d+1))
		}
	}
}

func abs(n int) int { return max(n, -n) }

func TestReachDegreeDays(t *testing.T) {
	n := foothill().Daily()
	today := day.Of(2027, 3, 18)
	none := NewYear(n, nil)
	b, ok := none.ReachDegreeDays(today, 100)
	if !ok || !(b.Early < b.Mid && b.Mid < b.Late) {
		t.Fatalf("100 °C·days: %+v, %v", b, ok)
	}
	if got := none.DegreeDays(b.Mid); got < 100 || got > 112 {
		t.Errorf("sum on %s: %.1f", b.Mid, got)
	}
	warm := map[day.Day]Extremes{}
	for d := day.Of(2027, 1, 1); d <= today; d++ {
		warm[d] = Extremes{n.TMin.At(d) + 4, n.TMax.At(d) + 4}
	}
	w, _ := NewYear(n, warm).ReachDegreeDays(today, 100)
	if w.Mid >= b.Mid {
		t.Errorf("after a warm winter %s, in a normal one %s", w.Mid, b.Mid)
	}
	usual := map[day.Day]Extremes{}
	for d := day.Of(2027, 1, 1); d < b.Mid-10; d++ {
		usual[d] = Extremes{n.TMin.At(d), n.TMax.At(d)}
	}
	if u, _ := NewYear(n, usual).ReachDegreeDays(today, 100); u.Late.Sub(u.Early) >= b.Late.Sub(b.Early) {
		t.Errorf("the band did not narrow with what was observed: %d days, before %d", u.Late.Sub(u.Early), b.Late.Sub(b.Early))
	}
	// A later target never comes earlier.
	prev := day.Day(0)
	for target := 10.0; target < 1500; target += 50 {
		x, ok := none.ReachDegreeDays(today, target)
		if !ok || x.Late < prev {
			t.Fatalf("%g °C·days by %s, after %s (%v)", target, x.Late, prev, ok)
		}
		prev = x.Late
	}
	if _, ok := none.ReachDegreeDays(today, 1e5); ok {
		t.Error("a sum that no year gathers was reached")
	}
	s, ok := NewYear(southern().Daily(), nil).ReachDegreeDays(day.Of(2027, 9, 18), 100)
	if !ok || abs(s.Mid.Sub(b.Mid)-182) > 6 {
		t.Errorf("southern date %s is not half a year from %s", s.Mid, b.Mid)
	}
}

func TestAnchors(t *testing.T) {
	y := NewYear(foothill().Daily(), nil)
	today := day.Of(2027, 3, 18)
	start, ok := y.Resolve(Anchor{RisingH: 10.5}, today, nil)
	if !ok || start.Mid.Month() != time.February {
		t.Errorf("light for 10.5 h: %+v", start)
	}
	end, ok := y.Resolve(Anchor{After: "bloom_start", Days: 30}, today, map[string]Band{"bloom_start": start})
	if !ok || end.Mid-start.Mid != 30 {
		t.Errorf("30 days after %s: %s", start.Mid, end.Mid)
	}
	fall, _ := y.Resolve(Anchor{FallingH: 12}, today, nil)
	if fall.Mid.Month() != time.September || fall.Mid.Year() != 2027 {
		t.Errorf("down to 12 h: %s", fall.Mid)
	}
	if _, ok := y.Resolve(Anchor{After: "leaf_drop"}, today, nil); ok {
		t.Error("an unknown anchor resolved")
	}
	for _, a := range []Anchor{{}, {DegreeDays: 50, RisingH: 12}, {RisingH: 30}, {After: "nothing"}, {DegreeDays: -4}} {
		if a.Validate("leaf_out") == nil {
			t.Errorf("%+v was taken", a)
		}
	}
}

func TestClimateValidate(t *testing.T) {
	ok := foothill()
	if err := ok.Validate(); err != nil {
		t.Fatal(err)
	}
	for field, spoil := range map[string]func(*Climate){
		"latitude":          func(c *Climate) { c.Latitude = 91 },
		"normals":           func(c *Climate) { c.Normals = c.Normals[:11] },
		"normals[3].tmax_c": func(c *Climate) { c.Normals[3].TMaxC = c.Normals[3].TMinC - 1 },
		"extreme_min_c":     func(c *Climate) { c.ExtremeMinC = 4 },
		"normals[7].rh_pct": func(c *Climate) { c.Normals[7].RHPct = math.NaN() },
	} {
		c := foothill()
		spoil(&c)
		if err := c.Validate(); err == nil || !strings.Contains(err.Error(), field+":") {
			t.Errorf("spoilt %s: error %v", field, err)
		}
	}
}

func ExampleYear_ReachDegreeDays() {
	c := Climate{Latitude: 45.9, Longitude: 8.6, ElevationM: 210, ExtremeMinC: -8}
	for _, m := range []float64{2.5, 4, 7.5, 11, 15.5, 19, 21.5, 21, 17.5, 13, 8, 4} {
		c.Normals = append(c.Normals, Normal{TMinC: m - 4.5, TMaxC: m + 4.5, RainMM: 100, RHPct: 75, WindMS: 1.5})
	}
	b, _ := NewYear(c.Daily(), nil).ReachDegreeDays(day.Of(2027, 3, 18), 100)
	fmt.Printf("100 °C·days about %s, in one year of ten after %s\n", b.Mid.Words(), b.Late.Words())
	// Output: 100 °C·days about 7 May, in one year of ten after 13 May
}

func BenchmarkReachDegreeDays(b *testing.B) {
	y := NewYear(foothill().Daily(), nil)
	for b.Loop() {
		y.ReachDegreeDays(day.Of(2027, 3, 18), 150)
	}
}

// TestReachAsDayByDay: the day found by halving is the one that going day by day finds, whether weather was observed, with
// gaps, or not at all.
func TestReachAsDayByDay(t *testing.T) {
	c := foothill()
	for name, keep := range map[string]func(i int) bool{"nothing seen": func(int) bool { return false }, "seen": func(int) bool { return true },
		"with gaps": func(i int) bool { return i%7 != 3 }} {
		n := c.Daily()
		seen := map[day.Day]Extremes{}
		for i := range 100 {
			if d := day.Of(2027, 1, 1) + day.Day(i); keep(i) {
				seen[d] = Extremes{n.TMin.At(d) + 3*math.Sin(float64(i)), n.TMax.At(d) + 4*math.Sin(float64(i)/3)}
			}
		}
		y := NewYear(n, seen)
		for _, on := range []day.Day{day.Of(2027, 3, 1), day.Of(2026, 11, 20), day.Of(2028, 2, 1)} {
			from := c.Midwinter(on)
			for _, target := range []float64{1, 40, 150, 600, 1500, 2500, 1e5} {
				b, ok := y.ReachDegreeDays(on, target)
				for z, got := range map[float64]day.Day{z90: b.Early, 0: b.Mid, -z90: b.Late} {
					want, found := from+364, false
					for to := from; to <= from+364 && !found; to++ {
						ahead := max(from, y.last+1)
						shift, sum := z*y.meanSD(ahead, int(to-ahead)+1), 0.0
						for d := from; d <= to; d++ {
							e, observed := y.Extremes(d)
							if !observed {
								e.Min, e.Max = e.Min+shift, e.Max+shift
							}
							sum += DegreeDay(e.Min, e.Max, GrowthBase)
						}
						if sum >= target {
							want, found = to, true
						}
					}
					if ok && (got < want-2 || got > want+2 || z == 0 && got != want) { // the spread is tabulated
						t.Errorf("%s, %s, %g °C·d, z %.1f: %s, day by day %s", name, on, target, z, got, want)
					}
				}
			}
		}
	}
}
