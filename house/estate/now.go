package estate

import (
	"math"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/lookout"
	"mezzadro/core/overwinter"
	"mezzadro/core/quantity"
	"mezzadro/store"
)

// PlantOut is a plant with what is known of it now.
type PlantOut struct {
	Plant
	Common    string          `json:"common"`
	Botanical string          `json:"botanical"`
	Form      catalogue.Form  `json:"form"`
	Property  string          `json:"property"`
	Graft     catalogue.Graft `json:"graft" doc:"Whether its kind is grafted, and how the rootstock's leaf differs"`
	Verdict   *Decision       `json:"verdict,omitempty" doc:"The decision that stands, if one was made in the last months"`
	Decided   bool            `json:"decided" doc:"A verdict stands that is no older than the event that asks for a look"`
	TakeIn    *ToShelter      `json:"take_in,omitempty" doc:"It is to be lifted or taken in before the first frost"`
	Look      *ReasonToLook   `json:"look,omitempty" doc:"Why to look at it after the events of the last months"`

	worst *cold.Struck // the event of the look
}

// settled reports that the verdict that stands answers the event that asks for a look.
func (o *PlantOut) settled() bool {
	if o.Look == nil {
		return o.settledSince(day.None)
	}
	return o.settledSince(o.Look.Day)
}

func (o *PlantOut) settledSince(event day.Day) bool {
	if o.Verdict == nil {
		return false
	}
	on, err := day.Parse(o.Verdict.Day)
	return err == nil && lookout.Settles(o.Verdict.Decision, on, event)
}

// ToShelter is that a tender plant will hardly come through the winter outside: an estimate.
type ToShelter struct {
	Before  day.Day `json:"before" format:"date" doc:"From this day on frost is to be reckoned with: one year in ten has one earlier"`
	Winters float64 `json:"winters" doc:"Chance that it came through outside, 0 to 1"`
	since   day.Day // a decision from this day on settles it
}

// ReasonToLook is a reason to look, as the model foretells it: an estimate.
type ReasonToLook struct {
	Event      string  `json:"event" enum:"freeze,late frost,drying wind,heat,wet spell,gale"`
	Day        day.Day `json:"day" format:"date" doc:"Of the event's peak"`
	Expected   string  `json:"expected" enum:"wood,buds,leaves,new shoots,tops,blossom,roots,crown,growing point,limbs,nothing" doc:"What is hurt worst"`
	By         string  `json:"by" enum:"cold,drying wind,heat,gale,standing water,"`
	Severity   float64 `json:"severity" doc:"0 unhurt to 1 lost"`
	Score      float64 `json:"score" doc:"Severity times what looking now is worth: the list is ordered by it"`
	Worth      bool    `json:"worth" doc:"Hurt enough to be looked at today"`
	Slight     bool    `json:"slight" doc:"Hurt a little: little is lost by waiting"`
	Dieback    float64 `json:"dieback" doc:"Share of the height expected dead from the tips"`
	ThickestMM float64 `json:"thickest_mm" doc:"Thickest wood likely killed, mm"`
	Reason     string  `json:"reason"`
	Shared     string  `json:"shared" doc:"The part of the reason that all plants of the property have in common"`
	Own        string  `json:"own" doc:"The part that differs from plant to plant"`
}

func tellLook(l *cold.Look) *ReasonToLook {
	r := func(v float64) float64 { return math.Round(1000*v) / 1000 }
	return &ReasonToLook{
		Event:      l.Event.Kind,
		Day:        l.Event.Day,
		Expected:   l.Expected(),
		By:         l.Worst.By,
		Severity:   r(l.Severity),
		Score:      r(l.Score),
		Worth:      l.Worth,
		Slight:     l.Slight,
		Dieback:    r(l.Dieback),
		ThickestMM: quantity.Tenth(l.ThickestMM),
		Reason:     l.Reason(),
		Shared:     l.Shared(),
		Own:        l.Own(),
	}
}

// Forecast is what the worst recent event is expected to have done to a plant, nil where there was none.
func (p *Place) Forecast(plant store.Plant, e catalogue.Entry) *cold.Outcome {
	c := p.CaseOf(plant, e)
	l, ok := p.Look(&c)
	if !ok {
		return nil
	}
	return &l.Outcome
}

// tell is what is known of a plant here, but for its verdict.
func (p *Place) tell(plant store.Plant) PlantOut {
	e := EntryOf(p.Book, plant.Species)
	o := PlantOut{
		Plant:     Plant(plant),
		Common:    e.Common,
		Botanical: e.Botanical,
		Form:      e.Form,
		Property:  p.Property.Name,
		Graft:     e.Graft,
	}
	if e.Botanical == "" {
		return o // its entry was taken out
	}
	c := p.CaseOf(plant, e)
	if l, ok := p.Look(&c); ok {
		o.Look, o.worst = tellLook(&l), l.Event
	}
	since, before, winters, ok := overwinter.ToShelter(CheckedPlant(plant, e, 0), p.Year, p.Today)
	if ok && !o.hurtSince(since) {
		o.TakeIn = &ToShelter{before, math.Round(100*winters) / 100, since}
	}
	return o
}

// hurtSince reports a plant that frost has likely hurt to the wood, roots or heart since a day: what it lost is looked
// at, and no first frost is waited for.
func (o *PlantOut) hurtSince(since day.Day) bool {
	return o.worst != nil && o.worst.Day >= since && o.worst.Cold() && o.Look.Worth && cold.Deep(o.Look.Expected)
}

// CheckedPlant is a plant as the core judges it.
func CheckedPlant(p store.Plant, e catalogue.Entry, years int) check.Plant {
	w := OnWalk(p, store.Property{}, years)
	return w.Checked(e)
}

// Around is what a plant's exposure and its property's tell of its spot.
func Around(p store.Plant, at store.Property) cause.Around {
	w := OnWalk(p, at, 0)
	return w.Around()
}

// YearsStood is how long a plant has stood; 0 where nobody knows.
func (h *House) YearsStood(p store.Plant) int {
	if p.Planted == 0 {
		return 0
	}
	return max(1, h.Today().Year()-p.Planted)
}
