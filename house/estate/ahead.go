package estate

import (
	"context"
	"errors"
	"fmt"
	"time"

	"golang.org/x/sync/errgroup"

	"mezzadro/core/day"
	"mezzadro/core/rounds"
	"mezzadro/exchange"
	"mezzadro/store"
)

// How far and for how long the weather ahead is told.
const (
	outlookDays = 10 // asked for; a station may tell fewer
	outlookGood = 1  // days for which an outlook holds: from an older one the usual weather is better
	outlookWait = 8 * time.Second
	outlooksNow = 8 // properties are asked for at once
)

// readOutlooks asks the station for the weather ahead of all properties that were not told today. A station that does
// not answer, or only measures, is noted in the log: then the usual weather stands.
func (h *House) readOutlooks(ctx context.Context) error {
	if h.Station == nil {
		return nil
	}
	today := h.Today()
	told, err := h.Store.Outlooks(ctx, today.String(), today.String())
	if err != nil {
		return err
	}
	knows := map[int64]bool{}
	for _, o := range told {
		knows[o.PropertyID] = knows[o.PropertyID] || o.ToldOn == today.String() // the sample's day can go back
	}
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return err
	}
	soon, stop := context.WithTimeout(ctx, outlookWait)
	defer stop()
	asks, soon := errgroup.WithContext(soon) // one that fails for one property is not asked for two hundred
	asks.SetLimit(outlooksNow)
	for _, p := range props {
		if !knows[p.ID] {
			asks.Go(func() error { return h.readOutlook(soon, p, today) })
		}
	}
	if err := asks.Wait(); err != nil && !errors.Is(err, exchange.ErrNoOutlook) && ctx.Err() == nil {
		h.Log.WarnContext(ctx, "weather ahead", "error", err)
	}
	return ctx.Err()
}

// readOutlook asks for the weather ahead of one property.
func (h *House) readOutlook(ctx context.Context, p store.Property, today day.Day) error {
	c := p.Climate.V
	days, source, err := h.Station.Outlook(ctx, c.Latitude, c.Longitude, c.ElevationM, today, today+outlookDays-1)
	if err != nil {
		return fmt.Errorf("property %d: %w", p.ID, err)
	}
	rows := make([]store.Outlook, len(days))
	for i, d := range days {
		rows[i] = store.Outlook{
			PropertyID: p.ID, Day: d.Day.String(), ToldOn: today.String(),
			RainMM: d.RainMM, WindMS: d.WindMS, MinC: d.MinC, MaxC: d.MaxC, Source: source,
		}
	}
	return h.Store.WriteQuietly(ctx, func(tx store.Tx) error { return tx.SetOutlook(ctx, p.ID, rows) })
}

// Skies is the weather ahead as it was told, by property and day.
type Skies map[int64]map[day.Day]rounds.Sky

// SkiesAhead are those told today or yesterday.
func (h *House) SkiesAhead(ctx context.Context) (Skies, error) {
	if err := h.readOutlooks(ctx); err != nil {
		return nil, err
	}
	today := h.Today()
	list, err := h.Store.Outlooks(ctx, today.String(), (today - outlookGood).String())
	out := Skies{}
	for _, o := range list {
		if o.ToldOn > today.String() {
			continue
		}
		if out[o.PropertyID] == nil {
			out[o.PropertyID] = map[day.Day]rounds.Sky{}
		}
		on := store.DayOf(&o.Day)
		out[o.PropertyID][on] = rounds.Sky{Day: on, Told: true, RainMM: o.RainMM, WindMS: o.WindMS, MinC: o.MinC, MaxC: o.MaxC}
	}
	return out, err
}

// Of is the weather of a span of days at a property, and of the day after it: as told, else as usual.
func (s Skies) Of(pl *Place, from day.Day, days int) []rounds.Sky {
	out := make([]rounds.Sky, 0, days+1)
	for d := from; d <= from+day.Day(days); d++ {
		w, told := s[pl.Property.ID][d]
		if !told {
			w = rounds.Usual(pl.Normals, d)
		}
		out = append(out, w)
	}
	return out
}
