package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"github.com/jmoiron/sqlx"

	"mezzadro/core/day"
	"mezzadro/core/job"
)

// Order is a piece of work as kept. The columns from WinFrom on are what lists show of its curve.
type Order struct {
	ID         int64         `db:"id"`
	PropertyID int64         `db:"property_id"`
	PlantID    sql.NullInt64 `db:"plant_id"`
	Origin     job.Origin    `db:"origin"`
	OriginID   int64         `db:"origin_id"`
	Trouble    string        `db:"trouble"`
	Key        string        `db:"key"`
	Kind       job.Kind      `db:"kind"`
	Title      string        `db:"title"`
	ForDay     string        `db:"for_day"`
	Minutes    int           `db:"minutes"`
	CrewSize   int           `db:"crew_size"`
	State      job.State     `db:"state"`
	Day        *string       `db:"day"`
	Crew       string        `db:"crew"`    // its name; free words where no crew was entered
	CrewID     int64         `db:"crew_id"` // 0: none
	Place      int           `db:"place"`
	Ended      *string       `db:"ended"`
	Took       int           `db:"took_minutes"`
	Note       string        `db:"note"`
	Follows    sql.NullInt64 `db:"follows"`
	Version    int           `db:"version"`
	WinFrom    *string       `db:"win_from"`
	WinTo      *string       `db:"win_to"`
	BestDay    *string       `db:"best_day"`
	BestCost   int           `db:"best_cost"`
	DayCost    int           `db:"day_cost"`
	Passed     bool          `db:"passed"`
	Listed     string        `db:"listed"`
	Pinned     bool          `db:"pinned"`  // its day and crew stay when rounds are proposed
	Told       string        `db:"told"`    // the day that the client was told
	By         string        `db:"by_name"` // who put it where it stands
	Anyway     string        `db:"anyway"`  // why it is done although what was found on its plant says to wait
	Purpose    string        `db:"purpose"` // of a cut
	Agreed     string        `db:"agreed"`  // with the client: asked, agreed, declined; empty: nobody was asked
	PutOff     int           `db:"put_off"` // how often somebody was there and it was not done
	PutOffWhy  string        `db:"put_off_why"`
	PartOf     int64         `db:"part_of"` // the first part of a job that is done in parts; 0: it is none, or the first

	// Of its plant and property, for lists.
	Species  string `db:"species"`
	Label    string `db:"label"`
	Plants   int    `db:"plants"`
	Property string `db:"property"`
	Address  string `db:"address"`
}

// Ask is the rest of an order: what its curve and its day sheet are made from.
type Ask struct {
	Params JSON[job.Params] `db:"params"`
	Body   JSON[orderBody]  `db:"body"`
}

// orderBody is what is told of an order and never searched.
type orderBody struct {
	Skills   []string `json:"skills"`
	Kit      []string `json:"kit"`
	Reasons  []string `json:"reasons"`
	Cautions []string `json:"cautions"`
}

// OrderFull is an order with all that it asks.
type OrderFull struct {
	Order
	Ask
}

// Core is the order as the core knows it.
func (o *OrderFull) Core() (job.Order, error) {
	made, err := day.Parse(o.ForDay)
	if err != nil {
		return job.Order{}, fmt.Errorf("order %d: %w", o.ID, err)
	}
	b := o.Body.V
	return job.Order{
		Key:      o.Key,
		Kind:     o.Kind,
		Title:    o.Title,
		Origin:   o.Origin,
		For:      made,
		Params:   o.Params.V,
		Minutes:  o.Minutes,
		Crew:     o.CrewSize,
		Skills:   b.Skills,
		Kit:      b.Kit,
		Reasons:  b.Reasons,
		Cautions: b.Cautions,
	}, nil
}

const (
	orderColumns = `o.id, o.property_id, o.plant_id, o.origin, o.origin_id, o.trouble, o.key, o.kind, o.title,
		o.for_day, o.minutes, o.crew_size, o.state, o.day,
	coalesce(c.name, o.crew) AS crew, coalesce(o.crew_id, 0) AS crew_id, o.place, o.ended, o.took_minutes, o.note, o.follows, o.version, o.win_from, o.win_to, o.best_day,
		o.best_cost, o.day_cost, o.passed, o.listed, o.pinned, o.told, o.by_name, o.anyway, o.agreed, o.part_of,
	CASE WHEN o.kind = 'prune' THEN coalesce(json_extract(o.params, '$.purpose'), '') ELSE '' END AS purpose,
	(SELECT count(*) FROM order_stint s WHERE s.order_id = o.id AND s.undone = 0 AND s.kind = 'not today') AS put_off,
	coalesce((SELECT s.reason FROM order_stint s WHERE s.order_id = o.id AND s.undone = 0 AND s.kind = 'not today'
		ORDER BY s.id DESC LIMIT 1), '') AS put_off_why,
	coalesce(t.species, '') AS species, coalesce(t.label, '') AS label,
	CASE WHEN o.plant_id IS NULL THEN (SELECT count(*) FROM order_plant WHERE order_id = o.id) ELSE 1 END AS
		plants, p.name AS property, p.address`
	orderFrom = ` FROM job_order o JOIN property p ON p.id = o.property_id LEFT JOIN plant t ON t.id = o.plant_id
		LEFT JOIN crew c ON c.id = o.crew_id `
	selectOrder = `SELECT ` + orderColumns + orderFrom
	selectFull  = `SELECT ` + orderColumns + `, o.params, o.body` + orderFrom
	standing    = `o.in_sight = 1 AND o.state IN ('waiting', 'on a day')`
)

