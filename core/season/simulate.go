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

// Simulate makes the outlook of the garden year of d from a number of seeded years. The same seed gives the same answer.
func (y *Year) Simulate(d day.Day, years int, seed uint64) Outlook {
	c := y.Normals.Climate
	from, to := c.GardenYear(d)
	midwinter, midsummer := c.Midwinter(d), c.Midwinter(d)+182
	end := max(to, midwinter+367) // through the winter that follows, for the autumn's first frosts
	n := end.Sub(from)
	lo, hi, sd, seen := make([]float64, n), make([]float64, n), make([]float64, n), make([]bool, n)
	for i := range n {
		x := from + day.Day(i)
		var e Extremes
		e, seen[i] = y.Extremes(x)
		lo[i], hi[i], sd[i] = e.Min, e.Max, y.Normals.SD(x)
	}
	// degree-days are noted at the end of each week from midwinter on
	ends := make([]int, weeks)
	for w := range ends {
		ends[w] = midwinter.Sub(from) + 7*(w+1) - 1
	}
	frosty := 0
	var last, first, lastKill, firstKill, hotDay []float64
	hotC, chill, coldest := make([]float64, 0, years), make([]float64, 0, years), make([]float64, 0, years)
	sums := make([][]float64, weeks)
	fresh := math.Sqrt(1 - Persistence*Persistence)
	mean := make([]float64, n)
	for k := range years {
		r := rand.New(rand.NewPCG(seed, uint64(k)))
		anomaly := r.NormFloat64()
		lf, ff, lk, fk := -1, -1, -1, -1
		dd, ch, low := 0.0, 0.0, math.Inf(1)
		week := 0
		for i := range n {
			x := from + day.Day(i)
			a, b := lo[i], hi[i]
			if seen[i] {
				// what was observed carries over into the first days ahead
				anomaly = (a + b - y.Normals.TMin.At(x) - y.Normals.TMax.At(x)) / 2 / sd[i]
			} else {
				anomaly = Persistence*anomaly + fresh*r.NormFloat64()
				a, b = a+sd[i]*anomaly, b+sd[i]*anomaly
			}
			mean[i] = (a + b) / 2
			if x < to {
				low = math.Min(low, a)
			}
			if x < midsummer {
				ch += ChillHours(a, b)
				if a < 0 {
					lf = i
				}
				if a < KillingFrostC {
					lk = i
				}
			} else {
				if a < 0 && ff < 0 {
					ff = i
				}
				if a < KillingFrostC && fk < 0 {
					fk = i
				}
			}
			if x >= midwinter {
				dd += DegreeDay(a, b, GrowthBase)
			}
			if week < weeks && i == ends[week] {
				sums[week] = append(sums[week], dd)
				week++
			}
		}
		best, at, warmth := math.Inf(-1), 0, 0.0
		for i := range to.Sub(from) {
			warmth += mean[i]
			if i >= 7 {
				warmth -= mean[i-7]
			}
			if i >= 6 && warmth/7 > best {
				best, at = warmth/7, i-3
			}
		}
		hotDay, hotC = append(hotDay, float64(at)), append(hotC, best)
		chill, coldest = append(chill, ch), append(coldest, low)
		if low < 0 {
			frosty++
		}
		for _, e := range []struct {
			at   int
			list *[]float64
		}{{lf, &last}, {ff, &first}, {lk, &lastKill}, {fk, &firstKill}} {
			if e.at >= 0 {
				*e.list = append(*e.list, float64(e.at))
			}
		}
	}
	band := func(days []float64) *Band {
		if 2*len(days) < years {
			return nil
		}
		s := spreadOf(days)
		at := func(v float64) day.Day { return from + day.Day(math.Round(v)) }
		return &Band{at(s.Low), at(s.Mid), at(s.High)}
	}
	out := Outlook{Years: years, FrostYears: float64(frosty) / float64(years), LastFrost: band(last), FirstFrost: band(first), LastKillingFrost: band(lastKill), FirstKillingFrost: band(firstKill),
		HottestWeek: band(hotDay), HottestWeekC: spreadOf(hotC), ChillHours: spreadOf(chill), ExtremeMinC: spreadOf(coldest)}
	for w, s := range sums {
		out.DegreeDays = append(out.DegreeDays, DatedSpread{from + day.Day(ends[w]), spreadOf(s)})
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
