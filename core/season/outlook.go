package season

import (
	"math"
	"sort"
	"sync"

	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/day"
)

const (
	// Persistence is the lag-one correlation of the daily temperature anomaly.
	Persistence = 0.7
	// independence is the share of days that count as fresh chances of an extreme: fitted so that the analytic
	// coldest night agrees with generated years (see the test).
	independence = 0.62
	// KillingFrostC is the night minimum that ends tender growth, °C.
	KillingFrostC = -2.2
)

// Band is a day with its spread: one year in ten is earlier than Early, one in ten later than Late.
type Band struct {
	Early day.Day `json:"early"`
	Mid   day.Day `json:"mid"`
	Late  day.Day `json:"late"`
}

// SD is the spread of the daily temperature anomaly on d, °C: widest in midwinter, narrowest in midsummer.
func (n *Normals) SD(d day.Day) float64 { return n.sdWith(n.winterSD, d.YearFraction()) }

func (n *Normals) sdWith(winter, fraction float64) float64 {
	phase := math.Cos(2 * math.Pi * (fraction - 0.04)) // mid January
	if n.Climate.South() {
		phase = -phase
	}
	return (winter+n.summerSD)/2 + (winter-n.summerSD)/2*phase
}

// solveWinterSD finds the winter spread with which the median coldest night of a year is the climate's extreme minimum.
func (n *Normals) solveWinterSD() float64 {
	const step = 2
	var mins, fracs [365/step + 1]float64
	for i := range mins {
		fracs[i] = (float64(i*step) + 0.5) / 365.2425
		mins[i] = n.TMin.atFraction(fracs[i])
	}
	medianIsColder := func(sd float64) bool { // is the median coldest night colder than the extreme minimum?
		logNone := 0.0
		for i, m := range mins {
			p := distuv.UnitNormal.CDF((n.Climate.ExtremeMinC - m) / n.sdWith(sd, fracs[i]))
			logNone += math.Log1p(-math.Min(p, 1-1e-12)) * step * independence
		}
		return logNone < -math.Ln2
	}
	lo, hi := 0.5, 14.0
	for range 30 {
		mid := (lo + hi) / 2
		if medianIsColder(mid) {
			hi = mid
		} else {
			lo = mid
		}
	}
	return (lo + hi) / 2
}

// FrostChance is the chance that the night of d falls below limit °C, 0 to 1.
func (n *Normals) FrostChance(d day.Day, limit float64) float64 {
	return distuv.UnitNormal.CDF((limit - n.TMin.At(d)) / n.SD(d))
}

// FrostToCome is, for each day from one to another, the chance that a later night up to the end of the frost season
// (the midsummer after from) falls below limit °C.
func (n *Normals) FrostToCome(from, to day.Day, limit float64) []float64 {
	out := make([]float64, max(0, to.Sub(from)+1))
	logNone := 0.0
	for d := max(to, n.midsummer(from)); d >= from; d-- {
		if d <= to {
			out[d-from] = 1 - math.Exp(logNone)
		}
		if d <= n.midsummer(from) {
			logNone += independence * math.Log1p(-math.Min(n.FrostChance(d, limit), 1-1e-12))
		}
	}
	return out
}

// FrostWithin is, for each day from one to another, the chance that one of the nights of the following span of days
// falls below limit °C.
func (n *Normals) FrostWithin(from, to day.Day, span int, limit float64) []float64 {
	days := max(0, to.Sub(from)+1)
	logNone := make([]float64, days+span+1) // of all nights before the index
	for i := range days + span {
		p := n.FrostChance(from+day.Day(i), limit)
		logNone[i+1] = logNone[i] + independence*math.Log1p(-math.Min(p, 1-1e-12))
	}
	out := make([]float64, days)
	for i := range out {
		out[i] = 1 - math.Exp(logNone[i+span]-logNone[i])
	}
	return out
}

func (n *Normals) midsummer(d day.Day) day.Day { return n.Climate.Midwinter(d) + 182 }

// LastFrost is the band of the last night below limit °C from a day on, before the midsummer that follows. ok is
// false where such nights are so rare that fewer than half the years still have one.
func (n *Normals) LastFrost(from day.Day, limit float64) (b Band, ok bool) {
	end := n.midsummer(from)
	if from > end {
		return Band{day.None, day.None, day.None}, false
	}
	b = Band{end, end, end}
	chance := n.FrostToCome(from, end, limit)
	for i := len(chance) - 1; i >= 0; i-- {
		d := from + day.Day(i)
		if chance[i] <= 0.1 {
			b.Late = d
		}
		if chance[i] <= 0.5 {
			b.Mid = d
		}
		if chance[i] <= 0.9 {
			b.Early = d
		}
	}
	return b, b.Mid > from
}

// Extremes is a day's lowest and highest temperature, °C.
type Extremes struct{ Min, Max float64 }

// Year is the course of the year at one place as far as it is known: observed days as they were, the rest as normal.
type Year struct {
	Normals  *Normals
	observed map[day.Day]Extremes
	last     day.Day // last day observed without a later one

	mu     sync.Mutex
	sums   map[day.Day]*sums // by midwinter
	frosts map[frostAsked]day.Day
}

// frostAsked is a question FrostDay answered before.
type frostAsked struct {
	midwinter  day.Day
	limit, by  float64
	lastSpring bool
}

// NewYear joins what was observed to the normals. Days not observed are taken as normal.
func NewYear(n *Normals, observed map[day.Day]Extremes) *Year {
	y := &Year{Normals: n, observed: observed, last: day.None} // nobody changes observed any more
	for d := range observed {
		y.last = max(y.last, d)
	}
	return y
}

