package work

import (
	"context"
	"errors"
	"fmt"
	"hash/fnv"
	"time"

	"mezzadro/core/rules"
	"mezzadro/house/estate"
	"mezzadro/store"
)

// stamp names all that the windows of a property hang on.
func (h *Room) stamp(p store.Property, rules rules.House) string {
	sum := fnv.New64a()
	fmt.Fprintf(sum, "%s %d %d %d %+v", h.Today(), p.Version, p.WeatherRev, h.Store.BookRev(), rules)
	return fmt.Sprintf("%x", sum.Sum64())
}

// windowState names all that any window hangs on: while it stands, none has to be looked at.
func (h *Room) windowState() string {
	return fmt.Sprint(
		h.Today(),
		" ",
		h.Store.PlantRev(),
		" ",
		h.Store.BookRev(),
		" ",
		h.Store.FirmRev(),
		" ",
		h.Store.WeatherRev(),
	)
}

// CurrentWindows has the list columns of all orders say what the season says now. It is a look at one string while
// nothing has moved.
func (h *Room) CurrentWindows(ctx context.Context) error {
	h.refreshing.Lock()
	defer h.refreshing.Unlock()
	if h.refreshed == h.windowState() {
		return nil
	}
	err := h.refreshAll(ctx)
	trouble := store.Trouble(err)
	if trouble != "" && h.trouble.Swap(&trouble) == nil {
		h.Log.ErrorContext(ctx, "windows stay as they were", "error", err)
	}
	if trouble != "" {
		return nil // reading goes on with what stands
	}
	h.trouble.Store(nil)
	return err
}

// Trouble is why the windows of orders stay as they were last worked out: the disk takes nothing. Empty while it does.
func (h *Room) Trouble() string {
	if t := h.trouble.Load(); t != nil {
		return *t
	}
	return ""
}

// RefreshWindows works the list columns of all standing orders out anew, where their place's year has moved.
func (h *Room) RefreshWindows(ctx context.Context) error {
	h.refreshing.Lock()
	defer h.refreshing.Unlock()
	return h.refreshAll(ctx)
}

// RefreshProperty does the same for one property, whatever moved there.
func (h *Room) RefreshProperty(ctx context.Context, id int64) error {
	h.refreshing.Lock()
	defer h.refreshing.Unlock()
	p, err := h.Store.Property(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	} else if err != nil {
		return err
	}
	list, err := h.reckoned(ctx, p)
	if err != nil {
		return err
	}
	return h.Store.WriteQuietly(ctx, func(tx store.Tx) error { return tx.Refresh(ctx, id, p.Windowed, list) })
}

// atOnce is how many properties' windows are kept in one write: others get their turn in between.
const atOnce = 20

// windowed is a property whose windows are worked out, and for which year.
type windowed struct {
	property int64
	stamp    string
	list     []store.Refreshed
}

// refreshAll does the work on all cores, property by property, and keeps what is done while the rest is worked out.
func (h *Room) refreshAll(ctx context.Context) error {
	state := h.windowState()
	firm, err := h.Firm(ctx)
	if err != nil {
		return err
	}
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return err
	}
	moved := props[:0:0]
	for _, p := range props {
		if p.Windowed != h.stamp(p, firm.Rules.V) {
			moved = append(moved, p)
		}
	}
	ready := make(chan windowed, len(moved))
	var failed error // set before ready is closed
	go func() {
		defer close(ready)
		failed = estate.OnAllCores(len(moved), func(i int) error {
			list, err := h.reckoned(ctx, moved[i])
			if err == nil {
				ready <- windowed{moved[i].ID, h.stamp(moved[i], firm.Rules.V), list}
			}
			return err
		})
	}()
	err = h.keepWindows(ctx, ready)
	if err = errors.Join(err, failed); err == nil {
		h.refreshed = state
	}
	return err
}

// keepWindows keeps what comes, some properties to a write, until nothing more does.
func (h *Room) keepWindows(ctx context.Context, ready <-chan windowed) (err error) {
	batch := make([]windowed, 0, atOnce)
	keep := func() {
		err = errors.Join(err, h.Store.WriteQuietly(ctx, func(tx store.Tx) error {
			for _, w := range batch {
				if err := tx.Refresh(ctx, w.property, w.stamp, w.list); err != nil {
					return err
				}
			}
			return nil
		}))
		batch = batch[:0]
	}
	for w := range ready {
		if batch = append(batch, w); len(batch) == atOnce {
			keep()
		}
	}
	if len(batch) > 0 {
		keep()
	}
	return err
}

// reckoned are the list columns of a property's standing orders that say something else now. Orders that ask the same
// on the same species share one curve.
func (h *Room) reckoned(ctx context.Context, p store.Property) ([]store.Refreshed, error) {
	orders, err := h.Store.OrdersToRefresh(ctx, p.ID)
	if err != nil || len(orders) == 0 {
		return nil, err
	}
	pl, err := h.PlaceOf(ctx, p)
	if err != nil {
		return nil, err
	}
	t, err := h.Teller(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]store.Refreshed, 0, len(orders))
	for _, k := range orders {
		c, err := h.Shared(ctx, &k, pl)
		if err != nil {
			return nil, err
		}
		r := store.Refreshed{ID: k.ID, Outlook: c.Outlook, DayCost: estate.DayCost(c.Curve, store.DayOf(k.Day), pl.Today)}
		if by := t.Waits(k.Order); by != nil && by.Until.Given() {
			held := t.Curve(k.Order, c.Curve)
			r.Outlook, r.DayCost = held.Outlook(pl.Today), estate.DayCost(held, store.DayOf(k.Day), pl.Today)
		}
		if !k.Same(r) {
			out = append(out, r)
		}
	}
	return out, nil
}

// Watch keeps the windows of all orders up to date as days go by, until the context ends.
func (h *Room) Watch(ctx context.Context, every time.Duration) {
	tick := time.NewTicker(every)
	defer tick.Stop()
	for {
		if err := h.CurrentWindows(ctx); err != nil && ctx.Err() == nil {
			h.Log.ErrorContext(ctx, "windows", "error", err)
		}
		if err := h.Store.WriteQuietly(
			ctx,
			func(tx store.Tx) error { return tx.Forget(ctx) },
		); err != nil &&
			ctx.Err() == nil {
			h.Log.ErrorContext(ctx, "keys of writes", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
