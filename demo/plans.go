package demo

import (
	_ "embed"
	"fmt"

	"mezzadro/core/written"
)

//go:embed plans.yaml
var plans []byte

// drawn is a property seen from above, as data.
type drawn struct {
	Property string `yaml:"property"`
	Things   []struct {
		Kind   string       `yaml:"kind"`
		Name   string       `yaml:"name"`
		Height float64      `yaml:"height"`
		Spread float64      `yaml:"spread"`
		Clear  float64      `yaml:"clear"`
		At     [][2]float64 `yaml:"at"`
	} `yaml:"things"`
	Plants [][4]any `yaml:"plants"` // kind, label, x, y

	Slope   float64   `yaml:"slope"`
	FallsTo float64   `yaml:"falls_to"`
	Wind    string    `yaml:"wind_from"`
	Horizon []float64 `yaml:"horizon"`
}

// draw enters the plans of the properties, by their names.
func draw(to *sender, properties map[string]int64) error {
	var list []drawn
	if err := written.Read(plans, &list); err != nil {
		return fmt.Errorf("demo: plans.yaml: %w", err)
	}
	for _, d := range list {
		id, known := properties[d.Property]
		if !known {
			return fmt.Errorf("demo: plans.yaml: there is no property %q", d.Property)
		}
		things, err := d.things(to, id)
		if err != nil {
			return err
		}
		body := map[string]any{"version": 0, "plan": map[string]any{
			"latitude": 0, "things": things, "slope_pct": d.Slope, "falls_to_deg": d.FallsTo, "wind_from": d.Wind, "horizon_deg": append([]float64{}, d.Horizon...),
		}}
		if err := to.put(fmt.Sprintf("/properties/%d/plan", id), body, nil); err != nil {
			return fmt.Errorf("%s: %w", d.Property, err)
		}
	}
	return nil
}

type xy struct {
	X any `json:"x"`
	Y any `json:"y"`
}

// things are what a plan holds, with the ids of its plants.
func (d drawn) things(to *sender, property int64) ([]map[string]any, error) {
	var plants struct {
		Items []struct {
			ID      int64  `json:"id"`
			Species string `json:"species"`
			Label   string `json:"label"`
		} `json:"items"`
	}
	if err := to.get(fmt.Sprintf("/plants?property=%d&limit=1000", property), &plants); err != nil {
		return nil, err
	}
	out := []map[string]any{}
	for i, t := range d.Things {
		points := []xy{}
		for _, q := range t.At {
			points = append(points, xy{q[0], q[1]})
		}
		thing := map[string]any{"id": fmt.Sprintf("%s-%d", t.Kind, i+1), "kind": t.Kind, "name": t.Name, "points": points}
		for field, v := range map[string]float64{"height_m": t.Height, "spread_m": t.Spread, "clear_m": t.Clear} {
			if v > 0 {
				thing[field] = v
			}
		}
		out = append(out, thing)
	}
next:
	for _, p := range d.Plants {
		for _, k := range plants.Items {
			if k.Species == p[0] && k.Label == p[1] {
				out = append(out, map[string]any{
					"id": fmt.Sprintf("plant-%d", k.ID), "kind": "plant", "plant_id": k.ID, "points": []xy{{p[2], p[3]}},
				})
				continue next
			}
		}
		return nil, fmt.Errorf("demo: plans.yaml: %s has no %v, %v", d.Property, p[0], p[1])
	}
	return out, nil
}
