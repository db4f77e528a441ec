package pruning

import (
	"sync"

	"mezzadro/core/day"
	"mezzadro/core/moment"
	"mezzadro/core/season"
)

// Place is a place's year, with what all cuts there ask of it worked out once. It is safe for use by many at once.
type Place struct {
	*moment.Place

	mu      sync.Mutex
	chances map[chanceOf][]float64
}

// At is a place.
func At(y *season.Year) *Place {
	return &Place{Place: moment.At(y), chances: map[chanceOf][]float64{}}
}

type chanceOf struct {
	from  day.Day
	limit float64
}

// frostWithin is the chance, by day from a first one, that one of the following nights falls below a limit, °C.
func (p *Place) frostWithin(from, to day.Day, limit float64) []float64 {
	k := chanceOf{from, limit}
	p.mu.Lock()
	defer p.mu.Unlock()
	c, known := p.chances[k]
	if !known {
		c = p.Year.Normals.FrostWithin(from, to+1, frostDays, limit)
		p.chances[k] = c
	}
	return c
}
