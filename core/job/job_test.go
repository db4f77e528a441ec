package job

import (
	"testing"

	"mezzadro/core/day"
)

// springCut is a curve of 60 days: forbidden for ten, dear for frost until day 30, dear for heat from day 50.
func springCut() Curve {
	start := day.Of(2027, 3, 1)
	c := Curve{Start: start, Days: 60}
	c.Because("past", "before today", func(d day.Day) Cost {
		if d < start+10 {
			return Never
		}
		return 0
	})
	c.Because("frost", "frost may still come", func(d day.Day) Cost { return Cost(90 - 3*d.Sub(start)) })
	c.Because("heat", "sun on opened bark", func(d day.Day) Cost { return Cost(20 * (d.Sub(start) - 50)) })
	c.Because("nothing", "never costs", func(day.Day) Cost { return 0 })
	return c
}

func TestCurve(t *testing.T) {
	c := springCut()
	if len(c.Reasons) != 3 {
		t.Errorf("%d reasons, want the three that cost something", len(c.Reasons))
	}
	for _, want := range []struct {
		after int
		cost  Cost
		parts int
	}{{-1, Never, 0}, {0, Never, 2}, {9, Never, 2}, {10, 60, 1}, {20, 30, 1}, {30, 0, 0}, {52, 40, 1}, {59, Worst, 1}, {60, Never, 0}} {
		d := c.Start + day.Day(want.after)
		if got := c.On(d); got != want.cost {
			t.Errorf("day %d costs %d, want %d", want.after, got, want.cost)
		}
		if got := c.Why(d); len(got) != want.parts {
			t.Errorf("day %d: %v, want %d reasons", want.after, got, want.parts)
		}
	}
}

func TestWindows(t *testing.T) {
	c := springCut()
	got := c.Windows(Acceptable)
	if len(got) != 1 || got[0].From != c.Start+20 || got[0].To != c.Start+51 || got[0].Best != c.Start+30 || got[0].Cost != 0 {
		t.Errorf("%+v", got)
	}
	if best, ok := c.Best(c.Start + 40); !ok || best != c.Start+40 {
		t.Errorf("best day from the fortieth: %s, %v", best, ok)
	}
	c.Because("ban", "nests", func(day.Day) Cost { return Never })
	if got := c.Windows(Worst); len(got) != 0 {
		t.Errorf("windows on forbidden days: %+v", got)
	}
	if _, ok := c.Best(c.Start); ok {
		t.Error("a best day among forbidden ones")
	}
	hovers := Curve{Start: c.Start, Days: 12}
	costs := []Cost{40, 29, 31, 30, 32, 29, 50, 29, 31, 31, 31, 31}
	hovers.Because("heat", "heat", func(d day.Day) Cost { return costs[d-c.Start] })
	if got := hovers.Windows(Acceptable); len(got) != 2 || got[0].From != c.Start+1 || got[0].To != c.Start+5 || got[1].From != c.Start+7 || got[1].To != c.Start+7 {
		t.Errorf("a curve that hovers round the limit: %+v", got)
	}
	// A higher limit never shortens the windows.
	last := 0
	for limit := Cost(0); limit <= Worst; limit += 5 {
		days := 0
		for _, w := range springCut().Windows(limit) {
			days += w.To.Sub(w.From) + 1
		}
		if days < last {
			t.Fatalf("limit %d: %d days, before %d", limit, days, last)
		}
		last = days
	}
}
