package catalogue

import (
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"gonum.org/v1/gonum/stat"

	"mezzadro/core/day"
	"mezzadro/core/season"
)

func TestBuiltLoads(t *testing.T) {
	c, err := Load(data)
	if err != nil {
		t.Fatal(err)
	}
	if len(c.Entries) < 160 || len(c.Climates) < 40 {
		t.Errorf("%d species, %d climates", len(c.Entries), len(c.Climates))
	}
	for _, id := range []string{"camellia-japonica", "azalea-evergreen", "hydrangea-macrophylla", "hydrangea-paniculata",
		"nerium-oleander", "citrus-limon", "trachycarpus-fortunei", "olea-europaea", "rosa-shrub", "rosa-climbing",
		"wisteria-sinensis", "lavandula-angustifolia", "acer-palmatum", "buxus-sempervirens", "taxus-baccata",
		"spiraea-japonica", "syringa-vulgaris", "forsythia-intermedia", "vitis-vinifera", "salvia-tender",
		"salvia-rosmarinus", "quercus-ilex", "prunus-laurocerasus"} {
		if _, err := c.Species(id); err != nil {
			t.Error(err)
		}
	}
	for _, id := range []string{"nerium-oleander", "taxus-baccata", "rosa-climbing"} {
		if e, _ := c.Species(id); len(e.Cautions) == 0 {
			t.Errorf("%s can hurt and says nothing", id)
		}
	}
	for _, ct := range c.Climates {
		if _, err := time.LoadLocation(ct.Zone); err != nil {
			t.Errorf("climate %s: %v", ct.ID, err)
		}
	}
}

func TestDatesInTheFoothills(t *testing.T) {
	c := Built()
	lake, err := c.Climate("lake-foothills")
	if err != nil {
		t.Fatal(err)
	}
	y := season.NewYear(lake.Climate.Daily(), nil)
	today := day.Of(2027, 3, 18)
	month := func(d day.Day) time.Month { return d.Month() }
	for _, want := range []struct {
		id           string
		leaf, bloom  []time.Month
		afterLeafing bool
	}{
		{"forsythia-intermedia", []time.Month{4}, []time.Month{3, 4}, false},
		{"syringa-vulgaris", []time.Month{3, 4}, []time.Month{4, 5}, true},
		{"hydrangea-macrophylla", []time.Month{4}, []time.Month{6, 7}, true},
		{"camellia-japonica", []time.Month{4}, []time.Month{2}, false},
		{"nerium-oleander", []time.Month{5}, []time.Month{6}, true},
		{"wisteria-sinensis", []time.Month{4, 5}, []time.Month{4, 5}, true},
		{"camellia-sasanqua", []time.Month{4}, []time.Month{10}, true},
	} {
		e, _ := c.Species(want.id)
		d := e.Dates(y, today)
		t.Logf("%-24s leaf %s (%s to %s), bloom %s to %s", e.Common, d.LeafOut.Mid.Words(), d.LeafOut.Early.Words(),
			d.LeafOut.Late.Words(), d.BloomStart.Mid.Words(), d.BloomEnd.Mid.Words())
		if !in(month(d.LeafOut.Mid), want.leaf) || !in(month(d.BloomStart.Mid), want.bloom) {
			t.Errorf("%s: leaf %s, bloom %s", want.id, d.LeafOut.Mid, d.BloomStart.Mid)
		}
		if (d.BloomStart.Mid > d.LeafOut.Mid) != want.afterLeafing {
			t.Errorf("%s: bloom %s against leaf %s", want.id, d.BloomStart.Mid, d.LeafOut.Mid)
		}
	}
	crape, _ := c.Species("lagerstroemia-indica")
	lilac, _ := c.Species("syringa-vulgaris")
	if crape.Dates(y, today).LeafOut.Late <= lilac.Dates(y, today).LeafOut.Late {
		t.Error("crape myrtle leafs out before lilac")
	}
}

func in(m time.Month, ms []time.Month) bool {
	for _, x := range ms {
		if x == m {
			return true
		}
	}
	return false
}

