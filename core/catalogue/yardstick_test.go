package catalogue

import (
	"encoding/json"
	"os"
	"strconv"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/season"
	"mezzadro/yardstick"
)

// places are the climates the dates of leaf and bloom are known in.
func places(t testing.TB) map[string]season.Climate {
	t.Helper()
	b, err := os.ReadFile("testdata/yardstick.json")
	if err != nil {
		t.Fatal(err)
	}
	var out map[string]season.Climate
	if err := json.Unmarshal(b, &out); err != nil {
		t.Fatal(err)
	}
	return out
}

// monthDay is a day such as 04-17 in a year.
func monthDay(t testing.TB, s string, year int) day.Day {
	t.Helper()
	m, d, _ := strings.Cut(s, "-")
	mm, err1 := strconv.Atoi(m)
	dd, err2 := strconv.Atoi(d)
	if err1 != nil || err2 != nil {
		t.Fatalf("%q is no month and day", s)
	}
	return day.Of(year, time.Month(mm), dd)
}

// off is how many days a day lies outside the span between two days of the year, whichever year; negative before it.
func off(t testing.TB, on day.Day, from, to string) int {
	t.Helper()
	best := 999
	for year := on.Year() - 1; year <= on.Year()+1; year++ {
		a, b := monthDay(t, from, year), monthDay(t, to, year)
		if b < a {
			b = monthDay(t, to, year+1)
		}
		e := max(0, on.Sub(b))
		if on < a {
			e = on.Sub(a)
		}
		if e*e < best*best {
			best = e
		}
	}
	return best
}

// TestYardstick: leaf and bloom fall where gardeners see them in eight climates, nine times in ten within a week.
func TestYardstick(t *testing.T) {
	in, near, all := 0, 0, 0
	known := places(t)
	for _, r := range yardstick.Rows(t, "testdata/phenology.csv") {
		c := known[r["place"]]
		e, err := Built().Species(r["species"])
		if err != nil {
			t.Fatal(err)
		}
		d := e.Dates(season.NewYear(c.Daily(), nil), c.Midwinter(day.Of(2027, 3, 1))+10)
		b, ok := d.BloomStart, d.Blooms
		if r["event"] == "leaf_out" {
			b, ok = d.LeafOut, d.InLeaf
		}
		all++
		switch o := off(t, b.Mid, r["from"], r["to"]); {
		case ok && o == 0:
			in, near = in+1, near+1
		case ok && o*o <= 49:
			near++
		default:
			t.Logf("%s, %s, %s: %s, %d days off (%s to %s)", r["place"], r["species"], r["event"], b.Mid, o, r["from"], r["to"])
		}
	}
	t.Logf("%d of %d dates inside their window, %d within a week of it", in, all, near)
	if near*10 < all*9 {
		t.Errorf("only %d of %d dates are within a week of their window", near, all)
	}
}

// TestNothingLeafsInTheCold: no kind that lives in a place is in leaf or bloom at a mean it cannot grow at, nor has a kind of
// cold winters leaves in the middle of a warm one; each comes into leaf at some time.
func TestNothingLeafsInTheCold(t *testing.T) {
	known := places(t)
	for _, c := range Built().Climates {
		known[c.ID] = c.Climate
	}
	looked, early := 0, 0
	for name, c := range known {
		n := c.Daily()
		y := season.NewYear(n, nil)
		midwinter := c.Midwinter(day.Of(2027, 3, 1))
		for _, e := range Built().Entries {
			if e.HardinessC > c.ExtremeMinC-1 { // not planted out there
				continue
			}
			looked++
			d := e.Dates(y, midwinter+10)
			switch {
			case !d.InLeaf:
				t.Errorf("%s: %s never comes into leaf", name, e.ID)
			case n.Mean(d.LeafOut.Mid) < 4 && (e.LeafSeason != Herbaceous || n.Mean(d.LeafOut.Mid) < 0.5): // bulbs come through the snow
				t.Errorf("%s: %s in leaf on %s at a mean of %.1f °C", name, e.ID, d.LeafOut.Mid, n.Mean(d.LeafOut.Mid))
			case e.LeafSeason == Deciduous && d.LeafOut.Mid < midwinter+25 && n.Mean(midwinter+15) < tropical:
				early++
				t.Logf("%s: %s in leaf on %s", name, e.ID, d.LeafOut.Mid)
			}
			if d.Blooms && n.Mean(d.BloomStart.Mid) < -2 {
				t.Errorf("%s: %s in bloom on %s at a mean of %.1f °C", name, e.ID, d.BloomStart.Mid, n.Mean(d.BloomStart.Mid))
			}
		}
	}
	t.Logf("%d kinds at places, %d in leaf within 25 days of midwinter", looked, early)
	if early > looked/700 {
		t.Errorf("%d of %d kinds are in leaf within 25 days of midwinter", early, looked)
	}
}

// tropical is the midwinter mean from which nobody plants kinds of cold winters, °C.
const tropical = 18

// TestWarmWintersComeLate: less chill never brings leaf sooner at the same warmth, more warmth never later.
func TestWarmWintersComeLate(t *testing.T) {
	c := places(t)["mild-lake-in-foothills"]
	e, err := Built().Species("malus-domestica")
	if err != nil {
		t.Fatal(err)
	}
	midwinter := c.Midwinter(day.Of(2027, 3, 1))
	leaf := func(autumn, spring float64) day.Day {
		seen := map[day.Day]season.Extremes{}
		n := c.Daily()
		for d := midwinter - 100; d < midwinter+150; d++ {
			shift := spring
			if d < midwinter {
				shift = autumn
			}
			seen[d] = season.Extremes{Min: n.TMin.At(d) + shift, Max: n.TMax.At(d) + shift}
		}
		return e.Dates(season.NewYear(n, seen), midwinter+60).LeafOut.Mid
	}
	last := day.Day(0)
	for _, autumn := range []float64{-6, -3, 0, 3, 6, 9} {
		d := leaf(autumn, 0)
		if d < last {
			t.Errorf("autumn %+g °C: leaf on %s, after a cooler one on %s", autumn, d, last)
		}
		last = d
	}
	if late := leaf(9, 0).Sub(leaf(-6, 0)); late < 4 {
		t.Errorf("an autumn without chill delays leaf by %d days only", late)
	}
	for _, spring := range []float64{-3, 0, 3} {
		if a, b := leaf(0, spring), leaf(0, spring+2); b >= a {
			t.Errorf("spring %+g °C: leaf on %s, 2 °C warmer on %s", spring, a, b)
		}
	}
}
