package api

import (
	"context"

	"mezzadro/core/damage"
	"mezzadro/core/pruning"
	"mezzadro/house/cuts"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/walks"
	"mezzadro/house/work"
)

func (s *Server) reckonSeason(ctx context.Context, in *struct{ Body estate.SeasonIn }) (*Out[estate.SeasonOut], error) {
	o, err := s.Estate.ReckonSeason(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}

func (s *Server) reckonFreeze(ctx context.Context, in *struct{ Body walks.FreezeIn }) (*Out[walks.FreezeOut], error) {
	o, err := s.Walks.ReckonFreeze(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}

func (s *Server) reckonDamage(ctx context.Context, in *struct{ Body walks.DamageIn }) (*Out[damage.Answer], error) {
	a, err := s.Walks.ReckonDamage(ctx, in.Body)
	return out(a), s.problem(ctx, "property", err)
}

func (s *Server) reckonPruning(
	ctx context.Context,
	in *struct{ Body cuts.PruningIn },
) (*Out[cuts.PruningOut], error) {
	o, err := s.Cuts.ReckonPruning(ctx, in.Body)
	return out(o), s.problem(ctx, "plant or property", err)
}

func (s *Server) proposeCuts(ctx context.Context, in *struct {
	ByID
	Plant   int64           `query:"plant" doc:"A plant whose cut is wanted for another purpose"`
	Purpose pruning.Purpose `query:"purpose" maxLength:"40" doc:"That purpose"`
}) (*Out[cuts.CutsProposed], error) {
	var wanted []cuts.CutWanted
	if in.Plant != 0 {
		wanted = append(wanted, cuts.CutWanted{PlantID: in.Plant, Purpose: in.Purpose})
	}
	c, err := s.Cuts.ProposeCuts(ctx, in.ID, wanted)
	return out(c), s.problem(ctx, "property", err)
}

func (s *Server) keepCuts(ctx context.Context, in *struct {
	Write
	Body struct {
		Cuts []cuts.CutWanted `json:"cuts" minItems:"1" maxItems:"10000" doc:"The proposed cuts that become jobs"`
	}
}) (*Out[Run[work.Order]], error) {
	list, err := s.Cuts.KeepCuts(ctx, keyOf(ctx), in.ID, in.Body.Cuts)
	return out(Run[work.Order]{Items: list}), s.problem(ctx, "property", err)
}

func (s *Server) reckonCause(ctx context.Context, in *struct{ Body finds.CauseIn }) (*Out[finds.CauseOut], error) {
	o, err := s.Finds.ReckonCause(ctx, in.Body)
	return out(o), s.problem(ctx, "property", err)
}
