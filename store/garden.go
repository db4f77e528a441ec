package store

import (
	"context"
	"database/sql/driver"
	"encoding/json"
	"fmt"

	"mezzadro/core/cold"
	"mezzadro/core/rules"
	"mezzadro/core/season"

	"github.com/jmoiron/sqlx"
)

// JSON is a value kept as JSON text. One whose text cannot be read is torn: it spoils its own row, and no list that the
// row would stand in.
type JSON[T any] struct {
	V    T
	torn error
}

// Scan reads the kept text.
func (j *JSON[T]) Scan(v any) error {
	s, ok := v.(string)
	if !ok {
		j.torn = fmt.Errorf("%T: kept as %T", j.V, v)
	} else {
		j.torn = json.Unmarshal([]byte(s), &j.V)
	}
	if c, is := any(&j.V).(*season.Climate); is && j.torn == nil {
		j.torn = c.Validate()
	}
	if j.torn != nil {
		tornRead.Add(1)
	}
	return nil
}

// isTorn is what was wrong with the kept text.
func (j JSON[T]) isTorn() error { return j.torn }

// Value is the text to keep; what could not be read is never written back.
func (j JSON[T]) Value() (driver.Value, error) {
	if j.torn != nil {
		return nil, j.torn
	}
	b, err := json.Marshal(j.V)
	return string(b), err
}

// Property is a client's place.
type Property struct {
	ID            int64                `db:"id"`
	Name          string               `db:"name"`
	Client        string               `db:"client"`
	Address       string               `db:"address"`
	Note          string               `db:"note"`
	Zone          Zone                 `db:"zone"`
	Region        string               `db:"region"` // country and state as entered, ISO 3166; empty: the country of its zone
	ClimateType   string               `db:"climate_type"`
	Climate       JSON[season.Climate] `db:"climate"`  // of the open country at its height
	Site          JSON[season.Site]    `db:"site"`     // how the place differs from it
	Exposure      JSON[cold.Exposure]  `db:"exposure"` // what holds for all of it
	Rules         JSON[rules.House]    `db:"rules"`    // house rules that are others here
	Value         float64              `db:"value"`
	WeatherSource string               `db:"weather_source"`
	WeatherRev    int                  `db:"weather_rev"`
	Windowed      string               `db:"windowed"` // the year its orders' windows were last worked out for
	Version       int                  `db:"version"`
	Plants        int                  `db:"plants"`
}

const selectProperty = `SELECT p.id, p.name, p.client, p.address, p.note, p.zone, p.region, p.climate_type, p.climate,
	p.site, p.exposure, p.rules, p.value, p.weather_source,
	p.weather_rev, p.windowed, p.version, (SELECT count(*) FROM plant WHERE property_id = p.id AND removed_at IS
		NULL) AS plants FROM property p `

// Properties lists the firm's properties after an id, in the order they were added.
func (s *Store) Properties(ctx context.Context, after int64, limit int) ([]Property, error) {
	return many[Property](
		ctx,
		s.read,
		selectProperty+`WHERE p.removed_at IS NULL AND p.id > ? ORDER BY p.id LIMIT ?`,
		after,
		limit,
	)
}

// Property reads one.
func (s *Store) Property(ctx context.Context, id int64) (Property, error) {
	return one[Property](ctx, s.read, selectProperty+`WHERE p.removed_at IS NULL AND p.id = ?`, id)
}

