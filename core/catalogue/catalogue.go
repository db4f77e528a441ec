// Package catalogue is what the house knows of species and climates: data in YAML that a gardener can read and
// correct, loaded and checked here. An entry that cannot be is refused with its file, its id and its field.
package catalogue

import (
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"slices"
	"strings"
	"sync"
	"unicode"

	"github.com/goccy/go-yaml"

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
	Start season.Anchor `json:"start" yaml:"start"`
	End   season.Anchor `json:"end" yaml:"end"`
	Habit string        `json:"habit" yaml:"habit"`
}

// BloomHabits are the known habits.
var BloomHabits = []string{"old wood", "new wood", "both", "spur", "once-flowering rose", "repeat rose",
	"perennial", "palm", "conifer", "vine that bleeds", "tender subshrub", "citrus", "evergreen for leaf"}

// Light is the light the species wants.
var lights = []string{"full sun", "part shade", "shade", "sun or part shade"}

// Caution warns of what can hurt a person or an animal.
type Caution struct {
	Kind string `json:"kind" yaml:"kind"`
	Text string `json:"text" yaml:"text"`
}

var cautionKinds = []string{"poisonous", "skin", "thorns", "pets", "allergy"}

// Size is a plant's size when grown up, metres.
type Size struct {
	HeightM float64 `json:"height_m" yaml:"height_m"`
	SpreadM float64 `json:"spread_m" yaml:"spread_m"`
}

// Entry is what the catalogue knows of a species or a group of cultivars.
type Entry struct {
	ID           string        `json:"id" yaml:"id"`
	Common       string        `json:"common" yaml:"common"`
	Botanical    string        `json:"botanical" yaml:"botanical"`
	Family       string        `json:"family" yaml:"family"`
	Form         Form          `json:"form" yaml:"form"`
	LeafSeason   LeafSeason    `json:"leaf_season" yaml:"leaf_season"`
	HardinessC   float64       `json:"hardiness_c" yaml:"hardiness_c"` // coldest the wood bears in midwinter, °C
	LeafOut      season.Anchor `json:"leaf_out" yaml:"leaf_out"`       // first leaves, or the new flush of an evergreen
	LatenessDays int           `json:"lateness_days" yaml:"lateness_days"`
	Bloom        Bloom         `json:"bloom" yaml:"bloom"`
	Mature       Size          `json:"mature" yaml:"mature"`
	GrowthCMYear float64       `json:"growth_cm_year" yaml:"growth_cm_year"`
	Light        string        `json:"light" yaml:"light"`
	HardPruning  Pruning       `json:"hard_pruning" yaml:"hard_pruning"`
	Cautions     []Caution     `json:"cautions" yaml:"cautions"`
	Habit        string        `json:"habit" yaml:"habit"` // a sentence in plain words
}

// Validate names every field of the entry that cannot be.
func (e Entry) Validate() error {
	var bad invalid.Fields
	for _, s := range []struct{ path, value string }{
		{"id", e.ID}, {"common", e.Common}, {"botanical", e.Botanical}, {"family", e.Family}, {"habit", e.Habit},
	} {
		if strings.TrimSpace(s.value) == "" {
			bad.Add(s.path, s.value, "is missing")
		}
	}
	if strings.ContainsFunc(e.ID, func(r rune) bool { return !(r == '-' || unicode.IsDigit(r) || 'a' <= r && r <= 'z') }) {
		bad.Add("id", e.ID, "%q: want small letters, digits and hyphens", e.ID)
	}
	oneOf(&bad, "form", string(e.Form), asStrings(Forms))
	oneOf(&bad, "leaf_season", string(e.LeafSeason), []string{string(Evergreen), string(SemiEvergreen), string(Deciduous), string(Herbaceous)})
	oneOf(&bad, "bloom.habit", e.Bloom.Habit, BloomHabits)
	oneOf(&bad, "light", e.Light, lights)
	oneOf(&bad, "hard_pruning", string(e.HardPruning), []string{string(FromBase), string(OldWood), string(GreenWood), string(Never)})
	bad.Within("hardiness_c", e.HardinessC, -50, 5, "°C")
	bad.Within("lateness_days", float64(e.LatenessDays), 1, 90, "days")
	bad.Within("mature.height_m", e.Mature.HeightM, 0.05, 60, "m")
	bad.Within("mature.spread_m", e.Mature.SpreadM, 0.05, 40, "m")
	bad.Within("growth_cm_year", e.GrowthCMYear, 1, 400, "cm")
	bad.Below("leaf_out", e.LeafOut.Validate())
	bad.Below("bloom.start", e.Bloom.Start.Validate("leaf_out"))
	bad.Below("bloom.end", e.Bloom.End.Validate("leaf_out", "bloom_start"))
	if e.Bloom.Habit == "new wood" && e.LeafOut.DegreeDays > 0 && e.Bloom.Start.DegreeDays > 0 &&
		e.Bloom.Start.DegreeDays <= e.LeafOut.DegreeDays {
		bad.Add("bloom.start", e.Bloom.Start.DegreeDays, "a plant that blooms on new wood cannot bloom before it is in leaf")
	}
	if (e.Form == Palm) != (e.HardPruning == Never) {
		bad.Add("hard_pruning", e.HardPruning, "a palm has one growing point and is never cut back; other forms are")
	}
	for i, c := range e.Cautions {
		oneOf(&bad, fmt.Sprintf("cautions[%d].kind", i), c.Kind, cautionKinds)
		if c.Text == "" {
			bad.Add(fmt.Sprintf("cautions[%d].text", i), c.Text, "is missing")
		}
	}
	return bad.Err()
}

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
	LeafOut, BloomStart, BloomEnd season.Band
	InLeaf, Blooms                bool // false where this year's warmth never gets so far
}

