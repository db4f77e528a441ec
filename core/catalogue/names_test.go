package catalogue

import (
	"strings"
	"testing"
)

// TestCalledOtherwise: a name of another region, of before, or nearly spelt leads to the kind that is meant.
func TestCalledOtherwise(t *testing.T) {
	for name, id := range map[string]string{
		"boxwood": "buxus-sempervirens", "snowball bush": "viburnum-opulus", "sweet bay": "laurus-nobilis", "Lagerstromia": "lagerstroemia-indica",
		"Rosmarinus officinalis": "salvia-rosmarinus", "crape myrtle": "lagerstroemia-indica", "butterfly bush": "buddleja-davidii",
		"Wistaria": "wisteria-sinensis", "arborvitae": "thuja-occidentalis", "Gaura lindheimeri": "oenothera-lindheimeri",
		"rododendron": "rhododendron-hybrid", "linden": "tilia-cordata", "hydrangia": "hydrangea-macrophylla",
	} {
		_, err := Built().Species(name)
		if err == nil {
			t.Errorf("%q is an id", name)
			continue
		}
		_, near, _ := strings.Cut(err.Error(), "near it: ")
		list := strings.Split(near, ", ")
		found := false
		for _, n := range list[:min(len(list), 6)] {
			found = found || n == id
		}
		if !found {
			t.Errorf("%q: %v, want %s", name, err, id)
		}
	}
	if _, err := Built().Species("zzzz"); err == nil || strings.Contains(err.Error(), "near it") {
		t.Errorf("nothing is called so: %v", err)
	}
	for _, c := range []struct {
		a, b string
		near bool
	}{{"lagerstromia", "lagerstroemia", true}, {"acer", "aces", true}, {"rosa", "ribes", false}, {"quercus", "querqus", true}, {"wisteria", "wistaria", true}, {"hebe", "hedera", false}} {
		if Misspelt(c.a, c.b) != c.near {
			t.Errorf("%s and %s: near is not %v", c.a, c.b, c.near)
		}
	}
}
