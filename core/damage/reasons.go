package damage

import (
	"fmt"
	"math"
	"strings"

	"mezzadro/core/belief"
	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/check"
	"mezzadro/core/cold"
	"mezzadro/core/quantity"
)

// reasons is all that speaks for life, for death, for waiting and of danger, in the order it was found.
func reasons(q Question, a *Answer, s situation) []Reason {
	var out []Reason
	if o := q.Forecast; o != nil && o.Worst.Organ != "" {
		r := Reason{Text: "Expected before any check: " + o.Reason(), Speaks: "wait"}
		if o.Worst.Organ == cold.Wood && o.Dieback > 0.03 {
			r.Speaks, r.Weight = "dead", quantity.Round(belief.ForecastTrust*o.Share(cold.Wood), 0.01)
		}
		out = append(out, r)
	}
	for _, e := range q.before() {
		for _, c := range e.Checks {
			if r := sayCheck(q, a, c); r.Text != "" {
				r.Text = "On " + quantity.Day(e.Day) + ": " + r.Text
				out = append(out, r)
			}
		}
	}
	for _, c := range q.Checks {
		if r := sayCheck(q, a, c); r.Text != "" {
			out = append(out, r)
		}
	}
	if c := a.Fellows; c != nil && c.Ask {
		out = append(out, tellsNeither(c.Text))
	} else if c != nil && c.What != "" {
		text := c.Text + " The spot is suspect, not the kind."
		if cause := a.Spot.Suspect(); cause != "" {
			text = c.Text + " Suspect the spot: " + cause + "."
		}
		out = append(out, tellsNeither(text))
	}
	return append(out, calendarReason(q, a, s))
}

// sayCheck is what a check says; without text where it says nothing.
func sayCheck(q Question, a *Answer, c check.Check) Reason {
	if say, speaks := sayings[c.Kind]; speaks {
		return say(q, c)
	}
	if c.Kind == check.Sample {
		if a.Rest == nil {
			return Reason{}
		}
		return tellsNeither(a.Rest.Text)
	}
	return sayResult(q, c)
}

// calendarReason is what the time of year says.
func calendarReason(q Question, a *Answer, s situation) Reason {
	sp := q.Plant.Species
	if a.Verdict.Kind == Lift {
		return Reason{
			fmt.Sprintf("Bears about %s; the coldest night of a usual winter here is %s", quantity.Temperature(sp.HardinessC),
				quantity.Temperature(q.Year.Normals.Climate.ExtremeMinC)),
			"dead",
			0,
		}
	}
	due := fmt.Sprintf(
		"Leaf is due about %s this year, one year in ten after %s; %d days more for coming late after damage: %s",
		quantity.Day(a.LeafOut.Mid),
		quantity.Day(a.LeafOut.Late),
		sp.LatenessDays,
		quantity.Day(a.Patience),
	)
	switch {
	case s.late:
		return Reason{due + ", and that is past", "dead", 0}
	case q.Today > s.patience:
		return tellsNeither(due + "; that is past, but nobody has looked since")
	}
	return tellsNeither(due + "; silence before then proves nothing")
}

func tellsNeither(text string) Reason { return Reason{text, "wait", 0} }

// speaks is a reason with its weight: the log-odds of what was seen on living against dead.
func speaks(text string, odds float64) Reason {
	if odds < 0 {
		return Reason{text, "dead", quantity.Round(-odds, 0.01)}
	}
	return Reason{text, "alive", quantity.Round(odds, 0.01)}
}

// odds of a sight that is misread so often.
func odds(misread float64) float64 { return math.Log((1 - misread) / misread) }

// sayings are what each kind of check says.
var sayings = map[check.Kind]func(Question, check.Check) Reason{
	check.BudRub: func(q Question, c check.Check) Reason {
		alive, dead := belief.Rubbed(c.Held, c.Broke, belief.BudsAlone(q.Forecast))
		return speaks(fmt.Sprintf("%d of %d buds held at %s", c.Held, c.Held+c.Broke, quantity.Length(c.HeightM)), alive-dead)
	},
	check.Shoot: sayShoot, check.Crown: sayCrown, check.BarkRing: sayRing, check.SplitBark: saySplit,
	check.Spear: func(_ Question, c check.Check) Reason {
		if c.Result == "pulled" {
			return speaks("Spear came out when pulled", math.Log(belief.SpearPulledAlive/belief.SpearPulledDead))
		}
		return speaks("Spear held when pulled", odds(belief.CrownMisread))
	},
	check.Danger: func(_ Question, c check.Check) Reason {
		if c.Result == "none" {
			return tellsNeither(saysOf(c))
		}
		return Reason{capital(saysOf(c)), "danger", 0}
	},
	check.Head: func(_ Question, c check.Check) Reason {
		return speaks("Head of the palm "+c.Result, headTells[c.Result])
	},
	check.TipDead: func(_ Question, c check.Check) Reason {
		return speaks(fmt.Sprintf("Shoots dead over %s from the tips", quantity.Length(c.Amount)), -odds(belief.TipMisread))
	},
	check.Growth: func(_ Question, c check.Check) Reason {
		return tellsNeither("Grew " + quantity.Length(c.Amount) + " last season")
	},
	check.NotLooked: func(_ Question, c check.Check) Reason {
		return tellsNeither("Not looked at: " + check.Of(check.Kind(c.Result)).LooksAt + "; nothing is concluded " +
			"from it")
	},
	check.Spot: func(_ Question, c check.Check) Reason { return tellsNeither(spotSays(c)) },
}

