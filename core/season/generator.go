package season

import (
	"math"
	"math/rand/v2"

	"gonum.org/v1/gonum/mathext"
	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/day"
)

// Generator makes weather that agrees with a climate: a simulation, not a forecast. The same seed gives the same
// weather on the same day, whichever stretch of days is asked for.
type Generator struct {
	Normals *Normals
	Seed    uint64
}

// Weather is one generated day.
type Weather struct {
	MinC, MaxC float64
	RainMM     float64
	RHPct      float64
	WindMS     float64
	Sun        float64 // share of the clear-sky sun, 0 to 1
}

// memory is how many days back a day's weather still hangs on: 0.7 to the 24th is under 0.0002.
const memory = 24

type shocks struct{ temp, rainChance, rainAmount, wind, damp float64 }

// shock draws the day's own random figures, from the seed and the date alone.
func (g Generator) shock(d day.Day) shocks {
	r := rand.New(rand.NewPCG(g.Seed, uint64(int64(d))*0x9e3779b97f4a7c15+1))
	return shocks{r.NormFloat64(), r.Float64(), r.ExpFloat64(), r.NormFloat64(), r.NormFloat64()}
}

// rainShape is the gamma shape of a wet day's amount: many light falls, few heavy ones (Wilks 1999 finds 0.6 to 0.8).
const rainShape = 0.7

// rainGamma turns an exponential draw into a gamma one of mean 1 with the same rank.
func rainGamma(draw float64) float64 {
	return mathext.GammaIncRegInv(rainShape, -math.Expm1(-draw)) / rainShape
}

// Days makes the weather of n days from the given one.
func (g Generator) Days(from day.Day, n int) []Weather {
	out := make([]Weather, 0, n)
	anomaly, breeze, wet := 0.0, 0.0, false
	fresh := math.Sqrt(1 - Persistence*Persistence)
	for d := from - memory; d < from+day.Day(n); d++ {
		s := g.shock(d)
		anomaly = Persistence*anomaly + fresh*s.temp
		breeze = 0.5*breeze + 0.866*s.wind
		// Rain by a two-state chain: about 8 mm falls on a wet day, and wet days come in runs.
		daily := math.Max(0.05, g.Normals.Rain.At(d))
		share := math.Min(0.6, daily/8)
		stay := share + 0.3*(1-share)
		start := share * (1 - stay) / (1 - share)
		if wet {
			wet = s.rainChance < stay
		} else {
			wet = s.rainChance < start
		}
		if d < from {
			continue
		}
		sd := g.Normals.SD(d)
		w := Weather{
			MinC:   g.Normals.TMin.At(d) + sd*anomaly,
			MaxC:   g.Normals.TMax.At(d) + sd*anomaly,
			RHPct:  g.Normals.RH.At(d) + 6*s.damp,
			WindMS: math.Max(0.2, g.Normals.Wind.At(d)*math.Exp(0.45*breeze-0.1)),
			Sun:    0.35 + 0.5*distuv.UnitNormal.CDF(s.damp*-1),
		}
		// Wet days are cooler by day and milder by night; dry ones the other way, so that the means hold.
		lean := (1 - share) * 1.6
		if !wet {
			lean = -share * 1.6
		} else {
			w.RainMM = daily / share * rainGamma(s.rainAmount)
			w.RHPct += 12
			w.Sun *= 0.35
		}
		w.MinC += lean / 2
		w.MaxC -= lean
		w.MaxC = math.Max(w.MaxC, w.MinC+1)
		w.RHPct = math.Max(15, math.Min(100, w.RHPct))
		out = append(out, w)
	}
	return out
}

// Hourly spreads a run of days over their hours (solar time, 24 a day) by the sine and exponential curve of Parton
// and Logan (1981): the lowest temperature an hour after sunrise, the highest early in the afternoon.
func Hourly(latitude float64, from day.Day, days []Weather) []float64 {
	const (
		lagMax = 1.8 // hours from noon to the warmest, as the curve's stretch
		lagMin = 1.0 // hours from sunrise to the coldest
		decay  = 2.2 // cooling rate of the night
	)
	out := make([]float64, 0, 24*len(days))
	for i, w := range days {
		sun := SunOn(latitude, from+day.Day(i))
		light := sun.Set - sun.Rise
		prev, next := w, w
		if i > 0 {
			prev = days[i-1]
		}
		if i+1 < len(days) {
			next = days[i+1]
		}
		dayTemp := func(x Weather, sinceMin float64) float64 {
			return x.MinC + (x.MaxC-x.MinC)*math.Sin(math.Pi*sinceMin/(light+2*lagMax-lagMin))
		}
		dusk := light - lagMin // hours from the minimum to sunset
		night := 24 - light + lagMin
		cool := func(fromT, toT, since float64) float64 { // reaches toT at the end of the night
			e := math.Exp(-decay)
			return toT + (fromT-toT)*(math.Exp(-decay*since/night)-e)/(1-e)
		}
		for h := range 24 {
			t := float64(h) + 0.5
			switch {
			case t < sun.Rise+lagMin:
				out = append(out, cool(dayTemp(prev, dusk), w.MinC, t+24-sun.Set))
			case t <= sun.Set:
				out = append(out, dayTemp(w, t-sun.Rise-lagMin))
			default:
				out = append(out, cool(dayTemp(w, dusk), next.MinC, t-sun.Set))
			}
		}
	}
	return out
}
