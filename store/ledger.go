package store

import (
	"context"
	"database/sql"
	"errors"

	"mezzadro/core/estimate"
	"mezzadro/core/job"
	"mezzadro/core/outcome"
)

// Rates are what the firm asks for its work; version 0 while it has entered nothing.
type Rates struct {
	Body    JSON[estimate.Rates] `db:"body"`
	Version int                  `db:"version"`
}

const selectRates = `SELECT body, version FROM rates WHERE id = 1`

// Rates are those kept; empty ones of version 0 where none were.
func (s *Store) Rates(ctx context.Context) (Rates, error) {
	r, err := one[Rates](ctx, s.read, selectRates)
	if errors.Is(err, ErrNotFound) {
		return Rates{}, nil
	}
	return r, err
}

// SetRates keeps the rates if the version is still the kept one.
func (tx Tx) SetRates(ctx context.Context, r Rates) (Rates, error) {
	res, err := tx.ExecContext(ctx, `INSERT INTO rates (id, body) SELECT 1, ?1 WHERE ?2 = 0
		ON CONFLICT (id) DO NOTHING`, r.Body, r.Version)
	if r.Version > 0 && err == nil {
		res, err = tx.ExecContext(
			ctx,
			`UPDATE rates SET body = ?, version = version + 1 WHERE id = 1 AND version = ?`,
			r.Body,
			r.Version,
		)
	}
	if err != nil {
		return r, err
	}
	current := func() (Rates, error) { return one[Rates](ctx, tx, selectRates) }
	if err := changed(res, r.Version, current); err != nil {
		return r, err
	}
	return current()
}

// Client is somebody that the firm works for.
type Client struct {
	ID      int64  `db:"id"`
	Name    string `db:"name"`
	Phone   string `db:"phone"`
	Email   string `db:"email"`
	Address string `db:"address"`
	Units   string `db:"units"` // metric, imperial; empty: the firm's
	Note    string `db:"note"`
	Version int    `db:"version"`
}

// ClientOf is a client at a property.
type ClientOf struct {
	PropertyID int64          `db:"property_id"`
	ClientID   int64          `db:"client_id"`
	Role       string         `db:"role"`
	Gets       JSON[[]string] `db:"gets"`
}

const selectClient = `SELECT id, name, phone, email, address, units, note, version FROM client WHERE removed_at IS NULL `

// Clients are those in sight, by name.
func (s *Store) Clients(ctx context.Context) ([]Client, error) {
	return many[Client](ctx, s.read, selectClient+`ORDER BY name, id`)
}

// ClientsOf says who is a client at which property, of all in sight.
func (s *Store) ClientsOf(ctx context.Context) ([]ClientOf, error) {
	return many[ClientOf](ctx, s.read, `SELECT o.property_id, o.client_id, o.role, o.gets FROM client_of o
		JOIN client c ON c.id = o.client_id JOIN property p ON p.id = o.property_id
		WHERE c.removed_at IS NULL AND p.removed_at IS NULL ORDER BY o.property_id, c.name, c.id`)
}

// AddClient keeps a new one and returns it with its id.
func (tx Tx) AddClient(ctx context.Context, c Client) (Client, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO client (name, phone, email, address, units, note)
		VALUES (:name, :phone, :email, :address, :units, :note)`, c)
	if err != nil {
		return c, err
	}
	c.Version = 1
	c.ID, err = res.LastInsertId()
	return c, err
}

// ChangeClient keeps the new values if the version is still the kept one.
func (tx Tx) ChangeClient(ctx context.Context, c Client) (Client, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE client SET name = :name, phone = :phone, email = :email, address = :address,
		units = :units, note = :note, version = version + 1 WHERE id = :id AND version = :version AND removed_at IS NULL`,
		c,
	)
	if err != nil {
		return c, err
	}
	current := func() (Client, error) { return one[Client](ctx, tx, selectClient+`AND id = ?`, c.ID) }
	if err := changed(res, c.Version, current); err != nil {
		return c, err
	}
	return current()
}

// RemoveClient takes one out of sight, or brings one back.
func (tx Tx) RemoveClient(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "client", id, remove)
}

