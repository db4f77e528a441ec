package garden

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/house/estate"
)

// TestPlace: hours go by the coordinates where there are some, and not by where the climate type was measured: Wisconsin
// has not Detroit's, nor inland Victoria Santiago's; what is given holds, and one is asked where it can hardly be.
func TestPlace(t *testing.T) {
	h := &Room{House: &estate.House{Catalogue: catalogue.Built()}}
	at := func(kind, zone string, lat, lon float64) PlaceIn {
		return PlaceIn{ClimateType: kind, Latitude: &lat, Longitude: &lon, Zone: zone}
	}
	for _, c := range []struct {
		in       PlaceIn
		zone, by string
		asks     bool
	}{
		{at("great-lakes", "", 43.07, -89.4), "America/Chicago", ZoneCoordinates, false},
		{at("southern-foothills", "", -36.8, 144.3), "Australia/Melbourne", ZoneCoordinates, false},
		{at("great-lakes", "America/Detroit", 43.07, -89.4), "America/Detroit", ZoneGiven, false},
		{at("southern-foothills", "America/Santiago", -36.8, 144.3), "America/Santiago", ZoneGiven, true},
		{at("", "", -36.8, 144.3), "Australia/Melbourne", ZoneCoordinates, false},
		{PlaceIn{ClimateType: "great-lakes"}, "America/Detroit", ZoneType, false},
	} {
		got, err := h.ReckonPlace(c.in)
		if err != nil || got.Zone != c.zone || got.ZoneBy != c.by || (got.Doubt != "") != c.asks {
			t.Errorf("%s at %v: %s by %s, %q, %v", c.in.ClimateType, c.in.Latitude, got.Zone, got.ZoneBy, got.Doubt, err)
		}
	}
	high := 900.0
	low, err := h.ReckonPlace(PlaceIn{ClimateType: "southern-tablelands"})
	up, err2 := h.ReckonPlace(PlaceIn{ClimateType: "southern-tablelands", ElevationM: &high})
	if err != nil || err2 != nil || up.Climate.ExtremeMinC >= low.Climate.ExtremeMinC {
		t.Errorf("%g °C at 580 m, %g °C at 900 m: %v %v", low.Climate.ExtremeMinC, up.Climate.ExtremeMinC, err, err2)
	}
	if _, err := h.ReckonPlace(at("great-lakes", "Mars/Olympus", 43, -89)); err == nil || !strings.Contains(err.Error(), "no time zone") {
		t.Errorf("no zone at all: %v", err)
	}
}
