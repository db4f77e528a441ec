package cause

import (
	"slices"
	"testing"
)

// TestCallSheet: answers tell signs of the book, no answer says a sign is both there and not, and what a worried client
// says leads somewhere sensible.
func TestCallSheet(t *testing.T) {
	b := Built()
	answer := map[string]Answer{}
	for _, q := range CallSheet() {
		for _, a := range q.Answers {
			for _, id := range append(slices.Clone(a.Seen), a.Not...) {
				if b.Sign(id) == nil {
					t.Errorf("%s %s: %q is no sign", q.Key, a.Key, id)
				}
			}
			if err := b.Validate(Case{Month: 5, Seen: a.Seen, Absent: a.Not}); err != nil {
				t.Errorf("%s %s: %v", q.Key, a.Key, err)
			}
			answer[q.Key+" "+a.Key] = a
		}
	}
	for _, c := range []struct {
		name, species string
		month         int
		says          []string
		seen, want    string
	}{
		{"everything twisted since the verge was treated", "rosa-shrub", 5, []string{"how_long overnight", "which_plants many", "sprays weeds"}, "strap_twisted", "spray-drift"},
		{"burnt since the oak was felled", "hosta-hybrid", 6, []string{"changed shade", "side side"}, "bleached_patches", "sunscald-leaf"},
		{"hangs in wet soil", "rhododendron-hybrid", 8, []string{"water wet", "which_plants this"}, "roots_brown", "root-rot"},
	} {
		k := kase(t, c.species, c.month, c.seen, "")
		for _, s := range c.says {
			k.Seen, k.Absent = append(k.Seen, answer[s].Seen...), append(k.Absent, answer[s].Not...)
		}
		if d, err := b.Diagnose(k); err != nil || d.Causes[0].ID != c.want {
			t.Errorf("%s: %+v, %v", c.name, d.Text, err)
		}
	}
}
