package api

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/exchange"
	"mezzadro/store"
)

func (s *Server) speciesList(ctx context.Context, _ *struct{}) (*Out[List[catalogue.Entry]], error) {
	return out(List[catalogue.Entry]{Items: s.Catalogue.Entries}), nil
}

func (s *Server) climates(ctx context.Context, _ *struct{}) (*Out[List[catalogue.ClimateType]], error) {
	return out(List[catalogue.ClimateType]{Items: s.Catalogue.Climates}), nil
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
	Version     int             `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// PropertyOut is a property with its climate.
type PropertyOut struct {
	store.Property
	Climate season.Climate `json:"climate"`
}

func tell(p store.Property) PropertyOut { return PropertyOut{p, p.Climate.Climate} }

// record checks what was entered and makes the record of it.
func (s *Server) record(in PropertyIn) (store.Property, error) {
	p := store.Property{Name: strings.TrimSpace(in.Name), Client: in.Client, Address: in.Address, Note: in.Note, Zone: in.Zone, ClimateType: in.ClimateType, Version: in.Version}
	var bad invalid.Fields
	if p.Name == "" {
		bad.Add("name", in.Name, "is missing")
	}
	switch {
	case in.Climate != nil:
		bad.Below("climate", in.Climate.Validate())
		p.Climate.Climate, p.ClimateType = *in.Climate, ""
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
		p.Climate.Climate = c
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
	Hours   int      `json:"hours"`
	Freezes []Freeze `json:"freezes" doc:"Freezes found in this garden year, after the new hours"`
	Source  string   `json:"source"`
}

// maxCSV is the largest weather file taken at once: some four years of hours.
const maxCSV = 4 << 20

func (s *Server) weatherCSV(ctx context.Context, in *struct {
	ByID
	RawBody []byte `contentType:"text/csv"`
}) (*Out[WeatherKept], error) {
	hours, err := exchange.ReadWeatherCSV(bytes.NewReader(in.RawBody))
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
	return out(WeatherKept{hours, p.tellFreezes(), p.property.WeatherSource}), nil
}

func (s *Server) readWeather(ctx context.Context, in *ByID) (*Out[WeatherKept], error) {
	n, err := s.ReadStation(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "weather", err)
	}
	return s.weatherKept(ctx, in.ID, n)
}

// ReadStation takes over the weather of the garden year so far, from the late summer before it in which plants begin
// to harden, through the day before today.
func (s *Server) ReadStation(ctx context.Context, property int64) (int, error) {
	if s.Station == nil {
		return 0, store.Refused("no weather station is set up: start with --weather URL, or give the weather as a CSV file")
	}
	p, err := s.Store.Property(ctx, property)
	if err != nil {
		return 0, err
	}
	c, today := p.Climate.Climate, s.Today()
	from, _ := c.GardenYear(today)
	hours, source, err := s.Station.Hours(ctx, c.Latitude, c.Longitude, c.ElevationM, min(from, c.Midwinter(today)-140), today-1)
	if err != nil {
		s.Log.WarnContext(ctx, "weather station", "property", property, "error", err)
		return 0, store.Refused(err.Error())
	}
	return len(hours), s.Store.Write(ctx, func(tx store.Tx) error { return tx.KeepWeather(ctx, property, source, hours) })
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

// PlantIn is what is entered of a plant.
type PlantIn struct {
	PropertyID int64   `json:"property_id,omitempty" doc:"When adding"`
	Species    string  `json:"species" minLength:"1" doc:"Catalogue id"`
	Label      string  `json:"label,omitempty" maxLength:"200"`
	HeightM    float64 `json:"height_m" doc:"m"`
	SpreadM    float64 `json:"spread_m,omitempty" doc:"m; two thirds of the height when absent"`
	Count      int     `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"1 when absent"`
	Note       string  `json:"note,omitempty" maxLength:"2000"`
	Version    int     `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

func (s *Server) plantRecord(in PlantIn) (store.Plant, error) {
	p := store.Plant{PropertyID: in.PropertyID, Species: in.Species, Label: strings.TrimSpace(in.Label), HeightM: in.HeightM,
		SpreadM: in.SpreadM, Count: max(1, in.Count), Note: in.Note, Version: in.Version}
	var bad invalid.Fields
	if _, err := s.Catalogue.Species(in.Species); err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	if !(in.HeightM > 0 && in.HeightM <= 60) {
		bad.Add("height_m", in.HeightM, "%g m: a plant's height must be above 0 and at most 60 m", in.HeightM)
	}
	if in.SpreadM == 0 {
		p.SpreadM = in.HeightM * 2 / 3
	} else if !(in.SpreadM > 0 && in.SpreadM <= 100) {
		bad.Add("spread_m", in.SpreadM, "%g m: a plant's spread must be above 0 and at most 100 m", in.SpreadM)
	}
	return p, bad.Err()
}

// PlantOut is a plant with what is known of it now.
type PlantOut struct {
	store.Plant
	Common    string          `json:"common"`
	Botanical string          `json:"botanical"`
	Form      catalogue.Form  `json:"form"`
	Property  string          `json:"property"`
	Verdict   *store.Decision `json:"verdict,omitempty" doc:"The decision that stands, if one was made in the last months"`
	Decided   bool            `json:"decided" doc:"A verdict stands that is no older than the freeze that asks for a look"`
	Look      *LookOut        `json:"look,omitempty" doc:"Why to look at it after this winter's freezes"`
}

// LookOut is a reason to look.
type LookOut struct {
	Coldest  day.Day `json:"coldest" format:"date" doc:"The day of the freeze"`
	BeyondC  float64 `json:"beyond_c" doc:"How far the freeze went below what the wood bore, °C; negative: stayed above"`
	BudsC    float64 `json:"buds_c" doc:"The same for buds; the list is ordered by it"`
	Expected string  `json:"expected" enum:"wood,buds,nothing"`
	Reason   string  `json:"reason"`
}

// tellPlants adds what is known to plants, reading each property's season once.
func (s *Server) tellPlants(ctx context.Context, plants []store.Plant, only int64) ([]PlantOut, error) {
	props, err := s.Store.Properties(ctx, 0, 1<<31)
	if err != nil {
		return nil, err
	}
	places := map[int64]*place{}
	since := s.Today() - recent
	for _, p := range props {
		if only != 0 && p.ID != only {
			continue
		}
		if places[p.ID], err = s.placeOf(ctx, p); err != nil {
			return nil, err
		}
	}
	verdicts, err := s.Store.Verdicts(ctx, only, since.String())
	if err != nil {
		return nil, err
	}
	standing := map[int64]*store.Decision{}
	for i := range verdicts {
		standing[verdicts[i].PlantID] = &verdicts[i]
	}
	type kind struct {
		property int64
		species  string
	}
	looks := map[kind]*LookOut{}
	out := make([]PlantOut, 0, len(plants))
	for _, p := range plants {
		e, err := s.Catalogue.Species(p.Species)
		if err != nil {
			e = catalogue.Entry{Common: p.Species, Form: catalogue.Shrub} // an entry taken out since: the plant stays
		}
		o := PlantOut{Plant: p, Common: e.Common, Botanical: e.Botanical, Form: e.Form, Verdict: standing[p.ID]}
		if pl := places[p.PropertyID]; pl != nil {
			o.Property = pl.property.Name
			k := kind{p.PropertyID, p.Species}
			if _, done := looks[k]; !done {
				looks[k] = nil
				if l, on, ok := s.look(pl, p.Species); ok {
					looks[k] = &LookOut{on, tenth(l.BeyondC), tenth(l.BudsC), l.Expected, l.Reason}
				}
			}
			o.Look = looks[k]
		}
		o.Decided = o.Verdict != nil && o.Verdict.Decision != "not now" && (o.Look == nil || o.Verdict.Day >= o.Look.Coldest.String())
		out = append(out, o)
	}
	return out, nil
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
	told, err := s.tellPlants(ctx, p.Items, in.Property)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	return out(List[PlantOut]{told, p.Next}), nil
}

func (s *Server) plant(ctx context.Context, in *ByID) (*Out[PlantOut], error) {
	p, err := s.Store.Plant(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "plant", err)
	}
	told, err := s.tellPlants(ctx, []store.Plant{p}, p.PropertyID)
	if err != nil {
		return nil, s.problem(ctx, "plant", err)
	}
	return out(told[0]), nil
}

func (s *Server) addPlant(ctx context.Context, in *struct {
	OnceKey
	Body PlantIn
}) (*Out[PlantOut], error) {
	p, err := s.plantRecord(in.Body)
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
	p, err := s.plantRecord(in.Body)
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