// SetClientOf has a client be one of just these properties.
func (tx Tx) SetClientOf(ctx context.Context, client int64, of []ClientOf) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM client_of WHERE client_id = ?`, client); err != nil {
		return err
	}
	for _, o := range of {
		res, err := tx.ExecContext(ctx, `INSERT INTO client_of (property_id, client_id, role, gets)
			SELECT id, ?2, ?3, ?4 FROM property WHERE id = ?1 AND removed_at IS NULL`, o.PropertyID, client, o.Role, o.Gets)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
	}
	return nil
}

// Estimate is what a client is offered.
type Estimate struct {
	ID         int64              `db:"id"`
	PropertyID int64              `db:"property_id"`
	ClientID   sql.NullInt64      `db:"client_id"`
	Number     int                `db:"number"`
	Edition    int                `db:"edition"`
	Made       string             `db:"made"`
	Until      string             `db:"until"`
	State      string             `db:"state"`
	Body       JSON[EstimateBody] `db:"body"`
	Version    int                `db:"version"`

	Property string `db:"property"`
	Client   string `db:"client"` // who gets it: the client's name, or the property's
}

// EstimateBody is what an estimate says.
type EstimateBody struct {
	Words  string          `json:"words,omitempty"`
	Lines  []estimate.Line `json:"lines"`
	Visits int             `json:"visits"`
	Rates  estimate.Rates  `json:"rates"` // as they were when it was made
}

const selectEstimate = `SELECT e.id, e.property_id, e.client_id, e.number, e.edition, e.made, e.until, e.state, e.body, e.version,
	p.name AS property, coalesce(c.name, p.client) AS client
	FROM estimate e JOIN property p ON p.id = e.property_id AND p.removed_at IS NULL LEFT JOIN client c ON c.id = e.client_id `

// Estimates are those of a property, or with 0 of all, the newest first.
func (s *Store) Estimates(ctx context.Context, property int64, limit int) ([]Estimate, error) {
	return many[Estimate](
		ctx,
		s.read,
		selectEstimate+`WHERE ?1 IN (0, e.property_id) ORDER BY e.id DESC LIMIT ?2`,
		property,
		limit,
	)
}

// Estimate is one.
func (s *Store) Estimate(ctx context.Context, id int64) (Estimate, error) {
	return estimateOf(ctx, s.read, id)
}

// Estimate is one, as it stands within a write.
func (tx Tx) Estimate(ctx context.Context, id int64) (Estimate, error) {
	return estimateOf(ctx, tx, id)
}

func estimateOf(ctx context.Context, from getter, id int64) (Estimate, error) {
	return one[Estimate](ctx, from, selectEstimate+`WHERE e.id = ?`, id)
}

// AddEstimate keeps a new one under the next number.
func (tx Tx) AddEstimate(ctx context.Context, e Estimate) (Estimate, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO estimate (property_id, client_id, number, made, until, state, body)
		SELECT :property_id, :client_id, coalesce(max(number), 0) + 1, :made, :until, :state, :body FROM estimate`,
		e,
	)
	if err != nil {
		return e, err
	}
	id, err := res.LastInsertId()
	if err != nil {
		return e, err
	}
	return tx.Estimate(ctx, id)
}

// ChangeEstimate keeps the new state if the version is still the kept one.
func (tx Tx) ChangeEstimate(ctx context.Context, e Estimate) (Estimate, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE estimate SET client_id = :client_id, edition = :edition, until = :until,
		state = :state, body = :body, version = version + 1 WHERE id = :id AND version = :version`,
		e,
	)
	if err != nil {
		return e, err
	}
	current := func() (Estimate, error) { return tx.Estimate(ctx, e.ID) }
	if err := changed(res, e.Version, current); err != nil {
		return e, err
	}
	return current()
}

// KeepSent keeps an edition as it was sent.
func (tx Tx) KeepSent(ctx context.Context, e Estimate, day string) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO estimate_sent (estimate_id, edition, day, body) VALUES (?, ?, ?, ?)`,
		e.ID, e.Edition, day, e.Body)
	return err
}

// AddAnswer keeps what a client said to a line, for good.
func (tx Tx) AddAnswer(ctx context.Context, e Estimate, line int, order int64, a estimate.Answer, at int64) error {
	_, err := tx.ExecContext(
		ctx,
		`INSERT INTO client_answer (estimate_id, edition, line, order_id, body, at) VALUES (?, ?, ?, ?, ?, ?)`,
		e.ID,
		e.Edition,
		line,
		nullID(order),
		JSON[estimate.Answer]{V: a},
		at,
	)
	return err
}

