// Package core holds no code of its own: this test keeps its arrows.
package core

import (
	"bytes"
	"go/build"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// tree reads the packages below, by path, without a program of its own: what it read is then known to the test cache.
func tree(t *testing.T) map[string]*build.Package {
	t.Helper()
	found := map[string]*build.Package{}
	err := filepath.WalkDir(".", func(path string, e fs.DirEntry, err error) error {
		if err != nil || !e.IsDir() {
			return err
		}
		p, err := build.ImportDir(path, 0)
		if _, none := err.(*build.NoGoError); none {
			return nil
		}
		found[filepath.ToSlash(filepath.Join("mezzadro/core", path))] = p
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	return found
}

// TestCoreImportsNothingOfTheRest: the rules of the job know no interface, no storage and no clock.
func TestCoreImportsNothingOfTheRest(t *testing.T) {
	packages := tree(t)
	for pkg, p := range packages {
		for _, imp := range p.Imports {
			switch {
			case strings.HasPrefix(imp, "mezzadro/core/"), strings.HasPrefix(imp, "gonum.org/v1/gonum/"):
			case imp == "go.yaml.in/yaml/v3" && pkg == "mezzadro/core/written":
			case strings.Contains(imp, "."), strings.HasPrefix(imp, "mezzadro/"):
				t.Errorf("%s imports %s", pkg, imp)
			case imp == "database/sql", imp == "net/http", imp == "os", imp == "log", imp == "log/slog", imp == "context":
				t.Errorf("%s imports %s", pkg, imp)
			}
		}
	}
	if len(packages) < 7 {
		t.Errorf("only %d packages were looked at", len(packages))
	}
	// Inside core the order is fixed, so that no circle of thought creeps in.
	order := []string{"invalid", "day", "quantity", "written", "rules", "season", "weather", "catalogue", "region", "site", "cold",
		"job/reason", "job", "moment", "pruning", "lookout", "check", "crown", "overwinter", "night", "outcome", "belief", "offset", "cause", "treatment", "damage", "walk", "practice", "hold", "replacement", "rounds", "load", "estimate", "pace", "kinds", "portrait", "report", "letter"}
	rank := map[string]int{"mezzadro/core": 1} // the root holds this test alone
	for i, p := range order {
		rank["mezzadro/core/"+p] = i + 1
	}
	for pkg, p := range packages {
		if rank[pkg] == 0 {
			t.Errorf("%s has no place in the order: list it here", pkg)
		}
		for _, imp := range p.Imports {
			if strings.HasPrefix(imp, "mezzadro/") && rank[imp] >= rank[pkg] {
				t.Errorf("%s imports %s, which comes after it", pkg, imp)
			}
		}
	}
}

// TestNoClock: dates come from outside.
func TestNoClock(t *testing.T) {
	for _, p := range tree(t) {
		for _, file := range p.GoFiles {
			text, err := os.ReadFile(filepath.Join(p.Dir, file))
			if err != nil {
				t.Fatal(err)
			}
			if bytes.Contains(text, []byte("time.Now()")) {
				t.Errorf("%s/%s reads the clock", p.Dir, file)
			}
		}
	}
}
