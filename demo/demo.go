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

	"github.com/goccy/go-yaml"

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
	Properties []struct {
		Property map[string]any `yaml:"property"`
		Plants   string         `yaml:"plants"` // a plant CSV
		Walks    []struct {     // earlier ones, as if noted elsewhere
			Day   string `yaml:"day"`
			Looks []struct {
				Species string           `yaml:"species"`
				Checks  []map[string]any `yaml:"checks"`
				Note    string           `yaml:"note"`
			} `yaml:"looks"`
		} `yaml:"walks"`
	} `yaml:"properties"`
}

// Read is the sample that ships with the program.
func Read() (Scenario, error) {
	var s Scenario
	if err := yaml.UnmarshalWithOptions(source, &s, yaml.Strict()); err != nil {
		return s, fmt.Errorf("demo.yaml: %w", err)
	}
	return s, nil
}

// Day is the sample's date.
func (s Scenario) Day() (day.Day, error) { return day.Parse(s.Today) }

// Station is the simulated weather station with the sample's events written into it.
func (s Scenario) Station() (*exchange.Station, error) {
	w := &standin.WeatherStation{Seed: s.Seed}
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
		if err := w.Write(standin.Event{Kind: e.Kind, From: from, To: to, Value: e.C, Wind: e.Wind, Rain: e.Rain, RH: e.RH, Sun: e.Sun, Near: &s.Country}); err != nil {
			return nil, fmt.Errorf("demo.yaml, event %d: %w", i+1, err)
		}
	}
	return &exchange.Station{URL: "http://simulated", Client: exchange.Local(w)}, nil
}

// Load enters the sample's properties and plants and reads their weather.
func (s Scenario) Load(ctx context.Context, site http.Handler) error {
	client := exchange.Local(site)
	send := func(method, path, kind string, body []byte, into any) error {
		req, err := http.NewRequestWithContext(ctx, method, "http://local/api/v1"+path, bytes.NewReader(body))
		if err != nil {
			return err
		}
		req.Header.Set("Content-Type", kind)
		res, err := client.Do(req)
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
		return json.Unmarshal(answer, into)
	}
	post := func(path, kind string, body []byte) (int64, error) {
		var made struct {
			ID int64 `json:"id"`
		}
		err := send(http.MethodPost, path, kind, body, &made)
		return made.ID, err
	}
	for _, p := range s.Properties {
		b, err := json.Marshal(p.Property)
		if err != nil {
			return err
		}
		id, err := post("/properties", "application/json", b)
		if err != nil {
			return err
		}
		if _, err := post(fmt.Sprintf("/properties/%d/plants", id), "text/csv", []byte(p.Plants)); err != nil {
			return err
		}
		if _, err := post(fmt.Sprintf("/properties/%d/weather/read", id), "application/json", []byte("{}")); err != nil {
			return err
		}
		var plants struct {
			Items []struct {
				ID      int64  `json:"id"`
				Species string `json:"species"`
			} `json:"items"`
		}
		if err := send(http.MethodGet, fmt.Sprintf("/plants?property=%d&limit=1000", id), "", nil, &plants); err != nil {
			return err
		}
		for _, w := range p.Walks {
			b, err := json.Marshal(map[string]any{"property_id": id, "day": w.Day})
			if err != nil {
				return err
			}
			walk, err := post("/walks", "application/json", b)
			if err != nil {
				return err
			}
			for _, l := range w.Looks {
				for _, x := range plants.Items {
					if x.Species != l.Species {
						continue
					}
					b, err := json.Marshal(map[string]any{"checks": l.Checks, "note": l.Note})
					if err != nil {
						return err
					}
					if err := send(http.MethodPut, fmt.Sprintf("/walks/%d/plants/%d/checks", walk, x.ID), "application/json", b, &struct{}{}); err != nil {
						return err
					}
				}
			}
		}
	}
	return nil
}
