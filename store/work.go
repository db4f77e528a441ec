package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"mezzadro/core/damage"
	"mezzadro/core/job"
)

// Walk is one day's inspection of a property.
type Walk struct {
	ID         int64  `db:"id" json:"id"`
	PropertyID int64  `db:"property_id" json:"property_id"`
	Day        string `db:"day" json:"day" format:"date"`
}

// StartWalk is the property's walk of the day; there is one a day.
func (tx Tx) StartWalk(ctx context.Context, property int64, day string) (Walk, error) {
	if _, err := one[int64](ctx, tx, `SELECT id FROM property WHERE id = ? AND removed_at IS NULL`, property); err != nil {
		return Walk{}, err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO walk (property_id, day) VALUES (?, ?) ON CONFLICT DO NOTHING`, property, day); err != nil {
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
	ID       int64  `db:"id" json:"id"`
	WalkID   int64  `db:"walk_id" json:"walk_id"`
	PlantID  int64  `db:"plant_id" json:"plant_id"`
	Day      string `db:"day" json:"day" format:"date"`
	Decision string `db:"decision" json:"decision" enum:"accepted,overruled,not now"`
	Kind     string `db:"kind" json:"kind"`
	Sentence string `db:"sentence" json:"sentence"`
	Note     string `db:"note" json:"note"`
}

const selectVerdict = `SELECT id, walk_id, plant_id, day, decision, kind, sentence, note FROM verdict `

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
	return many[Decision](ctx, s.read, selectVerdict+`WHERE id IN (SELECT max(v.id) FROM verdict v JOIN plant p ON p.id = v.plant_id
		WHERE v.undone = 0 AND v.day >= ? AND (? = 0 OR p.property_id = ?) GROUP BY v.plant_id)`, from, property, property)
}

// PlantVerdicts is a plant's history, newest first.
func (s *Store) PlantVerdicts(ctx context.Context, plant int64) ([]Decision, error) {
	return many[Decision](ctx, s.read, selectVerdict+`WHERE plant_id = ? AND undone = 0 ORDER BY id DESC`, plant)
}

// KeepVerdict keeps a decision with the answer it rests on and its jobs. Jobs of the plant's earlier verdicts are dropped.
func (tx Tx) KeepVerdict(ctx context.Context, v Decision, answer damage.Answer) (Decision, error) {
	body, err := json.Marshal(answer)
	if err != nil {
		return v, err
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO verdict (walk_id, plant_id, day, decision, kind, sentence, note, answer) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
		v.WalkID, v.PlantID, v.Day, v.Decision, v.Kind, v.Sentence, v.Note, string(body))
	if err != nil {
		return v, err
	}
	if v.ID, err = res.LastInsertId(); err != nil || v.Decision == "not now" {
		return v, err
	}
	if _, err := tx.ExecContext(ctx, `UPDATE job SET dropped_by = ? WHERE plant_id = ? AND dropped_by IS NULL`, v.ID, v.PlantID); err != nil {
		return v, err
	}
	for _, j := range answer.Jobs {
		b, err := json.Marshal(j)
		if err != nil {
			return v, err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO job (verdict_id, plant_id, property_id, kind, title, minutes, body)
			SELECT ?, id, property_id, ?, ?, ?, ? FROM plant WHERE id = ?`, v.ID, j.Kind, j.Title, j.Minutes, string(b), v.PlantID); err != nil {
			return v, err
		}
	}
	return v, nil
}

// UndoVerdict takes a plant's latest decision back: its jobs go, those it had dropped return.
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
	for _, q := range []string{
		`UPDATE job SET dropped_by = NULL WHERE dropped_by = ?`,
		`UPDATE job SET dropped_by = verdict_id WHERE verdict_id = ?`,
		`UPDATE verdict SET undone = 1 WHERE id = ?`,
	} {
		if _, err := tx.ExecContext(ctx, q, id); err != nil {
			return err
		}
	}
	return nil
}

