package days

import "testing"

// TestPlaceIsSaidOnce: what holds in a place stands on the first job of a visit that it is about, and on no other.
func TestPlaceIsSaidOnce(t *testing.T) {
	v := SheetVisit{Jobs: []SheetJob{{Cautions: []string{"Thorns.", "Look for nests."}}}}
	if got := v.unsaid([]string{"Look for nests.", "No burning."}); len(got) != 1 || got[0] != "No burning." {
		t.Errorf("%q", got)
	}
}
