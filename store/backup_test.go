package store

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"
)

// saved is a record with some properties and a picture, and its folder.
func saved(t *testing.T) (*Store, string) {
	t.Helper()
	folder := filepath.Join(t.TempDir(), "data")
	s, err := Open(ctx, folder)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	hash, err := s.KeepPicture([]byte("a picture"))
	if err != nil {
		t.Fatal(err)
	}
	err = s.Write(ctx, func(tx Tx) error {
		for _, q := range []string{
			`INSERT INTO property (name, zone, climate, climate_type) VALUES ('Priory', 'UTC', '{}', 'prairie'), ('Mill', 'UTC', '{}', 'prairie')`,
			`INSERT INTO plant (property_id, species, height_m, spread_m) VALUES (1, 'buxus-sempervirens', 1, 1)`,
			`INSERT INTO walk (property_id, day) VALUES (1, '2027-03-18')`,
			`INSERT INTO photo (walk_id, plant_id, hash, width, height) VALUES (1, 1, '` + hash + `', 4, 3)`,
		} {
			if _, err := tx.ExecContext(ctx, q); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	return s, folder
}

// TestBackup: taken from a running record while it is written to, and restored whole: rows, pictures, and it goes on
// being written.
func TestBackup(t *testing.T) {
	s, folder := saved(t)
	var writes sync.WaitGroup
	writes.Go(func() {
		for range 50 {
			_ = s.Write(ctx, func(tx Tx) error {
				_, err := tx.ExecContext(ctx, `UPDATE property SET note = note || 'x' WHERE id = 1`)
				return err
			})
		}
	})
	var b bytes.Buffer
	m, err := Backup(ctx, folder, time.Now(), &b)
	writes.Wait()
	if err != nil || m.Counts["property"] != 2 || m.Counts["photo"] != 1 || len(m.Files) != 2 || m.Schema < 17 {
		t.Fatalf("%+v, %v", m, err)
	}
	to := filepath.Join(t.TempDir(), "deep", "restored")
	if _, err := Restore(ctx, bytes.NewReader(b.Bytes()), to); err != nil {
		t.Fatal(err)
	}
	r, err := Open(ctx, to)
	if err != nil {
		t.Fatal(err)
	}
	props, err := r.Properties(ctx, 0, 9)
	if err != nil || len(props) != 2 {
		t.Errorf("restored: %d properties, %v", len(props), err)
	}
	photos, err := r.WalkPhotos(ctx, 1)
	if err != nil || len(photos) != 1 {
		t.Fatalf("restored: %+v, %v", photos, err)
	}
	if pic, err := r.Picture(photos[0].Hash); err != nil || string(pic) != "a picture" {
		t.Errorf("restored: %q, %v", pic, err)
	}
	if err := r.Close(); err != nil {
		t.Fatal(err)
	}
	if faults, err := Check(ctx, to); err != nil || len(faults) != 0 {
		t.Errorf("the restored record: %v, %v", faults, err)
	}
}

// TestBadRestores: what is broken, cut, of another program or made to write elsewhere is refused, and nothing is left
// of it; a folder that is not empty stays.
func TestBadRestores(t *testing.T) {
	_, folder := saved(t)
	var b bytes.Buffer
	if _, err := Backup(ctx, folder, time.Now(), &b); err != nil {
		t.Fatal(err)
	}
	good := b.Bytes()
	flipped := bytes.Clone(good)
	flipped[len(flipped)/2] ^= 0x40
	for name, file := range map[string][]byte{"cut short": good[:len(good)*2/3], "a bit flipped": flipped, "no backup": []byte("hello"), "nothing": nil} {
		parent := t.TempDir()
		if _, err := Restore(ctx, bytes.NewReader(file), filepath.Join(parent, "data")); err == nil || !strings.Contains(err.Error(), "cannot be restored") {
			t.Errorf("%s: %v", name, err)
		}
		if left, _ := os.ReadDir(parent); len(left) != 0 {
			t.Errorf("%s: left %v", name, left)
		}
	}
	if _, err := Restore(ctx, bytes.NewReader(good), folder); err == nil || !strings.Contains(err.Error(), "is not empty") {
		t.Errorf("over a record: %v", err)
	}
	if _, err := Backup(ctx, t.TempDir(), time.Now(), &b); err == nil {
		t.Error("a backup of nothing")
	}
}

// TestCheck: a picture that is gone or changed, and a row that hangs on nothing, are named.
func TestCheck(t *testing.T) {
	s, folder := saved(t)
	photos, err := s.WalkPhotos(ctx, 1)
	if err != nil {
		t.Fatal(err)
	}
	file := s.file(photos[0].Hash, "jpg")
	if err := os.WriteFile(file, []byte("another"), 0o600); err != nil {
		t.Fatal(err)
	}
	if faults, err := Check(ctx, folder); err != nil || len(faults) != 1 || !strings.Contains(faults[0], "not what it was") {
		t.Errorf("a changed picture: %v, %v", faults, err)
	}
	if err := os.Remove(file); err != nil {
		t.Fatal(err)
	}
	if _, err := s.write.ExecContext(ctx, `PRAGMA foreign_keys = OFF; DELETE FROM walk; PRAGMA foreign_keys = ON`); err != nil {
		t.Fatal(err)
	}
	faults, err := Check(ctx, folder)
	if text := strings.Join(faults, "; "); err != nil || !strings.Contains(text, "is missing") || !strings.Contains(text, "rows of photo") {
		t.Errorf("a picture that is gone, and a row on nothing: %v, %v", faults, err)
	}
}
