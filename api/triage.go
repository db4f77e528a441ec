package api

import (
	"cmp"
	"context"
	"errors"
	"math"
	"runtime"
	"slices"
	"strings"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// Standing is how a plant stands: what decides, beside its species, how an event meets it.
type Standing struct {
	BaseMM  float64  `json:"base_mm,omitempty" doc:"Stem thickness at the base, mm; what is usual for form and height when absent"`
	PotL    float64  `json:"pot_l,omitempty" doc:"Litres of the pot; in the ground when absent"`
	Shelter *float64 `json:"shelter,omitempty" doc:"From wind: 0 open to 1 wholly sheltered; 0.5 when absent"`
	Sun     *float64 `json:"sun,omitempty" doc:"0 shade to 1 sun all day; 0.6 when absent"`
	Mulched bool     `json:"mulched,omitempty"`
	cold.Exposure
}

func (st Standing) set(p *store.Plant) {
	p.BaseMM, p.PotL, p.Mulched, p.Shelter, p.Sun, p.Exposure = st.BaseMM, st.PotL, st.Mulched, cold.UsualShelter, cold.UsualSun, st.Exposure
	if st.Shelter != nil {
		p.Shelter = *st.Shelter
	}
	if st.Sun != nil {
		p.Sun = *st.Sun
	}
}

// validate checks it with the core's own limits; the height is checked apart.
func (st Standing) validate() error {
	p := store.Plant{HeightM: 1}
	st.set(&p)
	c := caseOf(p, catalogue.Entry{}, store.Property{Value: 1})
	return c.Plant.Validate()
}

// PlantIn is what is entered of a plant.
type PlantIn struct {
	PropertyID int64   `json:"property_id,omitempty" doc:"When adding"`
	Species    string  `json:"species" minLength:"1" doc:"Catalogue id"`
	Label      string  `json:"label,omitempty" maxLength:"200"`
	HeightM    float64 `json:"height_m" doc:"m"`
	SpreadM    float64 `json:"spread_m,omitempty" doc:"m; two thirds of the height when absent"`
	Count      int     `json:"count,omitempty" minimum:"0" maximum:"10000" doc:"1 when absent"`
	Standing
	Value   float64 `json:"value,omitempty" doc:"To the client: 1 ordinary (when absent), 2 dear, 0.5 hardly minded"`
	Stop    int     `json:"stop,omitempty" minimum:"0" maximum:"10000" doc:"Place on the way round the property, from the gate; after the others when absent"`
	GraftM  float64 `json:"graft_m,omitempty" doc:"Height of the graft, m"`
	Planted int     `json:"planted,omitempty" doc:"Year it was planted"`
	Note    string  `json:"note,omitempty" maxLength:"2000"`
	Version int     `json:"version,omitempty" doc:"When changing: the version the change is based on"`
}

// plantRecord checks what was entered, with species from the book, and makes the record of it.
func (s *Server) plantRecord(in PlantIn, book *catalogue.Catalogue) (store.Plant, error) {
	p := store.Plant{PropertyID: in.PropertyID, Species: in.Species, Label: strings.TrimSpace(in.Label), HeightM: in.HeightM,
		SpreadM: in.SpreadM, Count: max(1, in.Count), Value: in.Value, Stop: in.Stop, GraftM: in.GraftM, Planted: in.Planted, Note: in.Note, Version: in.Version}
	in.Standing.set(&p)
	bad := fields(in.Standing.validate())
	if _, err := book.Species(in.Species); err != nil {
		bad.Add("species", in.Species, "%v", err)
	}
	if !(in.HeightM > 0 && in.HeightM <= 60) {
		bad.Add("height_m", in.HeightM, "%g m: a plant's height must be above 0 and at most 60 m", in.HeightM)
	}
	if in.SpreadM == 0 {
		p.SpreadM = in.HeightM * 2 / 3
	} else if !(in.SpreadM > 0 && in.SpreadM <= 100) {
		bad.Add("spread_m", in.SpreadM, "%g m: a plant's spread must be above 0 and at most 100 m", in.SpreadM)
	}
	if in.Value == 0 {
		p.Value = 1
	} else {
		bad.Within("value", in.Value, 0.5, 2, "")
	}
	if !(in.GraftM >= 0 && in.GraftM <= max(in.HeightM, 0)) {
		bad.Add("graft_m", in.GraftM, "%g m: the graft must lie on the plant, from the ground to %g m", in.GraftM, in.HeightM)
	}
	if now := s.Today().Year(); in.Planted != 0 && (in.Planted < 1500 || in.Planted > now) {
		bad.Add("planted", in.Planted, "%d is no year from 1500 to %d", in.Planted, now)
	}
	return p, bad.Err()
}

// PlantOut is a plant with what is known of it now.
type PlantOut struct {
	store.Plant
	Common    string          `json:"common"`
	Botanical string          `json:"botanical"`
	Form      catalogue.Form  `json:"form"`
	Property  string          `json:"property"`
	Graft     catalogue.Graft `json:"graft" doc:"Whether its kind is grafted, and how the rootstock's leaf differs"`
	Verdict   *store.Decision `json:"verdict,omitempty" doc:"The decision that stands, if one was made in the last months"`
	Decided   bool            `json:"decided" doc:"A verdict stands that is no older than the event that asks for a look"`
	TakeIn    *ToShelter      `json:"take_in,omitempty" doc:"It is to be lifted or taken in before the first frost"`
	Look      *ReasonToLook   `json:"look,omitempty" doc:"Why to look at it after the events of the last months"`

	worst *cold.Struck // the event of the look
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
	Expected   string  `json:"expected" enum:"wood,buds,leaves,new shoots,blossom,roots,crown,growing point,limbs,nothing" doc:"What is hurt worst"`
	By         string  `json:"by" enum:"cold,drying wind,heat,gale,standing water,"`
	Severity   float64 `json:"severity" doc:"0 unhurt to 1 lost"`
	Score      float64 `json:"score" doc:"Severity times what looking now is worth: the list is ordered by it"`
	Worth      bool    `json:"worth" doc:"Hurt enough to be looked at"`
	Dieback    float64 `json:"dieback" doc:"Share of the height expected dead from the tips"`
	ThickestMM float64 `json:"thickest_mm" doc:"Thickest wood likely killed, mm"`
	Reason     string  `json:"reason"`
}

func tellLook(l *cold.Look) *ReasonToLook {
	r := func(v float64) float64 { return math.Round(1000*v) / 1000 }
	return &ReasonToLook{Event: l.Event.Kind, Day: l.Event.Day, Expected: l.Expected(), By: l.Worst.By, Severity: r(l.Severity), Score: r(l.Score), Worth: l.Worth,
		Dieback: r(l.Dieback), ThickestMM: tenth(l.ThickestMM), Reason: l.Reason()}
}

// entryOf is a species' entry; where it was taken out since, one that says no more than its id: the plant stays.
func entryOf(book *catalogue.Catalogue, id string) catalogue.Entry {
	e, err := book.Species(id)
	if err != nil {
		return catalogue.Entry{ID: id, Common: id, Form: catalogue.Shrub, Graft: catalogue.Graft{Habit: "own roots"}}
	}
	return e
}

// forecast is what the worst recent event is expected to have done to a plant, nil where there was none.
func (p *place) forecast(plant store.Plant, e catalogue.Entry) *cold.Outcome {
	c := caseOf(plant, e, p.property)
	l, ok := p.look(&c)
	if !ok {
		return nil
	}
	return &l.Outcome
}

// tell is what is known of a plant here, but for its verdict.
func (p *place) tell(plant store.Plant) PlantOut {
	e := entryOf(p.book, plant.Species)
	o := PlantOut{Plant: plant, Common: e.Common, Botanical: e.Botanical, Form: e.Form, Property: p.property.Name, Graft: e.Graft}
	if e.Botanical == "" {
		return o // its entry was taken out
	}
	c := caseOf(plant, e, p.property)
	if l, ok := p.look(&c); ok {
		o.Look, o.worst = tellLook(&l), l.Event
	}
	if since, before, winters, ok := damage.ToShelter(damagePlant(plant, e, 0), p.year, p.today); ok {
		o.TakeIn = &ToShelter{before, math.Round(100*winters) / 100, since}
	}
	return o
}

// damagePlant is a plant as the core judges it.
func damagePlant(p store.Plant, e catalogue.Entry, years int) damage.Plant {
	return damage.Plant{Species: e, HeightM: p.HeightM, GraftM: p.GraftM, Years: years, PotL: p.PotL, Mulched: p.Mulched, Count: p.Count}
}

// triaged is the whole look-list, worked out once for a state of the record and a day.
type triaged struct {
	rev      uint64
	plantRev uint64 // the same for plants and properties alone
	today    day.Day
	places   []*place
	kept     []store.Plant
	plants   []PlantOut // by id
	looks    []PlantOut // those to look at, the most pressing first
	shelter  []PlantOut // those to be lifted or taken in
	events   []EventGroup
	unhurt   int // plants the events left well within what they bear
	looked   int // plants of the list already decided on
}

// triage gives the look-list of all properties as the record stands now.
func (s *Server) triage(ctx context.Context) (*triaged, error) {
	rev, today := s.Store.Rev(), s.Today()
	s.triaging.Lock()
	defer s.triaging.Unlock()
	if t := s.triaged; t != nil && t.rev == rev && t.today == today {
		return t, nil
	}
	t := &triaged{rev: rev, plantRev: s.Store.PlantRev(), today: today}
	before := s.triaged
	if before == nil || before.today != today {
		before = &triaged{plantRev: t.plantRev + 1}
	}
	props, err := s.Store.Properties(ctx, 0, 1<<31)
	if err != nil {
		return nil, err
	}
	// A year of hours for each property is much to read at the start: all cores share it.
	t.places = make([]*place, len(props))
	faults := make([]error, len(props))
	var wg sync.WaitGroup
	for worker := range runtime.NumCPU() {
		wg.Go(func() {
			for i := worker; i < len(props); i += runtime.NumCPU() {
				t.places[i], faults[i] = s.placeOf(ctx, props[i])
			}
		})
	}
	wg.Wait()
	if err := errors.Join(faults...); err != nil {
		return nil, err
	}
	at := map[int64]*place{}
	for _, pl := range t.places {
		at[pl.property.ID] = pl
	}
	// What was worked out before and still holds is taken over: the plants where none was touched, and the look of each
	// that is as it was at a place that is as it was.
	plants := before.kept
	if before.plantRev != t.plantRev {
		if plants, err = s.Store.Plants(ctx, 0, 0, 1<<31); err != nil {
			return nil, err
		}
	}
	t.kept = plants
	was := map[int64]*place{}
	for _, pl := range before.places {
		was[pl.property.ID] = pl
	}
	verdicts, err := s.Store.Verdicts(ctx, 0, (today - cold.Recent).String())
	if err != nil {
		return nil, err
	}
	standing := make(map[int64]*store.Decision, len(verdicts))
	for i := range verdicts {
		standing[verdicts[i].PlantID] = &verdicts[i]
	}
	hurt := map[*cold.Struck]int{}
	t.plants = make([]PlantOut, 0, len(plants))
	next := 0 // in before.plants, which are by id too
	for _, p := range plants {
		pl := at[p.PropertyID]
		if pl == nil {
			continue // removed between the two reads
		}
		for next < len(before.plants) && before.plants[next].ID < p.ID {
			next++
		}
		var o PlantOut
		if old := was[p.PropertyID]; old != nil && old.course == pl.course && old.property.Value == pl.property.Value && old.property.Exposure == pl.property.Exposure &&
			next < len(before.plants) && before.plants[next].Plant == p {
			o = before.plants[next]
			o.Property, o.Verdict = pl.property.Name, standing[p.ID]
		} else {
			o = pl.tell(p)
			o.Verdict = standing[p.ID]
		}
		if o.worst != nil && o.Look.Worth {
			hurt[o.worst]++
		}
		o.Decided = o.Verdict != nil && o.Verdict.Decision != "not now" && (o.Look == nil || o.Verdict.Day >= o.Look.Day.String())
		if o.TakeIn != nil && (o.Verdict == nil || o.Verdict.Decision == "not now" || o.Verdict.Day < o.TakeIn.since.String()) {
			t.shelter = append(t.shelter, o)
		}
		switch {
		case o.Look == nil:
		case !o.Look.Worth:
			t.unhurt++
		case o.Decided:
			t.looked++
		default:
			t.looks = append(t.looks, o)
		}
		t.plants = append(t.plants, o)
	}
	slices.SortStableFunc(t.looks, func(a, b PlantOut) int { return cmp.Compare(b.Look.Score, a.Look.Score) })
	t.events = t.grouped(hurt)
	s.triaged = t
	return t, nil
}

// tell gives what is known of some plants.
func (t *triaged) tell(plants []store.Plant) []PlantOut {
	out := make([]PlantOut, 0, len(plants))
	for _, p := range plants {
		i, known := slices.BinarySearchFunc(t.plants, p.ID, func(o PlantOut, id int64) int { return cmp.Compare(o.ID, id) })
		o := PlantOut{Plant: p, Common: p.Species, Form: catalogue.Shrub}
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
func (t *triaged) grouped(hurt map[*cold.Struck]int) []EventGroup {
	out := []EventGroup{}
	for _, p := range t.places {
		for i := range p.course.Events {
			s := &p.course.Events[i]
			if t.today-s.Day > cold.Recent || s.Day > t.today {
				continue
			}
			e := p.tellEvent(s)
			k := slices.IndexFunc(out, func(g EventGroup) bool { return g.Kind == e.Kind && e.From <= g.To && e.To >= g.From })
			if k < 0 {
				out = append(out, EventGroup{Event: e})
				k = len(out) - 1
			}
			g := &out[k]
			g.Places, g.Hurt = append(g.Places, e), g.Hurt+hurt[s]
		}
	}
	for i := range out {
		g := &out[i]
		slices.SortStableFunc(g.Places, func(a, b Event) int { return cmp.Compare(depth(b), depth(a)) })
		g.Event = g.Places[0]
	}
	weight := func(g EventGroup) float64 { return cold.Pressing(g.Hurt, t.today.Sub(g.Peak)) }
	slices.SortStableFunc(out, func(a, b EventGroup) int {
		return cmp.Or(cmp.Compare(weight(b), weight(a)), cmp.Compare(b.Peak, a.Peak))
	})
	return out
}

// depth orders events of one kind by how far they went.
func depth(e Event) float64 {
	if e.Kind == weather.Freeze || e.Kind == weather.LateFrost {
		return -e.Value
	}
	return e.Value
}
