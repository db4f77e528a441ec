package store

import (
	"context"
	"database/sql"
	"fmt"
	"math"
	"time"

	"mezzadro/core/weather"
)

// Ranks of sources: a lower one fills gaps of a higher, and never takes its place.
const (
	OfTheRegion = 1 // the firm's station, or a file from elsewhere
	OfTheGarden = 2 // measured in the garden itself
)

// WeatherSource is where hours of a property came from.
type WeatherSource struct {
	ID         int64  `db:"id"`
	PropertyID int64  `db:"property_id"`
	Name       string `db:"name"`
	File       bool   `db:"file"` // taken over once
	Rank       int    `db:"rank"`
	Taken      string `db:"taken"` // the day a file was taken over
	Removed    bool   `db:"removed"`
	Hours      int    `db:"-"` // that it told in the time asked for
	First      int64  `db:"-"` // Unix seconds of the first and the last of them
	Last       int64  `db:"-"`
}

// weatherSources are a property's that were not taken back, the highest first, without what they told.
func (s *Store) weatherSources(ctx context.Context, property int64) ([]WeatherSource, error) {
	return many[WeatherSource](ctx, s.read, `SELECT id, property_id, name, file, rank, taken, removed FROM weather_source
		WHERE property_id = ? AND removed = 0 ORDER BY rank DESC, id DESC`, property)
}

// Weather reads a property's hourly record, oldest first: of each hour what the highest source says, with the latest of its
// rank, and what that does not measure from the next. It is the longest read there is, so it scans by hand.
func (s *Store) Weather(ctx context.Context, property int64, from, to time.Time) ([]weather.Hour, error) {
	hours, _, err := s.WeatherFrom(ctx, property, from, to)
	return hours, err
}

// WeatherFrom is the same with its sources, the highest first, and what each told in that time.
func (s *Store) WeatherFrom(ctx context.Context, property int64, from, to time.Time) ([]weather.Hour, []WeatherSource, error) {
	sources, err := s.weatherSources(ctx, property)
	if err != nil {
		return nil, nil, err
	}
	of := make(map[int64]*WeatherSource, len(sources))
	for i := range sources {
		of[sources[i].ID] = &sources[i]
	}
	rows, err := s.read.QueryContext(ctx, `SELECT at, source_id, temp_c, wind_ms, rain_mm, rh_pct, sun FROM weather_hour
		WHERE property_id = ? AND at >= ? AND at < ? ORDER BY at, source_id`, property, from.Unix(), to.Unix())
	if err != nil {
		return nil, nil, err
	}
	defer rows.Close()
	out := make([]weather.Hour, 0, max(0, min(20000, int(to.Sub(from)/time.Hour))))
	last, lastRank := int64(math.MinInt64), 0
	var cells [7]any // as they come: turning each into the type of a field takes twice as long
	into := []any{&cells[0], &cells[1], &cells[2], &cells[3], &cells[4], &cells[5], &cells[6]}
	for rows.Next() {
		if err := rows.Scan(into...); err != nil {
			return nil, nil, err
		}
		at, source, h, err := hourOf(&cells)
		if err != nil {
			return nil, nil, err
		}
		by := of[source]
		if by == nil {
			continue // taken back
		}
		rank := by.Rank
		if by.Hours++; by.Hours == 1 {
			by.First = at
		}
		by.Last = at
		h.Here, h.Source = rank == OfTheGarden, source
		switch {
		case at != last:
			out, last, lastRank = append(out, h), at, rank
		case rank >= lastRank:
			out[len(out)-1], lastRank = h.Filled(out[len(out)-1]), rank
		default:
			out[len(out)-1] = out[len(out)-1].Filled(h)
		}
	}
	return out, sources, rows.Err()
}

// hourOf is a row of the record: its hour, its source and what was measured, no number where nothing was.
func hourOf(cells *[7]any) (at, source int64, h weather.Hour, err error) {
	at, timed := cells[0].(int64)
	source, known := cells[1].(int64)
	if !timed || !known {
		return 0, 0, h, fmt.Errorf("weather: %v of source %v is no hour", cells[0], cells[1])
	}
	h.Time = time.Unix(at, 0).UTC()
	for i, to := range [...]*float64{&h.TempC, &h.WindMS, &h.RainMM, &h.RHPct, &h.Sun} {
		switch v := cells[2+i].(type) {
		case nil:
			*to = math.NaN()
		case float64:
			*to = v
		default:
			return 0, 0, h, fmt.Errorf("weather: %v at %s is no measure", v, h.Time)
		}
	}
	return at, source, h, nil
}

func orNull(v float64) any {
	if math.IsNaN(v) {
		return nil
	}
	return v
}

