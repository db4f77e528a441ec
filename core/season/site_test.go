package season

import (
	"math"
	"testing"

	"mezzadro/core/day"
)

func TestSite(t *testing.T) {
	c := foothill()
	pocket, wall := c.At(Site{FrostPocket: true}), c.At(Site{WarmWall: true, Urban: true})
	if !(pocket.ExtremeMinC < c.ExtremeMinC && c.ExtremeMinC < wall.ExtremeMinC) || pocket.Normals[0].TMinC >= c.Normals[0].TMinC {
		t.Errorf("coldest night in a hollow %.1f, in the open %.1f, in town by a wall %.1f", pocket.ExtremeMinC, c.ExtremeMinC, wall.ExtremeMinC)
	}
	if w := c.At(Site{Windy: true}); w.Normals[3].WindMS <= c.Normals[3].WindMS || w.ExtremeMinC != c.ExtremeMinC {
		t.Errorf("windy: %+v", w.Normals[3])
	}
	if same := c.At(Site{}); same.Normals[6] != c.Normals[6] {
		t.Errorf("a site like the open country: %+v", same.Normals[6])
	}
	for _, name := range []string{"foothill", "gulf", "prairie"} {
		c, known := climates[name]
		if !known {
			continue
		}
		for _, s := range []Site{{FrostPocket: true}, {WarmWall: true}, {Urban: true, WarmWall: true}, {FrostPocket: true, Windy: true, Urban: true, WarmWall: true}} {
			here := c.At(s)
			if err := here.Validate(); err != nil {
				t.Errorf("%s, %+v: %v", name, s, err)
			}
		}
	}
	// A frost pocket has its last frost later, a warm wall earlier.
	last := func(c Climate) day.Day {
		x, _ := NewYear(c.Daily(), nil).FrostDay(day.Of(2027, 3, 1), 0, 0.5, true)
		return x
	}
	if p, o, w := last(pocket), last(c), last(wall); !(p > o && o > w) {
		t.Errorf("last frost in the hollow %s, open %s, by the wall %s", p, o, w)
	}
}

func TestFrostDays(t *testing.T) {
	n := foothill().Daily()
	y := NewYear(n, nil)
	d := day.Of(2027, 3, 18)
	prev := day.Day(0)
	for _, by := range []float64{0.1, 0.5, 0.9} { // the surer one wants to be, the later
		x, ok := y.FrostDay(d, 0, by, true)
		if !ok || x <= prev || x.Month() < 2 || x.Month() > 5 {
			t.Errorf("last frost over in %.0f %% of years: %s after %s", 100*by, x, prev)
		}
		prev = x
	}
	prev = 0
	for _, by := range []float64{0.1, 0.5, 0.9} {
		x, ok := y.FrostDay(d, 0, by, false)
		if !ok || x <= prev || x.Month() < 9 {
			t.Errorf("first frost come in %.0f %% of years: %s after %s", 100*by, x, prev)
		}
		prev = x
	}
	if b, ok := y.FirstFrost(d, 0); !ok || !(b.Early < b.Mid && b.Mid < b.Late) || b.Late != prev {
		t.Errorf("first frost %+v, in nine years of ten by %s", b, prev)
	}
	if b, ok := NewYear(gulf().Daily(), nil).FirstFrost(d, KillingFrostC-6); ok || b.Mid != day.None {
		t.Errorf("a hard freeze on the gulf coast: %+v", b)
	}
	if kill, _ := y.FrostDay(d, KillingFrostC, 0.5, true); kill >= func() day.Day { x, _ := y.FrostDay(d, 0, 0.5, true); return x }() {
		t.Errorf("the last killing frost, %s, is not before the last frost", kill)
	}
	// What was seen counts: a frost in April was the last so far, one in September the first.
	seen := map[day.Day]Extremes{}
	for x := day.Of(2026, 12, 1); x <= day.Of(2027, 9, 20); x++ {
		seen[x] = Extremes{math.Max(2, n.TMin.At(x)), math.Max(8, n.TMax.At(x))}
	}
	seen[day.Of(2027, 4, 20)], seen[day.Of(2027, 9, 12)] = Extremes{-1, 9}, Extremes{-0.5, 12}
	known := NewYear(n, seen)
	if x, ok := known.FrostDay(d, 0, 0.5, true); !ok || x != day.Of(2027, 4, 20) {
		t.Errorf("the last frost seen was on 20 April, answered %s", x)
	}
	if x, ok := known.FrostDay(d, 0, 0.5, false); !ok || x != day.Of(2027, 9, 12) {
		t.Errorf("the first frost seen was on 12 September, answered %s", x)
	}
	// Frost anchors are those days, moved; where frost is rare, they have none.
	for a, want := range map[Anchor]day.Day{{LastFrost: 50, Days: 10}: day.Of(2027, 4, 30), {FirstFrost: 50, Days: -5}: day.Of(2027, 9, 7)} {
		b, ok := known.Resolve(a, d, nil)
		w, quick := known.When(a, d, nil)
		if !ok || !quick || b.Mid != want || w != want {
			t.Errorf("%+v: %s and %s, want %s", a, b.Mid, w, want)
		}
	}
	if x, ok := NewYear(gulf().Daily(), nil).FrostDay(d, KillingFrostC-6, 0.5, false); ok {
		t.Errorf("a hard freeze in most years on the gulf coast, by %s", x)
	}
}

// TestWhenAgreesWithResolve: the quick answer is the middle of the band.
func TestWhenAgreesWithResolve(t *testing.T) {
	for name, c := range climates {
		y := NewYear(c.Daily(), nil)
		d := day.Of(2027, 5, 2)
		for _, a := range []Anchor{{DegreeDays: 40}, {DegreeDays: 300, Days: -7}, {RisingH: 11.5}, {FallingH: 12.5, Days: 20}, {LastFrost: 90}, {FirstFrost: 10}} {
			b, ok := y.Resolve(a, d, nil)
			w, quick := y.When(a, d, nil)
			if ok && quick && abs(b.Mid.Sub(w)) > 1 {
				t.Errorf("%s, %+v: %s and %s", name, a, b.Mid, w)
			}
		}
	}
}
