package store

import "context"

// Way is how long a way takes that somebody has timed.
type Way struct {
	FromCrew     int64   `db:"from_crew"` // 0: from a property
	FromProperty int64   `db:"from_property"`
	ToProperty   int64   `db:"to_property"`
	Minutes      float64 `db:"minutes"`
}

// Ways are all that are kept.
func (s *Store) Ways(ctx context.Context) ([]Way, error) {
	return many[Way](ctx, s.read, `SELECT from_crew, from_property, to_property, minutes FROM way ORDER BY 1, 2, 3`)
}

// SetWays keeps ways in the place of all that were kept.
func (tx Tx) SetWays(ctx context.Context, list []Way) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM way`); err != nil {
		return err
	}
	for _, w := range list {
		if _, err := tx.NamedExecContext(ctx, `INSERT OR REPLACE INTO way (from_crew, from_property, to_property, minutes)
			VALUES (:from_crew, :from_property, :to_property, :minutes)`, w); err != nil {
			return err
		}
	}
	return nil
}

// Traffic is a stretch of the day in which ways take longer.
type Traffic struct {
	From  int         `db:"from_min"`
	To    int         `db:"to_min"`
	Times float64     `db:"times"`
	Days  JSON[[]int] `db:"days"` // weekdays, 0 Sunday; none: Monday to Friday
}

// Traffic is all of it, by the hour.
func (s *Store) Traffic(ctx context.Context) ([]Traffic, error) {
	return many[Traffic](ctx, s.read, `SELECT from_min, to_min, times, days FROM traffic ORDER BY from_min, id`)
}

// SetTraffic keeps stretches in the place of all that were kept.
func (tx Tx) SetTraffic(ctx context.Context, list []Traffic) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM traffic`); err != nil {
		return err
	}
	for _, t := range list {
		if _, err := tx.NamedExecContext(ctx, `INSERT INTO traffic (from_min, to_min, times, days)
			VALUES (:from_min, :to_min, :times, :days)`, t); err != nil {
			return err
		}
	}
	return nil
}
