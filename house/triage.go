package house

import (
	"cmp"
	"context"
	"errors"
	"math"
	"runtime"
	"slices"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/lookout"
	"mezzadro/core/overwinter"
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
		ThickestMM: Tenth(l.ThickestMM),
		Reason:     l.Reason(),
		Shared:     l.Shared(),
		Own:        l.Own(),
	}
}

// forecast is what the worst recent event is expected to have done to a plant, nil where there was none.
func (p *Place) forecast(plant store.Plant, e catalogue.Entry) *cold.Outcome {
	c := caseOf(plant, e, p.Property)
	l, ok := p.look(&c)
	if !ok {
		return nil
	}
	return &l.Outcome
}

// tell is what is known of a plant here, but for its verdict.
func (p *Place) tell(plant store.Plant) PlantOut {
	e := entryOf(p.Book, plant.Species)
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
	c := caseOf(plant, e, p.Property)
	if l, ok := p.look(&c); ok {
		o.Look, o.worst = tellLook(&l), l.Event
	}
	if since, before, winters, ok := overwinter.ToShelter(damagePlant(plant, e, 0), p.Year, p.Today); ok {
		o.TakeIn = &ToShelter{before, math.Round(100*winters) / 100, since}
	}
	return o
}

// damagePlant is a plant as the core judges it.
func damagePlant(p store.Plant, e catalogue.Entry, years int) check.Plant {
	return check.Plant{
		Species: e,
		HeightM: p.HeightM,
		GraftM:  p.GraftM,
		Years:   years,
		PotL:    p.PotL,
		Mulched: p.Mulched,
		Count:   p.Count,
	}
}

// Triaged is the whole look-list, worked out once for a state of the record and a day.
type Triaged struct {
	rev      uint64
	plantRev uint64 // the same for plants and properties alone
	today    day.Day
	places   []*Place
	kept     []store.Plant
	plants   []PlantOut // by id
	looks    []PlantOut // those to look at, the most pressing first
	shelter  []PlantOut // those to be lifted or taken in
	events   []EventGroup
	slight   int // plants hurt a little
	unhurt   int // plants the events left well within what they bear
	looked   int // plants of the list already decided on
}

// Triage gives the look-list of all properties as the record stands now.
func (h *House) Triage(ctx context.Context) (*Triaged, error) {
	rev, today := h.Store.Rev(), h.Today()
	h.triaging.Lock()
	defer h.triaging.Unlock()
	if t := h.triaged; t != nil && t.rev == rev && t.today == today {
		return t, nil
	}
	t := &Triaged{rev: rev, plantRev: h.Store.PlantRev(), today: today}
	before := h.triaged
	if before == nil || before.today != today {
		before = &Triaged{plantRev: t.plantRev + 1}
	}
	var err error
	if t.places, err = h.allPlaces(ctx); err != nil {
		return nil, err
	}
	if t.kept = before.kept; before.plantRev != t.plantRev {
		if t.kept, err = h.Store.Plants(ctx, 0, 0, all); err != nil {
			return nil, err
		}
	}
	verdicts, err := h.Store.Verdicts(ctx, 0, (today - cold.Recent).String())
	if err != nil {
		return nil, err
	}
	standing := make(map[int64]*Decision, len(verdicts))
	for i := range verdicts {
		v := Decision(verdicts[i])
		standing[v.PlantID] = &v
	}
	t.events = t.grouped(t.sort(before, standing))
	h.triaged = t
	return t, nil
}

// allPlaces are all properties with their seasons. A year of hours for each is much to read at the start: all cores
// share it.
func (h *House) allPlaces(ctx context.Context) ([]*Place, error) {
	props, err := h.Store.Properties(ctx, 0, all)
	if err != nil {
		return nil, err
	}
	out := make([]*Place, len(props))
	err = shared(len(props), func(i int) (err error) {
		out[i], err = h.placeOf(ctx, props[i])
		return err
	})
	return out, err
}

// shared does n pieces of work on all cores.
func shared(n int, work func(i int) error) error {
	faults := make([]error, n)
	var wg sync.WaitGroup
	for worker := range runtime.NumCPU() {
		wg.Go(func() {
			for i := worker; i < n; i += runtime.NumCPU() {
				faults[i] = work(i)
			}
		})
	}
	wg.Wait()
	return errors.Join(faults...)
}

func byProperty(places []*Place) map[int64]*Place {
	out := make(map[int64]*Place, len(places))
	for _, pl := range places {
		out[pl.Property.ID] = pl
	}
	return out
}

