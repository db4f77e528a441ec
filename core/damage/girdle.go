package damage

import (
	"mezzadro/core/catalogue"
	"mezzadro/core/check"
)

// Bark gone round a stem, as a share of its girth: under healsUnder it heals over, up to slowsUnder it costs vigour,
// above that it is doubtful whether the top can be fed, and all round everything above is lost unless it is bridged.
const (
	healsUnder = 0.25
	slowsUnder = 0.50
)

// girdle is the worst wound round the stem.
type girdle struct {
	share float64 // of the girth
	at    float64 // share of the plant's height
	whole bool    // no bridge of living bark is left
}

// add notes a wound. The worst counts; of two all round, the lower one.
func (g *girdle) add(at, share float64, whole bool) {
	whole = whole || share >= check.AllRound
	switch {
	case g.share == 0, whole && !g.whole, whole == g.whole && (share > g.share || share == g.share && at < g.at):
		if whole && g.whole {
			at = min(at, g.at)
		}
		*g = girdle{share, at, whole}
	case whole && g.whole:
		g.at = min(at, g.at)
	}
}

// harsher orders the verdicts by how much they give up. Dead tips are the lesser thing where it is doubtful whether the
// top is fed at all.
var harsher = map[string]int{
	Look:      0,
	Leave:     0,
	Lift:      0,
	TipBack:   1,
	Wait:      2,
	CutBack:   3,
	CutToBase: 4,
	Regraft:   5,
	Replace:   6,
}

// decide joins what the wound says with what the stem's life says: the harsher of both stands.
func (g girdle) decide(s situation, e *evidence, stem decision) decision {
	var d decision
	again := s.species.Resprouts == "yes" &&
		(e.crown == "firm" || e.crown == "firm_buds" || e.greenAt > 0 && e.greenAt < g.at)
	switch {
	case g.whole && !e.living && e.deadAt > 0 && s.spring && !s.comesAgain():
		d = decision{kind: Replace} // dead above and below what could be bridged
	case g.whole && again && e.graft == 0 && (s.species.Standing() != catalogue.SingleTrunk || e.deadAt > 0):
		d = decision{kind: CutToBase}
	case g.whole && s.species.HardPruning == catalogue.FromBase && s.species.Form != catalogue.Tree && g.at > e.graft+0.02:
		d = decision{kind: CutToBase}
	case g.whole:
		d = decision{kind: Regraft}
	case g.share > slowsUnder:
		d = decision{kind: Wait}
	default:
		return stem
	}
	if stem.kind == Look || harsher[d.kind] > harsher[stem.kind] {
		return d
	}
	return stem
}

// rules reports a verdict that the wound gave, not the life of the stem.
func (g girdle) rules(d decision) bool {
	return d.kind == Regraft && g.whole || d.kind == CutToBase && g.whole ||
		d.kind == Wait && !g.whole && g.share > slowsUnder
}
