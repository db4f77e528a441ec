package rounds

import (
	"math/rand/v2"
	"mezzadro/core/day"
	"reflect"
	"testing"
)

// fully is a firm with more to do than its days hold, rain on its way, and work that is unsure.
func fully(seed uint64) *Problem {
	p := firm(seed, 60, 420, 3, 10)
	r := rand.New(rand.NewPCG(seed, 3))
	for j := range p.Jobs {
		p.Jobs[j].Minutes *= 2
		p.Jobs[j].Work = []Work{Any, Any, Spray, Earth, Aloft}[r.IntN(5)]
	}
	for d := range p.Days {
		told := d < 4
		p.Sky = append(p.Sky, Sky{Day: p.From + day.Day(d), Told: told, Chance: 0.35, MinC: 8, MaxC: 18})
	}
	return p
}

// TestDaysHold: as they are reckoned full days run over in more than one case of four; asked to hold in four of five,
// no day is told to run over more often, they do not over a thousand spans drawn apart, and what it costs is told.
func TestDaysHold(t *testing.T) {
	plainLate, steadyLate, plainCost, steadyCost, worse := 0.0, 0.0, 0.0, 0.0, 0
	const firms = 4
	for seed := range uint64(firms) {
		p := fully(seed)
		plain, err := Make(p, seed, Rounds(60))
		if err != nil {
			t.Fatal(err)
		}
		held := *p
		held.Sure, held.Fortnights = 0.8, 30
		steady, err := Make(&held, seed, Rounds(60))
		if err != nil {
			t.Fatal(err)
		}
		over := 0
		for _, l := range steady.Late {
			if l.Chance > 0.25 {
				over++
			}
		}
		if over > len(steady.Late)/20 {
			t.Errorf("firm %d: %d of %d days run over in more than one case of five", seed, over, len(steady.Late))
		}
		a, b := plain.search.lateShare(), steady.search.lateShare()
		plainLate, steadyLate = plainLate+a/firms, steadyLate+b/firms
		if f := steady.Drawn.Of(); steady.Drawn.Times != 30 || f.Rained == 0 || f.Cost <= 0 {
			t.Errorf("firm %d: drawn %+v", seed, steady.Drawn)
		}
		plainCost, steadyCost = plainCost+steady.Drawn.Fares[0].Cost/firms, steadyCost+steady.Drawn.Of().Cost/firms
		for _, f := range steady.Drawn.Fares {
			if f.Late <= 0.2 && f.Cost < steady.Drawn.Of().Cost-0.05 {
				worse++
			}
		}
		if cost, broken := judgeOf(p, steady); broken != "" || cost < steady.Score.Total-1 ||
			cost > steady.Score.Total+1 {
			t.Errorf("firm %d: judged %.1f, told %.1f, %s", seed, cost, steady.Score.Total, broken)
		}
		t.Logf(
			"firm %d: %.0f left %d late %.2f; held %.0f left %d late %.2f; %s %+v",
			seed,
			plain.Score.Total,
			len(plain.Left),
			a,
			steady.Score.Total,
			len(steady.Left),
			b,
			steady.Drawn.Chosen,
			steady.Drawn.Fares,
		)
	}
	t.Logf(
		"days that run over: %.2f as reckoned, %.2f held; cost as it comes %.0f and %.0f",
		plainLate,
		steadyLate,
		plainCost,
		steadyCost,
	)
	if steadyCost > plainCost {
		t.Errorf("plans that hold cost %.0f as it comes, those as reckoned %.0f", steadyCost, plainCost)
	}
	if plainLate < 0.25 || steadyLate > 0.15 || worse > 0 {
		t.Errorf(
			"days that run over: %.2f as reckoned, %.2f held; %d times a plan that fares better was passed over",
			plainLate,
			steadyLate,
			worse,
		)
	}
}

