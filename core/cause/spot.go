package cause

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/quantity"
)

// Around is what the place tells of a spot before anybody is asked.
type Around struct {
	Wet      bool    // water is known to stand there
	WarmWall bool    // before a sun-warmed wall
	Sun      float64 // 0 shade to 1 sun all day
	Thirsty  string  // the widest-rooting big plant on the property; empty without one
	ReachM   float64 // how far its roots go, m
}

// reachUnknown is how far the roots of a big tree are taken to go where nobody knows the tree, m.
const reachUnknown = 12.0

// question asks about the spot. Each speaks for one reason and hardly for another.
type question struct {
	key, cause, name string
	ask              string
	mend             string
	prior            func(q Question) float64
}

var questions = []question{
	{
		"water_stands",
		"standing water",
		"standing water",
		"Does water still stand there a day after rain, or does the soil smell sour a hand deep?",
		"Lead the water away or plant on a mound before anything else is done for the plant.",
		func(q Question) float64 {
			return map[string]float64{"dry": 3, "well drained": 2, "even": 1, "moist": 0.5, "wet": 0.1}[q.Plant.Species.SoilWater] * either(
				q.Around.Wet,
				4,
				1,
			)
		},
	},
	{
		"big_tree_near",
		"thirsty roots",
		"roots of a big neighbour",
		"How far is the trunk of the nearest big tree or hedge?",
		"Water it apart, deeply, or give it a root barrier; a plant that bears dry soil does better there.",
		func(q Question) float64 {
			return map[string]float64{"low": 0.6, "medium": 1, "high": 1.4}[q.Plant.Species.Thirst] * either(
				q.Around.Thirsty != "",
				1.5,
				0.7,
			)
		},
	},
	{"in_shade", "shade", "shade", "Does it stand in shade most of the day while its fellows have sun?",
		"Thin what shades it, or move it into the light.", func(q Question) float64 {
			return map[string]float64{"full sun": 1.5, "sun or part shade": 0.7, "part shade": 0.3, "shade": 0.1}[q.Plant.Species.Light] * either(
				q.Around.Sun < 0.35,
				2,
				0.7,
			)
		}},
	{
		"hot_spot",
		"reflected heat",
		"reflected heat",
		"Do a wall, paving or a vent throw heat on it in the afternoon?",
		"Shade it in the worst hours, mulch, water early in the day; or choose what bears the heat.",
		func(q Question) float64 {
			return map[string]float64{"full sun": 0.4, "sun or part shade": 0.8, "part shade": 1.4, "shade": 2}[q.Plant.Species.Light] * either(
				q.Around.WarmWall,
				3,
				0.6,
			)
		},
	},
	{
		"sprinkler",
		"the sprinkler",
		"a sprinkler that misses or drowns it",
		"Does the sprinkler miss it, or wet it every time?",
		"Set the sprinkler right and look at the soil a hand deep before each watering.",
		func(q Question) float64 { return 0.6 },
	},
	{"animals", "animals", "animals", "Are there gnawed stems, dug soil, or a dog’s mark at its foot?",
		"Guard it: a mesh collar, a rail, or a place for the dog elsewhere.", func(q Question) float64 { return 0.5 }},
}

func either(is bool, yes, no float64) float64 {
	if is {
		return yes
	}
	return no
}

// Name is what the spot is asked about under a key.
func Name(key string) string {
	i := slices.IndexFunc(questions, func(q question) bool { return q.key == key })
	return questions[i].name
}

// SpotFinding is what the spot may be doing to a plant.
type SpotFinding struct {
	Reasons []SpotReason  `json:"reasons" doc:"The likelier first"`
	Next    *SpotQuestion `json:"next,omitempty" doc:"What to answer next; absent when all was answered"`
	Text    string        `json:"text"`
}

// SpotReason is one thing that may be wrong with a spot.
type SpotReason struct {
	Key    string  `json:"key"`
	Name   string  `json:"name"`
	Chance float64 `json:"chance" doc:"0 to 1; the chances of all with that of none of them sum to 1"`
	Mend   string  `json:"mend" doc:"What helps"`
}

// SpotQuestion is a question about the spot.
type SpotQuestion struct {
	Key      string  `json:"key"`
	Text     string  `json:"text"`
	Distance bool    `json:"distance" doc:"It asks for a distance in m"`
	ReachM   float64 `json:"reach_m,omitempty" doc:"How far roots are taken to go, m: nearer than that speaks for them"`
}

