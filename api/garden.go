package api

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/exchange"
	"mezzadro/store"
)

// ClimateTypeOut is a climate type with its zone.
type ClimateTypeOut struct {
	catalogue.ClimateType
	Hardy string `json:"hardiness_zone"`
}

func (s *Server) climates(ctx context.Context, _ *struct{}) (*Out[List[ClimateTypeOut]], error) {
	l := List[ClimateTypeOut]{Items: []ClimateTypeOut{}}
	for _, t := range s.Catalogue.Climates {
		l.Items = append(l.Items, ClimateTypeOut{t, season.Zone(t.Climate.ExtremeMinC)})
	}
	return out(l), nil
}

// PropertyIn is what is entered of a property. The climate is a type moved to the place's height, or given in full.
type PropertyIn struct {
	Name        string          `json:"name" minLength:"1" maxLength:"120"`
	Client      string          `json:"client,omitempty" maxLength:"120"`
	Address     string          `json:"address,omitempty" maxLength:"300"`
	Note        string          `json:"note,omitempty" maxLength:"2000"`
	Zone        string          `json:"zone,omitempty" doc:"Time zone; the climate type's when absent"`
	ClimateType string          `json:"climate_type,omitempty"`
	ElevationM  *float64        `json:"elevation_m,omitempty" doc:"Moves the climate type to this height"`
	Latitude    *float64        `json:"latitude,omitempty"`
	Longitude   *float64        `json:"longitude,omitempty"`
	Climate     *season.Climate `json:"climate,omitempty" doc:"In place of a type, which it overrules: the property's own normals"`
	Site        season.Site     `json:"site,omitempty" doc:"How the place differs from the open country"`
	cold.Exposure
	Value   float64 `json:"value,omitempty" doc:"The client's weight: 1 ordinary (when absent), 2 first, 0.5 last"`
	Version int     `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// PropertyOut is a property with its climate.
type PropertyOut struct {
	store.Property
	Climate season.Climate `json:"climate" doc:"Of the open country at its height"`
	Site    season.Site    `json:"site"`
	cold.Exposure
	Here  season.Climate `json:"climate_here" doc:"The climate on its site"`
	Hardy string         `json:"hardiness_zone" doc:"Of the climate on its site"`
}

func tell(p store.Property) PropertyOut {
	here := climateOf(p)
	return PropertyOut{p, p.Climate.V, p.Site.V, p.Exposure.V, here, season.Zone(here.ExtremeMinC)}
}

// record checks what was entered and makes the record of it.
func (s *Server) record(in PropertyIn) (store.Property, error) {
	p := store.Property{Name: strings.TrimSpace(in.Name), Client: in.Client, Address: in.Address, Note: in.Note, Zone: in.Zone, ClimateType: in.ClimateType, Value: in.Value, Version: in.Version}
	p.Site.V, p.Exposure.V = in.Site, in.Exposure
	bad := fields(in.Exposure.Validate())
	if in.Value == 0 {
		p.Value = 1
	} else {
		bad.Within("value", in.Value, 0.5, 2, "")
	}
	if p.Name == "" {
		bad.Add("name", in.Name, "is missing")
	}
	switch {
	case in.Climate != nil:
		bad.Below("climate", in.Climate.Validate())
		p.Climate.V, p.ClimateType = *in.Climate, ""
	case in.ClimateType != "":
		t, err := s.Catalogue.Climate(in.ClimateType)
		if err != nil {
			bad.Add("climate_type", in.ClimateType, "%v", err)
			break
		}
		c := t.Climate
		if in.ElevationM != nil {
			bad.Within("elevation_m", *in.ElevationM, -430, 5000, "m")
			c = c.AtElevation(*in.ElevationM)
		}
		if in.Latitude != nil {
			bad.Within("latitude", *in.Latitude, -66, 66, "°")
			if *in.Latitude*c.Latitude < 0 {
				bad.Add("latitude", *in.Latitude, "%g° is in the other hemisphere than the climate type", *in.Latitude)
			}
			c.Latitude = *in.Latitude
		}
		if in.Longitude != nil {
			bad.Within("longitude", *in.Longitude, -180, 180, "°")
			c.Longitude = *in.Longitude
		}
		p.Climate.V = c
		if p.Zone == "" {
			p.Zone = t.Zone
		}
	default:
		bad.Add("climate_type", nil, "is missing: choose a climate to start from, or give the twelve normals as climate")
	}
	if p.Zone == "" {
		p.Zone = "UTC"
	}
	if _, err := time.LoadLocation(p.Zone); err != nil {
		bad.Add("zone", p.Zone, "%q is no time zone", p.Zone)
	}
	return p, bad.Err()
}

func (s *Server) properties(ctx context.Context, in *Page) (*Out[List[PropertyOut]], error) {
	list, err := s.Store.Properties(ctx, in.Cursor, in.Limit+1)
	if err != nil {
		return nil, s.problem(ctx, "properties", err)
	}
	told := make([]PropertyOut, len(list))
	for i, p := range list {
		told[i] = tell(p)
	}
	return out(listed(told, in.Limit, func(p PropertyOut) int64 { return p.ID })), nil
}

func (s *Server) property(ctx context.Context, in *ByID) (*Out[PropertyOut], error) {
	p, err := s.Store.Property(ctx, in.ID)
	return out(tell(p)), s.problem(ctx, "property", err)
}

func (s *Server) addProperty(ctx context.Context, in *struct {
	OnceKey
	Body PropertyIn
}) (*Out[PropertyOut], error) {
	p, err := s.record(in.Body)
	if err == nil {
		p, err = store.Once(ctx, s.Store, in.of("property"), func(tx store.Tx) (store.Property, error) { return tx.AddProperty(ctx, p) })
	}
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	return s.property(ctx, &ByID{p.ID})
}

func (s *Server) changeProperty(ctx context.Context, in *struct {
	ByID
	Body PropertyIn
}) (*Out[PropertyOut], error) {
	p, err := s.record(in.Body)
	if err == nil {
		p.ID = in.ID
		err = s.Store.Write(ctx, func(tx store.Tx) error { p, err = tx.ChangeProperty(ctx, p); return err })
	}
	return out(tell(p)), s.problem(ctx, "property", err)
}

func (s *Server) removeProperty(ctx context.Context, in *ByID) (*struct{}, error) {
	return nil, s.problem(ctx, "property", s.Store.Write(ctx, func(tx store.Tx) error { return tx.RemoveProperty(ctx, in.ID, true) }))
}

func (s *Server) restoreProperty(ctx context.Context, in *ByID) (*Out[PropertyOut], error) {
	if err := s.Store.Write(ctx, func(tx store.Tx) error { return tx.RemoveProperty(ctx, in.ID, false) }); err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	return s.property(ctx, in)
}

func (s *Server) season(ctx context.Context, in *ByID) (*Out[Season], error) {
	p, err := s.place(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	return out(p.tellSeason()), nil
}

// WeatherKept says how much weather was taken over.
type WeatherKept struct {
	Hours  int     `json:"hours"`
	Events []Event `json:"events" doc:"Events found in this garden year, after the new hours"`
	Source string  `json:"source"`
}

// maxCSV is the largest weather file taken at once: some four years of hours.
const maxCSV = 4 << 20

func (s *Server) weatherCSV(ctx context.Context, in *struct {
	ByID
	Here    bool   `query:"here" default:"true" doc:"Measured in this garden: its site is already in the figures"`
	RawBody []byte `contentType:"text/csv"`
}) (*Out[WeatherKept], error) {
	hours, err := exchange.ReadWeatherCSV(bytes.NewReader(in.RawBody))
	for i := range hours {
		hours[i].Here = in.Here
	}
	if err == nil {
		err = s.Store.Write(ctx, func(tx store.Tx) error { return tx.KeepWeather(ctx, in.ID, "CSV file", hours) })
	}
	if err != nil {
		return nil, s.problem(ctx, "weather", err)
	}
	return s.weatherKept(ctx, in.ID, len(hours))
}

func (s *Server) weatherKept(ctx context.Context, property int64, hours int) (*Out[WeatherKept], error) {
	p, err := s.place(ctx, property)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	return out(WeatherKept{hours, p.tellEvents(), p.property.WeatherSource}), nil
}

func (s *Server) readWeather(ctx context.Context, in *ByID) (*Out[WeatherKept], error) {
	n, err := s.ReadStation(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "weather", err)
	}
	return s.weatherKept(ctx, in.ID, n)
}

// ReadStation takes over the weather that matters for today, through the day before it.
func (s *Server) ReadStation(ctx context.Context, property int64) (int, error) {
	p, err := s.Store.Property(ctx, property)
	if err != nil {
		return 0, err
	}
	return s.readStation(ctx, p, s.Today())
}

func (s *Server) readStation(ctx context.Context, p store.Property, today day.Day) (int, error) {
	if s.Station == nil {
		return 0, store.Refused("no weather station is set up: start with --weather URL, or give the weather as a CSV file")
	}
	c := p.Climate.V
	hours, source, err := s.Station.Hours(ctx, c.Latitude, c.Longitude, c.ElevationM, recordFrom(c, today), today-1)
	if err != nil {
		s.Log.WarnContext(ctx, "weather station", "property", p.ID, "error", err)
		return 0, store.Refused(err.Error())
	}
	return len(hours), s.Store.Write(ctx, func(tx store.Tx) error { return tx.KeepWeather(ctx, p.ID, source, hours) })
}

// WatchWeather reads the station for every property, now and then again after each span, until the context ends. A
// station that does not answer is noted in the log; the record keeps what it has.
func (s *Server) WatchWeather(ctx context.Context, every time.Duration) {
	tick := time.NewTicker(every)
	defer tick.Stop()
	for {
		props, err := s.Store.Properties(ctx, 0, 1<<31)
		if err != nil && ctx.Err() == nil {
			s.Log.ErrorContext(ctx, "weather watch", "error", err)
		}
		for _, p := range props {
			if _, err := s.ReadStation(ctx, p.ID); err != nil && ctx.Err() == nil {
				s.Log.WarnContext(ctx, "weather watch", "property", p.ID, "error", err)
			}
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

func (s *Server) plants(ctx context.Context, in *struct {
	Page
	Property int64 `query:"property" doc:"Of one property; all when absent"`
}) (*Out[List[PlantOut]], error) {
	list, err := s.Store.Plants(ctx, in.Property, in.Cursor, in.Limit+1)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	p := listed(list, in.Limit, func(p store.Plant) int64 { return p.ID })
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	return out(List[PlantOut]{t.tell(p.Items), p.Next}), nil
}

func (s *Server) plant(ctx context.Context, in *ByID) (*Out[PlantOut], error) {
	p, err := s.Store.Plant(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "plant", err)
	}
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plant", err)
	}
	return out(t.tell([]store.Plant{p})[0]), nil
}

func (s *Server) addPlant(ctx context.Context, in *struct {
	OnceKey
	Body PlantIn
}) (*Out[PlantOut], error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	p, err := s.plantRecord(in.Body, book)
	if err == nil && p.PropertyID == 0 {
		err = refuse("property_id", nil, "is missing: say on which property it stands")
	}
	if err == nil {
		p, err = store.Once(ctx, s.Store, in.of("plant"), func(tx store.Tx) (store.Plant, error) { return tx.AddPlant(ctx, p) })
	}
	if err != nil {
		return nil, s.problem(ctx, fmt.Sprintf("property %d", in.Body.PropertyID), err)
	}
	return s.plant(ctx, &ByID{p.ID})
}

func (s *Server) changePlant(ctx context.Context, in *struct {
	ByID
	Body PlantIn
}) (*Out[PlantOut], error) {
	book, err := s.book(ctx)
	if err != nil {
		return nil, s.problem(ctx, "species", err)
	}
	p, err := s.plantRecord(in.Body, book)
	if err == nil {
		p.ID = in.ID
		err = s.Store.Write(ctx, func(tx store.Tx) error { p, err = tx.ChangePlant(ctx, p); return err })
	}
	if err != nil {
		return nil, s.problem(ctx, "plant", err)
	}
	return s.plant(ctx, &ByID{in.ID})
}

func (s *Server) removePlant(ctx context.Context, in *ByID) (*struct{}, error) {
	return nil, s.problem(ctx, "plant", s.Store.Write(ctx, func(tx store.Tx) error { return tx.RemovePlant(ctx, in.ID, true) }))
}

func (s *Server) restorePlant(ctx context.Context, in *ByID) (*Out[PlantOut], error) {
	if err := s.Store.Write(ctx, func(tx store.Tx) error { return tx.RemovePlant(ctx, in.ID, false) }); err != nil {
		return nil, s.problem(ctx, "plant", err)
	}
	return s.plant(ctx, in)
}
