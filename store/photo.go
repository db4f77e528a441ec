package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"time"
)

// Photo is a picture taken at a plant on a walk. The picture lies in the data folder under its hash.
type Photo struct {
	ID        int64    `db:"id"`
	WalkID    int64    `db:"walk_id"`
	PlantID   int64    `db:"plant_id"`
	Day       string   `db:"day"`
	Hash      string   `db:"hash"`
	Width     int      `db:"width"`
	Height    int      `db:"height"`
	Taken     string   `db:"taken"`
	Latitude  *float64 `db:"latitude"`
	Longitude *float64 `db:"longitude"`
}

const selectPhoto = `SELECT f.id, f.walk_id, f.plant_id, w.day, f.hash, f.width, f.height, f.taken, f.latitude,
	f.longitude FROM photo f JOIN walk w ON w.id = f.walk_id WHERE f.removed_at IS NULL AND `

// WalkPhotos are those of a walk, PlantPhotos those of a plant; the oldest first.
func (s *Store) WalkPhotos(ctx context.Context, walk int64) ([]Photo, error) {
	return many[Photo](ctx, s.read, selectPhoto+`f.walk_id = ? ORDER BY f.id`, walk)
}

// PlantPhotos are a plant's.
func (s *Store) PlantPhotos(ctx context.Context, plant int64) ([]Photo, error) {
	return many[Photo](ctx, s.read, selectPhoto+`f.plant_id = ? ORDER BY w.day, f.id`, plant)
}

// AddPhoto keeps the record of a picture that is on the disk already.
func (tx Tx) AddPhoto(ctx context.Context, p Photo) (Photo, error) {
	res, err := tx.NamedExecContext(
		ctx,
		`INSERT INTO photo (walk_id, plant_id, hash, width, height, taken, latitude, longitude)
		SELECT w.id, p.id, :hash, :width, :height, :taken, :latitude, :longitude FROM walk w JOIN plant p ON
		p.property_id = w.property_id AND p.removed_at IS NULL
		WHERE w.id = :walk_id AND p.id = :plant_id`,
		p,
	)
	if err != nil {
		return p, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return p, errors.Join(err, ErrNotFound)
	}
	id, err := res.LastInsertId()
	if err != nil {
		return p, err
	}
	return one[Photo](ctx, tx, selectPhoto+`f.id = ?`, id)
}

// RemovePhoto takes a photo out of sight, or brings it back. The picture stays.
func (tx Tx) RemovePhoto(ctx context.Context, id int64, remove bool) error {
	if remove {
		return tx.touch(ctx, `UPDATE photo SET removed_at = datetime('now') WHERE id = ? AND removed_at IS NULL`, id)
	}
	return tx.touch(ctx, `UPDATE photo SET removed_at = NULL WHERE id = ?`, id)
}

var hashed = regexp.MustCompile(`^[0-9a-f]{64}$`)

func (s *Store) file(hash, ending string) string {
	return filepath.Join(s.folder, "photos", hash[:2], hash+"."+ending)
}

// KeepPicture writes a picture under its hash, whole or not at all. One that is there already is left as it is.
func (s *Store) KeepPicture(jpeg []byte) (hash string, err error) { return s.KeepFile(jpeg, "jpg") }

// KeepFile does the same for a file of any ending.
func (s *Store) KeepFile(content []byte, ending string) (hash string, err error) {
	sum := sha256.Sum256(content)
	hash = hex.EncodeToString(sum[:])
	file := s.file(hash, ending)
	if kept, err := os.ReadFile(file); err == nil && sha256.Sum256(kept) == sum {
		return hash, nil // one that is not what it was, as after a broken disk, is written anew
	}
	if err := os.MkdirAll(filepath.Dir(file), 0o700); err != nil {
		return "", err
	}
	tmp, err := os.CreateTemp(filepath.Dir(file), "new-*")
	if err != nil {
		return "", err
	}
	_, err = tmp.Write(content)
	err = errors.Join(err, tmp.Sync(), tmp.Close())
	if err == nil {
		err = os.Rename(tmp.Name(), file)
	}
	if err != nil {
		return "", errors.Join(err, os.Remove(tmp.Name()))
	}
	return hash, synced(filepath.Dir(file))
}

// synced has a folder's list of files be on the disk: a file whose name is not there is lost all the same.
func synced(folder string) error {
	d, err := os.Open(folder)
	if err != nil {
		return err
	}
	return errors.Join(d.Sync(), d.Close())
}

// sweep removes what was left of pictures whose writing was cut off.
func sweep(folder string) error {
	left, err := filepath.Glob(filepath.Join(folder, "photos", "*", "new-*"))
	for _, f := range left {
		err = errors.Join(err, os.Remove(f))
	}
	return errors.Join(err, sweepOld(filepath.Join(filepath.Dir(filepath.Clean(folder)), restoring+"*"), time.Hour),
		sweepOld(filepath.Join(os.TempDir(), copying+"*"), 24*time.Hour))
}

// sweepOld removes what restores and backups left that were killed: nothing younger, which another program may be at.
func sweepOld(pattern string, age time.Duration) error {
	left, err := filepath.Glob(pattern)
	for _, f := range left {
		if at, e := os.Stat(f); e == nil && time.Since(at.ModTime()) > age {
			err = errors.Join(err, os.RemoveAll(f))
		}
	}
	return err
}

// Picture reads a kept picture.
func (s *Store) Picture(hash string) ([]byte, error) { return s.File(hash, "jpg") }

// File reads a kept file.
func (s *Store) File(hash, ending string) ([]byte, error) {
	if !hashed.MatchString(hash) {
		return nil, ErrNotFound
	}
	b, err := os.ReadFile(s.file(hash, ending))
	if errors.Is(err, fs.ErrNotExist) {
		return nil, ErrNotFound
	}
	if sum := sha256.Sum256(b); err == nil && hex.EncodeToString(sum[:]) != hash {
		return nil, ErrNotFound // half of one is none; sent again it is whole
	}
	return b, err
}
