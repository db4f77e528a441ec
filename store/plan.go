package store

import (
	"context"
	"errors"

	"mezzadro/core/site"
)

// SitePlan is a property seen from above.
type SitePlan struct {
	PropertyID int64           `db:"property_id"`
	Body       JSON[site.Plan] `db:"body"`
	Version    int             `db:"version"`
}

const planOf = `SELECT property_id, body, version FROM site_plan WHERE property_id = ?`

// Plan is a property's; version 0 and empty where none was drawn.
func (s *Store) Plan(ctx context.Context, property int64) (SitePlan, error) {
	p, err := one[SitePlan](ctx, s.read, planOf, property)
	if errors.Is(err, ErrNotFound) {
		return SitePlan{PropertyID: property}, nil
	}
	return p, err
}

// SetPlan keeps a plan, if it is based on the version that is kept; 0 where there was none.
func (tx Tx) SetPlan(ctx context.Context, p SitePlan) (SitePlan, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO site_plan (property_id, body, version) VALUES (:property_id, :body, 1)
		ON CONFLICT (property_id) DO UPDATE SET body = excluded.body, version = version + 1 WHERE version = :version`, p)
	if err != nil {
		return p, err
	}
	current := func() (SitePlan, error) { return one[SitePlan](ctx, tx, planOf, p.PropertyID) }
	if err := changed(res, p.Version, current); err != nil {
		return p, err
	}
	return current()
}
