// Package catalogue is what the house knows of species and climates: data in YAML that a gardener can read and
// correct, loaded and checked here. An entry that cannot be is refused with its file, its id and its field.
package catalogue

import (
	"errors"
	"fmt"
	"io/fs"
	"slices"
	"strings"
	"sync"

	"mezzadro/core/written"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/season"
)

// Form is how a plant is built: it decides how its crown is spread over its height and how it is drawn.
type Form string

const (
	Tree      Form = "tree"
	Conifer   Form = "conifer"
	Shrub     Form = "shrub"
	Subshrub  Form = "subshrub"
	Climber   Form = "climber"
	Palm      Form = "palm"
	Perennial Form = "perennial"
)

// TallestM is taller than any plant kept here, m.
const TallestM = 60.0

// Forms are all plant forms.
var Forms = []Form{Tree, Conifer, Shrub, Subshrub, Climber, Palm, Perennial}

// Pruning is how hard a plant may be cut and still come back.
type Pruning string

const (
	FromBase  Pruning = "from the base"   // renews from the ground or the stool
	OldWood   Pruning = "old wood"        // breaks from bare old wood, not from below ground
	GreenWood Pruning = "green wood only" // bare wood stays bare
	Never     Pruning = "never"           // one growing point: no cut at all
)

// LeafSeason is when the plant carries leaves.
type LeafSeason string

const (
	Evergreen     LeafSeason = "evergreen"
	SemiEvergreen LeafSeason = "semi-evergreen"
	Deciduous     LeafSeason = "deciduous"
	Herbaceous    LeafSeason = "dies back in winter"
)

// Bloom is when it flowers and on which wood.
type Bloom struct {
	Start   season.Anchor  `json:"start" yaml:"start"`
	End     season.Anchor  `json:"end" yaml:"end"`
	Habit   string         `json:"habit" yaml:"habit" enum:"old wood,new wood,both,spur,once-flowering rose,repeat rose,perennial,palm,conifer,vine that bleeds,tender subshrub,citrus,evergreen for leaf"`
	OldWood float64        `json:"old_wood" yaml:"old_wood" doc:"Share of the bloom on last year's wood or older, 0 to 1"`
	NewWood float64        `json:"new_wood" yaml:"new_wood" doc:"Share on this year's shoots, 0 to 1"`
	BudsSet *season.Anchor `json:"buds_set,omitempty" yaml:"buds_set,omitempty" doc:"When next year's flower buds are formed, where they are formed the year before"`
}

// Graft is whether a plant is grafted, and what its rootstock looks like.
type Graft struct {
	Habit         string `json:"habit" yaml:"habit" enum:"own roots,sometimes,usually"`
	RootstockLeaf string `json:"rootstock_leaf,omitempty" yaml:"rootstock_leaf,omitempty" doc:"How leaves from below the graft differ"`
}

// BloomHabits are the known habits.
var BloomHabits = []string{"old wood", "new wood", "both", "spur", "once-flowering rose", "repeat rose",
	"perennial", "palm", "conifer", "vine that bleeds", "tender subshrub", "citrus", "evergreen for leaf"}

// What the fields of few words may hold.
var (
	lights     = []string{"full sun", "part shade", "shade", "sun or part shade"}
	soils      = []string{"dry", "well drained", "even", "moist", "wet"}
	thirsts    = []string{"low", "medium", "high"}
	bleedings  = []string{"none", "some", "heavy"}
	grafts     = []string{"own roots", "sometimes", "usually"}
	poisons    = []string{"no", "mild", "strong"}
	petDangers = []string{"none", "mild", "serious"}
)

// How a kind stands: what of it a blade may take, and where it comes again from.
const (
	SingleTrunk = "single trunk"
	Several     = "several from the base"
	Rosette     = "rosette"
	Clump       = "clump"
	Climbing    = "climber"
	Bulb        = "bulb"
	AnnualStem  = "annual"
	PalmTrunk   = "palm trunk"
	PalmClump   = "palm clump"
)

var (
	standings = []string{SingleTrunk, Several, Rosette, Clump, Climbing, Bulb, AnnualStem, PalmTrunk, PalmClump}
	sureties  = []string{"", "yes", "weak", "no"}
	wetFeet   = []string{"", "hates", "bears", "likes"}
)

