package api

import (
	"context"
	"fmt"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/house/rounds"
	"mezzadro/house/work"
	"mezzadro/store"
)

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
	return out(p), s.problem(ctx, "jobs", err)
}

func (s *Server) orders(ctx context.Context, in *struct {
	Stretch
	List     string `query:"list" default:"standing" enum:"standing,waiting,overdue,closing,due,ended" doc:"standing: still to be done; waiting: without a day; overdue: on a past day and not ticked off; closing: waiting, with a window that ends within a fortnight; due: looks that are due within a fortnight; ended: done or skipped, the newest first"`
	Property int64  `query:"property" example:"1" doc:"Of one property; all when absent"`
}) (*Out[Run[work.Order]], error) {
	p, err := s.Work.Orders(ctx, store.OrderList(in.List), in.Property, in.Cursor, in.Limit)
	return out(Run[work.Order]{p.Items, p.Next}), s.problem(ctx, "jobs", err)
}

func (s *Server) order(ctx context.Context, in *ByID) (*Out[work.OrderDetail], error) {
	o, err := s.Work.Order(ctx, in.ID)
	return out(o), s.problem(ctx, "job", err)
}

func (s *Server) addOrder(ctx context.Context, in *struct {
	OnceKey
	Body work.HandOrder
}) (*Out[work.OrderDetail], error) {
	o, err := s.Work.AddOrder(ctx, keyOf(ctx), in.Body)
	return out(o), s.problem(ctx, "property", err)
}

func (s *Server) changeOrder(ctx context.Context, in *struct {
	Write
	Body work.HandOrder
}) (*Out[work.OrderDetail], error) {
	o, err := s.Work.ChangeOrder(ctx, keyOf(ctx), in.ID, in.Body)
	return out(o), s.problem(ctx, "job", err)
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
	return out(o), s.problem(ctx, "job", err)
}

func (s *Server) tickOrder(ctx context.Context, in *struct {
	Write
	Body struct {
		State   job.State   `json:"state" enum:"done,skipped,waiting" doc:"waiting takes either back"`
		On      day.Day     `json:"on,omitempty" format:"date" doc:"The day it was done or skipped on; today when absent"`
		Took    int         `json:"took_minutes,omitempty" doc:"How long it took"`
		Note    string      `json:"note,omitempty" maxLength:"2000" doc:"Why it is skipped; of what is done, what was seen"`
		Version int         `json:"version" doc:"The version the change is based on"`
		Use     *work.UseIn `json:"use,omitempty" doc:"Of a treatment that is done: what was used, for the use record"`
	}
}) (*Out[work.OrderDetail], error) {
	b := in.Body
	o, err := s.Work.TickOff(
		ctx,
		keyOf(ctx),
		in.ID,
		work.TickOffIn{State: b.State, On: b.On, Took: b.Took, Note: b.Note, Version: b.Version, Use: b.Use},
	)
	return out(o), s.problem(ctx, "job", err)
}

// AtVersion is a write that needs nothing but the version it is based on.
type AtVersion struct {
	Write
	Version int `query:"version" required:"true" example:"1" doc:"The version the change is based on"`
}

func (s *Server) nextYear(ctx context.Context, in *AtVersion) (*Out[work.OrderDetail], error) {
	o, err := s.Work.NextYear(ctx, keyOf(ctx), in.ID, in.Version)
	return out(o), s.problem(ctx, "job", err)
}

func (s *Server) dropOrder(ctx context.Context, in *AtVersion) (*struct{}, error) {
	return nil, s.problem(ctx, "job", s.Work.Drop(ctx, keyOf(ctx), in.ID, in.Version))
}

func (s *Server) restoreOrder(ctx context.Context, in *Write) (*Out[work.OrderDetail], error) {
	o, err := s.Work.Restore(ctx, keyOf(ctx), in.ID)
	return out(o), s.problem(ctx, "job", err)
}

func (s *Server) rounds(ctx context.Context, in *struct {
	From string `query:"from" format:"date" example:"2027-03-18" doc:"Today when absent"`
	Days int    `query:"days" default:"14" minimum:"1" maximum:"120"`
}) (*Out[rounds.Rounds], error) {
	from := s.Estate.Today()
	if in.From != "" {
		d, err := day.Parse(in.From)
		if err != nil {
			return nil, s.problem(ctx, "rounds", invalid.One("from", in.From, err.Error()))
		}
		from = d
	}
	o, err := s.Rounds.Rounds(ctx, from, in.Days)
	return out(o), s.problem(ctx, "jobs", err)
}

func (s *Server) calendar(ctx context.Context, in *struct {
	From     string `query:"from" required:"true" format:"date" example:"2027-03-18" doc:"First day"`
	To       string `query:"to" required:"true" format:"date" example:"2027-03-31" doc:"Last day"`
	Crew     int64  `query:"crew" minimum:"0" doc:"Its id; all when absent"`
	Language string `header:"Accept-Language"`
}) (*File, error) {
	from, err := day.Parse(in.From)
	if err != nil {
		return nil, s.problem(ctx, "calendar", invalid.One("from", in.From, err.Error()))
	}
	to, err := day.Parse(in.To)
	if err != nil {
		return nil, s.problem(ctx, "calendar", invalid.One("to", in.To, err.Error()))
	}
	if to < from {
		return nil, s.problem(ctx, "calendar", invalid.One("to", in.To, "is before from"))
	}
	text, err := s.Rounds.Calendar(ctx, from, to, in.Crew, s.styleOf(ctx, in.Language))
	name := fmt.Sprintf("round-%s.ics", in.From)
	return &File{
			"text/calendar; charset=utf-8",
			fmt.Sprintf("attachment; filename=%q", name),
			[]byte(text),
		}, s.problem(
			ctx,
			"jobs",
			err,
		)
}
