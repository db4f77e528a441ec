package cause

import (
	"math"
	"slices"

	"mezzadro/core/catalogue"
)

// leastGain is what an answer has to be worth, in weighted bits a minute, for its question to be asked.
const leastGain = 0.005

// worthOf is how much it matters to know whether a cause is there.
func (c *Cause) worthOf() float64 {
	switch {
	case c.Danger != "" || c.Report:
		return 2
	case c.Harm == "deadly":
		return 1.5
	case c.Harm == "harmless":
		return 0.4
	case c.Harm == "ugly":
		return 0.8
	}
	return 1
}

// doubt is the entropy of a thing that is there with a chance.
func doubt(p float64) float64 {
	if p <= 0 || p >= 1 {
		return 0
	}
	return -p*math.Log(p) - (1-p)*math.Log(1-p)
}

// inDoubt is what is not known of all causes, by what it matters.
func (b *Book) inDoubt(p []float64) float64 {
	out := 0.0
	for i := range b.Causes {
		if p[i] > 1e-4 {
			out += b.Causes[i].worthOf() * doubt(p[i])
		}
	}
	return out + doubt(p[len(b.Causes)])
}

// setsAsked is how many of the likeliest sets a question is weighed by.
const setsAsked = 150

// next is the sign nobody has looked at whose answer takes most doubt away for the time it takes.
func (b *Book) next(k Case, sets []set, p []float64) (*Sign, float64) {
	var best *Sign
	most, before := 0.0, b.inDoubt(p)
	sets = sets[:min(len(sets), setsAsked)]
	now := make([]bool, len(b.Causes))
	for i := range b.Causes {
		now[i] = b.Causes[i].inSeason(k)
	}
	yes, no := make([]float64, len(p)), make([]float64, len(p))
	for i := range b.Signs {
		s := &b.Signs[i]
		_, known := k.Known[s.ID]
		asked := known || k.told(s.ID) || slices.Contains(k.Skipped, s.ID)
		if asked || !s.canShow(k) || !s.fits(k) || b.never(k, s) {
			continue
		}
		clear(yes)
		clear(no)
		py, pn := 0.0, 0.0
		for j := range sets {
			t := &sets[j]
			q := t.weight * b.wouldShow(t, i, now)
			rest := t.weight - sureAbsent*q
			py, pn = py+q, pn+rest
			for _, c := range t.of[:t.n] {
				yes[c], no[c] = yes[c]+q, no[c]+rest
			}
		}
		for c := range yes {
			yes[c], no[c] = yes[c]/py, no[c]/pn
		}
		gain := (before - (py*b.inDoubt(yes)+pn*b.inDoubt(no))/(py+pn)) / math.Sqrt(s.Minutes)
		if gain > most {
			best, most = s, gain
		}
	}
	return best, most
}

// wouldShow is the chance of a sign, by its place in the book, where a set is there.
func (b *Book) wouldShow(t *set, at int, now []bool) float64 {
	s := &b.Signs[at]
	miss := 1 - s.Rare
	for _, c := range t.of[:t.n] {
		switch {
		case c == len(b.Causes):
			miss *= 1 - unknownShows
		case now[c] || s.Lasts:
			miss *= b.miss[c][at]
		}
	}
	return 1 - miss
}

// Signs of pots, which nobody asks of what is too tall for one.
const pottedM = 5.0

var potSigns = []string{"pot_small", "pot_frozen", "roots_circling", "roots_dead_frozen", "gnats"}

// fits reports a sign that such a plant can show.
func (s *Sign) fits(k Case) bool {
	e := k.Species
	if e == nil {
		return true
	}
	form := string(e.Form)
	if e.Mature.HeightM > pottedM && slices.Contains(potSigns, s.ID) {
		return false
	}
	return (!s.Trunk || hasTrunk(e)) && (len(s.On) == 0 || slices.Contains(s.On, form)) && !slices.Contains(s.NotOn, form)
}

// hasTrunk reports a kind with a trunk, or one that nobody knows.
func hasTrunk(e *catalogue.Entry) bool {
	if e == nil {
		return true
	}
	switch e.Form {
	case catalogue.Tree, catalogue.Conifer, catalogue.Palm:
		return true
	}
	return false
}

// never reports a sign that cannot be seen, by what was seen already.
func (b *Book) never(k Case, s *Sign) bool {
	return slices.ContainsFunc(k.Seen, func(id string) bool {
		o := b.sign[id]
		return slices.Contains(o.NeverWith, s.ID) || slices.Contains(o.NeverWith, s.Part) || slices.Contains(s.NeverWith, id)
	})
}