// Refused is a write that cannot be done as things stand; the text says why.
type Refused string

func (r Refused) Error() string { return string(r) }

// JobRecord is a piece of work as kept.
type JobRecord struct {
	ID         int64   `db:"id" json:"id"`
	VerdictID  int64   `db:"verdict_id" json:"verdict_id"`
	PlantID    int64   `db:"plant_id" json:"plant_id"`
	PropertyID int64   `db:"property_id" json:"property_id"`
	Property   string  `db:"property" json:"property"`
	Address    string  `db:"address" json:"address"`
	Label      string  `db:"label" json:"label"`
	Species    string  `db:"species" json:"species" doc:"Catalogue id"`
	Kind       string  `db:"kind" json:"kind"`
	Title      string  `db:"title" json:"title"`
	Minutes    int     `db:"minutes" json:"minutes"`
	Day        *string `db:"day" json:"day,omitempty" format:"date" doc:"The day it is put on; absent while it has none"`
	Version    int     `db:"version" json:"version"`
	Body       string  `db:"body" json:"-"`
}

// Core is the job as the core gave it.
func (j JobRecord) Core() (job.Job, error) {
	var out job.Job
	if err := json.Unmarshal([]byte(j.Body), &out); err != nil {
		return out, fmt.Errorf("job %d: %w", j.ID, err)
	}
	return out, nil
}

const selectJob = `SELECT j.id, j.verdict_id, j.plant_id, j.property_id, p.name AS property, p.address, t.label, t.species, j.kind, j.title, j.minutes, j.day, j.version, j.body
	FROM job j JOIN property p ON p.id = j.property_id AND p.removed_at IS NULL JOIN plant t ON t.id = j.plant_id AND t.removed_at IS NULL `

// Jobs lists the standing jobs of a property, or with 0 of all.
func (s *Store) Jobs(ctx context.Context, property int64) ([]JobRecord, error) {
	return many[JobRecord](ctx, s.read, selectJob+`WHERE j.dropped_by IS NULL AND (? = 0 OR j.property_id = ?) ORDER BY j.property_id, j.plant_id, j.id`, property, property)
}

// JobsBetween lists the jobs put on days, in the order of the visit.
func (s *Store) JobsBetween(ctx context.Context, from, to string) ([]JobRecord, error) {
	return many[JobRecord](ctx, s.read, selectJob+`WHERE j.dropped_by IS NULL AND j.day BETWEEN ? AND ? ORDER BY j.day, p.name, j.property_id, j.id`, from, to)
}

// Job reads one that stands.
func (s *Store) Job(ctx context.Context, id int64) (JobRecord, error) {
	return one[JobRecord](ctx, s.read, selectJob+`WHERE j.dropped_by IS NULL AND j.id = ?`, id)
}

// Siblings are the standing jobs made with a job by the same verdict, itself included.
func (s *Store) Siblings(ctx context.Context, verdict int64) ([]JobRecord, error) {
	return many[JobRecord](ctx, s.read, selectJob+`WHERE j.dropped_by IS NULL AND j.verdict_id = ?`, verdict)
}

// PutJob puts a job on a day, or with nil takes it off, if the version is still the kept one.
func (tx Tx) PutJob(ctx context.Context, id int64, version int, day *string) (JobRecord, error) {
	res, err := tx.ExecContext(ctx, `UPDATE job SET day = ?, version = version + 1 WHERE id = ? AND version = ? AND dropped_by IS NULL`, day, id, version)
	if err != nil {
		return JobRecord{}, err
	}
	current := func() (JobRecord, error) {
		return one[JobRecord](ctx, tx, selectJob+`WHERE j.dropped_by IS NULL AND j.id = ?`, id)
	}
	if err := changed(res, version, current); err != nil {
		return JobRecord{}, err
	}
	return current()
}

// IsRefused reports an error that is the caller's to see as it is.
func IsRefused(err error) (Refused, bool) {
	var r Refused
	return r, errors.As(err, &r)
}
