package damage

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

func lake(t testing.TB) season.Climate {
	t.Helper()
	c, err := catalogue.Built().Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	return c.Climate
}

func plant(t testing.TB, id string, height float64) check.Plant {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return check.Plant{Species: e, HeightM: height}
}

func ask(t testing.TB, species string, height float64, on day.Day, y *season.Year, checks ...check.Check) Question {
	return Question{Plant: plant(t, species, height), Today: on, Year: y, Checks: checks}
}

func rub(h float64, held, broke int) check.Check {
	return check.Check{Kind: check.BudRub, HeightM: h, Held: held, Broke: broke}
}
func scratch(h float64, r string) check.Check {
	return check.Check{Kind: check.Scratch, HeightM: h, Result: r}
}
func shoot(h float64) check.Check { return check.Check{Kind: check.Shoot, HeightM: h} }
func crown(r string) check.Check  { return check.Check{Kind: check.Crown, Result: r} }
func spear(r string) check.Check  { return check.Check{Kind: check.Spear, Result: r} }

var (
	march = day.Of(2027, 3, 18) // before anything is due
	june  = day.Of(2027, 6, 20) // after
)

// situations are real cases: a plant, what was found, the day, and the verdict a good gardener gives.
var situations = []struct {
	name    string
	species string
	height  float64
	on      day.Day
	checks  []check.Check
	want    string
	cut     [2]float64 // range of the cut height, m
	says    string     // part of the sentence or a reason
}{
	{"nothing looked at", "camellia-japonica", 2, march, nil, Look, [2]float64{}, "Nothing has been checked"},
	{"all buds hold", "camellia-japonica", 2, march, []check.Check{rub(1.9, 8, 0), rub(1.2, 8, 0), scratch(1.95, "green")}, Leave, [2]float64{}, "alive to the tips"},
	{"brown to the base in March", "camellia-japonica", 2, march, []check.Check{rub(1.8, 0, 8), scratch(1, "brown"), scratch(0.3, "brown"), scratch(0.1, "brown")}, Wait, [2]float64{}, "too early to give it up"},
	{"the same in June, crown soft", "camellia-japonica", 2, june, []check.Check{rub(1.8, 0, 8), scratch(1, "brown"), scratch(0.3, "brown"), scratch(0.1, "brown"), crown("soft")}, Replace, [2]float64{}, "dead to the crown"},
	{"the same in June, crown not looked at", "camellia-japonica", 2, june, []check.Check{rub(1.8, 0, 8), scratch(1, "brown"), scratch(0.3, "brown"), scratch(0.1, "brown"), scratch(0.1, "brown")}, Look, [2]float64{}, "look at the crown"},
	{"soft crown in March", "hydrangea-macrophylla", 1.2, march, []check.Check{crown("soft")}, Wait, [2]float64{}, "nothing is lost by waiting"},
	{"green to six tenths in June", "camellia-japonica", 2, june, []check.Check{scratch(0.6, "green"), scratch(1.2, "green"), shoot(1.15), scratch(1.4, "brown"), rub(1.5, 0, 6), scratch(1.25, "brown")}, CutBack, [2]float64{1.1, 1.25}, "live bud"},
	{"bracketed in March: the checks decide", "camellia-japonica", 2, march, []check.Check{scratch(1.2, "green"), scratch(1.15, "green"), rub(1.1, 6, 0), scratch(1.35, "brown"), scratch(1.3, "brown"), rub(1.4, 0, 6)}, CutBack, [2]float64{1.1, 1.3}, "when frost is past"},
	{"dead top, wide doubt in March", "camellia-japonica", 2, march, []check.Check{rub(1.8, 0, 6), scratch(1.2, "green")}, Wait, [2]float64{}, "Too early to call above"},
	{"wide doubt in June", "camellia-japonica", 2, june, []check.Check{scratch(1.9, "brown"), scratch(0.4, "green")}, Look, [2]float64{}, "Check on before cutting"},
	{"only the tips are dead", "syringa-vulgaris", 3, march, []check.Check{scratch(2.95, "brown"), rub(2.9, 0, 5), scratch(2.75, "green"), rub(2.8, 6, 0), rub(2.7, 6, 0)}, TipBack, [2]float64{2.6, 2.9}, "only the ends"},
	{"oleander dead to the ground, stool shoots", "nerium-oleander", 2.5, day.Of(2027, 7, 10), []check.Check{scratch(1.5, "brown"), scratch(0.5, "brown"), scratch(0.15, "brown"), scratch(0.15, "brown"), crown("firm_buds")}, CutToBase, [2]float64{0.05, 0.15}, "let it renew"},
	{"oleander dead to the ground, crown firm", "nerium-oleander", 2.5, day.Of(2027, 7, 10), []check.Check{scratch(1.5, "brown"), scratch(0.5, "brown"), scratch(0.15, "brown"), scratch(0.15, "brown"), crown("firm")}, CutToBase, [2]float64{0.05, 0.15}, "crown lives"},
	{"oleander in mid April is only late", "nerium-oleander", 2.5, day.Of(2027, 4, 15), []check.Check{scratch(1.5, "brown"), scratch(0.5, "brown"), scratch(0.15, "brown"), scratch(0.15, "brown")}, Wait, [2]float64{}, "too early"},
	{"lavender green only at the woody base", "lavandula-angustifolia", 0.6, june, []check.Check{scratch(0.5, "brown"), scratch(0.3, "brown"), scratch(0.2, "brown"), scratch(0.1, "green"), rub(0.15, 0, 6), scratch(0.12, "green"), scratch(0.16, "brown")}, Replace, [2]float64{}, "bare wood"},
	{"the same lavender in March", "lavandula-angustifolia", 0.6, march, []check.Check{scratch(0.5, "brown"), scratch(0.3, "brown"), scratch(0.2, "brown"), scratch(0.1, "green"), rub(0.15, 0, 6), scratch(0.12, "green"), scratch(0.16, "brown")}, Wait, [2]float64{}, ""},
	{"tender salvia, tops dead, crown firm", "salvia-tender", 1.2, march, []check.Check{scratch(0.6, "brown"), crown("firm")}, CutToBase, [2]float64{0.05, 0.15}, "dead tops"},
	{"peony in March, nothing above ground", "paeonia-lactiflora", 0.9, march, []check.Check{crown("firm_buds")}, CutToBase, [2]float64{0.05, 0.15}, "crown lives"},
	{"palm, spear holds", "trachycarpus-fortunei", 4, march, []check.Check{spear("held")}, Leave, [2]float64{}, "growing point lives"},
	{"palm, spear pulled in March", "trachycarpus-fortunei", 4, march, []check.Check{spear("pulled")}, Wait, [2]float64{}, "may still live"},
	{"palm, spear pulled and August", "trachycarpus-fortunei", 4, day.Of(2027, 8, 20), []check.Check{spear("pulled")}, Replace, [2]float64{}, "growing point is dead"},
	{"shoots to the top in June", "wisteria-sinensis", 5, june, []check.Check{shoot(4.95), shoot(5), scratch(4.9, "green")}, Leave, [2]float64{}, "alive"},
	{"scratch that told nothing", "olea-europaea", 4, march, []check.Check{scratch(2, "unclear")}, Wait, [2]float64{}, "Too early|too early"},
}

