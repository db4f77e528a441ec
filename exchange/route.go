package exchange

import (
	"encoding/json"
	"encoding/xml"
	"io"
	"time"
)

// RouteStop is a place on a day's way.
type RouteStop struct {
	Name                string
	Detail              string
	Latitude, Longitude float64
	At                  time.Time // arrival; the zero time where nobody planned it
}

// feature is one of GeoJSON (RFC 7946).
type feature struct {
	Type       string         `json:"type"`
	Properties map[string]any `json:"properties"`
	Geometry   struct {
		Type        string `json:"type"`
		Coordinates any    `json:"coordinates"`
	} `json:"geometry"`
}

func featureOf(kind string, coordinates any, properties map[string]any) feature {
	f := feature{Type: "Feature", Properties: properties}
	f.Geometry.Type, f.Geometry.Coordinates = kind, coordinates
	return f
}

// WriteRouteGeoJSON writes a day's way as GeoJSON: a point for each stop, and a line through them in order.
func WriteRouteGeoJSON(w io.Writer, name string, stops []RouteStop) error {
	features, line := []feature{}, [][2]float64{}
	for i, s := range stops {
		p := [2]float64{s.Longitude, s.Latitude}
		line = append(line, p)
		told := map[string]any{"name": s.Name, "order": i + 1, "detail": s.Detail}
		if !s.At.IsZero() {
			told["at"] = s.At.Format("15:04")
		}
		features = append(features, featureOf("Point", p, told))
	}
	if len(line) > 1 {
		features = append(features, featureOf("LineString", line, map[string]any{"name": name}))
	}
	return json.NewEncoder(w).Encode(map[string]any{"type": "FeatureCollection", "features": features})
}

// gpx is a route as the GPX 1.1 schema has it.
type gpx struct {
	XMLName xml.Name `xml:"http://www.topografix.com/GPX/1/1 gpx"`
	Version string   `xml:"version,attr"`
	Creator string   `xml:"creator,attr"`
	Route   struct {
		Name   string     `xml:"name"`
		Points []gpxPoint `xml:"rtept"`
	} `xml:"rte"`
}

type gpxPoint struct {
	Latitude  float64 `xml:"lat,attr"`
	Longitude float64 `xml:"lon,attr"`
	Name      string  `xml:"name"`
	Detail    string  `xml:"desc,omitempty"`
}

// WriteRouteGPX writes a day's way as a GPX route.
func WriteRouteGPX(w io.Writer, name string, stops []RouteStop) error {
	g := gpx{Version: "1.1", Creator: "Mezzadro"}
	g.Route.Name = name
	for _, s := range stops {
		title := s.Name
		if !s.At.IsZero() {
			title = s.At.Format("15:04") + " " + title
		}
		g.Route.Points = append(g.Route.Points, gpxPoint{s.Latitude, s.Longitude, title, s.Detail})
	}
	if _, err := io.WriteString(w, xml.Header); err != nil {
		return err
	}
	e := xml.NewEncoder(w)
	e.Indent("", " ")
	return e.Encode(g)
}
