package exchange

import (
	"encoding/csv"
	"fmt"
	"io"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"mezzadro/core/invalid"
	"mezzadro/core/weather"
)

// Clock is how the times of a table without a zone are meant.
type Clock struct {
	Zone       *time.Location // of the garden
	MonthFirst bool           // where a date can be read either way

	Latitude, Longitude float64                       // of the garden: hours are made up of days by its sun
	Match               func(header string) *Matching // what was told by hand of a file with such a header; nil for none
}

// lowest and highest are the columns of days, behind those of hours.
const (
	lowest  = 6
	highest = 7
)

// ReadWeather reads hourly weather as ReadWeatherCSV does, or any table of hours as loggers and spreadsheets write them:
// with lines above its header, in other units, with date and time apart, in the garden's own time, several readings an
// hour. read tells how it was understood; it is empty for the program's own form. What could be meant either way is
// refused.
func ReadWeather(r io.Reader, clock Clock) (hours []weather.Hour, read []string, err error) {
	b, err := io.ReadAll(r)
	if err != nil {
		return nil, nil, err
	}
	text, err := readable(b)
	if err != nil {
		return nil, nil, invalid.Fields{{Path: "file", Problem: "is no text that can be read: " + err.Error()}}
	}
	text = strings.TrimPrefix(strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(text), "\ufeff")
	if own(text) {
		hours, err = ReadWeatherCSV(strings.NewReader(text))
		return hours, nil, err
	}
	t := table{clock: clock}
	if err := t.find(text); err != nil {
		return nil, nil, err
	}
	if err := t.rows(); err != nil {
		return nil, nil, err
	}
	return t.hours, t.told, nil
}

// own reports the program's own form, by its header: its times are in UTC where they say no zone.
func own(text string) bool {
	text, sep := separator(text)
	first, _, _ := strings.Cut(text, "\n")
	cells, err := cellsOf(first, sep)
	return err == nil && !slices.ContainsFunc(cells, func(cell string) bool {
		return !slices.ContainsFunc(columns, func(c column) bool { return strings.EqualFold(c.name, strings.TrimSpace(cell)) })
	})
}

// what a column holds.
type what struct {
	index int    // in columns; 0 for a time
	named string // as the file names it
	at    int    // which of its cells
	turn  func(float64) float64
}

// table is a file in the reading.
type table struct {
	clock Clock
	sep   rune
	lines []string
	head  int // line of the header
	when  []what
	cols  []what
	zone  *time.Location
	dates []string // layouts of its dates
	last  string   // layout of the time read last: the next is mostly like it
	hours []weather.Hour
	told  []string
}

// preambleMost is how many lines may stand before the header.
const preambleMost = 40

// find looks for the header, and for what its columns hold.
func (t *table) find(text string) error {
	t.lines = strings.Split(text, "\n")
	var doubt error
	for i, l := range t.lines[:min(len(t.lines), preambleMost)] {
		_, sep := separator(l)
		cells, err := cellsOf(l, sep)
		if err != nil || len(cells) < 2 {
			continue
		}
		if m := t.matching(cells); m != nil {
			t.head, t.sep = i, sep
			return t.match(cells, m)
		}
		when, cols, passed, err := columnsOf(cells)
		if err != nil {
			return invalid.Fields{{Path: "columns", Problem: fmt.Sprintf("line %d: %v", i+1, err)}}
		}
		holds := func(index int) bool { return slices.ContainsFunc(cols, func(w what) bool { return w.index == index }) }
		hasTemp := holds(1) || holds(lowest) && holds(highest)
		switch {
		case len(when) > 0 && hasTemp:
			t.head, t.sep, t.when, t.cols = i, sep, when, cols
			t.tell(passed)
			return nil
		case len(when) > 0 && doubt == nil:
			doubt = fmt.Errorf("the header has no column of temperatures")
		case hasTemp && doubt == nil:
			doubt = fmt.Errorf("the header has no column of times")
		}
	}
	if doubt == nil {
		doubt = fmt.Errorf("no line is a header that names a column of times and one of temperatures")
	}
	return invalid.Fields{{Path: "columns", Problem: doubt.Error() + "; want a header such as Date time, Temperature (°C)"}}
}

func cellsOf(line string, sep rune) ([]string, error) {
	if !strings.Contains(line, `"`) {
		return strings.Split(line, string(sep)), nil
	}
	in := csv.NewReader(strings.NewReader(line))
	in.Comma, in.TrimLeadingSpace, in.FieldsPerRecord, in.LazyQuotes = sep, sep != '\t', -1, true
	return in.Read()
}

