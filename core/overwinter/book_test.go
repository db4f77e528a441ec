package overwinter

import (
	"testing"

	"mezzadro/core/catalogue"
)

// TestKindsAreThere: what is known of single kinds is known of kinds in the catalogue, with figures that a grower would
// believe.
func TestKindsAreThere(t *testing.T) {
	for id, weeks := range book().RootInWater {
		if _, err := catalogue.Built().Species(id); err != nil {
			t.Errorf("roots in water: %v", err)
		}
		if weeks < 1 || weeks > 8 {
			t.Errorf("%s roots in %d weeks", id, weeks)
		}
	}
	for id, f := range book().Forced {
		if _, err := catalogue.Built().Species(id); err != nil {
			t.Errorf("forced: %v", err)
		}
		if f.Cold < 8 || f.Cold > 18 || f.Cool < 1 || f.Cool > 5 || f.Warm < 1 || f.Warm > 6 {
			t.Errorf("%s: %+v", id, f)
		}
	}
	if len(book().RootInWater) < 20 || len(book().Forced) < 4 {
		t.Error("kinds are missing")
	}
}

// TestCuttingListsAreOfKinds: what the lists of cuttings name are kinds or genera of the catalogue.
func TestCuttingListsAreOfKinds(t *testing.T) {
	known := map[string]bool{}
	for _, e := range catalogue.Built().Entries {
		known[e.ID], known[e.Genus()] = true, true
	}
	c := book().Cuttings
	for _, list := range [][]string{c.Soft, c.Late, c.HalfRipe, c.Wood, c.Foot, c.Layer, c.None} {
		if len(list) < 2 {
			t.Errorf("a short list: %v", list)
		}
		for _, name := range list {
			if !known[name] {
				t.Errorf("%s is no kind", name)
			}
		}
	}
}
