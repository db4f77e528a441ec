package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/house/standing"
)

func (s *Server) standingRoutes(a huma.API) {
	example := `{"crew_id": 1, "weekday": 2, "every": 2, "first": "2027-03-23", "months": [3, 11], "minutes": 90, "people": 2, "title": "Mow, edge and sweep", "known": true}`
	op(a, crew, get, "/standing", doc{"standing", "Work", "Visits that come again", "Of all properties: when, by whom, and the next days.", reads, 0}, s.standing)
	op(a, crew, get, "/properties/{id}/standing", doc{"standing-of", "Grounds", "Visits that come again to a property", "When, by whom, and the next days.", readsOf, 0}, s.standingOf)
	op(a, planner, post, "/properties/{id}/standing", doc{"add-standing", "Grounds", "Have a visit come again", "Every so many weeks on a weekday, by a crew, with general care. Its jobs are made two months ahead; other work of the property goes along where its time allows.", writes, 0}, s.addStanding, example)
	op(a, planner, put, "/standing/{id}", doc{"change-standing", "Work", "Change a visit that comes again", "All fields, based on a version; jobs to come are made anew, but for those that were pinned.", writes, 0}, s.changeStanding, example[:len(example)-1]+`, "version": 1}`)
	op(a, planner, remove, "/standing/{id}", doc{"remove-standing", "Work", "End a visit that comes again", "With its jobs to come, but for those that were pinned.", writes, 0}, s.removeStanding)
	op(a, planner, post, "/standing/{id}/restore", doc{"restore-standing", "Work", "Have an ended visit come again after all", "Its jobs are made anew.", writes, 0}, s.restoreStanding)
}

func (s *Server) standing(ctx context.Context, _ *struct{}) (*Out[Run[standing.Regular]], error) {
	list, err := s.Standing.Visits(ctx, 0)
	return out(Run[standing.Regular]{Items: list}), s.Problem(ctx, "visits", err)
}

func (s *Server) standingOf(ctx context.Context, in *ByID) (*Out[Run[standing.Regular]], error) {
	list, err := s.Standing.Visits(ctx, in.ID)
	return out(Run[standing.Regular]{Items: list}), s.Problem(ctx, "property", err)
}

func (s *Server) addStanding(ctx context.Context, in *struct {
	Write
	Body standing.RegularIn
}) (*Out[standing.Regular], error) {
	v, err := s.Standing.Add(ctx, keyOf(ctx), in.ID, in.Body)
	return out(v), s.Problem(ctx, "property", err)
}

func (s *Server) changeStanding(ctx context.Context, in *struct {
	Write
	Body standing.RegularIn
}) (*Out[standing.Regular], error) {
	v, err := s.Standing.Change(ctx, keyOf(ctx), in.ID, in.Body)
	return out(v), s.Problem(ctx, "visit", err)
}

func (s *Server) removeStanding(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "visit", s.Standing.Remove(ctx, keyOf(ctx), in.ID))
}

func (s *Server) restoreStanding(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "visit", s.Standing.Restore(ctx, keyOf(ctx), in.ID))
}
