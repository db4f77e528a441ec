package damage

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat/distuv"

	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/overwinter"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
	"mezzadro/core/season"
)

// Limits on which verdicts turn.
const (
	decidedWidth = 0.12 // interval, as a share of height, at which checks decide before the patience date
	openWidth    = 0.30 // interval at which no cut is set yet
	sureShare    = 0.70 // chance at which an end of the plant (whole, or dead to the ground) is taken as found
	tipsOnly     = 0.06 // share of crown lost under which only tips are taken off
	baseShare    = 0.10 // a cut under this share of the height is a cut to the base
	toTheGround  = 0.08 // share of the height under which life that ends there is none above the ground
	wholeFrom    = 0.97 // and from which it is alive to the tips
	cutCaution   = 0.20 // chance that life ends under the cut: the cut is set in surely living wood
)

// crownBase is how far up the stem a form's crown begins, as a share of its height.
var crownBase = map[catalogue.Form]float64{
	catalogue.Tree: 0.3, catalogue.Conifer: 0.08, catalogue.Shrub: 0.05, catalogue.Subshrub: 0.1,
	catalogue.Climber: 0.15, catalogue.Palm: 0.8, catalogue.Perennial: 0,
}

// CrownAbove is the share of a form's leaf area above a height (share of plant height): the crown is taken as widest
// at its middle (a Beta(2, 2) spread of leaf from its base to the tip).
func CrownAbove(f catalogue.Form, x float64) float64 {
	base := crownBase[f]
	z := max(0, min(1, (x-base)/(1-base)))
	return 1 - z*z*(3-2*z)
}

// decision is a verdict before it is put into words.
type decision struct {
	kind  string
	cut   float64 // share of height
	until day.Day // wait until: a day other than the patience date; 0: that
	ends  bool    // an annual, whose time ends
	reach bool    // alive as high as was looked, with nothing dead seen
	climb bool    // only its ends are dead, too little to climb for
}

// situation is all a decision rests on.
type situation struct {
	species  catalogue.Entry
	place    *job.Place
	patience day.Day
	leaf     season.Band
	found    day.Day // when the checks were made
	late     bool    // they were made on the patience date or after it: silence tells
	resting  bool    // they were made in autumn, when it goes to rest or is at rest: spring will tell
	stale    bool    // the patience date is past, but nobody has looked since
	years    int     // since it was planted; 0 unknown
	height   float64
	autumn   bool    // the first frosts are near or here, and winter is to come
	winters  float64 // chance that it comes through a winter where it stands
	frosted  bool    // frost has come this autumn
	struck   bool    // an event of the last months was hard enough to hurt it
	yearly   day.Day // first day of its hard yearly cut, where it is cut so and it is not past; 0 else
	cutNow   bool    // its hard yearly cut is due or was due this spring
	spring   bool    // it has begun to grow, or should by now
	heart    float64 // share of palms like it whose growing point the last freeze likely killed
	potted   bool
	liftable,
	loose bool // small enough to be lifted; small enough for wind to rock it loose
}

func (q Question) situation() situation {
	p := q.Plant
	s := situation{species: p.Species, place: q.Place, found: q.Found, years: p.Years, height: p.HeightM, winters: overwinter.Winters(p, q.Year.Normals.Climate.ExtremeMinC),
		struck: q.Forecast != nil && q.Forecast.Worst.Organ != ""}
	if q.Forecast != nil {
		s.heart = q.Forecast.Share(cold.Heart)
	}
	if s.place == nil {
		s.place = job.At(q.Year, rules.House{})
	}
	if s.found == 0 || s.found == day.None || s.found > q.Today {
		s.found = q.Today
	}
	s.patience, s.leaf = s.place.Patience(&s.species, s.found)
	s.late = s.found >= s.patience
	midwinter := q.Year.Normals.Climate.Midwinter(s.leaf.Mid)
	s.spring = s.found >= s.leaf.Early-growthSeen && s.found > midwinter+40
	s.yearlyCut(q)
	s.resting = s.found < midwinter && s.found > midwinter-150
	from, to, ok := overwinter.Autumn(q.Year, q.Today)
	s.autumn = ok && q.Today >= from && q.Today <= to
	for d := from; s.autumn && d <= q.Today && !s.frosted; d++ {
		e, observed := q.Year.Extremes(d)
		s.frosted = observed && e.Min < 0
	}
	s.liftable = overwinter.ComesIn(p, &q.Year.Normals.Climate)
	s.potted = p.PotL > 0
	s.loose = !overwinter.Treelike(p.Species.Form) && p.HeightM <= inReach
	return s
}

