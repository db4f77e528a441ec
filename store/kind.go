package store

import "context"

// KindWord is what the firm says of a kind: its price, and whether it must not be planted in its region.
type KindWord struct {
	Species string  `db:"species"`
	Price   float64 `db:"price"` // for one; 0: not said
	Banned  bool    `db:"banned"`
}

// KindWords are all of them, by catalogue id.
func (s *Store) KindWords(ctx context.Context) ([]KindWord, error) {
	return many[KindWord](ctx, s.read, `SELECT species, price, banned FROM kind_word ORDER BY species`)
}

// SetKindWord keeps what the firm says of a kind, in the place of what stood there; nothing is kept where it says
// nothing.
func (tx Tx) SetKindWord(ctx context.Context, w KindWord) error {
	if w.Price == 0 && !w.Banned {
		_, err := tx.ExecContext(ctx, `DELETE FROM kind_word WHERE species = ?`, w.Species)
		return err
	}
	_, err := tx.NamedExecContext(ctx, `INSERT INTO kind_word (species, price, banned) VALUES (:species, :price, :banned)
		ON CONFLICT (species) DO UPDATE SET price = excluded.price, banned = excluded.banned`, w)
	return err
}

// KindRecord is how many plants of a kind stand in the record, and how many were lost.
type KindRecord struct {
	Species string `db:"species"`
	Stood   int    `db:"stood"`
	Lost    int    `db:"lost"`
}

// KindRecords are those of all kinds that were ever in the record. Lost is what was found dead, or taken out after a
// verdict to replace it; what was merely taken out of the record counts for nothing.
func (s *Store) KindRecords(ctx context.Context) ([]KindRecord, error) {
	return many[KindRecord](ctx, s.read, `SELECT species, sum(CASE WHEN gone = 0 AND removed_at IS NULL THEN count ELSE 0 END) AS stood,
		sum(CASE WHEN gone > 0 THEN count ELSE 0 END) AS lost
		FROM (SELECT p.species, p.count, p.removed_at,
			EXISTS (SELECT 1 FROM outcome o WHERE o.plant_id = p.id AND o.state = 'dead' AND o.undone = 0)
			OR p.removed_at IS NOT NULL AND EXISTS (SELECT 1 FROM verdict v WHERE v.plant_id = p.id AND v.undone = 0
				AND v.decision = 'accepted' AND v.kind = 'replace') AS gone FROM plant p)
		GROUP BY species ORDER BY species`)
}

// Gone are the plants of a property that were taken out of the record, with the day.
func (s *Store) Gone(ctx context.Context, property int64) ([]GonePlant, error) {
	return many[GonePlant](ctx, s.read, `SELECT p.id, p.species, p.label, substr(p.removed_at, 1, 4) AS year,
		coalesce((SELECT f.cause FROM find f WHERE f.plant_id = p.id AND f.prevent = 0
			ORDER BY f.certainty DESC, f.id DESC LIMIT 1), '') AS cause
		FROM plant p WHERE p.property_id = ? AND p.removed_at IS NOT NULL`, property)
}

// GonePlant is a plant that is not in the record any more.
type GonePlant struct {
	ID      int64  `db:"id"`
	Species string `db:"species"`
	Label   string `db:"label"`
	Year    int    `db:"year"`
	Cause   string `db:"cause"`
}

// KeyedOrder is a standing order that was made together with others, by a key.
type KeyedOrder struct {
	ID      int64   `db:"id"`
	PlantID *int64  `db:"plant_id"`
	Title   string  `db:"title"`
	State   string  `db:"state"`
	Day     *string `db:"day"`
}

// StandingByKey are the orders of a property that stand and were made under a key.
func (s *Store) StandingByKey(ctx context.Context, property int64, key string) ([]KeyedOrder, error) {
	return many[KeyedOrder](ctx, s.read, `SELECT o.id, o.plant_id, o.title, o.state, o.day FROM job_order o
		WHERE `+standing+` AND o.property_id = ? AND o.key = ? ORDER BY o.id`, property, key)
}
