package cause

import (
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
)

// Case is a plant with what was seen on it, what was looked for and not found, and what nobody has looked at yet.
type Case struct {
	Species *catalogue.Entry // nil where nobody knows
	Month   int              // 1 to 12, of the northern year: half a year on in the south
	Seen    []string
	Absent  []string
	Skipped []string // asked, and nobody on site can tell
	Share   float64  // of the leaves or shoots that show it, 0 to 1; 0 where nobody said

	Known  map[string]bool    // signs of weather, work and place that the record tells: there, or not there
	Near   map[string]float64 // by cause: how often more it is met than elsewhere, as it was found nearby; above 1
	Ours   map[string]float64 // by cause: how often more the firm finds it than the book lets expect; see Often.Used
	Warmth float64            // degree-days over 10 °C since midwinter; 0 where nobody knows
	Site   Site
}

// Site is what a plant's place tells of its year and of what lives there.
type Site struct {
	Known  bool    `json:"known"`
	MeanC  float64 `json:"mean_c" doc:"Usual mean of the month, °C"`
	ColdC  float64 `json:"cold_c" doc:"Mean of the coldest night of each year, °C"`
	Region string  `json:"region" doc:"Part of the world, as causes are at home in; empty where none is told apart"`
}

// Validate names signs that are none, and those said to be both there and not there.
func (b *Book) Validate(c Case) error {
	var bad invalid.Fields
	for _, told := range []struct {
		name string
		list []string
	}{{"seen", c.Seen}, {"not_seen", c.Absent}, {"cannot_tell", c.Skipped}} {
		name := told.name
		for i, id := range told.list {
			at := fmt.Sprintf("%s[%d]", name, i)
			if b.sign[id] == nil {
				bad.Add(at, id, "%q is no sign; near it: %s", id, strings.Join(b.near(id), ", "))
			} else if name == "seen" && slices.Contains(c.Absent, id) {
				bad.Add(at, id, "%s is said to be there and not to be there", b.sign[id].Name)
			}
		}
	}
	b.contradictions(c, &bad)
	bad.Within("share", c.Share, 0, 1, "")
	bad.Within("month", float64(c.Month), 1, 12, "")
	return bad.Err()
}

// contradictions names signs that cannot be seen together.
func (b *Book) contradictions(c Case, bad *invalid.Fields) {
	for _, id := range c.Seen {
		s := b.sign[id]
		if s == nil {
			continue
		}
		for i, other := range c.Seen {
			if o := b.sign[other]; o != nil && o != s &&
				(slices.Contains(s.NeverWith, o.ID) || slices.Contains(s.NeverWith, o.Part)) {
				bad.Add(fmt.Sprintf("seen[%d]", i), other, "%s cannot be seen together with %s", small(o.Name), small(s.Name))
			}
		}
	}
}

// near are signs whose id or name holds a part of a word.
func (b *Book) near(id string) []string {
	var out []string
	for _, w := range strings.FieldsFunc(strings.ToLower(id), func(r rune) bool { return r == '_' || r == '-' || r == ' ' }) {
		for _, s := range b.Signs {
			if len(w) > 2 && (strings.Contains(s.ID, w) || strings.Contains(strings.ToLower(s.Name), w)) &&
				!slices.Contains(out, s.ID) {
				out = append(out, s.ID)
			}
		}
	}
	return out[:min(len(out), 5)]
}

// canShow reports whether a sign can be told now: a leaf tells nothing on a plant that has none in winter.
func (s *Sign) canShow(k Case) bool {
	if !s.OnLeaves() {
		return true
	}
	bare := k.Species != nil && (k.Month == 12 || k.Month <= 2) &&
		(k.Species.LeafSeason == catalogue.Deciduous || k.Species.LeafSeason == catalogue.Herbaceous)
	return !bare && !slices.Contains(k.Seen, "leafless")
}

// told reports a sign that somebody has looked at.
func (k Case) told(id string) bool {
	return slices.Contains(k.Seen, id) || slices.Contains(k.Absent, id)
}
