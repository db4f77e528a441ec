// Package belief is what is held about how far up a plant lives: chances over heights, moved by each check according to
// how often that check misleads, and the check that would tell most next.
package belief

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mathext"
	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/check"
	"mezzadro/core/cold"
)

// What a check is worth: chances of what is seen on living and on dead wood.
const (
	BudsHeldAlive = 0.95 // share of buds that hold on living wood
	BudsHeldDead  = 0.08 // share that hold on dead wood
	BudsDeadAlone = 0.10 // living wood on which the frost took just the buds: they are less hardy; without a forecast
	ShootMisread  = 0.01 // a living shoot seen where there is none
	CrownMisread  = 0.05
	TipMisread    = 0.10 // shoots taken for dead, or for alive, by their look alone

	SpearPulledDead  = 0.95 // a spear that comes out of a dead heart
	SpearPulledAlive = 0.30 // one that rotted off over a living growing point
	// StemSpread is how much the height at which life ends differs along one stem, as a share of plant height.
	StemSpread = 0.02
	// Patchiness is the same from stem to stem of a plant: frost, wind and sun take one side and leave another.
	Patchiness = 0.12

	priorNone  = 0.10 // before any check: dead to the ground
	priorWhole = 0.20 // before any check: not hurt at all
)

// ScratchMisread is how often a scratch is read the wrong way round: the kinds of check tell it.
var ScratchMisread = check.Of(check.Scratch).Result("green").Tells[1]

// cells is the resolution of the belief: between the ground and the tip, with one more state for each end.
const cells = 100

// Belief is what is held about where on the plant life ends, as shares of its height: state 0 is dead to the ground,
// the last state alive to the tip, the others the cells between. Its chances sum to one. They are kept as logarithms
// beside, so that any number of checks, however much they contradict each other, leaves a belief.
type Belief struct {
	chance [cells + 2]float64
	log    [cells + 2]float64
	patchy bool // of the whole plant, whose stems differ by Patchiness
}

// of is the belief with given weights.
func of(weights [cells + 2]float64) (b Belief) {
	for i, w := range weights {
		b.log[i] = math.Log(w)
	}
	b.settle()
	return b
}

// settle brings the chances up to date with the logarithms.
func (b *Belief) settle() {
	most := slices.Max(b.log[:])
	sum := 0.0
	for i, l := range b.log {
		b.log[i] = l - most
		b.chance[i] = math.Exp(l - most)
		sum += b.chance[i]
	}
	for i := range b.chance {
		b.chance[i] /= sum
	}
}

// Uninformed is the belief before any check: each height as likely as another, with some chance for either end.
func Uninformed() Belief {
	var w [cells + 2]float64
	w[0], w[cells+1] = priorNone, priorWhole
	for i := 1; i <= cells; i++ {
		w[i] = (1 - priorNone - priorWhole) / cells
	}
	return of(w)
}

// ForecastTrust is how much of the belief before any check comes from the forecast of what the weather did; the rest
// stays uninformed, so that checks can overrule a forecast that was wrong.
const ForecastTrust = 0.7

// Forecast is the belief before any check from what an event is expected to have done.
func Forecast(o *cold.Outcome) Belief {
	b := Uninformed()
	if o == nil || o.Worst.Organ == "" {
		return b
	}
	var f [cells + 2]float64
	below := 1.0 // chance that it lives at the height below
	for i := range f {
		alive := 0.0
		if i <= cells {
			alive = min(below, o.AliveAt(float64(i)/cells))
		}
		f[i], below = below-alive, alive
	}
	for i := range f {
		f[i] = ForecastTrust*f[i] + (1-ForecastTrust)*b.chance[i]
	}
	return of(f)
}

// Then is the belief after an event that came after what it rests on: life ends where it ended before, or lower. The forecast of
// what the event did is trusted as one before any check is.
func (b *Belief) Then(o *cold.Outcome) {
	if o == nil || o.Worst.Organ == "" {
		return
	}
	var w [cells + 2]float64
	reaches, lives := 1.0, 1.0 // chance that it reached, and that the event left alive, what lies below the state
	for i, p := range b.chance {
		here := reaches * (1 - ForecastTrust + ForecastTrust*lives)
		reaches -= p
		alive := 0.0
		if i <= cells {
			alive = min(lives, o.AliveAt(float64(i)/cells))
		}
		lives = alive
		w[i] = max(1e-12, here-max(0, reaches)*(1-ForecastTrust+ForecastTrust*lives))
	}
	patchy := b.patchy
	*b = of(w)
	b.patchy = patchy
}

