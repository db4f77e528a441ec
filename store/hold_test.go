package store

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"
)

// TestHold: a second program on one record is told who holds it; once that one has ended, it is let in.
func TestHold(t *testing.T) {
	folder := t.TempDir()
	first, err := Open(context.Background(), folder)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := Open(context.Background(), folder); err == nil || !strings.Contains(err.Error(), fmt.Sprintf("process %d", os.Getpid())) {
		t.Errorf("a second start: %v", err)
	}
	if err := first.Close(); err != nil {
		t.Fatal(err)
	}
	second, err := Open(context.Background(), folder)
	if err != nil {
		t.Fatal(err)
	}
	_ = second.Close()
}

// TestNewerRecord: a record that a newer program has written is refused, and stays as it is.
func TestNewerRecord(t *testing.T) {
	folder := t.TempDir()
	s, err := Open(context.Background(), folder)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Write(context.Background(), func(tx Tx) error {
		_, err := tx.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (90001, 1)`)
		return err
	}); err != nil {
		t.Fatal(err)
	}
	_ = s.Close()
	if _, err := Open(context.Background(), folder); err == nil || !strings.Contains(err.Error(), "newer version") {
		t.Errorf("a newer record: %v", err)
	}
}

// TestFolderGone: when the folder vanishes while the record is open, nothing is acknowledged any more, and that is said.
func TestFolderGone(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	s, err := Open(context.Background(), folder)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	write := func() error {
		return s.Write(context.Background(), func(tx Tx) error { return tx.SetFirm(context.Background(), Firm{Name: "Tre Gelsi"}) })
	}
	if err := write(); err != nil {
		t.Fatal(err)
	}
	if err := os.Rename(folder, folder+".moved"); err != nil {
		t.Fatal(err)
	}
	if err := write(); !errors.Is(err, Gone) || !strings.Contains(Trouble(err), "gone") {
		t.Errorf("the folder is gone: %v", err)
	}
	if err := os.Rename(folder+".moved", folder); err != nil {
		t.Fatal(err)
	}
	if err := write(); err != nil {
		t.Errorf("put back: %v", err)
	}
}

// TestTrouble: a full and a read-only disk are said in plain words; what is no trouble of the disk is left to others.
func TestTrouble(t *testing.T) {
	s, err := Open(context.Background(), t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	full := s.Write(context.Background(), func(tx Tx) error {
		if _, err := tx.Exec(`PRAGMA max_page_count = 1`); err != nil { // the least it takes is what it has
			return err
		}
		_, err := tx.Exec(`INSERT INTO once (key, answer, hash) VALUES ('k', hex(zeroblob(2000000)), 'h')`)
		return err
	})
	if !strings.Contains(Trouble(full), "disk is full") {
		t.Errorf("full: %v", full)
	}
	if err := s.Write(context.Background(), func(tx Tx) error { _, err := tx.Exec(`PRAGMA max_page_count = 1073741823`); return err }); err != nil {
		t.Fatal(err)
	}
	if n, err := one[int](context.Background(), s.read, `SELECT count(*) FROM once`); err != nil || n != 0 {
		t.Errorf("reading goes on, and nothing was kept: %d %v", n, err)
	}
	for err, want := range map[error]string{syscall.ENOSPC: "full", syscall.EROFS: "read-only", ErrNotFound: "", context.Canceled: ""} {
		if got := Trouble(fmt.Errorf("a write: %w", err)); want == "" && got != "" || !strings.Contains(got, want) {
			t.Errorf("%v: %q", err, got)
		}
	}
}

// TestSessionsEnd: a session is found until it is over.
func TestSessionsEnd(t *testing.T) {
	s, err := Open(context.Background(), t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	kept := Sessions{s}
	if err := kept.Commit("a", []byte("one"), time.Now().Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	if err := kept.Commit("b", []byte("two"), time.Now().Add(-time.Second)); err != nil {
		t.Fatal(err)
	}
	for token, want := range map[string]string{"a": "one", "b": "", "c": ""} {
		if b, found, err := kept.Find(token); err != nil || string(b) != want || found != (want != "") {
			t.Errorf("%s: %q %v %v", token, b, found, err)
		}
	}
	if err := kept.Delete("a"); err != nil {
		t.Fatal(err)
	}
	if _, found, _ := kept.Find("a"); found {
		t.Error("it is found after it ended")
	}
}
