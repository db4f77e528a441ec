package walk

import (
	"fmt"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/damage"
	"mezzadro/core/day"
	"mezzadro/core/rules"
	"mezzadro/core/season"
)

// Kit is what a device takes along of a property, to judge its plants where the house cannot be reached.
type Kit struct {
	Property int64             `json:"property" doc:"Its id"`
	Today    day.Day           `json:"today" format:"date" doc:"The day up to which the weather is known"`
	Zone     string            `json:"zone" doc:"Its time zone, by the IANA name"`
	Climate  season.Climate    `json:"climate" doc:"On its site"`
	Rules    rules.House       `json:"rules" doc:"What holds here"`
	Weather  Hours             `json:"weather" doc:"Of the days that still matter"`
	Species  []catalogue.Entry `json:"species" doc:"Of its plants"`
	Plants   []Plant           `json:"plants"`
}

// Opened is a kit worked out for a day.
type Opened struct {
	*Ground
	plants []Plant
	book   Book
}

// Open works a kit out for a day on which it is used, its own or a later one.
func (k *Kit) Open(today day.Day) (*Opened, error) {
	zone, err := time.LoadLocation(k.Zone)
	if err != nil {
		return nil, err
	}
	hours, err := k.Weather.Unpacked()
	if err != nil {
		return nil, fmt.Errorf("weather: %w", err)
	}
	if err := k.Climate.Validate(); err != nil {
		return nil, err
	}
	species := make(map[string]catalogue.Entry, len(k.Species))
	for _, e := range k.Species {
		species[e.ID] = e
	}
	return &Opened{At(k.Climate.Daily(), hours, zone, max(k.Today, today), k.Rules), k.Plants,
		func(id string) catalogue.Entry { return species[id] }}, nil
}

// Of is the question about one of its plants, with what was found on a day.
func (o *Opened) Of(plant int64, checks []check.Check, found day.Day) (damage.Question, error) {
	for i := range o.plants {
		if p := &o.plants[i]; p.ID == plant {
			q := o.Ask(p, o.plants, o.book, checks, found)
			if len(checks) > 0 {
				q.Found = found
			}
			return q, nil
		}
	}
	return damage.Question{}, fmt.Errorf("plant %d was not taken along", plant)
}