func TestSituations(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range situations {
		a, err := inWords(ask(t, c.species, c.height, c.on, y, c.checks...))
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		if a.Verdict.Kind != c.want {
			t.Errorf("%s: verdict %q (%s; %+v), want %q", c.name, a.Verdict.Kind, a.Verdict.Sentence, a.Boundary, c.want)
		}
		if cut := a.Verdict.CutM; cut < c.cut[0] || cut > c.cut[1] {
			t.Errorf("%s: cut at %.2f m, want %v", c.name, cut, c.cut)
		}
		ok := false
		for _, part := range strings.Split(c.says, "|") {
			ok = ok || strings.Contains(a.Verdict.Sentence, part)
		}
		if !ok {
			t.Errorf("%s: %q does not say %q", c.name, a.Verdict.Sentence, c.says)
		}
		if len(a.Reasons) < len(c.checks) || len(a.Do)+len(a.Dont) == 0 {
			t.Errorf("%s: %d reasons for %d checks, %d things to do", c.name, len(a.Reasons), len(c.checks), len(a.Do))
		}
		if c.want == Wait && !strings.HasPrefix(c.species, "trachycarpus") && !strings.Contains(strings.Join(a.Changes, " "), "No leaf") {
			t.Errorf("%s: says only %q would change it", c.name, a.Changes)
		}
		thens := map[string]string{}
		for _, change := range a.Changes {
			_, then, _ := strings.Cut(change, ": ")
			if other := thens[then]; other != "" {
				t.Errorf("%s: %q and %q change it to the same", c.name, other, change)
			}
			thens[then] = change
		}
		if b := a.Boundary; b.LowM > b.BestM || b.BestM > b.HighM || b.HighM > c.height+0.005 {
			t.Errorf("%s: boundary %+v", c.name, b)
		}
	}
}

