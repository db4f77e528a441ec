package catalogue

import (
	"fmt"
	"reflect"
	"strings"
	"testing"

	"mezzadro/core/season"
)

func entry(t testing.TB, id string) Entry {
	t.Helper()
	e, err := Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return e
}

func TestPackRoundTrip(t *testing.T) {
	all := Built().Entries
	b, err := WritePack(all)
	if err != nil {
		t.Fatal(err)
	}
	back, err := ReadPack(b)
	if err != nil {
		t.Fatal(err)
	}
	if len(back) != len(all) {
		t.Fatalf("%d entries came back, %d went", len(back), len(all))
	}
	for i := range all {
		if d := Differences(all[i], back[i]); len(d) > 0 || back[i].Common != all[i].Common {
			t.Errorf("%s came back with %v", all[i].ID, d)
		}
	}
}

func TestDifferences(t *testing.T) {
	built := entry(t, "camellia-japonica")
	if d := Differences(built, built); len(d) != 0 {
		t.Errorf("an entry differs from itself: %v", d)
	}
	yours := built
	yours.HardinessC, yours.Bloom.Start, yours.Pests = -11, season.Anchor{RisingH: 10.6}, []string{"scale"}
	d := Differences(built, yours)
	want := []Difference{{"hardiness_c", "-15", "-11"}, {"bloom", "", ""}, {"pests", "scale, sooty-mould, petal-blight", "scale"}}
	if len(d) != len(want) {
		t.Fatalf("%v", d)
	}
	for i, w := range want {
		if d[i].Field != w.Field || w.Yours != "" && (!strings.Contains(d[i].Yours, w.Yours) || d[i].Built == d[i].Yours) {
			t.Errorf("%+v, want %+v", d[i], w)
		}
	}
	if !strings.Contains(d[1].Yours, "10.6") || strings.Contains(d[1].Yours, "{") {
		t.Errorf("the bloom is told as %q", d[1].Yours)
	}
}

// TestImpossibleEntries: each is right but for one thing that cannot be.
func TestImpossibleEntries(t *testing.T) {
	for _, c := range []struct {
		name, from, want string
		spoil            func(*Entry)
	}{
		{"blooms before it is in leaf, on new wood", "hydrangea-paniculata", "bloom.start", func(e *Entry) { e.Bloom.Start = season.Anchor{Warmth: 5} }},
		{"a camellia of the taiga", "camellia-japonica", "genus Camellia", func(e *Entry) { e.HardinessC = -45 }},
		{"roots hardier than the wood", "olea-europaea", "root_hardiness_c", func(e *Entry) { e.RootHardinessC = e.HardinessC - 3 }},
		{"shares over the whole", "rosa-shrub", "add up to 1", func(e *Entry) { e.Bloom.OldWood, e.Bloom.NewWood = 0.8, 0.8 }},
		{"old wood without buds set", "forsythia-intermedia", "bloom.buds_set", func(e *Entry) { e.Bloom.BudsSet = nil }},
		{"ends before it starts", "syringa-vulgaris", "bloom.end", func(e *Entry) { e.Bloom.End = season.Anchor{After: "bloom_start", Days: -3} }},
		{"an evergreen that drops its leaves", "buxus-sempervirens", "leaf_drop", func(e *Entry) { e.LeafDrop = &season.Anchor{FallingH: 11} }},
		{"a tree that dies to the ground each year", "tilia-cordata", "leaf_season", func(e *Entry) { e.LeafSeason = Herbaceous }},
		{"thorns and no word of them", "rosa-shrub", "cautions", func(e *Entry) { e.Cautions = nil }},
		{"harmless by one field, poisonous by another", "nerium-oleander", "poisonous", func(e *Entry) { e.Poisonous = "no" }},
		{"grafted, on who knows what", "rosa-shrub", "rootstock_leaf", func(e *Entry) { e.Graft = Graft{Habit: "usually"} }},
		{"renews from the base without growing", "corylus-avellana", "regrowth_cm", func(e *Entry) { e.RegrowthCM = 1 }},
		{"prone to what nobody knows", "acer-palmatum", "pests[0]", func(e *Entry) { e.Pests = []string{"gremlins"} }},
		{"frost in every year and more", "dahlia-pinnata", "last_frost", func(e *Entry) { e.LeafOut = season.Anchor{LastFrost: 120} }},
		{"a year late", "dahlia-pinnata", "days", func(e *Entry) { e.LeafOut.Days = 400 }},
	} {
		e := entry(t, c.from)
		if err := e.Validate(); err != nil {
			t.Fatalf("%s as built: %v", c.from, err)
		}
		c.spoil(&e)
		if err := e.Validate(); err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v, want %q named", c.name, err, c.want)
		}
	}
}

