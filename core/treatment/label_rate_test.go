package treatment

import (
	"math"
	"strings"
	"testing"
)

// TestLabelRates: what labels of either side say, and what is measured out by it: the sums as one does them by hand in the
// label's own units.
func TestLabelRates(t *testing.T) {
	const gallon, sqft, inch = 3.78541, 0.092903, 2.54
	for _, c := range []struct {
		amount    float64
		unit, per string
		card      string
		much      float64 // of what the rate is for, as it is kept: L, m², m of height, cm of girth, plants
		want      float64 // in the unit of the label
		says      string
	}{
		{2, "fl oz", "gal", "mL", 5 * gallon, 10, "2 fl oz for a gallon"},
		{1, "qt", "100 gal", "mL", 50 * gallon, 0.5, "1 qt for 100 gallons"},
		{3, "tbsp", "gal", "mL", 2 * gallon, 6, "3 tbsp for a gallon"},
		{1, "lb", "1000 sq ft", "g", 500 * sqft, 0.5, "1 lb for 1,000 square feet"},
		{4, "lb", "acre", "g", 43560 * 2 * sqft, 8, "4 lb for an acre"},
		{0.5, "fl oz", "in diameter", "mL", 10 * inch * math.Pi, 5, "0.5 fl oz for an inch of trunk diameter"},
		{0.2, "fl oz", "in girth", "mL", 30 * inch, 6, "0.2 fl oz for an inch of girth"},
		{1.5, "fl oz", "ft height", "mL", 6 * 0.3048, 9, "1.5 fl oz for a foot of height"},
		{20, "mL", "10 L", "mL", 15, 30, "20 mL for 10 litres"},
		{250, "mL", "100 L", "mL", 40, 100, "250 mL for 100 litres"},
		{40, "kg", "ha", "g", 500, 2, "40 kg for a hectare"},
		{1, "piece", "plant", "piece", 7, 7, "1 piece for a plant"},
		{15, "mL", "cm diameter", "mL", 30 * math.Pi, 450, "15 mL for a centimetre of trunk diameter"},
	} {
		card, err := Card{Name: "A label", Active: "soap", Unit: c.card,
			Rates: []Rate{{Entered: &Entered{c.amount, c.unit, c.per}}}}.Settled()
		if err != nil {
			t.Errorf("%s: %v", c.says, err)
			continue
		}
		r := card.Rates[0]
		if got := r.Amount * c.much / measures[c.unit].each; math.Abs(got-c.want) > 2e-4*c.want {
			t.Errorf("%s: %g %s measured out, want %g", c.says, got, c.unit, c.want)
		}
		if got := r.Text(c.card); got != c.says {
			t.Errorf("said %q, want %q", got, c.says)
		}
	}
	for says, e := range map[string]Entered{"none of it": {1, "oz", "gal"}, "want one of": {1, "cup", "gal"}, `"acre"`: {1, "fl oz", "rod"},
		"is none": {0, "fl oz", "gal"}} {
		_, err := Card{Name: "A label", Active: "soap", Unit: "mL", Rates: []Rate{{Entered: &e}}}.Settled()
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%+v: %v, want it to say %s", e, err, says)
		}
	}
}
