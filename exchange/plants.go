package exchange

import (
	"encoding/csv"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"mezzadro/core/cold"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// PlantLine is one plant as it stands in a plant CSV.
type PlantLine struct {
	Species string // catalogue id, common or botanical name
	Label   string
	HeightM float64
	SpreadM float64 // 0: two thirds of the height
	Count   int
	BaseMM  float64
	PotL    float64
	RowM    float64
	BedM2   float64
	Shelter float64
	Sun     float64
	Mulched bool
	Value   float64
	Stop    int
	GraftM  float64
	Planted int // year
	cold.Exposure
	Note string
	Line int // in the file it was read from
}

// number is a column of a plant CSV that holds a figure, the range it may have and what stands where it is empty.
type number struct {
	name            string
	lo, hi, instead float64
	at              func(*PlantLine) *float64
}

// smallestM is less than any plant that is kept: what the record takes, a file gives back.
const smallestM = 1e-6

var plantNumbers = []number{
	{"height_m", smallestM, 60, 0, func(p *PlantLine) *float64 { return &p.HeightM }},
	{"spread_m", smallestM, 100, 0, func(p *PlantLine) *float64 { return &p.SpreadM }},
	{"base_mm", 0, 3000, 0, func(p *PlantLine) *float64 { return &p.BaseMM }},
	{"pot_l", 0, 5000, 0, func(p *PlantLine) *float64 { return &p.PotL }},
	{"shelter", 0, 1, cold.UsualShelter, func(p *PlantLine) *float64 { return &p.Shelter }},
	{"sun", 0, 1, cold.UsualSun, func(p *PlantLine) *float64 { return &p.Sun }},
	{"graft_m", 0, 60, 0, func(p *PlantLine) *float64 { return &p.GraftM }},
	{"row_m", 0, 1000, 0, func(p *PlantLine) *float64 { return &p.RowM }},
	{"bed_m2", 0, 100_000, 0, func(p *PlantLine) *float64 { return &p.BedM2 }},
	{"value", 0.5, 2, 1, func(p *PlantLine) *float64 { return &p.Value }},
}

var plantColumns = []string{
	"species",
	"label",
	"height_m",
	"spread_m",
	"count",
	"base_mm",
	"pot_l",
	"shelter",
	"sun",
	"mulched",
	"value",
	"stop",
	"graft_m",
	"planted",
	"row_m",
	"bed_m2",
	"facing",
	"wall",
	"slope",
	"soil",
	"wet",
	"note",
}

// plantNames are other names that columns of plants go by.
var plantNames = map[string]string{
	"plant": "species", "name": "species", "kind": "species", "botanical name": "species", "botanical": "species",
	"common name": "species", "where": "label", "where it stands": "label", "location": "label", "place": "label", "position": "label",
	"height": "height_m", "height (m)": "height_m", "height m": "height_m", "spread": "spread_m", "spread (m)": "spread_m",
	"width": "spread_m", "number": "count", "quantity": "count", "qty": "count", "how many": "count", "pot": "pot_l", "pot (l)": "pot_l",
	"stem (mm)": "base_mm", "height_ft": "height_m", "height (ft)": "height_m", "height ft": "height_m", "height (feet)": "height_m",
	"height (in)": "height_m", "height_in": "height_m", "height (cm)": "height_m", "height_cm": "height_m",
	"spread_ft": "spread_m", "spread (ft)": "spread_m", "spread ft": "spread_m", "spread (feet)": "spread_m", "width (ft)": "spread_m",
	"spread (in)": "spread_m", "spread (cm)": "spread_m", "width (m)": "spread_m", "graft_ft": "graft_m", "graft (ft)": "graft_m",
	"pot_gal": "pot_l", "pot (gal)": "pot_l", "pot gal": "pot_l", "stem (in)": "base_mm", "base_in": "base_mm", "stem (cm)": "base_mm", "year": "planted", "planted in": "planted", "year planted": "planted", "date planted": "planted",
	"row": "row_m", "row (m)": "row_m", "row (ft)": "row_m", "row_ft": "row_m", "length of row": "row_m", "hedge length": "row_m",
	"bed": "bed_m2", "bed (m2)": "bed_m2", "bed (m²)": "bed_m2", "area": "bed_m2", "area (m2)": "bed_m2", "area of bed": "bed_m2",
	"notes": "note", "remark": "note", "remarks": "note", "comment": "note", "comments": "note", "mulch": "mulched",
}

// inUnit tells the unit at the end of a column's name, and plantUnits how many of the program's own it is: metres of
// lengths, millimetres of stems, litres of pots.
var (
	inUnit     = regexp.MustCompile(`(?i)[_ (](ft|feet|in|cm|gal)\)?$`)
	plantUnits = map[string]map[string]float64{
		"base_mm": {"in": 25.4, "cm": 10, "ft": 304.8, "feet": 304.8},
		"pot_l":   {"gal": 3.785412},
		"":        {"ft": 0.3048, "feet": 0.3048, "in": 0.0254, "cm": 0.01},
	}
)

// times is how many of the program's own unit one in a file's column is.
func (l line) times(name string) float64 {
	i := slices.Index(l.head, name)
	if i < 0 {
		return 1
	}
	m := inUnit.FindStringSubmatch(l.named[i])
	if m == nil {
		return 1
	}
	units, own := plantUnits[name]
	if !own {
		units = plantUnits[""]
	}
	if n := units[strings.ToLower(m[1])]; n != 0 {
		return n
	}
	return 1
}

// PlantSheet is what a plant CSV holds.
type PlantSheet struct {
	Lines  []PlantLine
	Passed []string       // columns that were passed over
	Faults invalid.Fields // of every broken line, with the column as the file names it
	named  map[string]string
}

// Column is how the file names a column.
func (s PlantSheet) Column(name string) string {
	if n := s.named[name]; n != "" {
		return n
	}
	return name
}

// ReadPlants reads plants: a header line with species and height_m and any of the other columns, then one line a plant.
// Faults tells every broken line with its number; the error is for a file that is none. Whether a species is known is for
// the caller.
func ReadPlants(r io.Reader) (PlantSheet, error) {
	s := PlantSheet{named: map[string]string{}}
	c := layout{known: plantColumns, required: []string{"species", "height_m"}, also: plantNames, others: true, what: "plant", faults: 200}
	passed, err := sheet(r, c, func(l line) {
		for i, name := range l.head {
			s.named[name] = l.named[i]
		}
		if p := readPlant(l); !*l.faulty {
			s.Lines = append(s.Lines, p)
		}
	})
	s.Passed = passed
	if f, ok := err.(invalid.Fields); ok {
		s.Faults, err = f, nil
	}
	return s, err
}

// ReadPlantsCSV reads plants as ReadPlants does; with a fault anywhere the faults are the error.
func ReadPlantsCSV(r io.Reader) ([]PlantLine, error) {
	s, err := ReadPlants(r)
	if err == nil {
		err = s.Faults.Err()
	}
	if err != nil {
		return nil, err
	}
	return s.Lines, nil
}

// readPlant is one line; what is wrong with it is refused.
func readPlant(l line) PlantLine {
	p := PlantLine{Count: 1, Line: l.number}
	p.Species, _ = l.cell("species")
	p.Label, _ = l.words("label")
	p.Note, _ = l.words("note")
	if p.Species == "" {
		l.refuse("species", "", "is missing")
	}
	if utf8.RuneCountInString(p.Label) > 200 || utf8.RuneCountInString(p.Note) > 2000 {
		l.refuse("label", nil, "label or note is too long")
	}
	for _, n := range plantNumbers {
		cell, _ := l.figure(n.name)
		if cell == "" {
			if n.name == "height_m" {
				l.refuse(n.name, cell, "is missing")
			}
			*n.at(&p) = n.instead
			continue
		}
		v, err := strconv.ParseFloat(cell, 64)
		if by := l.times(n.name); by != 1 {
			v = quantity.Round(v*by, 1e-4)
		}
		switch {
		case err != nil:
			l.refuse(n.name, cell, "%q is no number", cell)
		case n.lo == smallestM && !(v >= n.lo && v <= n.hi):
			l.refuse(n.name, cell, "%g is outside what a plant may have: above 0 and up to %g", v, n.hi)
		case !(v >= n.lo && v <= n.hi):
			l.refuse(n.name, cell, "%g is outside %g to %g", v, n.lo, n.hi)
		}
		*n.at(&p) = v
	}
	for name, to := range map[string]*int{"count": &p.Count, "stop": &p.Stop, "planted": &p.Planted} {
		if cell, _ := l.figure(name); cell != "" {
			if name == "planted" {
				cell = yearIn(cell)
			}
			v, err := strconv.Atoi(strings.TrimSuffix(cell, ".0"))
			if err != nil || v < 0 || v > 10000 || name == "count" && v == 0 {
				l.refuse(name, cell, "%q is no whole number up to 10000", cell)
			}
			*to = v
		}
	}
	for name, to := range map[string]*bool{"mulched": &p.Mulched, "wall": &p.Wall, "wet": &p.Wet} {
		switch cell, _ := l.cell(name); strings.ToLower(cell) {
		case "yes", "y", "x", "true", "1":
			*to = true
		case "", "no", "n", "-", "false", "0":
		default:
			l.refuse(name, cell, "%q: want yes or no", cell)
		}
	}
	p.Facing, _ = l.cell("facing")
	p.Slope, _ = l.cell("slope")
	p.Soil, _ = l.cell("soil")
	if bad, ok := p.Exposure.Validate().(invalid.Fields); ok {
		for _, f := range bad {
			l.refuse(f.Path, f.Value, "%s", f.Problem)
		}
	}
	return p
}

// yearIn is the year of a date, or the text as it is.
func yearIn(text string) string {
	for _, part := range strings.FieldsFunc(text, func(r rune) bool { return r < '0' || r > '9' }) {
		if len(part) == 4 {
			return part
		}
	}
	return text
}

// WritePlantsCSV writes plants so that ReadPlantsCSV reads them back to the same.
func WritePlantsCSV(w io.Writer, plants []PlantLine) error {
	out := csv.NewWriter(w)
	if err := out.Write(plantColumns); err != nil {
		return err
	}
	for _, p := range plants {
		f := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
		spread := ""
		if p.SpreadM != 0 {
			spread = f(p.SpreadM)
		}
		yes := func(is bool) string {
			if is {
				return "yes"
			}
			return "no"
		}
		if err := out.Write([]string{
			p.Species,
			inert(p.Label),
			f(p.HeightM),
			spread,
			strconv.Itoa(p.Count),
			f(p.BaseMM),
			f(p.PotL),
			f(p.Shelter),
			f(p.Sun),
			yes(p.Mulched),
			f(p.Value),
			strconv.Itoa(p.Stop),
			f(p.GraftM),
			strconv.Itoa(p.Planted),
			f(p.RowM),
			f(p.BedM2),
			p.Facing,
			yes(p.Wall),
			p.Slope,
			p.Soil,
			yes(p.Wet),
			inert(p.Note),
		}); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

var normalColumns = []string{"month", "tmin_c", "tmax_c", "rain_mm", "rh_pct", "wind_ms"}

// ReadNormalsCSV reads a climate's twelve monthly normals: the columns month (1 to 12), tmin_c, tmax_c and any of
// rain_mm, rh_pct and wind_ms, for which 60 mm, 75 % and 2 m/s stand where the file has none.
func ReadNormalsCSV(r io.Reader) ([]season.Normal, error) {
	out := make([]season.Normal, 12)
	given := [12]int{}
	_, err := sheet(r, layout{known: normalColumns, required: normalColumns[:3], what: "month"}, func(l line) {
		cell, _ := l.cell("month")
		m, err := strconv.Atoi(cell)
		if err != nil || m < 1 || m > 12 {
			l.refuse("month", cell, "%q is no month from 1 to 12", cell)
			return
		}
		if given[m-1] != 0 {
			l.refuse("month", cell, "month %d was already given in line %d", m, given[m-1])
		}
		given[m-1] = l.number
		n := &out[m-1]
		*n = season.Normal{RainMM: 60, RHPct: 75, WindMS: 2}
		for _, c := range []struct {
			name   string
			to     *float64
			lo, hi float64
		}{{"tmin_c", &n.TMinC, -60, 40}, {"tmax_c", &n.TMaxC, -50, 55}, {"rain_mm", &n.RainMM, 0, 2000}, {"rh_pct", &n.RHPct, 1, 100}, {"wind_ms", &n.WindMS, 0, 30}} {
			cell, has := l.figure(c.name)
			if !has {
				continue
			}
			v, err := strconv.ParseFloat(cell, 64)
			if err != nil || !(v >= c.lo && v <= c.hi) {
				l.refuse(c.name, cell, "%q is no number from %g to %g", cell, c.lo, c.hi)
			}
			*c.to = v
		}
		if n.TMaxC < n.TMinC {
			l.refuse("tmax_c", n.TMaxC, "the mean day, %g °C, is colder than the mean night, %g °C", n.TMaxC, n.TMinC)
		}
	})
	if err != nil {
		return nil, err
	}
	for m, l := range given {
		if l == 0 {
			return nil, invalid.Fields{{Path: "file", Problem: fmt.Sprintf("month %d is missing", m+1)}}
		}
	}
	return out, nil
}

// WriteNormalsCSV writes normals so that ReadNormalsCSV reads them back to the same.
func WriteNormalsCSV(w io.Writer, normals []season.Normal) error {
	out := csv.NewWriter(w)
	if err := out.Write(normalColumns); err != nil {
		return err
	}
	for i, n := range normals {
		f := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
		if err := out.Write(
			[]string{fmt.Sprint(i + 1), f(n.TMinC), f(n.TMaxC), f(n.RainMM), f(n.RHPct), f(n.WindMS)},
		); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}
