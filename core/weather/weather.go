// Package weather reads what the weather was from hourly records: the days' extremes, and the events that struck:
// freezes, frosts on open growth, heat, gales and wet spells. Nobody types an event in: it is found from the hours, by
// thresholds that follow from the climate, since a night that is nothing on the prairie is a disaster on the gulf
// coast.
package weather

import (
	"math"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Hour is one record. Figures that a source does not give are NaN.
type Hour struct {
	Time   time.Time // start of the hour, UTC
	TempC  float64
	WindMS float64
	RainMM float64
	RHPct  float64
	Sun    float64 // share of the clear-sky sun, 0 to 1
	Here   bool    // measured in the garden itself: no correction for its site
	Source int64   // by which the record knows where it came from; 0: unknown
}

// Filled is the hour with what it did not measure taken from another of the same time.
func (h Hour) Filled(from Hour) Hour {
	for to, v := range map[*float64]float64{&h.WindMS: from.WindMS, &h.RainMM: from.RainMM, &h.RHPct: from.RHPct, &h.Sun: from.Sun} {
		if math.IsNaN(*to) {
			*to = v
		}
	}
	return h
}

// At is the record as it was on a site at a longitude, unless it was measured there. By day the site's days count, by
// night its nights; where the record tells no sun, day is from seven to six by the sun.
func At(hours []Hour, s season.Site, longitude float64) []Hour {
	if s == (season.Site{}) {
		return hours
	}
	o := s.Offsets()
	out := make([]Hour, len(hours))
	for i, h := range hours {
		if !h.Here {
			light := h.Sun > 0
			if math.IsNaN(h.Sun) {
				solar := math.Mod(float64(h.Time.Hour())+0.5+longitude/15+48, 24)
				light = solar >= 7 && solar <= 18
			}
			if light {
				h.TempC += o.DayC
			} else {
				h.TempC += o.NightC
			}
			h.WindMS *= o.Wind
		}
		out[i] = h
	}
	return out
}

// fullDay is how many hourly records make a day's extremes trustworthy.
const fullDay = 20

// Daily gives the lowest and highest temperature of each day of the zone that has at least 20 hourly records.
func Daily(hours []Hour, zone *time.Location) map[day.Day]season.Extremes {
	type tally struct {
		season.Extremes
		n int
	}
	days := make(map[day.Day]tally, len(hours)/24+1)
	on := civil(hours, zone)
	last, running := day.None, tally{}
	for i, h := range hours {
		if math.IsNaN(h.TempC) {
			continue
		}
		if d := on(i); d != last {
			days[last] = running
			last, running = d, days[d]
		}
		if running.n == 0 {
			running.Extremes = season.Extremes{Min: h.TempC, Max: h.TempC}
		}
		running.Min, running.Max = min(running.Min, h.TempC), max(running.Max, h.TempC)
		running.n++
	}
	days[last] = running
	delete(days, day.None)
	out := make(map[day.Day]season.Extremes, len(days))
	for d, t := range days {
		if t.n >= fullDay {
			out[d] = t.Extremes
		}
	}
	return out
}

// Kinds of event.
const (
	Freeze    = "freeze"     // colder than what plants that belong here bear without care that day
	LateFrost = "late frost" // frost on open growth
	Heat      = "heat"
	Wet       = "wet spell"
	Gale      = "gale"
)

// Event is something the weather did that plants may have been hurt by.
type Event struct {
	Kind       string
	From, To   time.Time // first and last hour past the threshold
	Peak       time.Time // coldest, hottest, windiest hour; of a wet spell the last
	Value      float64   // °C at the peak; m/s for a gale; mm of rain for a wet spell
	Threshold  float64   // what counted as an event here, in the same unit
	Hours      int       // hours under 0 °C, unbroken but for short thaws; for heat, gale and wet spell those past the threshold
	FallC      float64   // frost: how far the minimum fell within 72 h: suddenness, °C
	BeforeC    float64   // mean temperature of the fourteen days before, °C
	BeforeOffC float64   // how much that was above the normal of those days, °C
}

// Cold reports a freeze or a late frost.
func (e Event) Cold() bool { return e.Kind == Freeze || e.Kind == LateFrost }

// Limits are what counts as an event at a place.
type Limits struct {
	FreezeC func(day.Day) float64 // night minimum that counts as a freeze on a day, °C
	Growing func(day.Day) bool    // growth is open: frost on it is a late frost
	DeepC   float64               // from here down a frost is a freeze, open growth or not, °C
	HeatC   float64
	GaleMS  float64
	WetMM   float64 // rain within seven days
}

// LimitsOf are the limits of a climate when nothing is known of how hardened its plants are.
func LimitsOf(n *season.Normals) Limits {
	limit := Threshold(n.Climate)
	hottest, wind, rain := -99.0, 0.0, 0.0
	for _, m := range n.Climate.Normals {
		hottest = max(hottest, m.TMaxC)
		wind += m.WindMS / 12
		rain = max(rain, m.RainMM)
	}
	return Limits{
		FreezeC: func(day.Day) float64 { return limit },
		Growing: func(day.Day) bool { return false },
		DeepC:   limit - deeper,
		HeatC:   max(30, min(40, hottest+5)),
		GaleMS:  max(9, 3.5*wind),
		WetMM:   max(60, rain),
	}
}

// Threshold is the night minimum, °C, from which a frost counts as an event: half way from the coldest month's mean
// night to the mean coldest night of the year, never above −1 °C.
func Threshold(c season.Climate) float64 {
	coldest := math.Inf(1)
	for _, n := range c.Normals {
		coldest = min(coldest, n.TMinC)
	}
	return min(-1, (coldest+c.ExtremeMinC)/2)
}

// deeper is how far under the winter's own threshold a frost on open growth is still told as a late frost, °C.
const deeper = 2.5

const (
	joinGap = 24 * time.Hour // how long it may be milder than the threshold inside one event
	thaw    = 6 * time.Hour  // how long a thaw must last to end a frost: a midday above 0 °C does not
)

// Find finds the events in records sorted by time, oldest first.
func Find(hours []Hour, n *season.Normals, zone *time.Location, l Limits) []Event {
	out := freezes(hours, n, zone, l)
	out = append(out, runs(hours, Heat, l.HeatC, func(h Hour) float64 { return h.TempC })...)
	out = append(out, runs(hours, Gale, l.GaleMS, func(h Hour) float64 { return h.WindMS })...)
	out = append(out, wetSpells(hours, l.WetMM)...)
	slices.SortStableFunc(out, func(a, b Event) int { return a.From.Compare(b.From) })
	return out
}

// civil gives the civil day of records in turn without asking the zone each time.
func civil(hours []Hour, zone *time.Location) func(i int) day.Day {
	var until, from time.Time
	var d day.Day
	return func(i int) day.Day {
		if t := hours[i].Time; !t.Before(until) || t.Before(from) {
			local := t.In(zone)
			d = day.FromTime(local)
			from = time.Date(local.Year(), local.Month(), local.Day(), 0, 0, 0, 0, zone)
			until = time.Date(local.Year(), local.Month(), local.Day()+1, 0, 0, 0, 0, zone)
		}
		return d
	}
}

func freezes(hours []Hour, n *season.Normals, zone *time.Location, l Limits) []Event {
	on := civil(hours, zone)
	last := day.None
	limit := 0.0
	under := func(i int) bool {
		if !(hours[i].TempC <= -0.2) { // no frost, no freeze, whatever the limit
			return false
		}
		if d := on(i); d != last {
			last, limit = d, l.FreezeC(d)
			if l.Growing(d) {
				limit = max(limit, -0.5)
			}
		}
		return hours[i].TempC <= limit
	}
	var found []Event
	for i := 0; i < len(hours); i++ {
		if !under(i) {
			continue
		}
		first, end, coldest, threshold := i, i, i, limit
		for j := i; j < len(hours) && hours[j].Time.Sub(hours[end].Time) <= joinGap; j++ {
			if under(j) {
				end = j
				if hours[j].TempC < hours[coldest].TempC {
					coldest, threshold = j, limit
				}
			}
		}
		e := Event{Kind: Freeze, From: hours[first].Time, To: hours[end].Time, Peak: hours[coldest].Time,
			Value: hours[coldest].TempC, Threshold: threshold, Hours: below0(hours, coldest)}
		if l.Growing(on(coldest)) && e.Value > l.DeepC {
			e.Kind = LateFrost
		}
		e.FallC = fall(hours, coldest)
		e.BeforeC, e.BeforeOffC = before(hours, first, n, on)
		found = append(found, e)
		i = end
	}
	return found
}

// runs finds stretches of hours at or over a limit, joined over gaps of a day.
func runs(hours []Hour, kind string, limit float64, figure func(Hour) float64) []Event {
	var found []Event
	for _, h := range hours {
		v := figure(h)
		if !(v >= limit) {
			continue
		}
		if k := len(found) - 1; k >= 0 && h.Time.Sub(found[k].To) <= joinGap {
			e := &found[k]
			e.To, e.Hours = h.Time, e.Hours+1
			if v > e.Value {
				e.Value, e.Peak = v, h.Time
			}
			continue
		}
		found = append(found, Event{Kind: kind, From: h.Time, To: h.Time, Peak: h.Time, Value: v, Threshold: limit, Hours: 1})
	}
	return found
}

// wetSpells finds stretches in which the rain of the last seven days lies over a limit.
func wetSpells(hours []Hour, limit float64) []Event {
	var found []Event
	sum, tail := 0.0, 0
	for i, h := range hours {
		if h.RainMM > 0 {
			sum += h.RainMM
		}
		for at := h.Time.Unix(); at-hours[tail].Time.Unix() >= 7*24*3600; tail++ {
			if hours[tail].RainMM > 0 {
				sum -= hours[tail].RainMM
			}
		}
		if sum < limit {
			continue
		}
		if k := len(found) - 1; k >= 0 && h.Time.Sub(found[k].To) <= 7*joinGap {
			e := &found[k]
			e.To, e.Peak, e.Hours, e.Value = h.Time, h.Time, e.Hours+1, max(e.Value, sum)
			continue
		}
		found = append(
			found,
			Event{Kind: Wet, From: hours[tail].Time, To: h.Time, Peak: hours[i].Time, Value: sum, Threshold: limit, Hours: 1},
		)
	}
	return found
}

// below0 counts the frost hours around the coldest one, out to the first real thaw either way.
func below0(hours []Hour, coldest int) int {
	n := 0
	for _, step := range []int{-1, 1} {
		lastFrost := hours[coldest].Time
		for j := coldest; j >= 0 && j < len(hours); j += step {
			if hours[j].Time.Sub(lastFrost).Abs() > thaw {
				break
			}
			if hours[j].TempC < 0 {
				lastFrost = hours[j].Time
				if j != coldest || step > 0 {
					n++
				}
			}
		}
	}
	return n
}

// fall is the drop from the lowest temperature three to four days earlier to the coldest hour.
func fall(hours []Hour, coldest int) float64 {
	earlier, t := math.Inf(1), hours[coldest].Time
	for j := coldest; j >= 0 && t.Sub(hours[j].Time) <= 96*time.Hour; j-- {
		if t.Sub(hours[j].Time) >= 72*time.Hour {
			earlier = min(earlier, hours[j].TempC)
		}
	}
	if math.IsInf(earlier, 1) {
		return 0
	}
	return max(0, earlier-hours[coldest].TempC)
}

// before is the mean temperature of the fortnight before the event and how far above normal it was.
func before(hours []Hour, first int, n *season.Normals, on func(int) day.Day) (mean, off float64) {
	count := 0
	for j := first - 1; j >= 0 && hours[first].Time.Sub(hours[j].Time) <= 14*24*time.Hour; j-- {
		if !math.IsNaN(hours[j].TempC) {
			mean += hours[j].TempC
			off += hours[j].TempC - n.Mean(on(j))
			count++
		}
	}
	if count == 0 {
		return math.NaN(), 0
	}
	return mean / float64(count), off / float64(count)
}
