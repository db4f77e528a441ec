package api

import (
	"context"

	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/house/finds"
	"mezzadro/house/work"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) causeRoutes(a huma.API) {
	op(a, crew, get, "/signs", doc{"signs", "Causes", "What can be seen on a plant", "All signs by part, with the " +
		"question a client is asked.", reads, 0}, s.signs)
	op(a, crew, get, "/causes", doc{"causes", "Causes", "What may be wrong with a plant", "All causes of the book, with " +
		"how many open finds the firm has of each.", reads, 0}, s.causes)
	op(a, crew, get, "/causes/{id}", doc{"cause", "Causes", "One cause", "Its look-alikes with the signs that part them, its " +
		"year at a property, and the firm's plants that take it.", readsOf, 0}, s.cause)
	op(a, crew, get, "/properties/{id}/known", doc{"known-here", "Causes", "What the record knows of a property's plants", "Signs that weather, " +
		"place and work answer by themselves, and finds nearby: what a device takes along to name causes without a connection.", readsOf, 0}, s.knownHere)
	op(a, crew, get, "/finds", doc{"finds", "Causes", "Finds", "A page, the oldest first.", reads, 0}, s.finds)
	op(a, crew, post, "/finds", doc{"add-find", "Causes", "Keep a find", "A cause that was found on a plant, or somewhere on " +
		"a property.", adds, 0}, s.addFind, `{"plant_id": 1, "cause": "lace-bug", "certainty": 0.9, "share": 0.3, "seen": ["stippled", "dark_specks_below"], "not_seen": ["webbing"]}`)
	op(a, crew, put, "/finds/{id}", doc{"change-find", "Causes", "Correct, close or reopen a find", "All its fields, based on " +
		"a version.", writes, 0}, s.changeFind, `{"cause": "lace-bug", "certainty": 1, "share": 0.3, "state": "closed", "ending": "Washed off twice", "version": 1}`)
	op(a, planner, remove, "/finds/{id}", doc{"remove-find", "Causes", "Remove a find", "It goes out of sight, and can be " +
		"restored.", writes, 0}, s.removeFind)
	op(a, planner, post, "/finds/{id}/restore", doc{"restore-find", "Causes", "Bring a removed find back", "As it was.", writes, 0}, s.restoreFind)
	op(a, crew, post, "/finds/{id}/look", doc{"look-for", "Causes", "Ask for a look at all that may have it", "One job for a " +
		"property, with the plants of the spread watch, the clean ones first.", writes, 0}, s.lookFor, `{"property_id": 1}`)
	s.unnamedRoutes(a)
	op(a, crew, get, "/watch", doc{"spread-watch", "Causes", "What to look at because of what was found", "By cause and " +
		"property, clean properties first. A plant that was looked at since is off the list.", reads, 0}, s.spreadWatch)
	op(a, crew, get, "/call-sheet", doc{"call-sheet", "Causes", "What to ask a client who calls", "In order, with what each " +
		"answer says.", reads, 0}, s.callSheet)
	op(a, crew, get, "/calls", doc{"calls", "Causes", "A property's calls", "The newest first.", readsOf, 0}, s.calls)
	op(a, planner, post, "/calls", doc{"add-call", "Causes", "Keep a call", "What was asked and said; one that ends in a visit " +
		"makes its job in the same write.", adds, 0}, s.addCall, `{"property_id": 1, "caller": "The housekeeper", "answers": {"how_long": "overnight"}, "seen": ["sudden"], "not_seen": ["slow"],
		"ending": "visit", "said": "We come and look."}`)
	op(a, planner, put, "/calls/{id}", doc{"change-call", "Causes", "Change a call", "All its fields, based on a version.", writes, 0}, s.changeCall, `{"property_id": 1, "caller": "The housekeeper", "ending": "advice", "said": "Leave it until May.", "version": 1}`)
	op(a, planner, remove, "/calls/{id}", doc{"remove-call", "Causes", "Remove a call", "It goes out of sight, and can be " +
		"restored.", writes, 0}, s.removeCall)
	op(a, planner, post, "/calls/{id}/restore", doc{"restore-call", "Causes", "Bring a removed call back", "As it was.", writes, 0}, s.restoreCall)
}

func (s *Server) signs(context.Context, *struct{}) (*Out[Run[cause.Sign]], error) {
	return out(Run[cause.Sign]{Items: s.Finds.Signs()}), nil
}

