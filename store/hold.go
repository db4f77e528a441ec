package store

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"time"

	"github.com/pressly/goose/v3"
	"modernc.org/sqlite"
	sqlitelib "modernc.org/sqlite/lib"
)

// lockFile says who holds a record; the lock on it goes with the program that holds it, however that ends.
const lockFile = "mezzadro.lock"

// hold takes a record's folder for this program alone. Its error says who has it.
func hold(folder string) (*os.File, error) {
	f, err := os.OpenFile(filepath.Join(folder, lockFile), os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return nil, err
	}
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		who := make([]byte, 200)
		n, _ := f.Read(who) // what cannot be read is left out
		_ = f.Close()
		text := strings.TrimSpace(string(who[:n]))
		if text == "" {
			text = "another program"
		}
		return nil, fmt.Errorf("the record in %s is held by %s: two programs on one record would spoil it; stop that one first", folder, text)
	}
	_, _ = f.WriteAt([]byte(fmt.Sprintf("process %d since %s\n", os.Getpid(), time.Now().UTC().Format(time.RFC3339))), 0)
	return f, nil // on a full disk the lock holds, and does not say whose it is
}

// newer refuses a record that a newer program has written.
func newer(ctx context.Context, p *goose.Provider) error {
	at, err := p.GetDBVersion(ctx)
	if err != nil {
		return err
	}
	known := int64(0)
	for _, s := range p.ListSources() {
		known = max(known, s.Version)
	}
	if at > known {
		return fmt.Errorf("it was written by a newer version of this program (step %d; this one knows %d): use that one, or restore a backup", at, known)
	}
	return nil
}

// ErrGone is answered for a write on a record whose folder is not there any more.
var ErrGone = errors.New("the folder of the record is gone, or another stands in its place: nothing is written any more; stop the program and put the folder back")

// there reports that the record's file is still the one that was opened.
func (s *Store) there() error {
	now, err := os.Stat(filepath.Join(s.folder, recordFile))
	if err != nil || !os.SameFile(now, s.opened) {
		return ErrGone
	}
	return nil
}

// codeOf is the class of an error of the record's engine; 0 for other errors.
func codeOf(err error) int {
	var e *sqlite.Error
	if errors.As(err, &e) {
		return e.Code() & 0xff
	}
	return 0
}

// full reports that a disk took no more, not even the index that readers share.
func full(err error) bool {
	var e *sqlite.Error
	if errors.As(err, &e) && e.Code() == sqlitelib.SQLITE_IOERR_SHMSIZE {
		return true
	}
	return codeOf(err) == sqlitelib.SQLITE_FULL || errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EFBIG)
}

// Trouble is what is wrong with the disk, in plain words; empty for other errors.
func Trouble(err error) string {
	code := codeOf(err)
	switch {
	case errors.Is(err, ErrGone):
		return ErrGone.Error()
	case full(err):
		return "the disk is full: nothing was changed; make room, then try again. Reading goes on"
	case code == sqlitelib.SQLITE_READONLY, code == sqlitelib.SQLITE_PERM, errors.Is(err, syscall.EROFS), errors.Is(err, os.ErrPermission):
		return "the record cannot be written: its folder is read-only; nothing was changed. Reading goes on"
	case code == sqlitelib.SQLITE_IOERR, code == sqlitelib.SQLITE_CANTOPEN, errors.Is(err, syscall.EIO):
		return "the disk does not take what is written: nothing was changed; look after it"
	}
	return ""
}
