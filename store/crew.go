package store

import (
	"context"
	"errors"

	"mezzadro/core/day"
	"mezzadro/core/rounds"
)

// Crew is people who go together in one vehicle.
type Crew struct {
	ID      int64          `db:"id"`
	Name    string         `db:"name"`
	People  JSON[[]int64]  `db:"people"`
	Body    JSON[CrewBody] `db:"body"`
	Version int            `db:"version"`
}

// CrewBody is when and from where a crew goes.
type CrewBody struct {
	Hours  [7]rounds.Span `json:"hours"` // Sunday first
	Off    []day.Day      `json:"off"`
	Start  *rounds.Point  `json:"start,omitempty"`
	LoadM3 float64        `json:"load_m3"`
	Break  *rounds.Break  `json:"break,omitempty"`
	Load   int            `json:"load_minutes,omitempty"`
	Tip    *rounds.Tip    `json:"tip,omitempty"`
}

const selectCrew = `SELECT id, name, people, body, version FROM crew WHERE removed_at IS NULL `

// Crews lists those in sight in the order they were entered.
func (s *Store) Crews(ctx context.Context) ([]Crew, error) {
	return many[Crew](ctx, s.read, selectCrew+`ORDER BY id`)
}

// CrewCalled is the id of the crew in sight of a name; 0 where none has it.
func (s *Store) CrewCalled(ctx context.Context, name string) (int64, error) {
	id, err := one[int64](ctx, s.read, `SELECT id FROM crew WHERE removed_at IS NULL AND name = ? ORDER BY id LIMIT 1`, name)
	if errors.Is(err, ErrNotFound) {
		return 0, nil
	}
	return id, err
}

// AddCrew keeps a new one and returns it with its id.
func (tx Tx) AddCrew(ctx context.Context, c Crew) (Crew, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO crew (name, people, body) VALUES (:name, :people, :body)`, c)
	if err != nil {
		return c, err
	}
	c.Version = 1
	c.ID, err = res.LastInsertId()
	return c, err
}

// ChangeCrew keeps the new values if the version is still the kept one.
func (tx Tx) ChangeCrew(ctx context.Context, c Crew) (Crew, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE crew SET name = :name, people = :people, body = :body, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`,
		c,
	)
	if err != nil {
		return c, err
	}
	current := func() (Crew, error) { return one[Crew](ctx, tx, selectCrew+`AND id = ?`, c.ID) }
	if err := changed(res, c.Version, current); err != nil {
		return c, err
	}
	return current()
}

// RemoveCrew takes one out of sight, or brings it back.
func (tx Tx) RemoveCrew(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "crew", id, remove)
}

// Access is when one may be at a property, and what arriving takes.
type Access struct {
	Arrive float64        `json:"arrive" minimum:"0" maximum:"240" doc:"Minutes on arrival: gate, parking, unloading"`
	Hours  [7]rounds.Span `json:"hours" doc:"By weekday, Sunday first, minutes after midnight; nothing at all: any time"`
	Shut   []int          `json:"shut" maxItems:"7" doc:"Weekdays on which nobody may come, 0 Sunday"`
	Note   string         `json:"note" maxLength:"1000" doc:"Gate, key, parking"`
}

// AccessOf is a property's; the zero value where nobody entered any.
func (s *Store) AccessOf(ctx context.Context, property int64) (Access, error) {
	a, err := one[JSON[Access]](ctx, s.read, `SELECT body FROM access WHERE property_id = ?`, property)
	if errors.Is(err, ErrNotFound) {
		return Access{}, nil
	}
	return a.V, err
}

// Accesses are those of all properties that have any, by property.
func (s *Store) Accesses(ctx context.Context) (map[int64]Access, error) {
	rows, err := many[struct {
		PropertyID int64        `db:"property_id"`
		Body       JSON[Access] `db:"body"`
	}](ctx, s.read, `SELECT property_id, body FROM access`)
	out := make(map[int64]Access, len(rows))
	for _, r := range rows {
		out[r.PropertyID] = r.Body.V
	}
	return out, err
}

