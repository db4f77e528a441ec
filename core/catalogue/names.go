package catalogue

import (
	"cmp"
	"fmt"
	"io/fs"
	"maps"
	"slices"
	"strings"
	"unicode"

	"mezzadro/core/written"

	"mezzadro/core/invalid"
)

// setNames gives each entry what else people call it. A line of no entry is a fault.
func setNames(files fs.FS, entries []Entry) error {
	b, err := fs.ReadFile(files, "data/names.yaml")
	if err != nil {
		return err
	}
	var of map[string][]string
	if err := written.Read(b, &of); err != nil {
		return fmt.Errorf("data/names.yaml: %w", err)
	}
	for i := range entries {
		entries[i].Also = of[entries[i].ID]
		delete(of, entries[i].ID)
	}
	var bad invalid.Fields
	for _, id := range slices.Sorted(maps.Keys(of)) {
		bad.Add("names."+id, id, "%q is no entry", id)
	}
	return bad.Err()
}

// Called is all that a kind is called, in small letters.
func (e *Entry) Called() string {
	return strings.ToLower(e.Common + " " + e.Botanical + " " + e.ID + " " + strings.Join(e.Also, " "))
}

// most ids proposed for a name that is none.
const proposed = 8

// near are the ids of kinds that a name may mean, the likeliest first: what is called so, what has a word of it, and what is
// nearly spelt so.
func (c *Catalogue) near(name string) []string {
	want := strings.ToLower(strings.TrimSpace(name))
	words := strings.FieldsFunc(want, func(r rune) bool { return !unicode.IsLetter(r) })
	type hit struct {
		id    string
		worth int
	}
	var hits []hit
	for i := range c.Entries {
		e := &c.Entries[i]
		if w := e.worth(want, words); w > 0 {
			hits = append(hits, hit{e.ID, w})
		}
	}
	slices.SortStableFunc(hits, func(a, b hit) int { return cmp.Compare(b.worth, a.worth) })
	out := []string{}
	for _, h := range hits[:min(len(hits), proposed)] {
		out = append(out, h.id)
	}
	return out
}

// worth is how well a name fits a kind; 0 where it does not.
func (e *Entry) worth(want string, words []string) (out int) {
	for _, n := range append([]string{e.Common, e.Botanical, e.ID}, e.Also...) {
		if strings.ToLower(n) == want {
			return 100
		}
	}
	called := e.Called()
	parts := strings.FieldsFunc(called, func(r rune) bool { return !unicode.IsLetter(r) })
	for _, w := range words {
		switch {
		case len(w) > 3 && strings.Contains(called, w):
			out += 10
		case len(w) > 5 && slices.ContainsFunc(parts, func(p string) bool { return Misspelt(w, p) }):
			out += 8
		}
	}
	return out
}

// Misspelt reports two words that differ by a slip or two of the pen: a letter more, less, or another.
func Misspelt(a, b string) bool {
	most := 1
	if min(len(a), len(b)) > 7 {
		most = 2
	}
	if len(a)-len(b) > most || len(b)-len(a) > most {
		return false
	}
	row := make([]int, len(b)+1)
	for j := range row {
		row[j] = j
	}
	for i := 1; i <= len(a); i++ {
		before := row[0]
		row[0] = i
		for j := 1; j <= len(b); j++ {
			cost := 1
			if a[i-1] == b[j-1] {
				cost = 0
			}
			before, row[j] = row[j], min(row[j]+1, row[j-1]+1, before+cost)
		}
	}
	return row[len(b)] <= most
}
