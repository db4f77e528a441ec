package overview

import (
	"context"
	"math"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/quantity"
	"mezzadro/core/weather"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// EventChart is the weather of an event hour by hour, against what the plants that matter bore.
type EventChart struct {
	Event  estate.Event `json:"event"`
	Label  string       `json:"label" doc:"What the values are"`
	Unit   string       `json:"unit"`
	Zone   string       `json:"zone" doc:"Time zone of the property"`
	Times  []time.Time  `json:"times" doc:"Start of each hour, UTC"`
	Values []*float64   `json:"values" doc:"null where nothing was measured"`
	Lines  []KillLine   `json:"lines" doc:"What plants here bore that day, the tenderest first"`
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

// EventChart draws the event of a kind at a property that had its peak on a day.
func (h *Room) EventChart(ctx context.Context, property int64, kind, peak string) (EventChart, error) {
	p, err := h.Place(ctx, property)
	if err != nil {
		return EventChart{}, err
	}
	var e *cold.Struck
	for i := range p.Course.Events {
		if x := &p.Course.Events[i]; x.Kind == kind && x.Day.String() == peak {
			e = x
		}
	}
	if e == nil {
		return EventChart{}, store.ErrNotFound
	}
	margin := 36 * time.Hour
	if e.Kind == weather.Wet {
		margin = 0
	}
	hours, err := h.Store.Weather(ctx, p.Property.ID, e.From.Add(-margin), e.To.Add(margin))
	if err != nil {
		return EventChart{}, err
	}
	c := EventChart{Event: p.TellEvent(e), Zone: string(p.Property.Zone), Lines: []KillLine{}}
	c.draw(e, weather.At(hours, p.Property.Site.V, p.Normals.Climate.Longitude))
	t, err := h.Triage(ctx)
	if err != nil {
		return c, err
	}
	if e.Cold() {
		c.Lines = killLines(p, e, t.Plants)
	} else if c.Unit == estate.UnitOf[e.Kind] {
		c.Lines = append(c.Lines, KillLine{Common: "counts as an event here", Organ: "", C: quantity.Tenth(e.Threshold)})
	}
	return c, nil
}

// draw takes the figures that tell of the event.
func (c *EventChart) draw(e *cold.Struck, hours []weather.Hour) {
	c.Label, c.Unit = "Air", "°C"
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
	for _, x := range hours {
		c.Times = append(c.Times, x.Time)
		var v *float64
		if f := figure(x); !math.IsNaN(f) {
			r := quantity.Tenth(f)
			v = &r
		}
		c.Values = append(c.Values, v)
	}
}

// killLines are what plants here bore in a cold event.
func killLines(p *estate.Place, e *cold.Struck, plants []estate.PlantOut) []KillLine {
	var here []cold.Plant
	for _, o := range plants {
		if o.PropertyID == p.Property.ID && o.Botanical != "" {
			here = append(here, p.CaseOf(store.Plant(o.Plant), estate.EntryOf(p.Book, o.Species)).Plant)
		}
	}
	out := []KillLine{}
	for _, b := range e.WhatBore(here, func(s *catalogue.Entry) catalogue.Stage { return p.Stage(s, e.Day) }, linesShown) {
		out = append(
			out,
			KillLine{b.Species.ID, b.Species.Common, b.Organ, quantity.Tenth(b.C), b.Plants, math.Round(100*b.Share) / 100},
		)
	}
	return out
}
