package pruning

import (
	"fmt"
	"slices"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/catalogue"
	"mezzadro/core/moment"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
)

// natural are the kinds that are grown for the form they have by themselves. It panics when the shipped data is broken.
var natural = sync.OnceValue(func() []string {
	text, err := data.ReadFile("data/natural.yaml")
	var list []string
	if err == nil {
		err = written.Read(text, &list)
	}
	if err != nil {
		panic(err)
	}
	return list
})

// What house rules change.
const (
	bloomCalls    = 60 // points of bloom from which a class is called a spring bloomer that one waits for
	bloomGiven    = 8  // and what is left of them where the house cuts anyway
	winterRose    = -12
	naturalShare  = 0.25
	shortened     = 0.33
	bigWoundShare = 0.1
)

// ruled is how a kind is cut in this house, and which house rules spoke.
func (a *Ask) ruled() (*Class, []string) {
	of := ClassOf(a.Species)
	r := a.Rules.Or(rules.Usual)
	c, spoke := *of, []string{}
	says := func(text string) { spoke = append(spoke, text) }
	switch {
	case c.ID == "perennial" && a.Purpose != Lifting && a.Purpose != Deadhead:
		if r.Perennials == rules.AtFrost {
			c.Windows = []Window{
				{
					From: moment.On("first_frost", 0),
					To:   moment.On("first_frost", 40),
					Why:  "by house rule frosted perennials are cut back at once and mulched",
				},
			}
			says("Frosted perennials are cut back at once")
		} else {
			says("Frosted perennials stand till late winter")
		}
	case c.ID == "repeat-rose" && shapes(a.Purpose):
		if r.Roses == rules.InWinter {
			c.Windows = []Window{
				{
					From: moment.On("leaf_drop", 0),
					To:   moment.On("leaf_out", -25),
					Why:  "by house rule roses are shortened in winter, so that wind does not rock them",
				},
			}
			c.Frost, c.Soft, c.Before = winterRose, false, ""
			says("Roses are cut in winter, shortened against wind rock")
		} else {
			says("Roses are cut at bud swell")
		}
	case c.Bloom >= bloomCalls && !c.Spares && (a.Purpose == Size || a.Purpose == Raise || a.Purpose == Hedge):
		if r.InTheWay == rules.CutAnyway {
			c.Windows = append(
				slices.Clone(c.Windows),
				Window{From: moment.On("midwinter", 20), To: moment.On("leaf_out", -7),
					Why: "by house rule what is in the way is cut at rest, and its bloom is lost"},
			)
			c.Bloom = bloomGiven
			says("Spring bloomers in the way are cut anyway, and the bloom is lost")
		} else {
			says("Spring bloomers in the way wait till they have bloomed")
		}
	}
	if slices.Contains(natural(), a.Species.ID) && (shapes(a.Purpose) && a.Purpose != Size || a.Purpose == Hedge) {
		if r.Natives == rules.Clip {
			says("Native and naturalistic shrubs are clipped to shape")
		} else {
			c.Most, c.free = min(c.Most, naturalShare), true
			c.Draw, c.Where = "stems", "Whole stems at the ground, or at a side shoot inside the crown; nothing is clipped."
			c.How = []string{"Take out dead and broken stems.", "Take out a few of the oldest stems at the ground.",
				"Shorten what is out of line to a side shoot inside the crown; no shears."}
			says("Native and naturalistic shrubs keep their natural form and are thinned only")
		}
	}
	a.purposed(&c)
	if text, rule := a.wound(&c, r); text != "" {
		c.wound = text
		says(rule)
	}
	return &c, spoke
}

// purposed is how a class is cut for a purpose: how much goes at most, and when large limbs and old stems come out.
func (a *Ask) purposed(c *Class) {
	if most, capped := mostOf[a.Purpose]; capped {
		switch {
		case a.Purpose == Deadhead && c.ID == "reflush":
			most = 0.5
		case a.Purpose == Deadhead && (c.Spares || c.ID == "southern-native"):
			most = c.Most // its faded heads come off as it is cut each year
		case a.Purpose == Dead && a.Species.Form == catalogue.Perennial:
			most = 0.4 // leaves that died, with those that are going
		}
		switch {
		case a.Purpose == Renew && c.Renewing > 0:
			c.Most = c.Renewing
		case a.Purpose == Renew && c.Most >= 0.6:
			c.Most = readily
		default:
			c.Most = min(c.Most, most)
		}
	}
	e := a.Species
	tree := e.Form == catalogue.Tree && e.LeafSeason == catalogue.Deciduous
	switch {
	case c.ID == "repeat-rose" && shapes(a.Purpose) && a.Place.Of(e, a.Date).Frostless:
		c.Most = min(c.Most, restless) // no rest, no hard cut: it is cut lightly, flush by flush
	case a.Purpose == Size && a.single():
		c.Most = min(c.Most, treeShare)
	case tree && !fruits[c.ID] && c.ID != "desert-tree" && (a.Purpose == Raise || a.Purpose == Thin || a.Purpose == Train):
		c.Frost, c.Soft = min(c.Frost, -13), false
		if c.ID != "bleeding-tree" && c.ID != "magnolia" && c.ID != "summer-tree" {
			c.Windows = append(
				slices.Clone(c.Windows),
				atRest,
				Window{
					From: moment.On("leaf_out", 72),
					To:   moment.On("leaf_out", 122),
					Why:  "in full leaf the wounds close this summer",
				},
			)
		}
	case e.Form == catalogue.Shrub && e.LeafSeason == catalogue.Evergreen && e.ForLeaf && a.Purpose == Thin && c.ID != "bamboo":
		c.Frost, c.Soft = min(c.Frost, -14), false // by hand inside the crown: it pushes nothing
		c.Windows = append(slices.Clone(c.Windows), Window{From: moment.On("midwinter", -35), To: moment.On("leaf_out", -12),
			Why: "it is at rest: light comes into it before it grows"})
	case e.Form == catalogue.Conifer && (a.Purpose == Raise || a.Purpose == Thin):
		c.Frost, c.Soft = min(c.Frost, -18), false
		c.Windows = []Window{
			{
				From: moment.On("midwinter", -75),
				To:   moment.On("leaf_out", -12),
				Why:  "resin stands still, no beetle flies, and nobody nests in it",
			},
		}
	}
}

