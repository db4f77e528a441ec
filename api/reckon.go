package api

import (
	"context"

	"mezzadro/core/damage"
	"mezzadro/core/pruning"
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

func (s *Server) reckonPruning(
	ctx context.Context,
	in *struct{ Body house.PruningIn },
) (*Out[house.PruningOut], error) {
	o, err := s.ReckonPruning(ctx, in.Body)
	return out(o), s.problem(ctx, "plant or property", err)
}

func (s *Server) proposeCuts(ctx context.Context, in *struct {
	ByID
	Plant   int64           `query:"plant" doc:"A plant whose cut is wanted for another purpose"`
	Purpose pruning.Purpose `query:"purpose" maxLength:"40" doc:"That purpose"`
}) (*Out[house.CutsProposed], error) {
	var wanted []house.CutWanted
	if in.Plant != 0 {
		wanted = append(wanted, house.CutWanted{PlantID: in.Plant, Purpose: in.Purpose})
	}
	c, err := s.ProposeCuts(ctx, in.ID, wanted)
	return out(c), s.problem(ctx, "property", err)
}

func (s *Server) keepCuts(ctx context.Context, in *struct {
	Write
	Body struct {
		Cuts []house.CutWanted `json:"cuts" minItems:"1" maxItems:"10000" doc:"The proposed cuts that become jobs"`
	}
}) (*Out[Run[house.Order]], error) {
	list, err := s.KeepCuts(ctx, keyOf(ctx), in.ID, in.Body.Cuts)
	return out(Run[house.Order]{Items: list}), s.problem(ctx, "property", err)
}

func (s *Server) reckonCause(ctx context.Context, in *struct{ Body house.CauseIn }) (*Out[house.CauseOut], error) {
	o, err := s.ReckonCause(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}