func TestWithOwnEntries(t *testing.T) {
	mine := entry(t, "acer-palmatum")
	mine.HardinessC = -20
	fresh := mine
	fresh.ID, fresh.Common = "acer-ours", "Aa our maple"
	c := Built().With([]Entry{mine, fresh})
	if len(c.Entries) != len(Built().Entries)+1 || c.Entries[0].ID != "acer-ours" {
		t.Errorf("%d entries, the first %s", len(c.Entries), c.Entries[0].ID)
	}
	if got, err := c.Species("acer-palmatum"); err != nil || got.HardinessC != -20 {
		t.Errorf("%v, %v", got.HardinessC, err)
	}
	if entry(t, "acer-palmatum").HardinessC == -20 {
		t.Error("the built entry was changed")
	}
}

func FuzzReadPack(f *testing.F) {
	b, err := WritePack([]Entry{entry(f, "camellia-japonica"), entry(f, "dahlia-pinnata")})
	if err != nil {
		f.Fatal(err)
	}
	f.Add(string(b))
	f.Add("- id: x\n  common: [1, 2\n")
	f.Add("- {}\n- &a [*a]\n")
	f.Fuzz(func(t *testing.T, s string) {
		entries, err := ReadPack([]byte(s))
		if (err == nil) == (len(entries) == 0) {
			t.Fatalf("%d entries with error %v", len(entries), err)
		}
		if err != nil {
			return
		}
		b, err := WritePack(entries)
		if err != nil {
			t.Fatal(err)
		}
		if again, err := ReadPack(b); err != nil || !reflect.DeepEqual(again, entries) {
			t.Errorf("%+v came back as %+v (%v)", entries, again, err)
		}
	})
}

// TestPackBounds: what could only spoil something is refused with its limit, before it is read.
func TestPackBounds(t *testing.T) {
	for says, text := range map[string]string{
		"brackets lie 25 deep":    strings.Repeat("[\n", 49_000),
		"longer than 8000":        "- id: " + strings.Repeat("x", 9_000),
		"anchors and aliases":     "- &a {id: x}\n- *a\n",
		"more than 60000 lines":   "- id: abc\n" + strings.Repeat("  # a remark\n", 61_000),
		"more than 3000 entries":  strings.Repeat("- id: abc\n", 3001),
		"more than 40000 bracket": "- id: abc\n  cautions: [" + strings.Repeat("\n{kind: x},{kind: x},", 12_000) + "]\n",
		"more than 2000 fields":   "- id: abc\n" + many(2001),
		"is set in by":            strings.Repeat(" ", 200) + "- a",
		"is larger than 4 MB":     strings.Repeat("# nothing but a remark\n", 200_000),
	} {
		_, err := ReadPack([]byte(text))
		if err == nil || !strings.Contains(err.Error(), says) || len(err.Error()) > 1000 {
			t.Errorf("%s: %.300v", says, err)
		}
	}
	whole, err := WritePack(Built().Entries)
	if err != nil {
		t.Fatal(err)
	}
	if err := bounded(whole); err != nil {
		t.Errorf("the whole book: %v", err)
	}
}

// many are so many fields that nobody knows.
func many(n int) string {
	var s strings.Builder
	for i := range n {
		fmt.Fprintf(&s, "  k%d: 1\n", i)
	}
	return s.String()
}
