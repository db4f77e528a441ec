package replacement

import (
	"fmt"
	"math"
	"slices"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
	"mezzadro/core/site"
)

// Part is one thing that counts for or against a kind on a spot.
type Part struct {
	Name   string  `json:"name" enum:"cold,heat,light,water,salt,lime,fire,wind,room,soil trouble,safety,spread,wish,upkeep,pot,own record"`
	Points float64 `json:"points" doc:"Below 0 against it"`
	Text   string  `json:"text"`
}

// Fit is how well a kind suits a spot.
type Fit struct {
	Species string   `json:"species"`
	Common  string   `json:"common"`
	Score   float64  `json:"score" doc:"0 to 100: 75 where nothing speaks for or against it; 0 where it cannot be"`
	Out     []string `json:"out" doc:"Why it is left out; empty where it may stand there"`
	Parts   []Part   `json:"parts" doc:"What counts, the weightiest first"`
	Care    []string `json:"cautions" doc:"To be minded all the same"`
	Minutes float64  `json:"upkeep_minutes" doc:"A year, one plant grown up: an estimate"`
	MeetsIn float64  `json:"too_big_in_years,omitempty" doc:"When it meets the limits of its place; absent where it never does, or they are not known"`
	Grown   []Grown  `json:"grown" doc:"At planting, and after 3 and 10 years: an estimate"`

	raw float64 // the score without its bounds, by which kinds are ranked
}

// fitting is a kind being judged.
type fitting struct {
	*Ask
	e   *catalogue.Entry
	fit Fit
}

func (f *fitting) part(name string, points float64, format string, a ...any) {
	if points != 0 {
		f.fit.Parts = append(f.fit.Parts, Part{name, math.Round(points*10) / 10, fmt.Sprintf(format, a...)})
	}
}

func (f *fitting) out(format string, a ...any) {
	f.fit.Out = append(f.fit.Out, fmt.Sprintf(format, a...))
}

func (f *fitting) care(format string, a ...any) {
	f.fit.Care = append(f.fit.Care, fmt.Sprintf(format, a...))
}

// plainFit is the score of a kind of which nothing is said for or against.
const plainFit = 75.0

// FitOf judges one kind on a spot.
func (a *Ask) FitOf(e *catalogue.Entry) Fit {
	f := &fitting{Ask: a, e: e, fit: Fit{Species: e.ID, Common: e.Common, Out: []string{}, Parts: []Part{}, Care: []string{}}}
	for _, judge := range []func(){
		f.cold, f.heat, f.summer, f.light, f.water, f.ground, f.wind, f.dryFrost, f.room, f.trouble, f.killers, f.safety, f.wild, f.upkeep, f.wished,
		f.known,
	} {
		judge()
	}
	score := plainFit
	for _, p := range f.fit.Parts {
		score += p.Points
	}
	f.fit.raw = score
	f.fit.Score = math.Max(0, math.Min(100, math.Round(score*10)/10))
	if len(f.fit.Out) > 0 {
		f.fit.Score = 0
	}
	slices.SortStableFunc(f.fit.Parts, func(a, b Part) int {
		return int(math.Copysign(1, math.Abs(b.Points)-math.Abs(a.Points)))
	})
	f.fit.Grown = []Grown{f.after(0), f.after(3), f.after(10)}
	return f.fit
}

// How much cold counts.
const (
	tenYears   = 4.0 // °C by which the coldest night of ten years is below that of a usual one
	afterFrost = 6.0 // °C to spare where the last one froze
	snowFromC  = -20 // coldest night of places where snow lies
	underSnowC = 4.0 // °C by which crowns in the soil are milder off there
	winterNeed = -25 // hardiness from which a kind that loses its leaves wants a winter
	noWinterC  = 12  // mean of the coldest month where there is none
)

func (f *fitting) cold() {
	spare := f.coldest() - f.e.HardinessC // above 0: it bears more than comes
	if f.e.LeafSeason == catalogue.Herbaceous && f.Spot.PotL == 0 && f.coldest() < snowFromC {
		spare += underSnowC
	}
	frozen := f.Died.Cause == "frost-in-winter" || f.Died.Cause == "root-freeze"
	told := quantity.Temperature(f.e.HardinessC)
	switch {
	case f.e.Annual:
		f.out("It lives for one season.")
	case f.Spot.PotL > 0 && f.coldest()+2 < f.e.RootHardinessC:
		f.out("Its roots bear %s: in a pot that stays out they freeze in a usual winter.", quantity.Temperature(f.e.RootHardinessC))
	case spare < 0:
		f.out("It bears %s in midwinter; the coldest night of a usual year has %s there.", told, quantity.Temperature(f.coldest()))
	case frozen && f.noHardier():
		f.out("What stood there froze, and this is no hardier: it bears %s.", told)
	case frozen && spare < afterFrost/2:
		f.out("What stood there froze, and this bears hardly more: %s.", told)
	case frozen && spare < afterFrost:
		f.counts("cold", "frozen_before", afterFrost-spare, "what stood there froze, and this has %s to spare in a usual winter", quantity.Difference(spare))
	case spare < tenYears:
		f.counts("cold", "near_limit", tenYears-spare, "a winter of ten years kills it or hurts it badly: it bears %s", told)
	default:
		f.counts("cold", "to_spare", spare-tenYears, "hardy with %s to spare", quantity.Difference(spare))
	}
}

