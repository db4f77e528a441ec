package check

import (
	"reflect"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
)

// TestKindsAreComplete: the enumeration the API tells is that of the file, and what may be passed over is a kind.
func TestKindsAreComplete(t *testing.T) {
	var kinds []string
	for _, i := range Kinds() {
		kinds = append(kinds, string(i.Kind))
	}
	f, _ := reflect.TypeFor[Check]().FieldByName("Kind")
	told := strings.Split(f.Tag.Get("enum"), ",")
	if !slices.Equal(slices.Sorted(slices.Values(kinds)), slices.Sorted(slices.Values(told))) {
		t.Errorf("the file has %v, the description tells %v", kinds, told)
	}
	for _, k := range Of(NotLooked).Keys() {
		if Of(Kind(k)) == nil {
			t.Errorf("%q can be passed over and is no kind of check", k)
		}
	}
}

// TestBrokenFiles: what is missing in the file is named.
func TestBrokenFiles(t *testing.T) {
	for name, c := range map[string]struct{ file, says string }{
		"no words":    {"- {kind: smell}", "smell"},
		"an odd line": {"- {kind: smell, colour: red}", "colour"},
		"twice":       {strings.Repeat("- {kind: smell, name: Smell, looks_at: it, how: so, found: x}\n", 2), "twice"},
		"tells without words": {"- {kind: smell, name: Smell, looks_at: it, how: so, found: x, results: [{key: sour, word: sour, tells: [0.1, 0.9]}]}",
			"sour"},
	} {
		if _, _, err := read([]byte(c.file)); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// TestWhatCannotBe: each impossible check is refused at the field where it is wrong, and a possible one is not.
func TestWhatCannotBe(t *testing.T) {
	shrub := Plant{Species: catalogue.Entry{Form: catalogue.Shrub}, HeightM: 2, Count: 3}
	palm := Plant{Species: catalogue.Entry{Form: catalogue.Palm}, HeightM: 4}
	for name, c := range map[string]struct {
		plant Plant
		check Check
		path  string // empty: fine
	}{
		"a scratch":                  {shrub, Check{Kind: Scratch, HeightM: 1, Result: "green"}, ""},
		"above the plant":            {shrub, Check{Kind: Scratch, HeightM: 2.5, Result: "green"}, "checks[0].height_m"},
		"on a palm":                  {palm, Check{Kind: Scratch, HeightM: 1, Result: "green"}, "checks[0].kind"},
		"a spear on a shrub":         {shrub, Check{Kind: Spear, Result: "held"}, "checks[0].kind"},
		"no colour":                  {shrub, Check{Kind: Scratch, HeightM: 1, Result: "purple"}, "checks[0].result"},
		"no bud":                     {shrub, Check{Kind: BudRub, HeightM: 1}, "checks[0].held"},
		"too many buds":              {shrub, Check{Kind: BudRub, HeightM: 1, Held: 150, Broke: 60}, "checks[0].held"},
		"three of the group":         {shrub, Check{Kind: Sample, Held: 2, Broke: 1}, ""},
		"more than the group":        {shrub, Check{Kind: Sample, Held: 3, Broke: 1}, "checks[0].held"},
		"a ring and a half":          {shrub, Check{Kind: BarkRing, HeightM: 1, Amount: 1.5, Result: "bridge"}, "checks[0].amount"},
		"all round with a bridge":    {shrub, Check{Kind: BarkRing, HeightM: 1, Amount: 1, Result: "bridge"}, "checks[0].result"},
		"tight bark without a share": {shrub, Check{Kind: SplitBark, HeightM: 1, Result: "tight"}, ""},
		"loose bark without a share": {shrub, Check{Kind: SplitBark, HeightM: 1, Result: "loose"}, "checks[0].amount"},
		"more dead than there is":    {shrub, Check{Kind: TipDead, Amount: 2.5}, "checks[0].amount"},
		"a question without answer":  {shrub, Check{Kind: Spot, Result: "animals"}, "checks[0].seen"},
		"an answer to no question":   {shrub, Check{Kind: Crown, Result: "firm", Seen: "yes"}, "checks[0].seen"},
		"a leaf on a scratch":        {shrub, Check{Kind: Scratch, HeightM: 1, Result: "green", Leaf: "true"}, "checks[0].leaf"},
		"nothing passed over":        {shrub, Check{Kind: NotLooked, Result: "growth"}, "checks[0].result"},
		"no such kind":               {shrub, Check{Kind: "smell"}, "checks[0].kind"},
	} {
		var bad invalid.Fields
		Validate(c.plant, []Check{c.check}, &bad)
		switch {
		case c.path == "" && len(bad) > 0:
			t.Errorf("%s: refused: %v", name, bad)
		case c.path != "" && (len(bad) != 1 || bad[0].Path != c.path):
			t.Errorf("%s: %v, want %s refused", name, bad, c.path)
		}
	}
}
