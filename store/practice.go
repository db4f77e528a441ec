package store

import "context"

// Practice is how somebody did in a made-up garden.
type Practice struct {
	By      string  `db:"by_name"`
	Day     string  `db:"day"`
	Climate string  `db:"climate"`
	Plants  int     `db:"plants"`
	Right   int     `db:"right"`
	Score   float64 `db:"score"`
	Checks  int     `db:"checks"`
	About   string  `db:"about"` // freeze or causes
}

// KeepPractice keeps it with who it was.
func (tx Tx) KeepPractice(ctx context.Context, p Practice) error {
	p.By = by(ctx)
	_, err := tx.NamedExecContext(ctx, `INSERT INTO practice (by_name, day, climate, plants, right, score, checks, about)
		VALUES (:by_name, :day, :climate, :plants, :right, :score, :checks, :about)`, p)
	return err
}

// Practices are the last, the newest first.
func (s *Store) Practices(ctx context.Context, limit int) ([]Practice, error) {
	return many[Practice](
		ctx,
		s.read,
		`SELECT by_name, day, climate, plants, right, score, checks, about FROM practice ORDER BY id DESC LIMIT ?`,
		limit,
	)
}
