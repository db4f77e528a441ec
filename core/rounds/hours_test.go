package rounds

import "testing"

// TestClock: six hours of work take two people three; the ways they go together.
func TestClock(t *testing.T) {
	if got := Clock(360, 2, 40); got != 220 {
		t.Errorf("two people: %g", got)
	}
	if got := Clock(360, 0, 0); got != 360 {
		t.Errorf("nobody named is one: %g", got)
	}
	yard, quay := Point{45.9, 8.7}, Point{45.95, 8.72}
	if out, back := Way(&yard, []Point{quay}), Minutes(yard, quay); out < 1.9*back || out > 2.1*back || back < 8 || back > 30 {
		t.Errorf("there and back over six kilometres: %g, one way %g", out, back)
	}
	if one := Way(nil, []Point{quay}); one != 0 {
		t.Errorf("from nowhere: %g", one)
	}
	if none := Way(&yard, nil); none != 0 {
		t.Errorf("to nowhere: %g", none)
	}
}
