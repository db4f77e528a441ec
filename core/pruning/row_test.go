package pruning

import (
	"math"
	"testing"

	"mezzadro/core/catalogue"
)

// TestMeasuredRows: a hedge that was measured takes by its length, whatever number of plants stands in it: one of twelve
// metres four fifths of what one of fifteen takes; two yews over six metres are
// a hedge, and forty within one metre none.
func TestMeasuredRows(t *testing.T) {
	e, err := catalogue.Built().Species("taxus-baccata")
	if err != nil {
		t.Fatal(err)
	}
	of := func(count int, row, height, depth float64) (minutes, waste float64) {
		a := Ask{Species: &e, Count: count, RowM: row, HeightM: height, SpreadM: depth, Purpose: Hedge}
		return a.hedge()
	}
	const setUpShare = setUp // what it takes before the first metre
	m12, w12 := of(30, 12, 1.8, 0.7)
	m15, w15 := of(30, 15, 1.8, 0.7)
	if math.Abs((m12-setUpShare)/(m15-setUpShare)-0.8) > 1e-9 || math.Abs(w12/w15-0.8) > 1e-9 {
		t.Errorf("12 m take %.0f min and %.2f m³, 15 m %.0f and %.2f", m12, w12, m15, w15)
	}
	if few, _ := of(6, 12, 1.8, 0.7); few != m12 {
		t.Errorf("six plants over 12 m take %.0f min, thirty %.0f", few, m12)
	}
	if tall, _ := of(30, 12, 3, 0.7); tall < 1.5*m12 {
		t.Errorf("at 3 m it takes %.0f min, at 1.8 m %.0f", tall, m12)
	}
	for _, c := range []struct {
		count int
		row   float64
		hedge bool
	}{{2, 6, true}, {12, 0, true}, {3, 0, false}, {40, 1, false}} {
		got := Usual(&e, Of{Count: c.count, RowM: c.row, HeightM: 2}) == Hedge
		if got != c.hedge {
			t.Errorf("%d yews in a row of %.0f m: a hedge %v, want %v", c.count, c.row, got, c.hedge)
		}
	}
}
