package api

import (
	"context"
	"fmt"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/days"
	"mezzadro/house/work"
	"mezzadro/store"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) orderRoutes(a huma.API) {
	op(a, crew, get, "/year", doc{"year", "Work", "Jobs with what each day costs", "Still to be done, the next best day " +
		"first; a page.", reads, 0}, s.year)
	op(a, crew, get, "/orders", doc{"orders", "Work", "A list of jobs", "A page of one of the lists, read from what was " +
		"worked out when the season last moved.", reads, 0}, s.orders)
	op(a, planner, post, "/orders", doc{"add-order", "Work", "Enter a job by hand", "With what its days cost, or as a kind " +
		"of work whose days follow the season.", adds, 0}, s.addOrder, `{"property_id": 1, "title": "Sweep the court", "minutes": 40, "crew_size": 2,
		"spans": [{"from": "2027-04-01", "to": "2027-04-20", "cost": 0}, {"from": "2027-04-21", "to": "2027-05-10", "cost": 40}]}`)
	op(a, crew, get, "/orders/{id}", doc{"order", "Work", "One job", "With its costs, their reasons, kit, cautions, and " +
		"the jobs before and after it.", readsOf, 0}, s.order)
	op(a, planner, put, "/orders/{id}", doc{"change-order", "Work", "Change a job that was entered by hand", "Jobs of other origins change with what asked for them.", writes, 0}, s.changeOrder, `{"property_id": 1, "title": "Sweep the court and the steps", "minutes": 50, "spans": [{"from": "2027-04-01", "to": "2027-05-10"}], "version": 1}`)
	op(a, planner, put, "/orders/{id}/day", doc{"put-order", "Work", "Put a job on a day, or take it off", "Answered with " +
		"what that day costs and which gaps to other jobs it breaks.", writes, 0}, s.putOrder, `{"day": "2027-04-02", "crew": "Crew 1", "version": 1}`)
	op(a, crew, put, "/orders/{id}/state", doc{"tick-order", "Work", "Tick a job off, skip it, or take that back", "Of a repeat the next time is asked for.", writes, 0}, s.tickOrder, `{"state": "done", "took_minutes": 35, "note": "Two loads of leaves", "version": 1}`)
	op(a, planner, put, "/orders/{id}/anyway", doc{"anyway", "Work", "Do a job that waits all the same", "For one that waits for what is not known yet of its plant: the reason stands on the sheet. Without a reason it waits again.", writes, 0}, s.anyway, `{"why": "The client wants it before the wedding", "version": 1}`)
	op(a, planner, post, "/orders/{id}/next-year", doc{"next-year", "Work", "Give a job the coming year's window", "For one whose time has passed.", writes, 0}, s.nextYear)
	op(a, planner, remove, "/orders/{id}", doc{"drop-order", "Work", "Drop a job", "It can be restored.", writes, 0}, s.dropOrder)
	op(a, planner, post, "/orders/{id}/restore", doc{"restore-order", "Work", "Bring a dropped job back", "As it was.", writes, 0}, s.restoreOrder)
	op(a, crew, get, "/rounds", doc{"rounds", "Work", "A stretch of days", "Who goes where, what is overdue, and what " +
		"is still without a day.", reads, 0}, s.rounds)
	op(a, crew, get, "/rounds.ics", doc{"calendar", "Work", "The work of some days as a calendar file", "iCalendar, in " +
		"the order of the visit.", readsOf, 0}, s.calendar)
}

