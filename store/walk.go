package store

import (
	"context"
	"encoding/json"
	"errors"

	"mezzadro/core/damage"
)

// Walk is one day's inspection of a property.
type Walk struct {
	ID         int64  `db:"id"`
	PropertyID int64  `db:"property_id"`
	Day        string `db:"day"`
}

// StartWalk is the property's walk of the day; there is one a day.
func (tx Tx) StartWalk(ctx context.Context, property int64, day string) (Walk, error) {
	if _, err := one[int64](ctx, tx, `SELECT id FROM property WHERE id = ? AND removed_at IS NULL`, property); err != nil {
		return Walk{}, err
	}
	if _, err := tx.ExecContext(
		ctx,
		`INSERT INTO walk (property_id, day) VALUES (?, ?) ON CONFLICT DO NOTHING`,
		property,
		day,
	); err != nil {
		return Walk{}, err
	}
	return one[Walk](ctx, tx, `SELECT id, property_id, day FROM walk WHERE property_id = ? AND day = ?`, property, day)
}

// Walk reads one.
func (s *Store) Walk(ctx context.Context, id int64) (Walk, error) {
	return one[Walk](ctx, s.read, `SELECT id, property_id, day FROM walk WHERE id = ?`, id)
}

// Decision is what was decided about a plant.
type Decision struct {
	ID       int64  `db:"id"`
	WalkID   int64  `db:"walk_id"`
	PlantID  int64  `db:"plant_id"`
	Day      string `db:"day"`
	Decision string `db:"decision"`
	Kind     string `db:"kind"`
	Sentence string `db:"sentence"`
	Note     string `db:"note"`
	By       string `db:"by_name"` // who signed in for it; empty where nobody had to
	Until    string `db:"until"`   // of a verdict to wait: the day; else empty
}

const selectVerdict = `SELECT id, walk_id, plant_id, day, decision, kind, sentence, note, by_name, until FROM verdict `

// PlantAnswers reads the answers that a plant's verdicts rest on, by verdict.
func (s *Store) PlantAnswers(ctx context.Context, plant int64) (map[int64]damage.Answer, error) {
	type row struct {
		ID     int64               `db:"id"`
		Answer JSON[damage.Answer] `db:"answer"`
	}
	rows, err := many[row](ctx, s.read, `SELECT id, answer FROM verdict WHERE plant_id = ? AND undone = 0`, plant)
	out := make(map[int64]damage.Answer, len(rows))
	for _, r := range rows {
		out[r.ID] = r.Answer.V
	}
	return out, err
}

// Walks are a property's, the oldest first.
func (s *Store) Walks(ctx context.Context, property int64) ([]Walk, error) {
	return many[Walk](ctx, s.read, `SELECT id, property_id, day FROM walk WHERE property_id = ? ORDER BY day`, property)
}

// Verdicts lists the verdict that stands for each plant of a property (0: of all), from a day on.
func (s *Store) Verdicts(ctx context.Context, property int64, from string) ([]Decision, error) {
	return many[Decision](
		ctx,
		s.read,
		selectVerdict+`WHERE id IN (SELECT max(v.id) FROM verdict v JOIN plant p ON p.id = v.plant_id
		WHERE v.undone = 0 AND v.day >= ? AND (? = 0 OR p.property_id = ?) GROUP BY v.plant_id)`,
		from,
		property,
		property,
	)
}

// PlantVerdicts is a plant's history, newest first.
func (s *Store) PlantVerdicts(ctx context.Context, plant int64) ([]Decision, error) {
	return many[Decision](ctx, s.read, selectVerdict+`WHERE plant_id = ? AND undone = 0 ORDER BY id DESC`, plant)
}

// KeepVerdict keeps a decision with the answer it rests on.
func (tx Tx) KeepVerdict(ctx context.Context, v Decision, answer damage.Answer) (Decision, error) {
	body, err := json.Marshal(answer)
	if err != nil {
		return v, err
	}
	if answer.Verdict.Until.Given() {
		v.Until = answer.Verdict.Until.String()
	}
	res, err := tx.ExecContext(
		ctx,
		`INSERT INTO verdict (walk_id, plant_id, day, decision, kind, sentence, note, answer, crown_lost, by_name, until)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		v.WalkID,
		v.PlantID,
		v.Day,
		v.Decision,
		v.Kind,
		v.Sentence,
		v.Note,
		string(body),
		answer.Boundary.CrownLost,
		by(ctx),
		v.Until,
	)
	if err != nil {
		return v, err
	}
	v.ID, err = res.LastInsertId()
	return v, err
}

// PropertyOfVerdict is the property on which a verdict was given, also one that was taken back.
func (s *Store) PropertyOfVerdict(ctx context.Context, id int64) (int64, error) {
	return one[int64](ctx, s.read, `SELECT p.property_id FROM verdict v JOIN plant p ON p.id = v.plant_id WHERE v.id = ?`, id)
}

// Settled are the verdicts of all plants after which it was told how the plant turned out, from a day on.
func (s *Store) Settled(ctx context.Context, from string) ([]int64, error) {
	return many[int64](ctx, s.read, `SELECT DISTINCT verdict_id FROM outcome WHERE undone = 0 AND day >= ?`, from)
}

// MadeSafe is the last day on which what might fall was made safe, by plant, from a day on.
func (s *Store) MadeSafe(ctx context.Context, from string) (map[int64]string, error) {
	type row struct {
		Plant int64  `db:"plant_id"`
		Day   string `db:"day"`
	}
	rows, err := many[row](ctx, s.read, `SELECT plant_id, max(ended) AS day FROM job_order
		WHERE in_sight = 1 AND state IN ('done', 'skipped') AND kind = 'make safe' AND state = 'done' AND plant_id IS NOT NULL AND ended >= ? GROUP BY +plant_id`, from)
	out := make(map[int64]string, len(rows))
	for _, r := range rows {
		out[r.Plant] = r.Day
	}
	return out, err
}

// UndoVerdict takes a plant's latest decision back: its orders go, those it had dropped return as they were.
func (tx Tx) UndoVerdict(ctx context.Context, id int64) error {
	v, err := one[Decision](ctx, tx, selectVerdict+`WHERE id = ? AND undone = 0`, id)
	if err != nil {
		return err
	}
	latest, err := one[int64](ctx, tx, `SELECT max(id) FROM verdict WHERE plant_id = ? AND undone = 0`, v.PlantID)
	if err != nil {
		return err
	}
	if latest != id {
		return Refused("a later verdict stands for this plant; take that one back first")
	}
	if err := tx.dropOrdersOf(ctx, id); err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `UPDATE verdict SET undone = 1 WHERE id = ?`, id)
	return err
}

// Refused is a write that cannot be done as things stand; the text says why.
type Refused string

func (r Refused) Error() string { return string(r) }

// IsRefused reports an error that is the caller's to see as it is.
func IsRefused(err error) (Refused, bool) {
	var r Refused
	return r, errors.As(err, &r)
}