// Caution warns of what can hurt a person or an animal.
type Caution struct {
	Kind string `json:"kind" yaml:"kind" enum:"poisonous,skin,thorns,pets,livestock,allergy"`
	Text string `json:"text" yaml:"text"`
}

var cautionKinds = []string{"poisonous", "skin", "thorns", "pets", "livestock", "allergy"}

// Size is a plant's size when grown up, metres.
type Size struct {
	HeightM float64 `json:"height_m" yaml:"height_m"`
	SpreadM float64 `json:"spread_m" yaml:"spread_m"`
}

// Entry is what the catalogue knows of a species or a group of cultivars.
type Entry struct {
	ID             string         `json:"id" yaml:"id"`
	Common         string         `json:"common" yaml:"common"`
	Botanical      string         `json:"botanical" yaml:"botanical"`
	Also           []string       `json:"also,omitempty" yaml:"also,omitempty" doc:"What else it is called: in other regions, and by botanists of before"`
	Family         string         `json:"family" yaml:"family"`
	Form           Form           `json:"form" yaml:"form" enum:"tree,conifer,shrub,subshrub,climber,palm,perennial"`
	LeafSeason     LeafSeason     `json:"leaf_season" yaml:"leaf_season" enum:"evergreen,semi-evergreen,deciduous,dies back in winter"`
	HardinessC     float64        `json:"hardiness_c" yaml:"hardiness_c" doc:"Coldest the wood bears in midwinter, °C"`
	RootHardinessC float64        `json:"root_hardiness_c" yaml:"root_hardiness_c" doc:"Coldest soil the roots bear, °C"`
	DryingKPAH     float64        `json:"drying_kpa_h" yaml:"drying_kpa_h" doc:"Drying wind over frozen soil it bears, kPa·h of vapour deficit weighted by wind and sun"`
	LeafOut        season.Anchor  `json:"leaf_out" yaml:"leaf_out" doc:"First leaves, or the new flush of an evergreen"`
	LatenessDays   int            `json:"lateness_days" yaml:"lateness_days" doc:"How much later a hurt plant may still show life, days"`
	LeafDrop       *season.Anchor `json:"leaf_drop,omitempty" yaml:"leaf_drop,omitempty" doc:"Leaves fall or die back; absent for evergreens"`
	Bloom          Bloom          `json:"bloom" yaml:"bloom"`
	Mature         Size           `json:"mature" yaml:"mature"`
	GrowthCMYear   float64        `json:"growth_cm_year" yaml:"growth_cm_year"`
	RegrowthCM     float64        `json:"regrowth_cm" yaml:"regrowth_cm" doc:"Shoot growth in the first season after a hard cut, cm"`
	Light          string         `json:"light" yaml:"light" enum:"full sun,part shade,shade,sun or part shade"`
	SoilWater      string         `json:"soil_water" yaml:"soil_water" enum:"dry,well drained,even,moist,wet"`
	Thirst         string         `json:"thirst" yaml:"thirst" enum:"low,medium,high" doc:"How much it takes from its neighbours' soil"`
	RootReach      float64        `json:"root_reach" yaml:"root_reach" doc:"How far its roots go, in crown spreads"`
	HardPruning    Pruning        `json:"hard_pruning" yaml:"hard_pruning" enum:"from the base,old wood,green wood only,never"`
	SapBleeding    string         `json:"sap_bleeding" yaml:"sap_bleeding" enum:"none,some,heavy"`
	Annual         bool           `json:"annual,omitempty" yaml:"annual,omitempty" doc:"Lives for one season, or is grown as if it did: never carried through a winter"`
	Suckers        bool           `json:"suckers,omitempty" yaml:"suckers,omitempty" doc:"A palm or its like that makes new stems from its foot when a head is lost"`
	WeakWood       bool           `json:"weak_wood,omitempty" yaml:"weak_wood,omitempty" doc:"Breaks under wind, snow or its own load"`
	ShortLived     bool           `json:"short_lived,omitempty" yaml:"short_lived,omitempty"`
	Invasive       bool           `json:"invasive,omitempty" yaml:"invasive,omitempty" doc:"Spreads into the wild or the neighbours' ground in some regions"`
	Graft          Graft          `json:"graft" yaml:"graft"`
	Edible         string         `json:"edible,omitempty" yaml:"edible,omitempty" doc:"What of it is eaten"`
	Poisonous      string         `json:"poisonous" yaml:"poisonous" enum:"no,mild,strong"`
	Spiny          bool           `json:"spiny,omitempty" yaml:"spiny,omitempty"`
	PetDanger      string         `json:"pet_danger" yaml:"pet_danger" enum:"none,mild,serious"`
	Pests          []string       `json:"pests" yaml:"pests" doc:"Troubles it is prone to, by id"`
	Cautions       []Caution      `json:"cautions" yaml:"cautions"`
	Habit          string         `json:"habit" yaml:"habit" doc:"In plain words"`
	Flower         *Flower        `json:"flower,omitempty" yaml:"flower,omitempty" doc:"That of its genus when absent"`

	// What it is beside its form; what an entry of one's own leaves out is taken as its form has it.
	Stems           string  `json:"stems,omitempty" yaml:"stems,omitempty" enum:"single trunk,several from the base,rosette,clump,climber,bulb,annual,palm trunk,palm clump," doc:"How it stands; as its form has it when absent"`
	Resprouts       string  `json:"resprouts,omitempty" yaml:"resprouts,omitempty" enum:"yes,weak,no," doc:"Whether it comes again from its base; by hard_pruning when absent"`
	BreaksOld       string  `json:"breaks_old,omitempty" yaml:"breaks_old,omitempty" enum:"yes,weak,no," doc:"Whether bare old wood shoots again; by hard_pruning when absent"`
	LeafHardinessC  float64 `json:"leaf_hardiness_c,omitempty" yaml:"leaf_hardiness_c,omitempty" doc:"Coldest its leaves bear in midwinter where they stay on, °C; absent where nobody knows"`
	LivestockDanger string  `json:"livestock_danger,omitempty" yaml:"livestock_danger,omitempty" enum:"none,mild,serious," doc:"To horses and grazing animals; absent where nobody knows"`
	ForLeaf         bool    `json:"for_leaf,omitempty" yaml:"for_leaf,omitempty" doc:"Not grown for its bloom: a cut that takes it takes nothing"`
	WetFeet         string  `json:"wet_feet,omitempty" yaml:"wet_feet,omitempty" enum:"hates,bears,likes," doc:"Wet ground; absent where nobody knows"`

	// Like is the kind that all but the name, form, leaves and hardiness were taken from.
	Like string `json:"like,omitempty" yaml:"like,omitempty" maxLength:"100" doc:"Id of the kind that all but its name, form, leaves and hardiness were taken from, until somebody has looked the entry through"`

	// Basis says of figures what they rest on.
	Basis map[string]string `json:"basis,omitempty" yaml:"basis,omitempty" doc:"What figures rest on, by field: measured, usual or guess"`
}