// TestVeryMuchIsDrawnLess: where there is very much to plan, fewer spans are drawn than asked for, and that is told.
func TestVeryMuchIsDrawnLess(t *testing.T) {
	p := firm(1, 20, 1500, 3, 30)
	p.Fortnights = 200
	plan, err := Make(p, 1, Rounds(0))
	if err != nil {
		t.Fatal(err)
	}
	if n := plan.Drawn.Times; n >= 200 || n < 1 {
		t.Errorf("%d spans of 30 days with 1500 jobs are drawn", n)
	}
}

// lateShare is the share of days that run over in a thousand spans, drawn apart from those that plans are chosen by.
func (s *search) lateShare() float64 {
	rng, late, days := rand.New(rand.NewPCG(99, 99)), 0.0, 0.0
	for range 1000 {
		d := s.draw(rng)
		for w := range s.list {
			if len(s.list[w].stops) > 0 {
				days++
				if over, _ := s.runsOver(w, &d); over {
					late++
				}
			}
		}
	}
	return late / days
}

func judgeOf(p *Problem, plan Plan) (float64, string) {
	p = p.weathered()
	ways, at, broken := arrangement(p, plan)
	if broken != "" {
		return 0, broken
	}
	return judge(p, ways, at)
}

// TestDrawnRain: what is rained off finds another day, what bears rain and waits takes its hours, rain of one day comes
// to the whole region, and lasts rather than not; the same seed gives the same plan.
func TestDrawnRain(t *testing.T) {
	p := &Problem{
		From:  monday,
		Days:  3,
		Crews: []Crew{{Name: "North", Size: 1, Hours: week(8, 12), Start: &Point{45.9, 8.6}}},
	}
	p.Places = []Place{{Name: "Near", At: &Point{45.9, 8.6}}, {Name: "Next", At: &Point{45.9, 8.6}}}
	p.Jobs = []Job{
		{Place: 0, Minutes: 100, Work: Earth, Costs: []int{0, 90, 90}, Later: Forbidden},
		{Place: 1, Minutes: 220, Costs: []int{0, Forbidden, Forbidden}},
	}
	for d := range 3 {
		p.Sky = append(p.Sky, Sky{Day: p.From + day.Day(d), Chance: 0.5, MinC: 8, MaxC: 18})
	}
	plan, err := Make(p, 1, Rounds(50))
	if err != nil {
		t.Fatal(err)
	}
	s := plan.search
	if s.at[0] != 0 || s.at[1] >= 0 {
		t.Fatalf("planned on %v, want the digging on Monday and the rest left", s.at)
	}
	storm := drawn{
		wet:  []float64{0, 1, 1},
		fall: []float64{9, 0, 0},
		work: []float64{1, 1},
		day:  []float64{1, 1, 1},
		way:  []float64{1, 1, 1},
	}
	kept := s.copy()
	out := s.live(storm)
	if out.rained != 1 || out.left != 0 || s.at[0] < 1 || s.at[1] != 0 {
		t.Errorf("a wet Monday: %+v, jobs on %v; want the digging later and the other on Monday", out, s.at)
	}
	s.restore(kept)
	storm.fall[0] = 0.5 // 4 mm hinder nobody who digs
	if out := s.live(storm); out.rained != 0 || s.at[0] != 0 {
		t.Errorf("a shower: %+v", out)
	}
	rng, both, wet := rand.New(rand.NewPCG(1, 1)), 0.0, 0.0
	for range 4000 {
		d := s.draw(rng)
		if d.wet[0] < 0.4 {
			if wet++; d.wet[1] < 0.4 {
				both++
			}
		}
	}
	if share := both / wet; share < 0.5 || share > 0.7 {
		t.Errorf("after a wet day %.2f of days are wet where 0.40 are, want rather more", share)
	}
	p.Sure, p.Fortnights = 0.8, 20
	a, err := Make(p, 5, Rounds(30))
	b, err2 := Make(p, 5, Rounds(30))
	if err != nil || err2 != nil || !reflect.DeepEqual(a.Visits, b.Visits) || !reflect.DeepEqual(a.Drawn, b.Drawn) {
		t.Errorf("twice the same seed: %+v and %+v, %v, %v", a.Drawn, b.Drawn, err, err2)
	}
}
