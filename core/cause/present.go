package cause

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"strings"
)

// Several causes may be there at once. Each is present or not, with odds of its own; a sign shows when one of those
// present shows it, or by itself: 1 − (1 − leak)·Π(1 − how often each shows it). Weighed are all sets of one, two and
// three causes in which each explains something that the others leave open, so that lichen explains lichen and nothing
// else.

const (
	atOnce       = 0.05 // how often a cause of ordinary weight is there beside another that is asked about
	unknownPrior = 0.25 // weight of what is not in the book, where an ordinary cause on its host has 1
	unknownShows = 0.06 // how often it shows a sign that is no rarer anyway
	outOfSeason  = 0.04 // of a cause that cannot be at work now
	lastingSeen  = 0.5  // the same where a sign of it that lasts was seen
	sureAbsent   = 0.97 // a sign that is there may still be missed
	toldNot      = 0.35 // weight of a cause that hangs on weather or work which the record says was not
	explains     = 0.1  // chance of a sign from which on a cause explains it
	besides      = 0.05 // weight of a cause that explains nothing of what is seen
	hangsOn      = 0.6  // chance of a sign from which on a cause hangs on it
	opens        = 2.0  // how much likelier a sign has to become by a cause that is taken in beside others
	usualHere    = 0.1  // how often weather, work or a place that is asked about is so anyway, where the book does not say
	bestPairs    = 80   // that a third is tried with
)

// set is up to three causes that are there together, by their places in the book; the unknown stands after all of them.
type set struct {
	of     [3]int
	n      int
	weight float64
}

func (s *set) has(i int) bool { return slices.Contains(s.of[:s.n], i) }

// weighing is a case made ready to be weighed.
type weighing struct {
	signs  []*Sign     // seen on the plant, then looked for and not there
	seen   int         // how many of them are seen
	misses [][]float64 // by cause and sign: that the cause does not show it
	prior  []float64   // by cause
	takes  []int       // causes that explain something
}

// condition reports a sign that brings causes about and is brought about by none: weather, work and place.
func (s *Sign) condition() bool {
	return s.Part == "weather and work of late" || s.Part == "ground and place" && !s.Weed || s.ID == "big_neighbour" ||
		s.ID == "neighbour_cut"
}

// usually is how often a condition is so anyway.
func (s *Sign) usually() float64 { return max(s.Rare, usualHere) }

// shows is the chance of a sign where a cause is at work. Out of season what does not last cannot be told from what is
// not there.
func (b *Book) shows(c *Cause, s *Sign, now bool) float64 {
	p, listed := c.Signs[s.ID]
	if listed && (now || s.Lasts) {
		return p
	}
	return s.Rare
}

// ready makes a case ready.
func (b *Book) ready(k Case) *weighing {
	w := &weighing{}
	for _, id := range k.Seen {
		if s := b.sign[id]; !s.condition() {
			w.signs = append(w.signs, s)
		}
	}
	w.seen = len(w.signs)
	for _, id := range k.Absent {
		if s := b.sign[id]; !s.condition() && s.canShow(k) {
			w.signs = append(w.signs, s)
		}
	}
	known := slices.Sorted(maps.Keys(k.Known)) // a product over a map differs in its last bits from run to run
	w.prior, w.misses = make([]float64, len(b.Causes)+1), make([][]float64, len(b.Causes)+1)
	for i := range b.Causes {
		c := &b.Causes[i]
		now := c.inSeason(k)
		w.prior[i] = b.before(c, k, now, known)
		w.misses[i] = make([]float64, len(w.signs))
		is := false
		for j, s := range w.signs {
			p, listed := c.Signs[s.ID]
			if !listed || !now && !s.Lasts {
				p = 0
			}
			w.misses[i][j] = 1 - p
			is = is || j < w.seen && p >= explains
		}
		if is || w.seen == 0 {
			w.takes = append(w.takes, i)
		} else {
			w.prior[i] *= besides
		}
	}
	last := len(b.Causes)
	w.prior[last], w.misses[last] = unknownPrior, make([]float64, len(w.signs))
	for j := range w.signs {
		w.misses[last][j] = 1 - unknownShows
	}
	w.takes = append(w.takes, last)
	return w
}

