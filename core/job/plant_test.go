package job

import (
	"testing"

	"mezzadro/core/catalogue"
)

// TestPlantingListsAreOfKinds: what keeps a planting season of its own is a kind or a genus of the catalogue.
func TestPlantingListsAreOfKinds(t *testing.T) {
	known := map[string]bool{}
	for _, e := range catalogue.Built().Entries {
		known[e.ID], known[e.Genus()] = true, true
	}
	s := seasons()
	for name := range s.Bulbs {
		s.Green = append(s.Green, name)
	}
	for _, list := range [][]string{s.Slow, s.Heat, s.Green, s.Summer} {
		for _, name := range list {
			if !known[name] {
				t.Errorf("%s is no kind", name)
			}
		}
	}
}