// HasSpear reports a palm proper, whose youngest leaf stands as a spear; cycads, tree ferns and cordylines have none.
func (e Entry) HasSpear() bool { return e.Family == "Arecaceae" }

// Genus is the first word of the botanical name.
func (e Entry) Genus() string {
	g, _, _ := strings.Cut(e.Botanical, " ")
	return strings.Trim(g, ",×")
}

// In reports a kind that stands in a list by its id or by its genus.
func (e *Entry) In(list []string) bool {
	return slices.Contains(list, e.ID) || slices.Contains(list, e.Genus())
}

// Validate names every field of the entry that cannot be.
func (e Entry) Validate() error {
	var bad invalid.Fields
	for field, class := range e.Basis {
		if !slices.Contains(basisFields, field) {
			bad.Add("basis", field, "%q is no figure of an entry", field)
		}
		oneOf(&bad, "basis."+field, class, []string{Measured, Usual, Guess})
	}
	for _, s := range []struct{ path, value string }{
		{"id", e.ID}, {"common", e.Common}, {"botanical", e.Botanical}, {"family", e.Family}, {"habit", e.Habit},
	} {
		if strings.TrimSpace(s.value) == "" {
			bad.Add(s.path, s.value, "is missing")
		} else if len(s.value) > 600 {
			bad.Add(s.path, nil, "is longer than 600 characters")
		}
	}
	if strings.ContainsFunc(e.ID, func(r rune) bool { return !(r == '-' || '0' <= r && r <= '9' || 'a' <= r && r <= 'z') }) {
		bad.Add("id", e.ID, "%q: want small letters, digits and hyphens", e.ID)
	}
	oneOf(&bad, "form", string(e.Form), asStrings(Forms))
	oneOf(&bad, "leaf_season", string(e.LeafSeason), []string{string(Evergreen), string(SemiEvergreen), string(Deciduous), string(Herbaceous)})
	oneOf(&bad, "bloom.habit", e.Bloom.Habit, BloomHabits)
	oneOf(&bad, "light", e.Light, lights)
	oneOf(&bad, "soil_water", e.SoilWater, soils)
	oneOf(&bad, "thirst", e.Thirst, thirsts)
	oneOf(&bad, "sap_bleeding", e.SapBleeding, bleedings)
	oneOf(&bad, "graft.habit", e.Graft.Habit, grafts)
	oneOf(&bad, "poisonous", e.Poisonous, poisons)
	oneOf(&bad, "pet_danger", e.PetDanger, petDangers)
	oneOf(&bad, "hard_pruning", string(e.HardPruning), []string{string(FromBase), string(OldWood), string(GreenWood), string(Never)})
	oneOf(&bad, "stems", e.Stems, append([]string{""}, standings...))
	oneOf(&bad, "resprouts", e.Resprouts, sureties)
	oneOf(&bad, "breaks_old", e.BreaksOld, sureties)
	oneOf(&bad, "livestock_danger", e.LivestockDanger, append([]string{""}, petDangers...))
	oneOf(&bad, "wet_feet", e.WetFeet, wetFeet)
	bad.Within("leaf_hardiness_c", e.LeafHardinessC, -60, 5, "°C")
	bad.Within("hardiness_c", e.HardinessC, -60, 5, "°C")
	bad.Within("root_hardiness_c", e.RootHardinessC, -25, 5, "°C")
	bad.Within("drying_kpa_h", e.DryingKPAH, 2, 400, "kPa·h")
	bad.Within("lateness_days", float64(e.LatenessDays), 1, 90, "days")
	bad.Within("mature.height_m", e.Mature.HeightM, 0.05, 60, "m")
	bad.Within("mature.spread_m", e.Mature.SpreadM, 0.05, 40, "m")
	bad.Within("growth_cm_year", e.GrowthCMYear, 1, 400, "cm")
	bad.Within("regrowth_cm", e.RegrowthCM, 0, 500, "cm")
	bad.Within("root_reach", e.RootReach, 0.5, 5, "crown spreads")
	bad.Within("bloom.old_wood", e.Bloom.OldWood, 0, 1, "of the bloom")
	bad.Within("bloom.new_wood", e.Bloom.NewWood, 0, 1, "of the bloom")
	if e.Flower != nil {
		bad.Below("flower", e.Flower.Validate())
	}
	known := []string{"leaf_out"}
	bad.Below("leaf_out", e.LeafOut.Validate())
	if e.LeafDrop != nil {
		bad.Below("leaf_drop", e.LeafDrop.Validate(known...))
		known = append(known, "leaf_drop")
	}
	bad.Below("bloom.start", e.Bloom.Start.Validate(known...))
	bad.Below("bloom.end", e.Bloom.End.Validate(append(known, "bloom_start")...))
	if e.Bloom.BudsSet != nil {
		bad.Below("bloom.buds_set", e.Bloom.BudsSet.Validate(append(known, "bloom_start", "bloom_end")...))
	}
	e.impossible(&bad)
	for i, id := range e.Pests {
		if _, ok := Pests()[id]; !ok {
			bad.Add(fmt.Sprintf("pests[%d]", i), id, "%q is not known; see the list of troubles", id)
		}
	}
	for i, c := range e.Cautions {
		oneOf(&bad, fmt.Sprintf("cautions[%d].kind", i), c.Kind, cautionKinds)
		if strings.TrimSpace(c.Text) == "" {
			bad.Add(fmt.Sprintf("cautions[%d].text", i), c.Text, "is missing")
		}
	}
	return bad.Err()
}

