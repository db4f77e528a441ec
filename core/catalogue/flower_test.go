package catalogue

import (
	"slices"
	"strings"
	"testing"
)

// TestFlowers: each name in the list is a genus or a kind of the catalogue, each colour is known; and a few kinds are
// as every gardener knows them.
func TestFlowers(t *testing.T) {
	genera, ids := map[string]bool{}, map[string]bool{}
	for _, e := range Built().Entries {
		genera[e.Genus()], ids[e.ID] = true, true
	}
	for name, f := range flowers() {
		if !genera[name] && !ids[name] {
			t.Errorf("%s is neither a genus nor a kind of the catalogue", name)
		}
		if err := f.Validate(); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
	for id, want := range map[string]string{
		"syringa-vulgaris": "purple scent rich", "forsythia-intermedia": "yellow", "hydrangea-petiolaris": "white scent some",
		"lavandula-angustifolia": "purple scent rich", "camellia-japonica": "red", "camellia-sasanqua": "white scent", "cornus-mas": "yellow rich",
		"fagus-sylvatica": "", "picea-abies": "", "rosa-rugosa": "pink scent rich", "tilia-cordata": "scent rich", "rhododendron-luteum": "yellow scent",
		"viburnum-bodnantense": "pink scent", "gardenia-jasminoides": "white scent", "trachelospermum-jasminoides": "white scent",
	} {
		e, _ := Built().Entry(id)
		have := slices.Concat(e.Flower.Colours, []string{e.Flower.Bees})
		if e.Flower.Scent {
			have = append(have, "scent")
		}
		for _, w := range strings.Fields(want) {
			if !slices.Contains(have, w) {
				t.Errorf("%s: %v, and not %s", id, have, w)
			}
		}
		if want == "" && (len(e.Flower.Colours) > 0 || e.Flower.Scent) {
			t.Errorf("%s: %v", id, have)
		}
	}
}

// TestFlowersSeen: of what a gardener says that it is in bloom, and of what nobody does.
func TestFlowersSeen(t *testing.T) {
	for id, want := range map[string]bool{
		"camellia-japonica": true, "lavandula-angustifolia": true, "miscanthus-sinensis": true, "malus-domestica": true, "hedera-helix": true,
		"pinus-nigra": false, "taxus-baccata": false, "dryopteris-filix-mas": false, "dicksonia-antarctica": false, "cycas-revoluta": false,
		"quercus-robur": false, "fagus-sylvatica": false,
	} {
		e, known := Built().Entry(id)
		if !known {
			t.Fatalf("%s is not in the book", id)
		}
		if e.FlowersSeen() != want {
			t.Errorf("%s: %v", id, !want)
		}
	}
}
