package damage

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

func answer(t testing.TB, q Question) Answer {
	t.Helper()
	a, err := inWords(q)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// TestBeyondChance: plants drawn alike are told apart about as often as the limit says, not more; one that is half as tall is.
func TestBeyondChance(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	r := rand.New(rand.NewPCG(1, 2))
	told, n := 0, 600
	for range n {
		q := ask(t, "prunus-lusitanica", 2*math.Exp(0.15*r.NormFloat64()), june, y)
		for range 4 {
			q.Fellows = append(q.Fellows, cause.Fellow{HeightM: 2 * math.Exp(0.15*r.NormFloat64())})
		}
		if c := answer(t, q).Fellows; c.What != "" {
			told++
		}
	}
	if share := float64(told) / float64(n); share > 0.06 {
		t.Errorf("of plants that are alike, %.1f %% are told apart", 100*share)
	}
	for _, c := range []struct {
		name   string
		height float64
		years  int
		others []cause.Fellow
		want   string
	}{
		{"half as tall as four", 1.2, 0, []cause.Fellow{{HeightM: 2.4}, {HeightM: 2.5}, {HeightM: 2.3}, {HeightM: 2.6}}, "size"},
		{"a little smaller", 2.2, 0, []cause.Fellow{{HeightM: 2.4}, {HeightM: 2.5}, {HeightM: 2.3}, {HeightM: 2.6}}, ""},
		{"half as tall, but they differ as much", 1.2, 0, []cause.Fellow{{HeightM: 0.9}, {HeightM: 3.2}, {HeightM: 1.6}, {HeightM: 2.6}}, ""},
		{"taller than all", 4, 0, []cause.Fellow{{HeightM: 2.4}, {HeightM: 2.5}, {HeightM: 2.3}, {HeightM: 2.6}}, ""},
		{"planted ten years later", 1.2, 3, []cause.Fellow{{HeightM: 2.4, Years: 13}, {HeightM: 2.5, Years: 13}, {HeightM: 2.3, Years: 14}, {HeightM: 2.6, Years: 13}}, "none"},
		{"only two others", 1.2, 0, []cause.Fellow{{HeightM: 2.4}, {HeightM: 2.5}}, "none"},
	} {
		q := ask(t, "prunus-lusitanica", c.height, june, y)
		q.Plant.Years, q.Fellows = c.years, c.others
		got := "none"
		if x := answer(t, q).Fellows; x != nil {
			got = x.What
		}
		if got != c.want {
			t.Errorf("%s: %q, want %q", c.name, got, c.want)
		}
	}
}

// TestSpotQuestions: each answer moves its own reason, a distance within root reach more than one beyond.
func TestSpotQuestions(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	judge := func(checks ...check.Check) *cause.SpotFinding {
		q := ask(t, "hydrangea-macrophylla", 0.5, august, y, checks...)
		fellows(1.2, 1.25, 1.1, 1.3)(&q)
		q.Around = cause.Around{Thirsty: "London plane", ReachM: 15, Sun: 0.5}
		a, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		return a.Spot
	}
	chance := func(f *cause.SpotFinding, key string) float64 {
		for _, r := range f.Reasons {
			if r.Key == key {
				return r.Chance
			}
		}
		t.Fatalf("no %s in %+v", key, f)
		return 0
	}
	asked := map[string]bool{}
	checks := []check.Check{}
	for f := judge(); f.Next != nil; f = judge(checks...) {
		if asked[f.Next.Key] || len(checks) > len(check.Of(check.Spot).Keys()) {
			t.Fatalf("asks %s again", f.Next.Key)
		}
		asked[f.Next.Key] = true
		checks = append(checks, spotIs(f.Next.Key, "no"))
	}
	if len(asked) != len(check.Of(check.Spot).Keys()) {
		t.Errorf("asked %v", asked)
	}
	if f := judge(checks...); f.Suspect() != "" {
		t.Errorf("all answered no, yet %s", f.Text)
	}
	for _, key := range check.Of(check.Spot).Keys() {
		before := chance(judge(), key)
		yes, no := spotIs(key, "yes"), spotIs(key, "no")
		if key == "big_tree_near" {
			yes.Amount = 3
		}
		if up, down := chance(judge(yes), key), chance(judge(no), key); up <= before || down >= before {
			t.Errorf("%s: %.2f, after yes %.2f, after no %.2f", key, before, up, down)
		}
	}
	last := 1.0
	for _, m := range []float64{2, 6, 10, 14, 20, 40} {
		c := chance(judge(tree(m)), "big_tree_near")
		if c > last {
			t.Errorf("a tree %g m away weighs %.2f, one nearer %.2f", m, c, last)
		}
		last = c
	}
	if !strings.Contains(judge(spotIs("water_stands", "no")).Next.Text, "15.0 m") {
		t.Errorf("asks %+v", judge(spotIs("water_stands", "no")).Next)
	}
	// Without fellows and without answers, nothing is said of the spot.
	if a, _ := inWords(ask(t, "hydrangea-macrophylla", 0.5, august, y, shoot(0.5))); a.Spot != nil || a.Fellows != nil {
		t.Errorf("%+v, %+v", a.Spot, a.Fellows)
	}
}

func TestSampleSaysOfTheRest(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	of := func(count int, checks ...check.Check) *Rest {
		q := ask(t, "lavandula-angustifolia", 0.5, june, y, checks...)
		q.Plant.Count = count
		a, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		return a.Rest
	}
	few, many := of(60, sample(4, 1)), of(60, sample(16, 4))
	if few.Low >= few.High || float64(many.High-many.Low)/40 >= float64(few.High-few.Low)/55 || few.Low > 44 || few.High < 44 {
		t.Errorf("five looked at: %+v; twenty: %+v", few, many)
	}
	if two := of(60, sample(2, 1), sample(2, 0)); *two != *few {
		t.Errorf("in two samples %+v, in one %+v", two, few)
	}
	if all := of(6, sample(6, 0)); all.Low != 0 || !strings.Contains(all.Text, "All 6") {
		t.Errorf("%+v", all)
	}
	if of(60) != nil {
		t.Error("no sample, yet something is said")
	}
	for _, bad := range []struct {
		count int
		check check.Check
	}{{1, sample(2, 0)}, {5, sample(4, 4)}, {5, sample(0, 0)}, {5, sample(-1, 3)}} {
		q := ask(t, "lavandula-angustifolia", 0.5, june, y, bad.check)
		q.Plant.Count = bad.count
		if _, err := inWords(q); err == nil || !strings.Contains(err.Error(), "checks[0].held") {
			t.Errorf("%+v of %d: %v", bad.check, bad.count, err)
		}
	}
}

func TestMoreRefusals(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range []struct {
		name  string
		check check.Check
		want  string
	}{
		{"more than all round", ring(0.2, 1.2, "bridge"), "checks[0].amount"},
		{"nothing gone", ring(0.2, 0, "bridge"), "checks[0].amount"},
		{"all round with a bridge", ring(0.2, 1, "bridge"), "leaves no bridge"},
		{"a ring above the plant", ring(2.4, 0.5, "bridge"), "checks[0].height_m: 2.4 m is above"},
		{"loose, how far nobody said", split(0.2, "loose", 0), "checks[0].amount"},
		{"tips longer than the plant", tip(2.2), "checks[0].amount"},
		{"blue leaves", leaves(1, "blue"), `checks[0].result: "blue"`},
		{"a foot that sings", foot("singing"), "checks[0].result"},
		{"a head on a shrub", head("green"), "only a palm"},
		{"a question without an answer", spotIs("water_stands", ""), "checks[0].seen"},
		{"a question nobody asks", spotIs("moonlight", "yes"), "checks[0].result"},
		{"a tree beyond sight", tree(900), "checks[0].amount"},
		{"an answer to a scratch", check.Check{Kind: check.Scratch, HeightM: 1, Result: "green", Seen: "yes"}, "checks[0].seen"},
		{"eleven metres in a season", check.Check{Kind: check.Growth, Amount: 11}, "checks[0].amount"},
		{"not looked at what", notLooked("moon"), "checks[0].result"},
	} {
		if _, err := inWords(ask(t, "camellia-japonica", 2, march, y, c.check)); err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v, want %q", c.name, err, c.want)
		}
	}
}