// saysOf is what the kinds of check say of a find.
func saysOf(c check.Check) string {
	if r := check.Of(c.Kind).Result(c.Result); r != nil {
		return strings.ReplaceAll(r.Says, "{at}", quantity.Length(c.HeightM))
	}
	return ""
}

// sayResult is what a find says by the kinds of check alone; without text where they say nothing.
func sayResult(q Question, c check.Check) Reason {
	r, leaf := check.Of(c.Kind).Result(c.Result), q.Plant.Species.LeafSeason
	switch {
	case r == nil:
		return Reason{}
	case r.Tells == [2]float64{} || r.Evergreen && leaf != catalogue.Evergreen && leaf != catalogue.SemiEvergreen:
		return tellsNeither(saysOf(c))
	}
	return speaks(saysOf(c), math.Log(r.Tells[0]/r.Tells[1]))
}

func sayShoot(q Question, c check.Check) Reason {
	at, low := quantity.Length(c.HeightM), q.Plant.Graft() > c.HeightM
	switch {
	case c.Leaf == "rootstock":
		return tellsNeither(
			"Shoot with the rootstock's leaf at " + at + ": it comes from below the graft and says nothing for " +
				"the variety",
		)
	case c.Leaf == "true" && low:
		return speaks(
			"Living shoot at "+at+", leaf true to the variety, from under where the graft would be: it may be on "+
				"its own roots; keep it and watch",
			odds(belief.ShootMisread),
		)
	case low && q.Plant.MaybeOwnRoots():
		return speaks(
			fmt.Sprintf(
				"Living shoot at %s; no graft found on a plant of %d years: it may be on its own roots; keep it "+
					"and watch its leaf",
				at,
				q.Plant.Years,
			),
			odds(belief.ShootMisread),
		)
	case low:
		return tellsNeither("Shoot from under the graft at " + at + ", leaf not told: it may be the rootstock's")
	}
	return speaks("Living shoot at "+at, odds(belief.ShootMisread))
}

func sayCrown(_ Question, c check.Check) Reason {
	if c.Result == "soft" {
		return speaks("Crown soft under the soil", -odds(belief.CrownMisread))
	}
	return speaks("Crown firm under the soil", odds(belief.CrownMisread))
}

func sayRing(_ Question, c check.Check) Reason {
	at := quantity.Length(c.HeightM)
	if c.Result == "no_bridge" || c.Amount >= check.AllRound {
		return Reason{"Bark gone all round at " + at + ", no bridge left: what is above is no longer fed", "dead", 3}
	}
	return tellsNeither(
		fmt.Sprintf("Bark gone over %.0f %% of the girth at %s, a bridge is left: %s", 100*c.Amount, at, ringSays(c.Amount)),
	)
}

func saySplit(_ Question, c check.Check) Reason {
	at := quantity.Length(c.HeightM)
	if c.Result == "loose" {
		return tellsNeither(
			fmt.Sprintf(
				"Bark split and loose over %.0f %% of the girth at %s: what has come off the wood dies; %s",
				100*c.Amount,
				at,
				ringSays(c.Amount),
			),
		)
	}
	return Reason{"Bark split at " + at + " but tight on the wood: it closes by itself", "alive", 0}
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

func ringSays(share float64) string {
	switch {
	case share < healsUnder:
		return "that heals"
	case share <= slowsUnder:
		return "that slows it and heals"
	}
	return "doubtful whether it feeds the top"
}

func spotSays(c check.Check) string {
	if c.Result == "big_tree_near" && c.Amount > 0 {
		return fmt.Sprintf("A big tree or hedge stands %s away", quantity.Length(c.Amount))
	}
	return fmt.Sprintf("The spot, %s: %s", cause.Name(c.Result), c.Seen)
}
