package job

import (
	"mezzadro/core/rules"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Place is a property's year as known today under the firm's rules, with what every order there asks for worked out
// once. It is safe for use by many at once.
type Place struct {
	Year  *season.Year
	Rules rules.House

	mu    sync.Mutex
	frost map[frostSpan]*chances
	leaf  map[leafOf]leafing
	last  map[day.Day]day.Day // last frosts by midwinter
}

// At is a place.
func At(y *season.Year, r rules.House) *Place {
	return &Place{
		Year:  y,
		Rules: r,
		frost: map[frostSpan]*chances{},
		leaf:  map[leafOf]leafing{},
		last:  map[day.Day]day.Day{},
	}
}

type frostSpan struct {
	from  day.Day
	span  int
	limit float64
}

// chances are figures by day from a first one.
type chances struct {
	from day.Day
	at   []float64
}

func (c *chances) on(d day.Day) float64 {
	return c.at[max(0, min(len(c.at)-1, int(d-c.from)))]
}

// leafOf tells species apart as far as their leafing goes.
type leafOf struct {
	id         string
	warmth, dd float64
	lateness   int
	midwinter  day.Day
}

// leafing is a species' year: when it goes to rest, and its patience date and leaves of this garden year and of the
// next.
type leafing struct {
	rest           day.Day
	patience, next day.Day
	out, nextOut   season.Band
}

// ahead is how many days of frost and heat are worked out at once: two garden years and a spring.
const ahead = 2*366 + 250

// frostWithin is the chance, by day, that one of the following span of nights falls below limit °C.
func (p *Place) frostWithin(d day.Day, span int, limit float64) func(day.Day) float64 {
	from, _ := p.Year.Normals.Climate.GardenYear(d)
	k := frostSpan{from, span, limit}
	p.mu.Lock()
	defer p.mu.Unlock()
	c, known := p.frost[k]
	if !known {
		c = &chances{from, p.Year.Normals.FrostWithin(from, from+ahead, span, limit)}
		p.frost[k] = c
	}
	return c.on
}

// lastFrost is the latest usual last frost of the spring after a midwinter; the day asked from, and some months, where
// there hardly is one.
func (p *Place) lastFrost(midwinter, made day.Day) day.Day {
	p.mu.Lock()
	last, known := p.last[midwinter]
	p.mu.Unlock()
	if !known {
		last = day.None
		if b, ok := p.Year.Normals.LastFrost(midwinter, 0); ok {
			last = b.Late
		}
		p.mu.Lock()
		p.last[midwinter] = last
		p.mu.Unlock()
	}
	if last == day.None {
		return made + rarely
	}
	return max(last, made)
}

// goesToRest is so many days before its leaves fall that a plant makes no more new ones, and evergreenRest when one
// that keeps them does.
const goesToRest = 14

var evergreenRest = season.Anchor{Cooling: 200}

// Rest is the day in the garden year of d on which a species goes to rest for the coming winter: what is hurt from
// then on shows it in spring.
func (p *Place) Rest(sp *catalogue.Entry, d day.Day) day.Day {
	a := evergreenRest
	if sp.LeafDrop != nil {
		a = *sp.LeafDrop
	}
	x, ok := p.Year.When(a, d, nil)
	if !ok {
		x, _ = p.Year.When(evergreenRest, d, nil)
	}
	return x - goesToRest
}

// Patience is the species' patience date in the garden year of d, or in the next once it has gone to rest, and the
// band of its leafing.
func (p *Place) Patience(sp *catalogue.Entry, d day.Day) (day.Day, season.Band) {
	k := leafOf{sp.ID, sp.LeafOut.Warmth, sp.LeafOut.DegreeDays, sp.LatenessDays, p.Year.Normals.Climate.Midwinter(d)}
	p.mu.Lock()
	l, known := p.leaf[k]
	p.mu.Unlock()
	if !known {
		_, yearEnd := p.Year.Normals.Climate.GardenYear(d)
		l.rest = p.Rest(sp, d)
		l.patience, l.out = sp.Patience(p.Year, d)
		l.next, l.nextOut = sp.Patience(p.Year, yearEnd)
		p.mu.Lock()
		p.leaf[k] = l
		p.mu.Unlock()
	}
	if d >= l.rest {
		return l.next, l.nextOut
	}
	return l.patience, l.out
}

// springOver is how many days after midwinter the next last frost is the coming year's.
const springOver = 120

// rarely is taken for the last frost where there hardly is one: so many days after the day asked.
const rarely = 150

// Due is the day that a look, or bringing a plant out, hangs on, for an order made on a day.
func (p *Place) Due(w When, sp *catalogue.Entry, made day.Day) day.Day {
	patience, _ := p.Patience(sp, made)
	c := p.Year.Normals.Climate
	_, yearEnd := c.GardenYear(made)
	switch w {
	case LeafDueNext:
		if made > patience {
			patience, _ = p.Patience(sp, yearEnd)
		}
		return patience
	case CutShows:
		return max(patience, made) + cutShows
	case InAWeek:
		return made + 7
	case FrostPast:
		in := made
		if made > c.Midwinter(made)+springOver {
			in = yearEnd
		}
		return p.lastFrost(c.Midwinter(in), made)
	}
	return max(patience, made)
}

// cutShows is how many days of growth tell whether a cut was right.
const cutShows = 42