// impossible notes what fields say against each other, or against what is known of the genus.
func (e Entry) impossible(bad *invalid.Fields) {
	if g, ok := genera()[e.Genus()]; ok && (e.HardinessC < g[0] || e.HardinessC > g[1]) {
		bad.Add("hardiness_c", e.HardinessC, "%g °C is outside what the genus %s is known for (%g to %g °C)", e.HardinessC, e.Genus(), g[0], g[1])
	}
	if e.RootHardinessC < e.HardinessC {
		bad.Add("root_hardiness_c", e.RootHardinessC, "roots that bear %g °C cannot be hardier than the wood (%g "+
			"°C)", e.RootHardinessC, e.HardinessC)
	}
	start, leaf := e.Bloom.Start, e.LeafOut
	sooner := start.DegreeDays > 0 && leaf.DegreeDays > 0 && start.DegreeDays <= leaf.DegreeDays || start.Warmth > 0 && leaf.Warmth > 0 && start.Warmth <= leaf.Warmth
	before := sooner && start.Days == 0 && leaf.Days == 0 || start.After == "leaf_out" && start.Days <= 0
	if before && e.Bloom.NewWood == 1 && e.Bloom.OldWood == 0 && e.LeafSeason != Evergreen && e.Form != Conifer {
		bad.Add("bloom.start", start.DegreeDays, "a plant that blooms on new wood only cannot bloom before it is "+
			"in leaf")
	}
	if e.Bloom.End.After == "bloom_start" && e.Bloom.End.Days <= 0 || e.Bloom.End.DegreeDays > 0 && start.DegreeDays > 0 && e.Bloom.End.DegreeDays <= start.DegreeDays {
		bad.Add("bloom.end", nil, "ends before it starts")
	}
	if sum := e.Bloom.OldWood + e.Bloom.NewWood; sum < 0.99 || sum > 1.01 {
		bad.Add("bloom.old_wood", e.Bloom.OldWood, "%g on old and %g on new wood: the shares must add up to 1", e.Bloom.OldWood, e.Bloom.NewWood)
	}
	switch {
	case e.Bloom.Habit == "old wood" && e.Bloom.OldWood < 0.6, e.Bloom.Habit == "new wood" && e.Bloom.NewWood < 0.6:
		bad.Add("bloom.habit", e.Bloom.Habit, "%q does not agree with the shares on old and new wood", e.Bloom.Habit)
	case e.Bloom.Habit == "old wood" && e.Bloom.BudsSet == nil:
		bad.Add("bloom.buds_set", nil, "is missing: a plant that blooms on old wood forms its flower buds the "+
			"year before")
	}
	if (e.Form == Palm) != (e.HardPruning == Never) {
		bad.Add("hard_pruning", e.HardPruning, "a palm has one growing point and is never cut back; other forms are")
	}
	if (e.LeafSeason == Evergreen) != (e.LeafDrop == nil) {
		bad.Add("leaf_drop", nil, "want it for plants that lose their leaves, and only for them")
	}
	if e.LeafSeason == Herbaceous && e.Form != Perennial {
		bad.Add("leaf_season", e.LeafSeason, "only a perennial dies back in winter; this is a %s", e.Form)
	}
	if (e.Graft.Habit != "own roots") != (e.Graft.RootstockLeaf != "") {
		bad.Add("graft.rootstock_leaf", e.Graft.RootstockLeaf, "want the rootstock's leaf described for plants "+
			"that are grafted, and only for them")
	}
	if e.HardPruning == FromBase && e.RegrowthCM < e.GrowthCMYear/2 {
		bad.Add("regrowth_cm", e.RegrowthCM, "%g cm after a hard cut is too little for a plant that renews from "+
			"the base and grows %g cm a year", e.RegrowthCM, e.GrowthCMYear)
	}
	has := func(kind string) bool {
		return slices.ContainsFunc(e.Cautions, func(c Caution) bool { return c.Kind == kind })
	}
	for _, c := range []struct {
		danger bool
		kind   string
	}{{e.Poisonous != "no", "poisonous"}, {e.Spiny, "thorns"}, {e.PetDanger == "serious", "pets"}} {
		if c.danger && !has(c.kind) {
			bad.Add("cautions", nil, "a caution of kind %q is missing", c.kind)
		}
	}
	if e.Poisonous == "no" && has("poisonous") {
		bad.Add("poisonous", e.Poisonous, "a caution says it is poisonous")
	}
}