const (
	spotYes  = 0.9  // a yes where that is the reason
	spotNo   = 0.06 // a yes where it is not
	noReason = 2.0  // weight of none of them, against reasons that weigh about 1
)

// JudgeSpot weighs what may be wrong with the spot. Nil where the plant does not differ from its fellows and nobody has
// answered a question about its spot.
func JudgeSpot(q Question, c *Comparison) *SpotFinding {
	asked := map[string]check.Check{}
	for _, x := range q.Checks {
		if x.Kind == check.Spot {
			asked[x.Result] = x // the last answer stands
		}
	}
	differs := c != nil && c.What != ""
	plain := c != nil && c.Ask
	if !differs && !plain && len(asked) == 0 {
		return nil
	}
	reach := q.Around.ReachM
	if reach == 0 {
		reach = reachUnknown
	}
	odds := make([]float64, len(questions))
	none := noReason
	if differs {
		none /= 4 // chance is out, so that the spot or the plant itself is left
	} else if plain {
		none /= 1.5
	}
	for i, at := range questions {
		odds[i] = at.prior(q)
	}
	for i, at := range questions {
		a, known := asked[at.key]
		if !known {
			continue
		}
		yes, no := spotYes, spotNo
		seen := a.Seen == "yes"
		if at.key == "big_tree_near" && a.Amount > 0 {
			// Root mass falls off with distance: surely in reach at a third of it, hardly beyond.
			in := 1 / (1 + math.Exp(6*(a.Amount/reach-0.8)))
			yes, no = 0.05+0.9*in, 0.5
			seen = true
		}
		if !seen {
			yes, no = 1-yes, 1-no
		}
		for j := range odds {
			if j == i {
				odds[j] *= yes
			} else {
				odds[j] *= no
			}
		}
		none *= no
	}
	sum := none
	for _, o := range odds {
		sum += o
	}
	out := &SpotFinding{}
	best := -1
	for i, at := range questions {
		out.Reasons = append(out.Reasons, SpotReason{at.key, at.name, quantity.Round(odds[i]/sum, 0.001), at.mend})
		if _, known := asked[at.key]; !known && (best < 0 || odds[i] > odds[best]) {
			best = i
		}
	}
	slices.SortStableFunc(out.Reasons, func(a, b SpotReason) int { return cmp.Compare(b.Chance, a.Chance) })
	if best >= 0 {
		out.Next = askSpot(questions[best], q.Around, reach)
	}
	top := out.Reasons[0]
	switch {
	case top.Chance >= suspected:
		out.Text = fmt.Sprintf("Suspect the spot: %s, %.0f %%. %s", top.Name, 100*top.Chance, top.Mend)
	case differs:
		out.Text = "Suspect the spot: its fellows thrive. Answer the questions to find what is wrong there."
	default:
		out.Text = "Nothing about the spot stands out."
	}
	return out
}

// askSpot is the question to be asked next.
func askSpot(at question, around Around, reachM float64) *SpotQuestion {
	out := &SpotQuestion{Key: at.key, Text: at.ask, Distance: at.key == "big_tree_near"}
	if out.Distance {
		out.ReachM = quantity.Round(reachM, 0.1)
		if around.Thirsty != "" {
			out.Text += fmt.Sprintf(" The roots of the %s here go about %s.", around.Thirsty, quantity.Length(reachM))
		}
	}
	return out
}

// suspected is the chance from which a reason is named.
const suspected = 0.5

// Suspect is the reason that stands out, empty without one.
func (f *SpotFinding) Suspect() string {
	if f == nil || len(f.Reasons) == 0 || f.Reasons[0].Chance < suspected {
		return ""
	}
	return f.Reasons[0].Name
}

// bigM is from which height a tree or conifer counts as a big neighbour.
const bigM = 4.0

// Meet takes note of another plant on the property: the one whose roots go furthest is the neighbour to be asked about.
func (a *Around) Meet(e catalogue.Entry, heightM, spreadM float64) {
	if (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) && heightM >= bigM && e.Thirst != "low" &&
		spreadM*e.RootReach > a.ReachM {
		a.Thirsty, a.ReachM = e.Common, spreadM*e.RootReach
	}
}
