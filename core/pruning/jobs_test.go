package pruning

import (
	"strings"
	"testing"

	"mezzadro/core/day"
)

// TestTitles: what a crew reads at the head of a job.
func TestTitles(t *testing.T) {
	for _, c := range []struct {
		purpose Purpose
		species string
		count   int
		want    string
	}{
		{Shape, "rosa-bedding", 12, "Cut Bedding rose × 12"},
		{Hedge, "carpinus-betulus", 1, "Trim Hornbeam"},
		{Renew, "philadelphus-coronarius", 1, "Renew Mock orange"},
		{Renew, "cytisus-scoparius", 3, "Trim Broom × 3 lightly"},
		{Dead, "trachycarpus-fortunei", 1, "Take dead fronds off Windmill palm"},
		{Deadhead, "rosa-bedding", 1, "Take faded heads off Bedding rose"},
	} {
		e := entry(t, c.species)
		if got := Title(c.purpose, e, c.count); got != c.want {
			t.Errorf("%s: %q, want %q", c.species, got, c.want)
		}
	}
}

// TestJobsOfAPlan: every gap is to a job of the same plan, and none to itself; each reason is a sentence, house rules
// too.
func TestJobsOfAPlan(t *testing.T) {
	for _, species := range []string{"philadelphus-coronarius", "cytisus-scoparius", "rosa-bedding", "taxus-baccata", "trachycarpus-fortunei"} {
		for _, purpose := range Purposes {
			a := Ask{Species: entry(t, species), Place: year(t, "lake-foothills"), Date: day.Of(2027, 3, 1), Purpose: purpose, Count: 2}
			p, err := For(a)
			if err != nil {
				continue // not every purpose is one for every kind: other tests say which
			}
			keys := map[string]bool{}
			for i, o := range p.Jobs(a, 30, "Asked for by the client.", p.Best) {
				for _, g := range o.After {
					if !keys[g.Job] {
						t.Errorf("%s, %s: %q comes after %q, which is not before it", species, purpose, o.Title, g.Job)
					}
				}
				if keys[o.Key] || o.Minutes < 1 || i == 0 && len(o.After) > 0 {
					t.Errorf("%s, %s: %+v", species, purpose, o)
				}
				keys[o.Key] = true
				for _, why := range o.Reasons {
					if !strings.HasSuffix(why, ".") || why[0] < 'A' || why[0] > 'Z' {
						t.Errorf("%s, %s: %q tells %q, which is no sentence", species, purpose, o.Title, why)
					}
				}
			}
			if len(keys) == 0 {
				t.Errorf("%s, %s: no job", species, purpose)
			}
		}
	}
}
