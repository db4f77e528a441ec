package site

import (
	"fmt"
	"math"
	"slices"

	"mezzadro/core/invalid"
)

// winds are the directions that it blows from, north first.
var winds = []string{"north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"}

// lies names what cannot be of the ground, the hills and the wind.
func (p *Plan) lies(bad *invalid.Fields) {
	bad.Within("slope_pct", p.SlopePct, 0, 200, "m in a hundred")
	if n := len(p.Horizon); n > 0 && n < 4 {
		bad.Add("horizon_deg", n, "want the heights of 4 directions at least, from north over east")
	}
	for i, h := range p.Horizon {
		bad.Within(fmt.Sprintf("horizon_deg[%d]", i), h, 0, 80, "°")
	}
	if p.WindFrom != "" && !slices.Contains(winds, p.WindFrom) {
		bad.Add("wind_from", p.WindFrom, "want one of %v", winds)
	}
	if u := p.Underlay; u != nil && !(u.Metres > 0) {
		bad.Add("underlay.metres_a_pixel", u.Metres, "must be above 0: set the picture's scale by two points")
	}
}

// rises is by how much the ground rises towards a bearing, metres a metre; below 0 where it falls. The plan has north up.
func (p *Plan) rises(bearing float64) float64 {
	if p.SlopePct == 0 {
		return 0
	}
	return -p.SlopePct / 100 * math.Cos(bearing-p.FallsTo*math.Pi/180)
}

// hills is how high the land beyond the plan stands towards a bearing, radians.
func (p *Plan) hills(bearing float64) float64 {
	n := len(p.Horizon)
	if n == 0 {
		return 0
	}
	at := math.Mod(bearing/(2*math.Pi)+1, 1) * float64(n)
	i := int(at)
	share := at - float64(i)
	return (p.Horizon[i%n]*(1-share) + p.Horizon[(i+1)%n]*share) * math.Pi / 180
}

// Of cold air on a slope: it runs down like thin syrup, and stands above what lies across its way.
const (
	runsFrom   = 2.0 // metres in a hundred from which it runs
	damLeast   = 0.8 // m: it flows over what is lower
	damLong    = 4.0 // m: it flows round what is shorter
	damAcross  = 0.64
	damReaches = 8.0 // m up the slope, at most
)

// dams reports that cold air which runs down the slope gathers above a thing, at a spot.
func (p *Plan) dams(t *Thing, at At) bool {
	switch t.Kind {
	case Wall, Building, Hedge, Fence:
	default:
		return false
	}
	if p.SlopePct < runsFrom || t.HeightM < damLeast {
		return false
	}
	sin, cos := math.Sincos(p.FallsTo * math.Pi / 180)
	reach := math.Min(damReaches, t.HeightM/(p.SlopePct/100))
	for _, e := range t.edges() {
		dx, dy := e.b.X-e.a.X, e.b.Y-e.a.Y
		l := math.Hypot(dx, dy)
		if l < damLong || math.Abs(dx*sin+dy*cos)/l > damAcross {
			continue
		}
		if d, foot := e.from(at); d > 0 && d <= reach && (foot.X-at.X)*sin+(foot.Y-at.Y)*cos > 0.7*d {
			return true
		}
	}
	return false
}

// weight of a direction in the shelter of all: where it blows most counts most.
func (p *Plan) weight(direction int) float64 {
	from := slices.Index(winds, p.WindFrom)
	if from < 0 {
		return 1
	}
	switch off := (direction - from + 8) % 8; off {
	case 0:
		return 4
	case 1, 7:
		return 2
	}
	return 0.6
}

// Paced is where something stands that is so far from one known place and so far from another, m: on the left of the
// way from the first to the second, or on its right. Its error is a list of refused fields.
func Paced(a, b At, fromA, fromB float64, left bool) (At, error) {
	var bad invalid.Fields
	d := Distance(a, b)
	switch {
	case d == 0:
		bad.Add("b", b, "is the same place as the first")
	case !(fromA > 0):
		bad.Add("from_a", fromA, "must be above 0")
	case !(fromB > 0):
		bad.Add("from_b", fromB, "must be above 0")
	case fromA+fromB < d-0.3:
		bad.Add("from_b", fromB, "the two lie %.1f m apart: %.1f and %.1f m do not meet", d, fromA, fromB)
	case math.Abs(fromA-fromB) > d+0.3:
		bad.Add("from_b", fromB, "from places %.1f m apart, %.1f and %.1f m cannot both be: measure again", d, fromA, fromB)
	}
	if bad != nil {
		return At{}, bad
	}
	along := (fromA*fromA - fromB*fromB + d*d) / (2 * d)
	aside := math.Sqrt(math.Max(0, fromA*fromA-along*along)) // a hand's breadth short is on the line
	if !left {
		aside = -aside
	}
	ux, uy := (b.X-a.X)/d, (b.Y-a.Y)/d
	return At{round(a.X + along*ux - aside*uy), round(a.Y + along*uy + aside*ux)}, nil
}
