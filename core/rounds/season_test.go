package rounds

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

// weekCosts are the costs of days of so many weeks, by what a week costs.
func weekCosts(weeks ...int) (out []int) {
	for _, c := range weeks {
		for range 7 {
			out = append(out, c)
		}
	}
	return out
}

// TestSeason: a full week gives up the work that minds least; what only one crew can do has that crew's hours alone;
// what fits nowhere is named.
func TestSeason(t *testing.T) {
	p := yard()
	p.Crews = p.Crews[1:] // Bruno: 5 × 9 hours, less driving: 1890 minutes a week
	cut := func(minutes float64, costs ...int) Job {
		return Job{Place: near, Minutes: minutes, Costs: weekCosts(costs...), Later: Forbidden}
	}
	p.Jobs = []Job{cut(1000, 0, 60, 90), cut(1000, 0, 10, 20), cut(800, 0, 90, 90), cut(5000, 0, 0, 0)}
	o, err := Season(p, 3)
	if err != nil {
		t.Fatal(err)
	}
	if w := o.Weeks[0]; !slices.Equal(w.Jobs, []int{0, 2}) || w.Wanted != 7800 || w.Load != 1800 || w.Capacity < 1880 ||
		w.Capacity > 1900 {
		t.Errorf("the first week: %+v", w)
	}
	if !slices.Equal(o.Weeks[1].Jobs, []int{1}) || len(o.Moved) != 1 || o.Moved[0].Job != 1 || o.Moved[0].To != 1 ||
		o.Moved[0].Cost < 10 {
		t.Errorf("the second: %+v, moved %+v", o.Weeks[1], o.Moved)
	}
	if !slices.Equal(o.Left, []int{3}) {
		t.Errorf("left: %v", o.Left)
	}
	p = yard()
	p.Jobs = []Job{cut(1500, 0, 30), cut(1500, 0, 40), cut(1500, 0, 50)}
	p.Jobs[2].Was, p.Jobs[1].Pin = &Pin{Crew: 0, Day: 9}, &Pin{Crew: 1, Day: 12} // single days are no matter here
	for j := range 2 {
		p.Jobs[j].Skills = []string{"climbing"}
	}
	if o, err = Season(p, 2); err != nil || !slices.Equal(o.Weeks[0].Jobs, []int{1, 2}) ||
		!slices.Equal(o.Weeks[1].Jobs, []int{0}) {
		t.Errorf("one climber: %+v, %v", o.Weeks, err)
	}
	if o, err = Season(&Problem{From: monday, Days: 1}, 4); err != nil || len(o.Weeks) != 4 ||
		o.Weeks[0].Capacity != 0 {
		t.Errorf("nobody and nothing: %+v, %v", o, err)
	}
	p.Jobs[0].Minutes = -5
	if _, err = Season(p, 2); err == nil {
		t.Error("minutes below nothing")
	}
}

// TestSeasonHolds: over random seasons no week is fuller than its hours, nothing is lost, and every job in another
// week than its best has a cause.
func TestSeasonHolds(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for n := range 200 {
		p := random(r, 10+r.IntN(80), 5, 1+r.IntN(3), 1)
		for j := range p.Jobs {
			k := &p.Jobs[j]
			k.After, k.Was = nil, nil
			k.Minutes *= 10
			k.Costs = weekCosts(r.IntN(100), r.IntN(100), r.IntN(100), r.IntN(100), r.IntN(100), r.IntN(101))
		}
		o, err := Season(p, 6)
		if err != nil {
			t.Fatal(err)
		}
		seen := len(o.Left)
		for i, w := range o.Weeks {
			seen += len(w.Jobs)
			sum := 0.0
			for _, j := range w.Jobs {
				sum += p.Jobs[j].Takes()
			}
			if sum > w.Capacity+1.5 || sum != w.Load {
				t.Errorf("case %d, week %d: %.0f of %.0f, told %.0f", n, i, sum, w.Capacity, w.Load)
			}
		}
		if seen != len(p.Jobs) {
			t.Errorf("case %d: %d of %d jobs", n, seen, len(p.Jobs))
		}
	}
}

