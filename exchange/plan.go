package exchange

import (
	"encoding/json"
	"io"
	"math"

	"mezzadro/core/site"
)

// metresPerDegree along a meridian.
const metresPerDegree = 111_320

// WritePlanGeoJSON writes a plan as GeoJSON (RFC 7946) in degrees, with a property's place in the plan's middle. Sizes stay in metres.
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
		if t.Species != "" {
			told["species"] = t.Species
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
