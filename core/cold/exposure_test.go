package cold

import (
	"strings"
	"testing"
)

// TestExposure: a warm wall and a slope never make a plant colder, the foot of a slope and standing water never better off;
// the side to the sun turns with the hemisphere.
func TestExposure(t *testing.T) {
	var p Plant
	warmth := func(e Exposure, south bool) float64 {
		p.Exposure, p.South = e, south
		return p.warmth()
	}
	if w := warmth(Exposure{}, false); w != 0 {
		t.Errorf("nothing known: %g °C", w)
	}
	for _, c := range []struct {
		name         string
		milder, than Exposure
		south        bool
	}{
		{"before a wall", Exposure{Wall: true, Facing: "south"}, Exposure{Facing: "south"}, false},
		{"a wall to the sun, one away from it", Exposure{Wall: true, Facing: "south"}, Exposure{Wall: true, Facing: "north"}, false},
		{"the same in the south", Exposure{Wall: true, Facing: "north"}, Exposure{Wall: true, Facing: "south"}, true},
		{"on a slope", Exposure{Slope: "slope"}, Exposure{Slope: "level"}, false},
		{"on the level, at the foot", Exposure{Slope: "level"}, Exposure{Slope: "foot"}, false},
	} {
		if a, b := warmth(c.milder, c.south), warmth(c.than, c.south); a <= b {
			t.Errorf("%s: %g °C against %g", c.name, a, b)
		}
	}
	sun := func(facing string, south bool) float64 {
		p := Plant{Sun: 0.6, Exposure: Exposure{Facing: facing}, South: south}
		return p.sun()
	}
	if sun("south", false) <= sun("east", false) || sun("east", false) <= sun("north", false) || sun("north", true) <= sun("south", true) || sun("", false) != 0.6 {
		t.Errorf("sun: south %g, east %g, north %g", sun("south", false), sun("east", false), sun("north", false))
	}
	wet, sand := Plant{Exposure: Exposure{Wet: true}}, Plant{Exposure: Exposure{Soil: "sand"}}
	wet.Species.SoilWater, sand.Species.SoilWater = "well drained", "well drained"
	if wet.drains() >= 0 || sand.drains() <= 0 || wet.soaked() <= 0 || sand.soaked() != 0 {
		t.Errorf("drains: wet %g, sand %g; soaked %g", wet.drains(), sand.drains(), wet.soaked())
	}
	if got := (Exposure{Soil: "sand", Wet: true}).Or(Exposure{Facing: "west", Soil: "clay", Wall: true}); got != (Exposure{Facing: "west", Soil: "sand", Wet: true, Wall: true}) {
		t.Errorf("on the property: %+v", got)
	}
	err := Plant{HeightM: 1, Exposure: Exposure{Facing: "up", Slope: "steep", Soil: "cheese"}}.Validate()
	for _, want := range []string{"facing", "slope", "soil"} {
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v does not name %s", err, want)
		}
	}
}
