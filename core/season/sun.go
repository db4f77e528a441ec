package season

import (
	"math"

	"mezzadro/core/day"
)

// Sun is when the sun stands where on a day, hours of solar time: noon is 12.
type Sun struct{ Rise, Set float64 }

// Daylength is the time from sunrise to sunset on d at a latitude, hours (NOAA: declination series, zenith 90.833°).
func Daylength(latitude float64, d day.Day) float64 {
	s := SunOn(latitude, d)
	return s.Set - s.Rise
}

// SunOn is sunrise and sunset in solar hours.
func SunOn(latitude float64, d day.Day) Sun {
	decl := Declination(d)
	lat := latitude * math.Pi / 180
	cosH := math.Cos(90.833*math.Pi/180)/(math.Cos(lat)*math.Cos(decl)) - math.Tan(lat)*math.Tan(decl)
	half := math.Acos(math.Max(-1, math.Min(1, cosH))) * 12 / math.Pi
	return Sun{12 - half, 12 + half}
}

// Declination is how far north of the equator the sun stands on a day, radians (Spencer's series, as NOAA uses it;
// within 0.04°).
func Declination(d day.Day) float64 {
	g := 2 * math.Pi * d.YearFraction()
	return 0.006918 - 0.399912*math.Cos(g) + 0.070257*math.Sin(g) - 0.006758*math.Cos(2*g) +
		0.000907*math.Sin(2*g) - 0.002697*math.Cos(3*g) + 0.00148*math.Sin(3*g)
}

// SunAt is where the sun stands at an hour of solar time: height above the horizon and bearing from north over east,
// radians.
func SunAt(latitude float64, d day.Day, hour float64) (height, bearing float64) {
	lat, decl, h := latitude*math.Pi/180, Declination(d), (hour-12)*math.Pi/12
	up := math.Sin(lat)*math.Sin(decl) + math.Cos(lat)*math.Cos(decl)*math.Cos(h)
	east := -math.Cos(decl) * math.Sin(h)
	north := math.Cos(lat)*math.Sin(decl) - math.Sin(lat)*math.Cos(decl)*math.Cos(h)
	return math.Asin(math.Max(-1, math.Min(1, up))), math.Mod(math.Atan2(east, north)+2*math.Pi, 2*math.Pi)
}
