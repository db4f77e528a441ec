package cold

import (
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

// Recent is how long after an event plants are still looked at for it, days.
const Recent = 120

// lookFrom is the severity from which a plant is hurt so that one sees it. It is worth a look today from deepFrom on
// where an organ is hurt whose loss changes the plant, from softFrom on otherwise: the rest is outgrown, and little
// is lost by waiting.
const (
	lookFrom = 0.08
	deepFrom = 0.16
	softFrom = 0.2
	softDays = 14 // after which a look changes nothing for buds and leaves
	// topThird is the share of its height up to which dead ends wait: what is cut is told by the new growth, and
	// nothing of the plant is in doubt till then.
	topThird = 0.36
)

// LookMinutes is what a look takes: a plant with three checks, and the steps to the next.
const LookMinutes = 6

// Deep reports an organ whose loss changes the plant, not just this year's leaf or flower.
func Deep(organ string) bool {
	switch organ {
	case Wood, Roots, Crown, Heart, Limbs:
		return true
	}
	return false
}

// pressingDays is how many days old an event is when it weighs a third of what it did.
const pressingDays = 30

// Pressing weighs an event among others by how many plants it hurt and how many days ago it was.
func Pressing(hurt int, days int) float64 {
	return float64(hurt) * math.Exp(-float64(days)/pressingDays)
}

// Case is a plant at a place with what looking at it now is worth.
type Case struct {
	Plant
	SpreadM float64
	Count   int
	Value   float64 // the client's weight: 1 ordinary, 2 dear, 0.5 hardly minded
}

// Look is how pressing it is to look at a plant.
type Look struct {
	Outcome
	Score  float64 // severity times what looking now is worth: the list is ordered by it
	Worth  bool    // hurt enough to be looked at today
	Slight bool    // hurt, but little is lost by waiting
}

// Look is the most pressing of the outcomes of the recent events for a plant. ok is false when there was no event.
func (c *Course) Look(k *Case, stages func(day.Day) catalogue.Stage, today day.Day) (l Look, ok bool) {
	for i := range c.Events {
		e := &c.Events[i]
		if today-e.Day > Recent || e.Day > today {
			continue
		}
		o := e.Meet(&k.Plant, stages(e.Day))
		fresh := o.Severity * o.fresh(today)
		score := fresh * k.worth(&o, today)
		if !ok || score > l.Score || score == l.Score && o.closer(&l.Outcome) {
			worth := fresh >= softFrom && today-e.Day <= softDays
			if Deep(o.Worst.Organ) {
				worth = fresh >= deepFrom && !o.endsOnly()
			}
			l, ok = Look{o, score, worth, fresh >= lookFrom && !worth}, true
		}
	}
	return l, ok
}

// tells is for how many days after an event a hurt of an organ tells all to one who looks, and after how many nothing
// any more: soft parts are outgrown, and buds have opened or not. Leaves that winter browned stay until the next
// flush.
var tells = map[string][2]float64{Shoots: {21, 60}, Blossom: {21, 60}, Leaves + ByHeat: {21, 60}, Buds: {45, 100}}

// fresh is how much looking now still tells of a hurt, 1 to 0.
func (o *Outcome) fresh(today day.Day) float64 {
	t, fades := tells[o.Worst.Organ]
	if !fades {
		t, fades = tells[o.Worst.Organ+o.Worst.By]
	}
	if !fades {
		return 1
	}
	return max(0, min(1, (t[1]-float64(today-o.Event.Day))/(t[1]-t[0])))
}

// endsOnly tells whether nothing but the ends of a crown is likely dead.
func (o *Outcome) endsOnly() bool {
	return o.Worst.Organ == Wood && o.Dieback > 0 && o.Dieback <= topThird
}

// closer tells which of two events that did nothing came nearer to doing something: frost by its margin.
func (o *Outcome) closer(than *Outcome) bool {
	if o.Event.Cold() && than.Event.Cold() {
		return o.Event.Value-o.WoodKillC < than.Event.Value-than.WoodKillC
	}
	return o.Event.Cold()
}

// worth is what looking now is worth for a hurt of full severity.
func (k *Case) worth(o *Outcome, today day.Day) float64 {
	w := max(0.5, k.Value)
	// Big plants and groups first: they cost more to lose.
	w *= 1 + 0.15*math.Log1p(k.HeightM*max(0.3, k.SpreadM)*float64(max(1, k.Count)))
	// Where waiting loses something.
	switch {
	case o.Worst.Organ == Limbs:
		w *= 2 // may fall on people
	case o.Worst.Organ == Heart:
		w *= 1.4 // a rotting heart can be dried and opened in time
	case o.Worst.Organ == Roots && k.PotL > 0:
		w *= 1.3 // can be moved and kept dry now
	case o.Worst.By == ByHeat && today-o.Event.Day < 14:
		w *= 1.3 // water and shade help now
	case o.Worst.By == ByWater:
		w *= 1.2 // can be drained
	}
	return w
}

// Expected is what is likely hurt, in one word: an organ, or "nothing".
func (l *Look) Expected() string {
	if !l.Worth && !l.Slight {
		return "nothing"
	}
	return l.Worst.Organ
}
