package pruning

import (
	"slices"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/job/reason"
	"mezzadro/core/moment"
	"mezzadro/core/season"
)

// carrier is what flies to fresh cuts of some genera in some part of the world, from one day of leaf-out to another.
type carrier struct {
	genera   []string
	in       func(c season.Climate) bool
	from, to int     // days from leaf-out
	warmC    float64 // in place of these: while the usual mean is above it, °C
	points   float64
	text     string
	caution  string
}

// asleep is how long after midwinter nothing flies, days, however early the leaves come.
const asleep = 40

func northAmerica(c season.Climate) bool {
	return c.Latitude > 24 && c.Latitude < 55 && c.Longitude > -126 && c.Longitude < -52
}

// eastern is where oak wilt is known: east of the dry plains.
func eastern(c season.Climate) bool { return northAmerica(c) && c.Longitude > -106 }

func mediterranean(c season.Climate) bool {
	return c.Latitude > 26 && c.Latitude < 47 && c.Longitude > -19 && c.Longitude < 62
}

func elmDisease(c season.Climate) bool {
	return northAmerica(c) || c.Latitude > 35 && c.Longitude > -12 && c.Longitude < 60
}

var carriers = []carrier{
	{[]string{"Quercus"}, eastern, -60, 112, 0, 70, "beetles that carry oak wilt fly to fresh cuts",
		"Oak wilt: no cut from spring to midsummer, dead wood neither; a wound that cannot wait is sealed within minutes, and wood is not moved."},
	{[]string{"Ulmus"}, elmDisease, -30, 125, 0, 60, "beetles that carry elm disease fly to fresh cuts",
		"Elm disease: no cut while its beetles fly, dead wood neither; a wound that cannot wait is sealed within minutes, elm wood is debarked or burnt."},
	{[]string{"Betula"}, northAmerica, -8, 118, 0, 40, "borers fly to fresh cuts of birches",
		"Birch borers: no cut from spring to late summer, dead wood neither."},
	{[]string{"Pinus"}, northAmerica, 0, 0, 15, 40, "bark beetles fly to fresh resin", "Bark beetles: pines are cut in the cold months."},
	{[]string{"Pinus"}, mediterranean, 0, 0, 13.5, 40, "bark beetles fly to fresh resin", "Bark beetles: pines are cut in the cold months."},
	{[]string{"Cornus"}, eastern, -5, 80, 0, 40, "borers fly to fresh cuts of dogwoods", ""},
	{[]string{"Phoenix", "Chamaerops"}, mediterranean, 0, 0, 14.5, 45, "palm weevils fly to fresh cuts",
		"Palm weevil: fronds are cut in the cold months, wounds are not torn, and waste goes the same day; in many places it is to be reported."},
}

// carriersOf are those that a kind has to fear at its place; those of trees alone take no shrub.
func (a *Ask) carriersOf() (out []carrier) {
	c := a.Place.Year.Normals.Climate
	for _, x := range carriers {
		if slices.Contains(x.genera, a.Species.Genus()) && x.in(c) && (x.genera[0] != "Cornus" || a.Species.Form == "tree") {
			out = append(out, x)
		}
	}
	return out
}

// carried is what it costs to make a wound while something flies to it. Dead wood counts: who cuts it wounds what lives.
func (a *Ask) carried(cal moment.Calendar) (out []reason.Why) {
	if a.Purpose == Deadhead {
		return nil
	}
	n := a.Place.Year.Normals
	for _, x := range a.carriersOf() {
		out = append(out, reason.Why{Name: "carriers", Text: x.text, On: func(d day.Day) job.Cost {
			flies := false
			if x.warmC > 0 {
				flies = (n.TMin.At(d)+n.TMax.At(d))/2 >= x.warmC
			} else {
				out := cal.Nearest(moment.When{Event: "leaf_out"}, d)
				winter := cal.Nearest(moment.When{Event: "midwinter"}, out-90)
				flies = d >= max(out+day.Day(x.from), winter+asleep) && d <= out+day.Day(x.to)
			}
			if !flies {
				return job.Cost{}
			}
			return reason.Points(x.points)
		}})
	}
	return out
}
