package store

import (
	"context"
	"database/sql"

	"github.com/jmoiron/sqlx"

	"mezzadro/core/job"
	"mezzadro/core/treatment"
)

// Product is a product card with what is on hand of it.
type Product struct {
	ID       int64                `db:"id"`
	Card     JSON[treatment.Card] `db:"card"`
	Supplier string               `db:"supplier"`
	Version  int                  `db:"version"`
	OnHand   float64              `db:"on_hand"`
	Label    string               `db:"label_hash"` // of its picture or PDF; empty without
	LabelIs  string               `db:"label_type"` // jpg or pdf
	Expires  string               `db:"expires"`    // of the lot that expires first; empty where none does
}

const selectProduct = `SELECT p.id, p.card, p.supplier, p.version, p.label_hash, p.label_type,
	coalesce((SELECT sum(amount) FROM stock WHERE product_id = p.id AND removed_at IS NULL), 0)
	- coalesce((SELECT sum(amount) FROM product_use WHERE product_id = p.id AND removed_at IS NULL), 0) AS on_hand,
	coalesce((SELECT min(expires) FROM stock WHERE product_id = p.id AND removed_at IS NULL AND expires <> ''), '') AS expires
	FROM product p WHERE p.removed_at IS NULL `

// Products lists them in the order they were entered.
func (s *Store) Products(ctx context.Context) ([]Product, error) {
	return many[Product](ctx, s.read, selectProduct+`ORDER BY p.id`)
}

// Product reads one.
func (s *Store) Product(ctx context.Context, id int64) (Product, error) {
	return product(ctx, s.read, id)
}

func product(ctx context.Context, from getter, id int64) (Product, error) {
	return one[Product](ctx, from, selectProduct+`AND p.id = ?`, id)
}

// Product reads one as the write sees it.
func (tx Tx) Product(ctx context.Context, id int64) (Product, error) { return product(ctx, tx, id) }

// AddProduct keeps a new card.
func (tx Tx) AddProduct(ctx context.Context, p Product) (int64, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO product (card, supplier) VALUES (:card, :supplier)`, p)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// ChangeProduct keeps a changed card if the version is still the kept one.
func (tx Tx) ChangeProduct(ctx context.Context, p Product) error {
	res, err := tx.NamedExecContext(ctx, `UPDATE product SET card = :card, supplier = :supplier, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`, p)
	if err != nil {
		return err
	}
	return changed(res, p.Version, func() (Product, error) { return product(ctx, tx, p.ID) })
}

// SetLabel keeps which file is a product's label; none where it is empty.
func (tx Tx) SetLabel(ctx context.Context, id int64, hash, is string) error {
	return tx.touch(
		ctx,
		`UPDATE product SET label_hash = ?, label_type = ? WHERE id = ? AND removed_at IS NULL`,
		hash,
		is,
		id,
	)
}

// RemoveProduct takes a card out of sight, or brings it back; what was used of it stays.
func (tx Tx) RemoveProduct(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "product", id, remove)
}

// Lot is what was bought or counted in.
type Lot struct {
	ID        int64   `db:"id"`
	ProductID int64   `db:"product_id"`
	Day       string  `db:"day"`
	Amount    float64 `db:"amount"`
	Lot       string  `db:"lot"`
	Expires   string  `db:"expires"`
}

// AddLot keeps one.
func (tx Tx) AddLot(ctx context.Context, l Lot) (int64, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO stock (product_id, day, amount, lot, expires) VALUES (:product_id, :day, :amount, :lot, :expires)`,
		l,
	)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// Use is what was used or done against a cause.
type Use struct {
	ID         int64           `db:"id"`
	PropertyID int64           `db:"property_id"`
	PlantID    sql.NullInt64   `db:"plant_id"`
	FindID     sql.NullInt64   `db:"find_id"`
	OrderID    sql.NullInt64   `db:"order_id"`
	ProductID  sql.NullInt64   `db:"product_id"`
	Product    string          `db:"product"`
	Active     string          `db:"active"`
	Cause      string          `db:"cause"`
	Rung       string          `db:"rung"`
	Step       int             `db:"step"`
	Day        string          `db:"day"`
	Who        string          `db:"who"`
	Amount     float64         `db:"amount"`
	Unit       string          `db:"unit"`
	SprayL     float64         `db:"spray_l"`
	Plants     int             `db:"plants"`
	TempC      sql.NullFloat64 `db:"temp_c"`
	WindMS     sql.NullFloat64 `db:"wind_ms"`
	Note       string          `db:"note"`
	By         string          `db:"by_name"`

	Details JSON[UseDetails] `db:"details"`

	// Of its property and plant, for lists.
	Property string `db:"property"`
	Species  string `db:"species"`
	Label    string `db:"label"`
}

// UseDetails are what an inspector asks of a use beside what it was: as they were that day, whatever card and licence
// say later.
type UseDetails struct {
	Begun        string  `json:"begun,omitempty"` // of the day, as 06:30
	Ended        string  `json:"ended,omitempty"`
	AreaM2       float64 `json:"area_m2,omitempty"`
	WindFrom     string  `json:"wind_from,omitempty"`
	Licence      string  `json:"licence,omitempty"`      // its number
	Registration string  `json:"registration,omitempty"` // of the product
	ReentryH     float64 `json:"reentry_h,omitempty"`
	HarvestDays  int     `json:"harvest_days,omitempty"`
}