// Pest is a trouble a species may be prone to.
type Pest struct {
	ID   string `json:"id" yaml:"id"`
	Name string `json:"name" yaml:"name"`
}

// Pests are the known troubles by id.
var Pests = sync.OnceValue(func() map[string]Pest {
	list, err := readList[Pest](data, "data/pests.yaml")
	if err != nil {
		panic(err) // a test loads it
	}
	out := map[string]Pest{}
	for _, p := range list {
		out[p.ID] = p
	}
	return out
})

// genera are the hardiest and the tenderest midwinter hardiness known of a genus, °C.
var genera = sync.OnceValue(func() map[string][2]float64 {
	out := map[string][2]float64{}
	b, err := fs.ReadFile(data, "data/genera.yaml")
	if err == nil {
		err = written.Read(b, &out)
	}
	if err != nil {
		panic(err) // a test loads it
	}
	return out
})

func oneOf(bad *invalid.Fields, path, value string, known []string) {
	if !slices.Contains(known, value) {
		bad.Add(path, value, "%q is not known; want one of: %s", value, strings.Join(known, ", "))
	}
}

func asStrings[S ~string](in []S) []string {
	out := make([]string, len(in))
	for i, s := range in {
		out[i] = string(s)
	}
	return out
}

// Dates are a species' events in one garden year.
type Dates struct {
	LeafOut, LeafDrop, BloomStart, BloomEnd, BudsSet season.Band
	InLeaf, Drops, Blooms, Sets                      bool // false where this year never gets so far, or the species has no such event
}

