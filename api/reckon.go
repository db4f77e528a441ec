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

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) cutRoutes(a huma.API) {
	op(a, crew, get, "/properties/{id}/cuts", doc{"propose-cuts", "Work", "A property's year of cuts", "Proposed for each plant by its kind and the house " +
		"rules, with totals; those that stand as jobs already are told.", readsOf, 0}, s.proposeCuts)
	op(a, planner, post, "/properties/{id}/cuts", doc{"keep-cuts", "Work", "Make jobs of proposed cuts", "Of some plants, all in one write; their windows follow " +
		"the season.", writes, 0}, s.keepCuts, `{"cuts": [{"plant_id": 1}]}`)
}

func (s *Server) reckonRoutes(a huma.API) {
	op(a, crew, post, "/reckon/season", doc{"reckon-season", "Reckon", "Where a climate stands in its year", "From an inline climate or a property; nothing is stored.", asks, 0}, s.reckonSeason, `{"date": "2027-03-18", "property": 1}`)
	op(a, crew, post, "/reckon/freeze", doc{"reckon-freeze", "Reckon", "What weather did to plants", "From inline " +
		"values; nothing is stored.", asks, maxCSV}, s.reckonFreeze, `{"property": 1, "plants": [{"species": "olea-europaea", "height_m": 3}]}`)
	op(a, crew, post, "/reckon/damage", doc{"reckon-damage", "Reckon", "The verdict on a plant", "From inline values; " +
		"nothing is stored.", asks, 0}, s.reckonDamage, `{"species": "camellia-japonica", "date": "2027-03-18", "property": 1, "height_m": 2,
		"checks": [{"kind": "bud_rub", "height_m": 1.8, "broke": 6}, {"kind": "scratch", "height_m": 1.2, "result": "green"}]}`)
	op(a, crew, post, "/reckon/cause", doc{"reckon-cause", "Reckon", "What may be wrong with a plant", "By the signs " +
		"that were seen, and those that were looked for and are not there: causes with their chances and what " +
		"speaks for each, and the question that parts them best. Nothing is stored.", asks, 0}, s.reckonCause, `{"species": "rosa-bedding", "date": "2027-07-10", "property": 1, "seen": ["stippled"],
		"not_seen": ["dark_specks_below"]}`)
	op(a, crew, post, "/reckon/pruning", doc{"reckon-pruning", "Reckon", "When and how far a plant is cut", "Windows of the garden year with the cost of " +
		"each day, what a cut on the date takes of the bloom, the height to cut to, the years it is spread over, and the work. Nothing is stored.", asks, 0}, s.reckonPruning, `{"species": "syringa-vulgaris", "date": "2027-03-18", "property": 1, "height_m": 3.2, "wanted_m": 2.6}`)
	op(a, crew, post, "/reckon/normals", doc{"reckon-normals", "Reckon", "Read monthly normals from a CSV file", "Nothing is stored.", files, 1 << 16}, s.reckonNormals, "month,tmin_c,tmax_c\n1,-1,6\n2,0,8\n3,3,13\n4,6,16\n5,11,21\n6,14,25\n7,17,28\n8,16,27\n9,13,22\n10,8,17\n11,3,10\n12,0,6\n")
}

func (s *Server) reckonSeason(ctx context.Context, in *struct{ Body estate.SeasonIn }) (*Out[estate.SeasonOut], error) {
	o, err := s.Estate.ReckonSeason(ctx, in.Body)
	return out(o), s.Problem(ctx, "property", err)
}

func (s *Server) reckonFreeze(ctx context.Context, in *struct{ Body walks.FreezeIn }) (*Out[walks.FreezeOut], error) {
	o, err := s.Walks.ReckonFreeze(ctx, in.Body)
	return out(o), s.Problem(ctx, "property", err)
}

func (s *Server) reckonDamage(ctx context.Context, in *struct{ Body walks.DamageIn }) (*Out[damage.Answer], error) {
	a, err := s.Walks.ReckonDamage(ctx, in.Body)
	return out(a), s.Problem(ctx, "property", err)
}

func (s *Server) reckonPruning(
	ctx context.Context,
	in *struct{ Body cuts.PruningIn },
) (*Out[cuts.PruningOut], error) {
	o, err := s.Cuts.ReckonPruning(ctx, in.Body)
	return out(o), s.Problem(ctx, "plant or property", err)
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
	return out(c), s.Problem(ctx, "property", err)
}

func (s *Server) keepCuts(ctx context.Context, in *struct {
	Write
	Body struct {
		Cuts []cuts.CutWanted `json:"cuts" minItems:"1" maxItems:"10000" doc:"The proposed cuts that become jobs"`
	}
}) (*Out[Run[work.Order]], error) {
	list, err := s.Cuts.KeepCuts(ctx, keyOf(ctx), in.ID, in.Body.Cuts)
	return out(Run[work.Order]{Items: list}), s.Problem(ctx, "property", err)
}

func (s *Server) reckonCause(ctx context.Context, in *struct{ Body finds.CauseIn }) (*Out[finds.CauseOut], error) {
	o, err := s.Finds.ReckonCause(ctx, in.Body)
	return out(o), s.Problem(ctx, "property", err)
}
