package house

import (
	"bytes"
	"go/build"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// order is that of the rooms: each leans on rooms before it, and on no room after.
var order = []string{"estate", "learn", "crews", "work", "garden", "walks", "finds", "cuts", "treat", "ground", "standing", "rounds", "days", "clients", "ledger", "letters", "firm", "overview"}

// The size up to which a stranger reads a room in one sitting, in lines.
const (
	longestFile = 300
	largestRoom = 2000
)

// TestArrowsBetweenRooms: no room leans on one that comes after it, on the door or on the screen, and each has tests.
func TestArrowsBetweenRooms(t *testing.T) {
	rank := map[string]int{}
	for i, room := range order {
		rank["mezzadro/house/"+room] = i
	}
	folders, err := filepath.Glob("*/*.go")
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range folders {
		if room := filepath.Dir(f); rank["mezzadro/house/"+room] == 0 && room != order[0] && room != "housetest" {
			t.Errorf("%s has no place in the order of rooms: list it here", room)
		}
	}
	for i, room := range order {
		p, err := build.ImportDir(room, 0)
		if err != nil {
			t.Fatal(err)
		}
		for _, imp := range p.Imports {
			at, known := rank[imp]
			switch {
			case known && at >= i:
				t.Errorf("%s leans on %s, which comes after it", room, imp)
			case strings.HasPrefix(imp, "mezzadro/house") && !known, strings.HasPrefix(imp, "mezzadro/api"), imp == "net/http":
				t.Errorf("%s imports %s", room, imp)
			}
		}
		if len(p.TestGoFiles)+len(p.XTestGoFiles) == 0 {
			t.Errorf("%s has no tests of its own", room)
		}
	}
}

// TestRoomsAreSmall: a file is one idea, and a room is read in one sitting.
func TestRoomsAreSmall(t *testing.T) {
	for _, room := range order {
		files, err := filepath.Glob(room + "/*.go")
		if err != nil {
			t.Fatal(err)
		}
		sum := 0
		for _, f := range files {
			if strings.HasSuffix(f, "_test.go") {
				continue
			}
			text, err := os.ReadFile(f)
			if err != nil {
				t.Fatal(err)
			}
			n := bytes.Count(text, []byte("\n"))
			if sum += n; n > longestFile {
				t.Errorf("%s has %d lines, want %d at most", f, n, longestFile)
			}
		}
		if sum == 0 || sum > largestRoom {
			t.Errorf("%s has %d lines, want 1 to %d", room, sum, largestRoom)
		}
	}
}
