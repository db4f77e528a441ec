// Package quantity lets text carry measured figures instead of formatted ones: "Cut back to" and a length, "Wait until"
// and a day. The figures are in SI; how they read, metric or imperial and day or month first, is settled where the text
// is shown, by Style.Text. A text that was never rendered still can be: it is kept as it was said.
//
// A figure stands in the text between two marks of the private use area, as one letter for its kind and its value:
// "m1.25" is a length of 1.25 m. No other text holds these marks.
package quantity

import (
	"bytes"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mezzadro/core/day"
)

const (
	open  = "\ue000"
	close = "\ue001"
)

// kind is the letter of a quantity.
type kind byte

const (
	length     kind = 'm' // of a plant or a cut, m
	thickness  kind = 't' // of wood, mm
	temp       kind = 'c' // a temperature, °C
	difference kind = 'd' // between two temperatures, °C
	fineTemp   kind = 'C' // to a tenth
	fineDiff   kind = 'E'
	speed      kind = 's' // of wind, m/s
	depth      kind = 'r' // of rain, mm
	volume     kind = 'l' // L
	bulk       kind = 'b' // of what lies loose, m³
	distance   kind = 'k' // between places, km
	area       kind = 'a' // m²
	mass       kind = 'g' // kg
	loose      kind = 'o' // of what lies loose, L
	liquid     kind = 'p' // of a product, mL
	weight     kind = 'q' // of a product, g
	wetting    kind = 'x' // of spray on a crown, L for a cubic metre
	watering   kind = 'y' // of water for a height, L for a metre
	warmth     kind = 'w' // degree-days, °C·days
	date       kind = 'D' // a day of the year
	dated      kind = 'Y' // a day with its year
	clock      kind = 'h' // an hour of a day, minutes after midnight
	term       kind = 'W' // a word of the trade that regions call differently
)

func token(k kind, v float64) string {
	return open + string(k) + strconv.FormatFloat(v, 'g', 6, 64) + close
}

// Length is a height, a spread or a shoot, m.
func Length(m float64) string { return token(length, m) }

// Thickness is that of wood, mm.
func Thickness(mm float64) string { return token(thickness, mm) }

// Temperature is one as a thermometer shows it, °C.
func Temperature(c float64) string { return token(temp, c) }

// Difference is how far two temperatures lie apart, °C.
func Difference(c float64) string { return token(difference, c) }

// FineTemperature is a temperature to a tenth of a degree, °C.
func FineTemperature(c float64) string { return token(fineTemp, c) }

// FineDifference is a difference to a tenth of a degree.
func FineDifference(c float64) string { return token(fineDiff, c) }

// Speed is that of the wind, m/s.
func Speed(ms float64) string { return token(speed, ms) }

// Rain is its depth, mm.
func Rain(mm float64) string { return token(depth, mm) }

// Volume is litres, of a pot or a tank.
func Volume(l float64) string { return token(volume, l) }

// Bulk is a volume of what lies loose.
func Bulk(m3 float64) string { return token(bulk, m3) }

// Loose is a volume of compost or mulch, L: in bags it is litres, and a yard by the barrow.
func Loose(l float64) string { return token(loose, l) }

// Liquid is how much of a product, mL.
func Liquid(ml float64) string { return token(liquid, ml) }

// Weight is how much of a product, g.
func Weight(g float64) string { return token(weight, g) }

// Wetting is how much spray a crown takes, L for each cubic metre of it.
func Wetting(lM3 float64) string { return token(wetting, lM3) }

// Watering is how much water goes by height, L for each metre.
func Watering(lM float64) string { return token(watering, lM) }

// Distance is one between places, km.
func Distance(km float64) string { return token(distance, km) }

// Area is m².
func Area(m2 float64) string { return token(area, m2) }

// Mass is kg.
func Mass(kg float64) string { return token(mass, kg) }

// Warmth is a sum of degree-days, °C·days, without its unit.
func Warmth(cDays float64) string { return token(warmth, cDays) }

// Day is a day; where it is of another year than the reader's, it carries that.
func Day(d day.Day) string {
	if d == day.None {
		return "no date"
	}
	return token(date, float64(d))
}

// DayOfYear is a day with its year.
func DayOfYear(d day.Day) string {
	if d == day.None {
		return "no date"
	}
	return token(dated, float64(d))
}

// Hour is an hour of a day, minutes after midnight.
func Hour(minutes int) string { return token(clock, float64(minutes)) }

