package pruning

import (
	"strings"

	"mezzadro/core/catalogue"
)

// way is how a purpose is done, where that is not how the kind is cut each year.
type way struct {
	where string
	how   []string
}

var ways = map[Purpose]way{
	Hedge: {
		"Sides first, from the foot up and a little inward, so that the top is narrower than the foot; the top last, along a line.",
		[]string{
			"Look for nests; wait where one is lived in.", "Stretch a line along the top.", "Trim the sides from the foot up, narrower above.",
			"Trim the top along the line.", "Pull the clippings out of it, and water in drought."},
	},
	Deadhead: {"Right above the first full leaf or side shoot below the faded head.", []string{
		"Take off heads that fade, each week or two.", "Cut above the first full leaf or side shoot.", "Leave those whose fruit or hips are wanted."}},
	Dead: {"Dead wood back to live wood or to the collar; the collar itself stays whole.", []string{
		"Look what is dead: scratch, bend, look for buds.", "Take it out from above downwards, back to live wood or to the collar.", "Nothing that lives is cut."}},
	Frosted: {"Above the topmost bud that has moved.", []string{
		"Wait till it has shown what lives.", "Cut back above the topmost bud that has moved.", "Take what has not moved at all out at the ground or at its fork."}},
	Raise: {"At the collar, from below upwards; large limbs over several years.", []string{
		"Small low limbs first, at the collar; large ones shortened now and taken another year.", "Three cuts for each limb: from below, from above, at the collar.",
		"At least two thirds of its height stay in crown."}},
	Thin: {"Whole shoots at their base, evenly over the crown; no tips.", []string{
		"Dead, damaged and sick wood first.", "Crossing, rubbing and inward shoots at their base.", "The crown stays whole in outline; light comes through evenly."}},
	Train: {"Side shoots and rivals of the leader at their base, while they are thin.", []string{
		"Choose the leader; shorten or take out what rivals it.", "Choose limbs that stand wide, apart in height and round the stem.", "Tie in what is wanted; take out what crosses or hugs the stem."}},
	Storm: {"Long ends back to a side shoot; dead and split limbs at the collar.", []string{
		"Dead, split and hanging wood first.", "Shorten long ends to a side shoot, a third at most; the inside stays full.", "No topping, and no stripping of the inside."}},
	Lifting: {"Tops to what the roots left to it can feed.", []string{
		"Tie it up.", "Shorten tops by about as much as the roots lose.", "Cut the ball with a sharp spade; keep it moist."}},
}

// Heights up to which a tree is young, and from which it is old.
const (
	youngTreeM = 5
	oldTreeM   = 12
	hedgeMostM = 7 // up to which a single tree may be one end of a hedge
)

// onTrunk is how a tree is cut whose kin are shrubs: what they lose at the ground it loses at the trunk.
var onTrunk = way{"Above a side shoot, or at the collar of a limb; the trunk stays.", []string{
	"Dead, damaged and crossing wood first.", "Shoots from the foot and along the trunk torn off while they are thin.", "Shorten long shoots to a side shoot inside the crown."}}

// done is how the cut is done: as the purpose asks, or as the kind is cut; a tree on one trunk is cut at no ground.
func (a *Ask) done(c *Class) (where string, how []string) {
	where, how = a.asked(c)
	tree := a.Species.Form == catalogue.Tree && a.Species.Standing() == catalogue.SingleTrunk && c.Most < 0.6 &&
		c.Draw != "spur"
	if tree && strings.Contains(where+strings.Join(how, " "), "at the ground") {
		return onTrunk.where, onTrunk.how
	}
	return where, how
}

// pastHedge reports a hedge asked of what has grown into a tree: no line is cut along its top.
func (a *Ask) pastHedge() bool { return a.Purpose == Hedge && a.single() && a.HeightM > hedgeMostM }

// asked is how it is done as the purpose asks, or as the kind is cut.
func (a *Ask) asked(c *Class) (where string, how []string) {
	tree := a.Species.Form == catalogue.Tree || a.Species.Form == catalogue.Conifer
	purpose := a.Purpose
	if tree && purpose == Shape && a.HeightM < youngTreeM && a.HeightM < 0.5*a.Species.Mature.HeightM && !fruits[c.ID] {
		purpose = Train // a young tree is given its structure
	}
	if a.pastHedge() {
		purpose = Shape
	}
	w, own := ways[purpose]
	switch {
	case !own || c.free || c.Draw == "frond" || c.Draw == "crown" && purpose != Lifting:
		return c.Where, c.How
	case c.Spares && purpose == Deadhead:
		return c.Where, c.How
	}
	how = w.how
	if tree && a.HeightM > oldTreeM && purpose != Dead {
		how = append([]string{"An old tree bears little: as little as does, by a licensed arborist."}, how...)
	}
	return w.where, how
}