// SetAgreed notes how far a job is agreed with its client.
func (tx Tx) SetAgreed(ctx context.Context, order int64, agreed string) error {
	_, err := tx.ExecContext(ctx, `UPDATE job_order SET agreed = ? WHERE id = ?`, agreed, order)
	return err
}

// Order is one as it stands within a write.
func (tx Tx) Order(ctx context.Context, id int64) (OrderFull, error) { return order(ctx, tx, id) }

// Declined are the jobs of a course of treatment that went with one no, by the words it was given.
func (tx Tx) Declined(ctx context.Context, find int64, note string) ([]OrderFull, error) {
	return many[OrderFull](ctx, tx, selectFull+`WHERE o.in_sight = 1 AND o.state = 'skipped' AND o.agreed = 'declined'
		AND o.origin = 'programme' AND o.origin_id = ? AND o.note = ? ORDER BY o.id`, find, note)
}

// Programme are the standing jobs of a course of treatment.
func (tx Tx) Programme(ctx context.Context, find int64) ([]OrderFull, error) {
	return many[OrderFull](
		ctx,
		tx,
		selectFull+`WHERE `+standing+` AND o.origin = 'programme' AND o.origin_id = ? ORDER BY o.id`,
		find,
	)
}

// StandingAt are the standing jobs of a property, the next best day first.
func (s *Store) StandingAt(ctx context.Context, property int64) ([]OrderFull, error) {
	return many[OrderFull](
		ctx,
		s.read,
		selectFull+`WHERE `+standing+` AND o.property_id = ? ORDER BY coalesce(o.day, o.best_day, '9'), o.id`,
		property,
	)
}

// AgreedOrders are the standing jobs that their clients have agreed to, but for regular visits, the first of whose good
// days end first.
func (s *Store) AgreedOrders(ctx context.Context) ([]Order, error) {
	return many[Order](
		ctx,
		s.read,
		selectOrder+`WHERE `+standing+` AND o.agreed = 'agreed' AND o.kind <> ? ORDER BY coalesce(o.win_to, '9'), o.id`,
		job.Care,
	)
}

// LastVerdict is what was last decided of a plant or group.
type LastVerdict struct {
	PropertyID int64  `db:"property_id"`
	Kind       string `db:"kind"`
	Plants     int    `db:"plants"`
}

// LastVerdicts are those since a day, of plants that stand and of those that were removed since.
func (s *Store) LastVerdicts(ctx context.Context, from string) ([]LastVerdict, error) {
	return many[LastVerdict](
		ctx,
		s.read,
		`SELECT p.property_id, v.kind, p.count AS plants FROM verdict v JOIN plant p ON p.id = v.plant_id
		JOIN property q ON q.id = p.property_id AND q.removed_at IS NULL
		WHERE v.id IN (SELECT max(id) FROM verdict WHERE undone = 0 AND day >= ? AND decision <> 'not now' GROUP BY plant_id)
		ORDER BY p.property_id`,
		from,
	)
}

// DoneBetween are the jobs that were done from a day until another, of a property or with 0 of all, the oldest first.
func (s *Store) DoneBetween(ctx context.Context, property int64, from, to string) ([]OrderFull, error) {
	return many[OrderFull](
		ctx,
		s.read,
		selectFull+`WHERE o.in_sight = 1 AND o.state = 'done' AND o.ended BETWEEN ? AND ?
		AND ?3 IN (0, o.property_id) ORDER BY o.ended, o.id`,
		from,
		to,
		property,
	)
}

// Charge is what was charged.
type Charge struct {
	ID         int64              `db:"id"`
	PropertyID int64              `db:"property_id"`
	ClientID   sql.NullInt64      `db:"client_id"`
	Number     int                `db:"number"`
	Day        string             `db:"day"`
	Body       JSON[EstimateBody] `db:"body"`

	Property string `db:"property"`
	Client   string `db:"client"`
	Address  string `db:"address"` // of the client; of the property where nobody is entered
}

const selectCharge = `SELECT g.id, g.property_id, g.client_id, g.number, g.day, g.body, p.name AS property,
	coalesce(c.name, p.client) AS client, coalesce(nullif(c.address, ''), p.address) AS address
	FROM charge g JOIN property p ON p.id = g.property_id LEFT JOIN client c ON c.id = g.client_id `

// Charges are those of a property, or with 0 of all, the newest first.
func (s *Store) Charges(ctx context.Context, property int64, limit int) ([]Charge, error) {
	return many[Charge](
		ctx,
		s.read,
		selectCharge+`WHERE ?1 IN (0, g.property_id) ORDER BY g.id DESC LIMIT ?2`,
		property,
		limit,
	)
}

