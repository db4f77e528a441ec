package belief

import (
	"math"
	"math/rand/v2"
	"testing"

	"mezzadro/core/check"
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
func (s stand) look(b *Belief, k check.Kind, x float64) {
	alive := s.life == 1 || s.life > 0 && s.life+s.rng.NormFloat64()*StemSpread > x
	if k == check.Scratch {
		right := s.rng.Float64() >= ScratchMisread
		if alive == right {
			b.Update(x, 1-ScratchMisread, ScratchMisread)
		} else {
			b.Update(x, ScratchMisread, 1-ScratchMisread)
		}
		return
	}
	share := BudsHeldDead
	if alive && s.rng.Float64() >= BudsDeadAlone {
		share = BudsHeldAlive
	}
	held := 0
	for range BudsARub {
		if s.rng.Float64() < share {
			held++
		}
	}
	a, d := Rubbed(held, BudsARub-held, BudsDeadAlone)
	b.Weigh(x, a, d)
}

var candidates = func() (hs []float64) {
	for x := 0.025; x < 1; x += 0.025 {
		hs = append(hs, x)
	}
	return hs
}()

func TestBoundaryOfSimulatedPlants(t *testing.T) {
	const plants, checks = 500, 6
	both := []check.Kind{check.Scratch, check.BudRub}
	covered, width := 0, 0.0
	for i := range plants {
		s := newStand(rand.New(rand.NewPCG(17, uint64(i))))
		b := Uninformed()
		for range checks {
			k, x, _ := b.Best(both, func(check.Kind) []float64 { return candidates }, BudsDeadAlone)
			s.look(&b, k, x)
		}
		lo, hi := b.Interval()
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
	even := func(n int, k check.Kind) float64 {
		sum := 0.0
		for i := range plants {
			s := newStand(rand.New(rand.NewPCG(17, uint64(i))))
			b := Uninformed()
			for j := range n {
				s.look(&b, k, float64(j+1)/float64(n+1))
			}
			sum += b.Width() / plants
		}
		return sum
	}
	needed := 40
	for n := 1; n < needed; n++ {
		if w := math.Min(even(n, check.Scratch), even(n, check.BudRub)); w <= width {
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
		b := Uninformed()
		b.Update(0.5, alive, dead)
		return &b
	}
	before := Uninformed()
	if g := half(0.95, 0.05); g.Quantile(0.5) <= before.Quantile(0.5) || g.ChanceBelow(0.3) >= before.ChanceBelow(0.3) {
		t.Errorf("green half way up: middle %.2f", g.Quantile(0.5))
	}
	if br := half(0.05, 0.95); br.Quantile(0.5) >= before.Quantile(0.5) {
		t.Errorf("brown half way up: middle %.2f", br.Quantile(0.5))
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
		a0, d0 := Rubbed(held, 10-held, BudsDeadAlone)
		a1, d1 := Rubbed(held+1, 9-held, BudsDeadAlone)
		if a1-d1 < a0-d0-1e-9 {
			t.Errorf("%d of 10 held speaks less for life than %d", held+1, held)
		}
	}
}
