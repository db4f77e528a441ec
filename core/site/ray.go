package site

import (
	"math"
	"sync"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// ray is where the sun stands at a moment.
type ray struct {
	height, bearing float64 // radians
	sin, cos        float64 // of the bearing
	rise, flat      float64 // tangent and cosine of the height
	bin             int     // of the horizon
	strong          bool
}

func rayTo(height, bearing float64) ray {
	r := ray{height: math.Max(lowest, height), bearing: bearing, strong: height >= strongFrom}
	r.sin, r.cos = math.Sincos(bearing)
	r.rise, r.flat = math.Tan(r.height), math.Cos(r.height)
	r.bin = int(bearing/(2*math.Pi)*bins) % bins
	return r
}

// sunDay is the sun's way on a day at a latitude.
type sunDay struct {
	rays []ray
	step float64 // hours between them
}

// known are sun's ways that were worked out: all plants of a plan look at the same sun.
var known struct {
	sync.Mutex
	of map[sunKey]sunDay
}

type sunKey struct {
	latitude float64
	day      day.Day
}

// knownMost is how many are kept: of some years at some places.
const knownMost = 600

// raysOf is the sun's way on a day in equal steps, with the hours between two of them; none where it does not rise.
func raysOf(latitude float64, d day.Day) ([]ray, float64) {
	key := sunKey{latitude, d}
	known.Lock()
	got, was := known.of[key]
	known.Unlock()
	if was {
		return got.rays, got.step
	}
	sun := season.SunOn(latitude, d)
	n := math.Ceil((sun.Set - sun.Rise) / stepHours)
	if n >= 1 {
		got.step = (sun.Set - sun.Rise) / n
		for i := range int(n) {
			got.rays = append(got.rays, rayTo(season.SunAt(latitude, d, sun.Rise+(float64(i)+0.5)*got.step)))
		}
	}
	known.Lock()
	defer known.Unlock()
	if known.of == nil || len(known.of) >= knownMost {
		known.of = map[sunKey]sunDay{}
	}
	known.of[key] = got
	return got.rays, got.step
}
