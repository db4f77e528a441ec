package overwinter

import (
	"cmp"
	"math"
	"slices"
)

// Room is a house with what may stand in it together.
type Room struct {
	LeastC float64  `json:"least_c"`
	MostC  float64  `json:"most_c"`
	Light  string   `json:"light"`
	M2     float64  `json:"m2"`
	Names  []string `json:"names"`
}

// play is how far a house's temperature must be let to wander, °C.
const play = 2.0

// House puts what comes in into as few houses as temperatures and light allow, the warmest first, and sums their floor,
// m². Names and keeps go together.
func House(names []string, keeps []Keep) (rooms []Room, m2 float64) {
	rooms = []Room{}
	order := make([]int, len(keeps))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(keeps[b].LeastC, keeps[a].LeastC) })
	for _, i := range order {
		k := keeps[i]
		at := slices.IndexFunc(rooms, func(r Room) bool {
			least, most, _ := k.Shares(Keep{LeastC: r.LeastC, MostC: r.MostC})
			return most-least >= play && r.Light == k.Light
		})
		if at < 0 {
			at = len(rooms)
			rooms = append(rooms, Room{LeastC: k.LeastC, MostC: k.MostC, Light: k.Light})
		}
		r := &rooms[at]
		r.LeastC, r.MostC, _ = k.Shares(Keep{LeastC: r.LeastC, MostC: r.MostC})
		r.M2 = math.Round(100*(r.M2+k.M2)) / 100
		r.Names = append(r.Names, names[i])
		m2 += k.M2
	}
	return rooms, math.Round(100*m2) / 100
}

// potKG is what a litre of a pot weighs with its plant and moist soil, kg.
const potKG = 1.2

// Load is what plants in pots weigh together, kg: an estimate. What is lifted out of the ground comes with a ball of
// soil of a bucket's size.
func Load(potL float64, count int) float64 {
	if potL == 0 {
		potL = 10
	}
	return math.Round(potKG * potL * float64(max(1, count)))
}

// Trolley is the load that two people move with one, kg.
const Trolley = 150.0