// Dates resolves the entry's anchors for the garden year that contains d.
func (e Entry) Dates(y *season.Year, d day.Day) Dates {
	var out Dates
	known := map[string]season.Band{}
	resolve := func(name string, a *season.Anchor) (season.Band, bool) {
		if a == nil {
			return season.Band{}, false
		}
		b, ok := y.Resolve(*a, d, known)
		if ok {
			known[name] = b
		}
		return b, ok
	}
	out.LeafOut, out.InLeaf = resolve("leaf_out", &e.LeafOut)
	out.LeafDrop, out.Drops = resolve("leaf_drop", e.LeafDrop)
	if out.BloomStart, out.Blooms = resolve("bloom_start", &e.Bloom.Start); out.Blooms {
		out.BloomEnd, out.Blooms = resolve("bloom_end", &e.Bloom.End)
	}
	out.BudsSet, out.Sets = resolve("buds_set", e.Bloom.BudsSet)
	return out
}

// ClimateType is a kind of climate to start a property from.
type ClimateType struct {
	ID      string         `json:"id" yaml:"id"`
	Name    string         `json:"name" yaml:"name"`
	Places  []string       `json:"places" yaml:"places" doc:"Towns and regions where gardens have about this climate, to find it by"`
	Zone    string         `json:"zone" yaml:"zone"` // time zone where no coordinates are given, IANA name
	Climate season.Climate `json:"climate" yaml:"climate"`
}

// Catalogue is all entries by id.
type Catalogue struct {
	Entries  []Entry
	Climates []ClimateType
	byName   map[string]int
	names    nameIndex
}

// Built is the catalogue that ships with the house. It panics when the shipped data is broken: a test loads it.
var Built = sync.OnceValue(func() *Catalogue {
	c, err := Load(data)
	if err != nil {
		panic(err)
	}
	return c
})

