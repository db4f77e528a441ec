package api

import (
	"bytes"
	"context"
	"fmt"
	"net/url"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/exchange"
	"mezzadro/house/estate"
	"mezzadro/house/garden"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) groundsRoutes(a huma.API) {
	op(a, crew, get, "/climates", doc{"climates", "Grounds", "Climate types to start from", "The whole list, with the " +
		"hardiness zone of each.", reads, 0}, s.climates)
	op(a, crew, get, "/regions", doc{"regions", "Grounds", "Countries and states", "That rules of places know.", reads, 0}, s.regions)
	op(a, crew, get, "/properties/{id}/holding", doc{"holding", "Grounds", "What holds where a property lies", "Seasons in which kinds are not cut, " +
		"troubles that are reported, protected trees, fire, water, weeds, feeding, wires, licences: in our own words, with whom to ask.", readsOf, 0}, s.holding)
	op(a, planner, post, "/reckon/place", doc{"reckon-place", "Grounds", "What follows from where a place lies", "Its climate, moved to its " +
		"height; its time zone by its coordinates; and whether that can be.", reads, 0}, s.reckonPlace, `{"climate_type": "southern-coast", "elevation_m": 210, "latitude": -36.8, "longitude": 144.3}`)
	op(a, crew, get, "/properties", doc{"properties", "Grounds", "Properties", "A page, in the order they were added.", reads, 0}, s.properties)
	op(a, planner, post, "/properties", doc{"add-property", "Grounds", "Add a property", "With a climate type moved to the " +
		"place's height, or with its own normals.", adds, 0}, s.addProperty, `{"name": "School garden", "client": "The school board", "climate_type": "lake-foothills", "elevation_m": 350}`)
	op(a, crew, get, "/properties/{id}", doc{"property", "Grounds", "One property", "With its climate, in the open " +
		"country and on its site.", readsOf, 0}, s.property)
	op(a, planner, put, "/properties/{id}", doc{"change-property", "Grounds", "Change a property", "All its fields, based " +
		"on a version.", writes, 0}, s.changeProperty, `{"name": "School garden", "climate_type": "lake-foothills", "elevation_m": 360, "version": 1}`)
	op(a, planner, remove, "/properties/{id}", doc{"remove-property", "Grounds", "Remove a property", "It goes out of " +
		"sight with its plants and jobs, and can be restored.", writes, 0}, s.removeProperty)
	op(a, planner, post, "/properties/{id}/restore", doc{"restore-property", "Grounds", "Bring a removed property back", "With its plants and jobs as they were.", writes, 0}, s.restoreProperty)
	op(a, planner, get, "/properties/{id}/plants.csv", doc{"give-plants", "Grounds", "A property's plants as a CSV file", "Reads back to the same: see the formats page.", readsOf, 0}, s.givePlants)
	op(a, planner, post, "/properties/{id}/plants", doc{"take-plants", "Grounds", "Take plants from a CSV file", "All of them, or with a fault anywhere none; faults are named by line.", files, maxCSV}, s.takePlants, "species,label,height_m\nolea-europaea,Court,2.5\n")
	op(a, planner, get, "/properties/{id}/normals.csv", doc{"give-normals", "Grounds", "A property's monthly normals as a " +
		"CSV file", "Of the open country at its height.", readsOf, 0}, s.giveNormals)
	op(a, crew, post, "/reckon/scan", doc{"reckon-scan", "Firm", "A code to scan", "Of a link, for a telephone's camera, as an SVG path. Nothing is stored.", asks, 0}, s.reckonScan, `{"text": "https://garden.example/#/day"}`)
	op(a, planner, get, "/properties/{id}/labels.pdf", doc{"labels", "Grounds", "Labels to print", "One for each plant, in " +
		"the order of the way round, with a code that opens its page.", readsOf, 0}, s.labels)
	op(a, crew, get, "/plants", doc{"plants", "Grounds", "Plants", "A page, with what weather and season ask of each.", reads, 0}, s.plants)
	op(a, planner, post, "/plants", doc{"add-plant", "Grounds", "Add a plant or a group", "Species and height are needed; " +
		"the rest is taken as usual.", adds, 0}, s.addPlant, `{"property_id": 1, "species": "nerium-oleander", "label": "By the bicycle stand", "height_m": 1.8}`)
	op(a, crew, get, "/plants/{id}", doc{"plant", "Grounds", "One plant", "With what weather and season ask of it.", readsOf, 0}, s.plant)
	op(a, planner, put, "/plants/{id}", doc{"change-plant", "Grounds", "Change a plant", "All its fields, based on a " +
		"version.", writes, 0}, s.changePlant, `{"species": "nerium-oleander", "label": "By the bicycle stand", "height_m": 1.9, "version": 1}`)
	op(a, planner, remove, "/plants/{id}", doc{"remove-plant", "Grounds", "Remove a plant", "It goes out of sight with its " +
		"jobs, and can be restored.", writes, 0}, s.removePlant)
	op(a, planner, post, "/plants/{id}/restore", doc{"restore-plant", "Grounds", "Bring a removed plant back", "With its jobs as they were.", writes, 0}, s.restorePlant)
	op(a, crew, get, "/plants/{id}/story", doc{"story", "Grounds", "All that is known of a plant", "Now and foretold, " +
		"walks and verdicts, photos, jobs, how it turned out.", readsOf, 0}, s.story)
	op(a, crew, post, "/plants/{id}/outcomes", doc{"add-outcome", "Grounds", "Note how a plant turned out", "Held against the prognosis of one of its verdicts.", writes, 0}, s.addOutcome, `{"verdict_id": 1, "state": "alive", "height_m": 1.4, "note": "Shooting from the middle"}`)
	op(a, crew, remove, "/outcomes/{id}", doc{"undo-outcome", "Grounds", "Take an outcome back", "It no longer counts.", writes, 0}, s.undoOutcome)
}

