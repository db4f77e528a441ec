package store

import "context"

// Letter is what was given to the post for a client.
type Letter struct {
	ID         int64  `db:"id"`
	PropertyID int64  `db:"property_id"`
	Property   string `db:"property"`
	Addressee  string `db:"addressee"`
	Day        string `db:"day"`
	Body       string `db:"body"`
	Sent       int64  `db:"sent"` // seconds since 1970
	Receipt    string `db:"receipt"`
}

// Letters are the last that were sent, the newest first.
func (s *Store) Letters(ctx context.Context, limit int) ([]Letter, error) {
	return many[Letter](ctx, s.read, `SELECT l.id, l.property_id, p.name AS property, l.addressee, l.day, l.body, l.sent, l.receipt
		FROM letter l JOIN property p ON p.id = l.property_id ORDER BY l.sent DESC, l.id DESC LIMIT ?`, limit)
}

// AddLetter keeps a letter that the post has taken, and gives its number.
func (tx Tx) AddLetter(ctx context.Context, l Letter) (int64, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO letter (property_id, addressee, day, body, sent, receipt)
		VALUES (:property_id, :addressee, :day, :body, :sent, :receipt)`, l)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}
