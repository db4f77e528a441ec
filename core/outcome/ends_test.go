package outcome

import (
	"math/rand/v2"
	"testing"
)

// TestWithinOf: forecasts that hold as told look right, ones that see too far up or down look wrong, and to the right
// side; a few plants say little.
func TestWithinOf(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	drawn := func(n int, off float64) (out []Ends) {
		for range n {
			mid := 0.3 + 0.4*r.Float64()
			out = append(out, Ends{mid - 0.128, mid + 0.128, mid + off + 0.1*r.NormFloat64()})
		}
		return out
	}
	if w := WithinOf(drawn(100, 0)); !w.Right || w.In < 70 || w.In > 92 || w.In+w.Above+w.Below != w.Of {
		t.Errorf("as told: %+v", w)
	}
	if w := WithinOf(drawn(100, -0.2)); w.Right || w.Below < 5*w.Above+20 {
		t.Errorf("all died farther down: %+v", w)
	}
	if w := WithinOf(drawn(100, 0.2)); w.Right || w.Above < 5*w.Below+20 {
		t.Errorf("all lived farther up: %+v", w)
	}
	if w := WithinOf(drawn(3, 0.2)); !w.Right && w.High-w.Low < 0.4 {
		t.Errorf("three say too much: %+v", w)
	}
	if w := WithinOf([]Ends{{0.9, 1, 1}, {0, 0, 0.01}}); w.In != 2 {
		t.Errorf("at the very ends: %+v", w)
	}
}
