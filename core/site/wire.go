package site

import (
	"slices"
	"strings"
)

// wireReach is how near a crown is to a wire from which on who works in it may touch it, m.
const wireReach = 6.0

// NearWire are the plants of the record whose crowns stand within reach of a wire on the plan, by id.
func (p *Plan) NearWire() map[int64]bool {
	out := map[int64]bool{}
	for i := range p.Things {
		t := &p.Things[i]
		if t.PlantID == 0 || t.Kind == Grave || len(t.Points) == 0 {
			continue
		}
		for j := range p.Things {
			w := &p.Things[j]
			near := func(q At) bool { return w.From(q)-t.SpreadM/2 < wireReach }
			if w.Kind == Wire && slices.ContainsFunc(t.along(wireReach/4), near) {
				out[t.PlantID] = true
			}
		}
	}
	return out
}

// lineWords are the words by which a label or a note tells of a line overhead.
var lineWords = []string{"power line", "powerline", "overhead line", "overhead wire", "electric line", "under the wire", "under the line"}

// TellsOfLine reports that the words on a plant tell of a line overhead.
func TellsOfLine(words ...string) bool {
	all := strings.ToLower(strings.Join(words, " "))
	for _, w := range lineWords {
		if strings.Contains(all, w) {
			return true
		}
	}
	return false
}
