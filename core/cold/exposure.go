package cold

import (
	"math"
	"slices"

	"mezzadro/core/invalid"
)

// Exposure is how the spot a plant stands in differs from its property, as its gardener knows it.
type Exposure struct {
	Facing string `json:"facing,omitempty" enum:"north,north-east,east,south-east,south,south-west,west,north-west," doc:"Where the spot is open to; empty on all sides or not known"`
	Wall   bool   `json:"wall,omitempty" doc:"Within a metre of a wall that the sun warms"`
	Slope  string `json:"slope,omitempty" enum:"level,slope,foot," doc:"On a slope cold air drains off; at its foot it gathers"`
	Soil   string `json:"soil,omitempty" enum:"sand,loam,clay,"`
	Wet    bool   `json:"wet,omitempty" doc:"Water stands there after rain"`
}

// facings in the order of the compass from north.
var facings = []string{"north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"}

// Validate names every field that cannot be.
func (e Exposure) Validate() error {
	var bad invalid.Fields
	for _, f := range []struct {
		name, value string
		of          []string
	}{{"facing", e.Facing, facings}, {"slope", e.Slope, []string{"level", "slope", "foot"}}, {"soil", e.Soil, []string{"sand", "loam", "clay"}}} {
		if f.value != "" && !slices.Contains(f.of, f.value) {
			bad.Add(f.name, f.value, "%q: want one of %v", f.value, f.of)
		}
	}
	return bad.Err()
}

// Or fills what is not known of the spot with what is known of the property.
func (e Exposure) Or(property Exposure) Exposure {
	if e.Facing == "" {
		e.Facing = property.Facing
	}
	if e.Slope == "" {
		e.Slope = property.Slope
	}
	if e.Soil == "" {
		e.Soil = property.Soil
	}
	e.Wall = e.Wall || property.Wall
	e.Wet = e.Wet || property.Wet
	return e
}

// sunward is 1 where the spot is open to the noon sun, −1 where it looks away from it, 0 between or where nobody knows.
func (e Exposure) sunward(south bool) float64 {
	i := slices.Index(facings, e.Facing)
	if i < 0 {
		return 0
	}
	c := -math.Cos(float64(i) * math.Pi / 4)
	if south {
		c = -c
	}
	return c
}

// Starting values, of the order that thermometers on walls and slopes report.
const (
	wallWarms   = 1.5  // °C in a cold night, on a wall that faces the sun
	shadedWall  = 0.5  // and on one that does not
	drainedAir  = 0.5  // on a slope
	gatheredAir = -1.0 // at its foot
	facingSun   = 0.35 // share by which a spot open to the noon sun has more of it
	wetRoots    = 1.5  // °C that roots and crowns bear less where water stands
)

// warmth is by how much the spot is milder in a cold night than the property, °C.
func (p *Plant) warmth() float64 {
	w := p.MilderC + map[string]float64{"slope": drainedAir, "foot": gatheredAir}[p.Exposure.Slope]
	if p.Exposure.Wall {
		if p.Exposure.sunward(p.South) < 0 {
			return w + shadedWall
		}
		return w + wallWarms
	}
	return w
}

// sun is the share of sun with the side it comes from.
func (p *Plant) sun() float64 {
	return max(0, min(1, p.Sun*(1+facingSun*p.Exposure.sunward(p.South))))
}

// drains is how much more rain than usual the soil takes before roots suffer, as a share of the limit.
func (p *Plant) drains() float64 {
	d := map[string]float64{"sand": 0.3, "clay": -0.15}[p.Exposure.Soil]
	if p.Exposure.Wet {
		d -= 0.4
	}
	return d
}

// soaked is by how much roots and crown bear less cold in standing water, °C.
func (p *Plant) soaked() float64 {
	if p.Exposure.Wet && p.PotL == 0 && p.Species.SoilWater != "wet" && p.Species.SoilWater != "moist" {
		return wetRoots
	}
	return 0
}
