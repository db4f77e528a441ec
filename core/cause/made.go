package cause

import (
	"cmp"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
)

// MadeUp is a plant with one cause at work, made up to practise on.
type MadeUp struct {
	Cause string
	First string          // what is seen at once, by id: seldom what tells
	Shows map[string]bool // of each sign that could be seen on it now: there, or not there
}

const (
	plainly               = 0.5  // chance of a sign from which on a cause shows it plainly
	lookedAt              = 0.3  // the same from which on it is worth looking for
	toLookAt              = 16   // signs that are offered to be looked for
	fewSigns              = 3    // that a cause must have beside the first to be told
	bloomFrom, bloomUntil = 3, 9 // months of the northern year

	likeHere = 0.02 // weight, against an ordinary cause on its host, from which on one is met at all
)

// MakeUp makes one up: a cause as often as it is met on such a plant in such a month, and what it shows. draw gives
// numbers from 0 to 1. False where nothing is at work on such a plant then.
func (b *Book) MakeUp(k Case, draw func() float64) (MadeUp, bool) {
	weights, sum := make([]float64, len(b.Causes)), 0.0
	for i := range b.Causes {
		c := &b.Causes[i]
		if now := c.inSeason(k); now && len(b.plain(c, k)) > fewSigns {
			if w := b.before(c, k, now, nil); w >= likeHere {
				weights[i], sum = w, sum+w
			}
		}
	}
	u := draw() * sum
	for i, w := range weights {
		if u -= w; w > 0 && u < 0 {
			return b.showing(&b.Causes[i], k, draw), true
		}
	}
	return MadeUp{}, false
}

// plain are the signs a cause plainly shows on a plant, what is seen at a distance first: those that many causes show.
func (b *Book) plain(c *Cause, k Case) []*Sign {
	var out []*Sign
	many := map[string]int{}
	for i := range b.Signs {
		s := &b.Signs[i]
		if !s.condition() && !s.Weed && s.fits(k) && s.canShow(k) && s.inBloom(k) && c.Signs[s.ID] >= lookedAt {
			out = append(out, s)
			for j := range b.Causes {
				if b.Causes[j].Signs[s.ID] >= lookedAt {
					many[s.ID]++
				}
			}
		}
	}
	slices.SortStableFunc(out, func(x, y *Sign) int { return cmp.Compare(many[y.ID], many[x.ID]) })
	return out
}

// inBloom reports a sign that is not one of petals where there are none: on conifers, and outside the months in which
// most kinds bloom.
func (s *Sign) inBloom(k Case) bool {
	petals := strings.HasPrefix(s.ID, "flowers_") || strings.HasPrefix(s.ID, "petals_") || strings.HasPrefix(s.ID, "blossoms_")
	return !petals || k.Species.Form != catalogue.Conifer && k.Month >= bloomFrom && k.Month <= bloomUntil
}

// showing is what a cause shows on a plant.
func (b *Book) showing(c *Cause, k Case, draw func() float64) MadeUp {
	m := MadeUp{Cause: c.ID, Shows: map[string]bool{}}
	for _, s := range b.plain(c, k) {
		if c.Signs[s.ID] >= plainly && !s.Pattern {
			m.First = s.ID
			break
		}
	}
	if m.First == "" {
		m.First = b.plain(c, k)[0].ID
	}
	m.Shows[m.First] = true
	seen := Case{Seen: []string{m.First}}
	for i := range b.Signs {
		s := &b.Signs[i]
		if s.ID == m.First || !s.fits(k) || !s.canShow(k) || !s.inBloom(k) {
			continue
		}
		p := b.shows(c, s, true)
		if _, listed := c.Signs[s.ID]; !listed && s.condition() {
			p = s.usually()
		}
		is := draw() < p && !b.never(seen, s)
		if m.Shows[s.ID] = is; is {
			seen.Seen = append(seen.Seen, s.ID)
		}
	}
	return m
}

// Offered are the causes among which one is to be told: what is at work, what it is taken for, and what may be behind
// what is seen first; by name.
func (b *Book) Offered(k Case, m MadeUp, most int) []*Cause {
	out := []*Cause{b.cause[m.Cause]}
	add := func(id string) {
		if c := b.cause[id]; c != nil && len(out) < most && !slices.Contains(out, c) {
			out = append(out, c)
		}
	}
	for _, id := range b.cause[m.Cause].Mistaken {
		if c := b.cause[id]; c != nil && c.inSeason(k) && c.OnKind(k.Species) > lookalikeFrom {
			add(id)
		}
	}
	k.Seen = []string{m.First}
	if d, err := b.Diagnose(k); err == nil {
		for _, n := range d.Causes {
			add(n.ID)
		}
	}
	slices.SortFunc(out, func(x, y *Cause) int { return cmp.Compare(x.Name, y.Name) })
	return out
}

// lookalikeFrom is how much of a host a plant is for a look-alike to be offered on it.
const lookalikeFrom = 0.05

// ToLookFor are signs that part causes from each other on such a plant, by part of the plant.
func (b *Book) ToLookFor(k Case, m MadeUp, among []*Cause) []*Sign {
	var out []*Sign
	parts := map[string]float64{}
	for i := range b.Signs {
		s := &b.Signs[i]
		if _, could := m.Shows[s.ID]; !could || s.ID == m.First {
			continue
		}
		mean, square, most := 0.0, 0.0, 0.0
		for _, c := range among {
			p := b.shows(c, s, true)
			mean, square, most = mean+p, square+p*p, max(most, p)
		}
		n := float64(len(among))
		if parts[s.ID] = square/n - mean/n*mean/n; most >= lookedAt && parts[s.ID] > 0 {
			out = append(out, s)
		}
	}
	slices.SortStableFunc(out, func(x, y *Sign) int { return cmp.Compare(parts[y.ID], parts[x.ID]) })
	out = out[:min(len(out), toLookAt)]
	slices.SortStableFunc(out, func(x, y *Sign) int { return cmp.Compare(x.Part, y.Part) })
	return out
}