// Charge is one.
func (s *Store) Charge(ctx context.Context, id int64) (Charge, error) {
	return one[Charge](ctx, s.read, selectCharge+`WHERE g.id = ?`, id)
}

// ChargedAs are the numbers under which jobs were charged, by job.
func (s *Store) ChargedAs(ctx context.Context) (map[int64]int, error) {
	rows, err := many[struct {
		ID     int64 `db:"id"`
		Number int   `db:"number"`
	}](ctx, s.read, `SELECT o.id, g.number FROM job_order o JOIN charge g ON g.id = o.charge_id`)
	out := make(map[int64]int, len(rows))
	for _, r := range rows {
		out[r.ID] = r.Number
	}
	return out, err
}

// AddCharge keeps one under the next number, with its jobs: none may have been charged before.
func (tx Tx) AddCharge(ctx context.Context, c Charge, orders []int64) (Charge, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO charge (property_id, client_id, number, day, body)
		SELECT :property_id, :client_id, coalesce(max(number), 0) + 1, :day, :body FROM charge`, c)
	if err != nil {
		return c, err
	}
	id, err := res.LastInsertId()
	if err != nil {
		return c, err
	}
	for _, o := range orders {
		res, err := tx.ExecContext(
			ctx,
			`UPDATE job_order SET charge_id = ? WHERE id = ? AND charge_id IS NULL AND state = 'done'`,
			id,
			o,
		)
		if err != nil {
			return c, err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return c, errors.Join(err, Refused("a job of it was charged meanwhile, or is not done any more"))
		}
	}
	return one[Charge](ctx, tx, selectCharge+`WHERE g.id = ?`, id)
}

// PropertyNames are those of all properties in sight, by id.
func (s *Store) PropertyNames(ctx context.Context) (map[int64]string, error) {
	rows, err := many[struct {
		ID   int64  `db:"id"`
		Name string `db:"name"`
	}](ctx, s.read, `SELECT id, name FROM property WHERE removed_at IS NULL`)
	out := make(map[int64]string, len(rows))
	for _, r := range rows {
		out[r.ID] = r.Name
	}
	return out, err
}

// ToldOutcome is how a plant turned out last after a verdict, with what the verdict had foretold.
type ToldOutcome struct {
	PropertyID int64                   `db:"property_id"`
	Given      string                  `db:"given"` // the verdict's day
	Day        string                  `db:"day"`
	State      string                  `db:"state"`
	Prognosis  JSON[outcome.Prognosis] `db:"prognosis"`
	Property   string                  `db:"property"`
	Species    string                  `db:"species"`
	Label      string                  `db:"label"`
	Kind       string                  `db:"kind"` // of verdict
	Decision   string                  `db:"decision"`
	By         string                  `db:"by_name"`
	Cause      string                  `db:"cause"`  // that stood as found on it then; empty for none
	Frozen     bool                    `db:"frozen"` // it was given after a freeze
}

// ToldOutcomes are those of all verdicts that stand, of plants that were removed since too: else only those that live would
// count.
func (s *Store) ToldOutcomes(ctx context.Context) ([]ToldOutcome, error) {
	return many[ToldOutcome](ctx, s.read, `SELECT p.property_id, v.day AS given, o.day, o.state, json_extract(v.answer, '$.prognosis') AS prognosis,
		q.name AS property, p.species, p.label, v.kind, v.decision, v.by_name,
		coalesce((SELECT f.cause FROM find f WHERE f.plant_id = v.plant_id AND f.removed_at IS NULL AND f.prevent = 0 AND f.day <= v.day
			AND (f.closed = '' OR f.closed >= v.day) ORDER BY f.day DESC, f.id DESC LIMIT 1), '') AS cause,
		EXISTS (SELECT 1 FROM freeze_shown s WHERE s.verdict_id = v.id) AS frozen
		FROM outcome o JOIN verdict v ON v.id = o.verdict_id AND v.undone = 0 JOIN plant p ON p.id = o.plant_id
		JOIN property q ON q.id = p.property_id AND q.removed_at IS NULL
		WHERE o.id IN (SELECT max(id) FROM outcome WHERE undone = 0 GROUP BY verdict_id) AND v.kind <> 'check first' ORDER BY o.id`)
}
