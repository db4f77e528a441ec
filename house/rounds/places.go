package rounds

import (
	"mezzadro/core/rounds"
	"mezzadro/house/crews"
	"mezzadro/house/estate"
	"slices"
	"time"
)

// place adds a property, and says by which number.
func (o *planned) place(pl *estate.Place) int {
	id, c := pl.Property.ID, pl.Property.Climate.V
	a := o.access[id]
	o.problem.Places = append(o.problem.Places, rounds.Place{
		Name:   pl.Property.Name,
		At:     &rounds.Point{Latitude: c.Latitude, Longitude: c.Longitude},
		Arrive: a.Arrive,
		Access: a.Hours,
		Shut:   weekdays(a.Shut),
		Sick:   o.sick[id],
		Sky:    o.ahead.Of(pl, o.problem.From, o.problem.Days),
	})
	if i := slices.IndexFunc(o.crews, func(c crews.Crew) bool { return c.ID == o.knows[id] }); i >= 0 {
		o.problem.Places[len(o.problem.Places)-1].Knows = &i
	}
	o.places = append(o.places, id)
	return len(o.places) - 1
}

// weekdays are those of an access as the core knows them.
func weekdays(shut []int) (out []time.Weekday) {
	for _, d := range shut {
		out = append(out, time.Weekday(d))
	}
	return out
}