func TestVerdictsBecomeJobs(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range situations {
		a, err := inWords(ask(t, c.species, c.height, c.on, y, c.checks...))
		if err != nil {
			t.Fatal(err)
		}
		keys := map[string]bool{}
		for _, j := range a.Jobs {
			keys[j.Key] = true
			w := j.Curve.Windows(job.Acceptable)
			if len(w) == 0 || w[0].From < c.on || j.Minutes <= 0 || j.Title == "" || len(j.Reasons) == 0 {
				t.Errorf("%s: job %q has windows %v, %d min", c.name, j.Title, w, j.Minutes)
			}
			if j.Key == "cut" && a.Verdict.Kind == Wait && w[0].From < a.Patience {
				t.Errorf("%s: a window for the cut opens on %s, before the follow-up on %s", c.name, w[0].From, a.LookAgain)
			}
			for _, g := range j.After {
				if g.Job == j.Key {
					t.Errorf("%s: job %q comes after itself", c.name, j.Key)
				}
			}
		}
		want := map[string][]string{Leave: {}, Wait: {"look", "cut"}, Look: {"look", "cut"}, CutBack: {"cut", "look"},
			CutToBase: {"cut", "look"}, TipBack: {"cut"}, Replace: {"replace"}}[a.Verdict.Kind]
		if strings.HasPrefix(c.species, "trachycarpus") {
			want = slices.DeleteFunc(want, func(k string) bool { return k == "cut" }) // a palm is never cut back
		}
		if len(keys) != len(want) {
			t.Errorf("%s (%s): jobs %v, want %v", c.name, a.Verdict.Kind, keys, want)
		}
	}
	// What is found in autumn is cut in the spring that follows, in the south as in the north.
	south := lake(t)
	south.Latitude = -south.Latitude
	south.Normals = append(slices.Clone(south.Normals[6:]), south.Normals[:6]...)
	for _, c := range []struct {
		climate season.Climate
		on      day.Day
		months  []time.Month
	}{{lake(t), day.Of(2027, 10, 10), []time.Month{3, 4, 5}}, {south, day.Of(2027, 4, 10), []time.Month{9, 10, 11}}} {
		a, err := inWords(ask(t, "syringa-vulgaris", 2.4, c.on, season.NewYear(c.climate.Daily(), nil), scratch(1.5, "brown"), scratch(0.6, "green"), scratch(1.1, "brown"), scratch(0.9, "green")))
		if err != nil || a.Jobs[0].Kind != "cut back" {
			t.Fatalf("autumn: %+v, %v", a.Verdict, err)
		}
		best, ok := a.Jobs[0].Curve.Best(c.on)
		w := a.Jobs[0].Curve.Windows(job.Acceptable)
		if !ok || !slices.Contains(c.months, best.Month()) || len(w) == 0 {
			t.Errorf("found on %s, best cut on %s, windows %v", c.on, best, w)
		}
	}
	// Cutting waits for frost to be past and growth to show.
	a, _ := inWords(ask(t, "camellia-japonica", 2, march, y, situations[7].checks...))
	c := a.Jobs[0].Curve
	if early, due := c.On(march+2).Int(), c.On(a.Patience).Int(); early < 60 || due > 10 {
		t.Errorf("cutting costs %d in March and %d on %s", early, due, a.Patience)
	}
	if why := c.Why(march + 2); len(why) < 2 || why[0].Name != "frost" {
		t.Errorf("reasons in March: %v", why)
	}
}

