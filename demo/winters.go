package demo

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"mezzadro/core/day"
)

// Winter is one of those before the story: a walk after its freeze, and the days on which it was asked how plants turned
// out. How each plant fared is drawn about what the record foretold, and what became of it by the chance it was given:
// in the sample the forecasts are right.
type Winter struct {
	Walk       string   `yaml:"walk"`
	Asked      []string `yaml:"asked"`
	Properties []string `yaml:"properties"`
}

const (
	looked     = 12     // plants that are looked at on such a walk, at most
	fates      = 2      // which of all that could have been
	fourInFive = 1.2816 // standard deviations to either side that hold four in five
)

// winter tells one.
func (t *teller) winter(w Winter, setToday func(day.Day)) error {
	on, err := day.Parse(w.Walk)
	if err != nil {
		return err
	}
	setToday(on)
	chances := map[int64]float64{} // by plant
	for _, name := range w.Properties {
		property, err := t.property(name)
		if err != nil {
			return err
		}
		if _, err := t.post(fmt.Sprintf("/properties/%d/weather/read", property), struct{}{}); err != nil {
			return err
		}
		if err := t.walkOver(property, on, chances); err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		if err := t.ended(property); err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
	}
	for _, asked := range w.Asked {
		d, err := day.Parse(asked)
		if err != nil {
			return err
		}
		setToday(d)
		if err := t.turnedOut(chances); err != nil {
			return err
		}
	}
	return nil
}

// judged is what of a verdict the tale goes by.
type judged struct {
	Boundary struct {
		Low  float64 `json:"low_m"`
		High float64 `json:"high_m"`
	} `json:"boundary"`
	Verdict struct {
		Kind string `json:"kind"`
	} `json:"verdict"`
	Prognosis struct {
		Chance float64 `json:"chance"`
	} `json:"prognosis"`
}

// walkOver looks at plants with stems, checks them from the ground up, and takes what is said.
func (t *teller) walkOver(property int64, on day.Day, chances map[int64]float64) error {
	var plants struct {
		Items []struct {
			ID     int64   `json:"id"`
			Form   string  `json:"form"`
			Height float64 `json:"height_m"`
		} `json:"items"`
	}
	if err := t.get(fmt.Sprintf("/plants?property=%d&limit=1000", property), &plants); err != nil {
		return err
	}
	walk, err := t.post("/walks", map[string]any{"property_id": property})
	if err != nil {
		return err
	}
	seen := 0
	for _, p := range plants.Items {
		if !slices.Contains([]string{"shrub", "subshrub", "climber"}, p.Form) || p.Height < 0.6 || seen == looked || t.later[p.ID] {
			continue
		}
		at := fmt.Sprintf("/walks/%d/plants/%d", walk, p.ID)
		var foretold, found judged
		if err := t.get(at+"/verdict", &foretold); err != nil {
			return err
		}
		r := rand.New(rand.NewPCG(uint64(p.ID), uint64(on)+fates))
		b := foretold.Boundary
		ends := (b.Low+b.High)/2 + (b.High-b.Low)/2/fourInFive*r.NormFloat64()
		checks := []map[string]any{}
		for _, x := range []float64{0.08, 0.3, 0.5, 0.7, 0.92} {
			at, is := math.Round(100*x*p.Height)/100, "green"
			if at > ends {
				is = "brown"
			}
			checks = append(checks, map[string]any{"kind": "scratch", "height_m": at, "result": is})
		}
		if err := t.put(at+"/checks", map[string]any{"checks": checks}, nil); err != nil {
			return err
		}
		if err := t.get(at+"/verdict", &found); err != nil {
			return err
		}
		if found.Verdict.Kind == "check first" {
			continue
		}
		seen++
		if _, err := t.post(at+"/verdict", map[string]any{"decision": "accepted"}); err != nil {
			return err
		}
		chances[p.ID] = found.Prognosis.Chance
	}
	return nil
}

// ended ends what those walks asked for: it was done before the firm kept its jobs here, and is not charged or counted.
func (t *teller) ended(property int64) error {
	var jobs struct {
		Items []struct {
			ID      int64 `json:"id"`
			Version int   `json:"version"`
		} `json:"items"`
	}
	if err := t.get(fmt.Sprintf("/orders?property=%d&limit=500", property), &jobs); err != nil {
		return err
	}
	for _, o := range jobs.Items {
		end := map[string]any{
			"state": "skipped", "never_again": true, "version": o.Version,
			"note": "Done that spring, before jobs were kept here.",
		}
		if err := t.put(fmt.Sprintf("/orders/%d/state", o.ID), end, nil); err != nil {
			return err
		}
	}
	return nil
}

// turnedOut tells of plants that are due what became of them.
func (t *teller) turnedOut(chances map[int64]float64) error {
	var due struct {
		Plants []struct {
			Plant   int64  `json:"plant_id"`
			Verdict int64  `json:"verdict_id"`
			What    string `json:"what"`
		} `json:"plants"`
	}
	if err := t.get("/due", &due); err != nil {
		return err
	}
	for _, p := range due.Plants {
		chance, ours := chances[p.Plant]
		if !ours {
			continue
		}
		state, note, r := "right", "", rand.New(rand.NewPCG(uint64(p.Plant), uint64(p.Verdict)))
		switch {
		case r.Float64() > chance:
			state, note = "dead", "Replaced with another of its kind."
		case p.What == "alive":
			state = "alive"
		}
		told := map[string]any{"verdict_id": p.Verdict, "state": state, "height_m": 0, "note": note}
		if _, err := t.post(fmt.Sprintf("/plants/%d/outcomes", p.Plant), told); err != nil {
			return err
		}
	}
	return nil
}
