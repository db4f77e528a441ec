package season

import (
	"math"
	"sort"

	"mezzadro/core/day"
)

// Leaf and bloom by chilling and forcing (Cannell and Smith 1983; Murray, Cannell and Smith 1989): the warmth a bud
// needs falls exponentially with the chill it has had since autumn. Warmth counts above one base for all kinds and by
// the length of the
// day, as photothermal units do (Masle et al. 1989): the long days of the north make up for its cool ones. Fitted to
// dates of leaf and bloom in eight climates from the northern plain to the hot desert.
const (
	// WarmthBase is the base of the warmth that opens buds, °C.
	WarmthBase = 4.0
	halfDay    = 12.0 // hours of light that count once
	leastDay   = 8.0  // shorter days count as these
	chillTau   = 50.0 // days of chill that bring what is missing down to a third
	chillFull  = 5.0  // mean up to which a day chills wholly, °C
	chillNone  = 10.0 // and from which not at all
	// chillReach is the warmth up to which a want of chill is felt, °C·days: what blooms in summer has long broken bud.
	chillReach = 450.0
	// coolBase and coolDay: leaves are shed by cool below the one, °C, on days shorter than the other, hours (after
	// Delpierre et al. 2009).
	coolBase = 20.0
	coolDay  = 13.0
)

// Sums of a garden year begin so many days before midwinter, when chill begins, and end before the midwinter after
// the next.
const (
	beforeMidwinter = 150
	sumDays         = beforeMidwinter + 366 + 60
)

// shifts are how far from normal the days ahead may be, °C; between them is taken straight.
var shifts = [...]float64{-6, -4.5, -3, -1.5, 0, 1.5, 3, 4.5, 6}

// Ways the days ahead may go: colder than nine years in ten, as usual, warmer than nine in ten.
const (
	cold = iota
	usual
	warm
	ways
)

var wayZ = [ways]float64{-z90, 0, z90}

// sums are a garden year's running sums from beforeMidwinter on, by the way the days ahead may go.
type sums struct {
	from   day.Day // of index 0
	warmth [ways][]float64
	growth [ways][]float64 // degree-days base GrowthBase, from midwinter
	chill  [ways][]float64
	cool   [ways][]float64 // from midsummer
	mean   [ways][]float64 // mean of the last ten days, °C
	hurry  []float64       // share of the warmth that is enough as the days shorten
	spread bool            // colder and warmer ways are worked out too
}

// ChillDay is how much of a day with a mean chills, 0 to 1.
func ChillDay(mean float64) float64 {
	return math.Max(0, math.Min(1, (chillNone-mean)/(chillNone-chillFull)))
}

// warmer is what is missing for want of chill, as a share of what Anchor.Chill says.
func warmer(chill float64) float64 { return math.Exp(-chill / chillTau) }

// buds are the sums of the garden year of d, worked out once; those of colder and warmer ways only where the spread is asked for.
func (y *Year) buds(d day.Day, spread bool) *sums {
	midwinter := y.Normals.Climate.Midwinter(d)
	y.mu.Lock()
	defer y.mu.Unlock()
	if s, done := y.sums[midwinter]; done && (s.spread || !spread) {
		return s
	}
	var s *sums
	if y.last < midwinter-beforeMidwinter {
		s = y.Normals.budsAhead(midwinter)
	} else {
		s = y.addUp(midwinter, spread)
	}
	if y.sums == nil {
		y.sums = map[day.Day]*sums{}
	}
	y.sums[midwinter] = s
	return s
}

// budsAhead are the sums of a garden year of which nothing is observed: the same for all that share the normals.
func (n *Normals) budsAhead(midwinter day.Day) *sums {
	n.mu.Lock()
	defer n.mu.Unlock()
	if s, done := n.ahead[midwinter]; done {
		return s
	}
	s := NewYear(n, nil).addUp(midwinter, true)
	if n.ahead == nil {
		n.ahead = map[day.Day]*sums{}
	}
	n.ahead[midwinter] = s
	return s
}

// figures of one day that are summed.
const (
	ofWarmth = iota
	ofGrowth
	ofChill
	ofCool
	figures
)

// dayFigures are what a day adds.
func dayFigures(e Extremes, light float64, i int) (f [figures]float64) {
	mean := (e.Min + e.Max) / 2
	f[ofChill] = ChillDay(mean)
	if i >= beforeMidwinter {
		f[ofWarmth] = DegreeDay(e.Min, e.Max, WarmthBase) * math.Max(leastDay, light) / halfDay
		f[ofGrowth] = DegreeDay(e.Min, e.Max, GrowthBase)
	}
	if i >= beforeMidwinter+172 && light < coolDay {
		f[ofCool] = math.Max(0, coolBase-mean)
	}
	return f
}

// hurried is the share of its warmth with which a plant blooms as the days shorten: what is late in a cool summer
// still blooms.
func hurried(light float64, i int) float64 {
	if i < beforeMidwinter+182 || i > beforeMidwinter+350 {
		return 1
	}
	return 1 - 0.4*math.Max(0, math.Min(1, (14-light)/2))
}

