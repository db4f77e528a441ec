package rounds

import (
	"errors"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"mezzadro/core/invalid"
)

// rushHours are a town's: half as long again from seven to nine, twice as long from half past four to six.
var rushHours = []Traffic{{From: 7 * 60, To: 9 * 60, Times: 1.5}, {From: 16*60 + 30, To: 18 * 60, Times: 2}}

// TestDriven: a way in the rush takes as much longer as its minutes lie in it, in part where it reaches in or out; who
// sets out later never arrives earlier; and back from the arrival it is the same way.
func TestDriven(t *testing.T) {
	for _, c := range []struct{ at, free, want float64 }{
		{12 * 60, 30, 30},           // at noon
		{7 * 60, 30, 45},            // all within
		{6*60 + 50, 30, 40},         // ten minutes before, twenty within
		{8*60 + 45, 30, 35},         // fifteen minutes of the clock do ten of the way, twenty are free
		{17*60 + 50, 30, 35},        // ten do five
		{6 * 60, 500, 500 + 40 + 0}, // through the whole morning rush: 80 of the way in 120; it ends before the other
		{16 * 60, 90, 90 + 45},      // through the whole evening rush: 30 free, 45 in 90, 15 free
	} {
		if got := driven(rushHours, c.at, c.free); math.Abs(got-c.want) > 1e-9 {
			t.Errorf("%g min at %g: %g, want %g", c.free, c.at, got, c.want)
		}
	}
	r := rand.New(rand.NewPCG(3, 3))
	for range 5000 {
		at, free := 5*60+14*60*r.Float64(), 120*r.Float64()
		took := driven(rushHours, at, free)
		if later := driven(rushHours, at+1, free); later+1 < took-1e-9 || took < free-1e-9 || took > 2*free+1e-9 {
			t.Fatalf("%g min at %g: %g, a minute later %g", free, at, took, later)
		}
		if back := drivenTo(rushHours, at+took, free); math.Abs(back-took) > 1e-6 {
			t.Fatalf("%g min at %g: %g there, %g by when it arrives", free, at, took, back)
		}
	}
}

// withTraffic is a random problem with the rush of a town, on some weekdays alone in one case of three.
func withTraffic(r *rand.Rand, jobs, places, crews, days int) *Problem {
	p := random(r, jobs, places, crews, days)
	for _, t := range rushHours {
		t.Times = 1 + 2*r.Float64()
		if r.IntN(3) == 0 {
			t.Days = []time.Weekday{time.Monday, time.Wednesday}
		}
		p.Traffic = append(p.Traffic, t)
	}
	return p
}

// TestTrafficRules: over 500 random cases with traffic no hard rule is broken, the score is what the judge finds, who goes
// minute by minute, and the bound stays below.
func TestTrafficRules(t *testing.T) {
	r := rand.New(rand.NewPCG(37, 5))
	for n := range 500 {
		p := withTraffic(r, 2+r.IntN(20), 1+r.IntN(7), 1+r.IntN(3), 1+r.IntN(5))
		plan, err := Make(p, uint64(n), Rounds(6))
		if err != nil {
			t.Fatal(err)
		}
		ways, at, lost := arrangement(p, plan)
		if lost != "" {
			t.Fatalf("case %d: %s", n, lost)
		}
		if cost, broken := judge(p, ways, at); broken != "" || math.Abs(cost-plan.Score.Total) > 0.2 || plan.Bound > cost+0.2 {
			t.Errorf("case %d: %s; costs %.2f, told %.2f, bound %.2f", n, broken, cost, plan.Score.Total, plan.Bound)
		}
	}
}

// TestTrafficExact: over 60 small cases the plan costs what going through all arrangements finds, in 95 of 100.
func TestTrafficExact(t *testing.T) {
	r, hit := rand.New(rand.NewPCG(37, 6)), 0
	const cases = 60
	for n := range cases {
		p := withTraffic(r, 3+r.IntN(2), 2+r.IntN(2), 1+r.IntN(2), 2)
		want := exact(p)
		plan, err := Make(p, uint64(n), Rounds(500))
		if err != nil {
			t.Fatal(err)
		}
		if got := plan.Score.Total; got <= want+0.11 {
			hit++
		} else if got > 1.05*want+0.11 {
			t.Errorf("case %d: %.1f, the best is %.1f", n, got, want)
		}
	}
	t.Logf("%d of %d as good as the best", hit, cases)
	if hit < cases*95/100 {
		t.Errorf("%d of %d as good as the best", hit, cases)
	}
}

// TestRushIsAvoided: a crew that begins at seven does the property beside its yard first and drives to the far one when
// the road is free again; without traffic the order does not matter.
func TestRushIsAvoided(t *testing.T) {
	yard := Point{Latitude: 45.9, Longitude: 8.6}
	p := &Problem{From: monday, Days: 1, Crews: []Crew{{Name: "A", Size: 1, Hours: week(7, 17), Start: &yard}},
		Places: []Place{{Name: "Near", At: &Point{Latitude: 45.91, Longitude: 8.6}}, {Name: "Far", At: &Point{Latitude: 46.2, Longitude: 8.6}}},
		Jobs:   []Job{{Place: 0, Minutes: 120, Costs: []int{0}}, {Place: 1, Minutes: 120, Costs: []int{0}}}}
	p.Traffic = []Traffic{{From: 7 * 60, To: 9 * 60, Times: 3}}
	plan, err := Make(p, 1, Rounds(50))
	if err != nil {
		t.Fatal(err)
	}
	if len(plan.Visits) != 2 || plan.Visits[0].Place != 0 || plan.Visits[1].From < 9*60 {
		t.Errorf("visits: %+v", plan.Visits)
	}
}

// TestTrafficRefused: what cannot be is named by its field.
func TestTrafficRefused(t *testing.T) {
	for field, list := range map[string][]Traffic{
		"traffic[0].to":    {{From: 600, To: 600, Times: 2}},
		"traffic[0].times": {{From: 600, To: 700, Times: 0.5}},
		"traffic[1].from":  {{From: 420, To: 540, Times: 2}, {From: 500, To: 600, Times: 2, Days: []time.Weekday{time.Monday}}},
	} {
		p := random(rand.New(rand.NewPCG(1, 1)), 3, 2, 1, 2)
		p.Traffic = list
		var bad invalid.Fields
		if _, err := Make(p, 1, Rounds(1)); !errors.As(err, &bad) || bad[0].Path != field {
			t.Errorf("%s: %v", field, err)
		}
	}
}
