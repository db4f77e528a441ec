package cause

import (
	"cmp"
	"slices"

	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
)

// Confirmed is a cause that was found at a plant, with what the plant and the month let expect before anything was seen.
type Confirmed struct {
	Cause   string // id
	Species *catalogue.Entry
	Month   int // 1 to 12, of the northern year
	Site    Site
}

// Often is how often a firm finds a cause, against what the book lets expect on the kinds, months and places in which
// it found anything.
type Often struct {
	Cause    string  `json:"cause" doc:"Id in the book of causes"`
	Name     string  `json:"name"`
	Found    int     `json:"found" doc:"How often it was found"`
	Expected float64 `json:"expected" doc:"How often the book lets expect it on the same kinds in the same months"`
	Times    float64 `json:"times" doc:"How many times as often, drawn towards 1 where little was found"`
	Low      float64 `json:"low" doc:"Of an interval so wide that hardly ever one cause of all is told wrong: from"`
	High     float64 `json:"high" doc:"Until"`
	Grave    bool    `json:"grave" doc:"It kills, or is to be reported: it is never taken for rarer than the book says"`
}

// What is taken for granted before anything is known.
const (
	fewestFinds = 30    // of a firm before anything is said
	worthFinds  = 4.0   // expected finds that the book's word is worth: a spread of one half
	sureOfAll   = 0.003 // to either side: some hundred causes are asked about at once
	seldomest   = 0.5   // a cause is never taken for rarer than this by what one firm found, nor for more frequent than:
	oftenest    = 3.0
)

// Beyond reports that chance does not explain it.
func (o Often) Beyond() bool { return o.Low > 1 || o.High < 1 }

// Used is the factor as causes are weighed by it: 1 as long as chance may explain it.
func (o Often) Used() float64 {
	if !o.Beyond() {
		return 1
	}
	least := seldomest
	if o.Grave {
		least = 1
	}
	return min(max(o.Times, least), oftenest)
}

// Ours counts what a firm found, those farthest from the book first; none below thirty finds. Counts are Poisson about what the
// book lets expect, times a factor of the firm's with a gamma distribution (Gelman et al. 2013).
func (b *Book) Ours(list []Confirmed) []Often {
	out := []Often{}
	if len(list) < fewestFinds {
		return out
	}
	found, expected := make([]int, len(b.Causes)), make([]float64, len(b.Causes))
	type asked struct {
		kind  string
		month int
		site  Site
	}
	shares := map[asked][]float64{}
	for _, f := range list {
		at := slices.IndexFunc(b.Causes, func(c Cause) bool { return c.ID == f.Cause })
		if at < 0 || !b.Causes[at].kept() {
			continue
		}
		found[at]++
		key := asked{month: f.Month, site: f.Site}
		if f.Species != nil {
			key.kind = f.Species.ID
		}
		if shares[key] == nil {
			shares[key] = b.sharesOf(Case{Species: f.Species, Month: f.Month, Site: f.Site})
		}
		floats.Add(expected, shares[key])
	}
	for i := range b.Causes {
		if found[i] > 0 || expected[i] >= 1 {
			out = append(out, often(&b.Causes[i], found[i], expected[i]))
		}
	}
	slices.SortStableFunc(out, func(x, y Often) int {
		return cmp.Or(-cmp.Compare(far(x), far(y)), -cmp.Compare(x.Found, y.Found))
	})
	return out
}

// kept reports a cause that is kept as a find where it is met: nobody writes down lichen.
func (c *Cause) kept() bool { return c.Harm != "harmless" }

// sharesOf is how often each cause is met on a plant before anything is seen on it, as shares of all.
func (b *Book) sharesOf(k Case) []float64 {
	out := make([]float64, len(b.Causes))
	for i := range b.Causes {
		if c := &b.Causes[i]; c.kept() {
			out[i] = b.before(c, k, c.inSeason(k), nil)
		}
	}
	floats.Scale(1/floats.Sum(out), out)
	return out
}

func often(c *Cause, found int, expected float64) Often {
	g := distuv.Gamma{Alpha: worthFinds + float64(found), Beta: worthFinds + expected}
	return Often{
		Cause:    c.ID,
		Name:     c.Name,
		Found:    found,
		Expected: quantity.Round(expected, 0.1),
		Times:    quantity.Round(g.Mean(), 0.01),
		Low:      quantity.Round(g.Quantile(sureOfAll), 0.01),
		High:     quantity.Round(g.Quantile(1-sureOfAll), 0.01),
		Grave:    c.Report || c.Harm == "deadly",
	}
}

// far orders by how far a factor that is beyond chance lies from 1.
func far(o Often) float64 {
	u := o.Used()
	return max(u, 1/u)
}

// oftener is how much oftener than the book says a cause is met: on plants nearby, or else by the firm at all.
func (k Case) oftener(cause string) float64 {
	if near := k.Near[cause]; near > 1 {
		return near
	}
	if ours, told := k.Ours[cause]; told {
		return ours
	}
	return 1
}
