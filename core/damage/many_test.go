package damage

import (
	"math"
	"strings"
	"testing"

	"mezzadro/core/check"
	"mezzadro/core/season"
)

// TestManyBuds: hundreds of buds of which half held, half broke at one height, or at two against each other, leave a belief
// that is one, and one that says no more than the buds do.
func TestManyBuds(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	rub := func(h float64, held, broke int) check.Check {
		return check.Check{Kind: check.BudRub, HeightM: h, Held: held, Broke: broke}
	}
	for name, checks := range map[string][]check.Check{
		"half and half":       {rub(1, 100, 100), rub(1, 100, 100), rub(1, 100, 100)},
		"against each other":  {rub(1.5, 200, 0), rub(0.5, 0, 200), rub(1.5, 200, 0), rub(0.5, 0, 200)},
		"all broke, all held": {rub(0.5, 0, 200), rub(1.5, 200, 0)},
		"every bud broke":     {rub(1, 0, 200), rub(1, 0, 200), rub(1.9, 0, 200)},
	} {
		e := gather(ask(t, "camellia-japonica", 2, march, y, checks...))
		sum := 0.0
		for _, p := range e.belief.Chances() {
			if math.IsNaN(p) || p < 0 {
				t.Fatalf("%s: a chance of %g", name, p)
			}
			sum += p
		}
		if math.Abs(sum-1) > 1e-9 {
			t.Errorf("%s: the belief sums to %g", name, sum)
		}
		a, err := inWords(ask(t, "camellia-japonica", 2, march, y, checks...))
		if err != nil || a.Verdict.Kind == Leave || strings.Contains(a.Verdict.Sentence, "alive to the tips") {
			t.Errorf("%s: %+v, %v", name, a.Verdict, err)
		}
	}
	// The same buds in one check or in two tell the same.
	one := gather(ask(t, "camellia-japonica", 2, march, y, rub(1, 8, 4)))
	two := gather(ask(t, "camellia-japonica", 2, march, y, rub(1, 5, 1), rub(1, 3, 3)))
	if math.Abs(one.belief.Quantile(0.5)-two.belief.Quantile(0.5)) > 1e-9 {
		t.Error("buds told in two checks tell something else")
	}
}
