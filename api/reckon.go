package api

import (
	"context"

	"mezzadro/core/damage"
	"mezzadro/house"
)

func (s *Server) reckonSeason(ctx context.Context, in *struct{ Body house.SeasonIn }) (*Out[house.SeasonOut], error) {
	o, err := s.ReckonSeason(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}

func (s *Server) reckonFreeze(ctx context.Context, in *struct{ Body house.FreezeIn }) (*Out[house.FreezeOut], error) {
	o, err := s.ReckonFreeze(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}

func (s *Server) reckonDamage(ctx context.Context, in *struct{ Body house.DamageIn }) (*Out[damage.Answer], error) {
	a, err := s.ReckonDamage(ctx, in.Body)
	return out(a), s.problem(ctx, "property", err)
}

func (s *Server) reckonPruning(ctx context.Context, in *struct{ Body house.PruningIn }) (*Out[house.PruningOut], error) {
	o, err := s.ReckonPruning(ctx, in.Body)
	return out(o), s.problem(ctx, "plant or property", err)
}

func (s *Server) proposeCuts(ctx context.Context, in *ByID) (*Out[house.CutsProposed], error) {
	c, err := s.ProposeCuts(ctx, in.ID)
	return out(c), s.problem(ctx, "property", err)
}

func (s *Server) keepCuts(ctx context.Context, in *struct {
	Write
	Body struct {
		Plants []int64 `json:"plants" minItems:"1" maxItems:"500" doc:"Whose proposed cuts become jobs"`
	}
}) (*Out[Run[house.Order]], error) {
	list, err := s.KeepCuts(ctx, keyOf(ctx), in.ID, in.Body.Plants)
	return out(Run[house.Order]{Items: list}), s.problem(ctx, "property", err)
}

func (s *Server) reckonCause(ctx context.Context, in *struct{ Body house.CauseIn }) (*Out[house.CauseOut], error) {
	o, err := s.ReckonCause(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}
