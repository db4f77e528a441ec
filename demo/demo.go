// Package demo loads the sample firm through the same doors as a user's own data: the operations of the API and the
// weather station's adapter.
package demo

import (
	"bytes"
	"context"
	_ "embed"
	"encoding/json"
	"fmt"
	"io"
	"net/http"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/exchange"
	"mezzadro/standin"
)

//go:embed demo.yaml
var source []byte

// Scenario is the sample as data.
type Scenario struct {
	Firm    string       `yaml:"firm"`
	Today   string       `yaml:"today"`
	Seed    uint64       `yaml:"seed"`
	Country standin.Near `yaml:"country"` // where its weather strikes
	Events  []struct {
		Kind string  `yaml:"kind"`
		From string  `yaml:"from"`
		To   string  `yaml:"to"`
		C    float64 `yaml:"value_c"`
		Wind float64 `yaml:"wind_ms"`
		Rain float64 `yaml:"rain_mm"`
		RH   float64 `yaml:"rh_pct"`
		Sun  float64 `yaml:"sun"`
	} `yaml:"events"`
	// Elsewhere is set on a sample moved to another climate: its weather is that of the place, and the firm's year is
	// not told.
	Elsewhere  bool `yaml:"-"`
	Properties []struct {
		Property map[string]any `yaml:"property"`
		Plants   string         `yaml:"plants"` // a plant CSV
		Walks    []Walk         `yaml:"walks"`  // earlier ones, as if noted elsewhere
	} `yaml:"properties"`
}

// Walk is an earlier walk, with what was found at all plants of a species.
type Walk struct {
	Day   string `yaml:"day"`
	Looks []struct {
		Species string           `yaml:"species"`
		Checks  []map[string]any `yaml:"checks"`
		Note    string           `yaml:"note"`
	} `yaml:"looks"`
}

// Read is the sample that ships with the program.
func Read() (Scenario, error) {
	var s Scenario
	if err := written.Read(source, &s); err != nil {
		return s, fmt.Errorf("demo.yaml: %w", err)
	}
	return s, nil
}

// In is the sample's firm with its plants in another climate, in which its weather is made up anew. In the south it
// opens half a year later, so that it is the end of winter too.
func (s Scenario) In(climate string) (Scenario, error) {
	c, err := catalogue.Built().Climate(climate)
	if err != nil {
		return s, fmt.Errorf("--climate: %w", err)
	}
	s.Elsewhere, s.Events = true, nil
	for _, p := range s.Properties {
		for _, own := range []string{"elevation_m", "latitude", "longitude", "zone"} {
			delete(p.Property, own)
		}
		p.Property["climate_type"] = climate
	}
	if c.Climate.South() {
		home, err := s.Day()
		if err != nil {
			return s, err
		}
		s.Today = (home + 184).String()
	}
	return s, nil
}

// Day is the sample's date.
func (s Scenario) Day() (day.Day, error) { return day.Parse(s.Today) }

// Station is the simulated weather station with the sample's events written into it.
func (s Scenario) Station() (*exchange.Station, error) {
	w := &standin.WeatherStation{Seed: s.Seed, Errs: true}
	for _, c := range catalogue.Built().Climates {
		w.Climates = append(w.Climates, c.Climate)
	}
	for i, e := range s.Events {
		from, err := day.Parse(e.From)
		if err != nil {
			return nil, fmt.Errorf("demo.yaml, event %d: %w", i+1, err)
		}
		to, err := day.Parse(e.To)
		if err != nil {
			return nil, fmt.Errorf("demo.yaml, event %d: %w", i+1, err)
		}
		if err := w.Write(
			standin.Event{
				Kind:  e.Kind,
				From:  from,
				To:    to,
				Value: e.C,
				Wind:  e.Wind,
				Rain:  e.Rain,
				RH:    e.RH,
				Sun:   e.Sun,
				Near:  &s.Country,
			},
		); err != nil {
			return nil, fmt.Errorf("demo.yaml, event %d: %w", i+1, err)
		}
	}
	return &exchange.Station{URL: "http://simulated", Client: exchange.Local(w)}, nil
}

// Load enters the sample's properties and plants, reads their weather, and tells the firm's year so far. setToday
// moves the day on which things are entered.
func (s Scenario) Load(ctx context.Context, site http.Handler, setToday func(day.Day)) error {
	home, err := s.Day()
	if err != nil {
		return err
	}
	to := &sender{ctx, exchange.Local(site)}
	setToday(home)
	ids := map[string]int64{}
	for _, p := range s.Properties {
		id, err := to.post("/properties", p.Property)
		if err != nil {
			return err
		}
		ids[fmt.Sprint(p.Property["name"])] = id
		if _, err := to.postFile(fmt.Sprintf("/properties/%d/plants", id), "text/csv", []byte(p.Plants)); err != nil {
			return err
		}
		if _, err := to.post(fmt.Sprintf("/properties/%d/weather/read", id), struct{}{}); err != nil {
			return err
		}
		if s.Elsewhere {
			continue
		}
		if err := s.walks(to, id, p.Walks); err != nil {
			return err
		}
	}
	if err := draw(to, ids); err != nil {
		return err
	}
	if !s.Elsewhere {
		if err := tellStory(ctx, to, setToday); err != nil {
			return err
		}
	}
	setToday(home)
	return nil
}

// walks enters earlier walks, as if they had been noted elsewhere.
func (s Scenario) walks(to *sender, property int64, walks []Walk) error {
	var plants struct {
		Items []struct {
			ID      int64  `json:"id"`
			Species string `json:"species"`
		} `json:"items"`
	}
	if err := to.get(fmt.Sprintf("/plants?property=%d&limit=1000", property), &plants); err != nil {
		return err
	}
	for _, w := range walks {
		walk, err := to.post("/walks", map[string]any{"property_id": property, "day": w.Day})
		if err != nil {
			return err
		}
		for _, l := range w.Looks {
			for _, x := range plants.Items {
				if x.Species != l.Species {
					continue
				}
				if err := to.put(
					fmt.Sprintf("/walks/%d/plants/%d/checks", walk, x.ID),
					map[string]any{"checks": l.Checks, "note": l.Note},
					nil,
				); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// send sends one request and reads its answer, where one is wanted.
func (s *sender) send(method, path, kind string, body []byte, into any) error {
	req, err := http.NewRequestWithContext(s.ctx, method, "http://local/api/v1"+path, bytes.NewReader(body))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", kind)
	res, err := s.client.Do(req)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	answer, err := io.ReadAll(res.Body)
	if err != nil {
		return err
	}
	if res.StatusCode >= 300 {
		return fmt.Errorf("demo: %s: %s", path, answer)
	}
	if into == nil {
		return nil
	}
	return json.Unmarshal(answer, into)
}
