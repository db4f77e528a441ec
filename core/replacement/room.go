package replacement

import (
	"math"
	"slices"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/quantity"
)

// planted is a day of the year that stands for any.
var planted = day.Of(2027, time.July, 1)

// Grown is a plant after some years.
type Grown struct {
	Years   int     `json:"years"`
	HeightM float64 `json:"height_m"`
	SpreadM float64 `json:"spread_m"`
}

// startM is how tall a plant is when it is bought, by form.
var startM = map[catalogue.Form]float64{
	catalogue.Tree: 1.8, catalogue.Conifer: 0.8, catalogue.Shrub: 0.5, catalogue.Subshrub: 0.25, catalogue.Climber: 0.6, catalogue.Palm: 0.8, catalogue.Perennial: 0.15,
}

// heightAfter is how tall a kind stands after some years: it grows by its yearly growth at first and the less, the
// nearer it comes to what it grows to.
func heightAfter(e *catalogue.Entry, years float64) float64 {
	full := e.Mature.HeightM
	from := math.Min(startM[e.Form], 0.6*full)
	rate := 1.4 * e.GrowthCMYear / 100 // of a young plant: the yearly growth is that of a life's middle
	return full - (full-from)*math.Exp(-rate*years/(full-from))
}

func (f *fitting) after(years int) Grown {
	h := heightAfter(f.e, float64(years))
	return Grown{years, round(h), round(f.e.Mature.SpreadM * h / f.e.Mature.HeightM)}
}

func round(v float64) float64 { return math.Round(v*100) / 100 }

// yearsTo is when a kind reaches a share of its height; nothing where it never does.
func yearsTo(e *catalogue.Entry, height float64) (float64, bool) {
	for y := 0.0; y <= 80; y += 0.5 {
		if heightAfter(e, y) >= height {
			return y, true
		}
	}
	return 0, false
}

// Of room.
const (
	littleOver = 1.15 // times the room that nobody minds
	cutOver    = 2.0  // times the room to which a kind that bears it may be held by cutting
)

// room judges height and spread against what there is, and what stands near.
func (f *fitting) room() {
	e, s := f.e, f.Spot
	tall := e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Palm
	f.limit("tall", e.Mature.HeightM, s.HeightM)
	if e.Form != catalogue.Climber {
		f.limit("wide", e.Mature.SpreadM, s.SpreadM)
	}
	if s.WireM > 0 && e.Mature.HeightM > s.WireM-1 && tall {
		f.out("It grows into the wire: %s tall under %s.", quantity.Length(e.Mature.HeightM), quantity.Length(s.WireM))
	}
	if s.HouseM > 0 && tall && e.Form != catalogue.Palm {
		switch {
		case s.HouseM < e.Mature.SpreadM/4 || e.Mature.HeightM > 12 && s.HouseM < 3:
			f.out("A tree of that size does not stand %s from a wall.", quantity.Length(s.HouseM))
		case s.HouseM < e.Mature.SpreadM/2:
			f.counts("room", "meets_wall", 1, "its crown meets the wall %s away", quantity.Length(s.HouseM))
		}
	}
	if s.DrainM > 0 && tall && e.Thirst == "high" && s.DrainM < e.Mature.SpreadM/2*e.RootReach {
		f.out("Its greedy roots reach the drain %s away.", quantity.Length(s.DrainM))
	}
	f.neighbours(tall)
	if s.PotL > 0 {
		f.potted()
	}
}

// neighbours minds what is beside: other crowns, what a crown leaves free beneath it, paths and windows. What is in
// the way can be cut, so that nothing is left out for it.
func (f *fitting) neighbours(tall bool) {
	e, s := f.e, f.Spot
	half := e.Mature.SpreadM / 2
	high := tall && e.Mature.HeightM > 6 // its crown goes over what is low
	if s.ClearM > 0 && e.Mature.HeightM > littleOver*s.ClearM {
		f.counts("room", "under_crown", 1, "it grows up into the crown over it: there are %s beneath", quantity.Length(s.ClearM))
	}
	if s.CrownM > 0 && e.Form != catalogue.Climber && half > s.CrownM+0.3 {
		f.counts("room", "meets_crown", half/s.CrownM-1, "its crown meets the next one %s away", quantity.Length(s.CrownM))
	}
	if s.PathM > 0 && !high && e.Form != catalogue.Climber && half > s.PathM+0.2 {
		f.counts("room", "over_path", half/s.PathM-1, "it grows over the path %s away, and is cut back every year", quantity.Length(s.PathM))
	}
	if s.SillM > 0 && (!high || e.Form == catalogue.Conifer) && e.Mature.HeightM > littleOver*s.SillM {
		f.counts("room", "before_window", e.Mature.HeightM/s.SillM-1, "it grows up before the window, whose sill is at %s", quantity.Length(s.SillM))
	}
}

// limit judges one way of growing against the room there is.
func (f *fitting) limit(word string, grows, room float64) {
	if room == 0 || grows <= littleOver*room {
		return
	}
	e := f.e
	height := room
	if word == "wide" {
		height = e.Mature.HeightM * room / e.Mature.SpreadM
	}
	if y, ever := yearsTo(e, height); ever && (f.fit.MeetsIn == 0 || y < f.fit.MeetsIn) {
		f.fit.MeetsIn = y
	}
	bears := slices.Contains([]catalogue.Pruning{catalogue.FromBase, catalogue.OldWood}, e.HardPruning) && e.Form != catalogue.Tree
	if e.Form == catalogue.Climber {
		bears = true
	}
	switch {
	case grows > cutOver*room && e.Form != catalogue.Climber, !bears:
		f.out("It grows %s %s, and there is %s.", quantity.Length(grows), word, quantity.Length(room))
	default:
		f.counts("room", "outgrows", math.Min(1.5, grows/room-1), "it grows %s %s where there is %s, and is cut every year", quantity.Length(grows), word, quantity.Length(room))
	}
}

// litresEach is the pot that a metre of a grown plant wants, L.
const litresEach = 22.0

func (f *fitting) potted() {
	wants := litresEach * math.Pow(math.Min(f.e.Mature.HeightM, 3), 1.3)
	if f.e.Form == catalogue.Tree && f.e.Mature.HeightM > 8 || f.e.Mature.HeightM > 15 {
		f.out("A tree of that size does not live in a pot.")
		return
	}
	if wants > 2.5*f.Spot.PotL {
		f.counts("pot", "too_small", 1, "the pot is too small for it")
	}
}

// Count is how many plants an area takes at a spacing.
func Count(areaM2, spacingM float64, staggered bool) int {
	if areaM2 <= 0 || spacingM <= 0 {
		return 0
	}
	each := spacingM * spacingM
	if staggered {
		each *= math.Sqrt(3) / 2
	}
	return max(1, int(math.Round(areaM2/each)))
}

// Spacing is how far apart plants of a kind stand that are to close up, m.
func Spacing(e *catalogue.Entry) float64 {
	return math.Max(0.15, math.Round(e.Mature.SpreadM*0.75*20)/20)
}