func (s *Server) causes(ctx context.Context, _ *struct{}) (*Out[Run[finds.CauseLine]], error) {
	list, err := s.Finds.Causes(ctx)
	return out(Run[finds.CauseLine]{Items: list}), s.Problem(ctx, "cause", err)
}

func (s *Server) cause(ctx context.Context, in *struct {
	ID       string `path:"id" maxLength:"60" example:"box-blight" doc:"Id in the book of causes"`
	Property int64  `query:"property" example:"1" doc:"In whose dates; without, the months of the northern year"`
}) (*Out[finds.CausePage], error) {
	p, err := s.Finds.Cause(ctx, in.ID, in.Property)
	return out(p), s.Problem(ctx, "cause or property", err)
}

func (s *Server) finds(ctx context.Context, in *struct {
	Page
	Property int64 `query:"property" example:"1" doc:"Of one property; 0 for all"`
	Plant    int64 `query:"plant" example:"1" doc:"Of one plant; 0 for all"`
	Open     bool  `query:"open" doc:"None that are closed"`
}) (*Out[List[finds.Find]], error) {
	list, err := s.Finds.Finds(ctx, finds.FindsOf{Property: in.Property, Plant: in.Plant, Open: in.Open, After: in.Cursor, Limit: in.Limit + 1})
	return out(listed(list, in.Limit, func(f finds.Find) int64 { return f.ID })), s.Problem(ctx, "find", err)
}

func (s *Server) addFind(ctx context.Context, in *struct {
	OnceKey
	Body finds.FindIn
}) (*Out[finds.Find], error) {
	f, err := s.Finds.AddFind(ctx, keyOf(ctx), in.Body)
	return out(f), s.Problem(ctx, "plant", err)
}

func (s *Server) changeFind(ctx context.Context, in *struct {
	Write
	Body finds.FindChange
}) (*Out[finds.Find], error) {
	f, err := s.Finds.ChangeFind(ctx, keyOf(ctx), in.ID, in.Body)
	return out(f), s.Problem(ctx, "find", err)
}

func (s *Server) removeFind(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "find", s.Finds.RemoveFind(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreFind(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "find", s.Finds.RemoveFind(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) spreadWatch(ctx context.Context, _ *struct{}) (*Out[Run[finds.WatchGroup]], error) {
	list, err := s.Finds.SpreadWatch(ctx)
	return out(Run[finds.WatchGroup]{Items: list}), s.Problem(ctx, "find", err)
}

func (s *Server) lookFor(ctx context.Context, in *struct {
	Write
	Body struct {
		PropertyID int64   `json:"property_id" doc:"On which to look"`
		Plants     []int64 `json:"plants,omitempty" maxItems:"200" doc:"At which to look; those of the spread watch when absent"`
		Day        day.Day `json:"day,omitempty" format:"date" doc:"The job waits without a day when absent"`
	}
}) (*Out[work.OrderDetail], error) {
	o, err := s.Finds.LookFor(ctx, keyOf(ctx), in.ID, in.Body.PropertyID, in.Body.Day, in.Body.Plants)
	return out(o), s.Problem(ctx, "find", err)
}

func (s *Server) callSheet(context.Context, *struct{}) (*Out[Run[cause.Asked]], error) {
	return out(Run[cause.Asked]{Items: cause.CallSheet()}), nil
}

func (s *Server) calls(ctx context.Context, in *struct {
	Property int64 `query:"property" required:"true" minimum:"1" example:"1" doc:"Whose calls"`
}) (*Out[Run[finds.Call]], error) {
	list, err := s.Finds.Calls(ctx, in.Property)
	return out(Run[finds.Call]{Items: list}), s.Problem(ctx, "property", err)
}

func (s *Server) addCall(ctx context.Context, in *struct {
	OnceKey
	Body finds.CallIn
}) (*Out[finds.Call], error) {
	c, err := s.Finds.AddCall(ctx, keyOf(ctx), in.Body)
	return out(c), s.Problem(ctx, "plant", err)
}

func (s *Server) changeCall(ctx context.Context, in *struct {
	Write
	Body finds.CallIn
}) (*Out[finds.Call], error) {
	c, err := s.Finds.ChangeCall(ctx, keyOf(ctx), in.ID, in.Body)
	return out(c), s.Problem(ctx, "call", err)
}

func (s *Server) removeCall(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "call", s.Finds.RemoveCall(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreCall(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "call", s.Finds.RemoveCall(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) knownHere(ctx context.Context, in *ByID) (*Out[finds.KnownHere], error) {
	k, err := s.Finds.KnownHere(ctx, in.ID)
	return out(k), s.Problem(ctx, "property", err)
}
