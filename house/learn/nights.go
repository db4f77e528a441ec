package learn

import (
	"context"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/outcome"
	"mezzadro/core/season"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// nightsHeld is how many days back nights are held against what was told.
const nightsHeld = 90

// NightsTold is how well the station told the nights ahead.
type NightsTold struct {
	Days   int                  `json:"days" doc:"How many days back it goes"`
	Scores []outcome.NightScore `json:"scores" doc:"By how many days ahead they were told, the nearest first; none where no station tells the days ahead"`
}

// Nights holds what the station told of nights against what was measured, of all properties.
func (h *Room) Nights(ctx context.Context) (NightsTold, error) {
	out, today := NightsTold{Days: nightsHeld}, h.Today()
	rows, err := h.Store.NightsTold(ctx, (today - nightsHeld).String(), today.String())
	if err != nil {
		return out, err
	}
	list := []outcome.Night{}
	at, came := int64(0), map[day.Day]season.Extremes{}
	for _, r := range rows {
		if r.PropertyID != at {
			if came, err = h.cameAt(ctx, r.PropertyID, today); err != nil {
				return out, err
			}
			at = r.PropertyID
		}
		on, told := store.DayOf(&r.Day), store.DayOf(&r.ToldOn)
		if x, measured := came[on]; measured {
			list = append(list, outcome.Night{Ahead: int(on - told), Told: r.MinC, CameC: x.Min})
		}
	}
	out.Scores = outcome.NightsOf(list)
	return out, nil
}

// cameAt are the extremes of the days that were told at a property, as its weather was measured.
func (h *Room) cameAt(ctx context.Context, property int64, today day.Day) (map[day.Day]season.Extremes, error) {
	p, err := h.Store.Property(ctx, property)
	if there, err := store.There(err); err != nil || !there {
		return nil, err // it was removed
	}
	zone, err := time.LoadLocation(string(p.Zone))
	if err != nil {
		return nil, err
	}
	hours, err := h.Store.Weather(ctx, property, (today - nightsHeld - 1).Time(), h.KnownUntil(today, zone))
	return weather.Daily(hours, zone), err
}
