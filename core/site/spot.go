package site

import (
	"fmt"
	"math"

	"mezzadro/core/quantity"
)

// Classes of light by the hours of direct sun in summer, with the sun 10° high or more.
const (
	FullSun   = 6.0 // and more
	PartShade = 3.0 // and more; below it is shade
)

// tropics is the latitude within which there is no summer to speak of, degrees.
const tropics = 18

// SummerHours are the mean of May to August, of November to February south of the equator, of the year in the tropics:
// trees are in leaf then.
func SummerHours(months [12]float64, latitude float64) float64 {
	list := []int{5, 6, 7, 8}
	switch {
	case math.Abs(latitude) < tropics:
		list = []int{1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12}
	case latitude < 0:
		list = []int{11, 12, 1, 2}
	}
	sum := 0.0
	for _, m := range list {
		sum += months[m-1] / float64(len(list))
	}
	return sum
}

// Class names the light of a spot.
func Class(hours float64) string {
	switch {
	case hours >= FullSun:
		return "full sun"
	case hours >= PartShade:
		return "part shade"
	}
	return "shade"
}

// Spot is what a place on a plan gets.
type Spot struct {
	Months   [12]float64 `json:"hours" doc:"Mean hours of direct sun a day on clear days, January first"`
	Summer   float64     `json:"summer" doc:"Of the four months about midsummer, on average; in the tropics of all"`
	Strong   float64     `json:"strong" doc:"Of those with the sun 10° high or more: the class goes by these"`
	Winter   float64     `json:"winter" doc:"Of the month of midwinter"`
	Class    string      `json:"class" enum:"full sun,part shade,shade" doc:"Full sun from 6 strong hours in summer on, part shade from 3"`
	Sun      float64     `json:"sun" doc:"As a plant's record has it: 0 shade to 1 sun all day"`
	Shelter  float64     `json:"shelter" doc:"From wind, of all directions, most of that whence it blows most: 0 open to 1 wholly sheltered"`
	From     []Wind      `json:"shelter_from" doc:"By direction, north first"`
	Facing   string      `json:"facing" doc:"The side from which most sun comes; empty where it is open on all sides"`
	WarmWall bool        `json:"warm_wall" doc:"Within a metre and a half of a wall that the sun warms"`
	Hollow   bool        `json:"hollow" doc:"Where cold air gathers: in a marked hollow, or above what dams it on a slope"`
	Wet      bool        `json:"wet" doc:"Where water is marked as standing after rain"`
	Spray    bool        `json:"spray" doc:"Within reach of a sprinkler"`
	Thirst   float64     `json:"thirst" doc:"Roots of greedy neighbours: 0 none, 1 one stands over it, and more"`
	Why      []string    `json:"why"`
}

// Wind is how sheltered a spot is from one direction.
type Wind struct {
	From    string  `json:"from"`
	Shelter float64 `json:"shelter"`
}

// Of shelter and of what is near.
const (
	shelterReach = 12.0 // heights to the lee at which shelter ends
	wallNear     = 1.5  // m
	wallLeast    = 1.2  // m: a lower wall warms nothing
	wallSun      = 4.0  // hours of sun on its face in March and September: in summer a wall that faces the pole has some too
	sprayReach   = 4.0  // m
)

// SpotAt works out what a place gets, so far above the ground; what has one of the ids is left out.
func (p *Plan) SpotAt(at At, up float64, year int, without ...string) Spot {
	sky := p.SkyFrom(at, up, without...)
	light, open := sky.Year(year), p.openField(year)
	out := Spot{Months: light.Hours, Winter: light.Hours[11]}
	if p.Latitude < 0 {
		out.Winter = light.Hours[5]
	}
	out.Summer, out.Strong = SummerHours(light.Hours, p.Latitude), round(SummerHours(light.Strong, p.Latitude))
	strong := 0.0 // months that have strong sun at all: near the poles midwinter has none
	for m := range out.Months {
		if open.Strong[m] > 0 {
			out.Sun, strong = out.Sun+light.Strong[m]/open.Strong[m], strong+1
		}
		out.Months[m] = round(out.Months[m])
	}
	out.Sun /= math.Max(1, strong)
	out.Summer, out.Winter = round(out.Summer), round(out.Winter)
	out.Sun, out.Class = round(math.Min(1, out.Sun)), Class(out.Strong)
	out.From = sky.shelter()
	sum := 0.0
	for i, w := range out.From {
		out.Shelter += w.Shelter * p.weight(i)
		sum += p.weight(i)
	}
	out.Shelter = round(out.Shelter / sum)
	out.Facing = sky.facing()
	sky.near(&out, year, without)
	return out
}

func round(v float64) float64 { return math.Round(v*100) / 100 }

// openField is the light of one.
func (p *Plan) openField(year int) Light {
	return (&Plan{Latitude: p.Latitude}).SkyFrom(At{}, 1).Year(year)
}

// shelter by direction: what stands up the wind within twelve of its heights breaks it, the nearer the more; what lets
// air through breaks it more evenly, so that a hedge shelters further than a wall.
func (s *Sky) shelter() []Wind {
	out := make([]Wind, 8)
	for i := range out {
		most := 0.0
		for k := -2; k <= 2; k++ { // the wind comes from a sector
			most += s.sheltered(float64(i)*math.Pi/4+float64(k)*math.Pi/20) / 5
		}
		out[i] = Wind{facing(float64(i) * math.Pi / 4), round(most)}
	}
	return out
}

