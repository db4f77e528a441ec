package cold

import (
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/core/weather"
)

// Plant is a plant as an event meets it.
type Plant struct {
	Species catalogue.Entry
	HeightM float64
	BaseMM  float64 // stem thickness at the base, mm; 0 takes what is usual for the form and height
	PotL    float64 // litres of the pot; 0 in the ground
	Shelter float64 // from wind: 0 open to 1 wholly sheltered
	Sun     float64 // 0 shade to 1 sun all day
	Mulched bool

	Exposure Exposure
	South    bool // in the southern hemisphere

	MilderC float64 // what its garden, its spot and its kind have shown beside the book, °C; below 0 colder
}

// How a plant is taken to stand when nobody said.
const (
	UsualShelter = 0.5
	UsualSun     = 0.6
)

// Validate names every field that cannot be.
func (p Plant) Validate() error {
	var bad invalid.Fields
	bad.Within("height_m", p.HeightM, 0.02, 60, "m")
	bad.Within("base_mm", p.BaseMM, 0, 3000, "mm")
	bad.Within("pot_l", p.PotL, 0, 5000, "L")
	bad.Within("shelter", p.Shelter, 0, 1, "")
	bad.Within("sun", p.Sun, 0, 1, "")
	if e, ok := p.Exposure.Validate().(invalid.Fields); ok {
		bad = append(bad, e...)
	}
	return bad.Err()
}

// girth is how many mm of stem at the base a form builds for each metre of height; tips is the thickness of its ends.
var girth = map[catalogue.Form]float64{
	catalogue.Tree:      22,
	catalogue.Conifer:   20,
	catalogue.Shrub:     14,
	catalogue.Subshrub:  12,
	catalogue.Climber:   10,
	catalogue.Palm:      60,
	catalogue.Perennial: 8,
}

const (
	tips    = 3.0
	heartMM = 110.0 // a palm's growing point lies this deep

	palmLeavesC = 2.0 // a palm's leaves bear this much less than its growing point, °C
)

// Thickness is the stem's thickness, mm, at a share of the plant's height.
func (p Plant) Thickness(share float64) float64 {
	base := p.BaseMM
	if base == 0 {
		base = girth[p.Species.Form] * p.HeightM
	}
	base = max(tips+1, base)
	return tips + (base-tips)*(1-share)
}

// Organs of a plant.
const (
	Wood    = "wood"
	Buds    = "buds"
	Leaves  = "leaves"
	Shoots  = "new shoots"
	Tops    = "tops"
	Blossom = "blossom"
	Roots   = "roots"
	Crown   = "crown"
	Heart   = "growing point"
	Limbs   = "limbs"
)

// Injury is what one organ suffered from one thing.
type Injury struct {
	Organ   string  `json:"organ"`
	By      string  `json:"by" enum:"cold,drying wind,heat,gale,standing water"`
	Share   float64 `json:"share" doc:"Expected share killed or hurt, 0 to 1"`
	TissueC float64 `json:"tissue_c" doc:"Lowest temperature it reached, °C; 0 where cold was not the cause"`
	KillC   float64 `json:"kill_c" doc:"Temperature at which half of it dies on that day, °C"`
}

// What hurts.
const (
	ByCold   = "cold"
	ByDrying = "drying wind"
	ByHeat   = "heat"
	ByGale   = "gale"
	ByWater  = "standing water"
)

// Outcome is what an event is expected to have done to a plant.
type Outcome struct {
	Event      *Struck
	WoodKillC  float64 // at which half the wood of the ends dies that day, °C
	BudKillC   float64
	Organs     []Injury
	ThickestMM float64 // thickest wood half of which is killed, mm; 0 where not even tips are
	Dieback    float64 // expected share of the height lost from the tips, 0 to 1
	Dose       float64 // drying, kPa·h
	Severity   float64 // 0 unhurt to 1 lost
	Worst      Injury
	plant      *Plant
	bloom      flowers
	ripe       ripeness
}

// weightOf is how much an organ's loss means for the plant; wood counts by its dieback.
var weightOf = map[string]float64{
	Roots:   1,
	Crown:   1,
	Heart:   1,
	Limbs:   0.6,
	Buds:    0.3,
	Shoots:  0.3,
	Tops:    0.06,
	Leaves:  0.2,
	Blossom: 0.05,
}

// cropWeight is what lost blossom means where fruit was to follow.
const cropWeight = 0.15

// fallenWeight is what the loss of leaves means that fall in autumn anyway.
const fallenWeight = 0.05

