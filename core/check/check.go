// Package check holds what is looked at on a plant: the kinds of check and what each can find (data/checks.yaml, the
// one place to add one), the plant they are made on, and what of them cannot be.
package check

import (
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
)

// Kind is a kind of check.
type Kind string

const (
	BudRub    Kind = "bud_rub"    // buds rubbed lightly between finger and thumb: held or broke off
	Scratch   Kind = "scratch"    // bark scratched with a nail: green, brown or unclear
	Shoot     Kind = "shoot"      // a living shoot or swelling bud seen
	Crown     Kind = "crown"      // soil drawn back at the base: firm_buds, firm or soft
	BarkRing  Kind = "bark_ring"  // bark gone round the stem, by teeth, wire or a mower: the share of the girth, and whether a bridge is left
	SplitBark Kind = "split_bark" // bark split lengthwise: tight on the wood or loose, and then over which share of the girth
	TipDead   Kind = "tip_dead"   // shoots plainly dead from their tips: the length
	LeafState Kind = "leaf"       // how the leaves look and whether they hang on
	Base      Kind = "base"       // the foot of the stem, felt and rocked
	Spear     Kind = "spear"      // a palm's youngest leaf pulled: held or pulled
	Head      Kind = "head"       // a palm's head: green, browned or collapsed
	Danger    Kind = "danger"     // looked over from a distance for what may fall or break: none, or what was found
	Spot      Kind = "spot"       // a question about the spot it grows in, answered yes or no
	Sample    Kind = "sample"     // of a group kept as one: how many looked at are like the one checked, and how many not
	Growth    Kind = "growth"     // the longest shoots of the last season measured: how vigorous it is
	NotLooked Kind = "not_looked" // a kind of check that could not be made: it is not asked for again, and nothing is concluded
)

// Check is one observation.
type Check struct {
	Kind    Kind    `json:"kind" enum:"bud_rub,scratch,shoot,crown,bark_ring,split_bark,tip_dead,leaf,base,spear,head,danger,spot,sample,growth,not_looked" doc:"What was done"`
	HeightM float64 `json:"height_m,omitempty" doc:"Where on the plant, m above ground: bud_rub, scratch, shoot, leaf, bark_ring, split_bark"`
	Held    int     `json:"held,omitempty" doc:"bud_rub: buds that held; sample: plants like the one checked"`
	Broke   int     `json:"broke,omitempty" doc:"bud_rub: buds that broke off; sample: plants unlike it"`
	Leaf    string  `json:"leaf,omitempty" enum:"true,rootstock,unknown," doc:"shoot on a grafted plant: its leaf is true to the variety, like the rootstock, or unknown"`
	Result  string  `json:"result,omitempty" doc:"scratch: green, brown, unclear; crown: firm_buds, firm, soft; bark_ring: bridge, no_bridge; split_bark: tight, loose; leaf: healthy, scorched_margin, bleached, bronzed, dropped, clinging; base: sound, rocking, soft_bark; spear: held, pulled; head: green, browned, collapsed; danger: none, hanging_limb, split_stem, fungus_at_base, roots_lifted; spot: the question; not_looked: the kind of check"`
	Amount  float64 `json:"amount,omitempty" doc:"bark_ring and split_bark: share of the girth, 0 to 1; tip_dead and growth: length, m; spot about roots: distance, m"`
	Seen    string  `json:"seen,omitempty" enum:"yes,no," doc:"spot: the answer"`
}

// Plant is what is judged.
type Plant struct {
	Species catalogue.Entry
	HeightM float64 // before the damage, m
	GraftM  float64 // height of the graft, m; 0 where there is none or nobody knows
	Years   int     // since it was planted; 0 unknown
	PotL    float64 // litres of the pot; 0 in the ground
	Mulched bool
	Count   int // plants, where a group is kept as one; 0 and 1 are one
}

// ownRootYears is from which age on a grafted kind without a graft to be found may stand on its own roots: planted
// deep, it has rooted from the variety.
const ownRootYears = 15

// MaybeOwnRoots reports an old plant of a kind that is grafted on which nobody found a graft.
func (p Plant) MaybeOwnRoots() bool { return p.GraftM == 0 && p.Years >= ownRootYears }

// usualGraftM is where a graft is looked for on a kind that usually has one, when nobody has noted its height, m.
const usualGraftM = 0.1

// Graft is the height of the plant's graft, m; 0 for kinds on their own roots.
func (p Plant) Graft() float64 {
	if p.GraftM > 0 || p.Species.Graft.Habit != "usually" {
		return p.GraftM
	}
	return min(usualGraftM, p.HeightM/4)
}

// AllRound is the share of the girth from which bark counts as gone all round.
const AllRound = 0.97