// noHardier reports a kind that bears hardly more cold than the one that froze.
func (f *fitting) noHardier() bool {
	for i := range f.Among {
		if f.Among[i].ID == f.Died.Species {
			return f.e.HardinessC > f.Among[i].HardinessC-2
		}
	}
	return false
}

func (f *fitting) heat() {
	coldest, hottest := 99.0, -99.0
	dry := false
	for _, n := range f.Year.Normals.Climate.Normals {
		coldest = math.Min(coldest, (n.TMinC+n.TMaxC)/2)
		if n.TMaxC > hottest {
			hottest, dry = n.TMaxC, n.RHPct < 40
		}
	}
	if f.e.HardinessC <= winterNeed && coldest > noWinterC && f.e.LeafSeason != catalogue.Evergreen {
		f.out("It wants a winter, and there is none.")
	}
	thirsty := slices.Index(waters, f.e.SoilWater) >= 2
	soft := f.e.Light == "shade" || f.e.Light == "part shade"
	switch {
	case hottest >= 37 && dry && f.e.HardinessC <= winterNeed && thirsty:
		f.out("It comes from cool summers: dry heat of %s burns it.", quantity.Temperature(hottest))
	case hottest >= 37 && dry && (thirsty || soft):
		f.counts("heat", "dry_heat", 1, "dry heat of %s is hard on it", quantity.Temperature(hottest))
	}
}

// scorchC is the mean of the warmest afternoons of a month at which the hours that suit a plant are those of site.Wants.
const scorchC = 25.0

// hottest is the mean of the afternoons of the warmest month, °C.
func (a *Ask) hottest() float64 {
	most := -99.0
	for _, n := range a.Year.Normals.Climate.Normals {
		most = math.Max(most, n.TMaxC)
	}
	return most
}

func (f *fitting) light() {
	hours, known := f.Spot.hours()
	if !known {
		return
	}
	least, most := site.Wants(f.e.Light)
	// Sun scorches by its heat too: where summers are cool a plant of half shade stands more of it.
	most += math.Max(-1.5, math.Min(2.5, 0.4*(scorchC-f.hottest())))
	switch {
	case hours < least-2 || f.e.Light == "full sun" && hours < site.PartShade:
		f.out("It wants %s; there are %.1f hours of strong sun.", f.e.Light, hours)
	case hours > most+2.5:
		f.out("It wants %s and would scorch in %.1f hours of strong sun.", f.e.Light, hours)
	case hours < least:
		f.counts("light", "too_dark", least-hours, "it wants more sun than %.1f hours: it grows thin and blooms less", hours)
	case hours > most:
		f.counts("light", "too_bright", hours-most, "it wants less sun than %.1f hours", hours)
	case f.e.Light == "full sun" && hours >= site.FullSun || f.e.Light != "full sun" && f.e.Light != "sun or part shade":
		f.counts("light", "right", 1, "the light is what it wants")
	}
}

func (f *fitting) water() {
	want := slices.Index(waters, f.e.SoilWater)
	if f.Spot.Stands && want <= 1 {
		f.out("Water stands there: its roots rot.")
		return
	}
	if f.Spot.Stands && want == 2 && f.Spot.Water == "wet" {
		f.out("The soil is wet and water stands there: its roots rot.")
		return
	}
	if f.Spot.Stands && want == 2 {
		f.counts("water", "standing", 1, "water stands there after rain, and it wants even soil")
	}
	drowned := f.Died.Cause == "standing-water" || f.Died.Cause == "root-rot" && !f.desert() // there other fungi rot roots
	if drowned && want <= 1 && !f.Died.Soil {
		f.out("What stood there drowned or rotted at the roots, and this wants drained soil.")
	}
	if f.Died.Cause == "drought" && want >= 3 {
		f.out("What stood there died of thirst, and this wants moist soil.")
	}
	if f.Spot.Roots >= 0.4 && want >= 3 {
		f.counts("water", "greedy_roots", math.Min(1.5, f.Spot.Roots), "roots of greedy neighbours take its water")
	}
	have := slices.Index(waters, f.Spot.Water)
	if have < 0 {
		return
	}
	if f.Spot.WarmWall && have > 0 {
		have-- // the foot of a wall is drier
	}
	switch d := want - have; {
	case d >= 3 || d <= -3, have == 0 && want >= 3, have == 4 && want <= 1:
		f.out("It wants %s soil; there it is %s.", soilWord(f.e.SoilWater), soilWord(waters[have]))
	case have == 0 && want >= 2 && f.dryWeeks():
		f.counts("water", "dry_summer", 1, "it wants %s soil; there it is dry, and no rain comes in summer", soilWord(f.e.SoilWater))
	case d == 2 || d == -2:
		f.counts("water", "two_off", 1, "it wants %s soil; there it is %s", soilWord(f.e.SoilWater), soilWord(waters[have]))
	case d != 0:
		f.counts("water", "one_off", 1, "it wants %s soil; there it is %s", soilWord(f.e.SoilWater), soilWord(waters[have]))
	default:
		f.counts("water", "right", 1, "the soil is as wet as it wants")
	}
}

