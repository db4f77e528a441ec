package estate

import (
	"math"

	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
	"mezzadro/core/weather"
)

// Event is something the weather did, in words and figures.
type Event struct {
	Kind       string   `json:"kind" enum:"freeze,late frost,drying wind,heat,wet spell,gale"`
	PropertyID int64    `json:"property_id"`
	Property   string   `json:"property"`
	From       day.Day  `json:"from" format:"date"`
	To         day.Day  `json:"to" format:"date"`
	Peak       day.Day  `json:"peak" format:"date"`
	Value      float64  `json:"value" doc:"At the peak: °C, m/s for a gale, mm in a week for a wet spell, kPa·h for a drying wind"`
	Unit       string   `json:"unit"`
	Threshold  float64  `json:"threshold" doc:"From where it counts as an event here, in the same unit"`
	Hours      int      `json:"hours" doc:"Of frost, unbroken but for short thaws; else past the threshold"`
	FallC      float64  `json:"fall_c" doc:"Suddenness of a frost: how far the minimum fell within 72 h"`
	BeforeOffC *float64 `json:"before_off_c" doc:"Cold: how much warmer than normal the fortnight before was; null without a record"`
	Hardened   float64  `json:"hardened" doc:"How hardened plants were that day, 0 in growth to 1 in midwinter"`
	Story      string   `json:"story"`
}

var UnitOf = map[string]string{
	weather.Freeze:    "°C",
	weather.LateFrost: "°C",
	weather.Heat:      "°C",
	weather.Gale:      "m/s",
	weather.Wet:       "mm",
	cold.DryingWind:   "kPa·h",
}

func (p *Place) TellEvent(e *cold.Struck) Event {
	out := Event{
		Kind:       e.Kind,
		PropertyID: p.Property.ID,
		Property:   p.Property.Name,
		From:       p.day(e.From),
		To:         p.day(e.To),
		Peak:       e.Day,
		Value:      quantity.Tenth(e.Value),
		Unit:       UnitOf[e.Kind],
		Threshold:  quantity.Tenth(e.Threshold),
		Hours:      e.Hours,
		FallC:      quantity.Tenth(e.FallC),
		Hardened:   math.Round(100*e.Hardened.Usual()) / 100,
		Story:      cold.Story(e.Event),
	}
	if e.Cold() && !math.IsNaN(e.BeforeC) {
		v := quantity.Tenth(e.BeforeOffC)
		out.BeforeOffC = &v
	}
	return out
}

func (p *Place) TellEvents() []Event {
	out := []Event{}
	for i := range p.Course.Events {
		out = append(out, p.TellEvent(&p.Course.Events[i]))
	}
	return out
}
