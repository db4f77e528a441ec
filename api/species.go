package api

import (
	"context"

	"mezzadro/core/catalogue"
	"mezzadro/house/estate"
)

// BySpecies names an entry.
type BySpecies struct {
	ID string `path:"id" maxLength:"100" example:"camellia-japonica" doc:"Catalogue id"`
}

func (s *Server) speciesList(ctx context.Context, _ *struct{}) (*Out[List[estate.SpeciesOut]], error) {
	list, err := s.Estate.AllSpecies(ctx)
	return out(List[estate.SpeciesOut]{Items: list}), s.problem(ctx, "species", err)
}

func (s *Server) species(ctx context.Context, in *BySpecies) (*Out[estate.SpeciesDetail], error) {
	d, err := s.Estate.Species(ctx, in.ID)
	return out(d), s.problem(ctx, "species", err)
}

func (s *Server) keepSpecies(ctx context.Context, in *struct {
	BySpecies
	OnceKey
	Version int `query:"version" minimum:"0" doc:"Of the entry the change is based on; 0 for a built or a new one"`
	Body    catalogue.Entry
}) (*Out[estate.SpeciesDetail], error) {
	d, err := s.Estate.KeepSpecies(ctx, keyOf(ctx), in.ID, in.Version, in.Body)
	return out(d), s.problem(ctx, "species "+in.ID, err)
}

func (s *Server) dropSpecies(ctx context.Context, in *struct {
	BySpecies
	OnceKey
}) (*Out[catalogue.Entry], error) {
	was, err := s.Estate.DropSpecies(ctx, keyOf(ctx), in.ID)
	return out(was), s.problem(ctx, "an own or corrected entry "+in.ID, err)
}

func (s *Server) takePack(ctx context.Context, in *struct {
	OnceKey
	RawBody []byte `contentType:"application/yaml"`
}) (*Out[estate.PackTaken], error) {
	t, err := s.Estate.TakePack(ctx, keyOf(ctx), in.RawBody)
	return out(t), s.problem(ctx, "pack", err)
}

func (s *Server) givePack(ctx context.Context, in *struct {
	Of string `query:"of" default:"firm" enum:"firm,all" doc:"firm: own and corrected entries; all: the whole book"`
}) (*File, error) {
	list, err := s.Estate.Pack(ctx, in.Of == "all")
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	b, err := catalogue.WritePack(list)
	return &File{"application/yaml; charset=utf-8", `attachment; filename="species.yaml"`, b}, s.problem(ctx, "pack", err)
}

func (s *Server) speciesYear(ctx context.Context, in *struct {
	BySpecies
	Property int64 `query:"property" required:"true" example:"1" doc:"Whose climate and weather"`
}) (*Out[estate.SpeciesYear], error) {
	y, err := s.Estate.SpeciesYear(ctx, in.ID, in.Property)
	return out(y), s.problem(ctx, "property", err)
}