// Meet is what an event does to a plant. stage tells where its growth stands on the event's day.
func (s *Struck) Meet(p *Plant, stage catalogue.Stage) Outcome {
	e := &p.Species
	o := Outcome{Event: s, plant: p}
	share := s.Hardened.Of(e)
	o.WoodKillC, o.BudKillC = Bears(e, share)
	o.ripe = ripeness{unripe(e, share), aged(e, share), p.stretch()}
	o.WoodKillC += o.ripe.unripeC
	o.BudKillC = max(o.BudKillC, o.WoodKillC)
	switch s.Kind {
	case weather.Freeze, weather.LateFrost:
		s.cold(p, stage, &o)
	case DryingWind:
		sums := s.dry.of(p.HeightM, p.PotL > 0, p.Mulched)
		o.Dose = drynessScale * sums.dose(p.Shelter, p.sun()) * leafiness(e, stage) * aboveSnow(p.HeightM, s.snowM)
		o.add(Injury{Organ: driedOrgan(e), By: ByDrying, Share: dried(o.Dose, e.DryingKPAH)})
	case weather.Heat:
		o.add(Injury{Organ: Leaves, By: ByHeat, Share: over(s.scorch*p.sun(), scorchBorne[e.Light])})
	case weather.Gale:
		if (e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Climber) && p.HeightM > 2 {
			force := s.Value / s.Threshold * (1 - 0.7*p.Shelter)
			borne := 1.4
			if e.WeakWood {
				borne = 0.9
			}
			o.add(Injury{Organ: Limbs, By: ByGale, Share: min(1, 0.5*over(force, borne)*min(1, p.HeightM/8))})
		}
	case weather.Wet:
		if p.PotL == 0 && (e.SoilWater == "dry" || e.SoilWater == "well drained") {
			borne := 1.6
			if e.SoilWater == "dry" {
				borne = 1.2
			}
			o.add(Injury{Organ: Roots, By: ByWater, Share: 0.3 * over(s.Value/s.Threshold, borne+p.drains())})
		}
	}
	return o
}

// drynessScale brings the dose to what kinds are said to bear.
const drynessScale = 1.36

// aboveSnow is the share of a plant's leaves that stands out of snow of a depth, m.
func aboveSnow(heightM, snowM float64) float64 {
	if heightM <= 0 {
		return 1
	}
	return max(0, min(1, 1-snowM/heightM))
}

// over is the injury of a dose: none up to what is borne, then rising towards all.
func over(dose, borne float64) float64 {
	if dose <= borne {
		return 0
	}
	return -math.Expm1(-(dose/borne - 1))
}

// scorchBorne is the worst day's hours over 34 °C in the sun that leaves of each light class bear, °C·h.
var scorchBorne = map[string]float64{"shade": 5, "part shade": 10, "sun or part shade": 30, "full sun": 90}

// leafiness is how much of a plant loses water in winter.
func leafiness(e *catalogue.Entry, stage catalogue.Stage) float64 {
	switch {
	case e.LeafSeason == catalogue.Evergreen:
		return 1
	case e.LeafSeason == catalogue.SemiEvergreen:
		return 0.6
	case e.LeafSeason == catalogue.Herbaceous && stage.SinceLeafOut < 0:
		return 0
	}
	return 0.35
}

func driedOrgan(e *catalogue.Entry) string {
	if e.LeafSeason == catalogue.Deciduous {
		return Buds
	}
	return Leaves
}

func (s *Struck) cold(p *Plant, stage catalogue.Stage, o *Outcome) {
	e := &p.Species
	warm := p.warmth()
	fine := s.tissue[0] + warm
	add := func(organ string, t, kill float64) { o.add(Injury{organ, ByCold, injury(t, kill), t, kill}) }
	soil := s.soil
	if p.Mulched {
		soil = s.mulched
	}
	if p.PotL > 0 {
		soil = s.potC(p.PotL) + warm
	}
	tip := s.TissueC(tips) + warm
	if p.snowed(s) >= 1 {
		fine, tip = max(fine, soil), max(tip, soil)
	}
	soft := stage.Leafing && stage.SinceLeafOut >= 0 && stage.SinceLeafOut < SoftDays
	growthKill := max(leavesBear(e)-justOpen(e, stage), o.WoodKillC)
	if e.HardinessC > UnhardenedC {
		growthKill = UnhardenedTC
	}
	switch {
	case e.Form == catalogue.Palm:
		add(Heart, s.TissueC(heartMM)+warm, o.WoodKillC)
		add(Leaves, fine, min(UnhardenedTC, o.WoodKillC+palmLeavesC))
	case tenderAnnual(e):
		if stage.Leafy || stage.Leafing && stage.SinceLeafOut >= -setOutDays { // else none stands there
			add(Tops, fine, topsBear(e))
			add(Crown, fine, min(e.HardinessC, o.WoodKillC)-annualDiesC)
		}
	case e.Form == catalogue.Perennial:
		add(Crown, p.crownC(s, soil, warm), o.WoodKillC+p.soaked())
		switch {
		case e.LeafSeason != catalogue.Herbaceous:
			add(Leaves, fine, winterLeavesBear(e, s.Hardened.Of(e), o.WoodKillC))
		case stage.Leafy && !soft, e.HardinessC > tenderCrownC && sprouts(stage):
			add(Tops, fine, topsBear(e))
		}
	default:
		o.ThickestMM = s.thickest(o.WoodKillC-warm, o.ripe)
		o.Dieback = min(p.dieback(o.ThickestMM), 1-p.snowed(s))
		if p.snowed(s) >= 1 {
			o.ThickestMM = 0
		}
		add(Wood, tip, o.WoodKillC)
		if stage.SinceLeafOut < 0 || !stage.Leafing || e.LeafSeason == catalogue.Evergreen { // else they have opened
			add(Buds, fine, o.BudKillC)
		}
		switch {
		case e.LeafSeason == catalogue.Evergreen:
			add(Leaves, fine, winterLeavesBear(e, s.Hardened.Of(e), o.WoodKillC))
		case stage.Leafy && !soft:
			add(Leaves, fine, grownLeavesBear(e, o.WoodKillC))
		}
	}
	if soft && (e.LeafSeason != catalogue.Herbaceous || s.Kind == weather.LateFrost) {
		add(Shoots, fine, growthKill)
	}
	if o.bloom = bloomOn(e, stage, o.BudKillC); o.bloom.Name != "" {
		add(Blossom, max(fine, s.TissueC(o.bloom.thick())+warm), o.bloom.KillC)
	}
	if e.Form != catalogue.Perennial || p.PotL > 0 {
		add(Roots, soil, e.RootHardinessC+p.soaked())
	}
}