// TestNobodyMissesAPlace: once nobody changes places any more, no job out of its best week finds one there that would
// let it in, tried anew without what was learnt from others that found nobody.
func TestNobodyMissesAPlace(t *testing.T) {
	tried := 0
	for seed := range uint64(30) {
		r := rand.New(rand.NewPCG(seed, 9))
		weeks := 3 + r.IntN(10)
		p := firm(seed, 20, 300, 1+r.IntN(2), 14)
		for j := range p.Jobs {
			best, costs := r.IntN(weeks), make([]int, weeks)
			for w := range costs {
				costs[w] = min(100, (1+r.IntN(12))*max(w-best, best-w))
			}
			k := &p.Jobs[j]
			if k.Costs, k.Minutes = weekCosts(costs...), k.Minutes*float64(2+r.IntN(9)); r.IntN(2) == 0 {
				k.After = nil
			}
		}
		s := newSpread(p, weeks)
		for _, j := range s.order {
			s.place(j)
		}
		for before := []int(nil); !slices.Equal(before, s.at); s.swap() {
			before = slices.Clone(s.at)
		}
		in := s.inWeeks()
		for _, j := range s.order {
			if best := s.jobs[j].best; best >= 0 && s.at[j] != best {
				s.vain = nil
				if tried++; s.swapIn(j, in[best]) {
					t.Fatalf("firm %d: job %d found a place in its best week after all", seed, j)
				}
			}
		}
	}
	if tried < 500 {
		t.Errorf("%d jobs out of their best week", tried)
	}
}

// BenchmarkSeason10000 spreads 10,000 jobs over half a year of three crews.
func BenchmarkSeason10000(b *testing.B) {
	p := firm(7, 200, 10_000, 3, 14)
	r := rand.New(rand.NewPCG(1, 1))
	for j := range p.Jobs {
		best := r.IntN(26)
		costs := make([]int, 26)
		for w := range costs {
			costs[w] = min(100, 12*max(w-best, best-w))
		}
		p.Jobs[j].Costs, p.Jobs[j].After, p.Jobs[j].Minutes = weekCosts(costs...), nil, 8*p.Jobs[j].Minutes
	}
	var o Outlook
	var err error
	for b.Loop() {
		if o, err = Season(p, 26); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(float64(len(o.Moved)), "moved")
	b.ReportMetric(float64(len(o.Left)), "left")
}

// TestSeasonGaps: the second feed is three weeks after the first, though both would be best in the first week; what
// waits for work that has no week has none; what was done before the season counts; a greatest gap pulls work forward.
func TestSeasonGaps(t *testing.T) {
	p := yard()
	light := func(costs ...int) Job {
		return Job{Place: near, Minutes: 30, Costs: weekCosts(costs...), Later: Forbidden}
	}
	never := Job{Place: near, Minutes: 30, Costs: weekCosts(Forbidden, Forbidden, Forbidden, Forbidden, Forbidden, Forbidden)}
	first, second := light(0, 40, 40, 40, 40, 40), light(0, 10, 10, 20, 30, 40)
	second.After = []Gap{{Job: 0, Min: 21}}
	waits := light(0, 0, 0, 0, 0, 0)
	waits.After = []Gap{{Job: 2, Min: 7}}
	past := light(0, 5, 9, 9, 9, 9)
	past.After = []Gap{{Job: -1, Day: -4, Min: 20}} // 16 days into the season: its third week
	soon := light(50, 50, 50, 50, 0, 0)
	soon.After = []Gap{{Job: 0, Min: 7, Max: 14}}
	p.Jobs = []Job{first, second, never, waits, past, soon}
	o, err := Season(p, 6)
	if err != nil {
		t.Fatal(err)
	}
	at := map[int]int{}
	for w, week := range o.Weeks {
		for _, j := range week.Jobs {
			at[j] = w
		}
	}
	if at[0] != 0 || at[1] != 3 || at[4] != 2 || at[5] != 1 && at[5] != 2 {
		t.Errorf("weeks: %v; want the second feed in the fourth, what waits for the past in the third", at)
	}
	if !slices.Contains(o.Left, 2) || !slices.Contains(o.Left, 3) {
		t.Errorf("left: %v; what waits for work without a week has none", o.Left)
	}
}

// TestSeasonKnowsLoading: an hour of loading each day is no hour for the work, and a day off has nothing to load for.
func TestSeasonKnowsLoading(t *testing.T) {
	for load, want := range map[int]float64{0: 5 * 480 * 0.7, 60: 5 * 420 * 0.7} {
		p := &Problem{From: monday, Days: 7, Crews: []Crew{{Name: "A", Size: 1, Hours: week(8, 16), Load: load}}}
		o, err := Season(p, 1)
		if err != nil || math.Abs(o.Weeks[0].Capacity-want) > 1 {
			t.Errorf("%d minutes of loading: a week has %v, want %.0f (%v)", load, o.Weeks, want, err)
		}
	}
}
