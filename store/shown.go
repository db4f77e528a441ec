package store

import "context"

// FreezeShown is what a look after a freeze tells of its garden and its kind.
type FreezeShown struct {
	VerdictID  int64           `db:"verdict_id"`
	PlantID    int64           `db:"plant_id"`
	PropertyID int64           `db:"property_id"`
	Species    string          `db:"species"`
	EventDay   string          `db:"event_day"`
	Spot       string          `db:"spot"`
	Here       bool            `db:"here"`
	Low        float64         `db:"low"`
	High       float64         `db:"high"`
	Ends       float64         `db:"ends"`
	Logs       JSON[[]float64] `db:"logs"`
}

// KeepShown keeps it with its verdict.
func (tx Tx) KeepShown(ctx context.Context, s FreezeShown) error {
	_, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO freeze_shown (verdict_id, event_day, spot, here, low, high, ends, logs)
		VALUES (:verdict_id, :event_day, :spot, :here, :low, :high, :ends, :logs)`,
		s,
	)
	return err
}

// AllShown is what stands of it: of each plant and freeze the last word, of plants and verdicts that are in sight.
func (s *Store) AllShown(ctx context.Context) ([]FreezeShown, error) {
	return many[FreezeShown](ctx, s.read, `SELECT f.verdict_id, v.plant_id, p.property_id, p.species, f.event_day, f.spot, f.here,
			f.low, f.high, f.ends, f.logs
		FROM freeze_shown f JOIN verdict v ON v.id = f.verdict_id JOIN plant p ON p.id = v.plant_id
		JOIN property q ON q.id = p.property_id
		WHERE v.undone = 0 AND q.removed_at IS NULL AND NOT EXISTS (
			SELECT 1 FROM freeze_shown g JOIN verdict w ON w.id = g.verdict_id
			WHERE w.plant_id = v.plant_id AND w.undone = 0 AND g.event_day = f.event_day AND g.verdict_id > f.verdict_id)
		ORDER BY f.verdict_id`)
}

// ShownRev tells whether AllShown may have changed.
func (s *Store) ShownRev(ctx context.Context) (string, error) {
	return one[string](ctx, s.read, `SELECT (SELECT coalesce(max(verdict_id), 0) FROM freeze_shown) || ' ' ||
		(SELECT count(*) FROM freeze_shown f JOIN verdict v ON v.id = f.verdict_id WHERE v.undone = 0) || ' ' ||
		(SELECT coalesce(group_concat(what), '') FROM learnt_off)`)
}
