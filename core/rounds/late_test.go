package rounds

import (
	"math"
	"math/rand/v2"
	"testing"
)

// TestLate: over days of all fillings, drawn a thousand times with durations that run over rather than under
// (log-normal), a day that is told to run over in so many cases of ten does so, within a tenth.
func TestLate(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	draw := func(mean, share float64) float64 { // log-normal with that mean and spread
		v := math.Log(1 + share*share)
		return mean * math.Exp(math.Sqrt(v)*r.NormFloat64()-v/2)
	}
	told, came, days := map[int]float64{}, map[int]float64{}, map[int]float64{}
	for range 120 {
		p := &Problem{From: monday, Days: 1, Crews: []Crew{{Name: "North", Size: 1, Hours: week(8, 16), Start: &Point{45.9, 8.6}}}}
		for i := range 2 + r.IntN(6) {
			p.Places = append(p.Places, Place{Name: "Garden", At: &Point{45.9 + 0.05*r.Float64(), 8.6 + 0.05*r.Float64()}})
			p.Jobs = append(p.Jobs, Job{Place: i, Minutes: 30 + 70*r.Float64(), Costs: []int{0}, Later: Forbidden, Spread: []float64{0, 0.35}[r.IntN(2)]})
		}
		plan, err := Make(p, 1, Rounds(20))
		if err != nil {
			t.Fatal(err)
		}
		for _, l := range plan.Late {
			bin, late := int(math.Min(4, 5*l.Chance)), 0.0
			for range 1000 {
				whole, end := draw(1, daySpread), 480.0
				for _, v := range plan.Visits {
					for _, j := range v.Jobs {
						end += whole * draw(p.Jobs[j].Minutes, p.Jobs[j].spread())
					}
				}
				if end+draw(plan.Score.Travel, waySpread) > 960 {
					late++
				}
			}
			told[bin], came[bin], days[bin] = told[bin]+l.Chance, came[bin]+late/1000, days[bin]+1
		}
	}
	for bin := range 5 {
		n := math.Max(1, days[bin])
		t.Logf("told %.2f, came %.2f over %.0f days", told[bin]/n, came[bin]/n, days[bin])
		if math.Abs(told[bin]-came[bin])/n > 0.1 {
			t.Errorf("told %.2f, came %.2f over %.0f days", told[bin]/n, came[bin]/n, days[bin])
		}
	}
}
