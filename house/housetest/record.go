package housetest

import (
	"context"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"mezzadro/store"
)

// made is an empty record as it stands on the disk, made once for all tests of a package: to go through all migrations
// each time would be a third of what most tests do.
var made = sync.OnceValues(func() (map[string][]byte, error) {
	folder, err := os.MkdirTemp("", "mezzadro-empty")
	if err != nil {
		return nil, err
	}
	defer func() { _ = os.RemoveAll(folder) }()
	st, err := store.Open(context.Background(), folder)
	if err != nil {
		return nil, err
	}
	if err := st.Close(); err != nil {
		return nil, err
	}
	out := map[string][]byte{}
	list, err := os.ReadDir(folder)
	for _, f := range list {
		if f.Type().IsRegular() && err == nil {
			out[f.Name()], err = os.ReadFile(filepath.Join(folder, f.Name()))
		}
	}
	return out, err
})

// Folder is one of the test's own with an empty record in it.
func Folder(t testing.TB) string {
	t.Helper()
	files, err := made()
	if err != nil {
		t.Fatal(err)
	}
	folder := t.TempDir()
	for name, content := range files {
		if err := os.WriteFile(filepath.Join(folder, name), content, 0o600); err != nil {
			t.Fatal(err)
		}
	}
	return folder
}
