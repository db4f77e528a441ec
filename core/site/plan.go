package site

import (
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
)

// Kind is what a thing on a plan is.
type Kind string

// Kinds of things.
const (
	Plant     Kind = "plant"
	Tree      Kind = "tree" // a neighbour's, or one that is not kept as a plant
	Hedge     Kind = "hedge"
	Wall      Kind = "wall"
	Fence     Kind = "fence"
	Building  Kind = "building"
	Ground    Kind = "ground" // the property's own outline
	Bed       Kind = "bed"
	Lawn      Kind = "lawn"
	Path      Kind = "path"
	Wire      Kind = "wire" // overhead
	Door      Kind = "door"
	Gate      Kind = "gate"
	Window    Kind = "window"
	Drain     Kind = "drain"
	Water     Kind = "water" // standing after rain
	Hollow    Kind = "hollow"
	Sprinkler Kind = "sprinkler"
	Grave     Kind = "grave" // where a plant died
)

// Kinds are all of them, and how they are drawn: point, line or area.
var Kinds = map[Kind]string{
	Plant: "point", Tree: "point", Hedge: "line", Wall: "line", Fence: "line", Building: "area", Ground: "area", Bed: "area",
	Lawn: "area", Path: "line", Wire: "line", Door: "point", Gate: "point", Window: "point", Drain: "line", Water: "area",
	Hollow: "area", Sprinkler: "point", Grave: "point",
}

// Shapes of crowns: how wide they are by height. All but the oval are no wider further up, so that a taller crown never
// lets more sun by; an oval one is an ellipsoid, widest half way up, and lets sun in under its flanks.
var Shapes = []string{"round", "spreading", "cone", "column", "oval"}

// At is a place on a plan, metres to the east and to the north.
type At struct {
	X float64 `json:"x" minimum:"-5000" maximum:"5000"`
	Y float64 `json:"y" minimum:"-5000" maximum:"5000"`
}

// Thing is something on a plan.
type Thing struct {
	ID      string               `json:"id" maxLength:"60"`
	Kind    Kind                 `json:"kind" enum:"plant,tree,hedge,wall,fence,building,ground,bed,lawn,path,wire,door,gate,window,drain,water,hollow,sprinkler,grave"`
	Name    string               `json:"name,omitempty" maxLength:"200"`
	Points  []At                 `json:"points" minItems:"1" maxItems:"500" doc:"One for a point, two and more for a line, three and more for an area"`
	HeightM float64              `json:"height_m,omitempty" minimum:"0" maximum:"150" doc:"Of what stands; of a wire, how high it hangs; of a window, its sill"`
	ClearM  float64              `json:"clear_m,omitempty" minimum:"0" maximum:"60" doc:"Clear stem under the crown"`
	SpreadM float64              `json:"spread_m,omitempty" minimum:"0" maximum:"60" doc:"Of a crown; thickness of a hedge"`
	Shape   string               `json:"shape,omitempty" enum:"round,spreading,cone,column,oval," doc:"Of a crown; round when absent"`
	Leaf    catalogue.LeafSeason `json:"leaf,omitempty" enum:"evergreen,semi-evergreen,deciduous,dies back in winter," doc:"Evergreen when absent"`
	Light   string               `json:"light,omitempty" enum:"full sun,part shade,shade,sun or part shade," doc:"What a plant wants"`
	Thirst  string               `json:"thirst,omitempty" enum:"low,medium,high,"`
	Reach   float64              `json:"root_reach,omitempty" minimum:"0" maximum:"5" doc:"Of its roots, in crown spreads; 1.5 when absent"`
	Species string               `json:"species,omitempty" maxLength:"80" doc:"Catalogue id of a plant: what is absent of its size, leaf and light is taken from there"`
	PlantID int64                `json:"plant_id,omitempty" doc:"The plant of the record that it is; of a grave, that it was"`
	Cause   string               `json:"cause,omitempty" maxLength:"60" doc:"Of a grave: what the plant died of, by id"`
	Year    int                  `json:"year,omitempty" minimum:"0" maximum:"2200" doc:"Of a grave: in which it died"`
}

