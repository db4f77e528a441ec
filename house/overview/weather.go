package overview

import (
	"cmp"
	"context"
	"time"

	"mezzadro/core/weather"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// WeatherKept says how much weather was taken over.
type WeatherKept struct {
	Hours  int            `json:"hours" doc:"Hours read"`
	Fresh  int            `json:"fresh" doc:"Those that are new or say something else than what was kept"`
	Events []estate.Event `json:"events" doc:"Events found in this garden year, after the new hours"`
	Source string         `json:"source"`
	Read   []string       `json:"read" doc:"How a file in another form than the program's own was understood; empty for its own"`
}

// TakeWeather keeps hours under the name of where they come from.
func (h *Room) TakeWeather(ctx context.Context, key store.Key, property int64, name string, hours []weather.Hour) (WeatherKept, error) {
	return h.takeWeather(ctx, key, property, name, hours, nil)
}

// takeWeather keeps hours under the name of where they come from, and what was told of such files.
func (h *Room) takeWeather(
	ctx context.Context,
	key store.Key,
	property int64,
	name string,
	hours []weather.Hour,
	told *toldMatching,
) (WeatherKept, error) {
	in := store.SourceIn{Name: cmp.Or(name, "CSV file"), File: true, Rank: store.OfTheRegion, Day: h.Today().String()}
	if len(hours) > 0 && hours[0].Here {
		in.Rank = store.OfTheGarden
	}
	n, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (estate.HoursRead, error) {
		if told != nil {
			if err := tx.KeepMatching(ctx, told.header, told.text); err != nil {
				return estate.HoursRead{}, err
			}
		}
		n, err := tx.KeepWeather(ctx, property, in, hours)
		return estate.HoursRead{Hours: len(hours), Fresh: n}, err
	})
	if err != nil {
		return WeatherKept{}, err
	}
	return h.weatherKept(ctx, property, n)
}

// ReadWeather reads the station for a property.
func (h *Room) ReadWeather(ctx context.Context, property int64) (WeatherKept, error) {
	n, err := h.ReadStation(ctx, property)
	if err != nil {
		return WeatherKept{}, err
	}
	return h.weatherKept(ctx, property, n)
}

func (h *Room) weatherKept(ctx context.Context, property int64, n estate.HoursRead) (WeatherKept, error) {
	p, err := h.Place(ctx, property)
	if err != nil {
		return WeatherKept{}, err
	}
	if err := h.Treat.RenewWashed(ctx, property); err != nil {
		return WeatherKept{}, err
	}
	k := WeatherKept{Hours: n.Hours, Fresh: n.Fresh, Events: p.TellEvents(), Source: p.Property.WeatherSource}
	return k, h.Work.CurrentWindows(ctx)
}

// TakeBackSource takes a source out of a property's weather, or brings it back; windows follow.
func (h *Room) TakeBackSource(ctx context.Context, key store.Key, property, source int64, back bool) error {
	_, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (struct{}, error) {
		return struct{}{}, tx.TakeBackSource(ctx, property, source, back)
	})
	if err != nil {
		return err
	}
	if err := h.Treat.RenewWashed(ctx, property); err != nil {
		return err
	}
	return h.Work.CurrentWindows(ctx)
}

// WatchWeather reads the station for every property, now and then again after each span, until the context ends. A
// station that does not answer is noted in the log; the record keeps what it has.
func (h *Room) WatchWeather(ctx context.Context, every time.Duration) {
	tick := time.NewTicker(every)
	defer tick.Stop()
	for {
		props, err := h.Store.Properties(ctx, 0, store.All)
		if err != nil && ctx.Err() == nil {
			h.Log.ErrorContext(ctx, "weather watch", "error", err)
		}
		for _, p := range props {
			if _, err := h.ReadStation(ctx, p.ID); err != nil && ctx.Err() == nil {
				h.Log.WarnContext(ctx, "weather watch", "property", p.ID, "error", err)
			}
		}
		if err := h.Work.CurrentWindows(ctx); err != nil && ctx.Err() == nil {
			h.Log.ErrorContext(ctx, "windows", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
