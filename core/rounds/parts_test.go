package rounds

import (
	"math"
	"testing"
)

// TestParts: what no day holds is done on days running; what one day holds is left whole.
func TestParts(t *testing.T) {
	at := &Point{45.9, 8.5}
	crew := func(size, from, to int, skills ...string) Crew {
		return Crew{Name: "A", Size: size, Hours: week(from, to), Start: at, Skills: skills}
	}
	cases := []struct {
		name  string
		crews []Crew
		job   Job
		want  int
	}{
		{"a day's work", []Crew{crew(1, 8, 17)}, Job{Minutes: 500}, 0},
		{"twenty hours for one", []Crew{crew(1, 8, 17)}, Job{Minutes: 1200}, 3},
		{"twenty hours of two people for a crew of two", []Crew{crew(2, 8, 17)}, Job{Minutes: 1200, People: 2}, 3},
		{"twenty hours of one person shared by four", []Crew{crew(4, 8, 17)}, Job{Minutes: 1200}, 0},
		{"the crew that is quickest is meant", []Crew{crew(1, 8, 12), crew(2, 8, 17)}, Job{Minutes: 1600}, 2},
		{
			"a crew without the skill does not count",
			[]Crew{crew(4, 8, 17), crew(1, 8, 17, "climbing")},
			Job{Minutes: 900, Skills: []string{"climbing"}},
			2,
		},
		{"nobody is able: it is not cut up", []Crew{crew(1, 8, 17)}, Job{Minutes: 1200, People: 3}, 0},
		{"a break and loading are no time for it", []Crew{func() Crew {
			c := crew(1, 8, 17)
			c.Break, c.Load = &Break{From: 720, Minutes: 60}, 60
			return c
		}()}, Job{Minutes: 430}, 2},
		{"a gate that is open for four hours", []Crew{crew(1, 8, 17)}, Job{Minutes: 380, Place: 1}, 2},
	}
	for _, c := range cases {
		c.job.Costs = []int{0, 0, 0, 0, 0}
		p := &Problem{From: monday, Days: 5, Crews: c.crews, Jobs: []Job{c.job},
			Places: []Place{{Name: "G", At: at}, {Name: "H", At: at, Access: week(9, 13)}}}
		got, sum := p.Parts(0), 0.0
		for _, m := range got {
			if sum += m; math.Abs(m-got[0]) > 1 {
				t.Errorf("%s: uneven: %v", c.name, got)
			}
		}
		if len(got) != c.want || len(got) > 0 && math.Abs(sum-c.job.Minutes) > 1e-6 {
			t.Errorf("%s: %v, want %d parts of %g minutes together", c.name, got, c.want, c.job.Minutes)
		}
	}
}
