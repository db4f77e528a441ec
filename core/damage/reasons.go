package damage

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/cold"
	"mezzadro/core/quantity"
)

// reasons is all that speaks for life, for death, for waiting and of danger, in the order it was found.
func reasons(q Question, a *Answer, s situation) []Reason {
	var out []Reason
	if o := q.Forecast; o != nil && o.Worst.Organ != "" {
		r := Reason{Text: "Expected before any check: " + o.Reason(), Speaks: "wait"}
		if o.Worst.Organ == cold.Wood && o.Dieback > 0.03 {
			r.Speaks, r.Weight = "dead", round(forecastTrust*o.Share(cold.Wood), 0.01)
		}
		out = append(out, r)
	}
	for _, c := range q.Checks {
		if say, speaks := sayings[c.Kind]; speaks {
			if r := say(q, c); r.Text != "" {
				out = append(out, r)
			}
		} else if c.Kind == Sample && a.Rest != nil {
			out = append(out, tellsNeither(a.Rest.Text))
		}
	}
	if c := a.Fellows; c != nil && c.What != "" {
		text := c.Text + " The spot is suspect, not the kind."
		if cause := a.Spot.suspect(); cause != "" {
			text = c.Text + " Suspect the spot: " + cause + "."
		}
		out = append(out, tellsNeither(text))
	}
	return append(out, calendarReason(q, a, s))
}

// calendarReason is what the time of year says.
func calendarReason(q Question, a *Answer, s situation) Reason {
	sp := q.Plant.Species
	if a.Verdict.Kind == Lift {
		return Reason{fmt.Sprintf("Bears about %s; the coldest night of a usual winter here is %s", quantity.Temperature(sp.HardinessC),
			quantity.Temperature(q.Year.Normals.Climate.ExtremeMinC)), "dead", 0}
	}
	due := fmt.Sprintf("Leaf is due about %s this year, one year in ten after %s; %d days more for coming late after damage: %s",
		quantity.Day(a.LeafOut.Mid), quantity.Day(a.LeafOut.Late), sp.LatenessDays, quantity.Day(a.Patience))
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
		return Reason{text, "dead", round(-odds, 0.01)}
	}
	return Reason{text, "alive", round(odds, 0.01)}
}

// odds of a sight that is misread so often.
func odds(misread float64) float64 { return math.Log((1 - misread) / misread) }

// sayings are what each kind of check says.
var sayings = map[Kind]func(Question, Check) Reason{
	BudRub: func(q Question, c Check) Reason {
		alive, dead := budChances(c.Held, c.Broke, budsAlone(q.Forecast))
		return speaks(fmt.Sprintf("%d of %d buds held at %s", c.Held, c.Held+c.Broke, quantity.Length(c.HeightM)), alive-dead)
	},
	Scratch: sayScratch, Shoot: sayShoot, Crown: sayCrown, BarkRing: sayRing, SplitBark: saySplit, Base: sayBase,
	Spear: func(_ Question, c Check) Reason {
		if c.Result == "pulled" {
			return speaks("Spear came out when pulled", math.Log(spearPulledAlive/spearPulledDead))
		}
		return speaks("Spear held when pulled", odds(CrownMisread))
	},
	Danger: func(_ Question, c Check) Reason {
		if c.Result == "none" {
			return tellsNeither("Looked for loose and split wood, fungus at the base and lifted roots: nothing found")
		}
		return Reason{capital(knowledge.Dangers[c.Result]), "danger", 0}
	},
	Head: func(_ Question, c Check) Reason { return speaks("Head of the palm "+c.Result, headTells[c.Result]) },
	TipDead: func(_ Question, c Check) Reason {
		return speaks(fmt.Sprintf("Shoots dead over %s from the tips", quantity.Length(c.Amount)), -odds(TipMisread))
	},
	LeafState: func(_ Question, c Check) Reason {
		if l, tells := leafTells[c.Result]; tells {
			return speaks(knowledge.Leaves[c.Result]+" at "+quantity.Length(c.HeightM), math.Log(l[0]/l[1]))
		}
		return Reason{}
	},
	Growth: func(_ Question, c Check) Reason {
		return tellsNeither("Grew " + quantity.Length(c.Amount) + " last season")
	},
	NotLooked: func(_ Question, c Check) Reason {
		return tellsNeither("Not looked at: " + knowledge.LookedAt[c.Result] + "; nothing is concluded from it")
	},
	Spot: func(_ Question, c Check) Reason { return tellsNeither(spotSays(c)) },
}

