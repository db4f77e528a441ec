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
	seenFrom   = 0.02               // rise to the top of what hides the sun at all: it is lower for some minutes only
	lowest     = 0.01               // radians: the sun on the horizon is taken as a little above it
	strongFrom = 10 * math.Pi / 180 // height of the sun from which its hours make the class: lower it is weak, and hedges and houses far off hide it
	bins       = 360                // of the horizon, by which things are found
	darkest    = -6                 // logarithm of the share below which a ray is gone
	thickest   = 5.0                // m of crown that let no more through than a whole small one: larger crowns are no thinner
	samples    = 8                  // along a ray through a crown
)

// Sky is the plan as it is seen from a spot: which things lie in which direction.
type Sky struct {
	plan *Plan
	at   At
	up   float64 // m above the ground
	lies bool    // the ground falls, or hills stand round it
	bins [bins][]sight
	// crowns have no edges; each edge and each crown is one obstacle
	list []obstacle
}

// obstacle is one upright face or one crown.
type obstacle struct {
	thing *Thing
	edge  edge
	crown bool
	lets  [2]float64 // without leaves and in leaf, as logarithms; of a crown what a whole one lets through
}

// sight is an obstacle in a direction: rays that rise more steeply than it reaches go over it.
type sight struct {
	at  int32
	top float32 // rise to its top where it is nearest; without end under a crown
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
		if !contains(without, t.ID) {
			s.addThing(t)
		}
	}
	return s
}

// addThing adds what stands and is higher than where one looks from.
func (s *Sky) addThing(t *Thing) {
	if !t.stands() || t.HeightM <= s.up {
		return
	}
	if t.crown() {
		s.addCrown(t)
		return
	}
	lets := [2]float64{math.Log(t.lets(false)), math.Log(t.lets(true))}
	faces := t.faces()
	ends := len(faces)
	if t.Kind == Hedge && t.SpreadM > 0 && t.Points[0] != t.Points[len(t.Points)-1] {
		ends -= 2
	}
	for i, e := range faces {
		if i == ends { // what goes in at the end of a hedge may leave by its top
			lets = [2]float64{2 * lets[0], 2 * lets[1]}
		}
		s.add(obstacle{thing: t, edge: e, lets: lets}, bearing(s.at, e.a), bearing(s.at, e.b), e.near(s.at))
	}
}

// after is the same sky when some things have changed, and in which directions it is another; nil where it is the same.
func (s *Sky) after(by *touch, self string) (then *Sky, where *[bins]bool) {
	then, where = &Sky{plan: s.plan, at: s.at, up: s.up, lies: s.lies}, new([bins]bool)
	for _, t := range by.come {
		if t.ID != self {
			then.addThing(t)
		}
	}
	any, gone := false, make([]bool, len(s.list))
	for i := range s.list {
		gone[i] = by.gone[s.list[i].thing.ID]
	}
	for b := range s.bins {
		for _, k := range s.bins[b] {
			where[b] = where[b] || gone[k.at]
		}
		where[b] = where[b] || len(then.bins[b]) > 0
		any = any || where[b]
	}
	if !any {
		return nil, nil
	}
	fresh := int32(len(then.list))
	then.list = append(then.list, s.list...)
	for b := range s.bins {
		if !where[b] {
			continue
		}
		for _, k := range s.bins[b] {
			if !gone[k.at] {
				then.bins[b] = append(then.bins[b], sight{k.at + fresh, k.top})
			}
		}
	}
	return then, where
}

// faces are the edges of a thing, of a hedge those of its two sides.
func (t *Thing) faces() []edge {
	if t.Kind != Hedge || t.SpreadM == 0 {
		return t.edges()
	}
	out, sides := []edge{}, [2][]edge{}
	for _, e := range t.edges() {
		dx, dy := e.b.X-e.a.X, e.b.Y-e.a.Y
		l := math.Max(1e-9, math.Hypot(dx, dy))
		nx, ny := dy/l*t.SpreadM/2, -dx/l*t.SpreadM/2
		sides[0] = append(sides[0], edge{At{e.a.X + nx, e.a.Y + ny}, At{e.b.X + nx, e.b.Y + ny}})
		sides[1] = append(sides[1], edge{At{e.a.X - nx, e.a.Y - ny}, At{e.b.X - nx, e.b.Y - ny}})
	}
	for _, side := range sides {
		for i, e := range side {
			if i > 0 && side[i-1].b != e.a { // round the outside of a corner
				out = append(out, edge{side[i-1].b, e.a})
			}
			out = append(out, e)
		}
	}
	if n := len(sides[0]); n > 0 && t.Points[0] != t.Points[len(t.Points)-1] { // its two ends
		out = append(out, edge{sides[0][0].a, sides[1][0].a}, edge{sides[0][n-1].b, sides[1][n-1].b})
	}
	return out
}

// near is how far off the nearest point of an edge lies.
func (e edge) near(from At) float64 {
	dx, dy := e.b.X-e.a.X, e.b.Y-e.a.Y
	u := ((from.X-e.a.X)*dx + (from.Y-e.a.Y)*dy) / math.Max(1e-12, dx*dx+dy*dy)
	u = math.Max(0, math.Min(1, u))
	return math.Hypot(e.a.X+u*dx-from.X, e.a.Y+u*dy-from.Y)
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
	o := obstacle{thing: t, crown: true, lets: [2]float64{math.Log(t.crownLets(false)), math.Log(t.crownLets(true))}}
	d, r := Distance(s.at, t.Points[0]), t.radius()
	if d > r && s.low(t.HeightM, d-r) {
		return
	}
	if d <= r {
		s.add(o, 0, math.Pi, 0)
		s.add(o, math.Pi, 2*math.Pi-1e-9, 0)
		return
	}
	mid, half := bearing(s.at, t.Points[0]), math.Asin(r/d)
	s.add(o, mid-half, mid+half, d-r)
}

