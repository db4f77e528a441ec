// Package load is what jobs take along and what they bring back: stuff, plants, tools, ladders, fuel, and bags for what
// comes off. Amounts are estimates from the sizes of plants; those of products come from their labels, elsewhere.
package load

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/quantity"
)

// Groups of what is taken along, in the order of a list.
const (
	Plants  = "plants"
	Stuff   = "stuff"
	Tools   = "tools"
	Ladders = "ladders"
	Fuel    = "fuel"
	Waste   = "waste"
)

var groups = []string{Plants, Stuff, Tools, Ladders, Fuel, Waste}

// Item is one thing of a list.
type Item struct {
	Group  string  `json:"group" enum:"plants,stuff,tools,ladders,fuel,waste"`
	Name   string  `json:"name"`
	Amount float64 `json:"amount" doc:"In its unit; 0 for a tool: one a crew"`
	Unit   string  `json:"unit" doc:"piece, L, m2, or the unit on a product's card; empty for a tool"`
	Jobs   int     `json:"jobs" doc:"That take it"`
	Buy    bool    `json:"buy" doc:"It is used up, and bought"`
}

// Loose reports what is shovelled: it is measured in bags of litres here and by the cubic yard there.
func (x Item) Loose() bool { return x.Unit == "L" && (x.Name == "compost" || x.Name == "mulch") }

// Text is the thing with its amount, in words.
func (x Item) Text() string {
	switch {
	case x.Unit == "" || x.Amount == 0:
		return x.Name
	case x.Unit == "piece":
		return fmt.Sprintf("%.0f × %s", x.Amount, x.Name)
	case x.Loose():
		return "about " + quantity.Loose(x.Amount) + " of " + x.Name
	case x.Unit == "mL":
		return quantity.Liquid(x.Amount) + " of " + x.Name
	case x.Unit == "g":
		return quantity.Weight(x.Amount) + " of " + x.Name
	case x.Unit == "L":
		return "about " + quantity.Volume(x.Amount) + " of " + x.Name
	case x.Unit == "m2":
		return "about " + quantity.Area(x.Amount) + " of " + x.Name
	}
	return fmt.Sprintf("%g %s of %s", x.Amount, x.Unit, x.Name)
}

// Stock is one plant, or a group of a kind, that a job is for.
type Stock struct {
	Species *catalogue.Entry
	Count   int
	HeightM float64
	SpreadM float64
	PotL    float64
}

// Job is what is to be done, and on what.
type Job struct {
	Kind    job.Kind
	Title   string
	Params  job.Params
	Minutes int
	Kit     []string
	Skills  []string
	Plants  []Stock          // empty: of the property itself
	New     *catalogue.Entry // what is planted; nil where nothing is
	Count   int              // how many of it
}

// What layers, wrappings and engines take: usual depths and sizes.
const (
	mulchM     = 0.05
	compostM   = 0.02
	treeM2     = 2.0  // that is covered round the foot of a tree
	leastM2    = 0.25 // round anything else
	plantedM2  = 0.3  // round what was just planted; of a tree a whole disc
	waterLM2   = 10.0 // one good watering
	fleeceOver = 1.15
	clothM2    = 1.0 // round a stem against the sun
	stakedM    = 1.5 // from this height a new tree is staked
	reachM     = 2.5
	ladderM    = 5.0
	sawnM      = 3.0 // from this height what is taken out is sawn
	lPerH      = 0.7 // fuel of a trimmer or a saw
	running    = 0.5 // of the job's time
	bagM3      = 0.25
	loads      = "trailer loads"
	trailerM3  = 2.0
)

// Of is what one job takes along and brings back.
func Of(j Job) []Item {
	l := &list{}
	switch j.Kind {
	case job.Mulch, job.Feed:
		j.covering(l)
	case job.Water:
		l.water(waterLM2 * j.ground())
	case job.Replace:
		j.replacing(l)
	case job.Protect:
		l.add(Stuff, "fleece", "m2", fleeceOver*j.each(wrap))
		l.add(Stuff, "clips and ties", "piece", 4*j.count())
	case job.Guard:
		l.add(Stuff, "guards", "piece", j.count())
	case job.Shade:
		l.add(Stuff, "shade cloth", "m2", clothM2*j.count())
	case job.Lift, job.PlantOut:
		l.tool("trolley")
	case job.Graft:
		l.tool("grafting knife", "tape and wax")
	case job.Prune, job.TipBack, job.CutBack, job.CutToBase, job.Shorten, job.MakeSafe, job.Fruit:
		j.cutting(l)
	}
	if j.New != nil && j.Kind != job.Replace {
		j.planting(l)
	}
	for _, k := range j.Kit {
		l.kit(k)
	}
	return l.items
}

