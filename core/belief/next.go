package belief

import (
	"math"

	"gonum.org/v1/gonum/stat/combin"

	"mezzadro/core/check"
)

// BudsARub is how many buds are rubbed for one suggested check.
const BudsARub = 3

// Outcome is one way a check may turn out.
type Outcome struct {
	Word        string
	Alive, Dead float64 // chance on living and on dead wood
}

// Outcomes of the two checks that can be placed on a stem.
func Outcomes(k check.Kind, alone float64) []Outcome {
	if k == check.Scratch {
		var out []Outcome
		for _, r := range check.Of(k).Results {
			if r.Tells != [2]float64{} {
				out = append(out, Outcome{r.Word, r.Tells[0], r.Tells[1]})
			}
		}
		return out
	}
	out := make([]Outcome, 0, BudsARub+1)
	for held := 0; held <= BudsARub; held++ {
		a, d := Rubbed(held, BudsARub-held, alone)
		ways := float64(combin.Binomial(BudsARub, held))
		out = append(out, Outcome{"", math.Exp(a) * ways, math.Exp(d) * ways})
	}
	return out
}

// Best finds the height and kind of check that is expected to leave the least open, that is, to tell most in
// the sense of information: over several checks this shrinks the interval faster than taking each time the check
// that shrinks it most by itself. tells is how much that is, in nats. heights are a kind's candidates as shares of the
// plant's height; without any there is no kind.
func (b *Belief) Best(kinds []check.Kind, heights func(check.Kind) []float64, alone float64) (kind check.Kind, x, tells float64) {
	most := math.Inf(-1)
	for _, k := range kinds {
		results := Outcomes(k, alone)
		sureDead, sureAlive := spread(results, 0), spread(results, 1)
		for _, h := range heights(k) {
			lives, noise := 0.0, 0.0 // chance that the spot lives; what stays open about the sight if life's end is known
			for i, p := range b.chance {
				switch a := b.livesAt(i, h); {
				case a < 1e-4:
					noise += p * sureDead
				case a > 1-1e-4:
					lives += p
					noise += p * sureAlive
				default:
					lives += p * a
					noise += p * spread(results, a)
				}
			}
			if told := spread(results, lives) - noise; told > most+1e-9 {
				kind, x, most = k, h, told
			}
		}
	}
	return kind, x, most
}

// spread is the entropy of what is seen at a spot that lives with chance a, in nats.
func spread(results []Outcome, a float64) float64 {
	h := 0.0
	for _, o := range results {
		if p := a*o.Alive + (1-a)*o.Dead; p > 0 {
			h -= p * math.Log(p)
		}
	}
	return h
}
