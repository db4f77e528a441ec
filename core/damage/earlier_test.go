package damage

import (
	"math"
	"strings"
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// bracketed is a camellia of 2.4 m whose end of life was found between 1.5 and 1.75 m.
var bracketed = []check.Check{scratch(1.5, "green"), scratch(1.45, "green"), rub(1.4, 6, 0), scratch(1.75, "brown"), scratch(1.8, "brown"), rub(2.1, 0, 6)}

func judged(t *testing.T, q Question) Answer {
	t.Helper()
	a, err := inWords(q)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// TestFoundStaysFound: what was found on a walk is where the next walk begins.
func TestFoundStaysFound(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	first := ask(t, "camellia-japonica", 2.4, march, y, bracketed...)
	was := judged(t, first)

	// Nine days on nobody has looked again: the boundary stands, and it is not said that nothing was checked.
	q := ask(t, "camellia-japonica", 2.4, march+9, y)
	q.Earlier = []Earlier{{march, bracketed}}
	a := judged(t, q)
	if math.Abs(a.Boundary.BestM-was.Boundary.BestM) > 0.02 || a.Verdict.Kind != was.Verdict.Kind {
		t.Errorf("without a new check: %+v %s, was %+v %s", a.Boundary, a.Verdict.Kind, was.Boundary, was.Verdict.Kind)
	}
	if strings.Contains(a.Verdict.Sentence, "Nothing has been checked") || !strings.Contains(a.Known, "18 March") {
		t.Errorf("says %q and %q", a.Verdict.Sentence, a.Known)
	}

	// One more green scratch far below what was proven dead moves nothing above it.
	q.Checks = []check.Check{scratch(0.6, "green")}
	if a = judged(t, q); math.Abs(a.Boundary.BestM-was.Boundary.BestM) > 0.05 {
		t.Errorf("a green scratch at 0.6 m moved the end of life from %.2f to %.2f m", was.Boundary.BestM, a.Boundary.BestM)
	}
	// A living shoot above what was taken for dead does: a scratch can mislead, a shoot hardly.
	q.Checks = []check.Check{shoot(2), shoot(2.1), scratch(2.05, "green")}
	if a = judged(t, q); a.Boundary.BestM < 1.9 {
		t.Errorf("shoots at 2 m, and life is said to end at %.2f m", a.Boundary.BestM)
	}
}

// TestCutAwayIsGone: dead wood that was cut off is no more found, and the plant is as tall as it was cut.
func TestCutAwayIsGone(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	q := ask(t, "camellia-japonica", 2.4, march+40, y)
	q.Earlier = []Earlier{{march, bracketed}}
	q.Cuts = []Cut{{march + 30, 1.45}}
	a := judged(t, q)
	if a.Verdict.Kind == CutBack || a.Verdict.Kind == TipBack {
		t.Errorf("it was cut back to 1.45 m, and is to be cut again: %s", a.Verdict.Sentence)
	}
	if a.Boundary.HighM > 1.5 {
		t.Errorf("life ends up to %.2f m on a plant that was cut to 1.45 m", a.Boundary.HighM)
	}
	for _, r := range a.Reasons {
		if r.Speaks == "dead" {
			t.Errorf("what was cut off still speaks: %s", r.Text)
		}
	}
	// Brown found below the cut stands.
	q.Earlier[0].Checks = []check.Check{scratch(0.9, "green"), scratch(1.2, "brown"), scratch(1.25, "brown"), scratch(1.3, "brown"), scratch(1.9, "brown")}
	if a = judged(t, q); a.Boundary.BestM > 1.42 {
		t.Errorf("brown at 1.2 to 1.3 m stays on after the cut at 1.45 m, and life is said to end at %.2f m", a.Boundary.BestM)
	}
	// A check higher than the plant is now was made before the cut; one made today may be on new shoots.
	q.Checks = []check.Check{shoot(1.6)}
	judged(t, q)
}

// TestLivingAgesWithWeather: after another hard frost what lived before it may be dead; what was dead stays so.
func TestLivingAgesWithWeather(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	p := plant(t, "camellia-japonica", 2.4)
	hard := freezeOf(t, p, -16, 30)
	if hard.Worst.Organ == "" {
		t.Fatal("the frost does nothing to it")
	}
	before := hard.Event.Day - 20
	q := ask(t, "camellia-japonica", 2.4, march, y)
	q.Earlier = []Earlier{{before, bracketed}}
	calm := judged(t, q)
	q.Blows = []*cold.Outcome{hard}
	q.Forecast = hard
	a := judged(t, q)
	if a.Boundary.BestM >= calm.Boundary.BestM-0.05 || a.Boundary.HighM > 1.9 {
		t.Errorf("after %.0f °C life ends at %+v, without it at %+v", hard.Event.Value, a.Boundary, calm.Boundary)
	}
	if !strings.Contains(a.Known, "since") || strings.Contains(a.Known, "nothing since") {
		t.Errorf("what came since is not told: %q", a.Known)
	}
	// Looked at again after the frost, the new finds count in full.
	q.Checks = []check.Check{scratch(1.5, "green"), scratch(1.4, "green"), rub(1.45, 6, 0), scratch(1.3, "green")}
	if a = judged(t, q); a.Boundary.BestM < 1.4 || a.Boundary.BestM > 1.8 {
		t.Errorf("green after the frost as high as before it, brown above: life ends at %.2f m", a.Boundary.BestM)
	}
}

// TestLaterLooksOverrule: what has one answer is what the last look found, what was of its day alone is not carried on.
func TestLaterLooksOverrule(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	danger := func(r string) check.Check { return check.Check{Kind: check.Danger, Result: r} }
	hung := []Earlier{{march, []check.Check{danger("hanging_limb")}}}
	for _, c := range []struct {
		name    string
		species string
		height  float64
		earlier []Earlier
		now     []check.Check
		safe    day.Day
		danger  bool
	}{
		{"a hanging limb stays until something is done", "quercus-robur", 14, hung, nil, 0, true},
		{"a look at the bark says nothing of the limb", "quercus-robur", 14, hung, []check.Check{scratch(2, "green")}, 0, true},
		{"looked for and not there any more", "quercus-robur", 14, hung, []check.Check{danger("none")}, 0, false},
		{"made safe since", "quercus-robur", 14, hung, nil, march + 5, false},
		{"made safe before it was found again", "quercus-robur", 14, []Earlier{{march, []check.Check{danger("hanging_limb")}}, {march + 7, []check.Check{danger("split_stem")}}}, nil, march + 5, true},
	} {
		q := ask(t, c.species, c.height, march+10, y, c.now...)
		q.Earlier, q.MadeSafe = c.earlier, c.safe
		if a := judged(t, q); (a.Verdict.Kind == MakeSafe) != c.danger {
			t.Errorf("%s: %s", c.name, a.Verdict.Sentence)
		}
	}
	soft := []Earlier{{march, []check.Check{scratch(0.3, "brown"), scratch(0.15, "brown"), scratch(0.15, "brown"), crown("soft")}}}
	q := ask(t, "hydrangea-macrophylla", 1.2, june, y, crown("firm_buds"))
	q.Earlier = soft
	if a := judged(t, q); a.Verdict.Kind == Replace {
		t.Errorf("a firm, budded crown today, and it is given up for what was felt in March: %s", a.Verdict.Sentence)
	}
	q = ask(t, "camellia-japonica", 2, march+120, y)
	q.Earlier = []Earlier{{march, []check.Check{{Kind: check.NotLooked, Result: "scratch"}, {Kind: check.LeafState, HeightM: 1, Result: "scorched_margin"}, {Kind: check.Growth, Amount: 0.3}}}}
	if a := judged(t, q); a.Known != "" || a.Next == nil {
		t.Errorf("of a day alone, and carried on: %q, next %v", a.Known, a.Next)
	}
}

// TestOldFindsEnd: after a year what was found tells nothing any more; living wood sooner.
func TestOldFindsEnd(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	q := ask(t, "camellia-japonica", 2.4, march+400, y)
	q.Earlier = []Earlier{{march, bracketed}}
	if a := judged(t, q); a.Known != "" || a.Verdict.Kind != Look {
		t.Errorf("after 400 days: %q, %s", a.Known, a.Verdict.Sentence)
	}
	q.Today = march + 250
	for _, r := range judged(t, q).Reasons {
		if r.Speaks == "alive" && r.Weight > 0 {
			t.Errorf("after eight months living wood is still living: %s", r.Text)
		}
	}
}

// TestFindsAreFinds: where a cause was found today, it is not said that nothing was looked at.
func TestFindsAreFinds(t *testing.T) {
	q := ask(t, "rhododendron-hybrid", 1.5, june, season.NewYear(lake(t).Daily(), nil))
	q.Finds = []Find{{"Lace bug", june}, {"Honey fungus", june - 300}}
	a := judged(t, q)
	if strings.Contains(a.Verdict.Sentence, "Nothing has been checked") || strings.Contains(a.Verdict.Sentence, "first check") ||
		!strings.Contains(a.Verdict.Sentence, "Lace bug") || strings.Contains(a.Verdict.Sentence, "Honey") || len(a.Finds) != 2 {
		t.Error(a.Verdict.Sentence)
	}
}

// TestDiedSince: what was green in March and is brown below that in September has died since; a week apart one of the two may
// have been misread, and both count.
func TestDiedSince(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	green := []check.Check{scratch(0.5, "green"), scratch(0.45, "green"), scratch(1.7, "brown")}
	q := ask(t, "citrus-sinensis", 1.9, day.Of(2027, 9, 10), y, scratch(0.4, "brown"), scratch(0.3, "brown"))
	q.Earlier = []Earlier{{march, green}}
	if a := judged(t, q); a.Boundary.BestM > 0.35 {
		t.Errorf("brown at 0.3 and 0.4 m in September, and life is said to end at %.2f m", a.Boundary.BestM)
	}
	q.Today = march + 7
	q.Checks = []check.Check{scratch(0.4, "brown")}
	if a := judged(t, q); a.Boundary.BestM < 0.4 {
		t.Errorf("a week on one brown scratch under two green ones: life is said to end at %.2f m", a.Boundary.BestM)
	}
}
