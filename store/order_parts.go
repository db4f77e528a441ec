package store

import (
	"context"

	"mezzadro/core/job"
)

// Piece is what one part of a job is called and takes.
type Piece struct {
	Title   string
	Minutes int
	People  int
}

// Whole is what a job was before it was parted.
type Whole struct {
	Piece
	Parts []int64 // the others, in their order
}

// Part makes several jobs of one: on days running, or for crews that come together. The order keeps the first part, and
// what followed it follows the last. It returns the ids of all parts and what the job was. The version of the first goes
// up by one; the others begin at 1.
func (tx Tx) Part(ctx context.Context, id int64, version int, pieces []Piece, running bool) ([]int64, Whole, error) {
	k, err := order(ctx, tx, id)
	if err != nil {
		return nil, Whole{}, err
	}
	was := Whole{Piece: Piece{k.Title, k.Minutes, k.CrewSize}}
	res, err := tx.ExecContext(ctx, `UPDATE job_order SET title = ?, minutes = ?, crew_size = ?, version = version + 1
		WHERE id = ? AND version = ? AND in_sight = 1 AND state IN ('waiting', 'on a day')`,
		pieces[0].Title, pieces[0].Minutes, pieces[0].People, id, version)
	if err != nil {
		return nil, was, err
	}
	if err := tx.orderChanged(ctx, res, id, version); err != nil {
		return nil, was, err
	}
	ids := []int64{id}
	for n, x := range pieces[1:] {
		next, err := tx.addPart(ctx, id, x)
		if err != nil {
			return nil, was, err
		}
		if running {
			gap := GapRow{
				OrderID: next,
				OfID:    ids[n],
				MinDays: 1,
				MaxDays: job.RunningMost,
				Why:     "The same job on days running.",
			}
			if err := tx.AddGap(ctx, gap); err != nil {
				return nil, was, err
			}
		}
		ids = append(ids, next)
	}
	was.Parts = ids[1:]
	return ids, was, tx.follow(ctx, id, ids[len(ids)-1])
}

// addPart copies an order as a further part of it.
func (tx Tx) addPart(ctx context.Context, id int64, x Piece) (int64, error) {
	res, err := tx.ExecContext(
		ctx,
		`INSERT INTO job_order (property_id, plant_id, origin, origin_id, trouble, key, kind, title, for_day,
			params, minutes, crew_size, body, agreed, anyway, part_of, win_from, win_to, best_day, best_cost, passed, listed)
		SELECT property_id, plant_id, origin, origin_id, trouble, key, kind, ?, for_day,
			params, ?, ?, body, agreed, anyway, id, win_from, win_to, best_day, best_cost, passed, listed
		FROM job_order WHERE id = ?`,
		x.Title,
		x.Minutes,
		x.People,
		id,
	)
	if err != nil {
		return 0, err
	}
	next, err := res.LastInsertId()
	if err != nil {
		return 0, err
	}
	_, err = tx.ExecContext(
		ctx,
		`INSERT INTO order_plant (order_id, plant_id) SELECT ?, plant_id FROM order_plant WHERE order_id = ?`,
		next,
		id,
	)
	return next, err
}

// follow has what followed one order follow another, but for that other's own course.
func (tx Tx) follow(ctx context.Context, from, to int64) error {
	_, err := tx.ExecContext(ctx, `UPDATE order_gap SET of_id = ? WHERE of_id = ? AND order_id <> ?
		AND order_id NOT IN (SELECT id FROM job_order WHERE part_of IN (?, ?))`, to, from, to, from, to)
	return err
}

// Unpart makes one job again of the parts of one, none of which may have been changed since.
func (tx Tx) Unpart(ctx context.Context, id int64, was Whole) error {
	for i, p := range was.Parts {
		if i == len(was.Parts)-1 {
			if err := tx.follow(ctx, p, id); err != nil {
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM order_gap WHERE order_id = ?`, p); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE job_order SET state = 'dropped', version = version + 1 WHERE id = ?`, p); err != nil {
			return err
		}
	}
	_, err := tx.ExecContext(
		ctx,
		`UPDATE job_order SET title = ?, minutes = ?, crew_size = ?, version = version + 1 WHERE id = ?`,
		was.Title,
		was.Minutes,
		was.People,
		id,
	)
	return err
}

// PartedMinutes are the minutes of all people and parts together of jobs that are done in parts, by their first part.
func (s *Store) PartedMinutes(ctx context.Context) (map[int64]int, error) {
	rows, err := many[struct {
		First   int64 `db:"first"`
		Minutes int   `db:"minutes"`
	}](ctx, s.read, `SELECT p.part_of AS first, sum(p.minutes * p.crew_size) + f.minutes * f.crew_size AS minutes FROM job_order p
		JOIN job_order f ON f.id = p.part_of WHERE p.part_of > 0 AND p.state <> 'dropped' GROUP BY p.part_of`)
	out := make(map[int64]int, len(rows))
	for _, r := range rows {
		out[r.First] = r.Minutes
	}
	return out, err
}
