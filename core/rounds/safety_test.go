package rounds

import (
	"fmt"
	"slices"
	"testing"
)

// at is a garden so many minutes' drive from the depot, roughly.
func garden(name string, far float64) Place {
	return Place{Name: name, At: &Point{45.9 + far*0.006, 8.6}}
}

// visitsOf are a plan's visits of a day.
func visitsOf(plan Plan, d int) (out []Visit) {
	for _, v := range plan.Visits {
		if v.Day == d {
			out = append(out, v)
		}
	}
	return out
}

// TestSafeFirst: what hangs over people is made safe on the first day, before anything else that crew does, however far
// it is, however full the day, whoever was told another thing; and it is told as what could not be where nobody can.
func TestSafeFirst(t *testing.T) {
	depot := &Point{45.9, 8.6}
	free := []int{0, 0, 0, 0, 0}
	fresh := func() *Problem {
		p := &Problem{From: monday, Days: 5, Crews: []Crew{{Name: "Crew", Size: 2, Hours: week(8, 16), Start: depot, Skills: []string{"climbing"}}}}
		p.Places = []Place{garden("Far", 45), garden("Near", 5), garden("Next", 6), garden("By", 7)}
		p.Jobs = []Job{{Title: "Hanging limb", Place: 0, Minutes: 90, People: 2, Skills: []string{"climbing"}, Costs: []int{0, 5, 10, 20, 30}, Later: 60, Urgent: true}}
		for i := range 9 {
			p.Jobs = append(p.Jobs, Job{Title: fmt.Sprint("Work ", i), Place: 1 + i%3, Minutes: 200, People: 2, Costs: free, Later: 20})
		}
		return p
	}
	first := func(name string, p *Problem) {
		t.Helper()
		plan, err := Make(p, 3, Rounds(150))
		if err != nil {
			t.Fatal(err)
		}
		day := visitsOf(plan, 0)
		if len(day) == 0 || !slices.Contains(day[0].Jobs, 0) {
			t.Errorf("%s: the limb is not the first visit of the first day: %+v; left %+v", name, day, plan.Left)
		}
	}
	first("a far limb among much near work", fresh())
	told := fresh()
	for i := 1; i < 4; i++ {
		told.Jobs[i].Was, told.Jobs[i].Told = &Pin{Crew: 0, Day: 0}, true
	}
	first("a day that three clients were told", told)
	pinned := fresh()
	pinned.Jobs[1].Pin = &Pin{Crew: 0, Day: 0}
	pinned.Jobs[2].Pin = &Pin{Crew: 0, Day: 0}
	first("two jobs that are pinned there", pinned)

	nobody := fresh()
	nobody.Crews[0].Skills = nil
	plan, err := Make(nobody, 3, Rounds(20))
	if err != nil || !slices.ContainsFunc(plan.Left, func(l Left) bool { return l.Job == 0 && l.Why != "" }) {
		t.Errorf("nobody can climb, and the limb is not among what is left: %+v, %v", plan.Left, err)
	}
}

// TestTreatedAlone: no other crew works on plants on the day they are treated; one crew may do both in one visit, the
// treatment last, even where its label lets people in again at once.
func TestTreatedAlone(t *testing.T) {
	for _, closes := range []int{0, 1} {
		for seed := range uint64(20) {
			p := &Problem{From: monday, Days: 2}
			for c := range 2 {
				p.Crews = append(p.Crews, Crew{Name: fmt.Sprint("Crew ", c+1), Size: 1, Hours: week(8, 12), Start: &Point{45.9, 8.6}})
			}
			p.Crews[0].Skills = []string{"licence"}
			p.Places = []Place{garden("Roses", 4), garden("Elsewhere", 9)}
			// Alone neither crew has time for both, and Tuesday is bad for pruning: the plan would like both on Monday.
			p.Jobs = []Job{
				{Title: "Spray", Minutes: 120, Skills: []string{"licence"}, Costs: []int{0, 80}, Later: 90, Work: Spray, Closes: closes, Plants: []int64{7}},
				{Title: "Prune", Minutes: 150, Costs: []int{0, 70}, Later: 90, Plants: []int64{7}},
				{Title: "Weed", Place: 1, Minutes: 60, Costs: []int{0, 0}, Later: 20, Plants: []int64{8}},
			}
			plan, err := Make(p, seed, Rounds(60))
			if err != nil {
				t.Fatal(err)
			}
			at := map[int]Visit{}
			for _, v := range plan.Visits {
				for _, j := range v.Jobs {
					at[j] = v
				}
			}
			spray, a := at[0]
			prune, b := at[1]
			if a && b && spray.Day == prune.Day && spray.Crew != prune.Crew {
				t.Fatalf("pruned by %s on the day %s sprays", p.Crews[prune.Crew].Name, p.Crews[spray.Crew].Name)
			}
			if a && b && spray.Day == prune.Day && spray.Jobs[len(spray.Jobs)-1] != 0 {
				t.Errorf("sprayed before it is pruned: %v", spray.Jobs)
			}
		}
	}
}

// TestNothingInTheDark: work ends by sunset, though a crew may work an hour over; the way home may be dark.
func TestNothingInTheDark(t *testing.T) {
	for sunset := 15 * 60; sunset <= 17*60; sunset += 15 {
		p := &Problem{From: monday, Days: 1, Light: []Span{{7 * 60, sunset}}, Places: []Place{garden("One", 3), garden("Two", 6)}}
		p.Crews = []Crew{{Name: "Crew", Size: 1, Hours: week(8, 16), Start: &Point{45.9, 8.6}}}
		for i := range 8 {
			p.Jobs = append(p.Jobs, Job{Place: i % 2, Minutes: 60, Costs: []int{0}, Later: Forbidden, Weight: 5, Work: Aloft})
		}
		plan, err := Make(p, 1, Rounds(60))
		if err != nil {
			t.Fatal(err)
		}
		last := 0
		for _, v := range plan.Visits {
			last = max(last, v.To)
		}
		if last > sunset {
			t.Errorf("sunset at %d:%02d, work until %d:%02d", sunset/60, sunset%60, last/60, last%60)
		}
		if last < min(sunset, 16*60)-70 {
			t.Errorf("sunset at %d:%02d, and work ends at %d:%02d already", sunset/60, sunset%60, last/60, last%60)
		}
	}
}
