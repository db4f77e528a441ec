package replacement

import (
	"fmt"
	"math"
	"slices"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/rules"
)

// Planting is when and how a kind is planted, and how it is watered in its first year.
type Planting struct {
	Windows []Window  `json:"windows" doc:"Runs of good days within a year"`
	Best    day.Day   `json:"best" format:"date" doc:"The best day from the one asked for on"`
	Bare    *Window   `json:"bare_root,omitempty" doc:"When it may be planted with bare roots: leafless kinds only"`
	Water   []Watered `json:"water" doc:"First season: by month, where rain is not enough"`
	How     []string  `json:"how"`
	Orders  []Ordered `json:"orders" doc:"What is done about it, with its days"`
}

// Ordered is something to be done about a planting.
type Ordered struct {
	Do      string  `json:"do"`
	From    day.Day `json:"from" format:"date"`
	To      day.Day `json:"to" format:"date"`
	Best    day.Day `json:"best,omitempty" format:"date"`
	Minutes int     `json:"minutes" doc:"One plant: an estimate"`
	Litres  float64 `json:"litres,omitempty" doc:"Each time"`
	Why     string  `json:"why"`
}

// Window is a run of days.
type Window struct {
	From day.Day `json:"from" format:"date"`
	To   day.Day `json:"to" format:"date"`
}

// Watered is what a new plant wants in a month.
type Watered struct {
	Month  int     `json:"month"`
	Litres float64 `json:"litres" doc:"Each time: an estimate"`
	Times  int     `json:"times" doc:"In the month"`

	On []day.Day `json:"on" doc:"The days of the first season, from the best day of planting on, in a year as usual: later after good rain"`
}

// What counts as a good day, and of watering.
const (
	goodDay      = 30  // of a hundred, up to which a day is good
	growsFromC   = 7.0 // mean of a month from which a new plant drinks
	waterFactor  = 0.85
	hotMonthC    = 17.0 // mean of a month in which it is watered now and then whatever rain is usual
	bareRootLeaf = 10   // days before leaves out by which bare roots are in the ground
)

// litres of one watering by form.
var litres = map[catalogue.Form]float64{
	catalogue.Tree: 40, catalogue.Conifer: 25, catalogue.Shrub: 15, catalogue.Subshrub: 6, catalogue.Climber: 15, catalogue.Palm: 30, catalogue.Perennial: 3,
}

// PlantingOf is when a kind is planted at a place, from a day on.
func (a *Ask) PlantingOf(e *catalogue.Entry, from day.Day, r rules.House) Planting {
	out := Planting{Water: a.watering(e), How: how(e)}
	out.Windows, out.Best = a.windows(e, from, r)
	out.Bare = a.bareRoot(e, from)
	if out.Best != day.None {
		for i := range out.Water {
			out.Water[i].days(out.Best)
		}
	}
	out.Orders = out.orders(e)
	return out
}

// Of bare roots.
const (
	deepFrostC  = -2.0 // mean of the coldest month from which soil freezes hard: one waits for spring
	bareSpareC  = 5.0  // unless it has so many °C to spare in a usual winter
	thawC       = 4.5  // mean of days from which it can be worked again
	keptCoolFor = 25   // days by which plants kept cool come later than leaves do there
	isBare      = 7    // days after the leaves are off
)

// bareRoot is when a kind that loses its leaves may be planted with bare roots, the span that is open on a day or the
// next; nil for kinds that are not.
func (a *Ask) bareRoot(e *catalogue.Entry, from day.Day) *Window {
	dates := e.Dates(a.Year, from+90)
	if !dates.Drops || !dates.InLeaf || e.LeafSeason != catalogue.Deciduous || e.Form == catalogue.Climber {
		return nil
	}
	w := Window{dates.LeafDrop.Mid + isBare, dates.LeafOut.Mid - bareRootLeaf}
	for w.To < w.From {
		w.To += 365
	}
	if coldest := a.Year.Normals.Climate.ColdestMonthC(); coldest < deepFrostC && a.Year.Normals.Climate.ExtremeMinC-e.HardinessC < bareSpareC {
		w.To += keptCoolFor
		for thaw := w.To; thaw > w.From; thaw-- {
			if a.Year.Normals.Mean(thaw) < thawC {
				w.From = thaw + 1
				break
			}
		}
	}
	for w.To-365 >= from {
		w.From, w.To = w.From-365, w.To-365
	}
	for w.To < from {
		w.From, w.To = w.From+365, w.To+365
	}
	return &w
}

// days spreads the waterings of a month over its days, in the first season after a planting.
func (w *Watered) days(planted day.Day) {
	year := planted.Year()
	if w.Month < int(planted.Time().Month()) {
		year++
	}
	for i := range w.Times {
		d := day.Of(year, time.Month(w.Month), 1) + day.Day((30*i+15)/w.Times)
		if d > planted && d <= planted+FirstSeason {
			w.On = append(w.On, d)
		}
	}
}

// Of what follows a planting, days.
const (
	FirstSeason = 370 // a whole round of the year: what is planted in autumn needs its water in the summer after
	twoYears    = 730
	nextSpring  = 365
	plantFor    = 40 // minutes
)