func (s *Server) regions(context.Context, *struct{}) (*Out[garden.Regions], error) {
	return out(s.Garden.Regions()), nil
}

func (s *Server) holding(ctx context.Context, in *ByID) (*Out[garden.Holding], error) {
	h, err := s.Garden.HoldingAt(ctx, in.ID)
	return out(h), s.Problem(ctx, "property", err)
}

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

func (s *Server) reckonPlace(ctx context.Context, in *struct{ Body garden.PlaceIn }) (*Out[garden.PlaceOut], error) {
	p, err := s.Garden.ReckonPlace(in.Body)
	return out(p), s.Problem(ctx, "place", err)
}

func (s *Server) properties(ctx context.Context, in *Page) (*Out[List[garden.PropertyOut]], error) {
	list, err := s.House.Garden.Properties(ctx, in.Cursor, in.Limit+1)
	return out(listed(list, in.Limit, func(p garden.PropertyOut) int64 { return p.ID })), s.Problem(ctx, "properties", err)
}

func (s *Server) property(ctx context.Context, in *ByID) (*Out[garden.PropertyOut], error) {
	p, err := s.Garden.Property(ctx, in.ID)
	return out(p), s.Problem(ctx, "property", err)
}

func (s *Server) addProperty(ctx context.Context, in *struct {
	OnceKey
	Body garden.PropertyIn
}) (*Out[garden.PropertyOut], error) {
	p, err := s.Garden.AddProperty(ctx, keyOf(ctx), in.Body)
	return out(p), s.Problem(ctx, "property", err)
}

