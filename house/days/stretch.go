package days

import (
	"context"
	"math"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/house/work"
	"mezzadro/store"
)

// RoundDay is one day of the crew.
type RoundDay struct {
	Day     day.Day      `json:"day" format:"date"`
	Minutes int          `json:"minutes" doc:"Work of all people together, without the ways"`
	Jobs    []work.Order `json:"jobs" doc:"In the order of the visit; done and skipped ones last"`
	MinC    *float64     `json:"min_c" doc:"Night minimum: as observed, or as usual for the day; null without a property"`
	MaxC    *float64     `json:"max_c"`
	RainMM  *float64     `json:"rain_mm" doc:"Rain a day, as usual"`
	Frost   float64      `json:"frost" doc:"Chance of a night under 0 °C as usual, 0 to 1; 1 or 0 where observed"`
	Seen    bool         `json:"seen" doc:"The temperatures were observed, not usual ones"`
	Has     int          `json:"has" doc:"Minutes that the crews have on it, all people together; 0: nobody works, or there is no crew"`
	Flags   []Flag       `json:"flags" doc:"What cannot be as it stands"`
}

// Rounds is a stretch of days, what is overdue, and what is still without a day.
type Rounds struct {
	Days        []RoundDay   `json:"days"`
	Overdue     []work.Order `json:"overdue" doc:"Jobs that were on a past day and are not ticked off, the oldest first; up to 200"`
	MoreOverdue string       `json:"more_overdue" doc:"Cursor of the following page of those"`
	Waiting     []work.Order `json:"waiting" doc:"The first page of jobs without a day; more by the waiting operation"`
	Next        string       `json:"next" doc:"Cursor of the following page of those"`
	Count       int          `json:"count" doc:"All jobs without a day"`
	DayMinutes  int          `json:"day_minutes" doc:"A crew's working day"`
	Weather     string       `json:"weather" doc:"Whose weather the days show; empty without a property"`
}

// dayMinutes is a working day where there is no crew with hours of its own.
const dayMinutes = 480

// How many orders a stretch of days shows at most.
const (
	Shown        = 2000
	overdueShown = 200
	waitingShown = 60
)

// WeekOf is the first day of the week that a day is in, by the day that the firm's weeks begin with.
func (h *Room) WeekOf(ctx context.Context, d day.Day) (day.Day, error) {
	firm, err := h.Store.Firm(ctx)
	return d - day.Day((int(d.Time().Weekday())-firm.WeekStart+7)%7), err
}

// Rounds is the stretch of so many days from a first one.
func (h *Room) Rounds(ctx context.Context, from day.Day, days int) (Rounds, error) {
	if err := h.Work.CurrentWindows(ctx); err != nil {
		return Rounds{}, err
	}
	today := h.Today()
	o := Rounds{DayMinutes: dayMinutes, Days: make([]RoundDay, days)}
	for i := range o.Days {
		o.Days[i] = RoundDay{Day: from + day.Day(i), Jobs: []work.Order{}, Flags: []Flag{}}
	}
	to := from + day.Day(days-1)
	full, err := h.Store.SheetsBetween(ctx, from.String(), to.String(), Shown)
	if err != nil {
		return o, err
	}
	list := make([]store.Order, len(full))
	for i := range full {
		list[i] = full[i].Order
	}
	ended, err := h.Store.EndedBetween(ctx, from.String(), to.String(), Shown)
	if err != nil {
		return o, err
	}
	jobs, err := h.Work.Listed(ctx, append(list, ended...))
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
			d.Minutes += k.Minutes * max(1, k.CrewSize)
		}
	}
	if err := h.flagDays(ctx, &o, full); err != nil {
		return o, err
	}
	overdue, err := h.Work.Orders(ctx, store.ListOverdue, 0, "", overdueShown)
	if err != nil {
		return o, err
	}
	o.Overdue, o.MoreOverdue = overdue.Items, overdue.Next
	page, err := h.Work.Orders(ctx, store.ListWaiting, 0, "", waitingShown)
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

// flagDays puts on the days what the crews have, and what cannot be as it stands.
func (h *Room) flagDays(ctx context.Context, o *Rounds, list []store.OrderFull) error {
	f, err := h.flagger(ctx)
	if err != nil {
		return err
	}
	first := o.Days[0].Day
	for i := range o.Days {
		o.Days[i].Has = int(f.has(o.Days[i].Day))
	}
	for _, x := range f.flags(list) {
		if x.Day >= h.Today() { // what is past cannot be mended
			o.Days[x.Day-first].Flags = append(o.Days[x.Day-first].Flags, x)
		}
	}
	return nil
}

// weatherOn puts the weather of the firm's first property on the days.
func (h *Room) weatherOn(ctx context.Context, o *Rounds) error {
	props, err := h.Store.Properties(ctx, 0, 1)
	if err != nil || len(props) == 0 {
		return err
	}
	p, err := h.PlaceOf(ctx, props[0])
	if err != nil {
		return err
	}
	o.Weather = p.Property.Name
	for i := range o.Days {
		d := &o.Days[i]
		e, seen := p.Year.Extremes(d.Day)
		lo, hi, rain := quantity.Tenth(e.Min), quantity.Tenth(e.Max), quantity.Tenth(p.Normals.Rain.At(d.Day))
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