// Validate names every field of the checks that cannot be on the plant. Paths are those of the reckon operation.
func Validate(p Plant, checks []Check, bad *invalid.Fields) {
	for i, c := range checks {
		at := fmt.Sprintf("checks[%d].", i)
		info := Of(c.Kind)
		if info == nil {
			bad.Add(at+"kind", c.Kind, "%q is no kind of check", c.Kind)
			continue
		}
		c.placed(info, p, at, bad)
		c.result(info, at, bad)
		c.counts(info, p, at, bad)
		c.amount(info, p, at, bad)
	}
}

// placed names what cannot be about where a check was made, on which kind of plant.
func (c Check) placed(info *Info, p Plant, at string, bad *invalid.Fields) {
	switch {
	case info.Fits(p.Species.Form):
	case info.Forms == "palm":
		bad.Add(at+"kind", c.Kind, "only a palm has a spear to pull and a head to look at")
	default:
		bad.Add(at+"kind", c.Kind, "a palm has no buds to rub and no bark that tells; pull its spear")
	}
	if c.Leaf != "" && (c.Kind != Shoot || !slices.Contains([]string{"true", "rootstock", "unknown"}, c.Leaf)) {
		bad.Add(at+"leaf", c.Leaf, "%q: want true, rootstock or unknown, and only for a shoot", c.Leaf)
	}
	switch {
	case !info.Height:
	case !(c.HeightM > 0):
		bad.Add(at+"height_m", c.HeightM, "%g m: the height of a check must be above 0", c.HeightM)
	case p.HeightM > 0 && c.HeightM > p.HeightM:
		bad.Add(at+"height_m", c.HeightM, "%g m is above the plant, which is %g m high", c.HeightM, p.HeightM)
	}
}

// result names what cannot be in what was found.
func (c Check) result(info *Info, at string, bad *invalid.Fields) {
	if want := info.Keys(); len(want) > 0 && !slices.Contains(want, c.Result) {
		bad.Add(at+"result", c.Result, "%q is no result of a %s check; want one of %v", c.Result, c.Kind, want)
	}
	if c.Kind == BarkRing && c.Amount >= AllRound && c.Amount <= 1 && c.Result == "bridge" {
		bad.Add(at+"result", c.Result, "bark gone all round leaves no bridge")
	}
	switch {
	case info.Answer && c.Seen != "yes" && c.Seen != "no":
		bad.Add(at+"seen", c.Seen, "%q: want yes or no", c.Seen)
	case !info.Answer && c.Seen != "":
		bad.Add(at+"seen", c.Seen, "only a question about the spot is answered yes or no")
	}
}

// counts names what cannot be in what was counted.
func (c Check) counts(info *Info, p Plant, at string, bad *invalid.Fields) {
	if info.Count == nil {
		return
	}
	what, most := info.Count.What, max(1, p.Count)
	if n, fixed := info.Count.Most.(int); fixed {
		most = n
	}
	switch {
	case c.Held < 0 || c.Broke < 0 || c.Held+c.Broke > most:
		bad.Add(at+"held", c.Held, "%d and %d %s: want counts from 0 to %d together", c.Held, c.Broke, what, most)
	case c.Held+c.Broke == 0:
		bad.Add(at+"held", 0, "no %s counted: give how many held (or are alike) or how many broke (or are not)", what)
	}
}

// amount names what cannot be in a check's figure.
func (c Check) amount(info *Info, p Plant, at string, bad *invalid.Fields) {
	a := info.Amount
	if a == nil || len(a.Needs) > 0 && !slices.Contains(a.Needs, c.Result) {
		return
	}
	most := p.HeightM
	if n, fixed := a.Most.(int); fixed {
		most = float64(n)
	}
	unit := " m"
	if a.What == "girth" {
		unit = " of the girth"
	}
	switch {
	case c.Amount > 0 && c.Amount <= most, a.Optional && c.Amount == 0:
	case a.Most == "height":
		bad.Add(at+"amount", c.Amount, "%g%s: want more than 0 and no more than the plant's %g m", c.Amount, unit, most)
	default:
		bad.Add(at+"amount", c.Amount, "%g%s: want more than 0 and up to %g%s", c.Amount, unit, most, unit)
	}
}

// Refuse adds what cannot be about the plant itself.
func (p Plant) Refuse(bad *invalid.Fields) {
	h := p.HeightM
	if !(h > 0) {
		bad.Add("height_m", h, "%g m: a plant's height must be above 0", h)
	} else if h > catalogue.TallestM {
		bad.Add("height_m", h, "%g m is taller than any plant kept here (%g m)", h, catalogue.TallestM)
	}
	if g := p.GraftM; !(g >= 0 && g <= max(h, 0)) {
		bad.Add("graft_m", g, "%g m: the graft must lie on the plant, from the ground to %g m", g, h)
	}
}
