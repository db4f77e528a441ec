// Package offset is how much milder or colder gardens, spots in them and kinds of plants have shown to be than was
// reckoned: drawn from where life was found to end after freezes, against where the weather of the station would have
// it end. A sum of parts, each drawn towards nothing where little is known (a hierarchical normal model, Gelman et al.
// 2013); what each plant tells is no normal curve, and is taken in by expectation propagation (Minka 2001).
package offset

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/mat"

	"mezzadro/core/cold"
)

// What is taken for granted before anything is known: standard deviations, °C.
const (
	firmC   = 1.0 // of all gardens of the firm together
	gardenC = 1.7 // of a garden from those; with it a garden alone is unsure by 2 °C
	spotC   = 1.0 // of a kind of spot in a garden
	kindC   = 1.5 // of what a kind bears
	ownC    = 0.8 // of one plant of a kind in a spot from the next
	strange = 0.1 // chance that what was found has nothing to do with the freeze
)

// The shifts that are looked at, °C.
const (
	Steps    = 65
	stepC    = 0.25
	farthest = 8.0
)

func stepAt(i int) float64 { return stepC*float64(i) - farthest }

// Logs are the logarithms of the chances of what was found on a plant after a freeze, had it been so many degrees
// milder there than reckoned, from 8 °C colder to 8 milder in quarters; nil where the freeze says nothing of stems.
// found is what is held after the checks alone about where life ends, before what was held without them, both as
// belief.Chances.
func Logs(o *cold.Outcome, found, before []float64) []float64 {
	if o == nil || !o.Event.Cold() || len(found) != len(before) || len(found) < 3 {
		return nil
	}
	cells := len(found) - 2
	seen, any := make([]float64, len(found)), 0.0 // chance of the sights in each state, but for one factor
	for i := range found {
		seen[i] = found[i] / before[i]
		any += before[i] * seen[i]
	}
	spare := make([]float64, cells+1)
	for i := range spare {
		spare[i] = o.SpareC(float64(i)/float64(cells)) - o.Learnt()
	}
	out := make([]float64, Steps)
	for k := range out {
		sum, below := 0.0, 1.0
		for i := range seen {
			alive := 0.0
			if i <= cells {
				alive = min(below, 1-1/(1+math.Exp((spare[i]+stepAt(k))/(ownC*math.Sqrt(3)/math.Pi))))
			}
			sum += (below - alive) * seen[i]
			below = alive
		}
		out[k] = math.Log((1-strange)*sum + strange*any)
	}
	return out
}

// Seen is what a plant tells after a freeze.
type Seen struct {
	Garden string    // its property, by id
	Spot   string    // hollow, slope, wall, pot; empty in the open
	Kind   string    // its species, by id
	Here   bool      // the freeze was measured in the garden itself: it says nothing of the station
	Logs   []float64 // as Logs gives them
}

// Shift is by how much something is milder than reckoned.
type Shift struct {
	Name    string  `json:"name" doc:"Id of the property or of the kind"`
	WarmerC float64 `json:"warmer_c" doc:"°C milder than reckoned, or for a kind that it bears more; below 0 colder, or less"`
	SD      float64 `json:"sd" doc:"Its doubt, a standard deviation, °C"`
	Plants  int     `json:"plants" doc:"That it was drawn from"`
}

// Used is the shift as it is reckoned with: 0 as long as there may well be none.
func (s Shift) Used() float64 {
	if math.Abs(s.WarmerC) > 1.96*s.SD && s.Plants > 0 {
		return s.WarmerC
	}
	return 0
}

// Offsets are the shifts of a firm's gardens and kinds.
type Offsets struct {
	names  []string // of parts: "firm", "garden:1", "spot:1 wall", "kind:bay"
	at     map[string]int
	plants map[string]int
	mean   *mat.VecDense
	cov    *mat.SymDense
	off    map[string]bool // parts that are not to be used
}

// parts are the names of those that a plant has.
func (s Seen) parts() []string {
	out := []string{"kind:" + s.Kind}
	if !s.Here {
		out = append(out, "firm", "garden:"+s.Garden)
	}
	if s.Spot != "" {
		out = append(out, "spot:"+s.Garden+" "+s.Spot)
	}
	return out
}

