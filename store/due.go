package store

import (
	"context"

	"mezzadro/core/outcome"
)

// DecidedPlant is a plant with the verdict that stands on it last, and how it was found since.
type DecidedPlant struct {
	PlantID    int64                   `db:"plant_id"`
	PropertyID int64                   `db:"property_id"`
	Property   string                  `db:"property"`
	Species    string                  `db:"species"`
	Label      string                  `db:"label"`
	Gone       string                  `db:"gone"` // day on which it was taken out; empty while it stands
	VerdictID  int64                   `db:"verdict_id"`
	Given      string                  `db:"given"`
	Sentence   string                  `db:"sentence"`
	Patience   *string                 `db:"patience"`
	Prognosis  JSON[outcome.Prognosis] `db:"prognosis"`
	Seen       *string                 `db:"seen"`  // day of the last outcome
	State      *string                 `db:"state"` // what it was
}

// DecidedPlants are those whose last verdict was given from a day on, of properties in sight.
func (s *Store) DecidedPlants(ctx context.Context, from string) ([]DecidedPlant, error) {
	return many[DecidedPlant](ctx, s.read, `SELECT v.plant_id, p.property_id, q.name AS property, p.species, p.label,
		coalesce(date(p.removed_at), '') AS gone, v.id AS verdict_id, v.day AS given, v.sentence,
		json_extract(v.answer, '$.patience_date') AS patience, json_extract(v.answer, '$.prognosis') AS prognosis, o.day AS seen, o.state
		FROM verdict v JOIN plant p ON p.id = v.plant_id JOIN property q ON q.id = p.property_id AND q.removed_at IS NULL
		LEFT JOIN outcome o ON o.id = (SELECT max(id) FROM outcome WHERE verdict_id = v.id AND undone = 0)
		WHERE v.undone = 0 AND v.decision <> 'not now' AND v.kind NOT IN ('check first', 'make safe first') AND v.day >= ?
		AND v.id = (SELECT max(id) FROM verdict WHERE plant_id = v.plant_id AND undone = 0) ORDER BY v.id`, from)
}