// TestNotLookedIsNotAskedAgain: what could not be looked at is neither asked for nor held against the plant.
func TestNotLookedIsNotAskedAgain(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	checks := []check.Check{scratch(1.2, "brown"), scratch(0.4, "green")}
	a, _ := inWords(ask(t, "camellia-japonica", 2, march, y, checks...))
	b, err := inWords(ask(t, "camellia-japonica", 2, march, y, append(checks, notLooked(check.Scratch), notLooked(check.Crown))...))
	if err != nil || a.Boundary != b.Boundary || a.Verdict.Kind != b.Verdict.Kind {
		t.Errorf("%+v, %+v, %v", a.Verdict, b.Verdict, err)
	}
	if b.Next == nil || b.Next.Kind != check.BudRub {
		t.Errorf("asks for %+v", b.Next)
	}
	none, _ := inWords(ask(t, "camellia-japonica", 2, march, y, append(checks, notLooked(check.Scratch), notLooked(check.BudRub))...))
	if none.Next != nil {
		t.Errorf("still asks for %+v", none.Next)
	}
}

// TestCare: nothing is fed before growth or so late that shoots do not ripen; fruit is taken off and blossom left; a cut is
// guarded from frost only while frost is to come.
func TestCare(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	of := func(species string, h float64, on day.Day, checks ...check.Check) map[string]Care {
		a, err := inWords(ask(t, species, h, on, y, checks...))
		if err != nil {
			t.Fatal(err)
		}
		out := map[string]Care{}
		for _, c := range a.Care {
			out[c.Kind] = c
			if c.Kind == "feed" && a.Verdict.Kind != Lift && (c.From < a.LeafOut.Mid+21 && c.From.Year() == a.LeafOut.Mid.Year() || c.To.Month() > 8 || !strings.Contains(c.Text, "label")) {
				t.Errorf("%s on %s: %+v; leaf about %s", species, on, c, a.LeafOut.Mid)
			}
		}
		return out
	}
	cutBack := []check.Check{scratch(1.2, "green"), scratch(1.15, "green"), rub(1.1, 6, 0), scratch(1.35, "brown"), scratch(1.3, "brown"), rub(1.4, 0, 6)}
	lemon := of("citrus-limon", 2, march, cutBack...)
	if !strings.Contains(lemon["feed"].Text, "nitrogen") || lemon["feed"].EveryDays != 42 || !strings.Contains(lemon["fruit"].Text, "leave the blossom") || lemon["protect"].Text == "" || lemon["shade"].Text == "" || lemon["mulch"].Text == "" || lemon["water"].Text == "" {
		t.Errorf("lemon: %+v", lemon)
	}
	if july := of("camellia-japonica", 2, day.Of(2027, 7, 1), cutBack...); july["protect"].Text != "" || july["fruit"].Text != "" {
		t.Errorf("camellia in July: %+v", july)
	}
	if oct := of("camellia-japonica", 2, october, cutBack...); oct["feed"].From.Year() != 2028 {
		t.Errorf("camellia in October: %+v", oct["feed"])
	}
	if apple := of("malus-domestica", 3, march, ring(0.2, 0.4, "bridge")); !strings.Contains(apple["guard"].Text, "collar") {
		t.Errorf("apple: %+v", apple)
	}
	if dead := of("camellia-japonica", 2, june, crown("soft")); len(dead) != 1 || dead["water"].EveryDays == 0 {
		t.Errorf("replaced: %+v", dead)
	}
}