func (s *Server) year(ctx context.Context, in *struct {
	Property int64    `query:"property" example:"1" doc:"Of one property; all when absent"`
	Kind     job.Kind `query:"kind" maxLength:"40" doc:"Of one kind of work; all when absent"`
	By       string   `query:"by" default:"time" enum:"time,property,plant,kind" doc:"In the order of the next best day; or so within each property, plant or kind of work"`
	NoCare   bool     `query:"no_care" doc:"Without after-care"`
	Closing  int      `query:"closing" minimum:"0" maximum:"366" doc:"Only what waits with a running window that ends within so many days"`
	Text     string   `query:"text" maxLength:"200" doc:"Words that all are in the title, the property's name or the plant's label"`
	From     int      `query:"from" minimum:"0" doc:"How many to leave out at the beginning"`
	Limit    int      `query:"limit" default:"200" minimum:"1" maximum:"1000"`
}) (*Out[work.LanesPage], error) {
	p, err := s.Work.Lanes(
		ctx,
		work.LanesOf{
			Property: in.Property,
			Kind:     in.Kind,
			By:       in.By,
			NoCare:   in.NoCare,
			Closing:  in.Closing,
			Words:    in.Text,
			From:     in.From,
			Limit:    in.Limit,
		},
	)
	return out(p), s.Problem(ctx, "jobs", err)
}

func (s *Server) orders(ctx context.Context, in *struct {
	Stretch
	List     string `query:"list" default:"standing" enum:"standing,waiting,overdue,closing,due,ended" doc:"standing: still to be done; waiting: without a day; overdue: on a past day and not ticked off; closing: waiting, with a window that ends within a fortnight; due: looks that are due within a fortnight; ended: done or skipped, the newest first"`
	Property int64  `query:"property" example:"1" doc:"Of one property; all when absent"`
}) (*Out[Run[work.Order]], error) {
	p, err := s.Work.Orders(ctx, store.OrderList(in.List), in.Property, in.Cursor, in.Limit)
	return out(Run[work.Order]{p.Items, p.Next}), s.Problem(ctx, "jobs", err)
}

func (s *Server) order(ctx context.Context, in *ByID) (*Out[work.OrderDetail], error) {
	o, err := s.Work.Order(ctx, in.ID)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) addOrder(ctx context.Context, in *struct {
	OnceKey
	Body work.HandOrder
}) (*Out[work.OrderDetail], error) {
	o, err := s.Work.AddOrder(ctx, keyOf(ctx), in.Body)
	return out(o), s.Problem(ctx, "property", err)
}

func (s *Server) changeOrder(ctx context.Context, in *struct {
	Write
	Body work.HandOrder
}) (*Out[work.OrderDetail], error) {
	o, err := s.Work.ChangeOrder(ctx, keyOf(ctx), in.ID, in.Body)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) putOrder(ctx context.Context, in *struct {
	Write
	Body struct {
		Day     *day.Day `json:"day" format:"date" nullable:"true" doc:"null takes it off its day"`
		Crew    string   `json:"crew,omitempty" maxLength:"80" doc:"Who goes"`
		Place   int      `json:"place,omitempty" minimum:"0" maximum:"1000" doc:"Among the day's work; last when absent"`
		Version int      `json:"version" doc:"The version the change is based on"`
	}
}) (*Out[work.PutOut], error) {
	put := work.PutIn{Day: day.None, Crew: in.Body.Crew, Place: in.Body.Place, Version: in.Body.Version}
	if in.Body.Day != nil {
		put.Day = *in.Body.Day
	}
	o, err := s.Work.PutOnDay(ctx, keyOf(ctx), in.ID, put)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) tickOrder(ctx context.Context, in *struct {
	Write
	Body struct {
		State   job.State   `json:"state" enum:"done,skipped,waiting,partly done,not today,as before" doc:"skipped: not needed any more; waiting takes done and skipped back. partly done and not today leave a job that waits for another day; as before takes the last of them back"`
		On      day.Day     `json:"on,omitempty" format:"date" doc:"The day it was done or skipped on; today when absent"`
		Took    int         `json:"took_minutes,omitempty" doc:"How long it took"`
		Note    string      `json:"note,omitempty" maxLength:"2000" doc:"Why it is skipped; of what is done, what was seen"`
		Version int         `json:"version" doc:"The version the change is based on"`
		Left    int         `json:"left_minutes,omitempty" doc:"partly done: how much is left"`
		Reason  string      `json:"reason,omitempty" maxLength:"200" doc:"not today: why, such as gate locked, wet, no time, client asked"`
		Never   bool        `json:"never_again,omitempty" doc:"skipped: a repeat does not come again"`
		Helped  string      `json:"helped,omitempty" enum:",gone,less,same" doc:"Of a look after a treatment: what is left of what was found; gone closes the find"`
		Use     *work.UseIn `json:"use,omitempty" doc:"Of a treatment that is done: what was used, for the use record"`
	}
}) (*Out[work.OrderDetail], error) {
	b := in.Body
	o, err := s.Work.TickOff(
		ctx,
		keyOf(ctx),
		in.ID,
		work.TickOffIn{State: b.State, On: b.On, Took: b.Took, Note: b.Note, Version: b.Version, Use: b.Use, Left: b.Left, Reason: b.Reason, Never: b.Never, Helped: b.Helped},
	)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) anyway(ctx context.Context, in *struct {
	Write
	Body struct {
		Why     string `json:"why,omitempty" maxLength:"500" doc:"Why it does not wait; absent has it wait again"`
		Version int    `json:"version" doc:"The version the change is based on"`
	}
}) (*Out[work.OrderDetail], error) {
	o, err := s.Work.Anyway(ctx, keyOf(ctx), in.ID, in.Body.Version, strings.TrimSpace(in.Body.Why))
	return out(o), s.Problem(ctx, "job", err)
}

