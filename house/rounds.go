package house

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/rounds"
	"mezzadro/exchange"
	"mezzadro/store"
)

// ReckonRoundsIn is a problem of rounds with inline values.
type ReckonRoundsIn struct {
	rounds.Problem
	Seconds float64 `json:"seconds,omitempty" minimum:"0" maximum:"30" doc:"How long it may look; 1 when absent"`
	Rounds  int     `json:"rounds,omitempty" minimum:"0" maximum:"100000" doc:"In place of seconds: how often parts are torn down and built up again; the same seed and number give the same plan"`
	Seed    uint64  `json:"seed,omitempty"`
	Explain []int   `json:"explain,omitempty" maxItems:"50" doc:"Indices of jobs of which every other day is asked"`
}

// ReckonRoundsOut is the plan, and what was asked of it.
type ReckonRoundsOut struct {
	rounds.Plan
	Why []rounds.Why `json:"why" doc:"Of the jobs that were asked for, in that order"`
}

// reckonedFloor is how many rounds a bound is looked for at most where the number of rounds is given.
const reckonedFloor = 60

// ReckonRounds plans from inline values, storing nothing.
func (h *House) ReckonRounds(in ReckonRoundsIn) (ReckonRoundsOut, error) {
	goOn, floorOn := rounds.Rounds(in.Rounds), rounds.Rounds(min(in.Rounds, reckonedFloor))
	if in.Rounds == 0 {
		from, span := time.Now(), time.Duration(cmp.Or(in.Seconds, 1)*float64(time.Second))
		goOn = func(int, float64) (float64, bool) {
			done := min(1, float64(time.Since(from))/float64(span))
			return done, done < 1
		}
		floorOn = goOn
	}
	out := ReckonRoundsOut{Why: []rounds.Why{}}
	var bad invalid.Fields
	for i, j := range in.Explain {
		if j < 0 || j >= len(in.Jobs) {
			bad.Add(fmt.Sprintf("explain[%d]", i), j, "there is no job of that number")
		}
	}
	if bad != nil {
		return out, bad
	}
	floor := make(chan float64, 1)
	go func() {
		least, err := rounds.Floor(&in.Problem, floorOn)
		if err != nil {
			least = 0 // the plan says what is wrong
		}
		floor <- least
	}()
	var err error
	out.Plan, err = rounds.Make(&in.Problem, in.Seed, goOn)
	if out.Raise(<-floor); err != nil {
		return out, err
	}
	for _, j := range in.Explain {
		out.Why = append(out.Why, out.Plan.Explain(j))
	}
	return out, nil
}

// RoundDay is one day of the crew.
type RoundDay struct {
	Day     day.Day  `json:"day" format:"date"`
	Minutes int      `json:"minutes" doc:"Work, without travel"`
	Jobs    []Order  `json:"jobs" doc:"In the order of the visit; done and skipped ones last"`
	MinC    *float64 `json:"min_c" doc:"Night minimum: as observed, or as usual for the day; null without a property"`
	MaxC    *float64 `json:"max_c"`
	RainMM  *float64 `json:"rain_mm" doc:"Rain a day, as usual"`
	Frost   float64  `json:"frost" doc:"Chance of a night under 0 °C as usual, 0 to 1; 1 or 0 where observed"`
	Seen    bool     `json:"seen" doc:"The temperatures were observed, not usual ones"`
}

// Rounds is a stretch of days, what is overdue, and what is still without a day.
type Rounds struct {
	Days        []RoundDay `json:"days"`
	Overdue     []Order    `json:"overdue" doc:"Jobs that were on a past day and are not ticked off, the oldest first; up to 200"`
	MoreOverdue string     `json:"more_overdue" doc:"Cursor of the following page of those"`
	Waiting     []Order    `json:"waiting" doc:"The first page of jobs without a day; more by the waiting operation"`
	Next        string     `json:"next" doc:"Cursor of the following page of those"`
	Count       int        `json:"count" doc:"All jobs without a day"`
	DayMinutes  int        `json:"day_minutes" doc:"A crew's working day"`
	Weather     string     `json:"weather" doc:"Whose weather the days show; empty without a property"`
}

// dayMinutes is a crew's working day until there are crews with hours of their own.
const dayMinutes = 480

// How many orders a stretch of days shows at most.
const (
	roundsShown  = 2000
	overdueShown = 200
	waitingShown = 60
)

