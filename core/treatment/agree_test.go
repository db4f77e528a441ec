package treatment

import (
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
)

// TestAgreesWithTheCause: what is named and what is done about it never speak against each other: nothing is sprayed,
// cut out or dug out that the cause's page leaves alone, and nobody is told to leave what fells a tree, must be
// reported or is replaced.
func TestAgreesWithTheCause(t *testing.T) {
	at := place(t, "lake-foothills")
	all := catalogue.Built().Entries
	b := cause.Built()
	asked := 0
	for i := range b.Causes {
		c := &b.Causes[i]
		hosts := 0
		for j := 0; j < len(all) && hosts < 4; j += 3 {
			e := &all[j]
			if c.OnKind(e) < 0.5 {
				continue
			}
			hosts++
			for _, share := range []float64{0.05, 0.2, 0.6} {
				o, err := Built().Plan(Ask{Cause: c.ID, Species: e, Place: at, Date: day.Of(2027, 6, 10), Share: share})
				if err != nil {
					t.Fatalf("%s on %s: %v", c.ID, e.ID, err)
				}
				asked++
				act, do := c.Rung(share)
				hard := slices.Contains([]string{"cutting", "soft", "strong", "replace"}, o.Rung)
				special := Built().programme(&Ask{Cause: c.ID, Species: e, HeightM: e.Mature.HeightM}).forSome()
				if act == "none" && hard && !special {
					t.Errorf("%s on %s at %.2f: left alone by its page (%s), %s by its treatment: %s", c.ID, e.ID, share, do, o.Rung, o.Text)
				}
				if (c.Danger == "falls" || act == "replace") && o.Rung == "none" && !strings.Contains(strings.ToLower(stepsOf(o)+o.Text+strings.Join(o.Cautions, " ")), "arborist") {
					t.Errorf("%s on %s at %.2f: %s by its page, nothing by its treatment: %s", c.ID, e.ID, share, act, o.Text)
				}
			}
		}
	}
	if asked < 1000 {
		t.Errorf("only %d asked", asked)
	}
}
