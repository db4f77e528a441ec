package outcome

import (
	"math"
	"math/rand/v2"
	"testing"
)

// drawn are so many plants whose true chance is what true gives for the chance told.
func drawn(r *rand.Rand, n int, truly func(told float64) float64) []Foretold {
	out := make([]Foretold, n)
	for i := range out {
		told := r.Float64()
		f := Foretold{Chance: told, Low: 1, High: 3, Seasons: 1 + r.IntN(4), State: TurnedDead}
		if r.Float64() < truly(told) {
			f.State = TurnedRight
		}
		out[i] = f
	}
	return out
}

// TestScoreTellsRightFromWrong: who tells true chances looks right, in nineteen bins of twenty; who tells everybody too much,
// or knows nothing, does not.
func TestScoreTellsRightFromWrong(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 8))
	share := func(truly func(float64) float64) (right, better float64) {
		bins, good, beat := 0, 0, 0
		for range 200 {
			s := ScoreOf(drawn(r, 300, truly))
			for _, b := range s.Bins {
				if bins++; b.Right {
					good++
				}
			}
			if s.Brier < s.Usual {
				beat++
			}
		}
		return float64(good) / float64(bins), float64(beat) / 200
	}
	if right, better := share(func(told float64) float64 { return told }); right < 0.92 || better < 0.99 {
		t.Errorf("a true model: %.2f of its bins right, better than the usual in %.2f", right, better)
	}
	if right, _ := share(func(told float64) float64 { return told / 2 }); right > 0.45 {
		t.Errorf("one that promises twice too much: %.2f of its bins right", right)
	}
	if _, better := share(func(float64) float64 { return 0.5 }); better > 0.01 {
		t.Errorf("one that knows nothing is better than the usual in %.2f", better)
	}
}

// TestWhatCounts: alive and in time is open, alive and overdue did not get there; a plant that came back early, in time or late
// is told as such; of nobody nothing is told.
func TestWhatCounts(t *testing.T) {
	s := ScoreOf([]Foretold{
		{0.7, 1, 2, 1, TurnedRight}, {0.7, 2, 3, 1, TurnedRight}, {0.7, 1, 2, 4, TurnedRight},
		{0.7, 1, 2, 1, TurnedAlive}, {0.7, 1, 2, 3, TurnedAlive}, {0.1, 0, 0, 1, TurnedDead}, {0.1, 0, 0, 9, TurnedAlive},
	})
	if s.Judged != 5 || s.Open != 2 || s.Early != 1 || s.InTime != 1 || s.Late != 1 || len(s.Bins) != 2 {
		t.Fatalf("%+v", s)
	}
	if b := s.Bins[1]; b.Of != 4 || b.Came != 3 || math.Abs(b.Told-0.7) > 1e-9 || !b.Right {
		t.Errorf("told seven in ten: %+v", b)
	}
	if empty := ScoreOf(nil); empty.Judged != 0 || empty.Bins == nil || empty.Brier != 0 {
		t.Errorf("%+v", empty)
	}
}

// TestWilson: figures from a table.
func TestWilson(t *testing.T) {
	for _, c := range []struct {
		came, of  int
		low, high float64
	}{{0, 10, 0, 0.278}, {5, 10, 0.237, 0.763}, {29, 40, 0.572, 0.839}, {10, 10, 0.722, 1}, {0, 0, 0, 1}} {
		if low, high := Wilson(c.came, c.of); math.Abs(low-c.low) > 0.002 || math.Abs(high-c.high) > 0.002 {
			t.Errorf("%d of %d: %.3f to %.3f, want %.3f to %.3f", c.came, c.of, low, high, c.low, c.high)
		}
	}
}

// BenchmarkScore holds 10,000 prognoses against what came.
func BenchmarkScore(b *testing.B) {
	list := drawn(rand.New(rand.NewPCG(1, 1)), 10_000, func(told float64) float64 { return told })
	for b.Loop() {
		ScoreOf(list)
	}
}