// shortens reports a plant that is shortened before the gales.
func (s situation) shortens(e *evidence) bool { return e.rocking && s.autumn && s.loose }

// graftMargin is how far above the graft, as a share of height, wood that lives may still be the rootstock's for all
// that brown bark higher up can tell.
const graftMargin = 0.12

// youngYears is the age up to which a grafted plant that lost its variety is replaced rather than grafted again.
const youngYears = 6

// decide picks the verdict. It is called for what may come as well as for what is.
func (s situation) decide(e *evidence) decision {
	if e.danger != "" && e.danger != "none" {
		return decision{kind: MakeSafe}
	}
	if d, ends := s.annual(e); ends {
		return d
	}
	dead := e.crown == "soft" && !e.living || e.belief.ChanceBelow(toTheGround) > sureShare
	switch {
	case s.lost(e):
		return decision{kind: Replace} // rotten already, and it would not come through outside
	case !s.autumn || dead:
	case s.liftable && s.winters < 0.5:
		return decision{kind: Lift}
	case e.rocking && s.loose:
		return decision{kind: TipBack, cut: 1 - overwinter.RockedOff}
	}
	if !e.any {
		return decision{kind: Look}
	}
	if s.species.Form == catalogue.Palm {
		return s.palmDecision(e)
	}
	return e.girdle.decide(s, e, s.stemDecision(e))
}

// palmDecision is the verdict on a plant with its growing point in its head. A kind that makes new stems from its foot
// is not lost with its head.
func (s situation) palmDecision(e *evidence) decision {
	headLost := e.spear == "pulled" || e.collapsed
	foot := e.shootAt > 0 && e.shootAt < headsFrom
	again := e.crown == "firm" || e.crown == "firm_buds" || foot
	switch {
	case headLost && foot:
		return decision{kind: CutToBase} // it comes again from its foot, whatever its kind is known for
	case headLost && e.collapsed && e.softFoot && s.found >= s.leaf.Mid && !s.species.Suckers:
		return decision{kind: Replace} // head fallen and foot soft in the growing season
	case s.species.Suckers && headLost && again && s.late:
		return decision{kind: CutToBase}
	case s.species.Suckers && headLost && again:
		return decision{kind: Wait}
	case e.living, e.spear == "held" && e.heart > 0:
		return decision{kind: Leave}
	case s.species.Suckers && headLost && s.late && e.crown != "soft":
		return decision{kind: Look} // nobody has looked for new stems at its foot yet
	case s.late && headLost:
		return decision{kind: Replace}
	}
	return decision{kind: Wait}
}

// headsFrom is the share of a palm's height under which a shoot is a new stem, not its head.
const headsFrom = 0.6

// graftDecision is the verdict where only what grows from under the graft lives.
func (s situation) graftDecision(e *evidence) (d decision, grafted bool) {
	if e.stock && !e.living && e.belief.ChanceBelow(e.graft+graftMargin) > 0.5 {
		switch {
		case !s.late:
			return decision{kind: Wait}, true
		case s.years > 0 && s.years < youngYears:
			return decision{kind: Replace}, true
		}
		return decision{kind: Regraft}, true
	}
	if e.below && !e.living && e.belief.ChanceBelow(e.graft+graftMargin) > 0.5 {
		if s.late {
			return decision{kind: Look}, true // the leaf tells what it is
		}
		return decision{kind: Wait}, true
	}
	return d, false
}

