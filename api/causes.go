package api

import (
	"context"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/house/finds"
	"mezzadro/house/work"
)

func (s *Server) signs(context.Context, *struct{}) (*Out[Run[cause.Sign]], error) {
	return out(Run[cause.Sign]{Items: s.Finds.Signs()}), nil
}

func (s *Server) causes(ctx context.Context, _ *struct{}) (*Out[Run[finds.CauseLine]], error) {
	list, err := s.Finds.Causes(ctx)
	return out(Run[finds.CauseLine]{Items: list}), s.problem(ctx, "cause", err)
}

func (s *Server) cause(ctx context.Context, in *struct {
	ID       string `path:"id" maxLength:"60" example:"box-blight" doc:"Id in the book of causes"`
	Property int64  `query:"property" example:"1" doc:"In whose dates; without, the months of the northern year"`
}) (*Out[finds.CausePage], error) {
	p, err := s.Finds.Cause(ctx, in.ID, in.Property)
	return out(p), s.problem(ctx, "cause or property", err)
}

func (s *Server) finds(ctx context.Context, in *struct {
	Page
	Property int64 `query:"property" example:"1" doc:"Of one property; 0 for all"`
	Plant    int64 `query:"plant" example:"1" doc:"Of one plant; 0 for all"`
	Open     bool  `query:"open" doc:"None that are closed"`
}) (*Out[List[finds.Find]], error) {
	list, err := s.Finds.Finds(ctx, finds.FindsOf{Property: in.Property, Plant: in.Plant, Open: in.Open, After: in.Cursor, Limit: in.Limit + 1})
	return out(listed(list, in.Limit, func(f finds.Find) int64 { return f.ID })), s.problem(ctx, "find", err)
}

func (s *Server) addFind(ctx context.Context, in *struct {
	OnceKey
	Body finds.FindIn
}) (*Out[finds.Find], error) {
	f, err := s.Finds.AddFind(ctx, keyOf(ctx), in.Body)
	return out(f), s.problem(ctx, "plant", err)
}

func (s *Server) changeFind(ctx context.Context, in *struct {
	Write
	Body finds.FindChange
}) (*Out[finds.Find], error) {
	f, err := s.Finds.ChangeFind(ctx, keyOf(ctx), in.ID, in.Body)
	return out(f), s.problem(ctx, "find", err)
}

func (s *Server) removeFind(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "find", s.Finds.RemoveFind(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreFind(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "find", s.Finds.RemoveFind(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) spreadWatch(ctx context.Context, _ *struct{}) (*Out[Run[finds.WatchGroup]], error) {
	list, err := s.Finds.SpreadWatch(ctx)
	return out(Run[finds.WatchGroup]{Items: list}), s.problem(ctx, "find", err)
}

func (s *Server) lookFor(ctx context.Context, in *struct {
	Write
	Body struct {
		PropertyID int64   `json:"property_id" doc:"On which to look"`
		Day        day.Day `json:"day,omitempty" format:"date" doc:"The job waits without a day when absent"`
	}
}) (*Out[work.OrderDetail], error) {
	o, err := s.Finds.LookFor(ctx, keyOf(ctx), in.ID, in.Body.PropertyID, in.Body.Day)
	return out(o), s.problem(ctx, "find", err)
}

func (s *Server) callSheet(context.Context, *struct{}) (*Out[Run[cause.Asked]], error) {
	return out(Run[cause.Asked]{Items: cause.CallSheet()}), nil
}

func (s *Server) calls(ctx context.Context, in *struct {
	Property int64 `query:"property" required:"true" minimum:"1" example:"1" doc:"Whose calls"`
}) (*Out[Run[finds.Call]], error) {
	list, err := s.Finds.Calls(ctx, in.Property)
	return out(Run[finds.Call]{Items: list}), s.problem(ctx, "property", err)
}

func (s *Server) addCall(ctx context.Context, in *struct {
	OnceKey
	Body finds.CallIn
}) (*Out[finds.Call], error) {
	c, err := s.Finds.AddCall(ctx, keyOf(ctx), in.Body)
	return out(c), s.problem(ctx, "plant", err)
}

func (s *Server) changeCall(ctx context.Context, in *struct {
	Write
	Body finds.CallIn
}) (*Out[finds.Call], error) {
	c, err := s.Finds.ChangeCall(ctx, keyOf(ctx), in.ID, in.Body)
	return out(c), s.problem(ctx, "call", err)
}

func (s *Server) removeCall(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "call", s.Finds.RemoveCall(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreCall(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "call", s.Finds.RemoveCall(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) knownHere(ctx context.Context, in *ByID) (*Out[finds.KnownHere], error) {
	k, err := s.Finds.KnownHere(ctx, in.ID)
	return out(k), s.problem(ctx, "property", err)
}
