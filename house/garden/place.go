package garden

import (
	"time"

	"mezzadro/core/invalid"
	"mezzadro/core/region"
	"mezzadro/core/season"
)

// By what the time zone of a place is known.
const (
	ZoneGiven       = "given"
	ZoneCoordinates = "coordinates"
	ZoneType        = "climate type"
)

// PlaceIn is where a property lies, as far as it is entered.
type PlaceIn struct {
	ClimateType string   `json:"climate_type,omitempty" doc:"Without one, only the hours are told"`
	ElevationM  *float64 `json:"elevation_m,omitempty" doc:"Moves the climate type to this height"`
	Latitude    *float64 `json:"latitude,omitempty"`
	Longitude   *float64 `json:"longitude,omitempty"`
	Zone        string   `json:"zone,omitempty" doc:"Time zone; when absent that of the coordinates"`
}

// PlaceOut is what follows from where a property lies.
type PlaceOut struct {
	Climate season.Climate `json:"climate" doc:"Of the open country at its height"`
	Hardy   string         `json:"hardiness_zone"`
	Zone    string         `json:"zone" doc:"Time zone, IANA name"`
	ZoneBy  string         `json:"zone_by" enum:"given,coordinates,climate type" doc:"By what the zone is known"`
	There   string         `json:"there" doc:"The time zone that its coordinates say; empty where they say none"`
	Lies    string         `json:"lies,omitempty" doc:"Country of its time zone, ISO 3166"`
	Doubt   string         `json:"doubt" doc:"Why the time zone can hardly be that of the place; empty where it can"`
}

// ReckonPlace tells what follows from where a property lies. Its error is a list of refused fields.
func (h *Room) ReckonPlace(in PlaceIn) (PlaceOut, error) {
	var bad invalid.Fields
	out := h.placeOf(PropertyIn{ClimateType: in.ClimateType, ElevationM: in.ElevationM, Latitude: in.Latitude,
		Longitude: in.Longitude, Zone: in.Zone}, &bad, in.ClimateType == "")
	out.Lies = region.Of("", out.Zone)
	return out, bad.Err()
}

// placeOf is the climate of a place and its time zone, from what was entered of a property; its hours alone where it has
// figures of its own that are not asked about.
func (h *Room) placeOf(in PropertyIn, bad *invalid.Fields, hoursAlone bool) PlaceOut {
	out := PlaceOut{Zone: in.Zone, ZoneBy: ZoneGiven}
	located := in.Latitude != nil && in.Longitude != nil
	usual := "UTC"
	switch {
	case in.Climate != nil:
		bad.Below("climate", in.Climate.Validate())
		out.Climate, located = *in.Climate, true
	case in.ClimateType != "":
		t, err := h.Catalogue.Climate(in.ClimateType)
		if err != nil {
			bad.Add("climate_type", in.ClimateType, "%v", err)
			break
		}
		out.Climate, usual = movedTo(t.Climate, in, bad), t.Zone
	case hoursAlone && located:
		movedTo(season.Climate{}, in, bad)
		out.Climate.Latitude, out.Climate.Longitude = *in.Latitude, *in.Longitude
	default:
		bad.Add("climate_type", nil, "is missing: choose a climate to start from, or give the twelve normals as "+
			"climate")
	}
	if located && *bad == nil {
		var err error
		if out.There, err = ZoneAt(out.Climate.Latitude, out.Climate.Longitude); err != nil {
			h.Log.Error("the zone of a place", "error", err) // the type's holds, and can be changed
		}
	}
	if out.Zone == "" {
		out.Zone, out.ZoneBy = out.There, ZoneCoordinates
	}
	if out.Zone == "" {
		out.Zone, out.ZoneBy = usual, ZoneType
	}
	if _, err := time.LoadLocation(out.Zone); err != nil {
		bad.Add("zone", out.Zone, "%q is no time zone; want one such as Europe/Rome or Australia/Melbourne", out.Zone)
	} else if located {
		out.Doubt = ZoneDoubt(out.Zone, out.Climate.Longitude)
	}
	if len(out.Climate.Normals) > 0 {
		out.Hardy = season.Zone(out.Climate.ExtremeMinC)
	}
	return out
}

// movedTo is a climate moved to a place as far as that is entered.
func movedTo(c season.Climate, in PropertyIn, bad *invalid.Fields) season.Climate {
	if in.ElevationM != nil {
		bad.Within("elevation_m", *in.ElevationM, -430, 5000, "m")
		c = c.AtElevation(*in.ElevationM)
	}
	if in.Latitude != nil {
		bad.Within("latitude", *in.Latitude, -66, 72, "°")
		if *in.Latitude*c.Latitude < 0 {
			bad.Add("latitude", *in.Latitude, "%g° is in the other hemisphere than the climate type", *in.Latitude)
		}
		c.Latitude = *in.Latitude
	}
	if in.Longitude != nil {
		bad.Within("longitude", *in.Longitude, -180, 180, "°")
		c.Longitude = *in.Longitude
	}
	return c
}
