package store

import (
	"context"
	"database/sql"
	"errors"
)

// Find is a cause that was found on a plant, or somewhere on a property.
type Find struct {
	ID         int64          `db:"id"`
	PropertyID int64          `db:"property_id"`
	PlantID    sql.NullInt64  `db:"plant_id"`
	Species    string         `db:"species"`
	Day        string         `db:"day"`
	Cause      string         `db:"cause"`
	Certainty  float64        `db:"certainty"`
	Share      float64        `db:"share"`
	Seen       JSON[[]string] `db:"seen"`
	NotSeen    JSON[[]string] `db:"not_seen"`
	How        string         `db:"how"`
	Note       string         `db:"note"`
	State      string         `db:"state"`
	Closed     string         `db:"closed"`
	Ending     string         `db:"ending"`
	Version    int            `db:"version"`
	Prevent    bool           `db:"prevent"`  // a wish: it is not there and is to be kept off
	Affected   int            `db:"affected"` // of a group
	Harvest    string         `db:"harvest"`  // the day it is eaten from next; empty where nobody said
	BedM2      float64        `db:"bed_m2"`
	AlongOf    sql.NullInt64  `db:"along_of"` // treated along with that one, not found by itself
	Helped     string         `db:"helped"`   // gone, less or same at the last look; empty where nobody looked again
	HelpedDay  string         `db:"helped_day"`
	HelpedBy   int64          `db:"helped_by"` // the job of that look; 0 where it was entered by itself
}

const selectFind = `SELECT id, property_id, plant_id, species, day, cause, certainty, share, seen, not_seen, how, note, state,
	closed, ending, version, prevent, affected, harvest, along_of, bed_m2, helped, helped_day, helped_by FROM find WHERE removed_at IS NULL AND `

// FindsOf asks for finds.
type FindsOf struct {
	Property int64 // 0 for all
	Plant    int64 // 0 for all
	Open     bool  // none that are closed
	Prevent  bool  // wishes to keep a cause off, in place of finds
	Since    string
	After    int64
	Limit    int
}

// Finds lists finds of plants and properties in sight, the oldest first.
func (s *Store) Finds(ctx context.Context, of FindsOf) ([]Find, error) {
	return many[Find](
		ctx,
		s.read,
		selectFind+`(? = 0 OR property_id = ?) AND (? = 0 OR plant_id = ?) AND (? = 0 OR state = 'open')
		AND day >= ? AND id > ? AND prevent = ? AND property_id IN (SELECT id FROM property WHERE removed_at IS NULL)
		AND (plant_id IS NULL OR plant_id IN (SELECT id FROM plant WHERE removed_at IS NULL)) ORDER BY id LIMIT ?`,
		of.Property,
		of.Property,
		of.Plant,
		of.Plant,
		of.Open,
		of.Since,
		of.After,
		of.Prevent,
		of.Limit,
	)
}

// Find reads one.
func (s *Store) Find(ctx context.Context, id int64) (Find, error) {
	return one[Find](ctx, s.read, selectFind+`id = ?`, id)
}

// AddFind keeps a new find and returns it with its id.
func (tx Tx) AddFind(ctx context.Context, f Find) (Find, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO find (property_id, plant_id, species, day, cause, certainty, share, seen, not_seen, how, note,
		prevent, affected, harvest, along_of, bed_m2) VALUES (:property_id, :plant_id, :species, :day, :cause, :certainty, :share, :seen, :not_seen, :how, :note,
		:prevent, :affected, :harvest, :along_of, :bed_m2)`,
		f,
	)
	if err != nil {
		return f, err
	}
	f.ID, err = res.LastInsertId()
	f.State, f.Version = "open", 1
	return f, err
}

// FindOn is the open find of a cause on a plant: the one that stands, or a new one.
func (tx Tx) FindOn(ctx context.Context, f Find) (Find, error) {
	open, err := one[Find](
		ctx,
		tx,
		selectFind+`plant_id = ? AND cause = ? AND state = 'open' AND prevent = 0 ORDER BY id LIMIT 1`,
		f.PlantID,
		f.Cause,
	)
	if errors.Is(err, ErrNotFound) {
		return tx.AddFind(ctx, f)
	}
	return open, err
}

// ChangeFind keeps the new values if the version is still the kept one.
func (tx Tx) ChangeFind(ctx context.Context, f Find) (Find, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE find SET day = :day, cause = :cause, certainty = :certainty, share = :share, seen = :seen,
		not_seen = :not_seen, note = :note, affected = :affected, harvest = :harvest, bed_m2 = :bed_m2, helped = :helped, helped_day = :helped_day, helped_by = :helped_by,
		state = :state, closed = :closed, ending = :ending, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`,
		f,
	)
	if err != nil {
		return f, err
	}
	current := func() (Find, error) { return one[Find](ctx, tx, selectFind+`id = ?`, f.ID) }
	if err := changed(res, f.Version, current); err != nil {
		return f, err
	}
	return current()
}