// Load reads data/species/*.yaml and data/climates.yaml. All faults found are in the error.
func Load(files fs.FS) (*Catalogue, error) {
	c := &Catalogue{}
	names, err := fs.Glob(files, "data/species/*.yaml")
	if err != nil {
		return nil, err
	}
	// Reading is most of a start: the files are read side by side.
	lists, faults := make([][]Entry, len(names)), make([]error, len(names)+1)
	var wg sync.WaitGroup
	for i, name := range names {
		wg.Go(func() { lists[i], faults[i] = readList[Entry](files, name) })
	}
	wg.Go(func() { c.Climates, faults[len(names)] = readList[ClimateType](files, "data/climates.yaml") })
	wg.Wait()
	seen := map[string]string{}
	for i, name := range names {
		entries := lists[i]
		for _, e := range entries {
			if err := e.Validate(); err != nil {
				faults = append(faults, fmt.Errorf("%s, entry %q: %w", name, e.ID, err))
			}
			if other, twice := seen[e.ID]; twice {
				faults = append(faults, fmt.Errorf("%s, entry %q: id: is already used in %s", name, e.ID, other))
			}
			seen[e.ID] = name
			c.Entries = append(c.Entries, e)
		}
	}
	for _, t := range c.Climates {
		if err := t.Climate.Validate(); err != nil {
			faults = append(faults, fmt.Errorf("data/climates.yaml, entry %q: %w", t.ID, err))
		}
	}
	faults = append(faults, setBases(files, c.Entries), setTraits(files, c.Entries), setNames(files, c.Entries))
	c.index()
	return c, errors.Join(faults...)
}

// index sorts the entries by common name and finds them by id.
func (c *Catalogue) index() {
	slices.SortFunc(c.Entries, func(a, b Entry) int { return strings.Compare(a.Common, b.Common) })
	c.byName = make(map[string]int, len(c.Entries))
	for i := range c.Entries {
		c.Entries[i].withFlower()
		c.byName[c.Entries[i].ID] = i
	}
}

// With is the catalogue with the user's own entries in place of, or beside, the built ones.
func (c *Catalogue) With(own []Entry) *Catalogue {
	out := &Catalogue{Climates: c.Climates}
	mine := map[string]int{}
	own = slices.Clone(own)
	for i, e := range own {
		mine[e.ID] = i
	}
	for i := range c.Entries {
		if at, corrected := mine[c.Entries[i].ID]; corrected {
			own[at].inherit(&c.Entries[i])
			continue
		}
		out.Entries = append(out.Entries, c.Entries[i])
	}
	out.Entries = append(out.Entries, own...)
	out.index()
	return out
}

// readList decodes a YAML list of the data strictly.
func readList[T any](files fs.FS, name string) ([]T, error) {
	b, err := fs.ReadFile(files, name)
	if err != nil {
		return nil, err
	}
	return decode[T](b, name)
}

// decode decodes a YAML list strictly; a fault names the file, the entry it stands in and the field.
func decode[T any](b []byte, name string) (out []T, err error) {
	err = written.Read(b, &out)
	if err == nil {
		return out, nil
	}
	var at *written.Fault
	if !errors.As(err, &at) || at.Line == 0 {
		return nil, invalid.Fields{{Path: name, Problem: err.Error()}}
	}
	entry, field := "", strings.TrimSpace(strings.SplitN(lineAt(b, at.Line), ":", 2)[0])
	for l := at.Line; l > 0 && entry == ""; l-- {
		if rest, ok := strings.CutPrefix(lineAt(b, l), "- id:"); ok {
			entry = strings.TrimSpace(rest)
		}
	}
	return nil, invalid.Fields{{
		Path: name, Problem: fmt.Sprintf("line %d, entry %q, field %q: %s", at.Line, entry, field, at.Problem),
	}}
}

func lineAt(b []byte, n int) string {
	lines := strings.Split(string(b), "\n")
	if n < 1 || n > len(lines) {
		return ""
	}
	return lines[n-1]
}

// Entry is the entry with an id; false where there is none.
func (c *Catalogue) Entry(id string) (*Entry, bool) {
	i, known := c.byName[id]
	if !known {
		return nil, false
	}
	return &c.Entries[i], true
}

// Species is the entry with an id. The error of an unknown one proposes ids that look alike.
func (c *Catalogue) Species(id string) (Entry, error) {
	if i, ok := c.byName[id]; ok {
		return c.Entries[i], nil
	}
	if near := c.near(id); len(near) > 0 {
		return Entry{}, fmt.Errorf("species %q is not in the catalogue; near it: %s", id, strings.Join(near, ", "))
	}
	return Entry{}, fmt.Errorf("species %q is not in the catalogue", id)
}

// Climate is the climate type with an id.
func (c *Catalogue) Climate(id string) (ClimateType, error) {
	for _, t := range c.Climates {
		if t.ID == id {
			return t, nil
		}
	}
	return ClimateType{}, fmt.Errorf("climate type %q is not known", id)
}
