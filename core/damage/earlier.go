package damage

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/belief"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// Earlier is what was found at a plant on an earlier day.
type Earlier struct {
	Day    day.Day       `json:"day" format:"date"`
	Checks []check.Check `json:"checks" maxItems:"500"`
}

// Cut is a cut that was made since: what stood above it is gone.
type Cut struct {
	Day day.Day `json:"day" format:"date"`
	ToM float64 `json:"to_m" doc:"Height it was cut to, m"`
}

// For how long what was found still tells, days: dead wood until it is cut off, at most a year; living wood for a growing
// season, less where the weather has struck since.
const (
	deadTells  = 366
	aliveTells = 200
	misread    = 30 // days within which dead wood under living is one of two misread; later it has died since
)

// carried says which kinds of check tell something beyond their day. Those with one answer for the whole plant hold until
// they are looked at again; the others stand beside what is found later.
var carried = map[check.Kind]struct{ one bool }{
	check.Scratch: {}, check.BudRub: {}, check.Shoot: {}, check.TipDead: {one: true}, check.BarkRing: {}, check.SplitBark: {},
	check.Crown: {one: true}, check.Base: {one: true}, check.Spear: {one: true}, check.Head: {one: true}, check.Danger: {one: true},
	check.Spot: {},
}

// shortened is the question about a plant that was cut since it was measured: as tall as it was cut, with what it has
// grown since.
func (q Question) shortened() Question {
	tall := q.Plant.HeightM
	for _, c := range q.Cuts {
		if c.ToM <= 0 || c.Day > q.Today {
			continue
		}
		grown := q.Plant.Species.GrowthCMYear / 100 * float64(q.Today-c.Day) / 365
		q.Plant.HeightM = min(q.Plant.HeightM, c.ToM+grown)
	}
	if q.Plant.HeightM < tall {
		q.TallM = max(q.TallM, tall)
	}
	return q
}

// Tall is how tall the plant is on the day of the question, m, by its measure and the cuts since.
func (q Question) Tall() float64 { return quantity.Round(q.shortened().Plant.HeightM, 0.01) }

// before is what earlier looks still tell, the oldest first: what was cut off, was looked at again or is too old is left
// out. Checks made higher than the plant is now were made on what is gone.
func (q Question) before() []Earlier {
	var out []Earlier
	again := map[check.Kind]bool{}
	for _, c := range q.Checks {
		again[c.Kind] = true
	}
	died := lowestDead(q.Checks)
	list := slices.Clone(q.Earlier)
	slices.SortStableFunc(list, func(a, b Earlier) int { return int(b.Day - a.Day) }) // the newest first
	for _, e := range list {
		age := q.Today - e.Day
		if age < 0 || age > deadTells {
			continue
		}
		var kept []check.Check
		seen := map[check.Kind]bool{}
		for _, c := range e.Checks {
			rule, carries := carried[c.Kind]
			if !carries || rule.one && again[c.Kind] || q.gone(e.Day, c) ||
				!tellsDead(c) && (age > aliveTells || age > misread && c.HeightM > 0 && c.HeightM >= died) {
				continue
			}
			seen[c.Kind] = true
			kept = append(kept, c)
		}
		for k := range seen {
			again[k] = true
		}
		died = min(died, lowestDead(kept))
		if len(kept) > 0 {
			out = append(out, Earlier{e.Day, kept})
		}
	}
	slices.Reverse(out)
	return out
}

// lowestDead is the lowest height at which a look found dead wood; above every plant where it found none.
func lowestDead(checks []check.Check) float64 {
	low := math.Inf(1)
	for _, c := range checks {
		if c.HeightM > 0 && tellsDead(c) && (c.Kind == check.Scratch || c.Kind == check.BudRub) {
			low = min(low, c.HeightM)
		}
	}
	return low
}

