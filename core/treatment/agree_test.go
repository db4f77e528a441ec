package treatment

import (
	"regexp"
	"slices"
	"strings"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/cause"
	"mezzadro/core/day"
	"mezzadro/core/job"
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

// TestLicensedStepsAskForTheirLicence: a step that says a licensed arborist or firm does it is theirs as a job too; and
// a tree that wilts is parted from its neighbours before it is felled, its wood seen to after.
func TestLicensedStepsAskForTheirLicence(t *testing.T) {
	aside := regexp.MustCompile(`arborist looks at trees|aloft it is`) // what the step says of other cases
	said := regexp.MustCompile(`licensed (arborist|firm|hand)`)
	for _, p := range Built().Programmes {
		for _, r := range append(slices.Clone(p.Rungs), p.Prevent...) {
			for _, s := range r.Steps {
				act := Built().Active(s.Use)
				if said.MatchString(s.Do) && !aside.MatchString(s.Do) && s.Who == "" && (act == nil || !act.Licence) {
					t.Errorf("%s: %q asks for no licence", p.ID, s.Do)
				}
			}
		}
	}
	elm, _ := catalogue.Built().Entry("ulmus-americana")
	a := Ask{Cause: "elm-disease", Species: elm, Place: place(t, "great-lakes"), Date: day.Of(2027, 7, 10), Share: 0.7, Count: 1, HeightM: 18}
	o, err := Built().Plan(a)
	if err != nil || o.Rung != "replace" || len(o.Steps) < 3 {
		t.Fatalf("%+v, %v", o, err)
	}
	for i, want := range []string{"trench", "fells", "Wood"} {
		if !strings.Contains(o.Steps[i].Do, want) || i > 0 && o.Steps[i].Day <= o.Steps[i-1].Day {
			t.Errorf("step %d on %s: %q, want %q", i+1, o.Steps[i].Day, o.Steps[i].Do, want)
		}
		if k := o.Order(a, o.Steps[i]); i < 2 && !slices.Contains(k.Skills, job.Arborist) {
			t.Errorf("%q asks for %v", k.Title, k.Skills)
		}
	}
}