// RemoveFind takes a find out of sight, or brings it back.
func (tx Tx) RemoveFind(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "find", id, remove)
}

// ConfirmedFind is a cause that somebody found at a plant and was rather sure of.
type ConfirmedFind struct {
	PropertyID int64  `db:"property_id"`
	Species    string `db:"species"`
	Day        string `db:"day"`
	Cause      string `db:"cause"`
}

// ConfirmedFinds are the newest of them: looked at, not told by telephone, and sure from a share on.
func (s *Store) ConfirmedFinds(ctx context.Context, sure float64, limit int) ([]ConfirmedFind, error) {
	return many[ConfirmedFind](
		ctx,
		s.read,
		`SELECT property_id, species, day, cause FROM find WHERE removed_at IS NULL AND prevent = 0 AND along_of IS NULL
		AND how <> 'call' AND certainty >= ? AND property_id IN (SELECT id FROM property WHERE removed_at IS NULL)
		ORDER BY id DESC LIMIT ?`,
		sure,
		limit,
	)
}

// HelpedFind is what a look at a find again came to, with what had been done about it until then.
type HelpedFind struct {
	Cause  string         `db:"cause"`
	Helped string         `db:"helped"`
	Rungs  sql.NullString `db:"rungs"` // parted by commas; null where nothing was done
}

// HelpedFinds are those that were looked at again.
func (s *Store) HelpedFinds(ctx context.Context) ([]HelpedFind, error) {
	return many[HelpedFind](ctx, s.read, `SELECT cause, helped, (SELECT group_concat(DISTINCT substr(o.key, 1, instr(o.key, ' ') - 1))
			FROM job_order o WHERE o.origin = 'programme' AND o.kind = 'treat' AND o.origin_id = f.id AND o.state = 'done'
			AND o.ended <= f.helped_day) AS rungs
		FROM find f WHERE removed_at IS NULL AND helped <> '' AND prevent = 0
		AND property_id IN (SELECT id FROM property WHERE removed_at IS NULL)`)
}

// FindsRev tells whether what was found may have changed.
func (s *Store) FindsRev(ctx context.Context) (string, error) {
	return one[string](ctx, s.read, `SELECT count(*) || ' ' || coalesce(max(id), 0) || ' ' || coalesce(sum(version), 0) || ' ' ||
		(SELECT coalesce(group_concat(what), '') FROM learnt_off) FROM find WHERE removed_at IS NULL`)
}

// LookedAgain keeps what a job found that looked at a find again, whatever was kept of it before; what is gone is closed.
func (tx Tx) LookedAgain(ctx context.Context, find, order int64, helped, on string) error {
	_, err := tx.ExecContext(
		ctx,
		`UPDATE find SET helped = ?, helped_day = ?, helped_by = ?, version = version + 1,
		closed = CASE WHEN ? = 'gone' AND state = 'open' THEN ? ELSE closed END,
		state = CASE WHEN ? = 'gone' THEN 'closed' ELSE state END WHERE id = ? AND removed_at IS NULL`,
		helped,
		on,
		order,
		helped,
		on,
		helped,
		find,
	)
	return err
}

// TakeBackLook takes back what a job found that looked at a find again.
func (tx Tx) TakeBackLook(ctx context.Context, order int64) error {
	_, err := tx.ExecContext(
		ctx,
		`UPDATE find SET state = CASE WHEN helped = 'gone' THEN 'open' ELSE state END, closed = CASE WHEN helped = 'gone' THEN '' ELSE closed END,
		helped = '', helped_day = '', helped_by = 0, version = version + 1 WHERE helped_by = ?`,
		order,
	)
	return err
}

// Call is a client's call with what came of it.
type Call struct {
	ID         int64                   `db:"id"`
	PropertyID int64                   `db:"property_id"`
	PlantID    sql.NullInt64           `db:"plant_id"`
	Species    string                  `db:"species"`
	Day        string                  `db:"day"`
	Caller     string                  `db:"caller"`
	Answers    JSON[map[string]string] `db:"answers"`
	Seen       JSON[[]string]          `db:"seen"`
	NotSeen    JSON[[]string]          `db:"not_seen"`
	Share      float64                 `db:"share"`
	Ending     string                  `db:"ending"`
	Said       string                  `db:"said"`
	OrderID    sql.NullInt64           `db:"order_id"`
	Version    int                     `db:"version"`
}