// TestRegrowthIsForetold: what is foretold grows season by season up to what it was, and no further.
func TestRegrowthIsForetold(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	a, err := inWords(ask(t, "buddleja-davidii", 2.5, june, y, scratch(1.5, "brown"), scratch(0.4, "brown"), scratch(0.1, "brown"), scratch(0.1, "brown"), crown("firm_buds")))
	if err != nil || a.Verdict.Kind != CutToBase || len(a.Prognosis.Heights) == 0 {
		t.Fatalf("%+v, %v", a.Verdict, err)
	}
	last := a.Verdict.CutM
	for _, h := range a.Prognosis.Heights {
		if h <= last || h > 2.5 {
			t.Errorf("heights %v", a.Prognosis.Heights)
		}
		last = h
	}
}

// TestAutumnElsewhere: lifting is a matter of the place and its season.
func TestAutumnElsewhere(t *testing.T) {
	// Where frost is rare there is no autumn for it.
	warm := lake(t)
	warm.ExtremeMinC = 8
	warm.Normals = append([]season.Normal{}, warm.Normals...)
	for i := range warm.Normals {
		warm.Normals[i].TMinC += 14
		warm.Normals[i].TMaxC += 10
	}
	if a, err := inWords(ask(t, "bougainvillea-glabra", 2, october, season.NewYear(warm.Daily(), nil))); err != nil || a.Verdict.Kind == Lift {
		t.Errorf("in a place without frost: %+v, %v", a.Verdict, err)
	}
	// In the south the same comes half a year later.
	south := lake(t)
	south.Latitude = -south.Latitude
	south.Normals = append(append([]season.Normal{}, south.Normals[6:]...), south.Normals[:6]...)
	sy := season.NewYear(south.Daily(), nil)
	if a, err := inWords(ask(t, "bougainvillea-glabra", 2, day.Of(2027, 4, 12), sy)); err != nil || a.Verdict.Kind != Lift {
		t.Errorf("in the south in April: %+v, %v", a.Verdict, err)
	}
	if a, _ := inWords(ask(t, "bougainvillea-glabra", 2, october, sy)); a.Verdict.Kind == Lift {
		t.Errorf("in the south in October: %+v", a.Verdict)
	}
	// After the garden year has turned, in November, it is still this winter's frost that counts.
	y := season.NewYear(lake(t).Daily(), nil)
	if a, _ := inWords(ask(t, "bougainvillea-glabra", 2, day.Of(2027, 11, 12), y)); a.Verdict.Kind != Lift || a.LookAgain.Year() != 2028 {
		t.Errorf("in November: %+v, look again %s", a.Verdict, a.LookAgain)
	}
}

// TestWoundsBecomeJobs: a wounded stem is guarded and looked at again, a ring is bridged while the bark slips.
func TestWoundsBecomeJobs(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range []struct {
		name  string
		check check.Check
		kinds []string
	}{
		{"a fifth", ring(0.2, 0.2, "bridge"), []string{"look", "guard"}},
		{"three quarters", ring(0.2, 0.75, "bridge"), []string{"look", "guard"}},
		{"all round", ring(0.2, 1, "no_bridge"), []string{"graft", "guard"}},
	} {
		a, err := inWords(ask(t, "malus-domestica", 3, march, y, c.check))
		if err != nil {
			t.Fatal(err)
		}
		var kinds []string
		for _, j := range a.Jobs {
			kinds = append(kinds, string(j.Kind))
			if best, ok := j.Curve.Best(march); j.Kind == "graft" && (!ok || best < a.LeafOut.Early-21 || best > a.LeafOut.Late+21) || j.Kind == "guard" && best != march {
				t.Errorf("%s: %s best on %s", c.name, j.Kind, best)
			}
		}
		if strings.Join(kinds, " ") != strings.Join(c.kinds, " ") {
			t.Errorf("%s: %v, want %v", c.name, kinds, c.kinds)
		}
	}
}
