package api

import (
	"context"

	"mezzadro/core/job"
	"mezzadro/house/crews"
)

func (s *Server) people(ctx context.Context, _ *struct{}) (*Out[Run[crews.Person]], error) {
	list, err := s.Team.People(ctx)
	return out(Run[crews.Person]{Items: list}), s.Problem(ctx, "people", err)
}

func (s *Server) addPerson(ctx context.Context, in *struct {
	OnceKey
	Body crews.PersonIn
}) (*Out[crews.Person], error) {
	p, err := s.Team.KeepPerson(ctx, keyOf(ctx), 0, in.Body)
	return out(p), s.Problem(ctx, "person", err)
}

func (s *Server) changePerson(ctx context.Context, in *struct {
	Write
	Body crews.PersonIn
}) (*Out[crews.Person], error) {
	p, err := s.Team.KeepPerson(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.Problem(ctx, "person", err)
}

func (s *Server) removePerson(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "person", s.Team.RemovePerson(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restorePerson(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "person", s.Team.RemovePerson(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) skills(context.Context, *struct{}) (*Out[Run[string]], error) {
	return out(Run[string]{Items: job.Skills}), nil
}