// OrderList is one of the lists that orders stand in.
type OrderList string

// Lists of orders, and what each is in the order of.
const (
	ListStanding OrderList = "standing" // still to be done, the next best day first and those past their time last
	ListWaiting  OrderList = "waiting"  // those of them without a day
	ListOverdue  OrderList = "overdue"  // on a past day and not ticked off, the oldest first
	ListClosing  OrderList = "closing"  // waiting, with a running window that ends soon
	ListDue      OrderList = "due"      // looks that are due soon
	ListEnded    OrderList = "ended"    // done or skipped, the newest first
)

// lists are what is in each list, by what it is ordered, and whether that falls.
var lists = map[OrderList]struct {
	where, key string
	falling    bool
}{
	ListStanding: {where: standing, key: "o.listed"},
	ListWaiting:  {where: `o.in_sight = 1 AND o.state = 'waiting'`, key: "o.listed"},
	ListOverdue:  {where: `o.in_sight = 1 AND o.state = 'on a day' AND o.day < :today`, key: "o.day"},
	ListClosing: {
		where: `o.in_sight = 1 AND o.state = 'waiting' AND o.win_to BETWEEN :today AND :soon AND o.win_from <= :today`,
		key:   "o.win_to",
	},
	ListDue: {where: standing + ` AND o.kind = 'look' AND o.listed <= :soon`, key: "o.listed"},
	ListEnded: {
		where:   `o.in_sight = 1 AND o.state IN ('done', 'skipped') AND o.ended <= :today`,
		key:     "o.ended",
		falling: true,
	},
}

// OrderPage says which orders a list wants, and from where on.
type OrderPage struct {
	List     OrderList
	Property int64 // 0: of all
	Today    string
	Soon     string
	After    string // the key of the last one seen; empty from the start
	AfterID  int64
	Limit    int
}

// OrderPage reads a page of a list, from its index alone.
func (s *Store) OrderPage(ctx context.Context, p OrderPage) ([]Order, error) {
	l, known := lists[p.List]
	if !known {
		return nil, Refused(fmt.Sprintf("%q is no list of jobs", p.List))
	}
	where, down, beyond := l.where, "", ">"
	if l.falling {
		down, beyond = " DESC", "<"
	}
	if p.Property != 0 {
		where += ` AND o.property_id = :property`
	}
	if p.After != "" {
		where += ` AND (` + l.key + `, o.id) ` + beyond + ` (:after, :after_id)`
	}
	query, args, err := sqlx.Named(
		selectOrder+`WHERE `+where+` ORDER BY `+l.key+down+`, o.id`+down+` LIMIT :limit`,
		map[string]any{
			"today":    p.Today,
			"soon":     p.Soon,
			"property": p.Property,
			"after":    p.After,
			"after_id": p.AfterID,
			"limit":    p.Limit,
		},
	)
	if err != nil {
		return nil, err
	}
	return many[Order](ctx, s.read, query, args...)
}

// KeyIn is what an order stands in a list by.
func (o Order) KeyIn(l OrderList) string {
	text := func(s *string) string {
		if s == nil {
			return ""
		}
		return *s
	}
	switch lists[l].key {
	case "o.day":
		return text(o.Day)
	case "o.win_to":
		return text(o.WinTo)
	case "o.ended":
		return text(o.Ended)
	}
	return o.Listed
}

const between = `WHERE o.in_sight = 1 AND o.state = 'on a day' AND o.day BETWEEN ? AND ?
	ORDER BY o.day, o.place, o.id LIMIT ?`

// OrdersBetween are the orders that are on days, in the order of the day's work.
func (s *Store) OrdersBetween(ctx context.Context, from, to string, limit int) ([]Order, error) {
	return many[Order](ctx, s.read, selectOrder+between, from, to, limit)
}

// SheetsBetween are the same with all that a day sheet tells of them.
func (s *Store) SheetsBetween(ctx context.Context, from, to string, limit int) ([]OrderFull, error) {
	return many[OrderFull](ctx, s.read, selectFull+between, from, to, limit)
}