// BudsAlone is the chance that frost took just the buds of living wood.
func BudsAlone(o *cold.Outcome) float64 {
	if o == nil || !o.Event.Cold() {
		return BudsDeadAlone
	}
	return max(BudsDeadAlone, min(0.9, ForecastTrust*o.Share(cold.Buds)))
}

// steps are the chances that a stem lives at a height so many cells below the point where life ends on average.
type steps [2*cells + 1]float64

func stepsOf(spread float64) (t steps) {
	for i := range t {
		t[i] = distuv.UnitNormal.CDF((float64(i-cells) / cells) / spread)
	}
	return t
}

var alongStem, overStems = stepsOf(StemSpread), stepsOf(Patchiness)

// livesAt is the chance, given the state, that the stem checked lives at height x (share of plant height, 0 to 1).
func (b *Belief) livesAt(state int, x float64) float64 {
	switch state {
	case 0:
		return 0
	case cells + 1:
		return 1
	}
	t := &alongStem
	if b.patchy {
		t = &overStems
	}
	at := float64(state) - 0.5 - x*cells // cells between the boundary and the check
	i := math.Floor(at)
	lo := t[min(2*cells, max(0, int(i)+cells))]
	hi := t[min(2*cells, max(0, int(i)+cells+1))]
	return lo + (hi-lo)*(at-i)
}

// Update weighs the belief with a sight at height x that has chance alive on living and dead on dead wood. It returns
// the chance of the sight under the belief before.
func (b *Belief) Update(x, alive, dead float64) float64 {
	return math.Exp(b.Weigh(x, math.Log(alive), math.Log(dead)))
}

// Weigh is update with the logarithms of both chances, for sights so many that their chance is no number any more. It
// returns the logarithm of the sight's chance.
func (b *Belief) Weigh(x, alive, dead float64) float64 {
	most := max(alive, dead)
	up, down := math.Exp(alive-most), math.Exp(dead-most)
	sum := 0.0
	for i, p := range b.chance {
		a := b.livesAt(i, x)
		w := a*up + (1-a)*down
		sum += p * w
		if w > 0 {
			b.log[i] += math.Log(w)
		} else { // the larger of the two is left, from far below
			b.log[i] += min(alive, dead) - most
		}
	}
	b.settle()
	return math.Log(sum) + most
}

// Quantile is the height, as a share, under which life ends with chance q.
func (b *Belief) Quantile(q float64) float64 {
	sum := b.chance[0]
	if sum >= q {
		return 0
	}
	for i := 1; i <= cells; i++ {
		if sum+b.chance[i] >= q {
			return (float64(i-1) + (q-sum)/b.chance[i]) / cells
		}
		sum += b.chance[i]
	}
	return 1
}

// Interval is the middle 80 %.
func (b *Belief) Interval() (lo, hi float64) { return b.Quantile(0.1), b.Quantile(0.9) }

// Width is the length of the 80 % interval.
func (b *Belief) Width() float64 {
	lo, hi := b.Interval()
	return hi - lo
}

// ChanceBelow is the chance that life ends under height x.
func (b *Belief) ChanceBelow(x float64) float64 {
	sum := b.chance[0]
	for i := 1; i <= cells; i++ {
		if float64(i)-0.5 < x*cells {
			sum += b.chance[i]
		}
	}
	return sum
}

// budsClump is how little buds of one place differ, as the weight of a beta spread of the share that holds: they come
// in clumps, by twig and by side, so that half of ten say little either way.
const budsClump = 10

// Rubbed are the logarithms of the chances of held buds and broken ones on living and on dead wood, but for the same
// factor in both. alone is the chance that the frost took just the buds of living wood.
func Rubbed(held, broke int, alone float64) (alive, dead float64) {
	n := func(share float64) float64 { // beta-binomial
		a, b := share*budsClump, (1-share)*budsClump
		return mathext.Lbeta(a+float64(held), b+float64(broke)) - mathext.Lbeta(a, b)
	}
	dead = n(BudsHeldDead)
	sound, spoilt := math.Log(1-alone)+n(BudsHeldAlive), math.Log(alone)+dead
	most := max(sound, spoilt)
	return most + math.Log(math.Exp(sound-most)+math.Exp(spoilt-most)), dead
}

// Rot weighs the belief with a rotten crown, which the sight gives so many chances of being one: under it no stem
// lives for long.
func (b *Belief) Rot(misread float64) {
	for i := 1; i < len(b.log); i++ {
		b.log[i] += math.Log(misread / (1 - misread))
	}
	b.settle()
}

// Chances are the chances of the states, from dead to the ground to alive to the tip; they sum to one.
func (b *Belief) Chances() []float64 { return b.chance[:] }
