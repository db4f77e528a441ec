package job

import (
	"testing"

	"mezzadro/core/job/reason"
)

// TestLevels: every cost has a word, a worse one never a better word, and what is called good is what windows take for good.
func TestLevels(t *testing.T) {
	of := func(c Cost) (int, Level) {
		for i, l := range Levels() {
			if c.Int() <= l.UpTo {
				return i, l
			}
		}
		t.Fatalf("%d has no word", c.Int())
		return 0, Level{}
	}
	last := 0
	for c := 0.0; c <= 100; c++ {
		i, l := of(reason.Points(c))
		if i < last {
			t.Errorf("%g is called better than %g", c, c-1)
		}
		if l.Good == reason.Points(c).Over(Acceptable) {
			t.Errorf("%g: good is %v, windows take it as %v", c, l.Good, !l.Good)
		}
		last = i
	}
	if _, l := of(reason.Points(0)); l.Word != "best" {
		t.Errorf("nothing against it: %s", l.Word)
	}
	if _, l := of(Never); l.Word != "not allowed" {
		t.Errorf("forbidden: %s", l.Word)
	}
}