// Style is how a reader wants figures: metric, days before months, unless it says otherwise.
type Style struct {
	Imperial   bool `json:"imperial" doc:"Feet, gallons and °F"`
	MonthFirst bool `json:"month_first" doc:"March 18"`
	Twelve     bool `json:"twelve" doc:"Hours of a day by twelve: 8:30 am"`
	Year       int  `json:"year" doc:"This one: a day of another carries its year; 0: none does"`
	American   bool `json:"american" doc:"Words of the trade as North America has them"`
}

// Metric is the plain style, for logs and tests.
var Metric Style

// Text is the text with its figures written out in the style.
func (s Style) Text(text string) string {
	if !strings.Contains(text, open) {
		return text
	}
	return string(s.Bytes([]byte(text)))
}

// Texts are several texts written out.
func (s Style) Texts(texts []string) []string {
	out := make([]string, len(texts))
	for i, t := range texts {
		out[i] = s.Text(t)
	}
	return out
}

// Bytes is Text for an encoded document. What stands for a figure never needs escaping in JSON.
func (s Style) Bytes(text []byte) []byte {
	if !bytes.Contains(text, []byte(open)) {
		return text
	}
	out := make([]byte, 0, len(text)+len(text)/8)
	for {
		before, rest, found := bytes.Cut(text, []byte(open))
		out = append(out, before...)
		if !found {
			return out
		}
		figure, after, whole := bytes.Cut(rest, []byte(close))
		if !whole {
			return append(append(out, open...), rest...)
		}
		out = append(out, s.figure(string(figure))...)
		text = after
	}
}

// figure writes one out; what is none stays as it is.
func (s Style) figure(f string) string {
	if len(f) < 2 {
		return f
	}
	if kind(f[0]) == term {
		return s.term(f[1:])
	}
	v, err := strconv.ParseFloat(f[1:], 64)
	if err != nil {
		return f
	}
	switch kind(f[0]) {
	case length:
		return s.length(v)
	case thickness:
		if s.Imperial {
			return plain(v/25.4, 1) + " in"
		}
		return plain(v, 0) + " mm"
	case temp, fineTemp:
		return s.degrees(v, v*1.8+32, kind(f[0]) == fineTemp)
	case difference, fineDiff:
		return s.degrees(v, v*1.8, kind(f[0]) == fineDiff)
	case warmth:
		if s.Imperial {
			v *= 1.8
		}
		return exact(v, 0)
	case date:
		return s.day(day.Day(v), s.Year != 0 && s.Year != day.Day(v).Year())
	case dated:
		return s.day(day.Day(v), true)
	case clock:
		return s.hour(int(v))
	}
	return s.measure(kind(f[0]), v)
}

// degrees writes one of two figures in its scale.
func (s Style) degrees(c, f float64, fine bool) string {
	places := 0
	if fine {
		places = 1
	}
	if s.Imperial {
		return exact(f, 0) + " °F" // a degree is fine enough
	}
	return exact(c, places) + " °C"
}

// measures are the quantities that are one figure and one unit in either system.
var measures = map[kind]struct {
	metric, imperial string
	each             float64 // imperial units in one metric
	places           int
}{
	speed:    {"m/s", "mph", 2.23694, 0},
	depth:    {"mm", "in", 1 / 25.4, 1},
	volume:   {"L", "gal", 0.264172, 0},
	bulk:     {"m³", "yd³", 1.30795, 1},
	distance: {"km", "mi", 0.621371, 1},
	area:     {"m²", "sq ft", 10.7639, 0},
	mass:     {"kg", "lb", 2.20462, 1},
	loose:    {"L", "yd³", 0.00130795, 1},
	wetting:  {"L for a cubic metre", "fl oz for a cubic yard", 33.814 / 1.30795, 1},
	watering: {"L for a metre", "gal for a foot", 0.264172 * 0.3048, 1},
	liquid:   {"mL", "fl oz", 1 / 29.5735, 1},
	weight:   {"g", "oz", 1 / 28.3495, 1},
}

// quarter of a gallon: what is less is told in fluid ounces.
const quarter = 0.25

// Noted is how much of a product or a spray was used, as it was noted; by the ounce and the gallon where one measures so,
// to three figures. unit is mL, L, g or another, which stays. Empty for nothing.
func (s Style) Noted(v float64, unit string) string {
	m := measures[map[string]kind{"L": volume, "mL": liquid, "g": weight}[unit]]
	switch {
	case v == 0:
		return ""
	case s.Imperial && unit == "L" && v*m.each < quarter:
		return s.Noted(1000*v, "mL")
	case s.Imperial && m.imperial != "":
		return fmt.Sprintf("%.3g %s", v*m.each, m.imperial)
	case unit == "piece" && v != 1:
		unit = "pieces"
	}
	return fmt.Sprintf("%g %s", v, unit)
}