// Underlay is a picture that lies under a plan while it is drawn.
type Underlay struct {
	Photo  string  `json:"photo" maxLength:"64" doc:"By its hash"`
	At     At      `json:"at" doc:"Where its upper left corner lies"`
	Metres float64 `json:"metres_a_pixel" minimum:"0" maximum:"50"`
	Turn   float64 `json:"turn_deg,omitempty" minimum:"-360" maximum:"360" doc:"Clockwise, about that corner"`
	Faint  float64 `json:"faint,omitempty" minimum:"0" maximum:"1" doc:"How much it is faded"`
}

// Plan is a property seen from above.
type Plan struct {
	Latitude float64 `json:"latitude" minimum:"-66" maximum:"72"`
	NorthDeg float64 `json:"north_deg,omitempty" minimum:"-360" maximum:"360" doc:"Bearing of the plan's upward axis: 0 where up is north, 90 where up is east"`
	Things   []Thing `json:"things" maxItems:"3000"`
	LeafOut  int     `json:"leaf_out,omitempty" minimum:"0" maximum:"366" doc:"Day of the year on which deciduous crowns leaf out; as usual for the latitude when absent"`
	LeafDrop int     `json:"leaf_drop,omitempty" minimum:"0" maximum:"366" doc:"Day of the year on which they stand bare"`

	SlopePct float64   `json:"slope_pct,omitempty" minimum:"0" maximum:"200" doc:"How steeply the ground falls, metres in a hundred"`
	FallsTo  float64   `json:"falls_to_deg,omitempty" minimum:"-360" maximum:"360" doc:"Compass bearing to which it falls: 0 north, 90 east"`
	Horizon  []float64 `json:"horizon_deg,omitempty" maxItems:"72" doc:"How high hills beyond the plan stand, degrees, at even steps from north over east; 4 or more"`
	WindFrom string    `json:"wind_from,omitempty" enum:"north,north-east,east,south-east,south,south-west,west,north-west," doc:"Whence it blows most: shelter counts most on that side"`
	Underlay *Underlay `json:"underlay,omitempty"`
}

// stands reports a thing that throws shade.
func (t *Thing) stands() bool {
	switch t.Kind {
	case Plant, Tree, Hedge, Wall, Fence, Building:
		return t.HeightM > 0
	}
	return false
}

// crown reports a thing that is drawn as a crown.
func (t *Thing) crown() bool { return t.Kind == Plant || t.Kind == Tree }

// LengthM is how long a line is, m.
func (t *Thing) LengthM() (m float64) {
	for i := 1; i < len(t.Points); i++ {
		m += math.Hypot(t.Points[i].X-t.Points[i-1].X, t.Points[i].Y-t.Points[i-1].Y)
	}
	return m
}

// AreaM2 is how large what lies within an outline is, m²; of points and lines it is nothing.
func (t *Thing) AreaM2() (m2 float64) {
	if Kinds[t.Kind] != "area" {
		return 0
	}
	for i, a := range t.Points {
		b := t.Points[(i+1)%len(t.Points)]
		m2 += (a.X*b.Y - b.X*a.Y) / 2
	}
	return math.Abs(m2)
}

// Midway is half-way along a line, and the mean of an area's corners; of a point it is the point.
func (t *Thing) Midway() At {
	if Kinds[t.Kind] == "area" {
		var m At
		for _, q := range t.Points {
			m.X += q.X / float64(len(t.Points))
			m.Y += q.Y / float64(len(t.Points))
		}
		return m
	}
	left := t.LengthM() / 2
	for i := 1; i < len(t.Points); i++ {
		a, b := t.Points[i-1], t.Points[i]
		l := math.Hypot(b.X-a.X, b.Y-a.Y)
		if left <= l && l > 0 {
			return At{a.X + (b.X-a.X)*left/l, a.Y + (b.Y-a.Y)*left/l}
		}
		left -= l
	}
	return t.Points[0]
}

// along are places along a line or round an area, no further apart than a step, m; of a point it is the point.
func (t *Thing) along(step float64) []At {
	out, points := t.Points[:1:1], t.Points
	if Kinds[t.Kind] == "area" {
		points = append(slices.Clone(points), points[0])
	}
	for i := 1; i < len(points); i++ {
		a, b := points[i-1], points[i]
		n := math.Ceil(math.Hypot(b.X-a.X, b.Y-a.Y) / step)
		for k := 1.0; k <= n; k++ {
			out = append(out, At{a.X + (b.X-a.X)*k/n, a.Y + (b.Y-a.Y)*k/n})
		}
	}
	return out
}

