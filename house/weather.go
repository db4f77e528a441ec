package house

import (
	"context"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// WeatherKept says how much weather was taken over.
type WeatherKept struct {
	Hours  int     `json:"hours" doc:"Hours read"`
	Fresh  int     `json:"fresh" doc:"Those that are new or say something else than what was kept"`
	Events []Event `json:"events" doc:"Events found in this garden year, after the new hours"`
	Source string  `json:"source"`
}

// fresh is what came of hours: how many were read, and how many of them were new.
type fresh struct{ Hours, Fresh int }

// TakeWeather keeps hours that came as a file; the windows of the property's orders follow.
func (h *House) TakeWeather(
	ctx context.Context,
	key store.Key,
	property int64,
	hours []weather.Hour,
) (WeatherKept, error) {
	n, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (fresh, error) {
		n, err := tx.KeepWeather(ctx, property, "CSV file", hours)
		return fresh{len(hours), n}, err
	})
	if err != nil {
		return WeatherKept{}, err
	}
	return h.weatherKept(ctx, property, n)
}

// ReadWeather reads the station for a property.
func (h *House) ReadWeather(ctx context.Context, property int64) (WeatherKept, error) {
	n, err := h.ReadStation(ctx, property)
	if err != nil {
		return WeatherKept{}, err
	}
	return h.weatherKept(ctx, property, n)
}

func (h *House) weatherKept(ctx context.Context, property int64, n fresh) (WeatherKept, error) {
	p, err := h.Place(ctx, property)
	if err != nil {
		return WeatherKept{}, err
	}
	if err := h.renewWashed(ctx, property); err != nil {
		return WeatherKept{}, err
	}
	return WeatherKept{n.Hours, n.Fresh, p.TellEvents(), p.Property.WeatherSource}, h.currentWindows(ctx)
}

// Hours is the weather kept of a property that matters today, with the property's name.
func (h *House) Hours(ctx context.Context, property int64) (name string, hours []weather.Hour, err error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return "", nil, err
	}
	today := h.Today()
	hours, err = h.Store.Weather(ctx, property, RecordFrom(ClimateOf(p), today).Time(), (today + 1).Time())
	return p.Name, hours, err
}

// ReadStation takes over the weather that matters for today, through last night.
func (h *House) ReadStation(ctx context.Context, property int64) (fresh, error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return fresh{}, err
	}
	return h.readStation(ctx, p, h.Today())
}

// readAgain is how many days back a station is asked anew: late hours and corrections come in that time.
const readAgain = 2

// readStation asks the station for what is not kept yet, and for the last days again.
func (h *House) readStation(ctx context.Context, p store.Property, today day.Day) (fresh, error) {
	if h.Station == nil {
		return fresh{}, store.Refused(
			"no weather station is set up: start with --weather URL, or give the weather as a CSV file",
		)
	}
	zone, err := time.LoadLocation(p.Zone)
	if err != nil {
		return fresh{}, err
	}
	c, until := p.Climate.V, h.known(today, zone)
	from, to := RecordFrom(c, today), day.FromTime(until.UTC())
	first, last, any, err := h.Store.WeatherSpan(ctx, p.ID, from.Time(), until)
	if err != nil {
		return fresh{}, err
	}
	if any && day.FromTime(first) <= from {
		from = min(to, max(from, day.FromTime(last)-readAgain))
	}
	hours, source, err := h.Station.Hours(ctx, c.Latitude, c.Longitude, c.ElevationM, from, to)
	if err != nil {
		h.Log.WarnContext(ctx, "weather station", "property", p.ID, "error", err)
		return fresh{}, store.Refused(err.Error())
	}
	for len(hours) > 0 && !hours[len(hours)-1].Time.Before(until) {
		hours = hours[:len(hours)-1] // a simulated station knows the future
	}
	n := fresh{Hours: len(hours)}
	err = h.Store.Write(ctx, func(tx store.Tx) error {
		n.Fresh, err = tx.KeepWeather(ctx, p.ID, source, hours)
		return err
	})
	return n, err
}

// WatchWeather reads the station for every property, now and then again after each span, until the context ends. A
// station that does not answer is noted in the log; the record keeps what it has.
func (h *House) WatchWeather(ctx context.Context, every time.Duration) {
	tick := time.NewTicker(every)
	defer tick.Stop()
	for {
		props, err := h.Store.Properties(ctx, 0, all)
		if err != nil && ctx.Err() == nil {
			h.Log.ErrorContext(ctx, "weather watch", "error", err)
		}
		for _, p := range props {
			if _, err := h.ReadStation(ctx, p.ID); err != nil && ctx.Err() == nil {
				h.Log.WarnContext(ctx, "weather watch", "property", p.ID, "error", err)
			}
		}
		if err := h.currentWindows(ctx); err != nil && ctx.Err() == nil {
			h.Log.ErrorContext(ctx, "windows", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
