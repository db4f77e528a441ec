package crown

import "math"

// At the rim of a leaf, and on thin twigs, a point is half sky. What such a grey is made of is found by taking it apart
// into sky and leaf, or sky and wood, each as they are elsewhere on the same picture (linear unmixing).

// Limits of it.
const (
	plainSky   = 5    // points of plain sky, or leaf, from which their colour is taken from the picture
	mixedC     = 15.0 // chroma below which a colour may be a mixture
	plainC     = 16.0 // from which on it is plain leaf
	plainHue   = 8.0  // degrees off the border
	fitSD      = 5.0  // by how much a mixture may miss its colour, of 255
	mostlySeen = 0.5  // share of sky from which on one sees through leaves
	twigSeen   = 0.75 // the same of wood: a twig is thinner than a point
)

var (
	usualLeaf  = [3]float64{85, 105, 50}
	usualBrown = [3]float64{118, 92, 58}
	usualWood  = [3]float64{108, 100, 92}
)

// reader reads the points of one picture.
type reader struct {
	border             float64
	sees               bool // some sky is on it, of this colour:
	sky                [3]float64
	green, brown, wood [3]float64
}

// readerOf learns what sky and leaves look like on the picture.
func readerOf(colours []Colour, labs []lab, border float64) reader {
	r := reader{border: border, green: usualLeaf, brown: usualBrown, wood: usualWood}
	var sky, green, brown []Colour
	for i, l := range labs {
		switch h := l.hue(); {
		case l.sky():
			sky = append(sky, colours[i])
		case l.leafy() && l.chroma() >= plainC && h > border+plainHue:
			green = append(green, colours[i])
		case l.leafy() && l.chroma() >= plainC && h < border-plainHue:
			brown = append(brown, colours[i])
		}
	}
	if r.sees = len(sky) >= plainSky; r.sees {
		r.sky = middleOf(sky)
	}
	if len(green) >= plainSky {
		r.green = middleOf(green)
	}
	if len(brown) >= plainSky {
		r.brown = middleOf(brown)
	}
	return r
}

func middleOf(list []Colour) (m [3]float64) {
	for _, c := range list {
		for i, v := range c {
			m[i] += float64(v) / float64(len(list))
		}
	}
	return m
}

// reads is what a point most likely shows, and the chance that it is brown or bare where it shows the plant.
func (r reader) reads(c Colour, l lab) (is Class, gone float64) {
	if !r.sees || l.sky() || l.l < skyL/2 || l.chroma() >= mixedC {
		return l.reads(r.border)
	}
	colour := [3]float64{float64(c[0]), float64(c[1]), float64(c[2])}
	weigh := func(of [3]float64) (w, sky float64) {
		miss, sky := unmix(colour, of, r.sky)
		return math.Exp(-miss * miss / (2 * fitSD * fitSD)), sky
	}
	green, throughGreen := weigh(r.green)
	brown, throughBrown := weigh(r.brown)
	wood, throughWood := weigh(r.wood)
	if max(green, brown, wood) < 1e-6 {
		return l.reads(r.border)
	}
	is, through := Green, throughGreen/mostlySeen
	switch gone = max(brown, wood) / (green + max(brown, wood)); {
	case gone < 0.5:
	case wood > brown:
		is, through = Bare, throughWood/twigSeen
	default:
		is, through = Brown, throughBrown/mostlySeen
	}
	if through >= 1 {
		return Sky, 0
	}
	return is, gone
}

// unmix takes a colour for so much of one and so much of sky, neither below nothing: by how much that misses it, and
// the share of sky.
func unmix(c, of, sky [3]float64) (miss, through float64) {
	dot := func(a, b [3]float64) float64 { return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] }
	oo, ss, os, co, cs := dot(of, of), dot(sky, sky), dot(of, sky), dot(c, of), dot(c, sky)
	det := oo*ss - os*os
	k, s := 0.0, 0.0
	if det > 1e-9 {
		k, s = (co*ss-cs*os)/det, (cs*oo-co*os)/det
	}
	if k < 0 {
		k, s = 0, cs/ss
	}
	if s < 0 {
		k, s = co/oo, 0
	}
	sum := 0.0
	for i := range c {
		d := c[i] - k*of[i] - s*sky[i]
		sum += d * d
	}
	return math.Sqrt(sum), min(1, s)
}