// StandingUntil are the orders on days of a span, with those without a day whose best day comes until its end.
func (s *Store) StandingUntil(ctx context.Context, from, to string, limit int) ([]OrderFull, error) {
	return many[OrderFull](ctx, s.read, selectFull+`WHERE o.in_sight = 1 AND (o.state = 'on a day' AND o.day BETWEEN ? AND ?
		OR o.state = 'waiting' AND o.best_day <= ?) ORDER BY coalesce(o.day, o.best_day), o.place, o.id LIMIT ?`, from, to, to, limit)
}

// EndedBetween are the orders that were done or skipped on days, the newest first.
func (s *Store) EndedBetween(ctx context.Context, from, to string, limit int) ([]Order, error) {
	return many[Order](
		ctx,
		s.read,
		selectOrder+`WHERE o.in_sight = 1 AND o.state IN ('done', 'skipped') AND o.ended BETWEEN ? AND ?
		ORDER BY o.ended DESC, o.id DESC LIMIT ?`,
		from,
		to,
		limit,
	)
}

// PlantOrders are all orders of a plant but the dropped ones, the next best day first.
func (s *Store) PlantOrders(ctx context.Context, plant int64) ([]Order, error) {
	return many[Order](ctx, s.read, selectOrder+`WHERE o.in_sight = 1 AND o.state <> 'dropped' AND
		(o.plant_id = ? OR o.id IN (SELECT order_id FROM order_plant WHERE plant_id = ?)) ORDER BY o.listed, o.id`, plant, plant)
}

// OrderCounts are how many orders want attention.
type OrderCounts struct {
	Waiting int `db:"waiting"`
	Closing int `db:"closing"`
	Overdue int `db:"overdue"`
	Due     int `db:"due"`
}

// CountOrders counts them.
func (s *Store) CountOrders(ctx context.Context, today, soon string) (OrderCounts, error) {
	return one[OrderCounts](
		ctx,
		s.read,
		`SELECT (SELECT count(*) FROM job_order o WHERE o.in_sight = 1 AND o.state = 'waiting') AS waiting,
		(SELECT count(*) FROM job_order o WHERE o.in_sight = 1 AND o.state = 'waiting' AND o.win_to BETWEEN ? AND ?
		AND o.win_from <= ?) AS closing,
		(SELECT count(*) FROM job_order o WHERE o.in_sight = 1 AND o.state = 'on a day' AND o.day < ?) AS overdue,
		(SELECT count(*) FROM job_order o WHERE `+standing+` AND o.kind = 'look' AND o.listed <= ?) AS due`,
		today,
		soon,
		today,
		today,
		soon,
	)
}

// AskedOf is what orders ask at a property: looks whose day has come and jobs on a past day, and the nearest such day.
type AskedOf struct {
	PropertyID int64   `db:"property_id"`
	Due        int     `db:"due"`
	Overdue    int     `db:"overdue"`
	Nearest    *string `db:"nearest"`
}

// AskedByProperty counts them, by the indexes of their lists.
func (s *Store) AskedByProperty(ctx context.Context, today string) ([]AskedOf, error) {
	return many[AskedOf](ctx, s.read, `SELECT property_id, sum(due) AS due, sum(overdue) AS overdue, min(at) AS nearest FROM (
		SELECT o.property_id, 1 AS due, 0 AS overdue, o.listed AS at FROM job_order o WHERE `+standing+` AND o.kind = 'look' AND
			o.listed <= ?1 AND NOT (o.state = 'on a day' AND o.day < ?1)
		UNION ALL SELECT o.property_id, 0, 1, o.day FROM job_order o WHERE o.in_sight = 1 AND o.state = 'on a day' AND o.day < ?1)
		GROUP BY property_id`, today)
}

// FindOrders are standing orders whose words, with those of their property and plant, hold all of some words.
func (s *Store) FindOrders(ctx context.Context, words []string, limit int) ([]Order, error) {
	where, args := standing, []any{}
	for _, w := range words {
		where += ` AND instr(lower(o.title || ' ' || p.name || ' ' || coalesce(t.label, '')), ?) > 0`
		args = append(args, w)
	}
	return many[Order](ctx, s.read, selectOrder+`WHERE `+where+` ORDER BY o.listed, o.id LIMIT ?`, append(args, limit)...)
}

// Order reads one that is in sight and not dropped.
func (s *Store) Order(ctx context.Context, id int64) (OrderFull, error) {
	return order(ctx, s.read, id)
}

func order(ctx context.Context, from getter, id int64) (OrderFull, error) {
	return one[OrderFull](ctx, from, selectFull+`WHERE o.in_sight = 1 AND o.state <> 'dropped' AND o.id = ?`, id)
}

