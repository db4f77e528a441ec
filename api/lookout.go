package api

import (
	"context"
	"math"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// Frame is what every screen shows round its work.
type Frame struct {
	Today   day.Day    `json:"today" format:"date"`
	Movable bool       `json:"movable" doc:"The day can be moved: the sample's only"`
	Home    day.Day    `json:"home,omitempty" format:"date" doc:"The day the sample starts at, where it can be moved"`
	Firm    store.Firm `json:"firm"`
	Counts  Counts     `json:"counts"`
}

// Counts are what wants attention in each place.
type Counts struct {
	Lookout int `json:"lookout" doc:"Plants to look at"`
	Grounds int `json:"grounds" doc:"Properties"`
	Year    int `json:"year" doc:"Windows that close within a fortnight"`
	Rounds  int `json:"rounds" doc:"Jobs without a day"`
}

func (s *Server) frame(ctx context.Context, _ *struct{}) (*Out[Frame], error) {
	firm, err := s.Store.Firm(ctx)
	if err != nil {
		return nil, s.problem(ctx, "firm", err)
	}
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	lanes, err := s.lanes(ctx, 0)
	if err != nil {
		return nil, s.problem(ctx, "jobs", err)
	}
	f := Frame{Today: s.Today(), Movable: s.SetToday != nil, Firm: firm,
		Counts: Counts{Lookout: len(t.looks), Grounds: len(t.places), Year: len(closing(lanes, s.Today()))}}
	if f.Movable {
		f.Home = s.Home
	}
	for _, j := range lanes {
		if j.Day == nil {
			f.Counts.Rounds++
		}
	}
	return out(f), nil
}

// moveToday moves the day the sample stands at; its simulated weather is read up to there, and everything follows.
func (s *Server) moveToday(ctx context.Context, in *struct {
	Body struct {
		Day day.Day `json:"day" format:"date"`
	}
}) (*Out[Frame], error) {
	d := in.Body.Day
	if s.SetToday == nil {
		return nil, s.problem(ctx, "day", store.Refused("the day is the clock's; only the sample's can be moved"))
	}
	if lo, hi := s.Home-240, s.Home+600; d < lo || d > hi {
		return nil, s.problem(ctx, "day", refuse("day", d.String(), "the sample's time goes from "+lo.String()+" to "+hi.String()))
	}
	props, err := s.Store.Properties(ctx, 0, 1<<31)
	if err != nil {
		return nil, s.problem(ctx, "properties", err)
	}
	for _, p := range props {
		if _, err := s.readStation(ctx, p, d); err != nil {
			return nil, s.problem(ctx, "weather", err)
		}
	}
	err = s.Store.Write(ctx, func(tx store.Tx) error {
		firm, err := s.Store.Firm(ctx)
		if err != nil {
			return err
		}
		firm.Today = d.String()
		return tx.SetFirm(ctx, firm)
	})
	if err != nil {
		return nil, s.problem(ctx, "day", err)
	}
	s.SetToday(d)
	return s.frame(ctx, nil)
}

// Lookout is what weather and season ask now, over all properties.
type Lookout struct {
	Events   []EventGroup `json:"events" doc:"Events of the last months; first the one that hurt most plants"`
	Groups   []LookGroup  `json:"groups" doc:"The look-list by property, the most pressing first"`
	Looks    int          `json:"looks" doc:"Plants or groups to look at, over all properties"`
	Deep     int          `json:"deep" doc:"Those of them with more than buds, leaves or flowers hurt"`
	Unhurt   int          `json:"unhurt" doc:"Plants the events left well within what they bear"`
	Looked   int          `json:"looked" doc:"Plants of the list already decided on"`
	Shelter  []PlantOut   `json:"shelter" doc:"Tender plants to be lifted or taken in before the first frost, and not decided on yet; up to 60"`
	Tender   int          `json:"tender" doc:"How many there are of them"`
	Due      []Lane       `json:"due" doc:"Follow-ups whose day is within a fortnight"`
	Closing  []Lane       `json:"closing" doc:"Jobs without a day whose window closes within a fortnight"`
	Property int64        `json:"property" doc:"Whose season the ribbon shows: where the first event was worst"`
}

// LookGroup is the look-list of one property.
type LookGroup struct {
	PropertyID int64      `json:"property_id"`
	Property   string     `json:"property"`
	Note       string     `json:"note" doc:"People, pets and anything else to mind"`
	Looks      []PlantOut `json:"looks" doc:"The most pressing first"`
	More       int        `json:"more" doc:"Plants beyond those given"`
	Minutes    int        `json:"minutes" doc:"Estimate for looking at all of them"`
}

const (
	groupsShown  = 30
	looksShown   = 12
	shelterShown = 60
)

func (s *Server) lookout(ctx context.Context, _ *struct{}) (*Out[Lookout], error) {
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	lanes, err := s.lanes(ctx, 0)
	if err != nil {
		return nil, s.problem(ctx, "jobs", err)
	}
	o := Lookout{Events: t.events, Groups: []LookGroup{}, Looks: len(t.looks), Unhurt: t.unhurt, Looked: t.looked, Shelter: append([]PlantOut{}, t.shelter[:min(len(t.shelter), shelterShown)]...), Tender: len(t.shelter), Due: []Lane{}, Closing: closing(lanes, t.today)}
	if len(o.Events) > 12 {
		o.Events = o.Events[:12]
	}
	at := map[int64]int{}
	for _, p := range t.looks {
		if cold.Deep(p.Look.Expected) {
			o.Deep++
		}
		i, known := at[p.PropertyID]
		if !known {
			i = len(o.Groups)
			at[p.PropertyID] = i
			o.Groups = append(o.Groups, LookGroup{PropertyID: p.PropertyID, Property: p.Property, Looks: []PlantOut{}})
		}
		g := &o.Groups[i]
		g.Minutes += cold.LookMinutes
		if len(g.Looks) < looksShown {
			g.Looks = append(g.Looks, p)
		} else {
			g.More++
		}
	}
	for _, pl := range t.places {
		if i, any := at[pl.property.ID]; any {
			o.Groups[i].Note = pl.property.Note
		}
	}
	o.Groups = o.Groups[:min(len(o.Groups), groupsShown)]
	if len(t.places) > 0 {
		o.Property = t.places[0].property.ID
	}
	if len(o.Events) > 0 {
		o.Property = o.Events[0].PropertyID
	}
	for _, l := range lanes {
		if l.Kind != "look" {
			continue
		}
		d := l.BestDay
		if l.Day != nil {
			if d, err = day.Parse(*l.Day); err != nil {
				return nil, s.problem(ctx, "job", err)
			}
		}
		if d <= t.today+14 {
			o.Due = append(o.Due, l)
		}
	}
	return out(o), nil
}

// EventChart is the weather of an event hour by hour, against what the plants that matter bore.
type EventChart struct {
	Event  Event       `json:"event"`
	Label  string      `json:"label" doc:"What the values are"`
	Unit   string      `json:"unit"`
	Zone   string      `json:"zone" doc:"Time zone of the property"`
	Times  []time.Time `json:"times" doc:"Start of each hour, UTC"`
	Values []*float64  `json:"values" doc:"null where nothing was measured"`
	Lines  []KillLine  `json:"lines" doc:"What plants here bore that day, the tenderest first"`
}

// KillLine is the temperature at which half of an organ dies, for plants of one species here.
type KillLine struct {
	Species string  `json:"species"`
	Common  string  `json:"common"`
	Organ   string  `json:"organ"`
	C       float64 `json:"c" doc:"°C; for other events the limit in the chart's unit"`
	Plants  int     `json:"plants" doc:"Plants or groups of it here"`
	Share   float64 `json:"share" doc:"Expected share killed"`
}

// linesShown is how many kill points a chart bears without turning into a thicket.
const linesShown = 5

func (s *Server) eventChart(ctx context.Context, in *struct {
	ByID
	Kind string `query:"kind" required:"true"`
	Peak string `query:"peak" required:"true" format:"date"`
}) (*Out[EventChart], error) {
	p, err := s.place(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, "property", err)
	}
	var e *cold.Struck
	for i := range p.course.Events {
		if x := &p.course.Events[i]; x.Kind == in.Kind && x.Day.String() == in.Peak {
			e = x
		}
	}
	if e == nil {
		return nil, s.problem(ctx, in.Kind+" on "+in.Peak, store.ErrNotFound)
	}
	margin := 36 * time.Hour
	if e.Kind == weather.Wet {
		margin = 0
	}
	hours, err := s.Store.Weather(ctx, p.property.ID, e.From.Add(-margin), e.To.Add(margin))
	if err != nil {
		return nil, s.problem(ctx, "weather", err)
	}
	c := EventChart{Event: p.tellEvent(e), Zone: p.property.Zone, Label: "Air", Unit: "°C", Lines: []KillLine{}}
	figure := func(h weather.Hour) float64 { return h.TempC }
	switch e.Kind {
	case weather.Gale:
		c.Label, c.Unit, figure = "Wind", "m/s", func(h weather.Hour) float64 { return h.WindMS }
	case weather.Wet:
		sum := 0.0
		c.Label, c.Unit, figure = "Rain so far", "mm", func(h weather.Hour) float64 {
			if h.RainMM > 0 {
				sum += h.RainMM
			}
			return sum
		}
	}
	for _, h := range weather.At(hours, p.property.Site.V, p.normals.Climate.Longitude) {
		c.Times = append(c.Times, h.Time)
		var v *float64
		if f := figure(h); !math.IsNaN(f) {
			r := tenth(f)
			v = &r
		}
		c.Values = append(c.Values, v)
	}
	t, err := s.triage(ctx)
	if err != nil {
		return nil, s.problem(ctx, "plants", err)
	}
	if e.Cold() {
		c.Lines = p.killLines(e, t.plants)
	} else if c.Unit == unitOf[e.Kind] {
		c.Lines = append(c.Lines, KillLine{Common: "counts as an event here", Organ: "", C: tenth(e.Threshold)})
	}
	return out(c), nil
}

// killLines are what plants here bore in a cold event.
func (p *place) killLines(e *cold.Struck, plants []PlantOut) []KillLine {
	var here []cold.Plant
	for _, o := range plants {
		if o.PropertyID == p.property.ID && o.Botanical != "" {
			here = append(here, caseOf(o.Plant, entryOf(p.book, o.Species), p.property).Plant)
		}
	}
	out := []KillLine{}
	for _, b := range e.WhatBore(here, func(s *catalogue.Entry) catalogue.Stage { return p.stage(s, e.Day) }, linesShown) {
		out = append(out, KillLine{b.Species.ID, b.Species.Common, b.Organ, tenth(b.C), b.Plants, math.Round(100*b.Share) / 100})
	}
	return out
}
