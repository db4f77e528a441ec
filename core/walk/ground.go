// Package walk is what a walk knows of a property: the place worked out for a day, its plants with what was found and
// done on each, and the question about a plant that they make. It is plain data, so that a device can take it along and
// judge by the same rules as the house where the house cannot be reached.
package walk

import (
	"sync"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/rules"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

// Ground is a place worked out for a day: what the questions about all its plants share.
type Ground struct {
	Today  day.Day
	Year   *season.Year
	Course *cold.Course
	Work   *job.Place     // what orders cost here
	Cuts   *pruning.Place // what cuts ask of the year

	mu     sync.Mutex
	stages map[stageOf]func(day.Day) catalogue.Stage
}

type stageOf struct {
	species   string
	midwinter day.Day
}

// At works a place out from its normals and its hours, sorted by time and as they were on the site, up to a day.
func At(n *season.Normals, hours []weather.Hour, zone *time.Location, today day.Day, house rules.House) *Ground {
	y := season.NewYear(n, weather.Daily(hours, zone))
	return &Ground{
		Today:  today,
		Year:   y,
		Course: cold.Follow(y, hours, zone, today),
		Work:   job.At(y, house),
		Cuts:   pruning.At(y),
		stages: map[stageOf]func(day.Day) catalogue.Stage{},
	}
}

// Stage is where a species' growth stands here on a day.
func (g *Ground) Stage(e *catalogue.Entry, x day.Day) catalogue.Stage {
	k := stageOf{e.ID, g.Year.Normals.Climate.Midwinter(x)}
	g.mu.Lock()
	defer g.mu.Unlock()
	f, known := g.stages[k]
	if !known {
		f = e.Stages(g.Year, x)
		g.stages[k] = f
	}
	return f(x)
}

// Look is the most pressing reason to look at a plant here; ok is false where no event is recent.
func (g *Ground) Look(c *cold.Case) (cold.Look, bool) {
	return g.Course.Look(c, func(x day.Day) catalogue.Stage { return g.Stage(&c.Species, x) }, g.Today)
}

// blows are what each event since a day is expected to have done to a plant, the oldest first.
func (g *Ground) blows(c *cold.Case, since day.Day) (out []*cold.Outcome) {
	for i := range g.Course.Events {
		s := &g.Course.Events[i]
		if s.Day <= since || s.Day > g.Today {
			continue
		}
		if o := s.Meet(&c.Plant, g.Stage(&c.Species, s.Day)); o.Worst.Organ != "" {
			out = append(out, &o)
		}
	}
	return out
}
