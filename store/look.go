package store

import (
	"context"
	"database/sql"
	"errors"

	"mezzadro/core/check"
)

// Look is what was found at one plant on one walk. Its rev counts the writes: a phone says which one it knows.
type Look struct {
	WalkID  int64
	PlantID int64
	Rev     int
	Note    string
	Checks  []check.Check
}

type checkRow struct {
	WalkID  int64   `db:"walk_id"`
	PlantID int64   `db:"plant_id"`
	Kind    string  `db:"kind"`
	Height  float64 `db:"height_m"`
	Held    int     `db:"held"`
	Broke   int     `db:"broke"`
	Result  string  `db:"result"`
	Leaf    string  `db:"leaf"`
	Amount  float64 `db:"amount"`
	Seen    string  `db:"seen"`
}

type lookRow struct {
	WalkID  int64  `db:"walk_id"`
	PlantID int64  `db:"plant_id"`
	Rev     int    `db:"rev"`
	Note    string `db:"note"`
}

// looks reads looks by a condition on walk_id and plant_id.
func looks(ctx context.Context, from getter, where string, args ...any) ([]Look, error) {
	out := []Look{}
	at := map[[2]int64]int{}
	of := func(walk, plant int64) *Look {
		k := [2]int64{walk, plant}
		i, known := at[k]
		if !known {
			i = len(out)
			at[k] = i
			out = append(out, Look{WalkID: walk, PlantID: plant, Checks: []check.Check{}})
		}
		return &out[i]
	}
	rows, err := many[lookRow](
		ctx,
		from,
		`SELECT walk_id, plant_id, rev, note FROM plant_look WHERE `+where+` ORDER BY walk_id, plant_id`,
		args...)
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		l := of(r.WalkID, r.PlantID)
		l.Rev, l.Note = r.Rev, r.Note
	}
	checks, err := many[checkRow](
		ctx,
		from,
		`SELECT walk_id, plant_id, kind, height_m, held, broke, result, leaf, amount, seen FROM plant_check WHERE
			`+where+` ORDER BY walk_id, plant_id, seq`,
		args...)
	for _, r := range checks {
		l := of(r.WalkID, r.PlantID)
		l.Checks = append(
			l.Checks,
			check.Check{
				Kind:    check.Kind(r.Kind),
				HeightM: r.Height,
				Held:    r.Held,
				Broke:   r.Broke,
				Result:  r.Result,
				Leaf:    r.Leaf,
				Amount:  r.Amount,
				Seen:    r.Seen,
			},
		)
	}
	return out, err
}

// Looks reads what was found on a walk, by plant.
func (s *Store) Looks(ctx context.Context, walk int64) ([]Look, error) {
	return looks(ctx, s.read, `walk_id = ?`, walk)
}

// LooksAt reads what was found at all plants of a property on all its walks, the oldest walk first.
func (s *Store) LooksAt(ctx context.Context, property int64) ([]Look, error) {
	return looks(ctx, s.read, `walk_id IN (SELECT id FROM walk WHERE property_id = ?)`, property)
}

// PlantLooks reads what was found at a plant on all walks, the oldest first.
func (s *Store) PlantLooks(ctx context.Context, plant int64) ([]Look, error) {
	return looks(ctx, s.read, `plant_id = ?`, plant)
}

// Look reads one; without a write so far it is empty.
func (s *Store) Look(ctx context.Context, walk, plant int64) (Look, error) {
	return look(ctx, s.read, walk, plant)
}

func look(ctx context.Context, from getter, walk, plant int64) (Look, error) {
	l, err := looks(ctx, from, `walk_id = ? AND plant_id = ?`, walk, plant)
	if err != nil || len(l) == 0 {
		return Look{WalkID: walk, PlantID: plant, Checks: []check.Check{}}, err
	}
	return l[0], nil
}

