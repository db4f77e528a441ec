package treatment

import (
	"slices"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
)

func kind(t testing.TB, id string) *catalogue.Entry {
	t.Helper()
	e, err := catalogue.Built().Species(id)
	if err != nil {
		t.Fatal(err)
	}
	return &e
}

// TestAlong: galls take the whole bed, lace bug only what stands in the sun or had it before, and of aphids those that
// show them alone: the others are looked at.
func TestAlong(t *testing.T) {
	for _, c := range []struct {
		cause, species         string
		shade, had             bool
		asked, treatment, look bool
	}{
		{"gall-mite", "acer-palmatum", true, false, true, true, false},
		{"lace-bug", "azalea-evergreen", false, false, true, true, false},
		{"lace-bug", "azalea-evergreen", true, false, true, false, false},
		{"lace-bug", "azalea-evergreen", true, true, true, true, false},
		{"lace-bug", "lavandula-angustifolia", false, false, false, false, false},
		{"aphids", "rosa-shrub", false, true, true, false, true},
	} {
		f, asked := Built().Along(c.cause, kind(t, c.species), c.shade, c.had)
		if asked != c.asked || f.Treat != c.treatment || f.Look != c.look || asked && f.Why == "" {
			t.Errorf("%s on %s, shade %v, had %v: %+v, %v", c.cause, c.species, c.shade, c.had, f, asked)
		}
	}
}

// TestGuards: what a kind can be guarded against: roses against black spot and mildew, a lavender against neither.
func TestGuards(t *testing.T) {
	roses := Built().Guards(kind(t, "rosa-bedding"))
	if !slices.Contains(roses, "black-spot") || !slices.Contains(roses, "powdery-mildew") {
		t.Errorf("roses: %v", roses)
	}
	if l := Built().Guards(kind(t, "lavandula-angustifolia")); slices.Contains(l, "black-spot") {
		t.Errorf("lavender: %v", l)
	}
	for i := range catalogue.Built().Entries { // each trouble once, however many programmes it has
		list := Built().Guards(&catalogue.Built().Entries[i])
		if once := slices.Compact(slices.Sorted(slices.Values(list))); len(once) != len(list) {
			t.Errorf("%s: %v", catalogue.Built().Entries[i].ID, list)
		}
	}
	peach := Built().Guards(kind(t, "prunus-persica"))
	if !slices.Contains(peach, "leaf-curl") {
		t.Errorf("peach: %v", peach)
	}
}

// TestTimes: how often a step comes until a day, by its repeats, what was done, and the end of its season.
func TestTimes(t *testing.T) {
	may := day.Of(2027, 5, 1)
	for _, c := range []struct {
		name, cause, species, rung string
		step, done                 int
		due, until                 day.Day
		want                       int
	}{
		{"soap every week, three times", "aphids", "rosa-shrub", "soft", 1, 0, may, may + 60, 3},
		{"until next week", "aphids", "rosa-shrub", "soft", 1, 0, may, may + 7, 2},
		{"once was done", "aphids", "rosa-shrub", "soft", 1, 1, may, may + 60, 2},
		{"not before the end", "aphids", "rosa-shrub", "soft", 1, 0, may + 61, may + 60, 0},
		{"oil three weeks apart", "gall-mite", "acer-palmatum", "soft", 2, 0, may, may + 20, 1},
		{"both sprays", "gall-mite", "acer-palmatum", "soft", 2, 0, may, may + 21, 2},
		{"once only", "weevil", "rhododendron-hybrid", "soft", 1, 0, may, may + 200, 1},
	} {
		a := Ask{Species: kind(t, c.species), Place: place(t, "lake-foothills")}
		if got := Built().Times(a, Job{Cause: c.cause, Rung: c.rung, Step: c.step, Made: may}, c.done, c.due, c.until); got != c.want {
			t.Errorf("%s: %d, want %d", c.name, got, c.want)
		}
	}
	// What is bought and mixed keeps to the label as the plan does.
	for _, l := range []struct{ most, apart, want int }{{0, 0, 3}, {1, 0, 1}, {2, 0, 2}, {0, 40, 2}} {
		a := Ask{Species: kind(t, "rosa-shrub"), Place: place(t, "lake-foothills"),
			Cards: []Card{{Name: "Soap", Active: "soap", Unit: "mL", Rates: []Rate{{Amount: 20, Per: "L"}}, MostUses: l.most, IntervalD: l.apart}}}
		if got := Built().Times(a, Job{Cause: "aphids", Rung: "soft", Step: 1, Made: may}, 0, may, may+60); got != l.want {
			t.Errorf("label %+v: %d times, want %d", l, got, l.want)
		}
	}
}
