package damage

import (
	"math/rand/v2"
	"testing"

	"mezzadro/core/quantity"
	"mezzadro/core/season"
)

// How crowns are and people look: branches of a plant differ by so much of its height, and one reading in so many is
// wrong.
const (
	branchesDiffer = 0.12
	oneWrongIn     = 12
)

// scratched is what one sees who scratches a branch of a plant that lives up to a share of its height.
func scratched(r *rand.Rand, life, at float64) string {
	here := life
	if life > 0 && life < 1 {
		here += r.NormFloat64() * branchesDiffer
	}
	lives := life == 1 || life > 0 && here > at
	if r.IntN(oneWrongIn) == 0 {
		lives = !lives
	}
	if lives {
		return "green"
	}
	return "brown"
}

// lookedAt is a lilac of 3 m that lives up to a share of its height, after n scratches where the program asks for them,
// or spread over the stem.
func lookedAt(t *testing.T, y *season.Year, r *rand.Rand, life float64, n int, asked bool) Answer {
	t.Helper()
	q := ask(t, "syringa-vulgaris", 3, march, y)
	judged := func() Answer {
		a, err := Judge(q)
		if err != nil {
			t.Fatal(err)
		}
		return a
	}
	for k := range n {
		m := q.Plant.HeightM * (float64(k) + 0.5 + 0.4*(2*r.Float64()-1)) / float64(n)
		if asked {
			if next := judged().Next; next != nil && next.HeightM > 0 {
				m = next.HeightM
			}
		}
		m = quantity.Round(m, 0.01)
		q.Checks = append(q.Checks, scratch(m, scratched(r, life, m/q.Plant.HeightM)))
	}
	return judged()
}

// TestIntervalHolds: of patchy crowns that people misread now and then, the 80 % interval of where life ends holds the
// truth in 80 of a hundred. 400 plants tell it to 4 either way.
func TestIntervalHolds(t *testing.T) {
	const plants = 400
	y := season.NewYear(lake(t).Daily(), nil)
	for _, n := range []int{2, 3, 5} {
		for _, asked := range []bool{true, false} {
			held, width := 0, 0.0
			for i := range plants {
				r := rand.New(rand.NewPCG(uint64(i), 29))
				life := r.Float64()
				switch u := r.Float64(); {
				case u < 0.1:
					life = 0
				case u < 0.3:
					life = 1
				}
				b := lookedAt(t, y, r, life, n, asked).Boundary
				if life*3 >= b.LowM-0.01 && life*3 <= b.HighM+0.01 {
					held++
				}
				width += (b.HighM - b.LowM) / 3 / plants
			}
			share := 100 * float64(held) / plants
			t.Logf("%d checks, asked for: %v: holds %.0f %%, %.2f of the height wide", n, asked, share, width)
			if share < 76 || share > 85 {
				t.Errorf("%d checks, asked for: %v: holds %.1f %%, want 80", n, asked, share)
			}
		}
	}
}