// low reports that something so high is so far off that only a sun hides behind it that has all but set.
func (s *Sky) low(high, away float64) bool { return !s.lies && high-s.up < seenFrom*away }

// add puts an obstacle into the bins between two bearings, the shorter way round; near is how far off it begins, m.
func (s *Sky) add(o obstacle, from, to, near float64) {
	full := 2 * math.Pi
	if s.low(o.thing.HeightM, near) {
		return
	}
	turn := math.Mod(to-from+2*full, full)
	if turn > math.Pi+1e-9 {
		from, turn = to, full-turn
	}
	from = math.Mod(from+full, full)
	s.list = append(s.list, o)
	n, top := int32(len(s.list)-1), float32(math.Inf(1))
	if near > 1e-6 {
		top = float32(1.0001 * (o.thing.HeightM - s.up) / near)
	}
	first := int(math.Floor(from / full * bins))
	last := int(math.Floor((from + turn) / full * bins))
	for b := first; b <= last; b++ {
		if k := b % bins; len(s.bins[k]) == 0 || s.bins[k][len(s.bins[k])-1].at != n {
			s.bins[k] = append(s.bins[k], sight{n, top})
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
	all, _ := s.day(d, nil)
	return all
}

// day gives the hours of a day, and those with the sun high enough to count; of some directions, or of all.
func (s *Sky) day(d day.Day, where *[bins]bool) (all, strong float64) {
	rays, step := raysOf(s.plan.Latitude, d)
	leafy := s.plan.inLeaf(d)
	for i := range rays {
		r := &rays[i]
		if where != nil && !where[r.bin] {
			continue
		}
		v := step * s.through(r, leafy)
		if all += v; r.strong {
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
	r := rayTo(height, bearing)
	return s.through(&r, s.plan.inLeaf(d))
}

// Light is the mean hours of direct sun a day by month, January first.
type Light struct {
	Hours  [12]float64 // all of them
	Strong [12]float64 // with the sun 10° high or more: what leaves live on, and burn by
}

// Year follows the sun on three days of each month.
func (s *Sky) Year(year int) Light { return s.year(year, nil) }

// year does so in some directions, or in all.
func (s *Sky) year(year int, where *[bins]bool) (out Light) {
	for m := range out.Hours {
		for _, d := range []int{5, 15, 25} {
			all, strong := s.day(day.Of(year, time.Month(m+1), d), where)
			out.Hours[m] += all / 3
			out.Strong[m] += strong / 3
		}
	}
	return out
}

// through is the share of a ray that comes through.
func (s *Sky) through(r *ray, leafy bool) float64 {
	rise, share := r.rise, 0.0 // as its logarithm
	if s.lies {
		if rise -= s.plan.rises(r.bearing); rise <= 0 || r.height < s.plan.hills(r.bearing) {
			return 0
		}
	}
	leaves := 0
	if leafy {
		leaves = 1
	}
	low := float32(rise)
	for _, k := range s.bins[r.bin] {
		if k.top < low {
			continue // the ray goes over it
		}
		o := &s.list[k.at]
		if o.crown {
			share += s.throughCrown(o, r, rise, o.lets[leaves])
		} else if d, hit := s.hit(o.edge, r.sin, r.cos); hit && s.up+d*rise < o.thing.HeightM {
			share += o.lets[leaves]
		}
		if share < darkest {
			return 0
		}
	}
	return math.Exp(share)
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

// throughCrown is what a crown lets through of a ray, by how much of its own width the ray goes through; lets is what
// a whole one lets through; both as logarithms.
func (s *Sky) throughCrown(o *obstacle, ray *ray, rise, lets float64) float64 {
	t := o.thing
	r := t.radius()
	cx, cy := t.Points[0].X-s.at.X, t.Points[0].Y-s.at.Y
	along, aside := cx*ray.sin+cy*ray.cos, cx*ray.cos-cy*ray.sin
	if math.Abs(aside) >= r {
		return 0
	}
	half := math.Sqrt(r*r - aside*aside)
	from := max(0, along-half, (t.ClearM-s.up)/rise) // where it is as high as the crown, too
	to := min(along+half, (t.HeightM-s.up)/rise)
	if to <= from {
		return 0
	}
	in := 0
	for i := range samples {
		at := from + (to-from)*(float64(i)+0.5)/samples
		if (at-along)*(at-along)+aside*aside <= r*r*t.wide2(s.up+at*rise) {
			in++
		}
	}
	path := float64(in) / samples * (to - from) / ray.flat
	return lets * path / math.Min(2*r, thickest)
}

// wide is the radius of a crown at a height, m; nothing below it and above it. It falls with height in all shapes but the oval.
func (t *Thing) wide(z float64) float64 { return t.radius() * math.Sqrt(t.wide2(z)) }

// wide2 is the square of that as a share of the radius at its widest.
func (t *Thing) wide2(z float64) float64 {
	if z < t.ClearM || z > t.HeightM {
		return 0
	}
	u := (z - t.ClearM) / (t.HeightM - t.ClearM)
	switch t.Shape {
	case "cone":
		return (1 - u) * (1 - u)
	case "column":
		return 1
	case "oval":
		return 4 * u * (1 - u)
	case "spreading":
		if u < 0.6 {
			return 1
		}
		u = (u - 0.6) / 0.4
	}
	return 1 - u*u
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