// snowed is the share of the plant's height that stood in snow.
func (p *Plant) snowed(s *Struck) float64 {
	if p.PotL > 0 || s.snowM < leastSnowM {
		return 0
	}
	return min(1, s.snowM/p.HeightM)
}

// leastSnowM is how deep snow must lie to shelter what stands in it, m.
const leastSnowM = 0.05

// crownC is how cold a crown got, that lies at the surface, half in the soil; under snow it is as warm as the soil.
func (p *Plant) crownC(s *Struck, soil, warm float64) float64 {
	if p.PotL == 0 && s.snowM >= 2*leastSnowM {
		return soil
	}
	return (soil + s.TissueC(100) + warm) / 2
}

// add notes an injury and keeps the worst.
func (o *Outcome) add(i Injury) {
	if i.Share < 0.02 {
		return
	}
	o.Organs = append(o.Organs, i)
	w := weightOf[i.Organ] * i.Share
	switch {
	case i.Organ == Wood:
		w = i.Share * (0.15 + 0.85*o.Dieback)
	case i.Organ == Blossom && o.plant.Species.GrownForFruit():
		w = cropWeight * i.Share
	case i.Organ == Leaves && i.By == ByCold && o.plant.Species.LeafSeason != catalogue.Evergreen:
		w = fallenWeight * i.Share
	case i.Organ == Leaves && i.By == ByDrying:
		w = 0.45 * i.Share
	}
	if w > o.Severity {
		o.Severity, o.Worst = w, i
	}
}

// Share is the injury of an organ, 0 where it has none.
func (o *Outcome) Share(organ string) float64 {
	for _, i := range o.Organs {
		if i.Organ == organ {
			return i.Share
		}
	}
	return 0
}

// spotSpread is how far the foretold end of life may be off, as a logistic scale in °C: one plant stands colder or
// milder than the thermometer, and kinds of a species differ, together by about 2 °C either way (standard deviation).
const spotSpread = 1.1

// guessSpread is the same for a kind whose hardiness is a guess: a stand-in for one that nobody has named, °C.
const guessSpread = 2.2

// spread is how far the foretold end of life of a species may be off, °C.
func spread(e *catalogue.Entry) float64 {
	if e.Basis["hardiness_c"] == catalogue.Guess {
		return guessSpread
	}
	return spotSpread
}

// AliveAt is the chance that the stem lives at a share of its height after a cold or drying event, with how far one
// plant stands from the next in it. It never rises with height.
func (o *Outcome) AliveAt(share float64) float64 {
	switch {
	case o.Event.Cold():
		return 1 - 1/(1+math.Exp(o.SpareC(share)/spread(&o.plant.Species)))
	case o.Event.Kind == DryingWind && len(o.Organs) > 0: // dries from the ends; the base mostly lives
		return 1 - o.Organs[0].Share*0.6*share
	}
	return 1
}

// SpareC is by how many degrees wood at a share of the height stayed above what kills half of it, in a cold event; below 0
// it was colder. It never rises with height; under the snow it is without end.
func (o *Outcome) SpareC(share float64) float64 {
	if share < o.plant.snowed(o.Event) {
		return math.Inf(1)
	}
	mm := o.plant.Thickness(share)
	return o.Event.TissueC(mm) + o.plant.warmth() - o.ripe.killAt(o.WoodKillC, mm)
}

// Learnt is by how much the plant was reckoned milder for what its garden, its spot and its kind have shown, °C.
func (o *Outcome) Learnt() float64 { return o.plant.MilderC }
