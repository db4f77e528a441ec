package store

import (
	"context"
	"errors"
	"fmt"
	"path/filepath"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"
)

// Who may sign in after a restore: those of today's record, or those of the backup.
const (
	WhoToday  = "today"
	WhoBackup = "backup"
)

// comesBack are the people and links that a restored record would let in and the one in use does not, in words.
func comesBack(ctx context.Context, inUse, restored string, now time.Time) ([]string, error) {
	db, err := besides(ctx, restored, inUse)
	if err != nil {
		return nil, err
	}
	defer db.Close()
	out := []string{}
	err = db.SelectContext(ctx, &out, `
		SELECT CASE
			WHEN o.id IS NULL OR o.removed_at IS NOT NULL THEN a.name || ' (' || a.role || ') could sign in again'
			WHEN o.role <> a.role THEN a.name || ' would be ' || a.role || ' again, and is ' || o.role
			ELSE a.name || ' would sign in by an earlier password'
		END
		FROM account a LEFT JOIN inuse.account o ON o.id = a.id AND o.login = a.login
		WHERE a.removed_at IS NULL AND a.hash <> ''
			AND (o.id IS NULL OR o.removed_at IS NOT NULL OR o.role <> a.role OR o.hash <> a.hash)
		ORDER BY a.id`)
	if err != nil {
		return nil, err
	}
	links := []string{}
	err = db.SelectContext(ctx, &links, `
		SELECT p.name FROM client_link l JOIN property p ON p.id = l.property_id
		WHERE l.revoked_at IS NULL AND l.until >= ?
			AND l.hash NOT IN (SELECT hash FROM inuse.client_link WHERE revoked_at IS NULL)`, now.UTC().Format("2006-01-02"))
	for _, name := range links {
		out = append(out, "a client's link to "+name+" would open again")
	}
	return out, err
}

// besides opens a record with another beside it, as inuse.
func besides(ctx context.Context, folder, other string) (*sqlx.DB, error) {
	db, err := sqlx.Open("sqlite", "file:"+filepath.Join(folder, recordFile)+"?_pragma=busy_timeout(5000)")
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(1) // what is attached is attached to one
	if _, err := db.ExecContext(ctx, `ATTACH DATABASE ? AS inuse`, filepath.Join(other, recordFile)); err != nil {
		return nil, errors.Join(err, db.Close())
	}
	return db, nil
}

// letInAsToday gives a restored record the accounts and links of the one in use: who was put out since stays out.
func letInAsToday(ctx context.Context, inUse, restored string, now time.Time) error {
	db, err := besides(ctx, restored, inUse)
	if err != nil {
		return err
	}
	at := now.UTC().Format(time.RFC3339)
	tx, err := db.BeginTxx(ctx, nil)
	if err != nil {
		return errors.Join(err, db.Close())
	}
	for _, q := range []string{
		`UPDATE account SET removed_at = coalesce(removed_at, '` + at + `') WHERE id NOT IN (SELECT id FROM inuse.account)`,
		`INSERT INTO account (id, login, name, role, hash, epoch, version, removed_at)
			SELECT id, login, name, role, hash, epoch, version, removed_at FROM inuse.account WHERE true
			ON CONFLICT (id) DO UPDATE SET login = excluded.login, name = excluded.name, role = excluded.role,
				hash = excluded.hash, epoch = excluded.epoch, version = excluded.version, removed_at = excluded.removed_at`,
		`DELETE FROM invitation`,
		`UPDATE client_link SET revoked_at = coalesce(revoked_at, '` + at + `')
			WHERE hash NOT IN (SELECT hash FROM inuse.client_link WHERE revoked_at IS NULL)`,
	} {
		if _, err = tx.ExecContext(ctx, q); err != nil {
			break
		}
	}
	if err != nil {
		return errors.Join(err, tx.Rollback(), db.Close())
	}
	return errors.Join(tx.Commit(), db.Close())
}

// whoComesIn decides, where a restored record would let others in than the one in use: as it was said, or by asking.
func whoComesIn(ctx context.Context, inUse, restored, who string, now time.Time) error {
	back, err := comesBack(ctx, inUse, restored, now)
	switch {
	case err != nil && strings.Contains(err.Error(), "no such table"):
		return nil // one of them is of before there were accounts
	case err != nil:
		return fmt.Errorf("who may sign in: %w", err)
	case len(back) == 0 || who == WhoBackup:
		return nil
	case who == WhoToday:
		return letInAsToday(ctx, inUse, restored, now)
	}
	return fmt.Errorf("the backup lets others in than today's record does:\n%s\nSay --who %s to keep who may sign in today, or --who %s "+
		"to take the backup's", strings.Join(back, "\n"), WhoToday, WhoBackup)
}

// MaySignIn tells who a record in a folder lets in: names with their roles, and how many clients' links are open.
func MaySignIn(ctx context.Context, folder string, now time.Time) (names []string, links int, err error) {
	db, err := sqlx.Open("sqlite", "file:"+filepath.Join(folder, recordFile)+"?_pragma=busy_timeout(5000)")
	if err != nil {
		return nil, 0, err
	}
	err = db.SelectContext(ctx, &names, `SELECT name || ' (' || role || ')' FROM account WHERE removed_at IS NULL AND hash <> '' ORDER BY id`)
	if err == nil {
		err = db.GetContext(ctx, &links, `SELECT count(*) FROM client_link WHERE revoked_at IS NULL AND until >= ?`, now.UTC().Format("2006-01-02"))
	}
	if err != nil && strings.Contains(err.Error(), "no such table") {
		err = nil // of before there were accounts
	}
	return names, links, errors.Join(err, db.Close())
}
