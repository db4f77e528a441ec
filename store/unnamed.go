package store

import (
	"context"
	"database/sql"
)

// Unnamed is something found on a plant, or on a property, that nobody could name yet.
type Unnamed struct {
	ID         int64          `db:"id"`
	PropertyID int64          `db:"property_id"`
	PlantID    sql.NullInt64  `db:"plant_id"`
	Species    string         `db:"species"`
	Day        string         `db:"day"`
	Words      string         `db:"words"`
	Seen       JSON[[]string] `db:"seen"`
	NotSeen    JSON[[]string] `db:"not_seen"`
	Share      float64        `db:"share"`
	Pictures   JSON[[]string] `db:"pictures"` // hashes
	Sent       string         `db:"sent"`
	SentTo     string         `db:"sent_to"`
	SentOn     string         `db:"sent_on"`
	AnswerBy   string         `db:"answer_by"`
	Answer     string         `db:"answer"`
	State      string         `db:"state"`
	FindID     sql.NullInt64  `db:"find_id"`
	Version    int            `db:"version"`
}

const selectUnnamed = `SELECT id, property_id, plant_id, species, day, words, seen, not_seen, share, pictures, sent, sent_to, sent_on,
	answer_by, answer, state, find_id, version FROM unnamed WHERE removed_at IS NULL AND
	property_id IN (SELECT id FROM property WHERE removed_at IS NULL) AND `

// Unnameds lists them, the oldest first: of a property or a plant, or all where both are 0.
func (s *Store) Unnameds(ctx context.Context, of FindsOf) ([]Unnamed, error) {
	return many[Unnamed](ctx, s.read, selectUnnamed+`(? = 0 OR property_id = ?) AND (? = 0 OR plant_id = ?) AND (? = 0 OR state = 'open')
		AND id > ? ORDER BY id LIMIT ?`, of.Property, of.Property, of.Plant, of.Plant, of.Open, of.After, of.Limit)
}

// AwaitedBy are those of which an answer is awaited until a day, or long since; the most pressing first.
func (s *Store) AwaitedBy(ctx context.Context, until string) ([]Unnamed, error) {
	return many[Unnamed](ctx, s.read, selectUnnamed+`state = 'open' AND answer_by <> '' AND answer_by <= ? ORDER BY answer_by, id`, until)
}

// Unnamed reads one.
func (s *Store) Unnamed(ctx context.Context, id int64) (Unnamed, error) {
	return one[Unnamed](ctx, s.read, selectUnnamed+`id = ?`, id)
}

// AddUnnamed keeps a new one and returns it with its id.
func (tx Tx) AddUnnamed(ctx context.Context, u Unnamed) (Unnamed, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO unnamed (property_id, plant_id, species, day, words, seen, not_seen, share, pictures, sent, sent_to, sent_on, answer_by)
		VALUES (:property_id, :plant_id, :species, :day, :words, :seen, :not_seen, :share, :pictures, :sent, :sent_to, :sent_on, :answer_by)`,
		u,
	)
	if err != nil {
		return u, err
	}
	u.ID, err = res.LastInsertId()
	u.State, u.Version = "open", 1
	return u, err
}

// ChangeUnnamed keeps the new values if the version is still the kept one.
func (tx Tx) ChangeUnnamed(ctx context.Context, u Unnamed) (Unnamed, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE unnamed SET words = :words, seen = :seen, not_seen = :not_seen, share = :share, pictures = :pictures, sent = :sent,
		sent_to = :sent_to, sent_on = :sent_on, answer_by = :answer_by, answer = :answer, state = :state, find_id = :find_id,
		version = version + 1 WHERE id = :id AND version = :version AND removed_at IS NULL`,
		u,
	)
	if err != nil {
		return u, err
	}
	current := func() (Unnamed, error) { return one[Unnamed](ctx, tx, selectUnnamed+`id = ?`, u.ID) }
	if err := changed(res, u.Version, current); err != nil {
		return u, err
	}
	return current()
}

// RemoveUnnamed takes one out of sight, or brings it back.
func (tx Tx) RemoveUnnamed(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "unnamed", id, remove)
}