// Dates resolves the entry's anchors for the garden year that contains d.
func (e Entry) Dates(y *season.Year, d day.Day) Dates {
	var out Dates
	known := map[string]season.Band{}
	if out.LeafOut, out.InLeaf = y.Resolve(e.LeafOut, d, known); out.InLeaf {
		known["leaf_out"] = out.LeafOut
	}
	if out.BloomStart, out.Blooms = y.Resolve(e.Bloom.Start, d, known); out.Blooms {
		known["bloom_start"] = out.BloomStart
		out.BloomEnd, out.Blooms = y.Resolve(e.Bloom.End, d, known)
	}
	return out
}

// ClimateType is a kind of climate to start a property from.
type ClimateType struct {
	ID      string         `json:"id" yaml:"id"`
	Name    string         `json:"name" yaml:"name"`
	Zone    string         `json:"zone" yaml:"zone"` // time zone to propose, IANA name
	Climate season.Climate `json:"climate" yaml:"climate"`
}

// Catalogue is all entries by id.
type Catalogue struct {
	Entries  []Entry
	Climates []ClimateType
	byName   map[string]int
}

//go:embed data
var data embed.FS

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
	c := &Catalogue{byName: map[string]int{}}
	names, err := fs.Glob(files, "data/species/*.yaml")
	if err != nil {
		return nil, err
	}
	var faults []error
	seen := map[string]string{}
	for _, name := range names {
		entries, err := readList[Entry](files, name)
		faults = append(faults, err)
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
	c.Climates, err = readList[ClimateType](files, "data/climates.yaml")
	faults = append(faults, err)
	for _, t := range c.Climates {
		if err := t.Climate.Validate(); err != nil {
			faults = append(faults, fmt.Errorf("data/climates.yaml, entry %q: %w", t.ID, err))
		}
	}
	slices.SortFunc(c.Entries, func(a, b Entry) int { return strings.Compare(a.Common, b.Common) })
	for i, e := range c.Entries {
		c.byName[e.ID] = i
	}
	return c, errors.Join(faults...)
}

// readList decodes a YAML list strictly; a fault names the file, the entry it stands in and the field.
func readList[T any](files fs.FS, name string) ([]T, error) {
	b, err := fs.ReadFile(files, name)
	if err != nil {
		return nil, err
	}
	var out []T
	err = yaml.UnmarshalWithOptions(b, &out, yaml.Strict())
	var at yaml.Error
	if errors.As(err, &at) && at.GetToken() != nil {
		line := at.GetToken().Position.Line
		entry, field := "", strings.TrimSpace(strings.SplitN(lineAt(b, line), ":", 2)[0])
		for l := line; l > 0 && entry == ""; l-- {
			if rest, ok := strings.CutPrefix(lineAt(b, l), "- id:"); ok {
				entry = strings.TrimSpace(rest)
			}
		}
		return nil, fmt.Errorf("%s, line %d, entry %q, field %q: %s", name, line, entry, field, at.GetMessage())
	}
	if err != nil {
		return nil, fmt.Errorf("%s: %w", name, err)
	}
	return out, nil
}

func lineAt(b []byte, n int) string {
	lines := strings.Split(string(b), "\n")
	if n < 1 || n > len(lines) {
		return ""
	}
	return lines[n-1]
}

// Species is the entry with an id. The error of an unknown one proposes ids that look alike.
func (c *Catalogue) Species(id string) (Entry, error) {
	if i, ok := c.byName[id]; ok {
		return c.Entries[i], nil
	}
	var near []string
	want := strings.ToLower(id)
	for _, e := range c.Entries {
		for _, part := range strings.FieldsFunc(want, func(r rune) bool { return !unicode.IsLetter(r) }) {
			if len(part) > 3 && strings.Contains(strings.ToLower(e.ID+" "+e.Common+" "+e.Botanical), part) {
				near = append(near, e.ID)
				break
			}
		}
	}
	if len(near) > 0 {
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
