package damage

import (
	"math/rand/v2"
	"slices"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// kinds of plants the properties are tried on, with their height.
var various = []struct {
	species string
	height  float64
	graftM  float64
}{{"camellia-japonica", 2, 0}, {"hydrangea-macrophylla", 1.2, 0}, {"syringa-vulgaris", 3, 0}, {"lavandula-angustifolia", 0.5, 0}, {"rosa-bedding", 1, 0.06},
	{"citrus-limon", 1.8, 0.15}, {"trachycarpus-fortunei", 3, 0}, {"miscanthus-sinensis", 1.6, 0}, {"wisteria-sinensis", 4, 0}, {"taxus-baccata", 2.2, 0}, {"malus-domestica", 3.5, 0.2}}

// sign is a random check that speaks for life or for death.
func sign(r *rand.Rand, p check.Plant, alive bool) check.Check {
	h := p.HeightM * (0.03 + 0.95*r.Float64())
	palm := p.Species.Form == catalogue.Palm
	pick := func(living, dead check.Check) check.Check {
		if alive {
			return living
		}
		return dead
	}
	n := 8
	if palm {
		return []check.Check{pick(spear("held"), spear("pulled")), pick(head("green"), head("browned")), pick(head("green"), head("collapsed"))}[r.IntN(3)]
	}
	switch r.IntN(n) {
	case 0:
		return pick(rub(h, 4, 0), rub(h, 0, 4))
	case 1:
		return pick(leaves(h, "healthy"), leaves(h, "clinging"))
	case 2:
		return pick(foot("sound"), foot("soft_bark"))
	case 3:
		return pick(crown("firm_buds"), crown("soft"))
	case 4:
		return pick(leaf(h, "true"), rub(h, 0, 2))
	case 5:
		return pick(split(h, "tight", 0), ring(h, 0.1+0.85*r.Float64(), "bridge"))
	}
	return pick(scratch(h, "green"), scratch(h, "brown"))
}

// TestEvidenceOnlyMovesItsWay: what speaks for life never makes a verdict harsher or a cut lower, what speaks for death
// never milder or higher. Verdicts that put it off, to check or wait, are no step either way.
func TestEvidenceOnlyMovesItsWay(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	r := rand.New(rand.NewPCG(7, 11))
	tried := 0
	for i := range 1500 {
		v := various[r.IntN(len(various))]
		q := ask(t, v.species, v.height, []day.Day{march, june, august}[r.IntN(3)], y)
		q.Plant.GraftM = v.graftM
		for range 1 + r.IntN(5) {
			q.Checks = append(q.Checks, sign(r, q.Plant, r.IntN(2) == 0))
		}
		before, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		alive := i%2 == 0
		extra := sign(r, q.Plant, alive)
		q.Checks = append(slices.Clone(q.Checks), extra)
		after, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		put := func(k string) bool { return k == Look || k == Wait || k == Lift }
		if put(before.Verdict.Kind) || put(after.Verdict.Kind) {
			continue
		}
		tried++
		step := harsher[after.Verdict.Kind] - harsher[before.Verdict.Kind]
		cut := after.Verdict.CutM - before.Verdict.CutM
		if alive && (step > 0 || step == 0 && cut < -0.051) || !alive && (step < 0 || step == 0 && cut > 0.051) {
			t.Errorf("%s: with %+v (alive %v) %q at %.2f m becomes %q at %.2f m; checks %+v", v.species, extra, alive, before.Verdict.Sentence, before.Verdict.CutM, after.Verdict.Sentence, after.Verdict.CutM, q.Checks)
		}
	}
	if tried < 200 {
		t.Errorf("only %d of the pairs had two verdicts", tried)
	}
}

// TestOrderNeverMatters: all checks, in any order, come to the same.
func TestOrderNeverMatters(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	r := rand.New(rand.NewPCG(5, 3))
	for _, c := range more {
		q := ask(t, c.species, c.height, c.on, y, c.checks...)
		if c.set != nil {
			c.set(&q)
		}
		a, err := inWords(q)
		if err != nil {
			t.Fatal(err)
		}
		for range 4 {
			q.Checks = slices.Clone(c.checks)
			r.Shuffle(len(q.Checks), func(i, j int) { q.Checks[i], q.Checks[j] = q.Checks[j], q.Checks[i] })
			b, _ := inWords(q)
			if a.Verdict != b.Verdict || a.Boundary != b.Boundary || !slices.Equal(a.Care, b.Care) {
				t.Errorf("%s: %+v, shuffled %+v", c.name, a.Verdict, b.Verdict)
			}
		}
	}
	for range 300 {
		v := various[r.IntN(len(various))]
		q := ask(t, v.species, v.height, june, y)
		q.Plant.GraftM = v.graftM
		for range 6 {
			q.Checks = append(q.Checks, sign(r, q.Plant, r.IntN(2) == 0))
		}
		a, _ := inWords(q)
		slices.Reverse(q.Checks)
		if b, _ := inWords(q); a.Verdict != b.Verdict || a.Boundary != b.Boundary {
			t.Errorf("%s: %+v, backwards %+v: %+v", v.species, a.Verdict, b.Verdict, q.Checks)
		}
	}
}

// TestPatienceMovesWithTheSeason: a cold spring so far puts the date off, a warm one brings it nearer, and every verdict that
// waits for it moves along.
func TestPatienceMovesWithTheSeason(t *testing.T) {
	n := lake(t).Daily()
	until := func(off float64) day.Day {
		seen := map[day.Day]season.Extremes{}
		for d := day.Of(2027, 1, 1); d <= day.Of(2027, 3, 14); d++ {
			seen[d] = season.Extremes{Min: n.TMin.At(d) + off, Max: n.TMax.At(d) + off}
		}
		a, err := inWords(ask(t, "camellia-japonica", 2, day.Of(2027, 3, 15), season.NewYear(n, seen), scratch(1.8, "brown"), scratch(0.4, "brown")))
		if err != nil || a.Verdict.Kind != Wait || a.Verdict.Until != a.Patience || a.LookAgain != a.Patience {
			t.Fatalf("%+v, %v", a.Verdict, err)
		}
		return a.Verdict.Until
	}
	last := day.Day(1 << 30)
	for off := -3.0; off <= 3; off++ {
		d := until(off)
		if d > last {
			t.Errorf("%+.0f °C: wait until %s, longer than in a colder spring (%s)", off, d, last)
		}
		last = d
	}
	if cold, warm := until(-3), until(3); cold.Sub(warm) < 10 {
		t.Errorf("cold spring %s, warm spring %s", cold, warm)
	}
}

// TestAnyChecksAnyVerdict: whatever is found and however it is overruled, the answer is whole: dates in order, windows that
// can be used, chances that are chances.
func TestAnyChecksAnyVerdict(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	r := rand.New(rand.NewPCG(21, 8))
	for i := range 1200 {
		v := various[r.IntN(len(various))]
		on := day.Of(2027, 1, 1) + day.Day(r.IntN(365))
		q := ask(t, v.species, v.height, on, y)
		q.Plant.GraftM, q.Plant.Years, q.Plant.PotL, q.Plant.Count = v.graftM, r.IntN(30), float64(r.IntN(2)*40), 1+r.IntN(9)
		for range r.IntN(6) {
			c := sign(r, q.Plant, r.IntN(2) == 0)
			switch r.IntN(6) {
			case 0:
				c = check.Check{Kind: check.Danger, Result: check.Of(check.Danger).Keys()[r.IntN(5)]}
			case 1:
				c = spotIs(check.Of(check.Spot).Keys()[r.IntN(6)], []string{"yes", "no"}[r.IntN(2)])
			case 2:
				c = notLooked(check.Kind(check.Of(check.NotLooked).Keys()[r.IntN(12)]))
			case 3:
				c = foot("rocking")
			}
			q.Checks = append(q.Checks, c)
		}
		if i%2 == 0 {
			q.Overrule, q.OverruleCutM = verdicts[r.IntN(len(verdicts))], v.height/2
		}
		a, err := inWords(q)
		if err != nil {
			t.Fatalf("%+v: %v", q.Checks, err)
		}
		b := a.Boundary
		chance := func(c float64) bool { return c >= 0 && c <= 1 }
		if a.Verdict.Sentence == "" || !chance(a.Verdict.Sure) || !chance(a.Prognosis.Chance) || b.LowM > b.BestM || b.BestM > b.HighM || a.Verdict.CutM > v.height ||
			a.LookAgain != day.None && a.LookAgain < on || a.Prognosis.SeasonsLow > a.Prognosis.SeasonsHigh {
			t.Errorf("%s on %s, %+v: %+v, %+v, look again %s", v.species, on, q.Checks, a.Verdict, a.Prognosis, a.LookAgain)
		}
		if q.Overrule != "" && a.Verdict.Kind != q.Overrule {
			t.Errorf("overruled with %q: %q", q.Overrule, a.Verdict.Kind)
		}
		for _, j := range a.Jobs {
			if best, ok := j.Curve.Best(on); !ok || best < on || j.Curve.Days < 1 {
				t.Errorf("%s on %s, %s: %q has no day", v.species, on, a.Verdict.Kind, j.Title)
			}
		}
		for k, c := range a.Care {
			if c.From < on || c.To < c.From || k > 0 && c.From < a.Care[k-1].From {
				t.Errorf("%s on %s, %s: %+v", v.species, on, a.Verdict.Kind, c)
			}
		}
	}
}
