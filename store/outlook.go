package store

import (
	"context"
	"fmt"
)

// Outlook is the weather of a day ahead at a property, as a station told it.
type Outlook struct {
	PropertyID int64   `db:"property_id"`
	Day        string  `db:"day"`
	ToldOn     string  `db:"told_on"`
	RainMM     float64 `db:"rain_mm"`
	WindMS     float64 `db:"wind_ms"`
	MinC       float64 `db:"min_c"`
	MaxC       float64 `db:"max_c"`
	Source     string  `db:"source"`
}

// Outlooks are the days from one on that were told on a day or later, of all properties.
func (s *Store) Outlooks(ctx context.Context, from, told string) ([]Outlook, error) {
	return many[Outlook](ctx, s.read, `SELECT property_id, day, told_on, rain_mm, wind_ms, min_c, max_c, source
		FROM outlook WHERE day >= ? AND told_on >= ? ORDER BY property_id, day`, from, told)
}

// nightsBack is for how many days nights are kept as they were told.
const nightsBack = 100

// SetOutlook keeps what a property was told in the place of all it was told before; its nights are kept beside, as they
// were told that day.
func (tx Tx) SetOutlook(ctx context.Context, property int64, list []Outlook) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM outlook WHERE property_id = ?`, property); err != nil {
		return err
	}
	for _, o := range list {
		if _, err := tx.NamedExecContext(ctx, `INSERT INTO outlook
			(property_id, day, told_on, rain_mm, wind_ms, min_c, max_c, source)
			VALUES (:property_id, :day, :told_on, :rain_mm, :wind_ms, :min_c, :max_c, :source)`, o); err != nil {
			return err
		}
		if _, err := tx.NamedExecContext(ctx, `INSERT OR REPLACE INTO night_told (property_id, told_on, day, min_c)
			VALUES (:property_id, :told_on, :day, :min_c)`, o); err != nil {
			return err
		}
	}
	if len(list) == 0 {
		return nil
	}
	_, err := tx.ExecContext(ctx, `DELETE FROM night_told WHERE property_id = ? AND day < date(?, ?)`,
		property, list[0].ToldOn, fmt.Sprintf("-%d days", nightsBack))
	return err
}

// NightTold is the lowest temperature of a day as it was told on another.
type NightTold struct {
	PropertyID int64   `db:"property_id"`
	ToldOn     string  `db:"told_on"`
	Day        string  `db:"day"`
	MinC       float64 `db:"min_c"`
}

// NightsTold are those of days from one on up to before another, that were told before the day itself, by property.
func (s *Store) NightsTold(ctx context.Context, from, to string) ([]NightTold, error) {
	return many[NightTold](ctx, s.read, `SELECT property_id, told_on, day, min_c FROM night_told
		WHERE day >= ? AND day < ? AND told_on < day ORDER BY property_id, day, told_on`, from, to)
}
