package pruning

import (
	"sync"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Place is a place's year, with what all cuts there ask of it worked out once. It is safe for use by many at once.
type Place struct {
	Year *season.Year

	mu      sync.Mutex
	frosts  map[day.Day]frosts // by midwinter
	chances map[chanceOf][]float64
}

// At is a place.
func At(y *season.Year) *Place {
	return &Place{Year: y, frosts: map[day.Day]frosts{}, chances: map[chanceOf][]float64{}}
}

// frosts are the days round a winter on which frost ends and comes again.
type frosts struct {
	last, hard, first day.Day
	none              bool // there is no frost in most years
}

type chanceOf struct {
	from  day.Day
	limit float64
}

// frostsOf are those of the garden year of a midwinter.
func (p *Place) frostsOf(m day.Day) frosts {
	p.mu.Lock()
	defer p.mu.Unlock()
	if f, known := p.frosts[m]; known {
		return f
	}
	n := p.Year.Normals
	or := func(b season.Band, known bool, otherwise day.Day) day.Day {
		if known {
			return b.Mid
		}
		return otherwise
	}
	last, spring := n.LastFrost(m, 0)
	hard, hards := n.LastFrost(m, season.KillingFrostC)
	first, autumn := p.Year.FirstFrost(m+182, 0)
	f := frosts{or(last, spring, m+noLastFrost), or(hard, hards, m+noLastHard), or(first, autumn, m+noFirst), !spring && !autumn}
	p.frosts[m] = f
	return f
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
