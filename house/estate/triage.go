package estate

import (
	"cmp"
	"context"
	"errors"
	"runtime"
	"slices"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/hold"
	"mezzadro/core/lookout"
	"mezzadro/store"
)

// Triaged is the whole look-list, worked out once for a state of the record and a day.
type Triaged struct {
	rev      uint64
	plantRev uint64 // the same for plants and properties alone
	Today    day.Day
	Places   []*Place
	Kept     []store.Plant
	Plants   []PlantOut // by id
	Looks    []PlantOut // those to look at, the most pressing first
	Shelter  []PlantOut // those to be lifted or taken in
	Events   []EventGroup
	Slight   int                  // plants hurt a little
	Unhurt   int                  // plants the events left well within what they bear
	Looked   int                  // plants of the list already decided on
	Held     map[int64]*hold.Hold // why work on a plant waits, by plant; only those whose work does
}

// Triage gives the look-list of all properties as the record stands now.
func (h *House) Triage(ctx context.Context) (*Triaged, error) {
	rev, today := h.Store.Rev(), h.Today()
	h.triaging.Lock()
	defer h.triaging.Unlock()
	if t := h.triaged; t != nil && t.rev == rev && t.Today == today {
		return t, nil
	}
	t := &Triaged{rev: rev, plantRev: h.Store.PlantRev(), Today: today}
	before := h.triaged
	if before == nil || before.Today != today {
		before = &Triaged{plantRev: t.plantRev + 1}
	}
	var err error
	if t.Places, err = h.allPlaces(ctx); err != nil {
		return nil, err
	}
	if t.Kept = before.Kept; before.plantRev != t.plantRev {
		if t.Kept, err = h.Store.Plants(ctx, 0, 0, store.All); err != nil {
			return nil, err
		}
	}
	verdicts, err := h.Store.Verdicts(ctx, 0, (today - holdsBack).String())
	if err != nil {
		return nil, err
	}
	standing := make(map[int64]*Decision, len(verdicts))
	lately := (today - cold.Recent).String()
	for i := range verdicts {
		if v := Decision(verdicts[i]); v.Day >= lately {
			standing[v.PlantID] = &v
		}
	}
	t.Events = t.grouped(t.sort(before, standing))
	if t.Held, err = h.holds(ctx, t, verdicts); err != nil {
		return nil, err
	}
	h.triaged = t
	return t, nil
}

// allPlaces are all properties with their seasons. A year of hours for each is much to read at the start: all cores
// share it.
func (h *House) allPlaces(ctx context.Context) ([]*Place, error) {
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return nil, err
	}
	out := make([]*Place, len(props))
	err = OnAllCores(len(props), func(i int) (err error) {
		out[i], err = h.PlaceOf(ctx, props[i])
		return err
	})
	return out, err
}

// OnAllCores does n pieces of work on all cores.
func OnAllCores(n int, work func(i int) error) error {
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
	at, was := byProperty(t.Places), byProperty(before.Places)
	hurt := map[*cold.Struck]int{}
	t.Plants = make([]PlantOut, 0, len(t.Kept))
	next := 0 // in before.plants, which are by id too
	for _, p := range t.Kept {
		pl := at[p.PropertyID]
		if pl == nil {
			continue // removed between the two reads
		}
		for next < len(before.Plants) && before.Plants[next].ID < p.ID {
			next++
		}
		var o PlantOut
		if next < len(before.Plants) && before.Plants[next].Plant == Plant(p) && pl.sees(was[p.PropertyID]) {
			o = before.Plants[next]
			o.Property = pl.Property.Name
		} else {
			o = pl.tell(p)
		}
		o.Verdict = standing[p.ID]
		if o.worst != nil && (o.Look.Worth || o.Look.Slight) {
			hurt[o.worst]++
		}
		t.list(&o)
		t.Plants = append(t.Plants, o)
	}
	slices.SortStableFunc(t.Looks, func(a, b PlantOut) int { return cmp.Compare(b.Look.Score, a.Look.Score) })
	return hurt
}

// sees reports that plants at the place mean the same as they did when it was as given.
func (p *Place) sees(was *Place) bool {
	return was != nil && was.Course == p.Course && was.shown == p.shown && was.Property.Value == p.Property.Value &&
		was.Property.Exposure == p.Property.Exposure
}

// list puts a plant on the lists it belongs to.
func (t *Triaged) list(o *PlantOut) {
	o.Decided = o.settled()
	if o.TakeIn != nil && !o.settledSince(o.TakeIn.since) {
		t.Shelter = append(t.Shelter, *o)
	}
	switch {
	case o.Look == nil:
	case o.Look.Slight && !o.Decided:
		t.Slight++
	case !o.Look.Worth:
		t.Unhurt++
	case o.Decided:
		t.Looked++
	default:
		t.Looks = append(t.Looks, *o)
	}
}

// Tell gives what is known of some plants.
func (t *Triaged) Tell(plants []store.Plant) []PlantOut {
	out := make([]PlantOut, 0, len(plants))
	for _, p := range plants {
		i, known := slices.BinarySearchFunc(t.Plants, p.ID, func(o PlantOut, id int64) int { return cmp.Compare(o.ID, id) })
		o := PlantOut{Plant: Plant(p), Common: p.Species, Form: catalogue.Shrub}
		if known {
			o = t.Plants[i]
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
	for _, p := range t.Places {
		for i := range p.Course.Events {
			s := &p.Course.Events[i]
			if t.Today-s.Day > cold.Recent || s.Day > t.Today {
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
	lookout.Order(out, t.Today, func(g EventGroup) lookout.Struck {
		s := struck(g.Event)
		s.Hurt = g.Hurt
		return s
	})
	return out
}
