// Package lookout holds what makes a thing worth telling in the morning: when a decision still settles a look, when
// what was found last still tells, which events are one, and what is soon.
package lookout

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/weather"
)

// Soon is how many days ahead a window that closes or a follow-up that is due is told of.
const Soon = 14

// Settles reports whether a decision of a day settles the look that an event of another day asks for: one made after it
// does, unless it only put the look off.
func Settles(decision string, on, event day.Day) bool { return decision != PutOff && on >= event }

// PutOff is the decision that decides nothing.
const PutOff = "not now"

// StillTells reports whether what was found on a day still says how a plant stands: as long as no event came after it.
func StillTells(found, event day.Day) bool { return event == day.None || found >= event }

// OneEvent reports whether two events at different properties are the same weather: of one kind, with days in common.
func OneEvent(kind string, from, to day.Day, otherKind string, otherFrom, otherTo day.Day) bool {
	return kind == otherKind && from <= otherTo && to >= otherFrom
}

// Struck is an event as it is weighed among others.
type Struck struct {
	Kind  string
	Value float64 // °C, m/s, mm: as deep as it went
	Peak  day.Day
	Hurt  int // plants it hurt more than any other recent event
}

// Deeper orders events of one kind by how far they went, the deepest first.
func Deeper(a, b Struck) int { return cmp.Compare(depth(b), depth(a)) }

func depth(e Struck) float64 {
	if e.Kind == weather.Freeze || e.Kind == weather.LateFrost {
		return -e.Value
	}
	return e.Value
}

// Order sorts events by how pressing they are: by how many plants each hurt, where a newer one weighs more.
func Order[T any](events []T, today day.Day, struck func(T) Struck) {
	weight := func(e Struck) float64 { return cold.Pressing(e.Hurt, today.Sub(e.Peak)) }
	slices.SortStableFunc(events, func(a, b T) int {
		x, y := struck(a), struck(b)
		return cmp.Or(cmp.Compare(weight(y), weight(x)), cmp.Compare(y.Peak, x.Peak))
	})
}

// Asks are what a property asks of those who set out in the morning.
type Asks struct {
	Deep, Soft int     // plants to look at: with wood, roots or heart likely hurt, and with less
	Score      float64 // of all of them: what looking now is worth
	Tender     int     // plants to be lifted or taken in before the first frost
	Due        int     // follow-ups whose day has come
	Overdue    int     // jobs that were on a past day
	Nearest    day.Day // the nearest day that something hangs on; day.None without one
}

// Looks is how many plants are to be looked at on a walk.
func (a Asks) Looks() int { return a.Deep + a.Soft + a.Tender + a.Due }

// First orders properties by what they ask: what is hurt deep before what is hurt a little, then what is tender while
// frost is near, what is due, and what is late.
func First(a, b Asks) int {
	return cmp.Or(
		cmp.Compare(min(b.Deep, 1), min(a.Deep, 1)),
		cmp.Compare(b.Score, a.Score),
		cmp.Compare(b.Tender, a.Tender),
		cmp.Compare(b.Due+b.Overdue, a.Due+a.Overdue),
	)
}

// Why says in a few words what a property asks, the most pressing first.
func (a Asks) Why() string {
	var out []string
	add := func(n int, one, many string) {
		if n == 1 {
			out = append(out, "1 "+one)
		} else if n > 1 {
			out = append(out, fmt.Sprint(n, " ", many))
		}
	}
	add(a.Deep, "with wood, roots or heart likely hurt", "with wood, roots or heart likely hurt")
	add(a.Soft, "with buds or leaves hurt", "with buds or leaves hurt")
	add(a.Tender, "tender, before the first frost", "tender, before the first frost")
	add(a.Due, "follow-up due", "follow-ups due")
	add(a.Overdue, "job overdue", "jobs overdue")
	if out == nil {
		return "asks nothing today"
	}
	return strings.Join(out, ", ")
}
