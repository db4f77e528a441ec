package store

import (
	"context"
	"database/sql"
	"math"
	"time"

	"mezzadro/core/weather"
)

// Weather reads a property's hourly record, oldest first. It is the longest read there is, so it scans by hand.
func (s *Store) Weather(ctx context.Context, property int64, from, to time.Time) ([]weather.Hour, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT at, temp_c, wind_ms, rain_mm, rh_pct, sun, here FROM weather_hour
		WHERE property_id = ? AND at >= ? AND at < ? ORDER BY at`, property, from.Unix(), to.Unix())
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := make([]weather.Hour, 0, max(0, min(20000, int(to.Sub(from)/time.Hour))))
	for rows.Next() {
		var at int64
		var h weather.Hour
		var wind, rain, rh, sun sql.NullFloat64
		if err := rows.Scan(&at, &h.TempC, &wind, &rain, &rh, &sun, &h.Here); err != nil {
			return nil, err
		}
		h.Time, h.WindMS, h.RainMM, h.RHPct, h.Sun = time.Unix(at, 0).UTC(), orNaN(wind), orNaN(rain), orNaN(rh), orNaN(sun)
		out = append(out, h)
	}
	return out, rows.Err()
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