const selectCall = `SELECT id, property_id, plant_id, species, day, caller, answers, seen, not_seen, share, ending, said, order_id, version
	FROM call WHERE removed_at IS NULL AND `

// Calls lists a property's, the newest first.
func (s *Store) Calls(ctx context.Context, property int64, limit int) ([]Call, error) {
	return many[Call](ctx, s.read, selectCall+`property_id = ? ORDER BY id DESC LIMIT ?`, property, limit)
}

// Call reads one.
func (s *Store) Call(ctx context.Context, id int64) (Call, error) {
	return one[Call](ctx, s.read, selectCall+`id = ?`, id)
}

// AddCall keeps a new call and returns it with its id.
func (tx Tx) AddCall(ctx context.Context, c Call) (Call, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO call (property_id, plant_id, species, day, caller, answers, seen, not_seen, share, ending,
		said, order_id) VALUES (:property_id, :plant_id, :species, :day, :caller, :answers, :seen, :not_seen, :share, :ending, :said, :order_id)`,
		c,
	)
	if err != nil {
		return c, err
	}
	c.ID, err = res.LastInsertId()
	c.Version = 1
	return c, err
}

// ChangeCall keeps the new values if the version is still the kept one.
func (tx Tx) ChangeCall(ctx context.Context, c Call) (Call, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE call SET plant_id = :plant_id, species = :species, caller = :caller, answers = :answers, seen = :seen,
		not_seen = :not_seen, share = :share, ending = :ending, said = :said, order_id = :order_id, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`,
		c,
	)
	if err != nil {
		return c, err
	}
	current := func() (Call, error) { return one[Call](ctx, tx, selectCall+`id = ?`, c.ID) }
	if err := changed(res, c.Version, current); err != nil {
		return c, err
	}
	return current()
}

// RemoveCall takes a call out of sight, or brings it back.
func (tx Tx) RemoveCall(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "call", id, remove)
}

// DoneWork is work that was done on a plant, or with its property alone.
type DoneWork struct {
	Purpose string        `db:"purpose"` // of a cut
	PlantID sql.NullInt64 `db:"plant_id"`
	Kind    string        `db:"kind"`
	Ended   string        `db:"ended"`
}

// DoneSince lists what was done on a property from a day on.
func (s *Store) DoneSince(ctx context.Context, property int64, since string) ([]DoneWork, error) {
	return many[DoneWork](
		ctx,
		s.read,
		`SELECT plant_id, kind, ended, coalesce(json_extract(params, '$.purpose'), '') AS purpose
		FROM job_order WHERE in_sight = 1
		AND state IN ('done', 'skipped') AND ended >= ? AND state = 'done' AND property_id = ?`,
		since,
		property,
	)
}

// LookedLast is the day each plant was last looked at: on a walk, for a verdict, for a find, or by a walk or look that
// was asked for and done.
func (s *Store) LookedLast(ctx context.Context) (map[int64]string, error) {
	type row struct {
		Plant int64  `db:"plant_id"`
		Day   string `db:"day"`
	}
	rows, err := many[row](ctx, s.read, `SELECT plant_id, max(day) AS day FROM (
		SELECT l.plant_id, w.day FROM plant_look l JOIN walk w ON w.id = l.walk_id
		UNION ALL SELECT plant_id, day FROM find WHERE plant_id IS NOT NULL AND removed_at IS NULL
		UNION ALL SELECT plant_id, day FROM unnamed WHERE plant_id IS NOT NULL AND removed_at IS NULL
		UNION ALL SELECT p.plant_id, o.ended FROM job_order o JOIN order_plant p ON p.order_id = o.id WHERE o.state = 'done' AND o.kind IN ('walk', 'look')
		UNION ALL SELECT plant_id, ended FROM job_order WHERE state = 'done' AND kind IN ('walk', 'look') AND plant_id IS NOT NULL)
		GROUP BY plant_id`)
	out := make(map[int64]string, len(rows))
	for _, r := range rows {
		out[r.Plant] = r.Day
	}
	return out, err
}

// CountSpecies counts the plants and groups in sight by species.
func (s *Store) CountSpecies(ctx context.Context) (map[string]int, error) {
	type row struct {
		Species string `db:"species"`
		N       int    `db:"n"`
	}
	rows, err := many[row](ctx, s.read, `SELECT species, count(*) AS n FROM plant WHERE removed_at IS NULL
		AND property_id IN (SELECT id FROM property WHERE removed_at IS NULL) GROUP BY species`)
	out := make(map[string]int, len(rows))
	for _, r := range rows {
		out[r.Species] = r.N
	}
	return out, err
}
