package store

import (
	"archive/tar"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/klauspost/compress/zstd"
)

// Manifest is what a backup says of itself: the first file in it.
type Manifest struct {
	Format int            `json:"format"` // 1
	Made   time.Time      `json:"made"`
	Schema int64          `json:"schema"` // of the tables
	Counts map[string]int `json:"counts"` // rows by table
	Files  []BackupFile   `json:"files"`
}

// BackupFile is a file in a backup.
type BackupFile struct {
	Name   string `json:"name"`
	Bytes  int64  `json:"bytes"`
	SHA256 string `json:"sha256"`
}

const (
	recordFile   = "mezzadro.db"
	manifestFile = "manifest.json"
	backupFormat = 1

	copying   = "mezzadro-backup-" // folders of work that is under way
	restoring = ".restoring-"
)

// counted are the tables whose rows a backup tells.
var counted = []string{"property", "plant", "walk", "verdict", "job_order", "photo"}

// Backup writes the record in a folder with its pictures to w, whether a program has it open or not: a tar file,
// packed with zstd, that begins with its manifest. The record is copied as it stands at one moment.
func Backup(ctx context.Context, folder string, made time.Time, w io.Writer) (Manifest, error) {
	m := Manifest{Format: backupFormat, Made: made.UTC(), Counts: map[string]int{}}
	if _, err := os.Stat(filepath.Join(folder, recordFile)); err != nil {
		return m, fmt.Errorf("there is no record in %s: %w", folder, err)
	}
	tmp, err := os.MkdirTemp("", copying)
	if err != nil {
		return m, err
	}
	defer os.RemoveAll(tmp)
	copied := filepath.Join(tmp, recordFile)
	if err := m.copyRecord(ctx, folder, copied); err != nil {
		return m, err
	}
	sources, err := m.list(folder, copied)
	if err != nil {
		return m, err
	}
	z, err := zstd.NewWriter(w)
	if err != nil {
		return m, err
	}
	t := tar.NewWriter(z)
	head, err := json.MarshalIndent(m, "", " ")
	if err == nil {
		err = put(t, manifestFile, int64(len(head)), m.Made, strings.NewReader(string(head)))
	}
	for i, f := range m.Files {
		if err == nil {
			err = putFile(t, f, m.Made, sources[i])
		}
	}
	return m, errors.Join(err, t.Close(), z.Close())
}

// BackupTo is Backup into a file, which is there whole or not at all; sealed where there is a passphrase.
func BackupTo(ctx context.Context, folder string, made time.Time, file, passphrase string) (Manifest, error) {
	part := file + ".part"
	f, err := os.OpenFile(part, os.O_WRONLY|os.O_CREATE|os.O_TRUNC, 0o600)
	if err != nil {
		return Manifest{}, err
	}
	var m Manifest
	to, err := sealed(f, passphrase)
	if err == nil {
		m, err = Backup(ctx, folder, made, to)
		err = errors.Join(err, to.Close())
	}
	if err = errors.Join(err, f.Sync(), f.Close()); err == nil {
		err = os.Rename(part, file)
	}
	if err != nil {
		return m, errors.Join(err, os.Remove(part))
	}
	return m, nil
}

// copyRecord copies the record as it stands, and counts its rows.
func (m *Manifest) copyRecord(ctx context.Context, folder, to string) error {
	db, err := sqlx.Open("sqlite", "file:"+filepath.Join(folder, recordFile)+"?_pragma=busy_timeout(10000)")
	if err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, `VACUUM INTO ?`, to)
	if err = errors.Join(err, db.Close()); err != nil {
		return fmt.Errorf("copy of the record: %w", err)
	}
	c, err := sqlx.Open("sqlite", "file:"+to+"?mode=ro")
	if err != nil {
		return err
	}
	defer c.Close()
	if err := c.GetContext(ctx, &m.Schema, `SELECT max(version_id) FROM goose_db_version`); err != nil {
		return err
	}
	for _, table := range counted {
		n := 0
		if err := c.GetContext(ctx, &n, `SELECT count(*) FROM `+table); err != nil {
			return err
		}
		m.Counts[table] = n
	}
	return nil
}

