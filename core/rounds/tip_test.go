package rounds

import (
	"math"
	"testing"
)

// TestTip: what does not go on the vehicle any more is taken away on the way on, and back and forth where one hedge fills
// it; nothing is driven anywhere as long as all goes on.
func TestTip(t *testing.T) {
	made := func(load float64, waste ...float64) Plan {
		p := &Problem{
			From: monday,
			Days: 1,
			Crews: []Crew{{Name: "A", Size: 1, Hours: week(7, 18), Start: &Point{45.9, 8.5}, LoadM3: load,
				Tip: &Tip{At: Point{45.92, 8.53}, Minutes: 15}}},
		}
		for i, m3 := range waste {
			p.Places = append(p.Places, Place{Name: "G", At: &Point{45.9 + 0.02*float64(i), 8.52}})
			p.Jobs = append(p.Jobs, Job{Place: i, Minutes: 60, Costs: []int{0}, WasteM3: m3, Later: Forbidden})
		}
		plan, err := Make(p, 1, Rounds(20))
		if err != nil {
			t.Fatal(err)
		}
		if len(plan.Left) > 0 || plan.Score.Load != 0 {
			t.Errorf("waste %v: left %v, load %g; it can all be taken to the tip", waste, plan.Left, plan.Score.Load)
		}
		return plan
	}
	sum := func(p Plan) (over, trips int) {
		for _, v := range p.Visits {
			trips += v.Trips
			if v.Tip {
				over++
			}
		}
		return over, trips
	}
	two, one := made(4, 3, 3), made(4, 9)
	for _, c := range []struct {
		name        string
		plan        Plan
		over, trips int
	}{
		{"4 m³ go on a vehicle for 4", made(4, 1.5, 2.5), 0, 0},
		{"twice 3 m³ on a vehicle for 4: once, on the way on", two, 1, 0},
		{"9 m³ on a vehicle for 4: twice there and back, the rest comes home", one, 0, 2},
		{"3 m³ and 5: the 5 first, 4 of them there and back, and all else comes home", made(4, 3, 5), 0, 1},
	} {
		if over, trips := sum(c.plan); over != c.over || trips != c.trips {
			t.Errorf("%s: %d times over the tip, %d there and back", c.name, over, trips)
		}
	}
	if work := one.Visits[0].To - one.Visits[0].From; work < 60+2*15 {
		t.Errorf("the visit takes %d minutes; an hour's work and twice a quarter at the tip", work)
	}
	if still := made(6, 3, 3); still.Score.Travel >= two.Score.Travel {
		t.Errorf("without the tip the day is %g on the way, with it %g", still.Score.Travel, two.Score.Travel)
	}
}

// TestTipInTraffic: ways to the tip and back take twice as long while the road is twice as slow, what is stood at the tip
// does not; over the tip each of the two ways is as slow as when it is set out on.
func TestTipInTraffic(t *testing.T) {
	made := func(slow []Traffic, waste ...float64) Plan {
		p := &Problem{
			From: monday,
			Days: 1,
			Crews: []Crew{{Name: "A", Size: 1, Hours: week(7, 18), Start: &Point{45.9, 8.5}, LoadM3: 4,
				Tip: &Tip{At: Point{45.95, 8.6}, Minutes: 15}}},
			Traffic: slow,
		}
		for i, m3 := range waste {
			p.Places = append(p.Places, Place{Name: "G", At: &Point{45.9, 8.52 + 0.001*float64(i)}})
			p.Jobs = append(p.Jobs, Job{Place: i, Minutes: 60, Costs: []int{0}, WasteM3: m3, Later: Forbidden, Weight: 10})
		}
		plan, err := Make(p, 1, Rounds(20))
		if err != nil {
			t.Fatal(err)
		}
		if len(plan.Visits) != len(waste) {
			t.Fatalf("%d visits to %d properties", len(plan.Visits), len(waste))
		}
		return plan
	}
	always := []Traffic{{From: 6 * 60, To: 20 * 60, Times: 2}}
	stays := func(p Plan) float64 { return float64(p.Visits[0].To - p.Visits[0].From) }
	free, slow := stays(made(nil, 9)), stays(made(always, 9))
	ways := free - 60 - 2*15 // twice there and back
	if ways < 20 || math.Abs(slow-(60+2*15+2*ways)) > 1.5 {
		t.Errorf("an hour, two tips and %g min of ways: %g min, and %g where the road is twice as slow", ways, free, slow)
	}
	over := func(slow ...Traffic) float64 { return made(slow, 3, 3).Score.Travel }
	whole, none := over(always...), over()
	if math.Abs(whole-15-2*(none-15)) > 0.3 {
		t.Errorf("%g min by free roads with a tip on the way, %g where all are twice as slow", none, whole)
	}
	// The first is left at about a quarter past eight, the tip half an hour later.
	if late := over(Traffic{From: 8*60 + 20, To: 8*60 + 45, Times: 2}); late <= none+1 || late >= whole-1 {
		t.Errorf("%g min where the road is slow on the way to the tip alone; free %g, slow all day %g", late, none, whole)
	}
}