// stemDecision is the verdict from how far up the stem lives.
func (s situation) stemDecision(e *evidence) decision {
	b := &e.belief
	if e.softFoot && e.living && e.deadAt == 0 && e.broke <= e.held && !e.rocking {
		return decision{kind: Look} // leaf above a soft foot: it lives on what it has stored, or the foot was misread
	}
	if e.crown == "soft" && e.living {
		return decision{kind: Look} // life above a rotten crown: one of the two was misread
	}
	if e.crown == "soft" {
		if s.late || s.rotten(e) {
			return decision{kind: Replace}
		}
		return decision{kind: Wait}
	}
	if d, grafted := s.graftDecision(e); grafted {
		return d
	}
	if !e.dying && !s.struck && (e.girdle.share > 0 || e.rocking) {
		return decision{kind: Leave} // nothing says that more is wrong
	}
	if !e.stem && e.crown == "" && !e.dying && !s.struck {
		return decision{kind: Look}
	}
	if s.species.Form == catalogue.Perennial && e.living && !e.dying {
		return decision{kind: Leave} // it is in leaf, and nothing dead was seen
	}
	if s.species.LeafSeason == catalogue.Herbaceous && e.crown != "" {
		return s.crownDecision(e)
	}
	if s.species.Form == catalogue.Perennial && e.crown != "" {
		return decision{kind: Leave} // leaves come again from it
	}
	if d, measured := s.tipsMeasured(e); measured {
		return d
	}
	if d, plain := s.calendarDecision(e); plain {
		return d
	}
	lo, hi := b.Interval()
	lostTop, lost := CrownAbove(s.species.Form, lo), CrownAbove(s.species.Form, b.Quantile(0.5))
	switch {
	case b.ChanceBelow(toTheGround) > sureShare:
		switch {
		case !s.late:
			return decision{kind: Wait}
		case e.crown != "" && s.species.HardPruning != catalogue.GreenWood:
			return decision{kind: CutToBase}
		case e.crown == "firm" || e.crown == "firm_buds":
			return decision{kind: Replace}
		case s.stemIsAll() && e.lowest > 0 && e.lowest < highOnly:
			return decision{kind: Replace}
		}
		return decision{kind: Look} // nobody has looked at the crown yet
	case 1-b.ChanceBelow(wholeFrom) > sureShare, lostTop < 0.003:
		return decision{kind: Leave}
	case !e.dying && !s.struck && e.greenAt*s.height >= min(s.enough(e)*s.height, inHandM):
		return decision{kind: Leave, reach: true}
	case !e.dying && !s.struck && e.unclear > e.greenAt && !s.late:
		return decision{kind: Wait} // leaf will tell what the bark did not
	case !e.dying && !s.struck && (s.late || e.living):
		return decision{kind: Look} // nothing dead was seen: look on towards the tips before anything is cut
	case lostTop < tipsOnly:
		return decision{kind: TipBack, cut: b.Quantile(cutCaution)}
	}
	return s.cutDecision(e, lo, hi, lost)
}

// cutDecision is how far to cut a stem whose upper part is dead, once it is told well enough where life ends; lo and hi
// are where it may, lost is the share of the crown above its middle.
func (s situation) cutDecision(e *evidence, lo, hi, lost float64) decision {
	decided := hi-lo <= decidedWidth && e.brown && e.living
	if !s.late && !decided {
		return decision{kind: Wait}
	}
	if hi-lo > openWidth {
		return decision{kind: Look}
	}
	cut := e.belief.Quantile(cutCaution)
	if s.species.HardPruning == catalogue.GreenWood && lost > 0.7 {
		if s.late && e.shootAt > 0 && s.species.Form != catalogue.Conifer {
			return decision{kind: CutBack, cut: max(cut, e.shootAt)} // it shoots there, and nowhere below
		}
		if s.late {
			return decision{kind: Replace} // what lives is bare wood, and that stays bare
		}
		return decision{kind: Wait}
	}
	if cut < baseShare {
		if !e.living && e.crown == "" && !e.skip[check.Crown] {
			return decision{kind: Look} // nothing says yet that the crown lives
		}
		return decision{kind: CutToBase}
	}
	return decision{kind: CutBack, cut: cut}
}

// stemIsAll reports a kind that comes again neither from its crown nor from bare wood: with its stem all of it is lost.
func (s situation) stemIsAll() bool {
	return s.species.HardPruning == catalogue.GreenWood && s.species.Form != catalogue.Perennial &&
		s.species.LeafSeason != catalogue.Herbaceous
}

// What lives as high as this share of the height, or as one reaches without a ladder, m, speaks for the rest where
// nothing dead was seen and nothing struck.
const (
	highEnough = 0.7
	leafEnough = 0.6 // where leaves were seen healthy, or in their winter colour
	inHandM    = 2.0
)

