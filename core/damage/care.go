package damage

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
)

// Care is one thing to go on doing after the verdict.
type Care struct {
	Kind      string  `json:"kind" enum:"feed,water,mulch,shade,fruit,protect,guard,weigh"`
	Text      string  `json:"text"`
	From      day.Day `json:"from" format:"date"`
	To        day.Day `json:"to" format:"date"`
	EveryDays int     `json:"every_days" doc:"0: once"`
}

// careKinds are the kinds of work that after-care is.
var careKinds = map[string]job.Kind{
	"feed":    job.Feed,
	"water":   job.Water,
	"mulch":   job.Mulch,
	"shade":   job.Shade,
	"fruit":   job.Fruit,
	"protect": job.Protect,
}

// carer gathers the after-care of one verdict, and the orders it makes.
type carer struct {
	q      Question
	place  *job.Place
	care   []Care
	orders []job.Order
}

// add asks for after-care in its time, where this climate and this day leave one.
func (c *carer) add(kind string, k job.Kind, stage, text string, every int) {
	from, to, ok := c.place.Time(k, stage, &c.q.Plant.Species, c.q.Today)
	if !ok {
		return
	}
	c.care = append(c.care, Care{kind, text, from, to, every})
	if order, asks := careKinds[kind]; asks {
		o := c.q.ask(kind, order, kind, job.Params{EveryDays: every, Stage: stage}, text, nil)
		o.Origin = job.AfterCare
		c.orders = append(c.orders, o)
	}
}

// feed holds feeding back and then gives it, so many times until shoots must ripen.
func (c *carer) feed(what string) {
	from, to, ok := c.place.Time(job.Feed, "", &c.q.Plant.Species, c.q.Today)
	if !ok {
		return
	}
	months := max(1, int(math.Round(float64(to-from)/30)))
	c.add(
		"feed",
		job.Feed,
		"",
		fmt.Sprintf(
			"Hold all feeding until new shoots are a hand long; then %s, every six weeks for about %d months, "+
				"none after %s. Rate from the label.",
			what,
			months,
			quantity.Day(to),
		),
		job.FeedEvery,
	)
}

func (c *carer) water() {
	c.add(
		"water",
		job.Water,
		"",
		"Water deeply when the soil is dry a finger deep: seldom and much, not often and little.",
		job.WaterEvery,
	)
}

func (c *carer) mulch() {
	c.add("mulch", job.Mulch, "", "Mulch the root run a hand deep, clear of the stem.", 0)
}

// Who is fleeced: what the winter here may hurt, and what one reaches with a cloth.
const (
	hardyC   = -19.5 // from here on a kind is hardy anywhere gardens are, and its new shoots come again
	fleecedC = 12.0  // hardier by so much than the coldest night of a usual winter
	fleecedM = 3.0
)

func (c *carer) protect() {
	coldest := c.q.Year.Normals.Climate.ExtremeMinC
	if bears := c.q.Plant.Species.HardinessC; c.q.Plant.HeightM > fleecedM || bears < max(hardyC, coldest-fleecedC) {
		return
	}
	c.add(
		"protect",
		job.Protect,
		"",
		"Fleece at hand until frost is past: a night under "+quantity.Temperature(0)+" burns what pushes now.",
		0,
	)
}

func (c *carer) shade() {
	c.add("shade", job.Shade, "", "Shade bark that lost its leaves, with cloth or a lime wash, in the hot months.", 0)
}

// care is the after-care a verdict asks for, in the order of its days, and the orders it makes.
func care(q Question, a *Answer, d decision, s situation, e *evidence) ([]Care, []job.Order) {
	sp := q.Plant.Species
	c := carer{q: q, place: s.place, care: []Care{}}
	food := "a balanced slow feed, half of what a sound plant gets"
	if sp.Edible != "" && sp.LeafSeason == catalogue.Evergreen {
		food = "a feed rich in nitrogen with trace elements, half of what a bearing plant gets"
	}
	lost := a.Boundary.CrownLost
	switch d.kind {
	case Wait, Look:
		if e.dying || s.struck || !e.any {
			c.protect()
		}
		if d.kind == Wait && sp.Form != catalogue.Palm {
			c.feed(food)
		}
	case TipBack:
		if !s.autumn {
			c.protect()
		}
	case CutBack, CutToBase:
		c.protect()
		c.mulch()
		c.feed(food)
		c.water()
		if lost > 0.25 && d.kind == CutBack && (sp.Form == catalogue.Tree || sp.LeafSeason == catalogue.Evergreen) {
			c.shade()
		}
	case Regraft:
		c.protect()
		c.water()
	case Replace:
		c.add(
			"water",
			job.Water,
			job.New,
			"Water the new plant in and keep it watered through its first two summers.",
			job.WaterNewEvery,
		)
	case Lift:
		c.add(
			"water",
			job.Water,
			job.Indoors,
			"In its winter place: light and frost-free, water only when the soil is dry a finger deep.",
			job.IndoorsEvery,
		)
		if from, to, ok := c.place.Time(job.Water, job.Indoors, &sp, q.Today); ok {
			c.care = append(c.care, Care{"feed", "No feed until it grows again in spring.", from, to, 0})
		}
	}
	if sp.GrownForFruit() && d.kind != Replace && d.kind != Lift && lost > 0.1 && lost < 1 && sp.Form != catalogue.Perennial {
		c.add(
			"fruit",
			job.Fruit,
			"",
			"Take this year's fruit off while it is small; leave the blossom for the bees and to see that it lives.",
			0,
		)
	}
	if e.girdle.share > 0 {
		c.add(
			"guard",
			job.Guard,
			"",
			"Guard the stem: a mesh collar a hand away from the bark and up to "+quantity.Length(0.6)+
				" (above the snow where it lies), no string or tie left on, no mower near it.",
			0,
		)
	}
	slices.SortStableFunc(c.care, func(a, b Care) int { return cmp.Compare(a.From, b.From) })
	return c.care, c.orders
}
