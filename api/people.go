package api

import (
	"context"

	"mezzadro/core/job"
	"mezzadro/house/rounds"
)

func (s *Server) people(ctx context.Context, _ *struct{}) (*Out[Run[rounds.Person]], error) {
	list, err := s.Rounds.People(ctx)
	return out(Run[rounds.Person]{Items: list}), s.problem(ctx, "people", err)
}

func (s *Server) addPerson(ctx context.Context, in *struct {
	OnceKey
	Body rounds.PersonIn
}) (*Out[rounds.Person], error) {
	p, err := s.Rounds.KeepPerson(ctx, keyOf(ctx), 0, in.Body)
	return out(p), s.problem(ctx, "person", err)
}

func (s *Server) changePerson(ctx context.Context, in *struct {
	Write
	Body rounds.PersonIn
}) (*Out[rounds.Person], error) {
	p, err := s.Rounds.KeepPerson(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.problem(ctx, "person", err)
}

func (s *Server) removePerson(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "person", s.Rounds.RemovePerson(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restorePerson(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "person", s.Rounds.RemovePerson(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) skills(context.Context, *struct{}) (*Out[Run[string]], error) {
	return out(Run[string]{Items: job.Skills}), nil
}