// OrdersOfVerdict are the orders that a verdict asked for and that are not dropped.
func (s *Store) OrdersOfVerdict(ctx context.Context, verdict int64) ([]Order, error) {
	return many[Order](ctx, s.read, selectOrder+`WHERE o.in_sight = 1 AND o.state <> 'dropped' AND o.origin_id = ?
		AND o.origin IN ('verdict', 'after-care', 'taking in') ORDER BY o.id`, verdict)
}

// SpeciesOf are the species of the plants of an order that has several.
func (s *Store) SpeciesOf(ctx context.Context, order int64) ([]string, error) {
	return many[string](ctx, s.read, `SELECT DISTINCT t.species FROM order_plant x JOIN plant t ON t.id = x.plant_id
		WHERE x.order_id = ? ORDER BY t.species`, order)
}

// SeveralPlants are the plants of all standing orders that have several, by order.
func (s *Store) SeveralPlants(ctx context.Context) (map[int64][]int64, error) {
	type row struct {
		Order int64 `db:"order_id"`
		Plant int64 `db:"plant_id"`
	}
	rows, err := many[row](ctx, s.read, `SELECT m.order_id, m.plant_id FROM order_plant m
		JOIN job_order o ON o.id = m.order_id WHERE o.in_sight = 1 AND o.state IN ('waiting', 'on a day')
		ORDER BY m.order_id, m.plant_id`)
	out := map[int64][]int64{}
	for _, r := range rows {
		out[r.Order] = append(out[r.Order], r.Plant)
	}
	return out, err
}

// PlantsOf are the plants of an order that has several.
func (s *Store) PlantsOf(ctx context.Context, order int64) ([]int64, error) {
	return many[int64](ctx, s.read, `SELECT plant_id FROM order_plant WHERE order_id = ? ORDER BY plant_id`, order)
}

// GapRow is that one order comes so many days after another.
type GapRow struct {
	OrderID int64   `db:"order_id"`
	OfID    int64   `db:"of_id"`
	MinDays int     `db:"min_days"`
	MaxDays int     `db:"max_days"`
	Why     string  `db:"why"`
	Title   string  `db:"title"` // of the other one
	Kind    string  `db:"kind"`
	Day     *string `db:"day"`
	Ended   *string `db:"ended"`
	State   string  `db:"state"`
}

// Before are the orders that come before one, After those that come after it, dropped ones left out.
func (s *Store) Before(ctx context.Context, order int64) ([]GapRow, error) {
	return many[GapRow](
		ctx,
		s.read,
		`SELECT g.order_id, g.of_id, g.min_days, g.max_days, g.why, o.title, o.kind, o.day, o.ended, o.state
		FROM order_gap g JOIN job_order o ON o.id = g.of_id WHERE g.order_id = ? AND o.state <> 'dropped' AND
		o.in_sight = 1 ORDER BY o.id`,
		order,
	)
}

// After are the orders that wait for one.
func (s *Store) After(ctx context.Context, order int64) ([]GapRow, error) {
	return many[GapRow](
		ctx,
		s.read,
		`SELECT g.order_id, g.of_id, g.min_days, g.max_days, g.why, o.title, o.kind, o.day, o.ended, o.state
		FROM order_gap g JOIN job_order o ON o.id = g.order_id WHERE g.of_id = ? AND o.state <> 'dropped' AND
		o.in_sight = 1 ORDER BY o.id`,
		order,
	)
}

// NewOrder is an order to keep, with the plants it is for and what comes before it.
type NewOrder struct {
	PropertyID int64
	Plants     []int64
	OriginID   int64
	Trouble    string
	Follows    int64
	Order      job.Order
	Outlook    job.Outlook
	Gaps       []GapRow // OfID, MinDays, MaxDays and Why
}

// AddOrder keeps a new order and returns its id.
func (tx Tx) AddOrder(ctx context.Context, n NewOrder) (int64, error) {
	plant := sql.NullInt64{}
	if len(n.Plants) == 1 {
		plant = sql.NullInt64{Int64: n.Plants[0], Valid: true}
	}
	o := n.Order
	l := listColumns(n.Outlook)
	res, err := tx.ExecContext(
		ctx,
		`INSERT INTO job_order (property_id, plant_id, origin, origin_id, trouble, key, kind, title, for_day,
			params, minutes, crew_size, body, follows,
		win_from, win_to, best_day, best_cost, passed, listed) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?,
		?, ?, ?, ?, ?)`,
		n.PropertyID,
		plant,
		o.Origin,
		n.OriginID,
		n.Trouble,
		o.Key,
		o.Kind,
		o.Title,
		o.For.String(),
		JSON[job.Params]{V: o.Params},
		o.Minutes,
		max(1, o.Crew),
		JSON[orderBody]{
			V: orderBody{o.Skills, o.Kit, o.Reasons, o.Cautions},
		},
		nullID(n.Follows),
		l.from,
		l.to,
		l.best,
		l.cost,
		l.passed,
		l.listed,
	)
	if err != nil {
		return 0, err
	}
	id, err := res.LastInsertId()
	if err != nil {
		return 0, err
	}
	if len(n.Plants) > 1 {
		for _, p := range n.Plants {
			if _, err := tx.ExecContext(ctx, `INSERT INTO order_plant (order_id, plant_id) VALUES (?, ?)`, id, p); err != nil {
				return 0, err
			}
		}
	}
	return id, tx.setGaps(ctx, id, n.Gaps)
}

