package cold

import (
	"math"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

// Soil at 10 cm by the daily model of Rankinen, Karvonen and Butterfield (2004, Hydrology and Earth System Sciences
// 8:706), hour by hour: air through the soil above, held up by the heat that freezing water gives off, damped by
// snow, and warmed from below.
const (
	soilDepthM   = 0.10
	conducts     = 0.5   // W/(m·K)
	soilHeat     = 1.2e6 // J/(m³·K)
	freezingHeat = 12e6  // more while soil water freezes or thaws, J/(m³·K)
	freezesAtC   = -0.05 // and under which it does
	snowDamp     = 12.0  // by how much a metre of snow damps what comes through, as a power of e
	mulchM       = 0.08  // of mulch, which damps as snow does
	belowM       = 1.0   // depth from which warmth comes
	snowDensity  = 200.0 // kg/m³ of settled snow
	meltMM       = 0.15  // mm of water an hour and °C over 0
	snowsUnderC  = 0.5   // precipitation falls as snow
)

// layer is the soil at 10 cm, by its heat, and what lies over it.
type layer struct {
	heat   float64 // J/m³ above that of unfrozen soil at 0 °C
	coverM float64 // mulch, m
	belowC float64 // of the ground below

	under, damped float64 // snow of the last hour, m, and what it and the mulch let through
}

// soilAt is a layer at a temperature.
func soilAt(tempC, belowC, coverM float64) layer {
	l := layer{coverM: coverM, belowC: belowC, under: -1}
	if l.heat = tempC * soilHeat; tempC < 0 {
		l.heat = tempC * (soilHeat + freezingHeat)
	}
	return l
}

// tempC is the layer's temperature: while its water freezes it falls little.
func (l *layer) tempC() float64 {
	if l.heat < 0 {
		return l.heat / (soilHeat + freezingHeat)
	}
	return l.heat / soilHeat
}

// hour moves the layer by an hour under air of a temperature and snow of a depth, m.
func (l *layer) hour(airC, snowM float64) {
	if snowM != l.under {
		l.under, l.damped = snowM, math.Exp(-snowDamp*(snowM+l.coverM))
	}
	const above = 2 * soilDepthM * 2 * soilDepthM
	const below = (belowM - soilDepthM) * (belowM - soilDepthM) * 2
	t := l.tempC()
	l.heat += 3600 * conducts * (l.damped*(airC-t)/above + (l.belowC-t)/below)
}

// snowAfter is the snow, mm of water, after an hour.
func snowAfter(snow, airC, rainMM float64) float64 {
	switch {
	case rainMM > 0 && airC < snowsUnderC:
		return snow + rainMM
	case airC > 0:
		return math.Max(0, snow-meltMM*airC)
	}
	return snow
}

// deep is how deep snow of so many mm of water lies, m.
func deep(snowMM float64) float64 { return snowMM / snowDensity }

// groundBefore is the soil, bare and mulched, and the snow, mm of water, as an ordinary year leaves them at the start
// of a day: the months before a record are followed in the climate's normals.
func groundBefore(n *season.Normals, first day.Day) (bare, under layer, snowMM float64) {
	const months = 150 // days
	below := yearMean(n.Climate)
	start := n.Mean(first - months)
	bare, under = soilAt(start, below, 0), soilAt(start, below, mulchM)
	for d := first - months; d < first; d++ {
		mean, rain := n.Mean(d), math.Max(0, n.Rain.At(d))/24
		for range 24 {
			snowMM = snowAfter(snowMM, mean, rain)
			bare.hour(mean, deep(snowMM))
			under.hour(mean, deep(snowMM))
		}
	}
	return bare, under, snowMM
}

// yearMean is a climate's mean temperature, near that of the ground a metre down, °C.
func yearMean(c season.Climate) float64 {
	sum := 0.0
	for _, n := range c.Normals {
		sum += (n.TMinC + n.TMaxC) / 24
	}
	return sum
}
