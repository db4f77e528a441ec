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

// TestNoted: what was used stands in the record as it was noted, and by the ounce and the gallon for a firm
// that measures so.
func TestNoted(t *testing.T) {
	for _, c := range []struct {
		v            float64
		unit         string
		metric, feet string
	}{{24.6, "mL", "24.6 mL", "0.832 fl oz"}, {18.9271, "L", "18.9271 L", "5 gal"}, {141.7, "g", "141.7 g", "5 oz"}, {3, "piece", "3 pieces", "3 pieces"}, {1, "piece", "1 piece", "1 piece"}, {0.3, "L", "0.3 L", "10.1 fl oz"}, {0, "mL", "", ""}} {
		if got := Metric.Noted(c.v, c.unit); got != c.metric {
			t.Errorf("%g %s: %q", c.v, c.unit, got)
		}
		if got := (Style{Imperial: true}).Noted(c.v, c.unit); got != c.feet {
			t.Errorf("%g %s: %q, want %q", c.v, c.unit, got, c.feet)
		}
	}
}

// TestSmallVolumes: less than a quart is told in fluid ounces, spray by the cubic yard, water by the foot; no figure is
// rounded to nothing.
func TestSmallVolumes(t *testing.T) {
	for _, c := range []struct{ text, metric, imperial string }{
		{Volume(0.1), "0.1 L", "3.4 fl oz"}, {Volume(0.6), "0.6 L", "20 fl oz"}, {Volume(2.5), "2.5 L", "0.66 gal"}, {Volume(20), "20 L", "5.3 gal"},
		{Wetting(0.13), "0.13 L for a cubic metre", "3.4 fl oz for a cubic yard"}, {Watering(5), "5 L for a metre", "0.4 gal for a foot"},
		{Loose(1165), "1165 L", "1.5 yd³"}, {Liquid(59.1), "59 mL", "2 fl oz"}, {Weight(142), "142 g", "5 oz"}, {Warmth(100), "100", "180"},
	} {
		if got := Metric.Text(c.text); got != c.metric {
			t.Errorf("%q, want %q", got, c.metric)
		}
		if got := (Style{Imperial: true}).Text(c.text); got != c.imperial {
			t.Errorf("%q, want %q", got, c.imperial)
		}
	}
}

// TestHours: as people write them, by twelve and by twenty-four.
func TestHours(t *testing.T) {
	for minutes, want := range map[int][2]string{
		0: {"00:00", "12:00 am"}, 5: {"00:05", "12:05 am"}, 450: {"07:30", "7:30 am"}, 720: {"12:00", "12:00 pm"},
		779: {"12:59", "12:59 pm"}, 780: {"13:00", "1:00 pm"}, 1439: {"23:59", "11:59 pm"},
	} {
		text := "from " + Hour(minutes)
		if got := (Style{}).Text(text); got != "from "+want[0] {
			t.Errorf("%d: %q, want %q", minutes, got, want[0])
		}
		if got := (Style{Twelve: true}).Text(text); got != "from "+want[1] {
			t.Errorf("%d: %q, want %q", minutes, got, want[1])
		}
	}
}

// TestTermsFollowTheReader: words that North America does not know are written as it has them, in the program's own
// texts alone, and kept as they were said.
func TestTermsFollowTheReader(t *testing.T) {
	here := Style{American: true}
	for said, want := range map[string]string{
		"Keep fleece ready":                   "Keep frost cloth ready",
		"Fleece over the top, then secateurs": "Frost cloth over the top, then hand pruners",
		"Half-ripe cuttings in leaf mould":    "Semi-hardwood cuttings in leaf mold",
		"a fleecelike coat":                   "a fleecelike coat",
		"under {m2} of fleece":                "under 2.0 m of frost cloth",
	} {
		text := Markup(said)
		if got := here.Text(text); got != want {
			t.Errorf("%q reads %q in North America, want %q", said, got, want)
		}
		if got := Braced(text); got != said {
			t.Errorf("%q is written back as %q", said, got)
		}
		if again := Worded(text); again != text {
			t.Errorf("%q is marked twice: %q", said, again)
		}
	}
	if got := (Style{}).Text(Markup("Keep fleece ready")); got != "Keep fleece ready" {
		t.Errorf("elsewhere it reads %q", got)
	}
	if got := here.Text("my fleece is on the hook"); got != "my fleece is on the hook" {
		t.Errorf("what somebody wrote was changed: %q", got)
	}
}
