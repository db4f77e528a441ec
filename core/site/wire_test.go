package site

import "testing"

// TestNearWire: a lime whose crown reaches under a line is near it, a rose across the lawn is not; a label tells it too.
func TestNearWire(t *testing.T) {
	p := &Plan{Things: []Thing{
		{ID: "w", Kind: Wire, HeightM: 6, Points: []At{{0, 0}, {40, 0}}},
		{ID: "lime", Kind: Plant, PlantID: 1, SpreadM: 6, HeightM: 9, Points: []At{{20, 7}}},
		{ID: "rose", Kind: Plant, PlantID: 2, SpreadM: 1, HeightM: 1, Points: []At{{20, 25}}},
		{ID: "gone", Kind: Grave, PlantID: 3, Points: []At{{20, 1}}},
	}}
	if got := p.NearWire(); !got[1] || got[2] || got[3] {
		t.Errorf("near it: %v", got)
	}
	for words, tells := range map[string]bool{"Road, under the wire": true, "Power line above": true, "By the wire fence": false, "": false} {
		if TellsOfLine(words, "") != tells {
			t.Errorf("%q: not %v", words, tells)
		}
	}
}
