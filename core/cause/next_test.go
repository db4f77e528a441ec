package cause

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
)

// TestNextFitsThePlant: whatever is seen on a plant without a trunk, nobody is sent to look at its trunk; a tree has one.
func TestNextFitsThePlant(t *testing.T) {
	b, book := Built(), catalogue.Built()
	asked := 0
	for _, id := range []string{"rosa-bedding", "hydrangea-macrophylla", "buxus-sempervirens", "lavandula-angustifolia", "hosta-hybrid", "wisteria-sinensis", "malus-domestica"} {
		e, known := book.Entry(id)
		if !known {
			t.Fatalf("%s is not in the book", id)
		}
		for i := range b.Signs {
			for _, month := range []int{2, 7} {
				k := Case{Species: e, Month: month, Seen: []string{b.Signs[i].ID}}
				d, err := b.Diagnose(k)
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
	}
	if asked == 0 {
		t.Error("no tree was ever asked about its trunk")
	}
}
