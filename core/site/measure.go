package site

import "math"

// edge is a straight piece of a line or an outline.
type edge struct{ a, b At }

// edges are those of a thing; an outline is closed.
func (t *Thing) edges() (out []edge) {
	for i := range len(t.Points) - 1 {
		out = append(out, edge{t.Points[i], t.Points[i+1]})
	}
	if Kinds[t.Kind] == "area" && len(t.Points) > 2 {
		out = append(out, edge{t.Points[len(t.Points)-1], t.Points[0]})
	}
	return out
}

// Distance between two places, m.
func Distance(a, b At) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }

// from is how far a place is from the nearest point of an edge, and which that is.
func (e edge) from(q At) (float64, At) {
	dx, dy := e.b.X-e.a.X, e.b.Y-e.a.Y
	t := 0.0
	if l := dx*dx + dy*dy; l > 0 {
		t = math.Max(0, math.Min(1, ((q.X-e.a.X)*dx+(q.Y-e.a.Y)*dy)/l))
	}
	near := At{e.a.X + t*dx, e.a.Y + t*dy}
	return Distance(q, near), near
}

// From is how far a place is from a thing, m: from its edge, from its middle for what is a point; 0 within an outline.
func (t *Thing) From(q At) float64 {
	if len(t.Points) == 1 {
		return Distance(q, t.Points[0])
	}
	if Kinds[t.Kind] == "area" && within(q, t.Points) {
		return 0
	}
	least := math.Inf(1)
	for _, e := range t.edges() {
		d, _ := e.from(q)
		least = math.Min(least, d)
	}
	return least
}

// Area of an outline, m².
func Area(points []At) float64 {
	sum := 0.0
	for i, a := range points {
		b := points[(i+1)%len(points)]
		sum += a.X*b.Y - b.X*a.Y
	}
	return math.Abs(sum) / 2
}

// Length of a line, m.
func Length(points []At) float64 {
	sum := 0.0
	for i := range len(points) - 1 {
		sum += Distance(points[i], points[i+1])
	}
	return sum
}

// within reports a place inside an outline, by how often a line to the east crosses it.
func within(q At, points []At) bool {
	in := false
	for i, a := range points {
		b := points[(i+1)%len(points)]
		if (a.Y > q.Y) != (b.Y > q.Y) && q.X < (b.X-a.X)*(q.Y-a.Y)/(b.Y-a.Y)+a.X {
			in = !in
		}
	}
	return in
}

// crosses reports an outline that crosses itself.
func crosses(points []At) bool {
	n := len(points)
	for i := range n {
		for k := i + 2; k < n; k++ {
			if i == 0 && k == n-1 {
				continue // neighbours
			}
			if meet(points[i], points[i+1], points[k], points[(k+1)%n]) {
				return true
			}
		}
	}
	return false
}

func meet(a, b, c, d At) bool {
	side := func(p, q, r At) float64 { return (q.X-p.X)*(r.Y-p.Y) - (q.Y-p.Y)*(r.X-p.X) }
	return side(a, b, c)*side(a, b, d) < 0 && side(c, d, a)*side(c, d, b) < 0
}

// facing is a bearing, radians, in words.
func facing(bearing float64) string {
	names := []string{"north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"}
	return names[int(math.Round(bearing/(math.Pi/4)))%8]
}

// bearing from one place to another, radians from north over east.
func bearing(from, to At) float64 {
	return math.Mod(math.Atan2(to.X-from.X, to.Y-from.Y)+2*math.Pi, 2*math.Pi)
}
