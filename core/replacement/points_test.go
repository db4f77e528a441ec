package replacement

import (
	"os"
	"path/filepath"
	"regexp"
	"testing"
)

// TestPointsAreUsed: what the table of points says is counted somewhere, what is counted stands in the table, and no
// points stand in the code beside it.
func TestPointsAreUsed(t *testing.T) {
	files, err := filepath.Glob("*.go")
	if err != nil || len(files) < 10 {
		t.Fatal(files, err)
	}
	used := map[[2]string]bool{}
	counted := regexp.MustCompile(`f\.counts\("([^"]+)", "([^"]+)"`)
	literal := regexp.MustCompile(`f\.part\("[^"]+", -?[\d.]`)
	for _, name := range files {
		b, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		for _, m := range counted.FindAllStringSubmatch(string(b), -1) {
			used[[2]string{m[1], m[2]}] = true
		}
		if m := literal.FindString(string(b)); m != "" && name != "points_test.go" {
			t.Errorf("%s: %s", name, m)
		}
	}
	used[[2]string{"upkeep", "minute"}], used[[2]string{"upkeep", "minute_where_work_is_dear"}] = true, true
	n := 0
	for part, of := range weights() {
		for found, w := range of {
			n++
			if !used[[2]string{part, found}] {
				t.Errorf("nothing counts %s, %s", part, found)
			}
			if w.Points == 0 || w.Points < -60 || w.Points > 20 {
				t.Errorf("%s, %s: %g points", part, found, w.Points)
			}
		}
	}
	for k := range used {
		if _, known := weights()[k[0]][k[1]]; !known {
			t.Errorf("the table says nothing of %s, %s", k[0], k[1])
		}
	}
	t.Logf("%d things count", n)
}