func (s *Sky) sheltered(bearing float64) float64 {
	bearing = math.Mod(bearing+2*math.Pi, 2*math.Pi)
	sin, cos := math.Sincos(bearing)
	best := 0.0
	for _, k := range s.bins[int(bearing/(2*math.Pi)*bins)%bins] {
		o := &s.list[k.at]
		t, away := o.thing, 0.0
		if o.crown {
			if t.ClearM > s.up+1 {
				continue // it blows through below
			}
			away = math.Max(0, Distance(s.at, t.Points[0])-t.radius())
		} else if d, hit := s.hit(o.edge, sin, cos); hit {
			away = d
		} else {
			continue
		}
		power := map[Kind]float64{Hedge: 0.8, Tree: 0.6, Plant: 0.55, Fence: 0.65, Wall: 0.7, Building: 0.9}[t.Kind]
		reach := shelterReach * (t.HeightM - s.up)
		best = math.Max(best, power*math.Max(0, 1-away/reach))
	}
	return best
}

// facing is the side from which most of a summer day's light comes; empty where all sides are open alike.
func (s *Sky) facing() string {
	x, y, sum := 0.0, 0.0, 0.0
	for b := range 72 {
		bearing := float64(b) * math.Pi / 36
		r := rayTo(0.6, bearing)
		v := s.through(&r, true)
		x, y, sum = x+v*math.Sin(bearing), y+v*math.Cos(bearing), sum+v
	}
	if sum < 1 || math.Hypot(x, y)/sum < 0.2 {
		return ""
	}
	return facing(bearing(At{}, At{x, y}))
}

// near notes what is near a spot.
func (s *Sky) near(out *Spot, year int, without []string) {
	say := func(format string, a ...any) { out.Why = append(out.Why, fmt.Sprintf(format, a...)) }
	out.Why = []string{}
	say("%s: %.1f hours of strong direct sun a day in summer; %.1f hours in all, %.1f at midwinter, on clear days.", out.Class, out.Strong, out.Summer, out.Winter)
	for i := range s.plan.Things {
		t := &s.plan.Things[i]
		if contains(without, t.ID) {
			continue
		}
		d := t.From(s.at)
		switch {
		case t.Kind == Hollow && d == 0:
			out.Hollow = true
			say("It lies in a hollow: cold air gathers there.")
		case !out.Hollow && s.plan.dams(t, s.at):
			out.Hollow = true
			say("Cold air runs down the slope and gathers above %s.", named(t))
		case t.Kind == Water && d == 0:
			out.Wet = true
			say("Water stands there after rain.")
		case t.Kind == Sprinkler && d <= sprayReach:
			out.Spray = true
			say("A sprinkler reaches it: leaves stay wet.")
		case (t.Kind == Wall || t.Kind == Building) && d <= wallNear && t.HeightM >= wallLeast && !out.WarmWall && s.warms(t, year):
			out.WarmWall = true
			say("The sun warms %s beside it, %s away: warmer nights, hotter noons, dry soil.", named(t), quantity.Length(d))
		case (t.crown() || t.Kind == Hedge) && t.Thirst == "high":
			out.Thirst += t.roots(d)
		}
	}
	if out.Thirst = round(out.Thirst); out.Thirst >= 0.3 {
		say("Roots of greedy neighbours share its soil.")
	}
}

// roots are how much of the soil at a distance a thing takes: all of it under its crown, nothing beyond its reach.
func (t *Thing) roots(d float64) float64 {
	reach := t.Reach
	if reach == 0 {
		reach = 1.5
	}
	far, own := 2*t.radius()*reach, t.radius()
	if !t.crown() {
		far, own = t.HeightM*reach, t.SpreadM/2
	}
	return math.Max(0, math.Min(1, (far-d)/math.Max(0.1, far-own)))
}

// warms reports that the face of a wall that is turned to the spot has sun for some hours of a day in spring and
// autumn.
func (s *Sky) warms(t *Thing, year int) bool {
	least, foot := math.Inf(1), At{}
	var face edge
	for _, e := range t.edges() {
		if d, q := e.from(s.at); d < least {
			least, foot, face = d, q, e
		}
	}
	dx, dy := face.b.X-face.a.X, face.b.Y-face.a.Y
	l := math.Hypot(dx, dy)
	if l == 0 {
		return false
	}
	nx, ny := dy/l, -dx/l // out of the wall, turned to the spot
	if nx*(s.at.X-foot.X)+ny*(s.at.Y-foot.Y) < 0 {
		nx, ny = -nx, -ny
	}
	plan := *s.plan
	plan.NorthDeg = 0
	before := plan.SkyFrom(At{foot.X + 0.05*nx, foot.Y + 0.05*ny}, math.Min(1.2, t.HeightM/2))
	light := before.Year(year).Strong
	return (light[2]+light[8])/2 >= wallSun
}

// Wants is how many hours of direct sun in summer suit a plant by its light: less starves it, more may scorch it.
func Wants(light string) (least, most float64) {
	switch light {
	case "full sun":
		return 5, 24
	case "part shade":
		return 1.5, 5.5
	case "shade":
		return 0, 3.5
	}
	return 2.5, 24
}
