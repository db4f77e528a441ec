// Package crown counts a crown by points on a picture: how much of it is green, brown, bare, and how much one sees
// through. A share is a count of points with an interval, as in any sample; the colours of the points are proposed as
// what they most likely are, by hue in CIE L*a*b* (CIE 15:2018, D65), and whoever looks at the picture corrects them.
package crown

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
)

// Point is a place on the picture, px from its left and upper edge.
type Point struct {
	X float64 `json:"x" doc:"px from the left edge"`
	Y float64 `json:"y" doc:"px from the upper edge"`
}

// Colour is that of a point: red, green and blue of sRGB, 0 to 255 each.
type Colour [3]int

// Class is what a point shows.
type Class string

const (
	Green Class = "green" // living leaf
	Brown Class = "brown" // dead leaf
	Bare  Class = "bare"  // wood without leaf
	Sky   Class = "sky"   // what is seen through the crown
	Dark  Class = "dark"  // too dark to tell: not counted
)

// Limits of what is asked.
const (
	Fewest = 20  // points below which nothing is told
	Most   = 400 // that are read
)

// Count is what the points of a crown come to.
type Count struct {
	Classes []Class `json:"classes" doc:"Of each point: green, brown, bare, sky, or dark where it cannot be told"`
	Unsure  []int   `json:"unsure" doc:"Points that are near the border of two classes, from 0"`
	Green   int     `json:"green" doc:"Points of living leaf"`
	Brown   int     `json:"brown" doc:"Points of dead leaf"`
	Bare    int     `json:"bare" doc:"Points of wood without leaf"`
	Sky     int     `json:"sky" doc:"Points through which one sees what is behind"`
	Dark    int     `json:"dark" doc:"Points that are too dark to tell; they are not counted"`
	Share   float64 `json:"share" doc:"Brown or bare, of what is crown, 0 to 1"`
	Low     float64 `json:"low" doc:"Where the true share lies as often as sure says: from"`
	High    float64 `json:"high" doc:"Until"`
	Sure    float64 `json:"sure" doc:"How often the interval holds the true share of what the picture shows: 0.8 as proposed, 0.95 once every point was looked at"`
	Text    string  `json:"text"`
}

// Asked are the points of a crown and what was said of them.
type Asked struct {
	Colours []Colour      `json:"colours" minItems:"20" maxItems:"400" doc:"Of each point: red, green and blue, 0 to 255"`
	Lean    float64       `json:"lean,omitempty" minimum:"-1" maximum:"1" doc:"Above 0 more counts as brown, below 0 less"`
	Told    map[int]Class `json:"told,omitempty" doc:"What somebody said of a point, by its place from 0: green, brown, bare, sky or dark"`
	Looked  bool          `json:"looked,omitempty" doc:"Every point was looked at, and those that were wrong are told"`
}

// How doubt is reckoned. The border between green and brown is nowhere known to better than a few degrees of hue.
const (
	sureProposed = 0.8
	sureLooked   = 0.95
	borderSD     = 7.0  // degrees of hue
	leastDoubt   = 0.03 // of a share, however plain the colours are
	thinDoubt    = 0.4  // of wood: twigs are thinner than a point, and taken for sky or for the leaves beside them
	unsureFrom   = 0.2  // chance of the other class from which a point is worth a look
)

