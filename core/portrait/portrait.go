// Package portrait is how a plant is drawn, by its form: one set of outlines for screens and paper. It is a sign for
// the form and its size, not a likeness.
package portrait

import (
	"math"

	"mezzadro/core/catalogue"
)

// Hedge is a row of plants, drawn in length.
const Hedge = "hedge"

// Point is a share of half the spread, to the right, and a share of the height, from the ground.
type Point [2]float64

// Shape is a form: its closed outline, and the lines that are drawn in it and behind it.
type Shape struct {
	Outline []Point   `json:"outline"`
	Lines   [][]Point `json:"lines"` // stems, branches, fronds: within the outline
	Back    [][]Point `json:"back"`  // what it grows on
}

// kind is how a form is drawn: the right half of its outline, from the ground to its tip, and its lines.
type kind struct {
	right []Point
	lines [][]Point
	back  [][]Point
}

var kinds = map[string]kind{
	string(catalogue.Tree): {
		right: stemmed(0.055, crown(0.65, 0.35, 11, 0.1)),
		lines: branches(0.34, 4, 0.96, 0.02),
	},
	string(catalogue.Conifer):  {right: stemmed(0.06, tiered(7)), lines: tiers()},
	string(catalogue.Shrub):    {right: stemmed(0.5, crown(0.5, 0.5, 10, 0.12)), lines: branches(0, 6, 0.97, 0.3)},
	string(catalogue.Subshrub): {right: crown(0.22, 0.78, 17, 0.08), lines: branches(0, 8, 0.94, 0.5)},
	string(catalogue.Climber): {
		right: stemmed(0.07, squared(0.55, 0.45, 15, 0.09)),
		lines: branches(0.1, 4, 0.97, 0.05),
		back:  trellis(),
	},
	string(catalogue.Palm):      {right: stemmed(0.07, tuft()), lines: fronds()},
	string(catalogue.Perennial): {right: leaves(), lines: blades()},
	Hedge:                       {right: clipped(), lines: row()},
}

// Forms are all, by their names.
func Forms() map[string]Shape {
	out := map[string]Shape{}
	for name := range kinds {
		out[name] = Of(name)
	}
	return out
}

// Of is a form by its name; one that is not known is drawn as a shrub.
func Of(form string) Shape {
	k, known := kinds[form]
	if !known {
		k = kinds[string(catalogue.Shrub)]
	}
	s := Shape{Lines: k.lines, Back: k.back}
	if s.Back == nil {
		s.Back = [][]Point{}
	}
	for _, q := range k.right {
		s.Outline = append(s.Outline, Point{round(q[0]), round(min(1, max(0, q[1])))})
	}
	for i := len(k.right) - 1; i >= 0; i-- {
		q := s.Outline[i]
		s.Outline = append(s.Outline, Point{-q[0], q[1]})
	}
	return s
}

func round(v float64) float64 { return math.Round(v*100) / 100 }

// around is the right half of a rounded crown with lobes, from its lowest point to its tip: middle and half its height,
// lobes all around, how deep they are cut in, and the power of its curve, 2 of an ellipse.
func around(mid, half float64, lobes int, deep, power float64) []Point {
	const steps = 44
	var out []Point
	for i := range steps + 1 {
		a := math.Pi * float64(i) / steps
		lobe := math.Cos(float64(lobes)*a/2 + 0.5*math.Sin(3*a)) // no two are alike
		r := 1 - deep*(1-math.Abs(lobe))
		sin, cos := math.Sincos(a)
		bow := func(v float64) float64 { return math.Copysign(math.Pow(math.Abs(v), 2/power), v) }
		out = append(out, Point{r * bow(sin), mid - half*r*bow(cos)})
	}
	return out
}

func crown(mid, half float64, lobes int, deep float64) []Point {
	return around(mid, half, lobes, deep, 2)
}

func squared(mid, half float64, lobes int, deep float64) []Point {
	return around(mid, half, lobes, deep, 4)
}

// stemmed stands a crown on a stem of half a width, which ends where the crown is wider.
func stemmed(half float64, crown []Point) []Point {
	out := []Point{{half * 1.15, 0}}
	for i, q := range crown {
		if q[0] >= half {
			return append(append(out, Point{half, q[1]}), crown[i:]...)
		}
	}
	return append(out, crown...)
}

// tiered narrows in tiers, each widest at its lower edge.
func tiered(n int) []Point {
	out := []Point{{0.06, 0.08}}
	for i := range n {
		low, high := 0.06+0.94*float64(i)/float64(n), 0.06+0.94*float64(i+1)/float64(n)
		out = append(out, Point{1 - 0.94*low, low}, Point{0.55 * (1 - high), high + 0.015})
	}
	return append(out, Point{0, 1})
}

