package replacement

import (
	_ "embed"
	"slices"
	"strings"
	"sync"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/written"
)

// Of what stays in the soil.
const (
	hostLike   = 0.65 // from which a kind counts as a host
	halfHost   = 0.25
	soilYears  = 12 // for which a soil-borne trouble is reckoned with
	tiredYears = 6  // for which soil is tired of a kind
)

// tired are genera whose soil does not take the same again for years, with what they are called together.
var tired = sync.OnceValue(func() map[string]string {
	out := map[string]string{}
	if err := written.Read(tiredYAML, &out); err != nil {
		panic("core/replacement/data/tired.yaml: " + err.Error())
	}
	return out
})

//go:embed data/tired.yaml
var tiredYAML []byte

// trouble minds what killed the last one, and what troubles the kind has everywhere.
func (f *fitting) trouble() {
	f.tiredSoil()
	c := f.diedOf()
	genus := genusOf(f.Among, f.Died.Species)
	same := genus != "" && genus == f.e.Genus()
	if c == nil {
		if f.Died.Species == f.e.ID && f.Died.Species != "" && !f.Died.Ugly {
			f.counts("soil trouble", "same_died", 1, "the same kind died there, and nobody knows of what")
		}
		return
	}
	if c.Group == "animal" && c.To == "all" && same {
		f.counts("soil trouble", "genus_spoilt", 1, "one of its genus was spoilt there: %s", lower(c.Name))
	}
	host := susceptible(c, f.e)
	if c.Group == "insect" && c.To == "its kind" && c.Harm == "deadly" && genus != "" && !same {
		host = 0 // another beetle of the name has each genus
	}
	switch {
	case c.Way.By == "soil":
		f.inSoil(c, host)
	case c.Harm == "deadly" && c.Hosts != nil && c.To == "its kind" && host >= hostLike:
		f.out("%s killed what stood there, and this is one of its hosts.", c.Name)
	case c.Hosts != nil && host >= hostLike && same:
		f.counts("soil trouble", "same_trouble", 1, "it gets %s, as what stood there did", lower(c.Name))
	case c.Hosts != nil && host >= hostLike:
		f.counts("soil trouble", "trouble_too", 1, "it gets %s too", lower(c.Name))
	case same && c.Hosts != nil && host < halfHost:
		f.counts("soil trouble", "resists", 1, "of the same genus, and seldom has %s", lower(c.Name))
	}
	f.browsed(c)
	f.weather(c)
}

// browsed minds animals that come again to eat what they like.
func (f *fitting) browsed(c *cause.Cause) {
	b, told := bears()[c.ID]
	switch {
	case !told || c.Group != "animal":
	case listed(f.e, b.Takes, b.Bears):
		f.counts("soil trouble", "browsed", 1, "%s: they like it, and come again", lower(c.Name))
	case listed(f.e, b.Bears, b.Takes):
		f.counts("soil trouble", "left_alone", 1, "they mostly leave it")
	}
}

// killers minds what kills the kind in this part of the world, wherever it is planted.
func (f *fitting) killers() {
	region := f.Year.Normals.Climate.Region()
	if low(f.e.Form) {
		return // they kill trees
	}
	for i := range cause.Built().Causes {
		c := &cause.Built().Causes[i]
		if c.Harm != "deadly" || c.Danger != "falls" || c.To != "its kind" || c.Hosts == nil || len(c.Hosts.Genus) == 0 ||
			len(c.Hosts.Genus) > fewGenera || c.Hosts.Genus[0] != f.e.Genus() || c.OnKind(f.e) < hostLike ||
			len(c.Home) > 0 && region != "" && !slices.Contains(c.Home, region) {
			continue
		}
		f.counts("soil trouble", "killer", 1, "%s: about in this part of the world, and deadly to it", lower(c.Name))
		f.care("%s: ask what is about here before it is bought, and buy kinds that stand it.", c.Name)
		return
	}
}