// tipsMeasured is the verdict where the dead tips were measured and a living shoot was found below: that is enough.
func (s situation) tipsMeasured(e *evidence) (decision, bool) {
	living := e.shootAt
	if living == 0 && (s.spring || s.cutNow) {
		living = e.greenAt // green below dead tips, at a time when they are taken off
	}
	if e.tipsAt == 0 || living == 0 || living > e.tipsAt+0.05 || e.crown == "soft" {
		return decision{}, false
	}
	cut := max(living, min(e.tipsAt, e.belief.Quantile(cutCaution)))
	if CrownAbove(s.species.Form, e.tipsAt) < 2*tipsOnly {
		return decision{kind: TipBack, cut: cut}, true
	}
	return decision{kind: CutBack, cut: cut}, true
}

// Judge answers the question. Its error is a list of refused fields.
func Judge(q Question) (Answer, error) {
	if err := q.Validate(); err != nil {
		return Answer{}, err
	}
	q = q.shortened()
	e := gather(q)
	if len(q.Checks) == 0 && e.recalled.Given() {
		q.Found = e.recalled // nobody has looked since
	}
	s := q.situation()
	d := s.decide(&e)
	if d.kind == Wait && q.Today >= s.patience && !s.late && !e.girdle.rules(d) {
		d, s.stale = decision{kind: Look}, true // the day to wait for is past, and nobody has looked since
	}
	if d.kind == TipBack && !s.shortens(&e) && d.cut*q.Plant.HeightM > inReach && CrownAbove(q.Plant.Species.Form, d.cut) < tipsOnly {
		d = decision{kind: Leave, climb: true}
	}
	if q.Overrule != "" {
		d = decision{kind: q.Overrule, cut: q.OverruleCutM / q.Plant.HeightM}
	}
	a := Answer{Patience: s.patience, LeafOut: s.leaf, Buds: buds(e), LookAgain: day.None}
	a.Boundary = boundary(q.Plant, &e)
	next, changes := s.suggest(q, &e, d)
	a.Next, a.Changes = next, append([]string{}, changes...)
	about := cause.Question{Plant: q.Plant, Checks: q.Checks, Fellows: q.Fellows, Around: q.Around,
		CrownLost: CrownAbove(q.Plant.Species.Form, e.belief.Quantile(0.5)), Stem: e.stem}
	a.Fellows = cause.Compare(about)
	a.Spot = cause.JudgeSpot(about, a.Fellows)
	a.Rest = rest(q)
	t := told{q, &e, s, d, &a}
	a.Known, a.Finds = t.known(), []string{}
	for _, f := range q.Finds {
		a.Finds = append(a.Finds, f.Name+", found on "+quantity.Day(f.Day))
	}
	a.word(t)
	a.Trouble = d.trouble(s, &e)
	asked := orders(q, &a, d, s, &e)
	if e.girdle.share > 0 && d.kind != MakeSafe && d.kind != Replace {
		asked = append(asked, q.ask("guard", job.Guard, "guard", job.Params{}, a.Verdict.Sentence, a.cautionWords()))
	}
	a.Jobs = make([]job.Job, len(asked))
	for i, o := range asked {
		o = q.aloft(o, d)
		a.Jobs[i] = job.Job{Order: o, Curve: s.place.Curve(o, &s.species)}
	}
	a.Care, a.careOrders = care(q, &a, d, s, &e)
	return a, nil
}

