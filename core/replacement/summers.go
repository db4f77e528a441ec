package replacement

import (
	_ "embed"
	"math"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
)

//go:embed data/summers.yaml
var summersYAML []byte

type summers struct {
	Genera map[string]float64 `yaml:"genera"`
	Kinds  map[string]float64 `yaml:"kinds"`
	Warm   map[string]float64 `yaml:"warm"`
}

// bearable are the hottest months that kinds do well in. It panics when the shipped data is broken: a test loads it.
var bearable = sync.OnceValue(func() (out summers) {
	if err := written.Read(summersYAML, &out); err != nil {
		panic(err)
	}
	return out
})

// of is the mean temperature of the hottest month up to which a kind does well, °C; false where nobody knows.
func (s summers) of(e *catalogue.Entry) (float64, bool) {
	if limit, known := s.Kinds[e.ID]; known {
		return limit, true
	}
	limit, known := s.Genera[e.Genus()]
	return limit, known
}

// Of summers.
const tooHot = 3.0 // °C above what a kind does well in, from which it fails

// summer judges the hottest month.
func (f *fitting) summer() {
	f.warmRain()
	hottest := math.Inf(-1)
	for _, n := range f.Year.Normals.Climate.Normals {
		hottest = math.Max(hottest, (n.TMinC+n.TMaxC)/2)
	}
	f.coolSummer(hottest)
	limit, known := bearable().of(f.e)
	if !known {
		return
	}
	if f.Spot.WarmWall {
		hottest++
	}
	switch over := hottest - limit; {
	case over >= tooHot:
		f.out("Summers are too hot for it: the hottest month has %s on average.", quantity.Temperature(hottest))
	case over > 0:
		f.counts("heat", "hot_summer", over, "summers are hotter than it likes: %s on average in the hottest month", quantity.Temperature(hottest))
	}
}

// Of warm rain.
const warmFrom, wetFrom = 24.0, 120.0 // mean of a month, °C, and its rain, mm, from which roots that hate wet feet rot

// warmRain judges months of warm rain: what hates wet feet rots in them.
func (f *fitting) warmRain() {
	if f.e.WetFeet != "hates" || f.e.SoilWater != "dry" && f.e.SoilWater != "well drained" {
		return
	}
	months := 0
	for _, n := range f.Year.Normals.Climate.Normals {
		if (n.TMinC+n.TMaxC)/2 >= warmFrom && n.RainMM >= wetFrom {
			months++
		}
	}
	if months > 0 {
		f.counts("water", "warm_rain", float64(months), "it hates wet feet, and the rain comes warm")
	}
}

// coolSummer minds kinds that want warmth to bloom and ripen; a warm wall gives some of it.
func (f *fitting) coolSummer(hottest float64) {
	wants, known := bearable().Warm[f.e.ID]
	if !known {
		wants, known = bearable().Warm[f.e.Genus()]
	}
	if f.Spot.WarmWall {
		hottest += 2
	}
	if known && hottest < wants {
		f.counts("heat", "cool_summer", wants-hottest, "it wants warmer summers than %s on average to bloom and ripen",
			quantity.Temperature(hottest))
	}
}
