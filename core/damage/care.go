package damage

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// Care is one thing to go on doing after the verdict.
type Care struct {
	Kind      string  `json:"kind" enum:"feed,water,mulch,shade,fruit,protect,guard,weigh"`
	Text      string  `json:"text"`
	From      day.Day `json:"from" format:"date"`
	To        day.Day `json:"to" format:"date"`
	EveryDays int     `json:"every_days" doc:"0: once"`
}

// Feeding after damage: a hungry root under a small crown takes little, and salts hurt a plant that does not grow.
const (
	handLong    = 21  // days after the first leaves until shoots are a hand long
	feedEvery   = 42  // days between two feeds
	feedTill    = 210 // days after midwinter from which nothing is fed: shoots must ripen before frost
	frostMinded = 0.1 // chance of another frost under which nobody keeps fleece at hand
	hotC        = 27  // mean daily maximum from which opened bark and new leaves want shade, °C
)

// care is the after-care a verdict asks for, in the order of its days.
func care(q Question, a *Answer, d decision, s situation, e *evidence) []Care {
	n := q.Year.Normals
	sp := q.Plant.Species
	out := []Care{}
	add := func(kind, text string, from, to day.Day, every int) {
		from = max(from, q.Today)
		if to >= from {
			out = append(out, Care{kind, text, from, to, every})
		}
	}
	midwinter := n.Climate.Midwinter(q.Today)
	growth := max(a.LeafOut.Mid, q.Today)
	stopFeed := midwinter + feedTill
	if q.Today > stopFeed-30 { // too late in this year: the next
		_, yearEnd := n.Climate.GardenYear(q.Today)
		_, next := PatienceDate(sp, q.Year, yearEnd)
		growth, stopFeed = next.Mid, n.Climate.Midwinter(yearEnd)+feedTill
	}
	feed := func(what string) {
		from := growth + handLong
		months := int(math.Round(float64(stopFeed-from) / 30))
		add("feed", fmt.Sprintf("Hold all feeding until new shoots are a hand long; then %s, every six weeks for about %d months, none after %s. Rate from the label.", what, max(1, months), stopFeed.Words()), from, stopFeed, feedEvery)
	}
	// Cut or hurt plants drink little before they grow and much afterwards, in the dry months.
	water := func() {
		dry, last := day.None, day.None
		for x := growth; x < growth+180; x++ {
			if n.Mean(x) >= 15 {
				if dry == day.None {
					dry = x
				}
				last = x
			}
		}
		if dry != day.None {
			add("water", "Water deeply when the soil is dry a finger deep: seldom and much, not often and little.", dry, last, 7)
		}
	}
	mulch := func() {
		add("mulch", "Mulch the root run a hand deep, clear of the stem.", q.Today, q.Today+30, 0)
	}
	protect := func() {
		last := day.None
		for i, c := range n.FrostToCome(q.Today, q.Today+200, 0) {
			if c > frostMinded {
				last = q.Today + day.Day(i)
			}
		}
		if last != day.None {
			add("protect", "Fleece at hand until frost is past: a night under 0 °C burns what pushes now.", q.Today, last, 0)
		}
	}
	shade := func() {
		hot, last := day.None, day.None
		for x := growth; x < growth+150; x++ {
			if n.TMax.At(x) >= hotC {
				if hot == day.None {
					hot = x
				}
				last = x
			}
		}
		if hot != day.None {
			add("shade", "Shade bark that lost its leaves, with cloth or a lime wash, in the hot months.", hot, last, 0)
		}
	}
	food := "a balanced slow feed, half of what a sound plant gets"
	if sp.Edible != "" && sp.LeafSeason == catalogue.Evergreen {
		food = "a feed rich in nitrogen with trace elements, half of what a bearing plant gets"
	}
	lost := a.Boundary.CrownLost
	switch d.kind {
	case Wait, Look:
		protect()
		if d.kind == Wait && q.Plant.Species.Form != catalogue.Palm {
			feed(food)
		}
	case TipBack:
		if !s.autumn {
			protect()
		}
	case CutBack, CutToBase:
		protect()
		mulch()
		feed(food)
		water()
		if lost > 0.25 && d.kind == CutBack && (sp.Form == catalogue.Tree || sp.LeafSeason == catalogue.Evergreen) {
			shade()
		}
	case Regraft:
		protect()
		water()
	case Replace:
		add("water", "Water the new plant in and keep it watered through its first two summers.", growth, growth+day.Day(160), 3)
	case Lift:
		in, _ := n.LastFrost(q.Year.Normals.Climate.Midwinter(q.Today+120), 0)
		add("water", "In its winter place: light and frost-free, water only when the soil is dry a finger deep.", q.Today, in.Late, 14)
		add("feed", "No feed until it grows again in spring.", q.Today, in.Mid, 0)
	}
	if sp.Edible != "" && d.kind != Replace && d.kind != Lift && lost > 0.1 && lost < 1 && sp.Form != catalogue.Perennial {
		add("fruit", "Take this year's fruit off while it is small; leave the blossom for the bees and to see that it lives.", growth, growth+120, 0)
	}
	if e.girdle.share > 0 {
		add("guard", "Guard the stem: a mesh collar a hand away from the bark and up to 60 cm (above the snow where it lies), no string or tie left on, no mower near it.", q.Today, q.Today+30, 0)
	}
	slices.SortStableFunc(out, func(a, b Care) int { return cmp.Compare(a.From, b.From) })
	return out
}
