package store

import "context"

// Person is one who works for the firm.
type Person struct {
	ID      int64          `db:"id"`
	Name    string         `db:"name"`
	Skills  JSON[[]string] `db:"skills"`
	Licence string         `db:"licence"` // its number
	Version int            `db:"version"`
}

const selectPerson = `SELECT id, name, skills, licence, version FROM person WHERE removed_at IS NULL `

// People lists those in sight by name.
func (s *Store) People(ctx context.Context) ([]Person, error) {
	return many[Person](ctx, s.read, selectPerson+`ORDER BY name COLLATE NOCASE, id`)
}

// People lists them as the write sees them.
func (tx Tx) People(ctx context.Context) ([]Person, error) {
	return many[Person](ctx, tx, selectPerson+`ORDER BY name COLLATE NOCASE, id`)
}

// AddPerson keeps a new one and returns it with its id.
func (tx Tx) AddPerson(ctx context.Context, p Person) (Person, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO person (name, skills, licence) VALUES (:name, :skills, :licence)`, p)
	if err != nil {
		return p, err
	}
	p.Version = 1
	p.ID, err = res.LastInsertId()
	return p, err
}

// ChangePerson keeps the new values if the version is still the kept one.
func (tx Tx) ChangePerson(ctx context.Context, p Person) (Person, error) {
	res, err := tx.NamedExecContext(ctx, `UPDATE person SET name = :name, skills = :skills, licence = :licence, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`, p)
	if err != nil {
		return p, err
	}
	current := func() (Person, error) { return one[Person](ctx, tx, selectPerson+`AND id = ?`, p.ID) }
	if err := changed(res, p.Version, current); err != nil {
		return p, err
	}
	return current()
}

// RemovePerson takes one out of sight, or brings one back; what they did stays.
func (tx Tx) RemovePerson(ctx context.Context, id int64, remove bool) error {
	return tx.removeRow(ctx, "person", id, remove)
}
