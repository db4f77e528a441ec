package exchange

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/core/site"
)

// metresPerDegree along a meridian.
const metresPerDegree = 111_320

// WritePlanGeoJSON writes a plan as GeoJSON (RFC 7946) in degrees, with a property's place in the plan's middle. Sizes
// stay in metres.
func WritePlanGeoJSON(w io.Writer, p site.Plan, latitude, longitude float64) error {
	sin, cos := math.Sincos(p.NorthDeg * math.Pi / 180)
	east := metresPerDegree * math.Cos(latitude*math.Pi/180)
	degrees := func(q site.At) [2]float64 {
		x, y := q.X*cos+q.Y*sin, -q.X*sin+q.Y*cos
		return [2]float64{longitude + x/east, latitude + y/metresPerDegree}
	}
	features := []feature{}
	for _, t := range p.Things {
		line := [][2]float64{}
		for _, q := range t.Points {
			line = append(line, degrees(q))
		}
		told := map[string]any{"id": t.ID, "kind": t.Kind, "name": t.Name}
		for name, v := range map[string]float64{"height_m": t.HeightM, "spread_m": t.SpreadM, "clear_m": t.ClearM} {
			if v > 0 {
				told[name] = v
			}
		}
		for name, v := range map[string]string{"species": t.Species, "shape": t.Shape, "leaf": string(t.Leaf), "cause": t.Cause} {
			if v != "" {
				told[name] = v
			}
		}
		if t.Year > 0 {
			told["year"] = t.Year
		}
		switch site.Kinds[t.Kind] {
		case "point":
			features = append(features, featureOf("Point", line[0], told))
		case "line":
			features = append(features, featureOf("LineString", line, told))
		default:
			features = append(features, featureOf("Polygon", [][][2]float64{append(line, line[0])}, told))
		}
	}
	return json.NewEncoder(w).Encode(map[string]any{"type": "FeatureCollection", "features": features})
}

// planFeature is a feature of a plan as it comes in.
type planFeature struct {
	Properties struct {
		ID      string  `json:"id"`
		Kind    string  `json:"kind"`
		Name    string  `json:"name"`
		Species string  `json:"species"`
		HeightM float64 `json:"height_m"`
		SpreadM float64 `json:"spread_m"`
		ClearM  float64 `json:"clear_m"`
		Shape   string  `json:"shape"`
		Leaf    string  `json:"leaf"`
		Cause   string  `json:"cause"`
		Year    int     `json:"year"`
	} `json:"properties"`
	Geometry struct {
		Type        string          `json:"type"`
		Coordinates json.RawMessage `json:"coordinates"`
	} `json:"geometry"`
}

// farthestM is how far from a property its plan may lie, m.
const farthestM = 3000

// ReadPlanGeoJSON reads a plan from GeoJSON (RFC 7946) in degrees, about a property's place. Kinds and sizes come from
// the features' properties; what has no kind is a tree, a wall or a bed by its geometry. Its error is a list of
// refused features.
func ReadPlanGeoJSON(b []byte, latitude, longitude float64) ([]site.Thing, error) {
	var file struct {
		Type     string        `json:"type"`
		Features []planFeature `json:"features"`
	}
	var bad invalid.Fields
	if err := json.Unmarshal(b, &file); err != nil || file.Type != "FeatureCollection" {
		bad.Add("type", file.Type, "want a GeoJSON FeatureCollection")
		return nil, bad
	}
	out, taken := []site.Thing{}, map[string]bool{}
	for i, f := range file.Features {
		at := fmt.Sprintf("features[%d]", i)
		points, kind, err := f.points(latitude, longitude)
		if err != nil {
			bad.Add(at+".geometry", f.Geometry.Type, "%v", err)
			continue
		}
		p := f.Properties
		if p.Kind != "" {
			kind = site.Kind(p.Kind)
		}
		if p.ID == "" || taken[p.ID] {
			p.ID = fmt.Sprintf("%s-%d", kind, i+1)
		}
		taken[p.ID] = true
		out = append(out, site.Thing{
			ID: p.ID, Kind: kind, Name: p.Name, Species: p.Species, Points: points, HeightM: p.HeightM, SpreadM: p.SpreadM, ClearM: p.ClearM,
			Shape: p.Shape, Leaf: catalogue.LeafSeason(p.Leaf), Cause: p.Cause, Year: p.Year,
		})
	}
	return out, bad.Err()
}

// points are those of a feature in metres about a place, and what such a shape usually is.
func (f planFeature) points(latitude, longitude float64) ([]site.At, site.Kind, error) {
	var line [][]float64
	kind := site.Wall
	var err error
	switch f.Geometry.Type {
	case "Point":
		var p []float64
		err, kind = json.Unmarshal(f.Geometry.Coordinates, &p), site.Tree
		line = [][]float64{p}
	case "LineString":
		err = json.Unmarshal(f.Geometry.Coordinates, &line)
	case "Polygon":
		var rings [][][]float64
		if err, kind = json.Unmarshal(f.Geometry.Coordinates, &rings), site.Bed; err == nil && len(rings) > 0 {
			line = rings[0]
		}
		if n := len(line); n > 1 && slices.Equal(line[0], line[n-1]) {
			line = line[:n-1]
		}
	default:
		return nil, kind, fmt.Errorf("%q: want Point, LineString or Polygon", f.Geometry.Type)
	}
	if err != nil || len(line) == 0 {
		return nil, kind, errors.New("its coordinates cannot be read")
	}
	out := []site.At{}
	for _, c := range line {
		if len(c) < 2 {
			return nil, kind, errors.New("a place has fewer than two figures")
		}
		x := (c[0] - longitude) * metresPerDegree * math.Cos(latitude*math.Pi/180)
		y := (c[1] - latitude) * metresPerDegree
		if math.Hypot(x, y) > farthestM {
			return nil, kind, fmt.Errorf("%.4f, %.4f lies %.0f km from the property", c[1], c[0], math.Hypot(x, y)/1000)
		}
		out = append(out, site.At{X: math.Round(100*x) / 100, Y: math.Round(100*y) / 100})
	}
	return out, kind, nil
}
