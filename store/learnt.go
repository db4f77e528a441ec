package store

import "context"

// DoneMinutes is how long a job took that was done, and as it was reckoned.
type DoneMinutes struct {
	Kind     string `db:"kind"`
	Crew     string `db:"crew"`
	Reckoned int    `db:"reckoned"`
	Took     int    `db:"took"`
}

// DoneMinutes are those of the last jobs whose time was noted, the newest first.
func (s *Store) DoneMinutes(ctx context.Context, limit int) ([]DoneMinutes, error) {
	return many[DoneMinutes](
		ctx,
		s.read,
		`SELECT o.kind, coalesce(c.name, o.crew) AS crew, o.minutes AS reckoned, o.took_minutes AS took
		FROM job_order o LEFT JOIN crew c ON c.id = o.crew_id
		WHERE o.in_sight = 1 AND o.state IN ('done', 'skipped') AND o.state = 'done' AND o.took_minutes > 0 ORDER BY o.ended DESC, o.id DESC LIMIT ?`,
		limit,
	)
}

// LearntOff is what the firm does not want used of what was learnt.
func (s *Store) LearntOff(ctx context.Context) (map[string]bool, error) {
	list, err := many[string](ctx, s.read, `SELECT what FROM learnt_off`)
	out := map[string]bool{}
	for _, what := range list {
		out[what] = true
	}
	return out, err
}

// SetLearntOff has something that was learnt not be used, or be used again.
func (tx Tx) SetLearntOff(ctx context.Context, what string, off bool) error {
	query := `DELETE FROM learnt_off WHERE what = ?`
	if off {
		query = `INSERT INTO learnt_off (what) VALUES (?) ON CONFLICT DO NOTHING`
	}
	_, err := tx.ExecContext(ctx, query, what)
	return err
}