// covering is compost and mulch as the job's title names them, and feed.
func (j Job) covering(l *list) {
	title := strings.ToLower(j.Title)
	if strings.Contains(title, "compost") && !j.potted() {
		l.add(Stuff, "compost", "L", 1000*compostM*j.ground())
	}
	if j.Kind == job.Mulch || strings.Contains(title, "mulch") && !j.potted() {
		l.add(Stuff, "mulch", "L", 1000*mulchM*j.ground())
	}
	if len(l.items) > 0 {
		l.tool("barrow", "fork", "rake")
	}
	if j.Kind == job.Feed {
		l.tool("scale or measuring jug", "gloves")
	}
}

// replacing takes a plant out, and may plant another.
func (j Job) replacing(l *list) {
	l.tool("spade")
	if j.New != nil {
		j.planting(l)
		return
	}
	l.tool("mattock", "barrow")
	tall := false
	for _, s := range j.Plants {
		tall = tall || s.HeightM > sawnM && woody(s.Species)
	}
	if tall {
		l.tool("chainsaw, with helmet and trousers")
		l.add(Fuel, "fuel", "L", lPerH*running*float64(j.Minutes)/60)
	}
	l.bags(j.each(func(s Stock) float64 { return pruning.Waste(s.Species, s.HeightM, s.SpreadM, 1, pruning.Size) }))
}

// planting takes the plants, and what goes round them.
func (j Job) planting(l *list) {
	n := float64(max(1, j.Count))
	l.add(Plants, j.New.Common, "piece", n)
	l.tool("spade")
	disc := plantedM2
	if standard(j.New) {
		disc = leastM2 * 4
		if j.New.Mature.HeightM > stakedM {
			l.add(Stuff, "stakes", "piece", n)
			l.add(Stuff, "tree ties", "piece", n)
		}
		l.add(Stuff, "guards", "piece", n)
	}
	l.add(Stuff, "mulch", "L", 1000*mulchM*disc*n)
	l.water(waterLM2 * disc * n)
}

// cutting takes blades, a way up, fuel for what is driven, and bags for what comes off.
func (j Job) cutting(l *list) {
	l.tool("secateurs", "disinfectant for blades", "gloves")
	purpose := pruning.Purpose(j.Params.Purpose)
	if purpose == pruning.Deadhead || j.Kind == job.Fruit {
		l.add(Waste, "bags", "piece", 1)
		return
	}
	if purpose == pruning.Hedge {
		l.tool("hedge trimmer", "rake", "tarpaulin")
		l.add(Fuel, "fuel", "L", lPerH*running*float64(j.Minutes)/60)
	}
	top, wood := 0.0, false
	for _, s := range j.Plants {
		if woody(s.Species) {
			wood, top = true, max(top, s.HeightM)
		}
	}
	if wood && purpose != pruning.Hedge {
		l.tool("loppers", "pruning saw")
	}
	switch {
	case slices.Contains(j.Skills, job.Arborist), slices.Contains(j.Skills, job.Climbing), top > ladderM:
		l.tool("climbing kit or platform, helmets")
	case top > reachM:
		l.add(Ladders, "ladder", "piece", 1)
	}
	l.bags(j.each(func(s Stock) float64 { return pruning.Waste(s.Species, s.HeightM, s.SpreadM, j.share(s), purpose) }))
}

// share is how much of a crown a cut takes.
func (j Job) share(s Stock) float64 {
	switch {
	case j.Params.CutM > 0 && s.HeightM > 0:
		return max(0, 1-j.Params.CutM/s.HeightM)
	case j.Kind == job.Prune:
		return pruning.UsualShare(pruning.Purpose(j.Params.Purpose))
	case j.Kind == job.CutToBase:
		return 1
	}
	return 1.0 / 3
}

// each sums what a single plant of each group comes to, times its number.
func (j Job) each(f func(s Stock) float64) (n float64) {
	for _, s := range j.Plants {
		if s.Species != nil {
			n += f(s) * float64(max(1, s.Count))
		}
	}
	return n
}

func (j Job) count() float64 { return max(1, j.each(func(Stock) float64 { return 1 })) }

