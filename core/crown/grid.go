package crown

import (
	"math"

	"mezzadro/core/invalid"
)

// Lay lays about so many points into an outline, each as far from its neighbours as the others: a grid of triangles
// that begins where the outline happens to lie. The outline is closed by itself; it may not be a line.
func Lay(outline []Point, want int) ([]Point, error) {
	var bad invalid.Fields
	if want < Fewest || want > Most {
		bad.Add("want", want, "%d points: want %d to %d", want, Fewest, Most)
	}
	area := math.Abs(areaOf(outline))
	if len(outline) < 3 || !(area > 0) || math.IsInf(area, 0) {
		bad.Add("outline", len(outline), "draw a line round the crown: it holds nothing yet")
	}
	if err := bad.Err(); err != nil {
		return nil, err
	}
	dx := math.Sqrt(area / float64(want) * 2 / math.Sqrt(3))
	dy := dx * math.Sqrt(3) / 2
	low, high := box(outline)
	_, fx := math.Modf(math.Abs(outline[0].X+7.31*outline[len(outline)/2].Y) / dx)
	_, fy := math.Modf(math.Abs(outline[0].Y+3.17*outline[len(outline)/2].X) / dy)
	out := []Point{}
	row := 0
	for y := low.Y - fy*dy; y <= high.Y; y += dy {
		x := low.X - fx*dx
		if row%2 == 1 {
			x -= dx / 2
		}
		for ; x <= high.X; x += dx {
			if p := (Point{x, y}); inside(outline, p) && len(out) < Most {
				out = append(out, p)
			}
		}
		row++
	}
	if len(out) < Fewest {
		bad.Add("outline", len(out), "too narrow: only %d points lie in it", len(out))
	}
	return out, bad.Err()
}

func areaOf(o []Point) float64 {
	sum := 0.0
	for i, p := range o {
		q := o[(i+1)%len(o)]
		sum += p.X*q.Y - q.X*p.Y
	}
	return sum / 2
}

func box(o []Point) (low, high Point) {
	low, high = o[0], o[0]
	for _, p := range o {
		low = Point{min(low.X, p.X), min(low.Y, p.Y)}
		high = Point{max(high.X, p.X), max(high.Y, p.Y)}
	}
	return low, high
}

// inside reports a point within an outline, by the edges that a line to its right crosses.
func inside(o []Point, p Point) bool {
	in := false
	for i, a := range o {
		b := o[(i+1)%len(o)]
		if (a.Y > p.Y) != (b.Y > p.Y) && p.X < a.X+(p.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X) {
			in = !in
		}
	}
	return in
}
