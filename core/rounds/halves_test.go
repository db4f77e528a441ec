package rounds

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
)

// TestHalves: over 150 random cases, two halves that go on beside each other break no hard rule between them and lose
// no job; the sum that is kept is what the judge finds, and no plan gets dearer.
func TestHalves(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 7))
	better := 0
	for n := range 150 {
		p := random(r, 10+r.IntN(60), 2+r.IntN(9), 1+r.IntN(3), 4+r.IntN(4)).weathered()
		s := newSearch(p, uint64(n))
		if n%2 == 0 {
			s.build()
		} else {
			s.stay() // most is left yet, and either half may take it
		}
		before := s.sum
		s.improveHalves(hottest, Rounds(60))
		if s.sum > before+1e-6 {
			t.Errorf("case %d: from %.2f to %.2f", n, before, s.sum)
		} else if s.sum < before-1 {
			better++
		}
		judged(t, n, s)
	}
	if better < 100 {
		t.Errorf("only %d of 150 plans got better", better)
	}
}

// TestHalvesKeepApart: a half changes its own days alone, and jobs that wait for one another, or that a treatment keeps
// apart, are moved by one half or by none.
func TestHalvesKeepApart(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 77))
	moved, still := 0, 0
	for n := range 60 {
		p := random(r, 20+r.IntN(40), 3+r.IntN(6), 2, 5+r.IntN(3)).weathered()
		s := newSearch(p, uint64(n))
		s.build()
		halves := [2]*half{s.newHalf(), s.newHalf()}
		s.shareOut(halves, joined(s.next, s.mates))
		for i, h := range halves {
			before := h.copy()
			h.goOn(s.sum, hottest)
			for w := range s.list {
				if !slices.Contains(h.working, w) && !sameWay(&h.list[w], &before.list[w]) {
					t.Errorf("case %d: half %d changed way %d of the other", n, i, w)
				}
			}
			for j := range p.Jobs {
				if h.mine[j] && h.at[j] != before.at[j] {
					moved++
				}
				if h.mine[j] && halves[1-i].mine[j] || !h.mine[j] && h.at[j] != before.at[j] {
					t.Errorf("case %d, half %d: job %d is moved by both, or by one whose it is not", n, i, j)
				}
				if !h.mine[j] && !halves[1-i].mine[j] {
					still++
				}
				for _, o := range slices.Concat(s.next[j], s.mates[j]) {
					if h.mine[j] != h.mine[o] {
						t.Errorf("case %d, half %d: of jobs %d and %d, tied together, one may be moved", n, i, j, o)
					}
				}
			}
		}
	}
	if moved < 150 || still < 50 {
		t.Errorf("%d jobs moved and %d kept still: too few to tell", moved, still)
	}
}

// TestHalvesTakeAsLong: however days are shared out, both halves do as much work before the next draw, to within one
// build, however many builds that is; else one would wait for the other.
func TestHalvesTakeAsLong(t *testing.T) {
	p := firm(4, 80, halvesFrom, 3, 12)
	s := newSearch(p, 3)
	s.build()
	halves := [2]*half{s.newHalf(), s.newHalf()}
	builds := map[int]bool{}
	for range 6 {
		s.shareOut(halves, joined(s.next, s.mates))
		for i, h := range halves {
			effort, tried := h.effort, h.tried
			h.goOn(s.sum, hottest)
			want := halfRounds * roundTakes * s.builds()
			if got := h.effort - effort; got < want || got > want+want/2 {
				t.Errorf("half %d did work for %d looks, want %d", i, got, want)
			}
			builds[h.tried-tried] = true
		}
	}
	if len(builds) < 3 {
		t.Errorf("numbers of builds %v: all alike, so that counting them would do as well", builds)
	}
}

// TestLargePlansRepeat: the same seed and number of rounds give the same plan, also where two halves are searched at
// once.
func TestLargePlansRepeat(t *testing.T) {
	p := firm(4, 80, halvesFrom, 3, 12)
	if s := newSearch(p, 1); !s.inHalves() {
		t.Fatal("the plan is not searched in halves")
	}
	a, err := Make(p, 5, Rounds(12))
	b, err2 := Make(p, 5, Rounds(12))
	if err != nil || err2 != nil {
		t.Fatal(err, err2)
	}
	if a.Score != b.Score || !slices.Equal(a.search.at, b.search.at) {
		t.Errorf("two plans of one seed differ: %+v and %+v", a.Score, b.Score)
	}
	judged(t, 0, a.search)
}

// TestBoth: what breaks in one of two things that are done at once breaks where both were asked for, and says what.
func TestBoth(t *testing.T) {
	done := [2]bool{}
	both(func() { done[0] = true }, func() { done[1] = true })
	if !done[0] || !done[1] {
		t.Error("one was not done")
	}
	for i := range 2 {
		func() {
			defer func() {
				if what, _ := recover().(string); !strings.Contains(what, "no such way") {
					t.Errorf("thing %d broke, and what came was %q", i, what)
				}
			}()
			breaks := []func(){func() {}, func() {}}
			breaks[i] = func() { panic("no such way") }
			both(breaks[0], breaks[1])
		}()
	}
}
