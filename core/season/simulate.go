package season

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"mezzadro/core/day"
)

// Zone is the hardiness zone of a mean yearly extreme minimum: zone n spans 10 °F from −60 + 10(n−1) °F, in halves a
// and b. Places beyond the scale take its nearest end.
func Zone(extremeMinC float64) string {
	steps := math.Floor((extremeMinC*9/5 + 32 + 60) / 5) // half zones above −60 °F
	steps = math.Max(0, math.Min(25, steps))
	return fmt.Sprintf("%d%c", int(steps)/2+1, 'a'+rune(int(steps)%2))
}

// Spread is a figure with its spread: one year in ten is under Low, one in ten over High.
type Spread struct {
	Low  float64 `json:"low"`
	Mid  float64 `json:"mid"`
	High float64 `json:"high"`
}

// DatedSpread is a figure on a day, with its spread.
type DatedSpread struct {
	Day day.Day `json:"day" format:"date"`
	Spread
}

// Outlook is what simulated years say of the garden year: observed days as they were, days ahead made up from the
// climate, going on from the last observed day's anomaly. A simulation, not a forecast.
type Outlook struct {
	Years             int           `json:"years" doc:"Simulated years"`
	LastFrost         *Band         `json:"last_frost" doc:"Last night under 0 °C of the spring; null where fewer than half the years have one"`
	FirstFrost        *Band         `json:"first_frost" doc:"First night under 0 °C of the autumn"`
	LastKillingFrost  *Band         `json:"last_killing_frost" doc:"−2.2 °C"`
	FirstKillingFrost *Band         `json:"first_killing_frost"`
	DegreeDays        []DatedSpread `json:"degree_days" doc:"Base 10 °C since midwinter, week by week through the year from midwinter"`
	LastFrostYears    float64       `json:"last_frost_years" doc:"Share of years that have one, 0 to 1: under a half its date is null"`
	FirstFrostYears   float64       `json:"first_frost_years" doc:"Share of years with a first frost before the season ends"`
	LastKillingYears  float64       `json:"last_killing_years" doc:"Share of years with a last killing frost"`
	FirstKillingYears float64       `json:"first_killing_years" doc:"Share of years with a first killing frost"`
	FrostYears        float64       `json:"frost_years" doc:"Share of years with a night under 0 °C in the garden year, 0 to 1: where it is under a half the dates of frost are null"`
	HottestWeek       *Band         `json:"hottest_week" doc:"Middle day of the seven warmest"`
	HottestWeekC      Spread        `json:"hottest_week_c" doc:"Its mean temperature, °C"`
	ChillHours        Spread        `json:"chill_hours" doc:"Hours from 0 to 7.2 °C between the garden year's start and the spring"`
	ExtremeMinC       Spread        `json:"extreme_min_c" doc:"Coldest night of the garden year, °C"`
}

// ChillHours is how long a day lies between 0 and 7.2 °C, taking it as a straight rise and fall, hours.
func ChillHours(lo, hi float64) float64 {
	if hi-lo < 0.1 {
		hi = lo + 0.1
	}
	return 24 * math.Max(0, math.Min(7.2, hi)-math.Max(0, lo)) / (hi - lo)
}

// weeks is how many weeks from midwinter the degree-days are given for.
const weeks = 52

// stage is what all simulated years of a garden year have in common.
type stage struct {
	y          *Year
	from, to   day.Day
	midwinter  day.Day
	lo, hi, sd []float64
	seen       []bool
	ends       []int // of the weeks from midwinter on
}

// lived is one simulated year: days as indices from the garden year's start, −1 where there is none.
type lived struct {
	lastFrost, firstFrost, lastKill, firstKill int
	hot                                        int
	hotC, chill, low                           float64
	weeks                                      []float64
}

// stage lays out the garden year of d and the winter that follows it, for the autumn's first frosts.
func (y *Year) stage(d day.Day) stage {
	c := y.Normals.Climate
	s := stage{y: y, midwinter: c.Midwinter(d)}
	s.from, s.to = c.GardenYear(d)
	n := max(s.to, s.midwinter+367).Sub(s.from)
	s.lo, s.hi, s.sd, s.seen = make([]float64, n), make([]float64, n), make([]float64, n), make([]bool, n)
	for i := range n {
		x := s.from + day.Day(i)
		var e Extremes
		e, s.seen[i] = y.Extremes(x)
		s.lo[i], s.hi[i], s.sd[i] = e.Min, e.Max, y.Normals.SD(x)
	}
	s.ends = make([]int, weeks)
	for w := range s.ends {
		s.ends[w] = s.midwinter.Sub(s.from) + 7*(w+1) - 1
	}
	return s
}

