package store

import (
	"context"
	"errors"
)

// OrderPhoto is a picture taken at a job. The picture lies in the data folder under its hash.
type OrderPhoto struct {
	ID      int64  `db:"id"`
	OrderID int64  `db:"order_id"`
	Hash    string `db:"hash"`
	Width   int    `db:"width"`
	Height  int    `db:"height"`
}

const selectOrderPhoto = `SELECT id, order_id, hash, width, height FROM order_photo WHERE removed_at IS NULL AND `

// OrderPhotos are those of a job, the oldest first.
func (s *Store) OrderPhotos(ctx context.Context, order int64) ([]OrderPhoto, error) {
	return many[OrderPhoto](ctx, s.read, selectOrderPhoto+`order_id = ? ORDER BY id`, order)
}

// DayPhotos are those of the jobs that stand on a day, or were done on it.
func (s *Store) DayPhotos(ctx context.Context, day string) ([]OrderPhoto, error) {
	return many[OrderPhoto](ctx, s.read, selectOrderPhoto+`order_id IN
		(SELECT id FROM job_order WHERE day = ? OR ended = ?) ORDER BY order_id, id`, day, day)
}

// AddOrderPhoto keeps the record of a picture that is on the disk already.
func (tx Tx) AddOrderPhoto(ctx context.Context, p OrderPhoto) (OrderPhoto, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO order_photo (order_id, hash, width, height)
		SELECT id, :hash, :width, :height FROM job_order WHERE id = :order_id AND in_sight = 1`, p)
	if err != nil {
		return p, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return p, errors.Join(err, ErrNotFound)
	}
	id, err := res.LastInsertId()
	if err != nil {
		return p, err
	}
	return one[OrderPhoto](ctx, tx, selectOrderPhoto+`id = ?`, id)
}

// RemoveOrderPhoto takes a photo out of sight, or brings it back. The picture stays.
func (tx Tx) RemoveOrderPhoto(ctx context.Context, id int64, remove bool) error {
	if remove {
		return tx.touch(ctx, `UPDATE order_photo SET removed_at = datetime('now') WHERE id = ? AND removed_at IS NULL`, id)
	}
	return tx.touch(ctx, `UPDATE order_photo SET removed_at = NULL WHERE id = ?`, id)
}
