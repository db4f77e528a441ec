package store

import (
	"bytes"
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
	if err := write(); !errors.Is(err, ErrGone) || !strings.Contains(Trouble(err), "gone") {
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

// TestReplace: a backup comes in place of a record, which stays beside it; one that is broken changes nothing, and a
// record that is open is not replaced.
func TestReplace(t *testing.T) {
	ctx, data := context.Background(), filepath.Join(t.TempDir(), "data")
	named := func(name string) string {
		s, err := Open(ctx, data)
		if err != nil {
			t.Fatal(err)
		}
		defer s.Close()
		before, err := s.Firm(ctx)
		if err == nil && name != "" {
			err = s.Write(ctx, func(tx Tx) error { return tx.SetFirm(ctx, Firm{Name: name}) })
		}
		if err != nil {
			t.Fatal(err)
		}
		return before.Name
	}
	named("First")
	var kept bytes.Buffer
	if _, err := Backup(ctx, data, time.Now(), &kept); err != nil {
		t.Fatal(err)
	}
	named("Second")
	if _, _, err := Replace(ctx, bytes.NewReader(kept.Bytes()[:kept.Len()/2]), data, time.Now(), How{}); err == nil {
		t.Error("half a backup")
	}
	open, err := Open(ctx, data)
	if err != nil {
		t.Fatal(err)
	}
	if _, _, err := Replace(ctx, bytes.NewReader(kept.Bytes()), data, time.Now(), How{}); err == nil || !strings.Contains(err.Error(), "is held by") {
		t.Errorf("a record that is open: %v", err)
	}
	_ = open.Close()
	if got := named(""); got != "Second" {
		t.Errorf("after two that failed: %s", got)
	}
	_, aside, err := Replace(ctx, bytes.NewReader(kept.Bytes()), data, time.Now(), How{})
	if err != nil {
		t.Fatal(err)
	}
	if got := named(""); got != "First" {
		t.Errorf("replaced: %s", got)
	}
	if data = aside; named("") != "Second" {
		t.Error("the record before is not beside it")
	}
}

// TestHalfPicture: half of a picture is never given, and sent again it is whole; what a cut-off write left is swept.
func TestHalfPicture(t *testing.T) {
	ctx, data := context.Background(), t.TempDir()
	s, err := Open(ctx, data)
	if err != nil {
		t.Fatal(err)
	}
	picture := bytes.Repeat([]byte("light and shade "), 1000)
	hash, err := s.KeepPicture(picture)
	if err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(data, "photos", hash[:2], hash+".jpg")
	if err := os.WriteFile(file, picture[:500], 0o600); err != nil {
		t.Fatal(err)
	}
	if b, err := s.Picture(hash); !errors.Is(err, ErrNotFound) {
		t.Errorf("half of it is given: %d bytes, %v", len(b), err)
	}
	if again, err := s.KeepPicture(picture); err != nil || again != hash {
		t.Errorf("sent again: %s %v", again, err)
	}
	if b, err := s.Picture(hash); err != nil || !bytes.Equal(b, picture) {
		t.Errorf("after it was sent again: %d bytes, %v", len(b), err)
	}
	left := filepath.Join(data, "photos", hash[:2], "new-123")
	if err := os.WriteFile(left, picture[:9], 0o600); err != nil {
		t.Fatal(err)
	}
	killed, underWay := filepath.Join(filepath.Dir(data), ".restoring-1"), filepath.Join(filepath.Dir(data), ".restoring-2")
	for _, f := range []string{killed, underWay} {
		if err := os.MkdirAll(filepath.Join(f, "photos"), 0o700); err != nil {
			t.Fatal(err)
		}
	}
	long := time.Now().Add(-3 * time.Hour)
	if err := os.Chtimes(killed, long, long); err != nil {
		t.Fatal(err)
	}
	_ = s.Close()
	if s, err = Open(ctx, data); err != nil {
		t.Fatal(err)
	}
	_ = s.Close()
	for _, f := range []string{left, killed} {
		if _, err := os.Stat(f); err == nil {
			t.Errorf("what a cut-off write left is there still: %s", f)
		}
	}
	if _, err := os.Stat(underWay); err != nil {
		t.Errorf("a restore that is under way was swept: %v", err)
	}
}