// before is the weight of a cause by host, season, place, weather, work and what was found nearby, before any sign on
// the plant.
func (b *Book) before(c *Cause, k Case, now bool, known []string) float64 {
	w := c.Prior * c.OnKind(k.Species) * c.here(k) * k.oftener(c.ID)
	if !now {
		w *= outOfSeason
		if slices.ContainsFunc(k.Seen, func(id string) bool { return b.sign[id].Lasts && c.Signs[id] >= 0.5 }) {
			w *= lastingSeen / outOfSeason
		}
	}
	for _, id := range k.Seen {
		s := b.sign[id]
		p, listed := c.Signs[id]
		f, brings := c.Brings[id]
		switch {
		case s.condition() && listed && brings:
			w *= p / s.usually() * math.Sqrt(f)
		case s.condition() && listed:
			w *= p / s.usually()
		case brings && !listed:
			w *= f
		}
	}
	for _, id := range k.Absent {
		if s := b.sign[id]; s.condition() {
			w *= (1 - sureAbsent*c.Signs[id]) / (1 - sureAbsent*s.usually())
			if c.Signs[id] == 0 {
				w *= 1 - sureAbsent*s.usually() // it says nothing of what does not hang on it
			}
		}
	}
	for _, id := range known {
		if !k.told(id) {
			w *= c.known(id, k.Known[id])
		}
	}
	return w
}

// known is the factor on a cause's odds by what the record tells of weather, work and place. It is milder than a look:
// frost is known of most winters, and means little for most of what is seen after it.
func (c *Cause) known(id string, is bool) float64 {
	p := c.Signs[id]
	switch {
	case is && c.Brings[id] > 0 && strings.HasPrefix(id, "was_"):
		return math.Sqrt(c.Brings[id]) // weather that was, and not to this plant alone
	case is && c.Brings[id] > 0:
		return c.Brings[id]
	case is:
		return 1 + 2*p
	case p >= hangsOn || c.Brings[id] >= 5:
		return toldNot
	}
	return 1
}

// likely is how well a set explains what was seen and what was not.
func (w *weighing) likely(s *set) float64 {
	out := 1.0
	for j, sign := range w.signs {
		p := w.shown(s, j, sign)
		if j >= w.seen {
			p = 1 - sureAbsent*p
		}
		out *= p
	}
	return out
}

// shown is the chance of a sign where a set is there.
func (w *weighing) shown(s *set, j int, sign *Sign) float64 {
	miss := 1 - sign.Rare
	for _, i := range s.of[:s.n] {
		miss *= w.misses[i][j]
	}
	return 1 - miss
}

// opens reports that a cause explains something in a set that the others leave open.
func (w *weighing) opens(s *set, i int) bool {
	rest := set{}
	for _, o := range s.of[:s.n] {
		if o != i {
			rest.of[rest.n], rest.n = o, rest.n+1
		}
	}
	for j, sign := range w.signs[:w.seen] {
		if !sign.Pattern && w.shown(s, j, sign) >= opens*w.shown(&rest, j, sign) {
			return true
		}
	}
	return false
}

// with is a set with one more cause; false where one of them would explain nothing.
func (w *weighing) with(s set, i int) (set, bool) {
	s.of[s.n], s.n = i, s.n+1
	for _, o := range s.of[:s.n] {
		if !w.opens(&s, o) {
			return s, false
		}
	}
	s.weight = math.Pow(atOnce, float64(s.n-1)) * w.likely(&s)
	for _, o := range s.of[:s.n] {
		s.weight *= w.prior[o]
	}
	return s, true
}

// sets are all sets that may be there, the likeliest first; their weights come to one.
func (b *Book) sets(k Case) []set {
	w := b.ready(k)
	var out, pairs []set
	for i := range w.prior {
		s := set{of: [3]int{i}, n: 1}
		s.weight = w.prior[i] * w.likely(&s)
		out = append(out, s)
	}
	if w.seen > 1 {
		for a, i := range w.takes {
			for _, j := range w.takes[a+1:] {
				if s, ok := w.with(set{of: [3]int{i}, n: 1}, j); ok {
					pairs = append(pairs, s)
				}
			}
		}
		heaviest(pairs)
		out = append(out, pairs...)
	}
	if w.seen > 2 {
		once := map[[3]int]bool{}
		for _, p := range pairs[:min(len(pairs), bestPairs)] {
			for _, i := range w.takes {
				key := [3]int{p.of[0], p.of[1], i}
				slices.Sort(key[:])
				if p.has(i) || once[key] {
					continue
				}
				once[key] = true
				if s, ok := w.with(p, i); ok {
					out = append(out, s)
				}
			}
		}
	}
	heaviest(out)
	total := 0.0
	for i := range out {
		total += out[i].weight
	}
	for i := range out {
		out[i].weight /= total
	}
	return out
}

func heaviest(sets []set) {
	slices.SortFunc(sets, func(x, y set) int {
		return cmp.Or(cmp.Compare(y.weight, x.weight), slices.Compare(x.of[:x.n], y.of[:y.n]))
	})
}

// present is the chance that each cause is there, by its place in the book; the last is what is not in it.
func (b *Book) present(sets []set) []float64 {
	out := make([]float64, len(b.Causes)+1)
	for i := range sets {
		for _, c := range sets[i].of[:sets[i].n] {
			out[c] += sets[i].weight
		}
	}
	return out
}
