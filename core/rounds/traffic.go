package rounds

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// Traffic is a stretch of the day in which ways take longer.
type Traffic struct {
	From  int            `json:"from" minimum:"0" maximum:"1440" doc:"Minutes after midnight"`
	To    int            `json:"to" minimum:"0" maximum:"1440" doc:"Until when"`
	Times float64        `json:"times" minimum:"1" maximum:"5" doc:"How many times as long each minute of a way takes then"`
	Days  []time.Weekday `json:"days,omitempty" maxItems:"7" doc:"Weekdays, 0 Sunday; Monday to Friday when absent"`
}

// on reports that it is so on a weekday.
func (t Traffic) on(d time.Weekday) bool {
	if len(t.Days) == 0 {
		return d != time.Saturday && d != time.Sunday
	}
	return slices.Contains(t.Days, d)
}

// TrafficFaults names what cannot be: spans that end before they begin, or that lie over each other on one day.
func TrafficFaults(list []Traffic) (bad invalid.Fields) {
	for i, t := range list {
		at := fmt.Sprintf("traffic[%d]", i)
		if t.To <= t.From {
			bad.Add(at+".to", t.To, "%d min ends before it begins, at %d", t.To, t.From)
		}
		if !(t.Times >= 1 && t.Times <= 5) {
			bad.Add(at+".times", t.Times, "%g: want 1 to 5 times as long", t.Times)
		}
		for k, o := range list[:i] {
			for d := time.Sunday; d <= time.Saturday; d++ {
				if t.on(d) && o.on(d) && t.From < o.To && o.From < t.To {
					bad.Add(at+".from", t.From, "lies over traffic[%d] on a %s", k, d)
					break
				}
			}
		}
	}
	return bad
}

// rush is the traffic of a day, in order.
func (p *Problem) rush(d int) []Traffic {
	var out []Traffic
	for _, t := range p.Traffic {
		if t.on((p.From + day.Day(d)).Time().Weekday()) && t.Times > 1 {
			out = append(out, t)
		}
	}
	slices.SortFunc(out, func(a, b Traffic) int { return cmp.Compare(a.From, b.From) })
	return out
}

// driven is how long a way takes that is set out on at a minute and would take so long on a free road. Who sets out
// later never arrives earlier.
func driven(rush []Traffic, at, minutes float64) float64 {
	now := at
	for _, t := range rush {
		if minutes <= 0 || now >= float64(t.To) {
			continue
		}
		free := math.Min(minutes, math.Max(0, float64(t.From)-now))
		now, minutes = now+free, minutes-free
		slow := math.Min(minutes, math.Max(0, float64(t.To)-now)/t.Times)
		if now >= float64(t.From) {
			now, minutes = now+slow*t.Times, minutes-slow
		}
	}
	return now + minutes - at
}

// drivenTo is the same for a way that is to end at a minute.
func drivenTo(rush []Traffic, end, minutes float64) float64 {
	now := end
	for _, t := range slices.Backward(rush) {
		if minutes <= 0 || now <= float64(t.From) {
			continue
		}
		free := math.Min(minutes, math.Max(0, now-float64(t.To)))
		now, minutes = now-free, minutes-free
		slow := math.Min(minutes, math.Max(0, now-float64(t.From))/t.Times)
		if now <= float64(t.To) {
			now, minutes = now-slow*t.Times, minutes-slow
		}
	}
	return end - now + minutes
}
