package treatment

import (
	"math"

	"mezzadro/core/quantity"
)

// Tank is how one filling is mixed.
type Tank struct {
	N       int     `json:"n" doc:"How many are filled so"`
	SprayL  float64 `json:"spray_l"`
	Product float64 `json:"product" doc:"Rounded to what a jug or scales measure, in the product's unit"`
}

// Mixed is a day's spray of one product.
type Mixed struct {
	Tanks []Tank `json:"tanks" doc:"Full ones first, then what is left"`
	Total Tank   `json:"total" doc:"Of all: one filling as large as the whole"`
}

// Mix fills tanks of a size with a spray: full ones, and one with what is left.
func Mix(sprayL, product, tankL float64) Mixed {
	out := Mixed{Tanks: []Tank{}, Total: Tank{1, quantity.Round(sprayL, 0.1), Jug(product)}}
	if !(sprayL > 0) || !(tankL > 0) {
		return out
	}
	rate := product / sprayL
	full := int(math.Floor(sprayL/tankL + 1e-9))
	if full > 0 {
		out.Tanks = append(out.Tanks, Tank{full, tankL, Jug(rate * tankL)})
	}
	if left := sprayL - float64(full)*tankL; left > 0.05 {
		left = math.Ceil(2*left) / 2 // half litres can be read off
		out.Tanks = append(out.Tanks, Tank{1, left, Jug(rate * left)})
	}
	return out
}

// Jug rounds an amount to what a jug or scales measure: halves up to ten, ones to fifty, fives to 250, then tens.
func Jug(v float64) float64 {
	step := 10.0
	switch {
	case v < 10:
		step = 0.5
	case v < 50:
		step = 1
	case v < 250:
		step = 5
	}
	return math.Round(v/step) * step
}
