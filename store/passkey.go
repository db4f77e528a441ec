package store

import (
	"context"
	"time"
)

// Passkey is a key by which one of an account's devices signs in.
type Passkey struct {
	ID        int64  `db:"id"`
	AccountID int64  `db:"account_id"`
	KeyID     []byte `db:"key_id"`
	Data      string `db:"data"` // JSON, the firm's room knows of what
	Name      string `db:"name"`
	Made      string `db:"made"` // day
	Used      string `db:"used"` // day; empty for never
}

const selectPasskey = `SELECT id, account_id, key_id, data, name, made, used FROM passkey WHERE `

// Passkeys are those of an account, the oldest first.
func (s *Store) Passkeys(ctx context.Context, account int64) ([]Passkey, error) {
	return many[Passkey](ctx, s.read, selectPasskey+`account_id = ? ORDER BY id`, account)
}

// AddPasskey keeps one.
func (tx Tx) AddPasskey(ctx context.Context, p Passkey) error {
	_, err := tx.NamedExecContext(ctx, `INSERT INTO passkey (account_id, key_id, data, name, made)
		VALUES (:account_id, :key_id, :data, :name, :made)`, p)
	return err
}

// UsedPasskey notes that one signed in, with what it said of itself.
func (tx Tx) UsedPasskey(ctx context.Context, keyID []byte, data string, now time.Time) error {
	return tx.touch(ctx, `UPDATE passkey SET data = ?, used = ? WHERE key_id = ?`, data, now.Format(time.DateOnly), keyID)
}

// endPasskeys ends all of an account.
func (tx Tx) endPasskeys(ctx context.Context, account int64) error {
	_, err := tx.ExecContext(ctx, `DELETE FROM passkey WHERE account_id = ?`, account)
	return err
}

// RemovePasskey ends one of an account.
func (tx Tx) RemovePasskey(ctx context.Context, account, id int64) error {
	return tx.touch(ctx, `DELETE FROM passkey WHERE account_id = ? AND id = ?`, account, id)
}