// AtVersion is a write that needs nothing but the version it is based on.
type AtVersion struct {
	Write
	Version int `query:"version" required:"true" example:"1" doc:"The version the change is based on"`
}

func (s *Server) nextYear(ctx context.Context, in *AtVersion) (*Out[work.OrderDetail], error) {
	o, err := s.Work.NextYear(ctx, keyOf(ctx), in.ID, in.Version)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) dropOrder(ctx context.Context, in *AtVersion) (*struct{}, error) {
	return nil, s.Problem(ctx, "job", s.Work.Drop(ctx, keyOf(ctx), in.ID, in.Version))
}

func (s *Server) restoreOrder(ctx context.Context, in *Write) (*Out[work.OrderDetail], error) {
	o, err := s.Work.Restore(ctx, keyOf(ctx), in.ID)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) rounds(ctx context.Context, in *struct {
	From string `query:"from" format:"date" example:"2027-03-18" doc:"Today when absent"`
	Days int    `query:"days" default:"14" minimum:"1" maximum:"120"`
	Week bool   `query:"week" doc:"From the first day of its week, by the day that weeks begin with in Settings"`
}) (*Out[days.Rounds], error) {
	from := s.Estate.Today()
	if in.From != "" {
		d, err := day.Parse(in.From)
		if err != nil {
			return nil, s.Problem(ctx, "rounds", invalid.One("from", in.From, err.Error()))
		}
		from = d
	}
	if in.Week {
		var err error
		if from, err = s.Days.WeekOf(ctx, from); err != nil {
			return nil, s.Problem(ctx, "rounds", err)
		}
	}
	o, err := s.Days.Rounds(ctx, from, in.Days)
	return out(o), s.Problem(ctx, "jobs", err)
}

func (s *Server) calendar(ctx context.Context, in *struct {
	From     string `query:"from" required:"true" format:"date" example:"2027-03-18" doc:"First day"`
	To       string `query:"to" required:"true" format:"date" example:"2027-03-31" doc:"Last day"`
	Crew     int64  `query:"crew" minimum:"0" doc:"Its id; all when absent"`
	Language string `header:"Accept-Language"`
}) (*File, error) {
	from, err := day.Parse(in.From)
	if err != nil {
		return nil, s.Problem(ctx, "calendar", invalid.One("from", in.From, err.Error()))
	}
	to, err := day.Parse(in.To)
	if err != nil {
		return nil, s.Problem(ctx, "calendar", invalid.One("to", in.To, err.Error()))
	}
	if to < from {
		return nil, s.Problem(ctx, "calendar", invalid.One("to", in.To, "is before from"))
	}
	text, err := s.Days.Calendar(ctx, from, to, in.Crew, s.StyleOf(ctx, in.Language))
	name := fmt.Sprintf("round-%s.ics", in.From)
	return &File{
			"text/calendar; charset=utf-8",
			fmt.Sprintf("attachment; filename=%q", name),
			[]byte(text),
		}, s.Problem(
			ctx,
			"jobs",
			err,
		)
}
