package outcome

import "math"

// Foretold is a prognosis and what came of it.
type Foretold struct {
	Chance  float64 // that it gets there, 0 to 1
	Low     int     // seasons until then, at least
	High    int     // at most
	Seasons int     // that have passed since
	State   string  // right, alive or dead
}

// Score holds what was foretold against what came. What is alive and still has time counts as open.
type Score struct {
	Judged int     `json:"judged" doc:"Prognoses of which it is known what came"`
	Open   int     `json:"open" doc:"Plants that are alive and have time left: not counted yet"`
	Bins   []Bin   `json:"bins" doc:"By the chance that was told; those without a prognosis are left out"`
	Brier  float64 `json:"brier" doc:"Mean of (chance − what came)², 0 best; a quarter is what one half for all would have"`
	Usual  float64 `json:"usual" doc:"The same, had everybody been told the share that came of all"`
	Early  int     `json:"early" doc:"Of those that got there: sooner than foretold"`
	InTime int     `json:"in_time" doc:"Within the seasons foretold"`
	Late   int     `json:"late" doc:"Later"`
}

// Bin is a span of chances told, with what came of them.
type Bin struct {
	From  float64 `json:"from" doc:"Chance told, from"`
	To    float64 `json:"to" doc:"Until"`
	Told  float64 `json:"told" doc:"Its mean"`
	Of    int     `json:"of" doc:"Prognoses"`
	Came  int     `json:"came" doc:"Those that got there"`
	Low   float64 `json:"low" doc:"Share that gets there, 95 % interval (Wilson): from"`
	High  float64 `json:"high" doc:"Until"`
	Right bool    `json:"right" doc:"The mean that was told lies within it"`
}

// binsOf are how many spans chances are told in.
const binsOf = 5

// ScoreOf holds prognoses against what came.
func ScoreOf(list []Foretold) Score {
	out := Score{Bins: []Bin{}}
	var bins [binsOf]Bin
	came := 0.0
	for _, f := range list {
		got, known := f.came()
		if !known {
			out.Open++
			continue
		}
		out.Judged++
		b := &bins[min(binsOf-1, max(0, int(f.Chance*binsOf)))]
		b.Of, b.Told = b.Of+1, b.Told+f.Chance
		y := 0.0
		if got {
			b.Came, y = b.Came+1, 1
			out.timed(f)
		}
		came += y
		out.Brier += (f.Chance - y) * (f.Chance - y)
	}
	if out.Judged == 0 {
		return out
	}
	share := came / float64(out.Judged)
	out.Brier, out.Usual = out.Brier/float64(out.Judged), share*(1-share)
	for i, b := range bins {
		if b.Of > 0 {
			b.From, b.To, b.Told = float64(i)/binsOf, float64(i+1)/binsOf, b.Told/float64(b.Of)
			b.Low, b.High = Wilson(b.Came, b.Of)
			b.Right = b.Told >= b.Low && b.Told <= b.High
			out.Bins = append(out.Bins, b)
		}
	}
	return out
}

// came is whether a plant got there; not known while it is alive and has time left.
func (f Foretold) came() (got, known bool) {
	switch {
	case f.State == TurnedRight:
		return true, true
	case f.State == TurnedDead:
		return false, true
	}
	return false, f.Seasons > f.High && f.High > 0
}

func (s *Score) timed(f Foretold) {
	switch {
	case f.Seasons < f.Low:
		s.Early++
	case f.Seasons <= f.High:
		s.InTime++
	default:
		s.Late++
	}
}

// Wilson is the 95 % interval of a share of which so many of n came (Wilson 1927).
func Wilson(came, n int) (low, high float64) {
	if n == 0 {
		return 0, 1
	}
	const z = 1.959964
	p, m := float64(came)/float64(n), float64(n)
	mid, half := (p+z*z/(2*m))/(1+z*z/m), z*math.Sqrt(p*(1-p)/m+z*z/(4*m*m))/(1+z*z/m)
	return max(0, mid-half), min(1, mid+half)
}
