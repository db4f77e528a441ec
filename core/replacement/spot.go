package replacement

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
	"mezzadro/core/site"
)

// Spot is where something is to stand. What is absent is not known, and counts for nothing.
type Spot struct {
	Sun      *float64 `json:"sun_hours,omitempty" doc:"Hours of strong direct sun a day in summer, as the plan tells it"`
	Light    string   `json:"light,omitempty" enum:"full sun,part shade,shade," doc:"In place of hours"`
	Water    string   `json:"soil_water,omitempty" enum:"dry,well drained,even,moist,wet,"`
	Stands   bool     `json:"water_stands,omitempty" doc:"Water stands there after rain"`
	Windy    bool     `json:"windy,omitempty" doc:"Open to the wind"`
	WarmWall bool     `json:"warm_wall,omitempty" doc:"At a wall that the sun warms: milder nights, hotter days, drier soil"`
	Hollow   bool     `json:"hollow,omitempty" doc:"Cold air gathers there"`
	PotL     float64  `json:"pot_l,omitempty" minimum:"0" maximum:"2000" doc:"Of a pot that stays out"`
	HeightM  float64  `json:"height_m,omitempty" minimum:"0" maximum:"100" doc:"Room up, to the eave or the sill"`
	SpreadM  float64  `json:"spread_m,omitempty" minimum:"0" maximum:"60" doc:"Room across"`
	WireM    float64  `json:"wire_m,omitempty" minimum:"0" maximum:"60" doc:"Height of a wire overhead"`
	HouseM   float64  `json:"house_m,omitempty" minimum:"0" maximum:"100" doc:"Distance to a building or a wall that carries"`
	PathM    float64  `json:"path_m,omitempty" minimum:"0" maximum:"100" doc:"Distance to a path that is to stay free"`
	CrownM   float64  `json:"crown_m,omitempty" minimum:"0" maximum:"100" doc:"Distance to the edge of the nearest other crown"`
	ClearM   float64  `json:"under_m,omitempty" minimum:"0" maximum:"60" doc:"Under a crown: what is clear beneath it"`
	SillM    float64  `json:"sill_m,omitempty" minimum:"0" maximum:"30" doc:"Before a window: how high its sill is"`
	DrainM   float64  `json:"drain_m,omitempty" minimum:"0" maximum:"100" doc:"Distance to a drain"`
	Roots    float64  `json:"thirst,omitempty" minimum:"0" maximum:"10" doc:"Roots of greedy neighbours, as the plan tells it"`
	Children bool     `json:"children,omitempty" doc:"Small children play there"`
	Pets     bool     `json:"pets,omitempty"`
	People   bool     `json:"people,omitempty" doc:"People walk, sit or park beneath"`
	Paving   bool     `json:"paving,omitempty" doc:"Over paving"`
	Salt     bool     `json:"salt,omitempty" doc:"Spray from the sea, or a road that is salted in winter"`
	Fire     bool     `json:"fire,omitempty" doc:"Wildfire comes there, and a building is near"`
	PH       float64  `json:"ph,omitempty" doc:"Of the soil, 3 to 10; not measured when absent"`
	Invasive []string `json:"invasive,omitempty" maxItems:"500" doc:"Kinds that must not be planted in the region, by catalogue id"`
}

// Died is what stood there.
type Died struct {
	Species string `json:"species,omitempty" doc:"Catalogue id"`
	Cause   string `json:"cause,omitempty" doc:"By id, as causes are told"`
	Years   int    `json:"years_ago,omitempty" minimum:"0" maximum:"200"`
	Soil    bool   `json:"soil_changed,omitempty" doc:"The soil was dug out and changed"`
	Ugly    bool   `json:"only_ugly,omitempty" doc:"It did not die: it was only ugly again and again"`
}

// Wish is what it should be.
type Wish struct {
	ScreenM  float64          `json:"screen_m,omitempty" minimum:"0" maximum:"30" doc:"It should hide something that is so tall"`
	Within   int              `json:"within_years,omitempty" minimum:"0" maximum:"50" doc:"Years in which it should"`
	Evergr   bool             `json:"evergreen,omitempty"`
	Edible   bool             `json:"edible,omitempty"`
	Bloom    []int            `json:"bloom_months,omitempty" maxItems:"12" doc:"Months in which it should bloom, 1 January"`
	LowWork  bool             `json:"low_upkeep,omitempty"`
	Scent    bool             `json:"scent,omitempty"`
	Tame     bool             `json:"not_invasive,omitempty" doc:"Nothing that spreads into the wild or to the neighbours in any region"`
	Pollin   bool             `json:"pollinators,omitempty" doc:"Something for bees and other visitors"`
	Colours  []string         `json:"colours,omitempty" maxItems:"9" doc:"Of the flowers, any of them: white, cream, yellow, orange, red, pink, purple, blue, green"`
	Forms    []catalogue.Form `json:"forms,omitempty" maxItems:"7"`
	MaxM     float64          `json:"max_m,omitempty" minimum:"0" maximum:"60" doc:"No taller than that"`
	SameKind bool             `json:"same_kind,omitempty" doc:"The same genus, if it may be"`
}

// Ask is a whole question.
type Ask struct {
	Year  *season.Year // of the place
	Spot  Spot
	Died  Died
	Wish  Wish
	Among []catalogue.Entry // kinds to choose from
	Own   map[string]Own    // what the firm's own record says of kinds, by catalogue id
}