// Words of headers.
var (
	timeWords = regexp.MustCompile(`(?i)^\W*(date|time|timestamp|time ?stamp|hour|day|local time)\b`)
	otherTemp = regexp.MustCompile(`(?i)dew|chill|heat ?index|feels|soil|indoor|inside|wet ?bulb|\b(max|min|high|low)|t(max|min)`)
	lowTemp   = regexp.MustCompile(`(?i)^\W*(t|temp\w*)?[ _.-]*(min(imum)?|low(est)?|tn)\b`)
	highTemp  = regexp.MustCompile(`(?i)^\W*(t|temp\w*)?[ _.-]*(max(imum)?|high(est)?|tx)\b`)
	noTemp    = regexp.MustCompile(`(?i)dew|chill|heat ?index|feels|soil|indoor|inside|wet ?bulb|humid|wind|rain|press`)
	otherWind = regexp.MustCompile(`(?i)dir|gust|run|chill`)
	otherRain = regexp.MustCompile(`(?i)rate|total|year|month|event|storm|accum`)
	unitWords = regexp.MustCompile(`(?i)(?:^|[\s(\[,_/])(°\s?[cf]|deg\s?[cf]|[cf]|celsius|fahrenheit|mph|km/?h|kph|` +
		`m/s|ms|knots|kn|kts?|in|inch|inches|mm|cm|%)(?:$|[\s)\],])`)
	zoneWords = regexp.MustCompile(`(?i)\b(utc|gmt|z)\b\s?([+-]\d{1,2}):?(\d{2})?|\b(utc|gmt)\b`)
)

// turns are how a unit comes into that of the program.
var turns = map[string]func(float64) float64{
	"c": func(v float64) float64 { return v }, "f": func(v float64) float64 { return (v - 32) / 1.8 },
	"mph": func(v float64) float64 { return v * 0.44704 }, "km/h": func(v float64) float64 { return v / 3.6 },
	"m/s": func(v float64) float64 { return v }, "kn": func(v float64) float64 { return v * 0.514444 },
	"in": func(v float64) float64 { return v * 25.4 }, "mm": func(v float64) float64 { return v },
	"cm": func(v float64) float64 { return v * 10 }, "%": func(v float64) float64 { return v },
}

// unitOf is the unit among those wanted that a header names, in one word; empty for none.
func unitOf(header string, wanted []string) string {
	for header != "" {
		at := unitWords.FindStringSubmatchIndex(header)
		if at == nil {
			return ""
		}
		if u := oneWord(header[at[2]:at[3]]); slices.Contains(wanted, u) {
			return u
		}
		header = header[at[3]:] // "Temperature in °C" says its unit second
	}
	return ""
}

// oneWord is how a unit is called here.
func oneWord(unit string) string {
	u := strings.ToLower(strings.NewReplacer("°", "", " ", "").Replace(unit))
	u = strings.TrimPrefix(u, "deg")
	switch u {
	case "celsius":
		return "c"
	case "fahrenheit":
		return "f"
	case "kmh", "kph":
		return "km/h"
	case "ms":
		return "m/s"
	case "knots", "kt", "kts":
		return "kn"
	case "inch", "inches":
		return "in"
	}
	return u
}

// columnsOf says what the columns of a header hold. Its error is for a temperature whose scale is not said.
func columnsOf(cells []string) (when, cols []what, passed []string, err error) {
	used := map[int]bool{}
	for at, cell := range cells {
		name := strings.TrimSpace(cell)
		low := strings.ToLower(name)
		column, allowed := 0, []string(nil)
		switch {
		case timeWords.MatchString(name):
			when = append(when, what{named: name, at: at})
			continue
		case lowTemp.MatchString(low) && !noTemp.MatchString(low):
			column, allowed = lowest, []string{"c", "f"}
		case highTemp.MatchString(low) && !noTemp.MatchString(low):
			column, allowed = highest, []string{"c", "f"}
		case strings.Contains(low, "temp") && !otherTemp.MatchString(low):
			column, allowed = 1, []string{"c", "f"}
		case strings.Contains(low, "wind") && !otherWind.MatchString(low):
			column, allowed = 2, []string{"mph", "km/h", "m/s", "kn"}
		case (strings.Contains(low, "rain") || strings.Contains(low, "precip")) && !otherRain.MatchString(low):
			column, allowed = 3, []string{"mm", "cm", "in"}
		case strings.Contains(low, "humid") || strings.HasPrefix(low, "rh"):
			column, allowed, low = 4, []string{"%"}, low+" (%)" // it is nothing else
		}
		unit := unitOf(low, allowed)
		switch {
		case column == 0 || used[column]:
			if name != "" {
				passed = append(passed, name)
			}
		case slices.Contains(allowed, unit):
			used[column] = true
			cols = append(cols, what{column, name, at, turns[unit]})
		case column == 1 || column >= lowest:
			return nil, nil, nil, fmt.Errorf("%q does not say whether it is °C or °F: write the unit into the header, such as %q",
				name, name+" (°F)")
		default:
			passed = append(passed, name+" (it says no unit)")
		}
	}
	return when, cols, passed, nil
}

