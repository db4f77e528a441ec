// Package damage answers what the checks on a plant say: how far up it lives, whether it is too early to tell, what
// the least is that works, when to do it, and how it will turn out.
//
// A hurt plant mostly lives up to some height and is dead above. Where, is held as a belief over heights and moved by
// each check according to how often that check misleads: a scratch is misread one time in twenty, living wood holds
// 95 of 100 buds and dead wood 8, and one stem ends somewhat higher than the next. From the belief come the height
// with an 80 % interval, the share of crown lost and the check that would tell most. Silence before the patience date,
// the day by which the species would have shown leaf in this year's warmth, is no verdict of death.
//
// Before any check the belief follows what the weather is expected to have done, as far as that is known. What may fall on
// people comes before all else; then bark gone round the stem, tender plants before the first frost and what the wind rocks
// loose have rules of their own. A plant that differs from its fellows beyond chance points to its spot.
package damage

import (
	"fmt"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/season"
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

// results are the allowed results by kind of check.
var results = map[Kind][]string{
	Scratch:   {"green", "brown", "unclear"},
	Crown:     {"firm_buds", "firm", "soft"},
	BarkRing:  {"bridge", "no_bridge"},
	SplitBark: {"tight", "loose"},
	LeafState: {"healthy", "scorched_margin", "bleached", "bronzed", "dropped", "clinging"},
	Base:      {"sound", "rocking", "soft_bark"},
	Spear:     {"held", "pulled"},
	Head:      {"green", "browned", "collapsed"},
	Danger:    {"none", "hanging_limb", "split_stem", "fungus_at_base", "roots_lifted"},
	Spot:      spotKeys(),
	NotLooked: {"bud_rub", "scratch", "shoot", "crown", "bark_ring", "split_bark", "leaf", "base", "spear", "head", "danger", "spot"},
}

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

// placed reports a check made at a height.
func (c Check) placed() bool {
	return slices.Contains([]Kind{BudRub, Scratch, Shoot, LeafState, BarkRing, SplitBark}, c.Kind)
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

// Question is a plant on a day with what was checked.
type Question struct {
	Plant  Plant
	Today  day.Day
	Year   *season.Year
	Checks []Check

	// Found is the day the checks were made: silence is judged by it, not by the day one reads of it. Today when zero.
	Found day.Day
	// Place is the year with what is worked out once for all plants there, and the house rules; made when nil.
	Place *job.Place

	// Forecast is what the worst event of the last months is expected to have done to the plant, nil when not known.
	Forecast *cold.Outcome

	// Fellows are the other plants of its kind on the property, as far as they can be compared. Around is what the place
	// tells of the spot before anybody is asked.
	Fellows []Fellow
	Around  Around

	// Overrule is the verdict the gardener gives in place of the computed one, empty for none; OverruleCutM is the
	// height of its cut, m, where it has one.
	Overrule     string
	OverruleCutM float64
}

// Verdicts an answer may give or be overruled with.
var verdicts = []string{Look, Leave, Wait, TipBack, CutBack, CutToBase, Regraft, Replace, Lift, MakeSafe}

// maxBuds is more than anybody rubs at one height.
const maxBuds = 200

// Validate names every field that cannot be. Paths are those of the reckon operation.
func (q Question) Validate() error {
	var bad invalid.Fields
	h := q.Plant.HeightM
	if !(h > 0) {
		bad.Add("height_m", h, "%g m: a plant's height must be above 0", h)
	} else if h > 60 {
		bad.Add("height_m", h, "%g m is taller than any plant kept here (60 m)", h)
	}
	if q.Overrule != "" && !slices.Contains(verdicts, q.Overrule) {
		bad.Add("kind", q.Overrule, "%q is no verdict; want one of %q", q.Overrule, verdicts)
	}
	if (q.Overrule == CutBack || q.Overrule == TipBack) && !(q.OverruleCutM > 0 && q.OverruleCutM <= h) {
		bad.Add("cut_m", q.OverruleCutM, "%g m: the cut must lie on the plant, above 0 and up to %g m", q.OverruleCutM, h)
	}
	if g := q.Plant.GraftM; !(g >= 0 && g <= max(h, 0)) {
		bad.Add("graft_m", g, "%g m: the graft must lie on the plant, from the ground to %g m", g, h)
	}
	for i, c := range q.Checks {
		q.placeable(c, fmt.Sprintf("checks[%d].", i), &bad)
		q.counted(c, fmt.Sprintf("checks[%d].", i), &bad)
		c.shared(fmt.Sprintf("checks[%d].", i), &bad)
	}
	return bad.Err()
}

// placeable names what cannot be about where a check was made, on which kind of plant.
func (q Question) placeable(c Check, at string, bad *invalid.Fields) {
	h, palm := q.Plant.HeightM, q.Plant.Species.Form == catalogue.Palm
	switch {
	case palm && (c.Kind == BudRub || c.Kind == Scratch):
		bad.Add(at+"kind", c.Kind, "a palm has no buds to rub and no bark that tells; pull its spear")
	case !palm && (c.Kind == Spear || c.Kind == Head):
		bad.Add(at+"kind", c.Kind, "only a palm has a spear to pull and a head to look at")
	}
	if c.Leaf != "" && (c.Kind != Shoot || !slices.Contains([]string{"true", "rootstock", "unknown"}, c.Leaf)) {
		bad.Add(at+"leaf", c.Leaf, "%q: want true, rootstock or unknown, and only for a shoot", c.Leaf)
	}
	if !c.placed() {
		return
	}
	if !(c.HeightM > 0) {
		bad.Add(at+"height_m", c.HeightM, "%g m: the height of a check must be above 0", c.HeightM)
	} else if h > 0 && c.HeightM > h {
		bad.Add(at+"height_m", c.HeightM, "%g m is above the plant, which is %g m high", c.HeightM, h)
	}
}

// counted names what cannot be in a check's figures and results.
func (q Question) counted(c Check, at string, bad *invalid.Fields) {
	h := q.Plant.HeightM
	switch c.Kind {
	case BudRub:
		if c.Held < 0 || c.Broke < 0 || c.Held+c.Broke > maxBuds {
			bad.Add(at+"held", c.Held, "%d buds held and %d broke: want counts from 0 to %d together", c.Held, c.Broke, maxBuds)
		} else if c.Held+c.Broke == 0 {
			bad.Add(at+"held", 0, "no bud was rubbed: give how many held or how many broke")
		}
	case Sample:
		if n := max(1, q.Plant.Count); c.Held < 0 || c.Broke < 0 || c.Held+c.Broke == 0 || c.Held+c.Broke > n {
			bad.Add(at+"held", c.Held, "%d alike and %d not: want plants looked at out of the %d kept here", c.Held, c.Broke, n)
		}
	case Growth:
		if !(c.Amount > 0 && c.Amount <= 10) {
			bad.Add(at+"amount", c.Amount, "%g m of growth in a season: want more than 0 and up to 10 m", c.Amount)
		}
	case TipDead:
		if !(c.Amount > 0 && c.Amount <= h) {
			bad.Add(at+"amount", c.Amount, "%g m dead from the tips: want more than 0 and no more than the plant's %g m", c.Amount, h)
		}
	case Shoot:
	default:
		if want, known := results[c.Kind]; !known {
			bad.Add(at+"kind", c.Kind, "%q is no kind of check", c.Kind)
		} else if !slices.Contains(want, c.Result) {
			bad.Add(at+"result", c.Result, "%q is no result of a %s check; want one of %v", c.Result, c.Kind, want)
		}
	}
}

// shared names what cannot be in a share of the girth, or in the answer to a question about the spot.
func (c Check) shared(at string, bad *invalid.Fields) {
	if c.Kind == BarkRing || c.Kind == SplitBark && c.Result == "loose" {
		if !(c.Amount > 0 && c.Amount <= 1) {
			bad.Add(at+"amount", c.Amount, "%g: want the share of the girth, above 0 and up to 1", c.Amount)
		} else if c.Kind == BarkRing && c.Amount >= allRound && c.Result == "bridge" {
			bad.Add(at+"result", c.Result, "bark gone all round leaves no bridge")
		}
	}
	if c.Kind != Spot {
		if c.Seen != "" {
			bad.Add(at+"seen", c.Seen, "only a question about the spot is answered yes or no")
		}
		return
	}
	if c.Seen != "yes" && c.Seen != "no" {
		bad.Add(at+"seen", c.Seen, "%q: want yes or no", c.Seen)
	}
	if !(c.Amount >= 0 && c.Amount <= 200) {
		bad.Add(at+"amount", c.Amount, "%g m: want a distance from 0 to 200 m", c.Amount)
	}
}

// Boundary is where life ends on the plant, m above ground, with the 80 % interval.
type Boundary struct {
	BestM        float64 `json:"best_m"`
	LowM         float64 `json:"low_m"`
	HighM        float64 `json:"high_m"`
	CrownLost    float64 `json:"crown_lost" doc:"Share of the crown's leaf area above it, 0 to 1"`
	CrownLostLow float64 `json:"crown_lost_low"`
	CrownLostTop float64 `json:"crown_lost_high"`
}

// Buds is what the buds rubbed say, with an 80 % interval (Jeffreys prior). Without buds the share is 0 and the
// interval 0 to 1.
type Buds struct {
	Rubbed int     `json:"rubbed"`
	Held   int     `json:"held"`
	Share  float64 `json:"share"`
	Low    float64 `json:"low"`
	High   float64 `json:"high"`
}

// Verdicts, from the mildest.
const (
	Look      = "check first"
	Leave     = "leave"
	Wait      = "wait until"
	TipBack   = "tip back"
	CutBack   = "cut back to live wood"
	CutToBase = "cut to the base"
	Regraft   = "regraft or replace"
	Replace   = "replace"
	Lift      = "lift and shelter"
	MakeSafe  = "make safe first"
)

// Verdict is what to do about the plant.
type Verdict struct {
	Kind     string  `json:"kind" enum:"check first,leave,wait until,tip back,cut back to live wood,cut to the base,regraft or replace,replace,lift and shelter,make safe first"`
	Sentence string  `json:"sentence"`
	CutM     float64 `json:"cut_m" doc:"Height of the cut, m; 0 without one"`
	CutTo    string  `json:"cut_to" doc:"Where the cut goes, in words"`
	Until    day.Day `json:"until" format:"date" doc:"wait until: the patience date; empty otherwise"`
	Sure     float64 `json:"sure" doc:"How sure, 0 to 1"`
}

// Reason is one thing that speaks for life, for death or for waiting.
type Reason struct {
	Text   string  `json:"text"`
	Speaks string  `json:"speaks" enum:"alive,dead,wait,danger"`
	Weight float64 `json:"weight" doc:"Log-odds that the spot is alive (alive) or dead (dead); 0 for the calendar and for danger"`
}

// Prognosis is how it will turn out.
type Prognosis struct {
	SeasonsLow  int     `json:"seasons_low" doc:"Growing seasons until it looks right again, at least"`
	SeasonsHigh int     `json:"seasons_high"`
	Chance      float64 `json:"chance" doc:"Chance that it gets there, 0 to 1"`
	Text        string  `json:"text"`

	Heights []float64 `json:"heights" doc:"How tall it is foretold to be at the end of each season to come, m, until it looks right again"`
}

// Answer is the verdict with all it rests on.
type Answer struct {
	Boundary  Boundary            `json:"boundary"`
	Buds      Buds                `json:"bud_survival"`
	Patience  day.Day             `json:"patience_date" format:"date" doc:"By this day a living plant would show leaf"`
	LeafOut   season.Band         `json:"leaf_out"`
	Verdict   Verdict             `json:"verdict"`
	Do        []string            `json:"do"`
	Dont      []string            `json:"dont"`
	LookAgain day.Day             `json:"look_again" format:"date" doc:"Empty when no further look is needed"`
	Next      *Suggestion         `json:"next_check,omitempty" doc:"The check that would tell most; absent when no check can change the verdict"`
	Prognosis Prognosis           `json:"prognosis"`
	Reasons   []Reason            `json:"reasons"`
	Changes   []string            `json:"changes" doc:"What would change the verdict"`
	Cautions  []catalogue.Caution `json:"cautions"`
	Jobs      []job.Job           `json:"jobs"`
	Trouble   string              `json:"trouble" enum:"damage,coming winter" doc:"What it is given on: a later verdict takes the place of its work on the same trouble"`
	Care      []Care              `json:"care" doc:"After-care, in the order of its days"`
	Choices   []Choice            `json:"choices" doc:"Where the verdict leaves it to the owner: the ways open, each of which can be accepted"`
	Fellows   *Comparison         `json:"fellows,omitempty" doc:"How it compares with its kind on the property; absent with fewer than three others"`
	Spot      *SpotFinding        `json:"spot,omitempty" doc:"What the spot may be doing to it; absent where nothing points to the spot"`
	Rest      *Rest               `json:"rest,omitempty" doc:"What a sample says of the rest of the group"`

	careOrders []job.Order
}

// Orders is the work the answer asks for, with its after-care.
func (a Answer) Orders() []job.Order {
	out := make([]job.Order, 0, len(a.Jobs)+len(a.careOrders))
	for _, j := range a.Jobs {
		out = append(out, j.Order)
	}
	return append(out, a.careOrders...)
}

// Choice is one way open where the owner decides.
type Choice struct {
	Kind string `json:"kind" doc:"The verdict it comes to"`
	Text string `json:"text"`
}
