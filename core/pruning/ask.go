package pruning

import (
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/moment"
	"mezzadro/core/rules"
)

// Purpose is what a cut is for.
type Purpose string

// Purposes.
const (
	Shape    Purpose = "shape"
	Size     Purpose = "size"
	Renew    Purpose = "renew"
	Dead     Purpose = "clear dead"
	Frosted  Purpose = "frost damage"
	Raise    Purpose = "raise"
	Thin     Purpose = "thin"
	Deadhead Purpose = "deadhead"
	Hedge    Purpose = "hedge"
	Train    Purpose = "train"
	Sick     Purpose = "sanitation"
	Storm    Purpose = "storm preparation"
	Lifting  Purpose = "before lifting"
)

// Purposes are all of them.
var Purposes = []Purpose{Shape, Size, Renew, Dead, Frosted, Raise, Thin, Deadhead, Hedge, Train, Sick, Storm, Lifting}

// Ask is a plant with what is wanted of it.
type Ask struct {
	Species *catalogue.Entry
	Place   *Place
	Date    day.Day // of the cut that is thought of
	HeightM float64 // 0: as tall as its kind grows
	SpreadM float64 // 0: as usual for the height
	Count   int     // of a group kept as one; 0: one
	RowM    float64 // length of the row or hedge they stand in, m; 0: not measured
	GraftM  float64 // 0: none, or nobody knows
	Purpose Purpose // shape when empty
	WantedM float64 // height it is to stand at after the next season; 0: none wanted
	CutM    float64 // height it is cut to, in place of a wanted one; 0: not told
	Share   float64 // of the living crown; 0: what the purpose takes
	Part    int     // of a renewal over three years: 1, 2 or 3; 0: the first
	Rules   rules.House
	Wire    bool        // a power line is within reach of its crown
	Near    []Neighbour // other plants of the property, for what loses its shade

	calendar moment.Calendar
}

// usual shares of the living crown that purposes take; of the others what the class bears.
var usualShare = map[Purpose]float64{Dead: 0, Deadhead: 0, Frosted: 0, Sick: 0.1, Raise: 0.1, Thin: 0.2, Train: 0.15, Storm: 0.15, Hedge: 0.15, Shape: 0.2}

// mostOf is the share of the living crown that purposes take at most at once, whatever the kind bears when it is cut for
// its size.
var mostOf = map[Purpose]float64{Deadhead: 0.1, Dead: 0.05, Frosted: 0.33, Raise: 0.2, Thin: 0.25, Train: 0.2, Storm: 0.25, Hedge: 0.25, Renew: 0.33}

// fill takes what was not told as usual.
func (a *Ask) fill(c *Class) {
	if a.Purpose == "" {
		a.Purpose = Shape
		if a.WantedM > 0 || a.CutM > 0 {
			a.Purpose = Size
		}
	}
	if a.HeightM == 0 {
		a.HeightM = a.Species.Mature.HeightM
	}
	if a.SpreadM == 0 {
		a.SpreadM = a.HeightM * a.Species.Mature.SpreadM / a.Species.Mature.HeightM
	}
	if a.Share == 0 {
		usual, known := usualShare[a.Purpose]
		if a.Purpose == Size && a.single() {
			usual, known = treeShare, true
		}
		if !known || a.Purpose == Shape {
			usual = c.Most
		}
		a.Share = min(usual, c.Most)
	}
}

// Validate names what cannot be, and says what is possible.
func (a Ask) Validate() error {
	var bad invalid.Fields
	if a.Purpose != "" && !slices.Contains(Purposes, a.Purpose) {
		bad.Add("purpose", a.Purpose, "%q is no purpose; want one of %q", a.Purpose, Purposes)
	}
	bad.Within("height_m", a.HeightM, 0, 60, "m")
	bad.Within("spread_m", a.SpreadM, 0, 40, "m")
	bad.Within("graft_m", a.GraftM, 0, 5, "m")
	bad.Within("share", a.Share, 0, 1, "")
	if a.Species == nil {
		return bad.Err()
	}
	height := a.HeightM
	if height == 0 {
		height = a.Species.Mature.HeightM
	}
	a.validCut(height, &bad)
	switch {
	case a.WantedM < 0:
		bad.Add("wanted_m", a.WantedM, "is below the ground")
	case a.WantedM > max(height, a.Species.Mature.HeightM):
		bad.Add("wanted_m", a.WantedM, "%.2g m is above what it grows to, about %.2g m: no cut makes it taller", a.WantedM, max(height, a.Species.Mature.HeightM))
	case a.WantedM > 0 && a.GraftM > 0 && a.WantedM <= a.GraftM:
		bad.Add("wanted_m", a.WantedM, "is at or below the graft at %.2g m: only the rootstock would be left; possible from %.2g m", a.GraftM, a.GraftM+0.2)
	}
	return bad.Err()
}

// validCut names what a height to cut to cannot be.
func (a Ask) validCut(height float64, bad *invalid.Fields) {
	switch {
	case a.CutM == 0:
	case a.WantedM > 0:
		bad.Add("cut_m", a.CutM, "the height it is cut to and the one it is to stand at next year: want one of the two")
	case a.CutM < 0 || a.CutM > height:
		bad.Add("cut_m", a.CutM, "want a height between the ground and its top, %.2g m", height)
	case a.GraftM > 0 && a.CutM <= a.GraftM:
		bad.Add("cut_m", a.CutM, "is at or below the graft at %.2g m: only the rootstock would be left", a.GraftM)
	case a.CutM < leastHeight(a.Species, height)-0.001:
		bad.Add("cut_m", a.CutM, "it does not come again from there: not below %.2f m", leastHeight(a.Species, height))
	}
}
