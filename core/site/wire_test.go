package site

import "testing"

// TestNearWire: a lime whose crown reaches under a line is near it, a rose across the lawn is not; a hedge that runs
// under it is, though both its ends are far; so is a bed that it crosses. A label tells it too.
func TestNearWire(t *testing.T) {
	p := &Plan{Things: []Thing{
		{ID: "w", Kind: Wire, HeightM: 6, Points: []At{{0, 0}, {40, 0}}},
		{ID: "lime", Kind: Plant, PlantID: 1, SpreadM: 6, HeightM: 9, Points: []At{{20, 7}}},
		{ID: "rose", Kind: Plant, PlantID: 2, SpreadM: 1, HeightM: 1, Points: []At{{20, 25}}},
		{ID: "hedge", Kind: Hedge, PlantID: 4, SpreadM: 0.8, HeightM: 3, Points: []At{{10, -30}, {10, 30}}},
		{ID: "far hedge", Kind: Hedge, PlantID: 5, SpreadM: 0.8, HeightM: 3, Points: []At{{-9, -30}, {-9, 30}}},
		{ID: "bed", Kind: Bed, PlantID: 6, SpreadM: 0.4, HeightM: 0.3, Points: []At{{30, -9}, {36, -9}, {33, 40}}},
		{ID: "gone", Kind: Grave, PlantID: 3, Points: []At{{20, 1}}},
	}}
	if got := p.NearWire(); !got[1] || got[2] || got[3] || !got[4] || got[5] || !got[6] {
		t.Errorf("near it: %v", got)
	}
	for words, tells := range map[string]bool{"Road, under the wire": true, "Power line above": true, "By the wire fence": false, "": false} {
		if TellsOfLine(words, "") != tells {
			t.Errorf("%q: not %v", words, tells)
		}
	}
}
