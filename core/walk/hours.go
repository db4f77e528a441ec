package walk

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"

	"mezzadro/core/weather"
)

// Hours are hours of weather, sorted by time and as they were on the site, in columns of numbers with commas between:
// a fifth of what they would take as records. Nothing between two commas was not measured.
type Hours struct {
	From  time.Time `json:"from" format:"date-time" doc:"Start of the first hour"`
	After string    `json:"after" doc:"How long after the hour before each begins, minutes; the first 0"`
	Temp  string    `json:"temp_c" doc:"°C"`
	Wind  string    `json:"wind_ms" doc:"m/s"`
	Rain  string    `json:"rain_mm" doc:"mm"`
	RH    string    `json:"rh_pct" doc:"Relative humidity, %"`
	Sun   string    `json:"sun" doc:"Share of the clear-sky sun, 0 to 1"`
}

// column is one of an hour's measures.
type column struct {
	name string
	of   func(h *weather.Hour) *float64
	text *string
}

func (h *Hours) columns() []column {
	return []column{
		{"temp_c", func(h *weather.Hour) *float64 { return &h.TempC }, &h.Temp},
		{"wind_ms", func(h *weather.Hour) *float64 { return &h.WindMS }, &h.Wind},
		{"rain_mm", func(h *weather.Hour) *float64 { return &h.RainMM }, &h.Rain},
		{"rh_pct", func(h *weather.Hour) *float64 { return &h.RHPct }, &h.RH},
		{"sun", func(h *weather.Hour) *float64 { return &h.Sun }, &h.Sun},
	}
}

// Packed are hours in columns; whole minutes apart, and each number as it was.
func Packed(hours []weather.Hour) (out Hours) {
	if len(hours) == 0 {
		return out
	}
	out.From = hours[0].Time.UTC()
	fields := make([]string, len(hours))
	for i, h := range hours {
		fields[i] = strconv.Itoa(int(h.Time.Sub(hours[max(0, i-1)].Time) / time.Minute))
	}
	out.After = strings.Join(fields, ",")
	for _, c := range out.columns() {
		for i := range hours {
			v := *c.of(&hours[i])
			if fields[i] = ""; !math.IsNaN(v) {
				fields[i] = strconv.FormatFloat(v, 'g', -1, 64)
			}
		}
		*c.text = strings.Join(fields, ",")
	}
	return out
}

// Unpacked are the hours again. Its error names the column that does not fit.
func (h *Hours) Unpacked() ([]weather.Hour, error) {
	if h.After == "" {
		return nil, nil
	}
	after := strings.Split(h.After, ",")
	out := make([]weather.Hour, len(after))
	at := h.From.UTC()
	for i, text := range after {
		minutes, err := strconv.Atoi(text)
		if err != nil {
			return nil, fmt.Errorf("after: %w", err)
		}
		at = at.Add(time.Duration(minutes) * time.Minute)
		out[i].Time = at
	}
	for _, c := range h.columns() {
		fields := strings.Split(*c.text, ",")
		if len(fields) != len(out) {
			return nil, fmt.Errorf("%s: %d numbers for %d hours", c.name, len(fields), len(out))
		}
		for i, text := range fields {
			v := math.NaN()
			if text != "" {
				var err error
				if v, err = strconv.ParseFloat(text, 64); err != nil {
					return nil, fmt.Errorf("%s: %w", c.name, err)
				}
			}
			*c.of(&out[i]) = v
		}
	}
	return out, nil
}