// suggest is the check to make next, nil for none, and what each way it turns out would change.
func (s situation) suggest(q Question, e *evidence, d decision) (*Suggestion, []string) {
	switch {
	case d.kind == MakeSafe:
	case s.stale && e.crown != "":
		return &Suggestion{Kind: check.Crown, Why: "It was soft before leaf was due: draw the soil back again, " +
			"and look for shoots."}, nil
	case e.danger == "" && q.Forecast != nil && q.Forecast.Worst.Organ == cold.Limbs:
		return &Suggestion{Kind: check.Danger, Why: "A gale was here: stand back and look up for hanging and " +
			"split limbs, down for lifted roots, before going under it."}, nil
	case d.ends, d.kind == Lift, d.kind == TipBack && s.shortens(e):
	case d.kind == Look && e.crown == "soft" && e.living:
		return &Suggestion{Kind: check.Crown, Why: "It felt soft, but there is life above: draw the soil back " +
			"again and feel. Rot is wet, brown and smells; a sound crown is firm under a soft skin."}, nil
	case d.kind == Look && q.Plant.Species.Suckers && e.crown == "" && !e.skip[check.Crown] && (e.collapsed || e.spear == "pulled"):
		return &Suggestion{Kind: check.Crown, Why: "Look at its foot: this kind makes new stems from there when a " +
			"head is lost."}, nil
	case q.Plant.Species.Form != catalogue.Palm:
		return s.next(q, e, d)
	case !q.Plant.Species.HasSpear():
		if e.heart == 0 && !e.skip[check.Head] {
			return &Suggestion{Kind: check.Head, Why: "Look into the head, and press the heart with a finger: " +
				"firm lives, soft and sour is rotten."}, nil
		}
	case e.spear == "" && !e.skip[check.Spear]:
		return &Suggestion{Kind: check.Spear, Why: "The youngest leaf tells whether the growing point lives: " +
			"pull it gently upward."}, nil
	}
	return nil, nil
}

func boundary(p check.Plant, e *evidence) Boundary {
	lo, hi := e.belief.All.Interval()
	best := max(lo, min(hi, e.belief.Quantile(0.5)))
	f := p.Species.Form
	if f == catalogue.Palm { // all or nothing hangs on the growing point, at the base of the head
		lo, best, hi = crownBase[f], 1, 1
		switch e.spear {
		case "held":
			lo = 1
		case "pulled":
			best = crownBase[f]
		}
	}
	return Boundary{quantity.Round(best*p.HeightM, 0.01), quantity.Round(lo*p.HeightM, 0.01), quantity.Round(hi*p.HeightM, 0.01),
		quantity.Round(CrownAbove(f, best), 0.001), quantity.Round(CrownAbove(f, hi), 0.001), quantity.Round(CrownAbove(f, lo), 0.001)}
}

func buds(e evidence) Buds {
	n := e.held + e.broke
	if n == 0 {
		return Buds{High: 1}
	}
	beta := distuv.Beta{Alpha: float64(e.held) + 0.5, Beta: float64(e.broke) + 0.5}
	return Buds{n, e.held, quantity.Round(float64(e.held)/float64(n), 0.001), quantity.Round(beta.Quantile(0.1), 0.001), quantity.Round(beta.Quantile(0.9), 0.001)}
}

// Up to where a check is proposed from the ground: shoots of a plant hardly taller than a person can be bent down.
const (
	reachM    = 2.5
	bendDownM = 3.2
)

// tellsNothing is what a check is expected to tell, in nats, under which it is not worth the walk round the plant: what
// is still open lies out of reach.
const tellsNothing = 0.02

// heights are where a check can be asked for on a plant, within reach: every 5 cm, or 40 steps on a tall one.
func heights(plantM float64) []float64 {
	top := plantM
	if plantM > bendDownM {
		top = reachM
	}
	step := max(0.05, math.Round(top/40/0.05)*0.05)
	if plantM < 0.5 {
		step = plantM / 10
	}
	var out []float64
	for h := step; h <= top+1e-9; h += step {
		out = append(out, min(1, h/plantM))
	}
	return out
}

// unmade are the heights at which a check of a kind can be asked for and was not made: a spot that was looked at is not
// looked at again, whatever was seen there.
func unmade(q Question, k check.Kind) []float64 {
	const beside = 0.05 // share of the height, or m if that is more
	near := max(beside, beside/q.Plant.HeightM)
	return slices.DeleteFunc(heights(q.Plant.HeightM), func(x float64) bool {
		return slices.ContainsFunc(q.Checks, func(c check.Check) bool {
			return c.Kind == k && math.Abs(c.HeightM/q.Plant.HeightM-x) < near-1e-9
		})
	})
}

// highOnly reports that what was found dead was found high on a stem, and that nothing was looked at below it though
// one could.
func (s situation) highOnly(e *evidence) bool {
	return e.dying && !e.living && e.lowest > highOnly && s.species.Form != catalogue.Perennial && !e.skip[check.Scratch]
}

