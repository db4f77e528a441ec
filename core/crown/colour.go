package crown

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"
)

// lab is a colour as lightness L* (0 black, 100 white), a* (green below 0, red above) and b* (blue below 0, yellow above).
type lab struct{ l, a, b float64 }

// Where colours part, in L*a*b*.
const (
	usualBorder = 94.0 // hue, degrees: browns lie below, greens above
	lowBorder   = 84.0 // straw is no lower, fresh yellow-green no higher:
	highBorder  = 102.0
	leanBy      = 14.0 // degrees that the whole slider shifts it
	softness    = 4.5  // degrees over which brown fades into green
	greyC       = 9.0  // chroma below which a colour is wood, unless it leans to green
	greenA      = -3.5 // a* from which down a greyish colour is a leaf
	greySoft    = 1.0
	skyB        = -4.0 // b* from which down a light colour is sky
	skyL        = 40.0
	whiteL      = 84.0 // a light colour without hue is cloud
	whiteC      = 12.0
	darkL       = 9.0  // below it nothing is told
	apartBy     = 18.0 // degrees between two heaps of hues that are told apart
	leastHeap   = 0.06
)

func labOf(c Colour) lab {
	var lin [3]float64
	for i, v := range c {
		s := float64(v) / 255
		if s <= 0.04045 {
			lin[i] = s / 12.92
		} else {
			lin[i] = math.Pow((s+0.055)/1.055, 2.4)
		}
	}
	f := func(t float64) float64 {
		if t > 216.0/24389 {
			return math.Cbrt(t)
		}
		return (24389.0/27*t + 16) / 116
	}
	x := f((0.4124564*lin[0] + 0.3575761*lin[1] + 0.1804375*lin[2]) / 0.95047)
	y := f(0.2126729*lin[0] + 0.7151522*lin[1] + 0.0721750*lin[2])
	z := f((0.0193339*lin[0] + 0.1191920*lin[1] + 0.9503041*lin[2]) / 1.08883)
	return lab{116*y - 16, 500 * (x - y), 200 * (y - z)}
}

func (l lab) chroma() float64 { return math.Hypot(l.a, l.b) }

// hue in degrees: red 0, yellow 90, green about 135, blue 270; what lies between blue and red counts from below 0.
func (l lab) hue() float64 {
	h := math.Atan2(l.b, l.a) * 180 / math.Pi
	if h < -60 {
		h += 360
	}
	return h
}

// leafy reports a colour that has hue enough to be a leaf, green or brown.
func (l lab) leafy() bool { return l.l >= darkL && !l.sky() && l.chroma() >= greyC }

func (l lab) sky() bool {
	return l.b <= skyB && l.l >= skyL && l.a < 12 || l.l >= whiteL && l.chroma() < whiteC
}

// reads is what a colour most likely shows, and the chance that it is brown or bare where it shows the plant.
func (l lab) reads(border float64) (is Class, gone float64) {
	switch {
	case l.sky():
		return Sky, 0
	case l.l < darkL:
		return Dark, 0
	case l.chroma() < greyC:
		if gone = fade((l.a - greenA) / greySoft); gone >= 0.5 {
			return Bare, gone
		}
		return Green, gone
	}
	if gone = fade((border - l.hue()) / softness); gone >= 0.5 {
		return Brown, gone
	}
	return Green, gone
}

func fade(x float64) float64 { return 1 / (1 + math.Exp(-x)) }

// borderOf is the hue that parts the greens of this crown from its browns: between two heaps where there are two
// (the cut of largest variance between them, Otsu 1979), else where it usually lies.
func borderOf(labs []lab) float64 {
	var hues []float64
	for _, l := range labs {
		if l.leafy() {
			hues = append(hues, l.hue())
		}
	}
	if len(hues) < Fewest {
		return usualBorder
	}
	slices.Sort(hues)
	best, at := 0.0, usualBorder
	for border := lowBorder; border <= highBorder; border++ {
		k, _ := slices.BinarySearch(hues, border)
		share := float64(k) / float64(len(hues))
		if share < leastHeap || share > 1-leastHeap {
			continue
		}
		low, high := stat.Mean(hues[:k], nil), stat.Mean(hues[k:], nil)
		if high-low < apartBy {
			continue
		}
		if v := share * (1 - share) * (high - low) * (high - low); v > best {
			best, at = v, border
		}
	}
	return at
}