func TestFaultsNameFileEntryAndField(t *testing.T) {
	good, err := data.ReadFile("data/species/palms.yaml")
	if err != nil {
		t.Fatal(err)
	}
	climates, _ := data.ReadFile("data/climates.yaml")
	for _, c := range []struct{ name, old, new, want string }{
		{"a word for a number", "hardiness_c: -14", "hardiness_c: cold", `field "hardiness_c"`},
		{"unknown field", "lateness_days: 60", "latenes_days: 60", `field "latenes_days"`},
		{"impossible hardiness", "hardiness_c: -14", "hardiness_c: -140", "hardiness_c: -140 °C is outside"},
		{"unknown form", "form: palm", "form: plam", `form: "plam" is not known`},
		{"missing family", "family: Arecaceae", "family: ''", "family: is missing"},
		{"anchor without meaning", "leaf_out: {warmth: 530, chill: 0.5, mean_c: 10}", "leaf_out: {days: 4}", "leaf_out.anchor: want exactly one"},
		{"anchor on nothing", "after: bloom_start", "after: the_party", `bloom.end.after: "the_party"`},
		{"palm that may be cut", "hard_pruning: never", "hard_pruning: old wood", "hard_pruning: a palm"},
		{"caution of no kind", "kind: thorns", "kind: ghosts", "cautions[0].kind"},
	} {
		spoilt := strings.Replace(string(good), c.old, c.new, 1)
		if spoilt == string(good) {
			t.Fatalf("%s: the entry no longer holds %q", c.name, c.old)
		}
		_, err := Load(fstest.MapFS{
			"data/species/palms.yaml": {Data: []byte(spoilt)},
			"data/climates.yaml":      {Data: climates},
		})
		if err == nil {
			t.Errorf("%s: taken", c.name)
			continue
		}
		for _, part := range []string{"palms.yaml", "trachycarpus-fortunei", c.want} {
			if !strings.Contains(err.Error(), part) {
				t.Errorf("%s: error does not name %q: %v", c.name, part, err)
			}
		}
	}
	twice := fstest.MapFS{"data/species/a.yaml": {Data: good}, "data/species/b.yaml": {Data: good}, "data/climates.yaml": {Data: climates}}
	if _, err := Load(twice); err == nil || !strings.Contains(err.Error(), "already used in data/species/a.yaml") {
		t.Errorf("the same id twice: %v", err)
	}
}

func TestUnknownSpeciesProposes(t *testing.T) {
	_, err := Built().Species("camelia-japonica")
	if err == nil || !strings.Contains(err.Error(), "camellia-japonica") {
		t.Errorf("%v", err)
	}
	if _, err := Built().Species("zzz"); err == nil {
		t.Error("zzz was found")
	}
}

func BenchmarkLoad(b *testing.B) {
	for b.Loop() {
		if _, err := Load(data); err != nil {
			b.Fatal(err)
		}
	}
}

// TestFieldsComeFromKnowledge: what roots bear, how a plant dries and what it regrows is known kind by kind, not reckoned from its
// hardiness: no straight line through all kinds tells it.
func TestFieldsComeFromKnowledge(t *testing.T) {
	var hard []float64
	fields := map[string][]float64{}
	for _, e := range Built().Entries {
		hard = append(hard, e.HardinessC)
		fields["root_hardiness_c"] = append(fields["root_hardiness_c"], e.RootHardinessC)
		fields["drying_kpa_h"] = append(fields["drying_kpa_h"], e.DryingKPAH)
		fields["regrowth_cm"] = append(fields["regrowth_cm"], e.RegrowthCM)
	}
	pets, other := 0, 0
	for _, e := range Built().Entries {
		if (e.PetDanger != "none") != (e.Poisonous != "no") {
			other++ // what is told of pets is not told by what is told of people
		}
		if e.PetDanger != "none" {
			pets++
		}
		for _, f := range basisFields {
			if !slices.Contains([]string{Measured, Usual, Guess}, e.Basis[f]) {
				t.Errorf("%s: %s rests on %q", e.ID, f, e.Basis[f])
			}
		}
	}
	if pets < 60 || other < 20 {
		t.Errorf("%d kinds are told to endanger pets, %d of them otherwise than people", pets, other)
	}
	for name, v := range fields {
		r := stat.Correlation(hard, v, nil)
		t.Logf("%s explains %.0f %% of hardiness", name, 100*r*r)
		if r*r > 0.9 {
			t.Errorf("%s follows hardiness by a line: r² %.2f", name, r*r)
		}
	}
}