// dryWeeks reports a place with hardly any rain in the warmest quarter.
func (f *fitting) dryWeeks() bool {
	n := f.Year.Normals.Climate.Normals
	warmest, rain := math.Inf(-1), 0.0
	for i := range n {
		sum, fell := 0.0, 0.0
		for k := range 3 {
			m := n[(i+k)%12]
			sum, fell = sum+m.TMinC+m.TMaxC, fell+m.RainMM
		}
		if sum > warmest {
			warmest, rain = sum, fell
		}
	}
	return rain < drySummerMM
}

// frozenSoilC is the coldest night of a usual year down to which soil hardly freezes for days.
const frozenSoilC = -10.0

// fastWoodCM is the yearly growth from which weak wood is never let stand over people, cm.
const fastWoodCM = 75

// desert reports a place with so little rain in a year that nothing drowns there.
func (f *fitting) desert() bool {
	return f.Year.Normals.Climate.YearRainMM() < desertMM && !f.Spot.Stands
}

const desertMM = 300.0

// drySummerMM is the rain of the three warmest months under which soil that nobody waters is dry for weeks.
const drySummerMM = 75.0

func soilWord(w string) string {
	if w == "even" {
		return "evenly moist"
	}
	return w
}

func (f *fitting) wind() {
	blown := f.Died.Cause == "winter-drying" || f.Died.Cause == "hail-wind"
	if !f.Spot.Windy && !blown {
		return
	}
	switch {
	case f.e.WeakWood || listed(f.e, lists().Breaks, nil):
		f.counts("wind", "breaks", 1, "it breaks in wind")
	case f.coldest() > frozenSoilC && !blown: // wind dries leaves in winter where roots stand in frozen soil
		if f.e.Light == "shade" {
			f.counts("wind", "sheltered", 1, "it likes shelter")
		}
	case f.e.LeafSeason == catalogue.Evergreen && f.e.Form != catalogue.Conifer && f.e.DryingKPAH < 25:
		f.counts("wind", "winter_wind", 1, "winter wind dries its leaves")
	case f.e.LeafSeason == catalogue.Evergreen && f.e.DryingKPAH < 40 || f.e.Light == "shade":
		f.counts("wind", "sheltered", 1, "it likes shelter")
	}
}

// dryFrost minds winters of dry sunny frost, in which broad leaves that stay on burn, year by year.
func (f *fitting) dryFrost() {
	e := f.e
	if e.LeafSeason != catalogue.Evergreen || e.Form == catalogue.Conifer || e.Form == catalogue.Perennial || e.DryingKPAH >= 40 {
		return
	}
	for _, n := range f.Year.Normals.Climate.Normals {
		if (n.TMinC+n.TMaxC)/2 < dryFrostC && n.RainMM < dryFrostMM {
			f.counts("wind", "dry_frost", 1, "dry, sunny frost burns its leaves")
			return
		}
	}
}

// Of winters that burn leaves: the mean of the month, °C, and its rain or snow, mm.
const (
	dryFrostC  = -0.5
	dryFrostMM = 15.0
)

// Dangers come before taste.
func (f *fitting) safety() {
	e, s := f.e, f.Spot
	tall := e.Form == catalogue.Tree || e.Form == catalogue.Conifer || e.Form == catalogue.Palm
	switch {
	case s.Children && e.Poisonous == "strong":
		f.out("Poisonous, and small children play there.")
	case s.Children && e.Spiny:
		f.out("Thorns or spines, and small children play there.")
	case s.Children && e.Poisonous == "mild":
		f.counts("safety", "children_mild", 1, "mildly poisonous, and small children play there")
	}
	if s.Pets && e.PetDanger == "serious" {
		f.out("It can kill a pet.")
	} else if s.Pets && e.PetDanger == "mild" {
		f.counts("safety", "pets_mild", 1, "it can make a pet ill")
	}
	switch weak := s.People && e.WeakWood && tall && e.Mature.HeightM > 6; {
	case weak && e.GrowthCMYear >= fastWoodCM:
		f.out("Its wood breaks, and people are beneath.")
	case weak:
		f.counts("safety", "weak_over_people", 1, "its wood breaks, and people are beneath")
		f.care("Its wood breaks: formed well while it is young, and looked over each few years by a licensed arborist.")
	}
	if s.People && e.Spiny && !s.Children {
		f.counts("safety", "spines_where_people_pass", 1, "spines where people pass")
	}
	if s.Paving && e.Edible != "" && tall {
		f.counts("safety", "fruit_on_paving", 1, "fruit falls on the paving")
	}
	for _, c := range e.Cautions {
		if c.Kind == "poisonous" || c.Kind == "skin" || c.Kind == "thorns" || c.Kind == "pets" && s.Pets {
			f.care("%s", c.Text)
		}
	}
}
