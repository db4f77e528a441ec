package api_test

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"mezzadro/house/firm"
	"mezzadro/house/overview"
	"mezzadro/store"
)

// TestBackups: one is written on demand and by the clock, read back whole, and the oldest go; where it cannot be
// written that is said, and nothing half is left.
func TestBackups(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.villa()
	h.server.Firm.Backups = firm.Backups{Folder: filepath.Join(t.TempDir(), "safe"), Keep: 2}
	if before := ok[firm.BackupState](h, "GET", "/backup", nil); before.Last != nil || before.Due {
		t.Errorf("a new record: %+v", before)
	}
	if code, b := h.do("GET", "/backup/last.tar.zst", nil); code != 404 {
		t.Errorf("no backup yet: %d %s", code, b)
	}
	for range 3 {
		if got := ok[firm.BackupState](h, "POST", "/backup", nil); got.Last == nil || time.Since(*got.Last) > time.Minute || got.Plants != 1 || got.Due {
			t.Fatalf("backed up: %+v", got)
		}
		time.Sleep(2 * time.Millisecond) // each has a name of its own
	}
	files, err := os.ReadDir(h.server.Firm.Backups.Folder)
	if err != nil || len(files) != 2 {
		t.Errorf("two stay: %v %v", files, err)
	}
	code, b := h.do("GET", "/backup/last.tar.zst", nil)
	if code != 200 {
		t.Fatalf("the last one: %d %.100s", code, b)
	}
	file := filepath.Join(t.TempDir(), "taken.tar.zst")
	if err := os.WriteFile(file, b, 0o600); err != nil {
		t.Fatal(err)
	}
	f, err := os.Open(file)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	into := filepath.Join(t.TempDir(), "again")
	if _, err := store.Restore(context.Background(), f, into, store.How{}); err != nil {
		t.Fatal(err)
	}
	st, err := store.Open(context.Background(), into)
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	if plants, err := st.Plants(context.Background(), 0, 0, 10); err != nil || len(plants) != 1 {
		t.Errorf("restored: %+v %v", plants, err)
	}

	// A record that is older than a week and was not backed up for as long says so in the Lookout.
	old := func(query string) {
		if err := h.server.Estate.Store.Write(context.Background(), func(tx store.Tx) error { _, err := tx.Exec(query); return err }); err != nil {
			t.Fatal(err)
		}
	}
	if ok[overview.Lookout](h, "GET", "/lookout", nil).BackupDue {
		t.Error("it was backed up just now")
	}
	old(`UPDATE backup_done SET at = '2026-01-01T00:00:00Z'`)
	if !ok[overview.Lookout](h, "GET", "/lookout", nil).BackupDue {
		t.Error("no backup for months, and nothing says so")
	}

	h.server.Firm.Backups.Folder = filepath.Join(file, "below-a-file")
	if code, b := h.do("POST", "/backup", nil); code != 409 || !strings.Contains(string(b), "cannot be made") {
		t.Errorf("nowhere to go: %d %s", code, b)
	}

	h.server.Firm.Backups = firm.Backups{Folder: filepath.Join(t.TempDir(), "clock"), Every: 20 * time.Millisecond}
	ctx, stop := context.WithCancel(context.Background())
	done := make(chan struct{})
	go func() { h.server.Firm.WatchBackups(ctx); close(done) }()
	for deadline := time.Now().Add(20 * time.Second); time.Now().Before(deadline); time.Sleep(5 * time.Millisecond) {
		if list, _ := filepath.Glob(filepath.Join(h.server.Firm.Backups.Folder, "*.tar.zst")); len(list) >= 2 {
			break
		}
	}
	stop()
	<-done
	if list, _ := filepath.Glob(filepath.Join(h.server.Firm.Backups.Folder, "*.tar.zst")); len(list) < 2 {
		t.Errorf("by the clock: %v", list)
	}
}
