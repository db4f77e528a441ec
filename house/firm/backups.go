package firm

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"mezzadro/store"
)

// Backups says where backups go, how often they are written while the record is served, and how many stay.
type Backups struct {
	Folder string        // empty: beside the record
	Every  time.Duration // 0: only when somebody asks
	Keep   int           // 0: all
	Secret string        // the passphrase they are sealed with; empty: they are not
}

// BackupState is how a record stands with its backups.
type BackupState struct {
	Folder string     `json:"folder" doc:"Where they go, on the machine that serves the record"`
	Every  string     `json:"every" doc:"How often; empty: only when somebody asks"`
	Keep   int        `json:"keep" doc:"How many stay; 0: all"`
	Sealed bool       `json:"sealed" doc:"With a passphrase: a copy elsewhere tells nothing without it"`
	Last   *time.Time `json:"last,omitempty" doc:"When the last one was written whole"`
	File   string     `json:"file,omitempty" doc:"Its name"`
	Plants int        `json:"plants,omitempty" doc:"Plants in it"`
	Due    bool       `json:"due" doc:"There was none for a week"`
}

// Of backups.
const (
	backupDue    = 7 * 24 * time.Hour
	backupPrefix = "mezzadro-"
	backupEnding = ".tar.zst"
)

func (h *Room) backupFolder() string {
	if h.Backups.Folder != "" {
		return h.Backups.Folder
	}
	return filepath.Join(h.Store.Folder(), "backups")
}

// BackupState is how the record stands with its backups.
func (h *Room) BackupState(ctx context.Context) (BackupState, error) {
	out := BackupState{Folder: h.backupFolder(), Keep: h.Backups.Keep, Sealed: h.Backups.Secret != ""}
	if h.Backups.Every > 0 {
		out.Every = h.Backups.Every.String()
	}
	last, some, err := h.Store.LastBackup(ctx)
	if err != nil {
		return out, err
	}
	since, err := h.Store.Begun(ctx)
	if some {
		at, err := time.Parse(time.RFC3339, last.At)
		if err != nil {
			return out, err
		}
		out.Last, out.File, out.Plants, since = &at, filepath.Base(last.File), last.Plants, at
	}
	out.Due = time.Since(since) > backupDue
	return out, err
}

// BackUp writes a backup now and drops those that are too many. One that breaks off leaves nothing behind.
func (h *Room) BackUp(ctx context.Context) (BackupState, error) {
	h.backing.Lock()
	defer h.backing.Unlock()
	folder, now := h.backupFolder(), time.Now().UTC()
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return BackupState{}, store.Refused(fmt.Sprintf("the folder for backups cannot be made: %v", err))
	}
	file := filepath.Join(folder, backupPrefix+now.Format("20060102-150405.000")+backupEnding)
	if h.Backups.Secret != "" {
		file += store.SealEnding
	}
	m, err := store.BackupTo(ctx, h.Store.Folder(), now, file, h.Backups.Secret)
	if err != nil {
		return BackupState{}, err
	}
	done := store.BackupDone{At: now.Format(time.RFC3339), File: file, Plants: m.Counts["plant"]}
	if err := h.Store.NoteBackup(ctx, done); err != nil {
		return BackupState{}, err
	}
	if err := h.dropOld(folder, filepath.Base(file)); err != nil {
		return BackupState{}, err
	}
	return h.BackupState(ctx)
}

// dropOld removes the oldest backups beyond those that stay; the one just made stays, whatever day the names of others
// tell.
func (h *Room) dropOld(folder, made string) error {
	if h.Backups.Keep <= 0 {
		return nil
	}
	entries, err := os.ReadDir(folder)
	if err != nil {
		return err
	}
	names := []string{}
	for _, e := range entries {
		if n := e.Name(); n != made && strings.HasPrefix(n, backupPrefix) && strings.HasSuffix(strings.TrimSuffix(n, store.SealEnding), backupEnding) {
			names = append(names, e.Name())
		}
	}
	slices.Sort(names) // by their time
	for _, n := range names[:max(0, len(names)+1-h.Backups.Keep)] {
		err = errors.Join(err, os.Remove(filepath.Join(folder, n)))
	}
	return err
}

// LastBackupFile opens the last backup. ErrNotFound where there is none any more.
func (h *Room) LastBackupFile(ctx context.Context) (*os.File, error) {
	last, some, err := h.Store.LastBackup(ctx)
	if err != nil {
		return nil, err
	}
	if !some {
		return nil, store.ErrNotFound
	}
	f, err := os.Open(last.File)
	if errors.Is(err, os.ErrNotExist) {
		return nil, store.ErrNotFound
	}
	return f, err
}

// backupAgain is when a backup that failed is tried again.
const backupAgain = time.Hour

// WatchBackups writes backups by the clock until the context ends. One that fails is logged, said in Settings by its
// being due, and tried again within the hour.
func (h *Room) WatchBackups(ctx context.Context) {
	if h.Backups.Every <= 0 {
		return
	}
	wait := time.Duration(0)
	if s, err := h.BackupState(ctx); err == nil && s.Last != nil {
		wait = max(0, h.Backups.Every-time.Since(*s.Last))
	}
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(wait):
		}
		if s, err := h.BackUp(ctx); err != nil {
			h.Log.Error("backup", "error", err)
			wait = min(h.Backups.Every, backupAgain)
		} else {
			h.Log.Info("backup", "file", s.File, "plants", s.Plants)
			wait = h.Backups.Every
		}
	}
}