// Extremes is the day's temperature and whether it was observed.
func (y *Year) Extremes(d day.Day) (Extremes, bool) {
	if e, ok := y.observed[d]; ok {
		return e, true
	}
	return Extremes{y.Normals.TMin.At(d), y.Normals.TMax.At(d)}, false
}

// LastObserved is the last day of observed weather, day.None without any.
func (y *Year) LastObserved() day.Day { return y.last }

// DegreeDay is one day's heat above base by the single-sine method (Baskerville and Emin 1969), °C·days.
func DegreeDay(tmin, tmax, base float64) float64 {
	switch mean := (tmin + tmax) / 2; {
	case tmax <= base:
		return 0
	case tmin >= base:
		return mean - base
	default:
		half := (tmax - tmin) / 2
		theta := math.Asin((base - mean) / half)
		return ((mean-base)*(math.Pi/2-theta) + half*math.Cos(theta)) / math.Pi
	}
}

// DegreeDays is the sum from the garden year's midwinter to the end of d, with days ahead as normal; 0 before
// midwinter.
func (y *Year) DegreeDays(d day.Day) float64 {
	s := y.buds(d, false)
	return s.growth[usual][max(0, min(sumDays-1, d.Sub(s.from)))]
}

// FrostDay is the day by which, in a share by of years, the last night of spring under limit °C is over (spring), or
// the first of autumn has come; in the garden year of d, with what was observed taken as it was. ok is false where
// frost comes in fewer years than that.
func (y *Year) FrostDay(d day.Day, limit, by float64, spring bool) (at day.Day, ok bool) {
	c := y.Normals.Climate
	ask := frostAsked{c.Midwinter(d), limit, by, spring}
	y.mu.Lock()
	at, known := y.frosts[ask]
	y.mu.Unlock()
	if !known {
		at = y.frostDay(ask)
		y.mu.Lock()
		if y.frosts == nil {
			y.frosts = map[frostAsked]day.Day{}
		}
		y.frosts[ask] = at
		y.mu.Unlock()
	}
	return at, at != day.None
}

// FirstFrost is the band of the first night of the autumn under limit °C in the garden year of d. ok is false where
// fewer than half the years have one; where fewer than nine in ten have, Late is the end of the winter.
func (y *Year) FirstFrost(d day.Day, limit float64) (b Band, ok bool) {
	b.Early, _ = y.FrostDay(d, limit, 0.1, false)
	if b.Mid, ok = y.FrostDay(d, limit, 0.5, false); !ok {
		return Band{day.None, day.None, day.None}, false
	}
	if b.Late, ok = y.FrostDay(d, limit, 0.9, false); !ok {
		b.Late = y.Normals.Climate.Midwinter(d) + 364
	}
	return b, true
}

func (y *Year) frostDay(ask frostAsked) day.Day {
	if ask.lastSpring {
		from, to := ask.midwinter-30, ask.midwinter+182
		seen := day.None
		for x := from; x <= min(to, y.last); x++ {
			if e, ok := y.observed[x]; ok && e.Min < ask.limit {
				seen = x
			}
		}
		from = max(from, y.last+1)
		if from > to {
			return seen
		}
		chance := y.Normals.FrostToCome(from, to, ask.limit)
		for i, p := range chance {
			if p <= 1-ask.by {
				if i == 0 { // most likely none is to come
					return seen
				}
				return from + day.Day(i)
			}
		}
		return to
	}
	from, to := ask.midwinter+182, ask.midwinter+364
	for x := from; x <= min(to, y.last); x++ {
		if e, ok := y.observed[x]; ok && e.Min < ask.limit {
			return x
		}
	}
	logNone := 0.0
	for x := max(from, y.last+1); x <= to; x++ {
		logNone += independence * math.Log1p(-math.Min(y.Normals.FrostChance(x, ask.limit), 1-1e-12))
		if 1-math.Exp(logNone) >= ask.by {
			return x
		}
	}
	return day.None
}

// z90 is the standard normal deviate that one case in ten exceeds.
const z90 = 1.2816

// meanSD is the spread of the mean anomaly of the n days after the last observed one, °C: an AR(1) mean.
func (y *Year) meanSD(from day.Day, days int) float64 {
	if days <= 0 {
		return 0
	}
	f := 0.0
	if days < len(meanShare) {
		f = meanShare[days]
	} else {
		f = shareOfMean(days)
	}
	return y.Normals.SD(from+day.Day(days/2)) * f
}

// shareOfMean is the spread of the mean of so many days as a share of that of one.
func shareOfMean(days int) float64 {
	n, r := float64(days), Persistence
	v := (n*(1+r)/(1-r) - 2*r*(1-math.Pow(r, n))/((1-r)*(1-r))) / (n * n)
	return math.Sqrt(math.Max(0, v))
}

// meanShare is shareOfMean, once worked out.
var meanShare = func() (t [sumDays + 1]float64) {
	for i := 1; i < len(t); i++ {
		t[i] = shareOfMean(i)
	}
	return t
}()

// ReachDegreeDays is the band of the day on which the sum since midwinter reaches target, in the garden year of d.
// ok is false when not even a warm year gets there before the next midwinter.
func (y *Year) ReachDegreeDays(d day.Day, target float64) (b Band, ok bool) {
	s := y.buds(d, true)
	const end = beforeMidwinter + 364
	at := func(way int) (day.Day, bool) {
		i := sort.SearchFloat64s(s.growth[way][:end+1], target)
		return s.from + day.Day(min(i, end)), i <= end
	}
	if b.Early, ok = at(warm); !ok {
		return Band{day.None, day.None, day.None}, false
	}
	b.Mid, _ = at(usual)
	b.Late, _ = at(cold)
	return b, true
}