const selectUse = `SELECT u.id, u.property_id, u.plant_id, u.find_id, u.order_id, u.product_id, u.product, u.active, u.cause, u.rung, u.step, u.day, u.who,
	u.amount, u.unit, u.spray_l, u.plants, u.temp_c, u.wind_ms, u.note, u.by_name, u.details, p.name AS property, coalesce(t.species, '') AS species, coalesce(t.label, '') AS label
	FROM product_use u JOIN property p ON p.id = u.property_id LEFT JOIN plant t ON t.id = u.plant_id WHERE u.removed_at IS NULL `

// UsesBetween lists what was used, the newest first; of one property where one is named.
func (s *Store) UsesBetween(ctx context.Context, property int64, from, to string, limit int) ([]Use, error) {
	return many[Use](
		ctx,
		s.read,
		selectUse+`AND (? = 0 OR u.property_id = ?) AND u.day BETWEEN ? AND ? ORDER BY u.day DESC, u.id DESC LIMIT ?`,
		property,
		property,
		from,
		to,
		limit,
	)
}

// UsesOn is what was used on a plant from a day on, the oldest first.
func (s *Store) UsesOn(ctx context.Context, plant int64, since string) ([]Use, error) {
	return many[Use](ctx, s.read, selectUse+`AND u.plant_id = ? AND u.day >= ? ORDER BY u.day, u.id`, plant, since)
}

// UsesOnAny is what was used on any of some plants from a day on, the oldest first.
func (s *Store) UsesOnAny(ctx context.Context, plants []int64, since string) ([]Use, error) {
	if len(plants) == 0 {
		return nil, nil
	}
	query, args, err := sqlx.In(selectUse+`AND u.plant_id IN (?) AND u.day >= ? ORDER BY u.day, u.id`, plants, since)
	if err != nil {
		return nil, err
	}
	return many[Use](ctx, s.read, query, args...)
}

// AddUse keeps one and returns its id.
func (tx Tx) AddUse(ctx context.Context, u Use) (int64, error) {
	u.By = by(ctx)
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO product_use (property_id, plant_id, find_id, order_id, product_id, product, active, cause, rung, step, day, who,
		amount, unit, spray_l, plants, temp_c, wind_ms, note, by_name, details) VALUES (:property_id, :plant_id, :find_id, :order_id, :product_id, :product, :active, :cause, :rung,
		:step, :day, :who, :amount, :unit, :spray_l, :plants, :temp_c, :wind_ms, :note, :by_name, :details)`,
		u,
	)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// RemoveUseOf takes the record of a job that is taken back out of sight.
func (tx Tx) RemoveUseOf(ctx context.Context, order int64) error {
	_, err := tx.ExecContext(
		ctx,
		`UPDATE product_use SET removed_at = datetime('now') WHERE order_id = ? AND removed_at IS NULL`,
		order,
	)
	return err
}

// TreatmentsOf are the standing jobs of a find's treatment, and those of all finds where it is 0, with all that they
// ask.
func (s *Store) TreatmentsOf(ctx context.Context, find int64) ([]OrderFull, error) {
	return many[OrderFull](
		ctx,
		s.read,
		selectFull+`WHERE `+standing+` AND o.origin = 'programme' AND (? = 0 OR o.origin_id = ?) ORDER BY o.listed, o.id`,
		find,
		find,
	)
}

// StandingOf reports a standing job of a kind and origin on a plant.
func (tx Tx) StandingOf(ctx context.Context, plant int64, kind job.Kind, origin job.Origin) (bool, error) {
	n, err := one[int](
		ctx,
		tx,
		`SELECT count(*) FROM job_order o WHERE `+standing+` AND o.plant_id = ? AND o.kind = ? AND o.origin = ?`,
		plant,
		kind,
		origin,
	)
	return n > 0, err
}

// PlantsTreated are the plants that standing jobs of programmes are for.
func (s *Store) PlantsTreated(ctx context.Context) ([]Plant, error) {
	return many[Plant](
		ctx,
		s.read,
		selectPlant+`WHERE removed_at IS NULL AND id IN (SELECT o.plant_id FROM job_order o WHERE `+standing+`
		AND o.origin = 'programme')`,
	)
}

// DoneOf names a step of a find's treatment.
type DoneOf struct {
	Find int64  `db:"find_id"`
	Rung string `db:"rung"`
	Step int    `db:"step"`
}

// DoneTimes counts how often steps of treatments were done since a day.
func (s *Store) DoneTimes(ctx context.Context, since string) ([]struct {
	DoneOf
	Count int `db:"count"`
}, error) {
	return many[struct {
		DoneOf
		Count int `db:"count"`
	}](ctx, s.read, `SELECT find_id, rung, step, count(*) AS count FROM product_use WHERE removed_at IS NULL AND find_id IS NOT NULL AND day >= ?
		GROUP BY find_id, rung, step`, since)
}

// HasOrder reports that a programme's job of a key was asked for, whatever became of it.
func (tx Tx) HasOrder(ctx context.Context, find int64, key string) (bool, error) {
	n, err := one[int](
		ctx,
		tx,
		`SELECT count(*) FROM job_order WHERE origin = 'programme' AND origin_id = ? AND key = ?`,
		find,
		key,
	)
	return n > 0, err
}

// TreatmentKeys are a find's treatment jobs that stand, by key.
func (tx Tx) TreatmentKeys(ctx context.Context, find int64) (map[string]int64, error) {
	rows, err := many[struct {
		ID  int64  `db:"id"`
		Key string `db:"key"`
	}](ctx, tx, `SELECT o.id, o.key FROM job_order o WHERE `+standing+` AND o.origin = 'programme' AND o.origin_id = ?`, find)
	out := make(map[string]int64, len(rows))
	for _, r := range rows {
		out[r.Key] = r.ID
	}
	return out, err
}