// tell notes how the header was understood.
func (t *table) tell(passed []string) {
	names := map[int]string{1: "temperature", 2: "wind", 3: "rain", 4: "humidity", lowest: "lowest of the day", highest: "highest of the day"}
	for _, c := range t.cols {
		t.told = append(t.told, fmt.Sprintf("%s: taken as %s", c.named, names[c.index]))
	}
	if len(passed) > 0 {
		t.told = append(t.told, "passed over: "+strings.Join(passed, ", "))
	}
	t.zone = t.clock.Zone
	t.zoneSaid()
	t.told = append(t.told, "times: by the clock of "+t.zone.String())
}

// zoneSaid takes the zone that a header of times says.
func (t *table) zoneSaid() {
	for _, w := range t.when {
		m := zoneWords.FindStringSubmatch(w.named)
		if m == nil {
			continue
		}
		t.zone = time.UTC
		if h, err := strconv.Atoi(m[2]); err == nil {
			minutes, _ := strconv.Atoi(m[3]) // none is 0
			if h < 0 {
				minutes = -minutes
			}
			t.zone = time.FixedZone(strings.TrimSpace(m[0]), (h*60+minutes)*60)
		}
	}
}

// Of dates: those in which the month may stand first or second, and the others.
var (
	either = regexp.MustCompile(`^\s*(\d{1,2})([/-])(\d{1,2})[/-]\d{2,4}`)
	plainD = []string{"2006-01-02", "2006/01/02", "2.1.2006", "2.1.06", "2-Jan-2006", "2 Jan 2006", "Jan 2, 2006",
		"January 2, 2006", "20060102"}
	clocks = []string{"15:04", "15:04:05", "3:04 PM", "3:04:05 PM", "3:04PM", "3:04:05PM", "15.04", "15h04"}
)

// tableRow is a line under the header.
type tableRow struct {
	line  int
	when  string
	cells []string
}

// rows reads all lines under the header.
func (t *table) rows() error {
	rows, bad := t.split()
	whens := make([]string, len(rows))
	for i, r := range rows {
		whens[i] = r.when
	}
	t.order(whens)
	sums := map[int64]*hourly{}
	timed := 0
	for _, r := range rows {
		if len(bad) >= most {
			break
		}
		path := fmt.Sprintf("line %d", r.line)
		at, clock, ok := t.time(r.when)
		if ok && !clock {
			at = t.dayAt(r.when)
		}
		if !ok {
			bad.Add(path, r.when, "%q is no time that is known; want one such as 2027-02-26 05:00", r.when)
			continue
		}
		if clock {
			timed++
		}
		g := sums[at.Unix()]
		if g == nil {
			g = &hourly{at: at}
			sums[at.Unix()] = g
		}
		t.row(g, r.cells, path, &bad)
	}
	switch {
	case bad != nil:
	case len(rows) == 0:
		bad.Add(fmt.Sprintf("line %d", t.head+2), nil, "there is no hour after the header")
	case len(rows) > linesMost:
		bad.Add("file", nil, "has more than %d lines, which is the most that is read", linesMost)
	case timed == 0 && t.byDays():
		t.gatherDays(sums)
	case timed == 0:
		bad.Add("columns", nil, "the file is by days, and has no hours: give the lowest and the highest temperature of each day, or a file of hours")
	default:
		t.gather(sums, len(rows))
	}
	return bad.Err()
}

// split parts the lines under the header into cells.
func (t *table) split() (rows []tableRow, bad invalid.Fields) {
	for i, l := range t.lines[t.head+1:] {
		if strings.TrimSpace(l) == "" {
			continue
		}
		if len(rows) > linesMost {
			break
		}
		cells, err := cellsOf(l, t.sep)
		if err != nil {
			bad.Add(fmt.Sprintf("line %d", t.head+i+2), nil, "%v", err)
			break
		}
		parts := []string{}
		for _, w := range t.when[:min(2, len(t.when))] {
			if w.at < len(cells) {
				parts = append(parts, strings.TrimSpace(cells[w.at]))
			}
		}
		if strings.Join(cells, "") != "" {
			rows = append(rows, tableRow{t.head + i + 2, strings.Join(parts, " "), cells})
		}
	}
	return rows, bad
}

