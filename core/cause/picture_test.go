package cause

import (
	"slices"
	"strings"
	"testing"
)

// TestEachCauseHasAPicture: each has one, and of the well-known ones it is what one would draw for a gardener to tell it by: the
// part of the plant and what is on it.
func TestEachCauseHasAPicture(t *testing.T) {
	b := Built()
	for i := range b.Causes {
		if c := &b.Causes[i]; len(c.Picture) == 0 {
			t.Errorf("%s has no drawing", c.ID)
		}
	}
	for cause, want := range map[string]string{
		"powdery-mildew":       "leaf powder",
		"downy-mildew":         "underside down",
		"rust":                 "underside spots orange",
		"black-spot":           "leaf fringed dark",
		"armoured-scale":       "twig shields",
		"woolly-aphid":         "twig wool",
		"aphids":               "shoot cluster green",
		"weevil":               "leaf notches",
		"leafcutter":           "leaf halfmoons",
		"leaf-miner":           "leaf line pale",
		"spittlebug":           "shoot froth",
		"fire-blight":          "shoot crook",
		"honey-fungus":         "base fan",
		"butt-rot":             "trunk brackets",
		"canker":               "trunk sunken",
		"frost-crack":          "trunk split long",
		"sapsucker":            "trunk holes rows",
		"deer":                 "shoot torn",
		"rabbits":              "shoot slant",
		"trimmer":              "trunk bruised",
		"pot-bound":            "roots circle",
		"iron":                 "leaf between-veins young",
		"magnesium":            "leaf between-veins old",
		"dodder":               "shoot threads",
		"crown-gall-bacterium": "base gall",
		"mistletoe-plant":      "plant ball",
		"lichen-moss":          "trunk lichen",
		"fruit-splitting":      "fruit split",
		"buried-graft":         "base graft",
		"fairy-ring":           "weed ring",
		"grey-mould":           "bud fur",
	} {
		c := b.cause[cause]
		if c == nil {
			t.Fatalf("the book has no cause %s", cause)
		}
		if got := c.Picture; !slices.ContainsFunc(got, func(d []string) bool { return strings.Join(d, " ") == want }) {
			t.Errorf("%s is drawn as %v, want %s", cause, got, want)
		}
	}
}
