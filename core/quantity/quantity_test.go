package quantity

import (
	"strings"
	"testing"

	"mezzadro/core/day"
)

// What a gardener reads off: a tape in centimetres or in inches, a thermometer in either scale.
func TestText(t *testing.T) {
	for _, c := range []struct{ text, metric, imperial string }{
		{"cut at " + Length(0.3), "cut at 30 cm", "cut at 12 in"},
		{Length(1.25), "1.2 m", "4 ft 1 in"},
		{Length(1.8288), "1.8 m", "6 ft"},
		{Length(4.5), "4.5 m", "15 ft"},
		{Length(0.999), "1.0 m", "3 ft 3 in"},
		{Thickness(20), "20 mm", "0.8 in"},
		{Temperature(-11), "−11 °C", "12 °F"},
		{Temperature(0), "0 °C", "32 °F"},
		{Temperature(-40), "−40 °C", "−40 °F"},
		{Temperature(-0.2), "0 °C", "32 °F"},
		{"fell by " + Difference(10), "fell by 10 °C", "fell by 18 °F"},
		{Difference(0), "0 °C", "0 °F"},
		{Speed(20), "20 m/s", "45 mph"},
		{Rain(25.4), "25 mm", "1.0 in"},
		{Rain(508), "508 mm", "20 in"},
		{Volume(60), "60 L", "16 gal"},
		{Distance(8), "8 km", "5 mi"},
		{Area(10), "10 m²", "108 sq ft"},
		{Mass(2.5), "2.5 kg", "5.5 lb"},
		{"no figure at all", "no figure at all", "no figure at all"},
		{"between " + Length(0.5) + " and " + Length(2) + ".", "between 50 cm and 2.0 m.", "between 20 in and 6 ft 7 in."},
	} {
		if got := Metric.Text(c.text); got != c.metric {
			t.Errorf("metric: %q, want %q", got, c.metric)
		}
		if got := (Style{Imperial: true}).Text(c.text); got != c.imperial {
			t.Errorf("imperial: %q, want %q", got, c.imperial)
		}
	}
}

func TestDays(t *testing.T) {
	d := day.Of(2027, 4, 24)
	for _, c := range []struct{ text, dayFirst, monthFirst string }{
		{"until " + Day(d), "until 24 April", "until April 24"},
		{DayOfYear(d), "24 April 2027", "April 24, 2027"},
		{Day(day.None), "no date", "no date"},
		{Day(day.Of(1969, 12, 30)), "30 December", "December 30"},
	} {
		if got := Metric.Text(c.text); got != c.dayFirst {
			t.Errorf("%q, want %q", got, c.dayFirst)
		}
		if got := (Style{MonthFirst: true}).Text(c.text); got != c.monthFirst {
			t.Errorf("%q, want %q", got, c.monthFirst)
		}
	}
	for _, c := range []struct {
		style Style
		want  string
	}{{Style{Year: 2027}, "from 24 April to 19 July 2028"}, {Style{Year: 2028, MonthFirst: true}, "from April 24, 2027 to July 19"},
		{Style{Year: 2026}, "from 24 April 2027 to 19 July 2028"}} {
		if got := c.style.Text("from " + Day(d) + " to " + Day(day.Of(2028, 7, 19))); got != c.want {
			t.Errorf("%+v: %q, want %q", c.style, got, c.want)
		}
	}
}

// A document in JSON stays one, whatever stands in it.
func FuzzText(f *testing.F) {
	f.Add("cut at " + Length(1.2) + ", then")
	f.Add(open + "m" + close + open)
	f.Add(open + open + "q1" + close)
	f.Fuzz(func(t *testing.T, text string) {
		for _, s := range []Style{{}, {Imperial: true, MonthFirst: true}} {
			out := s.Text(text)
			if !strings.Contains(text, open) && out != text {
				t.Errorf("%q became %q", text, out)
			}
			if strings.Count(text, open) == strings.Count(text, close) && strings.Count(text, open) == 1 &&
				strings.Index(text, open) < strings.Index(text, close) && strings.Contains(out, open) {
				t.Errorf("%q kept its marks: %q", text, out)
			}
		}
	})
}