// list gathers the files with their hashes, and where they are read.
func (m *Manifest) list(folder, record string) (sources []string, err error) {
	add := func(name, path string) error {
		sum, n, err := hashOf(path)
		if err == nil {
			m.Files = append(m.Files, BackupFile{name, n, sum})
			sources = append(sources, path)
		}
		return err
	}
	if err := add(recordFile, record); err != nil {
		return nil, err
	}
	root := filepath.Join(folder, "photos")
	err = filepath.WalkDir(root, func(path string, e fs.DirEntry, err error) error {
		if errors.Is(err, fs.ErrNotExist) && path == root {
			return filepath.SkipAll
		}
		if err != nil || e.IsDir() || strings.HasPrefix(e.Name(), "new-") { // one that is just being written
			return err
		}
		name, err := filepath.Rel(folder, path)
		if err != nil {
			return err
		}
		return add(filepath.ToSlash(name), path)
	})
	return sources, err
}

func hashOf(path string) (sum string, n int64, err error) {
	f, err := os.Open(path)
	if err != nil {
		return "", 0, err
	}
	defer f.Close()
	h := sha256.New()
	n, err = io.Copy(h, f)
	return hex.EncodeToString(h.Sum(nil)), n, err
}

func put(t *tar.Writer, name string, size int64, made time.Time, r io.Reader) error {
	if err := t.WriteHeader(&tar.Header{Name: name, Mode: 0o600, Size: size, ModTime: made}); err != nil {
		return err
	}
	_, err := io.Copy(t, r)
	return err
}

func putFile(t *tar.Writer, of BackupFile, made time.Time, path string) error {
	f, err := os.Open(path)
	if err != nil {
		return err
	}
	defer f.Close()
	return put(t, of.Name, of.Bytes, made, f)
}

// Despite is how a record is restored that holds what entry would refuse.
const Despite = "--despite"

// Restore puts a backup into a folder that is empty or not there yet. Everything is unpacked beside it and checked
// first: on any fault the folder stays as it was, and nothing is left. Despite it all, a record that is whole but holds
// what entry would refuse is taken all the same: better a page that cannot be worked out than no record.
func Restore(ctx context.Context, r io.Reader, folder string, how How) (Manifest, error) {
	if list, err := os.ReadDir(folder); err == nil && len(list) > 0 {
		return Manifest{}, fmt.Errorf("%s is not empty: give another folder, or move what is there away", folder)
	} else if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return Manifest{}, err
	}
	if err := os.MkdirAll(filepath.Dir(filepath.Clean(folder)), 0o700); err != nil {
		return Manifest{}, err
	}
	r, err := opened(r, how.Passphrase)
	if err != nil {
		return Manifest{}, fmt.Errorf("the backup cannot be restored: %w", err)
	}
	beside, err := os.MkdirTemp(filepath.Dir(filepath.Clean(folder)), restoring)
	if err != nil {
		return Manifest{}, err
	}
	defer os.RemoveAll(beside)
	m, err := unpack(r, beside)
	if err != nil {
		return m, fmt.Errorf("the backup cannot be restored: %w", err)
	}
	broken, odd, err := lookThrough(ctx, beside)
	switch {
	case err != nil:
		return m, err
	case len(broken) > 0:
		return m, fmt.Errorf("the backup cannot be restored: %s", strings.Join(broken, "; "))
	case len(odd) > 0 && !how.Despite:
		return m, fmt.Errorf("the backup cannot be restored as it is; with %s it can: %s", Despite, strings.Join(odd, "; "))
	}
	if err := endSessions(ctx, beside); err != nil {
		return m, err
	}
	if err := os.Remove(folder); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return m, err
	}
	return m, os.Rename(beside, folder)
}

// endSessions lets nobody in by a session or a passkey of the day of the backup: who was put out since, or a phone that was
// lost, would be in again.
func endSessions(ctx context.Context, folder string) error {
	db, err := sqlx.Open("sqlite", "file:"+filepath.Join(folder, recordFile)+"?_pragma=busy_timeout(5000)")
	if err != nil {
		return err
	}
	var there []string // a backup of before there was one has none
	err = db.SelectContext(ctx, &there, `SELECT name FROM sqlite_master WHERE type = 'table' AND name IN ('session', 'passkey')`)
	for _, table := range there {
		if err == nil {
			_, err = db.ExecContext(ctx, `DELETE FROM `+table)
		}
	}
	return errors.Join(err, db.Close())
}

