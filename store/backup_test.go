package store

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"mezzadro/core/catalogue"
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
	prairie, err := catalogue.Built().Climate("prairie")
	if err != nil {
		t.Fatal(err)
	}
	climate, err := json.Marshal(prairie.Climate)
	if err != nil {
		t.Fatal(err)
	}
	err = s.Write(ctx, func(tx Tx) error {
		for _, q := range []string{
			fmt.Sprintf(`INSERT INTO property (name, zone, climate, climate_type) VALUES ('Priory', 'UTC', '%[1]s', 'prairie'),
				('Mill', 'UTC', '%[1]s', 'prairie')`, climate),
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
	if _, err := Restore(ctx, bytes.NewReader(b.Bytes()), to, How{}); err != nil {
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
		if _, err := Restore(ctx, bytes.NewReader(file), filepath.Join(parent, "data"), How{}); err == nil || !strings.Contains(err.Error(), "cannot be restored") {
			t.Errorf("%s: %v", name, err)
		}
		if left, _ := os.ReadDir(parent); len(left) != 0 {
			t.Errorf("%s: left %v", name, left)
		}
	}
	if _, err := Restore(ctx, bytes.NewReader(good), folder, How{}); err == nil || !strings.Contains(err.Error(), "is not empty") {
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

// packed is a backup of a record in which some statements were run beforehand.
func packed(t *testing.T, statements ...string) []byte {
	t.Helper()
	s, folder := saved(t)
	for _, q := range statements {
		if _, err := s.write.ExecContext(ctx, q); err != nil {
			t.Fatalf("%s: %v", q, err)
		}
	}
	var b bytes.Buffer
	if _, err := Backup(ctx, folder, time.Now(), &b); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// TestRestoreRefuses: what runs by itself, and what comes after the end, is never taken; what entry would refuse is
// told by row and field, and taken only when that is said.
func TestRestoreRefuses(t *testing.T) {
	for _, c := range []struct {
		name, does string
		junk       string
		says       string
		despite    bool // it may be taken all the same
	}{
		{"a trigger", `CREATE TRIGGER t AFTER INSERT ON plant BEGIN DELETE FROM property; END`, "", `a trigger, "t"`, false},
		{"a view", `CREATE VIEW v AS SELECT * FROM account`, "", `a view, "v"`, false},
		{"something after its end", ``, "more", "cannot be restored", false},
		{"a zone that is none", `UPDATE property SET zone = 'Atlantis/City' WHERE id = 2`, "", `property 2: the zone "Atlantis/City" is none`, true},
		{"a figure without end", `UPDATE plant SET height_m = 9e999 WHERE id = 1`, "", `plant 1: height_m is "Inf"`, true},
		{"a plant that no garden holds", `UPDATE plant SET spread_m = 5000 WHERE id = 1`, "", "plant 1: spread_m is 5000", true},
		{"a day that is none", `UPDATE walk SET day = '2027-02-31' WHERE id = 1`, "", `walk 1: day is "2027-02-31"`, true},
		{"normals of eleven months", `UPDATE property SET climate = json_remove(climate, '$.normals[11]') WHERE id = 1`, "", "property 1: climate", true},
		{"broken JSON", `UPDATE property SET rules = '{' WHERE id = 1`, "", "property 1: rules cannot be read", true},
	} {
		file := packed(t, c.does)
		file = append(file, c.junk...)
		parent := t.TempDir()
		to := filepath.Join(parent, "data")
		_, err := Restore(ctx, bytes.NewReader(file), to, How{})
		if err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v, want %q", c.name, err, c.says)
		}
		if left, _ := os.ReadDir(parent); len(left) != 0 {
			t.Errorf("%s: left %v", c.name, left)
		}
		_, err = Restore(ctx, bytes.NewReader(file), to, How{Despite: true})
		if (err == nil) != c.despite {
			t.Errorf("%s, despite it: %v", c.name, err)
		}
	}
}

// TestWhoComesBack: one who was put out, one who is a planner no more, and a client's link that was ended are told
// before a backup takes the place of a record, and stay as they are today where that is said.
func TestWhoComesBack(t *testing.T) {
	s, folder := saved(t)
	run := func(q string) {
		t.Helper()
		if _, err := s.write.ExecContext(ctx, q); err != nil {
			t.Fatal(err)
		}
	}
	run(`INSERT INTO account (login, name, role, hash) VALUES ('ada', 'Ada', 'owner', 'x'), ('bo', 'Bo', 'crew', 'y'), ('cy', 'Cy', 'planner', 'z')`)
	run(`INSERT INTO client_link (property_id, hash, made, until) VALUES (1, 'l1', '2027-01-01', '2099-01-01'), (2, 'l2', '2027-01-01', '2099-01-01')`)
	var b bytes.Buffer
	if _, err := Backup(ctx, folder, time.Now(), &b); err != nil {
		t.Fatal(err)
	}
	run(`UPDATE account SET removed_at = '2027-03-01' WHERE login = 'bo'`)
	run(`UPDATE account SET role = 'crew' WHERE login = 'cy'`)
	run(`INSERT INTO account (login, name, role, hash) VALUES ('di', 'Di', 'crew', 'w')`)
	run(`UPDATE client_link SET revoked_at = '2027-03-01' WHERE hash = 'l1'`)
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	_, _, err := Replace(ctx, bytes.NewReader(b.Bytes()), folder, time.Now(), How{})
	for _, says := range []string{"Bo (crew) could sign in again", "Cy would be planner again, and is crew", "link to Priory would open again", "--who today"} {
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("not told %q: %v", says, err)
		}
	}
	if err != nil && (strings.Contains(err.Error(), "Ada") || strings.Contains(err.Error(), "Mill")) {
		t.Errorf("told of what is the same: %v", err)
	}
	if left, _ := os.ReadDir(filepath.Dir(folder)); len(left) > 2 { // the record, and what holds it
		t.Errorf("left %v", left)
	}
	if _, _, err := Replace(ctx, bytes.NewReader(b.Bytes()), folder, time.Now(), How{Who: WhoToday}); err != nil {
		t.Fatal(err)
	}
	r, err := Open(ctx, folder)
	if err != nil {
		t.Fatal(err)
	}
	defer r.Close()
	in := []string{}
	if err := r.read.SelectContext(ctx, &in, `SELECT login || ' ' || role FROM account WHERE removed_at IS NULL ORDER BY login`); err != nil {
		t.Fatal(err)
	}
	open := []string{}
	if err := r.read.SelectContext(ctx, &open, `SELECT hash FROM client_link WHERE revoked_at IS NULL`); err != nil {
		t.Fatal(err)
	}
	if got := strings.Join(in, ", ") + "; " + strings.Join(open, ", "); got != "ada owner, cy crew, di crew; l2" {
		t.Errorf("who comes in: %s", got)
	}
}

// TestSealed: a sealed backup tells nothing of what is in it, opens with its passphrase alone, and is restored as any.
func TestSealed(t *testing.T) {
	s, folder := saved(t)
	if _, err := s.write.ExecContext(ctx, `UPDATE property SET note = 'key under the third pot' WHERE id = 1`); err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "b.tar.zst"+SealEnding)
	if _, err := BackupTo(ctx, folder, time.Now(), file, "four quiet mulberry trees"); err != nil {
		t.Fatal(err)
	}
	b, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	if !bytes.HasPrefix(b, []byte(sealBegins)) || bytes.Contains(b, []byte("manifest")) || bytes.Contains(b, []byte("Priory")) {
		t.Errorf("it begins with %q", b[:40])
	}
	for passphrase, says := range map[string]string{"": "--passphrase-file", "five loud plane trees": "another passphrase"} {
		parent := t.TempDir()
		_, err := Restore(ctx, bytes.NewReader(b), filepath.Join(parent, "data"), How{Passphrase: passphrase})
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("with %q: %v", passphrase, err)
		}
		if left, _ := os.ReadDir(parent); len(left) != 0 {
			t.Errorf("with %q: left %v", passphrase, left)
		}
	}
	flipped := bytes.Clone(b)
	flipped[len(b)-100] ^= 1
	right := How{Passphrase: "four quiet mulberry trees"}
	if _, err := Restore(ctx, bytes.NewReader(flipped), filepath.Join(t.TempDir(), "data"), right); err == nil {
		t.Error("one that was changed is taken")
	}
	to := filepath.Join(t.TempDir(), "data")
	if m, err := Restore(ctx, bytes.NewReader(b), to, right); err != nil || m.Counts["property"] != 2 {
		t.Errorf("restored: %+v %v", m, err)
	}
	secret := filepath.Join(t.TempDir(), "secret")
	for text, want := range map[string]string{"short\n": "", "four quiet mulberry trees\r\nmore\n": "four quiet mulberry trees"} {
		if err := os.WriteFile(secret, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
		if got, err := PassphraseOf(secret); got != want || (err == nil) != (want != "") {
			t.Errorf("%q: %q %v", text, got, err)
		}
	}
}