// Validate names what cannot be. Its error is a list of refused fields.
func (a *Ask) Validate() error {
	var bad invalid.Fields
	s := a.Spot
	if s.Sun != nil {
		bad.Within("spot.sun_hours", *s.Sun, 0, 20, "hours")
	}
	if s.PH != 0 {
		bad.Within("spot.ph", s.PH, 3, 10, "")
	}
	if s.Light != "" && !slices.Contains([]string{"full sun", "part shade", "shade"}, s.Light) {
		bad.Add("spot.light", s.Light, "want full sun, part shade or shade")
	}
	if s.Water != "" && !slices.Contains(waters, s.Water) {
		bad.Add("spot.soil_water", s.Water, "want one of %v", waters)
	}
	if a.Died.Cause != "" && cause.Built().Cause(a.Died.Cause) == nil {
		bad.Add("died.cause", a.Died.Cause, "there is no such cause")
	}
	for i, m := range a.Wish.Bloom {
		if m < 1 || m > 12 {
			bad.Add("wish.bloom_months", a.Wish.Bloom[i], "want months, 1 to 12")
		}
	}
	for _, c := range a.Wish.Colours {
		if !slices.Contains(catalogue.Colours, c) {
			bad.Add("wish.colours", c, "%q: want some of %v", c, catalogue.Colours)
		}
	}
	for _, f := range a.Wish.Forms {
		if !slices.Contains(catalogue.Forms, f) {
			bad.Add("wish.forms", string(f), "want some of %v", catalogue.Forms)
		}
	}
	return bad.Err()
}

// waters from dry to wet.
var waters = []string{"dry", "well drained", "even", "moist", "wet"}

// hours of strong sun of the spot; false where nobody knows.
func (s *Spot) hours() (float64, bool) {
	if s.Sun != nil {
		return *s.Sun, true
	}
	h, known := map[string]float64{"full sun": 8.5, "part shade": 4.5, "shade": 1.5}[s.Light]
	return h, known
}

// coldest is the mean of the coldest nights of years as the spot has them, °C.
func (a *Ask) coldest() float64 {
	c := a.Year.Normals.Climate.ExtremeMinC
	if a.Spot.Hollow {
		c += season.Site{FrostPocket: true}.Offsets().ExtremeC
	} else if a.Spot.WarmWall {
		c += season.Site{WarmWall: true}.Offsets().ExtremeC
	}
	return c
}

// diedOf is the cause that killed what stood there; nil where it is not known.
func (a *Ask) diedOf() *cause.Cause { return cause.Built().Cause(a.Died.Cause) }

// Read takes from a plan what the spot does not say of itself; what has one of the ids is taken away.
func (s *Spot) Read(p *site.Plan, at site.At, of site.Spot, without []string) {
	if s.Sun == nil && s.Light == "" {
		hours := of.Strong
		s.Sun = &hours
	}
	s.WarmWall, s.Hollow, s.Stands = s.WarmWall || of.WarmWall, s.Hollow || of.Hollow, s.Stands || of.Wet
	s.Windy = s.Windy || of.Shelter < openTo && of.Shelter > 0
	if s.Roots == 0 {
		s.Roots = of.Thirst
	}
	for i := range p.Things {
		t := &p.Things[i]
		if slices.Contains(without, t.ID) {
			continue
		}
		d := t.From(at)
		switch t.Kind {
		case site.Building:
			nearer(&s.HouseM, d)
		case site.Drain:
			nearer(&s.DrainM, d)
		case site.Wire:
			if d < wireBeside && (s.WireM == 0 || t.HeightM < s.WireM) {
				s.WireM = t.HeightM
			}
		case site.Path:
			s.People = s.People || d < pathBeside
			nearer(&s.PathM, d)
		case site.Window:
			if d < windowBefore && (s.SillM == 0 || t.HeightM < s.SillM) {
				s.SillM = t.HeightM
				if s.SillM == 0 {
					s.SillM = sillUsual
				}
			}
		case site.Plant, site.Tree:
			s.beside(t, d)
		}
	}
}

// Of what stands about.
const (
	openTo     = 0.12 // shelter below which a spot counts as open to the wind, where there is any
	wireBeside = 4.0  // m
	pathBeside = 3.0

	windowBefore = 2.0
	sillUsual    = 0.9
	crownsNear   = 6.0 // beyond which another crown is of no account
)

// beside notes another crown: how far its edge is, or what is clear under it.
func (s *Spot) beside(t *site.Thing, d float64) {
	reach := max(t.SpreadM/2, 0.1)
	switch {
	case d < reach && t.ClearM >= 1 && (s.ClearM == 0 || t.ClearM < s.ClearM):
		s.ClearM = t.ClearM
	case d >= reach && d-reach < crownsNear:
		nearer(&s.CrownM, d-reach)
	}
}

// nearer keeps the shorter of two distances; 0 stands for none.
func nearer(to *float64, d float64) {
	if d = max(d, 0.1); *to == 0 || d < *to {
		*to = d
	}
}

// graveNear is how near something died that the soil still tells of, m.
const graveNear = 3.0

// Read takes what died nearby from the graves on a plan, where nothing is said of it.
func (d *Died) Read(p *site.Plan, at site.At, year int) {
	if d.Species != "" || d.Cause != "" {
		return
	}
	least := graveNear
	for i := range p.Things {
		t := &p.Things[i]
		if away := t.From(at); t.Kind == site.Grave && away <= least {
			least = away
			d.Species, d.Years = t.Species, 0
			if cause.Built().Cause(t.Cause) != nil {
				d.Cause = t.Cause
			}
			if t.Year > 0 && t.Year < year {
				d.Years = year - t.Year
			}
		}
	}
}
