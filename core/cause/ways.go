package cause

// Way is how a cause gets about, when it wakes, whom it spares, and how far to go against it.
type Way struct {
	By      string   `yaml:"by"`      // how it travels; empty where it does not
	Blades  bool     `yaml:"blades"`  // cutting tools carry it too, besides the way above
	Warmth  float64  `yaml:"warmth"`  // degree-days over 10 °C since midwinter from which it is at work
	Pests   []string `yaml:"pests"`   // the same troubles in the species' book
	Resists []string `yaml:"resists"` // kinds of its hosts that seldom have it, by catalogue id
	Light   string   `yaml:"light"`   // enough while little shows it; empty where it is the same
	Heavy   string   `yaml:"heavy"`   // what to do when most shows it
}

// reach is how far and how long a find raises the chance of the same elsewhere.
type reach struct {
	same   float64 // factor on another host of the same property
	near   float64 // factor on a host elsewhere, at no distance
	km     float64 // over which that falls to a third
	days   float64 // over which it halves
	visits bool    // it comes along with boots, blades and pots: distance counts little within a crew's round
	how    string
}

// reaches are rough: what counts is which plants are looked at first.
var reaches = map[string]reach{
	"wind":   {same: 6, near: 4, km: 4, days: 45, how: "on the wind"},
	"flies":  {same: 5, near: 3, km: 1.5, days: 45, how: "on the wing"},
	"walks":  {same: 5, near: 1.5, km: 0.15, days: 90, how: "on foot from plant to plant"},
	"splash": {same: 6, near: 1.5, km: 0.1, days: 60, how: "by rain and wet hands"},
	"tools":  {same: 6, near: 3, km: 25, days: 60, visits: true, how: "by tools and hands"},
	"soil":   {same: 4, near: 2, km: 25, days: 730, visits: true, how: "in soil on tools and boots"},
	"bought": {same: 5, near: 2, km: 25, days: 180, visits: true, how: "with bought plants and pots set close"},
}

// Travels says how a cause gets about, as in "it spreads on the wing"; empty where it does not.
func (c *Cause) Travels() string { return reaches[c.Way.By].how }

// OnTools is whether a crew carries it from one property to the next, on blades and hands or in the soil on boots.
func (c *Cause) OnTools() bool { return c.Way.Blades || c.Way.By == "tools" || c.Way.By == "soil" }
