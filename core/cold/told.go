package cold

import (
	"fmt"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
	"mezzadro/core/weather"
)

// Reason says why to look, in words: what the weather was, and what it did to this plant.
func (o *Outcome) Reason() string { return o.Shared() + ": " + o.Own() }

// Shared is the part of the reason that all plants of a property have in common: what the weather was.
func (o *Outcome) Shared() string {
	e, when := o.Event, quantity.Day(o.Event.Day)
	switch e.Kind {
	case DryingWind:
		return "Frozen ground and drying wind up to " + when
	case weather.Heat:
		return quantity.Temperature(e.Value) + " on " + when
	case weather.Gale:
		return "Wind of " + quantity.Speed(e.Value) + " on " + when
	case weather.Wet:
		return quantity.Rain(e.Value) + " of rain in a week up to " + when
	}
	return quantity.FineTemperature(e.Value) + " on " + when
}

// Own is what differs from plant to plant: what it bore, and what is likely hurt.
func (o *Outcome) Own() string {
	p := o.plant
	switch o.Event.Kind {
	case DryingWind:
		return o.dried()
	case weather.Heat:
		return fmt.Sprintf("leaves that want %s scorch in direct sun.", p.Species.Light)
	case weather.Gale:
		return "look for hanging and split limbs before anyone works under it."
	case weather.Wet:
		return fmt.Sprintf("it wants %s soil.", p.Species.SoilWater)
	}
	return o.frozen() + o.learnt()
}

// learnt says that looks after earlier freezes are reckoned with; nothing where they are not.
func (o *Outcome) learnt() string {
	switch m := o.plant.MilderC; {
	case m > 0:
		return fmt.Sprintf(" Taken as %s milder here, as earlier looks have shown.", quantity.FineDifference(m))
	case m < 0:
		return fmt.Sprintf(" Taken as %s colder here, as earlier looks have shown.", quantity.FineDifference(-m))
	}
	return ""
}

func (o *Outcome) dried() string {
	p := o.plant
	if o.Severity == 0 {
		return fmt.Sprintf("the drying stayed under what it bears (%.0f of %.0f kPa·h).", o.Dose, p.Species.DryingKPAH)
	}
	place := "where it stands"
	if p.Shelter < 0.35 && p.Sun > 0.6 {
		place = "in sun and wind"
	}
	bears := "half of its kind bear"
	if o.Dose < p.Species.DryingKPAH {
		bears = "most of its kind bear it, half bear"
	}
	return fmt.Sprintf(
		"%.0f kPa·h %s; %s %.0f. The base is likely alive.",
		o.Dose,
		place,
		bears,
		p.Species.DryingKPAH,
	)
}

// frozen is what a frost did.
func (o *Outcome) frozen() string {
	e, p, w := o.Event, o.plant, o.Worst
	c, gap := quantity.FineTemperature, quantity.FineDifference
	bore := c(o.WoodKillC) + o.ripeness()
	switch {
	case tenderAnnual(&p.Species):
		return o.annual()
	case o.topsOnly():
		return "its tops go black; what lives in the ground likely does not mind."
	case o.flowersOnly():
		return fmt.Sprintf("its %s, which %s %s; its wood bore %s.", o.bloom.lost(), o.bloom.bear(), c(o.bloom.KillC), bore)
	case o.leavesOnly():
		return fmt.Sprintf("its leaves brown; the wood behind them bore %s, and likely lives.", bore)
	case o.Severity < lookFrom:
		return fmt.Sprintf("its wood bore %s that day%s; likely unhurt.", c(o.WoodKillC), o.ripeness())
	case w.Organ == Wood:
		return fmt.Sprintf("%s below what its wood bore that day (%s). %s", gap(o.WoodKillC-e.Value), bore, o.depth())
	case w.Organ == Roots && p.PotL > 0:
		return fmt.Sprintf(
			"the %s pot went down to about %s, its roots bear %s.",
			quantity.Volume(p.PotL),
			c(w.TissueC),
			c(w.KillC),
		)
	case w.Organ == Roots:
		return fmt.Sprintf("the soil went down to about %s, its roots bear %s.", c(w.TissueC), c(w.KillC))
	case w.Organ == Heart:
		return fmt.Sprintf(
			"the growing point went down to about %s and bears %s. Pull at the newest leaves.",
			c(w.TissueC),
			c(w.KillC),
		)
	case w.Organ == Crown:
		return fmt.Sprintf("the crown went down to about %s and bore %s that day.", c(w.TissueC), c(w.KillC))
	case w.Organ == Shoots && o.Share(Blossom) >= 0.5:
		return fmt.Sprintf("it met soft new shoots, which bear %s, and %s, which %s %s.",
			c(w.KillC), o.bloom.Name, o.bloom.bear(), c(o.bloom.KillC))
	case w.Organ == Shoots:
		return fmt.Sprintf("it met soft new shoots, which bear %s.", c(w.KillC))
	case w.Organ == Blossom:
		return fmt.Sprintf("it met %s, which %s %s.", o.bloom.Name, o.bloom.bear(), c(w.KillC))
	}
	if below := w.KillC - e.Value; below > 0 {
		return fmt.Sprintf("%s below what its %s bore that day (wood %s).", gap(below), w.Organ, bore)
	}
	return fmt.Sprintf(
		"it came within %s of what its %s bore that day (wood %s).",
		gap(max(0.1, e.Value-w.KillC)),
		w.Organ,
		bore,
	)
}