// Rounds is the stretch of so many days from a first one.
func (h *House) Rounds(ctx context.Context, from day.Day, days int) (Rounds, error) {
	if err := h.currentWindows(ctx); err != nil {
		return Rounds{}, err
	}
	today := h.Today()
	o := Rounds{DayMinutes: dayMinutes, Days: make([]RoundDay, days)}
	for i := range o.Days {
		o.Days[i] = RoundDay{Day: from + day.Day(i), Jobs: []Order{}}
	}
	to := from + day.Day(days-1)
	list, err := h.Store.OrdersBetween(ctx, from.String(), to.String(), roundsShown)
	if err != nil {
		return o, err
	}
	ended, err := h.Store.EndedBetween(ctx, from.String(), to.String(), roundsShown)
	if err != nil {
		return o, err
	}
	jobs, err := h.listed(ctx, append(list, ended...))
	if err != nil {
		return o, err
	}
	for _, k := range jobs {
		on := k.Day
		if k.State == job.Done || k.State == job.Skipped {
			on = k.Ended
		}
		d := &o.Days[on-from]
		d.Jobs = append(d.Jobs, k)
		if k.State != job.Skipped {
			d.Minutes += k.Minutes
		}
	}
	overdue, err := h.Orders(ctx, store.ListOverdue, 0, "", overdueShown)
	if err != nil {
		return o, err
	}
	o.Overdue, o.MoreOverdue = overdue.Items, overdue.Next
	page, err := h.Orders(ctx, store.ListWaiting, 0, "", waitingShown)
	if err != nil {
		return o, err
	}
	o.Waiting, o.Next = page.Items, page.Next
	counts, err := h.Store.CountOrders(ctx, today.String(), today.String())
	if err != nil {
		return o, err
	}
	o.Count = counts.Waiting
	return o, h.weatherOn(ctx, &o)
}

// weatherOn puts the weather of the firm's first property on the days.
func (h *House) weatherOn(ctx context.Context, o *Rounds) error {
	props, err := h.Store.Properties(ctx, 0, 1)
	if err != nil || len(props) == 0 {
		return err
	}
	p, err := h.placeOf(ctx, props[0])
	if err != nil {
		return err
	}
	o.Weather = p.Property.Name
	for i := range o.Days {
		d := &o.Days[i]
		e, seen := p.Year.Extremes(d.Day)
		lo, hi, rain := Tenth(e.Min), Tenth(e.Max), Tenth(p.Normals.Rain.At(d.Day))
		d.MinC, d.MaxC, d.RainMM, d.Seen = &lo, &hi, &rain, seen
		d.Frost = math.Round(100*p.Normals.FrostChance(d.Day, 0)) / 100
		if seen {
			d.Frost = 0
			if e.Min < 0 {
				d.Frost = 1
			}
		}
	}
	return nil
}

// startsAt is when the crew's day begins, minutes after midnight.
const startsAt = 8 * 60

// Calendar is the work of some days, of a crew or of all, as an iCalendar file, in the reader's units. Work that
// rounds have put on a day has its time; the rest follows from eight on.
func (h *House) Calendar(ctx context.Context, from, to day.Day, crew string, style quantity.Style) (string, error) {
	orders, err := h.Store.SheetsBetween(ctx, from.String(), to.String(), roundsShown)
	if err != nil {
		return "", err
	}
	var entries []exchange.Entry
	at, visit, last := 0, 0, day.None
	for _, k := range orders {
		if crew != "" && k.Crew != crew {
			continue
		}
		d := parsed(k.Day)
		if d != last {
			at, last = startsAt, d
		}
		if planned := k.Place / planPlace; planned > 0 && planned != visit {
			at, visit = planned, planned
		}
		entries = append(entries, entry(k, d, at, style))
		at += k.Minutes
	}
	name := "Round from " + from.String()
	if crew != "" {
		name = crew + " from " + from.String()
	}
	return exchange.Calendar(name, h.Today().Time().Add(6*time.Hour), entries), nil
}

func entry(k store.OrderFull, d day.Day, at int, style quantity.Style) exchange.Entry {
	title := k.Title
	if k.Label != "" {
		title += ", " + k.Label
	}
	b := k.Body.V
	people := "one person"
	if k.CrewSize > 1 {
		people = fmt.Sprintf("%d people", k.CrewSize)
	}
	detail := append([]string{fmt.Sprintf("About %d minutes for %s.", k.Minutes, people)}, b.Reasons...)
	if len(b.Skills) > 0 {
		detail = append(detail, "Only for: "+strings.Join(b.Skills, ", ")+".")
	}
	if len(b.Kit) > 0 {
		detail = append(detail, "Take along: "+strings.Join(b.Kit, ", ")+".")
	}
	for _, c := range b.Cautions {
		detail = append(detail, "Caution: "+c)
	}
	place := k.Property
	if k.Address != "" {
		place += ", " + k.Address
	}
	return exchange.Entry{
		ID:          k.ID,
		Day:         d,
		Title:       style.Text(title),
		Place:       place,
		Detail:      style.Texts(detail),
		Minutes:     k.Minutes,
		StartMinute: at,
	}
}