// AddProperty keeps a new property and returns it with its id.
func (tx Tx) AddProperty(ctx context.Context, p Property) (Property, error) {
	tx.touched.plants = true
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO property (name, client, address, note, zone, region, climate_type, climate, site, exposure, rules, value,
			weather_source)
		VALUES (:name, :client, :address, :note, :zone, :region, :climate_type, :climate, :site, :exposure, :rules, :value,
		:weather_source)`,
		p,
	)
	if err != nil {
		return p, err
	}
	p.ID, err = res.LastInsertId()
	p.Version = 1
	return p, err
}

// ChangeProperty keeps the new values if the version is still the kept one.
func (tx Tx) ChangeProperty(ctx context.Context, p Property) (Property, error) {
	tx.touched.plants = true
	res, err := tx.NamedExecContext(
		ctx,
		`UPDATE property SET name = :name, client = :client, address = :address, note = :note,
		zone = :zone, region = :region, climate_type = :climate_type, climate = :climate, site = :site, exposure = :exposure, rules = :rules, value =
		:value, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`,
		p,
	)
	if err != nil {
		return p, err
	}
	current := func() (Property, error) {
		return one[Property](ctx, tx, selectProperty+`WHERE p.removed_at IS NULL AND p.id = ?`, p.ID)
	}
	if err := changed(res, p.Version, current); err != nil {
		return p, err
	}
	return current()
}

// RemoveProperty takes a property out of sight, or brings it back.
func (tx Tx) RemoveProperty(ctx context.Context, id int64, remove bool) error {
	if err := tx.remove(ctx, "property", id, remove); err != nil {
		return err
	}
	return tx.sight(ctx, `property_id = ?`, id)
}

// remove sets or clears the mark of removal of a property or plant.
func (tx Tx) remove(ctx context.Context, table string, id int64, remove bool) error {
	tx.touched.plants = true
	return tx.removeRow(ctx, table, id, remove)
}

// removeRow sets or clears the mark of removal.
func (tx Tx) removeRow(ctx context.Context, table string, id int64, remove bool) error {
	query := `UPDATE ` + table + ` SET removed_at = NULL WHERE id = ?`
	if remove {
		query = `UPDATE ` + table + ` SET removed_at = datetime('now') WHERE id = ? AND removed_at IS NULL`
	}
	res, err := tx.ExecContext(ctx, query, id)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return ErrNotFound
	}
	return nil
}

// Plant is one plant, or a group kept as one.
type Plant struct {
	ID         int64   `db:"id"`
	PropertyID int64   `db:"property_id"`
	Species    string  `db:"species"`
	Label      string  `db:"label"`
	HeightM    float64 `db:"height_m"`
	SpreadM    float64 `db:"spread_m"`
	Count      int     `db:"count"`
	BaseMM     float64 `db:"base_mm"`
	PotL       float64 `db:"pot_l"`
	Shelter    float64 `db:"shelter"`
	Sun        float64 `db:"sun"`
	Mulched    bool    `db:"mulched"`
	Value      float64 `db:"value"`
	Stop       int     `db:"stop"`
	GraftM     float64 `db:"graft_m"`
	Planted    int     `db:"planted"`
	RowM       float64 `db:"row_m"`  // length of the row or hedge a group stands in; 0: not measured
	BedM2      float64 `db:"bed_m2"` // area of the bed a group fills; 0: not measured
	cold.Exposure
	Note    string `db:"note"`
	Version int    `db:"version"`
}

const selectPlant = `SELECT id, property_id, species, label, height_m, spread_m, count, base_mm, pot_l, shelter,
	sun, mulched, value, stop, graft_m, planted, row_m, bed_m2, facing, wall, slope, soil, wet, note, version FROM plant `

// Plants lists plants after an id, of one property or, with 0, of all that are in sight.
func (s *Store) Plants(ctx context.Context, property, after int64, limit int) ([]Plant, error) {
	return many[Plant](ctx, s.read, selectPlant+`WHERE removed_at IS NULL AND (? = 0 OR property_id = ?) AND id > ?
		AND property_id IN (SELECT id FROM property WHERE removed_at IS NULL) ORDER BY id LIMIT ?`, property, property, after, limit)
}

// Plant reads one.
func (s *Store) Plant(ctx context.Context, id int64) (Plant, error) { return plant(ctx, s.read, id) }

func plant(ctx context.Context, from getter, id int64) (Plant, error) {
	return one[Plant](ctx, from, selectPlant+`WHERE id = ? AND removed_at IS NULL`, id)
}

// AddPlant keeps a new plant and returns it with its id.
func (tx Tx) AddPlant(ctx context.Context, p Plant) (Plant, error) {
	tx.touched.plants = true
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO plant (property_id, species, label, height_m, spread_m, count, base_mm, pot_l, shelter, sun,
			mulched, value, stop, graft_m, planted, row_m, bed_m2, facing, wall, slope, soil, wet, note)
		SELECT id, :species, :label, :height_m, :spread_m, :count, :base_mm, :pot_l, :shelter, :sun, :mulched,
		:value, :stop, :graft_m, :planted, :row_m, :bed_m2, :facing, :wall, :slope, :soil, :wet, :note FROM property WHERE id = :property_id AND removed_at IS NULL`,
		p,
	)
	if err != nil {
		return p, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return p, ErrNotFound
	}
	p.ID, err = res.LastInsertId()
	p.Version = 1
	return p, err
}

// Extent is what a plant's group was measured to take up: a row or hedge by its length, or a bed by its area.
type Extent struct {
	RowM  float64
	BedM2 float64
}

// SetExtent keeps how long the row is that a plant's group stands in, or how large the bed.
func (tx Tx) SetExtent(ctx context.Context, plant int64, e Extent) error {
	tx.touched.plants = true
	_, err := tx.ExecContext(ctx, `UPDATE plant SET row_m = ?, bed_m2 = ?, version = version + 1 WHERE id = ? AND removed_at IS NULL`,
		e.RowM, e.BedM2, plant)
	return err
}

// ChangePlant keeps the new values if the version is still the kept one.
func (tx Tx) ChangePlant(ctx context.Context, p Plant) (Plant, error) {
	tx.touched.plants = true
	res, err := tx.NamedExecContext(ctx, `UPDATE plant SET species = :species, label = :label, height_m = :height_m,
		spread_m = :spread_m, count = :count, base_mm = :base_mm, pot_l = :pot_l, shelter = :shelter, sun = :sun,
		mulched = :mulched,
		value = :value, stop = :stop, graft_m = :graft_m, planted = :planted, row_m = :row_m, bed_m2 = :bed_m2, facing = :facing, wall = :wall, slope
		= :slope, soil = :soil, wet = :wet, note = :note, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`, p)
	if err != nil {
		return p, err
	}
	current := func() (Plant, error) { return plant(ctx, tx, p.ID) }
	if err := changed(res, p.Version, current); err != nil {
		return p, err
	}
	return current()
}

// RemovePlant takes a plant out of sight, or brings it back.
func (tx Tx) RemovePlant(ctx context.Context, id int64, remove bool) error {
	if err := tx.remove(ctx, "plant", id, remove); err != nil {
		return err
	}
	return tx.sight(ctx, `plant_id = ?`, id)
}

// PlantsByID are those of some plants that are in sight, by id.
func (s *Store) PlantsByID(ctx context.Context, ids []int64) (map[int64]Plant, error) {
	out := make(map[int64]Plant, len(ids))
	if len(ids) == 0 {
		return out, nil
	}
	query, args, err := sqlx.In(selectPlant+`WHERE removed_at IS NULL AND id IN (?)`, ids)
	if err != nil {
		return out, err
	}
	list, err := many[Plant](ctx, s.read, query, args...)
	for _, p := range list {
		out[p.ID] = p
	}
	return out, err
}
