package firm_test

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"mezzadro/house/firm"
	"mezzadro/house/housetest"
)

// TestJustMadeBackupStays: also where the names of others tell days to come, as after a clock that ran ahead.
func TestJustMadeBackupStays(t *testing.T) {
	k := housetest.Open(t)
	k.Property("Old Mill", "lake-foothills")
	folder := t.TempDir()
	k.Firm.Backups = firm.Backups{Folder: folder, Keep: 2}
	for _, name := range []string{"mezzadro-20990101-000000.000.tar.zst", "mezzadro-20990102-000000.000.tar.zst",
		"mezzadro-20990103-000000.000.tar.zst"} {
		if err := os.WriteFile(filepath.Join(folder, name), []byte("older"), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	for range 2 {
		s, err := k.Firm.BackUp(context.Background())
		if err != nil {
			t.Fatal(err)
		}
		if _, err := os.Stat(filepath.Join(folder, s.File)); err != nil {
			t.Errorf("the backup just made is gone: %v", err)
		}
		list, err := os.ReadDir(folder)
		if err != nil || len(list) != 2 {
			t.Errorf("%d backups stay, want 2: %v", len(list), err)
		}
	}
}

// TestSignInIsNotQueuedFull: of many who try at once most are told to come again, and one who comes after gets in.
func TestSignInIsNotQueuedFull(t *testing.T) {
	k := housetest.Open(t)
	const password = "four quiet mulberry trees"
	ilda := firm.OwnerIn{Login: "ilda", Name: "Ilda", Password: password}
	if _, err := k.Firm.FirstOwner(context.Background(), ilda); err != nil {
		t.Fatal(err)
	}
	var busy, wrong atomic.Int32
	var all sync.WaitGroup
	for n := range 60 {
		all.Go(func() {
			guess := firm.SignInIn{Login: fmt.Sprint("guess ", n), Password: "a guess at random"}
			_, err := k.Firm.SignIn(context.Background(), guess)
			if err != nil && strings.Contains(err.Error(), "try again") {
				busy.Add(1)
			} else {
				wrong.Add(1)
			}
		})
	}
	all.Wait()
	if busy.Load() == 0 || wrong.Load() == 0 {
		t.Errorf("%d told to come again, %d looked at", busy.Load(), wrong.Load())
	}
	if _, err := k.Firm.SignIn(context.Background(), firm.SignInIn{Login: "ilda", Password: password}); err != nil {
		t.Errorf("after them: %v", err)
	}
}
