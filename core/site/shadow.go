package site

import (
	"cmp"
	"math"
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Shadow is what a thing darkens on the ground at an hour.
type Shadow struct {
	ID     string `json:"id"`
	Points []At   `json:"points" doc:"Its outline"`
}

// longest is how far shadows are drawn, m.
const longest = 150.0

// Shadows are those of all that stands, at an hour of solar time; none at night.
func (p *Plan) Shadows(d day.Day, hour float64) []Shadow {
	out := []Shadow{}
	height, to := season.SunAt(p.Latitude, d, hour)
	if height <= 0 {
		return out
	}
	rise := math.Tan(math.Max(lowest, height)) - p.rises(to)
	if rise <= 0 || height < p.hills(to) {
		return out // the sun is behind the hill
	}
	to -= p.NorthDeg * math.Pi / 180 // as the plan lies
	each := 1 / rise
	leafy := p.inLeaf(d)
	for i := range p.Things {
		t := &p.Things[i]
		if !t.stands() || t.crown() && t.crownLets(leafy) >= 1 {
			continue
		}
		away := func(q At, z float64) At {
			l := math.Min(longest, z*each)
			return At{round(q.X - l*math.Sin(to)), round(q.Y - l*math.Cos(to))}
		}
		if t.crown() {
			out = append(out, Shadow{t.ID, hull(t.rounds(away))})
			continue
		}
		for _, e := range t.faces() {
			out = append(out, Shadow{t.ID, hull([]At{e.a, e.b, away(e.a, t.HeightM), away(e.b, t.HeightM)})})
		}
		if t.Kind == Building {
			tops := make([]At, len(t.Points))
			for k, q := range t.Points {
				tops[k] = away(q, t.HeightM)
			}
			out = append(out, Shadow{t.ID, tops})
		}
	}
	return out
}

// rounds are points on a crown at some heights, cast on the ground.
func (t *Thing) rounds(cast func(q At, z float64) At) (out []At) {
	for k := range 6 {
		z := t.ClearM + (t.HeightM-t.ClearM)*float64(k)/5
		r := t.wide(z)
		for a := range 16 {
			sin, cos := math.Sincos(float64(a) * math.Pi / 8)
			out = append(out, cast(At{t.Points[0].X + r*sin, t.Points[0].Y + r*cos}, z))
		}
	}
	return out
}

// hull is the least outline without dents round some points (Andrew 1979).
func hull(points []At) []At {
	slices.SortFunc(points, func(a, b At) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	turn := func(o, a, b At) float64 { return (a.X-o.X)*(b.Y-o.Y) - (a.Y-o.Y)*(b.X-o.X) }
	half := func(list []At) (out []At) {
		for _, q := range list {
			for len(out) > 1 && turn(out[len(out)-2], out[len(out)-1], q) <= 0 {
				out = out[:len(out)-1]
			}
			out = append(out, q)
		}
		return out[:max(0, len(out)-1)]
	}
	lower := half(points)
	slices.Reverse(points)
	return append(lower, half(points)...)
}
