package replacement

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
	"mezzadro/core/site"
)

// Outgrown is a limit of its place that a plant which stands there meets one day.
type Outgrown struct {
	What  string  `json:"what" enum:"wire,house,path,window,crown,drain"`
	Name  string  `json:"name" doc:"Of what it meets"`
	Years float64 `json:"years" doc:"From now; 0: it does already. An estimate"`
	Text  string  `json:"text"`
}

// Outlook is how a plant that stands on a plan goes on growing, uncut.
type Outlook struct {
	Meets []Outgrown `json:"meets" doc:"The soonest first"`
	Curve []Grown    `json:"curve"`
}

// growing is a plant that stands somewhere.
type growing struct {
	e      *catalogue.Entry
	height float64
	spread float64
	clear  float64
	at     site.At
}

// after some years, uncut: it nears what its kind grows to; what is larger already stays as it is.
func (g *growing) after(years float64) Grown {
	full := math.Max(g.e.Mature.HeightM, g.height)
	wide := math.Max(g.e.Mature.SpreadM, g.spread)
	if full-g.height < 0.01 {
		return Grown{int(years), round(g.height), round(math.Max(g.spread, math.Min(wide, g.spread+years*g.e.GrowthCMYear/100)))}
	}
	// The rate is that of a young plant, as in heightAfter.
	from := math.Min(startM[g.e.Form], 0.6*full)
	share := 1 - math.Exp(-1.4*g.e.GrowthCMYear/100*years/(full-from))
	return Grown{int(years), round(g.height + (full-g.height)*share), round(g.spread + (wide-g.spread)*share)}
}

// Of what is met.
const (
	lookYears  = 40.0
	headroom   = 2.2 // m over a path under which a crown is in the way
	wireFree   = 1.0 // m
	overlapped = 1.0 // of the two radii, at which crowns meet
)

// OutlookOf is how a plant on a plan grows, and which limits of its place it meets within forty years if nobody cuts.
func OutlookOf(p *site.Plan, t *site.Thing, e *catalogue.Entry) Outlook {
	g := growing{e: e, height: t.HeightM, spread: math.Max(t.SpreadM, 0.1), clear: t.ClearM, at: t.Points[0]}
	out := Outlook{Meets: []Outgrown{}, Curve: []Grown{}}
	for _, y := range []float64{0, 3, 5, 10, 15, 20, 30} {
		out.Curve = append(out.Curve, g.after(y))
	}
	if e.Form == catalogue.Climber { // it is led where it should go
		return out
	}
	for i := range p.Things {
		o := &p.Things[i]
		if o.ID == t.ID {
			continue
		}
		what, meets := g.limit(o)
		if what == "" {
			continue
		}
		for y := 0.0; y <= lookYears; y += 0.5 {
			if meets(g.after2(y)) {
				if y > 0 || what == "wire" || what == "house" {
					out.Meets = append(out.Meets, outgrown(what, o, y))
				}
				break
			}
		}
	}
	slices.SortStableFunc(out.Meets, func(a, b Outgrown) int { return int(math.Copysign(1, a.Years-b.Years)) })
	return out
}

// after2 is height and spread at half years too.
func (g *growing) after2(y float64) (height, spread float64) {
	a := g.after(y)
	return a.HeightM, a.SpreadM
}

// limit is what a thing beside a plant is to it, and when it is met; empty where it is none.
func (g *growing) limit(o *site.Thing) (what string, meets func(height, spread float64) bool) {
	d := o.From(g.at)
	switch o.Kind {
	case site.Wire:
		return "wire", func(h, s float64) bool { return s/2+wireFree > d && h > o.HeightM-wireFree }
	case site.Building:
		if d < 0.6 { // it was set against the wall: it grows up and along it, to the eave
			return "house", func(h, _ float64) bool { return h > o.HeightM }
		}
		return "house", func(h, s float64) bool { return s/2 > d && g.clear < o.HeightM }
	case site.Path:
		return "path", func(h, s float64) bool { return s/2 > d+0.3 && g.clear < headroom }
	case site.Window:
		sill := o.HeightM
		if sill == 0 {
			sill = sillUsual
		}
		return "window", func(h, _ float64) bool { return d < windowBefore && h > sill+0.2 && g.clear < sill }
	case site.Drain:
		if g.e.Thirst != "high" || !treelike(g.e) {
			return "", nil
		}
		return "drain", func(_, s float64) bool { return s/2*g.e.RootReach > d }
	case site.Tree, site.Plant:
		if o.SpreadM == 0 || o.Species == g.e.ID || // the same kind was set to close up
			o.HeightM < 0.5*g.height && g.clear > o.HeightM {
			return "", nil
		}
		return "crown", func(h, s float64) bool { return overlapped*(s+o.SpreadM)/2 > d && g.clear < o.HeightM }
	}
	return "", nil
}

func treelike(e *catalogue.Entry) bool {
	return e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Palm
}

// outgrown puts it into words.
func outgrown(what string, o *site.Thing, years float64) Outgrown {
	name := o.Name
	if name == "" {
		name = "the " + string(o.Kind)
	}
	when := "Already"
	switch n := math.Round(years); {
	case years == 0:
	case n <= 1:
		when = "Within a year"
	default:
		when = fmt.Sprintf("In about %.0f years", n)
	}
	verb := map[string]string{
		"wire": "it grows into %s", "house": "its crown meets %s", "path": "it hangs over %s", "window": "it stands before %s",
		"crown": "it grows into %s", "drain": "its roots reach %s",
	}[what]
	text := fmt.Sprintf("%s %s", when, fmt.Sprintf(verb, name))
	if what == "wire" {
		text += ", " + quantity.Length(o.HeightM) + " up"
	}
	return Outgrown{what, name, years, strings.ReplaceAll(text, "the the ", "the ") + ", if nobody cuts it."}
}