// KeepLook replaces a plant's checks and note on a walk. base is the rev the write is based on, nil for whatever is
// kept; where another was kept meanwhile, the answer is Stale with it.
func (tx Tx) KeepLook(ctx context.Context, l Look, base *int) (Look, error) {
	n, err := one[int](
		ctx,
		tx,
		`SELECT count(*) FROM walk w JOIN plant p ON p.property_id = w.property_id AND p.removed_at IS NULL WHERE
			w.id = ? AND p.id = ?`,
		l.WalkID,
		l.PlantID,
	)
	if err != nil {
		return l, err
	}
	if n == 0 {
		return l, ErrNotFound
	}
	now, err := look(ctx, tx, l.WalkID, l.PlantID)
	if err != nil {
		return l, err
	}
	if base != nil && *base != now.Rev {
		return l, Stale{*base, now}
	}
	l.Rev = now.Rev + 1
	if _, err := tx.ExecContext(ctx, `INSERT INTO plant_look (walk_id, plant_id, rev, note) VALUES (?, ?, ?, ?)
		ON CONFLICT DO UPDATE SET rev = excluded.rev, note = excluded.note`, l.WalkID, l.PlantID, l.Rev, l.Note); err != nil {
		return l, err
	}
	if _, err := tx.ExecContext(
		ctx,
		`DELETE FROM plant_check WHERE walk_id = ? AND plant_id = ?`,
		l.WalkID,
		l.PlantID,
	); err != nil {
		return l, err
	}
	for i, c := range l.Checks {
		if _, err := tx.ExecContext(
			ctx,
			`INSERT INTO plant_check (walk_id, plant_id, seq, kind, height_m, held, broke, result, leaf, amount,
				seen) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			l.WalkID,
			l.PlantID,
			i,
			string(c.Kind),
			c.HeightM,
			c.Held,
			c.Broke,
			c.Result,
			c.Leaf,
			c.Amount,
			c.Seen,
		); err != nil {
			return l, err
		}
	}
	return l, nil
}

// CrownLost is how much of its crown each plant of a property had lost by the verdict that stands, from a day on.
func (s *Store) CrownLost(ctx context.Context, property int64, from string) (map[int64]float64, error) {
	type row struct {
		Plant int64           `db:"plant_id"`
		Lost  sql.NullFloat64 `db:"lost"`
		ID    int64           `db:"id"` // of the latest: the others are of its row
	}
	rows, err := many[row](
		ctx,
		s.read,
		`SELECT plant_id, crown_lost AS lost, max(id) AS id FROM verdict
		WHERE plant_id IN (SELECT id FROM plant WHERE property_id = ?) AND undone = 0 AND decision <> 'not now' AND day >= ?
		GROUP BY plant_id`,
		property,
		from,
	)
	out := map[int64]float64{}
	for _, r := range rows {
		if r.Lost.Valid {
			out[r.Plant] = r.Lost.Float64
		}
	}
	return out, err
}

// Grown is the growth measured last at each plant of a property, m, from a day on.
func (s *Store) Grown(ctx context.Context, property int64, from string) (map[int64]float64, error) {
	type row struct {
		Plant int64   `db:"plant_id"`
		M     float64 `db:"amount"`
	}
	rows, err := many[row](ctx, s.read, `SELECT c.plant_id, c.amount FROM plant_check c JOIN walk w ON w.id = c.walk_id
		WHERE c.kind = 'growth' AND w.property_id = ? AND w.day >= ? ORDER BY w.day, c.seq`, property, from)
	out := map[int64]float64{}
	for _, r := range rows {
		out[r.Plant] = r.M
	}
	return out, err
}

// Outcome is how a plant turned out after a verdict.
type Outcome struct {
	ID        int64   `db:"id"`
	VerdictID int64   `db:"verdict_id"`
	PlantID   int64   `db:"plant_id"`
	Day       string  `db:"day"`
	State     string  `db:"state"`
	HeightM   float64 `db:"height_m"`
	Note      string  `db:"note"`
}

const selectOutcome = `SELECT id, verdict_id, plant_id, day, state, height_m, note FROM outcome WHERE undone = 0 AND `

// Outcomes are a plant's, the oldest first.
func (s *Store) Outcomes(ctx context.Context, plant int64) ([]Outcome, error) {
	return many[Outcome](ctx, s.read, selectOutcome+`plant_id = ? ORDER BY day, id`, plant)
}

// KeepOutcome keeps how a plant turned out after one of its verdicts.
func (tx Tx) KeepOutcome(ctx context.Context, o Outcome) (Outcome, error) {
	res, err := tx.ExecContext(ctx, `INSERT INTO outcome (verdict_id, plant_id, day, state, height_m, note)
		SELECT id, plant_id, ?, ?, ?, ? FROM verdict WHERE id = ? AND plant_id = ? AND undone = 0`, o.Day, o.State, o.HeightM, o.Note, o.VerdictID, o.PlantID)
	if err != nil {
		return o, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return o, errors.Join(err, ErrNotFound)
	}
	o.ID, err = res.LastInsertId()
	return o, err
}

// VerdictOfOutcome is the verdict after which it was told how a plant turned out, also where that was taken back.
func (s *Store) VerdictOfOutcome(ctx context.Context, id int64) (int64, error) {
	return one[int64](ctx, s.read, `SELECT verdict_id FROM outcome WHERE id = ?`, id)
}

// UndoOutcome takes one back, and with it what it did to orders.
func (tx Tx) UndoOutcome(ctx context.Context, id int64) error {
	if err := tx.touch(ctx, `UPDATE outcome SET undone = 1 WHERE id = ? AND undone = 0`, id); err != nil {
		return err
	}
	return tx.returnOrders(ctx, id)
}

// touch runs a write that must find its row.
func (tx Tx) touch(ctx context.Context, query string, args ...any) error {
	res, err := tx.ExecContext(ctx, query, args...)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

// StillAt refuses to go on where the checks of a look were changed since they were read.
func (tx Tx) StillAt(ctx context.Context, l Look) error {
	now, err := one[int](ctx, tx, `SELECT coalesce(max(rev), 0) FROM plant_look WHERE walk_id = ? AND plant_id = ?`, l.WalkID, l.PlantID)
	if err == nil && now != l.Rev {
		err = Stale{l.Rev, l}
	}
	return err
}
