// Package exchange moves data in and out in open formats: hourly weather from a station or a CSV file, jobs as
// iCalendar.
package exchange

import (
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"net/http"
	"slices"
	"strconv"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/weather"
)

// StationHour is one hour as a weather station sends it. Figures it does not measure are absent.
type StationHour struct {
	Time   time.Time `json:"time"`
	TempC  *float64  `json:"temp_c"`
	WindMS *float64  `json:"wind_ms,omitempty"`
	RainMM *float64  `json:"rain_mm,omitempty"`
	RHPct  *float64  `json:"rh_pct,omitempty"`
	Sun    *float64  `json:"sun,omitempty"`
}

// StationReply is what a station answers. Simulated marks weather that nobody measured.
type StationReply struct {
	Simulated bool          `json:"simulated"`
	Hours     []StationHour `json:"hours"`
}

// Station reads hourly weather over HTTP.
type Station struct {
	URL    string
	Client *http.Client
}

// Hours asks for the weather at a place from one day to another, both included. source says in words where the
// figures come from.
func (s Station) Hours(
	ctx context.Context,
	latitude, longitude, elevationM float64,
	from, to day.Day,
) (hours []weather.Hour, source string, err error) {
	var reply StationReply
	if err := s.ask(ctx, "/hours", latitude, longitude, elevationM, from, to, &reply); err != nil {
		return nil, "", err
	}
	left, first := 0, ""
	seen := map[int64]bool{}
	for i, h := range reply.Hours {
		why := h.wrong(from, to)
		if at := h.Time.UTC().Truncate(time.Hour).Unix(); why == "" && seen[at] {
			why = "it comes twice"
		} else if why == "" {
			seen[at] = true
			hours = append(hours, h.hour())
		}
		if why != "" {
			if left++; left == 1 {
				first = fmt.Sprintf("hour %d, %s: %s", i+1, h.Time.Format(time.RFC3339), why)
			}
		}
	}
	if len(hours) == 0 && left > 0 {
		return nil, "", fmt.Errorf("weather station: none of its %d hours can be: %s", left, first)
	}
	source = sourceOf(reply.Simulated)
	if left > 0 {
		source += fmt.Sprintf("; %d hours left out, the first %s", left, first)
	}
	slices.SortFunc(hours, func(a, b weather.Hour) int { return a.Time.Compare(b.Time) })
	return hours, source, nil
}

// wrong is why an hour cannot be; empty where it can. -999 and its like stand for what was not measured in many
// stations: of the temperature they are no frost, of the others nothing.
func (h *StationHour) wrong(from, to day.Day) string {
	if d := day.FromTime(h.Time.UTC()); d < from-1 || d > to+1 {
		return "it was not asked for"
	}
	if h.TempC == nil {
		return "it has no temperature"
	}
	for k, v := range []**float64{nil, &h.TempC, &h.WindMS, &h.RainMM, &h.RHPct, &h.Sun} {
		if v == nil || *v == nil {
			continue
		}
		if x := **v; !(x >= columns[k].lo && x <= columns[k].hi) {
			if x <= -99 && k > 1 {
				*v = nil
				continue
			}
			return fmt.Sprintf("%s %g %s is outside %g to %g", columns[k].name, x, columns[k].unit, columns[k].lo, columns[k].hi)
		}
	}
	return ""
}

func orNaN(v *float64) float64 {
	if v == nil {
		return math.NaN()
	}
	return *v
}

// column is one column of a weather CSV: its name, the range of its figures, and where they go.
type column struct {
	name   string
	lo, hi float64
	unit   string
	set    func(*weather.Hour, float64)
}

// columns of a weather CSV; the first two must be there.
var columns = []column{
	{"time", 0, 0, "", nil},
	{"temp_c", -60, 60, "°C", func(h *weather.Hour, v float64) { h.TempC = v }},
	{"wind_ms", 0, 100, "m/s", func(h *weather.Hour, v float64) { h.WindMS = v }},
	{"rain_mm", 0, 500, "mm", func(h *weather.Hour, v float64) { h.RainMM = v }},
	{"rh_pct", 0, 100, "%", func(h *weather.Hour, v float64) { h.RHPct = v }},
	{"sun", 0, 1, "share", func(h *weather.Hour, v float64) { h.Sun = v }},
}

