package store

import (
	"context"
	"errors"

	"mezzadro/core/catalogue"
)

type speciesRow struct {
	Entry   JSON[catalogue.Entry] `db:"entry"`
	Version int                   `db:"version"`
}

// Own is an entry that the firm wrote or corrected.
type Own struct {
	Entry   catalogue.Entry
	Version int
}

// OwnSpecies lists the firm's own and corrected species entries.
func (s *Store) OwnSpecies(ctx context.Context) ([]Own, error) {
	rows, err := many[speciesRow](ctx, s.read, `SELECT entry, version FROM species ORDER BY id`)
	out := make([]Own, len(rows))
	for i, r := range rows {
		out[i] = Own{r.Entry.V, r.Version}
	}
	return out, err
}

// KeepSpecies keeps an entry as the firm's own, in place of an earlier one. The write is based on a version of it: 0
// for none, or a negative one that takes the place of whatever is kept.
func (tx Tx) KeepSpecies(ctx context.Context, e catalogue.Entry, version int) error {
	tx.touched.book = true
	now, err := one[speciesRow](ctx, tx, `SELECT entry, version FROM species WHERE id = ?`, e.ID)
	if err != nil && !errors.Is(err, ErrNotFound) {
		return err
	}
	if version >= 0 && now.Version != version {
		return Stale{version, now.Entry.V}
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO species (id, entry) VALUES (?, ?)
		ON CONFLICT (id) DO UPDATE SET entry = excluded.entry, version = version + 1`, e.ID, JSON[catalogue.Entry]{V: e})
	return err
}

// SpeciesInUse tells how many plants in sight are of a species.
func (tx Tx) SpeciesInUse(ctx context.Context, id string) (int, error) {
	return one[int](ctx, tx, `SELECT count(*) FROM plant WHERE species = ? AND removed_at IS NULL`, id)
}

// DropSpecies takes the firm's own entry out and gives it back, so that it can be kept again.
func (tx Tx) DropSpecies(ctx context.Context, id string) (catalogue.Entry, error) {
	tx.touched.book = true
	r, err := one[speciesRow](ctx, tx, `SELECT entry, version FROM species WHERE id = ?`, id)
	if err != nil {
		return r.Entry.V, err
	}
	_, err = tx.ExecContext(ctx, `DELETE FROM species WHERE id = ?`, id)
	return r.Entry.V, err
}

// OwnNames are what the firm's lists call kinds by, by name.
func (s *Store) OwnNames(ctx context.Context) (map[string]string, error) {
	rows, err := many[struct {
		Name    string `db:"name"`
		Species string `db:"species"`
	}](ctx, s.read, `SELECT name, species FROM own_name ORDER BY name`)
	out := make(map[string]string, len(rows))
	for _, r := range rows {
		out[r.Name] = r.Species
	}
	return out, err
}

// KeepOwnName keeps that the firm calls a kind so, in place of what was so called before.
func (tx Tx) KeepOwnName(ctx context.Context, name, species string) error {
	tx.touched.book = true
	_, err := tx.ExecContext(ctx, `INSERT INTO own_name (name, species) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET species = excluded.species`, name, species)
	return err
}
