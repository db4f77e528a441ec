package season

import (
	"fmt"
	"math"
	"sync"
	"time"

	"gonum.org/v1/gonum/mat"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// LapsePerKm is how much colder it gets with height, °C per km (mean environmental lapse rate).
const LapsePerKm = 6.5

// GrowthBase is the mean temperature, °C, under which the garden is taken to stand still, and the base of degree-days.
const GrowthBase = 10

// Normal is a month's long-term means.
type Normal struct {
	TMinC  float64 `json:"tmin_c" yaml:"tmin_c" doc:"Mean daily minimum, °C"`
	TMaxC  float64 `json:"tmax_c" yaml:"tmax_c" doc:"Mean daily maximum, °C"`
	RainMM float64 `json:"rain_mm" yaml:"rain_mm" doc:"Rain in the month, mm"`
	RHPct  float64 `json:"rh_pct" yaml:"rh_pct" doc:"Mean relative humidity, %"`
	WindMS float64 `json:"wind_ms" yaml:"wind_ms" doc:"Mean wind at 2 m, m/s"`
}

// Climate is a place and its normals, January first.
type Climate struct {
	Latitude    float64  `json:"latitude" yaml:"latitude" doc:"Degrees, north positive"`
	Longitude   float64  `json:"longitude" yaml:"longitude" doc:"Degrees, east positive"`
	ElevationM  float64  `json:"elevation_m" yaml:"elevation_m" doc:"Metres above the sea"`
	ExtremeMinC float64  `json:"extreme_min_c" yaml:"extreme_min_c" doc:"Mean of the coldest night of each year, °C"`
	Normals     []Normal `json:"normals" yaml:"normals" doc:"Twelve months, January first"`
}

// Validate names every field that cannot be.
func (c Climate) Validate() error {
	var bad invalid.Fields
	bad.Within("latitude", c.Latitude, -66, 72, "°")
	bad.Within("longitude", c.Longitude, -180, 180, "°")
	bad.Within("elevation_m", c.ElevationM, -430, 5000, "m")
	bad.Within("extreme_min_c", c.ExtremeMinC, -60, 25, "°C")
	if len(c.Normals) != 12 {
		bad.Add("normals", len(c.Normals), "%d months given, want twelve, January first", len(c.Normals))
	}
	coldest := math.Inf(1)
	for i, n := range c.Normals {
		at := fmt.Sprintf("normals[%d].", i)
		bad.Within(at+"tmin_c", n.TMinC, -60, 40, "°C")
		bad.Within(at+"tmax_c", n.TMaxC, -50, 55, "°C")
		bad.Within(at+"rain_mm", n.RainMM, 0, 2000, "mm")
		bad.Within(at+"rh_pct", n.RHPct, 1, 100, "%")
		bad.Within(at+"wind_ms", n.WindMS, 0, 30, "m/s")
		if n.TMaxC < n.TMinC {
			bad.Add(at+"tmax_c", n.TMaxC, "mean daily maximum %g °C is below the minimum %g °C", n.TMaxC, n.TMinC)
		}
		coldest = min(coldest, n.TMinC)
	}
	if c.ExtremeMinC > coldest {
		bad.Add(
			"extreme_min_c",
			c.ExtremeMinC,
			"the coldest night of a year, %g °C, cannot be milder than the coldest month's mean night, %g °C",
			c.ExtremeMinC,
			coldest,
		)
	}
	return bad.Err()
}

// AtElevation is the climate moved to another height by the lapse rate.
func (c Climate) AtElevation(m float64) Climate {
	shift := -(m - c.ElevationM) / 1000 * LapsePerKm
	out := c
	out.ElevationM = m
	out.ExtremeMinC += shift
	out.Normals = make([]Normal, len(c.Normals))
	for i, n := range c.Normals {
		n.TMinC += shift
		n.TMaxC += shift
		out.Normals[i] = n
	}
	return out
}

// South reports a place in the southern hemisphere.
func (c Climate) South() bool { return c.Latitude < 0 }

// mean is a month's mean temperature; i counts from 0 and wraps.
func (c Climate) mean(i int) float64 {
	n := c.Normals[((i%12)+12)%12]
	return (n.TMinC + n.TMaxC) / 2
}

// ColdestMonthC is the mean of the coldest month, °C: about what a hand's depth of soil falls to.
func (c Climate) ColdestMonthC() float64 {
	least := math.Inf(1)
	for i := range c.Normals {
		least = min(least, c.mean(i))
	}
	return least
}

// YearRainMM is the rain of a usual year, mm.
func (c Climate) YearRainMM() (mm float64) {
	for _, n := range c.Normals {
		mm += n.RainMM
	}
	return mm
}

// GardenYearMonth is the month in whose course growth stops: the first whose mean is below 10 °C after one that is
// not, and no later than the start of the coolest half-year, so that a winter's chill is counted from before it.
func (c Climate) GardenYearMonth() time.Month {
	midsummer := 6
	if c.South() {
		midsummer = 0
	}
	since := (c.coolestHalf() - midsummer + 12) % 12
	for i := range since { // from midsummer on, so that autumn is found, not a cool month in spring
		if m := i + midsummer; c.mean(m-1) >= GrowthBase && c.mean(m) < GrowthBase {
			since = i
			break
		}
	}
	return time.Month((midsummer+since)%12 + 1)
}

// coolestHalf is the month, from 0, with which the coolest six begin.
func (c Climate) coolestHalf() int {
	best, coolest := 0, math.Inf(1)
	var means [18]float64
	for i := range 12 {
		means[i] = c.mean(i)
	}
	copy(means[12:], means[:6])
	for start := range 12 {
		sum := 0.0
		for _, m := range means[start : start+6] {
			sum += m
		}
		if sum < coolest {
			best, coolest = start, sum
		}
	}
	return best
}

// GardenYear is the first day of the garden year that d lies in, and the first day of the next.
func (c Climate) GardenYear(d day.Day) (from, to day.Day) {
	m := c.GardenYearMonth()
	y := d.Year()
	if day.Of(y, m, 1) > d {
		y--
	}
	return day.Of(y, m, 1), day.Of(y+1, m, 1)
}

// Midwinter is where degree-days are counted from in the garden year of d: 1 January in the north, 1 July in the south.
func (c Climate) Midwinter(d day.Day) day.Day {
	from, _ := c.GardenYear(d)
	m := time.January
	if c.South() {
		m = time.July
	}
	w := day.Of(from.Year(), m, 1)
	if w < from {
		w = day.Of(from.Year()+1, m, 1)
	}
	return w
}

// harmonics is the number of yearly waves in a daily normal.
const harmonics = 6

// Curve is a smooth yearly course: a mean and harmonics, evaluated by day of the year.
type Curve struct {
	wave  [1 + 2*harmonics]float64
	table sync.Once
	days  []float64 // of four years
}

// At is the curve's value on d.
func (c *Curve) At(d day.Day) float64 {
	n, ok := d.InCycle()
	if !ok {
		return c.atFraction(d.YearFraction())
	}
	c.table.Do(func() { c.days = cycle(func(d day.Day) float64 { return c.atFraction(d.YearFraction()) }) })
	return c.days[n]
}

// cycle tables what repeats with the calendar: the days of four years.
func cycle(of func(day.Day) float64) []float64 {
	out := make([]float64, day.Cycle)
	for i := range out {
		out[i] = of(day.Day(i))
	}
	return out
}

func (c *Curve) atFraction(f float64) float64 {
	s1, c1 := math.Sincos(2 * math.Pi * f)
	sk, ck := s1, c1
	v := c.wave[0]
	for k := 0; k < harmonics; k++ {
		v += c.wave[1+2*k]*ck + c.wave[2+2*k]*sk
		sk, ck = sk*c1+ck*s1, ck*c1-sk*s1
	}
	return v
}

// fitMatrix turns twelve monthly means into the coefficients of the smoothest curve with those means. It minimises
// the sum of k⁴ times the squared amplitude of wave k, subject to the twelve means: linear, so solved once.
var fitMatrix = sync.OnceValue(func() *mat.Dense {
	const n = 1 + 2*harmonics
	lengths := [12]float64{31, 28.2425, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31}
	kkt := mat.NewDense(n+12, n+12, nil)
	for k := 1; k <= harmonics; k++ {
		w := math.Pow(float64(k), 4)
		kkt.Set(2*k-1, 2*k-1, w)
		kkt.Set(2*k, 2*k, w)
	}
	at := 0.0
	for m, length := range lengths {
		a, b := at/365.2425, (at+length)/365.2425
		at += length
		row := make([]float64, n)
		row[0] = 1
		for k := 1; k <= harmonics; k++ {
			w := 2 * math.Pi * float64(k)
			row[2*k-1] = (math.Sin(w*b) - math.Sin(w*a)) / (w * (b - a))
			row[2*k] = (math.Cos(w*a) - math.Cos(w*b)) / (w * (b - a))
		}
		for j, v := range row {
			kkt.Set(n+m, j, v)
			kkt.Set(j, n+m, v)
		}
	}
	var inv mat.Dense
	if err := inv.Inverse(kkt); err != nil {
		panic(fmt.Sprintf("season: the months of the year do not give a curve: %v", err)) // a constant of the calendar
	}
	return mat.DenseCopyOf(inv.Slice(0, n, n, n+12))
})

// FitMonths is the smoothest yearly curve whose mean over each month is the given value.
func FitMonths(months [12]float64) *Curve {
	var v mat.VecDense
	v.MulVec(fitMatrix(), mat.NewVecDense(12, months[:]))
	c := &Curve{}
	for i := range c.wave {
		c.wave[i] = v.AtVec(i)
	}
	return c
}

// Normals is a climate by day.
type Normals struct {
	Climate            Climate
	TMin, TMax         *Curve
	Rain, RH, Wind     *Curve // rain in mm a day
	winterSD, summerSD float64

	lights sync.Once
	light  []float64 // daylengths of four years, h

	mu    sync.Mutex
	ahead map[day.Day]*sums // of garden years of which nothing is observed, by midwinter
}

// rangeSD is the spread of a night outside winter as a share of the mean daily range: dry clear air, in which days and
// nights lie far apart, also lets one night differ most from the next. Fitted so that the last and first frosts of the
// built climates fall where gardeners there expect them; mid-latitude stations lie near 2.5 to 4 °C.
const rangeSD = 0.34

// summerSpread is that spread for the climate, °C.
func (c Climate) summerSpread() float64 {
	sum := 0.0
	for _, n := range c.Normals {
		sum += (n.TMaxC - n.TMinC) / 12
	}
	return max(2.4, min(4.2, rangeSD*sum))
}

// Daily makes the smooth daily normals of a valid climate.
func (c Climate) Daily() *Normals {
	get := func(f func(Normal) float64) *Curve {
		var m [12]float64
		for i := range m {
			m[i] = f(c.Normals[i])
		}
		return FitMonths(m)
	}
	n := &Normals{
		Climate: c,
		TMin:    get(func(n Normal) float64 { return n.TMinC }),
		TMax:    get(func(n Normal) float64 { return n.TMaxC }),
		Rain:    get(func(n Normal) float64 { return n.RainMM / 30.44 }),
		RH:      get(func(n Normal) float64 { return n.RHPct }),
		Wind:    get(func(n Normal) float64 { return n.WindMS }),
	}
	n.summerSD = c.summerSpread()
	n.winterSD = n.solveWinterSD()
	return n
}

// Light is the length of the day, hours.
func (n *Normals) Light(d day.Day) float64 {
	i, ok := d.InCycle()
	if !ok {
		return Daylength(n.Climate.Latitude, d)
	}
	n.lights.Do(func() { n.light = cycle(func(d day.Day) float64 { return Daylength(n.Climate.Latitude, d) }) })
	return n.light[i]
}

// Mean is the normal mean temperature of d, °C.
func (n *Normals) Mean(d day.Day) float64 { return (n.TMin.At(d) + n.TMax.At(d)) / 2 }
