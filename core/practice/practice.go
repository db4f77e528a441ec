// Package practice is a made-up garden after a made-up freeze, to learn on: what each plant's checks show is drawn
// from a truth that is hidden, misreadings included, and what somebody decides is held against that truth. Everything
// is made from a number, so that nothing has to be kept.
package practice

import (
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/pruning"
	"mezzadro/core/rules"
	"mezzadro/core/walk"
	"mezzadro/core/weather"
)

// Plants in a garden, and how they are made up.
const (
	plants       = 6
	nearC        = 4.5  // °C from what it bears, to be worth a look
	deepest      = -4.0 // °C beside the usual lowest of a winter there
	mildest      = 5.0
	record       = 120 // days of weather before the freeze
	truthC       = 1.1 // logistic scale of how far a plant lies off what is foretold, °C
	budsRubbed   = 10
	lateFromBase = 20   // days
	atFoot       = 0.02 // share of the height up to which one lives that comes again from below
)

// Garden is one, as it is shown.
type Garden struct {
	Seed    uint64  `json:"seed" doc:"The number it is made from"`
	Climate string  `json:"climate" doc:"Type of climate, by id"`
	Today   day.Day `json:"today" format:"date"`
	Freeze  day.Day `json:"freeze" format:"date" doc:"The night of the freeze"`
	MinC    float64 `json:"min_c" doc:"How cold it was, °C"`
	Plants  []Plant `json:"plants"`

	ground *walk.Ground
	book   *catalogue.Catalogue
	truth  []truth
}

// Plant is one of its plants.
type Plant struct {
	Species  string         `json:"species" doc:"Its kind, by id"`
	Common   string         `json:"common"`
	Form     catalogue.Form `json:"form" enum:"shrub,subshrub,climber" doc:"How it grows"`
	HeightM  float64        `json:"height_m"`
	Expected string         `json:"expected" doc:"What the freeze is expected to have done to it: an estimate"`
}

// truth is what is hidden of a plant.
type truth struct {
	ends     float64 // where life ends, as a share of the height
	budsDead bool    // the frost took the buds of living wood
	leafs    day.Day // when its shoots show
}

// tries is how many winters are made up at most until one hurts enough kinds.
const tries = 40

// Make makes a garden up from a number, in a type of climate. Its error says that no freeze hurts plants there.
func Make(book *catalogue.Catalogue, climate catalogue.ClimateType, seed uint64) (*Garden, error) {
	r := rand.New(rand.NewPCG(seed, 71))
	for range tries {
		if g := try(book, climate, r); g != nil {
			g.Seed, g.Climate, g.book = seed, climate.ID, book
			return g, nil
		}
	}
	return nil, invalid.One("climate", climate.ID,
		"no freeze there hurts plants that can be checked up the stem: choose a colder one")
}

// try makes up a winter; nil where it hurt too few kinds to learn on.
func try(book *catalogue.Catalogue, climate catalogue.ClimateType, r *rand.Rand) *Garden {
	n := climate.Climate.Daily()
	winter := climate.Climate.Midwinter(day.Of(2027, 6, 1))
	on := winter + day.Day(r.IntN(70)-25)
	extreme := climate.Climate.ExtremeMinC
	minC := math.Round(10*(extreme+deepest+(mildest-deepest)*r.Float64())) / 10
	g := &Garden{Today: on + 15 + day.Day(r.IntN(90)), Freeze: on, MinC: minC}
	days := []weather.DayMeasured{}
	warm := 0.0
	for d := on - record; d < g.Today; d++ {
		warm = 0.8*warm + 1.8*r.NormFloat64()
		m := weather.DayMeasured{Day: d, MinC: n.TMin.At(d) + warm, MaxC: n.TMax.At(d) + warm, WindMS: 2, RHPct: 75}
		switch {
		case d == on:
			m.MinC, m.MaxC = minC, minC+6
		case m.MinC < minC+3:
			m.MinC, m.MaxC = minC+3, math.Max(m.MaxC, minC+8)
		}
		days = append(days, m)
	}
	hours := weather.OfDays(days, climate.Climate.Latitude, climate.Climate.Longitude, time.UTC)
	g.ground = walk.At(n, hours, time.UTC, g.Today, rules.House{})
	struck := g.struck()
	if struck == nil {
		return nil
	}
	g.plant(book, struck, r)
	if len(g.Plants) < plants {
		return nil
	}
	return g
}

// struck is the freeze as it met plants.
func (g *Garden) struck() *cold.Struck {
	for i := range g.ground.Course.Events {
		if e := &g.ground.Course.Events[i]; e.Cold() && e.Day >= g.Freeze-1 && e.Day <= g.Freeze+1 {
			return e
		}
	}
	return nil
}

