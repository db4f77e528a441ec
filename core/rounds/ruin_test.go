package rounds

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

// TestTakenBack: whatever is taken off and put on again, taking it back leaves ways, stops, jobs and the sum as they
// were, again and again in one round; and the sum that is kept while things change is what the plan costs when it is
// gone through from the beginning.
func TestTakenBack(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 12))
	changed := 0
	for n := range 60 {
		p := random(r, 8+r.IntN(20), 2+r.IntN(6), 1+r.IntN(3), 2+r.IntN(5))
		plan, err := Make(p, uint64(n), Rounds(5))
		if err != nil {
			t.Fatal(err)
		}
		s := plan.search
		for range 20 {
			s.forgetSteps()
			before := s.copy()
			for range 1 + r.IntN(3) {
				mark, sum, at := len(s.log), s.sum, slices.Clone(s.at)
				if r.IntN(2) == 0 {
					s.rebuild()
				} else {
					s.rebuildQuickly()
				}
				if told := s.score().Total; math.Abs(told-s.sum) > 0.06 {
					t.Fatalf("case %d: the sum is kept as %.2f, gone through %.2f", n, s.sum, told)
				}
				if r.IntN(2) == 0 {
					s.back(mark, sum)
					if !slices.Equal(at, s.at) {
						t.Fatalf("case %d: jobs stand on other ways after a part was taken back", n)
					}
				}
			}
			if len(s.log) > 0 {
				changed++
			}
			s.back(0, before.sum)
			for w := range s.list {
				if !sameWay(&s.list[w], &before.list[w]) {
					t.Fatalf("case %d, way %d: %+v before, %+v after it was taken back", n, w, before.list[w], s.list[w])
				}
			}
			if !slices.Equal(s.at, before.at) || math.Abs(s.score().Total-before.sum) > 0.06 {
				t.Fatalf("case %d: %v at %.2f before, %v at %.2f after", n, before.at, before.sum, s.at, s.score().Total)
			}
			s.rebuildQuickly() // from somewhere else next time
		}
	}
	if changed < 500 {
		t.Errorf("only %d of 1,200 rounds changed anything", changed)
	}
}

func sameWay(a, b *way) bool {
	return math.Abs(a.cost-b.cost) < 1e-9 && a.travel == b.travel && a.busy == b.busy && a.limited == b.limited &&
		slices.EqualFunc(a.stops, b.stops, func(x, y stop) bool {
			return x.place == y.place && slices.Equal(x.jobs, y.jobs) && x.work == y.work && x.leg == y.leg
		})
}

// TestHeat: a search goes on from plans that are hours worse at first and minutes at the end, always less; one that
// only mends what stood begins with minutes, else it would melt what it is to keep.
func TestHeat(t *testing.T) {
	p := random(rand.New(rand.NewPCG(4, 4)), 12, 4, 2, 5)
	for j := range p.Jobs {
		p.Jobs[j].Was, p.Jobs[j].Pin = nil, nil
	}
	fresh := newSearch(p, 1).hottest()
	for j := range p.Jobs {
		p.Jobs[j].Was = &Pin{}
	}
	mended := newSearch(p, 1).hottest()
	for _, c := range []struct{ first, least, most float64 }{{fresh, 60, 600}, {mended, 10, 40}} {
		last := math.Inf(1)
		for i := range 11 {
			h := heatAt(c.first, float64(i)/10)
			if h >= last {
				t.Errorf("%d tenths on: %g minutes after %g", i, h, last)
			}
			last = h
		}
		if h := heatAt(c.first, 0); h < c.least || h > c.most || last < 1 || last > 15 {
			t.Errorf("from %g to %g minutes: want %g to %g, and some minutes at the end", h, last, c.least, c.most)
		}
	}
}
