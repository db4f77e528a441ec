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
	"reflect"
	"sync/atomic"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"modernc.org/sqlite"

	"mezzadro/core/day"
)

//go:embed migrations
var migrations embed.FS

// Store is the open record. Reads use a pool, writes one connection in turn.
type Store struct {
	read    *sqlx.DB
	write   *sqlx.DB
	rev     atomic.Uint64
	plants  atomic.Uint64
	book    atomic.Uint64
	firm    atomic.Uint64
	weather atomic.Uint64
	folder  string

	written  *written
	standing standingKept

	held   *os.File    // the lock on the folder
	opened os.FileInfo // the record's file as it was opened
}

// Rev counts the writes since the record was opened: what was worked out at one count holds until the next.
func (s *Store) Rev() uint64 { return s.rev.Load() }

// PlantRev counts the writes that touched plants or properties.
func (s *Store) PlantRev() uint64 { return s.plants.Load() }

// BookRev counts the writes that touched species entries.
func (s *Store) BookRev() uint64 { return s.book.Load() }

// FirmRev counts the writes that touched the firm and its rules.
func (s *Store) FirmRev() uint64 { return s.firm.Load() }

// WeatherRev counts the writes that brought new weather.
func (s *Store) WeatherRev() uint64 { return s.weather.Load() }

// ErrNotFound is answered for an id that is not there or was removed.
var ErrNotFound = errors.New("not found")

// There tells what is not there, or was removed, from what could not be read: the first is the user's to mend, the
// second is an error.
func There(err error) (there bool, fault error) {
	if errors.Is(err, ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// Stale is answered when a write is based on an older version than the one kept.
type Stale struct {
	Yours   int
	Current any // the record as it is kept now
}

func (s Stale) Error() string {
	return fmt.Sprintf("it was changed meanwhile: the write is based on version %d", s.Yours)
}

// private has a file be there that its owner alone may read; what stands beside it is made with the same rights.
func private(file string) error {
	f, err := os.OpenFile(file, os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return err
	}
	return errors.Join(f.Chmod(0o600), f.Close())
}

// Open opens or makes the record in a folder and brings its tables up to date.
func Open(ctx context.Context, folder string) (*Store, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("data folder: %w", err)
	}
	held, err := hold(folder)
	if err != nil {
		return nil, err
	}
	s, err := openHeld(ctx, folder)
	if err != nil {
		if full(err) {
			err = fmt.Errorf("%s: the disk is full, and there is no room even to open the record for reading: nothing "+
				"was changed; free some 100 kB, then start again (%w)", folder, err)
		}
		return nil, errors.Join(err, held.Close())
	}
	if err := sweep(folder); err != nil {
		return nil, errors.Join(err, s.read.Close(), s.write.Close(), held.Close())
	}
	s.held = held
	return s, nil
}

// wasThere refuses a folder in which a record was and is none: beside pictures or backups no new one is begun in
// silence.
func wasThere(folder string) error {
	info, err := os.Stat(filepath.Join(folder, recordFile))
	if err == nil && info.Size() > 0 {
		return nil
	}
	for _, beside := range []string{"photos", "backups"} {
		if list, err := os.ReadDir(filepath.Join(folder, beside)); err == nil && len(list) > 0 {
			return fmt.Errorf("%s holds %s and no record: restore a backup into another folder, or move %s away to begin "+
				"a new one", folder, beside, beside)
		}
	}
	return nil
}

// openHeld opens or makes the record in a folder that is held.
func openHeld(ctx context.Context, folder string) (*Store, error) {
	if err := wasThere(folder); err != nil {
		return nil, err
	}
	if err := private(filepath.Join(folder, recordFile)); err != nil {
		return nil, fmt.Errorf("record: %w", err)
	}
	pragmas := url.Values{"_pragma": {"journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(ON)", "busy_timeout(5000)"}}
	file := filepath.Join(folder, "mezzadro.db")
	connect := func(extra string, conns int, hear func(sqlite.SQLitePreUpdateData)) (*sqlx.DB, error) {
		db, err := openKept("file:"+url.PathEscape(file)+"?"+pragmas.Encode()+extra, hear)
		if err == nil {
			db.SetMaxOpenConns(conns)
			err = db.PingContext(ctx)
		}
		if err != nil {
			return nil, fmt.Errorf("record %s: %w", file, err)
		}
		return db, nil
	}
	rows := &written{}
	w, err := connect("&_txlock=immediate", 1, rows.hear)
	if err != nil {
		return nil, err
	}
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, w.DB, sub, goose.WithGoMigrations(jobsToOrders()))
	if err == nil {
		err = newer(ctx, p)
	}
	if err == nil {
		_, err = p.Up(ctx)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("record %s: %w", file, err), w.Close())
	}
	r, err := connect("", 4, nil)
	if err != nil {
		return nil, errors.Join(err, w.Close())
	}
	opened, err := os.Stat(file)
	if err != nil {
		return nil, errors.Join(err, r.Close(), w.Close())
	}
	return &Store{read: r, write: w, folder: folder, written: rows, opened: opened}, nil
}

// Close closes the file.
func (s *Store) Close() error { return errors.Join(s.read.Close(), s.write.Close(), s.held.Close()) }

// Tx is one write under way.
type Tx struct {
	*sqlx.Tx
	touched *touches
}

