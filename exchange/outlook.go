package exchange

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"time"

	"mezzadro/core/day"
)

// OutlookDay is a day ahead as a weather station tells it.
type OutlookDay struct {
	Day    day.Day `json:"day"`
	RainMM float64 `json:"rain_mm"`
	WindMS float64 `json:"wind_ms"` // the most between 7 and 19 h
	MinC   float64 `json:"min_c"`
	MaxC   float64 `json:"max_c"`
}

// OutlookReply is what a station answers that tells the weather ahead.
type OutlookReply struct {
	Simulated bool          `json:"simulated"`
	Days      []OutlookDay  `json:"days"`
	Hours     []StationHour `json:"hours,omitempty"` // in place of days: they are summed up
}

// fullDay is how many hours of a day have to be told for it to be summed up.
const fullDay = 20

// daysOf sums up hours by the solar days of a place; days of which too little is told are left out.
func daysOf(hours []StationHour, longitude float64, from, to day.Day) []OutlookDay {
	out, count := make([]OutlookDay, int(to-from)+1), make([]int, int(to-from)+1)
	solar := time.Duration(math.Round(longitude/15)) * time.Hour
	for _, h := range hours {
		at := h.Time.Add(solar)
		i := int(day.FromTime(at) - from)
		if i < 0 || i >= len(out) || h.TempC == nil {
			continue
		}
		d := &out[i]
		if count[i]++; count[i] == 1 {
			*d = OutlookDay{Day: from + day.Day(i), MinC: *h.TempC, MaxC: *h.TempC}
		}
		d.MinC, d.MaxC = math.Min(d.MinC, *h.TempC), math.Max(d.MaxC, *h.TempC)
		if h.RainMM != nil {
			d.RainMM += *h.RainMM
		}
		if h.WindMS != nil && at.Hour() >= windFrom && at.Hour() < windTo {
			d.WindMS = math.Max(d.WindMS, *h.WindMS)
		}
	}
	kept := out[:0]
	for i, d := range out {
		if count[i] >= fullDay {
			kept = append(kept, d)
		}
	}
	return kept
}

// The hours between which the wind of a day counts.
const (
	windFrom = 7
	windTo   = 19
)

// ErrNoOutlook is returned for a station that measures only.
var ErrNoOutlook = errors.New("weather station: it tells no weather ahead")

// Outlook asks for the weather ahead of a place from one day to another, both included; a station may tell fewer days.
func (s Station) Outlook(ctx context.Context, latitude, longitude, elevationM float64, from, to day.Day) ([]OutlookDay, string, error) {
	var reply OutlookReply
	if err := s.ask(ctx, "/outlook", latitude, longitude, elevationM, from, to, &reply); err != nil {
		return nil, "", err
	}
	if len(reply.Days) == 0 {
		reply.Days = daysOf(reply.Hours, longitude, from, to)
	}
	for i, d := range reply.Days {
		if d.Day < from || d.Day > to {
			return nil, "", fmt.Errorf("weather station: day %d of its outlook, %s, was not asked for", i+1, d.Day)
		}
		for name, v := range map[string][3]float64{
			"rain_mm": {d.RainMM, 0, 500}, "wind_ms": {d.WindMS, 0, 100}, "min_c": {d.MinC, -60, 60}, "max_c": {d.MaxC, d.MinC, 60},
		} {
			if math.IsNaN(v[0]) || v[0] < v[1] || v[0] > v[2] {
				return nil, "", fmt.Errorf("weather station: its outlook for %s: %s %g cannot be", d.Day, name, v[0])
			}
		}
	}
	return reply.Days, sourceOf(reply.Simulated), nil
}

func sourceOf(simulated bool) string {
	if simulated {
		return "simulated weather station"
	}
	return "weather station"
}

// ask reads one of a station's answers.
func (s Station) ask(ctx context.Context, path string, latitude, longitude, elevationM float64, from, to day.Day, reply any) error {
	q := url.Values{"from": {from.String()}, "to": {to.String()}}
	for k, v := range map[string]float64{"latitude": latitude, "longitude": longitude, "elevation_m": elevationM} {
		q.Set(k, strconv.FormatFloat(v, 'f', -1, 64))
	}
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, strings.TrimRight(s.URL, "/")+path+"?"+q.Encode(), nil)
	if err != nil {
		return fmt.Errorf("weather station: %w", err)
	}
	client := *s.Client
	client.CheckRedirect = sameHost
	res, err := client.Do(req)
	var of *url.Error
	if errors.As(err, &of) { // without the address, which may hold a key
		err = of.Err
	}
	if err != nil {
		return fmt.Errorf("weather station: %w", err)
	}
	defer res.Body.Close()
	body, err := io.ReadAll(io.LimitReader(res.Body, 64<<20))
	switch {
	case err != nil:
		return fmt.Errorf("weather station: %w", err)
	case res.StatusCode == http.StatusNotFound && path == "/outlook":
		return ErrNoOutlook
	case res.StatusCode != http.StatusOK:
		return fmt.Errorf("weather station answered %d %s", res.StatusCode, http.StatusText(res.StatusCode)) // no word of a stranger
	}
	if err := json.Unmarshal(body, reply); err != nil {
		return fmt.Errorf("weather station: its answer cannot be read: %w", err)
	}
	return nil
}

// sameHost follows a redirect of the station within it alone: where it sends elsewhere is nobody's business.
func sameHost(req *http.Request, via []*http.Request) error {
	switch {
	case req.URL.Host != via[0].URL.Host:
		return fmt.Errorf("it sends to another host, which is not followed")
	case len(via) > 3:
		return fmt.Errorf("it sends in circles")
	}
	return nil
}
