package store

import "context"

// Matchings are what was told by hand of the columns of weather files, as JSON by their header.
func (s *Store) Matchings(ctx context.Context) (map[string]string, error) {
	rows, err := many[struct {
		Header   string `db:"header"`
		Matching string `db:"matching"`
	}](ctx, s.read, `SELECT header, matching FROM weather_matching`)
	out := make(map[string]string, len(rows))
	for _, r := range rows {
		out[r.Header] = r.Matching
	}
	return out, err
}

// KeepMatching keeps what the columns of files with a header hold, in place of what was told before.
func (tx Tx) KeepMatching(ctx context.Context, header, matching string) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO weather_matching (header, matching) VALUES (?, ?)
		ON CONFLICT (header) DO UPDATE SET matching = excluded.matching`, header, matching)
	return err
}