// ReadWeatherCSV reads hourly weather: a header line naming columns time (RFC 3339, or YYYY-MM-DDTHH:MM taken as UTC),
// temp_c and any of wind_ms, rain_mm, rh_pct, sun (0 to 1), then one line an hour. An empty cell is a figure not
// measured, which only the temperature may not be. The error lists every broken line with its number, up to twenty.
// The hours come back sorted.
func ReadWeatherCSV(r io.Reader) ([]weather.Hour, error) {
	names := make([]string, len(columns))
	for i, c := range columns {
		names[i] = c.name
	}
	var out []weather.Hour
	seen := map[int64]int{}
	_, err := sheet(r, layout{known: names, required: names[:2], what: "hour"}, func(l line) {
		nan := math.NaN()
		h := weather.Hour{TempC: nan, WindMS: nan, RainMM: nan, RHPct: nan, Sun: nan}
		for i, c := range columns {
			if cell, given := l.figure(c.name); given {
				if err := fill(&h, i, cell); err != nil {
					l.refuse(c.name, cell, "%v", err)
				}
			}
		}
		if *l.faulty {
			return
		}
		if first, twice := seen[h.Time.Unix()]; twice {
			l.refuse("time", nil, "the hour %s was already given in line %d", h.Time.Format(time.RFC3339), first)
			return
		}
		seen[h.Time.Unix()] = l.number
		out = append(out, h)
	})
	if err != nil {
		return nil, err
	}
	slices.SortFunc(out, func(a, b weather.Hour) int { return a.Time.Compare(b.Time) })
	return out, nil
}

// HoursOf takes hours as JSON gives them: each in its range, none twice. They come back sorted. The error names the
// hour by its index in the list at path.
func HoursOf(path string, list []StationHour) ([]weather.Hour, error) {
	var bad invalid.Fields
	out := make([]weather.Hour, 0, len(list))
	for i, h := range list {
		at := fmt.Sprintf("%s[%d]", path, i)
		if h.TempC == nil {
			bad.Add(at+".temp_c", nil, "is missing")
			continue
		}
		for k, v := range []*float64{nil, h.TempC, h.WindMS, h.RainMM, h.RHPct, h.Sun} {
			if v != nil {
				bad.Within(at+"."+columns[k].name, *v, columns[k].lo, columns[k].hi, columns[k].unit)
			}
		}
		out = append(out, h.hour())
		if len(bad) >= 20 {
			break
		}
	}
	slices.SortFunc(out, func(a, b weather.Hour) int { return a.Time.Compare(b.Time) })
	for i := 1; i < len(out) && bad == nil; i++ {
		if out[i].Time.Equal(out[i-1].Time) {
			bad.Add(path, nil, "the hour %s is given twice", out[i].Time.Format(time.RFC3339))
		}
	}
	return out, bad.Err()
}

func (h StationHour) hour() weather.Hour {
	return weather.Hour{
		Time:   h.Time.UTC().Truncate(time.Hour),
		TempC:  *h.TempC,
		WindMS: orNaN(h.WindMS),
		RainMM: orNaN(h.RainMM),
		RHPct:  orNaN(h.RHPct),
		Sun:    orNaN(h.Sun),
	}
}

func fill(h *weather.Hour, column int, cell string) error {
	c := columns[column]
	if c.set == nil {
		for _, layout := range []string{time.RFC3339, "2006-01-02T15:04Z07:00", "2006-01-02T15:04", "2006-01-02 15:04", "2006-01-02T15:04:05"} {
			if t, err := time.Parse(layout, cell); err == nil {
				if y := t.Year(); y < 1900 || y > 2200 {
					return fmt.Errorf("the year %d cannot be", y)
				}
				h.Time = t.UTC().Truncate(time.Hour)
				return nil
			}
		}
		return fmt.Errorf("%q is no time; want 2027-02-26T05:00Z", cell)
	}
	if cell == "" {
		if c.name == "temp_c" {
			return errors.New("is missing")
		}
		return nil
	}
	v, err := strconv.ParseFloat(cell, 64)
	if err != nil {
		return fmt.Errorf("%q is no number", cell)
	}
	if !(v >= c.lo && v <= c.hi) {
		return fmt.Errorf("%g %s is outside %g to %g", v, c.unit, c.lo, c.hi)
	}
	c.set(h, v)
	return nil
}

// WriteWeatherCSV writes hours in the same format.
func WriteWeatherCSV(w io.Writer, hours []weather.Hour) error {
	out := csv.NewWriter(w)
	if err := out.Write([]string{"time", "temp_c", "wind_ms", "rain_mm", "rh_pct", "sun"}); err != nil {
		return err
	}
	num := func(v float64) string {
		if math.IsNaN(v) {
			return ""
		}
		return strconv.FormatFloat(v, 'f', -1, 64)
	}
	for _, h := range hours {
		if err := out.Write(
			[]string{h.Time.UTC().Format(time.RFC3339), num(h.TempC), num(h.WindMS), num(h.RainMM), num(h.RHPct), num(h.Sun)},
		); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}
