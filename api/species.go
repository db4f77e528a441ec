package api

import (
	"context"

	"mezzadro/core/catalogue"
	"mezzadro/house/estate"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) speciesRoutes(a huma.API) {
	op(a, crew, get, "/species", doc{"species-list", "Almanac", "The whole book of species", "Built-in entries with the " +
		"firm's own and corrected ones.", reads, 0}, s.speciesList)
	op(a, planner, get, "/species.yaml", doc{"give-pack", "Almanac", "Species entries as a YAML pack", "The firm's own and " +
		"corrected ones, or all.", reads, 0}, s.givePack)
	op(a, planner, post, "/species", doc{"take-pack", "Almanac", "Take species entries from a YAML pack", "All of them, or " +
		"with a fault anywhere none.", files, maxCSV}, s.takePack)
	op(a, planner, post, "/species/like", doc{"add-kind", "Almanac", "Add a kind in five fields", "All but its name, form, leaves and hardiness is taken " +
		"from a kind that it is like, and said to be a guess.", adds, 0}, s.addKind,
		`{"common": "Silky stewartia", "botanical": "Stewartia malacodendron", "form": "tree", "leaf_season": "deciduous", "zone": "7a", "like": "camellia-japonica"}`)
	op(a, crew, get, "/species/{id}", doc{"species", "Almanac", "One species entry", "With what the firm changed of " +
		"it.", readsOf, 0}, s.species)
	op(a, planner, put, "/species/{id}", doc{"keep-species", "Almanac", "Write or correct a species entry", "The built entry stays beside a corrected one.", writes, 0}, s.keepSpecies)
	op(a, planner, remove, "/species/{id}", doc{"drop-species", "Almanac", "Take the firm's entry out", "A corrected one " +
		"is as built again; an own one is gone, unless plants are of it.", writes, 0}, s.dropSpecies)
	op(a, crew, get, "/species/{id}/year", doc{"species-year", "Almanac", "An entry's dates at a property", "Leaf, bloom, bud set and patience date in this year's weather, and what it bears now.", readsOf, 0}, s.speciesYear)
}

// BySpecies names an entry.
type BySpecies struct {
	ID string `path:"id" maxLength:"100" example:"camellia-japonica" doc:"Catalogue id"`
}

func (s *Server) speciesList(ctx context.Context, _ *struct{}) (*Out[List[estate.SpeciesOut]], error) {
	list, err := s.Estate.AllSpecies(ctx)
	return out(List[estate.SpeciesOut]{Items: list}), s.Problem(ctx, "species", err)
}

func (s *Server) species(ctx context.Context, in *BySpecies) (*Out[estate.SpeciesDetail], error) {
	d, err := s.Estate.Species(ctx, in.ID)
	return out(d), s.Problem(ctx, "species", err)
}

func (s *Server) keepSpecies(ctx context.Context, in *struct {
	BySpecies
	OnceKey
	Version int `query:"version" minimum:"0" doc:"Of the entry the change is based on; 0 for a built or a new one"`
	Body    catalogue.Entry
}) (*Out[estate.SpeciesDetail], error) {
	d, err := s.Estate.KeepSpecies(ctx, keyOf(ctx), in.ID, in.Version, in.Body)
	return out(d), s.Problem(ctx, "species "+in.ID, err)
}

func (s *Server) addKind(ctx context.Context, in *struct {
	OnceKey
	Body catalogue.NewKind
}) (*Out[estate.SpeciesDetail], error) {
	d, err := s.Estate.AddKind(ctx, keyOf(ctx), in.Body)
	return out(d), s.Problem(ctx, "species", err)
}

func (s *Server) dropSpecies(ctx context.Context, in *struct {
	BySpecies
	OnceKey
}) (*Out[catalogue.Entry], error) {
	was, err := s.Estate.DropSpecies(ctx, keyOf(ctx), in.ID)
	return out(was), s.Problem(ctx, "an own or corrected entry "+in.ID, err)
}

func (s *Server) takePack(ctx context.Context, in *struct {
	OnceKey
	RawBody []byte `contentType:"application/yaml"`
}) (*Out[estate.PackTaken], error) {
	t, err := s.Estate.TakePack(ctx, keyOf(ctx), in.RawBody)
	return out(t), s.Problem(ctx, "pack", err)
}

func (s *Server) givePack(ctx context.Context, in *struct {
	Of string `query:"of" default:"firm" enum:"firm,all" doc:"firm: own and corrected entries; all: the whole book"`
}) (*File, error) {
	list, err := s.Estate.Pack(ctx, in.Of == "all")
	if err != nil {
		return nil, s.Problem(ctx, "species", err)
	}
	b, err := catalogue.WritePack(list)
	return &File{"application/yaml; charset=utf-8", `attachment; filename="species.yaml"`, b}, s.Problem(ctx, "pack", err)
}

func (s *Server) speciesYear(ctx context.Context, in *struct {
	BySpecies
	Property int64 `query:"property" required:"true" example:"1" doc:"Whose climate and weather"`
}) (*Out[estate.SpeciesYear], error) {
	y, err := s.Estate.SpeciesYear(ctx, in.ID, in.Property)
	return out(y), s.Problem(ctx, "property", err)
}
