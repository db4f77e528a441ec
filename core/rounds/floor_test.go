package rounds

import (
	"math/rand/v2"
	"testing"
)

// TestFloorIsBelow: over 200 small cases a floor is never above what going through all arrangements finds, however
// short or long it was looked for, and longer is no worse.
func TestFloorIsBelow(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 4))
	sum, best := 0.0, 0.0
	for n := range 200 {
		p := random(r, 3+r.IntN(2), 2+r.IntN(2), 1+r.IntN(2), 2)
		want := exact(p)
		last := 0.0
		for _, rounds := range []int{0, 12, 80} {
			got, err := Floor(p, Rounds(rounds))
			if err != nil {
				t.Fatal(err)
			}
			if got > want+1e-6 {
				t.Errorf("case %d, %d rounds: floor %.2f above the best, %.2f", n, rounds, got, want)
			}
			if rounds == 0 {
				last = got
			}
			if rounds == 80 {
				if got < last-1e-6 {
					t.Errorf("case %d: floor %.2f after 80 rounds, %.2f after none", n, got, last)
				}
				sum, best = sum+got, best+want
			}
		}
	}
	if sum < 0.65*best { // what must be done by daylight, by one crew alone, or over a tip, no floor sees
		t.Errorf("floors are %.0f %% of the best on average", 100*sum/best)
	}
	t.Logf("floors are %.1f %% of the best on average", 100*sum/best)
}

// TestFloorKnowsFullDays: one crew, one day of eight hours, ten jobs of two hours each at one property: three cannot
// be done, and the floor says so; each is dear to leave.
func TestFloorKnowsFullDays(t *testing.T) {
	home := &Point{45.9, 8.6}
	p := &Problem{From: monday, Days: 1, Crews: []Crew{{Name: "Crew", Size: 1, Hours: week(8, 16), Start: home}}}
	p.Places = []Place{{Name: "Garden", At: home}}
	for range 10 {
		p.Jobs = append(p.Jobs, Job{Minutes: 120, Costs: []int{0}, Later: Forbidden})
	}
	plan, err := Make(p, 1, Rounds(50))
	if err != nil {
		t.Fatal(err)
	}
	floor, err := Floor(p, Rounds(200))
	if err != nil {
		t.Fatal(err)
	}
	if len(plan.Left) < 5 || floor < 0.85*plan.Score.Total || floor > plan.Score.Total+0.06 { // told to a tenth
		t.Errorf("%d left, costs %.1f, floor %.1f: six at least are left, and dear", len(plan.Left), plan.Score.Total, floor)
	}
	if plain := plan.Bound; plain > 0.2*floor {
		t.Errorf("the bound that knows no full days, %.1f, is near the floor %.1f: the case shows nothing", plain, floor)
	}
}

// TestFloorKnowsGaps: two jobs at one property, a week between them, need two visits.
func TestFloorKnowsGaps(t *testing.T) {
	p := &Problem{From: monday, Days: 12, Crews: []Crew{{Name: "Crew", Size: 1, Hours: week(8, 16), Start: &Point{45.9, 8.6}}}}
	p.Places = []Place{{Name: "Garden", At: &Point{45.95, 8.7}}}
	free := make([]int, 12)
	p.Jobs = []Job{{Minutes: 20, Costs: free, Later: Forbidden}, {Minutes: 20, Costs: free, Later: Forbidden}}
	loose, _ := Floor(p, Rounds(200))
	p.Jobs[1].After = []Gap{{Job: 0, Min: 7}}
	tied, err := Floor(p, Rounds(200))
	if err != nil {
		t.Fatal(err)
	}
	if tied < 1.5*loose {
		t.Errorf("floor %.1f with a gap, %.1f without: the way is gone twice", tied, loose)
	}
}

// TestFloorEndsInTime: a floor whose rounds take a quarter of its time each leaves enough of it to weigh what it found,
// and finds something; with rounds that take the whole it goes through one at most.
func TestFloorEndsInTime(t *testing.T) {
	p := firm(6, 20, 120, 2, 10)
	for _, c := range []struct {
		round float64 // of the time
		most  int     // rounds
	}{{1, 1}, {0.25, 2}, {0.02, 48}} {
		spent := 0.0 // each round, and each floor that is worked out at the end, takes as long
		asked := 0
		floor, err := Floor(p, func(n int, _ float64) (float64, bool) {
			spent, asked = c.round*float64(n), max(asked, n)
			return min(1, spent), spent < 1
		})
		if err != nil {
			t.Fatal(err)
		}
		if asked > c.most || floor <= 0 {
			t.Errorf("rounds of %g of the time: %d of them, want %d at most; floor %.1f", c.round, asked, c.most, floor)
		}
	}
}