// Of what kills a kind wherever it stands: troubles of many genera kill this one or that; the first that is named is
// the chief host.
const (
	fewGenera = 3
)

// inSoil minds a trouble that stays in the soil.
func (f *fitting) inSoil(c *cause.Cause, host float64) {
	if f.Died.Years > soilYears {
		return
	}
	switch {
	case host >= hostLike && !f.Died.Soil:
		f.out("%s stays in the soil, and this is one of its hosts.", c.Name)
	case host >= hostLike:
		f.counts("soil trouble", "soil_changed", 1, "%s stays in the soil, and this is one of its hosts; the soil was changed", lower(c.Name))
		f.care("Roots grow out of the changed soil in a few years: %s may meet them then.", lower(c.Name))
	case host >= halfHost:
		f.counts("soil trouble", "may_get", 1, "it may get %s too", lower(c.Name))
	default:
		f.counts("soil trouble", "no_host", 1, "it does not get %s", lower(c.Name))
	}
}

// tiredSoil minds that soil does not take the same again.
func (f *fitting) tiredSoil() {
	before, now := tired()[genusOf(f.Among, f.Died.Species)], tired()[f.e.Genus()]
	if before == "" || before != now || f.Died.Soil || f.Died.Years >= tiredYears {
		return
	}
	f.out("The soil is tired of %s: dig it out half a metre deep, wait, or plant something else.", before)
}

// weather minds the weather that killed the last one, where this is no better.
func (f *fitting) weather(c *cause.Cause) {
	hours, known := f.Spot.hours()
	switch {
	case (c.ID == "sunscald-leaf" || c.ID == "heat" || c.ID == "noon-water") && (f.e.Light == "shade" || f.e.Light == "part shade") && (!known || hours > 5):
		f.counts("light", "scorched_before", 1, "what stood there scorched, and this wants shade too")
	case c.ID == "shade" && f.e.Light == "full sun" && (!known || hours < 7):
		f.counts("light", "dark_before", 1, "what stood there had too little light, and this wants the sun too")
	case c.ID == "drought" && f.e.Thirst == "high":
		f.counts("water", "thirst_before", 1, "what stood there died of thirst, and this drinks much")
	case c.ID == "drought" && f.e.Thirst == "low":
		f.counts("water", "drinks_little", 1, "it drinks little")
	case c.ID == "root-competition" && f.e.Thirst == "high":
		f.counts("water", "greedy_neighbour", 1, "it would have to share the soil with a greedy neighbour")
	}
}

func lower(s string) string {
	if s == "" {
		return s
	}
	return strings.ToLower(s[:1]) + s[1:]
}

// upkeep is what a kind costs in minutes a year when it has grown up: a rough figure for comparing.
func (f *fitting) upkeep() {
	e := f.e
	m := map[catalogue.Form]float64{catalogue.Tree: 20, catalogue.Conifer: 8, catalogue.Shrub: 18, catalogue.Subshrub: 12, catalogue.Climber: 50, catalogue.Palm: 20, catalogue.Perennial: 14}[e.Form]
	if e.Genus() == "Rosa" {
		m += 35
	}
	m += 4 * float64(len(e.Pests))
	if e.GrowthCMYear >= 50 && e.Form != catalogue.Tree {
		m += 15
	}
	if e.Thirst == "high" {
		m += 10
	}
	for _, p := range f.fit.Parts {
		if p.Name == "room" {
			m += 25
		}
	}
	if e.Suckers || e.Edible != "" {
		m += 15
	}
	f.fit.Minutes = m
	minutes := "minute"
	if f.Wish.LowWork {
		minutes = "minute_where_work_is_dear"
	}
	f.counts("upkeep", minutes, m, "about %.0f minutes of work a year", m)
	if e.ShortLived {
		f.counts("upkeep", "short_lived", 1, "it does not live long")
	}
}
