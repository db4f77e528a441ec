package damage

import (
	"fmt"
	"math"

	"mezzadro/core/day"
	"mezzadro/core/outcome"
	"mezzadro/core/quantity"
)

// A heart that a frost killed rots slowly: its spear may hold for weeks. It is pulled again every pullAgainDays until
// the day by which a living one has grown.
const (
	pullAgainDays = 24
	hurtHeart     = 0.2 // share of hearts killed by a freeze from which a spear that holds is not believed
)

// pullAgain is the day on which a palm's spear that held is pulled once more; none where there is nothing to fear, or
// it is summer and growth tells.
func (s situation) pullAgain(e *evidence, today day.Day) day.Day {
	feared := s.heart >= hurtHeart || e.browned
	if e.spear != "held" || e.shootAt > 0 || !feared || !s.species.HasSpear() || today+pullAgainDays/2 >= s.patience {
		return day.None
	}
	return min(s.patience, today+pullAgainDays)
}

// heartLives is the chance that a palm's growing point lives, by its checks and by what the freeze likely did.
func (s situation) heartLives(e *evidence) float64 {
	prior := 0.0
	if s.heart > 0 {
		h := min(0.95, s.heart)
		prior = math.Log((1 - h) / h)
	}
	return 1 / (1 + math.Exp(-e.heart-prior))
}

// holdsSoFar says that a palm is left, and when its spear is pulled again.
func (t told) holdsSoFar(v *Verdict, again day.Day) {
	v.Sentence = fmt.Sprintf("Leave it for now: the spear holds, but a hurt heart can rot for weeks. Pull it again "+
		"on %s, then every three weeks until %s.", quantity.Day(again), quantity.Day(t.s.patience))
	v.Sure = quantity.Round(t.s.heartLives(t.e), 0.01)
}

// holds is the prognosis of such a palm.
func (s situation) holds(e *evidence) outcome.Prognosis {
	const text = "If the growing point lives, the next leaves open whole by summer; a burnt head fills in over one to " +
		"three seasons."
	return outcome.Prognosis{SeasonsLow: 1, SeasonsHigh: 3, Chance: quantity.Round(s.heartLives(e), 0.01), Text: text}
}