// How is how a backup is restored: what may be taken all the same, who may sign in after it, and what opens it.
type How struct {
	Despite    bool
	Who        string // WhoToday or WhoBackup; empty refuses where they differ
	Passphrase string // of a sealed one
}

// Replace puts a backup in the place of a record that nobody serves. All is unpacked and checked beside it first; the
// record before stays, under its name with the time, which is given back.
func Replace(ctx context.Context, r io.Reader, folder string, now time.Time, how How) (m Manifest, aside string, err error) {
	folder = filepath.Clean(folder)
	held, err := hold(folder)
	if err != nil {
		return m, "", err
	}
	defer held.Close()
	fresh := unused(folder + ".restored-" + now.UTC().Format("20060102-150405"))
	if m, err = Restore(ctx, r, fresh, how); err != nil {
		return m, "", err
	}
	if err := whoComesIn(ctx, folder, fresh, how.Who, now); err != nil {
		return m, "", errors.Join(err, os.RemoveAll(fresh))
	}
	aside = unused(folder + ".before-" + now.UTC().Format("20060102-150405"))
	if err := os.Rename(folder, aside); err != nil {
		return m, "", errors.Join(err, os.RemoveAll(fresh))
	}
	if err := os.Rename(fresh, folder); err != nil {
		return m, "", errors.Join(err, os.Rename(aside, folder))
	}
	return m, aside, nil
}

// unused is a name that nothing has yet: two restores may fall into one second.
func unused(name string) string {
	at := name
	for n := 2; ; n++ {
		if _, err := os.Lstat(at); errors.Is(err, os.ErrNotExist) {
			return at
		}
		at = fmt.Sprintf("%s-%d", name, n)
	}
}

// unpack writes the files of a backup into a folder, each as its manifest says.
func unpack(r io.Reader, folder string) (m Manifest, err error) {
	z, err := zstd.NewReader(r)
	if err != nil {
		return m, err
	}
	defer z.Close()
	t := tar.NewReader(z)
	head, err := t.Next()
	if err != nil || head.Name != manifestFile {
		return m, errors.New("it does not begin with a manifest: is it a backup of this program?")
	}
	if err := json.NewDecoder(io.LimitReader(t, 64<<20)).Decode(&m); err != nil {
		return m, fmt.Errorf("its manifest: %w", err)
	}
	if m.Format != backupFormat {
		return m, fmt.Errorf("its format is %d; this program knows %d", m.Format, backupFormat)
	}
	for _, f := range m.Files {
		head, err := t.Next()
		if err != nil {
			return m, fmt.Errorf("%s is missing: %w", f.Name, err)
		}
		if head.Name != f.Name || !filepath.IsLocal(f.Name) || head.Typeflag != tar.TypeReg {
			return m, fmt.Errorf("%q stands where %q should", head.Name, f.Name)
		}
		if err := f.write(t, folder); err != nil {
			return m, err
		}
	}
	if !slices.ContainsFunc(m.Files, func(f BackupFile) bool { return f.Name == recordFile }) {
		return m, errors.New("it holds no record")
	}
	if head, err := t.Next(); err == nil {
		return m, fmt.Errorf("it holds %q, which its manifest does not tell of", head.Name)
	} else if !errors.Is(err, io.EOF) {
		return m, fmt.Errorf("after its last file: %w", err)
	}
	if n, err := io.Copy(io.Discard, z); err != nil || n > 0 {
		return m, errors.Join(errors.New("there is something after its end"), err)
	}
	return m, nil
}

