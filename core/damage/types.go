// Package damage answers what the checks on a plant say: how far up it lives, whether it is too early to tell, what
// the least is that works, when to do it, and how it will turn out.
//
// A hurt plant mostly lives up to some height and is dead above. Where, is held as a belief over heights and moved by
// each check according to how often that check misleads: a scratch is misread one time in twenty, living wood holds
// 95 of 100 buds and dead wood 8, and one stem ends somewhat higher than the next. From the belief come the height
// with an 80 % interval, the share of crown lost and the check that would tell most. Silence before the patience date,
// the day by which the species would have shown leaf in this year's warmth, is no verdict of death.
//
// Before any check the belief follows what the weather is expected to have done, as far as that is known. What may
// fall on people comes before all else; then bark gone round the stem, tender plants before the first frost and what
// the wind rocks
// loose have rules of their own. A plant that differs from its fellows beyond chance points to its spot.
package damage

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/outcome"
	"mezzadro/core/pruning"
	"mezzadro/core/season"
)

// Question is a plant on a day with what was checked.
type Question struct {
	Plant  check.Plant
	Today  day.Day
	Year   *season.Year
	Checks []check.Check

	// Found is the day the checks were made: silence is judged by it, not by the day one reads of it. Today when zero.
	Found day.Day
	// Place is the year with what is worked out once for all plants there, and the house rules; made when nil.
	Place *job.Place

	// CutsAt is what cuts at the place ask of its year, worked out once for all plants there; made when nil and asked for.
	CutsAt *pruning.Place

	// Earlier is what was found on days before, Cuts what was cut off since and MadeSafe the day on which what might fall
	// was last made safe; Blows is what each event since the first of those days is expected to have done.
	Earlier  []Earlier
	Cuts     []Cut
	MadeSafe day.Day
	Blows    []*cold.Outcome
	// TallM is the height that is on record, m, where the plant was cut since; checks may be made up to there.
	TallM float64
	// Finds are the causes that stand as found on it.
	Finds []Find

	// Forecast is what the worst event of the last months is expected to have done to the plant, nil when not known.
	Forecast *cold.Outcome

	// Fellows are the other plants of its kind on the property, as far as they can be compared. Around is what the
	// place tells of the spot before anybody is asked.
	Fellows []cause.Fellow
	Around  cause.Around

	// Overrule is the verdict the gardener gives in place of the computed one, empty for none; OverruleCutM is the
	// height of its cut, m, where it has one.
	Overrule      string
	OverruleCutM  float64
	OverruleUntil day.Day // with wait until: the day, where one was given
}

// Find is a cause that was found on the plant.
type Find struct {
	Name string  `json:"name"`
	Day  day.Day `json:"day" format:"date"`
}

// foundToday are the names of what was found today.
func (q Question) foundToday() (out []string) {
	for _, f := range q.Finds {
		if f.Day == q.Today {
			out = append(out, f.Name)
		}
	}
	return out
}

// waitsAsTold reports a gardener's own verdict to wait, with its day.
func (q Question) waitsAsTold() bool {
	return q.Overrule == Wait && q.OverruleUntil.Given()
}

// Verdicts an answer may give or be overruled with.
var verdicts = []string{Look, Leave, Wait, TipBack, CutBack, CutToBase, Regraft, Replace, Lift, MakeSafe}

// Validate names every field that cannot be. Paths are those of the reckon operation.
func (q Question) Validate() error {
	var bad invalid.Fields
	h := q.Plant.HeightM
	if q.Overrule != "" && !slices.Contains(verdicts, q.Overrule) {
		bad.Add("kind", q.Overrule, "%q is no verdict; want one of %q", q.Overrule, verdicts)
	}
	if (q.Overrule == CutBack || q.Overrule == TipBack) && !(q.OverruleCutM > 0 && q.OverruleCutM <= h) {
		bad.Add("cut_m", q.OverruleCutM, "%g m: the cut must lie on the plant, above 0 and up to %g m", q.OverruleCutM, h)
	}
	q.Plant.Refuse(&bad)
	tall := q.Plant
	tall.HeightM = max(q.TallM, tall.HeightM)
	check.Validate(tall, q.Checks, &bad)
	return bad.Err()
}

// Suggestion is the check that would tell most.
type Suggestion struct {
	Kind    check.Kind `json:"kind"`
	HeightM float64    `json:"height_m"`
	Buds    int        `json:"buds,omitempty"` // how many to rub
	Why     string     `json:"why"`
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
	Prognosis outcome.Prognosis   `json:"prognosis"`
	Reasons   []Reason            `json:"reasons"`
	Changes   []string            `json:"changes" doc:"What would change the verdict"`
	Cautions  []catalogue.Caution `json:"cautions"`
	Jobs      []job.Job           `json:"jobs"`
	Trouble   string              `json:"trouble" enum:"damage,coming winter" doc:"What it is given on: a later verdict takes the place of its work on the same trouble"`
	Care      []Care              `json:"care" doc:"After-care, in the order of its days"`
	Choices   []Choice            `json:"choices" doc:"Where the verdict leaves it to the owner: the ways open, each of which can be accepted"`
	Fellows   *cause.Comparison   `json:"fellows,omitempty" doc:"How it compares with its kind on the property; absent with fewer than three others"`
	Spot      *cause.SpotFinding  `json:"spot,omitempty" doc:"What the spot may be doing to it; absent where nothing points to the spot"`
	Known     string              `json:"known" doc:"What earlier looks still tell, and what came since; empty where they tell nothing"`
	Finds     []string            `json:"finds" doc:"Causes that stand as found on it, in words"`
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