// SetAccess keeps a property's.
func (tx Tx) SetAccess(ctx context.Context, property int64, a Access) error {
	_, err := tx.ExecContext(
		ctx,
		`INSERT INTO access (property_id, body) VALUES (?, ?) ON CONFLICT (property_id) DO UPDATE SET body = excluded.body`,
		property,
		JSON[Access]{V: a},
	)
	return err
}

// SheetOf are the orders on a day and those that were done or skipped on it, in the order of the day's work.
func (s *Store) SheetOf(ctx context.Context, day string, limit int) ([]OrderFull, error) {
	return many[OrderFull](
		ctx,
		s.read,
		selectFull+`WHERE o.in_sight = 1 AND (o.state = 'on a day' AND o.day = ?1 OR o.state IN ('done', 'skipped') AND o.ended = ?1)
		ORDER BY o.place, o.id LIMIT ?2`,
		day,
		limit,
	)
}

// StandingGaps are the gaps of all standing orders to others, whatever became of those.
func (s *Store) StandingGaps(ctx context.Context) ([]GapRow, error) {
	return many[GapRow](
		ctx,
		s.read,
		`SELECT g.order_id, g.of_id, g.min_days, g.max_days, g.why, b.title, b.kind, b.day, b.ended, b.state
		FROM order_gap g JOIN job_order o ON o.id = g.order_id JOIN job_order b ON b.id = g.of_id WHERE `+standing+` AND b.state <> 'dropped'`,
	)
}

// Pin has an order stay where it is when rounds are proposed, or not.
func (tx Tx) Pin(ctx context.Context, id int64, version int, pinned bool) error {
	res, err := tx.ExecContext(
		ctx,
		`UPDATE job_order SET pinned = ?, version = version + 1 WHERE id = ? AND version = ? AND in_sight = 1`,
		pinned,
		id,
		version,
	)
	if err != nil {
		return err
	}
	return tx.orderChanged(ctx, res, id, version)
}

// Anyway has an order be done although what was found on its plant says to wait, for a reason; without one it waits again.
func (tx Tx) Anyway(ctx context.Context, id int64, version int, why string) error {
	res, err := tx.ExecContext(
		ctx,
		`UPDATE job_order SET anyway = ?, version = version + 1, by_name = ? WHERE id = ? AND version = ? AND in_sight = 1`,
		why,
		by(ctx),
		id,
		version,
	)
	if err != nil {
		return err
	}
	return tx.orderChanged(ctx, res, id, version)
}

// Told notes that the client knows the day an order is on, or that it fell, or takes that back.
func (tx Tx) Told(ctx context.Context, id int64, told bool) error {
	if told {
		return tx.touch(ctx, `UPDATE job_order SET told = coalesce(day, '') WHERE id = ? AND (day IS NOT NULL OR told <> '') AND in_sight = 1`, id)
	}
	return tx.touch(ctx, `UPDATE job_order SET told = '' WHERE id = ? AND in_sight = 1`, id)
}

// ToldWithoutDay are jobs of whose day from one on the client knows, and that stand on none.
func (s *Store) ToldWithoutDay(ctx context.Context, from string) ([]OrderFull, error) {
	return many[OrderFull](ctx, s.read, selectFull+`WHERE o.in_sight = 1 AND o.state = 'waiting' AND o.told >= ? ORDER BY o.told, o.property_id, o.id`, from)
}

// ToldDay is the day of a job that its client was told; empty where none was.
func (tx Tx) ToldDay(ctx context.Context, id int64) (string, error) {
	return one[string](ctx, tx, `SELECT told FROM job_order WHERE id = ?`, id)
}

// SetToldDay notes which day of a job its client was told, whatever day it is on.
func (tx Tx) SetToldDay(ctx context.Context, id int64, day string) error {
	return tx.touch(ctx, `UPDATE job_order SET told = ? WHERE id = ?`, day, id)
}

// ToldOn notes that the client of a property was told the day of a job, if the job stands on that day there.
func (tx Tx) ToldOn(ctx context.Context, id, property int64, day string) error {
	return tx.touch(ctx, `UPDATE job_order SET told = day WHERE id = ? AND property_id = ? AND day = ? AND in_sight = 1`,
		id, property, day)
}
