// Package standin simulates outside services, so that the house can be tried and tested without them. What it gives is
// made up and says so.
package standin

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"strconv"
	"sync"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/exchange"
)

// Event is something written into the simulated weather.
type Event struct {
	Kind  string  `json:"kind"`    // "freeze": the coldest hour becomes Value at the station's height; "shift": every hour by Value
	From  day.Day `json:"from"`    // first day
	To    day.Day `json:"to"`      // last day
	Value float64 `json:"value_c"` // °C
	Wind  float64 `json:"wind_ms"` // added to the wind, m/s
	Rain  float64 `json:"rain_mm"` // added to the rain, mm a day
	RH    float64 `json:"rh_pct"`  // added to the humidity, %
	Sun   float64 `json:"sun"`     // added to the share of the clear-sky sun by day
	Near  *Near   `json:"near"`    // only there; everywhere when absent
}

// Near is the country round a place.
type Near struct {
	Latitude  float64 `json:"latitude" yaml:"latitude"`
	Longitude float64 `json:"longitude" yaml:"longitude"`
	KM        float64 `json:"km" yaml:"km"`
}

// strikes reports whether an event is felt at a place.
func (e Event) strikes(lat, lon float64) bool {
	return e.Near == nil || apart(e.Near.Latitude, e.Near.Longitude, lat, lon) <= e.Near.KM
}

// apart is how far two places lie from each other by great circle, km.
func apart(lat, lon, lat2, lon2 float64) float64 {
	const rad, earth = math.Pi / 180, 6371.0
	return earth * math.Acos(
		max(-1, min(1, math.Sin(lat*rad)*math.Sin(lat2*rad)+math.Cos(lat*rad)*math.Cos(lat2*rad)*math.Cos((lon-lon2)*rad))),
	)
}

// Validate says what is wrong with an event.
func (e Event) Validate() error {
	switch {
	case e.Kind != "freeze" && e.Kind != "shift":
		return fmt.Errorf("kind: %q is not known; want freeze or shift", e.Kind)
	case e.To < e.From || e.To-e.From > 60:
		return fmt.Errorf("to: %s is not within 60 days after %s", e.To, e.From)
	case e.Kind == "freeze" && (e.Value < -60 || e.Value > 0), e.Kind == "shift" && math.Abs(e.Value) > 15:
		return fmt.Errorf("value_c: %g °C cannot be", e.Value)
	case math.Abs(e.Wind) > 50 || e.Rain < 0 || e.Rain > 300 || math.Abs(e.RH) > 100 || math.Abs(e.Sun) > 1:
		return fmt.Errorf("wind_ms, rain_mm, rh_pct or sun: %g, %g, %g, %g cannot be", e.Wind, e.Rain, e.RH, e.Sun)
	}
	return nil
}

// WeatherStation simulates weather anywhere: of the climate type nearest to the place asked for, moved to its height.
// The same seed and events give the same weather.
type WeatherStation struct {
	Seed     uint64
	Climates []season.Climate
	Errs     bool // it tells the weather ahead as real ones do: the farther ahead, the less truly

	mu     sync.Mutex
	events []Event
}