// would says a decision as what one would do then, with its day or its height.
func (s situation) would(d decision, heightM float64) string {
	switch {
	case d.kind == Wait && d.until != 0:
		return Wait + " " + quantity.Day(d.until)
	case d.kind == Wait:
		return Wait + " " + quantity.Day(s.patience)
	case d.kind == CutBack || d.kind == TipBack:
		return d.kind + ", at about " + quantity.Length(d.cut*heightM)
	case d.kind == Leave:
		return "leave it as it is"
	}
	return d.kind
}

// next is the check that would tell most, and what each way it turns out would change. There is none when no way
// the checks at any height turn out would change the verdict or move the cut.
func (s situation) next(q Question, e *evidence, d decision) (*Suggestion, []string) {
	if e.below && !e.living && !e.stock && !e.skip[check.Shoot] {
		return &Suggestion{Kind: check.Shoot, HeightM: quantity.Round(max(0.02, e.graft*q.Plant.HeightM/2), 0.01), Why: "The shoots come from under the graft: their leaf tells whether they are the variety or the rootstock."}, nil
	}
	if !e.dying && (e.girdle.share > 0 || e.rocking) && !s.struck {
		return nil, nil // nothing says that more is wrong than the bark
	}
	dead := e.belief.ChanceBelow(toTheGround) > sureShare || d.kind == Look && e.dying && !e.living && e.belief.Quantile(cutCaution) < baseShare
	low := s.species.LeafSeason == catalogue.Herbaceous || s.species.Form == catalogue.Perennial
	needCrown := !s.stemIsAll() && e.crown == "" && !e.skip[check.Crown] && !s.highOnly(e) && (dead || low)
	if needCrown {
		would := ifs{}
		for _, r := range []string{"firm_buds", "soft"} {
			made := q
			made.Checks = append(slices.Clone(q.Checks), check.Check{Kind: check.Crown, Result: r})
			after := gather(made)
			if nd := s.decide(&after); nd.kind != d.kind {
				felt := map[string]string{"firm_buds": "firm, budded", "soft": "soft"}[r]
				would.add(felt, s.would(nd, q.Plant.HeightM))
			}
		}
		return &Suggestion{Kind: check.Crown, Why: "Draw the soil back with a finger: the crown decides whether " +
			"it can come again from below."}, would.tell("A %s crown")
	}
	if e.crown == "soft" || s.species.Form == catalogue.Perennial { // the one is past more checks, the other has no bark
		return nil, nil
	}
	var kinds []check.Kind
	for _, k := range []check.Kind{check.Scratch, check.BudRub} {
		if !e.skip[k] {
			kinds = append(kinds, k)
		}
	}
	if len(kinds) == 0 {
		return nil, nil
	}
	kind, x, tells := e.belief.Best(kinds, func(k check.Kind) []float64 { return unmade(q, k) }, e.alone)
	if kind == "" {
		return nil, nil
	}
	matters := !e.any
	would := ifs{}
	for _, o := range belief.Outcomes(kind, e.alone) {
		after := *e
		p := after.belief.Update(x, o.Alive, o.Dead)
		after.any = true
		after.living = after.living || o.Alive > o.Dead
		after.brown = after.brown || kind == check.Scratch && o.Word == "brown"
		nd := s.decide(&after)
		changed := nd.kind != d.kind || math.Abs(nd.cut-d.cut)*q.Plant.HeightM > max(0.1, 0.05*q.Plant.HeightM)
		if p > 0.05 && changed {
			matters = true
			if o.Word != "" && nd.kind != d.kind {
				would.add(o.Word, s.would(nd, q.Plant.HeightM))
			}
		}
		lo, hi := after.belief.Interval()
		if d.kind == Wait && hi-lo > decidedWidth && tells > tellsNothing {
			matters = true // still on the way to a height that decides
		}
	}
	if !matters {
		return nil, nil
	}
	h := x * q.Plant.HeightM
	out := &Suggestion{Kind: kind, HeightM: quantity.Round(h, 0.01)}
	if kind == check.BudRub {
		out.Buds = belief.BudsARub
	}
	lo, hi := e.belief.All.Interval()
	within := ""
	if q.Plant.HeightM > bendDownM {
		within = " within reach"
	}
	out.Why = fmt.Sprintf("Life ends somewhere between %s and %s; this height tells most%s.", quantity.Length(lo*q.Plant.HeightM), quantity.Length(hi*q.Plant.HeightM), within)
	return out, would.tell("Bark %s at " + quantity.Length(h))
}
