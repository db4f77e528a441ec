package estate

import (
	"context"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/weather"
	"mezzadro/store"
)

// HoursRead is what came of hours: how many were read, and how many of them were new.
type HoursRead struct{ Hours, Fresh int }

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
func (h *House) ReadStation(ctx context.Context, property int64) (HoursRead, error) {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return HoursRead{}, err
	}
	return h.ReadStationTo(ctx, p, h.Today())
}

// StationFault is that the weather station, and not the record, was at fault.
type StationFault struct{ error }

// Unwrap is what it was.
func (f StationFault) Unwrap() error { return f.error }

// readAgain is how many days back a station is asked anew: late hours and corrections come in that time.
const readAgain = 2

// ReadStationTo asks the station for what is not kept yet, and for the last days again.
func (h *House) ReadStationTo(ctx context.Context, p store.Property, today day.Day) (HoursRead, error) {
	if h.Station == nil {
		return HoursRead{}, store.Refused(
			"no weather station is set up for this program: take the weather from a file, or ask who runs the program to name a station",
		)
	}
	zone, err := time.LoadLocation(string(p.Zone))
	if err != nil {
		return HoursRead{}, err
	}
	c, until := p.Climate.V, h.KnownUntil(today, zone)
	from, to := RecordFrom(c, today), day.FromTime(until.UTC())
	first, last, any, err := h.Store.StationSpan(ctx, p.ID, from.Time(), until)
	if err != nil {
		return HoursRead{}, err
	}
	if any && day.FromTime(first) <= from {
		from = min(to, max(from, day.FromTime(last)-readAgain))
	}
	hours, source, err := h.Station.Hours(ctx, c.Latitude, c.Longitude, c.ElevationM, from, to)
	if err != nil {
		h.Log.WarnContext(ctx, "weather station", "property", p.ID, "error", err)
		return HoursRead{}, StationFault{err}
	}
	for len(hours) > 0 && !hours[len(hours)-1].Time.Before(until) {
		hours = hours[:len(hours)-1] // a simulated station knows the future
	}
	n := HoursRead{Hours: len(hours)}
	err = h.Store.Write(ctx, func(tx store.Tx) error {
		n.Fresh, err = tx.KeepWeather(ctx, p.ID, store.SourceIn{Name: source, Rank: store.OfTheRegion}, hours)
		return err
	})
	return n, err
}