// addUp makes the sums: running sums at each shift, and by way those at the shift that the spread of the mean has by
// then.
func (y *Year) addUp(midwinter day.Day, spread bool) *sums {
	s := &sums{from: midwinter - beforeMidwinter, hurry: make([]float64, sumDays), spread: spread}
	wanted := []int{usual}
	if spread {
		wanted = []int{cold, usual, warm}
	}
	for _, w := range wanted {
		all := make([]float64, 5*sumDays)
		for n, to := range []*[]float64{&s.warmth[w], &s.growth[w], &s.chill[w], &s.cool[w], &s.mean[w]} {
			*to = all[n*sumDays : (n+1)*sumDays]
		}
	}
	ahead := max(s.from, y.last+1)
	var run [len(shifts)][figures]float64 // by shift, up to the day
	for i := range sumDays {
		x := s.from + day.Day(i)
		e, observed := y.Extremes(x)
		light := y.Normals.Light(x)
		s.hurry[i] = hurried(light, i)
		same := dayFigures(e, light, i)
		for k, shift := range shifts {
			f := same
			if !spread && shift != 0 {
				continue
			}
			if !observed && shift != 0 {
				f = dayFigures(Extremes{e.Min + shift, e.Max + shift}, light, i)
			}
			for n, v := range f {
				run[k][n] += v
			}
		}
		for _, w := range wanted {
			sinceAutumn, sinceMidwinter := y.shift(w, ahead, x), y.shift(w, max(ahead, midwinter), x)
			s.warmth[w][i], s.growth[w][i] = at(&run, ofWarmth, sinceMidwinter), at(&run, ofGrowth, sinceMidwinter)
			s.chill[w][i], s.cool[w][i] = at(&run, ofChill, sinceAutumn), at(&run, ofCool, sinceAutumn)
			if i > 0 {
				for _, v := range [][]float64{s.warmth[w], s.growth[w], s.chill[w], s.cool[w]} {
					v[i] = math.Max(v[i], v[i-1])
				}
			}
			s.mean[w][i] = (e.Min + e.Max) / 2
			if !observed {
				s.mean[w][i] += sinceMidwinter
			}
		}
	}
	for _, w := range wanted {
		s.mean[w] = trailing(s.mean[w], 10)
	}
	return s
}

// at is a running sum at a shift between those that are summed.
func at(run *[len(shifts)][figures]float64, figure int, shift float64) float64 {
	k, part := between(shift)
	return run[k][figure] + part*(run[k+1][figure]-run[k][figure])
}

// shift is how far the mean of the days from ahead to x lies from normal, one way, °C.
func (y *Year) shift(way int, ahead, x day.Day) float64 {
	if way == usual {
		return 0
	}
	return wayZ[way] * y.meanSD(ahead, int(x-ahead)+1)
}

// between is the shift's place among shifts: the one under it, and how far it lies towards the next.
func between(shift float64) (k int, part float64) {
	step := shifts[1] - shifts[0]
	at := math.Max(0, math.Min(float64(len(shifts)-1)-1e-9, (shift-shifts[0])/step))
	k = int(at)
	return k, at - float64(k)
}

// trailing is the mean of each value and those before it, n in all where there are as many.
func trailing(v []float64, n int) []float64 {
	out := make([]float64, len(v))
	sum := 0.0
	for i, x := range v {
		sum += x
		if i >= n {
			sum -= v[i-n]
		}
		out[i] = sum / float64(min(n, i+1))
	}
	return out
}

// budDay is the index of the day on which an anchor of warmth, cool or chill is reached, one way; ok is false where
// it is not.
func (s *sums) budDay(a Anchor, way int) (i int, ok bool) {
	switch {
	case a.Warmth != 0:
		extra := a.Chill * math.Min(a.Warmth, chillReach)
		i = sort.Search(
			beforeMidwinter+350,
			func(i int) bool { return s.warmth[way][i] >= s.hurry[i]*(a.Warmth+extra*warmer(s.chill[way][i])) },
		)
		for i < beforeMidwinter+350 && s.mean[way][i] < a.MeanC {
			i++
		}
		return i, i < beforeMidwinter+350
	case a.Cooling != 0:
		// However mild, the short days of midwinter end it.
		return sort.Search(beforeMidwinter+365, func(i int) bool { return s.cool[way][i] >= a.Cooling }), true
	default:
		// However mild, the lengthening days of late winter bring it.
		latest := beforeMidwinter + 60
		i = sort.Search(latest, func(i int) bool { return s.chill[way][i] >= a.ChillDays })
		for i < beforeMidwinter+180 && s.mean[way][i] < a.MeanC {
			i++
		}
		return i, i < beforeMidwinter+180
	}
}

// budBand is the band of an anchor of warmth, cool or chill in the garden year of d. ok is false when a usual year
// does not get there before the next midwinter.
func (y *Year) budBand(a Anchor, d day.Day) (Band, bool) {
	s := y.buds(d, true)
	first, last := warm, cold
	if a.Warmth == 0 {
		first, last = cold, warm
	}
	end := beforeMidwinter + 364
	at := func(way int) (day.Day, bool) {
		i, ok := s.budDay(a, way)
		return s.from + day.Day(min(i, end)), ok
	}
	mid, ok := at(usual)
	if !ok {
		return Band{day.None, day.None, day.None}, false
	}
	early, _ := at(first)
	late, _ := at(last)
	return Band{min(early, mid), mid, max(mid, late)}, true
}