// orders are the planting, the water of its first season, and what is loosened, taken away or mulched anew later.
func (p *Planting) orders(e *catalogue.Entry) []Ordered {
	out := []Ordered{}
	if p.Best == day.None {
		return out
	}
	in := Window{p.Best, p.Best}
	for _, w := range p.Windows {
		if p.Best >= w.From && p.Best <= w.To {
			in = w
		}
	}
	out = append(out, Ordered{Do: "Plant it", From: in.From, To: in.To, Best: p.Best, Minutes: plantFor, Why: "it roots before the season that is hard on it"})
	if len(p.Water) > 0 {
		out = append(out, Ordered{Do: "Water it, less after good rain", From: p.Best, To: p.Best + FirstSeason, Minutes: 10, Litres: p.Water[0].Litres,
			Why: "roots have not left the ball yet, and a ball dries in a week"})
	}
	out = append(out, Ordered{Do: "Renew the mulch, pull what grows in it", From: p.Best + nextSpring - 15, To: p.Best + nextSpring + 30, Minutes: 10,
		Why: "grass and weeds take the water of a young plant"})
	if e.Form == catalogue.Tree {
		out = append(out,
			Ordered{Do: "Loosen the tie", From: p.Best + nextSpring - 15, To: p.Best + nextSpring + 30, Minutes: 5, Why: "it cuts into a stem that grows"},
			Ordered{Do: "Take the stake away", From: p.Best + twoYears - 15, To: p.Best + twoYears + 45, Minutes: 10, Why: "a stem that moves grows strong"})
	}
	return out
}

// seasonsApart is how far apart the days lie from which curves are drawn: one ends with its garden year.
const seasonsApart = 45

// windows are the runs of good days of a year, and its best day: the first that is hardly worse than any, so that today
// is named where today is good.
func (a *Ask) windows(e *catalogue.Entry, from day.Day, r rules.House) ([]Window, day.Day) {
	place := job.At(a.Year, r)
	list, costs, least := []Window{}, [365]int{}, 101
	var curve job.Curve
	for i := range day.Day(365) {
		d := from + i
		if i%seasonsApart == 0 {
			curve = place.Curve(job.Order{Kind: job.Replace, For: d}, e)
		}
		c := curve.On(d).Int()
		costs[i], least = c, min(least, c)
		switch n := len(list); {
		case c > goodDay:
		case n > 0 && list[n-1].To == d-1:
			list[n-1].To = d
		default:
			list = append(list, Window{d, d})
		}
	}
	list = slices.DeleteFunc(list, func(w Window) bool { return w.To-w.From < 5 })
	if least > 100 {
		return list, day.None
	}
	counts := func(i int) bool { // a single good day between bad ones is none
		d := from + day.Day(i)
		return len(list) == 0 || slices.ContainsFunc(list, func(w Window) bool { return d >= w.From && d <= w.To })
	}
	least = 101
	for i, c := range costs {
		if counts(i) {
			least = min(least, c)
		}
	}
	for i, c := range costs {
		if c <= least+hardlyWorse && counts(i) {
			return list, from + day.Day(i)
		}
	}
	return list, day.None
}

// hardlyWorse is how many points of a hundred nobody waits for.
const hardlyWorse = 8

// watering are the months in which rain does not make up for what a new plant and its soil give off (Hargreaves and
// Samani 1985, by the normals).
func (a *Ask) watering(e *catalogue.Entry) []Watered {
	out := []Watered{}
	c := a.Year.Normals.Climate
	for m, n := range c.Normals {
		mean := (n.TMinC + n.TMaxC) / 2
		if mean < growsFromC {
			continue
		}
		d := day.Of(2027, 1, 15) + day.Day(30.4*float64(m))
		need := 30.4 * 0.0023 * 0.408 * radiation(c.Latitude, d) * (mean + 17.8) * math.Sqrt(math.Max(1, n.TMaxC-n.TMinC)) * waterFactor
		lack := need - n.RainMM
		if lack <= 5 && mean < hotMonthC {
			continue
		}
		times := 2 // in warm months rain comes when it will, and a root ball dries in a week
		switch {
		case lack > 120:
			times = 8
		case lack > 60:
			times = 5
		case lack > 25:
			times = 4
		}
		out = append(out, Watered{m + 1, litres[e.Form], times, []day.Day{}})
	}
	return out
}

// radiation outside the air on a day, MJ/m² (FAO 56, equation 21).
func radiation(latitude float64, d day.Day) float64 {
	j := 2 * math.Pi * d.YearFraction()
	lat, decl := latitude*math.Pi/180, 0.409*math.Sin(j-1.39)
	sunset := math.Acos(math.Max(-1, math.Min(1, -math.Tan(lat)*math.Tan(decl))))
	return 24 * 60 / math.Pi * 0.0820 * (1 + 0.033*math.Cos(j)) *
		(sunset*math.Sin(lat)*math.Sin(decl) + math.Cos(lat)*math.Cos(decl)*math.Sin(sunset))
}

// how it is put into the ground.
func how(e *catalogue.Entry) []string {
	out := []string{"Dig a hole twice as wide as the roots and no deeper; the top of the root ball stays level with the soil.", "Water it in at once, whatever the weather; mulch, but keep the stem free."}
	switch {
	case e.Genus() == "Rosa":
		out = append(out, "The graft of a rose comes a hand's breadth under the soil where winters are hard, level with it where they are mild.")
	case e.Graft.Habit != "own roots":
		out = append(out, "Keep the graft above the soil: below it the variety roots and the stock is lost.")
	}
	if e.Form == catalogue.Tree {
		out = append(out, "One low stake on the windward side for two years; loosen the tie each spring.")
	}
	if e.Form == catalogue.Climber {
		out = append(out, "Plant it a forearm's length from the wall, where rain reaches, and lead it there.")
	}
	out = append(out, fmt.Sprintf("To close up, stand plants %.2g m apart.", Spacing(e)))
	return out
}
