// Package core holds no code of its own: this test keeps its arrows.
package core

import (
	"os/exec"
	"strings"
	"testing"
)

// TestCoreImportsNothingOfTheRest: the rules of the job know no interface, no storage and no clock.
func TestCoreImportsNothingOfTheRest(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", "{{.ImportPath}}|{{join .Imports \" \"}}", "./...").Output()
	if err != nil {
		t.Fatal(err)
	}
	packages := 0
	for line := range strings.Lines(string(out)) {
		pkg, imports, _ := strings.Cut(strings.TrimSpace(line), "|")
		packages++
		for imp := range strings.FieldsSeq(imports) {
			switch {
			case strings.HasPrefix(imp, "mezzadro/core/"), strings.HasPrefix(imp, "gonum.org/v1/gonum/"):
			case imp == "github.com/goccy/go-yaml" && (pkg == "mezzadro/core/catalogue" || pkg == "mezzadro/core/check" || pkg == "mezzadro/core/damage"): // their data is YAML
			case strings.Contains(imp, "."), strings.HasPrefix(imp, "mezzadro/"):
				t.Errorf("%s imports %s", pkg, imp)
			case imp == "database/sql", imp == "net/http", imp == "os", imp == "log", imp == "log/slog", imp == "context":
				t.Errorf("%s imports %s", pkg, imp)
			}
		}
	}
	if packages < 7 {
		t.Errorf("only %d packages were looked at", packages)
	}
	// Inside core the order is fixed, so that no circle of thought creeps in.
	order := []string{"invalid", "day", "quantity", "season", "weather", "catalogue", "cold", "job/reason", "job", "lookout", "check", "overwinter", "outcome", "belief", "cause", "damage"}
	rank := map[string]int{"mezzadro/core": 1} // the root holds this test alone
	for i, p := range order {
		rank["mezzadro/core/"+p] = i + 1
	}
	for line := range strings.Lines(string(out)) {
		pkg, imports, _ := strings.Cut(strings.TrimSpace(line), "|")
		if rank[pkg] == 0 {
			t.Errorf("%s has no place in the order: list it here", pkg)
		}
		for imp := range strings.FieldsSeq(imports) {
			if strings.HasPrefix(imp, "mezzadro/") && rank[imp] >= rank[pkg] {
				t.Errorf("%s imports %s, which comes after it", pkg, imp)
			}
		}
	}
}

// TestNoClock: dates come from outside.
func TestNoClock(t *testing.T) {
	out, _ := exec.Command("grep", "-rn", "--include=*.go", "--exclude=*_test.go", "time.Now()", ".").Output()
	if len(out) > 0 {
		t.Errorf("the core reads the clock:\n%s", out)
	}
}
