package store

import "context"

// Letter is what is given to the post for a client. One without a receipt waits for the post.
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

const selectLetter = `SELECT l.id, l.property_id, p.name AS property, l.addressee, l.day, l.body, l.sent, l.receipt
	FROM letter l JOIN property p ON p.id = l.property_id `

// Letters are the last that were given to the post, the newest first.
func (s *Store) Letters(ctx context.Context, limit int) ([]Letter, error) {
	return many[Letter](ctx, s.read, selectLetter+`ORDER BY l.sent DESC, l.id DESC LIMIT ?`, limit)
}

// Letter is one.
func (s *Store) Letter(ctx context.Context, id int64) (Letter, error) {
	return one[Letter](ctx, s.read, selectLetter+`WHERE l.id = ?`, id)
}

// LettersWaiting are those that the post has not taken yet, the oldest first.
func (s *Store) LettersWaiting(ctx context.Context) ([]Letter, error) {
	return many[Letter](ctx, s.read, selectLetter+`WHERE l.receipt = '' ORDER BY l.id`)
}

// AddLetter keeps a letter for the post, and gives its number.
func (tx Tx) AddLetter(ctx context.Context, l Letter) (int64, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO letter (property_id, addressee, day, body, sent, receipt)
		VALUES (:property_id, :addressee, :day, :body, :sent, :receipt)`, l)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// LetterTaken notes the post's receipt.
func (tx Tx) LetterTaken(ctx context.Context, id int64, receipt string) error {
	return tx.touch(ctx, `UPDATE letter SET receipt = ? WHERE id = ?`, receipt, id)
}

// DropLetter takes out a letter that the post does not take.
func (tx Tx) DropLetter(ctx context.Context, id int64) error {
	return tx.touch(ctx, `DELETE FROM letter WHERE id = ? AND receipt = ''`, id)
}
