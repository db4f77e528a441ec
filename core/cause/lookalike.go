package cause

import (
	"cmp"
	"math"
	"slices"
)

// Parting is a sign that tells two causes apart.
type Parting struct {
	Sign
	Mine   float64 `json:"mine" doc:"How often it shows where the cause is at work, 0 to 1"`
	Theirs float64 `json:"theirs" doc:"The same where the look-alike is"`
}

// LookAlike is a cause that another is taken for, with the signs that part them.
type LookAlike struct {
	ID    string    `json:"id"`
	Name  string    `json:"name"`
	Harm  string    `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	Act   string    `json:"act" enum:"none,watch,habitat,hands,water,cut,soft,strong,replace"`
	Parts []Parting `json:"parts" doc:"The sign that parts them best first"`
}

// Shown is how often a cause shows a sign.
type Shown struct {
	Sign
	Chance float64 `json:"chance" doc:"How often it is seen where the cause is at work, 0 to 1"`
}

// Page is what the book says of a cause.
type Page struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Group   string      `json:"group"`
	Harm    string      `json:"harm" enum:"harmless,ugly,weakening,deadly"`
	To      string      `json:"to" enum:"it,its kind,all"`
	Act     string      `json:"act" enum:"none,watch,habitat,hands,water,cut,soft,strong,replace"`
	Do      string      `json:"do"`
	Picture [][]string  `json:"picture" doc:"Drawings of the signs that tell it, the best first, each a part and the mark on it"`
	Light   string      `json:"light,omitempty" doc:"What is enough while little of the plant shows it"`
	Heavy   string      `json:"heavy,omitempty" doc:"What to do when most of it does"`
	Report  bool        `json:"report" doc:"Reportable in many places: ask the plant health office"`
	Travels string      `json:"travels" doc:"How it gets about; empty where it does not"`
	Warmth  float64     `json:"warmth,omitempty" doc:"Degree-days over 10 °C since midwinter from which it is at work"`
	Months  []int       `json:"months,omitempty" doc:"First and last month of the northern year it can be at work in"`
	Hosts   []string    `json:"hosts" doc:"Genera, families and forms it keeps to; empty where it takes many"`
	Spares  []string    `json:"spares" doc:"Kinds of its hosts that seldom have it, by catalogue id"`
	Signs   []Shown     `json:"signs" doc:"The commonest first"`
	Alike   []LookAlike `json:"alike" doc:"What it is taken for, and what is taken for it"`
}

// Page tells all the book knows of a cause; nil where there is none.
func (b *Book) Page(id string) *Page {
	c := b.cause[id]
	if c == nil {
		return nil
	}
	p := &Page{ID: c.ID, Name: c.Name, Group: c.Group, Harm: c.Harm, To: c.To, Act: c.Act, Do: c.Do, Picture: c.Picture, Light: c.Way.Light, Heavy: c.Way.Heavy,
		Report: c.Report, Travels: c.Travels(), Warmth: c.Way.Warmth, Months: c.When, Hosts: []string{}, Spares: append([]string{}, c.Way.Resists...),
		Signs: []Shown{}, Alike: []LookAlike{}}
	if h := c.Hosts; h != nil {
		p.Hosts = append(append(append(p.Hosts, h.Genus...), h.Family...), h.Form...)
	}
	for sign, chance := range c.Signs {
		p.Signs = append(p.Signs, Shown{*b.sign[sign], chance})
	}
	slices.SortFunc(p.Signs, func(x, y Shown) int {
		return cmp.Or(cmp.Compare(y.Chance, x.Chance), cmp.Compare(x.ID, y.ID))
	})
	for i := range b.Causes {
		o := &b.Causes[i]
		if slices.Contains(c.Mistaken, o.ID) || slices.Contains(o.Mistaken, c.ID) {
			p.Alike = append(p.Alike, LookAlike{ID: o.ID, Name: o.Name, Harm: o.Harm, Act: o.Act, Parts: b.PartedBy(c, o)})
		}
	}
	return p
}

const partings = 4 // signs told of a pair

// PartedBy are the signs that tell two causes apart, the best first: by how far a look at one moves the odds between
// them, on average over both, for the minutes it takes.
func (b *Book) PartedBy(x, y *Cause) []Parting {
	var out []Parting
	worth := map[string]float64{}
	for i := range b.Signs {
		s := &b.Signs[i]
		mine, theirs := b.shows(x, s, true), b.shows(y, s, true)
		if w := (mine - theirs) * math.Log(mine/theirs) / math.Sqrt(s.Minutes); w > 0.2 {
			worth[s.ID] = w
			out = append(out, Parting{*s, mine, theirs})
		}
	}
	slices.SortStableFunc(out, func(p, q Parting) int { return cmp.Compare(worth[q.ID], worth[p.ID]) })
	return out[:min(len(out), partings)]
}