func (tx Tx) setGaps(ctx context.Context, id int64, gaps []GapRow) error {
	for _, g := range gaps {
		if _, err := tx.ExecContext(
			ctx,
			`INSERT INTO order_gap (order_id, of_id, min_days, max_days, why) VALUES (?, ?, ?, ?, ?)`,
			id,
			g.OfID,
			g.MinDays,
			g.MaxDays,
			g.Why,
		); err != nil {
			return err
		}
	}
	return nil
}

// AddGap ties one order to another.
func (tx Tx) AddGap(ctx context.Context, g GapRow) error {
	return tx.setGaps(ctx, g.OrderID, []GapRow{g})
}

func nullID(id int64) sql.NullInt64 { return sql.NullInt64{Int64: id, Valid: id != 0} }

// listed are the list columns of an outlook.
type listed struct {
	from, to, best *string
	cost           int
	passed         bool
	listed         string
}

// lastOfAll is where orders stand in lists that are past their time.
const lastOfAll = "9999-12-31"

func listColumns(o job.Outlook) listed {
	text := func(d day.Day) *string {
		if d == day.None {
			return nil
		}
		s := d.String()
		return &s
	}
	l := listed{
		from:   text(o.Window.From),
		to:     text(o.Window.To),
		best:   text(o.Best),
		cost:   o.Cost.Int(),
		passed: o.Passed,
		listed: lastOfAll,
	}
	if l.best != nil && !o.Passed {
		l.listed = *l.best
	}
	return l
}

// ChangeOrder keeps what is told of an order by hand, if it is based on the version that is kept.
func (tx Tx) ChangeOrder(ctx context.Context, id int64, version int, n NewOrder) (OrderFull, error) {
	o := n.Order
	l := listColumns(n.Outlook)
	plant := sql.NullInt64{}
	if len(n.Plants) == 1 {
		plant = sql.NullInt64{Int64: n.Plants[0], Valid: true}
	}
	res, err := tx.ExecContext(
		ctx,
		`UPDATE job_order SET property_id = ?, plant_id = ?, title = ?, for_day = ?, params = ?, minutes = ?,
			crew_size = ?, body = ?, win_from = ?, win_to = ?,
		best_day = ?, best_cost = ?, passed = ?, listed = ?, version = version + 1 WHERE id = ? AND version = ? AND
		in_sight = 1 AND state <> 'dropped'`,
		n.PropertyID,
		plant,
		o.Title,
		o.For.String(),
		JSON[job.Params]{V: o.Params},
		o.Minutes,
		o.Crew,
		JSON[orderBody]{V: orderBody{o.Skills, o.Kit, o.Reasons, o.Cautions}},
		l.from,
		l.to,
		l.best,
		l.cost,
		l.passed,
		l.listed,
		id,
		version,
	)
	if err != nil {
		return OrderFull{}, err
	}
	if err := tx.orderChanged(ctx, res, id, version); err != nil {
		return OrderFull{}, err
	}
	for _, q := range []string{`DELETE FROM order_plant WHERE order_id = ?`, `DELETE FROM order_gap WHERE
		order_id = ?`} {
		if _, err := tx.ExecContext(ctx, q, id); err != nil {
			return OrderFull{}, err
		}
	}
	if len(n.Plants) > 1 {
		for _, p := range n.Plants {
			if _, err := tx.ExecContext(ctx, `INSERT INTO order_plant (order_id, plant_id) VALUES (?, ?)`, id, p); err != nil {
				return OrderFull{}, err
			}
		}
	}
	if err := tx.setGaps(ctx, id, n.Gaps); err != nil {
		return OrderFull{}, err
	}
	return order(ctx, tx, id)
}

func (tx Tx) orderChanged(ctx context.Context, res sql.Result, id int64, version int) error {
	return changed(res, version, func() (OrderFull, error) { return order(ctx, tx, id) })
}

// Stand is where an order comes to stand.
type Stand struct {
	State   job.State
	Day     *string // it is on; kept when it ends
	Crew    string  // its name, or free words
	CrewID  int64   // 0: no crew that was entered
	Place   int
	Ended   *string
	Took    int
	Note    string
	DayCost int
}

