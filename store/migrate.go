package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"strings"

	"github.com/pressly/goose/v3"

	"mezzadro/core/day"
	"mezzadro/core/job"
)

// jobsToOrders is the migration of records in which a job was kept with the curve of the day it was made: what is
// asked for is read out of the job and its verdict, and the curve is left behind.
func jobsToOrders() *goose.Migration {
	return goose.NewGoMigration(6, &goose.GoFunc{RunTx: func(ctx context.Context, tx *sql.Tx) error {
		return errorsIn("jobs to orders", ordersFromJobs(ctx, tx))
	}}, nil)
}

func errorsIn(what string, err error) error {
	if err != nil {
		return fmt.Errorf("%s: %w", what, err)
	}
	return nil
}

// oldJob is a job as records before orders kept it, with what its verdict says.
type oldJob struct {
	id, verdict, plant, property int64
	kind, title                  string
	minutes                      int
	body                         string
	day                          sql.NullString
	droppedBy                    sql.NullInt64
	version                      int
	said, given, answer          string
}

func ordersFromJobs(ctx context.Context, tx *sql.Tx) error {
	rows, err := tx.QueryContext(
		ctx,
		`SELECT j.id, j.verdict_id, j.plant_id, j.property_id, j.kind, j.title, j.minutes, j.body, j.day,
			j.dropped_by, j.version,
		v.kind, v.day, v.answer FROM job j JOIN verdict v ON v.id = j.verdict_id ORDER BY j.id`,
	)
	if err != nil {
		return err
	}
	defer rows.Close()
	var old []oldJob
	for rows.Next() {
		var j oldJob
		if err := rows.Scan(
			&j.id,
			&j.verdict,
			&j.plant,
			&j.property,
			&j.kind,
			&j.title,
			&j.minutes,
			&j.body,
			&j.day,
			&j.droppedBy,
			&j.version,
			&j.said,
			&j.given,
			&j.answer,
		); err != nil {
			return err
		}
		old = append(old, j)
	}
	if err := rows.Err(); err != nil {
		return err
	}
	at := map[string]int64{} // by verdict and key
	gaps := map[int64][]job.Gap{}
	verdict := map[int64]int64{}
	for _, j := range old {
		o, err := j.order()
		if err != nil {
			return fmt.Errorf("job %d: %w", j.id, err)
		}
		at[fmt.Sprint(j.verdict, " ", o.Key)] = j.id
		gaps[j.id], verdict[j.id] = o.After, j.verdict
		if err := j.keep(ctx, tx, o); err != nil {
			return fmt.Errorf("job %d: %w", j.id, err)
		}
	}
	for id, list := range gaps {
		for _, g := range list {
			of, known := at[fmt.Sprint(verdict[id], " ", g.Job)]
			if !known {
				continue
			}
			if _, err := tx.ExecContext(
				ctx,
				`INSERT OR IGNORE INTO order_gap (order_id, of_id, min_days, max_days) VALUES (?, ?, ?, ?)`,
				id,
				of,
				g.MinDays,
				g.MaxDays,
			); err != nil {
				return err
			}
		}
	}
	_, err = tx.ExecContext(ctx, `DROP TABLE job`)
	return err
}

func (j oldJob) keep(ctx context.Context, tx *sql.Tx, o job.Order) error {
	params, err := json.Marshal(o.Params)
	if err != nil {
		return err
	}
	body, err := json.Marshal(orderBody{o.Skills, o.Kit, o.Reasons, o.Cautions})
	if err != nil {
		return err
	}
	state := job.Waiting
	switch {
	case j.droppedBy.Valid:
		state = job.Dropped
	case j.day.Valid:
		state = job.Placed
	}
	trouble := "damage"
	if o.Origin == job.TakingIn || o.Kind == job.Shorten {
		trouble = "coming winter"
	}
	_, err = tx.ExecContext(
		ctx,
		`INSERT INTO job_order (id, property_id, plant_id, origin, origin_id, trouble, key, kind, title, for_day,
			params, minutes, crew_size, body,
		state, day, dropped_by, version, in_sight) SELECT ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?,
		(SELECT count(*) FROM plant t JOIN property p
		ON p.id = t.property_id WHERE t.id = ? AND t.removed_at IS NULL AND p.removed_at IS NULL)`,
		j.id,
		j.property,
		j.plant,
		o.Origin,
		j.verdict,
		trouble,
		o.Key,
		o.Kind,
		o.Title,
		o.For.String(),
		string(params),
		o.Minutes,
		o.Crew,
		string(body),
		state,
		j.day,
		j.droppedBy,
		j.version,
		j.plant,
	)
	return err
}

// order is what the job asked for.
func (j oldJob) order() (job.Order, error) {
	var o job.Order
	if err := json.Unmarshal([]byte(j.body), &o); err != nil { // a job was an order with its curve
		return o, err
	}
	var a struct {
		Verdict struct {
			CutM float64 `json:"cut_m"`
		} `json:"verdict"`
	}
	if err := json.Unmarshal([]byte(j.answer), &a); err != nil {
		return o, err
	}
	given, err := day.Parse(j.given)
	if err != nil {
		return o, err
	}
	o.Kind, o.Title, o.Minutes, o.For, o.Origin = job.Kind(j.kind), j.title, max(1, j.minutes), given, job.Verdict
	o.Crew = max(1, o.Crew)
	switch o.Kind {
	case job.Look:
		o.Params.When = map[string]job.When{"make safe first": job.InAWeek, "leave": job.LeafDueNext, "cut back to live wood": job.CutShows,
			"cut to the base": job.CutShows, "tip back": job.CutShows}[j.said]
		if o.Params.When == "" {
			o.Params.When = job.LeafDue
		}
	case job.CutBack, job.TipBack, job.CutToBase:
		switch {
		case o.Key == "shorten":
			o.Kind, o.Params.CutM = job.Shorten, a.Verdict.CutM
		case j.said == "wait until" || j.said == "check first":
			o.Params.When = job.AsFound
		case !strings.HasPrefix(o.Title, "Cut the rest"):
			o.Params.CutM = a.Verdict.CutM
		}
	case job.Lift:
		o.Origin = job.TakingIn
	case job.PlantOut:
		o.Origin, o.Params.When = job.TakingIn, job.FrostPast
	}
	return o, nil
}
