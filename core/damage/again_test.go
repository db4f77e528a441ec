package damage

import (
	"math"
	"math/rand/v2"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/check"
	"mezzadro/core/season"
)

// TestNothingIsAskedTwice: whatever is found, nobody is asked for a check that was just made at that height; only a crown
// that felt soft is felt again, where life above it says otherwise.
func TestNothingIsAskedTwice(t *testing.T) {
	y := season.NewYear(lake(t).Daily(), nil)
	draw := rand.New(rand.NewPCG(7, 35))
	asked, plants := 0, 0
	for i, e := range catalogue.Built().Entries {
		if i%5 != 0 {
			continue
		}
		plants++
		for range 4 {
			var checks []check.Check
			for range 12 {
				a, err := inWords(ask(t, e.ID, e.Mature.HeightM, march, y, checks...))
				if err != nil {
					t.Fatalf("%s: %v", e.ID, err)
				}
				n := a.Next
				if n == nil {
					break
				}
				asked++
				for _, c := range checks {
					if c.Kind == n.Kind && math.Abs(c.HeightM-n.HeightM) < 0.03 && c.Result != "soft" {
						t.Errorf(
							"%s: %s at %.2f m is asked for again, after %s at %.2f m",
							e.ID,
							n.Kind,
							n.HeightM,
							c.Result,
							c.HeightM,
						)
					}
				}
				c := check.Check{Kind: n.Kind, HeightM: n.HeightM}
				of := check.Of(n.Kind)
				if len(of.Results) > 0 {
					c.Result = of.Results[draw.IntN(len(of.Results))].Key
				} else if of.Answer {
					c.Seen = []string{"yes", "no"}[draw.IntN(2)]
				} else {
					c.Held = draw.IntN(n.Buds + 1)
					c.Broke = n.Buds - c.Held
				}
				checks = append(checks, c)
			}
		}
	}
	t.Logf("%d checks asked of %d kinds", asked, plants)
}
