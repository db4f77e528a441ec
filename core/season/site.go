package season

// Site is how a garden differs from the open country its climate was measured in, as its gardener knows it.
type Site struct {
	FrostPocket bool `json:"frost_pocket,omitempty" yaml:"frost_pocket,omitempty" doc:"Cold air gathers and stays: colder nights"`
	WarmWall    bool `json:"warm_wall,omitempty" yaml:"warm_wall,omitempty" doc:"Most of it lies before sun-warmed walls: milder nights and days"`
	Urban       bool `json:"urban,omitempty" yaml:"urban,omitempty" doc:"Among buildings: milder nights, less wind"`
	Windy       bool `json:"windy,omitempty" yaml:"windy,omitempty" doc:"Open to the wind"`
}

// Offsets are what a site adds to a climate: °C on nights, days and the coldest night of a year, and a factor on wind.
// Starting values of the order field measurements in valleys and towns report; a thermometer on the spot knows better.
type Offsets struct{ NightC, DayC, ExtremeC, Wind float64 }

// Offsets sums the corrections of the site.
func (s Site) Offsets() Offsets {
	o := Offsets{Wind: 1}
	add := func(given bool, night, day, extreme, wind float64) {
		if given {
			o.NightC, o.DayC, o.ExtremeC, o.Wind = o.NightC+night, o.DayC+day, o.ExtremeC+extreme, o.Wind*wind
		}
	}
	add(s.FrostPocket, -1.5, 0, -2.5, 0.8)
	add(s.WarmWall, 1, 0.5, 1.5, 0.8)
	add(s.Urban, 1.2, 0.3, 2, 0.8)
	add(s.Windy, 0, 0, 0, 1.6)
	return o
}

// At is the climate as it is on a site.
func (c Climate) At(s Site) Climate {
	o := s.Offsets()
	out := c
	out.Normals = make([]Normal, len(c.Normals))
	coldest := 99.0
	for i, n := range c.Normals {
		n.TMinC += o.NightC
		n.TMaxC = max(n.TMaxC+o.DayC, n.TMinC)
		n.WindMS *= o.Wind
		out.Normals[i] = n
		coldest = min(coldest, n.TMinC)
	}
	out.ExtremeMinC = min(c.ExtremeMinC+o.ExtremeC, coldest)
	return out
}
