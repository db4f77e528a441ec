package outcome

import (
	"cmp"
	"slices"
)

// Case is a prognosis with what came of it, and of what it was.
type Case struct {
	Foretold
	Kind    string // of plant, by catalogue id
	Verdict string
	Zone    string // of hardiness
	Person  string // who decided; empty: not known
	Cause   string // what ailed it; empty: not known
}

// Group is the score of those that have something in common.
type Group struct {
	By   string `json:"by" enum:"kind,verdict,zone,person,cause"`
	Name string `json:"name" doc:"Of the kind of plant, verdict, hardiness zone, person or cause"`
	Score
}

// fewestInGroup is how many have to be judged before a group says anything.
const fewestInGroup = 3

// Groups scores prognoses by what they have in common, those with the most judged first.
func Groups(list []Case) []Group {
	of := map[[2]string][]Foretold{}
	for _, c := range list {
		for by, name := range map[string]string{"kind": c.Kind, "verdict": c.Verdict, "zone": c.Zone, "person": c.Person, "cause": c.Cause} {
			if name != "" {
				of[[2]string{by, name}] = append(of[[2]string{by, name}], c.Foretold)
			}
		}
	}
	out := []Group{}
	for k, told := range of {
		if s := ScoreOf(told); s.Judged >= fewestInGroup {
			out = append(out, Group{k[0], k[1], s})
		}
	}
	slices.SortFunc(out, func(a, b Group) int {
		return cmp.Or(cmp.Compare(a.By, b.By), cmp.Compare(b.Judged, a.Judged), cmp.Compare(a.Name, b.Name))
	})
	return out
}
