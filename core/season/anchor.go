package season

import (
	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

// Anchor fixes an event of the plant's year to the season, not to a month, so that one entry serves every climate.
// Exactly one of DegreeDays, RisingH, FallingH and After is given; Days moves the result.
type Anchor struct {
	DegreeDays float64 `json:"degree_days,omitempty" yaml:"degree_days,omitempty"` // base 10 °C from midwinter
	RisingH    float64 `json:"daylength_rising_h,omitempty" yaml:"daylength_rising_h,omitempty"`
	FallingH   float64 `json:"daylength_falling_h,omitempty" yaml:"daylength_falling_h,omitempty"`
	After      string  `json:"after,omitempty" yaml:"after,omitempty"` // name of another anchor of the entry
	Days       int     `json:"days,omitempty" yaml:"days,omitempty"`
}

// Validate checks that the anchor says one thing and that it can be.
func (a Anchor) Validate(known ...string) error {
	var bad invalid.Fields
	given := 0
	for _, v := range []bool{a.DegreeDays != 0, a.RisingH != 0, a.FallingH != 0, a.After != ""} {
		if v {
			given++
		}
	}
	if given != 1 {
		bad.Add("anchor", nil, "want exactly one of degree_days, daylength_rising_h, daylength_falling_h and after")
	}
	if a.DegreeDays != 0 {
		bad.Within("degree_days", a.DegreeDays, 1, 4000, "°C·days")
	}
	for name, h := range map[string]float64{"daylength_rising_h": a.RisingH, "daylength_falling_h": a.FallingH} {
		if h != 0 {
			bad.Within(name, h, 8, 16, "h")
		}
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

// Resolve turns the anchor into days of the garden year that contains d. The others are anchors resolved before.
// Where a daylength is never reached, the day nearest to it (a solstice) stands.
func (y *Year) Resolve(a Anchor, d day.Day, others map[string]Band) (Band, bool) {
	c := y.Normals.Climate
	move := func(b Band) Band { n := day.Day(a.Days); return Band{b.Early + n, b.Mid + n, b.Late + n} }
	switch {
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
	case a.RisingH != 0:
		// From the shortest day, ten days before midwinter's first, to the longest.
		shortest := c.Midwinter(d) - 10
		for x := shortest; ; x++ {
			if x == shortest+182 || Daylength(c.Latitude, x) >= a.RisingH {
				return move(Band{x, x, x}), true
			}
		}
	default:
		longest := c.Midwinter(d) + 172
		for x := longest; ; x++ {
			if x == longest+183 || Daylength(c.Latitude, x) <= a.FallingH {
				return move(Band{x, x, x}), true
			}
		}
	}
}
