package replacement

import (
	"slices"
	"testing"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/invalid"
)

func stand(t *testing.T, ids ...string) (out []Standing) {
	t.Helper()
	for _, id := range ids {
		e, ok := catalogue.Built().Entry(id)
		if !ok {
			t.Fatal(id)
		}
		out = append(out, Standing{e.Common, e, 1})
	}
	return out
}

// TestCalendar: the gaps that one sees in such gardens.
func TestCalendar(t *testing.T) {
	for _, c := range []struct {
		name, climate string
		kinds         []string
		gaps, full    []int // months that must be gaps, and that must not
	}{
		{"only spring shrubs by the lake", "lake-foothills", []string{"forsythia-intermedia", "syringa-vulgaris", "magnolia-soulangeana"}, []int{7, 8, 9, 10}, []int{4, 5}},
		{"with summer and autumn bloom", "lake-foothills", []string{"forsythia-intermedia", "syringa-vulgaris", "hydrangea-paniculata", "sedum-spectabile", "lavandula-angustifolia"}, nil, []int{4, 5, 7, 8, 9}},
		{"only leaves", "cool-coast", []string{"taxus-baccata", "fagus-sylvatica"}, []int{5, 6, 7, 8, 9}, nil},
		{"southern lavender", "southern-coast", []string{"lavandula-angustifolia"}, []int{6, 7}, []int{12}},
		{"the cold steppe has no gap in winter", "prairie", []string{"syringa-vulgaris"}, []int{8}, []int{1, 2, 11, 12, 6}},
	} {
		a := ask(t, c.climate)
		got := CalendarOf(a.Year, day.Of(2027, time.June, 15), stand(t, c.kinds...))
		for _, m := range c.gaps {
			if !slices.Contains(got.Gaps, m) {
				t.Errorf("%s: month %d is no gap: %+v", c.name, m, got)
			}
		}
		for _, m := range c.full {
			if slices.Contains(got.Gaps, m) {
				t.Errorf("%s: month %d is a gap: %+v", c.name, m, got)
			}
		}
	}
	// A lime feeds insects, though its flower is not much to look at; a double cherry does not.
	a := ask(t, "cool-coast")
	if got := CalendarOf(a.Year, day.Of(2027, time.June, 15), stand(t, "prunus-serrulata")); !slices.Contains(got.Bees, 5) || slices.Contains(got.Gaps, 5) && slices.Contains(got.Gaps, 4) {
		t.Errorf("a double cherry: %+v", got)
	}
}

// TestBed: ten square metres half lavender at a third of a metre; what cannot be is named.
func TestBed(t *testing.T) {
	book := catalogue.Built()
	got, err := BedOf(10, true, []BedPart{
		{Species: "lavandula-angustifolia", Share: 0.5, Spacing: 0.33, Price: 4}, {Species: "nepeta-faassenii", Share: 0.3, Spacing: 0.5, Price: 3.5},
	}, book)
	if err != nil || got.Lines[0].Count != 46 || got.Lines[1].Count != 12 || got.Cost != 46*4+12*3.5 || got.Count != 58 || got.Bare != 2 {
		t.Errorf("%+v %v", got, err)
	}
	if alone, _ := BedOf(2, true, []BedPart{{Species: "syringa-vulgaris", Share: 1}}, book); len(alone.Notes) == 0 || alone.Count != 1 {
		t.Errorf("a lilac on two square metres: %+v", alone)
	}
	for path, f := range map[string]func() (Bed, error){
		"area_m2":        func() (Bed, error) { return BedOf(0, true, nil, book) },
		"bed[0].species": func() (Bed, error) { return BedOf(1, true, []BedPart{{Species: "moss", Share: 1}}, book) },
		"bed[0].share":   func() (Bed, error) { return BedOf(1, true, []BedPart{{Species: "nepeta-faassenii"}}, book) },
		"bed": func() (Bed, error) {
			return BedOf(1, true, []BedPart{{Species: "nepeta-faassenii", Share: 0.8}, {Species: "hosta-hybrid", Share: 0.4}}, book)
		},
	} {
		_, err := f()
		fields, _ := err.(invalid.Fields)
		if !slices.ContainsFunc(fields, func(f invalid.Field) bool { return f.Path == path }) {
			t.Errorf("%s: %v", path, err)
		}
	}
}
