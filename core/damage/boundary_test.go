package damage

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mezzadro/core/season"
)

// stand is a simulated plant whose truth is known.
type stand struct {
	life float64 // share of the height up to which it lives
	rng  *rand.Rand
}

// newStand draws a plant as the prior believes plants to be.
func newStand(r *rand.Rand) stand {
	life := r.Float64()
	switch u := r.Float64(); {
	case u < priorNone:
		life = 0
	case u < priorNone+priorWhole:
		life = 1
	}
	return stand{life, r}
}

// look makes one check at height x on some stem of the plant and weighs the belief with what is seen.
func (s stand) look(b *Belief, k Kind, x float64) {
	alive := s.life == 1 || s.life > 0 && s.life+s.rng.NormFloat64()*StemSpread > x
	if k == Scratch {
		right := s.rng.Float64() >= ScratchMisread
		if alive == right {
			b.update(x, 1-ScratchMisread, ScratchMisread)
		} else {
			b.update(x, ScratchMisread, 1-ScratchMisread)
		}
		return
	}
	share := BudsHeldDead
	if alive && s.rng.Float64() >= BudsDeadAlone {
		share = BudsHeldAlive
	}
	held := 0
	for range budsARub {
		if s.rng.Float64() < share {
			held++
		}
	}
	a, d := budChances(held, budsARub-held, BudsDeadAlone)
	b.weigh(x, a, d)
}

var candidates = func() (hs []float64) {
	for x := 0.025; x < 1; x += 0.025 {
		hs = append(hs, x)
	}
	return hs
}()

func TestBoundaryOfSimulatedPlants(t *testing.T) {
	const plants, checks = 500, 6
	both := []Kind{Scratch, BudRub}
	covered, width := 0, 0.0
	for i := range plants {
		s := newStand(rand.New(rand.NewPCG(17, uint64(i))))
		b := uninformed()
		for range checks {
			k, x, _ := b.bestHeight(both, candidates, BudsDeadAlone)
			s.look(&b, k, x)
		}
		lo, hi := b.interval()
		if s.life >= lo-1e-9 && s.life <= hi+1e-9 {
			covered++
		}
		width += (hi - lo) / plants
	}
	share := 100 * float64(covered) / plants
	t.Logf("%d plants, %d suggested checks each: the 80 %% interval holds the truth in %.1f %%, mean width %.3f of the height",
		plants, checks, share, width)
	if share < 75 || share > 90 {
		t.Errorf("the 80 %% interval holds the truth in %.1f %% of plants, want 75 to 90", share)
	}
	// How many evenly spaced checks of the better kind give the same width?
	even := func(n int, k Kind) float64 {
		sum := 0.0
		for i := range plants {
			s := newStand(rand.New(rand.NewPCG(17, uint64(i))))
			b := uninformed()
			for j := range n {
				s.look(&b, k, float64(j+1)/float64(n+1))
			}
			sum += b.width() / plants
		}
		return sum
	}
	needed := 40
	for n := 1; n < needed; n++ {
		if w := math.Min(even(n, Scratch), even(n, BudRub)); w <= width {
			needed = n
			t.Logf("even spacing needs %d checks for the same width (%.3f)", n, w)
		}
	}
	if needed < 2*checks {
		t.Errorf("even spacing needs %d checks, want at least %d", needed, 2*checks)
	}
}

func TestBeliefMoves(t *testing.T) {
	half := func(alive, dead float64) *Belief {
		b := uninformed()
		b.update(0.5, alive, dead)
		return &b
	}
	before := uninformed()
	if g := half(0.95, 0.05); g.quantile(0.5) <= before.quantile(0.5) || g.chanceBelow(0.3) >= before.chanceBelow(0.3) {
		t.Errorf("green half way up: middle %.2f", g.quantile(0.5))
	}
	if br := half(0.05, 0.95); br.quantile(0.5) >= before.quantile(0.5) {
		t.Errorf("brown half way up: middle %.2f", br.quantile(0.5))
	}
	if u := half(1, 1); *u != before {
		for i := range u.chance {
			if math.Abs(u.chance[i]-before.chance[i]) > 1e-12 {
				t.Fatal("a sight that tells nothing moved the belief")
			}
		}
	}
	sum := 0.0
	for _, p := range half(0.95, 0.05).chance {
		sum += p
	}
	if math.Abs(sum-1) > 1e-9 {
		t.Errorf("the belief sums to %g", sum)
	}
	for held := 0; held < 10; held++ { // more held buds never speak less for life
		a0, d0 := budChances(held, 10-held, BudsDeadAlone)
		a1, d1 := budChances(held+1, 9-held, BudsDeadAlone)
		if a1-d1 < a0-d0-1e-9 {
			t.Errorf("%d of 10 held speaks less for life than %d", held+1, held)
		}
	}
}

// TestManyBuds: hundreds of buds of which half held, half broke at one height, or at two against each other, leave a belief
// that is one, and one that says no more than the buds do.
func TestManyBuds(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	rub := func(h float64, held, broke int) Check {
		return Check{Kind: BudRub, HeightM: h, Held: held, Broke: broke}
	}
	for name, checks := range map[string][]Check{
		"half and half":       {rub(1, 100, 100), rub(1, 100, 100), rub(1, 100, 100)},
		"against each other":  {rub(1.5, 200, 0), rub(0.5, 0, 200), rub(1.5, 200, 0), rub(0.5, 0, 200)},
		"all broke, all held": {rub(0.5, 0, 200), rub(1.5, 200, 0)},
		"every bud broke":     {rub(1, 0, 200), rub(1, 0, 200), rub(1.9, 0, 200)},
	} {
		e := gather(ask(t, "camellia-japonica", 2, march, y, checks...))
		sum := 0.0
		for _, p := range e.belief.chance {
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
	if math.Abs(one.belief.quantile(0.5)-two.belief.quantile(0.5)) > 1e-9 {
		t.Error("buds told in two checks tell something else")
	}
}
