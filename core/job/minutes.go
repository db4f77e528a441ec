package job

import "math"

// What visits, plantings and winters take, minutes: estimates from experience.
const (
	visitMinutes  = 20.0 // a look at what a client has called about
	lookEach      = 3.0  // a look for one trouble, with the way to the plant
	lookLeast     = 5.0
	plantFirst    = 40.0 // what fits a spade, with the way and the tools
	plantEach     = 12.0
	plantMost     = 960.0
	waterFirst    = 8.0
	waterPerLitre = 0.25
	waterMost     = 240.0
	winterEach    = 8.0 // one pot carried, or one plant wrapped
	winterLeast   = 10.0
)

// VisitMinutes is what a visit after a call takes.
func VisitMinutes() int { return int(visitMinutes) }

// LookMinutes is what looking for one trouble at so many plants takes.
func LookMinutes(plants int) int { return int(lookEach) * plants }

// LookJobMinutes is the same for a job of its own.
func LookJobMinutes(plants int) int { return int(max(lookLeast, lookEach*float64(plants))) }

// PlantingMinutes is what planting so many of a kind takes.
func PlantingMinutes(plants int) int {
	return int(min(plantMost, plantFirst+plantEach*float64(max(1, plants)-1)))
}

// TakingOutMinutes is what taking out a plant of a height, m, with its roots takes, all people together: an estimate.
func TakingOutMinutes(heightM float64, count int) int {
	each := takeOutFirst + takeOutPerM*heightM
	if heightM > takeOutTall {
		each += takeOutAloft * math.Pow(heightM-takeOutTall, takeOutGrows)
	}
	return int(math.Min(MaxMinutes, math.Ceil(each*float64(max(1, count))/5)*5))
}

// What taking out takes, minutes: by hand up to a height, in pieces above it.
const (
	takeOutFirst = 20
	takeOutPerM  = 15
	takeOutTall  = 4 // m
	takeOutAloft = 25
	takeOutGrows = 1.5
)

// WateringMinutes is what giving so many litres takes.
func WateringMinutes(litres float64) int { return int(min(waterMost, waterFirst+waterPerLitre*litres)) }

// WinterMinutes is what one step of bringing so many pots through the winter takes.
func WinterMinutes(pots int) int { return int(max(winterLeast, winterEach*float64(pots))) }
