package cause

import (
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
)

// TestNextFitsThePlant: whatever is seen on a plant without a trunk, nobody is sent to look at its trunk; a tree has
// one.
func TestNextFitsThePlant(t *testing.T) {
	b, book := Built(), catalogue.Built()
	asked := 0
	for n, id := range []string{"rosa-bedding", "hydrangea-macrophylla", "buxus-sempervirens", "lavandula-angustifolia", "hosta-hybrid", "wisteria-sinensis", "malus-domestica"} {
		e, known := book.Entry(id)
		if !known {
			t.Fatalf("%s is not in the book", id)
		}
		for i := range b.Signs {
			month := []int{2, 7}[(i+n)%2] // each sign in both, on kinds that differ
			d, err := b.Diagnose(Case{Species: e, Month: month, Seen: []string{b.Signs[i].ID}})
			if err != nil {
				t.Fatal(err)
			}
			if d.Next == nil {
				continue
			}
			trunk := strings.Contains(strings.ToLower(d.Next.Ask+d.Next.How+d.Next.Part), "trunk")
			if trunk && e.Form != catalogue.Tree {
				t.Errorf("%s with %s in month %d is asked: %s (%s) %s", id, b.Signs[i].ID, month, d.Next.Ask, d.Next.Part, d.Next.How)
			}
			if trunk {
				asked++
			}
		}
	}
	if asked == 0 {
		t.Error("no tree was ever asked about its trunk")
	}
}

// TestNoSenselessQuestion: whatever a plant's first sign is, it is asked for nothing that its form cannot show: no torn
// broad leaves of conifers, no flare of palms and perennials, no graft of what is never grafted, no pot of a tall tree.
func TestNoSenselessQuestion(t *testing.T) {
	b, book := Built(), catalogue.Built()
	starts := []string{"leaf_drop", "edge_brown", "die_back_tips", "pale_all_over", "stunted", "curled", "no_bloom", "slow", "one_side", "early_colour"}
	never := map[catalogue.Form][]string{
		catalogue.Conifer:   {"tattered", "shot_holes", "half_moons", "black_spots_fringed", "heart_pulls_out", "holes_big_palm", "fruit_scabs"},
		catalogue.Palm:      {"no_flare", "buds_brown_inside", "needle_bands", "cone_galls", "shoots_below_graft", "cut_hard"},
		catalogue.Perennial: {"no_flare", "root_across", "bark_split_south", "brackets", "lichen", "needle_bands", "graft_buried"},
		catalogue.Shrub:     {"needle_bands", "heart_pulls_out", "holes_big_palm", "no_flare"},
		catalogue.Tree:      {"pot_small", "roots_circling", "gnats", "needle_bands", "heart_pulls_out"},
	}
	games, asked := 0, 0
	for i := 0; i < len(book.Entries); i += 9 {
		e := &book.Entries[i]
		for j, s := range starts {
			k := Case{Species: e, Month: 1 + (i+4*j)%12, Seen: []string{s}}
			if b.Validate(k) != nil {
				continue
			}
			games++
			for range 3 {
				d, err := b.Diagnose(k)
				if err != nil {
					t.Fatal(err)
				}
				if d.Next == nil {
					break
				}
				asked++
				bad := slices.Contains(never[e.Form], d.Next.ID) && !(e.Form == catalogue.Tree && e.Mature.HeightM <= pottedM)
				graft := strings.Contains(d.Next.ID, "graft") && b.Cause("rootstock-shoots").OnKind(e) < 0.5 && b.Cause("buried-graft").OnKind(e) < 0.5
				if bad || graft {
					t.Errorf("%s (%s) with %s in month %d is asked: %s", e.ID, e.Form, s, k.Month, d.Next.Ask)
				}
				k.Absent = append(k.Absent, d.Next.ID)
			}
		}
	}
	t.Logf("%d starts, %d questions", games, asked)
}