// plant puts kinds there for which the freeze was near what they bear, and hides how they came through.
func (g *Garden) plant(book *catalogue.Catalogue, struck *cold.Struck, r *rand.Rand) {
	order := r.Perm(len(book.Entries))
	for _, i := range order {
		e := book.Entries[i]
		if !stems(&e) || len(g.Plants) == plants {
			continue
		}
		tall := math.Min(4, e.Mature.HeightM) * (0.5 + 0.5*r.Float64())
		p := Plant{Species: e.ID, Common: e.Common, Form: e.Form, HeightM: math.Max(0.4, math.Round(10*tall)/10)}
		w := g.onWalk(&p)
		c := w.Case(e, g.ground.Year.Normals.Climate.South())
		o := struck.Meet(&c.Plant, g.ground.Stage(&c.Species, struck.Day))
		if math.Abs(o.SpareC(0.5)) > nearC || o.Worst.Organ == cold.Roots || o.Worst.Organ == cold.Crown {
			continue // what dies below ground is not to be seen on the stem
		}
		p.Expected = o.Own()
		off := truthC * math.Log(1/(1-r.Float64())-1+1e-12)
		_, leaf := g.ground.Work.Patience(&e, g.Freeze)
		t := truth{ends: endsAt(&o, off), leafs: leaf.Mid + day.Day(r.IntN(15))}
		if t.ends < atFoot && e.HardPruning == catalogue.FromBase {
			t.ends = atFoot // its stems are dead, its foot is not
		}
		if t.ends < 0.3 {
			t.leafs += lateFromBase // it comes from low down, and late
		}
		t.budsDead = r.Float64() < belief.BudsAlone(&o)
		g.Plants, g.truth = append(g.Plants, p), append(g.truth, t)
	}
}

// stems reports a kind that has stems with bark and buds to look at.
func stems(e *catalogue.Entry) bool {
	if class := pruning.ClassOf(e).ID; class == "cactus" || class == "succulent" {
		return false
	}
	return e.Form == catalogue.Shrub || e.Form == catalogue.Climber || e.Form == catalogue.Subshrub
}

// endsAt is how far up a stem lives after a freeze that was so much milder for it than reckoned, as a share of its
// height.
func endsAt(o *cold.Outcome, milderC float64) (end float64) {
	for x := 0.005; x <= 1; x += 0.005 {
		if o.SpareC(x)+milderC <= 0 {
			return end
		}
		end = x
	}
	return 1
}

func (g *Garden) onWalk(p *Plant) walk.Plant {
	return walk.Plant{Species: p.Species, HeightM: p.HeightM, SpreadM: 0.7 * p.HeightM, Count: 1, Value: 1,
		Shelter: cold.UsualShelter, Sun: cold.UsualSun}
}

// Kinds are the checks that can be made here.
var Kinds = []check.Kind{check.Scratch, check.BudRub, check.Shoot}

// Look is what a check shows on a plant at a height, m; n tells one look there from the next. ok is false where there
// is no such plant or check, or the height is not on it.
func (g *Garden) Look(plant int, kind check.Kind, heightM float64, n int) (c check.Check, ok bool) {
	if plant < 0 || plant >= len(g.Plants) || !slices.Contains(Kinds, kind) {
		return c, false
	}
	if !(heightM > 0 && heightM <= g.Plants[plant].HeightM) {
		return c, false
	}
	p, t := &g.Plants[plant], g.truth[plant]
	which := uint64(plant)<<40 | uint64(slices.Index(Kinds, kind))<<32 | uint64(100*heightM)<<8 | uint64(n)
	r := rand.New(rand.NewPCG(g.Seed, which))
	x := heightM / p.HeightM
	alive := x < t.ends+belief.StemSpread*r.NormFloat64()
	c = check.Check{Kind: kind, HeightM: math.Round(100*heightM) / 100}
	switch kind {
	case check.Scratch:
		if r.Float64() < belief.ScratchMisread {
			alive = !alive
		}
		if c.Result = "brown"; alive {
			c.Result = "green"
		}
	case check.BudRub:
		share := belief.BudsHeldDead
		if alive && !t.budsDead {
			share = belief.BudsHeldAlive
		}
		for range budsRubbed {
			if r.Float64() < share {
				c.Held++
			} else {
				c.Broke++
			}
		}
	case check.Shoot:
		c.HeightM = math.Round(100*t.ends*p.HeightM*(0.75+0.25*r.Float64())) / 100
		if g.Today < t.leafs || c.HeightM < 0.02 {
			c.HeightM = 0 // none is out yet
		}
	}
	return c, true
}
