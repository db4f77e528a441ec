package store

import (
	"context"
	"database/sql"
	"errors"
	"sync/atomic"
	"time"
)

// Account is somebody who may sign in.
type Account struct {
	ID      int64  `db:"id"`
	Login   string `db:"login"`
	Name    string `db:"name"`
	Role    string `db:"role"`  // owner, planner or crew
	Hash    string `db:"hash"`  // of the password; empty until one is set
	Epoch   int64  `db:"epoch"` // sessions of an earlier one are over
	Version int    `db:"version"`
}

const selectAccount = `SELECT id, login, name, role, hash, epoch, version FROM account WHERE removed_at IS NULL AND `

// Accounts are all of them, by name.
func (s *Store) Accounts(ctx context.Context) ([]Account, error) {
	return many[Account](ctx, s.read, selectAccount+`1 = 1 ORDER BY name, id`)
}

// Account is one by its id.
func (s *Store) Account(ctx context.Context, id int64) (Account, error) {
	return one[Account](ctx, s.read, selectAccount+`id = ?`, id)
}

// AccountOf is the one that signs in by a name.
func (s *Store) AccountOf(ctx context.Context, login string) (Account, error) {
	return one[Account](ctx, s.read, selectAccount+`login = ?`, login)
}

// Account is one as it stands within the write.
func (tx Tx) Account(ctx context.Context, id int64) (Account, error) {
	return one[Account](ctx, tx, selectAccount+`id = ?`, id)
}

// CountAccounts counts those that may sign in, of a role; of all where none is given.
func (tx Tx) CountAccounts(ctx context.Context, role string) (int, error) {
	return one[int](ctx, tx, `SELECT count(*) FROM account WHERE removed_at IS NULL AND (? = '' OR role = ?)`, role, role)
}

// AddAccount enters one.
func (tx Tx) AddAccount(ctx context.Context, a Account) (Account, error) {
	taken, err := one[int](ctx, tx, `SELECT count(*) FROM account WHERE removed_at IS NULL AND login = ?`, a.Login)
	if err != nil {
		return a, err
	}
	if taken > 0 {
		return a, Refused("somebody else signs in by that name")
	}
	res, err := tx.NamedExecContext(ctx, `INSERT INTO account (login, name, role, hash) VALUES (:login, :name, :role, :hash)`, a)
	if err != nil {
		return a, err
	}
	id, err := res.LastInsertId()
	if err != nil {
		return a, err
	}
	return tx.Account(ctx, id)
}

// ChangeAccount keeps a name and a role, based on a version.
func (tx Tx) ChangeAccount(ctx context.Context, a Account) (Account, error) {
	res, err := tx.NamedExecContext(ctx, `UPDATE account SET name = :name, role = :role, version = version + 1
		WHERE id = :id AND version = :version AND removed_at IS NULL`, a)
	if err != nil {
		return a, err
	}
	current := func() (Account, error) { return tx.Account(ctx, a.ID) }
	if err := changed(res, a.Version, current); err != nil {
		return a, err
	}
	return current()
}

// SetPassword keeps the hash of a new password and ends all sessions of the account.
func (tx Tx) SetPassword(ctx context.Context, id int64, hash string) error {
	return tx.touch(ctx, `UPDATE account SET hash = ?, epoch = epoch + 1 WHERE id = ? AND removed_at IS NULL`, hash, id)
}

// EndSessions ends all sessions of an account, and its passkeys: a phone that was lost signs in by neither.
func (tx Tx) EndSessions(ctx context.Context, id int64) error {
	if err := tx.endPasskeys(ctx, id); err != nil {
		return err
	}
	return tx.touch(ctx, `UPDATE account SET epoch = epoch + 1 WHERE id = ? AND removed_at IS NULL`, id)
}

