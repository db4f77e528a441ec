package cold

import (
	"math"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// rungs are the thicknesses, mm, at which tissue temperature is followed; the first stands for buds and leaves. lags
// are their time constants in still air, hours: measured points joined by powers of the thickness.
var (
	rungs = [...]float64{1, 3, 5, 8, 12, 20, 35, 60, 100, 150, 250, 400}
	lags  = func() (out [len(rungs)]float64) {
		mm := []float64{1, 5, 20, 60, 150}
		h := []float64{0.25, 0.3, 1.5, 5, 14}
		for i, r := range rungs {
			k := 1
			for k < len(mm)-1 && r > mm[k] {
				k++
			}
			slope := math.Log(h[k]/h[k-1]) / math.Log(mm[k]/mm[k-1])
			out[i] = h[k-1] * math.Pow(r/mm[k-1], slope)
		}
		return out
	}()
)

// pots are the sizes, litres, at which root balls are followed.
var pots = [...]float64{5, 15, 40, 120, 400}

// potLag is how slowly a root ball of so many litres follows the air, hours.
func potLag(litres float64) float64 { return 3.5 * math.Cbrt(litres) }

const (
	lead     = 48 * time.Hour // tissue is followed from so long before an event
	stillAir = 1.5            // wind taken where none was measured, m/s
	usualRH  = 75             // humidity taken where none was measured, %
)

// DryingWind is the kind of an event in which sun and wind drew water from plants over frozen soil.
const DryingWind = "drying wind"

// Struck is an event with what it did to tissue, soil and pots at a place, before any plant is thought of.
type Struck struct {
	weather.Event
	Day      day.Day  // of the peak
	Hardened Hardened // how hardened plants were
	tissue   [len(rungs)]float64
	pot      [len(pots)]float64
	soil     float64 // lowest soil temperature, bare
	mulched  float64 // the same under mulch
	snowM    float64 // depth of the snow at the peak
	dry      drying
	scorch   float64 // heat: °C·h over 34 °C in full sun on the worst day
}

// Course is what happened at a place, prepared once and used for every plant there.
type Course struct {
	Year     *season.Year
	Hardened Hardiness
	Events   []Struck // oldest first
}

// Follow prepares the course of a place from its year and its hours, sorted by time, up to a day.
func Follow(y *season.Year, hours []weather.Hour, zone *time.Location, d day.Day) *Course {
	c := &Course{Year: y, Hardened: Harden(y, d)}
	limits := weather.LimitsOf(y.Normals)
	winter := weather.Threshold(y.Normals.Climate)
	limits.FreezeC = func(x day.Day) float64 { return c.threshold(winter, x) }
	limits.Growing = func(x day.Day) bool {
		open, ok := y.When(firstLeaves, x, nil)
		return ok && x > open && x < y.Normals.Climate.Midwinter(x)+182
	}
	found := weather.Find(hours, y.Normals, zone, limits)
	g := followGround(y, hours, zone)
	for _, e := range found {
		c.Events = append(c.Events, c.strike(e, g, zone))
	}
	c.Events = append(c.Events, c.spells(g, zone)...)
	return c
}

// Until the cold stage of hardening has gone so far, a night under firstFrostC is told of.
const (
	firstCold   = 0.25
	firstFrostC = -0.8
)

// firstLeaves is when the first shrubs have opened leaves that frost can take.
var firstLeaves = season.Anchor{Warmth: 185, Chill: 1.2, MeanC: 5}

// firstFlowers is when the first fruit trees and shrubs of spring open.
var firstFlowers = season.Anchor{Warmth: 105, Chill: 1.2, MeanC: 4}

// threshold is the frost that counts as an event on a day: what it is in midwinter, less while plants are not hardened
// or in their first flowers.
func (c *Course) threshold(winter float64, x day.Day) float64 {
	if winter >= OpenGrowthC {
		return winter
	}
	h := c.Hardened.On(x - 1)
	if h.Cold < firstCold { // the first frosts of autumn blacken what is tender
		return firstFrostC
	}
	if open, ok := c.Year.When(firstFlowers, x, nil); ok && x >= open {
		return OpenGrowthC
	}
	return min(firstFrostC, OpenGrowthC+h.Usual()*(winter-OpenGrowthC))
}

// ground is the soil hour by hour, and what dried plants while it was frozen.
type ground struct {
	hours         []weather.Hour
	soil, mulched []float32
	snowM         []float32 // depth of the snow
	spells        []spell   // of drying over frozen soil
}

// followGround follows soil, snow and drying through the record.
func followGround(y *season.Year, hours []weather.Hour, zone *time.Location) *ground {
	g := &ground{
		hours:   hours,
		soil:    make([]float32, len(hours)),
		mulched: make([]float32, len(hours)),
		snowM:   make([]float32, len(hours)),
	}
	if len(hours) == 0 {
		return g
	}
	first := day.FromTime(hours[0].Time.In(zone))
	c := y.Normals.Climate
	bare, under, snow := groundBefore(y.Normals, first)
	if !math.IsNaN(hours[0].RainMM) { // the record tells what fell: none is taken to lie before it
		snow = 0
	}
	pot := y.Normals.Mean(first)
	noon := 12 - c.Longitude/15 // UTC
	sunDay, sun := int64(math.MinInt64), season.Sun{}
	var w wilting
	for i, h := range hours {
		t := h.TempC
		if math.IsNaN(t) {
			g.soil[i], g.mulched[i], g.snowM[i] = float32(bare.tempC()), float32(under.tempC()), float32(deep(snow))
			continue
		}
		pot += (t - pot) / 10
		rain := h.RainMM
		if math.IsNaN(rain) {
			rain = y.Normals.Rain.At(day.FromTime(h.Time)) / 24
		}
		snow = snowAfter(snow, t, rain)
		bare.hour(t, deep(snow))
		under.hour(t, deep(snow))
		g.soil[i], g.mulched[i], g.snowM[i] = float32(bare.tempC()), float32(under.tempC()), float32(deep(snow))
		light := false // as far as that matters: thawed soil gives what leaves lose
		if givesNone(bare.tempC(), under.tempC(), pot) {
			if d := (h.Time.Unix() + int64(c.Longitude*240)) / 86400; d != sunDay {
				sunDay, sun = d, season.SunOn(c.Latitude, day.Day(d))
			}
			solar := math.Mod(float64(h.Time.Hour())+0.5-noon+36, 24) // by the sun: few records have daylight
			light = solar >= sun.Rise && solar <= sun.Set
		}
		w.hour(i, h, bare.tempC(), under.tempC(), pot, light)
	}
	g.spells = w.done()
	return g
}

func or(v, instead float64) float64 {
	if math.IsNaN(v) {
		return instead
	}
	return v
}

// strike follows tissue, pots and soil through an event.
func (c *Course) strike(e weather.Event, g *ground, zone *time.Location) Struck {
	s := Struck{Event: e, Day: day.FromTime(e.Peak.In(zone))}
	s.Hardened = c.Hardened.On(s.Day - 1)
	switch {
	case e.Cold():
		g.chill(&s)
	case e.Kind == weather.Heat:
		s.scorch = g.scorch(e, zone)
	}
	return s
}

// index is the first hour at or after t.
func (g *ground) index(t time.Time) int {
	lo, hi := 0, len(g.hours)
	for lo < hi {
		if mid := (lo + hi) / 2; g.hours[mid].Time.Before(t) {
			lo = mid + 1
		} else {
			hi = mid
		}
	}
	return lo
}

// chill gives the lowest temperature of each thickness of wood, of pots and of the soil in an event. All thicknesses
// start from the same temperature, so that thicker wood never gets colder than thinner.
func (g *ground) chill(s *Struck) {
	from, to := g.index(s.From.Add(-lead)), g.index(s.To.Add(lead/2))
	first := true
	var t [len(rungs)]float64
	var p [len(pots)]float64
	for i := from; i < to && i < len(g.hours); i++ {
		air := g.hours[i].TempC
		if math.IsNaN(air) {
			continue
		}
		if first {
			first = false
			for k := range t {
				t[k], s.tissue[k] = air, air
			}
			for k := range p {
				p[k], s.pot[k] = air, air
			}
		}
		faster := 1 + 0.3*max(0, or(g.hours[i].WindMS, stillAir))
		for k := range t {
			t[k] = air + (t[k]-air)*math.Exp(-faster/lags[k])
			s.tissue[k] = min(s.tissue[k], t[k])
		}
		for k := range p {
			p[k] = air + (p[k]-air)*math.Exp(-1/potLag(pots[k]))
			s.pot[k] = min(s.pot[k], p[k])
		}
	}
	s.soil, s.mulched, s.snowM = 99, 99, 0
	if peak := g.index(s.Peak); peak < len(g.snowM) {
		s.snowM = float64(g.snowM[peak])
	}
	for i := from; i < min(len(g.hours), to+48); i++ { // soil follows days later
		s.soil, s.mulched = min(s.soil, float64(g.soil[i])), min(s.mulched, float64(g.mulched[i]))
	}
}

// scorch is the worst day's hours over 34 °C in the sun, °C·h.
func (g *ground) scorch(e weather.Event, zone *time.Location) float64 {
	worst, sum, last := 0.0, 0.0, day.None
	for i := g.index(e.From.Add(-12 * time.Hour)); i < len(g.hours) && !g.hours[i].Time.After(e.To.Add(12*time.Hour)); i++ {
		h := g.hours[i]
		local := h.Time.In(zone)
		if d := day.FromTime(local); d != last {
			last, sum = d, 0
		}
		light := h.Sun
		if math.IsNaN(light) {
			light = 0
			if local.Hour() >= 9 && local.Hour() < 18 {
				light = 0.7
			}
		}
		if h.TempC > 35 {
			sum += (h.TempC - 34) * light
			worst = max(worst, sum)
		}
	}
	return worst
}

// spells turns stretches in which open plants dried over frozen soil into events.
func (c *Course) spells(g *ground, zone *time.Location) []Struck {
	var out []Struck
	for _, p := range g.spells {
		e := weather.Event{Kind: DryingWind, From: g.hours[p.from].Time, To: g.hours[p.to].Time, Peak: g.hours[p.to].Time,
			Value: p.dry.worst(), Threshold: fullyOpen, Hours: p.to - p.from + 1}
		s := Struck{Event: e, Day: day.FromTime(e.Peak.In(zone)), dry: p.dry, snowM: float64(g.snowM[p.to])}
		s.Hardened = c.Hardened.On(s.Day - 1)
		out = append(out, s)
	}
	return out
}

// TissueC is the lowest temperature wood of a thickness reached in a cold event, °C.
func (s *Struck) TissueC(mm float64) float64 { return along(rungs[:], s.tissue[:], mm) }

// potC is the same for a root ball of so many litres.
func (s *Struck) potC(litres float64) float64 { return along(pots[:], s.pot[:], litres) }

// along reads a figure between rungs, straight over the logarithm; beyond the ends it is the end's.
func along(at, figure []float64, x float64) float64 {
	if x <= at[0] {
		return figure[0]
	}
	for k := 1; k < len(at); k++ {
		if x <= at[k] {
			w := math.Log(x/at[k-1]) / math.Log(at[k]/at[k-1])
			return figure[k-1] + w*(figure[k]-figure[k-1])
		}
	}
	return figure[len(at)-1]
}

// BearsNow is what a species' wood and buds bear on a day at this place, as its weather hardened them, °C.
func (c *Course) BearsNow(e catalogue.Entry, d day.Day) (wood, buds float64) {
	return Bears(&e, c.Hardened.On(d).Of(&e))
}

// Under is the same night for what stands under cover: tissue and pots so many °C warmer, the soil as it was.
func (s *Struck) Under(warmerC float64) *Struck {
	out := *s
	for i := range out.tissue {
		out.tissue[i] += warmerC
	}
	for i := range out.pot {
		out.pot[i] += warmerC
	}
	return &out
}