// SetStand moves an order into a state, if that is based on the version that is kept.
func (tx Tx) SetStand(ctx context.Context, id int64, version int, s Stand) (OrderFull, error) {
	res, err := tx.ExecContext(
		ctx,
		`UPDATE job_order SET state = ?, day = ?, crew = ?, crew_id = ?, place = ?, ended = ?, took_minutes = ?, note = ?,
			day_cost = ?, by_name = ?, version = version + 1
		WHERE id = ? AND version = ? AND in_sight = 1 AND state <> 'dropped'`,
		s.State,
		s.Day,
		s.Crew,
		nullID(s.CrewID),
		s.Place,
		s.Ended,
		s.Took,
		s.Note,
		s.DayCost,
		by(ctx),
		id,
		version,
	)
	if err != nil {
		return OrderFull{}, err
	}
	if err := tx.orderChanged(ctx, res, id, version); err != nil {
		return OrderFull{}, err
	}
	return order(ctx, tx, id)
}

// DropOrder takes an order out that nobody wants any more.
func (tx Tx) DropOrder(ctx context.Context, id int64, version int) error {
	res, err := tx.ExecContext(
		ctx,
		`UPDATE job_order SET state = 'dropped', version = version + 1 WHERE id = ? AND version = ? AND in_sight
			= 1 AND state IN ('waiting', 'on a day')`,
		id,
		version,
	)
	if err != nil {
		return err
	}
	return tx.orderChanged(ctx, res, id, version)
}

// RestoreOrder brings an order back that was dropped by hand.
func (tx Tx) RestoreOrder(ctx context.Context, id int64) (OrderFull, error) {
	err := tx.touch(
		ctx,
		`UPDATE job_order SET state = CASE WHEN day IS NULL THEN 'waiting' ELSE 'on a day' END, version = version + 1
		WHERE id = ? AND state = 'dropped' AND dropped_by IS NULL AND ended_with IS NULL`,
		id,
	)
	if err != nil {
		return OrderFull{}, err
	}
	return order(ctx, tx, id)
}

// Successor is the next time of a repeat that hangs on an order and is still to be done.
func (tx Tx) Successor(ctx context.Context, id int64) (Order, error) {
	return one[Order](ctx, tx, selectOrder+`WHERE o.follows = ? AND o.state IN ('waiting', 'on a day')`, id)
}

// TakeBackSuccessor takes the next time of a repeat away, because the time before was not done after all.
func (tx Tx) TakeBackSuccessor(ctx context.Context, id int64) error {
	next, err := tx.Successor(ctx, id)
	if errors.Is(err, ErrNotFound) {
		return nil
	}
	if err == nil {
		_, err = tx.ExecContext(ctx, `DELETE FROM order_gap WHERE order_id = ? OR of_id = ?`, next.ID, next.ID)
	}
	if err == nil {
		_, err = tx.ExecContext(ctx, `DELETE FROM order_plant WHERE order_id = ?`, next.ID)
	}
	if err == nil {
		_, err = tx.ExecContext(ctx, `DELETE FROM job_order WHERE id = ?`, next.ID)
	}
	return err
}

// DropReplaced drops the orders of a plant's earlier verdicts on a trouble, for a new one. Orders of any other origin
// stay, and so does what is done: job.Replaces says which.
func (tx Tx) DropReplaced(ctx context.Context, plant, verdict int64, trouble string) error {
	list, err := many[Order](
		ctx,
		tx,
		selectOrder+`WHERE o.plant_id = ? AND o.state IN ('waiting', 'on a day') AND o.origin_id <> ?`,
		plant,
		verdict,
	)
	if err != nil {
		return err
	}
	for _, o := range list {
		if !job.Replaces(trouble, o.Origin, o.State, o.Trouble) {
			continue
		}
		if _, err := tx.ExecContext(
			ctx,
			`UPDATE job_order SET state = 'dropped', dropped_by = ?, version = version + 1 WHERE id = ?`,
			verdict,
			o.ID,
		); err != nil {
			return err
		}
	}
	return nil
}

// DropWithPlant drops the orders of a plant that a verdict has taken out, as far as job.GoesWith says that they go with it,
// but for the verdict's own.
func (tx Tx) DropWithPlant(ctx context.Context, plant, verdict int64) error {
	list, err := many[Order](ctx, tx, selectOrder+`WHERE o.plant_id = ? AND o.state IN ('waiting', 'on a day') AND o.origin_id <> ?`, plant, verdict)
	if err != nil {
		return err
	}
	for _, o := range list {
		if !job.GoesWith(o.State, o.Kind) {
			continue
		}
		if _, err := tx.ExecContext(ctx, `UPDATE job_order SET state = 'dropped', dropped_by = ?, version = version + 1 WHERE id = ?`, verdict, o.ID); err != nil {
			return err
		}
	}
	return nil
}

