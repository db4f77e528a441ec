package crown

import (
	"math"
	"math/rand/v2"
	"testing"
)

// A made-up picture of a crown whose share of brown and bare is known, pixel by pixel: leaves are painted one over the
// other, lit from one side, shaded, blurred, with grain; behind them is sky. It knows nothing of how colours are read.
type picture struct {
	w, h    int
	colour  [][3]float64 // by pixel, 0 to 255
	truth   []Class
	outline []Point
}

const side = 400

// painted are its colours: leaf kinds by hue (degrees), saturation and value, as one mixes them.
var greens = [][3]float64{{95, 0.55, 0.50}, {110, 0.45, 0.42}, {80, 0.60, 0.62}, {125, 0.35, 0.38}, {88, 0.38, 0.55}, {100, 0.65, 0.36}}
var browns = [][3]float64{{28, 0.50, 0.48}, {35, 0.45, 0.60}, {22, 0.55, 0.36}, {40, 0.42, 0.68}, {30, 0.35, 0.50}}

func rgb(h, s, v float64) [3]float64 {
	f := func(n float64) float64 {
		k := math.Mod(n+h/60, 6)
		return 255 * (v - v*s*max(0, min(k, 4-k, 1)))
	}
	return [3]float64{f(5), f(3), f(1)}
}

// draw paints the picture of a number.
func draw(seed uint64) picture {
	r := rand.New(rand.NewPCG(seed, 7))
	p := picture{w: side, h: side, colour: make([][3]float64, side*side), truth: make([]Class, side*side)}
	sky := [3]float64{150, 185, 225}
	if r.Float64() < 0.4 {
		sky = [3]float64{225, 228, 232} // overcast
	}
	for i := range p.colour {
		p.colour[i], p.truth[i] = sky, Sky
	}
	wide, high := 110+70*r.Float64(), 110+70*r.Float64()
	for a := 0.0; a < 2*math.Pi; a += math.Pi / 20 {
		wobble := 1 + 0.08*math.Sin(3*a+float64(seed))
		p.outline = append(p.outline, Point{side/2 + wide*wobble*math.Cos(a), side/2 + high*wobble*math.Sin(a)})
	}
	green, brown := greens[r.IntN(len(greens))], browns[r.IntN(len(browns))]
	var patches [][3]float64 // where it is dead: centre and radius
	for range 1 + r.IntN(4) {
		patches = append(patches, [3]float64{side/2 + wide*(2*r.Float64()-1), side/2 + high*(2*r.Float64()-1), 20 + 70*r.Float64()})
	}
	scattered := 0.25 * r.Float64()
	bare := r.Float64() < 0.3 // the dead parts have dropped their leaves
	leaf := 4 + 7*r.Float64()
	sun := 2 * math.Pi * r.Float64()
	for range int(60000 / leaf / leaf * (0.5 + r.Float64())) {
		at := Point{side/2 + wide*(2*r.Float64()-1)*1.05, side/2 + high*(2*r.Float64()-1)*1.05}
		if !inside(p.outline, at) {
			continue
		}
		dead := r.Float64() < scattered
		for _, q := range patches {
			dead = dead || math.Hypot(at.X-q[0], at.Y-q[1]) < q[2]*(0.85+0.3*r.Float64())
		}
		light := 0.8 + 0.3*math.Cos(sun)*(at.X-side/2)/wide + 0.3*math.Sin(sun)*(at.Y-side/2)/high
		light = max(0.3, light*(0.7+0.5*r.Float64()))
		switch {
		case dead && bare:
			p.twig(r, at, light)
		case dead:
			p.leaf(r, at, leaf, brown, light, Brown)
		default:
			p.leaf(r, at, leaf, green, light, Green)
		}
	}
	p.blur(r.IntN(3))
	grain := 3 + 6*r.Float64()
	for i := range p.colour {
		for c := range 3 {
			p.colour[i][c] = min(255, max(0, p.colour[i][c]+grain*r.NormFloat64()))
		}
	}
	return p
}

// leaf paints one, of its own shade; in shade light is bluer.
func (p *picture) leaf(r *rand.Rand, at Point, size float64, hsv [3]float64, light float64, is Class) {
	c := rgb(hsv[0]+6*r.NormFloat64(), min(1, max(0.08, hsv[1]+0.06*r.NormFloat64())), min(1, max(0.1, hsv[2]+0.06*r.NormFloat64())))
	c = lit(c, light)
	sin, cos := math.Sincos(math.Pi * r.Float64())
	for y := int(at.Y - size); y <= int(at.Y+size); y++ {
		for x := int(at.X - size); x <= int(at.X+size); x++ {
			dx, dy := float64(x)-at.X, float64(y)-at.Y
			u, v := dx*cos+dy*sin, -dx*sin+dy*cos
			if u*u/(size*size)+v*v/(0.2*size*size) <= 1 {
				p.set(x, y, c, is)
			}
		}
	}
}