func TestPatienceDate(t *testing.T) {
	c := lake(t)
	y := season.NewYear(c.Daily(), nil)
	date := func(id string, y *season.Year, on day.Day) day.Day {
		d, _ := plant(t, id, 1).Species.Patience(y, on)
		return d
	}
	early, late := date("spiraea-japonica", y, march), date("lagerstroemia-indica", y, march)
	if late <= early {
		t.Errorf("crape myrtle is given until %s, spirea until %s", late, early)
	}
	cool := c
	cool.Normals = slices.Clone(c.Normals)
	for i := range cool.Normals {
		cool.Normals[i].TMinC -= 2
		cool.Normals[i].TMaxC -= 2
	}
	if d := date("camellia-japonica", season.NewYear(cool.Daily(), nil), march); d <= date("camellia-japonica", y, march) {
		t.Errorf("in a cooler place the date is %s, not later", d)
	}
	// A later leaf-out never makes the date earlier.
	last := day.Day(0)
	for target := 10.0; target < 900; target += 20 {
		e := plant(t, "camellia-japonica", 1).Species
		e.LeafOut = season.Anchor{DegreeDays: target}
		d, _ := e.Patience(y, march)
		if d < last {
			t.Fatalf("leaf at %g °C·days: %s, before %s", target, d, last)
		}
		last = d
	}
	south := c
	south.Latitude = -c.Latitude
	south.Normals = append(slices.Clone(c.Normals[6:]), c.Normals[:6]...)
	n, s := date("camellia-japonica", y, march), date("camellia-japonica", season.NewYear(south.Daily(), nil), day.Of(2027, 9, 18))
	if gap := s.Sub(n); gap < 178 || gap > 190 {
		t.Errorf("north %s, south %s: not half a year apart", n, s)
	}
}

func TestOrderOfChecksDoesNotMatter(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range situations {
		q := ask(t, c.species, c.height, c.on, y, slices.Clone(c.checks)...)
		a, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		slices.Reverse(q.Checks)
		b, _ := inWords(q)
		if a.Boundary != b.Boundary || a.Verdict != b.Verdict {
			t.Errorf("%s: %+v, and backwards %+v", c.name, a.Verdict, b.Verdict)
		}
		// Buds entered one press at a time are the same buds.
		q.Checks = nil
		for _, ch := range c.checks {
			if ch.Kind != check.BudRub {
				q.Checks = append(q.Checks, ch)
				continue
			}
			for range ch.Held {
				q.Checks = append(q.Checks, rub(ch.HeightM, 1, 0))
			}
			for range ch.Broke {
				q.Checks = append(q.Checks, rub(ch.HeightM, 0, 1))
			}
		}
		if b, _ := inWords(q); a.Boundary != b.Boundary || a.Buds != b.Buds {
			t.Errorf("%s: bud by bud %+v, at once %+v", c.name, b.Boundary, a.Boundary)
		}
	}
}

func TestMoreLifeNeverLowersTheBoundary(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	r := rand.New(rand.NewPCG(4, 4))
	for i := range 300 {
		q := ask(t, "hydrangea-paniculata", 2, march, y)
		for range r.IntN(5) {
			q.Checks = append(q.Checks, scratch(0.05+1.9*r.Float64(), []string{"green", "brown"}[r.IntN(2)]))
		}
		before, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		x := 0.05 + 1.9*r.Float64()
		with := func(c check.Check) Boundary {
			q := q
			q.Checks = append(slices.Clone(q.Checks), c)
			a, err := inWords(q)
			if err != nil {
				t.Fatal(err)
			}
			return a.Boundary
		}
		if b := with(scratch(x, "green")); b.BestM < before.Boundary.BestM-0.006 {
			t.Fatalf("case %d: green at %.2f lowers life from %.2f to %.2f", i, x, before.Boundary.BestM, b.BestM)
		}
		if b := with(scratch(x, "brown")); b.BestM > before.Boundary.BestM+0.006 {
			t.Fatalf("case %d: brown at %.2f raises life from %.2f to %.2f", i, x, before.Boundary.BestM, b.BestM)
		}
	}
}

