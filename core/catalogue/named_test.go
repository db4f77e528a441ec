package catalogue

import (
	"slices"
	"testing"
)

// TestNamed: names as people's own lists write them are understood: case, accents, the cross of hybrids, cultivars in
// quotes, other names; a name that may be two kinds, or none, is not guessed.
func TestNamed(t *testing.T) {
	for name, want := range map[string]string{
		"Camellia japonica":                  "camellia-japonica",
		"  CAMELLIA JAPONICA ":               "camellia-japonica",
		"Caméllia japonica":                  "camellia-japonica",
		"Came\u0301llia japo\u0308nica":      "camellia-japonica",
		"camellia-japonica":                  "camellia-japonica",
		"Acer palmatum 'Bloodgood'":          "acer-palmatum",
		"Acer palmatum “Bloodgood”":          "acer-palmatum",
		"Acer palmatum cv. Bloodgood":        "acer-palmatum",
		"Acer palmatum var. dissectum":       "acer-palmatum",
		"Magnolia x soulangeana":             "magnolia-soulangeana",
		"Magnolia × soulangeana":             "magnolia-soulangeana",
		"Magnolia ×soulangeana 'Alba'":       "magnolia-soulangeana",
		"Magnolia soulangeana":               "magnolia-soulangeana",
		"Hydrangea macrophylla (mophead)":    "hydrangea-macrophylla",
		"Japanese maple":                     "acer-palmatum",
		"boxwood":                            "buxus-sempervirens",
		"Prunus laurocerasus 'Otto'":         "prunus-laurocerasus",
		"Thuja occidentalis, hedge":          "thuja-occidentalis",
		"maple":                              "", // which?
		"Rhododendron":                       "", // which?
		"Some shrub by the gate":             "",
		"":                                   "",
		"Camelia japonica":                   "", // nearly: asked, not guessed
		"Acer palmatum × Camellia japonica ": "",
	} {
		got, _ := Built().Named(name)
		if got != want {
			t.Errorf("%q is %q, want %q", name, got, want)
		}
	}
	if _, rest := Built().Named("Acer palmatum 'Bloodgood'"); rest != "'Bloodgood'" {
		t.Errorf("what is more than the kind is lost: %q", rest)
	}
	for name, want := range map[string]string{"Camelia japonica": "camellia-japonica", "Japanse mapple": "acer-palmatum",
		"Hydrangea panniculata 'Lime'": "hydrangea-paniculata", "maple": "acer-palmatum", "box wood hedge": "buxus-sempervirens"} {
		if near := Built().Near(name); !slices.Contains(near, want) {
			t.Errorf("near %q stand %v, want %s among them", name, near, want)
		}
	}
	if near := Built().Near("xyzzy qqq"); len(near) != 0 {
		t.Errorf("near nothing stand %v", near)
	}
}

// TestEveryNameIsItsOwn: each kind is found by its id, its botanical and, where no other is called so, its common name.
func TestEveryNameIsItsOwn(t *testing.T) {
	c := Built()
	common := map[string]int{}
	for _, e := range c.Entries {
		for _, n := range append([]string{e.Common}, e.Also...) {
			common[plainName(n)]++
		}
	}
	for _, e := range c.Entries {
		for _, n := range []string{e.ID, e.Botanical} {
			if got, _ := c.Named(n); got != e.ID {
				t.Errorf("%q is %q, want %s", n, got, e.ID)
			}
		}
		if got, _ := c.Named(e.Common); common[plainName(e.Common)] == 1 && got != e.ID {
			t.Errorf("%q is %q, want %s", e.Common, got, e.ID)
		}
	}
}
