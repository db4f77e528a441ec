package garden

import (
	"fmt"
	"math"
	"strings"
	"sync"
	"time"

	"github.com/ringsaturn/tzf"
	tzfrellite "github.com/ringsaturn/tzf-rel-lite"
	pb "github.com/ringsaturn/tzf/gen/go/tzf/v1"
	"google.golang.org/protobuf/proto"
)

// tiles answer most places at once: squares that lie in one time zone.
var tiles = sync.OnceValues(func() (tzf.F, error) {
	var of pb.PreindexTimezones
	if err := proto.Unmarshal(tzfrellite.PreindexData, &of); err != nil {
		return nil, fmt.Errorf("read tiles: %w", err)
	}
	return tzf.NewFuzzyFinderFromPB(&of)
})

// boundaries are those of the world's time zones, read when a place is first in no tile: half a second, 30 MB.
var boundaries = sync.OnceValues(tzf.NewDefaultFinder)

// shores is how far from a place the nearest land is looked for, degrees: boundaries are coarse, gardens lie on coasts.
var shores = []float64{0, 0.05, 0.15, 0.4}

// ZoneAt is the time zone of a place by its coordinates, degrees: an IANA name; empty on the open sea.
func ZoneAt(latitude, longitude float64) (string, error) {
	quick, err := tiles()
	if err != nil {
		return "", fmt.Errorf("tiles of time zones: %w", err)
	}
	if name := quick.GetTimezoneName(longitude, latitude); name != "" && !strings.HasPrefix(name, "Etc/") {
		return name, nil
	}
	finder, err := boundaries()
	if err != nil {
		return "", fmt.Errorf("boundaries of time zones: %w", err)
	}
	for _, off := range shores {
		for turn := range 8 {
			north, east := math.Sincos(float64(turn) * math.Pi / 4)
			name := finder.GetTimezoneName(longitude+off*east, latitude+off*north)
			if name != "" && !strings.HasPrefix(name, "Etc/") {
				return name, nil
			}
			if off == 0 {
				break
			}
		}
	}
	return "", nil
}

// apartMost is how far a zone's standard hours may lie from the sun's before one asks whether they are right, hours:
// few places on earth are farther off.
const apartMost = 2.6

// ZoneDoubt says why a time zone can hardly be that of a place; empty where it can.
func ZoneDoubt(zone string, longitude float64) string {
	at, err := time.LoadLocation(zone)
	if err != nil {
		return ""
	}
	hours := math.Inf(1)
	for _, month := range []time.Month{time.January, time.July} { // the standard time is the earlier one
		_, off := time.Date(2027, month, 1, 12, 0, 0, 0, at).Zone()
		hours = min(hours, float64(off)/3600)
	}
	apart := math.Remainder(hours-longitude/15, 24)
	if math.Abs(apart) <= apartMost {
		return ""
	}
	return fmt.Sprintf("noon by %s lies %.0f hours from the sun’s noon at longitude %.1f°: is the zone right, or the sign of "+
		"the longitude?", zone, math.Abs(apart), longitude)
}
