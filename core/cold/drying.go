package cold

import (
	"math"

	"mezzadro/core/weather"
)

// Drying over frozen soil: leaves lose water by day, by the deficit of the air, sun and wind, while frozen soil gives
// none. Stomata shut with cold, so that the same air draws less in hard frost. What was lost is made good by thaw,
// slowly by what deeper roots find, and in moist hours. The larger a plant, the deeper its roots, and the harder the
// soil has to be frozen.

const (
	shutC, wideC = -5.0, 6.0 // °C at and under which a leaf loses least, and from which its stomata are as open as by day in spring
	leastOpen    = 0.06      // of what it loses then, through its skin
	sunWarms     = 7.0       // °C by which full sun warms a leaf in still air
	thawsIn      = 18.0      // hours in which thawed soil makes good most of what was lost
	frozenIn     = 24 * 7.0  // the same of deeper roots under frozen soil
	moistIn      = 36.0      // and of moist air
	moistRH      = 88.0      // %
	fullyOpen    = 7.0       // dose, kPa·h, to a plant in full wind and sun from which a spell is told as an event
	endsUnder    = 0.6       // share of that under which a spell is over
	nothing      = 1e-9      // of a dose, kPa·h, under which nothing is lacking
	potFrozenC   = -0.5
)

// What an hour leaves of what was lost.
var (
	thawLeaves   = math.Exp(-1 / thawsIn)
	frozenLeaves = math.Exp(-1 / frozenIn)
	moistLeaves  = math.Exp(-1 / moistIn)
)

// zones are how hard soil at 10 cm is frozen, °C, when the roots of low, middling and tall plants are; heights up to
// which they go, m.
var (
	zoneC = [...]float64{-1.1, -1.4, -2.2}
	zoneM = [...]float64{0.8, 2.5, math.MaxFloat64}
)

// drySums are the sums over daylight hours from which any plant's dose follows: vapour deficit at a leaf in shade, what
// sun adds by warming it, kPa·h, and the same two times wind, m/s.
type drySums struct{ vpd, sun, wind, both float64 }

// dose is the vapour deficit a plant met, weighted by how open it stands to wind and sun, kPa·h.
// A leaf whose stomata are shut loses through its skin, which wind does little to: sun that warms it tells most, and
// what a wall or hedge keeps off is a part.
func (d drySums) dose(shelter, sun float64) float64 {
	return 1.1*(d.vpd+sun*d.sun) + 0.31*(1-shelter)*(d.wind+sun*d.both)
}

// plantsDiffer is how much plants of a kind differ in what drying they bear, by root, age and how they went into the
// winter: the deviation of its logarithm.
const plantsDiffer = 0.55

// driedUnder is the expected share under which none is told.
const driedUnder = 0.05

// dried is the expected share of leaves or buds lost to a dose by a plant of a kind that bears so much in the middle.
func dried(dose, borne float64) float64 {
	share := 0.0
	for z := -2.0; z <= 2; z += 0.5 {
		share += gauss[int(2*math.Abs(z))] * over(dose, borne*math.Exp(plantsDiffer*z))
	}
	if share < driedUnder {
		return 0
	}
	return share
}

// gauss are the weights of the bell curve at 0, 0.5, … 2 deviations.
var gauss = [...]float64{0.2042, 0.1802, 0.1238, 0.0663, 0.0276}

func (d *drySums) add(o drySums) {
	d.vpd, d.sun, d.wind, d.both = d.vpd+o.vpd, d.sun+o.sun, d.wind+o.wind, d.both+o.both
}

func (d *drySums) fade(f float64) {
	d.vpd, d.sun, d.wind, d.both = d.vpd*f, d.sun*f, d.wind*f, d.both*f
}

// drying is what plants lack at the worst of a spell: by how deep they root, under bare soil and under mulch, and in
// pots.
type drying struct {
	bare, mulched [len(zoneC)]drySums
	pot           drySums
}