// tuft are fronds that spring from one point to all sides and hang at their tips.
func tuft() []Point {
	out := []Point{{0.06, 0.66}}
	for _, a := range []float64{2.15, 1.7, 1.25, 0.8, 0.38} {
		sin, cos := math.Sincos(a + 0.21)
		out = append(out, Point{0.36 * sin, 0.74 + 0.09*cos})
		sin, cos = math.Sincos(a)
		out = append(
			out,
			Point{sin, 0.74 + 0.24*cos - 0.08*sin*sin},
			Point{0.9 * math.Sin(a-0.1), 0.76 + 0.23*math.Cos(a-0.1)},
		)
	}
	return append(out, Point{0.1, 0.86}, Point{0, 1})
}

// leaves are the blades of a clump: each ends in a tip of its own.
func leaves() []Point {
	out := []Point{{0.3, 0}}
	for i := range 5 {
		a := 1.25 - 0.27*float64(i)
		sin, cos := math.Sincos(a)
		out = append(out, Point{sin / math.Sin(1.25), 0.08 + 0.9*cos - 0.05*float64(i%2)})
		sin, cos = math.Sincos(a - 0.13)
		out = append(out, Point{0.74 * sin, 0.05 + 0.74*cos})
	}
	return append(out, Point{0, 1})
}

// clipped is a hedge: cut square, a little narrower above, its top not quite even.
func clipped() []Point {
	out := []Point{{1, 0}, {0.99, 0.5}, {0.965, 0.95}}
	for i := range 12 {
		out = append(out, Point{0.94 * (1 - float64(i)/11), 0.985 + 0.015*float64(i%2)})
	}
	return out
}

// arc is a bent line from one point over a second to a third.
func arc(from, over, to Point) []Point {
	const steps = 8
	out := make([]Point, steps+1)
	for i := range out {
		t := float64(i) / steps
		for c := range 2 {
			out[i][c] = round((1-t)*(1-t)*from[c] + 2*t*(1-t)*over[c] + t*t*to[c])
		}
	}
	return out
}

// branches are so many limbs from a fork at a share of the height, each of which parts into three twigs; tip is how
// high they end, and foot how far apart they start.
func branches(fork float64, n int, tip, foot float64) [][]Point {
	var out [][]Point
	if fork > 0.08 {
		out = append(out, []Point{{0, 0}, {0, fork}})
	}
	for i := range n {
		side := 2*float64(i)/float64(n-1) - 1
		end := Point{0.52 * side, fork + (tip-fork)*(0.62-0.16*side*side)}
		out = append(out, arc(Point{foot * side, fork}, Point{(foot + 0.1) * side, fork + (end[1]-fork)*0.5}, end))
		for twig := -1; twig <= 1; twig++ {
			lean := 0.13*float64(twig) + 0.22*side
			up := (tip - end[1]) * (0.85 - 0.3*math.Abs(side) - 0.18*math.Abs(float64(twig)))
			out = append(out, []Point{end, {round(end[0] + lean), round(end[1] + up)}})
		}
	}
	return out
}

// tiers are a straight stem with boughs that fall a little.
func tiers() [][]Point {
	out := [][]Point{{{0, 0}, {0, 0.97}}}
	for i := range 6 {
		z := 0.13 + 0.135*float64(i)
		for _, side := range []float64{-1, 1} {
			out = append(
				out,
				arc(Point{0, z + 0.06}, Point{0.5 * side * (1 - z), z + 0.05}, Point{0.86 * side * (1 - z), z - 0.02}),
			)
		}
	}
	return out
}

// fronds spring from the top of the stem and bow to all sides.
func fronds() [][]Point {
	out := [][]Point{{{0, 0}, {0, 0.74}}}
	for _, a := range []float64{-1.9, -1.35, -0.8, -0.3, 0.3, 0.8, 1.35, 1.9} {
		out = append(
			out,
			arc(
				Point{0, 0.74},
				Point{0.55 * math.Sin(a), 0.8 + 0.2*math.Cos(a)},
				Point{0.96 * math.Sin(a), 0.72 + 0.25*math.Cos(a)},
			),
		)
	}
	return out
}

// blades stand close together at the ground and lean outwards.
func blades() [][]Point {
	var out [][]Point
	for i := range 13 {
		side := float64(i)/6 - 1
		out = append(
			out,
			arc(
				Point{0.22 * side, 0},
				Point{0.3 * side, 0.6},
				Point{0.88 * side, 0.93 - 0.3*side*side - 0.08*float64(i%2)},
			),
		)
	}
	return out
}

// row are the stems of a hedge, one beside the other.
func row() [][]Point {
	var out [][]Point
	for i := range 9 {
		x := -0.88 + 0.22*float64(i)
		out = append(
			out,
			arc(Point{x, 0}, Point{x, 0.4}, Point{x - 0.07, 0.85}),
			arc(Point{x, 0.25}, Point{x, 0.5}, Point{x + 0.08, 0.8}),
		)
	}
	return out
}

// trellis is what a climber grows on.
func trellis() [][]Point {
	var out [][]Point
	for _, x := range []float64{-1.08, -0.54, 0, 0.54, 1.08} {
		out = append(out, []Point{{x, 0}, {x, 1.02}})
	}
	for _, z := range []float64{0.2, 0.45, 0.7, 0.95} {
		out = append(out, []Point{{-1.08, z}, {1.08, z}})
	}
	return out
}