// ripeness says what a kind bears at its hardiest, or that its ends never ripen; nothing where that is what it bore.
func (o *Outcome) ripeness() string {
	most := o.plant.Species.HardinessC
	switch {
	case o.ripe.unripeC >= 1:
		return ", its ends unripe"
	case most < UnhardenedC && o.WoodKillC-most >= 1:
		return ", " + quantity.FineTemperature(most) + " in midwinter"
	}
	return ""
}

// annual is what a frost did to one that the first frost takes.
func (o *Outcome) annual() string {
	switch {
	case len(o.Organs) == 0:
		return "an annual: it is not out, or this took nothing of it."
	case o.Share(Crown) >= 0.5:
		return "an annual: the frost killed it."
	}
	return "an annual: its leaves go black, and it likely ends."
}

// topsOnly reports that a plant which dies back in winter lost what stands above the ground, and likely nothing more.
func (o *Outcome) topsOnly() bool { return o.Severity < lookFrom && o.Share(Tops) >= 0.5 }

// leavesOnly reports the same of leaves that will fall anyway.
func (o *Outcome) leavesOnly() bool {
	return o.Severity < lookFrom && o.Share(Leaves) >= 0.5 && o.plant.Species.LeafSeason != catalogue.Evergreen
}

// flowersOnly reports the same of flowers, their buds and young fruit.
func (o *Outcome) flowersOnly() bool { return o.Severity < lookFrom && o.Share(Blossom) >= 0.5 }

// depth says how far down the wood died.
func (o *Outcome) depth() string {
	switch {
	case o.Dieback >= 0.97:
		return "Dead to the ground, if the crown was not warmer."
	case o.ThickestMM <= tips+0.5 || o.Dieback < 0.03:
		return "Tips only."
	}
	return fmt.Sprintf(
		"Wood up to about %s thick is likely dead: the top %s.",
		quantity.Thickness(o.ThickestMM),
		part(o.Dieback),
	)
}

// Expects is what the event leads to expect, as part of a sentence; empty where the plant is likely unhurt.
func (o *Outcome) Expects() string {
	switch {
	case o.topsOnly():
		return "black tops, and a crown that lives"
	case o.leavesOnly():
		return "brown leaves, and nothing more"
	case o.flowersOnly():
		return o.bloom.left() + ", and nothing more"
	case o.Severity < lookFrom:
		return ""
	}
	switch w := o.Worst.Organ; {
	case w == Crown && tenderAnnual(&o.plant.Species):
		return "a dead annual"
	case w == Wood && o.Dieback >= 0.97:
		return "dead wood down to the ground"
	case w == Wood && (o.ThickestMM <= tips+0.5 || o.Dieback < 0.03):
		return "dead tips"
	case w == Wood:
		return "the top " + part(o.Dieback) + " dead"
	case w == Buds && o.Share(Wood) >= 0.5:
		return "dead tips and buds"
	case w == Buds && o.Share(Leaves) >= 0.5:
		return "scorched leaves and hurt buds"
	case w == Limbs:
		return "broken or hanging limbs"
	case w == Crown, w == Heart:
		return "a hurt " + w
	case w == Blossom:
		return "hurt " + o.bloom.Name
	default:
		return "hurt " + w
	}
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

// Story tells an event in one sentence.
func Story(e weather.Event) string {
	switch e.Kind {
	case DryingWind:
		return fmt.Sprintf(
			"Frozen soil for %d h with sun and wind: %.0f kPa·h of drying where nothing shelters.",
			e.Hours,
			e.Value,
		)
	case weather.Heat:
		return fmt.Sprintf(
			"Up to %s, %d h at %s or more.",
			quantity.Temperature(e.Value),
			e.Hours,
			quantity.Temperature(e.Threshold),
		)
	case weather.Gale:
		return fmt.Sprintf(
			"Wind up to %s over an hour, %d h at %s or more.",
			quantity.Speed(e.Value),
			e.Hours,
			quantity.Speed(e.Threshold),
		)
	case weather.Wet:
		return quantity.Rain(e.Value) + " of rain within seven days."
	}
	var s strings.Builder
	fmt.Fprintf(&s, "Down to %s, %d h below %s", quantity.FineTemperature(e.Value), e.Hours, quantity.Temperature(0))
	if e.FallC >= 5 {
		fmt.Fprintf(&s, ", the night minimum fell %s within three days", quantity.Difference(e.FallC))
	}
	switch {
	case e.Kind == weather.LateFrost:
		s.WriteString(", on growth already open")
	case e.BeforeOffC >= 2:
		fmt.Fprintf(
			&s,
			", after a fortnight %s warmer than normal, which had woken plants",
			quantity.FineDifference(e.BeforeOffC),
		)
	case e.BeforeOffC <= -2:
		fmt.Fprintf(&s, ", after a fortnight %s colder than normal", quantity.FineDifference(-e.BeforeOffC))
	}
	s.WriteString(".")
	return s.String()
}