// sized are those that are told with as many places as they are good for.
var sized = []kind{area, volume, bulk, distance, mass, loose, wetting, watering, liquid, weight}

func (s Style) measure(k kind, v float64) string {
	m, known := measures[k]
	switch {
	case !known:
		return plain(v, 1)
	case k == volume && s.Imperial && v*m.each < quarter:
		return s.measure(liquid, 1000*v)
	case slices.Contains(sized, k):
		if s.Imperial {
			return small(v*m.each) + " " + m.imperial
		}
		return small(v) + " " + m.metric
	case s.Imperial:
		return plain(v*m.each, m.places) + " " + m.imperial
	}
	return plain(v, 0) + " " + m.metric
}

const (
	inchM    = 0.0254
	inchesTo = 36  // up to here a length is told in inches alone
	feetFrom = 120 // and from here in whole feet
)

// length is a plant's measure: centimetres up to a metre, inches up to a yard, and what can be read off a rule above.
func (s Style) length(m float64) string {
	if !s.Imperial {
		if m < 0.995 {
			return plain(m*100, 0) + " cm"
		}
		return fmt.Sprintf("%.1f m", m)
	}
	in := math.Round(m / inchM)
	switch {
	case in < inchesTo:
		return plain(in, 0) + " in"
	case in >= feetFrom:
		return plain(in/12, 0) + " ft"
	case math.Mod(in, 12) == 0:
		return plain(in/12, 0) + " ft"
	}
	return fmt.Sprintf("%.0f ft %.0f in", math.Floor(in/12), math.Mod(in, 12))
}

func (s Style) hour(minutes int) string {
	h, m := minutes/60%24, minutes%60
	if !s.Twelve {
		return fmt.Sprintf("%02d:%02d", h, m)
	}
	half := "am"
	if h >= 12 {
		half = "pm"
	}
	return fmt.Sprintf("%d:%02d %s", (h+11)%12+1, m, half)
}

func (s Style) day(d day.Day, year bool) string {
	layout := "2 January"
	if s.MonthFirst {
		layout = "January 2"
	}
	t := d.Time()
	if !year {
		return t.Format(layout)
	}
	if s.MonthFirst {
		layout += ","
	}
	return t.Format(layout+" ") + strconv.Itoa(t.Year())
}

// plain is a figure with a true minus sign, and no places where they say nothing.
func plain(v float64, places int) string {
	if math.Abs(v) >= 10 {
		places = 0
	}
	return exact(v, places)
}

// small is a figure with as many places as it is good for: one below ten, two below one, none that say nothing.
func small(v float64) string {
	places := 0
	switch size := math.Abs(v); {
	case size < 0.995:
		places = 2
	case size < 9.95:
		places = 1
	}
	out := exact(v, places)
	if places > 0 {
		out = strings.TrimSuffix(strings.TrimRight(out, "0"), ".")
	}
	return out
}

// exact is a figure with all its places and a true minus sign.
func exact(v float64, places int) string {
	out := strconv.FormatFloat(v, 'f', places, 64)
	if strings.Trim(out, "-0.") == "" {
		out = strings.TrimPrefix(out, "-")
	}
	return strings.Replace(out, "-", "−", 1)
}

// braced is a figure as it is written in data: {m0.3}, {c-2.5}.
var braced = regexp.MustCompile(`\{([mtcdCEsrlkag])(-?[0-9]+(?:\.[0-9]+)?)\}`)

// Markup turns figures in braces, as data files write them ("{m0.3}"), into figures a text carries, and words that
// regions call differently into ones that follow the reader. Other braces stay.
func Markup(text string) string { return Worded(braced.ReplaceAllString(text, open+"$1$2"+close)) }

// Braced writes the figures that a text carries in braces, as data files have them: what Markup undoes.
func Braced(text string) string {
	return strings.NewReplacer(open+string(term), "", open, "{", close, "}").Replace(worded.ReplaceAllString(text, "$1"))
}

// Round is a figure to the nearest step, such as 0.01, as it is told.
func Round(v, step float64) float64 { return math.Round(v/step) / math.Round(1/step) }

// Tenth rounds a figure to one place, which is what most measured and estimated figures are good for.
func Tenth(v float64) float64 { return math.Round(v*10) / 10 }
