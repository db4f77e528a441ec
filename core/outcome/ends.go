package outcome

// Ends is where life was foretold and found to end up a stem after a freeze, as shares of its height.
type Ends struct{ Low, High, Found float64 }

// Within is how often it ended where it was foretold.
type Within struct {
	Of    int     `json:"of" doc:"Plants checked after a freeze"`
	In    int     `json:"in" doc:"Of those: where it was foretold"`
	Above int     `json:"above" doc:"It lived farther up than foretold"`
	Below int     `json:"below" doc:"It had died farther down than foretold"`
	Low   float64 `json:"low" doc:"Share that ends where it is foretold, 95 % interval (Wilson): from"`
	High  float64 `json:"high" doc:"Until"`
	Right bool    `json:"right" doc:"Four in five, as told, lies within it"`
}

const (
	endsTold = 0.8  // share that is to end within what is told
	nearEnd  = 0.02 // shares of a height nearer than which nobody sees a difference
)

// WithinOf counts how often life ended where it was foretold.
func WithinOf(list []Ends) Within {
	out := Within{Of: len(list)}
	for _, e := range list {
		switch {
		case e.Found > e.High+nearEnd:
			out.Above++
		case e.Found < e.Low-nearEnd:
			out.Below++
		default:
			out.In++
		}
	}
	out.Low, out.High = Wilson(out.In, out.Of)
	out.Right = out.Low <= endsTold && out.High >= endsTold
	return out
}
