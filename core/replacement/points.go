package replacement

import (
	_ "embed"
	"math"
	"sync"

	"mezzadro/core/written"
)

//go:embed data/points.yaml
var pointsYAML []byte

// weight is what one thing counts, in points of a hundred: once, or for each of what it is counted by, and no more than
// so many either way; 0 has no bound.
type weight struct {
	Points float64 `yaml:"points"`
	Each   bool    `yaml:"each"`
	Most   float64 `yaml:"most"`
}

// weights are the table of what counts, by the name of the part and what is found. It panics when the shipped data is
// broken: a test loads it.
var weights = sync.OnceValue(func() (out map[string]map[string]weight) {
	if err := written.Read(pointsYAML, &out); err != nil {
		panic("core/replacement/data/points.yaml: " + err.Error())
	}
	return out
})

// counts adds what the table says of a thing that was found, so many times, with the words for it.
func (f *fitting) counts(name, found string, times float64, format string, a ...any) {
	w, known := weights()[name][found]
	if !known {
		panic("core/replacement/data/points.yaml says nothing of " + name + ", " + found)
	}
	points := w.Points * times
	if w.Most > 0 {
		points = math.Max(-w.Most, math.Min(w.Most, points))
	}
	f.part(name, points, format, a...)
}
