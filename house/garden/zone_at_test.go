package garden

import "testing"

// TestZoneAt: gardens keep the hours of their own place, on coasts and islands too; where the longitude's sign is wrong,
// one is asked.
func TestZoneAt(t *testing.T) {
	for _, c := range []struct {
		place    string
		lat, lon float64
		zone     string
	}{
		{"Bendigo", -36.76, 144.28, "Australia/Melbourne"}, {"Adelaide Hills", -35.02, 138.72, "Australia/Adelaide"},
		{"Madison", 43.07, -89.4, "America/Chicago"}, {"Atlanta", 33.75, -84.39, "America/New_York"},
		{"Phoenix", 33.45, -112.07, "America/Phoenix"}, {"Pretoria", -25.75, 28.19, "Africa/Johannesburg"},
		{"a lake shore in the Alps", 45.99, 8.63, "Europe/Rome"}, {"Lugano", 46.0, 8.95, "Europe/Zurich"},
		{"Christchurch", -43.53, 172.63, "Pacific/Auckland"}, {"Osorno", -40.57, -73.13, "America/Santiago"},
		{"off a beach of Victoria", -38.36, 144.9, "Australia/Melbourne"}, {"Tenerife", 28.47, -16.25, "Atlantic/Canary"},
		{"the open ocean", -40, -120, ""},
	} {
		got, err := ZoneAt(c.lat, c.lon)
		if err != nil || got != c.zone {
			t.Errorf("%s: %q %v, want %q", c.place, got, err, c.zone)
		}
		if c.zone != "" && ZoneDoubt(c.zone, c.lon) != "" {
			t.Errorf("%s: %s", c.place, ZoneDoubt(c.zone, c.lon))
		}
	}
	for zone, lon := range map[string]float64{"America/Santiago": 145, "America/New_York": 74, "Europe/Rome": -97} {
		if ZoneDoubt(zone, lon) == "" {
			t.Errorf("%s at %g°: nobody asks", zone, lon)
		}
	}
	for zone, lon := range map[string]float64{"Asia/Shanghai": 87.6, "Europe/Madrid": -8.5, "no-zone": 0} {
		if d := ZoneDoubt(zone, lon); d != "" {
			t.Errorf("%s at %g°: %s", zone, lon, d)
		}
	}
}
