package store

import (
	"context"
	"errors"
)

// Letter is what is given to the post for a client. One without a receipt waits for the post.
type Letter struct {
	ID         int64          `db:"id"`
	PropertyID int64          `db:"property_id"`
	Property   string         `db:"property"`
	Addressee  string         `db:"addressee"`
	Day        string         `db:"day"`
	Body       string         `db:"body"`
	Sent       int64          `db:"sent"` // seconds since 1970
	Receipt    string         `db:"receipt"`
	Subject    string         `db:"subject"`
	To         JSON[[]string] `db:"mail_to"`
	Trouble    string         `db:"trouble"` // why the post did not take it the last time
	Tried      int            `db:"tried"`
	About      string         `db:"about"`
	Visit      int64          `db:"visit"`       // the first letter that told of the visit; 0: this one
	FromMinute int            `db:"from_minute"` // one comes from then on, minutes after midnight; 0: not told
	ToMinute   int            `db:"to_minute"`
}

const selectLetter = `SELECT l.id, l.property_id, p.name AS property, l.addressee, l.day, l.body, l.sent, l.receipt, l.subject, l.mail_to, l.trouble, l.tried, l.about, l.visit,
	l.from_minute, l.to_minute
	FROM letter l JOIN property p ON p.id = l.property_id `

// Letters are the last that were given to the post, the newest first.
func (s *Store) Letters(ctx context.Context, limit int) ([]Letter, error) {
	return many[Letter](ctx, s.read, selectLetter+`ORDER BY l.sent DESC, l.id DESC LIMIT ?`, limit)
}

// Letter is one.
func (s *Store) Letter(ctx context.Context, id int64) (Letter, error) {
	return one[Letter](ctx, s.read, selectLetter+`WHERE l.id = ?`, id)
}

// LettersAbout are those about one thing whose day is from one on, of all properties.
func (s *Store) LettersAbout(ctx context.Context, about, from string) ([]Letter, error) {
	return many[Letter](ctx, s.read, selectLetter+`WHERE l.about = ? AND l.day >= ? ORDER BY l.id`, about, from)
}

// VisitLetter is the letter that told of a property's day first; 0 where none did.
func (tx Tx) VisitLetter(ctx context.Context, property int64, day string) (int64, error) {
	id, err := one[int64](ctx, tx, `SELECT CASE visit WHEN 0 THEN id ELSE visit END FROM letter
		WHERE property_id = ? AND day = ? AND about = 'visit' ORDER BY id DESC LIMIT 1`, property, day)
	if errors.Is(err, ErrNotFound) {
		return 0, nil
	}
	return id, err
}

// LettersWaiting are those that the post has not taken yet, the oldest first.
func (s *Store) LettersWaiting(ctx context.Context) ([]Letter, error) {
	return many[Letter](ctx, s.read, selectLetter+`WHERE l.receipt = '' ORDER BY l.id`)
}

// AddLetter keeps a letter for the post, and gives its number.
func (tx Tx) AddLetter(ctx context.Context, l Letter) (int64, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO letter (property_id, addressee, day, body, sent, receipt, subject, mail_to, about, visit, from_minute, to_minute)
		VALUES (:property_id, :addressee, :day, :body, :sent, :receipt, :subject, :mail_to, :about, :visit, :from_minute, :to_minute)`, l)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// LetterTaken notes the post's receipt.
func (tx Tx) LetterTaken(ctx context.Context, id int64, receipt string) error {
	return tx.touch(ctx, `UPDATE letter SET receipt = ?, trouble = '', tried = tried + 1 WHERE id = ?`, receipt, id)
}

// LetterRefused notes why the post did not take it: it is tried again.
func (tx Tx) LetterRefused(ctx context.Context, id int64, trouble string) error {
	return tx.touch(ctx, `UPDATE letter SET trouble = ?, tried = tried + 1 WHERE id = ?`, trouble, id)
}

// Mail is how mail goes out.
type Mail struct {
	Body    JSON[MailBody] `db:"body"`
	Version int            `db:"version"`
}

// MailBody is a server that takes mail, and who writes.
type MailBody struct {
	Host     string `json:"host"`
	Port     int    `json:"port"`
	Security string `json:"security"` // starttls, tls, none
	User     string `json:"user"`
	Password string `json:"password"`
	From     string `json:"from"`
}

// Mail is how it goes out; version 0 while nothing was entered.
func (s *Store) Mail(ctx context.Context) (Mail, error) {
	m, err := one[Mail](ctx, s.read, `SELECT body, version FROM mail WHERE id = 1`)
	if errors.Is(err, ErrNotFound) {
		return Mail{}, nil
	}
	return m, err
}

// SetMail keeps how it goes out, whatever stood there; without a host it goes out no more.
func (tx Tx) SetMail(ctx context.Context, b MailBody) error {
	if b.Host == "" {
		_, err := tx.ExecContext(ctx, `DELETE FROM mail`)
		return err
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO mail (id, body) VALUES (1, ?) ON CONFLICT (id) DO UPDATE SET body = excluded.body, version = version + 1`,
		JSON[MailBody]{V: b})
	return err
}

// DropLetter takes out a letter that the post does not take.
func (tx Tx) DropLetter(ctx context.Context, id int64) error {
	return tx.touch(ctx, `DELETE FROM letter WHERE id = ? AND receipt = ''`, id)
}
