package api

import (
	"bytes"
	"context"
	"fmt"
	"net/url"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/exchange"
	"mezzadro/house/estate"
	"mezzadro/house/garden"
)

// ClimateTypeOut is a climate type with its zone.
type ClimateTypeOut struct {
	catalogue.ClimateType
	Hardy string `json:"hardiness_zone"`
}

func (s *Server) climates(context.Context, *struct{}) (*Out[List[ClimateTypeOut]], error) {
	l := List[ClimateTypeOut]{Items: []ClimateTypeOut{}}
	for _, t := range s.Estate.Catalogue.Climates {
		l.Items = append(l.Items, ClimateTypeOut{t, season.Zone(t.Climate.ExtremeMinC)})
	}
	return out(l), nil
}

func (s *Server) properties(ctx context.Context, in *Page) (*Out[List[garden.PropertyOut]], error) {
	list, err := s.House.Garden.Properties(ctx, in.Cursor, in.Limit+1)
	return out(listed(list, in.Limit, func(p garden.PropertyOut) int64 { return p.ID })), s.problem(ctx, "properties", err)
}

func (s *Server) property(ctx context.Context, in *ByID) (*Out[garden.PropertyOut], error) {
	p, err := s.Garden.Property(ctx, in.ID)
	return out(p), s.problem(ctx, "property", err)
}

func (s *Server) addProperty(ctx context.Context, in *struct {
	OnceKey
	Body garden.PropertyIn
}) (*Out[garden.PropertyOut], error) {
	p, err := s.Garden.AddProperty(ctx, keyOf(ctx), in.Body)
	return out(p), s.problem(ctx, "property", err)
}

func (s *Server) changeProperty(ctx context.Context, in *struct {
	Write
	Body garden.PropertyIn
}) (*Out[garden.PropertyOut], error) {
	p, err := s.Garden.ChangeProperty(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.problem(ctx, "property", err)
}

func (s *Server) removeProperty(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "property", s.Garden.RemoveProperty(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreProperty(ctx context.Context, in *Write) (*Out[garden.PropertyOut], error) {
	if err := s.Garden.RemoveProperty(ctx, keyOf(ctx), in.ID, false); err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	return s.property(ctx, &in.ByID)
}

func (s *Server) plants(ctx context.Context, in *struct {
	Page
	Property int64 `query:"property" example:"1" doc:"Of one property; all when absent"`
}) (*Out[List[estate.PlantOut]], error) {
	list, err := s.Garden.Plants(ctx, in.Property, in.Cursor, in.Limit+1)
	return out(listed(list, in.Limit, func(p estate.PlantOut) int64 { return p.ID })), s.problem(ctx, "plants", err)
}

func (s *Server) plant(ctx context.Context, in *ByID) (*Out[estate.PlantOut], error) {
	p, err := s.Garden.Plant(ctx, in.ID)
	return out(p), s.problem(ctx, "plant", err)
}

func (s *Server) addPlant(ctx context.Context, in *struct {
	OnceKey
	Body garden.PlantIn
}) (*Out[estate.PlantOut], error) {
	p, err := s.Garden.AddPlant(ctx, keyOf(ctx), in.Body)
	return out(p), s.problem(ctx, fmt.Sprintf("property %d", in.Body.PropertyID), err)
}

func (s *Server) changePlant(ctx context.Context, in *struct {
	Write
	Body garden.PlantIn
}) (*Out[estate.PlantOut], error) {
	p, err := s.Garden.ChangePlant(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.problem(ctx, "plant", err)
}

func (s *Server) removePlant(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.problem(ctx, "plant", s.Garden.RemovePlant(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restorePlant(ctx context.Context, in *Write) (*Out[estate.PlantOut], error) {
	if err := s.Garden.RemovePlant(ctx, keyOf(ctx), in.ID, false); err != nil {
		return nil, s.problem(ctx, "plant", err)
	}
	return s.plant(ctx, &in.ByID)
}

func (s *Server) takePlants(ctx context.Context, in *struct {
	Write
	Standing string `query:"standing" default:"ask" enum:"ask,add,replace,leave" doc:"What to do with plants of the file that stand here already; ask keeps nothing and says how many they are"`
	RawBody  []byte `contentType:"text/csv"`
}) (*Out[garden.PlantsTaken], error) {
	t, err := s.Garden.TakePlants(ctx, keyOf(ctx), in.ID, in.RawBody, in.Standing)
	return out(t), s.problem(ctx, fmt.Sprintf("property %d", in.ID), err)
}

func (s *Server) givePlants(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Garden.Property(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	lines, err := s.Garden.PlantLines(ctx, in.ID)
	var b bytes.Buffer
	if err == nil {
		err = exchange.WritePlantsCSV(&b, lines)
	}
	return attached(p.Name, "plants.csv", "text/csv", b.Bytes()), s.problem(ctx, "plants", err)
}

func (s *Server) giveNormals(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Garden.Property(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	var b bytes.Buffer
	err = exchange.WriteNormalsCSV(&b, p.Climate.Normals)
	return attached(p.Name, "normals.csv", "text/csv", b.Bytes()), s.problem(ctx, "normals", err)
}

// labels is the property's plants as labels to print, in the order of the way round.
func (s *Server) labels(ctx context.Context, in *struct {
	ByID
	Site string `query:"site" required:"true" maxLength:"200" example:"http://127.0.0.1:8080" doc:"Address this program is reached at from the garden; the codes open it"`
}) (*File, error) {
	u, err := url.Parse(in.Site)
	if err != nil || u.Host == "" || u.Scheme != "http" && u.Scheme != "https" {
		return nil, s.problem(
			ctx,
			"labels",
			invalid.One("site", in.Site, fmt.Sprintf("%q is no address: want http:// or https:// and a name", in.Site)),
		)
	}
	name, labels, err := s.Garden.Labels(ctx, in.ID, in.Site)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	var b bytes.Buffer
	err = exchange.WriteLabels(&b, "Labels, "+name, labels)
	return attached(name, "labels.pdf", "application/pdf", b.Bytes()), s.problem(ctx, "labels", err)
}
