package store

import (
	"context"
	"database/sql"
	"math"
	"time"

	"mezzadro/core/weather"
)

type hourRow struct {
	At   int64           `db:"at"`
	Temp float64         `db:"temp_c"`
	Wind sql.NullFloat64 `db:"wind_ms"`
	Rain sql.NullFloat64 `db:"rain_mm"`
	RH   sql.NullFloat64 `db:"rh_pct"`
	Sun  sql.NullFloat64 `db:"sun"`
	Here bool            `db:"here"`
}

// Weather reads a property's hourly record, oldest first.
func (s *Store) Weather(ctx context.Context, property int64, from, to time.Time) ([]weather.Hour, error) {
	rows, err := many[hourRow](ctx, s.read, `SELECT at, temp_c, wind_ms, rain_mm, rh_pct, sun, here FROM weather_hour
		WHERE property_id = ? AND at >= ? AND at < ? ORDER BY at`, property, from.Unix(), to.Unix())
	out := make([]weather.Hour, len(rows))
	for i, r := range rows {
		out[i] = weather.Hour{Time: time.Unix(r.At, 0).UTC(), TempC: r.Temp, WindMS: orNaN(r.Wind), RainMM: orNaN(r.Rain), RHPct: orNaN(r.RH), Sun: orNaN(r.Sun), Here: r.Here}
	}
	return out, err
}

func orNaN(v sql.NullFloat64) float64 {
	if !v.Valid {
		return math.NaN()
	}
	return v.Float64
}

func orNull(v float64) any {
	if math.IsNaN(v) {
		return nil
	}
	return v
}

// KeepWeather adds hours to a property's record; an hour kept before is replaced. source says where they came from.
func (tx Tx) KeepWeather(ctx context.Context, property int64, source string, hours []weather.Hour) error {
	res, err := tx.ExecContext(ctx, `UPDATE property SET weather_rev = weather_rev + 1, weather_source = ? WHERE id = ? AND removed_at IS NULL`, source, property)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return ErrNotFound
	}
	st, err := tx.PreparexContext(ctx, `INSERT OR REPLACE INTO weather_hour (property_id, at, temp_c, wind_ms, rain_mm, rh_pct, sun, here) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`)
	if err != nil {
		return err
	}
	defer st.Close()
	for _, h := range hours {
		if _, err := st.ExecContext(ctx, property, h.Time.Unix(), h.TempC, orNull(h.WindMS), orNull(h.RainMM), orNull(h.RHPct), orNull(h.Sun), h.Here); err != nil {
			return err
		}
	}
	return nil
}
