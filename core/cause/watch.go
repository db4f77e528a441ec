package cause

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// Found is a cause that was found on a plant and kept.
type Found struct {
	ID        int64
	Cause     string // id
	Plant     int64  // 0 where only the property is known
	Property  int64
	Day       day.Day
	Certainty float64 // 0 to 1
	Closed    bool    // dealt with: it counts as long as what it may have left behind
}

// Standing is a plant that something may spread to.
type Standing struct {
	Plant    int64
	Property int64
	Species  *catalogue.Entry
}

// Suspect is a plant that may have what was found on another.
type Suspect struct {
	Plant  int64   `json:"plant"`
	Cause  string  `json:"cause"`
	Name   string  `json:"name"`
	Find   int64   `json:"find" doc:"The find that weighs most"`
	Factor float64 `json:"factor" doc:"How much likelier than without the find"`
	Chance float64 `json:"chance" doc:"Rough, 0 to 1: which to look at first"`
	Why    string  `json:"why"`
}

const (
	suspectFrom = 1.6   // factor from which a plant is worth a look, and the same weighed by how much it is a host
	hostWatched = 0.5   // how much of a host a plant is to be watched
	baseChance  = 0.02  // of a plain cause on its host before anything was found
	closedLeft  = 0.3   // of a find that was dealt with
	crewRoundKM = 25.0  // what boots and blades carry does not mind the distance within a crew's round
	unknownKM   = 10.0  // between properties whose places nobody knows
	capFactor   = 12.0  // however many finds there are
	daysForgot  = 5     // halvings after which a find tells nothing
	perFind     = 0.999 // chances stay below one
)

// Between is the distance between two properties, km; below 0 where nobody knows it.
type Between func(a, b int64) float64

// Watch tells which plants are to be looked at now, as something was found on others: the likeliest first. Plants the
// cause was found on are left out. today is the day of asking.
func (b *Book) Watch(finds []Found, plants []Standing, between Between, today day.Day) []Suspect {
	var out []Suspect
	for _, w := range b.weigh(finds, today) {
		if w.cause.Harm == "harmless" || w.cause.Harm == "ugly" && !w.cause.Report {
			continue // nobody goes round for what is only ugly
		}
		has := map[int64]bool{}
		for _, f := range w.finds {
			has[f.Plant] = true
		}
		hosts := map[*catalogue.Entry]float64{}
		for _, p := range plants {
			if p.Species == nil || has[p.Plant] {
				continue
			}
			host, known := hosts[p.Species]
			if !known {
				host = w.cause.OnKind(p.Species)
				hosts[p.Species] = host
			}
			if host < hostWatched {
				continue
			}
			if s, worth := w.on(p, host, between); worth {
				out = append(out, s)
			}
		}
	}
	slices.SortStableFunc(out, func(x, y Suspect) int { return cmp.Compare(y.Chance, x.Chance) })
	return out
}

// Nearby is how much likelier each cause is on a plant, as it was found on others: what a diagnosis takes as Near.
func (b *Book) Nearby(finds []Found, p Standing, between Between, today day.Day) map[string]float64 {
	out := map[string]float64{}
	for _, w := range b.weigh(finds, today) {
		if f, _ := w.factor(p, between); f > 1 {
			out[w.cause.ID] = f
		}
	}
	return out
}

// weighed is all finds of one cause that still tell something.
type weighed struct {
	cause *Cause
	reach reach
	finds []Found
	left  []float64 // of each, by its age, its certainty and whether it was dealt with
}

func (b *Book) weigh(finds []Found, today day.Day) []weighed {
	var out []weighed
	for _, f := range finds {
		c := b.cause[f.Cause]
		if c == nil || reaches[c.Way.By] == (reach{}) {
			continue
		}
		r := reaches[c.Way.By]
		age := max(0, float64(today.Sub(f.Day)))
		if age > daysForgot*r.days {
			continue
		}
		left := f.Certainty * math.Exp2(-age/r.days)
		if f.Closed {
			left *= closedLeft
		}
		i := slices.IndexFunc(out, func(w weighed) bool { return w.cause == c })
		if i < 0 {
			i = len(out)
			out = append(out, weighed{cause: c, reach: r})
		}
		out[i].finds, out[i].left = append(out[i].finds, f), append(out[i].left, left)
	}
	return out
}

// factor is how much likelier a plant has it, with the find that weighs most.
func (w *weighed) factor(p Standing, between Between) (float64, Found) {
	more, most := 1.0, 0.0
	var by Found
	for i, f := range w.finds {
		if f.Plant == p.Plant && f.Plant != 0 {
			continue
		}
		add := (w.reach.same - 1) * w.left[i]
		if f.Property != p.Property {
			km := between(f.Property, p.Property)
			if km < 0 {
				km = unknownKM
			}
			near := math.Exp(-km / w.reach.km)
			if w.reach.visits && km <= crewRoundKM {
				near = 1
			}
			add = (w.reach.near - 1) * w.left[i] * near
		}
		more += add
		if add > most {
			most, by = add, f
		}
	}
	return min(more, capFactor), by
}

// on is what the finds of one cause make of a plant; false where it is not worth a look.
func (w *weighed) on(p Standing, host float64, between Between) (Suspect, bool) {
	f, by := w.factor(p, between)
	if f < suspectFrom || f*host < suspectFrom {
		return Suspect{}, false
	}
	where := "on this property"
	if by.Property != p.Property {
		where = "on another property"
		if km := between(by.Property, p.Property); km >= 0 {
			where = "on a property " + quantity.Distance(max(1, math.Round(km))) + " away"
		}
	}
	return Suspect{Plant: p.Plant, Cause: w.cause.ID, Name: w.cause.Name, Find: by.ID, Factor: f,
		Chance: min(perFind, baseChance*w.cause.Prior*host*f),
		Why:    fmt.Sprintf("Found %s on %s; it spreads %s.", where, quantity.Day(by.Day), w.cause.Travels())}, true
}