// live makes up one year. mean is room for its daily means.
func (s *stage) live(r *rand.Rand, mean []float64) lived {
	out := lived{lastFrost: -1, firstFrost: -1, lastKill: -1, firstKill: -1, low: math.Inf(1), weeks: make([]float64, 0, weeks)}
	fresh := math.Sqrt(1 - Persistence*Persistence)
	anomaly, dd := r.NormFloat64(), 0.0
	for i := range s.lo {
		x := s.from + day.Day(i)
		a, b := s.lo[i], s.hi[i]
		if s.seen[i] { // what was observed carries over into the first days ahead
			anomaly = (a + b - s.y.Normals.TMin.At(x) - s.y.Normals.TMax.At(x)) / 2 / s.sd[i]
		} else {
			anomaly = Persistence*anomaly + fresh*r.NormFloat64()
			a, b = a+s.sd[i]*anomaly, b+s.sd[i]*anomaly
		}
		mean[i] = (a + b) / 2
		out.frosts(i, x < s.midwinter+182, a)
		if x < s.to {
			out.low = math.Min(out.low, a)
		}
		if x < s.midwinter+182 {
			out.chill += ChillHours(a, b)
		}
		if x >= s.midwinter {
			dd += DegreeDay(a, b, GrowthBase)
		}
		if w := len(out.weeks); w < weeks && i == s.ends[w] {
			out.weeks = append(out.weeks, dd)
		}
	}
	out.hot, out.hotC = hottest(mean[:s.to.Sub(s.from)])
	return out
}

// frosts notes a night's frost: the last of spring, the first of autumn.
func (l *lived) frosts(i int, spring bool, minC float64) {
	if spring {
		if minC < 0 {
			l.lastFrost = i
		}
		if minC < KillingFrostC {
			l.lastKill = i
		}
		return
	}
	if minC < 0 && l.firstFrost < 0 {
		l.firstFrost = i
	}
	if minC < KillingFrostC && l.firstKill < 0 {
		l.firstKill = i
	}
}

// hottest is the middle day of the seven warmest on end, and their mean, °C.
func hottest(mean []float64) (at int, c float64) {
	c = math.Inf(-1)
	sum := 0.0
	for i, v := range mean {
		sum += v
		if i >= 7 {
			sum -= mean[i-7]
		}
		if i >= 6 && sum/7 > c {
			c, at = sum/7, i-3
		}
	}
	return at, c
}

// Simulate makes the outlook of the garden year of d from a number of seeded years. The same seed gives the same
// answer.
func (y *Year) Simulate(d day.Day, years int, seed uint64) Outlook {
	s := y.stage(d)
	var last, first, lastKill, firstKill, hotDay, hotC, chill, coldest []float64
	sums := make([][]float64, weeks)
	mean := make([]float64, len(s.lo))
	frosty := 0
	note := func(list *[]float64, at int) {
		if at >= 0 {
			*list = append(*list, float64(at))
		}
	}
	for k := range years {
		l := s.live(rand.New(rand.NewPCG(seed, uint64(k))), mean)
		note(&last, l.lastFrost)
		note(&first, l.firstFrost)
		note(&lastKill, l.lastKill)
		note(&firstKill, l.firstKill)
		hotDay, hotC = append(hotDay, float64(l.hot)), append(hotC, l.hotC)
		chill, coldest = append(chill, l.chill), append(coldest, l.low)
		for w, dd := range l.weeks {
			sums[w] = append(sums[w], dd)
		}
		if l.low < 0 {
			frosty++
		}
	}
	band := func(days []float64) *Band {
		if 2*len(days) < years {
			return nil
		}
		p := spreadOf(days)
		at := func(v float64) day.Day { return s.from + day.Day(math.Round(v)) }
		return &Band{at(p.Low), at(p.Mid), at(p.High)}
	}
	out := Outlook{Years: years, FrostYears: float64(frosty) / float64(years), LastFrost: band(last), FirstFrost: band(first),
		LastKillingFrost: band(lastKill), FirstKillingFrost: band(firstKill), HottestWeek: band(hotDay), HottestWeekC: spreadOf(hotC),
		ChillHours: spreadOf(chill), ExtremeMinC: spreadOf(coldest)}
	share := func(of []float64) float64 { return float64(len(of)) / float64(years) }
	out.LastFrostYears, out.FirstFrostYears = share(last), share(first)
	out.LastKillingYears, out.FirstKillingYears = share(lastKill), share(firstKill)
	for w, sum := range sums {
		out.DegreeDays = append(out.DegreeDays, DatedSpread{s.from + day.Day(s.ends[w]), spreadOf(sum)})
	}
	return out
}

// spreadOf is the 10, 50 and 90 % points of values.
func spreadOf(v []float64) Spread {
	if len(v) == 0 {
		return Spread{}
	}
	s := slices.Sorted(slices.Values(v))
	at := func(q float64) float64 { return s[int(q*float64(len(s)-1)+0.5)] }
	return Spread{at(0.1), at(0.5), at(0.9)}
}