// RemoveAccount takes one out, with its sessions and links; brought back, it signs in as before.
func (tx Tx) RemoveAccount(ctx context.Context, id int64, remove bool) error {
	if !remove {
		return tx.touch(ctx, `UPDATE account SET removed_at = NULL WHERE id = ? AND NOT EXISTS
			(SELECT 1 FROM account o WHERE o.login = account.login AND o.removed_at IS NULL AND o.id <> account.id)`, id)
	}
	if err := tx.touch(ctx, `UPDATE account SET removed_at = datetime('now'), epoch = epoch + 1 WHERE id = ? AND removed_at IS NULL`, id); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `UPDATE invitation SET used = 1 WHERE account_id = ?`, id)
	return err
}

// AddInvitation keeps a one-time link of an account, by its hash; links before it are over.
func (tx Tx) AddInvitation(ctx context.Context, account int64, hash string, until time.Time) error {
	if _, err := tx.ExecContext(ctx, `UPDATE invitation SET used = 1 WHERE account_id = ?`, account); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO invitation (hash, account_id, until) VALUES (?, ?, ?)`, hash, account, until.UTC().Format(time.RFC3339))
	return err
}

// TakeInvitation uses a one-time link up and gives its account. ErrNotFound for one that is used, over or unknown.
func (tx Tx) TakeInvitation(ctx context.Context, hash string, now time.Time) (Account, error) {
	id, err := one[int64](ctx, tx, `SELECT account_id FROM invitation WHERE hash = ? AND used = 0 AND until > ?`, hash, now.UTC().Format(time.RFC3339))
	if err != nil {
		return Account{}, err
	}
	if _, err := tx.ExecContext(ctx, `UPDATE invitation SET used = 1 WHERE hash = ?`, hash); err != nil {
		return Account{}, err
	}
	if err := tx.endPasskeys(ctx, id); err != nil { // a new beginning: nobody who got in before has a key left
		return Account{}, err
	}
	return tx.Account(ctx, id)
}

// Sessions keeps sessions in the record, as the session manager asks.
type Sessions struct{ *Store }

// FindCtx is a session's data by its token.
func (s Sessions) FindCtx(ctx context.Context, token string) ([]byte, bool, error) {
	b, err := one[[]byte](ctx, s.read, `SELECT data FROM session WHERE token = ? AND expiry > ?`, token, seconds(time.Now()))
	if errors.Is(err, ErrNotFound) {
		return nil, false, nil
	}
	return b, err == nil, err
}

// CommitCtx keeps one, and drops those that are over. One that is there already lasts as it is where the disk takes
// nothing: who is signed in goes on reading.
func (s Sessions) CommitCtx(ctx context.Context, token string, b []byte, expiry time.Time) error {
	err := s.commit(ctx, token, b, expiry)
	if Trouble(err) == "" {
		return err
	}
	if _, there, failed := s.FindCtx(ctx, token); failed != nil || !there {
		return err
	}
	return nil
}

func (s Sessions) commit(ctx context.Context, token string, b []byte, expiry time.Time) error {
	return s.WriteQuietly(ctx, func(tx Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM session WHERE expiry < ?`, seconds(time.Now())); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO session (token, data, expiry) VALUES (?, ?, ?)
			ON CONFLICT (token) DO UPDATE SET data = excluded.data, expiry = excluded.expiry`, token, b, seconds(expiry))
		return err
	})
}

// DeleteCtx ends one.
func (s Sessions) DeleteCtx(ctx context.Context, token string) error {
	return s.WriteQuietly(ctx, func(tx Tx) error {
		_, err := tx.ExecContext(ctx, `DELETE FROM session WHERE token = ?`, token)
		return err
	})
}

// Find is FindCtx without a context.
func (s Sessions) Find(token string) ([]byte, bool, error) {
	return s.FindCtx(context.Background(), token)
}

// Commit is CommitCtx without a context.
func (s Sessions) Commit(token string, b []byte, expiry time.Time) error {
	return s.CommitCtx(context.Background(), token, b, expiry)
}

// Delete is DeleteCtx without a context.
func (s Sessions) Delete(token string) error { return s.DeleteCtx(context.Background(), token) }

func seconds(t time.Time) float64 { return float64(t.UnixMilli()) / 1000 }

// Actor is who writes, and by which operation.
type Actor struct {
	Account      int64
	Name         string
	Did, Path    string
	Plant, Order int64
}

type actorKey struct{}

// As is a context in which an actor writes.
func As(ctx context.Context, a Actor) context.Context { return context.WithValue(ctx, actorKey{}, a) }

// by is the name of who writes; empty where nobody signed in.
func by(ctx context.Context) string {
	a, _ := ctx.Value(actorKey{}).(Actor)
	return a.Name
}

type committedKey struct{}

// Watched is a context in which it is noted that something was kept.
func Watched(ctx context.Context) context.Context {
	return context.WithValue(ctx, committedKey{}, new(atomic.Bool))
}

// Committed reports that something was kept in a watched context.
func Committed(ctx context.Context) bool {
	b, is := ctx.Value(committedKey{}).(*atomic.Bool)
	return is && b.Load()
}

// note keeps who wrote, within the same write.
func (tx Tx) note(ctx context.Context) error {
	a, is := ctx.Value(actorKey{}).(Actor)
	if !is {
		return nil
	}
	id := func(n int64) sql.NullInt64 { return sql.NullInt64{Int64: n, Valid: n != 0} }
	_, err := tx.ExecContext(ctx, `INSERT INTO deed (at, account_id, name, did, path, plant_id, order_id) VALUES (?, ?, ?, ?, ?, ?, ?)`,
		time.Now().UTC().Format(time.RFC3339), a.Account, a.Name, a.Did, a.Path, id(a.Plant), id(a.Order))
	return err
}

// Deed is something that somebody did.
type Deed struct {
	At   string `db:"at"`
	Name string `db:"name"`
	Did  string `db:"did"`
}

// Deeds are those about a plant and its jobs, the latest first.
func (s *Store) Deeds(ctx context.Context, plant int64, limit int) ([]Deed, error) {
	return many[Deed](ctx, s.read, `SELECT at, name, did FROM deed WHERE plant_id = ? OR order_id IN
		(SELECT id FROM job_order WHERE plant_id = ? UNION SELECT order_id FROM order_plant WHERE plant_id = ?)
		ORDER BY id DESC LIMIT ?`, plant, plant, plant, limit)
}

// ClientLink is a client's link to a property.
type ClientLink struct {
	ID         int64  `db:"id"`
	PropertyID int64  `db:"property_id"`
	Hash       string `db:"hash"`
	Made       string `db:"made"`
	Until      string `db:"until"`
}

const selectLink = `SELECT id, property_id, hash, made, until FROM client_link WHERE revoked_at IS NULL AND `

// ClientLinks are those of a property that were not revoked.
func (s *Store) ClientLinks(ctx context.Context, property int64) ([]ClientLink, error) {
	return many[ClientLink](ctx, s.read, selectLink+`property_id = ? ORDER BY id`, property)
}

// ClientLinkOf is the one of a hash, on a day until which it holds.
func (s *Store) ClientLinkOf(ctx context.Context, hash, today string) (ClientLink, error) {
	return one[ClientLink](ctx, s.read, selectLink+`hash = ? AND until >= ?`, hash, today)
}

// AddClientLink keeps one.
func (tx Tx) AddClientLink(ctx context.Context, l ClientLink) (ClientLink, error) {
	res, err := tx.NamedExecContext(ctx, `INSERT INTO client_link (property_id, hash, made, until)
		SELECT id, :hash, :made, :until FROM property WHERE id = :property_id AND removed_at IS NULL`, l)
	if err != nil {
		return l, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return l, errors.Join(err, ErrNotFound)
	}
	id, err := res.LastInsertId()
	if err != nil {
		return l, err
	}
	return one[ClientLink](ctx, tx, selectLink+`id = ?`, id)
}

// RevokeClientLink ends one for good.
func (tx Tx) RevokeClientLink(ctx context.Context, id int64) error {
	return tx.touch(ctx, `UPDATE client_link SET revoked_at = datetime('now') WHERE id = ? AND revoked_at IS NULL`, id)
}