// EndOrders drops the orders of a plant that an outcome found dead, as far as job.EndsWith says that they end with it.
func (tx Tx) EndOrders(ctx context.Context, plant, outcome int64) error {
	list, err := many[Order](ctx, tx, selectOrder+`WHERE o.plant_id = ? AND o.state IN ('waiting', 'on a day')`, plant)
	if err != nil {
		return err
	}
	for _, o := range list {
		if !job.EndsWith(o.Origin, o.State, o.Kind) {
			continue
		}
		if _, err := tx.ExecContext(ctx,
			`UPDATE job_order SET state = 'dropped', ended_with = ?, version = version + 1 WHERE id = ?`,
			outcome, o.ID); err != nil {
			return err
		}
	}
	return nil
}

// returnOrders brings back what ended with an outcome that is taken back.
func (tx Tx) returnOrders(ctx context.Context, outcome int64) error {
	_, err := tx.ExecContext(ctx, `UPDATE job_order SET state = CASE WHEN day IS NULL THEN 'waiting' ELSE 'on a day' END,
		ended_with = NULL, version = version + 1 WHERE ended_with = ?`, outcome)
	return err
}

// dropOrdersOf takes back what a verdict did to orders: its own go, those it dropped return.
func (tx Tx) dropOrdersOf(ctx context.Context, verdict int64) error {
	for _, q := range []string{
		`UPDATE job_order SET state = CASE WHEN day IS NULL THEN 'waiting' ELSE 'on a day' END, dropped_by =
			NULL, version = version + 1
			WHERE dropped_by = ?1 AND NOT (origin_id = ?1 AND origin IN ('verdict', 'after-care', 'taking in'))`,
		`UPDATE job_order SET state = 'dropped', dropped_by = ?1, version = version + 1
			WHERE origin_id = ?1 AND origin IN ('verdict', 'after-care', 'taking in') AND state IN
			('waiting', 'on a day')`,
	} {
		if _, err := tx.ExecContext(ctx, q, verdict); err != nil {
			return err
		}
	}
	return nil
}

// sight hides the orders of what is removed, or shows them again.
func (tx Tx) sight(ctx context.Context, where string, id int64) error {
	_, err := tx.ExecContext(
		ctx,
		`UPDATE job_order SET in_sight = EXISTS (SELECT 1 FROM property p WHERE p.id = job_order.property_id AND
			p.removed_at IS NULL)
		AND (plant_id IS NULL OR EXISTS (SELECT 1 FROM plant t WHERE t.id = job_order.plant_id AND t.removed_at IS
		NULL)) WHERE `+where,
		id,
	)
	return err
}

// Refreshed are an order's list columns, worked out anew.
type Refreshed struct {
	ID      int64
	Outlook job.Outlook
	DayCost int
}

// OrdersToRefresh are the standing orders of a property with all that their curves hang on, and the list columns as
// they are. What is only told of them is left out.
func (s *Store) OrdersToRefresh(ctx context.Context, property int64) ([]OrderFull, error) {
	return many[OrderFull](ctx, s.read, `SELECT o.id, o.property_id, o.plant_id, o.origin, o.origin_id, o.key, o.kind, o.state, o.anyway,
		CASE WHEN o.kind = 'prune' THEN coalesce(json_extract(o.params, '$.purpose'), '') ELSE '' END AS purpose, o.for_day, o.minutes, o.crew_size, o.day,
		o.win_from, o.win_to, o.best_day, o.best_cost, o.day_cost, o.passed, o.listed, o.params,
		coalesce(t.species, '') AS species,
		CASE WHEN o.plant_id IS NULL THEN (SELECT count(*) FROM order_plant WHERE order_id = o.id) ELSE 1 END AS plants
		FROM job_order o LEFT JOIN plant t ON t.id = o.plant_id WHERE `+standing+` AND o.property_id = ?`, property)
}

// Same reports list columns that say the same already.
func (o Order) Same(r Refreshed) bool {
	l := listColumns(r.Outlook)
	eq := func(a, b *string) bool { return a == b || a != nil && b != nil && *a == *b }
	return eq(o.WinFrom, l.from) && eq(o.WinTo, l.to) && eq(o.BestDay, l.best) && o.BestCost == l.cost &&
		o.Passed == l.passed &&
		o.DayCost == r.DayCost &&
		o.Listed == l.listed
}

