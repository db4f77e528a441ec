package ground_test

import "mezzadro/core/site"

// thing is a plant of the record on a plan.
func thing(id string, plant int64) site.Thing {
	return site.Thing{ID: id, Kind: site.Plant, PlantID: plant, Points: []site.At{{X: 2, Y: 3}}}
}
