package site

import (
	"math"

	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// What crowns and hedges let through of direct light along their own width; of the order that gap fractions of garden
// trees are measured at.
const (
	leafyLets     = 0.12 // in leaf
	evergreenLets = 0.08
	bareLets      = 0.6
	fenceLets     = 0.15
	hedgeLets     = 0.04
	bareHedgeLets = 0.45
)

// How a day is followed.
const (
	stepHours  = 1.0 / 6
	lowest     = 0.01               // radians: the sun on the horizon is taken as a little above it
	strongFrom = 10 * math.Pi / 180 // height of the sun from which its hours make the class: lower it is weak, and hedges and houses far off hide it
	bins       = 360                // of the horizon, by which things are found
	thickest   = 5.0                // m of crown that let no more through than a whole small one: larger crowns are no thinner
	samples    = 10                 // along a ray through a crown
)

// Sky is the plan as it is seen from a spot: which things lie in which direction.
type Sky struct {
	plan *Plan
	at   At
	up   float64 // m above the ground
	lies bool    // the ground falls, or hills stand round it
	bins [bins][]int32
	// crowns have no edges; each edge and each crown is one obstacle
	list []obstacle
}

// obstacle is one upright face or one crown.
type obstacle struct {
	thing *Thing
	edge  edge
	crown bool
}

// SkyFrom looks from a spot, so far above the ground; what has one of the ids is left out.
func (p *Plan) SkyFrom(at At, up float64, without ...string) *Sky {
	p = p.turned()
	s := &Sky{plan: p, at: at, up: up, lies: p.SlopePct > 0 || len(p.Horizon) > 0}
	if p.NorthDeg != 0 {
		sin, cos := math.Sincos(p.NorthDeg * math.Pi / 180)
		s.at = At{at.X*cos + at.Y*sin, -at.X*sin + at.Y*cos}
	}
	for i := range p.Things {
		t := &p.Things[i]
		if !t.stands() || t.HeightM <= up || contains(without, t.ID) {
			continue
		}
		if t.crown() {
			s.addCrown(t)
			continue
		}
		for _, e := range t.faces() {
			s.add(obstacle{thing: t, edge: e}, bearing(s.at, e.a), bearing(s.at, e.b))
		}
	}
	return s
}

// faces are the edges of a thing, of a hedge those of its two sides.
func (t *Thing) faces() []edge {
	if t.Kind != Hedge || t.SpreadM == 0 {
		return t.edges()
	}
	out := []edge{}
	for _, e := range t.edges() {
		dx, dy := e.b.X-e.a.X, e.b.Y-e.a.Y
		l := math.Max(1e-9, math.Hypot(dx, dy))
		nx, ny := dy/l*t.SpreadM/2, -dx/l*t.SpreadM/2
		out = append(out, edge{At{e.a.X + nx, e.a.Y + ny}, At{e.b.X + nx, e.b.Y + ny}}, edge{At{e.a.X - nx, e.a.Y - ny}, At{e.b.X - nx, e.b.Y - ny}})
	}
	return out
}

func contains(list []string, id string) bool {
	for _, v := range list {
		if v == id {
			return true
		}
	}
	return false
}

// addCrown adds a crown to all directions that it covers: to all where the spot is under it.
func (s *Sky) addCrown(t *Thing) {
	o := obstacle{thing: t, crown: true}
	d, r := Distance(s.at, t.Points[0]), t.radius()
	if d <= r {
		s.add(o, 0, math.Pi)
		s.add(o, math.Pi, 2*math.Pi-1e-9)
		return
	}
	mid, half := bearing(s.at, t.Points[0]), math.Asin(r/d)
	s.add(o, mid-half, mid+half)
}

// add puts an obstacle into the bins between two bearings, the shorter way round.
func (s *Sky) add(o obstacle, from, to float64) {
	full := 2 * math.Pi
	turn := math.Mod(to-from+2*full, full)
	if turn > math.Pi+1e-9 {
		from, turn = to, full-turn
	}
	from = math.Mod(from+full, full)
	s.list = append(s.list, o)
	n := int32(len(s.list) - 1)
	first := int(math.Floor(from / full * bins))
	last := int(math.Floor((from + turn) / full * bins))
	for b := first; b <= last; b++ {
		if k := b % bins; len(s.bins[k]) == 0 || s.bins[k][len(s.bins[k])-1] != n {
			s.bins[k] = append(s.bins[k], n)
		}
	}
}

// radius of a crown, m.
func (t *Thing) radius() float64 {
	if t.SpreadM > 0 {
		return t.SpreadM / 2
	}
	return t.HeightM / 4
}

// Hours are the hours of direct sun that reach the spot on a clear day; light through crowns counts in part.
func (s *Sky) Hours(d day.Day) float64 {
	all, _ := s.day(d)
	return all
}

// day gives the hours of a day, and those with the sun high enough to count.
func (s *Sky) day(d day.Day) (all, strong float64) {
	sun := season.SunOn(s.plan.Latitude, d)
	n := math.Ceil((sun.Set - sun.Rise) / stepHours)
	if n < 1 {
		return 0, 0
	}
	step := (sun.Set - sun.Rise) / n
	leafy := s.plan.inLeaf(d)
	for i := range int(n) {
		height, bearing := season.SunAt(s.plan.Latitude, d, sun.Rise+(float64(i)+0.5)*step)
		v := step * s.through(math.Max(lowest, height), bearing, leafy)
		if all += v; height >= strongFrom {
			strong += v
		}
	}
	return all, strong
}

// Lit is the share of the sun's light that reaches the spot at an hour of solar time, 0 to 1; 0 at night.
func (s *Sky) Lit(d day.Day, hour float64) float64 {
	height, bearing := season.SunAt(s.plan.Latitude, d, hour)
	if height <= 0 {
		return 0
	}
	return s.through(math.Max(lowest, height), bearing, s.plan.inLeaf(d))
}

// Light is the mean hours of direct sun a day by month, January first.
type Light struct {
	Hours  [12]float64 // all of them
	Strong [12]float64 // with the sun 10° high or more: what leaves live on, and burn by
}

// Year follows the sun on three days of each month.
func (s *Sky) Year(year int) (out Light) {
	for m := range out.Hours {
		for _, d := range []int{5, 15, 25} {
			all, strong := s.day(day.Of(year, time.Month(m+1), d))
			out.Hours[m] += all / 3
			out.Strong[m] += strong / 3
		}
	}
	return out
}

// through is the share of a ray that comes through from a height and a bearing.
func (s *Sky) through(height, bearing float64, leafy bool) float64 {
	sin, cos := math.Sincos(bearing)
	rise, share := math.Tan(height), 1.0
	if s.lies {
		if rise -= s.plan.rises(bearing); rise <= 0 || height < s.plan.hills(bearing) {
			return 0
		}
	}
	for _, k := range s.bins[int(bearing/(2*math.Pi)*bins)%bins] {
		o := &s.list[k]
		if o.crown {
			share *= s.throughCrown(o.thing, sin, cos, rise, height, leafy)
		} else if d, hit := s.hit(o.edge, sin, cos); hit && s.up+d*rise < o.thing.HeightM {
			share *= o.thing.lets(leafy)
		}
		if share < 1e-4 {
			return 0
		}
	}
	return share
}

// hit is how far away a ray along the ground meets an edge.
func (s *Sky) hit(e edge, sin, cos float64) (float64, bool) {
	ax, ay := e.a.X-s.at.X, e.a.Y-s.at.Y
	bx, by := e.b.X-s.at.X, e.b.Y-s.at.Y
	// turned so that the ray goes along u
	au, av := ax*sin+ay*cos, ax*cos-ay*sin
	bu, bv := bx*sin+by*cos, bx*cos-by*sin
	if (av > 0) == (bv > 0) {
		return 0, false
	}
	u := au + (bu-au)*av/(av-bv)
	return u, u > 1e-9
}

// lets is what a wall, a fence, a building or the side of a hedge lets through.
func (t *Thing) lets(leafy bool) float64 {
	hedge := hedgeLets
	if t.Leaf == catalogue.Deciduous && !leafy {
		hedge = bareHedgeLets
	}
	switch {
	case t.Kind == Fence:
		return fenceLets
	case t.Kind == Hedge && t.SpreadM > 0: // a ray goes through both sides
		return math.Sqrt(hedge)
	case t.Kind == Hedge:
		return hedge
	}
	return 0
}

// throughCrown is what a crown lets through of a ray, by how much of its own width the ray goes through.
func (s *Sky) throughCrown(t *Thing, sin, cos, rise, height float64, leafy bool) float64 {
	r := t.radius()
	cx, cy := t.Points[0].X-s.at.X, t.Points[0].Y-s.at.Y
	along, aside := cx*sin+cy*cos, cx*cos-cy*sin
	if math.Abs(aside) >= r {
		return 1
	}
	half := math.Sqrt(r*r - aside*aside)
	from, to := math.Max(0, along-half), along+half
	if to <= 0 || s.up+to*rise < t.ClearM || s.up+from*rise > t.HeightM {
		return 1
	}
	in := 0
	for i := range samples {
		at := from + (to-from)*(float64(i)+0.5)/samples
		if math.Hypot(at-along, aside) <= t.wide(s.up+at*rise) {
			in++
		}
	}
	path := float64(in) / samples * (to - from) / math.Cos(height)
	return math.Pow(t.crownLets(leafy), path/math.Min(2*r, thickest))
}

// wide is the radius of a crown at a height, m; nothing below it and above it. It falls with height in all shapes.
func (t *Thing) wide(z float64) float64 {
	if z < t.ClearM || z > t.HeightM {
		return 0
	}
	u := (z - t.ClearM) / (t.HeightM - t.ClearM)
	switch t.Shape {
	case "cone":
		return t.radius() * (1 - u)
	case "column":
		return t.radius()
	case "spreading":
		if u < 0.6 {
			return t.radius()
		}
		return t.radius() * math.Sqrt(1-math.Pow((u-0.6)/0.4, 2))
	}
	return t.radius() * math.Sqrt(1-u*u)
}

func (t *Thing) crownLets(leafy bool) float64 {
	switch t.Leaf {
	case catalogue.Deciduous:
		if leafy {
			return leafyLets
		}
		return bareLets
	case catalogue.Herbaceous:
		if leafy {
			return leafyLets
		}
		return 1
	}
	return evergreenLets
}

// inLeaf reports whether deciduous crowns are in leaf on a day.
func (p *Plan) inLeaf(d day.Day) bool {
	from, to := p.LeafOut, p.LeafDrop
	if from == 0 || to == 0 { // later in spring and earlier in autumn towards the poles
		lat := math.Abs(p.Latitude)
		from, to = int(75+0.9*lat), int(345-0.8*lat)
		if p.Latitude < 0 {
			from, to = (from+182)%365, (to+182)%365
		}
	}
	n := int(d.Time().YearDay())
	if from <= to {
		return n >= from && n < to
	}
	return n >= from || n < to
}