// write keeps one file, if it is what the manifest says.
func (f BackupFile) write(r io.Reader, folder string) error {
	path := filepath.Join(folder, filepath.FromSlash(f.Name))
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return err
	}
	to, err := os.OpenFile(path, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return err
	}
	h := sha256.New()
	n, err := io.Copy(io.MultiWriter(to, h), io.LimitReader(r, f.Bytes+1))
	if err = errors.Join(err, to.Sync(), to.Close()); err != nil {
		return fmt.Errorf("%s: %w", f.Name, err)
	}
	if sum := hex.EncodeToString(h.Sum(nil)); n != f.Bytes || sum != f.SHA256 {
		return fmt.Errorf("%s is not what it was", f.Name)
	}
	return nil
}

// Check looks through a record that no program has open: the file itself, what hangs on what, each picture against its
// name, and what entry would refuse. It gives the faults, up to forty; none is a good record.
func Check(ctx context.Context, folder string) (faults []string, err error) {
	broken, odd, err := lookThrough(ctx, folder)
	return append(broken, odd...), err
}

// mostTold is how many faults of a kind are told.
const mostTold = 20

// lookThrough tells what is broken in a record, and what is whole but cannot be.
func lookThrough(ctx context.Context, folder string) (faults, odd []string, err error) {
	db, err := sqlx.Open("sqlite", "file:"+filepath.Join(folder, recordFile)+"?_pragma=busy_timeout(5000)")
	if err != nil {
		return nil, nil, err
	}
	defer db.Close()
	teller := func(list *[]string) func(string, ...any) {
		return func(format string, a ...any) {
			if len(*list) < mostTold {
				*list = append(*list, fmt.Sprintf(format, a...))
			}
		}
	}
	say := teller(&faults)
	told := []string{}
	if err := db.SelectContext(ctx, &told, `PRAGMA integrity_check(20)`); err != nil {
		say("the record cannot be read: %v", err)
		return faults, odd, nil
	}
	for _, t := range told {
		if t != "ok" {
			say("the record: %s", t)
		}
	}
	loose := []string{}
	if err := db.SelectContext(ctx, &loose, `SELECT DISTINCT "table" FROM pragma_foreign_key_check`); err != nil {
		return faults, odd, err
	}
	for _, t := range loose {
		say("rows of %s hang on something that is not there", t)
	}
	if err := programs(ctx, db, say); err != nil {
		return faults, odd, err
	}
	if err := unsound(ctx, db, teller(&odd)); err != nil {
		return faults, odd, err
	}
	hashes, err := pictures(ctx, db)
	if err != nil {
		return faults, odd, err
	}
	for _, hash := range hashes {
		if !hashed.MatchString(hash) {
			say("a picture is kept under %q, which is no hash", hash)
			continue
		}
		sum, _, err := hashOf(filepath.Join(folder, "photos", hash[:2], hash+".jpg"))
		switch {
		case err != nil:
			say("picture %s is missing", hash[:12])
		case sum != hash:
			say("picture %s is not what it was", hash[:12])
		}
	}
	return faults, odd, nil
}

// pictures are the hashes of all pictures that a record tells of; an older one has fewer tables of them.
func pictures(ctx context.Context, db getter) (hashes []string, err error) {
	tables := []string{}
	if err := db.SelectContext(ctx, &tables, `SELECT name FROM sqlite_master WHERE type = 'table' AND name IN ('photo', 'order_photo', 'unnamed')`); err != nil {
		return nil, err
	}
	for _, t := range tables {
		if t == "unnamed" {
			continue // keeps several in a row
		}
		list := []string{}
		if err := db.SelectContext(ctx, &list, `SELECT DISTINCT hash FROM `+t); err != nil {
			return nil, err
		}
		hashes = append(hashes, list...)
	}
	under := []string{}
	err = db.SelectContext(ctx, &under, `SELECT DISTINCT json_extract(body, '$.underlay.photo') FROM site_plan
		WHERE json_extract(body, '$.underlay.photo') <> ''`)
	if err != nil && strings.Contains(err.Error(), "no such table") {
		err = nil // of before there were plans
	}
	if err == nil && slices.Contains(tables, "unnamed") {
		list := []string{}
		err = db.SelectContext(ctx, &list, `SELECT DISTINCT p.value FROM unnamed u, json_each(u.pictures) p`)
		under = append(under, list...)
	}
	return append(hashes, under...), err
}