// ground is the ground below its plants, m².
func (j Job) ground() float64 {
	return j.each(func(s Stock) float64 {
		m2 := max(leastM2, math.Pi/4*s.SpreadM*s.SpreadM)
		if standard(s.Species) {
			return min(m2, treeM2)
		}
		return m2
	})
}

func (j Job) potted() bool {
	return len(j.Plants) > 0 && !slices.ContainsFunc(j.Plants, func(s Stock) bool { return s.PotL == 0 })
}

// wrap is the sheet round a crown and over its top, m².
func wrap(s Stock) float64 {
	return math.Pi*s.SpreadM*s.HeightM + math.Pi/4*s.SpreadM*s.SpreadM
}

func standard(e *catalogue.Entry) bool {
	return e != nil && (e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Palm)
}

func woody(e *catalogue.Entry) bool { return e != nil && e.Form != catalogue.Perennial }

// list gathers items.
type list struct{ items []Item }

func (l *list) tool(names ...string) {
	for _, n := range names {
		l.add(Tools, n, "", 0)
	}
}

// usedUp are the words by which a kit names what is used up.
var usedUp = []string{"fleece", "stake", "tie", "mulch", "compost", "feed", "bark", "pegs", "tape", "wax", "guard", "cloth", "label"}

// kit takes what a job's own kit names; what is there with its amount already stands once.
func (l *list) kit(name string) {
	name = quantity.Worded(name)
	near := func(x Item) bool {
		return x.Name == name || strings.HasPrefix(name, x.Name) || strings.HasPrefix(x.Name, name)
	}
	switch {
	case slices.ContainsFunc(l.items, near):
	case strings.Contains(name, "ladder"):
		l.add(Ladders, "ladder", "piece", 1)
	case slices.ContainsFunc(usedUp, func(w string) bool { return strings.Contains(name, w) }):
		l.items = append(l.items, Item{Stuff, name, 0, "", 1, true})
	default:
		l.tool(name)
	}
}

// water is at hand at most places, and carried or led all the same.
func (l *list) water(litres float64) {
	l.items = append(l.items, Item{Stuff, "water", litres, "L", 1, false})
	l.tool("hose or can")
}

// add adds an amount of a thing; the same thing stands once.
func (l *list) add(group, name, unit string, amount float64) {
	name = quantity.Worded(name)
	for i := range l.items {
		if l.items[i].Name == name {
			l.items[i].Amount += amount
			return
		}
	}
	l.items = append(l.items, Item{group, name, amount, unit, 1, group != Tools && group != Ladders && name != loads})
}

// bags are for what comes off, m³ loose; more than a trailer takes goes by the load.
func (l *list) bags(m3 float64) {
	switch {
	case m3 <= 0:
	case m3 > trailerM3:
		l.add(Waste, loads, "piece", m3/trailerM3)
	default:
		l.add(Waste, "bags", "piece", m3/bagM3)
	}
}

// Sum is one list of many: what is used up adds, a tool or a ladder stands once. Plants and waste come to whole pieces.
func Sum(lists ...[]Item) []Item {
	sum := &list{}
	for _, items := range lists {
		for _, x := range items {
			i := slices.IndexFunc(sum.items, func(y Item) bool { return y.Name == x.Name })
			switch {
			case i < 0:
				sum.items = append(sum.items, x)
				continue
			case x.Group == Ladders:
				sum.items[i].Amount = max(sum.items[i].Amount, x.Amount)
			default:
				sum.items[i].Amount += x.Amount
			}
			sum.items[i].Jobs += x.Jobs
		}
	}
	for i := range sum.items {
		x := &sum.items[i]
		if x.Unit == "piece" {
			x.Amount = math.Ceil(x.Amount - 1e-9)
		} else {
			x.Amount = quantity.Round(x.Amount, 0.1)
		}
	}
	slices.SortStableFunc(sum.items, func(x, y Item) int {
		return cmp.Or(cmp.Compare(slices.Index(groups, x.Group), slices.Index(groups, y.Group)), cmp.Compare(x.Name, y.Name))
	})
	return slices.DeleteFunc(sum.items, func(x Item) bool { return x.Unit != "" && x.Amount <= 0 })
}

// WasteM3 is how much of a list is waste, m³.
func WasteM3(items []Item) (m3 float64) {
	for _, x := range items {
		switch {
		case x.Group != Waste:
		case x.Name == loads:
			m3 += x.Amount * trailerM3
		default:
			m3 += x.Amount * bagM3
		}
	}
	return m3
}