// atRest is when a deciduous tree is bare.
var atRest = Window{
	From: moment.On("leaf_drop", 20),
	To:   moment.On("leaf_out", -20),
	Why:  "it is at rest, the crown is seen, and nobody nests in it",
}

// readily is the share of its stems that a kind may lose at once in a renewal which comes again from low down each
// year.
const readily = 0.42

// restless is what roses bear that never rest.
const restless = 0.45

// treeShare is the share of its height or crown by which a tree is made smaller at most.
const treeShare = 0.2

// single reports a tree with a trunk that no cut may top: not one that is cut low for its leaf, a hedge or fruit.
func (a *Ask) single() bool {
	e := a.Species
	tree := (e.Form == catalogue.Tree || e.Form == catalogue.Conifer) && !inRow(a.Count, a.RowM)
	return tree && e.Standing() == catalogue.SingleTrunk && ClassOf(e).Most < 0.6 && !fruits[ClassOf(e).ID]
}

// shapes reports a purpose that takes the usual yearly cut.
func shapes(p Purpose) bool { return p == "" || p == Shape || p == Size || p == Thin }

// wound is what becomes of large wounds, where the cut makes some.
func (a *Ask) wound(c *Class, r rules.House) (step, rule string) {
	woody := a.Species.Form == catalogue.Tree || a.Species.Form == catalogue.Conifer || c.Draw == "collar" ||
		c.Draw == "stems"
	large := a.Purpose == Raise || a.Purpose == Thin || a.Purpose == Storm || a.Purpose == Dead || a.Purpose == Renew ||
		a.Purpose == Size ||
		c.Draw == "collar"
	if !woody || !large || a.Purpose == Deadhead || a.Purpose == Hedge {
		return "", ""
	}
	switch r.Wounds {
	case rules.Seal:
		wide := quantity.Thickness(10 * r.SealFromCM)
		return "Seal wounds of " + wide + " and more on a dry day; the dressing's label comes first.", "Wounds of " + wide + " and more are sealed"
	case rules.Compost:
		return "Rub large wounds with ripe compost.", "Large wounds are rubbed with compost"
	}
	return "Leave the wounds bare: they close from the collar.", "Large wounds stay bare"
}

// Follow is work that belongs to a cut and is done in the same visit, when its own time is.
type Follow struct {
	Kind    string `json:"kind" enum:"mulch"`
	Title   string `json:"title"`
	Minutes int    `json:"minutes"`
	Why     string `json:"why"`
}

// What goes on the ground after a cut.
const (
	compostM, mulchM = 0.02, 0.05 // thickness
	perM2            = 1.5        // minutes for a square metre
	feedSpan         = 66         // days round leaf-out in which a feed follows a cut
)

// together is what belongs to the cut, on all plants of a group.
func (a *Ask) together(c *Class, p *Plan) {
	if a.Purpose == Deadhead || a.Purpose == Dead || a.Purpose == Sick || a.Purpose == Hedge || a.Purpose == Lifting {
		return
	}
	area := float64(max(1, a.Count)) * min(4, max(0.25, 0.785*a.SpreadM*a.SpreadM))
	name := a.Species.Common
	out := a.calendar.Nearest(moment.When{Event: "leaf_out"}, p.Best)
	p.flush = out
	fed := slices.Contains(c.Together, "feed") && p.Best >= out-feedSpan && p.Best <= out+feedSpan
	if !fed && !slices.Contains(c.Together, "mulch") {
		return
	}
	f := Follow{Kind: "mulch", Title: "Compost and mulch " + name, Minutes: 5 * int(1+area*perM2/5),
		Why: fmt.Sprintf(
			"After the cut %s of compost and %s of mulch, clear of the stems.",
			quantity.Volume(1000*area*compostM),
			quantity.Volume(1000*area*mulchM),
		)}
	if fed {
		f.Title, f.Why = "Feed, compost and mulch "+name, "First the feed, by its label. "+f.Why
	}
	p.Together = append(p.Together, f)
}
