package treatment

import (
	"maps"
	"math"
	"slices"
	"strconv"

	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
)

// Entered is a rate in the label's own units; what it comes to in the card's unit is worked out from it.
type Entered struct {
	Amount float64 `json:"amount" doc:"As on the label"`
	Unit   string  `json:"unit" doc:"Of the amount, those of the United States" enum:"mL,L,fl oz,pt,qt,gal,tsp,tbsp,g,kg,oz,lb,piece"`
	Per    string  `json:"per" doc:"What it is for" enum:"L,10 L,100 L,gal,100 gal,m2,100 m2,ha,1000 sq ft,acre,plant,m height,ft height,cm girth,cm diameter,in girth,in diameter"`
}

// measures are the units of labels: in which unit of a card they are kept, and how many of it one is. Those of the
// United States.
var measures = map[string]struct {
	card string
	each float64
}{
	"mL": {"mL", 1}, "L": {"mL", 1000}, "fl oz": {"mL", 29.5735}, "pt": {"mL", 473.176}, "qt": {"mL", 946.353},
	"gal": {"mL", 3785.41}, "tsp": {"mL", 4.92892}, "tbsp": {"mL", 14.7868},
	"g": {"g", 1}, "kg": {"g", 1000}, "oz": {"g", 28.3495}, "lb": {"g", 453.592}, "piece": {"piece", 1},
}

// bases are what labels give rates for: what that is kept as, how much of it that is, and how one says it.
var bases = map[string]struct {
	per  string
	size float64
	say  string
}{
	"L": {"L", 1, "a litre"}, "10 L": {"L", 10, "10 litres"}, "100 L": {"L", 100, "100 litres"},
	"gal": {"L", 3.78541, "a gallon"}, "100 gal": {"L", 378.541, "100 gallons"},
	"m2": {"m2", 1, "a square metre"}, "100 m2": {"m2", 100, "100 square metres"}, "ha": {"m2", 10_000, "a hectare"},
	"1000 sq ft": {"m2", 92.903, "1,000 square feet"}, "acre": {"m2", 4046.86, "an acre"},
	"plant": {"plant", 1, "a plant"}, "m height": {"m height", 1, "a metre of height"},
	"ft height": {"m height", 0.3048, "a foot of height"}, "cm girth": {"cm girth", 1, "a centimetre of girth"},
	"cm diameter": {"cm girth", math.Pi, "a centimetre of trunk diameter"},
	"in girth":    {"cm girth", 2.54, "an inch of girth"},
	"in diameter": {"cm girth", 2.54 * math.Pi, "an inch of trunk diameter"},
}

// settle works a rate out from the label's own units, where it was entered so. It names what does not go together.
func (r *Rate) settle(unit, path string, bad *invalid.Fields) {
	e := r.Entered
	if r.Says = ""; e == nil {
		return
	}
	m, known := measures[e.Unit]
	b, is := bases[e.Per]
	switch {
	case !known:
		bad.Add(path+"entered.unit", e.Unit, "want one of %q", slices.Sorted(maps.Keys(measures)))
	case m.card != unit:
		bad.Add(path+"entered.unit", e.Unit, "the card is measured in %s, and %s is none of it", unit, e.Unit)
	case !is:
		bad.Add(path+"entered.per", e.Per, "want one of %q", slices.Sorted(maps.Keys(bases)))
	default:
		r.Amount, r.Per = figures(e.Amount*m.each/b.size, 7), b.per
	}
}

// figures is a value to so many figures that count.
func figures(v float64, n int) float64 {
	out, err := strconv.ParseFloat(strconv.FormatFloat(v, 'g', n, 64), 64)
	if err != nil {
		return v
	}
	return out
}

// Text is the rate as it was entered from the label: "2 fl oz for 100 gallons"; unit is the card's.
func (r Rate) Text(unit string) string {
	if e := r.Entered; e != nil {
		return quantity.Metric.Noted(e.Amount, e.Unit) + " for " + bases[e.Per].say
	}
	return quantity.Metric.Noted(r.Amount, unit) + " for " + bases[r.Per].say
}

// Settled is the card with its rates worked out from the labels' own units. Its error names what does not go together,
// and what else cannot be on a card.
func (c Card) Settled() (Card, error) {
	c, bad := c.settled("")
	if bad != nil {
		return c, bad
	}
	return c, c.Validate()
}

// Settle is Settled for the cards of a question; what else cannot be on them its own check says.
func Settle(cards []Card) ([]Card, error) {
	var all invalid.Fields
	out := slices.Clone(cards)
	for i := range out {
		var bad invalid.Fields
		out[i], bad = out[i].settled(at("cards", i))
		all = append(all, bad...)
	}
	return out, all.Err()
}

func (c Card) settled(path string) (out Card, bad invalid.Fields) {
	c.Rates = slices.Clone(c.Rates)
	for i := range c.Rates {
		c.Rates[i].settle(c.Unit, path+at("rates", i), &bad)
	}
	return c, bad
}