func TestNextCheckLeadsToAnEnd(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, life := range []float64{0, 0.3, 1.1, 1.7, 2.5} { // up to where the plant of 2 m lives
		q := ask(t, "camellia-japonica", 2, march, y)
		for range 15 {
			a, err := inWords(q)
			if err != nil {
				t.Fatal(err)
			}
			if a.Next == nil {
				break
			}
			alive := a.Next.HeightM <= life
			c := check.Check{Kind: a.Next.Kind, HeightM: a.Next.HeightM}
			switch {
			case c.Kind == check.Crown:
				c = crown("firm")
			case c.Kind == check.Scratch && alive:
				c.Result = "green"
			case c.Kind == check.Scratch:
				c.Result = "brown"
			case alive:
				c.Held = a.Next.Buds
			default:
				c.Broke = a.Next.Buds
			}
			q.Checks = append(q.Checks, c)
		}
		a, _ := inWords(q)
		t.Logf("alive to %.1f m: %d checks, %s", life, len(q.Checks), a.Verdict.Sentence)
		if a.Next != nil {
			t.Errorf("alive to %.1f m: still asking after %d checks: %+v", life, len(q.Checks), a.Next)
		}
		want := Leave
		switch {
		case life == 0:
			want = Wait
		case life < 2:
			want = CutBack
		}
		if a.Verdict.Kind != want {
			t.Errorf("alive to %.1f m: %q, want %q", life, a.Verdict.Kind, want)
		}
	}
}

func TestRefusals(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range []struct {
		name, species string
		height        float64
		check         check.Check
		want          string
	}{
		{"height of 0", "camellia-japonica", 0, scratch(1, "green"), "height_m: 0 m: a plant's height must be above 0"},
		{"check at 0", "camellia-japonica", 2, scratch(0, "green"), "checks[0].height_m: 0 m"},
		{"check above the plant", "camellia-japonica", 2, rub(2.4, 3, 1), "checks[0].height_m: 2.4 m is above the plant"},
		{"no bud", "camellia-japonica", 2, rub(1, 0, 0), "checks[0].held: no bud"},
		{"minus buds", "camellia-japonica", 2, rub(1, -3, 9), "checks[0].held"},
		{"blue bark", "camellia-japonica", 2, scratch(1, "blue"), `checks[0].result: "blue"`},
		{"crown green", "camellia-japonica", 2, crown("green"), "checks[0].result"},
		{"unknown check", "camellia-japonica", 2, check.Check{Kind: "lick"}, `checks[0].kind: "lick"`},
		{"buds on a palm", "trachycarpus-fortunei", 3, rub(1, 3, 0), "checks[0].kind: a palm has no buds"},
		{"spear on a shrub", "camellia-japonica", 2, spear("held"), "checks[0].kind: only a palm"},
		{"taller than a tree", "camellia-japonica", 200, crown("firm"), "height_m: 200 m is taller"},
	} {
		a, err := inWords(ask(t, c.species, c.height, march, y, c.check))
		if err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v, want %q", c.name, err, c.want)
		}
		if !reflect.DeepEqual(a, Answer{}) {
			t.Errorf("%s: an answer came with the refusal", c.name)
		}
	}
}