// Read counts a crown.
func Read(a Asked) (Count, error) {
	var bad invalid.Fields
	bad.Within("lean", a.Lean, -1, 1, "")
	if n := len(a.Colours); n < Fewest || n > Most {
		bad.Add("colours", n, "%d points: want %d to %d", n, Fewest, Most)
	}
	for i, c := range a.Colours {
		if min(c[0], c[1], c[2]) < 0 || max(c[0], c[1], c[2]) > 255 {
			bad.Add(fmt.Sprintf("colours[%d]", i), c, "%v: want 0 to 255 each", c)
		}
	}
	for i, c := range a.Told {
		if i < 0 || i >= len(a.Colours) {
			bad.Add("told", i, "there is no point %d", i)
		}
		if c != Green && c != Brown && c != Bare && c != Sky && c != Dark {
			bad.Add("told", string(c), "%q: want green, brown, bare, sky or dark", c)
		}
	}
	if err := bad.Err(); err != nil {
		return Count{}, err
	}
	labs := make([]lab, len(a.Colours))
	for i, c := range a.Colours {
		labs[i] = labOf(c)
	}
	border := borderOf(labs) + leanBy*a.Lean
	out := Count{Classes: make([]Class, len(labs)), Unsure: []int{}, Sure: sureProposed}
	r := readerOf(a.Colours, labs, border)
	for i, l := range labs {
		is, gone := r.reads(a.Colours[i], l)
		if told, said := a.Told[i]; said {
			is = told
		} else if !a.Looked && is != Sky && is != Dark && math.Min(gone, 1-gone) >= unsureFrom {
			out.Unsure = append(out.Unsure, i)
		}
		out.Classes[i] = is
	}
	out.tally()
	if a.Looked {
		out.Sure = sureLooked
		out.interval(out.gone(), float64(out.crown()), 0)
	} else {
		share, n := a.expected(labs, r)
		r.border = border + borderSD
		up, _ := a.expected(labs, r)
		r.border = border - borderSD
		down, _ := a.expected(labs, r)
		thin := thinDoubt * float64(out.Bare) / max(1, n)
		out.interval(share, n, math.Sqrt((up-down)*(up-down)/4+leastDoubt*leastDoubt+thin*thin))
	}
	out.Text = out.text()
	return out, nil
}

func (c *Count) tally() {
	for _, is := range c.Classes {
		switch is {
		case Green:
			c.Green++
		case Brown:
			c.Brown++
		case Bare:
			c.Bare++
		case Sky:
			c.Sky++
		case Dark:
			c.Dark++
		}
	}
}

// crown are the points that show the plant.
func (c *Count) crown() int { return c.Green + c.Brown + c.Bare }

func (c *Count) gone() float64 {
	if c.crown() == 0 {
		return 0
	}
	return float64(c.Brown+c.Bare) / float64(c.crown())
}

// expected is the share that is brown or bare, each point by its chance, and how many points show the plant.
func (a Asked) expected(labs []lab, r reader) (share, n float64) {
	for i, l := range labs {
		is, gone := r.reads(a.Colours[i], l)
		if said, known := a.Told[i]; known {
			is, gone = said, 1
			if said == Green {
				gone = 0
			}
		}
		if is == Sky || is == Dark {
			continue
		}
		share, n = share+gone, n+1
	}
	return share / max(1, n), n
}

// interval is where the true share lies: by the number of points (a beta distribution after Jeffreys), wider by the
// doubt of the border.
func (c *Count) interval(share, n, doubt float64) {
	c.Share = quantity.Round(share, 0.001)
	if n < 1 {
		c.Low, c.High = 0, 1
		return
	}
	p := (share*n + 0.5) / (n + 1)
	variance := p*(1-p)/(n+1) + doubt*doubt
	m := max(1.0, p*(1-p)/variance-1)
	b := distuv.Beta{Alpha: p * m, Beta: (1 - p) * m}
	c.Low = quantity.Round(b.Quantile((1-c.Sure)/2), 0.001)
	c.High = quantity.Round(b.Quantile((1+c.Sure)/2), 0.001)
	if share == 0 {
		c.Low = 0
	}
	if share == 1 {
		c.High = 1
	}
}

func (c *Count) text() string {
	if c.crown() < Fewest {
		return "Too little of the crown is on it: outline more of it, or take the picture nearer."
	}
	how := "as the colours say, 4 times in 5"
	if c.Sure == sureLooked {
		how = "19 times in 20"
	}
	said := fmt.Sprintf("%.0f %% brown or bare: between %.0f and %.0f %%, %s", 100*c.Share, 100*c.Low, 100*c.High, how)
	if all := c.crown() + c.Sky; 3*c.Sky > all {
		said += fmt.Sprintf(". One sees through %.0f %% of it", 100*float64(c.Sky)/float64(all))
	}
	return said + "."
}

// Change is what a count says against an earlier one: more or less is gone; nothing where chance explains it.
func Change(before, now Count) string {
	switch z := sdOf(before)*sdOf(before) + sdOf(now)*sdOf(now); {
	case now.Share-before.Share > beyondChance*math.Sqrt(z):
		return "more"
	case before.Share-now.Share > beyondChance*math.Sqrt(z):
		return "less"
	}
	return ""
}

// beyondChance is how many standard deviations two counts have to differ.
const beyondChance = 1.64

// sdOf is the standard deviation that an interval stands for.
func sdOf(c Count) float64 {
	return (c.High - c.Low) / 2 / distuv.UnitNormal.Quantile((1+c.Sure)/2)
}
