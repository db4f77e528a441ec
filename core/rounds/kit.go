package rounds

import (
	"slices"
	"strings"
)

// bulky are the words by which kit is known that takes room in a vehicle, and time to load and clean.
var bulky = []string{"ladder", "barrow", "trolley", "platform", "trimmer", "chainsaw", "chipper", "compost", "mulch", "stakes", "hose"}

// Bulky is what a job wants in the vehicle that is not in every gardener's belt: by the weather it wants, which says
// what kind of work it is, and by its list of kit. Each kind is named once.
func Bulky(w Work, kit []string) (out []string) {
	switch w {
	case Spray:
		out = append(out, "sprayer")
	case Aloft:
		out = append(out, "climbing kit")
	}
	for _, item := range kit {
		for _, word := range bulky {
			if strings.Contains(item, word) && !slices.Contains(out, word) {
				out = append(out, word)
			}
		}
	}
	return out
}