// prior is the standard deviation of a part before anything is known, °C.
func prior(name string) float64 {
	switch kind, _, _ := strings.Cut(name, ":"); kind {
	case "garden":
		return gardenC
	case "spot":
		return spotC
	case "kind":
		return kindC
	}
	return firmC
}

// Of draws the shifts from what plants told.
func Of(list []Seen) *Offsets {
	o := &Offsets{at: map[string]int{}, plants: map[string]int{}}
	rows := [][]int{}
	used := slices.DeleteFunc(slices.Clone(list), func(s Seen) bool { return len(s.Logs) != Steps })
	for _, s := range used {
		row := []int{}
		for _, name := range s.parts() {
			i, known := o.at[name]
			if !known {
				i = len(o.names)
				o.names, o.at[name] = append(o.names, name), i
			}
			o.plants[name]++
			row = append(row, i)
		}
		rows = append(rows, row)
	}
	if len(used) > 0 {
		o.fit(used, rows)
	}
	return o
}

// How what plants tell is taken in.
const (
	sweeps = 12
	damp   = 0.6  // of each change
	flat   = 1e-4 // the least that a plant's word may weigh
	exact  = 1e-3 // change of any word's weight at which it is settled
)

// word is what a plant's finds come to beside all others: a normal curve, as its precision and that times its mean.
type word struct{ precision, shift float64 }

// fit has each plant's word be what its finds add to what all others say, in turn, until nothing changes.
func (o *Offsets) fit(list []Seen, rows [][]int) {
	words := make([]word, len(list))
	for range sweeps {
		if !o.solve(rows, words) {
			o.mean = nil
			return
		}
		most := 0.0
		for i := range list {
			m, v := o.sum(rows[i])
			precision, shift := 1/v-words[i].precision, m/v-words[i].shift // without its own word
			if precision <= 1e-6 {
				continue
			}
			mean, variance := tilted(list[i].Logs, shift/precision, 1/precision)
			now := word{max(flat, 1/variance-precision), 0}
			now.shift = mean*(precision+now.precision) - shift
			most = math.Max(most, math.Abs(now.precision-words[i].precision))
			words[i].precision += damp * (now.precision - words[i].precision)
			words[i].shift += damp * (now.shift - words[i].shift)
		}
		if most < exact {
			break
		}
	}
	if !o.solve(rows, words) {
		o.mean = nil
	}
}

// tilted are mean and variance of a normal curve times what a plant's finds make of each shift.
func tilted(logs []float64, mean, variance float64) (m, v float64) {
	top, w := math.Inf(-1), [Steps]float64{}
	for i, l := range logs {
		d := stepAt(i) - mean
		w[i] = l - d*d/(2*variance)
		top = math.Max(top, w[i])
	}
	sum := 0.0
	for i := range w {
		w[i] = math.Exp(w[i] - top)
		sum += w[i]
		m += w[i] * stepAt(i)
	}
	m /= sum
	for i := range w {
		v += w[i] / sum * (stepAt(i) - m) * (stepAt(i) - m)
	}
	return m, math.Max(v, stepC*stepC/4)
}

// solve works the parts out from what plants say.
func (o *Offsets) solve(rows [][]int, words []word) bool {
	n := len(o.names)
	precision, right := mat.NewSymDense(n, nil), mat.NewVecDense(n, nil)
	for i, name := range o.names {
		precision.SetSym(i, i, 1/(prior(name)*prior(name)))
	}
	for r, row := range rows {
		for _, i := range row {
			right.SetVec(i, right.AtVec(i)+words[r].shift)
			for _, k := range row {
				if k >= i {
					precision.SetSym(i, k, precision.At(i, k)+words[r].precision)
				}
			}
		}
	}
	var chol mat.Cholesky
	if !chol.Factorize(precision) {
		return false
	}
	o.mean, o.cov = mat.NewVecDense(n, nil), mat.NewSymDense(n, nil)
	return chol.SolveVecTo(o.mean, right) == nil && chol.InverseTo(o.cov) == nil
}

// sum is that of some parts, and its variance.
func (o *Offsets) sum(parts []int) (mean, variance float64) {
	for _, i := range parts {
		mean += o.mean.AtVec(i)
		for _, k := range parts {
			variance += o.cov.At(i, k)
		}
	}
	return mean, variance
}

