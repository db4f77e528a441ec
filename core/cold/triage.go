package cold

import (
	"fmt"
	"math"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/weather"
)

// Recent is how long after an event plants are still looked at for it, days.
const Recent = 120

// lookFrom is the severity from which a plant is worth a look.
const lookFrom = 0.08

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
	Score float64 // severity times what looking now is worth: the list is ordered by it
	Worth bool    // hurt enough to be looked at
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
			l, ok = Look{o, score, fresh >= lookFrom}, true
		}
	}
	return l, ok
}

// tells is for how many days after an event a hurt of an organ tells all to one who looks, and after how many nothing any
// more: soft parts are outgrown, and buds have opened or not. Leaves that winter browned stay until the next flush.
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
	if !l.Worth {
		return "nothing"
	}
	return l.Worst.Organ
}

// Reason says why to look, in words.
func (o *Outcome) Reason() string {
	e, when := o.Event, o.Event.Day.Words()
	p := o.plant
	switch {
	case e.Kind == DryingWind:
		if o.Severity == 0 {
			return fmt.Sprintf("Frozen ground to %s: the drying wind stayed under what it bears (%.0f of %.0f kPa·h).", when, o.Dose, p.Species.DryingKPAH)
		}
		place := "where it stands"
		if p.Shelter < 0.35 && p.Sun > 0.6 {
			place = "in sun and wind"
		}
		return fmt.Sprintf("Drying wind on frozen ground up to %s: %.0f kPa·h %s against %.0f it bears. The base is likely alive.", when, o.Dose, place, p.Species.DryingKPAH)
	case e.Kind == weather.Heat:
		return fmt.Sprintf("%.0f °C on %s: leaves that want %s scorch in direct sun.", e.Value, when, p.Species.Light)
	case e.Kind == weather.Gale:
		return fmt.Sprintf("Wind of %.0f m/s on %s: look for hanging and split limbs before anyone works under it.", e.Value, when)
	case e.Kind == weather.Wet:
		return fmt.Sprintf("%.0f mm of rain in a week up to %s: it wants %s soil.", e.Value, when, p.Species.SoilWater)
	}
	at := fmt.Sprintf("%s on %s", Degrees(e.Value), when)
	bore := Degrees(o.WoodKillC)
	if p.Species.HardinessC < UnhardenedC {
		bore += fmt.Sprintf(", %s in midwinter", Degrees(p.Species.HardinessC))
	}
	w := o.Worst
	switch {
	case o.Severity < lookFrom:
		return fmt.Sprintf("%s: its wood bore %s that day; likely unhurt.", at, bore)
	case w.Organ == Wood:
		return fmt.Sprintf("%s: %.1f °C below what its wood bore that day (%s). %s", at, o.WoodKillC-e.Value, bore, o.depth())
	case w.Organ == Roots && p.PotL > 0:
		return fmt.Sprintf("%s: the %s pot went down to about %s, its roots bear %s.", at, litres(p.PotL), Degrees(w.TissueC), Degrees(w.KillC))
	case w.Organ == Roots:
		return fmt.Sprintf("%s: the soil went down to about %s, its roots bear %s.", at, Degrees(w.TissueC), Degrees(w.KillC))
	case w.Organ == Heart:
		return fmt.Sprintf("%s: the growing point went down to about %s and bears %s. Pull at the newest leaves.", at, Degrees(w.TissueC), Degrees(w.KillC))
	case w.Organ == Crown:
		return fmt.Sprintf("%s: the crown went down to about %s and bore %s that day.", at, Degrees(w.TissueC), Degrees(w.KillC))
	case w.Organ == Shoots, w.Organ == Blossom:
		return fmt.Sprintf("%s met %s, which bear %s.", at, map[string]string{Shoots: "soft new shoots", Blossom: "open flowers"}[w.Organ], Degrees(w.KillC))
	}
	if gap := w.KillC - e.Value; gap > 0 {
		return fmt.Sprintf("%s: %.1f °C below what its %s bore that day (wood %s).", at, gap, w.Organ, bore)
	}
	return fmt.Sprintf("%s: came within %.1f °C of what its %s bore that day (wood %s).", at, max(0.1, e.Value-w.KillC), w.Organ, bore)
}

// depth says how far down the wood died.
func (o *Outcome) depth() string {
	switch {
	case o.Dieback >= 0.97:
		return "Dead to the ground, if the crown was not warmer."
	case o.ThickestMM <= tips+0.5 || o.Dieback < 0.03:
		return "Tips only."
	}
	return fmt.Sprintf("Wood up to about %.0f mm thick is likely dead: the top %s.", o.ThickestMM, part(o.Dieback))
}

// part says a share in words one would use in the garden.
func part(share float64) string {
	for _, p := range []struct {
		upTo float64
		word string
	}{{0.14, "tenth"}, {0.29, "fifth or quarter"}, {0.42, "third"}, {0.58, "half"}, {0.72, "two thirds"}, {0.85, "three quarters"}} {
		if share < p.upTo {
			return p.word
		}
	}
	return "nine tenths"
}

func litres(l float64) string { return fmt.Sprintf("%.0f L", l) }

// Degrees writes a temperature with one figure after the point and a true minus sign.
func Degrees(c float64) string {
	return strings.Replace(fmt.Sprintf("%.1f °C", c), "-", "−", 1)
}

// Story tells an event in one sentence.
func Story(e weather.Event) string {
	switch e.Kind {
	case DryingWind:
		return fmt.Sprintf("Frozen soil for %d h with sun and wind: %.0f kPa·h of drying where nothing shelters.", e.Hours, e.Value)
	case weather.Heat:
		return fmt.Sprintf("Up to %.0f °C, %d h at %.0f °C or more.", e.Value, e.Hours, e.Threshold)
	case weather.Gale:
		return fmt.Sprintf("Wind up to %.0f m/s over an hour, %d h at %.0f m/s or more.", e.Value, e.Hours, e.Threshold)
	case weather.Wet:
		return fmt.Sprintf("%.0f mm of rain within seven days.", e.Value)
	}
	s := fmt.Sprintf("Down to %s, %d h below 0 °C", Degrees(e.Value), e.Hours)
	if e.FallC >= 5 {
		s += fmt.Sprintf(", the night minimum fell %.0f °C within three days", e.FallC)
	}
	switch {
	case e.Kind == weather.LateFrost:
		s += ", on growth already open"
	case e.BeforeOffC >= 2:
		s += fmt.Sprintf(", after a fortnight %.1f °C warmer than normal, which had woken plants", e.BeforeOffC)
	case e.BeforeOffC <= -2:
		s += fmt.Sprintf(", after a fortnight %.1f °C colder than normal", -e.BeforeOffC)
	}
	return s + "."
}