// touches are what a write has touched: counted once it is kept.
type touches struct{ plants, book, firm, weather bool }

// Write runs f as one transaction: all of it is kept, or nothing. What was read of the record at a count holds until
// the count moves, which it does only after the record has.
func (s *Store) Write(ctx context.Context, f func(tx Tx) error) error {
	if err := s.there(); err != nil {
		return err
	}
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	var t touches
	if err := f(Tx{tx, &t}); err != nil {
		return errors.Join(err, s.takeBack(tx))
	}
	if err := (Tx{tx, &t}).note(ctx); err != nil {
		return errors.Join(err, s.takeBack(tx))
	}
	err = s.keep(tx)
	if b, is := ctx.Value(committedKey{}).(*atomic.Bool); is && err == nil {
		b.Store(true)
	}
	s.rev.Add(1)
	for _, c := range []struct {
		touched bool
		count   *atomic.Uint64
	}{{t.plants, &s.plants}, {t.book, &s.book}, {t.firm, &s.firm}, {t.weather, &s.weather}} {
		if c.touched {
			c.count.Add(1)
		}
	}
	return err
}

// WriteQuietly is Write for what is worked out from the record and kept beside it: nothing that hangs on the record
// has to be worked out anew after it.
func (s *Store) WriteQuietly(ctx context.Context, f func(tx Tx) error) error {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(Tx{tx, &touches{}}); err != nil {
		return errors.Join(err, s.takeBack(tx))
	}
	return s.keep(tx)
}

// keep commits a write. Where that fails it is not known what the disk has: what it wrote counts as written.
func (s *Store) keep(tx *sqlx.Tx) error {
	defer s.written.ended(true)
	return tx.Commit()
}

// takeBack rolls a write back.
func (s *Store) takeBack(tx *sqlx.Tx) error {
	defer s.written.ended(false)
	return tx.Rollback()
}

// Key is the idempotency key of a write with a hash of what was sent under it. The zero value is no key.
type Key struct{ Key, Hash string }

// OtherBody is answered for a key that was used before with something else sent under it.
var OtherBody = Refused("this idempotency key was used before for another write; give each write a key of its own")

// keyKept is for how long a key is remembered, days.
const keyKept = 30

// Once runs f as one transaction and keeps its answer under the caller's key, so that a repeat of the same write (a
// phone that lost its signal) gets the same answer and writes nothing. Without a key nothing is remembered.
func Once[T any](ctx context.Context, s *Store, key Key, f func(tx Tx) (T, error)) (T, error) {
	var out T
	err := s.Write(ctx, func(tx Tx) error {
		var err error
		if key.Key == "" {
			out, err = f(tx)
			return err
		}
		kept, err := one[onceRow](ctx, tx, `SELECT answer, hash FROM once WHERE key = ?`, key.Key)
		switch {
		case err == nil && kept.Hash != "" && kept.Hash != key.Hash:
			return OtherBody
		case err == nil:
			return json.Unmarshal([]byte(kept.Answer), &out)
		case !errors.Is(err, ErrNotFound):
			return err
		}
		if out, err = f(tx); err != nil {
			return err
		}
		b, err := json.Marshal(out)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO once (key, answer, hash) VALUES (?, ?, ?)`, key.Key, string(b), key.Hash)
		return err
	})
	return out, err
}

type onceRow struct {
	Answer string `db:"answer"`
	Hash   string `db:"hash"`
}

// Unsay has a key be as if nothing had been written under it: what was, was taken back.
func (tx Tx) Unsay(ctx context.Context, key Key) error {
	_, err := tx.ExecContext(ctx, `DELETE FROM once WHERE key = ?`, key.Key)
	return err
}

// Forget drops the keys of writes so long ago that nobody repeats them.
func (tx Tx) Forget(ctx context.Context) error {
	_, err := tx.ExecContext(ctx, `DELETE FROM once WHERE at < datetime('now', ?)`, fmt.Sprintf("-%d days", keyKept))
	return err
}

// getter is a read pool or a transaction.
type getter interface {
	GetContext(ctx context.Context, dest any, query string, args ...any) error
	SelectContext(ctx context.Context, dest any, query string, args ...any) error
}

// one reads a single record; ErrNotFound when there is none.
func one[T any](ctx context.Context, from getter, query string, args ...any) (T, error) {
	var out T
	before := tornRead.Load()
	err := from.GetContext(ctx, &out, query, args...)
	if errors.Is(err, sql.ErrNoRows) {
		return out, ErrNotFound
	}
	if err == nil && tornRead.Load() != before {
		if id, torn := tornOf(reflect.ValueOf(out)); torn != nil {
			err = fmt.Errorf("row %d cannot be read: %w", id, torn)
		}
	}
	return out, err
}

// many reads a list, never nil; rows that cannot be read are left out and told by Torn.
func many[T any](ctx context.Context, from getter, query string, args ...any) ([]T, error) {
	out := []T{}
	before := tornRead.Load()
	err := from.SelectContext(ctx, &out, query, args...)
	if err == nil && tornRead.Load() != before {
		out = whole(out)
	}
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

// All is the limit of a list that is wanted whole.
const All = 1 << 31

// DayOf is a kept day; one that is missing, or cannot be read, is day.None.
func DayOf(text *string) day.Day {
	if text == nil {
		return day.None
	}
	d, err := day.Parse(*text)
	if err != nil {
		return day.None
	}
	return d
}