// shift is the sum of those parts that are known; plants are those of the last of them.
func (o *Offsets) shift(name string, parts ...string) Shift {
	out := Shift{Name: name}
	if o == nil || o.mean == nil {
		return out
	}
	known := []int{}
	for _, p := range parts {
		i, is := o.at[p]
		if out.Plants = 0; is {
			known = append(known, i)
			out.Plants = o.plants[p]
		}
	}
	m, v := o.sum(known)
	out.WarmerC, out.SD = math.Round(100*m)/100, math.Round(100*math.Sqrt(v))/100
	return out
}

// Garden is how much milder a garden is than its station tells.
func (o *Offsets) Garden(id string) Shift { return o.shift(id, "firm", "garden:"+id) }

// Kind is how much more a kind bears than the book says.
func (o *Offsets) Kind(id string) Shift { return o.shift(id, "kind:"+id) }

// For is by how much a plant is reckoned milder, °C, by all that is known beyond doubt of its spot or its garden, and
// of its kind; here: the weather is measured in the garden itself, so that nothing is to be said of the garden as a
// whole.
func (o *Offsets) For(garden, spot, kind string, here bool) float64 {
	if o == nil {
		return 0
	}
	out := 0.0
	if !o.off["garden:"+garden] {
		out = o.place(garden, spot, here)
	}
	if !o.off["kind:"+kind] {
		out += o.Kind(kind).Used()
	}
	return math.Round(10*out) / 10
}

// place is the same of its spot, or of its garden.
func (o *Offsets) place(garden, spot string, here bool) float64 {
	parts := []string{"firm", "garden:" + garden}
	if here {
		parts = nil
	}
	if name := "spot:" + garden + " " + spot; spot != "" && o.plants[name] > 0 {
		if used := o.shift("", append(parts, name)...).Used(); used != 0 {
			return used
		}
	}
	if here {
		return 0
	}
	return o.Garden(garden).Used()
}

// Gardens are the shifts of all gardens of which something was seen, the farthest off first.
func (o *Offsets) Gardens() []Shift { return o.all("garden", o.Garden) }

// Kinds are those of all kinds.
func (o *Offsets) Kinds() []Shift { return o.all("kind", o.Kind) }

func (o *Offsets) all(kind string, of func(string) Shift) []Shift {
	out := []Shift{}
	if o == nil {
		return out
	}
	for _, name := range o.names {
		if k, id, _ := strings.Cut(name, ":"); k == kind {
			out = append(out, of(id))
		}
	}
	slices.SortStableFunc(out, func(a, b Shift) int { return cmp.Compare(math.Abs(b.WarmerC), math.Abs(a.WarmerC)) })
	return out
}

// SpotOf is the kind of spot that a plant stands in; empty in the open.
func SpotOf(x cold.Exposure, potL float64) string {
	switch {
	case potL > 0:
		return "pot"
	case x.Wall:
		return "wall"
	case x.Slope == "foot":
		return "hollow"
	case x.Slope == "slope":
		return "slope"
	}
	return ""
}

// Same reports that two reckon the same, to a tenth of a degree.
func (o *Offsets) Same(than *Offsets) bool { return maps.Equal(o.used(), than.used()) }

// used are the shifts beyond doubt, by part, in tenths of a degree.
func (o *Offsets) used() map[string]int {
	out := map[string]int{}
	if o == nil {
		return out
	}
	for _, name := range o.names {
		kind, id, _ := strings.Cut(name, ":")
		s := Shift{}
		if garden, _, _ := strings.Cut(id, " "); o.off[name] || kind == "spot" && o.off["garden:"+garden] {
			continue
		}
		switch kind {
		case "garden":
			s = o.Garden(id)
		case "kind":
			s = o.Kind(id)
		case "spot":
			garden, _, _ := strings.Cut(id, " ")
			s = o.shift("", "firm", "garden:"+garden, name)
		}
		if tenths := int(math.Round(10 * s.Used())); tenths != 0 {
			out[name] = tenths
		}
	}
	return out
}

// Without is the same with some parts taken for nothing: "garden:1" with its spots, "kind:bay".
func (o *Offsets) Without(off map[string]bool) *Offsets {
	if o == nil {
		return nil
	}
	out := *o
	out.off = off
	return &out
}
