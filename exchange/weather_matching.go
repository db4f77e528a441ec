package exchange

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mezzadro/core/invalid"
)

// Matching is what the columns of a table hold, as somebody told it by hand, and by whose clock its times are.
type Matching struct {
	Columns []string `json:"columns" maxItems:"200" doc:"By column: when (a date, a time, or both), temp_c, temp_f, low_c, low_f, high_c, high_f, wind_ms, wind_kmh, wind_mph, wind_kn, rain_mm, rain_cm, rain_in, rh_pct, or - for what is passed over"`
	Zone    string   `json:"zone" enum:"garden,UTC" doc:"By whose clock its times are"`
}

// holdings are what a column may be told to hold, and how its figures come into the program's units.
var holdings = map[string]what{
	"temp_c": {index: 1, turn: turns["c"]}, "temp_f": {index: 1, turn: turns["f"]},
	"low_c": {index: lowest, turn: turns["c"]}, "low_f": {index: lowest, turn: turns["f"]},
	"high_c": {index: highest, turn: turns["c"]}, "high_f": {index: highest, turn: turns["f"]},
	"wind_ms": {index: 2, turn: turns["m/s"]}, "wind_kmh": {index: 2, turn: turns["km/h"]},
	"wind_mph": {index: 2, turn: turns["mph"]}, "wind_kn": {index: 2, turn: turns["kn"]},
	"rain_mm": {index: 3, turn: turns["mm"]}, "rain_cm": {index: 3, turn: turns["cm"]}, "rain_in": {index: 3, turn: turns["in"]},
	"rh_pct": {index: 4, turn: turns["%"]},
}

// word is what a column holds, in the words of a matching.
func (w what) word(unit string) string {
	name := map[int]string{1: "temp_", 2: "wind_", 3: "rain_", 4: "rh_", lowest: "low_", highest: "high_"}[w.index]
	return name + strings.NewReplacer("/", "", "%", "pct").Replace(unit)
}

// Validate names every field that cannot be. n is how many columns the file has.
func (m *Matching) Validate(n int) error {
	var bad invalid.Fields
	if len(m.Columns) != n {
		bad.Add("columns", len(m.Columns), "%d columns are told, and the file has %d", len(m.Columns), n)
	}
	at := map[int]string{}
	for i, c := range m.Columns {
		h, known := holdings[c]
		switch {
		case c == "-" || c == "when":
		case !known:
			bad.Add(fmt.Sprintf("columns[%d]", i), c, "%q is nothing that a column can hold", c)
		case at[h.index] != "":
			bad.Add(fmt.Sprintf("columns[%d]", i), c, "the same is told of another column already, as %s", at[h.index])
		default:
			at[h.index] = c
		}
	}
	switch {
	case !slices.Contains(m.Columns, "when"):
		bad.Add("columns", nil, "say which column holds the date and time")
	case at[1] == "" && (at[lowest] == "" || at[highest] == ""):
		bad.Add("columns", nil, "say which column holds the temperature, or the lowest and highest of the day")
	}
	return bad.Err()
}

// HeaderOf is a header as it is known again: its names in small letters.
func HeaderOf(cells []string) string {
	names := make([]string, len(cells))
	for i, c := range cells {
		names[i] = strings.ToLower(strings.TrimSpace(c))
	}
	return strings.Join(names, "\x1f")
}

// matching is what was told by hand of a file with such a header.
func (t *table) matching(cells []string) *Matching {
	if t.clock.Match == nil {
		return nil
	}
	return t.clock.Match(HeaderOf(cells))
}

// match takes the columns as they were told.
func (t *table) match(cells []string, m *Matching) error {
	if err := m.Validate(len(cells)); err != nil {
		return err
	}
	for i, c := range m.Columns {
		w, name := holdings[c], strings.TrimSpace(cells[i])
		switch {
		case c == "when":
			t.when = append(t.when, what{named: name, at: i})
		case c != "-":
			t.cols = append(t.cols, what{w.index, name, i, w.turn})
		}
	}
	if t.zone = t.clock.Zone; m.Zone == "UTC" {
		t.zone = time.UTC
	}
	t.told = append(t.told, "columns: as they were told by hand for such a file", "times: by the clock of "+t.zone.String())
	return nil
}

// WeatherColumns is a table of weather whose columns are to be told by hand, with what they are taken for.
type WeatherColumns struct {
	Header  string     `json:"-"` // as it is known again
	Names   []string   `json:"names" doc:"Of its columns"`
	Samples [][]string `json:"samples" doc:"The first lines under them, up to four"`
	Matching
}

// samplesShown is how many lines show what a column holds.
const samplesShown = 4

// AskColumns tells what the columns of a table may hold, as far as their names say it. Its error is for what is no table.
func AskColumns(b []byte) (WeatherColumns, error) {
	text, err := readable(b)
	if err != nil {
		return WeatherColumns{}, invalid.Fields{{Path: "file", Problem: "is no text that can be read: " + err.Error()}}
	}
	lines := strings.Split(strings.TrimPrefix(strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(text), "\ufeff"), "\n")
	for i, l := range lines[:min(len(lines), preambleMost)] {
		_, sep := separator(l)
		cells, err := cellsOf(l, sep)
		if err != nil || len(cells) < 2 || slices.ContainsFunc(cells, startsWithDigit) {
			continue
		}
		out := WeatherColumns{Header: HeaderOf(cells), Names: cells, Samples: [][]string{}}
		for _, next := range lines[i+1:] {
			row, err := cellsOf(next, sep)
			if err == nil && len(row) == len(cells) && len(out.Samples) < samplesShown {
				out.Samples = append(out.Samples, row)
			}
		}
		if len(out.Samples) > 0 {
			out.Zone = "garden"
			out.guess()
			return out, nil
		}
	}
	return WeatherColumns{}, invalid.Fields{{Path: "file", Problem: "is no table with a line of names above its columns"}}
}

func startsWithDigit(cell string) bool {
	cell = strings.TrimSpace(cell)
	return cell != "" && cell[0] >= '0' && cell[0] <= '9'
}

// guess fills in what the names of columns say.
func (a *WeatherColumns) guess() {
	taken := map[int]bool{}
	for i, name := range a.Names {
		a.Columns = append(a.Columns, "-")
		if strings.TrimSpace(name) == "" {
			continue
		}
		when, cols, _, err := columnsOf([]string{name})
		switch {
		case len(when) > 0:
			a.Columns[i] = "when"
		case err != nil: // its scale is not said
			cols = []what{{index: scaleless(name)}}
			a.Columns[i] = cols[0].word("c")
		case len(cols) > 0:
			unit := unitOf(strings.ToLower(name)+" (%)", unitsOf[cols[0].index])
			a.Columns[i] = cols[0].word(unit)
		}
		if len(cols) > 0 && taken[cols[0].index] {
			a.Columns[i] = "-"
		} else if len(cols) > 0 {
			taken[cols[0].index] = true
		}
	}
}

// unitsOf are the units that a column may be in, by what it holds.
var unitsOf = map[int][]string{1: {"c", "f"}, lowest: {"c", "f"}, highest: {"c", "f"}, 2: {"mph", "km/h", "m/s", "kn"},
	3: {"mm", "cm", "in"}, 4: {"%"}}

// scaleless is what a temperature is whose name does not say its scale.
func scaleless(name string) int {
	switch {
	case lowTemp.MatchString(name):
		return lowest
	case highTemp.MatchString(name):
		return highest
	}
	return 1
}
