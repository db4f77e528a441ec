package store

import (
	"context"
	"database/sql"

	"mezzadro/core/job"
)

// StandingVisit is a visit that comes again.
type StandingVisit struct {
	ID         int64              `db:"id"`
	PropertyID int64              `db:"property_id"`
	CrewID     int64              `db:"crew_id"`
	Body       JSON[StandingBody] `db:"body"`
	Version    int                `db:"version"`

	Property string `db:"property"`
	Crew     string `db:"crew"`
}

// StandingBody is when it comes and what it is.
type StandingBody struct {
	job.Standing
	Title   string `json:"title"`
	Minutes int    `json:"minutes"`
	People  int    `json:"people"`
	Known   bool   `json:"known"` // the client knows the days
}

// StandingDay is a day on which a standing visit belongs, with the order that was made of it.
type StandingDay struct {
	StandingID int64         `db:"standing_id"`
	Day        string        `db:"day"`
	OrderID    sql.NullInt64 `db:"order_id"`
}

const selectStanding = `SELECT v.id, v.property_id, v.crew_id, v.body, v.version, p.name AS property, c.name AS crew
	FROM standing_visit v JOIN property p ON p.id = v.property_id JOIN crew c ON c.id = v.crew_id
	WHERE v.removed_at IS NULL AND p.removed_at IS NULL `

// StandingVisits are those in sight, of a property or of all (0).
func (s *Store) StandingVisits(ctx context.Context, property int64) ([]StandingVisit, error) {
	return many[StandingVisit](
		ctx,
		s.read,
		selectStanding+`AND (? = 0 OR v.property_id = ?) ORDER BY p.name, v.id`,
		property,
		property,
	)
}

// StandingVisit is one within a write.
func (tx Tx) StandingVisit(ctx context.Context, id int64) (StandingVisit, error) {
	return one[StandingVisit](ctx, tx, selectStanding+`AND v.id = ?`, id)
}

// AddStandingVisit keeps a new one and returns its id.
func (tx Tx) AddStandingVisit(ctx context.Context, v StandingVisit) (int64, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO standing_visit (property_id, crew_id, body) VALUES (:property_id, :crew_id, :body)`,
		v,
	)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// ChangeStandingVisit keeps the new values if the version is still the kept one.
func (tx Tx) ChangeStandingVisit(ctx context.Context, v StandingVisit) error {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE standing_visit SET crew_id = :crew_id, body = :body, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`,
		v,
	)
	if err != nil {
		return err
	}
	return changed(res, v.Version, func() (StandingVisit, error) { return tx.StandingVisit(ctx, v.ID) })
}

// RemoveStandingVisit takes one out of sight, or brings it back.
func (tx Tx) RemoveStandingVisit(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "standing_visit", id, remove)
}

// StandingDays are the days from one on that were made of all standing visits.
func (s *Store) StandingDays(ctx context.Context, from string) ([]StandingDay, error) {
	return many[StandingDay](
		ctx,
		s.read,
		`SELECT standing_id, day, order_id FROM standing_day WHERE day >= ? ORDER BY standing_id, day`,
		from,
	)
}

// DaysOfStanding are those of one within a write.
func (tx Tx) DaysOfStanding(ctx context.Context, id int64, from string) ([]StandingDay, error) {
	return many[StandingDay](ctx, tx,
		`SELECT standing_id, day, order_id FROM standing_day WHERE standing_id = ? AND day >= ? ORDER BY day`, id, from)
}

// SetStandingDay notes what was made of a day.
func (tx Tx) SetStandingDay(ctx context.Context, d StandingDay) error {
	_, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO standing_day (standing_id, day, order_id) VALUES (:standing_id, :day, :order_id)`,
		d,
	)
	return err
}

// ForgetStandingDay has a day be made anew.
func (tx Tx) ForgetStandingDay(ctx context.Context, d StandingDay) error {
	_, err := tx.NamedExecContext(ctx, `DELETE FROM standing_day WHERE standing_id = :standing_id AND day = :day`, d)
	return err
}

// StandingMissed are the orders of standing visits that still stand although the next time has come: made for a day
// before one, by how many days each may wait.
func (s *Store) StandingMissed(ctx context.Context, today string) ([]OrderFull, error) {
	return many[OrderFull](ctx, s.read, selectFull+`WHERE o.id IN (SELECT d.order_id FROM standing_day d
			JOIN standing_day n ON n.standing_id = d.standing_id AND n.day > d.day AND n.day <= ?)
		AND `+stands+` AND o.kind = ? ORDER BY o.id`, today, job.Care)
}