// worst is the dose to the plant that meets most.
func (d *drying) worst() float64 { return max(d.bare[0].dose(0, 1), d.pot.dose(0, 1)) }

// lacks reports that some plants lack anything worth following.
func (d *drying) lacks() bool {
	most := d.pot.vpd + d.pot.sun
	for k := range zoneC {
		most = max(most, d.bare[k].vpd+d.bare[k].sun, d.mulched[k].vpd+d.mulched[k].sun)
	}
	return most >= nothing
}

// of is what a plant of a height lacks.
func (d *drying) of(heightM float64, potted, mulched bool) drySums {
	if potted {
		return d.pot
	}
	for k, m := range zoneM {
		if heightM <= m {
			if mulched {
				return d.mulched[k]
			}
			return d.bare[k]
		}
	}
	return drySums{}
}

// spell is a stretch in which plants dried, up to its worst hour.
type spell struct {
	from, to int
	dry      drying
}

// wilting follows what plants lack hour by hour.
type wilting struct {
	now    drying
	lacks  bool // anything at all
	spell  spell
	open   bool
	began  int
	spells []spell
}

// opens is how far stomata are open at a temperature.
func opens(tempC float64) float64 {
	return max(leastOpen, min(1, (tempC-shutC)/(wideC-shutC)))
}

// saturated is the vapour pressure of saturated air, kPa.
func saturated(tempC float64) float64 { return 0.6108 * math.Exp(17.27*tempC/(tempC+237.3)) }

// givesNone reports that soil somewhere is frozen so hard that it gives some plants none of what they lose.
func givesNone(bareC, mulchedC, potC float64) bool {
	return min(bareC, mulchedC) <= zoneC[0] || potC <= potFrozenC
}

// hour takes an hour in; light where it is day and soil somewhere gives none.
func (w *wilting) hour(i int, h weather.Hour, bareC, mulchedC, potC float64, light bool) {
	if !light && !w.lacks {
		w.began = i
		return
	}
	t := h.TempC
	wind, rh := or(h.WindMS, stillAir), or(h.RHPct, usualRH)
	shade, more := 0.0, 0.0
	if light {
		air := saturated(t) * rh / 100
		leaf := t + sunWarms*or(h.Sun, 0.5)/(1+0.15*wind)
		shade = max(0, saturated(t)-air) * opens(t)
		more = max(0, saturated(leaf)-air)*opens(leaf) - shade
	}
	add := drySums{shade, more, shade * wind, more * wind}
	moist := 1.0
	if rh >= moistRH {
		moist = moistLeaves
	}
	step := func(d *drySums, frozen bool) {
		if frozen {
			d.fade(moist * frozenLeaves)
			d.add(add)
		} else {
			d.fade(moist * thawLeaves)
		}
	}
	for k, c := range zoneC {
		step(&w.now.bare[k], bareC <= c)
		step(&w.now.mulched[k], mulchedC <= c)
	}
	step(&w.now.pot, potC <= potFrozenC)
	w.follow(i)
	if w.lacks = light || w.now.lacks(); !w.lacks {
		w.now = drying{}
	}
}

// follow opens and closes spells by what the plant that stands most open lacks.
func (w *wilting) follow(i int) {
	worst := w.now.worst()
	switch {
	case worst < endsUnder*fullyOpen:
		if w.open {
			w.spells, w.open = append(w.spells, w.spell), false
		}
		w.began = i
	case worst >= fullyOpen && !w.open:
		w.spell, w.open = spell{from: w.began, to: i, dry: w.now}, true
	case w.open && worst > w.spell.dry.worst():
		w.spell.to, w.spell.dry = i, w.now
	}
}

// done is all spells, one that still runs too.
func (w *wilting) done() []spell {
	if w.open {
		w.spells, w.open = append(w.spells, w.spell), false
	}
	return w.spells
}