// TestNextCheckIsWithinReach: nobody is sent up a ladder to scratch bark.
func TestNextCheckIsWithinReach(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	for _, c := range []struct {
		species string
		height  float64
	}{{"camellia-japonica", 2}, {"wisteria-sinensis", 6}, {"magnolia-grandiflora", 9}, {"quercus-ilex", 20}, {"syringa-vulgaris", 3.1}} {
		var checks []check.Check
		for range 12 {
			a, err := inWords(ask(t, c.species, c.height, march, y, checks...))
			if err != nil {
				t.Fatal(err)
			}
			if a.Next == nil || a.Next.Kind == check.Crown {
				break
			}
			if limit := max(2.5, min(c.height, 3.2)); a.Next.HeightM > limit || a.Next.HeightM <= 0 {
				t.Fatalf("%s of %.1f m: check at %.2f m", c.species, c.height, a.Next.HeightM)
			}
			if a.Next.Kind == check.BudRub {
				checks = append(checks, rub(a.Next.HeightM, a.Next.Buds, 0))
			} else {
				checks = append(checks, scratch(a.Next.HeightM, "green"))
			}
		}
		if len(checks) == 0 || len(checks) == 12 {
			t.Errorf("%s of %.1f m: %d checks proposed", c.species, c.height, len(checks))
		}
	}
}

func TestBudSurvival(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	a, err := inWords(ask(t, "camellia-japonica", 2, march, y, rub(1, 6, 4), rub(1.5, 0, 2)))
	if err != nil {
		t.Fatal(err)
	}
	if b := a.Buds; b.Rubbed != 12 || b.Held != 6 || b.Share != 0.5 || b.Low > 0.36 || b.Low < 0.28 || b.High < 0.64 || b.High > 0.72 {
		t.Errorf("6 of 12: %+v", b)
	}
	if len(a.Cautions) == 0 && a.Verdict.Kind == CutBack {
		t.Error("cutting without a caution")
	}
}

func TestOverrule(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	q := ask(t, "camellia-japonica", 2, march, y, rub(1.8, 0, 6), scratch(1.2, "green"))
	q.Overrule, q.OverruleCutM = CutBack, 0.9
	a, err := inWords(q)
	if err != nil || a.Verdict.Kind != CutBack || a.Verdict.CutM != 0.9 || a.Jobs[0].Kind != "cut back" {
		t.Errorf("cut at 0.9 m all the same: %+v, %v", a.Verdict, err)
	}
	for _, c := range []struct {
		kind string
		cut  float64
		want string
	}{{CutBack, 0, "cut_m"}, {CutBack, 3, "cut_m"}, {"burn", 0, "kind"}} {
		q.Overrule, q.OverruleCutM = c.kind, c.cut
		if _, err := inWords(q); err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("overruled with %q at %g m: %v", c.kind, c.cut, err)
		}
	}
}

func ExampleJudge() {
	c, _ := catalogue.Built().Climate("lake-foothills")
	camellia, _ := catalogue.Built().Species("camellia-japonica")
	a, _ := inWords(Question{
		Plant: check.Plant{Species: camellia, HeightM: 2}, Today: day.Of(2027, 3, 18),
		Year: season.NewYear(c.Climate.Daily(), nil),
		Checks: []check.Check{
			{Kind: check.BudRub, HeightM: 1.8, Broke: 6},
			{Kind: check.Scratch, HeightM: 1.2, Result: "green"},
		},
	})
	fmt.Println(a.Verdict.Sentence)
	fmt.Printf("next: %s at %.2f m\n", a.Next.Kind, a.Next.HeightM)
	// Output:
	// Too early to call above 1.2 m; wait until 4 May. Alive below.
	// next: scratch at 1.50 m
}

func BenchmarkJudge(b *testing.B) {
	q := ask(b, "camellia-japonica", 2, march, season.NewYear(lake(b).Daily(), nil), situations[6].checks...)
	for b.Loop() {
		if _, err := inWords(q); err != nil {
			b.Fatal(err)
		}
	}
}

// inWords is Judge with its words as a metric reader sees them.
func inWords(q Question) (Answer, error) {
	a, err := Judge(q)
	if err != nil {
		return a, err
	}
	b, err := json.Marshal(a)
	if err == nil {
		err = json.Unmarshal(quantity.Metric.Bytes(b), &a)
	}
	return a, err
}