func (p *picture) twig(r *rand.Rand, at Point, light float64) {
	c := lit([3]float64{112 + 10*r.NormFloat64(), 104 + 8*r.NormFloat64(), 97 + 8*r.NormFloat64()}, light)
	turn := 2 * math.Pi * r.Float64()
	for s := 0.0; s < 16; s += 0.5 {
		for w := range 3 {
			p.set(int(at.X+s*math.Cos(turn))+w, int(at.Y+s*math.Sin(turn)), c, Bare)
		}
	}
}

func lit(c [3]float64, light float64) [3]float64 {
	blue := 1.0
	if light < 0.6 {
		blue = 1.12
	}
	return [3]float64{min(255, c[0]*light), min(255, c[1]*light), min(255, c[2]*light*blue)}
}

func (p *picture) set(x, y int, c [3]float64, is Class) {
	if x >= 0 && y >= 0 && x < p.w && y < p.h {
		p.colour[y*p.w+x], p.truth[y*p.w+x] = c, is
	}
}

func (p *picture) blur(n int) {
	for range n {
		old := append([][3]float64{}, p.colour...)
		for y := 1; y < p.h-1; y++ {
			for x := 1; x < p.w-1; x++ {
				var sum [3]float64
				for _, at := range [3]int{(y-1)*p.w + x, y*p.w + x, (y+1)*p.w + x} {
					for i := at - 1; i <= at+1; i++ {
						for c := range 3 {
							sum[c] += old[i][c]
						}
					}
				}
				p.colour[y*p.w+x] = [3]float64{sum[0] / 9, sum[1] / 9, sum[2] / 9}
			}
		}
	}
}

// share is what is truly brown or bare of what is crown within the outline.
func (p *picture) share() float64 {
	gone, all := 0.0, 0.0
	for y := 0; y < p.h; y += 2 {
		for x := 0; x < p.w; x += 2 {
			if is := p.truth[y*p.w+x]; is != Sky && inside(p.outline, Point{float64(x), float64(y)}) {
				all++
				if is != Green {
					gone++
				}
			}
		}
	}
	return gone / max(1, all)
}

// at is the colour of a point as the page reads it: the mean of three by three pixels; and what is truly there.
func (p *picture) at(q Point) (Colour, Class) {
	x, y := min(p.w-2, max(1, int(q.X))), min(p.h-2, max(1, int(q.Y)))
	var sum [3]float64
	for dy := -1; dy <= 1; dy++ {
		for dx := -1; dx <= 1; dx++ {
			for c := range 3 {
				sum[c] += p.colour[(y+dy)*p.w+x+dx][c] / 9
			}
		}
	}
	return Colour{int(sum[0]), int(sum[1]), int(sum[2])}, p.truth[y*p.w+x]
}

// TestIntervalsHold: over 240 made-up pictures the interval holds the true share in four of five as the
// colours are proposed, and in nineteen of twenty once every point was looked at.
func TestIntervalsHold(t *testing.T) {
	const n = 240
	held, heldLooked, right, all := 0, 0, 0, 0
	wide := 0.0
	for seed := range uint64(n) {
		p := draw(seed)
		points, err := Lay(p.outline, 120)
		if err != nil {
			t.Fatal(err)
		}
		a := Asked{Told: map[int]Class{}}
		truth := make([]Class, len(points))
		for i, q := range points {
			c, is := p.at(q)
			a.Colours, truth[i] = append(a.Colours, c), is
		}
		got, err := Read(a)
		if err != nil {
			t.Fatal(err)
		}
		share := p.share()
		if share >= got.Low && share <= got.High {
			held++
		}
		wide += got.High - got.Low
		for i, is := range truth {
			all++
			gone, read := is == Brown || is == Bare, got.Classes[i] == Brown || got.Classes[i] == Bare
			if gone == read && (is == Sky) == (got.Classes[i] == Sky) {
				right++
			}
			a.Told[i] = is
		}
		a.Looked = true
		if got, err = Read(a); err != nil {
			t.Fatal(err)
		}
		if share >= got.Low && share <= got.High {
			heldLooked++
		}
	}
	t.Logf("as proposed %.1f %% hold, mean width %.1f %%, %.1f %% of points right; looked at %.1f %%",
		100*float64(held)/n, 100*wide/n, 100*float64(right)/float64(all), 100*float64(heldLooked)/n)
	if held < 75*n/100 || held > 85*n/100 {
		t.Errorf("as proposed the interval holds in %d of %d, want 75 to 85 in 100", held, n)
	}
	if heldLooked < 95*n/100 {
		t.Errorf("looked at the interval holds in %d of %d, want 95 in 100", heldLooked, n)
	}
}
