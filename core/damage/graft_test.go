package damage

import (
	"strings"
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

func leaf(h float64, l string) check.Check {
	return check.Check{Kind: check.Shoot, HeightM: h, Leaf: l}
}

// TestGrafts: growth from below the graft alone is rootstock.
func TestGrafts(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	aug := day.Of(2027, 8, 10)
	dead := []check.Check{scratch(1.2, "brown"), scratch(0.6, "brown"), scratch(0.3, "brown")}
	for _, c := range []struct {
		name, species  string
		height, graftM float64
		years          int
		on             day.Day
		checks         []check.Check
		want, says, do string
	}{
		{"old lemon, only thorny shoots from below the graft", "citrus-limon", 1.6, 0.15, 12, aug, append([]check.Check{leaf(0.08, "rootstock"), leaf(0.1, "rootstock")}, dead...), Regraft, "below the graft at 15 cm", "Regraft"},
		{"young lemon, the same", "citrus-limon", 1.4, 0.15, 3, aug, append([]check.Check{leaf(0.08, "rootstock")}, dead...), Replace, "young", ""},
		{"the same in March: too early", "citrus-limon", 1.6, 0.15, 12, march, append([]check.Check{leaf(0.08, "rootstock")}, dead...), Wait, "rootstock", ""},
		{"standard rose alive above, suckers below", "rosa-standard", 1.5, 1.1, 8, aug, []check.Check{leaf(0.2, "rootstock"), leaf(1.45, "true"), scratch(1.48, "green"), rub(1.5, 6, 0)}, Leave, "alive", "Tear out"},
		{"rose dead to the bud union, true shoots from it", "rosa-bedding", 0.8, 0.05, 8, aug, []check.Check{scratch(0.5, "brown"), scratch(0.2, "brown"), leaf(0.07, "true"), crown("firm_buds")}, CutBack, "10 cm", ""},
		{"own roots: leaf true from under where a graft would be", "rosa-shrub", 1.2, 0.1, 20, aug, []check.Check{scratch(0.8, "brown"), scratch(0.3, "brown"), leaf(0.05, "true"), crown("firm_buds")}, CutToBase, "let it renew", ""},
	} {
		q := ask(t, c.species, c.height, c.on, y, c.checks...)
		q.Plant.GraftM, q.Plant.Years = c.graftM, c.years
		a, err := inWords(q)
		if err != nil {
			t.Fatalf("%s: %v", c.name, err)
		}
		if a.Verdict.Kind != c.want || !strings.Contains(strings.ToLower(a.Verdict.Sentence), strings.ToLower(c.says)) {
			t.Errorf("%s: %s: %s, want %s with %q", c.name, a.Verdict.Kind, a.Verdict.Sentence, c.want, c.says)
		}
		if c.do != "" && !strings.Contains(strings.Join(a.Do, " "), c.do) {
			t.Errorf("%s: do %q", c.name, a.Do)
		}
		if a.Verdict.CutM > 0 && a.Verdict.CutM < c.graftM {
			t.Errorf("%s: cut at %.2f m, below the graft at %.2f", c.name, a.Verdict.CutM, c.graftM)
		}
		if (a.Verdict.Kind == CutToBase || a.Verdict.Kind == CutBack) && !strings.Contains(strings.Join(a.Dont, " "), "bury the graft") {
			t.Errorf("%s: do not %q", c.name, a.Dont)
		}
		if a.Verdict.Kind == Regraft && (len(a.Jobs) != 1 || !strings.Contains(strings.Join(a.Do, " "), "keep it as it is") || a.Prognosis.Text == "") {
			t.Errorf("%s: jobs %+v, do %q", c.name, a.Jobs, a.Do)
		}
	}
	// Leaf true below the graft is told as what it may mean.
	q := ask(t, "rosa-shrub", 1.2, aug, y, leaf(0.05, "true"), scratch(0.8, "brown"))
	q.Plant.GraftM, q.Plant.Years = 0.1, 20
	a, err := inWords(q)
	told := ""
	for _, r := range a.Reasons {
		told += r.Text + ". "
	}
	if err != nil || !strings.Contains(told, "own roots") {
		t.Errorf("reasons %q, %v", told, err)
	}
	// A true shoot never counts less for life than one of unknown leaf, and that never less than rootstock.
	best := func(l string) float64 {
		q := ask(t, "citrus-limon", 1.6, aug, y, leaf(0.8, l), scratch(1.4, "brown"))
		q.Plant.GraftM = 0.15
		a, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		return a.Boundary.BestM
	}
	if tr, un, ro := best("true"), best(""), best("rootstock"); tr < un || un <= ro {
		t.Errorf("life ends about %.2f m by a true shoot, %.2f by one unknown, %.2f by rootstock", tr, un, ro)
	}
	for _, bad := range []struct {
		want   string
		change func(*Question)
	}{
		{"checks[0].leaf", func(q *Question) { q.Checks[0].Leaf = "oak" }},
		{"checks[1].leaf", func(q *Question) {
			q.Checks = append(q.Checks, check.Check{Kind: check.Scratch, HeightM: 1, Result: "green", Leaf: "true"})
		}},
		{"graft_m", func(q *Question) { q.Plant.GraftM = 3 }},
		{"graft_m", func(q *Question) { q.Plant.GraftM = -1 }},
	} {
		q := ask(t, "citrus-limon", 1.6, aug, y, leaf(0.8, "true"))
		bad.change(&q)
		if _, err := inWords(q); err == nil || !strings.Contains(err.Error(), bad.want) {
			t.Errorf("want %s refused: %v", bad.want, err)
		}
	}
}