func sayScratch(_ Question, c Check) Reason {
	at := quantity.Length(c.HeightM)
	switch c.Result {
	case "green":
		return speaks("Bark green at "+at, odds(ScratchMisread))
	case "brown":
		return speaks("Bark brown at "+at, -odds(ScratchMisread))
	}
	return tellsNeither("Bark unclear at " + at + ": tells nothing either way")
}

func sayShoot(q Question, c Check) Reason {
	at, low := quantity.Length(c.HeightM), q.Plant.graft() > c.HeightM
	switch {
	case c.Leaf == "rootstock":
		return tellsNeither("Shoot with the rootstock's leaf at " + at + ": it comes from below the graft and says nothing for the variety")
	case c.Leaf == "true" && low:
		return speaks("Living shoot at "+at+", leaf true to the variety, from under where the graft would be: it may be on its own roots; keep it and watch", odds(ShootMisread))
	case low && q.Plant.maybeOwnRoots():
		return speaks(fmt.Sprintf("Living shoot at %s; no graft found on a plant of %d years: it may be on its own roots; keep it and watch its leaf", at, q.Plant.Years), odds(ShootMisread))
	case low:
		return tellsNeither("Shoot from under the graft at " + at + ", leaf not told: it may be the rootstock's")
	}
	return speaks("Living shoot at "+at, odds(ShootMisread))
}

func sayCrown(_ Question, c Check) Reason {
	if c.Result == "soft" {
		return speaks("Crown soft under the soil", -odds(CrownMisread))
	}
	return speaks("Crown firm under the soil", odds(CrownMisread))
}

func sayRing(_ Question, c Check) Reason {
	at := quantity.Length(c.HeightM)
	if c.Result == "no_bridge" || c.Amount >= allRound {
		return Reason{"Bark gone all round at " + at + ", no bridge left: what is above is no longer fed", "dead", 3}
	}
	return tellsNeither(fmt.Sprintf("Bark gone over %.0f %% of the girth at %s, a bridge is left: %s", 100*c.Amount, at, ringSays(c.Amount)))
}

func saySplit(_ Question, c Check) Reason {
	at := quantity.Length(c.HeightM)
	if c.Result == "loose" {
		return tellsNeither(fmt.Sprintf("Bark split and loose over %.0f %% of the girth at %s: what has come off the wood dies; %s", 100*c.Amount, at, ringSays(c.Amount)))
	}
	return Reason{"Bark split at " + at + " but tight on the wood: it closes by itself", "alive", 0}
}

func sayBase(_ Question, c Check) Reason {
	switch c.Result {
	case "sound":
		return speaks("Foot of the stem sound", odds(ScratchMisread))
	case "soft_bark":
		return speaks("Bark soft and brown at the foot", -odds(ScratchMisread))
	}
	return tellsNeither("It rocks in its hole: fine roots tear and water stands round its foot")
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

func spotSays(c Check) string {
	i := slices.IndexFunc(questions, func(q question) bool { return q.key == c.Result })
	if c.Result == "big_tree_near" && c.Amount > 0 {
		return fmt.Sprintf("A big tree or hedge stands %s away", quantity.Length(c.Amount))
	}
	return fmt.Sprintf("The spot, %s: %s", questions[i].name, c.Seen)
}
