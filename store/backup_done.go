package store

import (
	"context"
	"errors"
	"time"
)

// BackupDone is a backup that was written whole.
type BackupDone struct {
	At     string `db:"at"` // UTC
	File   string `db:"file"`
	Plants int    `db:"plants"`
}

// NoteBackup keeps that one was written.
func (s *Store) NoteBackup(ctx context.Context, b BackupDone) error {
	return s.WriteQuietly(ctx, func(tx Tx) error {
		_, err := tx.NamedExecContext(ctx, `INSERT INTO backup_done (at, file, plants) VALUES (:at, :file, :plants)`, b)
		return err
	})
}

// LastBackup is the last one; false where none was written yet.
func (s *Store) LastBackup(ctx context.Context) (BackupDone, bool, error) {
	b, err := one[BackupDone](ctx, s.read, `SELECT at, file, plants FROM backup_done ORDER BY at DESC, rowid DESC LIMIT 1`)
	if errors.Is(err, ErrNotFound) {
		return b, false, nil
	}
	return b, err == nil, err
}

// Begun is when the record was made.
func (s *Store) Begun(ctx context.Context) (time.Time, error) {
	text, err := one[string](ctx, s.read, `SELECT strftime('%Y-%m-%dT%H:%M:%SZ', min(tstamp)) FROM goose_db_version`)
	if err != nil {
		return time.Time{}, err
	}
	return time.Parse(time.RFC3339, text)
}

// Folder is where the record lies.
func (s *Store) Folder() string { return s.folder }
