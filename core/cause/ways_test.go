package cause

import "testing"

// TestOnTools: what a careful crew keeps for the end of the round, so as not to carry it on.
func TestOnTools(t *testing.T) {
	for id, want := range map[string]bool{
		"fire-blight":    true, // though bees bring it to the blossom, the shears bring it to the next pear
		"box-blight":     true,
		"canker":         true,
		"elm-disease":    true, // flown in by beetles, carried on by saws
		"virus":          true,
		"wilt":           true, // in the soil on boots
		"honey-fungus":   true,
		"rust":           false,
		"aphids":         false,
		"lace-bug":       false,
		"leaf-spot":      false,
		"sooty-mould":    false,
		"powdery-mildew": false,
	} {
		c := Built().Cause(id)
		if c == nil {
			t.Errorf("no cause %q", id)
			continue
		}
		if c.OnTools() != want {
			t.Errorf("%s carried on tools: %v, want %v", id, c.OnTools(), want)
		}
	}
}