// gone reports what was found on wood that has been cut off since, or a danger that has been made safe.
func (q Question) gone(found day.Day, c check.Check) bool {
	if c.Kind == check.Danger {
		return q.MadeSafe >= found && q.MadeSafe.Given()
	}
	if c.HeightM > q.Plant.HeightM+1e-9 {
		return true
	}
	for _, cut := range q.Cuts {
		if cut.Day >= found && (c.Kind == check.TipDead || c.HeightM > cut.ToM) {
			return true
		}
	}
	return false
}

// tellsDead reports a check that speaks for death or for danger.
func tellsDead(c check.Check) bool {
	switch c.Kind {
	case check.BudRub:
		return c.Broke > c.Held
	case check.TipDead, check.BarkRing, check.SplitBark, check.Danger, check.Spot:
		return true
	}
	r := check.Of(c.Kind).Result(c.Result)
	return r != nil && (r.Sign == "dead" || r.Sign == "hurt")
}

// struckSince are the events that came between two days and are expected to have hurt the plant, the oldest first.
func (q Question) struckSince(from, to day.Day) (out []*cold.Outcome) {
	for _, o := range q.Blows {
		if o != nil && o.Worst.Organ != "" && o.Event.Day > from && o.Event.Day <= to {
			out = append(out, o)
		}
	}
	slices.SortStableFunc(out, func(a, b *cold.Outcome) int { return int(a.Event.Day - b.Event.Day) })
	return out
}

// recall weighs what earlier looks still tell and what came after each, so that the checks of the day itself start from
// there. It returns the last day something of it was found on; none where nothing tells any more.
func (g *gathering) recall() day.Day {
	list := g.q.before()
	if len(list) == 0 {
		return day.None
	}
	if f := g.q.Forecast; f != nil && f.Event.Day > list[0].Day {
		g.belief = belief.StemsFrom(belief.Uninformed()) // it comes in its turn
	}
	for i, e := range list {
		g.weigh(e.Checks)
		g.rub()
		g.spots = nil
		until := g.q.Today
		if i+1 < len(list) {
			until = list[i+1].Day
		}
		for _, o := range g.q.struckSince(e.Day, until) {
			g.belief.Then(o)
			// What lived before it may be dead; what was dead stays dead.
			g.living, g.greenAt, g.shootAt = false, 0, 0
			g.crown, g.spear, g.heart = min(g.crown, 0), min(g.spear, 0), min(g.heart, 0)
			if g.evidence.crown != "soft" {
				g.evidence.crown = ""
			}
		}
	}
	return list[len(list)-1].Day
}

// known says what earlier looks still tell, in a sentence; empty where they tell nothing.
func (t told) known() string {
	if t.e.recalled == day.None {
		return ""
	}
	on := quantity.Day(t.e.recalled)
	what := "What was found on " + on + " still stands"
	switch b := t.a.Boundary; {
	case len(t.q.Checks) > 0 || t.palm() || !t.e.stem:
	case t.e.belief.ChanceBelow(toTheGround) > sureShare:
		what = "Dead to the ground as far as it was checked on " + on
	case b.BestM > wholeFrom*t.q.Plant.HeightM && !t.e.dying:
		what = "Alive as high as it was checked on " + on
	case b.HighM-b.LowM > openWidth*t.q.Plant.HeightM:
		what = fmt.Sprintf("Life ends somewhere between %s and %s, as found on %s", quantity.Length(b.LowM), quantity.Length(b.HighM), on)
	default:
		what = fmt.Sprintf("Life ends at about %s, as found on %s", quantity.Length(b.BestM), on)
	}
	var since []string
	for _, o := range t.q.struckSince(t.e.recalled, t.q.Today) {
		since = append(since, fmt.Sprintf("the %s of %s", o.Event.Kind, quantity.Day(o.Event.Day)))
	}
	for _, c := range t.q.Cuts {
		if c.Day >= t.e.recalled {
			since = append(since, fmt.Sprintf("the cut of %s to %s", quantity.Day(c.Day), quantity.Length(c.ToM)))
		}
	}
	if len(since) == 0 {
		return what + "; nothing since says otherwise."
	}
	return what + "; since then came " + strings.Join(since, " and ") + "."
}
