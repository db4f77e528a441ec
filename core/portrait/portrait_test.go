package portrait

import (
	"fmt"
	"math"
	"testing"

	"mezzadro/core/catalogue"
)

// TestEveryFormIsDrawn: each form of the book has a shape of its own that stands on the ground, comes to an end at its tip,
// reaches its spread and does not go beyond it; no two look alike.
func TestEveryFormIsDrawn(t *testing.T) {
	forms := Forms()
	for _, e := range catalogue.Built().Entries {
		if _, drawn := forms[string(e.Form)]; !drawn {
			t.Fatalf("%s: the form %s is not drawn", e.ID, e.Form)
		}
	}
	seen := map[string]string{}
	for name, s := range forms {
		wide, high, low := 0.0, 0.0, 1.0
		for _, q := range s.Outline {
			wide, high, low = max(wide, math.Abs(q[0])), max(high, q[1]), min(low, q[1])
		}
		if wide < 0.9 || wide > 1.05 || high < 0.97 || high > 1 || low != 0 {
			t.Errorf("%s is %g wide, from %g to %g high", name, wide, low, high)
		}
		if like := seen[fmt.Sprint(s.Outline)]; like != "" {
			t.Errorf("%s looks like %s", name, like)
		}
		seen[fmt.Sprint(s.Outline)] = name
		if len(s.Lines) < 3 {
			t.Errorf("%s has %d lines", name, len(s.Lines))
		}
	}
}

// widthAt is half the width of a form at a height: how far its outline reaches there.
func widthAt(form string, z float64) float64 {
	out := 0.0
	o := Of(form).Outline
	for i := 1; i < len(o); i++ {
		a, b := o[i-1], o[i]
		if (a[1]-z)*(b[1]-z) <= 0 && a[1] != b[1] {
			out = max(out, math.Abs(a[0]+(b[0]-a[0])*(z-a[1])/(b[1]-a[1])))
		}
	}
	return out
}

// TestWhatTellsFormsApart: a tree, a conifer and a palm stand on a stem, a hedge is as wide at the top as below, a conifer
// narrows to its tip, a palm's crown is above its middle, only a climber grows on something.
func TestWhatTellsFormsApart(t *testing.T) {
	for _, stem := range []string{"tree", "conifer", "palm"} {
		if widthAt(stem, 0.03) > 0.12 {
			t.Errorf("a %s has no stem: %g", stem, widthAt(stem, 0.03))
		}
	}
	for what, is := range map[string]bool{
		"a hedge is square":         widthAt("hedge", 0.9) > 0.85 && widthAt("hedge", 0.1) > 0.9,
		"a conifer narrows":         widthAt("conifer", 0.15) > 2*widthAt("conifer", 0.75),
		"a palm is bare below":      widthAt("palm", 0.4) < 0.12 && widthAt("palm", 0.7) > 0.7,
		"a mound is wide below":     widthAt("subshrub", 0.2) > 0.85,
		"a tree is not":             widthAt("tree", 0.2) < 0.12 && widthAt("tree", 0.65) > 0.85,
		"a climber has its trellis": len(Of("climber").Back) > 0 && len(Of("tree").Back) == 0,
	} {
		if !is {
			t.Errorf("not so: %s", what)
		}
	}
}

// TestOutline: the left is the mirror of the right; what is not known is drawn as a shrub.
func TestOutline(t *testing.T) {
	for name, s := range Forms() {
		for i, a := range s.Outline {
			if b := s.Outline[len(s.Outline)-1-i]; a[0] != -b[0] || a[1] != b[1] {
				t.Fatalf("%s: %v and %v", name, a, b)
			}
		}
	}
	if fmt.Sprint(Of("unheard of")) != fmt.Sprint(Of("shrub")) {
		t.Error("an unknown form is no shrub")
	}
}
