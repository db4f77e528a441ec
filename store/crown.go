package store

import (
	"context"

	"mezzadro/core/crown"
)

// CrownCount is a crown counted on a picture.
type CrownCount struct {
	ID      int64             `db:"id"`
	PlantID int64             `db:"plant_id"`
	Day     string            `db:"day"`
	Side    string            `db:"side"`
	Points  JSON[crown.Asked] `db:"points"`
	Green   int               `db:"green"`
	Brown   int               `db:"brown"`
	Bare    int               `db:"bare"`
	Sky     int               `db:"sky"`
	Share   float64           `db:"share"`
	Low     float64           `db:"low"`
	High    float64           `db:"high"`
	Sure    float64           `db:"sure"`
}

// CrownCounts are a plant's, the oldest first.
func (s *Store) CrownCounts(ctx context.Context, plant int64) ([]CrownCount, error) {
	return many[CrownCount](
		ctx,
		s.read,
		`SELECT id, plant_id, day, side, points, green, brown, bare, sky, share, low, high, sure
		FROM crown_count WHERE removed_at IS NULL AND plant_id = ? ORDER BY day, id`,
		plant,
	)
}

// AddCrownCount keeps one and returns its id.
func (tx Tx) AddCrownCount(ctx context.Context, c CrownCount) (int64, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO crown_count (plant_id, day, side, points, green, brown, bare, sky, share, low, high, sure)
		VALUES (:plant_id, :day, :side, :points, :green, :brown, :bare, :sky, :share, :low, :high, :sure)`,
		c,
	)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// RemoveCrownCount takes one out of sight, or brings it back.
func (tx Tx) RemoveCrownCount(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "crown_count", id, remove)
}
