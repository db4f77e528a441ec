// Package store keeps the firm's record in one SQLite file. Every write is one transaction that is on the disk
// before it is acknowledged: nothing acknowledged is lost when the program is killed.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"sync/atomic"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver
)

//go:embed migrations
var migrations embed.FS

// Store is the open record. Reads use a pool, writes one connection in turn.
type Store struct {
	read   *sqlx.DB
	write  *sqlx.DB
	rev    atomic.Uint64
	plants atomic.Uint64
	folder string
}

// Rev counts the writes since the record was opened: what was worked out at one count holds until the next.
func (s *Store) Rev() uint64 { return s.rev.Load() }

// PlantRev counts the writes that touched plants or properties.
func (s *Store) PlantRev() uint64 { return s.plants.Load() }

// ErrNotFound is answered for an id that is not there or was removed.
var ErrNotFound = errors.New("not found")

// Stale is answered when a write is based on an older version than the one kept.
type Stale struct {
	Yours   int
	Current any // the record as it is kept now
}

func (s Stale) Error() string {
	return fmt.Sprintf("it was changed meanwhile: the write is based on version %d", s.Yours)
}

// Open opens or makes the record in a folder and brings its tables up to date.
func Open(ctx context.Context, folder string) (*Store, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("data folder: %w", err)
	}
	pragmas := url.Values{"_pragma": {"journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(ON)", "busy_timeout(5000)"}}
	file := filepath.Join(folder, "mezzadro.db")
	open := func(extra string, conns int) (*sqlx.DB, error) {
		db, err := sqlx.Open("sqlite", "file:"+url.PathEscape(file)+"?"+pragmas.Encode()+extra)
		if err == nil {
			db.SetMaxOpenConns(conns)
			err = db.PingContext(ctx)
		}
		if err != nil {
			return nil, fmt.Errorf("record %s: %w", file, err)
		}
		return db, nil
	}
	w, err := open("&_txlock=immediate", 1)
	if err != nil {
		return nil, err
	}
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, w.DB, sub)
	if err == nil {
		_, err = p.Up(ctx)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("record %s: %w", file, err), w.Close())
	}
	r, err := open("", 4)
	if err != nil {
		return nil, errors.Join(err, w.Close())
	}
	return &Store{read: r, write: w, folder: folder}, nil
}

// Close closes the file.
func (s *Store) Close() error { return errors.Join(s.read.Close(), s.write.Close()) }

// Tx is one write under way.
type Tx struct {
	*sqlx.Tx
	touched *bool // plants or properties
}

// Write runs f as one transaction: all of it is kept, or nothing.
func (s *Store) Write(ctx context.Context, f func(tx Tx) error) error {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	touched := false
	if err := f(Tx{tx, &touched}); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	defer s.rev.Add(1)
	if touched {
		defer s.plants.Add(1)
	}
	return tx.Commit()
}

// Once runs f as one transaction and keeps its answer under the caller's key, so that a repeat of the same write
// (a phone that lost its signal) gets the same answer and writes nothing. An empty key keeps no answer.
func Once[T any](ctx context.Context, s *Store, key string, f func(tx Tx) (T, error)) (T, error) {
	var out T
	err := s.Write(ctx, func(tx Tx) error {
		var kept string
		if key != "" {
			switch err := tx.GetContext(ctx, &kept, `SELECT answer FROM once WHERE key = ?`, key); {
			case err == nil:
				return json.Unmarshal([]byte(kept), &out)
			case !errors.Is(err, sql.ErrNoRows):
				return err
			}
		}
		var err error
		if out, err = f(tx); err != nil || key == "" {
			return err
		}
		b, err := json.Marshal(out)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO once (key, answer) VALUES (?, ?)`, key, string(b))
		return err
	})
	return out, err
}

// getter is a read pool or a transaction.
type getter interface {
	GetContext(ctx context.Context, dest any, query string, args ...any) error
	SelectContext(ctx context.Context, dest any, query string, args ...any) error
}

// one reads a single record; ErrNotFound when there is none.
func one[T any](ctx context.Context, from getter, query string, args ...any) (T, error) {
	var out T
	err := from.GetContext(ctx, &out, query, args...)
	if errors.Is(err, sql.ErrNoRows) {
		return out, ErrNotFound
	}
	return out, err
}

// many reads a list, never nil.
func many[T any](ctx context.Context, from getter, query string, args ...any) ([]T, error) {
	out := []T{}
	err := from.SelectContext(ctx, &out, query, args...)
	return out, err
}

// changed turns "no row was touched" into ErrNotFound or, where the record is there in another version, Stale.
func changed[T any](res sql.Result, version int, current func() (T, error)) error {
	n, err := res.RowsAffected()
	if err != nil || n > 0 {
		return err
	}
	now, err := current()
	if err != nil {
		return err
	}
	return Stale{version, now}
}

// Firm is whose record this is.
type Firm struct {
	Name   string `db:"name" json:"name"`
	Sample bool   `db:"sample" json:"sample" doc:"The data is the made-up sample"`
	Today  string `db:"today" json:"-"` // the day the sample was moved to; empty: where it starts
}

// Firm reads the firm; without one the name is empty.
func (s *Store) Firm(ctx context.Context) (Firm, error) {
	f, err := one[Firm](ctx, s.read, `SELECT name, sample, today FROM firm`)
	if errors.Is(err, ErrNotFound) {
		return Firm{Name: "Your firm"}, nil
	}
	return f, err
}

// SetFirm names the firm.
func (tx Tx) SetFirm(ctx context.Context, f Firm) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO firm (id, name, sample, today) VALUES (1, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET name = excluded.name, sample = excluded.sample, today = excluded.today`, f.Name, f.Sample, f.Today)
	return err
}