// Row reports plants of the record that stand in a row or hedge.
func (t *Thing) Row() bool { return t.Kind == Hedge && t.PlantID != 0 }

// Filled reports a bed that plants of the record fill.
func (t *Thing) Filled() bool { return t.Kind == Bed && t.PlantID != 0 }

// Validate names every thing that cannot be. Its error is a list of refused fields.
func (p *Plan) Validate() error {
	var bad invalid.Fields
	bad.Within("latitude", p.Latitude, -66, 72, "°")
	p.lies(&bad)
	var ground *Thing
	seen := map[string]bool{}
	for i := range p.Things {
		t := &p.Things[i]
		if t.Kind == Ground {
			ground = t
		}
		at := fmt.Sprintf("things[%d].", i)
		if t.ID == "" || seen[t.ID] {
			bad.Add(at+"id", t.ID, "is missing or stands twice")
		}
		seen[t.ID] = true
		t.faults(at, &bad)
	}
	for i := range p.Things {
		if t := &p.Things[i]; t.Kind == Plant && ground != nil && len(t.Points) == 1 && !within(t.Points[0], ground.Points) {
			bad.Add(fmt.Sprintf("things[%d].points[0]", i), t.Points[0], "%s lies outside the ground", named(t))
		}
	}
	return bad.Err()
}

func named(t *Thing) string {
	if t.Name != "" {
		return t.Name
	}
	return string(t.Kind) + " " + t.ID
}

func (t *Thing) faults(at string, bad *invalid.Fields) {
	form, known := Kinds[t.Kind]
	if !known {
		bad.Add(at+"kind", string(t.Kind), "%q is not known", string(t.Kind))
		return
	}
	if least := map[string]int{"point": 1, "line": 2, "area": 3}[form]; len(t.Points) < least {
		bad.Add(at+"points", len(t.Points), "%s: want %d points at least", named(t), least)
	} else if form == "point" && len(t.Points) > 1 {
		bad.Add(at+"points", len(t.Points), "%s: want one point", named(t))
	}
	for k, q := range t.Points {
		if math.Abs(q.X) > 5000 || math.Abs(q.Y) > 5000 || math.IsNaN(q.X+q.Y) {
			bad.Add(fmt.Sprintf("%spoints[%d]", at, k), q, "%s lies further than 5 km from the plan's middle: is it in degrees?", named(t))
			return
		}
	}
	if form == "area" && crosses(t.Points) {
		bad.Add(at+"points", nil, "the outline of %s crosses itself", named(t))
	}
	switch t.Kind {
	case Wall, Fence, Hedge, Building, Tree, Wire:
		if !(t.HeightM > 0) {
			bad.Add(at+"height_m", t.HeightM, "%s: must be above 0", named(t))
		}
	}
	bad.Within(at+"height_m", t.HeightM, 0, 150, "m")
	bad.Within(at+"spread_m", t.SpreadM, 0, 60, "m")
	if t.crown() && t.ClearM > 0 && t.ClearM >= t.HeightM {
		bad.Add(at+"clear_m", t.ClearM, "%s: the stem is as tall as the whole, %g m", named(t), t.HeightM)
	}
	if t.Shape != "" && !slices.Contains(Shapes, t.Shape) {
		bad.Add(at+"shape", t.Shape, "want one of %v", Shapes)
	}
}

// Thing finds one by its id; nil where it is not there.
func (p *Plan) Thing(id string) *Thing {
	for i := range p.Things {
		if p.Things[i].ID == id {
			return &p.Things[i]
		}
	}
	return nil
}

// turned is the plan with north up.
func (p *Plan) turned() *Plan {
	if p.NorthDeg == 0 {
		return p
	}
	out := *p
	out.Things = slices.Clone(p.Things)
	sin, cos := math.Sincos(p.NorthDeg * math.Pi / 180)
	for i := range out.Things {
		pts := slices.Clone(out.Things[i].Points)
		for k, q := range pts { // up has the bearing NorthDeg: it points sin to the east and cos to the north
			pts[k] = At{q.X*cos + q.Y*sin, -q.X*sin + q.Y*cos}
		}
		out.Things[i].Points = pts
	}
	return &out
}
