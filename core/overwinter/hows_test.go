package overwinter

import (
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/day"
	"mezzadro/core/season"
)

// TestHowsAgreeWithSteps: over all kinds and climates, in the ground and in pots, nobody is told that nothing is needed
// beside a day on which something is to be done, and whatever is not left has a way of doing it.
func TestHowsAgreeWithSteps(t *testing.T) {
	for _, c := range catalogue.Built().Climates {
		y, today := season.NewYear(c.Climate.Daily(), nil), day.Of(2026, 10, 10)
		if c.Climate.South() {
			today = day.Of(2027, 4, 10)
		}
		for _, e := range catalogue.Built().Entries {
			for _, pot := range []float64{0, 40} {
				w := Plan(check.Plant{Species: e, HeightM: min(2, e.Mature.HeightM), PotL: pot}, 1, y, today)
				text := strings.Join(w.How, " ")
				idle := strings.Contains(text, "nothing is needed")
				if idle && (len(w.Steps) > 0 || w.Way != StaysOut) {
					t.Errorf("%s, %s, pot %.0f: %s, but %q", c.ID, e.ID, pot, w.Way, text)
				}
				if !e.Annual && len(w.How) == 0 {
					t.Errorf("%s, %s, pot %.0f: nothing says how", c.ID, e.ID, pot)
				}
			}
		}
	}
}