// Write adds an event to the weather.
func (s *WeatherStation) Write(e Event) error {
	if err := e.Validate(); err != nil {
		return err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	s.events = append(s.events, e)
	return nil
}

// nearest is the climate type with the place closest by great circle.
func (s *WeatherStation) nearest(lat, lon float64) season.Climate {
	best, closest := s.Climates[0], math.Inf(1)
	for _, c := range s.Climates {
		d := apart(lat, lon, c.Latitude, c.Longitude)
		if d < closest {
			best, closest = c, d
		}
	}
	return best
}

// Hours simulates the hours of whole UTC days from one to another.
func (s *WeatherStation) Hours(lat, lon, elevation float64, from, to day.Day) []exchange.StationHour {
	base := s.nearest(lat, lon)
	c := base.AtElevation(elevation)
	// Start and stop three days outside, so that solar time and the events' edges do not show where one asks from.
	first, n := from-3, int(to-from)+7
	days := season.Generator{Normals: c.Daily(), Seed: s.Seed}.Days(first, n)
	temps := season.Hourly(lat, first, days)
	offset := int(math.Round(lon / 15)) // solar hours ahead of UTC
	s.mu.Lock()
	events := append([]Event{}, s.events...)
	s.mu.Unlock()
	winds, rain, damp, bright := make(
		[]float64,
		len(temps),
	), make(
		[]float64,
		len(temps),
	), make(
		[]float64,
		len(temps),
	), make(
		[]float64,
		len(temps),
	)
	for i := range winds {
		t := float64(i%24) - 14
		winds[i] = days[i/24].WindMS * (1 + 0.4*math.Cos(t/24*2*math.Pi)) // breezier in the afternoon
	}
	for _, e := range events {
		if !e.strikes(lat, lon) {
			continue
		}
		shift := e.Value
		if e.Kind == "freeze" {
			// How far the coldest hour must fall, worked out on the whole event wherever one asks from.
			d := season.Generator{Normals: c.Daily(), Seed: s.Seed}.Days(e.From-1, int(e.To-e.From)+3)
			low := math.Inf(1)
			for _, t := range season.Hourly(lat, e.From-1, d)[24 : len(d)*24-24] {
				low = min(low, t)
			}
			shift = e.Value - (elevation-base.ElevationM)/1000*season.LapsePerKm - low
		}
		for i := range temps {
			w := weight(float64(int(first)*24+i), float64(int(e.From)*24), float64(int(e.To+1)*24))
			temps[i] += shift * w
			winds[i] = max(0, winds[i]+e.Wind*w)
			rain[i] += e.Rain / 24 * w
			damp[i] += e.RH * w
			bright[i] += e.Sun * w
		}
	}
	var out []exchange.StationHour
	for i := range temps {
		at := first.Time().Add(time.Duration(i-offset) * time.Hour)
		if at.Before(from.Time()) || !at.Before((to + 1).Time()) {
			continue
		}
		w := days[i/24]
		sun := season.SunOn(lat, first+day.Day(i/24))
		light := 0.0
		if h := float64(i%24) + 0.5; h > sun.Rise && h < sun.Set {
			light = max(0, min(1, w.Sun+bright[i]))
		}
		tenth := func(v float64) *float64 { v = math.Round(v*10) / 10; return &v }
		hundredth := math.Round(light*100) / 100
		out = append(
			out,
			exchange.StationHour{
				Time:   at,
				TempC:  tenth(temps[i]),
				WindMS: tenth(winds[i]),
				RainMM: tenth(w.RainMM/24 + rain[i]),
				RHPct:  tenth(max(5, min(100, w.RHPct+damp[i]))),
				Sun:    &hundredth,
			},
		)
	}
	return out
}

// weight is 1 inside an event and fades over a day on either side.
func weight(h, from, to float64) float64 {
	const fade = 24
	switch {
	case h < from-fade || h > to+fade:
		return 0
	case h < from:
		return (h - from + fade) / fade
	case h > to:
		return (to + fade - h) / fade
	}
	return 1
}

// maxDays is the longest stretch answered at once.
const maxDays = 800

// ServeHTTP answers GET /hours and GET /outlook ?latitude&longitude&elevation_m&from&to and takes POST /events.
func (s *WeatherStation) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	fail := func(problem string) { http.Error(w, problem, http.StatusBadRequest) }
	switch r.Method + " " + r.URL.Path {
	case "GET /hours", "GET /outlook":
		var num [3]float64
		for i, name := range []string{"latitude", "longitude", "elevation_m"} {
			v, err := strconv.ParseFloat(r.URL.Query().Get(name), 64)
			if err != nil || math.IsNaN(v) || math.Abs(v) > 9000 {
				fail(name + ": want a number")
				return
			}
			num[i] = v
		}
		if math.Abs(num[0]) > 66 || math.Abs(num[1]) > 180 {
			fail("latitude, longitude: no gardens there")
			return
		}
		from, err := day.Parse(r.URL.Query().Get("from"))
		if err != nil {
			fail("from: " + err.Error())
			return
		}
		to, err := day.Parse(r.URL.Query().Get("to"))
		if err != nil || to < from || to-from > maxDays {
			fail(fmt.Sprintf("to: want a day from %s on, at most %d days later", from, maxDays))
			return
		}
		w.Header().Set("Content-Type", "application/json")
		if r.URL.Path == "/outlook" {
			_ = json.NewEncoder(w).
				Encode(exchange.OutlookReply{Simulated: true, Days: s.Outlook(num[0], num[1], num[2], from, to)})
			return
		}
		_ = json.NewEncoder(w).
			Encode(exchange.StationReply{Simulated: true, Hours: s.Hours(num[0], num[1], num[2], from, to)})
	case "POST /events":
		var e Event
		if err := json.NewDecoder(http.MaxBytesReader(w, r.Body, 1<<16)).Decode(&e); err != nil {
			fail(err.Error())
			return
		}
		if err := s.Write(e); err != nil {
			fail(err.Error())
			return
		}
		w.WriteHeader(http.StatusNoContent)
	default:
		http.Error(w, "a simulated weather station: GET /hours, GET /outlook, POST /events", http.StatusNotFound)
	}
}
