package season

// Parts of the world that pests and diseases are at home in. They are coarse: what is known of a country comes first.
const (
	NorthAmerica  = "north america"
	SouthAmerica  = "south america"
	Europe        = "europe"
	Mediterranean = "mediterranean" // its coasts, north and south
	Africa        = "africa"
	Asia          = "asia"
	Oceania       = "oceania"
)

// Region is the part of the world that a place lies in; empty where it lies in none that is told apart.
func (c Climate) Region() string {
	lat, long := c.Latitude, c.Longitude
	switch {
	case long < -30 && lat >= 14:
		return NorthAmerica
	case long < -30:
		return SouthAmerica
	case lat >= 29 && lat < 45.5 && long < 37:
		return Mediterranean
	case lat >= 45.5 && long < 60:
		return Europe
	case lat < 29 && long < 52:
		return Africa
	case lat < -8 && long > 110:
		return Oceania
	case long >= 37:
		return Asia
	}
	return ""
}
