package store

import (
	"context"

	"mezzadro/core/damage"
	"mezzadro/core/report"
)

// Report is what a client reads of what happened at their property.
type Report struct {
	ID         int64               `db:"id"`
	PropertyID int64               `db:"property_id"`
	Kind       string              `db:"kind"`
	Day        string              `db:"day"`
	State      string              `db:"state"`
	Body       JSON[report.Report] `db:"body"`
	Version    int                 `db:"version"`

	Property string `db:"property"`
}

const selectReport = `SELECT r.id, r.property_id, r.kind, r.day, r.state, r.body, r.version, p.name AS property
	FROM report r JOIN property p ON p.id = r.property_id AND p.removed_at IS NULL `

// Reports are those of a property, or with 0 of all, the newest first.
func (s *Store) Reports(ctx context.Context, property int64, limit int) ([]Report, error) {
	return many[Report](
		ctx,
		s.read,
		selectReport+`WHERE ?1 IN (0, r.property_id) ORDER BY r.id DESC LIMIT ?2`,
		property,
		limit,
	)
}

// Report is one.
func (s *Store) Report(ctx context.Context, id int64) (Report, error) {
	return reportOf(ctx, s.read, id)
}

func reportOf(ctx context.Context, from getter, id int64) (Report, error) {
	return one[Report](ctx, from, selectReport+`WHERE r.id = ?`, id)
}

// AddReport keeps a new one.
func (tx Tx) AddReport(ctx context.Context, r Report) (Report, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO report (property_id, kind, day, state, body) VALUES (:property_id, :kind, :day, :state, :body)`,
		r,
	)
	if err != nil {
		return r, err
	}
	id, err := res.LastInsertId()
	if err != nil {
		return r, err
	}
	return reportOf(ctx, tx, id)
}

// ChangeReport keeps the new state if the version is still the kept one.
func (tx Tx) ChangeReport(ctx context.Context, r Report) (Report, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE report SET state = :state, body = :body, version = version + 1 WHERE id = :id AND version = :version`,
		r,
	)
	if err != nil {
		return r, err
	}
	current := func() (Report, error) { return reportOf(ctx, tx, r.ID) }
	if err := changed(res, r.Version, current); err != nil {
		return r, err
	}
	return current()
}

// RemoveReport takes one out for good that was not sent.
func (tx Tx) RemoveReport(ctx context.Context, id int64) error {
	res, err := tx.ExecContext(ctx, `DELETE FROM report WHERE id = ? AND state = 'draft'`, id)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return ErrNotFound
	}
	return nil
}

// Judged is what was last decided of a plant, with the answer it rests on.
type Judged struct {
	ID       int64               `db:"id"`
	PlantID  int64               `db:"plant_id"`
	Day      string              `db:"day"`
	Decision string              `db:"decision"`
	Note     string              `db:"note"`
	Answer   JSON[damage.Answer] `db:"answer"`
}

// JudgedSince are those of a property's plants from a day on.
func (s *Store) JudgedSince(ctx context.Context, property int64, from string) ([]Judged, error) {
	return many[Judged](ctx, s.read, `SELECT v.id, v.plant_id, v.day, v.decision, v.note, v.answer FROM verdict v
		WHERE v.id IN (SELECT max(w.id) FROM verdict w JOIN plant p ON p.id = w.plant_id
			WHERE p.property_id = ? AND w.undone = 0 AND w.day >= ? AND w.decision <> 'not now' GROUP BY w.plant_id) ORDER BY v.plant_id`, property, from)
}

// PhotosSince are the pictures of a property's plants from a day on, the oldest first.
func (s *Store) PhotosSince(ctx context.Context, property int64, from string) ([]Photo, error) {
	return many[Photo](
		ctx,
		s.read,
		selectPhoto+`f.plant_id IN (SELECT id FROM plant WHERE property_id = ?) AND w.day >= ? ORDER BY w.day, f.id`,
		property,
		from,
	)
}
