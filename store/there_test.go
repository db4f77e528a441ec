package store

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// TestNoNewRecordInSilence: where a record was, beside its pictures or backups, none is begun anew.
func TestNoNewRecordInSilence(t *testing.T) {
	s, folder := saved(t)
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	for _, how := range []func() error{
		func() error { return os.Truncate(filepath.Join(folder, recordFile), 0) },
		func() error { return os.Remove(filepath.Join(folder, recordFile)) },
	} {
		for _, f := range []string{recordFile + "-wal", recordFile + "-shm"} {
			_ = os.Remove(filepath.Join(folder, f)) // not there after a clean close
		}
		if err := how(); err != nil {
			t.Fatal(err)
		}
		if s, err := Open(ctx, folder); err == nil || !strings.Contains(err.Error(), "no record") {
			t.Errorf("opened: %v", err)
			if s != nil {
				_ = s.Close()
			}
		}
	}
}

// TestRestoredLetsNobodyIn: sessions of the day of a backup are over once it is restored.
func TestRestoredLetsNobodyIn(t *testing.T) {
	s, folder := saved(t)
	if err := (Sessions{s}).Commit("a token", []byte("who"), time.Now().Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	if _, err := Backup(ctx, folder, time.Now(), &b); err != nil {
		t.Fatal(err)
	}
	into := filepath.Join(t.TempDir(), "restored")
	if _, err := Restore(ctx, &b, into, How{}); err != nil {
		t.Fatal(err)
	}
	again, err := Open(ctx, into)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	if _, there, err := (Sessions{again}).Find("a token"); err != nil || there {
		t.Errorf("a session of before is there: %v %v", there, err)
	}
	if _, there, err := (Sessions{s}).Find("a token"); err != nil || !there {
		t.Errorf("the record that was backed up lost it: %v %v", there, err)
	}
}
