package catalogue

import (
	"maps"
	"regexp"
	"slices"
	"strings"
	"sync"
	"unicode"

	"golang.org/x/text/unicode/norm"
)

// cultivarAt is where a name goes on with what is more than its kind: a cultivar in quotes, a variety, a remark.
var cultivarAt = regexp.MustCompile(`(?i)\s*(?:['"‘’“”(,;]|\s(?:cv|var|ssp|subsp|f|hort)\.? ).*$`)

// apart is what does not tell kinds from each other: the cross of hybrids, signs, spaces.
var apart = regexp.MustCompile(`(?:^|[\s-])[x×](?:$|[\s-])|×|[^\pL\pN]+`)

// plainName is a name without case, accents, signs and the cross of hybrids: by it names are the same or not.
func plainName(name string) string {
	var out strings.Builder
	for _, r := range norm.NFD.String(strings.ToLower(name)) {
		if !unicode.Is(unicode.Mn, r) {
			out.WriteRune(r)
		}
	}
	return strings.TrimSpace(apart.ReplaceAllString(" "+out.String()+" ", " "))
}

// Named is the kind that a name of people's own lists means - by id, botanical, common or other name, with a cultivar
// or a remark behind it or not - and what the name says beside. Empty where none or more than one is called so.
func (c *Catalogue) Named(name string) (id, more string) {
	if id = c.called(name); id != "" {
		return id, ""
	}
	at := cultivarAt.FindStringIndex(name)
	if at == nil {
		return "", ""
	}
	if id = c.called(name[:at[0]]); id == "" {
		return "", ""
	}
	return id, strings.Trim(name[at[0]:], " ,;")
}

// nameIndex finds kinds by plain names; one that stands for several finds none.
type nameIndex struct {
	once sync.Once
	of   map[string]string
}

// called is the one kind that is called so; what is its botanical name or id is it, whatever else is called so.
func (c *Catalogue) called(name string) string {
	c.names.once.Do(func() {
		c.names.of = map[string]string{}
		own := map[string]bool{}
		for _, e := range c.Entries {
			for _, n := range []string{e.Botanical, e.ID} {
				c.names.of[plainName(n)], own[plainName(n)] = e.ID, true
			}
		}
		for _, e := range c.Entries {
			for _, n := range append([]string{e.Common}, e.Also...) {
				n = plainName(n)
				switch was, taken := c.names.of[n]; {
				case own[n] || taken && was == e.ID:
				case taken:
					c.names.of[n] = ""
				default:
					c.names.of[n] = e.ID
				}
			}
		}
	})
	return c.names.of[plainName(name)]
}

// Call gives kinds the names that a firm's own lists have for them; one of a kind that is gone is passed over.
func (c *Catalogue) Call(names map[string]string) {
	for _, name := range slices.Sorted(maps.Keys(names)) {
		if e, known := c.Entry(names[name]); known && !slices.Contains(e.Also, name) {
			e.Also = append(slices.Clone(e.Also), name)
		}
	}
}

// Near are the ids of kinds that a name may mean, the likeliest first; what is said behind a kind's name is left out
// first.
func (c *Catalogue) Near(name string) []string {
	if at := cultivarAt.FindStringIndex(name); at != nil && at[0] > 0 {
		if near := c.near(name[:at[0]]); len(near) > 0 {
			return near
		}
	}
	return c.near(name)
}
