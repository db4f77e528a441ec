package store

import "context"

// FirstSteps is how far a record has come that is still new.
type FirstSteps struct {
	Property int64 `db:"property" json:"property" doc:"The first that was entered; 0 without one"`
	Plant    int64 `db:"plant" json:"plant" doc:"The first on it; 0 without one"`
	Checked  bool  `db:"checked" json:"checked" doc:"A plant was looked at"`
	Decided  bool  `db:"decided" json:"decided" doc:"A verdict was accepted or overruled"`
}

// FirstSteps is how far the record has come.
func (s *Store) FirstSteps(ctx context.Context) (FirstSteps, error) {
	return one[FirstSteps](ctx, s.read, `WITH first AS (SELECT coalesce(
			(SELECT min(p.id) FROM property p WHERE p.removed_at IS NULL AND EXISTS
				(SELECT 1 FROM plant l WHERE l.property_id = p.id AND l.removed_at IS NULL)),
			(SELECT min(id) FROM property WHERE removed_at IS NULL), 0) AS property)
		SELECT property,
			coalesce((SELECT min(id) FROM plant WHERE property_id = first.property AND removed_at IS NULL), 0) AS plant,
			EXISTS (SELECT 1 FROM plant_check) AS checked,
			EXISTS (SELECT 1 FROM verdict WHERE decision <> 'not now' AND undone = 0) AS decided
		FROM first`)
}
