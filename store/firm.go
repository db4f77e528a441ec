package store

import (
	"context"
	"errors"

	"mezzadro/core/rules"
)

// Firm is whose record this is, and how it likes things.
type Firm struct {
	Name      string            `db:"name"`
	Sample    bool              `db:"sample"`
	Today     string            `db:"today"` // the day the sample was moved to; empty: where it starts
	Units     string            `db:"units"` // metric or imperial
	WeekStart int               `db:"week_start"`
	DayOrder  string            `db:"day_order"` // day or month: which stands first; empty: as the reader's region has it
	Clock     string            `db:"clock"`     // 24 or 12 hours; empty likewise
	Paper     string            `db:"paper"`     // A4 or letter; empty likewise
	Rules     JSON[rules.House] `db:"rules"`
	Version   int               `db:"version"`
}

const selectFirm = `SELECT name, sample, today, units, week_start, day_order, clock, paper, rules, version FROM firm`

// Firm reads the firm; without one it has no name yet and the usual ways.
func (s *Store) Firm(ctx context.Context) (Firm, error) { return firm(ctx, s.read) }

func firm(ctx context.Context, from getter) (Firm, error) {
	f, err := one[Firm](ctx, from, selectFirm)
	if errors.Is(err, ErrNotFound) {
		return Firm{Name: "Your firm", Units: "metric", WeekStart: 1, Version: 0}, nil
	}
	return f, err
}

// SetFirm keeps the firm as given, whatever stood there.
func (tx Tx) SetFirm(ctx context.Context, f Firm) error {
	tx.touched.firm = true
	if f.Units == "" {
		f.Units, f.WeekStart = "metric", 1
	}
	_, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO firm (id, name, sample, today, units, week_start, day_order, clock, paper, rules)
			VALUES (1, :name, :sample, :today, :units, :week_start, :day_order, :clock, :paper, :rules)
		ON CONFLICT (id) DO UPDATE SET name = excluded.name, sample = excluded.sample, today = excluded.today,
		units = excluded.units,
		week_start = excluded.week_start, day_order = excluded.day_order, clock = excluded.clock, paper = excluded.paper,
		rules = excluded.rules, version = version + 1`,
		f,
	)
	return err
}

// ChangeFirm keeps new settings if they are based on the version that is kept.
func (tx Tx) ChangeFirm(ctx context.Context, f Firm) (Firm, error) {
	now, err := firm(ctx, tx)
	if err != nil {
		return f, err
	}
	if now.Version != f.Version {
		return f, Stale{f.Version, now}
	}
	f.Sample, f.Today = now.Sample, now.Today
	if err := tx.SetFirm(ctx, f); err != nil {
		return f, err
	}
	return firm(ctx, tx)
}
