package estate

import (
	"errors"

	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/region"
	"mezzadro/store"
)

// Property is a client's place.
type Property struct {
	ID            int64   `json:"id"`
	Name          string  `json:"name"`
	Client        string  `json:"client"`
	Address       string  `json:"address"`
	Note          string  `json:"note" doc:"People, pets and anything else to mind"`
	Zone          string  `json:"zone" doc:"Time zone, IANA name"`
	Region        string  `json:"region,omitempty" doc:"Country and state as entered, ISO 3166"`
	Lies          string  `json:"lies,omitempty" doc:"Where it lies: what was entered, or the country of its time zone"`
	ClimateType   string  `json:"climate_type"`
	Value         float64 `json:"value" doc:"The client's weight in the order of looking: 1 ordinary, 2 first, 0.5 last"`
	WeatherSource string  `json:"weather_source"`
	Version       int     `json:"version"`
	Plants        int     `json:"plants" doc:"Plants on it"`
}

// Plant is one plant, or a group kept as one.
type Plant struct {
	ID         int64   `json:"id"`
	PropertyID int64   `json:"property_id"`
	Species    string  `json:"species" doc:"Catalogue id"`
	Label      string  `json:"label" doc:"Where it stands, or what the client calls it"`
	HeightM    float64 `json:"height_m"`
	SpreadM    float64 `json:"spread_m"`
	Count      int     `json:"count" doc:"More than one for a group kept as one"`
	BaseMM     float64 `json:"base_mm" doc:"Stem thickness at the base, mm; 0 takes what is usual for form and height"`
	PotL       float64 `json:"pot_l" doc:"Litres of the pot; 0 in the ground"`
	Shelter    float64 `json:"shelter" doc:"From wind: 0 open to 1 wholly sheltered"`
	Sun        float64 `json:"sun" doc:"0 shade to 1 sun all day"`
	Mulched    bool    `json:"mulched"`
	Value      float64 `json:"value" doc:"To the client: 1 ordinary, 2 dear, 0.5 hardly minded"`
	Stop       int     `json:"stop" doc:"Place on the way round the property, from the gate; 0: after the others"`
	GraftM     float64 `json:"graft_m" doc:"Height of the graft, m; 0 where there is none or nobody knows"`
	Planted    int     `json:"planted" doc:"Year; 0 unknown"`
	RowM       float64 `json:"row_m" doc:"Length of the row or hedge a group stands in, m; 0 not measured"`
	BedM2      float64 `json:"bed_m2" doc:"Area of the bed a group fills, m²; 0 not measured"`
	cold.Exposure
	Note    string `json:"note"`
	Version int    `json:"version"`
}

// Look is what was found at one plant on one walk. Its rev counts the writes: a phone says which one it knows.
type Look struct {
	WalkID  int64         `json:"walk_id"`
	PlantID int64         `json:"plant_id"`
	Rev     int           `json:"rev" doc:"Writes so far; a later write says which it is based on"`
	Note    string        `json:"note"`
	Checks  []check.Check `json:"checks"`
}

// Outcome is how a plant turned out after a verdict.
type Outcome struct {
	ID        int64   `json:"id"`
	VerdictID int64   `json:"verdict_id"`
	PlantID   int64   `json:"plant_id"`
	Day       string  `json:"day" format:"date"`
	State     string  `json:"state" enum:"right,alive,dead"`
	HeightM   float64 `json:"height_m" doc:"How tall it was, m; 0 not measured"`
	Note      string  `json:"note"`
}

// WalkDay is one day's inspection of a property.
type WalkDay struct {
	ID         int64  `json:"id"`
	PropertyID int64  `json:"property_id"`
	Day        string `json:"day" format:"date"`
}

// Decision is what was decided about a plant.
type Decision struct {
	ID       int64  `json:"id"`
	WalkID   int64  `json:"walk_id"`
	PlantID  int64  `json:"plant_id"`
	Day      string `json:"day" format:"date"`
	Decision string `json:"decision" enum:"accepted,overruled,not now"`
	Kind     string `json:"kind"`
	Sentence string `json:"sentence"`
	Note     string `json:"note"`
	By       string `json:"by" doc:"Who decided; empty where nobody has to sign in"`
	Until    string `json:"until,omitempty" format:"date" doc:"Of a verdict to wait: the day; else absent"`
}

// Photo is a picture taken at a plant on a walk.
type Photo struct {
	ID        int64    `json:"id"`
	WalkID    int64    `json:"walk_id"`
	PlantID   int64    `json:"plant_id"`
	Day       string   `json:"day" format:"date" doc:"Of the walk"`
	Hash      string   `json:"hash"`
	Width     int      `json:"width" doc:"px"`
	Height    int      `json:"height" doc:"px"`
	Taken     string   `json:"taken,omitempty" doc:"Time it was taken; only where the user wanted it kept"`
	Latitude  *float64 `json:"latitude,omitempty" doc:"Only where the user wanted the place kept"`
	Longitude *float64 `json:"longitude,omitempty"`
}

// TellRecord is what is told of a property's own row.
func TellRecord(p store.Property) Property {
	return Property{
		ID:            p.ID,
		Name:          p.Name,
		Client:        p.Client,
		Address:       p.Address,
		Note:          p.Note,
		Zone:          string(p.Zone),
		Region:        p.Region,
		Lies:          region.Of(p.Region, string(p.Zone)),
		ClimateType:   p.ClimateType,
		Value:         p.Value,
		WeatherSource: p.WeatherSource,
		Version:       p.Version,
		Plants:        p.Plants,
	}
}

func TellPlant(p store.Plant) Plant { return Plant(p) }

func TellFound(l store.Look) Look { return Look(l) }

func TellPhoto(p store.Photo) Photo { return Photo(p) }

// Stale gives the kept record of a write that is based on an older one as it is told, not as it is kept.
func Stale[R, T any](err error, tell func(R) T) error {
	var s store.Stale
	if !errors.As(err, &s) {
		return err
	}
	if r, ok := s.Current.(R); ok {
		s.Current = tell(r)
	}
	return s
}

// AsStale reports a write that was based on an old version.
func AsStale(err error, s *store.Stale) bool { return errors.As(err, s) }

// TellAll tells a list; an empty one is a list too.
func TellAll[R, T any](rows []R, tell func(R) T) []T {
	out := make([]T, len(rows))
	for i, r := range rows {
		out[i] = tell(r)
	}
	return out
}
