package damage

import (
	"slices"
	"strings"
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/job"
	"mezzadro/core/season"
	"mezzadro/core/weather"
)

func danger(r string) check.Check { return check.Check{Kind: check.Danger, Result: r} }

// TestMakeSafeComesFirst: what may fall on people comes before what lives, whatever else was found.
func TestMakeSafeComesFirst(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	alive := []check.Check{scratch(1.9, "green"), rub(2, 8, 0), shoot(1.9)}
	for _, c := range []struct {
		name, species string
		height        float64
		checks        []check.Check
		says          string
		licensed      bool
	}{
		{"a hanging limb in a willow full of life", "salix-babylonica", 9, append(slices.Clone(alive), danger("hanging_limb")), "hanging limb", true},
		{"a poplar split down the fork", "populus-nigra", 16, []check.Check{danger("split_stem")}, "split", true},
		{"fungus at the foot of a lime", "tilia-cordata", 11, []check.Check{danger("none"), danger("fungus_at_base")}, "fungus", true},
		{"the plate of a spruce lifted", "picea-abies", 14, []check.Check{danger("roots_lifted"), scratch(1, "green")}, "roots", true},
		{"a shrub split by snow, in reach", "magnolia-stellata", 2.2, []check.Check{danger("split_stem")}, "split", false},
		{"a palm whose crown hangs", "phoenix-canariensis", 7, []check.Check{danger("hanging_limb"), spear("held")}, "hanging limb", true},
	} {
		a, err := inWords(ask(t, c.species, c.height, march, y, c.checks...))
		if err != nil {
			t.Fatalf("%s: %v", c.name, err)
		}
		if a.Verdict.Kind != MakeSafe || !strings.Contains(a.Verdict.Sentence, c.says) || a.Verdict.CutM != 0 || a.Next != nil {
			t.Errorf("%s: %s: %s", c.name, a.Verdict.Kind, a.Verdict.Sentence)
		}
		if len(a.Jobs) != 2 || a.Jobs[0].Kind != "make safe" || a.Jobs[0].Crew < 2 {
			t.Fatalf("%s: jobs %+v", c.name, a.Jobs)
		}
		safe := a.Jobs[0]
		if slices.Contains(safe.Skills, "licensed arborist") != c.licensed {
			t.Errorf("%s: skills %v", c.name, safe.Skills)
		}
		if !safe.Curve.On(march).Free() || !safe.Curve.On(march+7).Over(job.Acceptable) || safe.Curve.On(march+30) != job.Worst {
			t.Errorf("%s: today costs %s, in a week %s, in a month %s", c.name, safe.Curve.On(march), safe.Curve.On(march+7), safe.Curve.On(march+30))
		}
		if look := a.Jobs[1]; len(look.After) != 1 || look.After[0].Job != safe.Key {
			t.Errorf("%s: the look does not come after it is safe: %+v", c.name, look.After)
		}
		words := strings.Join(append(append([]string{}, a.Do...), a.Dont...), " ")
		for _, caution := range a.Cautions {
			words += " " + caution.Text
		}
		for _, want := range []string{"Keep people", "power lines", "under it"} {
			if !strings.Contains(words, want) {
				t.Errorf("%s: does not say %q: %s", c.name, want, words)
			}
		}
	}
	// Looked for and not found: the checks judge as before.
	with, err := inWords(ask(t, "syringa-vulgaris", 2, march, y, append([]check.Check{danger("none")}, alive...)...))
	without, _ := inWords(ask(t, "syringa-vulgaris", 2, march, y, alive...))
	if err != nil || with.Verdict.Kind != without.Verdict.Kind || with.Boundary != without.Boundary {
		t.Errorf("nothing loose: %+v, %v", with.Verdict, err)
	}
	// A look for danger alone says nothing of life.
	if a, _ := inWords(ask(t, "syringa-vulgaris", 2, march, y, danger("none"))); a.Verdict.Kind != Look || a.Next == nil || a.Next.Kind == check.Danger {
		t.Errorf("only looked for danger: %s, next %+v", a.Verdict.Sentence, a.Next)
	}
	if _, err := inWords(ask(t, "syringa-vulgaris", 2, march, y, danger("ghosts"))); err == nil || !strings.Contains(err.Error(), "checks[0].result") {
		t.Errorf("an unknown danger: %v", err)
	}
}

// TestAGaleAsksForDangerFirst: after a gale the first check is to stand back and look up.
func TestAGaleAsksForDangerFirst(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	q := ask(t, "salix-babylonica", 9, march, y)
	q.Forecast = &cold.Outcome{Event: &cold.Struck{Event: weather.Event{Kind: weather.Gale, Value: 20}, Day: march - 3},
		Worst: cold.Injury{Organ: cold.Limbs, By: cold.ByGale, Share: 0.4}, Severity: 0.24}
	next := func() *Suggestion {
		a, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		return a.Next
	}
	if n := next(); n == nil || n.Kind != check.Danger || !strings.Contains(n.Why, "look up") {
		t.Errorf("after a gale: %+v", n)
	}
	q.Checks = []check.Check{danger("none")}
	if n := next(); n == nil || n.Kind == check.Danger {
		t.Errorf("after looking up: %+v", n)
	}
}
