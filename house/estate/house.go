// Package estate is what all rooms stand on: the record with its clock, the book, the firm's settings, properties and
// plants, and each property's season worked out.
package estate

import (
	"context"
	"log/slog"
	"sync"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/offset"
	"mezzadro/exchange"
	"mezzadro/store"
)

// House is the record with all that is worked out of it once for every room.
type House struct {
	Store     *store.Store
	Catalogue *catalogue.Catalogue
	Today     func() day.Day   // the one clock
	Clock     func() time.Time // what of today is known; nil: its early morning
	SetToday  func(day.Day)    // moves the sample's day; nil where the day is the clock's
	Home      day.Day          // the day the sample starts at
	Station   *exchange.Station
	Log       *slog.Logger

	// Shown tells what gardens and kinds have shown beside the book, as far as it is used; nil: nothing is learnt.
	Shown func(ctx context.Context) (*offset.Offsets, error)

	places sync.Map // property id → *Place

	triaging sync.Mutex
	triaged  *Triaged

	opening sync.Mutex
	opened  *book

	settling sync.Mutex
	settled  settings
}

// Morning is the hour of the property's day at which one stands where no clock says more: last night is known, the
// day is not.
const Morning = 6 * time.Hour

// KnownUntil is the time up to which weather can be known at a place on a day.
func (h *House) KnownUntil(today day.Day, zone *time.Location) time.Time {
	if h.Clock != nil && h.Today() == today {
		return h.Clock()
	}
	return today.Midnight(zone).Add(Morning)
}

// Forget drops all that was worked out, as if the house had just been opened: for measuring.
func (h *House) Forget() {
	h.places.Clear()
	h.triaging.Lock()
	h.triaged = nil
	h.triaging.Unlock()
}

// Warm works the seasons of all properties out, so that what follows can be measured by itself.
func (h *House) Warm(ctx context.Context) error {
	_, err := h.Triage(ctx)
	return err
}

// DateOr is the date given, or today.
func (h *House) DateOr(d day.Day) day.Day {
	if d == 0 || d == day.None {
		return h.Today()
	}
	return d
}
