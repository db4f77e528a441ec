package api

import (
	"bytes"
	"cmp"
	"context"
	"strings"

	"mezzadro/core/season"
	"mezzadro/exchange"
	"mezzadro/house/estate"
	"mezzadro/house/overview"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) weatherRoutes(a huma.API) {
	op(a, crew, get, "/properties/{id}/season", doc{"season", "Weather", "The garden year of a property", "Normals, what was observed, frost to come, events.", readsOf, 0}, s.season)
	op(a, crew, get, "/properties/{id}/event", doc{"event", "Weather", "One event hour by hour", "Against what plants " +
		"there bore that day.", readsOf, 0}, s.eventChart)
	op(a, planner, post, "/reckon/weather-columns", doc{"ask-columns", "Weather", "What the columns of a weather file may hold", "Its names with their first lines, and what " +
		"each is taken for, to be told by hand when the file is taken; stores nothing.", files, maxCSV}, s.askColumns, "Logged,Out,Wet\n2027-02-27 06:00,-5,0\n")
	op(a, planner, get, "/properties/{id}/weather.csv", doc{"give-weather", "Weather", "A property's hourly weather as a " +
		"CSV file", "What matters today of it.", readsOf, 0}, s.giveWeather)
	op(a, planner, post, "/properties/{id}/weather/read", doc{"read-weather", "Weather", "Read the weather station", "What is not kept yet, through last night; nothing is worked out anew where nothing is new.", outside, 0}, s.readWeather)
	op(a, planner, post, "/properties/{id}/weather", doc{"take-weather", "Weather", "Take hourly weather from a CSV file", "All of it, or with a fault anywhere none; faults are named by line.", files, maxCSV}, s.weatherCSV, "time,temp_c\n2027-03-01T00:00:00Z,4.5\n2027-03-01T01:00:00Z,4.1\n")
	op(a, planner, remove, "/properties/{id}/weather/sources/{source}", doc{"drop-weather-source", "Weather", "Take a source of weather back", "A file, or what the station told: what lies beneath its hours counts again. It can be restored.", writes, 0}, s.dropSource)
	op(a, planner, post, "/properties/{id}/weather/sources/{source}/restore", doc{"restore-weather-source", "Weather", "Bring a source of weather back", "As it was.", writes, 0}, s.restoreSource)
}

// maxCSV is the largest weather file taken at once: some four years of hours.
const maxCSV = 4 << 20

func (s *Server) season(ctx context.Context, in *ByID) (*Out[estate.Season], error) {
	p, err := s.Estate.Place(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "property", err)
	}
	return out(p.TellSeason()), nil
}

// OneSource is a write on a source of a property's weather.
type OneSource struct {
	Write
	Source int64 `path:"source" example:"1" doc:"Of the season's sources"`
}

func (s *Server) dropSource(ctx context.Context, in *OneSource) (*struct{}, error) {
	return nil, s.Problem(ctx, "source of weather", s.Overview.TakeBackSource(ctx, keyOf(ctx), in.ID, in.Source, false))
}

func (s *Server) restoreSource(ctx context.Context, in *OneSource) (*struct{}, error) {
	return nil, s.Problem(ctx, "source of weather", s.Overview.TakeBackSource(ctx, keyOf(ctx), in.ID, in.Source, true))
}

func (s *Server) eventChart(ctx context.Context, in *struct {
	ByID
	Kind string `query:"kind" required:"true" example:"freeze" doc:"Of the event"`
	Peak string `query:"peak" required:"true" format:"date" example:"2027-02-26" doc:"Day of its peak"`
}) (*Out[overview.EventChart], error) {
	c, err := s.Overview.EventChart(ctx, in.ID, in.Kind, in.Peak)
	return out(c), s.Problem(ctx, in.Kind+" on "+in.Peak, err)
}

func (s *Server) weatherCSV(ctx context.Context, in *struct {
	Write
	Here      bool     `query:"here" default:"true" doc:"Measured in this garden: its site is already in the figures"`
	Name      string   `query:"name" maxLength:"200" doc:"Of the file; CSV file when absent"`
	Languages string   `header:"Accept-Language" doc:"By whose region a date is read that could be meant either way"`
	Columns   []string `query:"columns" maxItems:"200" doc:"What its columns hold, told by hand, in the words of ask-columns; kept for the next file with such a header. As was told of such files, or as their names say, when absent"`
	Zone      string   `query:"zone" enum:"garden,UTC," doc:"With columns: by whose clock its times are; the garden's when absent"`
	RawBody   []byte   `contentType:"text/csv"`
}) (*Out[overview.WeatherKept], error) {
	file := overview.WeatherFile{
		Name: strings.TrimSpace(in.Name), Text: in.RawBody, Here: in.Here, MonthFirst: s.StyleOf(ctx, in.Languages).MonthFirst,
	}
	if len(in.Columns) > 0 {
		file.Match = &exchange.Matching{Columns: in.Columns, Zone: cmp.Or(in.Zone, "garden")}
	}
	k, err := s.Overview.TakeWeatherFile(ctx, keyOf(ctx), in.ID, file)
	return out(k), s.Problem(ctx, "property", err)
}

func (s *Server) askColumns(ctx context.Context, in *struct {
	RawBody []byte `contentType:"text/csv"`
}) (*Out[exchange.WeatherColumns], error) {
	a, err := s.Overview.AskColumns(ctx, in.RawBody)
	return out(a), s.Problem(ctx, "file", err)
}

func (s *Server) readWeather(ctx context.Context, in *Write) (*Out[overview.WeatherKept], error) {
	k, err := s.Overview.ReadWeather(ctx, in.ID)
	return out(k), s.Problem(ctx, "weather", err)
}

func (s *Server) giveWeather(ctx context.Context, in *ByID) (*File, error) {
	name, hours, err := s.Estate.Hours(ctx, in.ID)
	var b bytes.Buffer
	if err == nil {
		err = exchange.WriteWeatherCSV(&b, hours)
	}
	return attached(name, "weather.csv", "text/csv", b.Bytes()), s.Problem(ctx, "property", err)
}

// NormalsRead are monthly normals as a file gave them.
type NormalsRead struct {
	Normals []season.Normal `json:"normals"`
}

func (s *Server) reckonNormals(ctx context.Context, in *struct {
	RawBody []byte `contentType:"text/csv"`
}) (*Out[NormalsRead], error) {
	n, err := exchange.ReadNormalsCSV(bytes.NewReader(in.RawBody))
	return out(NormalsRead{n}), s.Problem(ctx, "normals", err)
}
