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
