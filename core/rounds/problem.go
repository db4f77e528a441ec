// Package rounds decides who goes where on which day: jobs of all properties become visits of crews, in order, with
// times. It knows no plants and no seasons: what a day costs for a job comes with the job.
package rounds

import (
	"fmt"
	"math"
	"slices"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// Forbidden is the cost of a day on which a job must not be done.
const Forbidden = 101

// Span is a stretch of a day, minutes after midnight.
type Span struct {
	From int `json:"from" minimum:"0" maximum:"1440"`
	To   int `json:"to" minimum:"0" maximum:"1440"`
}

func (s Span) empty() bool { return s.To <= s.From }

// Point is a place on the earth.
type Point struct {
	Latitude  float64 `json:"latitude" minimum:"-90" maximum:"90"`
	Longitude float64 `json:"longitude" minimum:"-180" maximum:"180"`
}

// Crew is people who go together, in one vehicle.
type Crew struct {
	Name   string    `json:"name" maxLength:"200"`
	Size   int       `json:"size" minimum:"1" maximum:"20" doc:"People"`
	Skills []string  `json:"skills,omitempty" maxItems:"40" doc:"Of any of them"`
	Hours  [7]Span   `json:"hours" doc:"By weekday, Sunday first; nothing: not at work"`
	Off    []day.Day `json:"off,omitempty" maxItems:"400" doc:"Days off"`
	Start  *Point    `json:"start,omitempty" doc:"Where the day begins and ends; no way to it is counted when absent"`
	LoadM3 float64   `json:"load_m3,omitempty" minimum:"0" doc:"Loose waste its vehicle takes, m³; 0: no matter"`
	Tip    *Tip      `json:"tip,omitempty" doc:"Where the vehicle is emptied when the next waste would not go on it; none: a load beyond its own costs instead"`
	Pace   float64   `json:"pace,omitempty" minimum:"0" maximum:"5" doc:"How many times as long work takes this crew as others; 1 when absent"`
	Load   int       `json:"load_minutes,omitempty" minimum:"0" maximum:"180" doc:"Minutes at the start of each day with visits, before it sets out: loading"`
	Break  *Break    `json:"break,omitempty" doc:"What the crew rests on a day that goes on past its hour; none when absent"`
}

// Tip is where waste is taken.
type Tip struct {
	At      Point   `json:"at"`
	Minutes float64 `json:"minutes" minimum:"0" maximum:"240" doc:"From driving in to driving out"`
}

// Break is when a crew rests: as soon as it is so late, and while it waits before a gate if that is as late.
type Break struct {
	From    int `json:"from" minimum:"0" maximum:"1440" doc:"Minutes after midnight"`
	Minutes int `json:"minutes" minimum:"0" maximum:"240"`
}

// Within are the minutes of a break that lies in the hours of a day.
func (b *Break) Within(h Span) float64 {
	if b == nil || h.From >= b.From || h.To <= b.From {
		return 0
	}
	return float64(b.Minutes)
}

// Place is a property.
type Place struct {
	Name   string         `json:"name" maxLength:"200"`
	At     *Point         `json:"at,omitempty" doc:"Where it is; as far as the farthest when absent"`
	Arrive float64        `json:"arrive,omitempty" minimum:"0" maximum:"240" doc:"Minutes on arrival, whatever is done"`
	Access [7]Span        `json:"access,omitempty" doc:"By weekday, Sunday first, when one may be there; nothing at all: any time"`
	Shut   []time.Weekday `json:"shut,omitempty" maxItems:"7" doc:"Weekdays on which nobody may come, 0 Sunday"`
	Sky    []Sky          `json:"weather,omitempty" maxItems:"61" doc:"By day, where it has weather of its own"`
	Sick   bool           `json:"sick,omitempty" doc:"Something there travels on tools and boots: it comes last in a day"`
	Knows  *int           `json:"knows,omitempty" minimum:"0" doc:"Index of the crew that the client knows: a visit of another costs a little; any when absent"`
}

// Job is a piece of work.
type Job struct {
	Title   string   `json:"title,omitempty" maxLength:"300"`
	Place   int      `json:"place" minimum:"0" doc:"Index of its place"`
	Minutes float64  `json:"minutes" doc:"For the people it needs; more people share it"`
	People  int      `json:"people,omitempty" minimum:"0" maximum:"20" doc:"Needed; one when absent"`
	Skills  []string `json:"skills,omitempty" maxItems:"20"`
	Costs   []int    `json:"costs" maxItems:"400" doc:"Of each day of the span: 0 best to 100 worst, 101 forbidden; days beyond the list are forbidden"`
	Work    Work     `json:"work,omitempty" enum:"spray,cut,aloft,earth" doc:"What weather it wants; any when absent"`
	Later   int      `json:"later,omitempty" minimum:"0" maximum:"101" doc:"What the best day after the span costs; 101: there is none"`
	Weight  float64  `json:"weight,omitempty" minimum:"0" maximum:"20" doc:"The client's and the job's; 1 when absent"`
	Urgent  bool     `json:"urgent,omitempty" doc:"Make safe first: on the first day it can be, before all other visits of that crew, whatever else has to move"`
	After   []Gap    `json:"after,omitempty" maxItems:"20"`
	Plants  []int64  `json:"plants,omitempty" maxItems:"500" doc:"By id, for waits after a treatment"`
	Closes  int      `json:"closes,omitempty" minimum:"0" maximum:"60" doc:"Days after it on which nobody works on its plants; on its own day it comes last, and no other crew works on them"`
	WasteM3 float64  `json:"waste_m3,omitempty" minimum:"0"`
	Spread  float64  `json:"spread,omitempty" minimum:"0" maximum:"2" doc:"How far its minutes may differ from what is reckoned, a standard deviation as a share of them; 0.2 when absent"`
	Kit     []string `json:"kit,omitempty" maxItems:"20" doc:"Bulky kit it wants in the vehicle that day"`
	Sick    bool     `json:"sick,omitempty" doc:"It carries sickness: clean work comes before it"`
	Pin     *Pin     `json:"pin,omitempty" doc:"It stays there"`
	Was     *Pin     `json:"was,omitempty" doc:"Where it stood: moving it costs a little"`
	Told    bool     `json:"told,omitempty" doc:"The client was told the day it stood on: it moves only where nothing else does"`
}

// Gap ties a job to one before it.
type Gap struct {
	Job int `json:"job" doc:"Index of the other; -1 where it was done or stands outside this plan"`
	Day int `json:"day,omitempty" doc:"Of the other where it is outside: days from the first of the span, below 0 before it"`
	Min int `json:"min_days,omitempty" minimum:"0" maximum:"400"`
	Max int `json:"max_days,omitempty" minimum:"0" maximum:"400" doc:"0: no limit"`
}

// Pin is a crew and a day.
type Pin struct {
	Crew int `json:"crew" minimum:"0"`
	Day  int `json:"day" minimum:"0" doc:"Days from the first of the span"`
	At   int `json:"at,omitempty" minimum:"0" maximum:"1440" doc:"Arrival, minutes after midnight, or up to 20 later; any time when absent"`
}

// Known is a way somebody has timed, either way.
type Known struct {
	From    int     `json:"from" doc:"Index of a place; -1 and below: the start of a crew, -1 the first"`
	To      int     `json:"to"`
	Minutes float64 `json:"minutes" minimum:"0" maximum:"600"`
}

// Problem is all that is to be planned.
type Problem struct {
	From    day.Day   `json:"from" format:"date" doc:"First day"`
	Days    int       `json:"days" minimum:"1" maximum:"60"`
	Crews   []Crew    `json:"crews" maxItems:"40"`
	Places  []Place   `json:"places" maxItems:"2000"`
	Jobs    []Job     `json:"jobs" maxItems:"5000"`
	Ways    []Known   `json:"ways,omitempty" maxItems:"20000"`
	Traffic []Traffic `json:"traffic,omitempty" maxItems:"40" doc:"When ways take longer; a way takes as long as the traffic from the minute it is set out on makes it"`
	Light   []Span    `json:"light,omitempty" maxItems:"60" doc:"From sunrise to sunset by day, in which all work is done, overtime too; no matter when absent"`
	Sky     []Sky     `json:"weather,omitempty" maxItems:"61" doc:"By day, as told or as usual; no matter when absent"`

	Sure       float64 `json:"sure,omitempty" minimum:"0" maximum:"0.99" doc:"With what chance each day is to end within the crew's hours, such as 0.8: days are filled so far only; as reckoned when absent"`
	Fortnights int     `json:"fortnights,omitempty" minimum:"0" maximum:"200" doc:"Over how many drawn spans, with their rain and with work that takes longer and shorter, plans are compared; fewer where there is very much to plan; none when absent"`

	said map[[2]int]string // what the weather says of a job on a day
}

// Validate names what cannot be. What merely leaves jobs without a day is no fault: the plan says it.
func (p *Problem) Validate() error {
	var bad invalid.Fields
	if !p.From.Given() {
		bad.Add("from", p.From.String(), "is missing: the first day")
	}
	bad.Within("days", float64(p.Days), 1, 60, "days")
	bad.Within("sure", p.Sure, 0, 0.99, "as a chance")
	bad.Within("fortnights", float64(p.Fortnights), 0, 200, "drawn spans")
	for i, c := range p.Crews {
		at := fmt.Sprintf("crews[%d].", i)
		if c.Size < 1 {
			bad.Add(at+"size", c.Size, "a crew is one person at least")
		}
		for d, h := range c.Hours {
			if h.To < h.From {
				bad.Add(fmt.Sprintf("%shours[%d]", at, d), h, "ends before it begins")
			}
		}
		bad = append(bad, c.Start.faults(at+"start")...)
		if c.Tip != nil {
			bad = append(bad, c.Tip.At.faults(at+"tip.at")...)
			bad.Within(at+"tip.minutes", c.Tip.Minutes, 0, 240, "minutes")
			if c.LoadM3 == 0 {
				bad.Add(at+"load_m3", c.LoadM3, "is missing: how much goes on the vehicle before it has to be emptied?")
			}
		}
		bad.Within(at+"pace", c.Pace, 0, 5, "times as long")
		bad.Within(at+"load_minutes", float64(c.Load), 0, 180, "minutes")
		if b := c.Break; b != nil {
			bad.Within(at+"break.from", float64(b.From), 0, allDay, "minutes after midnight")
			bad.Within(at+"break.minutes", float64(b.Minutes), 0, 240, "minutes")
		}
	}
	for i, q := range p.Places {
		at := fmt.Sprintf("places[%d].", i)
		bad = append(bad, q.At.faults(at+"at")...)
		bad = append(bad, skyFaults(at+"weather", q.Sky)...)
		if q.Knows != nil && (*q.Knows < 0 || *q.Knows >= len(p.Crews)) {
			bad.Add(at+"knows", *q.Knows, "there is no crew of that number")
		}
		for k, d := range q.Shut {
			if d < time.Sunday || d > time.Saturday {
				bad.Add(fmt.Sprintf("%sshut[%d]", at, k), int(d), "want a weekday: 0 Sunday to 6 Saturday")
			}
		}
		for d, h := range q.Access {
			if h.To < h.From {
				bad.Add(fmt.Sprintf("%saccess[%d]", at, d), h, "ends before it begins")
			}
		}
	}
	for i, l := range p.Light {
		if l.To < l.From {
			bad.Add(fmt.Sprintf("light[%d]", i), l, "the sun sets before it rises")
		}
	}
	bad = append(bad, skyFaults("weather", p.Sky)...)
	bad = append(bad, TrafficFaults(p.Traffic)...)
	for i := range p.Jobs {
		bad = append(bad, p.jobFaults(i)...)
	}
	for i, j := range p.Jobs {
		if _, known := limitsOf[j.Work]; !known {
			bad.Add(fmt.Sprintf("jobs[%d].work", i), string(j.Work), "want spray, cut, aloft or earth, or nothing")
		}
	}
	for i, w := range p.Ways {
		for _, end := range []int{w.From, w.To} {
			if end >= len(p.Places) || end < -len(p.Crews) {
				bad.Add(fmt.Sprintf("ways[%d]", i), end, "there is no place and no crew of that number")
			}
		}
		bad.Within(fmt.Sprintf("ways[%d].minutes", i), w.Minutes, 0, 600, "minutes")
	}
	return bad.Err()
}

func (p *Problem) jobFaults(i int) (bad invalid.Fields) {
	j := &p.Jobs[i]
	at := func(field string, of ...any) string { return fmt.Sprintf("jobs[%d].", i) + fmt.Sprintf(field, of...) }
	if j.Place < 0 || j.Place >= len(p.Places) {
		bad.Add(at("place"), j.Place, "there is no place of that number")
	}
	if !(j.Minutes >= 1 && j.Minutes <= 10_000) { // nor what is no number
		bad.Within(at("minutes"), j.Minutes, 1, 10_000, "minutes")
	}
	for d, c := range j.Costs {
		if c < 0 || c > Forbidden {
			bad.Add(at("costs[%d]", d), c, "want 0 to 100, or 101 for forbidden")
		}
	}
	for k, g := range j.After {
		if g.Job >= len(p.Jobs) || g.Job < -1 || g.Job == i {
			bad.Add(at("after[%d].job", k), g.Job, "there is no other job of that number")
		}
		if g.Max > 0 && g.Max < g.Min {
			bad.Add(at("after[%d].max_days", k), g.Max, "is less than the least gap, %d days", g.Min)
		}
	}
	for k, pin := range [...]*Pin{j.Pin, j.Was} {
		name := [...]string{"pin", "was"}[k]
		if pin != nil && (pin.Crew < 0 || pin.Crew >= len(p.Crews) || pin.Day < 0 || pin.Day >= p.Days) {
			bad.Add(at("%s", name), pin, "there is no such crew or day")
		}
		if pin != nil && (pin.At < 0 || pin.At > allDay) {
			bad.Add(at("%s.at", name), pin.At, "want minutes after midnight, 0 to 1440")
		}
	}
	return bad
}

func (q *Point) faults(at string) (bad invalid.Fields) {
	if q == nil {
		return nil
	}
	bad.Within(at+".latitude", q.Latitude, -90, 90, "°")
	bad.Within(at+".longitude", q.Longitude, -180, 180, "°")
	if q.Latitude == 0 && q.Longitude == 0 {
		bad.Add(at, "0, 0", "0, 0 lies in the sea off Africa: enter where it is, or leave it out")
	}
	return bad
}

// skyFaults names what cannot be of the weather of days.
func skyFaults(at string, days []Sky) (bad invalid.Fields) {
	seen := map[day.Day]bool{}
	for i, s := range days {
		on := fmt.Sprintf("%s[%d].", at, i)
		switch {
		case !s.Day.Given():
			bad.Add(on+"day", s.Day.String(), "is missing: of which day is it?")
		case seen[s.Day]:
			bad.Add(on+"day", s.Day.String(), "stands there twice")
		}
		seen[s.Day] = true
		if s.MinC > s.MaxC {
			bad.Add(on+"min_c", s.MinC, "is above the day's warmest, %g °C", s.MaxC)
		}
	}
	return bad
}

// takes is how long a job takes a crew, minutes.
func (p *Problem) takes(j, c int) float64 {
	k, crew := &p.Jobs[j], &p.Crews[c]
	m := k.Minutes * float64(k.people()) / float64(max(crew.Size, k.people()))
	if crew.Pace > 0 {
		m *= crew.Pace
	}
	return m
}

// cost of a job on a day; Forbidden where nothing is told.
func (j *Job) cost(d int) int {
	if d >= len(j.Costs) {
		return Forbidden
	}
	return j.Costs[d]
}

func (j *Job) people() int { return max(1, j.People) }

// Takes is a job in minutes of people.
func (j *Job) Takes() float64 { return j.Minutes * float64(j.people()) }

func (j *Job) weight() float64 {
	w := j.Weight
	if w == 0 {
		w = 1
	}
	if j.Urgent {
		w *= urgentTimes
	}
	return w
}

// at reports a crew's hours on a day of the span; empty where it is not at work.
func (p *Problem) at(c, d int) Span {
	crew, on := &p.Crews[c], p.From+day.Day(d)
	h := crew.Hours[on.Time().Weekday()]
	if slices.Contains(crew.Off, on) || h.empty() {
		return Span{}
	}
	if d < len(p.Light) && !p.Light[d].empty() {
		h = Span{max(h.From, p.Light[d].From), min(h.To, p.Light[d].To)}
	}
	return h
}

// open is when one may be at a place on a day; empty where nobody may come.
func (p *Problem) open(place, d int) Span {
	q, on := &p.Places[place], (p.From + day.Day(d)).Time().Weekday()
	if slices.Contains(q.Shut, on) {
		return Span{}
	}
	if q.Access == ([7]Span{}) {
		return Span{0, 24 * 60}
	}
	return q.Access[on]
}

// Presses is how much a job presses to be planned in a span where there is not room for all: what has its day or makes
// safe without bound, others by what waiting for a day after it costs, by weight.
func (j *Job) Presses() float64 {
	if j.Urgent || j.Pin != nil || j.Was != nil {
		return math.Inf(1)
	}
	least := Forbidden
	for _, c := range j.Costs {
		least = min(least, c)
	}
	return float64(j.Later-least) * j.weight()
}

// worthMost is the cost up to which the best day of a span is worth planning a job on; past it the job waits.
const worthMost = 70

// WorthPlanning reports that a job that waits has a day in a span that is worth it, by what the days cost.
func WorthPlanning(costs []int) bool {
	return slices.ContainsFunc(costs, func(c int) bool { return c <= worthMost })
}
