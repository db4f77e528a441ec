// Package house is what the firm does with its record: it joins what is stored with what the core works out, one file a
// use. It knows no HTTP and no SQL; it takes plain values and gives plain values back. Errors are invalid.Fields for
// what was entered wrong, store.Stale, store.Refused and store.ErrNotFound for the rest that a user can mend.
package house

import (
	"context"
	"log/slog"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/rules"
	"mezzadro/exchange"
	"mezzadro/store"
)

// House is the firm at work.
type House struct {
	Store     *store.Store
	Catalogue *catalogue.Catalogue
	Today     func() day.Day   // the one clock
	Clock     func() time.Time // what of today is known; nil: its early morning
	SetToday  func(day.Day)    // moves the sample's day; nil where the day is the clock's
	Home      day.Day          // the day the sample starts at
	Station   *exchange.Station
	Post      Poster // takes letters to clients; nil: there is none
	Log       *slog.Logger

	places sync.Map // property id → *Place

	triaging sync.Mutex
	triaged  *Triaged

	opening sync.Mutex
	opened  *book

	settling sync.Mutex
	settled  settings

	proposed proposals

	Backups Backups
	backing sync.Mutex

	guarded atomic.Bool // somebody may sign in

	refreshing sync.Mutex
	refreshed  string // what all windows were last worked out for
}

// morning is the hour of the property's day at which one stands where no clock says more: last night is known, the
// day is not.
const morning = 6 * time.Hour

// known is the time up to which weather can be known at a place on a day.
func (h *House) known(today day.Day, zone *time.Location) time.Time {
	if h.Clock != nil && h.Today() == today {
		return h.Clock()
	}
	return midnight(today, zone).Add(morning)
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

// Refuse is a problem with one field.
func Refuse(path string, value any, text string) error {
	return invalid.Fields{{Path: path, Problem: text, Value: value}}
}

// fields are the refused fields of an error, nil for any other.
func fields(err error) invalid.Fields {
	f, _ := err.(invalid.Fields)
	return f
}

// DateOr is the date given, or today.
func (h *House) DateOr(d day.Day) day.Day {
	if d == 0 || d == day.None {
		return h.Today()
	}
	return d
}

// book is the catalogue with the firm's own and corrected entries, and which state of the record it was made from.
type book struct {
	rev  uint64
	all  *catalogue.Catalogue
	own  map[string]int // versions
	from *catalogue.Catalogue
}

func (h *House) openBook(ctx context.Context) (*book, error) {
	h.opening.Lock()
	defer h.opening.Unlock()
	rev := h.Store.BookRev() // read before the entries: a write meanwhile has it made anew next time
	if b := h.opened; b != nil && b.rev == rev && b.from == h.Catalogue {
		return b, nil
	}
	own, err := h.Store.OwnSpecies(ctx)
	if err != nil {
		return nil, err
	}
	b := &book{rev: rev, own: map[string]int{}, from: h.Catalogue}
	entries := make([]catalogue.Entry, len(own))
	for i, o := range own {
		entries[i], b.own[o.Entry.ID] = o.Entry, o.Version
	}
	b.all = h.Catalogue.With(entries)
	h.opened = b
	return b, nil
}

// Book is the catalogue with the firm's own and corrected entries.
func (h *House) Book(ctx context.Context) (*catalogue.Catalogue, error) {
	b, err := h.openBook(ctx)
	if err != nil {
		return nil, err
	}
	return b.all, nil
}

// entryOf is a species' entry; where it was taken out since, one that says no more than its id: the plant stays.
func entryOf(book *catalogue.Catalogue, id string) catalogue.Entry {
	e, err := book.Species(id)
	if err != nil {
		return catalogue.Entry{ID: id, Common: id, Form: catalogue.Shrub, Graft: catalogue.Graft{Habit: "own roots"}}
	}
	return e
}

// settings are the firm's, as last read.
type settings struct {
	read bool
	rev  uint64
	firm store.Firm
}

// Firm is the firm with its settings.
func (h *House) Firm(ctx context.Context) (store.Firm, error) {
	h.settling.Lock()
	defer h.settling.Unlock()
	rev := h.Store.FirmRev()
	if h.settled.read && h.settled.rev == rev {
		return h.settled.firm, nil
	}
	f, err := h.Store.Firm(ctx)
	if err == nil {
		h.settled = settings{true, rev, f}
	}
	return f, err
}

// FirmIn is what is entered in Settings.
type FirmIn struct {
	Name      string      `json:"name" minLength:"1" maxLength:"300"`
	Units     string      `json:"units" enum:"metric,imperial" doc:"How figures are shown and entered"`
	WeekStart int         `json:"week_start" enum:"0,1,6" doc:"First day of the week: 0 Sunday, 1 Monday, 6 Saturday"`
	Rules     rules.House `json:"rules" doc:"House rules"`
	Version   int         `json:"version" doc:"The version the change is based on"`
}

// ChangeFirm keeps new settings. Windows follow the house rules.
func (h *House) ChangeFirm(ctx context.Context, key store.Key, in FirmIn) (store.Firm, error) {
	in.Name = strings.TrimSpace(in.Name)
	if in.Name == "" {
		return store.Firm{}, Refuse("name", in.Name, "is missing")
	}
	if err := belowField("rules", in.Rules.Validate()); err != nil {
		return store.Firm{}, err
	}
	f, err := store.Once(ctx, h.Store, key, func(tx store.Tx) (store.Firm, error) {
		return tx.ChangeFirm(
			ctx,
			store.Firm{
				Name:      in.Name,
				Units:     in.Units,
				WeekStart: in.WeekStart,
				Rules:     store.JSON[rules.House]{V: in.Rules},
				Version:   in.Version,
			},
		)
	})
	if err != nil {
		return f, err
	}
	return f, h.RefreshWindows(ctx)
}
