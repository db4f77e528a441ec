package house

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

var imported = regexp.MustCompile(`(?:from|import)\s*\(?\s*['"](\.[^'"]+)['"]`)

// page lists the files of the page with what they import, both from web/src on, endings left out.
func page(t *testing.T) map[string][]string {
	t.Helper()
	const root = "../web/src"
	out := map[string][]string{}
	bare := func(path string) string {
		return strings.TrimSuffix(strings.TrimSuffix(strings.TrimSuffix(path, ".ts"), ".svelte"), ".svelte")
	}
	err := filepath.WalkDir(root, func(path string, d os.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".ts") && !strings.HasSuffix(path, ".svelte") {
			return err
		}
		text, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		from, err := filepath.Rel(root, path)
		if err != nil {
			return err
		}
		for _, m := range imported.FindAllSubmatch(text, -1) {
			out[bare(from)] = append(out[bare(from)], bare(filepath.Join(filepath.Dir(from), string(m[1]))))
		}
		out[bare(from)] = append(out[bare(from)], "")
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// TestPageHasTheSameRooms: the page's folders are the house's rooms, and what they share, what is kept on the device, and the
// API's client.
func TestPageHasTheSameRooms(t *testing.T) {
	known := map[string]bool{"api": true, "lib": true, "field": true}
	for _, r := range order {
		known[r] = r != "estate"
	}
	for file := range page(t) {
		if room := strings.Split(file, "/")[0]; strings.Contains(file, "/") && !known[room] {
			t.Errorf("web/src/%s: no room of the house is named %s", file, room)
		}
	}
}

// TestSharedIsShared: what one place alone uses lives beside it, not among what several share.
func TestSharedIsShared(t *testing.T) {
	users := map[string]map[string]bool{}
	files := page(t)
	for file, uses := range files {
		for _, u := range uses {
			if users[u] == nil {
				users[u] = map[string]bool{}
			}
			users[u][strings.Split(file, "/")[0]] = true
		}
	}
	for file := range files {
		beside := users[file]["lib"] // what shared ones alone use lives beside them
		if strings.HasPrefix(file, "lib/") && len(users[file]) < 2 && !beside {
			t.Errorf("web/src/%s: used in %d room; it belongs there", file, len(users[file]))
		}
	}
}

// TestListsTakeTwins: a list of texts is not keyed by them: two that say the same would stop the whole screen.
func TestListsTakeTwins(t *testing.T) {
	keyed := regexp.MustCompile(`#each [^{}]+ as (\w+) \((\w+)(?:\.(?:text|why|do|title|said))?\)`)
	pages, err := filepath.Glob("../web/src/*/*.svelte")
	if err != nil || len(pages) < 80 {
		t.Fatalf("%d pages: %v", len(pages), err)
	}
	for _, f := range pages {
		text, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		for _, m := range keyed.FindAllStringSubmatch(string(text), -1) {
			if m[1] == m[2] {
				t.Errorf("%s: %s", f, m[0])
			}
		}
	}
}
