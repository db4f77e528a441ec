package catalogue

import (
	"maps"
	"regexp"
	"slices"
	"strings"
	"sync"
	"unicode"
)

// cultivarAt is where a name goes on with what is more than its kind: a cultivar in quotes, a variety, a remark.
var cultivarAt = regexp.MustCompile(`(?i)\s*(?:['"‘’“”(,;]|\s(?:cv|var|ssp|subsp|f|hort)\.? ).*$`)

// apart is what does not tell kinds from each other: the cross of hybrids, signs, spaces.
var apart = regexp.MustCompile(`(?:^|[\s-])[x×](?:$|[\s-])|×|[^\pL\pN]+`)

// bare are the letters of Europe's languages without their accents.
var bare = strings.NewReplacer(
	"á", "a", "à", "a", "â", "a", "ä", "a", "ã", "a", "å", "a", "ç", "c", "č", "c", "é", "e", "è", "e",
	"ê", "e", "ë", "e", "ě", "e", "í", "i", "ì", "i", "î", "i", "ï", "i", "ñ", "n", "ó", "o", "ò", "o",
	"ô", "o", "ö", "o", "õ", "o", "ø", "o", "ř", "r", "š", "s", "ß", "ss", "ú", "u", "ù", "u", "û", "u",
	"ü", "u", "ý", "y", "ž", "z", "æ", "ae", "œ", "oe",
)

// plainName is a name without case, accents, signs and the cross of hybrids: by it names are the same or not.
func plainName(name string) string {
	out := strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Mn, r) { // an accent that stands apart from its letter
			return -1
		}
		return r
	}, bare.Replace(strings.ToLower(name)))
	return strings.TrimSpace(apart.ReplaceAllString(" "+out+" ", " "))
}

// Named is the kind that a name of people's own lists means - by id, botanical, common or other name, with a cultivar
// or a remark behind it or not - and what the name says beside. Empty where none or more than one is called so.
func (c *Catalogue) Named(name string) (id, more string) {
	if id = c.called(name); id != "" {
		return id, ""
	}
	kind, more := Parted(name)
	if id = c.called(kind); id == "" {
		return "", ""
	}
	return id, more
}

// Parted is a name of a list in two: the kind, and what is said behind it, a cultivar most often.
func Parted(name string) (kind, more string) {
	at := cultivarAt.FindStringIndex(name)
	if at == nil || strings.TrimSpace(name[:at[0]]) == "" {
		return strings.TrimSpace(name), ""
	}
	return strings.TrimSpace(name[:at[0]]), strings.Trim(name[at[0]:], " ,;")
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
	kind, _ := Parted(name)
	if near := c.near(kind); len(near) > 0 {
		return near
	}
	return c.near(name)
}
