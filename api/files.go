package api

import (
	"bytes"
	"context"
	"fmt"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/exchange"
	"mezzadro/store"
)

// attached is an answer to keep as a file named after a property.
func attached(property store.Property, what, kind string, body []byte) *File {
	plain := strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			return r
		}
		return '-'
	}, strings.ToLower(property.Name))
	if strings.HasPrefix(kind, "text/") {
		kind += "; charset=utf-8"
	}
	return &File{kind, fmt.Sprintf("attachment; filename=%q", strings.Trim(plain, "-")+"-"+what), body}
}

// PlantsTaken says what a plant file brought.
type PlantsTaken struct {
	Added []int64 `json:"added" doc:"Ids of the new plants, in the order of the file"`
}

// takePlants adds the plants of a CSV file: all of them, or with a fault anywhere none.
func (s *Server) takePlants(ctx context.Context, in *struct {
	ByID
	OnceKey
	RawBody []byte `contentType:"text/csv"`
}) (*Out[PlantsTaken], error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	lines, err := exchange.ReadPlantsCSV(bytes.NewReader(in.RawBody))
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	var bad invalid.Fields
	plants := make([]store.Plant, 0, len(lines))
	if len(lines) > importLimit {
		bad.Add("file", len(lines), "holds %d plants; at most %d are taken at once", len(lines), importLimit)
	}
	for _, l := range lines {
		p, err := s.plantRecord(PlantIn{PropertyID: in.ID, Species: named(book, l.Species), Label: l.Label, HeightM: l.HeightM, SpreadM: l.SpreadM, Count: l.Count,
			Standing: Standing{l.BaseMM, l.PotL, &l.Shelter, &l.Sun, l.Mulched, l.Exposure}, Value: l.Value, Stop: l.Stop, GraftM: l.GraftM, Planted: l.Planted, Note: l.Note}, book)
		for _, f := range fields(err) {
			if len(bad) < 20 {
				bad.Add(fmt.Sprintf("line %d", l.Line), f.Value, "%s: %s", f.Path, f.Problem)
			}
		}
		plants = append(plants, p)
	}
	if bad != nil {
		return nil, s.problem(ctx, "plants", bad)
	}
	t, err := store.Once(ctx, s.Store, in.of("plants"), func(tx store.Tx) (PlantsTaken, error) {
		t := PlantsTaken{Added: []int64{}}
		for _, p := range plants {
			p, err := tx.AddPlant(ctx, p)
			if err != nil {
				return t, err
			}
			t.Added = append(t.Added, p.ID)
		}
		return t, nil
	})
	return out(t), s.problem(ctx, fmt.Sprintf("property %d", in.ID), err)
}

func (s *Server) givePlants(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Store.Property(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	plants, err := s.Store.Plants(ctx, in.ID, 0, 1<<31)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	lines := make([]exchange.PlantLine, len(plants))
	for i, p := range plants {
		lines[i] = exchange.PlantLine{Species: p.Species, Label: p.Label, HeightM: p.HeightM, SpreadM: p.SpreadM, Count: p.Count, BaseMM: p.BaseMM, PotL: p.PotL,
			Shelter: p.Shelter, Sun: p.Sun, Mulched: p.Mulched, Value: p.Value, Stop: p.Stop, GraftM: p.GraftM, Planted: p.Planted, Exposure: p.Exposure, Note: p.Note}
	}
	var b bytes.Buffer
	err = exchange.WritePlantsCSV(&b, lines)
	return attached(p, "plants.csv", "text/csv", b.Bytes()), s.problem(ctx, "plants", err)
}

func (s *Server) giveWeather(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Store.Property(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	today := s.Today()
	hours, err := s.Store.Weather(ctx, in.ID, recordFrom(climateOf(p), today).Time(), (today + 1).Time())
	if err != nil {
		return nil, s.problem(ctx, "weather", err)
	}
	var b bytes.Buffer
	err = exchange.WriteWeatherCSV(&b, hours)
	return attached(p, "weather.csv", "text/csv", b.Bytes()), s.problem(ctx, "weather", err)
}

func (s *Server) giveNormals(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Store.Property(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	var b bytes.Buffer
	err = exchange.WriteNormalsCSV(&b, p.Climate.V.Normals)
	return attached(p, "normals.csv", "text/csv", b.Bytes()), s.problem(ctx, "normals", err)
}

// NormalsRead are monthly normals as a file gave them.
type NormalsRead struct {
	Normals []season.Normal `json:"normals"`
}

func (s *Server) reckonNormals(ctx context.Context, in *struct {
	RawBody []byte `contentType:"text/csv"`
}) (*Out[NormalsRead], error) {
	n, err := exchange.ReadNormalsCSV(bytes.NewReader(in.RawBody))
	return out(NormalsRead{n}), s.problem(ctx, "normals", err)
}

// importLimit is how many plants a file may hold.
const importLimit = 5000

// named is the id of the species a plant file names by id, botanical or common name; what it does not know it gives back.
func named(book *catalogue.Catalogue, name string) string {
	for _, e := range book.Entries {
		if e.ID == name || strings.EqualFold(e.Botanical, name) || strings.EqualFold(e.Common, name) {
			return e.ID
		}
	}
	return name
}