// Refresh keeps list columns worked out anew, and for which year that was.
func (tx Tx) Refresh(ctx context.Context, property int64, windowed string, list []Refreshed) error {
	st, err := tx.PrepareContext(
		ctx,
		`UPDATE job_order SET win_from = ?, win_to = ?, best_day = ?, best_cost = ?, passed = ?, listed = ?,
			day_cost = ? WHERE id = ?`,
	)
	if err != nil {
		return err
	}
	defer st.Close()
	for _, r := range list {
		l := listColumns(r.Outlook)
		if _, err := st.ExecContext(ctx, l.from, l.to, l.best, l.cost, l.passed, l.listed, r.DayCost, r.ID); err != nil {
			return err
		}
	}
	_, err = tx.ExecContext(ctx, `UPDATE property SET windowed = ? WHERE id = ?`, windowed, property)
	return err
}

// LastPlace is the place of the last order of a day.
func (tx Tx) LastPlace(ctx context.Context, day string) (int, error) {
	return one[int](ctx, tx, `SELECT coalesce(max(place), 0) FROM job_order WHERE day = ? AND state = 'on a day'`, day)
}

// CutKept is a cut of a plant that stands as a job or was done.
type CutKept struct {
	PlantID int64     `db:"plant_id"`
	Purpose string    `db:"purpose"`
	Part    int       `db:"part"`
	State   job.State `db:"state"`
	Ended   *string   `db:"ended"`
}

// Done is the day it was done; none where it was not.
func (c CutKept) Done() day.Day {
	if c.State != job.Done || c.Ended == nil {
		return day.None
	}
	d, err := day.Parse(*c.Ended)
	if err != nil {
		return day.None
	}
	return d
}

// DeedOn is work that was done on a plant: a cut with its height, or what was made safe.
type DeedOn struct {
	Plant int64    `db:"plant_id"`
	Kind  job.Kind `db:"kind"`
	CutM  float64  `db:"cut_m"`
	Ended string   `db:"ended"`
}

// DeedsOn are the cuts to a height and what was made safe on a plant of a property (0: on all) from a day on, the oldest first.
func (s *Store) DeedsOn(ctx context.Context, property, plant int64, since string) ([]DeedOn, error) {
	return many[DeedOn](ctx, s.read, `SELECT coalesce(o.plant_id, x.plant_id) AS plant_id, o.kind,
		coalesce(json_extract(o.params, '$.cut_m'), 0) AS cut_m, o.ended
		FROM job_order o LEFT JOIN order_plant x ON x.order_id = o.id AND o.plant_id IS NULL
		WHERE o.property_id = ? AND o.in_sight = 1 AND o.state = 'done' AND o.ended >= ?
		AND coalesce(o.plant_id, x.plant_id) IS NOT NULL AND (? = 0 OR coalesce(o.plant_id, x.plant_id) = ?)
		AND (o.kind = 'make safe' OR coalesce(json_extract(o.params, '$.cut_m'), 0) > 0) ORDER BY o.ended, o.id`,
		property, since, plant, plant)
}

// Cuts are the cuts of a property's plants that stand as jobs, or were done from a day on.
func (s *Store) Cuts(ctx context.Context, property int64, since string) ([]CutKept, error) {
	return many[CutKept](ctx, s.read, `SELECT coalesce(o.plant_id, x.plant_id) AS plant_id,
		coalesce(json_extract(o.params, '$.purpose'), '') AS purpose, coalesce(json_extract(o.params, '$.part'), 0) AS part, o.state, o.ended
		FROM job_order o LEFT JOIN order_plant x ON x.order_id = o.id AND o.plant_id IS NULL
		WHERE o.property_id = ? AND o.in_sight = 1 AND o.kind = 'prune' AND coalesce(o.plant_id, x.plant_id) IS NOT NULL
		AND (o.state IN ('waiting', 'on a day') OR o.state = 'done' AND o.ended >= ?)`, property, since)
}

// OrdersFull reads some with all that they ask, by id.
func (s *Store) OrdersFull(ctx context.Context, ids []int64) (map[int64]OrderFull, error) {
	out := make(map[int64]OrderFull, len(ids))
	if len(ids) == 0 {
		return out, nil
	}
	query, args, err := sqlx.In(selectFull+`WHERE o.in_sight = 1 AND o.id IN (?)`, ids)
	if err != nil {
		return nil, err
	}
	list, err := many[OrderFull](ctx, s.read, query, args...)
	for _, k := range list {
		out[k.ID] = k
	}
	return out, err
}

// OrdersOf reads some, in the order of their ids.
func (s *Store) OrdersOf(ctx context.Context, ids []int64) ([]Order, error) {
	if len(ids) == 0 {
		return nil, nil
	}
	query, args, err := sqlx.In(selectOrder+`WHERE o.in_sight = 1 AND o.state <> 'dropped' AND o.id IN (?) ORDER BY o.id`, ids)
	if err != nil {
		return nil, err
	}
	return many[Order](ctx, s.read, query, args...)
}