// row adds the figures of one line.
func (t *table) row(g *hourly, cells []string, path string, bad *invalid.Fields) {
	for _, c := range t.cols {
		text := ""
		if c.at < len(cells) {
			text = strings.TrimSuffix(figure(strings.TrimSpace(cells[c.at]), t.sep), " %")
		}
		if text == "" || text == "-" || text == "--" || strings.EqualFold(text, "nan") {
			continue
		}
		v, err := strconv.ParseFloat(text, 64)
		if err != nil {
			bad.Add(path, text, "%s: %q is no number", c.named, text)
			continue
		}
		col := columns[1] // of days, too
		if c.index < lowest {
			col = columns[c.index]
		}
		if v = c.turn(v); !(v >= col.lo && v <= col.hi) {
			bad.Add(path, text, "%s: %.4g %s is outside %g to %g", c.named, v, col.unit, col.lo, col.hi)
			continue
		}
		g.sum[c.index] += v
		g.n[c.index]++
	}
}

// hourly are the readings of one hour.
type hourly struct {
	at  time.Time
	sum [8]float64
	n   [8]int
}

// gather makes hours of what was read in them: means, and the sum of rain. An hour without a temperature is none.
func (t *table) gather(sums map[int64]*hourly, readings int) {
	for _, g := range sums {
		mean := func(k int) float64 {
			if g.n[k] == 0 {
				return math.NaN()
			}
			return g.sum[k] / float64(g.n[k])
		}
		h := weather.Hour{Time: g.at, TempC: mean(1), WindMS: mean(2), RainMM: mean(3), RHPct: mean(4), Sun: math.NaN()}
		if g.n[3] > 0 {
			h.RainMM = g.sum[3]
		}
		if !math.IsNaN(h.TempC) {
			t.hours = append(t.hours, h)
		}
	}
	slices.SortFunc(t.hours, func(a, b weather.Hour) int { return a.Time.Compare(b.Time) })
	if n := float64(readings) / math.Max(1, float64(len(sums))); n > 1.5 {
		t.told = append(t.told, fmt.Sprintf("%.0f readings an hour: their mean is taken, and the sum of rain", n))
	}
}

// order finds out whether days or months stand first: by a date that can be read in one way alone, else as the reader
// writes.
func (t *table) order(whens []string) {
	monthFirst, seen := t.clock.MonthFirst, false
	for _, w := range whens {
		m := either.FindStringSubmatch(w)
		if m == nil {
			continue
		}
		seen = true
		a, _ := strconv.Atoi(m[1])
		b, _ := strconv.Atoi(m[3])
		if a > 12 {
			monthFirst = false
			break
		}
		if b > 12 {
			monthFirst = true
			break
		}
	}
	first, said := "2/1/", "day before month"
	if monthFirst {
		first, said = "1/2/", "month before day"
	}
	if seen {
		t.told = append(t.told, "dates: "+said)
	}
	dashed := strings.ReplaceAll(first, "/", "-")
	t.dates = append([]string{first + "2006", first + "06", dashed + "2006", dashed + "06"}, plainD...)
}

// halves writes the halves of the day in one way.
var halves = strings.NewReplacer("a.m.", "AM", "p.m.", "PM", "am", "AM", "pm", "PM", "\u202f", " ")

// time reads a time; clock is whether it says an hour.
func (t *table) time(text string) (at time.Time, clock, ok bool) {
	text = strings.Join(strings.Fields(halves.Replace(text)), " ")
	if t.last != "" {
		if at, err := time.ParseInLocation(t.last, text, t.zone); err == nil {
			return at.UTC().Truncate(time.Hour), true, sane(at)
		}
	}
	for _, layout := range []string{time.RFC3339, "2006-01-02T15:04Z07:00", "2006-01-02 15:04:05Z07:00"} {
		if at, err := time.Parse(layout, text); err == nil {
			return at.UTC().Truncate(time.Hour), true, sane(at)
		}
	}
	text = strings.Replace(text, "T", " ", 1)
	for _, d := range t.dates {
		for _, c := range clocks {
			if at, err := time.ParseInLocation(d+" "+c, text, t.zone); err == nil {
				t.last = d + " " + c
				return at.UTC().Truncate(time.Hour), true, sane(at)
			}
		}
		if at, err := time.ParseInLocation(d, text, t.zone); err == nil {
			return at.UTC().Truncate(time.Hour), false, sane(at)
		}
	}
	return time.Time{}, false, false
}

func sane(at time.Time) bool { return at.Year() >= 1900 && at.Year() <= 2200 }
