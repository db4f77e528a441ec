package store

import (
	"context"

	"mezzadro/core/job"
)

// Stint is a time at which somebody was at a job and did not end it: part of it was done, or none.
type Stint struct {
	ID      int64  `db:"id"`
	OrderID int64  `db:"order_id"`
	Kind    string `db:"kind"` // partly done or not today
	Day     string `db:"day"`
	Reason  string `db:"reason"`
	Note    string `db:"note"`
	Took    int    `db:"took_minutes"`
	By      string `db:"by_name"`

	WasDay     *string `db:"was_day"` // where it stood before, and how long it was to take
	WasCrew    string  `db:"was_crew"`
	WasCrewID  int64   `db:"was_crew_id"`
	WasPlace   int     `db:"was_place"`
	WasMinutes int     `db:"was_minutes"`
}

const selectStint = `SELECT id, order_id, kind, day, reason, note, took_minutes, by_name, was_day, was_crew,
	coalesce(was_crew_id, 0) AS was_crew_id, was_place, was_minutes FROM order_stint WHERE undone = 0 AND `

// Stints are those of an order, the oldest first.
func (s *Store) Stints(ctx context.Context, order int64) ([]Stint, error) {
	return many[Stint](ctx, s.read, selectStint+`order_id = ? ORDER BY id`, order)
}

// LastStint is an order's last.
func (s *Store) LastStint(ctx context.Context, order int64) (Stint, error) {
	return one[Stint](ctx, s.read, selectStint+`order_id = ? ORDER BY id DESC LIMIT 1`, order)
}

// AddStint keeps one: the order goes back to those without a day, and takes as long as is left of it.
func (tx Tx) AddStint(ctx context.Context, k OrderFull, st Stint, left int) (OrderFull, error) {
	_, err := tx.ExecContext(ctx, `INSERT INTO order_stint (order_id, kind, day, reason, note, took_minutes, by_name,
		was_day, was_crew, was_crew_id, was_place, was_minutes) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		k.ID, st.Kind, st.Day, st.Reason, st.Note, st.Took, by(ctx), k.Day, k.Crew, nullID(k.CrewID), k.Place, k.Minutes)
	if err != nil {
		return k, err
	}
	return tx.standWith(ctx, k.ID, k.Version, left, Stand{State: job.Waiting, DayCost: job.Never.Int()})
}

// TakeBackStint has an order stand as it did before one.
func (tx Tx) TakeBackStint(ctx context.Context, st Stint, version int, cost int) (OrderFull, error) {
	if err := tx.touch(ctx, `UPDATE order_stint SET undone = 1 WHERE id = ? AND undone = 0`, st.ID); err != nil {
		return OrderFull{}, err
	}
	s := Stand{State: job.Waiting, DayCost: job.Never.Int()}
	if st.WasDay != nil {
		s = Stand{State: job.Placed, Day: st.WasDay, Crew: st.WasCrew, CrewID: st.WasCrewID, Place: st.WasPlace, DayCost: cost}
	}
	return tx.standWith(ctx, st.OrderID, version, st.WasMinutes, s)
}

// standWith has an order stand as told and take so many minutes.
func (tx Tx) standWith(ctx context.Context, id int64, version, minutes int, s Stand) (OrderFull, error) {
	k, err := tx.SetStand(ctx, id, version, s)
	if err != nil {
		return k, err
	}
	_, err = tx.ExecContext(ctx, `UPDATE job_order SET minutes = ? WHERE id = ?`, minutes, id)
	k.Minutes = minutes
	return k, err
}
