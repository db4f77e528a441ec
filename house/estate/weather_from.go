package estate

import (
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// WeatherFrom is where hours of a property's weather came from.
type WeatherFrom struct {
	ID    int64   `json:"id"`
	Name  string  `json:"name"`
	Rank  int     `json:"rank" enum:"1,2" doc:"1 of the region: fills gaps; 2 measured in the garden itself: goes before all else"`
	File  bool    `json:"file" doc:"Taken over from a file; else told by a station, and told on"`
	Taken string  `json:"taken,omitempty" format:"date" doc:"When a file was taken over"`
	Hours int     `json:"hours" doc:"That it told of the time that matters today"`
	From  day.Day `json:"from" format:"date"`
	To    day.Day `json:"to" format:"date"`
}

// from notes where the hours of a place came from, and by which rank each day was measured for the most part.
func (p *Place) from(sources []store.WeatherSource, hours []weather.Hour) {
	p.Sources = []WeatherFrom{}
	for _, s := range sources {
		if s.Hours > 0 {
			p.Sources = append(p.Sources, WeatherFrom{s.ID, s.Name, s.Rank, s.File, s.Taken, s.Hours, p.day(time.Unix(s.First, 0)), p.day(time.Unix(s.Last, 0))})
		}
	}
	here := map[day.Day]int{}                                                     // hours measured in the garden, less those of the region
	solar := time.Duration(p.Normals.Climate.Longitude / 15 * float64(time.Hour)) // near enough to the zone's day, and quick
	for _, h := range hours {
		d := day.FromTime(h.Time.Add(solar))
		if h.Here {
			here[d]++
		} else {
			here[d]--
		}
	}
	p.SeenBy = make(map[day.Day]int, len(here))
	for d, n := range here {
		p.SeenBy[d] = store.OfTheRegion
		if n >= 0 {
			p.SeenBy[d] = store.OfTheGarden
		}
	}
}