// StationSpan is the first and the last hour kept of a property's station between two times; ok is false without any.
func (s *Store) StationSpan(
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
		`SELECT min(w.at) AS first, max(w.at) AS last FROM weather_hour w JOIN weather_source s ON s.id = w.source_id
		WHERE w.property_id = ? AND w.at >= ? AND w.at < ? AND s.file = 0 AND s.removed = 0`,
		property,
		from.Unix(),
		to.Unix(),
	)
	return time.Unix(r.First.Int64, 0).UTC(), time.Unix(r.Last.Int64, 0).UTC(), r.First.Valid, err
}

// SourceIn is where hours come from that are to be kept.
type SourceIn struct {
	Name string
	File bool // a file is a source of its own, a station one with what it told before
	Rank int
	Day  string // on which a file is taken over
}

// sourceFor is the source under which hours are kept.
func (tx Tx) sourceFor(ctx context.Context, property int64, in SourceIn) (int64, error) {
	if !in.File {
		id, err := one[int64](ctx, tx, `SELECT id FROM weather_source WHERE property_id = ? AND name = ? AND rank = ? AND file = 0 AND removed = 0
			ORDER BY id DESC LIMIT 1`, property, in.Name, in.Rank)
		if there, err := There(err); err != nil || there {
			return id, err
		}
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO weather_source (property_id, name, file, rank, taken) VALUES (?, ?, ?, ?, ?)`,
		property, in.Name, in.File, in.Rank, in.Day)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// KeepWeather adds hours to a property's record; an hour of the same source that says something else than the one kept
// takes its place. It returns how many hours are new or changed: without any, nothing that follows from the weather has to
// be worked out anew.
func (tx Tx) KeepWeather(ctx context.Context, property int64, in SourceIn, hours []weather.Hour) (int, error) {
	if _, err := one[int64](ctx, tx, `SELECT id FROM property WHERE id = ? AND removed_at IS NULL`, property); err != nil {
		return 0, err
	}
	source, err := tx.sourceFor(ctx, property, in)
	if err != nil {
		return 0, err
	}
	st, err := tx.PreparexContext(
		ctx,
		`INSERT INTO weather_hour AS w (property_id, at, source_id, temp_c, wind_ms, rain_mm, rh_pct, sun) VALUES (?,
			?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT DO UPDATE SET temp_c = excluded.temp_c, wind_ms = excluded.wind_ms, rain_mm = excluded.rain_mm,
		rh_pct = excluded.rh_pct, sun = excluded.sun
		WHERE (w.temp_c, w.wind_ms, w.rain_mm, w.rh_pct, w.sun) IS NOT (excluded.temp_c, excluded.wind_ms,
		excluded.rain_mm, excluded.rh_pct, excluded.sun)`,
	)
	if err != nil {
		return 0, err
	}
	defer st.Close()
	fresh := 0
	for _, h := range hours {
		res, err := st.ExecContext(ctx, property, h.Time.Unix(), source, h.TempC, orNull(h.WindMS), orNull(h.RainMM), orNull(h.RHPct), orNull(h.Sun))
		if err != nil {
			return 0, err
		}
		n, err := res.RowsAffected()
		if err != nil {
			return 0, err
		}
		fresh += int(n)
	}
	return fresh, tx.weatherMoved(ctx, property, in.Name, fresh > 0)
}

// weatherMoved notes that a property's weather is another one now, and where it came from last.
func (tx Tx) weatherMoved(ctx context.Context, property int64, source string, is bool) error {
	moved := 0
	if is {
		moved, tx.touched.weather = 1, true
	}
	return tx.touch(
		ctx,
		`UPDATE property SET weather_rev = weather_rev + ?, weather_source = ? WHERE id = ? AND removed_at IS NULL`,
		moved,
		source,
		property,
	)
}

// TakeBackSource takes a source of a property's weather out of it, or brings it back; what lies beneath it counts again.
func (tx Tx) TakeBackSource(ctx context.Context, property, id int64, back bool) error {
	if err := tx.touch(ctx, `UPDATE weather_source SET removed = ? WHERE id = ? AND property_id = ? AND removed <> ?`, !back, id, property, !back); err != nil {
		return err
	}
	return tx.newestSource(ctx, property)
}

// DropStations takes all that stations told of a property out of its record: it lies somewhere else now.
func (tx Tx) DropStations(ctx context.Context, property int64) error {
	if _, err := tx.ExecContext(ctx, `UPDATE weather_source SET removed = 1 WHERE property_id = ? AND file = 0`, property); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM outlook WHERE property_id = ?`, property); err != nil {
		return err
	}
	return tx.newestSource(ctx, property)
}

// newestSource names the source that was taken over last of those that are left.
func (tx Tx) newestSource(ctx context.Context, property int64) error {
	name, err := one[string](ctx, tx, `SELECT coalesce((SELECT name FROM weather_source WHERE property_id = ? AND removed = 0 ORDER BY rank DESC, id DESC LIMIT 1), '')`, property)
	if err != nil {
		return err
	}
	return tx.weatherMoved(ctx, property, name, true)
}
