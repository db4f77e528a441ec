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

// WeatherSpan is the first and the last hour kept of a property between two times; ok is false without any.
func (s *Store) WeatherSpan(
	ctx context.Context,
	property int64,
	from, to time.Time,
) (first, last time.Time, ok bool, err error) {
	type span struct {
		First sql.NullInt64 `db:"first"`
		Last  sql.NullInt64 `db:"last"`
	}
	r, err := one[span](
		ctx,
		s.read,
		`SELECT min(at) AS first, max(at) AS last FROM weather_hour WHERE property_id = ? AND at >= ? AND at < ?`,
		property,
		from.Unix(),
		to.Unix(),
	)
	return time.Unix(r.First.Int64, 0).UTC(), time.Unix(r.Last.Int64, 0).UTC(), r.First.Valid, err
}

// KeepWeather adds hours to a property's record; an hour that says something else than the one kept takes its place.
// source says where they came from. It returns how many hours are new or changed: without any, nothing that follows
// from the weather has to be worked out anew.
func (tx Tx) KeepWeather(ctx context.Context, property int64, source string, hours []weather.Hour) (int, error) {
	if _, err := one[int64](ctx, tx, `SELECT id FROM property WHERE id = ? AND removed_at IS NULL`, property); err != nil {
		return 0, err
	}
	st, err := tx.PreparexContext(
		ctx,
		`INSERT INTO weather_hour AS w (property_id, at, temp_c, wind_ms, rain_mm, rh_pct, sun, here) VALUES (?,
			?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT DO UPDATE SET temp_c = excluded.temp_c, wind_ms = excluded.wind_ms, rain_mm = excluded.rain_mm,
		rh_pct = excluded.rh_pct, sun = excluded.sun, here = excluded.here
		WHERE (w.temp_c, w.wind_ms, w.rain_mm, w.rh_pct, w.sun, w.here) IS NOT (excluded.temp_c, excluded.wind_ms,
		excluded.rain_mm, excluded.rh_pct, excluded.sun, excluded.here)`,
	)
	if err != nil {
		return 0, err
	}
	defer st.Close()
	fresh := 0
	for _, h := range hours {
		res, err := st.ExecContext(
			ctx,
			property,
			h.Time.Unix(),
			h.TempC,
			orNull(h.WindMS),
			orNull(h.RainMM),
			orNull(h.RHPct),
			orNull(h.Sun),
			h.Here,
		)
		if err != nil {
			return 0, err
		}
		n, err := res.RowsAffected()
		if err != nil {
			return 0, err
		}
		fresh += int(n)
	}
	moved := 0
	if fresh > 0 {
		moved, tx.touched.weather = 1, true
	}
	return fresh, tx.touch(
		ctx,
		`UPDATE property SET weather_rev = weather_rev + ?, weather_source = ? WHERE id = ? AND removed_at IS NULL`,
		moved,
		source,
		property,
	)
}