// sort tells of each plant what is known, and puts it on the lists it belongs to. What was worked out before and
// still holds is taken over: the look of each plant that is as it was at a place that is as it was. It returns how
// many plants each event hurt.
func (t *Triaged) sort(before *Triaged, standing map[int64]*Decision) map[*cold.Struck]int {
	at, was := byProperty(t.places), byProperty(before.places)
	hurt := map[*cold.Struck]int{}
	t.plants = make([]PlantOut, 0, len(t.kept))
	next := 0 // in before.plants, which are by id too
	for _, p := range t.kept {
		pl := at[p.PropertyID]
		if pl == nil {
			continue // removed between the two reads
		}
		for next < len(before.plants) && before.plants[next].ID < p.ID {
			next++
		}
		var o PlantOut
		if next < len(before.plants) && before.plants[next].Plant == Plant(p) && pl.sees(was[p.PropertyID]) {
			o = before.plants[next]
			o.Property = pl.Property.Name
		} else {
			o = pl.tell(p)
		}
		o.Verdict = standing[p.ID]
		if o.worst != nil && (o.Look.Worth || o.Look.Slight) {
			hurt[o.worst]++
		}
		t.list(&o)
		t.plants = append(t.plants, o)
	}
	slices.SortStableFunc(t.looks, func(a, b PlantOut) int { return cmp.Compare(b.Look.Score, a.Look.Score) })
	return hurt
}

// sees reports that plants at the place mean the same as they did when it was as given.
func (p *Place) sees(was *Place) bool {
	return was != nil && was.Course == p.Course && was.Property.Value == p.Property.Value &&
		was.Property.Exposure == p.Property.Exposure
}

// list puts a plant on the lists it belongs to.
func (t *Triaged) list(o *PlantOut) {
	o.Decided = o.settled()
	if o.TakeIn != nil && !o.settledSince(o.TakeIn.since) {
		t.shelter = append(t.shelter, *o)
	}
	switch {
	case o.Look == nil:
	case o.Look.Slight && !o.Decided:
		t.slight++
	case !o.Look.Worth:
		t.unhurt++
	case o.Decided:
		t.looked++
	default:
		t.looks = append(t.looks, *o)
	}
}

// Tell gives what is known of some plants.
func (t *Triaged) Tell(plants []store.Plant) []PlantOut {
	out := make([]PlantOut, 0, len(plants))
	for _, p := range plants {
		i, known := slices.BinarySearchFunc(t.plants, p.ID, func(o PlantOut, id int64) int { return cmp.Compare(o.ID, id) })
		o := PlantOut{Plant: Plant(p), Common: p.Species, Form: catalogue.Shrub}
		if known {
			o = t.plants[i]
		}
		out = append(out, o)
	}
	return out
}

// EventGroup is one event of the weather over the properties it struck.
type EventGroup struct {
	Event          // where it hurt most
	Places []Event `json:"places" doc:"By property, the worst first"`
	Hurt   int     `json:"hurt" doc:"Plants or groups it probably hurt more than any other recent event did"`
}

// grouped joins the recent events of all places that are one: of one kind, in the same days. The first is the one
// that hurt most plants, where a newer one weighs more.
func (t *Triaged) grouped(hurt map[*cold.Struck]int) []EventGroup {
	out := []EventGroup{}
	for _, p := range t.places {
		for i := range p.Course.Events {
			s := &p.Course.Events[i]
			if t.today-s.Day > cold.Recent || s.Day > t.today {
				continue
			}
			e := p.TellEvent(s)
			k := slices.IndexFunc(
				out,
				func(g EventGroup) bool { return lookout.OneEvent(g.Kind, g.From, g.To, e.Kind, e.From, e.To) },
			)
			if k < 0 {
				out = append(out, EventGroup{Event: e})
				k = len(out) - 1
			}
			g := &out[k]
			g.Places, g.Hurt = append(g.Places, e), g.Hurt+hurt[s]
		}
	}
	struck := func(e Event) lookout.Struck { return lookout.Struck{Kind: e.Kind, Value: e.Value, Peak: e.Peak} }
	for i := range out {
		g := &out[i]
		slices.SortStableFunc(g.Places, func(a, b Event) int { return lookout.Deeper(struck(a), struck(b)) })
		g.Event = g.Places[0]
	}
	lookout.Order(out, t.today, func(g EventGroup) lookout.Struck {
		s := struck(g.Event)
		s.Hurt = g.Hurt
		return s
	})
	return out
}
