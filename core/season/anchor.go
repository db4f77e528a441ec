package season

import (
	"sort"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// Anchor fixes an event of the plant's year to the season, not to a month, so that one entry serves every climate.
// Exactly one of Warmth, Cooling, ChillDays, DegreeDays, RisingH, FallingH, LastFrost, FirstFrost and After is given;
// Chill and MeanC go with Warmth, MeanC with ChillDays too, and Days moves the result.
type Anchor struct {
	Warmth     float64 `json:"warmth,omitempty" yaml:"warmth,omitempty" doc:"°C·days above 4 °C from midwinter, by days of 12 hours, after a winter with all the chill it wants"`
	Chill      float64 `json:"chill,omitempty" yaml:"chill,omitempty" doc:"How much more warmth it needs after a winter without any chill, as a share"`
	MeanC      float64 `json:"mean_c,omitempty" yaml:"mean_c,omitempty" doc:"Not before ten days' mean reaches this, °C"`
	Cooling    float64 `json:"cooling,omitempty" yaml:"cooling,omitempty" doc:"°C·days under 20 °C since autumn days fell under 13 hours"`
	ChillDays  float64 `json:"chill_days,omitempty" yaml:"chill_days,omitempty" doc:"Days of chill since late summer: winter bloomers"`
	DegreeDays float64 `json:"degree_days,omitempty" yaml:"degree_days,omitempty"` // base 10 °C from midwinter
	RisingH    float64 `json:"daylength_rising_h,omitempty" yaml:"daylength_rising_h,omitempty"`
	FallingH   float64 `json:"daylength_falling_h,omitempty" yaml:"daylength_falling_h,omitempty"`
	LastFrost  float64 `json:"last_frost,omitempty" yaml:"last_frost,omitempty"`   // share of years, %, in which the last frost of spring is over
	FirstFrost float64 `json:"first_frost,omitempty" yaml:"first_frost,omitempty"` // share of years, %, in which the first frost of autumn has come
	After      string  `json:"after,omitempty" yaml:"after,omitempty"`             // name of another anchor of the entry
	Days       int     `json:"days,omitempty" yaml:"days,omitempty"`
}

// Validate checks that the anchor says one thing and that it can be.
func (a Anchor) Validate(known ...string) error {
	var bad invalid.Fields
	given := 0
	for _, v := range []bool{a.Warmth != 0, a.Cooling != 0, a.ChillDays != 0, a.DegreeDays != 0, a.RisingH != 0, a.FallingH != 0, a.LastFrost != 0, a.FirstFrost != 0, a.After != ""} {
		if v {
			given++
		}
	}
	if given != 1 {
		bad.Add(
			"anchor",
			nil,
			"want exactly one of warmth, cooling, chill_days, degree_days, daylength_rising_h, "+
				"daylength_falling_h, last_frost, first_frost and after",
		)
	}
	a.refuseBuds(&bad)
	if a.DegreeDays != 0 {
		bad.Within("degree_days", a.DegreeDays, 1, 4000, "°C·days")
	}
	for name, h := range map[string]float64{"daylength_rising_h": a.RisingH, "daylength_falling_h": a.FallingH} {
		if h != 0 {
			bad.Within(name, h, 8, 16, "h")
		}
	}
	for name, share := range map[string]float64{"last_frost": a.LastFrost, "first_frost": a.FirstFrost} {
		if share != 0 {
			bad.Within(name, share, 1, 99, "% of years")
		}
	}
	if a.Days < -200 || a.Days > 300 {
		bad.Add("days", a.Days, "%d days is outside -200 to 300 days", a.Days)
	}
	if a.After != "" {
		found := false
		for _, k := range known {
			found = found || k == a.After
		}
		if !found {
			bad.Add("after", a.After, "%q is no anchor that comes before; known here: %v", a.After, known)
		}
	}
	return bad.Err()
}

// refuseBuds names what cannot be in an anchor of warmth, cool or chill.
func (a Anchor) refuseBuds(bad *invalid.Fields) {
	for name, v := range map[string][2]float64{"warmth": {a.Warmth, 6000}, "cooling": {a.Cooling, 2000}, "chill_days": {a.ChillDays, 150}} {
		if v[0] != 0 {
			bad.Within(name, v[0], 1, v[1], "°C·days or days")
		}
	}
	if a.Chill != 0 {
		bad.Within("chill", a.Chill, 0, 3, "of the warmth")
		if a.Warmth == 0 {
			bad.Add("chill", a.Chill, "goes with warmth only")
		}
	}
	if a.MeanC != 0 {
		bad.Within("mean_c", a.MeanC, -5, 25, "°C")
		if a.Warmth == 0 && a.ChillDays == 0 {
			bad.Add("mean_c", a.MeanC, "goes with warmth or chill_days only")
		}
	}
}

// Resolve turns the anchor into days of the garden year that contains d. The others are anchors resolved before.
// Where a daylength is never reached, the day nearest to it (a solstice) stands.
func (y *Year) Resolve(a Anchor, d day.Day, others map[string]Band) (Band, bool) {
	move := func(b Band) Band { n := day.Day(a.Days); return Band{b.Early + n, b.Mid + n, b.Late + n} }
	switch {
	case a.Warmth != 0 || a.Cooling != 0 || a.ChillDays != 0:
		b, ok := y.budBand(a, d)
		if !ok {
			return b, false
		}
		return move(b), true
	case a.DegreeDays != 0:
		b, ok := y.ReachDegreeDays(d, a.DegreeDays)
		if !ok {
			return b, false
		}
		return move(b), true
	case a.After != "":
		b, ok := others[a.After]
		if !ok {
			return Band{day.None, day.None, day.None}, false
		}
		return move(b), true
	case a.LastFrost != 0:
		x, ok := y.FrostDay(d, 0, a.LastFrost/100, true)
		return move(Band{x, x, x}), ok
	case a.FirstFrost != 0:
		x, ok := y.FrostDay(d, 0, a.FirstFrost/100, false)
		return move(Band{x, x, x}), ok
	default:
		x := y.daylengthDay(a, d)
		return move(Band{x, x, x}), true
	}
}

// daylengthDay is the day on which daylength passes the anchor's hours.
func (y *Year) daylengthDay(a Anchor, d day.Day) day.Day {
	c := y.Normals.Climate
	if a.RisingH != 0 {
		// From the shortest day, ten days before midwinter's first, to the longest.
		shortest := c.Midwinter(d) - 10
		return shortest + day.Day(
			sort.Search(182, func(i int) bool { return Daylength(c.Latitude, shortest+day.Day(i)) >= a.RisingH }),
		)
	}
	longest := c.Midwinter(d) + 172
	return longest + day.Day(
		sort.Search(183, func(i int) bool { return Daylength(c.Latitude, longest+day.Day(i)) <= a.FallingH }),
	)
}

// When is the middle of Resolve's band, without its spread: quick enough to ask for every species of every property.
func (y *Year) When(a Anchor, d day.Day, others map[string]day.Day) (day.Day, bool) {
	n := day.Day(a.Days)
	switch {
	case a.Warmth != 0 || a.Cooling != 0 || a.ChillDays != 0:
		s := y.buds(d, false)
		i, ok := s.budDay(a, usual)
		return s.from + day.Day(i) + n, ok
	case a.DegreeDays != 0:
		s := y.buds(d, false)
		i := sort.SearchFloat64s(s.growth[usual][:beforeMidwinter+366], a.DegreeDays)
		return s.from + day.Day(i) + n, i < beforeMidwinter+366
	case a.After != "":
		x, ok := others[a.After]
		return x + n, ok
	case a.LastFrost != 0:
		x, ok := y.FrostDay(d, 0, a.LastFrost/100, true)
		return x + n, ok
	case a.FirstFrost != 0:
		x, ok := y.FrostDay(d, 0, a.FirstFrost/100, false)
		return x + n, ok
	}
	return y.daylengthDay(a, d) + n, true
}