func (s *Server) changeProperty(ctx context.Context, in *struct {
	Write
	Body garden.PropertyIn
}) (*Out[garden.PropertyOut], error) {
	p, err := s.Garden.ChangeProperty(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.Problem(ctx, "property", err)
}

func (s *Server) removeProperty(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "property", s.Garden.RemoveProperty(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreProperty(ctx context.Context, in *Write) (*Out[garden.PropertyOut], error) {
	if err := s.Garden.RemoveProperty(ctx, keyOf(ctx), in.ID, false); err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	return s.property(ctx, &in.ByID)
}

func (s *Server) plants(ctx context.Context, in *struct {
	Page
	Property int64 `query:"property" example:"1" doc:"Of one property; all when absent"`
}) (*Out[List[estate.PlantOut]], error) {
	list, err := s.Garden.Plants(ctx, in.Property, in.Cursor, in.Limit+1)
	return out(listed(list, in.Limit, func(p estate.PlantOut) int64 { return p.ID })), s.Problem(ctx, "plants", err)
}

func (s *Server) plant(ctx context.Context, in *ByID) (*Out[estate.PlantOut], error) {
	p, err := s.Garden.Plant(ctx, in.ID)
	return out(p), s.Problem(ctx, "plant", err)
}

func (s *Server) addPlant(ctx context.Context, in *struct {
	OnceKey
	Body garden.PlantIn
}) (*Out[estate.PlantOut], error) {
	p, err := s.Garden.AddPlant(ctx, keyOf(ctx), in.Body)
	return out(p), s.Problem(ctx, fmt.Sprintf("property %d", in.Body.PropertyID), err)
}

func (s *Server) changePlant(ctx context.Context, in *struct {
	Write
	Body garden.PlantIn
}) (*Out[estate.PlantOut], error) {
	p, err := s.Garden.ChangePlant(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.Problem(ctx, "plant", err)
}

func (s *Server) removePlant(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "plant", s.Garden.RemovePlant(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restorePlant(ctx context.Context, in *Write) (*Out[estate.PlantOut], error) {
	if err := s.Garden.RemovePlant(ctx, keyOf(ctx), in.ID, false); err != nil {
		return nil, s.Problem(ctx, "plant", err)
	}
	return s.plant(ctx, &in.ByID)
}

func (s *Server) takePlants(ctx context.Context, in *struct {
	Write
	Standing string   `query:"standing" default:"ask" enum:"ask,add,replace,leave" doc:"What to do with plants of the file that stand here already; ask keeps nothing and says how many they are"`
	Called   []string `query:"called,explode" maxItems:"500" doc:"Which kind a name of the file means, as name=id, and name= to leave its lines out; kept for the next file"`
	RawBody  []byte   `contentType:"text/csv"`
}) (*Out[garden.PlantsTaken], error) {
	how := garden.Taking{Standing: in.Standing, Called: map[string]string{}}
	for _, c := range in.Called {
		at := strings.LastIndex(c, "=")
		if at < 1 {
			return nil, s.Problem(ctx, "plants", invalid.One("called", c, "want the file's name, = and the id of a kind, or nothing behind = to leave it out"))
		}
		how.Called[c[:at]] = c[at+1:]
	}
	t, err := s.Garden.TakePlants(ctx, keyOf(ctx), in.ID, in.RawBody, how)
	return out(t), s.Problem(ctx, fmt.Sprintf("property %d", in.ID), err)
}

func (s *Server) givePlants(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Garden.Property(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	lines, err := s.Garden.PlantLines(ctx, in.ID)
	var b bytes.Buffer
	if err == nil {
		err = exchange.WritePlantsCSV(&b, lines)
	}
	return attached(p.Name, "plants.csv", "text/csv", b.Bytes()), s.Problem(ctx, "plants", err)
}

func (s *Server) giveNormals(ctx context.Context, in *ByID) (*File, error) {
	p, err := s.Garden.Property(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	var b bytes.Buffer
	err = exchange.WriteNormalsCSV(&b, p.Climate.Normals)
	return attached(p.Name, "normals.csv", "text/csv", b.Bytes()), s.Problem(ctx, "normals", err)
}

// labels is the property's plants as labels to print, in the order of the way round.
func (s *Server) labels(ctx context.Context, in *struct {
	ByID
	Site string `query:"site" required:"true" maxLength:"200" example:"http://127.0.0.1:8080" doc:"Address this program is reached at from the garden; the codes open it"`

	Language string `header:"Accept-Language"`
}) (*File, error) {
	u, err := url.Parse(in.Site)
	if err != nil || u.Host == "" || u.Scheme != "http" && u.Scheme != "https" {
		return nil, s.Problem(
			ctx,
			"labels",
			invalid.One("site", in.Site, fmt.Sprintf("%q is no address: want http:// or https:// and a name", in.Site)),
		)
	}
	name, labels, err := s.Garden.Labels(ctx, in.ID, in.Site)
	if err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	var b bytes.Buffer
	err = exchange.WriteLabels(&b, s.paper(ctx, in.Language), "Labels, "+name, labels)
	return attached(name, "labels.pdf", "application/pdf", b.Bytes()), s.Problem(ctx, "labels", err)
}

// ScanIn is what a code is asked for.
type ScanIn struct {
	Text string `json:"text" minLength:"1" maxLength:"1000" doc:"A link, most often"`
}

func (s *Server) reckonScan(ctx context.Context, in *struct{ Body ScanIn }) (*Out[exchange.Scan], error) {
	code, err := exchange.ScanOf(in.Body.Text)
	return out(code), s.Problem(ctx, "text", err)
}
